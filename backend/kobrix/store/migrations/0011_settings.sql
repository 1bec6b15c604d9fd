-- What holds for the whole database: the hash of its passphrase.
CREATE TABLE settings (
    name TEXT PRIMARY KEY,
    value TEXT NOT NULL
) STRICT;

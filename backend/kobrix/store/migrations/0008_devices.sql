-- Phones and tablets that were let in; of what they show at the door only the hash is kept.
CREATE TABLE devices (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    digest BLOB NOT NULL UNIQUE,
    paired_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
) STRICT;

-- Parts that a workshop meets, for every job: rotors and calipers with the dimensions that decide, as they were typed.
CREATE TABLE library (
    id INTEGER PRIMARY KEY,
    part TEXT NOT NULL CHECK (json_valid(part))
) STRICT;

-- The last search of a job: what was asked, on which revision, and what it found.
CREATE TABLE searches (
    job_id INTEGER PRIMARY KEY REFERENCES jobs (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    ask TEXT NOT NULL CHECK (json_valid(ask)),
    found TEXT CHECK (found IS NULL OR json_valid(found)),
    seconds REAL
) STRICT;

-- Photographs by the hash of their content; a job's notes name the hash.
CREATE TABLE photos (
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    sha256 TEXT NOT NULL CHECK (length(sha256) = 64),
    media_type TEXT NOT NULL,
    content BLOB NOT NULL,
    added_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now')),
    PRIMARY KEY (job_id, sha256)
) STRICT;

-- A job that was put away can be brought back until it is thrown away for good.
ALTER TABLE jobs ADD COLUMN gone INTEGER NOT NULL DEFAULT 0 CHECK (gone IN (0, 1));

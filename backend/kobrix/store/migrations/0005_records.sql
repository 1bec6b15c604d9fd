-- What happened at the vehicle: stops, pushes, signatures. A record is written once and never changed; one that is struck out, or
-- counted again, is told so by a record of its own. `key` is made where it was written: sent twice, it is the same record.
CREATE TABLE records (
    id INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    kind TEXT NOT NULL,
    body TEXT NOT NULL CHECK (json_valid(body)),
    made_at TEXT NOT NULL,
    UNIQUE (job_id, key)
) STRICT;

CREATE INDEX records_of_job ON records (job_id, id);

CREATE TRIGGER records_stay BEFORE UPDATE ON records
BEGIN
    SELECT RAISE(ABORT, 'a record is never changed');
END;

-- Samples of stops that a logger wrote, each stop's own, zipped JSON by the names of the file; written once, as the record that names them.
CREATE TABLE traces (
    id INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    samples BLOB NOT NULL,
    UNIQUE (job_id, key)
) STRICT;

CREATE TRIGGER traces_stay BEFORE UPDATE ON traces
BEGIN
    SELECT RAISE(ABORT, 'a trace is never changed');
END;

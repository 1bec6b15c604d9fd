-- A job is one document in the open format; its revision rises with every change, undo and redo.
CREATE TABLE jobs (
    id INTEGER PRIMARY KEY,
    name TEXT NOT NULL,
    document TEXT NOT NULL CHECK (json_valid(document)),
    revision INTEGER NOT NULL DEFAULT 0,
    created_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now')),
    changed_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
) STRICT;

-- Steps of the person, in order. A gesture (one drag) is one step. Undone steps wait for redo until a new one is made.
CREATE TABLE changes (
    id INTEGER PRIMARY KEY,
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    gesture TEXT,
    label TEXT NOT NULL,
    edits TEXT NOT NULL CHECK (json_valid(edits)),
    inverse TEXT NOT NULL CHECK (json_valid(inverse)),
    undone INTEGER NOT NULL DEFAULT 0 CHECK (undone IN (0, 1)),
    made_at TEXT NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))
) STRICT;

CREATE INDEX changes_of_job ON changes (job_id, undone, id);

"""Jobs and their changes: stored at once, undone and redone, and never overwritten by an edit on an older revision."""

import json
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from kobrix.core.errors import NotFound, Stale
from kobrix.store.connection import writing
from kobrix.store.edits import Edit, apply, value_at

Check = Callable[[Any], None]
_ROW = """
SELECT id, name, document, revision, changed_at,
    EXISTS (SELECT 1 FROM changes WHERE job_id = jobs.id AND undone = 0) AS can_undo,
    EXISTS (SELECT 1 FROM changes WHERE job_id = jobs.id AND undone = 1) AS can_redo
FROM jobs
"""


@dataclass(frozen=True)
class Stored:
    """A job as stored: `id`, `name`, `document`, `revision`, `changed_at`, and whether a step can be undone or redone."""

    id: int
    name: str
    document: dict[str, Any]
    revision: int
    changed_at: str
    can_undo: bool
    can_redo: bool


def _stored(row: sqlite3.Row) -> Stored:
    return Stored(
        row["id"], row["name"], json.loads(row["document"]), row["revision"], row["changed_at"],
        bool(row["can_undo"]), bool(row["can_redo"]),
    )  # fmt: skip


def all_jobs(db: sqlite3.Connection) -> list[Stored]:
    """Every job that was not put away, the one changed last first."""
    return [_stored(row) for row in db.execute(f"{_ROW} WHERE gone = 0 ORDER BY changed_at DESC, id DESC")]


def put_away(db: sqlite3.Connection, job_id: int, gone: bool) -> Stored:
    """Take a job off the list, or bring it back. Raises NotFound."""
    with writing(db):
        db.execute("UPDATE jobs SET gone = ? WHERE id = ?", (int(gone), job_id))
    return get(db, job_id)


def revision(db: sqlite3.Connection, job_id: int) -> int | None:
    """The revision that is stored of a job, None when there is no such job."""
    row = db.execute("SELECT revision FROM jobs WHERE id = ?", (job_id,)).fetchone()
    return None if row is None else int(row[0])


def get(db: sqlite3.Connection, job_id: int) -> Stored:
    """One job. Raises NotFound."""
    row = db.execute(f"{_ROW} WHERE id = ?", (job_id,)).fetchone()
    if row is None:
        raise NotFound("job", str(job_id))
    return _stored(row)


def add(db: sqlite3.Connection, document: dict[str, Any]) -> Stored:
    """Store a new job `document` (checked by the caller)."""
    with writing(db):
        cursor = db.execute(
            "INSERT INTO jobs (name, document) VALUES (?, ?)", (document["name"], json.dumps(document, ensure_ascii=False))
        )
    return get(db, int(cursor.lastrowid or 0))


def _save(db: sqlite3.Connection, job_id: int, document: dict[str, Any]) -> None:
    db.execute(
        "UPDATE jobs SET document = ?, name = ?, revision = revision + 1,"
        " changed_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE id = ?",
        (json.dumps(document, ensure_ascii=False), document["name"], job_id),
    )


def _both(stored: Stored, edits: list[Edit]) -> list[dict[str, object]]:
    return [{"path": e["path"], "yours": e.get("value"), "stored": value_at(stored.document, e["path"])[0]} for e in edits]


def change(
    db: sqlite3.Connection, job_id: int, base: int, edits: list[Edit], label: str, gesture: str | None, check: Check
) -> Stored:
    """Make `edits` on revision `base` of a job, as one step named `label`; edits of one `gesture` are one step.

    `check` raises when the changed document is not a job, and nothing is stored then. Raises Stale with both values
    where the job was changed since, NotFound, BadEntry.
    """
    with writing(db):
        stored = get(db, job_id)
        if stored.revision != base:
            raise Stale(base, stored.revision, _both(stored, edits))
        document, inverse = apply(stored.document, edits)
        check(document)
        if document == stored.document:
            return stored
        last = db.execute(
            "SELECT id, gesture, edits, inverse FROM changes WHERE job_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1", (job_id,)
        ).fetchone()
        db.execute("DELETE FROM changes WHERE job_id = ? AND undone = 1", (job_id,))
        if gesture is not None and last is not None and last["gesture"] == gesture:
            together = json.dumps(json.loads(last["edits"]) + edits)
            back = json.dumps(inverse + json.loads(last["inverse"]))
            db.execute("UPDATE changes SET edits = ?, inverse = ? WHERE id = ?", (together, back, last["id"]))
        else:
            db.execute(
                "INSERT INTO changes (job_id, gesture, label, edits, inverse) VALUES (?, ?, ?, ?, ?)",
                (job_id, gesture, label, json.dumps(edits), json.dumps(inverse)),
            )
        _save(db, job_id, document)
    return get(db, job_id)


def _step(db: sqlite3.Connection, job_id: int, base: int, undone: int, column: str, order: str, what: str) -> Stored:
    with writing(db):
        stored = get(db, job_id)
        if stored.revision != base:
            raise Stale(base, stored.revision, [])
        row = db.execute(
            f"SELECT id, {column} AS edits FROM changes WHERE job_id = ? AND undone = ? ORDER BY id {order} LIMIT 1",
            (job_id, undone),
        ).fetchone()
        if row is None:
            raise NotFound("step", what)
        document, _ = apply(stored.document, json.loads(row["edits"]))
        db.execute("UPDATE changes SET undone = ? WHERE id = ?", (1 - undone, row["id"]))
        _save(db, job_id, document)
    return get(db, job_id)


def undo(db: sqlite3.Connection, job_id: int, base: int) -> Stored:
    """Undo the last step. Raises NotFound when there is none, Stale."""
    return _step(db, job_id, base, 0, "inverse", "DESC", "to undo")


def redo(db: sqlite3.Connection, job_id: int, base: int) -> Stored:
    """Make the last undone step again. Raises NotFound when there is none, Stale."""
    return _step(db, job_id, base, 1, "edits", "ASC", "to redo")

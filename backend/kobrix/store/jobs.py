"""Jobs and their changes: stored at once, undone and redone, and never overwritten by an edit on an older revision.

A change is worked out and checked outside the write lock, on the revision that it was made on; then one short transaction
compares the revision and sets the document. Whoever comes second on one revision is told so, and nothing of theirs is lost.
"""

import json
import sqlite3
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path

from pydantic_core import from_json, to_json

from kobrix.core.errors import KobrixError, NotFound, Stale
from kobrix.fileformat.paths import Edit, JsonObject
from kobrix.store.connection import open_db, writing
from kobrix.store.edits import apply, of_older, run, value_at

Check = Callable[[JsonObject], None]
_ROW = """
SELECT id, name, document, revision, changed_at,
    (SELECT label || coalesce(' (' || made_by || ')', '') FROM changes WHERE job_id = jobs.id AND undone = 0 ORDER BY id DESC LIMIT 1) AS undo,
    (SELECT label || coalesce(' (' || made_by || ')', '') FROM changes WHERE job_id = jobs.id AND undone = 1 ORDER BY id ASC LIMIT 1) AS redo
FROM jobs
"""


@dataclass(frozen=True)
class Stored:
    """A job as stored: `id`, `name`, `document`, `revision`, `changed_at`; the labels of the step that `undo` takes back and of
    the one that `redo` makes again, None where there is none."""

    id: int
    name: str
    document: JsonObject
    revision: int
    changed_at: str
    undo: str | None
    redo: str | None


def _stored(row: sqlite3.Row) -> Stored:
    return Stored(
        row["id"], row["name"], from_json(row["document"]), row["revision"], row["changed_at"],
        row["undo"], row["redo"],
    )  # fmt: skip


def all_jobs(db: sqlite3.Connection, gone: bool = False) -> list[Stored]:
    """Every job on the list, or with `gone` every one that was put away; the one changed last first."""
    return [_stored(row) for row in db.execute(f"{_ROW} WHERE gone = ? ORDER BY changed_at DESC, id DESC", (int(gone),))]


def put_away(db: sqlite3.Connection, job_id: int, gone: bool) -> Stored:
    """Take a job off the list, or bring it back. Raises NotFound."""
    with writing(db):
        when = "strftime('%Y-%m-%dT%H:%M:%SZ', 'now')" if gone else "NULL"
        db.execute(f"UPDATE jobs SET gone = ?, gone_at = {when} WHERE id = ?", (int(gone), job_id))
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


def add(db: sqlite3.Connection, document: JsonObject) -> Stored:
    """Store a new job `document` (checked by the caller)."""
    with writing(db):
        cursor = db.execute("INSERT INTO jobs (name, document) VALUES (?, ?)", (document["name"], _text(document)))
    return get(db, int(cursor.lastrowid or 0))


def _text(document: JsonObject) -> str:
    return to_json(document).decode()


def _set(db: sqlite3.Connection, job_id: int, base: int, document: JsonObject) -> bool:
    """Put a document in place of the one of revision `base`; whether that was still the stored one."""
    cursor = db.execute(
        "UPDATE jobs SET document = ?, name = ?, revision = revision + 1,"
        " changed_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE id = ? AND revision = ?",
        (_text(document), document["name"], job_id, base),
    )
    return cursor.rowcount == 1


def stale(base: int, stored: Stored, edits: list[Edit]) -> Stale:
    """The refusal of `edits` on an older revision `base`, with both values of every place they name."""
    both = [
        {"path": e["path"], "yours": e.get("value"), "stored": value_at(stored.document, e["path"])[0]} for e in edits
    ]  # fmt: skip
    return Stale(base, stored.revision, both)


def change(
    path: Path, job_id: int, base: int, edits: list[Edit], label: str, gesture: str | None, check: Check, by: str | None = None
) -> Stored:
    """Make `edits` on revision `base` of a job, as one step named `label`, made `by` whom; edits of one `gesture` are one step.

    `check` raises when the changed document is not a job, and nothing is stored then. Raises Stale with both values
    where the job was changed since, NotFound, BadEntry.
    """
    with open_db(path) as db:
        stored = get(db, job_id)
        if stored.revision != base:
            raise stale(base, stored, edits)
        document, forth, back = apply(stored.document, edits)
        check(document)
        if _text(document) == _text(stored.document):
            return stored
        with writing(db):
            if not _set(db, job_id, base, document):
                raise stale(base, get(db, job_id), edits)
            last = db.execute(
                "SELECT id, gesture, edits, inverse FROM changes WHERE job_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1",
                (job_id,),
            ).fetchone()
            db.execute("DELETE FROM changes WHERE job_id = ? AND undone = 1", (job_id,))
            if gesture is not None and last is not None and last["gesture"] == gesture:
                together = json.dumps(json.loads(last["edits"]) + forth)
                all_back = json.dumps(back + json.loads(last["inverse"]))
                db.execute("UPDATE changes SET edits = ?, inverse = ? WHERE id = ?", (together, all_back, last["id"]))
            else:
                db.execute(
                    "INSERT INTO changes (job_id, gesture, label, edits, inverse, made_by) VALUES (?, ?, ?, ?, ?, ?)",
                    (job_id, gesture, label, json.dumps(forth), json.dumps(back), by),
                )
        return get(db, job_id)


@dataclass(frozen=True)
class _Step:
    """A step of the history: its row's `id`, whether it is `undone`, and what makes it again (`edits`) or takes it back."""

    id: int
    undone: int
    edits: str
    inverse: str

    def turned(self, document: JsonObject) -> JsonObject:
        """The `document` with the step taken back, or made again where it was undone."""
        kept = json.loads(self.edits if self.undone else self.inverse)
        return run(document, of_older(document, kept))


def _steps(db: sqlite3.Connection, job_id: int, undone: int) -> Iterator[_Step]:
    """The steps that can be made again, or taken back, in the order in which they can."""
    order = "ASC" if undone else "DESC"
    rows = db.execute(
        f"SELECT id, undone, edits, inverse FROM changes WHERE job_id = ? AND undone = ? ORDER BY id {order}", (job_id, undone)
    )
    yield from (_Step(*row) for row in rows)


def _turn(path: Path, job_id: int, base: int, undone: int, check: Check) -> Stored:
    with open_db(path) as db:
        stored = get(db, job_id)
        if stored.revision != base:
            raise stale(base, stored, [])
        step = next(_steps(db, job_id, undone), None)
        if step is None:
            raise NotFound("step", "to redo" if undone else "to undo")
        document = step.turned(stored.document)
        check(document)
        with writing(db):
            if not _set(db, job_id, base, document):
                raise stale(base, get(db, job_id), [])
            db.execute("UPDATE changes SET undone = ? WHERE id = ?", (1 - undone, step.id))
        return get(db, job_id)


def undo(path: Path, job_id: int, base: int, check: Check) -> Stored:
    """Undo the last step; what it would leave must pass `check`, else nothing is stored. Raises NotFound when there is none, Stale."""
    return _turn(path, job_id, base, 0, check)


def redo(path: Path, job_id: int, base: int, check: Check) -> Stored:
    """Make the last undone step again, as `undo` takes one back. Raises NotFound when there is none, Stale."""
    return _turn(path, job_id, base, 1, check)


def bring_round(
    path: Path, job_id: int, fine: Callable[[JsonObject], bool], tidied: Callable[[JsonObject], JsonObject]
) -> Stored:
    """Give a job back that an older Kobrix left so that it cannot be opened, with as little undone of it as can be.

    What `fine` says is a job is sought in this order: what is stored; that `tidied` (what cannot stand taken out); with the steps
    that were undone made again, nearest first; with the last steps taken back, nearest first. Raises NotFound where none is.
    """
    with open_db(path) as db:
        stored = get(db, job_id)
        found, turned = _sound(db, stored, fine, tidied)
        if found is None:
            raise NotFound("state", "of this job that can be opened")
        with writing(db):
            if _set(db, job_id, stored.revision, found):
                db.executemany("UPDATE changes SET undone = ? WHERE id = ?", [(1 - step.undone, step.id) for step in turned])
        return get(db, job_id)


def _sound(
    db: sqlite3.Connection, stored: Stored, fine: Callable[[JsonObject], bool], tidied: Callable[[JsonObject], JsonObject]
) -> tuple[JsonObject | None, list[_Step]]:
    """The nearest state of a job that is one, and the steps that were turned to get there."""
    for document in (stored.document, tidied(stored.document)):
        if fine(document):
            return document, []
    for undone in (1, 0):
        document, turned = stored.document, []
        for step in _steps(db, stored.id, undone):
            try:
                document = step.turned(document)
            except KobrixError:
                break
            turned.append(step)
            if fine(document):
                return document, turned
    return None, []

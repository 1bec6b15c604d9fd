"""Records of a job: appended, told apart by the key that was made where they were written, and never changed."""

import sqlite3
from dataclasses import dataclass
from typing import Any

from pydantic_core import from_json, to_json

from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat import files
from kobrix.fileformat.records import BODIES, FiledRecord
from kobrix.store.connection import writing

MOST = 5000  # records of one job


@dataclass(frozen=True)
class Record:
    """A record: its `id` in this database, its `key`, its `kind`, when it was `made_at`, its `body`; `struck`: why it does not count."""

    id: int
    key: str
    kind: str
    made_at: str
    body: dict[str, Any]
    struck: str | None = None


def last_id(db: sqlite3.Connection, job_id: int) -> int:
    """The number of the last record of a job, 0 where it has none: it rises with each."""
    row = db.execute("SELECT coalesce(max(id), 0) FROM records WHERE job_id = ?", (job_id,)).fetchone()
    return int(row[0])


def all_of(db: sqlite3.Connection, job_id: int) -> list[Record]:
    """The records of a job in their order, each with the reason for which it was struck out."""
    rows = db.execute("SELECT id, key, kind, made_at, body FROM records WHERE job_id = ? ORDER BY id", (job_id,)).fetchall()
    found = [Record(r["id"], r["key"], r["kind"], r["made_at"], from_json(r["body"])) for r in rows]
    struck: dict[str, str | None] = {}
    for record in found:
        if record.kind == "struck":
            struck[record.body["of"]] = record.body.get("why")
    return [Record(r.id, r.key, r.kind, r.made_at, r.body, struck.get(r.key)) for r in found if r.kind != "struck"]


def filed(db: sqlite3.Connection, job_id: int) -> list[dict[str, Any]]:
    """Every record as the job's file has it, those that strike others out too."""
    rows = db.execute("SELECT key, kind, made_at, body FROM records WHERE job_id = ? ORDER BY id", (job_id,)).fetchall()
    return [{"key": r["key"], "kind": r["kind"], "made_at": r["made_at"], "body": from_json(r["body"])} for r in rows]


def checked(kind: str, body: Any) -> dict[str, Any]:
    """What a record of a `kind` says, as it is kept. Raises BadEntry, BadFile."""
    if kind not in BODIES:
        raise BadEntry("kind", repr(kind[:40]), ", ".join(BODIES))
    return dict(files.check(BODIES[kind], body).model_dump(exclude_none=True, exclude_unset=True))


def add(db: sqlite3.Connection, job_id: int, key: str, kind: str, body: Any, made_at: str | None = None) -> Record:
    """Keep a record; sent twice under one key it is kept once. Raises NotFound, BadEntry, BadFile."""
    kept = checked(kind, body)
    with writing(db):
        if db.execute("SELECT 1 FROM jobs WHERE id = ?", (job_id,)).fetchone() is None:
            raise NotFound("job", str(job_id))
        if db.execute("SELECT count(*) FROM records WHERE job_id = ?", (job_id,)).fetchone()[0] >= MOST:
            raise BadEntry("records", "one more", f"up to {MOST} of one job")
        if (
            kind == "struck"
            and db.execute("SELECT 1 FROM records WHERE job_id = ? AND key = ?", (job_id, kept["of"])).fetchone() is None
        ):
            raise NotFound("record", kept["of"])
        db.execute(
            "INSERT INTO records (job_id, key, kind, body, made_at) VALUES (?, ?, ?, ?,"
            " coalesce(?, strftime('%Y-%m-%dT%H:%M:%SZ', 'now'))) ON CONFLICT (job_id, key) DO NOTHING",
            (job_id, key, kind, to_json(kept).decode(), made_at),
        )
        row = db.execute(
            "SELECT id, key, kind, made_at, body FROM records WHERE job_id = ? AND key = ?", (job_id, key)
        ).fetchone()
    return Record(row["id"], row["key"], row["kind"], row["made_at"], from_json(row["body"]))


def add_filed(db: sqlite3.Connection, job_id: int, rows: list[FiledRecord]) -> None:
    """Keep the records of a job's file. Raises BadEntry, BadFile."""
    for row in rows:
        add(db, job_id, row.key, row.kind, row.body, row.made_at)

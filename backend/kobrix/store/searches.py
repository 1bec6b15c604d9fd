"""The last search of a job: kept, so that it is there after a reload or a restart."""

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

from kobrix.fileformat.paths import JsonObject
from kobrix.store.connection import writing


@dataclass(frozen=True)
class Kept:
    """A search: its `ask`, the `revision` of the job it was asked on, what was `found` in how many `seconds`, None until then."""

    ask: JsonObject
    revision: int
    found: Any
    seconds: float | None


def get(db: sqlite3.Connection, job_id: int) -> Kept | None:
    """The last search of a job, None when there was none."""
    row = db.execute("SELECT ask, revision, found, seconds FROM searches WHERE job_id = ?", (job_id,)).fetchone()
    if row is None:
        return None
    found = None if row["found"] is None else json.loads(row["found"])
    return Kept(json.loads(row["ask"]), row["revision"], found, row["seconds"])


def begin(db: sqlite3.Connection, job_id: int, revision: int, ask: JsonObject) -> None:
    """Keep what is asked of a job in place of the last search."""
    with writing(db):
        db.execute(
            "INSERT INTO searches (job_id, revision, ask) VALUES (?, ?, ?) ON CONFLICT (job_id) DO UPDATE SET"
            " revision = excluded.revision, ask = excluded.ask, found = NULL, seconds = NULL",
            (job_id, revision, json.dumps(ask, ensure_ascii=False)),
        )


def end(db: sqlite3.Connection, job_id: int, ask: JsonObject, found: object, seconds: float) -> None:
    """Keep what a search found, unless something else was asked since."""
    with writing(db):
        db.execute(
            "UPDATE searches SET found = ?, seconds = ? WHERE job_id = ? AND ask = ?",
            (json.dumps(found, ensure_ascii=False), seconds, job_id, json.dumps(ask, ensure_ascii=False)),
        )

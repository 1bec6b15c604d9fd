"""Samples of recorded stops, each under the key that its record names."""

import sqlite3
import zlib
from typing import Any

from pydantic_core import from_json, to_json

from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat.records import FiledTrace
from kobrix.store.connection import writing

MOST = 400  # traces of one job


def add(db: sqlite3.Connection, job_id: int, trace: FiledTrace) -> None:
    """Keep a trace; under the same key it is kept once. Raises NotFound, BadEntry."""
    samples = zlib.compress(to_json(trace.model_dump(exclude_none=True, exclude={"key"})))
    with writing(db):
        if db.execute("SELECT 1 FROM jobs WHERE id = ?", (job_id,)).fetchone() is None:
            raise NotFound("job", str(job_id))
        if db.execute("SELECT count(*) FROM traces WHERE job_id = ?", (job_id,)).fetchone()[0] >= MOST:
            raise BadEntry("traces", "one more", f"up to {MOST} of one job")
        db.execute("INSERT OR IGNORE INTO traces (job_id, key, samples) VALUES (?, ?, ?)", (job_id, trace.key, samples))


def get(db: sqlite3.Connection, job_id: int, key: str) -> FiledTrace:
    """A trace of a job by its key. Raises NotFound."""
    row = db.execute("SELECT samples FROM traces WHERE job_id = ? AND key = ?", (job_id, key)).fetchone()
    if row is None:
        raise NotFound("trace", key)
    return FiledTrace.model_validate({"key": key, **from_json(zlib.decompress(row["samples"]))})


def filed(db: sqlite3.Connection, job_id: int) -> list[dict[str, Any]]:
    """Every trace as the job's file has it."""
    rows = db.execute("SELECT key, samples FROM traces WHERE job_id = ? ORDER BY id", (job_id,)).fetchall()
    return [{"key": r["key"], **from_json(zlib.decompress(r["samples"]))} for r in rows]

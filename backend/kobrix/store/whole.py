"""A job with all that happened to it: what is undoable, its records, its traces; as one file goes in and out."""

import sqlite3
from typing import Any

from kobrix.fileformat.job import Job
from kobrix.store import jobs, records, traces

HAPPENED = {"records", "traces"}


def add(db: sqlite3.Connection, job: Job) -> jobs.Stored:
    """Keep a job from its file with its records and traces. Raises BadEntry, BadFile before anything is kept."""
    for row in job.records:
        records.checked(row.kind, row.body)
    stored = jobs.add(db, job.model_dump(exclude_unset=True, exclude=HAPPENED))
    for trace in job.traces:
        traces.add(db, stored.id, trace)
    records.add_filed(db, stored.id, job.records)
    return stored


def document(db: sqlite3.Connection, job_id: int) -> dict[str, Any]:
    """A job as its file has it, with its records and traces. Raises NotFound."""
    whole: dict[str, Any] = dict(jobs.get(db, job_id).document)
    for name, rows in (("records", records.filed(db, job_id)), ("traces", traces.filed(db, job_id))):
        if rows:
            whole[name] = rows
    return whole

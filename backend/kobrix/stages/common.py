"""What the routes of every stage share: the database, a job as stored, the problems they may answer with, a response as it stands."""

import os
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any, Literal

import fastapi
from fastapi import APIRouter, Depends
from fastapi.responses import Response
from fastapi.routing import APIRoute
from pydantic import BaseModel, ConfigDict
from pydantic_core import to_json
from typing_extensions import TypedDict

from kobrix.core.errors import BadFile
from kobrix.fileformat import DESCRIBED, files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.store import jobs, records
from kobrix.store.connection import open_db
from kobrix.store.records import Record


class Request(BaseModel):
    """Base of what is sent: nothing may stand in it that is not named."""

    model_config = ConfigDict(extra="forbid")


class Conflict(TypedDict):
    """A place that was changed elsewhere too: what was sent, and what is stored."""

    path: str
    yours: Any
    stored: Any


class Problem(BaseModel):
    """An error (RFC 9457)."""

    type: str
    title: str
    status: int
    detail: str
    problems: list[str] = []
    field: str | None = None
    revision: int | None = None
    both: list[Conflict] = []


class Route(APIRoute):
    """A route whose shapes are made only where they are described: a server answers as it stands, and starts in half the time."""

    def __init__(self, path: str, endpoint: Callable[..., Any], **more: Any) -> None:
        if DESCRIBED not in os.environ:
            more.update(response_model=None, responses=None)
        super().__init__(path, endpoint, **more)


ERRORS: dict[int | str, dict[str, Any]] = {code: {"model": Problem} for code in (403, 404, 409, 413, 422, 503)}
Progress = Literal["empty", "begun", "doubt", "ready"]


class Standing(TypedDict):
    """How far a stage is: its state, and the words that say so."""

    state: Progress
    words: str


@dataclass(frozen=True)
class Stage:
    """One stage of the job: its `title`, the `path` of its page, its `router`; how it stands in the strip, None where it has no
    place there; what its page shows of a stored job and a setup by name, sent back with a change made on that page, and the
    `view` that this is."""

    title: str
    path: str
    router: APIRouter
    standing: "Callable[[StoredJob], Standing] | None" = None
    shown: "Callable[[StoredJob, str | None], object] | None" = None
    view: type | None = None


def database(request: fastapi.Request) -> Path:
    """Path of the database this server keeps."""
    path: Path = request.app.state.database
    return path


Database = Annotated[Path, Depends(database)]


def as_json(document: Any) -> Response:
    """A response as it stands: its shape is what the service returns, checked by mypy, and not paid for at each call."""
    return Response(to_json(document), media_type="application/json")


@dataclass(frozen=True)
class StoredJob:
    """A job as it is stored now, read and checked: the `job`, its `revision`, and the `records` of what happened."""

    job: Job
    revision: int
    records: tuple[Record, ...] = ()


def stored_job(path: Path, job_id: int) -> StoredJob:
    """The job by its number. Raises NotFound, BadFile."""
    with open_db(path) as db:
        stored = jobs.get(db, job_id)
        happened = tuple(records.all_of(db, job_id))
    return StoredJob(files.check(Job, stored.document), stored.revision, happened)


def setup_in_state(job: Job, name: str, load: int) -> Setup:
    """The setup by `name` of a `job`, that has the load state asked for. Raises NotFound, BadFile."""
    setup = job.setup(name)
    states = len(setup.vehicle.load_states)
    if not 0 <= load < max(1, states):
        raise BadFile([f"load: {load} was given; allowed is 0 to {max(0, states - 1)}, the load states of the job."])
    return setup

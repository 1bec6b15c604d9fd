"""Jobs: list, read, add from a file, change, undo, redo, and the figures of exactly one push."""

from functools import lru_cache
from pathlib import Path
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Request
from fastapi.responses import Response
from pydantic_core import to_json

from kobrix.api.shapes import ChangeIn, EditIn, JobLine, JobOut, Moment, MomentIn, Problem, StepIn
from kobrix.core.errors import BadFile
from kobrix.setup import files
from kobrix.setup.entries import typed_edit
from kobrix.setup.job import Job
from kobrix.setup.model import Setup
from kobrix.setup.view import job_view, moment_at
from kobrix.store import jobs
from kobrix.store.connection import open_db
from kobrix.store.jobs import Stored

_ERRORS: dict[int | str, dict[str, Any]] = {code: {"model": Problem} for code in (403, 404, 409, 413, 422)}
router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=_ERRORS)


def database(request: Request) -> Path:
    """Path of the database this server keeps."""
    path: Path = request.app.state.database
    return path


Database = Annotated[Path, Depends(database)]


def _json(document: Any) -> Response:
    """A response as it stands: its shape is declared on the route and held by a test, not paid for at each call."""
    return Response(to_json(document), media_type="application/json")


@lru_cache(maxsize=32)
def _view(text: bytes) -> dict[str, Any]:
    return job_view(files.check(Job, files.parse_json(text)))


def _job(stored: Stored) -> Response:
    return _json({
        "id": stored.id, "name": stored.name, "revision": stored.revision, "changed_at": stored.changed_at,
        "can_undo": stored.can_undo, "can_redo": stored.can_redo, "document": stored.document,
        "view": _view(to_json(stored.document)),
    })  # fmt: skip


def _check(document: Any) -> None:
    _view(to_json(files.check(Job, document).model_dump(exclude_unset=True)))


def _edit(edit: EditIn) -> dict[str, Any]:
    if edit.text is not None:
        return typed_edit(edit.path, edit.text, edit.preferred)
    return {"path": edit.path, "value": edit.value} if "value" in edit.model_fields_set else {"path": edit.path}


@router.get("", response_model=list[JobLine])
def list_jobs(path: Database) -> Response:
    """Every job, the one changed last first."""
    with open_db(path) as db:
        return _json([
            {"id": j.id, "name": j.name, "revision": j.revision, "changed_at": j.changed_at,
             "plans": [p["name"] for p in j.document.get("plans", [])]}
            for j in jobs.all_jobs(db)
        ])  # fmt: skip


@router.post("", response_model=JobOut, status_code=201)
async def add_job(request: Request, path: Database) -> Response:
    """Add a job from a file in the open format: a job, or a setup, which becomes the job's state as found."""
    value = files.read_file(files.parse_json(await request.body()))
    if isinstance(value, Setup):
        value = files.as_job(value)
    document = value.model_dump(exclude_unset=True)
    with open_db(path) as db:
        response = _job(jobs.add(db, document))
    response.status_code = 201
    return response


@router.get("/{job_id}", response_model=JobOut)
def get_job(job_id: int, path: Database) -> Response:
    """One job with everything a screen shows of it."""
    with open_db(path) as db:
        return _job(jobs.get(db, job_id))


@router.post("/{job_id}/changes", response_model=JobOut)
def change_job(job_id: int, change: ChangeIn, path: Database) -> Response:
    """Make edits on a revision, as one step. A stale base gets 409 with both values and changes nothing."""
    edits = [_edit(e) for e in change.edits]
    with open_db(path) as db:
        return _job(jobs.change(db, job_id, change.base, edits, change.label, change.gesture, _check))


@router.post("/{job_id}/undo", response_model=JobOut)
def undo_job(job_id: int, step: StepIn, path: Database) -> Response:
    """Undo the last step."""
    with open_db(path) as db:
        return _job(jobs.undo(db, job_id, step.base))


@router.post("/{job_id}/redo", response_model=JobOut)
def redo_job(job_id: int, step: StepIn, path: Database) -> Response:
    """Make the last undone step again."""
    with open_db(path) as db:
        return _job(jobs.redo(db, job_id, step.base))


@router.post("/{job_id}/moment", response_model=Moment)
def job_moment(job_id: int, asked: MomentIn, path: Database) -> Response:
    """The core's figures for exactly one push, or for the push of one deceleration."""
    if (asked.pedal_force_n is None) == (asked.decel_g is None):
        raise BadFile(["Ask for a pedal force or a deceleration: exactly one of the two."])
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    setup = files.check(Job, document).setup(asked.setup)
    states = len(setup.vehicle.load_states)
    if asked.load >= states:
        raise BadFile([f"load: {asked.load} was given; allowed is 0 to {states - 1}, the load states of the job."])
    return _json(moment_at(setup, asked.load, asked.pedal_force_n, asked.decel_g))

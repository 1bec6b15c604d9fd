"""Jobs: list, read, add from a file, change, undo, redo, and the figures of exactly one push."""

from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache
from pathlib import Path
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic_core import to_json

from kobrix.api.asks import ChangeIn, EditIn, FailedIn, HeatIn, MomentIn, NewJobIn, StepIn, TryIn, WorkingIn
from kobrix.api.common import ERRORS, Database, as_json
from kobrix.api.shapes import Failed, HeatOut, JobLine, JobOut, Moment, SetupView, WorkingStep
from kobrix.api.sheets import Comparison
from kobrix.core.errors import BadFile
from kobrix.setup import files
from kobrix.setup.answers import heat_of_all
from kobrix.setup.begin import new_job
from kobrix.setup.compare import compare
from kobrix.setup.entries import typed_edit
from kobrix.setup.job import AS_FOUND, Job
from kobrix.setup.model import Setup
from kobrix.setup.view import failed_at, job_view, moment_at, working_at
from kobrix.store import jobs
from kobrix.store.connection import open_db
from kobrix.store.edits import apply
from kobrix.store.jobs import Stored

router = APIRouter(prefix="/api/jobs", tags=["jobs"], responses=ERRORS)


@lru_cache(maxsize=32)
def _view(text: bytes) -> dict[str, Any]:
    return job_view(files.check(Job, files.parse_json(text)))


def _job(stored: Stored) -> Response:
    return as_json({
        "id": stored.id, "name": stored.name, "revision": stored.revision, "changed_at": stored.changed_at,
        "can_undo": stored.can_undo, "can_redo": stored.can_redo, "document": stored.document,
        "view": _view(to_json(stored.document)),
    })  # fmt: skip


def _listed(job: Stored) -> dict[str, Any]:
    plans = [p["name"] for p in job.document.get("plans", [])]
    return {"id": job.id, "name": job.name, "revision": job.revision, "changed_at": job.changed_at, "plans": plans}


def _check(document: Any) -> None:
    _view(to_json(files.check(Job, document).model_dump(exclude_unset=True)))


def _setup_of(job_id: int, name: str, load: int, path: Path) -> Setup:
    """A setup of a job, that has the load state asked for."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    setup = files.check(Job, document).setup(name)
    states = len(setup.vehicle.load_states)
    if load >= states:
        raise BadFile([f"load: {load} was given; allowed is 0 to {states - 1}, the load states of the job."])
    return setup


@contextmanager
def _named_by_their_fields(edits: list[EditIn]) -> Iterator[None]:
    """What is refused of these edits is said without their place in the file: a person sees the field."""
    try:
        yield
    except BadFile as refused:
        places = tuple(f"{e.path}: " for e in edits)
        told = [next((p.removeprefix(place) for place in places if p.startswith(place)), p) for p in refused.problems]
        raise BadFile(list(dict.fromkeys(told))) from None


def _edit(edit: EditIn) -> dict[str, Any]:
    if edit.text is not None:
        return typed_edit(edit.path, edit.text, edit.preferred)
    return {"path": edit.path, "value": edit.value} if "value" in edit.model_fields_set else {"path": edit.path}


@router.get("", response_model=list[JobLine])
def list_jobs(path: Database) -> Response:
    """Every job, the one changed last first."""
    with open_db(path) as db:
        return as_json([_listed(j) for j in jobs.all_jobs(db)])


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


@router.post("/new", response_model=JobOut, status_code=201)
def begin_job(new: NewJobIn, path: Database) -> Response:
    """Begin an empty job for a vehicle of one layout."""
    document = new_job(new.name.strip(), new.layout).model_dump(exclude_unset=True)
    with open_db(path) as db:
        response = _job(jobs.add(db, document))
    response.status_code = 201
    return response


@router.delete("/{job_id}", response_model=JobLine)
def put_job_away(job_id: int, path: Database) -> Response:
    """Take a job off the list; it can be brought back."""
    with open_db(path) as db:
        return as_json(_listed(jobs.put_away(db, job_id, True)))


@router.post("/{job_id}/back", response_model=JobLine)
def bring_job_back(job_id: int, path: Database) -> Response:
    """Bring a job back to the list."""
    with open_db(path) as db:
        return as_json(_listed(jobs.put_away(db, job_id, False)))


@router.get("/{job_id}/file", response_model=dict[str, Any])
def job_file(job_id: int, path: Database) -> Response:
    """The job as a file in the open format."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    response = as_json(document)
    response.headers["Content-Disposition"] = f'attachment; filename="job-{job_id}.kobrix.json"'
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
    with open_db(path) as db, _named_by_their_fields(change.edits):
        return _job(jobs.change(db, job_id, change.base, edits, change.label, change.gesture, _check))


@router.post("/{job_id}/try", response_model=SetupView)
def try_edits(job_id: int, tried: TryIn, path: Database) -> Response:
    """What a setup would be with some edits, which are not stored."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    changed, _ = apply(document, [_edit(e) for e in tried.edits])
    with _named_by_their_fields(tried.edits):
        view = _view(to_json(files.check(Job, changed).model_dump(exclude_unset=True)))
    return as_json(next(s for s in view["setups"] if s["key"] == tried.setup))


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
    setup = _setup_of(job_id, asked.setup, asked.load, path)
    return as_json(moment_at(setup, asked.load, asked.pedal_force_n, asked.decel_g, asked.path))


@router.post("/{job_id}/working", response_model=list[WorkingStep])
def job_working(job_id: int, asked: WorkingIn, path: Database) -> Response:
    """How every figure at one push came about."""
    setup = _setup_of(job_id, asked.setup, asked.load, path)
    return as_json(working_at(setup, asked.load, asked.pedal_force_n, asked.path))


@router.post("/{job_id}/failed", response_model=Failed)
def job_failed(job_id: int, asked: FailedIn, path: Database) -> Response:
    """The range of pushes with one failure in it."""
    setup = _setup_of(job_id, asked.setup, asked.load, path)
    return as_json(failed_at(setup, asked.load, asked.reach_n, asked.failure, asked.path))


@router.post("/{job_id}/heat", response_model=dict[str, HeatOut])
def job_heat(job_id: int, asked: HeatIn, path: Database) -> Response:
    """How hot every rotor of a setup gets in a series of slow-downs."""
    setup = _setup_of(job_id, asked.setup, asked.load, path)
    question = asked.model_dump(exclude={"setup", "load"})
    return as_json(heat_of_all(setup, {**question, "load_state": setup.vehicle.load_states[asked.load].name}))


@router.get("/{job_id}/compare", response_model=Comparison)
def compare_setups(job_id: int, path: Database, load: int = 0, against: str = AS_FOUND) -> Response:
    """Every entry and result of all setups of a job, side by side."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    job = files.check(Job, document)
    job.setup(against)
    if not 0 <= load < max(1, len(job.vehicle.load_states)):
        raise BadFile(
            [f"load: {load} was given; allowed is 0 to {len(job.vehicle.load_states) - 1}, the load states of the job."]
        )
    return as_json(compare(job, _view(to_json(document))["wanted_decel_g"], load, against))

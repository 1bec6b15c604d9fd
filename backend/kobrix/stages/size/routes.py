"""Size's door: the force line of every setup, exactly one push, workings, failures, heat, and setups side by side."""

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.core.errors import BadFile
from kobrix.evaluate.answer_shapes import RotorHeat
from kobrix.evaluate.rotor_heat import heat_of_all
from kobrix.evaluate.shapes import Moment
from kobrix.fileformat.job import AS_FOUND
from kobrix.stages.common import ERRORS, Database, Route, as_json, setup_in_state, stored_job
from kobrix.stages.size.compare import compare
from kobrix.stages.size.service import failed_at, mends_view, moment_at, size_view, verdicts_view, working_at
from kobrix.stages.size.shapes import (
    Comparison,
    Failed,
    FailedIn,
    HeatIn,
    MendsView,
    MomentIn,
    SizeView,
    StepView,
    Verdicts,
    WorkingIn,
)

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["size"], responses=ERRORS)


@router.get("/{job_id}/size", response_model=SizeView)
def job_size(job_id: int, path: Database) -> Response:
    """Every setup of a job at its wanted stop."""
    stored = stored_job(path, job_id)
    return as_json(size_view(stored.job, stored.revision))


@router.get("/{job_id}/verdicts", response_model=Verdicts)
def job_verdicts(job_id: int, path: Database) -> Response:
    """Every setup of a job judged with the chance of every verdict."""
    stored = stored_job(path, job_id)
    return as_json(verdicts_view(stored.job, stored.revision))


@router.get("/{job_id}/mends", response_model=MendsView)
def job_mends(job_id: int, setup: str, path: Database) -> Response:
    """What would mend the findings of one setup, each tried as it would be stored."""
    stored = stored_job(path, job_id)
    return as_json(mends_view(stored.job, stored.revision, setup))


@router.post("/{job_id}/moment", response_model=Moment)
def job_moment(job_id: int, asked: MomentIn, path: Database) -> Response:
    """The core's figures for exactly one push, or for the push of one deceleration."""
    if (asked.pedal_force_n is None) == (asked.decel_g is None):
        raise BadFile(["Ask for a pedal force or a deceleration: exactly one of the two."])
    setup = setup_in_state(stored_job(path, job_id).job, asked.setup, asked.load)
    return as_json(moment_at(setup, asked.load, asked.pedal_force_n, asked.decel_g, asked.path))


@router.post("/{job_id}/working", response_model=list[StepView])
def job_working(job_id: int, asked: WorkingIn, path: Database) -> Response:
    """How every figure at one push came about."""
    setup = setup_in_state(stored_job(path, job_id).job, asked.setup, asked.load)
    return as_json(working_at(setup, asked.load, asked.pedal_force_n, asked.path))


@router.post("/{job_id}/failed", response_model=Failed)
def job_failed(job_id: int, asked: FailedIn, path: Database) -> Response:
    """The range of pushes with one failure in it."""
    setup = setup_in_state(stored_job(path, job_id).job, asked.setup, asked.load)
    return as_json(failed_at(setup, asked.load, asked.reach_n, asked.failure, asked.path))


@router.post("/{job_id}/heat", response_model=dict[str, RotorHeat])
def job_heat(job_id: int, asked: HeatIn, path: Database) -> Response:
    """How hot every rotor of a setup gets in a series of slow-downs."""
    setup = setup_in_state(stored_job(path, job_id).job, asked.setup, asked.load)
    question = asked.model_dump(exclude={"setup", "load"})
    states = setup.vehicle.load_states
    return as_json(heat_of_all(setup, {**question, "load_state": states[asked.load].name} if states else question))


@router.get("/{job_id}/compare", response_model=Comparison)
def compare_setups(job_id: int, path: Database, load: int = 0, against: str = AS_FOUND) -> Response:
    """Every entry and result of all setups of a job, side by side."""
    job = stored_job(path, job_id).job
    setup_in_state(job, against, load)
    return as_json(compare(job, load, against))

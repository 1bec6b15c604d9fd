"""Bleed's door: the page, another run of the stand test, what a pedal tells, and the simulated gauges."""

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.stages.bleed.pedal import pumping, pushed
from kobrix.stages.bleed.service import chosen, shown, simulated, stand_of
from kobrix.stages.bleed.shapes import BleedView, PumpedIn, PushesIn, SimulateIn, SimulateOut, StandView, ToldView
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job

router = APIRouter(route_class=Route, prefix="/api", tags=["bleed"], responses=ERRORS)


@router.get("/jobs/{job_id}/bleed", response_model=BleedView)
def job_bleed(job_id: int, path: Database, setup: str | None = None) -> Response:
    """Bleed of one setup of a job; of its first plan where none is named."""
    return as_json(shown(stored_job(path, job_id), setup))


@router.get("/jobs/{job_id}/stand", response_model=StandView)
def job_stand(job_id: int, path: Database, run: int, setup: str | None = None) -> Response:
    """One run of the stand test."""
    stored = stored_job(path, job_id)
    return as_json(stand_of(stored, chosen(stored.job, setup), run))


@router.post("/jobs/{job_id}/gauges", response_model=SimulateOut)
def simulated_gauges(job_id: int, asked: SimulateIn, path: Database) -> Response:
    """What simulated gauges and a ruler show of a push; it is marked where it is kept, and never counted."""
    return as_json(simulated(stored_job(path, job_id).job, asked))


@router.post("/jobs/{job_id}/pushes", response_model=ToldView)
def told_by_pushes(job_id: int, asked: PushesIn, path: Database) -> Response:
    """Why the pedal goes further than the parts say, from pushes with a scale and a ruler; nothing is kept."""
    return as_json(pushed(stored_job(path, job_id).job, asked))


@router.post("/jobs/{job_id}/pumped", response_model=ToldView)
def told_by_pumping(job_id: int, asked: PumpedIn, path: Database) -> Response:
    """What a pedal that comes up by pumping tells; nothing is kept."""
    return as_json(pumping(stored_job(path, job_id).job, asked))

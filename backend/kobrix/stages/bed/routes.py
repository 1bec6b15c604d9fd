"""Bed's door: the page."""

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.stages.bed.service import shown
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job

router = APIRouter(route_class=Route, prefix="/api", tags=["bed"], responses=ERRORS)


@router.get("/jobs/{job_id}/bed", response_model=BedView)
def job_bed(job_id: int, path: Database, setup: str | None = None) -> Response:
    """Bed of one setup of a job; of its first plan where none is named."""
    return as_json(shown(stored_job(path, job_id), setup))

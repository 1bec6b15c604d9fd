"""Build's door: the page."""

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.stages.build.service import shown
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job

router = APIRouter(route_class=Route, prefix="/api", tags=["build"], responses=ERRORS)


@router.get("/jobs/{job_id}/build", response_model=BuildView)
def job_build(job_id: int, path: Database, setup: str | None = None) -> Response:
    """Build of one setup of a job; of its first plan where none is named."""
    return as_json(shown(stored_job(path, job_id), setup))

"""Match's door: what a search may be made of, and the search itself, begun, looked at and stopped."""

from fastapi import APIRouter, Request
from fastapi.responses import Response

from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job
from kobrix.stages.match.choices import choices_of
from kobrix.stages.match.request import Search
from kobrix.stages.match.running import Searches
from kobrix.stages.match.shapes import MatchChoices, SearchState
from kobrix.store import jobs
from kobrix.store.connection import open_db

WAIT = 0.3  # s that the first part of a search is waited for
router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["match"], responses=ERRORS)


def _searches(request: Request, path: Database) -> Searches:
    """The searches of the database that this server keeps, begun with the first."""
    state = request.app.state
    if not isinstance(getattr(state, "searches", None), Searches):
        state.searches = Searches(path)
    found: Searches = state.searches
    return found


@router.get("/{job_id}/match/choices", response_model=MatchChoices)
def match_choices(job_id: int, setup: str, request: Request, path: Database, control: str | None = None) -> Response:
    """What a search that starts from a setup may be made of; of several controls it is for one, the first where none is named."""
    _searches(request, path).workers.ready()
    return as_json(choices_of(stored_job(path, job_id).job, setup, control))


@router.post("/{job_id}/match", response_model=SearchState)
def begin_match(job_id: int, ask: Search, request: Request, path: Database) -> Response:
    """Search; a search under way is stopped. The answer is its first part, to be looked at again."""
    stored = stored_job(path, job_id)
    return as_json(_searches(request, path).begin(job_id, stored.job, ask, stored.revision, WAIT))


@router.get("/{job_id}/match", response_model=SearchState)
def look_at_match(job_id: int, request: Request, path: Database) -> Response:
    """The job's last search: how far it is, or what it found."""
    with open_db(path) as db:
        jobs.get(db, job_id)
    return as_json(_searches(request, path).look(job_id))


@router.delete("/{job_id}/match", response_model=SearchState)
def stop_match(job_id: int, request: Request, path: Database) -> Response:
    """Stop the search; what it found so far stays."""
    with open_db(path) as db:
        jobs.get(db, job_id)
    found = _searches(request, path)
    found.stop(job_id, 5.0)
    return as_json(found.look(job_id))

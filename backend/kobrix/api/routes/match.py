"""Match: what a search may be made of, and the search itself, begun, looked at and stopped."""

from fastapi import APIRouter, Request
from fastapi.responses import Response

from kobrix.api.common import ERRORS, Database, as_json
from kobrix.api.matches import MatchChoices, MatchOut
from kobrix.api.searching import Searches
from kobrix.setup import files
from kobrix.setup.job import Job
from kobrix.setup.search_ask import Search
from kobrix.setup.search_choices import choices_of
from kobrix.store import jobs
from kobrix.store.connection import open_db

WAIT = 0.3  # s that the first part of a search is waited for
router = APIRouter(prefix="/api/jobs", tags=["match"], responses=ERRORS)


def _searches(request: Request) -> Searches:
    found: Searches = request.app.state.searches
    return found


@router.get("/{job_id}/match/choices", response_model=MatchChoices)
def match_choices(job_id: int, setup: str, path: Database) -> Response:
    """What a search that starts from a setup may be made of."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    return as_json(choices_of(files.check(Job, document), setup))


@router.post("/{job_id}/match", response_model=MatchOut)
def begin_match(job_id: int, ask: Search, request: Request, path: Database) -> Response:
    """Search; a search under way is stopped. The answer is its first part, to be looked at again."""
    with open_db(path) as db:
        stored = jobs.get(db, job_id)
    return as_json(_searches(request).begin(job_id, files.check(Job, stored.document), ask, stored.revision, WAIT))


@router.get("/{job_id}/match", response_model=MatchOut)
def look_at_match(job_id: int, request: Request, path: Database) -> Response:
    """The job's last search: how far it is, or what it found."""
    with open_db(path) as db:
        jobs.get(db, job_id)
    return as_json(_searches(request).look(job_id))


@router.delete("/{job_id}/match", response_model=MatchOut)
def stop_match(job_id: int, request: Request, path: Database) -> Response:
    """Stop the search; what it found so far stays."""
    with open_db(path) as db:
        jobs.get(db, job_id)
    found = _searches(request)
    found.stop(job_id, 5.0)
    return as_json(found.look(job_id))

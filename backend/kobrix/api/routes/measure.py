"""Measure: the sheet of one setup, which doubt matters most, helpers, and photographs of what was seen."""

from fastapi import APIRouter, Request
from fastapi.responses import Response

from kobrix.api.asks import LookIn
from kobrix.api.common import ERRORS, Database, as_json
from kobrix.api.sheets import HelpIn, HelpOut, LookOut, Matters, PhotoOut, Sheet
from kobrix.core.errors import BadEntry
from kobrix.setup import files
from kobrix.setup.entries import typed_look
from kobrix.setup.helpers import help_with
from kobrix.setup.job import AS_FOUND, Job
from kobrix.setup.matters import matters
from kobrix.setup.sheet import measure_sheet
from kobrix.store import jobs, photos
from kobrix.store.connection import open_db

router = APIRouter(prefix="/api", tags=["measure"], responses=ERRORS)


@router.get("/jobs/{job_id}/sheet", response_model=Sheet)
def job_sheet(job_id: int, path: Database, setup: str = AS_FOUND) -> Response:
    """What a person measures on one setup of a job."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    return as_json(measure_sheet(files.check(Job, document), setup))


@router.get("/jobs/{job_id}/matters", response_model=Matters)
def job_matters(job_id: int, path: Database, setup: str = AS_FOUND) -> Response:
    """Which doubt moves the push and the travel of one setup most."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    return as_json(matters(files.check(Job, document), setup))


@router.post("/look", response_model=LookOut)
def look(asked: LookIn) -> Response:
    """Read a push or a stop as a person typed it."""
    return as_json({"value": typed_look(asked.name, asked.text, asked.preferred)})


@router.post("/help/{name}", response_model=HelpOut)
def help_(name: str, asked: HelpIn) -> Response:
    """Make entries of what was read off scales, tape or pad."""
    return as_json(help_with(name, asked.given, asked.preferred))


@router.post("/jobs/{job_id}/photos", response_model=PhotoOut, status_code=201)
async def add_photo(job_id: int, request: Request, path: Database) -> Response:
    """Keep a photograph: the picture's bytes as the body."""
    content = b""
    async for chunk in request.stream():
        content += chunk
        if len(content) > photos.LARGEST:
            raise BadEntry(
                "photograph", f"more than {photos.LARGEST:,} bytes", f"1 to {photos.LARGEST:,} bytes", "send a smaller one"
            )
    with open_db(path) as db:
        response = as_json({"sha256": photos.add(db, job_id, content)})
    response.status_code = 201
    return response


@router.get("/jobs/{job_id}/photos/{sha256}", response_class=Response)
def get_photo(job_id: int, sha256: str, path: Database) -> Response:
    """A photograph as it was sent."""
    with open_db(path) as db:
        photo = photos.get(db, job_id, sha256)
    return Response(photo.content, media_type=photo.media_type, headers={"Cache-Control": "private, max-age=31536000, immutable"})

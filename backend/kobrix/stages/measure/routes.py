"""Measure's door: the sheet of one setup, what its figures hang on, helpers, and photographs of what was seen."""

from asyncio import to_thread
from pathlib import Path

from fastapi import APIRouter, Request
from fastapi.responses import Response

from kobrix.core.errors import BadEntry
from kobrix.evaluate.entries.helpers import help_with
from kobrix.evaluate.entries.shapes import HelperAnswer, Photo
from kobrix.evaluate.sensitivity import sensitivity_of
from kobrix.evaluate.shapes import Sensitivity
from kobrix.fileformat.job import AS_FOUND
from kobrix.fileformat.typed_input import typed_look
from kobrix.pictures.upright import cleaned, thumbnail
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job
from kobrix.stages.measure.service import sheet_of
from kobrix.stages.measure.shapes import HelperIn, LookIn, LookOut, MeasureView
from kobrix.store import photos
from kobrix.store.connection import open_db

router = APIRouter(route_class=Route, prefix="/api", tags=["measure"], responses=ERRORS)


@router.get("/jobs/{job_id}/measure", response_model=MeasureView)
def job_sheet(job_id: int, path: Database, setup: str = AS_FOUND) -> Response:
    """What a person measures on one setup of a job."""
    stored = stored_job(path, job_id)
    return as_json(sheet_of(stored.job, stored.revision, setup))


@router.get("/jobs/{job_id}/sensitivity", response_model=Sensitivity)
def job_sensitivity(job_id: int, path: Database, setup: str = AS_FOUND) -> Response:
    """Which uncertain entry moves the push and the travel of one setup most."""
    return as_json(sensitivity_of(stored_job(path, job_id).job, setup))


@router.post("/look", response_model=LookOut)
def look(asked: LookIn) -> Response:
    """Read a push or a stop as a person typed it."""
    found: LookOut = {"value": typed_look(asked.name, asked.text, asked.preferred)}
    return as_json(found)


@router.post("/help/{name}", response_model=HelperAnswer)
def help_(name: str, asked: HelperIn) -> Response:
    """Make entries of what was read off scales, tape or pad."""
    return as_json(help_with(name, asked.given, asked.preferred))


@router.post("/jobs/{job_id}/photos", response_model=Photo, status_code=201)
async def add_photo(job_id: int, request: Request, path: Database) -> Response:
    """Keep a photograph, its bytes as the body: turned upright, made smaller, without what the camera wrote beside it."""
    content = b""
    async for chunk in request.stream():
        content += chunk
        if len(content) > photos.LARGEST:
            raise BadEntry(
                "photograph", f"more than {photos.LARGEST:,} bytes", f"1 to {photos.LARGEST:,} bytes", "send a smaller one"
            )
    return await to_thread(_keep, path, job_id, content)


def _keep(path: Path, job_id: int, content: bytes) -> Response:
    picture = cleaned(content)
    with open_db(path) as db:
        photo: Photo = {"sha256": photos.add(db, job_id, picture), "name": ""}
    response = as_json(photo)
    response.status_code = 201
    return response


@router.get("/jobs/{job_id}/photos/{sha256}", response_class=Response)
def get_photo(job_id: int, sha256: str, path: Database, small: bool = False) -> Response:
    """A photograph as it is kept, or a `small` one of it."""
    with open_db(path) as db:
        photo = photos.get(db, job_id, sha256)
    content, kind = (thumbnail(photo.content), "image/jpeg") if small else (photo.content, photo.media_type)
    return Response(content, media_type=kind, headers={"Cache-Control": "private, max-age=31536000, immutable"})

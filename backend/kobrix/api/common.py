"""What every resource's routes share: the database, the problems they may answer with, and a response as it stands."""

from pathlib import Path
from typing import Annotated, Any

from fastapi import Depends, Request
from fastapi.responses import Response
from pydantic_core import to_json

from kobrix.api.shapes import Problem

ERRORS: dict[int | str, dict[str, Any]] = {code: {"model": Problem} for code in (403, 404, 409, 413, 422)}


def database(request: Request) -> Path:
    """Path of the database this server keeps."""
    path: Path = request.app.state.database
    return path


Database = Annotated[Path, Depends(database)]


def as_json(document: Any) -> Response:
    """A response as it stands: its shape is declared on the route and held by a test, not paid for at each call."""
    return Response(to_json(document), media_type="application/json")

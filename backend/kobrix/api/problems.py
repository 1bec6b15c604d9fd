"""A refusal as the door and every route write it: problem+json (RFC 9457)."""

from typing import Any

from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import JSONResponse

PROBLEM = "application/problem+json"


def problem(status: int, title: str, detail: str, **more: Any) -> JSONResponse:
    """A problem+json response: `status`, `title`, a sentence in `detail`, and `more` members."""
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, **more}
    return JSONResponse(body, status_code=status, media_type=PROBLEM)


async def on_http(request: Request, error: Exception) -> JSONResponse:
    """What is said to a request that no route takes, or that cannot be read."""
    assert isinstance(error, HTTPException)
    if error.status_code == 400:  # what was sent is no JSON at all: said as everything else that cannot be used
        return problem(422, "This request cannot be used", "What was sent cannot be read as JSON.")
    return problem(error.status_code, str(error.detail), f"{request.method} {request.url.path}: {error.detail}.")

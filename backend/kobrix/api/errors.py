"""One table: error class to response. Every error is problem+json (RFC 9457), a sentence, and no stack trace."""

import logging
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse

from kobrix.api.problems import PROBLEM, on_http, problem
from kobrix.core.errors import BadEntry, BadFile, Damaged, Impossible, KobrixError, NotFound, Stale
from kobrix.store.connection import DatabaseFault, in_words

log = logging.getLogger("kobrix")
DAMAGED = "urn:kobrix:damaged-job"  # by which a screen knows that the job can be brought round
_TABLE: dict[type[KobrixError], tuple[int, str]] = {
    BadEntry: (422, "This entry cannot be used"),
    Damaged: (422, "This job is damaged"),
    BadFile: (422, "This cannot be used"),
    Impossible: (422, "This question has no answer"),
    NotFound: (404, "Not found"),
    Stale: (409, "Changed elsewhere"),
}


def _known(error: KobrixError) -> JSONResponse:
    status, title = next((row for kind, row in _TABLE.items() if isinstance(error, kind)), (500, "An error"))
    more: dict[str, Any] = {}
    if isinstance(error, BadEntry):
        more = {"problems": [str(error)], "field": error.field}
    elif isinstance(error, BadFile):
        more = {"problems": error.problems}
        if isinstance(error, Damaged):
            more["type"] = DAMAGED
    elif isinstance(error, Stale):
        more = {"revision": error.revision, "both": error.both}
    return problem(status, title, str(error), **more)


def described(api: dict[str, Any]) -> dict[str, Any]:
    """The OpenAPI document `api` with its problems under the media type that they are sent in."""
    for path in api["paths"].values():
        for operation in path.values():
            for code, response in operation.get("responses", {}).items():
                if code.startswith(("4", "5")) and "content" in response:
                    response["content"] = {PROBLEM: next(iter(response["content"].values()))}
    return api


def install(app: FastAPI) -> None:
    """Give `app` its handlers."""

    @app.exception_handler(KobrixError)
    async def on_known(request: Request, error: KobrixError) -> JSONResponse:
        return _known(error)

    @app.exception_handler(RequestValidationError)
    async def on_request(request: Request, error: RequestValidationError) -> JSONResponse:
        found = [f"{'.'.join(map(str, item['loc'][1:])) or 'the request'}: {item['msg']}." for item in error.errors()]
        return problem(422, "This request cannot be used", " ".join(found[:10]), problems=found[:10])

    app.add_exception_handler(HTTPException, on_http)

    @app.exception_handler(OverflowError)
    async def on_beyond(request: Request, error: OverflowError) -> JSONResponse:
        if "SQLite" not in str(error):  # a number of ours that ran over, and not one of a request's that the store cannot hold
            return await on_unknown(request, error)
        return problem(404, "Not found", "There is nothing by so great a number.")

    @app.exception_handler(RecursionError)
    async def on_deep(request: Request, error: RecursionError) -> JSONResponse:
        return problem(422, "This cannot be used", "It is nested too deeply; no entry of a job is.")

    @app.exception_handler(DatabaseFault)
    async def on_database(request: Request, error: DatabaseFault) -> JSONResponse:
        words = in_words(error)
        if words is None:
            return await on_unknown(request, error)
        log.error("%s on %s %s", error, request.method, request.url.path)
        return problem(503, "Not stored", f"The database: {words}.")

    @app.exception_handler(Exception)
    async def on_unknown(request: Request, error: Exception) -> JSONResponse:
        log.exception("unexpected error on %s %s", request.method, request.url.path)
        return problem(500, "An error in Kobrix", "Something went wrong here; what is stored was not changed by it.")

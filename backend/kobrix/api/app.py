"""The application: routes, guard and errors, and the built front end."""

from functools import lru_cache
from mimetypes import guess_type
from pathlib import Path
from typing import Annotated

from fastapi import FastAPI, Header
from fastapi.responses import HTMLResponse
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kobrix import __version__
from kobrix.api import backups, devices, errors, events, jobs, lend, often_asked, records
from kobrix.api.guard import Guard
from kobrix.api.lock import Lock
from kobrix.api.lock import router as lock_door
from kobrix.api.pairing import Pairing
from kobrix.stages.registry import STAGES

FOR_EVER = {"Cache-Control": "public, max-age=31536000, immutable"}


@lru_cache(maxsize=128)
def _built(file: Path) -> bytes | None:
    """A built file, read once: its name carries its content's hash. None where there is none."""
    try:
        return file.read_bytes() if file.is_file() else None
    except (OSError, ValueError):  # a name too long, or with what no name may have
        return None


def create_app(database: Path, front_end: Path | None = None, pairing: Pairing | None = None) -> FastAPI:
    """The server over a prepared `database`, serving the built `front_end` folder when there is one.

    `pairing` lets devices in through one address besides the loopback.
    """
    app = FastAPI(title="Kobrix", version=__version__, docs_url=None, redoc_url=None, openapi_url=None)
    app.state.database, app.state.pairing = database, pairing
    app.state.watches = {}
    app.state.lock = Lock(database) if database.exists() else None
    app.add_middleware(Guard)
    errors.install(app)
    for router in (
        events.router,
        jobs.router,
        records.router,
        often_asked.router,
        lend.router,
        devices.router,
        backups.router,
        *(stage.router for stage in STAGES),
    ):
        app.include_router(router)
    app.include_router(lock_door)
    if pairing is not None:
        app.include_router(devices.door)

    if front_end is not None and (front_end / "index.html").exists():

        def built(name: str, kind: str | None, headers: dict[str, str] | None = None) -> Response:
            content = _built(front_end / name)
            if content is None:
                raise HTTPException(404, "Not found")
            return Response(content, media_type=kind, headers=headers)

        @app.get("/assets/{name}", include_in_schema=False)
        async def asset(name: str, accept_encoding: Annotated[str, Header()] = "") -> Response:
            """A script, style or face of type of the front end; it may be kept for ever. Compressed where that is taken and was made."""
            kind = guess_type(name)[0]
            if "gzip" in accept_encoding and _built(front_end / f"assets/{name}.gz") is not None:
                return built(f"assets/{name}.gz", kind, {**FOR_EVER, "Content-Encoding": "gzip", "Vary": "Accept-Encoding"})
            return built(f"assets/{name}", kind, FOR_EVER)

        @app.get("/api/openapi.json", include_in_schema=False)
        async def described() -> Response:
            """What the server takes and gives; made with the front end."""
            return built("openapi.json", "application/json")

        @app.get("/third-party.txt", include_in_schema=False)
        async def third_party() -> Response:
            """What Kobrix is built with, and its licences; made with the front end."""
            return built("third-party.txt", "text/plain; charset=utf-8")

        @app.get("/{path:path}", include_in_schema=False)
        async def page(path: str) -> HTMLResponse:
            """The one page of the front end, for every address that is not the API's."""
            if path.startswith("api/"):
                raise HTTPException(404, "Not found")
            return HTMLResponse((front_end / "index.html").read_bytes(), headers={"Cache-Control": "no-store"})

    return app

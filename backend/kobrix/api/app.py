"""The application: routes, guard and errors, and the built front end."""

from pathlib import Path

from fastapi import FastAPI
from fastapi.responses import FileResponse, RedirectResponse
from fastapi.staticfiles import StaticFiles
from starlette.exceptions import HTTPException
from starlette.responses import Response
from starlette.types import Scope

from kobrix import __version__
from kobrix.api import errors
from kobrix.api.guard import guard
from kobrix.api.pairing import COOKIE, Pairing
from kobrix.api.routes import events, jobs, match, measure
from kobrix.api.searching import Searches


class _Assets(StaticFiles):
    """Built files whose names carry their content's hash: they may be kept for ever."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await super().get_response(path, scope)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response


def create_app(database: Path, front_end: Path | None = None, pairing: Pairing | None = None) -> FastAPI:
    """The server over a prepared `database`, serving the built `front_end` folder when there is one.

    `pairing` lets devices in through one address besides the loopback.
    """
    app = FastAPI(title="Kobrix", version=__version__, docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.state.database, app.state.pairing, app.state.searches = database, pairing, Searches(database)
    app.middleware("http")(guard)
    errors.install(app)
    for resource in (events, jobs, match, measure):
        app.include_router(resource.router)
    if pairing is not None:

        @app.get("/pair/{code}", include_in_schema=False)
        def pair(code: str) -> Response:
            """Let a device in that has the code."""
            token = pairing.pair(code)
            if token is None:
                return errors.problem(
                    403, "Wrong code", "This code is wrong or was used before. Open the newest link that was printed."
                )
            response = RedirectResponse("/", status_code=303)
            response.set_cookie(COOKIE, token, httponly=True, samesite="strict", max_age=30 * 24 * 3600, path="/")
            return response

    if front_end is not None and (front_end / "index.html").exists():
        app.mount("/assets", _Assets(directory=front_end / "assets"), name="assets")

        @app.get("/{path:path}", include_in_schema=False)
        def page(path: str) -> FileResponse:
            """The one page of the front end, for every address that is not the API's."""
            if path.startswith("api/"):
                raise HTTPException(404, "Not found")
            return FileResponse(front_end / "index.html", headers={"Cache-Control": "no-store"})

    return app

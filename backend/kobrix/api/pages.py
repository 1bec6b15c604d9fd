"""The built front end: its one page, its scripts, styles and faces of type, and what was made with it."""

from functools import lru_cache
from mimetypes import guess_type
from pathlib import Path

from starlette.exceptions import HTTPException
from starlette.requests import Request
from starlette.responses import HTMLResponse, Response
from starlette.routing import Route

FOR_EVER = {"Cache-Control": "public, max-age=31536000, immutable"}


@lru_cache(maxsize=128)
def _built(file: Path) -> bytes | None:
    """A built file, read once: its name carries its content's hash. None where there is none."""
    try:
        return file.read_bytes() if file.is_file() else None
    except (OSError, ValueError):  # a name too long, or with what no name may have
        return None


def routes(front_end: Path) -> list[Route]:
    """What is answered from the folder of the built `front_end`; none where it was not built."""
    if not (front_end / "index.html").exists():
        return []

    def built(name: str, kind: str | None, headers: dict[str, str] | None = None) -> Response:
        content = _built(front_end / name)
        if content is None:
            raise HTTPException(404, "Not found")
        return Response(content, media_type=kind, headers=headers)

    async def asset(request: Request) -> Response:
        """A script, style or face of type of the front end; it may be kept for ever. Compressed where that is taken and was made."""
        name = request.path_params["name"]
        kind = guess_type(name)[0]
        if "gzip" in request.headers.get("accept-encoding", "") and _built(front_end / f"assets/{name}.gz") is not None:
            return built(f"assets/{name}.gz", kind, {**FOR_EVER, "Content-Encoding": "gzip", "Vary": "Accept-Encoding"})
        return built(f"assets/{name}", kind, FOR_EVER)

    async def described(_: Request) -> Response:
        """What the server takes and gives; made with the front end."""
        return built("openapi.json", "application/json")

    async def third_party(_: Request) -> Response:
        """What Kobrix is built with, and its licences; made with the front end."""
        return built("third-party.txt", "text/plain; charset=utf-8")

    async def page(request: Request) -> Response:
        """The one page of the front end, for every address that is not the API's."""
        if request.path_params["path"].startswith("api/"):
            raise HTTPException(404, "Not found")
        return HTMLResponse((front_end / "index.html").read_bytes(), headers={"Cache-Control": "no-store"})

    return [
        Route("/assets/{name}", asset),
        Route("/api/openapi.json", described),
        Route("/third-party.txt", third_party),
        Route("/{path:path}", page),
    ]

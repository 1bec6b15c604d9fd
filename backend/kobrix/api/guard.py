"""The guard at the door: only this machine's own pages may ask, and pages may run only what ships with the product."""

from collections.abc import Awaitable, Callable
from urllib.parse import urlsplit

from starlette.requests import Request
from starlette.responses import Response

from kobrix.api.errors import problem

LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]"})
LARGEST_BODY = 4_000_000
_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; img-src 'self' data: blob:;"
    " connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'"
)
_HEADERS = {
    "Content-Security-Policy": _POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


def _host(netloc: str) -> str:
    if netloc.startswith("["):
        return netloc.split("]")[0] + "]"
    return netloc.rsplit(":", 1)[0] if ":" in netloc else netloc


async def guard(request: Request, call_next: Callable[[Request], Awaitable[Response]]) -> Response:
    """Refuse foreign hosts and origins and oversized bodies, then add the security headers."""
    host, origin = request.headers.get("host", ""), request.headers.get("origin")
    length = request.headers.get("content-length", "0")
    if _host(host).lower() not in LOOPBACK:
        response: Response = problem(403, "Foreign host", f"This server answers only to itself, not to the host {host[:80]!r}.")
    elif origin is not None and urlsplit(origin).netloc != host:
        response = problem(403, "Foreign origin", f"This server answers only its own pages, not {origin[:80]!r}.")
    elif not length.isdigit() or int(length) > LARGEST_BODY:
        response = problem(413, "Too large", f"At most {LARGEST_BODY:,} bytes can be sent at once; {length[:20]} were.")
    else:
        response = await call_next(request)
    for name, value in _HEADERS.items():
        response.headers.setdefault(name, value)
    return response

"""The guard at the door: only this machine's own pages and paired devices may ask, and pages run only what ships with us."""

from urllib.parse import urlsplit

from starlette.datastructures import MutableHeaders
from starlette.requests import Request
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kobrix.api.lock import locked
from kobrix.api.pairing import COOKIE, Pairing
from kobrix.api.problems import problem
from kobrix.fileformat import LARGEST_BYTES
from kobrix.recordings import LARGEST
from kobrix.store.photos import LARGEST as LARGEST_PHOTO

LOOPBACK = frozenset({"127.0.0.1", "localhost", "[::1]"})
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


def _refused(request: Request) -> Response | None:
    """Why a request may not come in, None when it may.

    Through the loopback only this machine's own names are answered; through the one address that `--lan` opened only that
    host, and only a device that was paired. What the socket is, and not what the request says, decides which.
    """
    host, origin = request.headers.get("host", ""), request.headers.get("origin")
    pairing: Pairing | None = request.app.state.pairing
    outside = pairing is not None and pairing.serves(request.scope)
    names = {pairing.host} if outside and pairing is not None else LOOPBACK
    if _host(host).lower() not in names:
        return problem(403, "Foreign host", f"This server answers only to itself, not to the host {host[:80]!r}.")
    site, mode = request.headers.get("sec-fetch-site", ""), request.headers.get("sec-fetch-mode", "")
    if site == "cross-site" and not (request.method == "GET" and mode == "navigate"):
        return problem(403, "Foreign page", "This server answers only its own pages, not what another one asks for.")
    if origin is not None and (urlsplit(origin).netloc != host or urlsplit(origin).scheme != request.url.scheme):
        return problem(403, "Foreign origin", f"This server answers only its own pages, not {origin[:80]!r}.")
    paired = pairing is not None and pairing.knows(request.cookies.get(COOKIE))
    if outside and not paired and not request.url.path.startswith("/pair/"):
        return problem(403, "Not paired", "This device is not paired. Open the link that the server printed: it works once.")
    return None


def _oversized(request: Request) -> Response | None:
    path = request.url.path
    most = LARGEST_PHOTO if path.endswith("/photos") else LARGEST if "/recordings/" in path else LARGEST_BYTES
    length = request.headers.get("content-length", "0")
    if "transfer-encoding" in request.headers:
        return problem(411, "Length required", "What is sent must say how long it is: a Content-Length is needed.")
    if not length.isdigit() or int(length) > most:
        told = f"{int(length):,}" if length.isdigit() else length[:20]
        return problem(413, "Too large", f"At most {most:,} bytes can be sent at once; {told} were.")
    return None


class Guard:
    """Refuses foreign hosts and origins, devices that are not paired and oversized bodies, and adds the security headers."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request to `app`, or what is said instead."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _HEADERS.items():
                    headers.setdefault(name, value)
            await send(message)

        request = Request(scope)
        await (_refused(request) or locked(request) or _oversized(request) or self.app)(scope, receive, with_headers)

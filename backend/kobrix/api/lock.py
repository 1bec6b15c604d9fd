"""The passphrase of a database, where it has one: every browser says it once, the machine's own too, and is then known by a cookie."""

import secrets
from asyncio import to_thread
from pathlib import Path
from urllib.parse import parse_qs

from starlette.requests import Request
from starlette.responses import HTMLResponse, RedirectResponse, Response
from starlette.routing import Route

from kobrix.api.guesses import Guesses
from kobrix.api.pairing import COOKIE, digest_of
from kobrix.api.problems import problem
from kobrix.api.threshold import FORM, let_in
from kobrix.core.errors import BadEntry
from kobrix.store import devices, settings
from kobrix.store.connection import open_db

LEAST, MOST = 8, 400  # letters of a passphrase
DOOR = "/unlock"
_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Kobrix: passphrase</title>
<body style="font: 18px/1.5 sans-serif; max-width: 30em; margin: 2em auto; padding: 0 1em"><main><h1 style="font-size: 1.3em">Kobrix is locked</h1>
<p role="alert">{why}</p><form method="post"><label>Passphrase <input name="passphrase" type="password" autocomplete="current-password" autofocus
 style="font: inherit; min-height: 44px; width: 100%"></label><p><button style="font: inherit; min-height: 44px; padding: 0 1em">Open</button></p></form>
<p>Forgotten: on this machine, <code>kobrix passphrase --database FILE</code> sets another.</p></main></body></html>"""


def hashed(passphrase: str) -> str:
    """The hash of a passphrase (Argon2id, the library's own costs). Raises BadEntry for one that is too short or too long."""
    from argon2 import PasswordHasher

    if not LEAST <= len(passphrase) <= MOST:
        raise BadEntry("passphrase", f"{len(passphrase)} letters", f"{LEAST} to {MOST} letters")
    return PasswordHasher().hash(passphrase)


class Lock:
    """The lock of one database; open where it has no passphrase."""

    def __init__(self, path: Path) -> None:
        self._path = path
        with open_db(path) as db:
            self._hash = settings.get(db, settings.PASSPHRASE)
            self._known = {d.digest for d in devices.every(db)}
        self.guesses = Guesses()

    def keeps_out(self, token: str | None) -> bool:
        """Whether a request with this `token` may not come in."""
        return self._hash is not None and (token is None or digest_of(token) not in self._known)

    def forget(self, digest: bytes) -> None:
        """A browser that was let in is no more."""
        self._known.discard(digest)

    def learn(self, digest: bytes) -> None:
        """A device that was paired has said enough."""
        self._known.add(digest)

    def token(self, passphrase: str, name: str) -> str | None:
        """A token for the right `passphrase`, kept under a `name` among the devices; None for a wrong one. It takes its time."""
        from argon2 import PasswordHasher
        from argon2.exceptions import Argon2Error

        try:
            PasswordHasher().verify(self._hash or "", passphrase[:MOST])
        except (Argon2Error, ValueError):
            return None
        token = secrets.token_urlsafe(32)
        with open_db(self._path) as db:
            devices.add(db, name, digest_of(token))
        self._known.add(digest_of(token))
        return token


def locked(request: Request) -> Response | None:
    """What is said to a browser that has not said the passphrase; None where it may come in."""
    lock: Lock | None = request.app.state.lock
    path = request.url.path
    if lock is None or path == DOOR or path.startswith("/pair/") or not lock.keeps_out(request.cookies.get(COOKIE)):
        return None
    if request.method == "GET" and not path.startswith("/api/"):
        return RedirectResponse(DOOR, status_code=303)
    return problem(401, "Locked", "This Kobrix has a passphrase. Open its first page, and say it.")


def _page(why: str, status: int = 200) -> Response:
    return HTMLResponse(_PAGE.format(why=why), status_code=status, headers=FORM)


def ask(request: Request) -> Response:
    """Ask for the passphrase."""
    lock: Lock | None = request.app.state.lock
    if lock is None or not lock.keeps_out(request.cookies.get(COOKIE)):
        return RedirectResponse("/", status_code=303)
    return _page("")


async def unlock(request: Request) -> Response:
    """Let a browser in that says the passphrase; who guesses waits."""
    lock: Lock | None = request.app.state.lock
    if lock is None:
        return RedirectResponse("/", status_code=303)
    host = request.client.host if request.client is not None else "an unknown place"
    if lock.guesses.wait(host):
        return _page("Too many wrong ones: wait a little.", 403)
    said = parse_qs((await request.body())[: 4 * MOST].decode("utf-8", "replace")).get("passphrase", [""])[0]
    token = await to_thread(lock.token, said, "a browser that said the passphrase")
    if token is None:
        lock.guesses.wrong(host)
        return _page("That is not it.", 403)
    lock.guesses.right(host)
    return let_in(token)


ROUTES = (Route(DOOR, ask), Route(DOOR, unlock, methods=["POST"]))

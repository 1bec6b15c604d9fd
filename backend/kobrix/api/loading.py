"""Pages from the first moment: a browser reads its scripts while the server still reads what answers them."""

import gc
from asyncio import wrap_future
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path

from starlette.applications import Starlette
from starlette.exceptions import HTTPException
from starlette.middleware import Middleware
from starlette.types import ASGIApp, Receive, Scope, Send

from kobrix.api import lock, pages
from kobrix.api.guard import Guard
from kobrix.api.pairing import Pairing
from kobrix.api.problems import on_http

_LATER = ("/api/", "/pair/", lock.DOOR)  # what begins so is answered by the application alone


def _application(database: Path, front_end: Path, pairing: Pairing | None) -> ASGIApp:
    """The application, its modules read now."""
    gc.disable()  # what is loaded stays: looking through it for what could go costs a tenth of the start
    try:
        from kobrix.api.app import create_app

        return create_app(database, front_end, pairing)
    finally:
        gc.freeze()
        gc.enable()


class Loading:
    """The server over a prepared `database`: the pages of `front_end` behind the same guard at once, the rest once it is loaded. What is asked
    for before then waits."""

    def __init__(self, database: Path, front_end: Path, pairing: Pairing | None) -> None:
        self._pages = Starlette(
            routes=pages.routes(front_end), middleware=[Middleware(Guard)], exception_handlers={HTTPException: on_http}
        )
        self._pages.state.pairing, self._pages.state.lock = pairing, lock.Lock(database)
        self._found = (database, front_end, pairing)
        self.application: Future[ASGIApp] = Future()

    def begin(self, failed: Callable[[], None]) -> None:
        """Load the application beside what is asked; `failed` is called where it cannot be loaded."""
        pool = ThreadPoolExecutor(1, "loading")
        self.application = pool.submit(_application, *self._found)
        pool.shutdown(wait=False)
        self.application.add_done_callback(lambda done: failed() if done.exception() is not None else None)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request, by the application as soon as there is one."""
        if self.application.done():
            application = self.application.result()
        elif scope["type"] == "http" and scope["method"] in ("GET", "HEAD") and not scope["path"].startswith(_LATER):
            application = self._pages
        else:
            application = await wrap_future(self.application)
        await application(scope, receive, send)

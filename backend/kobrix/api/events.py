"""Events: the revision and the last record of a job, told as it changes, so that two tabs or a phone and a laptop stay in step."""

import asyncio
import logging
from collections.abc import AsyncIterator
from pathlib import Path

from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse

from kobrix.stages.common import ERRORS, Database, Route
from kobrix.store.connection import DatabaseFault
from kobrix.store.latest import Latest

LOOK, QUIET = 0.4, 15.0  # s: between two looks at the database; between two signs of life
log = logging.getLogger("kobrix")
router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["events"], responses=ERRORS)


class Watch:
    """One look at the database for every stream there is: it begins with the first and ends with the last."""

    def __init__(self, path: Path) -> None:
        self._latest = Latest(path)
        self._turn, self._one = asyncio.Event(), asyncio.Lock()
        self._streams = 0
        self._task: asyncio.Task[None] | None = None

    async def __aenter__(self) -> "Watch":
        self._streams += 1
        await self._look()  # a job that was made just now is there
        if self._task is None:
            self._task = asyncio.create_task(self._looking())
        return self

    async def __aexit__(self, *_: object) -> None:
        self._streams -= 1

    async def _look(self) -> None:
        async with self._one:
            if await asyncio.to_thread(self._latest.look):
                self._turn.set()
                self._turn = asyncio.Event()

    async def _looking(self) -> None:
        while self._streams:
            await asyncio.sleep(LOOK)
            try:
                await self._look()
            except DatabaseFault as error:  # locked for long, or being put back: looked at again in a moment
                log.info("events: %s", error)
        self._task = None  # a stream that comes from here on begins another
        async with self._one:
            self._latest.close()

    def now(self, job_id: int) -> str | None:
        """How far a job is, None where it is not there."""
        stand = self._latest.jobs.get(job_id)
        return None if stand is None else f"{stand[0]} {stand[1]}"

    async def written(self) -> bool:
        """Waits until something was written, or for a sign of life: False."""
        try:
            await asyncio.wait_for(self._turn.wait(), QUIET)
        except TimeoutError:
            return False
        return True


def _watch(request: Request, path: Path) -> Watch:
    """The one watch of this server and this event loop."""
    known: dict[int, Watch] = request.app.state.watches
    return known.setdefault(id(asyncio.get_running_loop()), Watch(path))


@router.get("/{job_id}/events", response_class=StreamingResponse)
async def job_events(job_id: int, request: Request, path: Database) -> StreamingResponse:
    """The job's revision and the number of its last record, at once and whenever one changes, as server-sent events."""

    async def revisions() -> AsyncIterator[str]:
        last: str | None = None
        async with _watch(request, path) as watch:
            while not await request.is_disconnected():
                now = watch.now(job_id)
                if now is None:
                    return
                if now != last:
                    last = now
                    yield f"data: {now}\n\n"
                if not await watch.written():
                    yield ": here\n\n"

    return StreamingResponse(revisions(), media_type="text/event-stream", headers={"Cache-Control": "no-store"})

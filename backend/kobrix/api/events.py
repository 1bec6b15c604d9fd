"""Events: the revision and the last record of a job, told as it changes, so that two tabs or a phone and a laptop stay in step."""

import asyncio
from collections.abc import AsyncIterator

from fastapi import APIRouter, Request
from fastapi.responses import StreamingResponse

from kobrix.stages.common import ERRORS, Database, Route
from kobrix.store import jobs, records
from kobrix.store.connection import open_db

LOOK, QUIET = 0.4, 15.0  # s: between two looks at the database; between two signs of life
router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["events"], responses=ERRORS)


@router.get("/{job_id}/events", response_class=StreamingResponse)
async def job_events(job_id: int, request: Request, path: Database) -> StreamingResponse:
    """The job's revision and the number of its last record, at once and whenever one changes, as server-sent events."""

    def stored() -> str | None:
        with open_db(path) as db:
            revision = jobs.revision(db, job_id)
            return None if revision is None else f"{revision} {records.last_id(db, job_id)}"

    async def revisions() -> AsyncIterator[str]:
        last, silent = None, 0.0
        while not await request.is_disconnected():
            now = await asyncio.to_thread(stored)
            if now is None:
                return
            if now != last:
                last, silent = now, 0.0
                yield f"data: {now}\n\n"
            elif silent >= QUIET:
                silent = 0.0
                yield ": here\n\n"
            await asyncio.sleep(LOOK)
            silent += LOOK

    return StreamingResponse(revisions(), media_type="text/event-stream", headers={"Cache-Control": "no-store"})

"""Prove's door: the page, the stops as a table, recordings and what was read off them."""

from asyncio import to_thread
from pathlib import Path
from typing import Annotated, Any

import fastapi
from fastapi import APIRouter, Query
from fastapi.responses import Response
from pydantic import Field

from kobrix.core.errors import BadEntry
from kobrix.exports.tables import as_csv
from kobrix.fileformat import files
from kobrix.fileformat.records import KEY, FiledTrace
from kobrix.recordings import LARGEST
from kobrix.stages.common import ERRORS, Database, Request, Route, as_json, stored_job
from kobrix.stages.prove import recorded
from kobrix.stages.prove.service import Sets, prove_of, stops_table
from kobrix.stages.prove.shapes import KeptStops, ProveView, RecordingView
from kobrix.store import records, traces
from kobrix.store.connection import open_db

router = APIRouter(route_class=Route, prefix="/api", tags=["prove"], responses=ERRORS)


@router.get("/jobs/{job_id}/prove", response_model=ProveView)
def job_prove(job_id: int, path: Database) -> Response:
    """Prove of a job."""
    return as_json(prove_of(stored_job(path, job_id)))


@router.get("/jobs/{job_id}/stops.csv", response_class=Response)
def stops_csv(job_id: int, path: Database) -> Response:
    """Every stop of a job as CSV."""
    head, rows = stops_table(prove_of(stored_job(path, job_id)))
    return Response(
        as_csv(head, rows),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="stops.csv"'},
    )


Columns = Annotated[str, Query(max_length=4000)]


def _said(columns: str) -> dict[int, tuple[str, str]]:
    """What a person says of the columns: {"2": ["speed", "mph"]}. Raises BadEntry."""
    told: Any = files.parse_json(columns.encode()) if columns else {}
    if not isinstance(told, dict):
        raise BadEntry("columns", columns[:40], 'as {"2": ["speed", "mph"]}')
    found: dict[int, tuple[str, str]] = {}
    for at, own in told.items():
        if not (
            at.isascii()
            and at.isdigit()
            and len(at) < 6
            and isinstance(own, list)
            and len(own) == 2
            and all(isinstance(w, str) for w in own)
        ):
            raise BadEntry("columns", f"{at[:20]}: {str(own)[:40]}", 'as {"2": ["speed", "mph"]}')
        found[int(at)] = (own[0], own[1])
    return found


async def _content(request: fastapi.Request) -> bytes:
    parts, size = [], 0
    async for chunk in request.stream():
        parts.append(chunk)
        size += len(chunk)
        if size > LARGEST:
            raise BadEntry("recording", f"more than {LARGEST:,} bytes", f"up to {LARGEST:,} bytes", "cut it to the stops")
    return b"".join(parts)


@router.post("/jobs/{job_id}/recordings/look", response_model=RecordingView)
async def look_at_recording(job_id: int, request: fastapi.Request, path: Database, columns: Columns = "") -> Response:
    """What is in a recording (CSV, GPX, NMEA; its bytes as the body) and which stops it has; nothing is kept."""
    content = await _content(request)

    def look() -> Response:
        nominal = Sets(stored_job(path, job_id)).nominal
        return as_json(recorded.looked_at(content, _said(columns), nominal)[0])

    return await to_thread(look)


@router.post("/jobs/{job_id}/recordings/keep", response_model=KeptStops, status_code=201)
async def keep_recording(
    job_id: int, request: fastapi.Request, path: Database, set: Annotated[str, Query(min_length=1, max_length=80)],
    stops: Annotated[str, Query(pattern=r"^\d{1,3}(,\d{1,3}){0,39}$")], columns: Columns = "", source: Annotated[str, Query(max_length=200)] = "",
) -> Response:  # fmt: skip
    """Keep some stops of a recording in a set: their samples and a record each; sent twice they are kept once."""
    content = await _content(request)

    def keep() -> Response:
        nominal = Sets(stored_job(path, job_id)).nominal
        wanted = [int(n) for n in stops.split(",")]
        return _kept(path, job_id, recorded.kept(content, _said(columns), nominal, wanted, set, source))

    return await to_thread(keep)


def _kept(path: Path, job_id: int, stops: list[tuple[FiledTrace, dict[str, Any]]]) -> Response:
    with open_db(path) as db:
        for trace, body in stops:
            traces.add(db, job_id, trace)
            records.add(db, job_id, trace.key, "stop", body)
    answer: KeptStops = {"keys": [trace.key for trace, _ in stops]}
    response = as_json(answer)
    response.status_code = 201
    return response


class SimulatedIn(Request):
    """A set that the simulated meter drives a stop of."""

    set: Annotated[str, Field(min_length=1, max_length=80)]


@router.post("/jobs/{job_id}/recordings/simulated", response_model=KeptStops, status_code=201)
def simulate_stop(job_id: int, asked: SimulatedIn, path: Database) -> Response:
    """A stop of the simulated meter, marked as simulated and never counted."""
    return _kept(path, job_id, [recorded.simulated(stored_job(path, job_id), asked.set)])


@router.get("/jobs/{job_id}/traces/{key}.csv", response_class=Response)
def trace_csv(job_id: int, key: Annotated[str, fastapi.Path(pattern=KEY)], path: Database) -> Response:
    """The samples of a recorded stop as CSV."""
    with open_db(path) as db:
        own = traces.get(db, job_id, key).model_dump(exclude_none=True, exclude={"key", "source"})
    rows = [list(row) for row in zip(*own.values(), strict=True)]
    return Response(
        as_csv(list(own), rows), media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="{key}.csv"'},
    )  # fmt: skip

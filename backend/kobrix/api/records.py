"""Records of what happened at the vehicle: written once, struck out with a reason, counted again with another."""

from typing import Annotated, Any

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import Field
from typing_extensions import TypedDict

from kobrix.fileformat.records import KEY, RecordKind
from kobrix.stages.common import ERRORS, Database, Request, Route, as_json
from kobrix.store import records
from kobrix.store.connection import open_db

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["records"], responses=ERRORS)


class RecordIn(Request):
    """A record: its `key`, made where it was written (sent twice, it is kept once), its kind, what it says, and when it was
    written, where that was earlier."""

    key: Annotated[str, Field(pattern=KEY)]
    kind: RecordKind
    body: dict[str, Any] = Field(max_length=40)
    made_at: Annotated[str | None, Field(pattern=r"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}Z$")] = None


class RecordOut(TypedDict):
    """A record as it is kept; `struck`: why it does not count, null where it does."""

    id: int
    key: str
    kind: str
    made_at: str
    body: dict[str, Any]
    struck: str | None


def _out(record: records.Record) -> RecordOut:
    return {
        "id": record.id,
        "key": record.key,
        "kind": record.kind,
        "made_at": record.made_at,
        "body": record.body,
        "struck": record.struck,
    }


@router.post("/{job_id}/records", response_model=RecordOut, status_code=201)
def add_record(job_id: int, asked: RecordIn, path: Database) -> Response:
    """Keep a record."""
    with open_db(path) as db:
        response = as_json(_out(records.add(db, job_id, asked.key, asked.kind, asked.body, asked.made_at)))
    response.status_code = 201
    return response


@router.get("/{job_id}/records", response_model=list[RecordOut])
def list_records(job_id: int, path: Database) -> Response:
    """Every record of a job, in the order in which they were kept."""
    with open_db(path) as db:
        return as_json([_out(r) for r in records.all_of(db, job_id)])

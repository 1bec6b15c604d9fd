"""Jobs: list, read, add from a file, change, undo, redo, put away and bring back."""

import os
from asyncio import to_thread
from collections import defaultdict
from datetime import date
from functools import lru_cache
from itertools import count
from pathlib import Path
from threading import Lock
from typing import Any, Union

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic_core import to_json
from typing_extensions import TypedDict

from kobrix.api.at_once import AtOnce
from kobrix.api.devices import who
from kobrix.api.dossier import dossier_of
from kobrix.api.edits import edits_of, named_by_their_fields, own_edits
from kobrix.api.requests import ChangeIn, NewJobIn, ShowIn, StepIn, TryIn
from kobrix.api.shapes import CardOut, ExampleOut, FileLook, JobLine, JobOut, StageOut
from kobrix.api.tables import tables_of
from kobrix.api.whole_record import pictures_of, record_of
from kobrix.core.errors import BadFile, Damaged, KobrixError, NotFound
from kobrix.demo import SETUPS as EXAMPLES
from kobrix.evaluate.sketch import sketch
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.exports.dossier import Dossier, as_pdf
from kobrix.exports.workbook import as_xlsx
from kobrix.fileformat import files, job_edits
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import new_job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit, JsonObject, pointer
from kobrix.stages.common import ERRORS, Database, Route, StoredJob, as_json, stored_job
from kobrix.stages.registry import STAGES, in_order, stage_by_path
from kobrix.stages.size.service import card, tried_view
from kobrix.stages.size.shapes import Tried
from kobrix.store import jobs, records, whole
from kobrix.store.connection import open_db
from kobrix.store.edits import apply, value_at
from kobrix.store.jobs import Stored

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["jobs"], responses=ERRORS)


class Changed(TypedDict):
    """A job after a change, and what the page that asked shows of it: null where none asked, and where several store something at once,
    so that nobody's change waits for somebody else's page; the page is then read at its own name."""

    job: JobOut
    shown: Union[(*(stage.view for stage in STAGES if stage.view is not None), None)]  # type: ignore[valid-type]


_at_once = AtOnce(os.cpu_count() or 1)
_turns: defaultdict[tuple[Path, int], Lock] = defaultdict(Lock)


def _turn(path: Path, job_id: int) -> Lock:
    """One writer of a job at a time: the next is told of the newer revision at once, and works nothing out in vain. It locks nothing
    in the database: another process still compares and sets."""
    return _turns[path, job_id]


@lru_cache(maxsize=64)
def _job(text: bytes) -> Job:
    """The job of a stored document. Raises BadFile."""
    return files.check(Job, files.parse_json(text))


def _job_out(stored: Stored, recorded: int = 0) -> JobOut:
    document: Any = stored.document
    return {
        "id": stored.id, "name": stored.name, "revision": stored.revision, "changed_at": stored.changed_at,
        "undo": stored.undo, "redo": stored.redo,
        "setups": [document["as_found"]["name"], *(p["name"] for p in document.get("plans", []))],
        "next_plan": job_edits.free_name(document), "document": document, "recorded": recorded,
    }  # fmt: skip


def _listed(stored: Stored) -> JobLine:
    document: Any = stored.document
    plans = [p["name"] for p in document.get("plans", [])]
    return {"id": stored.id, "name": stored.name, "revision": stored.revision, "changed_at": stored.changed_at, "plans": plans}


def _changed(path: Path, stored: Stored, show: ShowIn | None, waited: bool = False) -> Response:
    with open_db(path) as db:
        happened = tuple(records.all_of(db, stored.id))
        doc: Changed = {"job": _job_out(stored, records.last_id(db, stored.id)), "shown": None}
    stage = None if show is None else stage_by_path(show.page)
    if show is not None and (stage is None or stage.shown is None):
        raise NotFound("page", show.page, ", ".join(s.path for s in STAGES if s.shown is not None))
    if show is not None and stage is not None and stage.shown is not None and not (waited or _at_once.others_wait):
        doc["shown"] = stage.shown(StoredJob(_job(to_json(stored.document)), stored.revision, happened), show.setup)
    return as_json(doc)


def _check(document: JsonObject) -> None:
    """Refuse what is not a job, or holds what contradicts itself once it is worked out. Raises BadFile, BadEntry."""
    job = _job(to_json(document))
    for name in job.names:
        answer_of(ByContent(job.setup(name)))


@router.get("", response_model=list[JobLine])
def list_jobs(path: Database, away: bool = False) -> Response:
    """Every job on the list, or with `away` every one that was put away; the one changed last first."""
    with open_db(path) as db:
        return as_json([_listed(j) for j in jobs.all_jobs(db, away)])


@lru_cache(maxsize=1)
def _examples() -> dict[str, Job]:
    found: dict[str, Job] = {}
    for file in EXAMPLES:
        value = files.read_file(files.parse_json(file.read_bytes()))
        found[file.name.split(".")[0]] = files.as_job(value) if isinstance(value, Setup) else value
    return found


@router.get("/examples", response_model=list[ExampleOut])
def list_examples() -> Response:
    """The invented vehicles that can be opened as a job of one's own."""
    return as_json([{"key": key, "name": job.name, "sketch": sketch(job)} for key, job in _examples().items()])


@router.post("/examples/{key}", response_model=JobOut, status_code=201)
def open_example(key: str, path: Database) -> Response:
    """Open a copy of an invented vehicle."""
    if key not in _examples():
        raise NotFound("example", key, ", ".join(_examples()))
    return _stored_new(path, _examples()[key])


@router.post("", response_model=JobOut, status_code=201)
async def add_job(request: Request, path: Database) -> Response:
    """Add a job from a file in the open format: a job, or a setup, which becomes the job's state as found."""
    return await to_thread(_add, path, await request.body())


def _add(path: Path, text: bytes) -> Response:
    value = files.read_file(files.parse_json(text))
    job = files.as_job(value) if isinstance(value, Setup) else value
    return _stored_new(path, job)


@router.post("/look", response_model=FileLook)
async def look_at_file(request: Request, path: Database) -> Response:
    """What a file of the open format holds, before it is opened: it is read and checked whole, and nothing is stored."""
    return await to_thread(_looked_at, path, await request.body())


def _looked_at(path: Path, text: bytes) -> Response:
    value = files.read_file(files.parse_json(text))
    job = files.as_job(value) if isinstance(value, Setup) else value
    with open_db(path) as db:
        names = {stored.name for stored in jobs.all_jobs(db)}
    told: FileLook = {
        "kind": "setup" if isinstance(value, Setup) else "job", "name": job.name, "vehicle": job.vehicle.kind, "setups": job.names,
        "records": len(job.records), "stops": sum(r.kind == "stop" for r in job.records), "traces": len(job.traces), "twin": job.name in names,
    }  # fmt: skip
    return as_json(told)


def _stored_new(path: Path, job: Job) -> Response:
    with open_db(path) as db:
        stored = whole.add(db, job)
        response = as_json(_job_out(stored, records.last_id(db, stored.id)))
    response.status_code = 201
    return response


@router.post("/new", response_model=JobOut, status_code=201)
def begin_job(new: NewJobIn, path: Database) -> Response:
    """Begin an empty job for a vehicle of one layout."""
    return _stored_new(path, new_job(new.name.strip(), new.layout))


@router.delete("/{job_id}", response_model=JobLine)
def put_job_away(job_id: int, path: Database) -> Response:
    """Take a job off the list; it can be brought back."""
    with open_db(path) as db:
        return as_json(_listed(jobs.put_away(db, job_id, True)))


@router.post("/{job_id}/back", response_model=JobLine)
def bring_job_back(job_id: int, path: Database) -> Response:
    """Bring a job back to the list."""
    with open_db(path) as db:
        return as_json(_listed(jobs.put_away(db, job_id, False)))


@router.post("/{job_id}/copy", response_model=JobOut, status_code=201)
def copy_job(job_id: int, path: Database) -> Response:
    """The job once more, as it stands now, under a name of its own; its steps stay with the first."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
        names = {j.name for j in jobs.all_jobs(db)}
    words = str(document["name"])[:70]
    name = next(free for n in count(1) if (free := f"{words}, copy" if n == 1 else f"{words}, copy {n}") not in names)
    return _stored_new(path, _job(to_json({**document, "name": name})))


@router.get("/{job_id}/card", response_model=CardOut)
def job_card(job_id: int, path: Database) -> Response:
    """What the wall shows of a job: its vehicle, its push and what is worst of it."""
    job = stored_job(path, job_id).job
    return as_json({"sketch": sketch(job), **card(job)})


@router.get("/{job_id}/file", response_model=JsonObject)
def job_file(job_id: int, path: Database) -> Response:
    """The job as a file in the open format."""
    with open_db(path) as db:
        response = as_json(whole.document(db, job_id))
    response.headers["Content-Disposition"] = f'attachment; filename="job-{job_id}.kobrix.json"'
    return response


@router.get("/{job_id}/tables.xlsx", response_class=Response)
def job_tables(job_id: int, path: Database) -> Response:
    """Every table of the job in one workbook."""
    content = as_xlsx(tables_of(stored_job(path, job_id), date.today()))
    return Response(
        content, media_type="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
        headers={"Content-Disposition": f'attachment; filename="job-{job_id}.xlsx"'},
    )  # fmt: skip


@router.get("/{job_id}/dossier.pdf", response_class=Response)
def job_dossier(job_id: int, path: Database, request: Request, setup: str | None = None) -> Response:
    """One page for an inspector, of the first plan where no setup is named."""
    stored = stored_job(path, job_id)
    name = setup if setup is not None else stored.job.names[min(1, len(stored.job.names) - 1)]
    stored.job.setup(name)
    return _pdf(dossier_of(stored, name, date.today(), f"{request.base_url}jobs/{job_id}"), f"dossier-{job_id}")


@router.get("/{job_id}/record.pdf", response_class=Response)
def job_record(job_id: int, path: Database, request: Request, setup: str | None = None) -> Response:
    """The whole record of a setup: the inspector's page, and all that stands behind it."""
    stored = stored_job(path, job_id)
    name = setup if setup is not None else stored.job.names[min(1, len(stored.job.names) - 1)]
    stored.job.setup(name)
    seen = pictures_of(path, job_id, stored, name)
    return _pdf(record_of(stored, name, date.today(), f"{request.base_url}jobs/{job_id}", seen), f"record-{job_id}")


def _pdf(dossier: Dossier, name: str) -> Response:
    return Response(
        as_pdf(dossier), media_type="application/pdf", headers={"Content-Disposition": f'attachment; filename="{name}.pdf"'}
    )


@router.get("/{job_id}", response_model=JobOut)
def get_job(job_id: int, path: Database) -> Response:
    """One job as it is stored. What cannot be read as one is refused in words, with what is wrong of it."""
    with open_db(path) as db:
        stored, recorded = jobs.get(db, job_id), records.last_id(db, job_id)
    try:
        _job(to_json(stored.document))
    except KobrixError as error:
        problems = error.problems if isinstance(error, BadFile) else [str(error)]
        raise Damaged(["This job was left so that it cannot be opened. It can be brought round.", *problems]) from None
    return as_json(_job_out(stored, recorded))


@router.get("/{job_id}/stages", response_model=list[StageOut])
def job_stages(job_id: int, path: Database) -> Response:
    """The stages in their order, and how each stands for a job."""
    stored = stored_job(path, job_id)
    found: list[StageOut] = []
    for title, stage in in_order():
        if stage is None or stage.standing is None:
            found.append({"title": title, "path": None, "state": "later", "words": "later"})
            continue
        at = stage.standing(stored)
        found.append({"title": title, "path": stage.path, "state": at["state"], "words": at["words"]})
    return as_json(found)


def _stored_already(stored: Stored, change: ChangeIn) -> bool:
    """Whether all that a change makes stands there: its answer was lost on the way and it is sent again, or two entered the same."""
    if change.plan is not None or any(e.exact is not None for e in change.edits):
        return False
    return all(_stands(stored.document, edit) for edit in own_edits(stored.document, change))


def _stands(document: JsonObject, edit: Edit) -> bool:
    """Whether what an `edit` makes stands in a `document`: what is set, what is put behind the last of a list, nothing where it is taken away."""
    if edit["op"] == "insert":
        rows, there = value_at(document, edit["path"].removesuffix("/-") or "/-")
        return edit["path"].endswith("/-") and there and isinstance(rows, list) and rows[-1:] == [edit["value"]]
    value, there = value_at(document, edit["path"])
    return (edit["op"] == "set" and there and value == edit["value"]) or (edit["op"] == "remove" and not there)


@router.post("/{job_id}/changes", response_model=Changed)
def change_job(job_id: int, change: ChangeIn, path: Database, request: Request) -> Response:
    """Make a step on a revision. A stale base gets 409 with both values and changes nothing."""
    if not change.edits and change.plan is None:
        raise BadFile(["edits: none were given; allowed are up to 100, or something done with a plan."])
    with _turn(path, job_id), _at_once as waited:
        with open_db(path) as db:
            stored = jobs.get(db, job_id)
        if stored.revision != change.base:
            if _stored_already(stored, change):
                return _changed(path, stored, change.show)
            raise jobs.stale(change.base, stored, own_edits(stored.document, change))
        root = "" if change.under is None or change.plan is not None else job_edits.root_of(stored.document, change.under)
        with named_by_their_fields(change.edits, root):
            edits = edits_of(stored.document, change)
            stored = jobs.change(path, job_id, change.base, edits, change.label, change.gesture, _check, who(request, path))
    return _changed(path, stored, change.show, waited)


@router.post("/{job_id}/try", response_model=Tried)
def try_edits(job_id: int, tried: TryIn, path: Database) -> Response:
    """What a setup would be with some edits, which are not stored."""
    with open_db(path) as db:
        document = jobs.get(db, job_id).document
    root = "" if tried.under is None else job_edits.root_of(document, tried.under)
    with named_by_their_fields(tried.edits, root):
        after = apply(document, edits_of(document, tried))[0]
        changed = _job(to_json(after))
    stands: Any = value_at(after, pointer(job_edits.root_of(after, tried.setup)))[0]
    doc: Tried = {"setup": tried_view(_job(to_json(document)), changed, tried.setup), "document": stands}
    return as_json(doc)


@router.post("/{job_id}/undo", response_model=Changed)
def undo_job(job_id: int, step: StepIn, path: Database) -> Response:
    """Undo the last step."""
    with _turn(path, job_id), _at_once as waited:
        stored = jobs.undo(path, job_id, step.base, _check)
    return _changed(path, stored, step.show, waited)


@router.post("/{job_id}/redo", response_model=Changed)
def redo_job(job_id: int, step: StepIn, path: Database) -> Response:
    """Make the last undone step again."""
    with _turn(path, job_id), _at_once as waited:
        stored = jobs.redo(path, job_id, step.base, _check)
    return _changed(path, stored, step.show, waited)


@router.post("/{job_id}/round", response_model=JobOut)
def bring_job_round(job_id: int, path: Database) -> Response:
    """Bring a job round that an older Kobrix left so that it cannot be opened: as little of it is undone as can be."""

    def fine(document: JsonObject) -> bool:
        try:
            _check(document)
        except KobrixError:
            return False
        return True

    return as_json(_job_out(jobs.bring_round(path, job_id, fine, files.tidied)))

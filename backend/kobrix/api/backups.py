"""Copies of the whole database: the daily ones, one to take away, one put back; asked for on the machine itself only."""

from pathlib import Path
from tempfile import TemporaryDirectory

from fastapi import APIRouter, Request
from fastapi.responses import Response
from typing_extensions import TypedDict

from kobrix.api.pairing import Pairing
from kobrix.core.errors import BadEntry
from kobrix.stages.common import ERRORS, Database, Route, as_json
from kobrix.store import backup, prune

router = APIRouter(route_class=Route, prefix="/api", tags=["backups"], responses=ERRORS)


class CopyOut(TypedDict):
    """A daily copy: its day, its size [bytes], and how many jobs are on its wall."""

    name: str
    day: str
    size: int
    jobs: int


class BackupsOut(TypedDict):
    """The daily copies, the newest first; `kept`: under which name stands what a copy was put in place of; days and steps that are kept."""

    copies: list[CopyOut]
    kept: str | None
    days: int
    away_days: int
    steps: int


def _here(request: Request) -> None:
    """Raises BadEntry for a device of the network: it works on jobs, it does not take all of them away or put others in their place."""
    pairing: Pairing | None = request.app.state.pairing
    if pairing is not None and pairing.serves(request.scope):
        raise BadEntry("backups", "from a device", "the machine that Kobrix runs on")


def _out(path: Path, kept: str | None) -> Response:
    rows: list[CopyOut] = [{"name": c.name, "day": c.day, "size": c.size, "jobs": c.jobs} for c in backup.listed(path)]
    told: BackupsOut = {
        "copies": rows, "kept": kept, "days": backup.KEPT_DAYS, "away_days": prune.AWAY_DAYS, "steps": prune.STEPS,
    }  # fmt: skip
    return as_json(told)


@router.get("/backups", response_model=BackupsOut)
def list_backups(request: Request, path: Database) -> Response:
    """The daily copies that can be put back."""
    _here(request)
    return _out(path, None)


@router.get("/backups/now.sqlite3", response_class=Response)
def backup_now(request: Request, path: Database) -> Response:
    """A copy of the whole database as it is now, as one file."""
    _here(request)
    with TemporaryDirectory() as folder:
        file = Path(folder) / "now.sqlite3"
        backup.copy_to(path, file)
        content = file.read_bytes()
    return Response(
        content,
        media_type="application/vnd.sqlite3",
        headers={"Content-Disposition": f'attachment; filename="{path.stem}-backup.sqlite3"'},
    )


@router.post("/backups/{name}/restore", response_model=BackupsOut)
def restore_backup(name: str, request: Request, path: Database) -> Response:
    """Put a daily copy in place of the database; what stands there now is kept beside it."""
    _here(request)
    return _out(path, backup.put_back_live(name, path).name)

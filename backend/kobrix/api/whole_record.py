"""The whole record of a setup as paper: the inspector's page, and behind it how every figure came about, every table, every photograph."""

from dataclasses import replace
from datetime import date
from pathlib import Path

from kobrix.api.dossier import dossier_of
from kobrix.api.lend import lent_copy
from kobrix.api.tables import tables_of
from kobrix.exports.dossier import Dossier, Picture, Section
from kobrix.exports.workbook import Sheet
from kobrix.stages.common import StoredJob
from kobrix.stages.prove.service import prove_of
from kobrix.store import photos
from kobrix.store.connection import open_db

_NOT = frozenset({"Job", "Results", "Routes"})  # said on the first page, or of other plans
_WIDEST, _LEAST = 46, 6  # letters by which a table's columns share the sheet
_LONGEST = 400  # letters of a cell on paper; the workbook has all


def _cell(value: object) -> str:
    text = "" if value is None else f"{value:.4g}" if isinstance(value, float) else str(value)
    return text if len(text) <= _LONGEST else f"{text[:_LONGEST]} ..."


def _table(sheet: Sheet, name: str) -> Section | None:
    """A sheet's rows of the setup by `name`, without the column that says so; None where it has none."""
    own = sheet.head[0] == "setup"
    rows = [tuple(_cell(c) for c in (row[1:] if own else row)) for row in sheet.rows if not own or row[0] == name]
    if not rows:
        return None
    head = sheet.head[1:] if own else sheet.head
    wide = tuple(float(min(_WIDEST, max(_LEAST, *(len(row[n]) for row in (head, *rows))))) for n in range(len(head)))
    return Section(sheet.name, (), head, tuple(rows), wide)


def pictures_of(path: Path, job_id: int, stored: StoredJob, name: str) -> tuple[Picture, ...]:
    """The photographs of the setup by `name` of a job, each once, with what was written beside it; one that came in a file without
    its picture is left out."""
    told: dict[str, str] = {}
    for record in stored.records:
        sha256 = record.body.get("sha256")
        if record.kind == "seen" and record.struck is None and record.body.get("setup") == name and sha256:
            told.setdefault(
                sha256,
                f"{record.body['step'].partition('/')[2].replace('_', ' ')}: {record.body['words']} ({record.made_at[:10]})",
            )
    with open_db(path) as db:
        there = photos.kept(db, job_id)
        return tuple(Picture(photos.get(db, job_id, sha256).content, words) for sha256, words in told.items() if sha256 in there)


def record_of(stored: StoredJob, name: str, today: date, link: str, pictures: tuple[Picture, ...]) -> Dossier:
    """The record of the setup by `name`. Raises NotFound."""
    proven = prove_of(stored)
    first = dossier_of(stored, name, today, link, proven)
    working = tuple((s.name, s.formula, s.numbers, s.source) for s in lent_copy(stored.job, name, today).working)
    behind = [
        Section("How the push becomes the stop", (), ("step", "formula", "with this setup's numbers", "source"), working, (26, 46, 52, 36))
        if working else None,
        *(_table(sheet, name) for sheet in tables_of(stored, today, proven) if sheet.name not in _NOT),
    ]  # fmt: skip
    return replace(first, sections=(*first.sections, *(s for s in behind if s is not None)), pictures=pictures)

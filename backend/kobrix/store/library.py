"""The library of parts, shared by all jobs."""

import sqlite3
from collections.abc import Sequence

from pydantic_core import from_json, to_json

from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat.library import MOST_PARTS, LibraryPart
from kobrix.store.connection import writing


def every(db: sqlite3.Connection) -> list[tuple[int, LibraryPart]]:
    """Every part with its number, in the order they came."""
    rows = db.execute("SELECT id, part FROM library ORDER BY id").fetchall()
    return [(r["id"], LibraryPart.model_construct(**from_json(r["part"]))) for r in rows]


def add(db: sqlite3.Connection, parts: Sequence[LibraryPart]) -> int:
    """Keep parts, all or none; how many are new: one that is there already, to the letter, is not kept twice. Raises BadEntry."""
    texts = [to_json(p.model_dump(exclude_none=True)).decode() for p in parts]
    with writing(db):
        known = {r["part"] for r in db.execute("SELECT part FROM library")}
        new = [t for t in dict.fromkeys(texts) if t not in known]
        if len(known) + len(new) > MOST_PARTS:
            raise BadEntry("library", f"{len(known) + len(new):,} parts", f"up to {MOST_PARTS:,}", "take some out first")
        db.executemany("INSERT INTO library (part) VALUES (?)", [(t,) for t in new])
    return len(new)


def remove(db: sqlite3.Connection, part_id: int) -> None:
    """Take a part out. Raises NotFound."""
    with writing(db):
        if db.execute("DELETE FROM library WHERE id = ?", (part_id,)).rowcount == 0:
            raise NotFound("part of the library", str(part_id))

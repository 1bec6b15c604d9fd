"""A copy of a whole database: on demand, once a day beside it, and put back."""

import itertools
import sqlite3
from datetime import date, timedelta
from pathlib import Path

from kobrix.core.errors import BadEntry
from kobrix.store.connection import open_db, prepare

KEPT_DAYS = 30
FOLDER = "backups"


def copy_to(database: Path, file: Path) -> None:
    """Write a copy of a `database` to a `file` that is not there yet, while it is in use. Raises BadEntry."""
    if not database.is_file():
        raise BadEntry("database", str(database), "one that is there")
    if file.exists():
        raise BadEntry("file", str(file), "a file that is not there yet", "a backup never overwrites one")
    file.parent.mkdir(parents=True, exist_ok=True)
    half = file.with_name(file.name + ".half")
    half.unlink(missing_ok=True)
    with open_db(database) as db:
        other = sqlite3.connect(half)
        try:
            db.backup(other)
        finally:
            other.close()
    half.replace(file)


def of_the_day(database: Path, today: date) -> Path | None:
    """The day's copy of a `database`, made unless it is there; copies older than 30 days are thrown away. None where there is none."""
    if not database.is_file():
        return None
    folder = database.parent / FOLDER
    file = folder / f"{database.stem}-{today.isoformat()}.sqlite3"
    if not file.exists():
        copy_to(database, file)
    for old in copies(database):
        if old.stem.removeprefix(f"{database.stem}-") < (today - timedelta(days=KEPT_DAYS)).isoformat():
            old.unlink()
    return file


def copies(database: Path) -> list[Path]:
    """The daily copies of a `database`, the oldest first."""
    return sorted((database.parent / FOLDER).glob(f"{database.stem}-????-??-??.sqlite3"))


def put_back(file: Path, database: Path) -> Path | None:
    """Put a backup `file` in place of a `database`; what stood there is kept beside it, and its name returned. Raises BadEntry where the
    file is no database of Kobrix."""
    if not file.is_file():
        raise BadEntry("backup", str(file), "a file that is there")
    database.parent.mkdir(parents=True, exist_ok=True)
    new = database.with_name(database.name + ".new")
    new.unlink(missing_ok=True)
    source = sqlite3.connect(f"file:{file}?mode=ro", uri=True)
    try:
        known = source.execute("SELECT count(*) FROM sqlite_master WHERE name IN ('jobs', 'changes')").fetchone()[0]
        if known != 2 or source.execute("PRAGMA quick_check").fetchone()[0] != "ok":
            raise BadEntry("backup", str(file), "an undamaged database of Kobrix")
        target = sqlite3.connect(new)
        try:
            source.backup(target)
        finally:
            target.close()
    except sqlite3.DatabaseError:
        new.unlink(missing_ok=True)
        raise BadEntry("backup", str(file), "a database of Kobrix") from None
    finally:
        source.close()
    kept = None
    if database.exists():
        places = (database.with_name(f"{database.stem}-before-{n}.sqlite3") for n in itertools.count(1))
        kept = next(place for place in places if not place.exists())
        copy_to(database, kept)
        for end in ("", "-wal", "-shm"):
            Path(f"{database}{end}").unlink(missing_ok=True)
    new.replace(database)
    prepare(database)
    return kept

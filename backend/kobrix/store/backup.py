"""A copy of a whole database: on demand, once a day beside it, and put back."""

import itertools
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import date, timedelta
from pathlib import Path
from tempfile import TemporaryDirectory

from kobrix.core.errors import BadEntry, NotFound
from kobrix.store.connection import open_db, prepare, writing

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
            other.execute("PRAGMA journal_mode = DELETE")  # a copy is one file: to read it writes nothing beside it
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


@dataclass(frozen=True)
class Copy:
    """A daily copy: its file's `name`, its day, its size [bytes], and how many jobs are in it."""

    name: str
    day: str
    size: int
    jobs: int


def listed(database: Path) -> list[Copy]:
    """The daily copies that can be put back, the newest first; one that cannot be read is left out."""
    found = []
    for file in reversed(copies(database)):
        try:
            with _reading(file) as db:
                jobs = int(db.execute("SELECT count(*) FROM jobs WHERE gone = 0").fetchone()[0])
        except (sqlite3.DatabaseError, BadEntry):
            continue
        found.append(Copy(file.name, file.stem.removeprefix(f"{database.stem}-"), file.stat().st_size, jobs))
    return found


def last_good(database: Path) -> Path | None:
    """The newest daily copy that is undamaged; None where there is none."""
    for file in reversed(copies(database)):
        try:
            with _reading(file):
                return file
        except (sqlite3.DatabaseError, BadEntry):
            continue
    return None


@contextmanager
def _reading(file: Path) -> Iterator[sqlite3.Connection]:
    """A backup `file` to be read. Raises BadEntry, or SQLite's error, where it is no undamaged database of Kobrix."""
    source = sqlite3.connect(f"file:{file}?mode=ro", uri=True)
    try:
        known = source.execute("SELECT count(*) FROM sqlite_master WHERE name IN ('jobs', 'changes')").fetchone()[0]
        if known != 2 or source.execute("PRAGMA quick_check").fetchone()[0] != "ok":
            raise BadEntry("backup", str(file), "an undamaged database of Kobrix")
        yield source
    finally:
        source.close()


def _beside(database: Path) -> Path:
    """A name beside a `database` for what stood in its place."""
    places = (database.with_name(f"{database.stem}-before-{n}.sqlite3") for n in itertools.count(1))
    return next(place for place in places if not place.exists())


def put_back_live(name: str, database: Path) -> Path:
    """Put the daily copy by its `name` into a `database` that is in use; what stood there is kept beside it, and its name returned.

    It is brought to the newest migration beside it first; then one transaction of SQLite's own backup: who reads meanwhile sees the one or
    the other, never an older make. Raises NotFound, BadEntry.
    """
    file = next((f for f in copies(database) if f.name == name), None)
    if file is None:
        raise NotFound("backup", name, ", ".join(f.name for f in copies(database)))
    kept = _beside(database)
    with TemporaryDirectory() as folder:
        fresh = Path(folder) / "fresh.sqlite3"
        try:
            with _reading(file) as source, closing(sqlite3.connect(fresh)) as target:
                source.backup(target)
            prepare(fresh)
            copy_to(database, kept)
            with open_db(database) as live, open_db(fresh) as db:
                before = live.execute("SELECT revision, id FROM jobs").fetchall()
                with writing(db):
                    # A page that is open, and a change that waits on a device, know of later revisions: what was put back is a newer one yet.
                    db.executemany("UPDATE jobs SET revision = max(revision, ?) + 1 WHERE id = ?", before)
                db.backup(live)
        except sqlite3.DatabaseError:
            raise BadEntry("backup", name, "an undamaged database of Kobrix") from None
    return kept


def put_back(file: Path, database: Path) -> Path | None:
    """Put a backup `file` in place of a `database`; what stood there is kept beside it, and its name returned. Raises BadEntry where the
    file is no database of Kobrix."""
    if not file.is_file():
        raise BadEntry("backup", str(file), "a file that is there")
    database.parent.mkdir(parents=True, exist_ok=True)
    new = database.with_name(database.name + ".new")
    new.unlink(missing_ok=True)
    try:
        with _reading(file) as source:
            target = sqlite3.connect(new)
            try:
                source.backup(target)
            finally:
                target.close()
    except sqlite3.DatabaseError:
        new.unlink(missing_ok=True)
        raise BadEntry("backup", str(file), "a database of Kobrix") from None
    kept = None
    if database.exists():
        kept = _beside(database)
        try:
            copy_to(database, kept)
        except sqlite3.DatabaseError:  # damaged: its bytes are kept as they are, for whoever may get something out of them
            kept.with_name(kept.name + ".half").unlink(missing_ok=True)
            shutil.copy2(database, kept)
        for end in ("", "-wal", "-shm"):
            Path(f"{database}{end}").unlink(missing_ok=True)
    new.replace(database)
    prepare(database)
    return kept

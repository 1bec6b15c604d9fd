"""Opening the database: one connection a call, WAL, foreign keys, and migrations with a backup before them."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path

from kobrix.core.errors import BadFile

BUSY_SECONDS = 10.0


def _connect(path: Path) -> sqlite3.Connection:
    db = sqlite3.connect(path, timeout=BUSY_SECONDS, isolation_level=None)
    db.row_factory = sqlite3.Row
    db.execute("PRAGMA foreign_keys = ON")
    db.execute("PRAGMA synchronous = FULL")
    return db


@contextmanager
def open_db(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection to the database at `path`, closed at the end. It belongs to the thread that opened it."""
    db = _connect(path)
    try:
        yield db
    finally:
        db.close()


@contextmanager
def writing(db: sqlite3.Connection) -> Iterator[None]:
    """One transaction that writes: all of it is kept, or none."""
    db.execute("BEGIN IMMEDIATE")
    try:
        yield
    except BaseException:
        db.execute("ROLLBACK")
        raise
    db.execute("COMMIT")


def migrations() -> list[tuple[int, str]]:
    """Numbers and texts of the migrations, in order."""
    folder = resources.files("kobrix.store") / "migrations"
    files = sorted((f.name, f) for f in folder.iterdir() if f.name.endswith(".sql"))
    return [(int(name.split("_")[0]), file.read_text(encoding="utf-8")) for name, file in files]


def prepare(path: Path, steps: list[tuple[int, str]] | None = None) -> bool:
    """Bring the database at `path` to the newest migration; a copy is put beside an older one first.

    Returns whether the database was created just now. `steps` stands in for the shipped migrations in tests. Raises BadFile,
    and changes nothing, where the file is no database or a newer Kobrix made it.
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    created = not path.exists()
    known = steps or migrations()
    with _opened(path) as db:
        version = int(db.execute("PRAGMA user_version").fetchone()[0])
        if version > known[-1][0]:
            raise BadFile([
                f"{path.name}: a newer Kobrix made it (version {version}); this one knows {known[-1][0]}. Nothing was changed."
            ])  # fmt: skip
        db.execute("PRAGMA journal_mode = WAL")
        due = [step for step in known if step[0] > version]
        if due and version > 0:
            _back_up(db, path.with_name(f"{path.stem}-before-{due[-1][0]:04d}{path.suffix}"))
        for number, text in due:
            db.executescript(f"BEGIN IMMEDIATE;\n{text}\nPRAGMA user_version = {number};\nCOMMIT;")
    return created


@contextmanager
def _opened(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection to what may be any file. Raises BadFile where it is no database."""
    try:
        with open_db(path) as db:
            yield db
    except sqlite3.DatabaseError as error:
        if error.sqlite_errorcode != sqlite3.SQLITE_NOTADB:
            raise
        raise BadFile([f"{path.name}: it is no database. Nothing was changed."]) from None


def _back_up(db: sqlite3.Connection, target: Path) -> None:
    copy = sqlite3.connect(target)
    try:
        db.backup(copy)
    finally:
        copy.close()

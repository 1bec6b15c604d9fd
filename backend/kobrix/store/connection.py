"""Opening the database: one connection a call, WAL, foreign keys, and migrations with a backup before them."""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path

from kobrix.core.errors import BadFile

BUSY_SECONDS = 10.0
DatabaseFault = sqlite3.Error  # what the store may raise beside the errors in words
_WRONG = {
    sqlite3.SQLITE_NOTADB: "it is no database. Nothing was changed. Give --database another file, or move this one away",
    sqlite3.SQLITE_CORRUPT: "the database is damaged. Nothing was changed. Keep this file, and start with a copy of it from before, "
    "or with another --database and the jobs that you saved as files",
    sqlite3.SQLITE_FULL: "the disk is full, so nothing was stored. Free some space and try again",
    sqlite3.SQLITE_READONLY: "it may only be read, so nothing can be stored. Let this user write the file and its folder, or choose "
    "another --database",
    sqlite3.SQLITE_PERM: "this user may not open it. Let this user read and write the file, or choose another --database",
    sqlite3.SQLITE_CANTOPEN: "it cannot be opened. Its folder must exist and this user must be able to write in it; or choose another --database",
    sqlite3.SQLITE_BUSY: "another program holds it locked. Stop that one, or wait until it is done, and try again",
    sqlite3.SQLITE_LOCKED: "another program holds it locked. Stop that one, or wait until it is done, and try again",
    sqlite3.SQLITE_IOERR: "the disk gave an error. Look whether it is full or failing, copy this file to another disk and start there",
}


def in_words(error: sqlite3.Error) -> str | None:
    """What is wrong with a database by the `error` of SQLite, with the way out; None where it is a fault of ours."""
    code = getattr(error, "sqlite_errorcode", None)
    return None if code is None else _WRONG.get(code & 0xFF)


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
    and changes nothing, where the file cannot be used, is damaged or was made by a newer Kobrix.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise BadFile([f"{path.parent}: this folder cannot be made: {error.strerror}. Choose another --database."]) from None
    if path.is_dir():
        raise BadFile([f"{path}: it is a folder. Give --database the name of a file in it."])
    created = not path.exists()
    known = steps or migrations()
    with _opened(path) as db:
        version = int(db.execute("PRAGMA user_version").fetchone()[0])
        if version > known[-1][0]:
            raise BadFile([
                f"{path.name}: a newer Kobrix made it (version {version}); this one knows {known[-1][0]}. Nothing was changed."
            ])  # fmt: skip
        _sound(db)
        db.execute("PRAGMA journal_mode = WAL")
        due = [step for step in known if step[0] > version]
        if due and version > 0:
            _back_up(db, path.with_name(f"{path.stem}-before-{due[-1][0]:04d}{path.suffix}"))
        for number, text in due:
            db.executescript(f"BEGIN IMMEDIATE;\n{text}\nPRAGMA user_version = {number};\nCOMMIT;")
    return created


def _sound(db: sqlite3.Connection) -> None:
    """Raises DatabaseError where the database is damaged."""
    if db.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
        error = sqlite3.DatabaseError("damaged")
        error.sqlite_errorcode = sqlite3.SQLITE_CORRUPT
        raise error


@contextmanager
def _opened(path: Path) -> Iterator[sqlite3.Connection]:
    """A connection to what may be any file. Raises BadFile in words where it cannot be used."""
    try:
        with open_db(path) as db:
            yield db
    except sqlite3.Error as error:
        words = in_words(error)
        if words is None:
            raise
        raise BadFile([f"{path.name}: {words}."]) from None


def _back_up(db: sqlite3.Connection, target: Path) -> None:
    copy = sqlite3.connect(target)
    try:
        db.backup(copy)
    finally:
        copy.close()

"""How far every job is, looked at by one connection for all who want to know: nothing is read while nothing was written."""

import sqlite3
from pathlib import Path

Stand = tuple[int, int]  # the revision of a job, and the number of its last record


class Latest:
    """The revisions and last records of a database's jobs, as of the last look."""

    def __init__(self, path: Path) -> None:
        self._path = path
        self._db: sqlite3.Connection | None = None
        self._version = -1
        self.jobs: dict[int, Stand] = {}

    def look(self) -> bool:
        """Whether something was written since the last look; `jobs` is then read anew. One thread at a time."""
        if self._db is None:
            self._db = sqlite3.connect(self._path, timeout=1.0, isolation_level=None, check_same_thread=False)
        # Changes with every commit of another connection; this one never writes (SQLite's documentation of data_version).
        version = int(self._db.execute("PRAGMA data_version").fetchone()[0])
        if version == self._version:
            return False
        rows = self._db.execute("SELECT id, revision, (SELECT max(id) FROM records WHERE job_id = jobs.id) FROM jobs").fetchall()
        self.jobs = {job: (revision, last or 0) for job, revision, last in rows}
        self._version = version
        return True

    def close(self) -> None:
        """Let the database go."""
        if self._db is not None:
            self._db.close()
            self._db, self._version = None, -1

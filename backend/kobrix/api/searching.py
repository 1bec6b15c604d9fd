"""Searches under way: one for each job, in a thread of its own, with its progress to look at and a way to stop it."""

import contextlib
import logging
import os
import sys
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from kobrix.core.errors import KobrixError
from kobrix.setup.job import Job
from kobrix.setup.search import Run
from kobrix.setup.search_ask import Search
from kobrix.store import searches
from kobrix.store.connection import open_db

Doc = dict[str, Any]
_log = logging.getLogger("kobrix")


def _give_way() -> None:
    """Let what a person looks at come first: this thread takes the time that nothing else wants, where threads have a say."""
    if sys.platform == "linux":
        with contextlib.suppress(OSError):
            os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), 10)


class Under:
    """A search of one job that is under way or has just ended."""

    def __init__(self, job: Job, ask: Search, revision: int, keep: Callable[[Doc, float], None]) -> None:
        self.ask, self.revision = ask.model_dump(exclude_none=True), revision
        self.run, self._keep = Run(job, ask), keep
        self.state = "running"
        self.found: Doc | None = None
        self.error: str | None = None
        self.latest: Doc = self.run.progress()
        self.began, self.seconds = time.monotonic(), 0.0
        self._dropped = False
        self._stop, self.told = threading.Event(), threading.Event()
        self.thread = threading.Thread(target=self._work, daemon=True)

    def _work(self) -> None:
        _give_way()
        try:
            while not self._stop.is_set() and self.run.step():
                self.latest = self.run.progress()
                self.told.set()
            if self._dropped:
                return
            found: Doc = self.run.finish()
            self.seconds = time.monotonic() - self.began
            self._keep(found, self.seconds)
            self.found = found
            self.state = "stopped" if found["done"] < found["total"] else "done"
        except KobrixError as error:
            self.error = str(error)
            self.state = "failed"
        except Exception:
            _log.exception("a search ended")
            self.error = "The search ended on a fault of Kobrix's own; nothing was changed."
            self.state = "failed"
        finally:
            self.told.set()

    def stop(self, drop: bool = False) -> None:
        """Ask it to end after the part it is at; to `drop` what it found, too."""
        self._dropped = drop
        self._stop.set()

    def document(self) -> Doc:
        """What is known of it now."""
        seconds = self.seconds if self.state != "running" else time.monotonic() - self.began
        return {"state": self.state, "ask": self.ask, "revision": self.revision, "seconds": seconds, "error": self.error,
                "found": self.found or {**self.latest, "kept": [], "not_beaten": 0}}  # fmt: skip


class Searches:
    """The searches of all jobs of one `database`."""

    def __init__(self, database: Path) -> None:
        self.database = database
        self._under: dict[int, Under] = {}
        self._lock = threading.Lock()

    def begin(self, job_id: int, job: Job, ask: Search, revision: int, wait: float) -> Doc:
        """Start a search in place of the job's last one; its first part is waited for, `wait` [s] at most, before answering."""

        def keep(found: Doc, seconds: float) -> None:
            with open_db(self.database) as db:
                searches.end(db, job_id, under.ask, found, seconds)

        under = Under(job, ask, revision, keep)
        with self._lock:
            before = self._under.get(job_id)
            if before is not None:
                before.stop(drop=True)
            self._under[job_id] = under
            with open_db(self.database) as db:
                searches.begin(db, job_id, revision, under.ask)
        under.thread.start()
        under.told.wait(wait)
        return under.document()

    def stop(self, job_id: int, wait: float) -> None:
        """Stop the job's search, if there is one, and wait up to `wait` [s] for what it has so far."""
        under = self._under.get(job_id)
        if under is not None:
            under.stop()
            under.thread.join(wait)

    def look(self, job_id: int) -> Doc:
        """The job's search: under way, just ended, or kept from before."""
        under = self._under.get(job_id)
        if under is not None:
            return under.document()
        with open_db(self.database) as db:
            kept = searches.get(db, job_id)
        if kept is None:
            return {"state": "none", "ask": None, "revision": 0, "seconds": 0.0, "error": None, "found": None}
        found = kept.found
        state = "stopped" if found is None or found["done"] < found["total"] else "done"
        return {
            "state": state,
            "ask": kept.ask,
            "revision": kept.revision,
            "seconds": kept.seconds or 0.0,
            "error": None,
            "found": found,
        }

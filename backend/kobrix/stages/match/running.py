"""Searches under way: one for each job, each in a process of its own, with its progress to look at and a way to stop it."""

import contextlib
import multiprocessing
import threading
import time
from collections.abc import Callable
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from pathlib import Path

from kobrix.fileformat.job import Job
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import Run
from kobrix.stages.match.shapes import Found, SearchState
from kobrix.stages.match.worker import OUR_FAULT, Report, Task, work
from kobrix.store import searches
from kobrix.store.connection import open_db

_SPAWN = multiprocessing.get_context("spawn")  # a server has threads: a copy of it would hold their locks


class _Worker:
    """A process that searches, and the line to it."""

    def __init__(self) -> None:
        here, there = _SPAWN.Pipe()
        self.line: Connection = here
        self.process: BaseProcess = _SPAWN.Process(target=work, args=(there,), daemon=True)
        self.process.start()
        there.close()

    def end(self) -> None:
        self.line.close()
        self.process.terminate()


class Workers:
    """Processes that wait for a search: they take a second to begin, so one stands ready."""

    def __init__(self) -> None:
        self._idle: list[_Worker] = []
        self._lock = threading.Lock()
        self._starting = False

    def ready(self) -> None:
        """Have a process stand ready, without waiting for it."""
        with self._lock:
            if self._idle or self._starting:
                return
            self._starting = True
        threading.Thread(target=self._begin, daemon=True).start()

    def _begin(self) -> None:
        worker = _Worker()
        with self._lock:
            self._starting = False
        self.give(worker)

    def take(self) -> _Worker:
        """One that is ready, or a new one."""
        with self._lock:
            while self._idle:
                worker = self._idle.pop()
                if worker.process.is_alive():
                    return worker
        return _Worker()

    def give(self, worker: _Worker) -> None:
        """Let a process wait for the next search; more than one need not."""
        with self._lock:
            spare = bool(self._idle)
            if not spare:
                self._idle.append(worker)
        if spare:
            worker.end()

    def end(self) -> None:
        """End the processes that wait."""
        with self._lock:
            idle, self._idle = self._idle, []
        for worker in idle:
            worker.end()


class Under:
    """A search of one job that is under way or has just ended."""

    def __init__(self, job: Job, ask: Search, revision: int, keep: Callable[[Found, float], None], workers: Workers) -> None:
        self.ask, self.revision = ask, revision
        self._keep, self._workers = keep, workers
        self._lock = threading.Lock()
        self._state: Report = Report("running", Run(job, ask).progress())  # what cannot be searched is refused here, at once
        self._began, self._seconds = time.monotonic(), 0.0
        self._stopped = self._dropped = False
        self.reported = threading.Event()
        self._task = Task(job, ask)
        self._worker: _Worker | None = None
        self.thread = threading.Thread(target=self._listen, daemon=True)

    def _listen(self) -> None:
        worker = self._workers.take()
        try:
            with self._lock:
                self._worker = worker
                worker.line.send(self._task)
                if self._stopped:  # asked for before there was anyone to stop
                    worker.line.send("stop")
            report = worker.line.recv()
            while report.state == "running":
                self._take(report)
                report = worker.line.recv()
            with self._lock:
                self._worker = None
            self._workers.give(worker)
            self._end(report)
        except (EOFError, OSError):
            worker.end()
            self._end(Report("failed", error=OUR_FAULT))

    def _take(self, report: Report) -> None:
        with self._lock:
            self._state = report
        self.reported.set()

    def _end(self, report: Report) -> None:
        self._seconds = time.monotonic() - self._began
        if report.found is not None and not self._dropped:
            self._keep(report.found, self._seconds)
        self._take(report)

    def stop(self, drop: bool = False) -> None:
        """Ask it to end after the part it is at; to `drop` what it found, too."""
        with self._lock:
            self._stopped, self._dropped = True, self._dropped or drop
            if self._worker is not None:
                with contextlib.suppress(OSError):
                    self._worker.line.send("stop")

    def document(self) -> SearchState:
        """What is known of it now."""
        with self._lock:
            now = self._state
        seconds = self._seconds if now.state != "running" else time.monotonic() - self._began
        return {
            "state": now.state,
            "ask": self.ask,
            "revision": self.revision,
            "seconds": seconds,
            "error": now.error,
            "found": now.found,
        }


class Searches:
    """The searches of all jobs of one `database`."""

    def __init__(self, database: Path) -> None:
        self.database, self.workers = database, Workers()
        self._under: dict[int, Under] = {}
        self._lock = threading.Lock()

    def begin(self, job_id: int, job: Job, ask: Search, revision: int, wait: float) -> SearchState:
        """Start a search in place of the job's last one; its first part is waited for, `wait` [s] at most, before answering."""

        def keep(found: Found, seconds: float) -> None:
            with open_db(self.database) as db:
                searches.end(db, job_id, ask.model_dump(exclude_none=True), found, seconds)

        under = Under(job, ask, revision, keep, self.workers)
        with self._lock:
            before = self._under.get(job_id)
            if before is not None:
                before.stop(drop=True)
            self._under[job_id] = under
            with open_db(self.database) as db:
                searches.begin(db, job_id, revision, ask.model_dump(exclude_none=True))
        under.thread.start()
        under.reported.wait(wait)
        return under.document()

    def stop(self, job_id: int, wait: float) -> None:
        """Stop the job's search, if there is one, and wait up to `wait` [s] for what it has so far."""
        under = self._under.get(job_id)
        if under is not None:
            under.stop()
            under.thread.join(wait)

    def end(self) -> None:
        """End all: the server does."""
        for under in list(self._under.values()):
            under.stop(drop=True)
        self.workers.end()

    def look(self, job_id: int) -> SearchState:
        """The job's search: under way, just ended, or kept from before."""
        under = self._under.get(job_id)
        if under is not None:
            return under.document()
        with open_db(self.database) as db:
            kept = searches.get(db, job_id)
        if kept is None or (kept.found is not None and "misses" not in kept.found):  # an older Kobrix's: to be searched anew
            return {"state": "none", "ask": None, "revision": 0, "seconds": 0.0, "error": None, "found": None}
        found: Found | None = kept.found
        whole = found is not None and found["done"] >= found["total"]
        return {
            "state": "done" if whole else "stopped", "ask": Search.model_validate(kept.ask), "revision": kept.revision,
            "seconds": kept.seconds or 0.0, "error": None, "found": found,
        }  # fmt: skip

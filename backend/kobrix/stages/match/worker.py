"""A search in a process of its own, so that neither the page nor the search waits for the other.

It is started by the server, tries part after part, says after each how far it is, and listens between them. It ends with the
server: without one there is nobody to speak to.
"""

import contextlib
import logging
import os
from dataclasses import dataclass
from multiprocessing.connection import Connection
from typing import Literal

from kobrix.core.errors import KobrixError
from kobrix.fileformat.job import Job
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import Run
from kobrix.stages.match.shapes import Found

OUR_FAULT = "The search ended on a fault of Kobrix's own; nothing was changed."
_FEW = 30  # setups whose trials still run when a search was stopped
_log = logging.getLogger("kobrix")


@dataclass(frozen=True)
class Task:
    """What is searched: an `ask` on a `job`."""

    job: Job
    ask: Search


@dataclass(frozen=True)
class Report:
    """How far a search is, or how it ended; with `found` so far, or the `error` in words."""

    state: Literal["running", "done", "stopped", "failed"]
    found: Found | None = None
    error: str | None = None


def _search(task: Task, line: Connection) -> None:
    run = Run(task.job, task.ask)
    stopped = False
    while not stopped and run.step():
        line.send(Report("running", run.progress()))
        stopped = line.poll()
    if stopped:
        line.recv()

    def on_part(found: Found) -> bool:
        line.send(Report("running", found))
        return not line.poll() and (not stopped or found["looked"] < _FEW)

    found = run.finish(on_part)
    if line.poll():
        line.recv()  # a stop that came while the trials ran
        stopped = True
    line.send(Report("stopped" if found["done"] < found["total"] else "done", found))


def work(line: Connection) -> None:
    """Search what comes over the `line`, one Task after the other; anything else that comes stops the one under way."""
    with contextlib.suppress(OSError):
        os.nice(5)  # what a person looks at comes first
    try:
        while True:
            task = line.recv()
            if not isinstance(task, Task):
                continue  # a stop that came when the search had ended
            try:
                _search(task, line)
            except KobrixError as error:
                line.send(Report("failed", error=str(error)))
            except (EOFError, OSError):
                raise
            except Exception:
                _log.exception("a search ended")
                line.send(Report("failed", error=OUR_FAULT))
    except (EOFError, OSError, KeyboardInterrupt):
        return

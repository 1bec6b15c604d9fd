"""A search in its own process: what it says on the line, and how many trials still run once it is stopped."""

import unittest
from collections.abc import Callable
from multiprocessing import Pipe
from typing import Any, cast
from unittest import mock

from kobrix.stages.match import worker
from kobrix.stages.match.request import Search
from kobrix.stages.match.shapes import Found
from kobrix.stages.match.worker import Report, Task

from tests.cases import demo_job

MANY = 200


def found(looked: int, done: int) -> Found:
    return cast(Found, {"looked": looked, "done": done, "total": 3})


class Run:
    """Three steps, then the trials of many setups, as long as it is told to go on."""

    def __init__(self, _job: Any, _ask: Any) -> None:
        self.done = 0

    def step(self) -> bool:
        self.done += 1
        return self.done < 3

    def progress(self) -> Found:
        return found(0, self.done)

    def finish(self, on_part: Callable[[Found], bool]) -> Found:
        looked = 0
        while looked < MANY and on_part(found(looked, self.done)):
            looked += 1
        return found(looked, self.done)


class WorkerTest(unittest.TestCase):
    def said(self, *stops_before: int) -> list[Report]:
        """What is said of a search; `stops_before`: how many reports were heard when it is stopped."""
        ours, theirs = Pipe()
        self.addCleanup(ours.close)
        told: list[Report] = []

        class Line:
            def send(self, report: Report) -> None:
                told.append(report)
                if len(told) in stops_before:
                    ours.send("stop")

            poll, recv = theirs.poll, theirs.recv

        with mock.patch.object(worker, "Run", Run):
            worker._search(Task(demo_job(), cast(Search, None)), cast(Any, Line()))
        self.assertFalse(theirs.poll(), "a stop that is left lying would stop the next search")
        theirs.close()
        return told

    def last(self, told: list[Report]) -> tuple[str, int]:
        assert told[-1].found is not None
        return told[-1].state, told[-1].found["looked"]

    def test_one_that_is_let_be_looks_at_all(self) -> None:
        told = self.said()
        self.assertEqual(self.last(told), ("done", MANY))
        self.assertEqual({r.state for r in told[:-1]}, {"running"})

    def test_one_that_is_stopped_while_it_tries_still_looks_at_a_few(self) -> None:
        self.assertEqual(self.last(self.said(1)), ("stopped", worker._FEW))

    def test_one_that_is_stopped_while_trials_run_ends_at_once_with_all_tried(self) -> None:
        self.assertEqual(self.last(self.said(12)), ("done", 9))


if __name__ == "__main__":
    unittest.main()

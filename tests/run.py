"""Runs test files and writes down how long each test took: `python -m tests.run FILE…`; the slowest ten with `slowest FILE`."""

import os
import sys
import time
import unittest
from pathlib import Path

_TIMES = "KOBRIX_TIMES"  # names the file that the runs of one suite share


class Timed(unittest.TextTestResult):
    """A result that also writes down how long each test took."""

    _began = 0.0

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802  # the name is unittest's
        self._began = time.perf_counter()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().stopTest(test)
        if _TIMES in os.environ:
            with Path(os.environ[_TIMES]).open("a", encoding="utf-8") as file:
                file.write(f"{time.perf_counter() - self._began:.2f} {test.id()}\n")


class Runner(unittest.TextTestRunner):
    """A runner with such results."""

    resultclass = Timed  # type: ignore[assignment]  # as the library's own does: its stream is a wider one


def slowest(times: Path, count: int = 10) -> list[str]:
    """The lines of those that took longest, the longest first."""
    lines = [line.split(" ", 1) for line in times.read_text(encoding="utf-8").splitlines()]
    return [f"{float(seconds):7.2f} s  {name}" for seconds, name in sorted(lines, key=lambda line: -float(line[0]))[:count]]


if __name__ == "__main__":
    if sys.argv[1:2] == ["slowest"]:
        print("\n".join(["The slowest ten:", *slowest(Path(sys.argv[2]))]))
    else:
        unittest.main(module=None, testRunner=Runner)

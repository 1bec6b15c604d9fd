"""Faults planted in the code one at a time, each followed by the tests that should notice: what no test notices is listed.

A fault changes one operator, comparison, number or constant of a module of the core, evaluate, the stages or the store. They are drawn
evenly over the modules, the same for the same seed. For each the tests that execute its line, as the coverage library tells, are run in a
copy of the tree until one fails; a fault on a line that none executes counts as not noticed.
"""

import ast
import copy
import os
import random
import re
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from functools import partial
from pathlib import Path

import coverage

from tests.browser import ROOT

KOBRIX = ROOT / "backend" / "kobrix"
ROOMS = ("core", "evaluate", "stages", "fileformat", "store")
TOLERANCE = 1e-6  # smaller numbers say when two figures are one; half as much again of such a one is no fault
BUDGET = 150.0  # s of tests for each fault, as they take under the coverage library
PINS = "tests/pins/test_pins.py"
LONGEST = 1800.0  # s; a fault that makes a test go on for ever is noticed
_FAILED = re.compile(r"^(?:FAIL|ERROR): \S+ \((.+?)\)", re.MULTILINE)
_COMPARED: dict[type[ast.cmpop], type[ast.cmpop]] = {
    ast.Lt: ast.GtE, ast.Gt: ast.LtE, ast.LtE: ast.Gt, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq, ast.Is: ast.IsNot, ast.IsNot: ast.Is,
}  # fmt: skip
_COUNTED: dict[type[ast.operator], type[ast.operator]] = {
    ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult,
}  # fmt: skip


@dataclass(frozen=True)
class Fault:
    """A planted fault: the `file`, the `line` to `end`, `what` became what, and the whole text with it."""

    file: Path
    line: int
    end: int
    what: str
    text: str


def _changed(node: ast.AST) -> tuple[ast.AST, str] | None:
    """A node with one fault in it, and the fault in words; None where there is none to plant."""
    own = copy.deepcopy(node)
    if isinstance(own, ast.Compare) and type(own.ops[0]) in _COMPARED:
        own.ops[0] = _COMPARED[type(own.ops[0])]()
    elif isinstance(own, ast.BinOp) and type(own.op) in _COUNTED and not isinstance(own.left, ast.Constant | ast.JoinedStr):
        own.op = _COUNTED[type(own.op)]()
    elif isinstance(own, ast.BoolOp):
        own.op = ast.And() if isinstance(own.op, ast.Or) else ast.Or()
    elif (
        isinstance(own, ast.Constant)
        and isinstance(own.value, int | float)
        and not isinstance(own.value, bool)
        and abs(own.value) > TOLERANCE
    ):
        own.value = own.value * 1.5 if isinstance(own.value, float) else own.value + 1
    else:
        return None
    return own, f"{ast.unparse(node)}  became  {ast.unparse(own)}"


def _planted(file: Path) -> Iterator[Fault]:
    """Every fault that can be planted in the functions of a file; types, docstrings and defaults of printing are left alone."""
    source = file.read_text(encoding="utf-8")
    lines = source.splitlines(keepends=True)
    starts = [0]
    for line in lines:
        starts.append(starts[-1] + len(line.encode()))
    for function in ast.walk(ast.parse(source)):
        if not isinstance(function, ast.FunctionDef):
            continue
        for statement in function.body:
            for node in ast.walk(statement):
                changed = _changed(node)
                if changed is None or not isinstance(node, ast.expr) or node.end_lineno is None or node.end_col_offset is None:
                    continue
                first, last = starts[node.lineno - 1] + node.col_offset, starts[node.end_lineno - 1] + node.end_col_offset
                raw = source.encode()
                text = (raw[:first] + f"({ast.unparse(changed[0])})".encode() + raw[last:]).decode()
                yield Fault(file, node.lineno, node.end_lineno, changed[1], text)


def drawn(count: int, seed: int) -> list[Fault]:
    """`count` faults, drawn evenly over the modules of the rooms."""
    draw = random.Random(seed)
    files = [
        f
        for room in ROOMS
        for f in sorted((KOBRIX / room).rglob("*.py"))
        if f.name not in ("__init__.py", "shapes.py", "routes.py")
    ]
    by_file = {f: faults for f in files if (faults := list(_planted(f)))}
    order = list(by_file)
    draw.shuffle(order)
    found: list[Fault] = []
    while len(found) < count:
        for file in order[: count - len(found)]:
            found.append(by_file[file].pop(draw.randrange(len(by_file[file]))))
        order = [f for f in order if by_file[f]]
    return found


@dataclass(frozen=True)
class Asked:
    """A test file, how long it takes [s] and the lines of each module that it executes."""

    test: str
    seconds: float
    lines: dict[Path, frozenset[int]]


def _copied(folder: Path) -> dict[str, str]:
    """A copy of what the tests read in a folder, and the environment in which they find it there."""
    for name in ("backend", "tests", "docs"):
        shutil.copytree(ROOT / name, folder / name, ignore=shutil.ignore_patterns("__pycache__", "screenshots"))
    for name in ("README.md", "CHANGELOG.md", "ARCHITECTURE.md", "CONTRIBUTING.md", "pyproject.toml", "run"):
        shutil.copy(ROOT / name, folder / name)
    return {**os.environ, "PYTHONPATH": str(folder / "backend"), "PYTHONDONTWRITEBYTECODE": "1"}


def _executed(test: str) -> Asked:
    """What a test file executes, asked by running it alone under the coverage library."""
    with tempfile.TemporaryDirectory() as folder:
        environment = _copied(Path(folder))
        data, start = Path(folder) / "executed", time.perf_counter()
        command = [sys.executable, "-m", "coverage", "run", f"--data-file={data}", "--rcfile=", "--source=backend/kobrix"]
        subprocess.run([*command, "-m", "unittest", "-q", test], cwd=folder, env=environment, capture_output=True, check=True)
        seconds, read = time.perf_counter() - start, coverage.CoverageData(str(data))
        read.read()
        files = {Path(f): frozenset(read.lines(f) or ()) for f in read.measured_files()}
        return Asked(test, seconds, {f.relative_to(folder): lines for f, lines in files.items()})


def executed() -> list[Asked]:
    """What every test file executes beside the browser's own; a test that fails without any fault ends it."""
    folders = ("ask", "evaluate", "published", "core", "stages", "fileformat", "store", "exports", "api", "pins")
    tests = [f.relative_to(ROOT).as_posix() for name in folders for f in sorted((ROOT / "tests" / name).rglob("test_*.py"))]
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        return list(pool.map(_executed, tests))


def _tests_of(fault: Fault, asked: list[Asked]) -> list[str]:
    """The test files that execute the line: that of the module's own name first, those of its room, then the quickest, as many as take
    BUDGET, and last the pins of all answers. What none of these notices counts as not noticed."""
    module, own = fault.file.relative_to(ROOT), f"test_{fault.file.stem}.py"
    room = f"tests/{fault.file.parent.relative_to(KOBRIX).as_posix()}/"
    reach = [a for a in asked if not a.lines.get(module, frozenset()).isdisjoint(range(fault.line, fault.end + 1))]
    pins = [a.test for a in reach if a.test == PINS]
    found, spent = list[str](), 0.0
    for one in sorted(reach, key=lambda a: (not a.test.endswith(f"/{own}"), not a.test.startswith(room), a.seconds)):
        spent += one.seconds
        if spent > BUDGET and found:
            break
        if one.test != PINS:
            found.append(one.test)
    return [*found, *pins]


def noticed(fault: Fault, asked: list[Asked]) -> str | None:
    """The first test that fails with the fault in place; None when none does."""
    tests = _tests_of(fault, asked)
    if not tests:
        return None
    with tempfile.TemporaryDirectory() as folder:
        environment = _copied(Path(folder))
        (Path(folder) / fault.file.relative_to(ROOT)).write_text(fault.text, encoding="utf-8")
        command = [sys.executable, "-W", "error", "-m", "unittest", "-q", "-f", *tests]
        try:
            done = subprocess.run(
                command, cwd=folder, env=environment, capture_output=True, text=True, timeout=LONGEST, check=False
            )
        except subprocess.TimeoutExpired:
            return "a test that went on for ever"
    if done.returncode == 0:
        return None
    failed = _FAILED.search(done.stderr)
    return failed[1] if failed else "the tests could not be run"


def report(count: int, seed: int) -> None:
    """Plant `count` faults and print, one after the other, which test noticed it; then those that none did."""
    start, faults, asked = time.perf_counter(), drawn(count, seed), executed()
    print(f"  {len(asked)} test files, {time.perf_counter() - start:.0f} s to see which lines each executes", flush=True)
    survivors: list[Fault] = []
    with ThreadPoolExecutor(os.cpu_count()) as pool:
        for fault, by in zip(faults, pool.map(partial(noticed, asked=asked), faults), strict=True):
            if by is None:
                survivors.append(fault)
            print(f"  {by or 'no test'}: {fault.file.relative_to(KOBRIX)}:{fault.line}: {fault.what}", flush=True)
    caught = count - len(survivors)
    print(
        f"{caught} of {count} planted faults noticed ({100 * caught / count:.0f} %, wanted: 90), {time.perf_counter() - start:.0f} s"
    )
    for fault in survivors:
        print(f"  not noticed: {fault.file.relative_to(KOBRIX)}:{fault.line}: {fault.what}")

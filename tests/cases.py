"""Setups that many tests share: a plain car in SI records, and the demo job as a file."""

import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any, get_args

import numpy as np
from kobrix.core.physics import chain, disc, lines, valves, vehicle
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.control import Control
from kobrix.core.physics.cylinder import Chamber, Cylinder, Feed
from kobrix.core.physics.failures import Failing, Room
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.solved_setup import Asked, SolvedSetup, solve
from kobrix.demo import JOBS, SETUPS
from kobrix.evaluate.questions import evaluate as result_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import Layout, new_job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import set_at, take_away
from kobrix.fileformat.questions import Questions
from kobrix.stages.size.service import size_view
from kobrix.store.edits import apply
from pydantic import TypeAdapter
from pydantic_core import to_json

ROOT = Path(__file__).resolve().parents[1]
EXAMPLES = ROOT / "tests" / "examples"


def demo_document() -> dict[str, Any]:
    """The main demo job as a parsed file."""
    document: dict[str, Any] = json.loads(JOBS[0].read_text(encoding="utf-8"))
    return document


def demo_job() -> Job:
    """The main demo job."""
    return files.check(Job, demo_document())


def every_layout() -> Iterator[Job]:
    """An empty job of every layout, the demo job, and every invented vehicle as a job."""
    for layout in get_args(Layout):
        yield new_job(layout, layout)
    for path in JOBS:
        yield files.check(Job, files.parse_json(path.read_bytes()))
    for path in SETUPS:
        setup = files.read_file(files.parse_json(path.read_bytes()))
        assert isinstance(setup, Setup)
        yield files.as_job(setup)


def example_document() -> dict[str, Any]:
    """The example setup as a parsed file."""
    document: dict[str, Any] = json.loads((EXAMPLES / "setup.json").read_text(encoding="utf-8"))
    return document


def example_setup() -> Setup:
    """The example setup."""
    return files.check(Setup, example_document())


def example_result() -> dict[str, Any]:
    """The example's result, computed independently."""
    document: dict[str, Any] = json.loads((EXAMPLES / "result.json").read_text(encoding="utf-8"))
    return document


def applied(document: Any, edits: list[Any]) -> dict[str, Any]:
    """A `document` after `edits`, given by JSON Pointer or, as {path, value}, by dotted path."""
    told = [e if "op" in e else set_at(e["path"], e["value"]) if "value" in e else take_away(e["path"]) for e in edits]
    return dict(apply(document, told)[0])


def conforms(shape: Any, value: Any) -> None:
    """Raises where a `value` has not the declared `shape`: a key that is missing, that is not declared, or of another kind."""
    kept = TypeAdapter(shape).validate_python(value)
    ours, theirs = (json.loads(to_json(v)) for v in (kept, value))
    if ours != theirs:
        left_out = sorted(_keys(theirs) - _keys(ours))
        raise AssertionError(f"{shape} does not declare {', '.join(left_out) or 'the kind of something in it'}")


def _keys(value: Any, place: str = "") -> set[str]:
    if isinstance(value, dict):
        return {f"{place}.{k}" for k in value} | {key for k, v in value.items() for key in _keys(v, f"{place}.{k}")}
    if isinstance(value, list):
        return {key for v in value for key in _keys(v, f"{place}.n")}
    return set()


def evaluate(setup: Setup, questions: Questions | None = None) -> Any:
    """The result file of a `setup`, to be looked into."""
    return result_of(setup, questions)


def size_of(job: Job) -> Any:
    """What Size shows of a `job`."""
    return size_view(job, 1)


def plain_disc(area: float = 2280e-6, radius: float = 0.1165, friction: float = 0.38, fixed: bool = True) -> disc.Disc:
    """A disc brake without thresholds."""
    return disc.Disc(fixed, area, 1, radius, friction, 0.98, 0.0, 0.00012, 0.0, disc.give(area, 7.5e-12), disc.give(area, 8e-12))


def plain_system(
    bore: float = 0.0206375,
    rear_area: float = 1017.9e-6,
    rear_devices: tuple[valves.Device, ...] = (),
    booster: Booster | None = None,
    air: float = 0.0,
) -> chain.System:
    """A tandem system with discs all round, near the demo's plan A."""
    own = lines.Lines(0.048e-12, 0.016e-12, 0.0003e-12, 100e-6, 1.8e9, air)
    front = chain.Station("front", "front", 2, 0.2927, plain_disc(), (), own)
    rear = chain.Station("rear", "rear", 2, 0.2927, plain_disc(rear_area, 0.1095, fixed=False), rear_devices, own)
    chambers = tuple(Chamber(n, bore, 0.015, 0.0012, 1.0, 1.0, (Feed(n, 2),)) for n in ("front", "rear"))
    control = Control("car_pedal", 0.292, 0.048, 0.92, 0.0, 0.005, 0.150, 0.0)
    return chain.System("service", control, booster, Cylinder("tandem", 0.95, 0.0, chambers), (front, rear))


def plain_load(mass: float = 1310.0, share: float = 0.49, chi: float = 0.21371, grip: float = 0.9) -> vehicle.Load:
    """One load state."""
    column = np.ones((1, 1, 1))
    return vehicle.Load(mass * column, share * column, chi * column, grip, grip, 0.8, 0.0)


WHEELS: dict[vehicle.Axle, int] = {"front": 2, "rear": 2}


def solved(system: chain.System, load: vehicle.Load | None = None, condition: chain.Condition = chain.HEALTHY) -> Solved:
    """One system on the road in one condition."""
    return solve_path(system.name, [(system, 1.0)], load or plain_load(), WHEELS, [condition])


def case_of(
    system: chain.System,
    load: vehicle.Load | None = None,
    condition: chain.Condition | None = None,
    names: tuple[str, ...] = ("healthy",),
    limit: float = 500.0,
) -> SolvedSetup:
    """One system solved with the conditions side by side, the first of them healthy."""
    room = None if system.control.available is None else float(system.control.available)
    asked = Asked(tuple(map(Failing, names)), (condition or chain.HEALTHY,), {}, {system.name: Room(limit, room)})
    return solve((system,), load or plain_load(), WHEELS, {system.name: {system.name: 1.0}}, asked)

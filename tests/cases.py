"""Setups that many tests share: a plain car in SI records, and the demo job as a file."""

import json
from pathlib import Path
from typing import Any

import numpy as np
from kobrix.core import chain, disc, lines, valves, vehicle
from kobrix.core.booster import Booster
from kobrix.core.case import Asked, Case, solve
from kobrix.core.control import Control
from kobrix.core.cylinder import Chamber, Cylinder, Feed
from kobrix.core.failures import Room
from kobrix.core.paths import Solved, solve_path
from kobrix.demo import JOBS
from kobrix.setup import files
from kobrix.setup.job import Job
from kobrix.setup.model import Setup

ROOT = Path(__file__).resolve().parents[1]
EXAMPLES = ROOT / "tests" / "examples"


def demo_document() -> dict[str, Any]:
    """The main demo job as a parsed file."""
    document: dict[str, Any] = json.loads(JOBS[0].read_text(encoding="utf-8"))
    return document


def demo_job() -> Job:
    """The main demo job."""
    return files.check(Job, demo_document())


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
) -> Case:
    """One system solved with the conditions side by side, the first of them healthy."""
    room = None if system.control.available is None else float(system.control.available)
    asked = Asked(names, (condition or chain.HEALTHY,), {}, {system.name: Room(limit, room)})
    return solve((system,), load or plain_load(), WHEELS, {system.name: {system.name: 1.0}}, asked)

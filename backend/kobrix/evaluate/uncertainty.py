"""What a setup does not know for certain: every assumed entry and every entry with a ±, its range, and seeded draws of all."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from pydantic import BaseModel

from kobrix.core.constants import STAND_INS
from kobrix.core.numerics.arrays import Floats
from kobrix.evaluate.questions import changed
from kobrix.fileformat import field_catalog, models
from kobrix.fileformat.field_catalog import Ask, default_of, entry_of, quantity_of
from kobrix.fileformat.job import Job
from kobrix.fileformat.quantities import si_factor, value_of


@dataclass(frozen=True)
class UncertainEntry:
    """An entry that may be otherwise: its `path` below the setup, a `label`, `name` of its unit, `value` and range in that
    unit, and whether it is `assumed`."""

    path: str
    label: str
    name: str
    value: float
    least: float
    most: float
    assumed: bool


def _asks(setup: models.Setup) -> Iterator[tuple[str, BaseModel, list[Ask], str]]:
    for i, system in enumerate(setup.systems):
        here = f"systems.{i}"
        yield f"{here}.control", system.control, field_catalog.control(system.control.kind), system.fluid
        if system.control.linkage is not None:
            yield f"{here}.control", system.control, field_catalog.LINKAGE, system.fluid
        if system.booster is not None:
            yield f"{here}.booster", system.booster, field_catalog.BOOSTER[system.booster.kind], system.fluid
        yield f"{here}.cylinder", system.cylinder, field_catalog.CYLINDER[system.cylinder.kind], system.fluid
        for k, station in enumerate(system.stations):
            own = f"{here}.stations.{k}"
            yield f"{own}.brake", station.brake, field_catalog.BRAKE[station.brake.kind], system.fluid
            if station.lines is not None:
                for n, hose in enumerate(station.lines.hoses):
                    yield f"{own}.lines.hoses.{n}", hose, field_catalog.HOSE, system.fluid
                for n, pipe in enumerate(station.lines.hard_lines):
                    yield f"{own}.lines.hard_lines.{n}", pipe, field_catalog.HARD_LINE, system.fluid
                yield f"{own}.lines", station.lines, field_catalog.LINES_MORE, system.fluid
    yield "vehicle", setup.vehicle, field_catalog.VEHICLE, ""
    for n, state in enumerate(setup.vehicle.load_states):
        yield f"vehicle.load_states.{n}", state, field_catalog.LOAD_STATE, ""


def _whose(setup: models.Setup, below: str) -> str:
    """Words for the part at a path `below` the setup: the station's own name, or what it is."""
    steps = below.split(".")
    if "stations" in steps:
        at = steps.index("stations") + 1
        return setup.systems[int(steps[1])].stations[int(steps[at])].name
    if "load_states" in steps:
        return setup.vehicle.load_states[int(steps[-1])].name
    return steps[-1]


def uncertain_entries(job: Job, name: str, changed_to: models.Setup | None = None) -> list[UncertainEntry]:
    """Every entry of the setup by `name` that is assumed or has a ±; of what it is `changed_to`, where that is asked."""
    setup, root, found = changed_to or job.setup(name), job.root(name), []
    for below, part, asks, fluid in _asks(setup):
        for ask in asks:
            quantity = quantity_of(type(part), ask.field) if ask.kind == "quantity" else None
            parent = entry_of(part, ask.field.rpartition(".")[0]) if "." in ask.field else part
            if quantity is None or parent is None:
                continue
            path, typed = f"{below}.{ask.field}", entry_of(part, ask.field)
            label = f"{_whose(setup, below)}: {ask.label}"
            full = path if path.startswith("vehicle") else f"{root}.{path}"
            size = si_factor(quantity.name)
            if typed is None:
                default = default_of(part, ask.field, quantity, fluid)
                if default is None or default.least is None or default.most is None:
                    continue
                ends = default.value / size, default.least / size, default.most / size
                found.append(UncertainEntry(path, label, quantity.name, *ends, assumed=True))
                continue
            value = value_of(typed, quantity.name)
            if full in job.assumed and ask.stand_in is not None:
                known = STAND_INS[ask.stand_in]
                assert known.least is not None and known.most is not None
                least, most = min(value, known.least / size), max(value, known.most / size)
                found.append(UncertainEntry(path, label, quantity.name, value, least, most, assumed=True))
            elif full in job.tolerances:
                width = value_of(job.tolerances[full].lstrip("±+- "), quantity.name)
                least, most = max(quantity.least, value - width), min(quantity.most, value + width)
                found.append(UncertainEntry(path, label, quantity.name, value, least, most, assumed=False))
    return found


def drawn_within(found: list[UncertainEntry], trials: int, seed: int) -> Floats:
    """Trials (N, doubts) of every doubted entry: what has a ± even within it; what is assumed most often near its usual value
    and never outside its range (a beta of three points, common practice where only least, usual and most are known)."""
    random = np.random.default_rng(seed)
    least, most = np.array([d.least for d in found]), np.array([d.most for d in found])
    value, span = np.array([d.value for d in found]), most - least
    safe = np.where(span > 0.0, span, 1.0)
    below, above = 1.0 + 4.0 * (value - least) / safe, 1.0 + 4.0 * (most - value) / safe
    even = ~np.array([d.assumed for d in found])
    below, above = np.where(even, 1.0, below), np.where(even, 1.0, above)
    return np.asarray(least + span * random.beta(below, above, (trials, len(found))))


def made_of(setup: models.Setup, found: list[UncertainEntry], columns: Floats) -> Any:
    """The setup with every doubted entry a column (N, 1, 1, 1) of trials."""
    made: Any = setup
    for n, doubt in enumerate(found):
        made = changed(made, doubt.path.split("."), columns[:, n].reshape(-1, 1, 1, 1))
    return made

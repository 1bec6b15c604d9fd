"""Which doubt matters most: every assumed or toleranced entry of a setup moved through its range on the same chain.

The ranking is the tolerance study's (seeded trials, Spearman); beside it, what each entry does on its own from one end of
its range to the other. One solution answers all trials at once.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from pydantic import BaseModel

from kobrix.core import case as cases
from kobrix.core import tolerance
from kobrix.core.arrays import Floats
from kobrix.core.constants import STAND_INS
from kobrix.core.errors import Impossible
from kobrix.core.paths import solve_path
from kobrix.setup import measuring, model
from kobrix.setup.answers import changed
from kobrix.setup.convert import convert
from kobrix.setup.job import Job
from kobrix.setup.measuring import Ask
from kobrix.setup.quantities import si_factor, value_of
from kobrix.setup.questions import Questions, ways_of
from kobrix.setup.result import Answer
from kobrix.setup.sheet import default_of, entry_of, quantity_of, root_of

Doc = dict[str, Any]
TRIALS, SEED = 400, 1


@dataclass(frozen=True)
class Doubt:
    """An entry that may be otherwise: its `path` below the setup, a `label`, `name` of its unit, `value` and range in that
    unit, and whether it is `assumed`."""

    path: str
    label: str
    name: str
    value: float
    least: float
    most: float
    assumed: bool


def _asks(setup: model.Setup) -> Iterator[tuple[str, BaseModel, list[Ask], str]]:
    for i, system in enumerate(setup.systems):
        here = f"systems.{i}"
        yield f"{here}.control", system.control, measuring.control(system.control.kind), system.fluid
        if system.control.linkage is not None:
            yield f"{here}.control", system.control, measuring.LINKAGE, system.fluid
        if system.booster is not None:
            yield f"{here}.booster", system.booster, measuring.BOOSTER[system.booster.kind], system.fluid
        yield f"{here}.cylinder", system.cylinder, measuring.CYLINDER[system.cylinder.kind], system.fluid
        for k, station in enumerate(system.stations):
            own = f"{here}.stations.{k}"
            yield f"{own}.brake", station.brake, measuring.BRAKE[station.brake.kind], system.fluid
            if station.lines is not None:
                for n, hose in enumerate(station.lines.hoses):
                    yield f"{own}.lines.hoses.{n}", hose, measuring.HOSE, system.fluid
                for n, pipe in enumerate(station.lines.hard_lines):
                    yield f"{own}.lines.hard_lines.{n}", pipe, measuring.HARD_LINE, system.fluid
                yield f"{own}.lines", station.lines, measuring.LINES_MORE, system.fluid
    yield "vehicle", setup.vehicle, measuring.VEHICLE, ""
    for n, state in enumerate(setup.vehicle.load_states):
        yield f"vehicle.load_states.{n}", state, measuring.LOAD_STATE, ""


def _whose(setup: model.Setup, below: str) -> str:
    """Words for the part at a path `below` the setup: the station's own name, or what it is."""
    steps = below.split(".")
    if "stations" in steps:
        at = steps.index("stations") + 1
        return setup.systems[int(steps[1])].stations[int(steps[at])].name
    if "load_states" in steps:
        return setup.vehicle.load_states[int(steps[-1])].name
    return steps[-1]


def doubts(job: Job, name: str, changed_to: model.Setup | None = None) -> list[Doubt]:
    """Every entry of the setup by `name` that is assumed or has a ±; of what it is `changed_to`, where that is asked."""
    setup, root, found = changed_to or job.setup(name), root_of(job, name), []
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
                found.append(Doubt(path, label, quantity.name, *ends, assumed=True))
                continue
            value = value_of(typed, quantity.name)
            if full in job.assumed and ask.stand_in is not None:
                known = STAND_INS[ask.stand_in]
                assert known.least is not None and known.most is not None
                least, most = min(value, known.least / size), max(value, known.most / size)
                found.append(Doubt(path, label, quantity.name, value, least, most, assumed=True))
            elif full in job.tolerances:
                width = value_of(job.tolerances[full].lstrip("±+- "), quantity.name)
                least, most = max(quantity.least, value - width), min(quantity.most, value + width)
                found.append(Doubt(path, label, quantity.name, value, least, most, assumed=False))
    return found


def _figures(setup: Any, decel: float) -> tuple[Floats, Floats | None]:
    """Effort [N] and travel [m] (N, L) for a stop of `decel` [g] of a setup whose entries are trials (N, 1, 1, 1)."""
    converted = convert(setup)
    assert converted.load is not None
    ways = ways_of(setup, Questions())
    path = next(reversed(ways))
    systems = [(cases.settle(s, converted.load), ways[path][s.name]) for s in converted.systems if s.name in ways[path]]
    own = cases.settle_decel(systems, converted.load, converted.wheels)
    solved = solve_path(path, [(s, r) for s, (_, r) in zip(own, systems, strict=True)], converted.load, converted.wheels)
    place, known = solved.reach(decel)
    push = np.where(known, solved.push_at(place), np.nan)
    pull = solved.pulls[0]
    pads = None if pull.pedal.travel is None else np.where(known, pull.pedal.pad_at(pull.place(place)), np.nan)

    def flat(values: Floats | None) -> Any:
        if values is None:
            return None
        full = values.reshape((1,) * (4 - values.ndim) + values.shape)
        return full[:, :, 0, 0]

    return flat(push), flat(pads)


def drawn_within(found: list[Doubt], trials: int, seed: int) -> Floats:
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


def made_of(setup: model.Setup, found: list[Doubt], columns: Floats) -> Any:
    """The setup with every doubted entry a column (N, 1, 1, 1) of trials."""
    made: Any = setup
    for n, doubt in enumerate(found):
        made = changed(made, doubt.path.split("."), columns[:, n].reshape(-1, 1, 1, 1))
    return made


def _ranks(drawn: Floats, figures: Floats) -> Floats:
    fine = np.isfinite(figures)
    return tolerance.ranks(drawn[fine], figures[fine]) if fine.sum() > 2 else np.zeros(drawn.shape[1])


def matters(job: Job, name: str) -> Doc:
    """What moves the push and the travel most, at the stop the setup is judged at, in its first load state.

    Raises Impossible when the setup is not complete enough for a push.
    """
    setup = job.setup(name)
    answer = Answer(setup)
    if answer.case is None or not bool(answer.case.main.design_known[0]):
        raise Impossible("what matters most", "the setup does not give a stop yet")
    decel = float(answer.case.main.design_decel[0])
    found = doubts(job, name)
    doc: Doc = {"decel_g": decel, "push_n": None, "travel_mm": None, "entries": [], "trials": TRIALS}
    if not found:
        return doc
    least, most = np.array([d.least for d in found]), np.array([d.most for d in found])
    value = np.array([d.value for d in found])
    trials = drawn_within(found, TRIALS, SEED)
    alone = np.tile(value, (2 * len(found), 1))
    for n in range(len(found)):
        alone[2 * n, n], alone[2 * n + 1, n] = least[n], most[n]
    columns = np.concatenate([value[None], alone, trials])
    push, pads = _figures(made_of(setup, found, columns), decel)
    rows, ends = push[1 + 2 * len(found) :, 0], push[1 : 1 + 2 * len(found), 0].reshape(-1, 2)
    doc["push_n"] = _spread(rows)
    far = None
    if pads is not None:
        far = pads[1 + 2 * len(found) :, 0] * 1e3
        doc["travel_mm"] = _spread(far)
        runs = pads[1 : 1 + 2 * len(found), 0].reshape(-1, 2) * 1e3
    push_ranks = _ranks(trials, rows)
    travel_ranks = None if far is None else _ranks(trials, far)
    for n, doubt in enumerate(found):
        own: Doc = {
            "path": doubt.path, "assumed": doubt.assumed, "value": doubt.value, "least": doubt.least, "most": doubt.most,
            "push_rank": float(push_ranks[n]), "push_n": _pair(ends[n]), "travel_rank": 0.0, "travel_mm": None,
        }  # fmt: skip
        if travel_ranks is not None:
            own["travel_rank"], own["travel_mm"] = float(travel_ranks[n]), _pair(runs[n])
        doc["entries"].append(own)
    doc["entries"].sort(key=lambda e: -max(abs(e["push_rank"]), abs(e["travel_rank"])))
    return doc


def _pair(values: Floats) -> list[float] | None:
    return [float(v) for v in values] if np.isfinite(values).all() else None


def _spread(figures: Floats) -> Doc | None:
    fine = figures[np.isfinite(figures)]
    if fine.size < TRIALS // 2:
        return None
    known = tolerance.spread(fine)
    return {"p5": known.p5, "p50": known.p50, "p95": known.p95}

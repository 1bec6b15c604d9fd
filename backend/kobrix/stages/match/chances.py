"""How sure a setup of a search is: in how many plausible vehicles it holds each limit, and all of them at once."""

import json
from collections.abc import Sequence

import numpy as np

from kobrix.core.numerics import sensitivity, uncertainty
from kobrix.core.numerics.arrays import Floats, Mask
from kobrix.core.physics.chain import System, first_reach
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.search.engine import Bounds
from kobrix.core.search.plausible import Behind, Least, behind_of, holding
from kobrix.evaluate.as_found import AsFound, by_trial, least_left
from kobrix.evaluate.changes import with_edits
from kobrix.evaluate.shapes import Percentiles
from kobrix.evaluate.solve import Answer
from kobrix.evaluate.to_core import Converted, convert
from kobrix.evaluate.uncertainty import TRIALS, UncertainEntry, drawn_within, made_of, said_of, uncertain_entries
from kobrix.evaluate.verdicts import batch_of
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit, set_at
from kobrix.fileformat.quantities import value_of
from kobrix.stages.match.shapes import EntryToMeasure, Uncertainty
from kobrix.stages.match.space import NO_WORSE, edited

_FEET = ("/systems/0/control/", "/systems/0/booster", "/systems/0/cylinder")  # below these stands what lies before the brakes


def order_by_friction(setup: Setup) -> bool:
    """Whether the front is first only because its pads rub more: with both axles' µ at their mean the rear locks first."""
    cold = {}
    for i, system in enumerate(setup.systems):
        for k, station in enumerate(system.stations):
            friction = station.brake.friction
            if friction is None or friction.cold is None:
                return False
            cold[f"systems.{i}.stations.{k}.brake.friction.cold"] = (station.axle, value_of(friction.cold, "friction"))
    by_axle = {axle: [mu for own, mu in cold.values() if own == axle] for axle in ("front", "rear")}
    if not by_axle["front"] or not by_axle["rear"]:
        return False
    mean = 0.5 * (max(by_axle["front"]) + max(by_axle["rear"]))
    alike = Answer(with_edits(setup, tuple(set_at(path, mean) for path in cold))).solved
    if alike is None:
        return False
    road = alike.main.healthy.road
    return bool(np.any(rear_first_grips(road, alike.wheels)[0]))


def uncertainty_of(
    job: Job, name: str, setup: Setup, bounds: Bounds, seed: int, trials: int = TRIALS, found: AsFound | None = None
) -> Uncertainty:
    """The chance of holding all limits at once and of breaking each, P5 to P95 of push, travel and margin, and what to measure better.

    `setup` is the one by `name` in `job` with other parts in it: what is known of the entries it keeps goes on. Worst over load states; a
    trial that never gives the stop breaks it. Where a limit is "no worse than as found", it is `found` in the same trial.
    """
    entries = [e for e in uncertain_entries(setup, said_of(job, name)) if e.standing != "exact"]
    doc: Uncertainty = {
        "push_n": None, "travel_mm": None, "margin_g": None, "chances": {}, "joint_chance": None, "order_by_friction": order_by_friction(setup),
        "trials": trials, "measure": [],
    }  # fmt: skip
    batch = batch_of(setup, entries, trials, seed)
    if batch is None:
        return doc
    healthy = batch.main.healthy
    road = healthy.road
    place, known = first_reach(road.decel, bounds.decel)
    reached = by_trial(np.asarray(known)[..., 0, 0], trials).min(axis=1) > 0.0
    pull = healthy.pulls[0]
    push = by_trial(healthy.push_at(place)[..., 0, 0], trials).max(axis=1)
    own = pull.place(place)
    pads = by_trial(np.asarray(pull.pedal.pad_at(own))[..., 0, 0], trials).max(axis=1)
    spent = np.zeros(trials, dtype=bool)
    if pull.pedal.travel is not None:
        spent = by_trial(pull.pedal.travel.bottomed(own)[..., 0, 0], trials).max(axis=1) > 0.0
    front, rear = (by_trial(road.locks[axle][..., 0], trials) for axle in ("front", "rear"))
    known = np.isfinite(front) & np.isfinite(rear)
    margin = np.subtract(rear, front, out=np.full(front.shape, np.inf), where=known).min(axis=1)
    broken = _broken(batch, bounds, found, trials, reached, push, pads, spent)
    doc["chances"] = {key: float(np.mean(mask)) for key, mask in broken.items()}
    doc["joint_chance"] = 1.0 - float(np.mean(np.any(list(broken.values()), axis=0)))

    def spread(figures: Floats) -> Percentiles | None:
        fine = figures[reached & np.isfinite(figures)]
        if fine.size < trials // 2:
            return None
        told = uncertainty.spread(fine)
        return {"p5": told.p5, "p50": told.p50, "p95": told.p95}

    doc["push_n"], doc["travel_mm"], doc["margin_g"] = spread(push), spread(pads * 1e3), spread(margin)
    doc["measure"] = _measured(entries, trials, seed, reached, push, pads)
    return doc


def _least(bounds: Bounds, found: AsFound | None, trials: int) -> Least:
    """What each trial may not fall below: the limits, or what the vehicle as `found` does in the same trial."""
    lock, left = np.full(trials, bounds.first_lock), None
    if bounds.lock_as_found and found is not None:
        lock = found.lock * (1.0 - NO_WORSE)
    if bounds.left is not None:
        left = np.full(trials, bounds.left)
        if found is not None and found.left is not None:
            left = np.minimum(left, found.left * (1.0 - NO_WORSE))
    return Least(lock, left)


class Joint:
    """The chance of setups to hold every limit at once, as `uncertainty_of` has it: of each set of brakes and valves, and of each foot
    before it, the trials are drawn once, however many setups have it."""

    def __init__(self, job: Job, name: str, bounds: Bounds, seed: int, trials: int, found: AsFound | None) -> None:
        self._setup, self._known = job.setup(name), said_of(job, name)
        self._bounds, self._seed, self._trials = bounds, seed, trials
        self._least = _least(bounds, found, trials)
        self._behind: dict[str, Behind] = {}
        self._feet: dict[str, System] = {}

    def chance(self, edits: Sequence[Edit]) -> float:
        """The chance [1] of the setup with such `edits` below it."""
        twin = self._setup.systems[0].cylinder.kind == "twin"  # two cylinders share a bar, and it their brakes
        own = _FEET[:2] if twin else _FEET
        foot, rest = [e for e in edits if e["path"].startswith(own)], [e for e in edits if not e["path"].startswith(own)]
        key = json.dumps(rest)
        if key not in self._behind:
            made = self._drawn(rest)
            assert made.load is not None
            self._behind[key] = behind_of(made.systems[0], made.load, made.wheels, self._bounds, self._least, self._trials)
        before = json.dumps(edits if twin else foot)
        if before not in self._feet:
            self._feet[before] = self._drawn(edits if twin else foot).systems[0]
        return float(np.mean(holding(self._behind[key], self._feet[before], self._bounds)))

    def _drawn(self, edits: Sequence[Edit]) -> Converted:
        setup = edited(self._setup, edits)
        entries = [e for e in uncertain_entries(setup, self._known) if e.standing != "exact"]
        return convert(made_of(setup, entries, drawn_within(entries, self._trials, self._seed)))


def _broken(
    batch: SolvedSetup, bounds: Bounds, found: AsFound | None, trials: int, reached: Mask, push: Floats, pads: Floats,
    spent: Mask,
) -> dict[str, Mask]:  # fmt: skip
    """Which trials break each limit."""
    healthy = batch.main.healthy
    road, event = healthy.road, healthy.event
    both = bool(np.any(road.front > 0.0)) and bool(np.any(road.rear > 0.0))
    late = by_trial(event.rear[..., 0] & ~event.front[..., 0] & both, trials).max(axis=1) > 0.0
    if bounds.lift:
        late = late | (by_trial(event.lift[..., 0], trials).max(axis=1) > 0.0)
    lock = by_trial(event.decel[..., 0], trials).min(axis=1)
    least = _least(bounds, found, trials)
    broken: dict[str, Mask] = {
        "no_stop": ~reached, "rear_first": late, "early_lock": lock < least.lock, "effort": ~reached | (push > bounds.effort),
    }  # fmt: skip
    if both:
        some = by_trial(rear_first_grips(road, batch.wheels)[0][..., 0], trials).max(axis=1) > 0.0
        broken["slippery"] = some & ~late
        if bounds.sharing:
            above, kept = distribution_kept(road)
            broken["sharing"] = by_trial((~above | ~kept)[..., 0], trials).max(axis=1) > 0.0
    broken["stroke"] = ~reached | spent
    room = healthy.pulls[0].system.control.available
    if room is not None:
        width = by_trial(np.asarray(room, dtype=np.float64).reshape(-1, 1), trials)[:, 0]
        broken["travel"] = ~reached | (pads > bounds.travel_share * width)
    left = least_left(batch, trials)
    if least.left is not None and left is not None:
        broken["lost_circuit"] = left < least.left
    return broken


def _measured(
    entries: list[UncertainEntry], trials: int, seed: int, reached: Mask, push: Floats, pads: Floats
) -> list[EntryToMeasure]:
    """The three entries that move push or travel most."""
    if reached.sum() <= 2 or not entries:
        return []
    columns = drawn_within(entries, trials, seed)
    moved = np.max([np.abs(sensitivity.ranks(columns[reached], f[reached])) for f in (push, pads)], axis=0)
    order = sorted(zip(moved.tolist(), entries, strict=True), key=lambda item: -item[0])
    return [{"path": d.path, "label": d.label, "rank": rank, "assumed": d.assumed} for rank, d in order[:3] if rank > 0.1]

"""How sure a setup's figures are: seeded trials of everything assumed or with a ±, judged at a search's own limits."""

from typing import Any

import numpy as np

from kobrix.core.numerics import sensitivity, uncertainty
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.failures import LOSSES, what_is_left
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import Asked, settle
from kobrix.core.search.engine import Bounds
from kobrix.evaluate.shapes import Percentiles
from kobrix.evaluate.solve import as_asked, failures_of, rooms_of
from kobrix.evaluate.to_core import convert
from kobrix.evaluate.uncertainty import drawn_within, made_of, said_of, uncertain_entries
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import HEALTH, Questions
from kobrix.stages.match.shapes import Uncertainty

TRIALS = 400


def uncertainty_of(job: Job, name: str, setup: Setup, bounds: Bounds, seed: int, trials: int = TRIALS) -> Uncertainty:
    """P5 to P95 of push, travel and margin to the rear's lock, the chance of breaking each limit, and what to measure better.

    `setup` is the one by `name` in `job` with other parts in it: what is known of the entries it keeps goes on. The margin is
    how much later the rear locks than the front, in g. Worst over load states; a trial that never gives the stop breaks it.
    What is left out altogether (a return spring, knock-back) stays out: it has no usual value to lie about.
    """
    found = [d for d in uncertain_entries(setup, said_of(job, name)) if d.standing != "exact"]
    doc: Uncertainty = {"push_n": None, "travel_mm": None, "margin_g": None, "chances": {}, "trials": trials, "measure": []}
    if not found:
        return doc
    columns = drawn_within(found, trials, seed)
    solved, asked, wheels = _solved(made_of(setup, found, columns))
    road, event = solved.healthy().road, solved.healthy().event

    def flat(values: Any) -> Floats:
        array = np.asarray(values, dtype=np.float64)
        array = array.reshape((1,) * (4 - array.ndim) + array.shape)[:, :, 0, 0]
        return np.broadcast_to(array, (trials, array.shape[1]))

    place, known = solved.healthy().reach(bounds.decel)
    reached = flat(known).min(axis=1) > 0.0
    pull = solved.healthy().pulls[0]
    push = flat(solved.healthy().push_at(place)).max(axis=1)
    pads = flat(pull.pedal.pad_at(place)).max(axis=1)
    front, rear = (flat(road.locks[axis][..., None]) for axis in ("front", "rear"))
    both = np.isfinite(front) & np.isfinite(rear)
    margin = np.where(both, rear - front, np.inf).min(axis=1)
    left = what_is_left(solved, asked.rooms)
    circuits = [n for n, failing in enumerate(asked.failures) if failing.is_loss]
    room = next(iter(asked.rooms.values())).available
    late = flat(event.rear[..., None] & ~event.front[..., None]).max(axis=1) > 0.0
    slippery = flat(rear_first_grips(road, wheels)[0][..., None]).max(axis=1) > 0.0
    broken: dict[str, Any] = {
        "no_stop": ~reached, "rear_first": late, "early_lock": flat(event.decel[..., None]).min(axis=1) < bounds.first_lock,
        "effort": ~reached | (push > bounds.effort), "slippery": slippery & ~late,
    }  # fmt: skip
    if room is not None:
        broken["travel"] = ~reached | (pads > bounds.travel_share * room)
    if bounds.sharing:
        above, kept = distribution_kept(road)
        broken["sharing"] = flat((~above | ~kept)[..., None]).max(axis=1) > 0.0
    if bounds.left is not None and circuits and len(solved.pulls[0].system.cylinder.chambers) > 1:
        best = np.broadcast_to(left.best, (trials, *left.best.shape[-2:]))[..., circuits]
        broken["lost_circuit"] = best.min(axis=(1, 2)) < bounds.left
    doc["chances"] = {key: float(np.mean(mask)) for key, mask in broken.items()}

    def spread(figures: Floats) -> Percentiles | None:
        fine = figures[reached & np.isfinite(figures)]
        if fine.size < trials // 2:
            return None
        known = uncertainty.spread(fine)
        return {"p5": known.p5, "p50": known.p50, "p95": known.p95}

    doc["push_n"], doc["travel_mm"], doc["margin_g"] = spread(push), spread(pads * 1e3), spread(margin)
    moved = [np.zeros(len(found))]
    if reached.sum() > 2:
        moved = [np.abs(sensitivity.ranks(columns[reached], f[reached])) for f in (push, pads)]
    order = sorted(zip(np.max(np.stack(moved), axis=0).tolist(), found, strict=True), key=lambda item: -item[0])
    doc["measure"] = [
        {"path": d.path, "label": d.label, "rank": rank, "assumed": d.assumed} for rank, d in order[:3] if rank > 0.1
    ]
    return doc


def _solved(setup: Any) -> tuple[Solved, Asked, Any]:
    """A setup whose entries may be trials (N, 1, 1, 1), healthy and with its failures."""
    converted = convert(setup)
    assert converted.load is not None
    systems = converted.systems
    failures = [f for f in failures_of(systems, []) if f is HEALTH or f.kind in LOSSES]
    rooms = rooms_of(setup, systems, Questions())
    asked = as_asked(systems, failures, converted, rooms)
    own = [settle(s, converted.load) for s in systems]
    solved = solve_path(own[0].name, [(own[0], 1.0)], converted.load, converted.wheels, list(asked.conditions), asked.air)
    return solved, asked, converted.wheels

"""One setup solved: healthy, with every failure, in every load state, and the stop it is judged at."""

from dataclasses import dataclass, replace

import numpy as np

from kobrix.core import failures
from kobrix.core.arrays import Floats, Mask, Number, at_step, lookup, per_line
from kobrix.core.chain import (
    Condition,
    Event,
    ForceLine,
    Moment,
    Place,
    Road,
    System,
    first_event,
    first_reach,
    follow,
    moment,
    on_road,
)
from kobrix.core.constants import PUBLISHED
from kobrix.core.travel import Travel, along
from kobrix.core.valves import settled
from kobrix.core.vehicle import AXLES, Axle, Load, axle_load, grip_limit

LOW_GRIP = 0.15  # the least grip that lock order is judged at
_PLACES = 24  # looked at on each straight part
DESIGN_SHARE = 0.9  # of the first lock: the stop a setup is judged at


@dataclass(frozen=True)
class Solved:
    """A force line with what it does: `line`, `travel` (None when its lines are not known), `road` and its `event`."""

    line: ForceLine
    travel: Travel | None
    road: Road
    event: Event

    def at(self, place: Place) -> Moment:
        """What happens on the road at a `place` [record] (..., S)."""
        return moment(self.road, self.event, place)

    def push_at(self, place: Place) -> Floats:
        """Pedal force [N] at a `place` [record] (..., S)."""
        return lookup(self.line.push, place.knot, place.fraction)


@dataclass(frozen=True)
class Case:
    """A setup solved. Load states stand along the first axis (L), failures along the second.

    `system` [record] with its valves settled; `load` [record] (L, 1, 1); `wheels` {axle: [1]}; `healthy` and `failed`
    [Solved]; `names` of the failures; `left` of each failure, None where travel is not known; `grip_limit` [g] (L,);
    `design` place (L, 1, 1), its `design_decel` [g] (L,) and `design_known` [yes or no] (L,).
    """

    system: System
    load: Load
    wheels: dict[Axle, int]
    healthy: Solved
    names: tuple[str, ...]
    failed: Solved | None
    left: failures.Left | None
    grip_limit: Floats
    design: Place
    design_decel: Floats
    design_known: Mask

    @property
    def lock_decel(self) -> Floats:
        """First lock or lift [g] (L,), inf when none."""
        return self.healthy.event.decel[:, 0]


def solve_line(system: System, load: Load, wheels: dict[Axle, int], condition: Condition,
               air: dict[str, Number] | None = None) -> Solved:  # fmt: skip
    """A `system` [record] in a `condition` [record] under `load` [record] (L, 1, 1); `wheels` {axle: [1]}; `air` {station: [m³]}.

    Source: chain and travel.
    """
    line = follow(system, condition)
    known = all(s.lines is not None for s in system.stations)
    travel = along(line, air) if known else None
    road = on_road(line, load, wheels)
    return Solved(line, travel, road, first_event(road))


def settle(system: System, load: Load) -> System:
    """The `system` [record] with its load sensing valves settled at the rear loads of `load` [record] (L, 1, 1)."""
    rear = axle_load(load, "rear", 0.0)
    stations = tuple(replace(s, devices=settled(s.devices, rear)) for s in system.stations)
    return replace(system, stations=stations)


def design_stop(road: Road, event: Event, limit: Floats) -> tuple[Place, Floats, Mask]:
    """The stop a setup is judged at: 0.9 of its first lock, or of the grip limit when nothing locks.

    `road` [record] and `event` [record] healthy (..., L, 1); `limit` [g] (..., L). Returns place (..., L, 1, 1), decel [g]
    (..., L), and whether the chain ever gives it. Source: model.
    """
    lock = event.decel[..., 0]
    decel = DESIGN_SHARE * np.where(np.isfinite(lock), lock, limit)
    place, known = first_reach(road.decel, decel[..., None, None])
    return place, decel, known[..., 0, 0]


def limit_of(road: Road) -> Floats:
    """Grip limit [g] (..., L) of a `road` [record] (..., L, 1, K) once everything brakes. Source: vehicle."""
    return grip_limit(road.load, road.front_braked[..., -1:], road.rear_braked[..., -1:])[..., 0, 0]


def solve(
    system: System,
    load: Load,
    wheels: dict[Axle, int],
    names: tuple[str, ...],
    condition: Condition,
    air: dict[str, Number],
    force_limit: float,
) -> Case:
    """Solve a setup [Case]: the whole of what Size shows.

    `system` [record]; `load` [record] (L, 1, 1); `wheels` {axle: [1]}; `names` of the failures and their `condition`
    [record] with `air` {station: [m³]}, arrays (C, 1); `force_limit` [N]. Source: model.
    """
    system = settle(system, load)
    healthy = solve_line(system, load, wheels, Condition())
    road = healthy.road
    limit = limit_of(road)
    design, decel, known = design_stop(road, healthy.event, limit)
    failed = left = None
    available = system.control.available
    if names:
        strokes = all(c.stroke is not None for c in system.cylinder.chambers)
        bare = system if strokes else replace(system, stations=tuple(replace(s, lines=None) for s in system.stations))
        failed = solve_line(bare, load, wheels, condition, air)
        if failed.travel is not None and available is not None:
            left = failures.what_is_left(failed.line, failed.travel, failed.road, failed.event, force_limit, available)
    return Case(system, load, wheels, healthy, names, failed, left, limit, design, decel, known)


def first_lock_place(road: Road) -> Floats:
    """Place number [1] of the first lock of a `road` [record], inf where nothing locks (...). Source: chain."""
    return np.minimum(road.places["front"], road.places["rear"])


def rear_first_grips(road: Road, wheels: dict[Axle, int], least: float = LOW_GRIP) -> tuple[Mask, Floats, Floats]:
    """Where the rear would lock first at some grip from `least` [1] up to the stated one, on a `road` [record] (..., K).

    `wheels` {axle: [1]}. Both grips shrink together. Returns (...): whether there is such a grip, and the least and
    greatest of them [1] (as the larger of the two axles' grips). Looked at: the first lock at the least and at the stated
    grip exactly, every knot, and 24 places on each straight part. Source: model.
    """
    load = road.load
    peak = np.maximum(load.grip_front, load.grip_rear)
    count = road.decel.shape[-1] - 1
    share = least / peak
    slippery = on_road(road.line, replace(load, grip_front=load.grip_front * share, grip_rear=load.grip_rear * share), wheels)
    ends = [first_lock_place(road)[..., None], first_lock_place(slippery)[..., None]]
    longer = np.maximum(1.0, np.where(np.isfinite(ends[0]), ends[0], 0.0) - (count - 1))
    knots = np.broadcast_to(np.repeat(np.arange(count), _PLACES), (*road.decel.shape[:-1], count * _PLACES))
    steps = np.tile(np.linspace(0.0, 1.0, _PLACES + 1)[1:], count) * np.where(
        np.arange(count * _PLACES) < (count - 1) * _PLACES, 1.0, longer
    )
    exact = np.where(np.isfinite(np.concatenate(ends, axis=-1)), np.concatenate(ends, axis=-1), 0.0)
    at = np.minimum(exact.astype(np.int64), count - 1)
    knots, steps = np.concatenate([knots, at], axis=-1), np.concatenate([steps, exact - at], axis=-1)
    z = lookup(road.decel, knots, steps)
    use: dict[Axle, Floats] = {}
    for axle in AXLES:
        force = lookup(road.force(axle), knots, steps)
        carried = axle_load(load, axle, z) * at_step(road.braked(axle), knots) * load.grip(axle)
        use[axle] = np.divide(force, carried, out=np.zeros(z.shape), where=carried > 0.0)
    share = np.maximum(use["front"], use["rear"])
    counts = (share <= 1.0 + 1e-9) & (share * peak >= least * (1.0 - 1e-9)) & (use["rear"] > use["front"] * (1.0 + 1e-9))
    grip = share * peak
    some = np.any(counts, axis=-1)
    low = np.min(np.where(counts, grip, np.inf), axis=-1)
    high = np.max(np.where(counts, grip, 0.0), axis=-1)
    return some, np.where(some, low, 0.0), np.where(some, high, 0.0)


def adhesion_curve(solved: Solved, steps: int = 80) -> tuple[Floats, Floats, Floats]:
    """Deceleration [g] and adhesion used by front and rear [1], (..., S), over a `solved` [record] sweep of the push.

    `steps` [1] places a straight part, knots included. Source: UN R13-H's curves, from memory.
    """
    count = solved.line.steps
    knots = np.repeat(np.arange(count), steps)
    tiled = np.tile(np.linspace(0.0, 1.0, steps + 1)[1:], count)
    reached, known = first_reach(solved.road.decel, PUBLISHED["distribution_z_most"].value)
    tiled[-steps:] *= max(1.0, float(np.max(np.where(known & (reached.knot == count - 1), reached.fraction, 1.0))))
    shape = (*solved.road.decel.shape[:-1], knots.size)
    seen = solved.at(Place(np.broadcast_to(knots, shape), np.broadcast_to(tiled, shape)))
    return seen.decel, seen.use_front, seen.use_rear


def grips(load: Load) -> tuple[Floats, Floats]:
    """Stated grip of front and rear [1] (L, 1) of `load` [record] (L, 1, 1). Source: definition."""
    return per_line(load.grip_front), per_line(load.grip_rear)

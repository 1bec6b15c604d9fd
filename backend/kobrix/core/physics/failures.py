"""What is left when something fails: the whole chain, re-solved with the failure in it."""

from dataclasses import dataclass
from functools import reduce
from typing import Literal

import numpy as np

from kobrix.core.constants import PUBLISHED, G
from kobrix.core.numerics.arrays import Floats, Mask, Number, as_shape, behind_rows, per_line, stacked
from kobrix.core.physics.chain import Place, first_reach, place_of
from kobrix.core.physics.paths import Pull, Solved
from kobrix.core.physics.road import Event, Moment, Road, grip_decel_at_knots, moment
from kobrix.core.physics.travel import reach_each
from kobrix.core.physics.vehicle import on_line, rear_lift_decel, sliding

Limit = Literal["force", "travel", "chamber", "contact", "all_lost"]
LIMITS: tuple[Limit, ...] = ("force", "travel", "chamber", "contact", "all_lost")
FailureKind = Literal["healthy", "circuit", "upstream", "booster", "hot", "wet", "valves_shut", "valves_open", "air", "other"]
LOSSES: tuple[FailureKind, ...] = ("circuit", "upstream", "booster")


@dataclass(frozen=True)
class Failing:
    """One condition of a setup: its `name` in files, its `kind`, the `system` it befalls (None: every one, or there is only
    one), and `what` of it: the circuit's or the station's name; the `controls` [names] and `stations` [names] from which it takes
    something, None where it is all of them."""

    name: str
    kind: FailureKind = "other"
    system: str | None = None
    what: str | None = None
    controls: frozenset[str] | None = None
    stations: frozenset[str] | None = None

    def befalls(self, solved: Solved) -> bool:
        """Whether it takes something from a control of a `solved` [record] path, or from a station there."""
        if self.controls is not None and not any(p.system.name in self.controls for p in solved.pulls):
            return False
        fed = {s.name for p in solved.pulls for s in p.system.stations}
        return self.stations is None or bool(self.stations & fed)

    @property
    def is_loss(self) -> bool:
        """Whether a circuit or a booster is lost, or what lies upstream of a second control."""
        return self.kind in LOSSES


HEALTH = Failing("healthy", "healthy")


@dataclass(frozen=True)
class Room:
    """What one control has: `force` [N], the most that is asked of a person, and `available` [m] of travel, None unknown.

    Trials of the room stand as (N, 1, 1, 1)."""

    force: float
    available: Number | None


@dataclass(frozen=True)
class PullLeft:
    """One control in the failures: `pad` [m] at the end, `contact` [m] and `at_limit` [m] of travel, `push` [N], (L, C)."""

    push: Floats
    pad: Floats
    contact: Floats
    at_limit: Floats
    ever: Mask


@dataclass(frozen=True)
class Left:
    """What each failure leaves, arrays (L, C) over load states and failures.

    `push` [N] used; `place` [record] of it (L, C, 1); `limited` index into LIMITS; `moment` [record] there (L, C, 1); `best` [g], the greatest deceleration
    at any force up to it; `enough` [yes or no] against secondary braking; `pulls` {system: [record]}.
    """

    push: Floats
    place: Place
    limited: np.ndarray[tuple[int, ...], np.dtype[np.int64]]
    moment: Moment
    best: Floats
    enough: Mask
    pulls: dict[str, PullLeft]


def _before_second_lock(road: Road, event: Event) -> tuple[Floats, Floats]:
    """Place number and deceleration just before the second axle locks, the first one sliding; inf where it never does."""
    load = on_line(road.load)
    one = sliding(load, load.grip_front * road.braked_table[0, ..., -1], load.grip_rear * road.braked_table[1, ..., -1])
    needed = stacked([one.front_locks_with * load.weight, one.rear_locks_with * load.weight], event.front.ndim)
    finite = np.where(np.isfinite(needed), needed, 0.0)
    reached, ever = first_reach(road.table[:2], finite[..., None])
    place = np.where(event.front, reached.number[1, ..., 0], reached.number[0, ..., 0])
    fine = ever[..., 0] & (finite > 0.0)
    z = np.where(event.front, one.rear_locks_at, one.front_locks_at)
    ok = np.where(event.front, fine[1], fine[0]) & (z <= rear_lift_decel(load))
    ok = ok & (event.front ^ event.rear) & (place > event.place)
    return np.where(ok, place, np.inf), np.where(ok, z, 0.0)


def best_up_to(road: Road, event: Event, end: Place) -> tuple[Floats, Moment]:
    """Greatest deceleration [g] (L, C) on a `road` [record] with its `event` [record] at any push up to `end` [record].

    And what happens there [Moment] (L, C, 1). A driver backs off a sliding wheel, so the deceleration just before each lock
    counts. Source: model.
    """
    last, there = end.number[..., 0], moment(road, event, end)
    inside = np.arange(1, road.decel.shape[-1]) <= last[..., None]
    best = np.maximum(np.where(inside, grip_decel_at_knots(road, event), 0.0).max(axis=-1), there.grip_decel[..., 0])
    best = np.maximum(best, np.where(event.place <= last, np.where(np.isfinite(event.decel), event.decel, 0.0), 0.0))
    second, z = _before_second_lock(road, event)
    return np.asarray(np.maximum(best, np.where(second <= last, z, 0.0))), there


def _ends(pull: Pull, room: Room) -> tuple[Floats, Mask, Floats, Place, Mask]:
    """Path place numbers (4, ...) at which force, travel, a chamber and contact end a push; whether the control ever presses;
    contact travel [m]; the own place of the force limit, and whether the control balances it."""
    known = pull.pedal.travel
    assert known is not None
    contact_place, contact = pull.pedal.contact()
    ever = known.pressing.any(axis=-1)
    shape = known.pressing.shape[:-1]
    force_end, balanced = pull.pedal.balance(np.broadcast_to(room.force, (*shape, 1)))
    never = np.full(shape, np.inf)
    travel_number, chamber, unreached = never, never, never
    spent = [(known.chambers[name], usable) for name, usable in known.usable.items() if usable is not None]
    if room.available is not None and pull.pedal.linked is None:
        spent.append((pull.pedal.pad_curve, room.available))
    reached = reach_each([c for c, _ in spent], [w for _, w in spent]) if spent else []
    ends = [np.where(ok[..., 0], place.number[..., 0], np.inf) for place, ok in reached]
    if room.available is not None:
        if pull.pedal.linked is None:
            travel_number = ends.pop()
        else:
            place, ok = pull.pedal.reach_pad(np.broadcast_to(room.available, (*shape, 1)))
            travel_number = np.where(ok[..., 0], place.number[..., 0], np.inf)
        unreached = np.where(contact > per_line(room.available), contact_place.number[..., 0], np.inf)
    for end in ends:
        if pull.pedal.linked is not None:  # a stroke past the linkage's dead point is never run
            finite = place_of(np.where(np.isfinite(end), end, 0.0)[..., None], pull.pedal.line.steps)
            end = np.where(np.isfinite(pull.pedal.push_at(finite)[..., 0]), end, np.inf)
        chamber = np.minimum(chamber, end)
    own = stacked([force_end.number[..., 0], travel_number, chamber, unreached], ever.ndim)
    others = own[1:3].min(axis=0)
    own[0] = np.where(balanced[..., 0] | ~np.isfinite(others), own[0], np.inf)  # past a dead point nothing else ends it
    return pull.number_on_path(np.where(ever, own, np.inf)), np.asarray(ever), contact, force_end, balanced[..., 0]


@dataclass(frozen=True)
class End:
    """Where a healthy push ends, by load state (L,): the path's `push` [N], inf where nothing ends it; `floor` [yes or no], the
    floor or else a chamber; and the `system` [name] of each."""

    push: Floats
    floor: Mask
    system: tuple[str, ...]


def healthy_end(solved: Solved, rooms: dict[str, Room]) -> End | None:
    """Where a push on a healthy `solved` [record] path meets the floor or spends a chamber [record]; None where travel is not
    known. `rooms` {system: [record]}. Beyond it more force moves nothing. Source: model."""
    if any(pull.pedal.travel is None for pull in solved.pulls):
        return None
    found = [_ends(pull, rooms[pull.system.name])[0] for pull in solved.pulls]
    shape = solved.road.decel.shape[:-1]
    each = [as_shape(part, shape) for own in found for part in (np.minimum(own[1], own[3]), own[2])]
    numbers = np.stack(each)[..., 0]  # floor and chamber of every control, healthy
    first = numbers.argmin(axis=0)
    end = numbers.min(axis=0)
    ever = np.isfinite(end)
    place = place_of(np.where(ever, end, 0.0)[:, None, None], solved.road.decel.shape[-1] - 1)
    push = as_shape(solved.push_at(place)[..., 0], (*end.shape, 1))[:, 0]
    names = tuple(solved.pulls[n // 2].system.name for n in first)
    return End(np.where(ever, push, np.inf), first % 2 == 0, names)


def what_is_left(solved: Solved, rooms: dict[str, Room]) -> Left:
    """What each failure leaves [record] on a `solved` [record] path, the push raised until something ends it.

    `rooms` {system: [record]}. With several controls the first working one at its end ends the path. Source: model; the
    limit of 2.44 m/s² is UN R13-H's secondary braking, from memory.
    """
    found = [_ends(pull, rooms[pull.system.name]) for pull in solved.pulls]
    shape = solved.road.decel.shape[:-1]
    every = [behind_rows(ends, len(shape)) for ends, *_ in found]
    numbers = as_shape(reduce(np.minimum, every), (4, *shape))
    first, floor = numbers[:3].min(axis=0), numbers[3]
    unreached = np.isfinite(floor) & (floor <= first)
    limited = np.where(unreached, LIMITS.index("contact"), numbers[:3].argmin(axis=0))
    end = np.where(unreached, floor, first)
    any_works = as_shape(reduce(np.logical_or, [ever for _, ever, *_ in found]), shape)
    limited = np.where(any_works, limited, LIMITS.index("all_lost"))
    end = np.where(any_works & np.isfinite(end), end, 0.0)  # a control that nothing ends but its dead point leaves nothing
    place = place_of(end[..., None], solved.road.decel.shape[-1] - 1)
    push = as_shape(solved.push_at(place)[..., 0], shape)
    best, at = best_up_to(solved.road, solved.event, place)
    pulls = {}
    for pull, (ends, ever, contact, force_end, balanced) in zip(solved.pulls, found, strict=True):
        room = rooms[pull.system.name]
        pad = as_shape(pull.pedal.pad_at(pull.place(place))[..., 0], shape)
        if room.available is not None:
            at_floor = ends[1] <= end * (1.0 + 1e-12)
            pad = np.where(np.isfinite(ends[3]) | at_floor, per_line(room.available), pad)
        at_limit = as_shape(np.where(balanced, pull.pedal.pad_at(force_end)[..., 0], np.inf), shape)
        pulls[pull.system.name] = PullLeft(push * pull.ratio, pad, as_shape(contact, shape), at_limit, as_shape(ever, shape))
    return Left(push, place, limited, at, best, best * G >= PUBLISHED["secondary_decel"].value, pulls)

"""What is left when something fails: the whole chain, re-solved with the failure in it."""

from dataclasses import dataclass
from functools import reduce
from typing import Literal

import numpy as np

from kobrix.core.constants import PUBLISHED, G
from kobrix.core.numerics.arrays import Floats, Mask, as_shape, per_line, stacked
from kobrix.core.physics.chain import Place, first_reach, place_of
from kobrix.core.physics.paths import Pull, Solved
from kobrix.core.physics.road import Event, Moment, Road, moment
from kobrix.core.physics.travel import reach_each

Limit = Literal["force", "travel", "chamber", "contact", "all_lost"]
LIMITS: tuple[Limit, ...] = ("force", "travel", "chamber", "contact", "all_lost")
FailureKind = Literal["healthy", "circuit", "booster", "hot", "wet", "valves_shut", "valves_open", "air", "other"]
LOSSES: tuple[FailureKind, ...] = ("circuit", "booster")


@dataclass(frozen=True)
class Failing:
    """One condition of a setup: its `name` in files, its `kind`, the `system` it befalls (None: every one, or there is only
    one), and `what` of it: the circuit's or the station's name."""

    name: str
    kind: FailureKind = "other"
    system: str | None = None
    what: str | None = None

    @property
    def is_loss(self) -> bool:
        """Whether a circuit or a booster is lost."""
        return self.kind in LOSSES


HEALTH = Failing("healthy", "healthy")


@dataclass(frozen=True)
class Room:
    """What one control has: `force` [N], the most that is asked of a person, and `available` [m] of travel, None unknown."""

    force: float
    available: float | None


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

    `push` [N] used; `limited` index into LIMITS; `moment` [record] there (L, C, 1); `best` [g], the greatest deceleration
    at any force up to it; `enough` [yes or no] against secondary braking; `pulls` {system: [record]}.
    """

    push: Floats
    limited: np.ndarray[tuple[int, ...], np.dtype[np.int64]]
    moment: Moment
    best: Floats
    enough: Mask
    pulls: dict[str, PullLeft]


def _before_second_lock(road: Road, event: Event) -> tuple[Floats, Floats]:
    """Place number and deceleration just before the second axle locks, the first one sliding; inf where it never does."""
    load = road.load
    peak_f = per_line(load.grip_front) * road.braked_table[0, ..., -1]
    peak_r = per_line(load.grip_rear) * road.braked_table[1, ..., -1]
    slide, psi, chi = per_line(load.sliding), per_line(load.front_share), per_line(load.chi)
    slide_f, slide_r, rear_psi = slide * peak_f * psi, slide * peak_r * (1.0 - psi), 1.0 - psi
    ahead, behind = 1.0 - slide * peak_f * chi, 1.0 + slide * peak_r * chi
    b_r = peak_r * (rear_psi - chi * slide_f / ahead) / (1.0 + peak_r * chi / ahead)
    b_f = peak_f * (psi + chi * slide_r / behind) / (1.0 - peak_f * chi / behind)
    z_front_slides, z_rear_slides = (slide_f + b_r) / ahead, (slide_r + b_f) / behind
    weight = per_line(load.weight)
    needed = stacked([b_f * weight, b_r * weight], event.front.ndim)
    reached, ever = first_reach(road.table[:2], needed[..., None])
    place = np.where(event.front, reached.number[1, ..., 0], reached.number[0, ..., 0])
    fine = ever[..., 0] & (needed > 0.0)
    ok = np.where(event.front, fine[1], fine[0])
    ok = ok & (event.front ^ event.rear) & (place > event.place)
    return np.where(ok, place, np.inf), np.where(event.front, z_front_slides, z_rear_slides)


def best_up_to(road: Road, event: Event, end: Place) -> tuple[Floats, Moment]:
    """Greatest deceleration [g] (L, C) on a `road` [record] with its `event` [record] at any push up to `end` [record].

    And what happens there [Moment] (L, C, 1). A driver backs off a sliding wheel, so the deceleration just before each lock
    counts. Source: model.
    """
    last = end.number[..., 0]
    front, steps = road.decel.shape[:-1], road.decel.shape[-1] - 1
    knots = as_shape(np.arange(steps), (*front, steps))
    every = Place(
        np.concatenate([knots, as_shape(end.knot, (*front, 1))], axis=-1),
        np.concatenate([np.ones(knots.shape), as_shape(end.fraction, (*front, 1))], axis=-1),
    )
    seen = moment(road, event, every)
    inside = every.number <= last[..., None]
    best = np.where(inside, seen.grip_decel, 0.0).max(axis=-1)
    best = np.maximum(best, np.where(event.place <= last, np.where(np.isfinite(event.decel), event.decel, 0.0), 0.0))
    second, z = _before_second_lock(road, event)
    return np.asarray(np.maximum(best, np.where(second <= last, z, 0.0))), seen.last()


def _ends(pull: Pull, room: Room) -> tuple[Floats, Mask, Floats, Place]:
    """Path place numbers (4, ...) at which force, travel, a chamber and contact end a push; whether the control ever presses;
    contact travel [m]; and the own place of the force limit."""
    known = pull.pedal.travel
    assert known is not None
    contact_place, contact = pull.pedal.contact()
    ever = known.pressing.any(axis=-1)
    shape = known.pressing.shape[:-1]
    force_end = pull.pedal.place_at(np.full((*shape, 1), room.force))
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
            place, ok = pull.pedal.reach_pad(np.full((*shape, 1), room.available))
            travel_number = np.where(ok[..., 0], place.number[..., 0], np.inf)
        unreached = np.where(contact > room.available, contact_place.number[..., 0], np.inf)
    for end in ends:
        if pull.pedal.linked is not None:  # a stroke past the linkage's dead point is never run
            finite = place_of(np.where(np.isfinite(end), end, 0.0)[..., None], pull.pedal.line.steps)
            end = np.where(np.isfinite(pull.pedal.push_at(finite)[..., 0]), end, np.inf)
        chamber = np.minimum(chamber, end)
    own = stacked([force_end.number[..., 0], travel_number, chamber, unreached], ever.ndim)
    return pull.number_on_path(np.where(ever, own, np.inf)), np.asarray(ever), contact, force_end


def what_is_left(solved: Solved, rooms: dict[str, Room]) -> Left:
    """What each failure leaves [record] on a `solved` [record] path, the push raised until something ends it.

    `rooms` {system: [record]}. With several controls the first working one at its end ends the path. Source: model; the
    limit of 2.44 m/s² is UN R13-H's secondary braking, from memory.
    """
    found = [_ends(pull, rooms[pull.system.name]) for pull in solved.pulls]
    shape = solved.road.decel.shape[:-1]
    numbers = as_shape(reduce(np.minimum, [ends for ends, *_ in found]), (4, *shape))
    first, floor = numbers[:3].min(axis=0), numbers[3]
    unreached = np.isfinite(floor) & (floor <= first)
    limited = np.where(unreached, LIMITS.index("contact"), numbers[:3].argmin(axis=0))
    end = np.where(unreached, floor, first)
    any_works = as_shape(reduce(np.logical_or, [ever for _, ever, *_ in found]), shape)
    limited = np.where(any_works, limited, LIMITS.index("all_lost"))
    end = np.where(any_works, end, 0.0)
    place = place_of(end[..., None], solved.road.decel.shape[-1] - 1)
    push = as_shape(solved.push_at(place)[..., 0], shape)
    best, at = best_up_to(solved.road, solved.event, place)
    pulls = {}
    for pull, (ends, ever, contact, force_end) in zip(solved.pulls, found, strict=True):
        room = rooms[pull.system.name]
        pad = as_shape(pull.pedal.pad_at(pull.place(place))[..., 0], shape)
        if room.available is not None:
            at_floor = ends[1] <= end * (1.0 + 1e-12)
            pad = np.where(np.isfinite(ends[3]) | at_floor, room.available, pad)
        at_limit = as_shape(pull.pedal.pad_at(force_end)[..., 0], shape)
        pulls[pull.system.name] = PullLeft(push * pull.ratio, pad, as_shape(contact, shape), at_limit, as_shape(ever, shape))
    return Left(push, limited, at, best, best * G >= PUBLISHED["secondary_decel"].value, pulls)

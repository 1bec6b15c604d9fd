"""What is left when something fails: the whole chain, re-solved with the failure in it."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core import chain
from kobrix.core.arrays import Floats, Mask, Number, lookup, per_line
from kobrix.core.chain import Event, ForceLine, Moment, Place, Road
from kobrix.core.constants import PUBLISHED, G
from kobrix.core.travel import Travel, reach

Limit = Literal["force", "travel", "chamber", "contact", "all_lost"]
LIMITS: tuple[Limit, ...] = ("force", "travel", "chamber", "contact", "all_lost")


@dataclass(frozen=True)
class Left:
    """What each failure leaves, arrays (L, C) over load states and failures.

    `push` [N] used; `limited` index into LIMITS; `moment` [record] there (L, C, 1); `best` [g], the greatest deceleration
    at any force up to it; `enough` [yes or no] against secondary braking; `pad` [m] there; `contact` [m]; `at_limit` [m].
    """

    push: Floats
    limited: np.ndarray[tuple[int, ...], np.dtype[np.int64]]
    moment: Moment
    best: Floats
    enough: Mask
    pad: Floats
    contact: Floats
    at_limit: Floats


def _before_second_lock(road: Road, event: Event) -> tuple[Floats, Floats]:
    """Place number and deceleration just before the second axle locks, the first one sliding; inf where it never does."""
    load = road.load
    peak_f = per_line(load.grip_front) * road.front_braked[..., -1]
    peak_r = per_line(load.grip_rear) * road.rear_braked[..., -1]
    slide, psi, chi = per_line(load.sliding), per_line(load.front_share), per_line(load.chi)
    ahead = 1.0 - slide * peak_f * chi
    b_r = peak_r * (1.0 - psi - chi * slide * peak_f * psi / ahead) / (1.0 + peak_r * chi / ahead)
    z_front_slides = (slide * peak_f * psi + b_r) / ahead
    behind = 1.0 + slide * peak_r * chi
    b_f = peak_f * (psi + chi * slide * peak_r * (1.0 - psi) / behind) / (1.0 - peak_f * chi / behind)
    z_rear_slides = (slide * peak_r * (1.0 - psi) + b_f) / behind
    weight = per_line(load.weight)
    rear, ok_r = chain.first_reach(road.rear, (b_r * weight)[..., None])
    front, ok_f = chain.first_reach(road.front, (b_f * weight)[..., None])
    place = np.where(event.front, rear.number[..., 0], front.number[..., 0])
    ok = np.where(event.front, ok_r[..., 0] & (b_r > 0.0), ok_f[..., 0] & (b_f > 0.0))
    ok = ok & (event.front ^ event.rear) & (place > event.place)
    return np.where(ok, place, np.inf), np.where(event.front, z_front_slides, z_rear_slides)


def best_up_to(road: Road, event: Event, end: Place) -> Floats:
    """Greatest deceleration [g] (L, C) on a `road` [record] with its `event` [record] at any push up to `end` [record].

    A driver backs off a sliding wheel, so the deceleration just before each lock counts. Source: model.
    """
    last = end.number[..., 0]
    knots = np.arange(road.decel.shape[-1] - 1)
    knots = np.broadcast_to(knots, (*road.decel.shape[:-1], knots.size))
    at_knots = chain.moment(road, event, Place(knots, np.ones(knots.shape))).grip_decel
    inside = knots + 1.0 <= last[..., None]
    best = np.max(np.where(inside, at_knots, 0.0), axis=-1)
    best = np.maximum(best, chain.moment(road, event, end).grip_decel[..., 0])
    best = np.maximum(best, np.where(event.place <= last, np.where(np.isfinite(event.decel), event.decel, 0.0), 0.0))
    second, z = _before_second_lock(road, event)
    return np.asarray(np.maximum(best, np.where(second <= last, z, 0.0)))


def what_is_left(line: ForceLine, travel: Travel, road: Road, event: Event, force_limit: Number, available: Number) -> Left:
    """What each failure leaves [record], the push raised until something ends it.

    `line` [record] and `travel` [record] with failures along the axis before the knots; `road` [record] and `event`
    [record] with load states in front; `force_limit` [N]; `available` [m] of pad travel. Source: model; the limit of
    2.44 m/s² is UN R13-H's secondary braking, from memory.
    """
    contact_place, contact = travel.contact()
    ever = np.any(travel.pressing, axis=-1)
    force_end = chain.place_at(line, np.full((*line.push.shape[:-1], 1), force_limit))
    travel_end, travel_ok = reach(travel.pad, np.full((*line.push.shape[:-1], 1), available))
    ends = [force_end.number[..., 0], np.where(travel_ok[..., 0], travel_end.number[..., 0], np.inf)]
    chamber = np.full(ends[0].shape, np.inf)
    for name, usable in travel.usable.items():
        if usable is not None:
            spent, ok = reach(travel.chambers[name], usable)
            chamber = np.minimum(chamber, np.where(ok[..., 0], spent.number[..., 0], np.inf))
    number = np.stack([*ends, chamber])
    limited = np.argmin(number, axis=0)
    end = np.min(number, axis=0)
    unreached = ever & (contact > available)
    limited = np.where(unreached, LIMITS.index("contact"), np.where(ever, limited, LIMITS.index("all_lost")))
    end = np.where(unreached, contact_place.number[..., 0], np.where(ever, end, 0.0))
    knot = np.clip(np.ceil(end).astype(np.int64) - 1, 0, line.steps - 1)[..., None]
    place = Place(knot, end[..., None] - knot)
    moment = chain.moment(road, event, place)
    pad = np.where(limited == LIMITS.index("travel"), available, travel.pad.at(place)[..., 0])
    pad = np.where(unreached, available, pad)
    push = lookup(line.push, place.knot, place.fraction)[..., 0]
    best = best_up_to(road, event, place)
    enough = best * G >= PUBLISHED["secondary_decel"].value
    at_limit = travel.pad.at(force_end)[..., 0]
    limited, push, best, enough, pad, contact, at_limit = np.broadcast_arrays(limited, push, best, enough, pad, contact, at_limit)
    return Left(push, limited, moment, best, enough, pad, contact, at_limit)

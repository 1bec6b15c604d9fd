"""The brake forces on the road: which axle locks when, and what the grip leaves of them."""

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.numerics.arrays import (
    Floats,
    Mask,
    as_shape,
    at_both,
    at_step,
    behind_rows,
    healthy,
    lookup,
    per_line,
    ratio,
    stacked,
)
from kobrix.core.physics.chain import Place, first_reach
from kobrix.core.physics.vehicle import (
    AXLES,
    Axle,
    Load,
    Panic,
    adhesion_used,
    axle_loads,
    axle_share,
    grip_limit,
    panic,
    rear_lift_decel,
    road_share,
)


@dataclass(frozen=True)
class Road:
    """Brake forces on the road in the load states of `load`: arrays (..., K) or (..., K−1), leading axes load and failure.

    `table` is front and rear [N] on the road and the decel [g] at the knots, side by side (3, ..., K), and `braked_table`
    the braked over all wheels of front and rear [1] on each step (2, ..., K−1), so that one look-up serves all;
    `places` {axle: place number [1] of its own lock, inf when never}; `locks` {axle: decel [g]} the same.
    """

    load: Load
    table: Floats
    braked_table: Floats
    places: dict[Axle, Floats]
    locks: dict[Axle, Floats]

    @property
    def front(self) -> Floats:
        """Force [N] of the front on the road at the knots (..., K)."""
        return np.asarray(self.table[0])

    @property
    def rear(self) -> Floats:
        """Force [N] of the rear on the road at the knots (..., K)."""
        return np.asarray(self.table[1])

    @property
    def decel(self) -> Floats:
        """Deceleration [g] at the knots (..., K)."""
        return np.asarray(self.table[2])

    def healthy(self) -> "Road":
        """The road without any failure, which stands first along the failures."""
        places, locks = ({axle: v[..., :1] for axle, v in found.items()} for found in (self.places, self.locks))
        return Road(self.load, healthy(self.table), healthy(self.braked_table), places, locks)

    def braked(self, axle: Axle) -> Floats:
        """Braked over all wheels of `axle` [name] on each step (..., K−1) [1]."""
        return np.asarray(self.braked_table[AXLES.index(axle)])

    def force(self, axle: Axle) -> Floats:
        """Force [N] of `axle` [name] on the road at the knots (..., K)."""
        return self.front if axle == "front" else self.rear


def _first_locks(table: Floats, load: Load, braked: Floats) -> tuple[Floats, Floats]:
    """Place numbers and decelerations (2, ...) at which each axle first needs all its grip, inf where it never does.

    `table` is front, rear and decel (3, ..., K), `braked` front and rear (2, ..., K−1).
    """
    z = table[2]
    share = np.array([axle_share(load, axle, z) for axle in AXLES])
    grip = stacked([load.grip_front * load.weight, load.grip_rear * load.weight], z.ndim)
    missing = table[:2, ..., :-1] - grip * braked * share[..., :-1], table[:2, ..., 1:] - grip * braked * share[..., 1:]
    brakes = braked > 0.0
    reached = (missing[1] >= 0.0) & brakes
    rises = (missing[1][..., -1] > missing[0][..., -1]) & brakes[..., -1]
    hit = reached.any(axis=-1)
    knot = np.where(hit, reached.argmax(axis=-1), z.shape[-1] - 2)[..., None]
    a, b = at_both(*missing, knot)
    fraction = np.maximum(0.0, ratio(-a, b - a))
    place, decel = (knot + fraction)[..., 0], lookup(z, knot, fraction)[..., 0]
    ever = (hit | rises) & (decel <= per_line(rear_lift_decel(load)) * (1.0 + 1e-12))  # once the rear has lifted nothing locks
    return np.where(ever, place, np.inf), np.where(ever, decel, np.inf)


def on_road(load: Load, force: dict[Axle, Floats], braking: dict[Axle, Floats], wheels: dict[Axle, int]) -> Road:
    """Brake forces on the road under `load` [record].

    `force` {axle: [N] at the tyres (..., K)}; `braking` {axle: braking wheels [1] (..., K−1)}; `wheels` {axle: wheels of
    it} [1]. An axle's force on the road is B/(1 + ρ), with a trailer B(1 + d)/(1 + ρ + d), d = (1 − k)·m_t/m; z = ΣB/(m·g(1 + ρ + d)).
    Locks are each axle's own, nothing sliding, none past rear lift.
    Any shape; load states stand in `load` as (L, 1, 1) before the failures. Source: moments, UN R13-H.
    """
    spin = road_share(load)
    front, rear = force["front"] / spin, force["rear"] / spin
    decel = np.asarray((front + rear) / (load.weight * load.pulled))
    step = (*decel.shape[:-1], decel.shape[-1] - 1)
    table = stacked([front, rear, decel], decel.ndim)
    braked = np.array([as_shape(np.minimum(braking[a], wheels[a]) / max(1, wheels[a]), step) for a in AXLES])
    places, locks = _first_locks(table, load, braked)
    return Road(load, table, braked, {"front": places[0], "rear": places[1]}, {"front": locks[0], "rear": locks[1]})


@dataclass(frozen=True)
class Event:
    """The first thing that the tyres say: (...) arrays.

    `place` [1] on the line and `decel` [g], inf when nothing happens; `front`, `rear`, `lift` [yes or no], which.
    """

    place: Floats
    decel: Floats
    front: Mask
    rear: Mask
    lift: Mask

    def healthy(self) -> "Event":
        """The event without any failure, which stands first along the failures."""
        return Event(self.place[..., :1], self.decel[..., :1], self.front[..., :1], self.rear[..., :1], self.lift[..., :1])


def first_event(road: Road) -> Event:
    """First lock, or rear lift before any lock, of a `road` [record]. Two locks within 1e-9 are both. Source: model."""
    z_f, z_r = road.locks["front"], road.locks["rear"]
    z_lock = np.minimum(z_f, z_r)
    z_lift = as_shape(per_line(rear_lift_decel(road.load)), z_lock.shape)
    lift_place = np.full(z_lock.shape, np.inf)
    if (z_lift < z_lock).any():
        place, ever = first_reach(road.decel, z_lift[..., None])
        lift_place = np.where(ever[..., 0], place.number[..., 0], np.inf)
    lift = np.isfinite(lift_place) & (z_lift < z_lock)
    near = np.abs(np.where(np.isfinite(z_f), z_f, 0.0) - np.where(np.isfinite(z_r), z_r, 0.0)) <= 1e-9
    both = np.isfinite(z_f) & np.isfinite(z_r) & near
    happens = np.isfinite(z_lock) & ~lift
    front = happens & ((z_f <= z_r) | both)
    rear = happens & ((z_r < z_f) | both)
    lock_place = np.minimum(road.places["front"], road.places["rear"])
    return Event(np.where(lift, lift_place, lock_place), np.where(lift, z_lift, z_lock), front, rear, np.asarray(lift))


@dataclass(frozen=True)
class Moment:
    """What a push does on the road, (..., S): all in SI but `decel`, `grip_decel` [g].

    `front` and `rear` [N] on the road; `decel` the brakes would give; `grip_decel` after locking; `use_front`, `use_rear`
    adhesion used [1], 0 where the axle carries nothing: `load_front`, `load_rear` [N]; `front_locked`, `rear_locked`, `rear_lifts` [yes or no].
    """

    front: Floats
    rear: Floats
    decel: Floats
    grip_decel: Floats
    use_front: Floats
    use_rear: Floats
    load_front: Floats
    load_rear: Floats
    front_locked: Mask
    rear_locked: Mask
    rear_lifts: Mask


def _slid(road: Road, event: Event, front: Floats, rear: Floats, braked: Floats, number: NDArray[Any]) -> Panic:
    """What the tyres leave of brake forces `front` and `rear` at places of a `number` on the line, `braked` front and rear (2, ...)."""
    past = number >= event.place[..., None] * (1.0 - 1e-12)
    return panic(
        road.load, front, rear, braked[0], braked[1], past,
        event.front[..., None], event.rear[..., None], past & event.lift[..., None],
    )  # fmt: skip


def grip_decel_at_knots(road: Road, event: Event) -> Floats:
    """Deceleration after locking [g] (..., K−1) at every knot of a `road` [record] but its first, with its first `event` [record].

    As `moment` has it there. Source: model.
    """
    front, rear = road.front[..., 1:], road.rear[..., 1:]
    return _slid(road, event, front, rear, road.braked_table, np.arange(1, road.decel.shape[-1])).decel


def moment(road: Road, event: Event, place: Place) -> Moment:
    """The `road` [record] at a `place` [record] (..., S), with its first `event` [record] (...). Source: model."""
    load, knot, fraction = road.load, place.knot, place.fraction
    front, rear, decel = figures = lookup(behind_rows(road.table, knot.ndim), knot, fraction)
    braked = at_step(behind_rows(road.braked_table, knot.ndim), knot)
    carried = axle_loads(load, decel)
    use_front, use_rear = adhesion_used(figures[:2], carried * braked)
    slid = _slid(road, event, front, rear, braked, place.number)
    load_front, load_rear = (as_shape(part, front.shape) for part in carried)
    return Moment(
        front, rear, decel, slid.decel, use_front, use_rear, load_front, load_rear, slid.front_locked, slid.rear_locked,
        slid.rear_lifts,
    )  # fmt: skip


def limit_of(road: Road) -> Floats:
    """Grip limit [g] (..., L) of a `road` [record] (..., L, 1, K) once everything brakes. Source: vehicle."""
    return grip_limit(road.load, *road.braked_table[..., -1:])[..., 0, 0]

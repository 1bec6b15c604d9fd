"""The force line: one push followed from the foot to the road.

Without a linkage every link is straight between its bends, so the whole chain is kept as its knots: the pushes at
which something bends (a spring, the booster's cut-in and run-out, a valve's knee, a brake's threshold). Between two
knots everything is on a straight line; questions are answered on the knots, not by search. Where the booster cuts
in the chain leaps: two knots with one push. A `place` on the line is a knot's number plus a fraction of the step.
"""

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from kobrix.core import booster as boosting
from kobrix.core import control as controls
from kobrix.core import cylinder as cylinders
from kobrix.core import disc as discs
from kobrix.core import drum as drums
from kobrix.core import valves
from kobrix.core.arrays import Floats, Mask, Number, at_step, last_axis, lookup, per_line, ratio
from kobrix.core.lines import Lines
from kobrix.core.vehicle import AXLES, Axle, Load, adhesion_used, axle_share, panic, rear_lift_decel

_END = 1000.0  # N past the last bend: where the last straight part is sampled; it goes on beyond


@dataclass(frozen=True)
class Station:
    """The wheel brakes of one kind on one axle.

    `name`; `axle`; `wheels` [1]; `rolling_radius` [m]; `brake` [record]; `devices` from the cylinder on; `lines`, None
    when they are not known: forces do not ask for them, travel does.
    """

    name: str
    axle: Axle
    wheels: int
    rolling_radius: Number
    brake: discs.Disc | drums.Drum
    devices: tuple[valves.Device, ...]
    lines: Lines | None


@dataclass(frozen=True)
class System:
    """One control, its booster and cylinder, and the stations it feeds."""

    name: str
    control: controls.Control
    booster: boosting.Booster | None
    cylinder: cylinders.Cylinder
    stations: tuple[Station, ...]

    def station(self, name: str) -> Station:
        """The station of that `name` [text]."""
        return next(s for s in self.stations if s.name == name)


@dataclass(frozen=True)
class Condition:
    """What is wrong, if anything; every part may be an array of failures along a leading axis.

    `booster_lost` [yes or no]; `alive` {circuit: 1 or 0}; `friction` {station: µ [1] or C* [1]} in place of the cold one;
    `shut` and `open` {station: yes or no}, all its valves; an absent name is healthy.
    """

    booster_lost: Mask | bool = False
    alive: dict[str, Number] | None = None
    friction: dict[str, Number] | None = None
    shut: dict[str, Mask | bool] | None = None
    open: dict[str, Mask | bool] | None = None


HEALTHY = Condition()


@dataclass(frozen=True)
class Branch:
    """One feed at the knots: `station`, `circuit`, `wheels` it feeds [1], and (..., K) arrays.

    `inlet` [Pa], `outlet` [Pa], `torque` [N·m] per wheel, `force` [N] at the tyre of all fed wheels.
    """

    station: Station
    circuit: str
    wheels: int
    inlet: Floats
    outlet: Floats
    torque: Floats
    force: Floats


@dataclass(frozen=True)
class ForceLine:
    """The chain of one system at its knots, arrays (..., K) with leading axes for setups and failures.

    `push` [N] at the pedal, `rod` [N], `out` [N] behind the booster, `pressure` {circuit: [Pa]}, `branches`.
    """

    system: System
    push: Floats
    rod: Floats
    out: Floats
    pressure: dict[str, Floats]
    branches: tuple[Branch, ...]

    @cached_property
    def steps(self) -> int:
        """Number of straight parts K − 1."""
        return int(self.push.shape[-1]) - 1

    def force(self, axle: Axle) -> Floats:
        """Brake force [N] at the tyres of `axle` [name] at the knots (..., K)."""
        parts = [b.force for b in self.branches if b.station.axle == axle]
        return np.asarray(sum(parts, start=np.zeros(self.push.shape)))

    def braked(self, axle: Axle, wheels: int) -> Floats:
        """Braked wheels over `wheels` [1] of `axle` [name] on each straight part (..., K−1)."""
        counts = [np.where(b.force[..., 1:] > 0.0, b.wheels, 0) for b in self.branches if b.station.axle == axle]
        total = sum(counts, start=np.zeros(self.push[..., 1:].shape))
        return np.minimum(total, wheels) / wheels if wheels else np.zeros(self.push[..., 1:].shape)


def _brake_torque(station: Station, outlet: Floats, friction: Number | None) -> Floats:
    brake = station.brake
    if isinstance(brake, drums.Drum):
        return drums.torque(outlet, replace(brake, shoe_factor=friction) if friction is not None else brake)
    clamp = discs.clamp_force(outlet, brake.side_area, brake.efficiency, brake.threshold)
    mu = brake.friction if friction is None else friction
    return np.asarray(discs.torque(clamp, mu, brake.effective_radius, brake.calipers))


def _bends(system: System) -> list[Number]:
    """Forces on the cylinder [N] at which a link bends."""
    cylinder, bends = system.cylinder, []
    for chamber in cylinder.chambers:
        pressures: list[Number] = [0.0]
        for feed in chamber.feeds:
            station = system.station(feed.station)
            pressures += valves.knees(station.devices)
            pressures += [valves.inlet(station.devices, station.brake.threshold), station.brake.threshold]
        bends += [
            cylinders.force_for_pressure(p, chamber.area, cylinder.efficiency, cylinder.spring) / chamber.force_share
            for p in pressures
        ]
    help_ = system.booster
    if help_ is not None:
        runout, _ = boosting.runout_force(help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        bends += [boosting.boosted(runout, help_.gain, help_.cut_in, help_.jump_in, help_.limit)]
        bends += [help_.cut_in + np.minimum(help_.jump_in, help_.limit)]
    return bends


def follow(system: System, condition: Condition = HEALTHY) -> ForceLine:
    """The force line [record] of a `system` [record] in a `condition` [record], every knot from foot to road.

    Arrays of setups or failures stand in the records as (..., 1); the knots are the last axis. Load sensing valves must
    be settled first. Source: each link's own function.
    """
    control, help_, cylinder = system.control, system.booster, system.cylinder
    bends = last_axis(0.0, *_bends(system))
    out = np.sort(np.maximum(0.0, bends), axis=-1)
    out = last_axis(out, 2.0 * out[..., -1:] + _END)
    if help_ is None:
        rod = out
    else:
        rod = boosting.rod_for_boosted(out, help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        rod = np.where(condition.booster_lost, out + help_.return_spring, rod)
    rod, out = last_axis(0.0, rod), last_axis(0.0, out)  # the rod begins to push at the return spring's force
    push = np.asarray(controls.pedal_force_for_rod(rod, control.ratio, control.efficiency, control.return_force))
    push, rod, out = last_axis(0.0, push), last_axis(0.0, rod), last_axis(0.0, out)
    push, rod, out = np.broadcast_arrays(push, rod, out)

    alive, friction = condition.alive or {}, condition.friction or {}
    shut, opened = condition.shut or {}, condition.open or {}
    pressures: dict[str, Floats] = {}
    branches: list[Branch] = []
    for chamber in cylinder.chambers:
        force = out * chamber.force_share
        p = cylinders.line_pressure(force, chamber.area, cylinder.efficiency, cylinder.spring)
        p = np.asarray(p * alive.get(chamber.name, 1.0))
        pressures[chamber.name] = p
        for feed in chamber.feeds:
            station = system.station(feed.station)
            after = np.where(opened.get(station.name, False), p, valves.outlet(station.devices, p))
            after = np.where(shut.get(station.name, False), 0.0, after)
            torque = _brake_torque(station, after, friction.get(station.name))
            at_tyre = torque * feed.wheels / station.rolling_radius
            branches.append(Branch(station, chamber.name, feed.wheels, p, after, torque, at_tyre))
    shape = np.broadcast_shapes(push.shape, *(p.shape for p in pressures.values()), *(b.force.shape for b in branches))
    push, rod, out = (np.broadcast_to(values, shape) for values in (push, rod, out))
    return ForceLine(system, push, rod, out, pressures, tuple(branches))


# ---- places on the line -------------------------------------------------------------------------


@dataclass(frozen=True)
class Place:
    """Where on a force line: the `knot` before it and the `fraction` of the step, (..., S); fraction above 1 at the end."""

    knot: NDArray[np.int64]
    fraction: Floats

    @property
    def number(self) -> Floats:
        """Knot number plus fraction, rising along the line [1]."""
        return self.knot + self.fraction


def place_at(line: ForceLine, push: Number) -> Place:
    """The place [record] on `line` [record] at a pedal force `push` [N] (..., S); at a leap, its foot. Source: model."""
    wanted = np.atleast_1d(np.asarray(push, dtype=np.float64))
    knot = np.sum(line.push[..., None, :] < wanted[..., :, None], axis=-1) - 1
    knot = np.clip(knot, 0, line.steps - 1)
    low, high = at_step(line.push[..., :-1], knot), at_step(line.push[..., 1:], knot)
    return Place(knot, ratio(wanted - low, high - low))


def first_reach(rising: Floats, wanted: Number) -> tuple[Place, Mask]:
    """First place at which a curve `rising` [any] (..., K) along the knots reaches `wanted` [same] (..., S).

    The last straight part goes on. Also whether it is ever reached; a place that is not is the line's start.
    Source: straight lines between knots.
    """
    want = np.atleast_1d(np.asarray(wanted, dtype=np.float64))
    low, high = rising[..., :-1], rising[..., 1:]
    reached = high[..., None, :] >= want[..., :, None]
    grows = rising[..., -1:] > rising[..., -2:-1]
    hit = np.any(reached, axis=-1)
    knot = np.where(hit, np.argmax(reached, axis=-1), np.where(grows, rising.shape[-1] - 2, 0))
    a, b = at_step(low, knot), at_step(high, knot)
    fraction = np.maximum(0.0, ratio(want - a, b - a))
    ok = hit | grows
    return Place(knot, np.where(ok, fraction, 0.0)), np.asarray(ok)


# ---- what happens on the road ------------------------------------------------------------------


@dataclass(frozen=True)
class Road:
    """A force line on the road in the load states of `load`: arrays (..., K) or (..., K−1), leading axes load and failure.

    `front` and `rear` [N] on the road at the knots; `decel` [g] there; `front_braked` and `rear_braked` [1] on each step;
    `places` {axle: place number [1] of its own lock, inf when never}; `locks` {axle: decel [g]} the same.
    """

    line: ForceLine
    load: Load
    front: Floats
    rear: Floats
    decel: Floats
    front_braked: Floats
    rear_braked: Floats
    places: dict[Axle, Floats]
    locks: dict[Axle, Floats]

    def braked(self, axle: Axle) -> Floats:
        """Braked over all wheels of `axle` [name] on each step (..., K−1) [1]."""
        return self.front_braked if axle == "front" else self.rear_braked

    def force(self, axle: Axle) -> Floats:
        """Force [N] of `axle` [name] on the road at the knots (..., K)."""
        return self.front if axle == "front" else self.rear


def _first_lock(force: Floats, decel: Floats, load: Load, axle: Axle, braked: Floats) -> tuple[Floats, Floats]:
    """Place number and deceleration at which `axle` first needs all its grip, inf where it never does."""
    peak = load.grip(axle) * braked * load.weight
    low = force[..., :-1] - peak * axle_share(load, axle, decel[..., :-1])
    high = force[..., 1:] - peak * axle_share(load, axle, decel[..., 1:])
    reached = (high >= 0.0) & (braked > 0.0)
    rises = (high[..., -1] > low[..., -1]) & (braked[..., -1] > 0.0)
    hit = np.any(reached, axis=-1)
    knot = np.where(hit, np.argmax(reached, axis=-1), force.shape[-1] - 2)[..., None]
    a, b = at_step(low, knot), at_step(high, knot)
    fraction = np.maximum(0.0, ratio(-a, b - a))
    place = (knot + fraction)[..., 0]
    z = lookup(decel, knot, fraction)[..., 0]
    ever = hit | rises
    return np.where(ever, place, np.inf), np.where(ever, z, np.inf)


def on_road(line: ForceLine, load: Load, wheels: dict[Axle, int]) -> Road:
    """The `line` [record] on the road under `load` [record], `wheels` {axle: wheels of it} [1].

    An axle's force on the road is B/(1 + ρ); z = ΣB/(m·g·(1 + ρ)). Locks are each axle's own, nothing sliding.
    Any shape; load states stand in `load` as (L, 1, 1) before the failures. Source: moments, UN R13-H.
    """
    spin = 1.0 + load.rotating
    front, rear = line.force("front") / spin, line.force("rear") / spin
    decel = np.asarray((front + rear) / load.weight)
    front, rear, _ = np.broadcast_arrays(front, rear, decel)
    part = {axle: np.broadcast_to(line.braked(axle, wheels[axle]), decel[..., 1:].shape) for axle in AXLES}
    found = {axle: _first_lock(force, decel, load, axle, part[axle]) for axle, force in zip(AXLES, (front, rear), strict=True)}
    places = {axle: item[0] for axle, item in found.items()}
    locks = {axle: item[1] for axle, item in found.items()}
    return Road(line, load, front, rear, decel, part["front"], part["rear"], places, locks)


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


def first_event(road: Road) -> Event:
    """First lock, or rear lift before any lock, of a `road` [record]. Two locks within 1e-9 are both. Source: model."""
    z_f, z_r = road.locks["front"], road.locks["rear"]
    z_lock = np.minimum(z_f, z_r)
    z_lift = np.broadcast_to(per_line(rear_lift_decel(road.load)), z_lock.shape)
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

    `front` and `rear` [N] at the tyre; `decel` the brakes would give; `grip_decel` after locking; `use_front`, `use_rear`
    adhesion used [1]; `front_locked`, `rear_locked`, `rear_lifts` [yes or no].
    """

    front: Floats
    rear: Floats
    decel: Floats
    grip_decel: Floats
    use_front: Floats
    use_rear: Floats
    front_locked: Mask
    rear_locked: Mask
    rear_lifts: Mask


def moment(road: Road, event: Event, place: Place) -> Moment:
    """The `road` [record] at a `place` [record] (..., S), with its first `event` [record] (...). Source: model."""
    load, knot, fraction = road.load, place.knot, place.fraction
    front, rear = lookup(road.front, knot, fraction), lookup(road.rear, knot, fraction)
    decel = lookup(road.decel, knot, fraction)
    n_f, n_r = at_step(road.front_braked, knot), at_step(road.rear_braked, knot)
    past = place.number >= event.place[..., None] * (1.0 - 1e-12)
    slid = panic(
        load, front, rear, n_f, n_r, past,
        event.front[..., None], event.rear[..., None], past & event.lift[..., None],
    )  # fmt: skip
    return Moment(
        front, rear, decel, slid.decel,
        adhesion_used(front, load, "front", decel, n_f), adhesion_used(rear, load, "rear", decel, n_r),
        slid.front_locked, slid.rear_locked, slid.rear_lifts,
    )  # fmt: skip

"""The force line: one push followed from the foot to the road.

From the rod on, every link is straight between its bends, so the whole chain is kept as its knots: the rod forces at
which something bends (a spring, the booster's cut-in and run-out, a valve's knee, a brake's threshold). Between two
knots everything is on a straight line; questions are answered on the knots, not by search. Where the booster cuts
in the chain leaps: two knots with one rod force. A `place` on the line is a knot's number plus a fraction of the step.
What the foot does for a rod force is the pedal's business (pedal.py).
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from kobrix.core.numerics.arrays import Floats, Mask, Number, around, healthy, last_axis, lookup, ratio, rises, stacked
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics import disc as discs
from kobrix.core.physics import drum as drums
from kobrix.core.physics import valves
from kobrix.core.physics.lines import Lines
from kobrix.core.physics.vehicle import Axle

Side = Literal["left", "right"]
_NOTHING = 1e-6  # Pa: what rounding leaves at the knot where a pressure begins is no pressure
_AXES = 3  # load states, failures and knots, at least
_END = 1000.0  # N past the last bend: where the last straight part is sampled; it goes on beyond


@dataclass(frozen=True)
class Station:
    """The wheel brakes of one kind on one axle.

    `name`; `axle`; `wheels` [1]; `rolling_radius` [m]; `brake` [record]; `devices` from the cylinder on; `lines`, None
    when they are not known: forces do not ask for them, travel does. `owner`: the system whose brakes these are, when a
    second control presses them too. `side` of its wheel, None where there are two or it is not told.
    """

    name: str
    axle: Axle
    wheels: int
    rolling_radius: Number
    brake: discs.Disc | drums.Drum
    devices: tuple[valves.Device, ...]
    lines: Lines | None
    owner: str | None = None
    side: Side | None = None


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


def whole_stroke(system: System) -> Number | None:
    """Stroke [m] of the rod that spends the cylinder of a `system` [record], None when it is not known.

    Of a twin what its bearing moves. Any shape. Source: definition.
    """
    strokes = [c.stroke for c in system.cylinder.chambers]
    if any(s is None for s in strokes):
        return None
    return sum(c.stroke * c.travel_share for c in system.cylinder.chambers if c.stroke is not None)


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
    """One feed: the `station` [record], the `circuit` [name] that feeds it and how many of its `wheels` [1]."""

    station: Station
    circuit: str
    wheels: int


@dataclass(frozen=True)
class ForceLine:
    """The chain of one system at its knots, arrays (..., K) with leading axes for setups, load states and failures.

    `rod` [N], `out` [N] behind the booster; `branches` and, side by side in the same order (B, ..., K), their `inlet` [Pa],
    `outlet` [Pa], `torque` [N·m] per wheel and `force` [N] at the tyre of all fed wheels. `lost` {circuit: yes or no
    (..., 1)}, of the circuits that may have failed.
    """

    system: System
    rod: Floats
    out: Floats
    branches: tuple[Branch, ...]
    inlet: Floats
    outlet: Floats
    torque: Floats
    force: Floats
    lost: dict[str, Mask]

    @property
    def steps(self) -> int:
        """Number of straight parts K − 1."""
        return int(self.rod.shape[-1]) - 1

    def healthy(self) -> "ForceLine":
        """The line without any failure, which stands first along the failures."""
        return ForceLine(
            self.system, healthy(self.rod), healthy(self.out), self.branches,
            healthy(self.inlet), healthy(self.outlet), healthy(self.torque), healthy(self.force), {},
        )  # fmt: skip

    def index(self, axle: Axle) -> list[int]:
        """Places of the branches of `axle` [name]."""
        return [i for i, b in enumerate(self.branches) if b.station.axle == axle]

    def axle_force(self, axle: Axle) -> Floats:
        """Brake force [N] at the tyres of `axle` [name] at the knots (..., K)."""
        own = self.index(axle)
        return self.force[own[0]] if len(own) == 1 else np.asarray(self.force[own].sum(axis=0))

    def braking(self, axle: Axle) -> Floats:
        """How many wheels [1] of `axle` [name] brake on each straight part (..., K−1)."""
        own = self.index(axle)
        if len(own) == 1:
            return np.asarray(float(self.branches[own[0]].wheels) * (self.force[own[0], ..., 1:] > 0.0))
        wheels = np.array([self.branches[i].wheels for i in own], dtype=np.float64)
        pressed = self.force[own, ..., 1:] > 0.0
        return np.asarray((wheels.reshape((-1,) + (1,) * (pressed.ndim - 1)) * pressed).sum(axis=0))


def torque_per_pressure(brake: discs.Disc | drums.Drum, friction: Number | None = None) -> Number:
    """Torque of one wheel over the pressure above the threshold [N·m/Pa] of `brake` [record].

    `friction` [1] in place of its own µ, or C* of a drum. Any shape. Source: disc and drum.
    """
    if isinstance(brake, drums.Drum):
        return brake.efficiency * brake.cylinder_area * (brake.shoe_factor if friction is None else friction) * brake.radius
    clamp = brake.efficiency * brake.side_area
    return discs.torque(clamp, brake.friction if friction is None else friction, brake.effective_radius, brake.calipers)


def _bends(system: System) -> list[Number]:
    """Forces on the cylinder [N] at which a link bends."""
    cylinder, bends = system.cylinder, []
    for chamber in cylinder.chambers:
        pressures: list[Number] = [0.0]
        for feed in chamber.feeds:
            station = system.station(feed.station)
            threshold = station.brake.threshold
            for devices in valves.ways(station.devices):
                pressures += valves.knees(devices)
                if np.asarray(threshold > 0.0).any():
                    pressures += [threshold, valves.inlet(devices, threshold)]
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
    """The force line [record] of a `system` [record] in a `condition` [record], every knot from rod to tyre.

    Arrays of setups or failures stand in the records as (..., 1); the knots are the last axis. Load and deceleration
    sensing valves must be settled first. Source: each link's own function.
    """
    help_, cylinder = system.booster, system.cylinder
    found = _bends(system)
    alike = sorted({0.0, *(float(b) for b in found if np.ndim(b) == 0)})  # the same for every setup: once is enough
    bends = last_axis(alike, *(b for b in found if np.ndim(b) > 0))
    if bends.ndim > 1:
        bends = np.sort(bends, axis=-1)
    out = last_axis(np.maximum(0.0, bends), 2.0 * np.maximum(0.0, bends[..., -1:]) + _END)
    if help_ is None:
        rod = out
    else:
        rod = boosting.rod_for_boosted(out, help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        rod = np.where(condition.booster_lost, out + help_.return_spring, rod)
        rod, out = last_axis(0.0, rod), last_axis(0.0, out)  # a lost booster's spring is overcome first
    rod, out = last_axis(0.0, rod), last_axis(0.0, out)  # the pedal's return spring is overcome first

    alive, friction = condition.alive or {}, condition.friction or {}
    shut, opened = condition.shut or {}, condition.open or {}
    branches: list[Branch] = []
    inlets: list[Floats] = []
    outlets: list[Floats] = []
    for chamber in cylinder.chambers:
        p = cylinders.line_pressure(out * chamber.force_share, chamber.area, cylinder.efficiency, cylinder.spring)
        if chamber.name in alive:
            p = p * alive[chamber.name]
        for feed in chamber.feeds:
            station = system.station(feed.station)
            after = np.asarray(valves.outlet(station.devices, p))
            for passing in valves.ways(station.devices)[1:] if "front" in alive else []:
                passed = valves.outlet(passing, p)
                after = np.where(np.asarray(alive["front"]) == 0.0, passed, after)
            if station.name in opened:
                after = np.where(opened[station.name], p, after)
            if station.name in shut:
                after = np.where(shut[station.name], 0.0, after)
            branches.append(Branch(station, chamber.name, feed.wheels))
            inlets.append(p)
            outlets.append(after)
    slopes = [torque_per_pressure(b.station.brake, friction.get(b.station.name)) for b in branches]
    axes = max(
        _AXES, rod.ndim, *(getattr(a, "ndim", 0) for a in (*outlets, *slopes, *(b.station.rolling_radius for b in branches)))
    )
    both = stacked([*inlets, *outlets], axes)
    both = np.where(both > _NOTHING, both, 0.0)
    inlet, outlet = both[: len(branches)], both[len(branches) :]
    above = outlet - stacked([b.station.brake.threshold for b in branches], axes)
    above = np.where(above > _NOTHING, above, 0.0)
    torque = stacked(slopes, axes) * above
    force = torque * stacked([b.wheels / b.station.rolling_radius for b in branches], axes)
    lost = {name: np.asarray(value) == 0.0 for name, value in alive.items()}
    return ForceLine(system, rod, out, tuple(branches), inlet, outlet, torque, force, lost)


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


def first_reach(rising: Floats, wanted: Number) -> tuple[Place, Mask]:
    """First place at which a curve `rising` [any] (..., K) along the knots reaches `wanted` [same] (..., S).

    The last straight part goes on. Also whether it is ever reached; a place that is not is the line's start.
    Source: straight lines between knots.
    """
    want = np.atleast_1d(np.asarray(wanted, dtype=np.float64))
    reached = rising[..., None, 1:] >= want[..., :, None]
    grows = rises(rising[..., -2:-1], rising[..., -1:])
    hit = reached.any(axis=-1)
    knot = np.where(hit, reached.argmax(axis=-1), np.where(grows, rising.shape[-1] - 2, 0))
    a, b = around(rising, knot)
    fraction = np.maximum(0.0, ratio(want - a, b - a))
    ok = hit | grows
    return Place(knot, np.where(ok, fraction, 0.0)), np.asarray(ok)


def foot_of(rising: Floats, wanted: Number) -> Place:
    """The place at which a push `rising` [N] (..., K) along the knots is `wanted` [N] (..., S); at a leap, its foot.

    The last straight part goes on. Source: straight lines between knots.
    """
    want = np.atleast_1d(np.asarray(wanted, dtype=np.float64))
    before = (rising[..., None, :] < want[..., :, None]).sum(axis=-1) - 1
    knot = np.minimum(np.maximum(before, 0), rising.shape[-1] - 2)
    low, high = around(rising, knot)
    return Place(knot, ratio(want - low, high - low))


def place_of(number: Number, steps: int) -> Place:
    """The place [record] of a place `number` [1] on a line of `steps` [1] straight parts. Any shape. Source: definition."""
    array = np.asarray(number, dtype=np.float64)
    knot = np.minimum(np.maximum(np.ceil(array).astype(np.int64) - 1, 0), steps - 1)
    return Place(knot, array - knot)


def along_failures(values: list[Number]) -> Floats:
    """One of `values` [any] for each failure, along their axis (..., C, 1); trials (N, 1, 1, 1) stay in front. Source: shape."""
    arrays = [np.asarray(v, dtype=np.float64) for v in values]
    if all(a.ndim == 0 for a in arrays):
        return np.array(arrays)[:, None]
    shape = np.broadcast_shapes(*(a.shape for a in arrays))
    return np.concatenate([np.broadcast_to(a, shape) for a in arrays], axis=-2)


def figure_at(table: Floats, place: Place, load: int) -> float:
    """One figure of a line's healthy `table` [any] (L or 1, 1, K) or (K,) at one `place` [record] in a `load` state [1].

    Source: straight lines between knots.
    """
    return one_of(lookup(np.asarray(table), place.knot, place.fraction), load)


def one_of(values: Number, load: int) -> float:
    """The figure of a `load` state [1] among `values` [any] (L or 1, ...), or the one there is. Source: definition."""
    array = np.asarray(values, dtype=np.float64)
    if array.ndim > 1 and array.shape[0] > 1:
        array = array[load]
    return float(array.reshape(-1)[0])

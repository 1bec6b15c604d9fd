"""The stroke by cause: every drop that a line or brake swallows is a stroke of the cylinder.

On each straight part of the force line a cause takes `start` at its lower knot and `end` at its upper one, straight
between; only trapped air, and a bar that meets its stop, bend. A station takes nothing at pressure 0, and all its clearance at any pressure above.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kobrix.core.constants import ATMOSPHERE
from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask, Number, as_shape, at_both, at_step, behind_rows, healthy, rises, stacked
from kobrix.core.physics import disc, lines
from kobrix.core.physics.chain import ForceLine, Place, Station
from kobrix.core.physics.disc import Disc

_ROUNDS, _CLOSE = 60, 1e-13  # Newton on a concave curve from below; ends when the step is this small


@dataclass(frozen=True)
class Air:
    """Air in one branch: `factor` [m³ or m] of what it takes when fully pressed, pressures `start`, `end` [Pa] (..., K−1)."""

    factor: Floats
    start: Floats
    end: Floats


@dataclass(frozen=True)
class Capped:
    """Something that follows another `curve` [record] no further than a `cap` [same unit] (..., K−1), times `factor` [1]."""

    curve: "Curve"
    cap: Floats
    factor: Number


@dataclass(frozen=True)
class Curve:
    """Something swallowed along the line: `start` and `end` of each straight part (..., K−1) [any], its `air` and `capped`."""

    start: Floats
    end: Floats
    air: tuple[Air, ...] = ()
    capped: tuple[Capped, ...] = ()

    @property
    def bends(self) -> bool:
        """Whether it is not straight between the knots."""
        return bool(self.air or self.capped)

    def at(self, place: Place) -> Floats:
        """Value [its own unit] at a `place` [record] (..., S)."""
        low, high = at_both(self.start, self.end, place.knot)
        value = low + place.fraction * (high - low)
        for air in self.air:
            p = at_step(air.start, place.knot) + place.fraction * at_step(air.end - air.start, place.knot)
            value = value + lines.air_volume(at_step(air.factor, place.knot), p)
        for part in self.capped:
            value = value + np.minimum(part.curve.at(place), at_step(part.cap, place.knot)) * part.factor
        return np.asarray(value)

    def slope(self, place: Place) -> Floats:
        """Rise [its own unit] per knot step at a `place` [record] (..., S)."""
        rise = at_step(self.end - self.start, place.knot)
        for air in self.air:
            step = at_step(air.end - air.start, place.knot)
            p = at_step(air.start, place.knot) + place.fraction * step
            rise = rise + at_step(air.factor, place.knot) * step * ATMOSPHERE / (p + ATMOSPHERE) ** 2
        for part in self.capped:
            free = part.curve.at(place) < at_step(part.cap, place.knot)
            rise = rise + np.where(free, part.curve.slope(place), 0.0) * part.factor
        return np.asarray(rise)

    def scaled(self, factor: Number) -> "Curve":
        """The curve times a `factor` [any] that holds for the whole line (..., 1)."""
        air = tuple(Air(a.factor * factor, a.start, a.end) for a in self.air)
        capped = tuple(Capped(c.curve, c.cap, c.factor * factor) for c in self.capped)
        return Curve(np.asarray(self.start * factor), np.asarray(self.end * factor), air, capped)

    def healthy(self) -> "Curve":
        """The curve without any failure, which stands first along the failures."""
        air = tuple(Air(healthy(a.factor), healthy(a.start), healthy(a.end)) for a in self.air)
        capped = tuple(Capped(c.curve.healthy(), healthy(c.cap), c.factor) for c in self.capped)
        return Curve(healthy(self.start), healthy(self.end), air, capped)

    def plus(self, start: Number, end: Number) -> "Curve":
        """The curve with `start` and `end` [its own unit] (..., K−1) added."""
        return Curve(np.asarray(self.start + start), np.asarray(self.end + end), self.air, self.capped)


def reach(curve: Curve, wanted: Number) -> tuple[Place, Mask]:
    """First place at which `curve` [any] reaches `wanted` [same] (..., 1), and whether it ever does.

    A leap (contact) that passes it counts as reaching it at the leap. Source: straight parts; what bends by Newton's rule,
    which comes from below on a concave curve and cannot overshoot.
    """
    want = np.asarray(wanted, dtype=np.float64)
    ends, starts = curve.end, curve.start
    if curve.bends:
        steps = np.arange(ends.shape[-1])
        ends = curve.at(Place(steps, np.ones(steps.shape)))
        starts = curve.at(Place(steps, np.zeros(steps.shape)))
    reached = ends >= want
    grows = rises(starts[..., -1:], ends[..., -1:])
    hit = reached.any(axis=-1, keepdims=True)
    knot = np.where(hit, reached.argmax(axis=-1)[..., None], ends.shape[-1] - 1)
    low, high = at_both(starts, ends, knot)
    rise = high - low
    fraction = np.where(rise > 0.0, np.maximum(0.0, want - low) / np.where(rise > 0.0, rise, 1.0), 0.0)
    if curve.bends:
        fraction = _newton(curve, want, knot)
    return Place(knot, fraction), np.asarray(hit | grows)


def reach_each(curves: list[Curve], wanted: list[Number]) -> list[tuple[Place, Mask]]:
    """What `reach` says of each of `curves` [any] for each of `wanted` [same] (..., 1); straight ones in one go.

    Source: as `reach`.
    """
    if any(c.bends for c in curves):
        return [reach(c, w) for c, w in zip(curves, wanted, strict=True)]
    axes = curves[0].end.ndim
    start, end = stacked([c.start for c in curves], axes), stacked([c.end for c in curves], axes)
    place, ok = reach(Curve(start, end), stacked(wanted, axes))
    return [(Place(place.knot[n], place.fraction[n]), np.asarray(ok[n])) for n in range(len(curves))]


def _newton(curve: Curve, want: Floats, knot: NDArray[np.int64]) -> Floats:
    """Fraction of the step `knot` at which a concave `curve` reaches `want`."""
    fraction = np.zeros(knot.shape)
    for _ in range(_ROUNDS):
        place = Place(knot, fraction)
        slope = curve.slope(place)
        value = curve.at(place)
        missing, climbs = np.maximum(0.0, want - value), rises(value, value + slope)
        step = np.where(climbs, missing / np.where(climbs, slope, 1.0), 0.0)
        fraction = fraction + step
        if np.all(step <= _CLOSE * np.maximum(1.0, fraction)):
            break
    return fraction


@dataclass(frozen=True)
class Travel:
    """What the cylinder's stroke goes to along a force line.

    `keys` (where, cause) and, side by side in the same order (Q, ..., K−1), the stroke [m] at the `start` and `end` of each
    straight part, as the rod feels it; `bent` {key: Curve [m]}, what trapped air and a bar at its stop take besides;
    `piston` Curve [m], the sum; `chambers` {circuit: Curve of the stroke its fluid takes [m]}; `usable` {circuit: [m], None
    when its stroke is not known}; `volumes` {station: [m³] per [m] of its own strokes}; `pressing` [yes or no] (..., K−1).
    """

    keys: tuple[tuple[str, str], ...]
    start: Floats
    end: Floats
    bent: dict[tuple[str, str], Curve]
    piston: Curve
    chambers: dict[str, Curve]
    usable: dict[str, Number | None]
    volumes: dict[str, Number]
    pressing: Mask

    def healthy(self) -> "Travel":
        """The strokes without any failure, which stands first along the failures."""
        bent = {key: curve.healthy() for key, curve in self.bent.items()}
        chambers = {name: curve.healthy() for name, curve in self.chambers.items()}
        pressing = self.pressing[..., :1, :]
        return Travel(
            self.keys, healthy(self.start), healthy(self.end), bent, self.piston.healthy(), chambers, self.usable, self.volumes,
            pressing,
        )  # fmt: skip

    def strokes(self, place: Place) -> dict[tuple[str, str], Floats]:
        """Stroke [m] by (where, cause) at a `place` [record] (..., S)."""
        axes = place.knot.ndim
        low, high = at_both(behind_rows(self.start, axes), behind_rows(self.end, axes), place.knot)
        values = low + place.fraction * (high - low)
        found: dict[tuple[str, str], Floats] = {}
        for key, value in zip(self.keys, values, strict=True):
            found[key] = found[key] + value if key in found else value
        for key, curve in self.bent.items():
            value = curve.at(place)
            found[key] = found[key] + value if key in found else value
        return found

    def bottomed(self, place: Place) -> Mask:
        """Whether a chamber needs more stroke than it has at a `place` [record] (..., S)."""
        over: Mask = np.zeros(place.knot.shape, dtype=bool)
        for name, usable in self.usable.items():
            if usable is not None:
                over = over | (self.chambers[name].at(place) > usable)
        return over


def swallowed(station: Station) -> dict[str, tuple[Number, Number]]:
    """What the brakes and lines of a whole `station` [record] take: {cause: (at contact [m³], per pressure [m³/Pa])}.

    Raises Impossible where the lines are not known. Any shape. Source: each subject's own function.
    """
    brake, wheels = station.brake, station.wheels
    if station.lines is None:
        raise Impossible(f"travel of {station.name}", "its lines are not known")
    taken: dict[str, tuple[Number, Number]] = {}
    if isinstance(brake, Disc):
        n = wheels * brake.calipers
        taken["clearance"] = (n * disc.clearance_volume(brake.side_area, brake.clearance), 0.0)
        taken["knock_back"] = (n * disc.clearance_volume(brake.side_area, brake.knock_back), 0.0)
        taken["caliper"] = (0.0, n * brake.caliper_give)
        taken["pads"] = (0.0, n * brake.pad_give)
    else:
        taken["shoes"] = (wheels * 2.0 * brake.cylinder_area * brake.clearance, 0.0)
        taken["drum"] = (0.0, wheels * brake.give)
    taken["hose"] = (0.0, station.lines.hose_give)
    taken["hard_line"] = (0.0, station.lines.pipe_give)
    taken["fluid"] = (0.0, station.lines.fluid_volume / station.lines.bulk)
    return taken


def along(line: ForceLine, air: dict[str, Number] | None = None, whole: bool = False) -> Travel:
    """Where the stroke goes [record] along a `line` [record]; `air` {station: volume [m³]} in place of the lines' own.

    `whole` [yes or no]: a station's causes as one sum, "all", which is all that a sweep asks for. A lost circuit's chamber runs its whole stroke, on a bar no further than the other's travel and the bar's stop; where
    that stroke is not known the circuit's loss raises Impossible. When nothing presses, nothing travels. Any shape.
    Source: continuity of the fluid.
    """
    cylinder, axes = line.system.cylinder, line.outlet.ndim - 1
    order = {c.name: n for n, c in enumerate(cylinder.chambers)}
    first = [next(i for i, b in enumerate(line.branches) if b.circuit == c.name) for c in cylinder.chambers]
    live = line.inlet[first, ..., 1:] > 0.0  # (chambers, ..., K−1)
    pressing = np.asarray(live.any(axis=0))
    areas = [c.area for c in cylinder.chambers]

    keys: list[tuple[str, str]] = []
    owner: list[int] = []
    at_once: list[Number] = []
    per_pressure: list[Number] = []
    stroke_of: list[Number] = []  # stroke the rod feels per volume, of each branch
    for i, branch in enumerate(line.branches):
        n = order[branch.circuit]
        part = branch.wheels / branch.station.wheels
        causes = swallowed(branch.station)
        if whole:
            causes = {"all": (sum(c for c, _ in causes.values()), sum(g for _, g in causes.values()))}
        keys += [(branch.station.name, cause) for cause in causes]
        owner += [i] * len(causes)
        at_once += [contact * part for contact, _ in causes.values()]
        per_pressure += [give * part for _, give in causes.values()]
        stroke_of.append(cylinder.chambers[n].travel_share / areas[n])
    factor = stacked(stroke_of, axes)[owner]
    contact_, give_ = stacked(at_once, axes) * factor, stacked(per_pressure, axes) * factor
    outlet = line.outlet[owner]
    pressed, stroke = outlet[..., 1:] > 0.0, contact_ + give_ * outlet
    start, end = (np.where(pressed, half, 0.0) for half in (stroke[..., :-1], stroke[..., 1:]))

    bent: dict[tuple[str, str], Curve] = {}
    airs: list[tuple[int, Air]] = []
    none = np.zeros(pressing.shape)
    for i, branch in enumerate(line.branches):
        own = branch.station.lines.air if branch.station.lines is not None else 0.0
        held = np.asarray((air or {}).get(branch.station.name, own), dtype=np.float64)
        if not (held > 0.0).any():
            continue
        chamber = cylinder.chambers[order[branch.circuit]]
        scale = held * (branch.wheels / branch.station.wheels) * chamber.travel_share / areas[order[branch.circuit]]
        bubble = Air(np.broadcast_to(scale, line.outlet[i, ..., 1:].shape), line.outlet[i, ..., :-1], line.outlet[i, ..., 1:])
        airs.append((order[branch.circuit], bubble))
        key = (branch.station.name, "air")
        bent[key] = Curve(none, none, (*(bent[key].air if key in bent else ()), bubble))

    chambers: dict[str, Curve] = {}
    usable: dict[str, Number | None] = {}
    level: list[Floats] = []  # strokes that stay the same along a straight part
    capped: list[Capped] = []
    for n, chamber in enumerate(cylinder.chambers):
        fed = [q for q, i in enumerate(owner) if order[line.branches[i].circuit] == n]
        rows = slice(fed[0], fed[-1] + 1)  # a line's branches stand by chamber
        own_air = tuple(a for m, a in airs if m == n)
        taken = Curve(start[rows].sum(axis=0), end[rows].sum(axis=0), own_air).scaled(1.0 / chamber.travel_share)
        chambers[chamber.name] = taken
        usable[chamber.name] = None if chamber.stroke is None else chamber.stroke - chamber.lost
        port = np.where(live[n], chamber.lost * chamber.travel_share, 0.0)
        keys.append(("cylinder", "port_closing"))
        level.append(port)
    for chamber in cylinder.chambers:
        dead = pressing & line.lost.get(chamber.name, False)  # a twin's piston that has no pressure yet does not move
        if not dead.any():
            continue
        if chamber.stroke is None:
            raise Impossible(f"travel with the {chamber.name} circuit lost", "the cylinder's stroke is not known")
        run = np.where(dead, chamber.stroke, 0.0)
        if cylinder.stop is None:
            keys.append(("cylinder", "lost_chamber"))
            level.append(run * chamber.travel_share)
            continue
        other = next(c for c in cylinder.chambers if c.name != chamber.name)
        ahead = chambers[other.name].plus(other.lost + cylinder.stop, other.lost + cylinder.stop)
        capped.append(Capped(ahead, run, chamber.travel_share))
        known = bent.get(("cylinder", "lost_chamber"), Curve(none, none))
        bent["cylinder", "lost_chamber"] = Curve(none, none, (), (*known.capped, capped[-1]))
    flat = stacked(level, axes)
    shape = np.broadcast_shapes(start.shape[1:], flat.shape[1:])
    flat = as_shape(flat, (flat.shape[0], *shape))
    starts, ends = (np.concatenate([as_shape(own, (own.shape[0], *shape)), flat]) for own in (start, end))
    piston = Curve(starts.sum(axis=0), ends.sum(axis=0), tuple(a for _, a in airs), tuple(capped))
    volumes = {b.station.name: 1.0 / s for b, s in zip(line.branches, stroke_of, strict=True)}
    return Travel(tuple(keys), starts, ends, bent, piston, chambers, usable, volumes, pressing)


def trapped_air(missing: Number, pressure: Number, area: Number, ratio: Number) -> Floats:
    """Air [m³, at rest] that explains a `missing` [m] of pad travel at the station's `pressure` [Pa].

    `area` [m²] of the bore, `ratio` [1]; 0 where nothing is missing. Any shape. Source: Boyle's law.
    """
    volume = np.maximum(0.0, np.asarray(missing)) * area / ratio
    p = np.asarray(pressure, dtype=np.float64)
    return np.asarray(volume * (p + ATMOSPHERE) / p)

"""Pedal travel by cause: every drop that a line or brake swallows is a stroke, every stroke a travel at the pad.

On each straight part of the force line a cause takes `start` at its lower knot and `end` at its upper one, straight
between; only trapped air bends. A station takes nothing at pressure 0, and all its clearance at any pressure above.
"""

from dataclasses import dataclass

import numpy as np

from kobrix.core import control as controls
from kobrix.core import disc, lines
from kobrix.core.arrays import Floats, Mask, Number, at_step
from kobrix.core.chain import Branch, ForceLine, Place, Station
from kobrix.core.constants import ATMOSPHERE
from kobrix.core.disc import Disc
from kobrix.core.errors import Impossible

_ROUNDS, _CLOSE = 60, 1e-13  # Newton on a concave curve from below; ends when the step is this small


@dataclass(frozen=True)
class Air:
    """Air in one branch: `factor` [m³ or m] of what it takes when fully pressed, pressures `start`, `end` [Pa] (..., K−1)."""

    factor: Floats
    start: Floats
    end: Floats


@dataclass(frozen=True)
class Curve:
    """Something swallowed along the line: `start` and `end` of each straight part (..., K−1) [any], and its `air`."""

    start: Floats
    end: Floats
    air: tuple[Air, ...] = ()

    def at(self, place: Place) -> Floats:
        """Value [its own unit] at a `place` [record] (..., S)."""
        low, high = at_step(self.start, place.knot), at_step(self.end, place.knot)
        value = low + place.fraction * (high - low)
        for air in self.air:
            p = at_step(air.start, place.knot) + place.fraction * at_step(air.end - air.start, place.knot)
            value = value + lines.air_volume(at_step(air.factor, place.knot), p)
        return np.asarray(value)

    def slope(self, place: Place) -> Floats:
        """Rise [its own unit] per knot step at a `place` [record] (..., S)."""
        rise = at_step(self.end - self.start, place.knot)
        for air in self.air:
            step = at_step(air.end - air.start, place.knot)
            p = at_step(air.start, place.knot) + place.fraction * step
            rise = rise + at_step(air.factor, place.knot) * step * ATMOSPHERE / (p + ATMOSPHERE) ** 2
        return np.asarray(rise)

    def scaled(self, factor: Number) -> "Curve":
        """The curve times a `factor` [any] that holds for the whole line (..., 1)."""
        air = tuple(Air(a.factor * factor, a.start, a.end) for a in self.air)
        return Curve(np.asarray(self.start * factor), np.asarray(self.end * factor), air)


def total(curves: list[Curve]) -> Curve:
    """Sum of `curves` [same unit], at least one."""
    start = np.asarray(sum((c.start for c in curves[1:]), start=curves[0].start))
    end = np.asarray(sum((c.end for c in curves[1:]), start=curves[0].end))
    return Curve(start, end, tuple(a for c in curves for a in c.air))


def reach(curve: Curve, wanted: Number) -> tuple[Place, Mask]:
    """First place at which `curve` [any] reaches `wanted` [same] (..., 1), and whether it ever does.

    A leap (contact) that passes it counts as reaching it at the leap. Source: straight parts; air by Newton's rule,
    which comes from below on a concave curve and cannot overshoot.
    """
    want = np.asarray(wanted, dtype=np.float64)
    ends, starts = curve.end, curve.start
    for air in curve.air:
        ends = ends + lines.air_volume(air.factor, air.end)
        starts = starts + lines.air_volume(air.factor, air.start)
    reached = ends >= want
    grows = ends[..., -1:] > starts[..., -1:]
    hit = np.any(reached, axis=-1, keepdims=True)
    knot = np.where(hit, np.argmax(reached, axis=-1)[..., None], ends.shape[-1] - 1)
    fraction = np.zeros(knot.shape)
    for _ in range(_ROUNDS if curve.air else 2):
        place = Place(knot, fraction)
        slope = curve.slope(place)
        missing = np.maximum(0.0, want - curve.at(place))
        step = np.divide(missing, slope, out=np.zeros(knot.shape), where=slope > 0.0)
        fraction = fraction + step
        if np.all(step <= _CLOSE * np.maximum(1.0, fraction)):
            break
    return Place(knot, fraction), np.asarray(hit | grows)


@dataclass(frozen=True)
class Travel:
    """Pedal travel along a force line.

    `causes` {(where, cause): travel at the pad [m]}; `pad` [m] and `piston` [m], their sums; `chambers` {circuit: stroke
    taken by the fluid [m]}; `usable` {circuit: [m], None when its stroke is not known}; `pressing` [yes or no] (..., K−1).
    """

    causes: dict[tuple[str, str], Curve]
    pad: Curve
    piston: Curve
    chambers: dict[str, Curve]
    usable: dict[str, Number | None]
    pressing: Mask

    def contact(self) -> tuple[Place, Floats]:
        """Place (..., 1) and pad travel [m] (...) at which the first brake is touched; 0 where nothing ever presses."""
        knot = np.argmax(self.pressing, axis=-1)[..., None]
        value = at_step(self.pad.start, knot)[..., 0]
        ever = np.any(self.pressing, axis=-1)
        return Place(knot, np.zeros(knot.shape)), np.where(ever, value, 0.0)

    def bottomed(self, place: Place) -> Mask:
        """Whether a chamber needs more stroke than it has at a `place` [record] (..., S)."""
        asked = [self.chambers[name].at(place) > usable for name, usable in self.usable.items() if usable is not None]
        return np.asarray(np.any(np.stack(asked), axis=0)) if asked else np.zeros(place.knot.shape, dtype=bool)


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


def _branch_curves(branch: Branch, air: Number) -> dict[str, Curve]:
    """Volume [m³] that each cause takes in a branch."""
    low, high = branch.outlet[..., :-1], branch.outlet[..., 1:]
    pressed = high > 0.0
    part = branch.wheels / branch.station.wheels
    curves: dict[str, Curve] = {}
    for cause, (at_once, per_pressure) in swallowed(branch.station).items():
        start = np.where(pressed, part * (at_once + per_pressure * low), 0.0)
        curves[cause] = Curve(start, np.where(pressed, part * (at_once + per_pressure * high), 0.0))
    if np.any(np.asarray(air) > 0.0):
        none = np.zeros(low.shape)
        curves["air"] = Curve(none, none, (Air(np.broadcast_to(np.asarray(part * air), low.shape), low, high),))
    return curves


def along(line: ForceLine, air: dict[str, Number] | None = None) -> Travel:
    """Pedal travel [record] along a `line` [record]; `air` {station: volume [m³]} in place of the lines' own.

    A lost circuit's chamber runs its whole stroke; where that stroke is not known the circuit's loss raises Impossible.
    When nothing presses, nothing travels. Any shape. Source: continuity of the fluid.
    """
    system, control = line.system, line.system.control
    i = control.ratio
    shape = line.push.shape[:-1]
    steps = np.zeros((*shape, line.steps))
    alive = {name: p[..., 1:] > 0.0 for name, p in line.pressure.items()}
    pressing = np.any(np.stack([np.broadcast_to(a, steps.shape) for a in alive.values()]), axis=0)

    causes: dict[tuple[str, str], Curve] = {}
    chambers: dict[str, Curve] = {}
    usable: dict[str, Number | None] = {}
    strokes: list[Curve] = []

    def add(where: str, cause: str, curve: Curve) -> None:
        known = causes.get((where, cause))
        causes[where, cause] = curve if known is None else total([known, curve])

    def level(value: Number, where: Mask) -> Curve:
        flat = np.where(where, value, 0.0) + steps
        return Curve(flat, flat)

    for chamber in system.cylinder.chambers:
        volumes: list[Curve] = []
        for branch in line.branches:
            if branch.circuit != chamber.name:
                continue
            own = branch.station.lines.air if branch.station.lines is not None else 0.0
            for cause, curve in _branch_curves(branch, (air or {}).get(branch.station.name, own)).items():
                volumes.append(curve)
                add(branch.station.name, cause, curve.scaled(chamber.travel_share * i / chamber.area))
        taken = total([Curve(steps, steps), *volumes]).scaled(1.0 / chamber.area)
        live = np.broadcast_to(alive[chamber.name], steps.shape)
        port = level(chamber.lost * chamber.travel_share, live)
        add("cylinder", "port_closing", port.scaled(i))
        strokes += [taken.scaled(chamber.travel_share), port]
        dead = pressing & ~live
        if np.any(dead):
            if chamber.stroke is None:
                raise Impossible(f"travel with the {chamber.name} circuit lost", "the cylinder's stroke is not known")
            run = level(chamber.stroke * chamber.travel_share, dead)
            add("cylinder", "lost_chamber", run.scaled(i))
            strokes.append(run)
        chambers[chamber.name] = taken
        usable[chamber.name] = None if chamber.stroke is None else chamber.stroke - chamber.lost

    add("control", "free_play", level(control.free_play, pressing))
    if system.booster is not None:
        add("control", "booster_lost", level(system.booster.lost_travel * i, pressing))
    low, high = (controls.mount_travel(rod, control.mount_give, i) for rod in (line.rod[..., :-1], line.rod[..., 1:]))
    add("control", "mount", Curve(np.where(pressing, low, 0.0) + steps, np.where(pressing, high, 0.0) + steps))
    return Travel(causes, total(list(causes.values())), total(strokes), chambers, usable, pressing)


def bottoming(stroke: Number, booster_lost: Number, ratio: Number, free_play: Number) -> Number:
    """Pad travel [m] at which the piston is at its end, (stroke + lost)·i + free play.

    `stroke` [m], `booster_lost` [m] at the rod, `ratio` [1], `free_play` [m]. Any shape. Source: lever law.
    """
    return (stroke + booster_lost) * ratio + free_play


def pin_window(pivot_to_pad: Number, stroke: Number, booster_lost: Number, available: Number, free_play: Number) -> Number:
    """Least pivot-to-pin distance [m] at which the whole stroke fits the room, a·(stroke + lost)/(available − free play).

    `pivot_to_pad` [m], `stroke` [m], `booster_lost` [m], `available` [m], `free_play` [m]. Any shape. Source: lever law.
    """
    return pivot_to_pad * (stroke + booster_lost) / (available - free_play)


def stiffness(line: ForceLine, travel: Travel, place: Place) -> Floats:
    """Pedal stiffness dF/dtravel [N/m], loading, on a `line` [record] with its `travel` [record] at a `place` [record].

    0 inside a leap. Shape (..., S). Source: definition.
    """
    rise = at_step(line.push[..., 1:] - line.push[..., :-1], place.knot)
    slope = travel.pad.slope(place)
    return np.divide(rise, slope, out=np.zeros(slope.shape), where=slope > 0.0)


def trapped_air(missing: Number, pressure: Number, area: Number, ratio: Number) -> Floats:
    """Air [m³, at rest] that explains a `missing` [m] of pad travel at the station's `pressure` [Pa].

    `area` [m²] of the bore, `ratio` [1]; 0 where nothing is missing. Any shape. Source: Boyle's law.
    """
    volume = np.maximum(0.0, np.asarray(missing)) * area / ratio
    p = np.asarray(pressure, dtype=np.float64)
    return np.asarray(volume * (p + ATMOSPHERE) / p)

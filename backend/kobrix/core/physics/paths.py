"""Control paths: each control alone, and all of them together at stated force ratios, each as one solved line.

A path of one control keeps that control's knots. A path of several has all their knots side by side, sorted by the path's
push; between two of them every control is on one straight part of its own.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import reduce
from itertools import pairwise

import numpy as np

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask, Number, behind_rows, healthy, lookup, ratio
from kobrix.core.physics.chain import (
    HEALTHY,
    Condition,
    ForceLine,
    Place,
    Station,
    System,
    first_reach,
    follow,
    foot_of,
    place_of,
)
from kobrix.core.physics.pedal import FAR, Pedal
from kobrix.core.physics.road import Event, Moment, Road, first_event, moment, on_road
from kobrix.core.physics.travel import along
from kobrix.core.physics.vehicle import AXLES, Axle, Load

# Where controls are joined, a linkage's push is drawn by straight lines: how close they are to stay to it, as a share of it, nominally
# and in many trials, and on how many places of each part at most.
_CLOSE, _MOST = 1e-8, 512
_CLOSE_TRIED, _MOST_TRIED = 1e-4, 12
_GRADED = 1.5  # the power by which the places lie closer at the lower end of a part, where the push is least
_LOOKS = 5  # places of each part at which its ratio is looked at


@dataclass(frozen=True)
class Pull:
    """One control on a path: its `pedal` [record], its share of the path's force as `ratio` [1], and the place `numbers`
    [1] (..., M) of the path's knots on its own line, None where the two have the same knots."""

    pedal: Pedal
    ratio: float
    numbers: Floats | None

    @property
    def system(self) -> System:
        """The system of this control."""
        return self.pedal.line.system

    def place(self, place: Place) -> Place:
        """The place [record] on its own line at a `place` [record] of the path."""
        if self.numbers is None:
            return place
        return place_of(lookup(self.numbers, place.knot, place.fraction), self.pedal.line.steps)

    def number_on_path(self, number: Floats) -> Floats:
        """The path's place numbers [1] for rows of its own place `number` [1] (R, ...), inf where it is never reached."""
        if self.numbers is None:
            return number
        number = behind_rows(number, self.numbers.ndim - 1)
        finite = np.where(np.isfinite(number), number, 0.0)
        place, ever = first_reach(self.numbers, finite[..., None])
        return np.where(np.isfinite(number) & ever[..., 0], place.number[..., 0], np.inf)


@dataclass(frozen=True)
class Solved:
    """A control path in one or more conditions: its `name`, `pulls`, the `push` [N] at its knots (..., M), None where it is
    the one pedal's own, its `road` and first `event`."""

    name: str
    pulls: tuple[Pull, ...]
    push: Floats | None
    road: Road
    event: Event

    def healthy(self) -> "Solved":
        """The path without any failure, which stands first along the failures."""
        pulls = []
        for pull in self.pulls:
            known = pull.pedal.travel
            pedal = Pedal(pull.pedal.line.healthy(), None if known is None else known.healthy(), pull.pedal.coarse)
            pulls.append(Pull(pedal, pull.ratio, None if pull.numbers is None else healthy(pull.numbers)))
        push = None if self.push is None else healthy(self.push)
        return Solved(self.name, tuple(pulls), push, self.road.healthy(), self.event.healthy())

    def at(self, place: Place) -> Moment:
        """What happens on the road at a `place` [record] (..., S)."""
        return moment(self.road, self.event, place)

    def push_at(self, place: Place) -> Floats:
        """The path's force [N] at a `place` [record] (..., S)."""
        if self.push is None:
            return self.pulls[0].pedal.push_at(place) / self.pulls[0].ratio
        return lookup(self.push, place.knot, place.fraction)

    def place_at(self, push: Number) -> Place:
        """The place [record] at a path's force `push` [N] (..., S); at a leap, its foot."""
        if self.push is None:
            return self.pulls[0].pedal.place_at(np.asarray(push) * self.pulls[0].ratio)
        return foot_of(self.push, push)

    def balance(self, push: Number) -> tuple[Place, Mask]:
        """As `place_at`, and whether every control balances its part of that push (..., S): a linkage may not."""
        if self.push is None:
            return self.pulls[0].pedal.balance(np.asarray(push) * self.pulls[0].ratio)
        place = self.place_at(push)
        known: Mask = np.ones(place.knot.shape, dtype=bool)
        for pull in self.pulls:
            known = known & pull.pedal.balance(np.asarray(push) * pull.ratio)[1]
        return place, known

    def reach(self, decel: Number) -> tuple[Place, Mask]:
        """First place [record] at which the brakes give `decel` [g] (..., S), and whether they do.

        A stop that asks a linkage to pass its dead point is not reached.
        """
        place, known = first_reach(self.road.decel, decel)
        if any(p.pedal.linked is not None for p in self.pulls):
            known = known & np.isfinite(self.push_at(place))
        return place, known

    def leaps_at(self, place: Place) -> Mask:
        """Whether a `place` [record] (..., S) lies inside a leap, where one push stands for many decelerations."""
        edge = [self.push_at(Place(place.knot, np.full(place.knot.shape, end))) for end in (0.0, 1.0)]
        inside = (place.fraction > 0.0) & (place.fraction < 1.0)
        return np.asarray(inside & (edge[1] - edge[0] <= 1e-12 * np.abs(edge[1])) & (edge[1] > 0.0))


def _knots(pedal: Pedal) -> tuple[Floats, Floats]:
    """Pushes [N] at which a control may bend, and their place numbers on its own line (..., K).

    Under a linkage the push is curved: it is taken at as many places as its ratio asks for, past a dead point not further.
    """
    if pedal.linked is None:
        return pedal.knots, np.arange(pedal.knots.shape[-1], dtype=np.float64)
    steps = pedal.line.steps
    ends = np.append(np.arange(steps + 1.0), steps + FAR)
    pieces = zip(pairwise(ends), _places_asked(pedal, ends), strict=True)
    parts = [low + (high - low) * np.linspace(0.0, 1.0, n + 1)[1:] ** _GRADED for (low, high), n in pieces]
    numbers = np.concatenate([[0.0], *parts])
    push = pedal.push_at(place_of(numbers, steps))
    there = np.isfinite(push)
    push, numbers = np.where(there, push, 0.0), np.where(there, numbers, 0.0)
    return np.maximum.accumulate(push, axis=-1), np.maximum.accumulate(numbers, axis=-1)


def _places_asked(pedal: Pedal, ends: Floats) -> list[int]:
    """On how many places of each part of a linked pedal's line, between its `ends` (place numbers), straight lines through the push
    stay close to it: a part over which the ratio changes by the share c and that is cut into n is off by c/(8n²)."""
    looked = ends[:-1, None] + np.diff(ends)[:, None] * np.linspace(0.0, 1.0, _LOOKS)
    there = np.asarray(pedal.ratio_at(place_of(looked.reshape(-1), pedal.line.steps))).reshape(-1, *looked.shape)
    change = np.max(np.ptp(there, axis=-1) / np.min(there, axis=-1), axis=0)
    close, most = (_CLOSE_TRIED, _MOST_TRIED) if pedal.coarse else (_CLOSE, _MOST)
    asked = np.nan_to_num(np.sqrt(change / (8.0 * close)), nan=most)  # past a dead point there is no ratio
    return [int(n) for n in np.clip(np.ceil(asked), 1, most)]


def _merged(pedals: list[Pedal], ratios: list[float]) -> tuple[Floats, list[Floats]]:
    """All knots by the path's push [N], and for each pedal the place numbers of those knots on its own line."""
    found = [_knots(p) for p in pedals]
    own = [push / r for (push, _), r in zip(found, ratios, strict=True)]
    front = np.broadcast_shapes(*(k.shape[:-1] for k in own))
    own = [np.broadcast_to(k, (*front, k.shape[-1])) for k in own]
    ends = np.max(np.stack([k[..., -1:] for k in own]), axis=0)
    own.append(2.0 * ends + 1.0)  # past every knot, so that the last straight part is every control's last
    pushes = np.concatenate(own, axis=-1)
    order = np.argsort(pushes, axis=-1, kind="stable")
    push = np.take_along_axis(pushes, order, axis=-1)
    whose = np.repeat(np.arange(len(own)), [k.shape[-1] for k in own])[order]

    def in_order(parts: list[Floats]) -> Floats:
        return np.take_along_axis(np.concatenate(parts, axis=-1), order, axis=-1)

    numbers = []
    for mine, (pedal, share) in enumerate(zip(pedals, ratios, strict=True)):
        number = np.broadcast_to(found[mine][1], own[mine].shape)
        if pedal.linked is None:
            at = in_order([number if n == mine else pedal.place_at(knots * share).number for n, knots in enumerate(own)])
        else:  # its own points are many and say where it is between them; past them all it is at its last
            parts = [number if n == mine else np.zeros(knots.shape) for n, knots in enumerate(own)]
            at = _between(push, in_order([*parts[:-1], number[..., -1:]]), whose == mine)
        numbers.append(np.maximum.accumulate(at, axis=-1))
    return push, numbers


def _between(push: Floats, numbers: Floats, own: Mask) -> Floats:
    """Place `numbers` (..., M) at rising pushes [N], straight between those that are a control's `own`; the first and the last stand."""
    index = np.arange(push.shape[-1])
    below = np.maximum.accumulate(np.where(own, index, 0), axis=-1)
    above = np.minimum.accumulate(np.where(own, index, index[-1])[..., ::-1], axis=-1)[..., ::-1]
    low, high = (np.take_along_axis(push, at, axis=-1) for at in (below, above))
    start, end = (np.take_along_axis(numbers, at, axis=-1) for at in (below, above))
    return start + ratio(push - low, high - low) * (end - start)


def solve_path(
    name: str,
    systems: list[tuple[System, float]],
    load: Load,
    wheels: dict[Axle, int],
    conditions: list[Condition] | None = None,
    air: dict[str, dict[str, Number]] | None = None,
    whole: bool = False,
) -> Solved:
    """A control path [record] by `name` [text] of `systems` [(record, force ratio [1])] under `load` [record] (L, 1, 1).

    `wheels` {axle: [1]}; `conditions` [record], one for each system, healthy when left out; `air` {system: {station: [m³]}}; `whole` [yes or no], travel as sums only.
    Source: chain, travel and road.
    """
    lines = [follow(s, c) for (s, _), c in zip(systems, conditions or [HEALTHY] * len(systems), strict=True)]
    known = all(st.lines is not None for s, _ in systems for st in s.stations)
    if not known and any(s.control.linkage is not None for s, _ in systems):
        raise Impossible("the push of a linked pedal", "its ratio follows the stroke, and the lines are not known")
    pedals = [Pedal(line, along(line, (air or {}).get(line.system.name), whole) if known else None, whole) for line in lines]
    if len(pedals) == 1:
        line = lines[0]
        road = on_road(load, {a: line.axle_force(a) for a in AXLES}, {a: line.braking(a) for a in AXLES}, wheels)
        return Solved(name, (Pull(pedals[0], systems[0][1], None),), None, road, first_event(road))
    ratios = [r for _, r in systems]
    push, numbers = _merged(pedals, ratios)
    wheels_fed = _wheels_fed(lines)
    push, numbers = _with_crossings(push, numbers, lines, wheels_fed)
    force, braking = _on_axles(lines, numbers, wheels_fed)
    road = on_road(load, force, braking, wheels)
    pulls = tuple(Pull(p, r, n) for p, r, n in zip(pedals, ratios, numbers, strict=True))
    return Solved(name, pulls, push, road, first_event(road))


# One wheel of a station, and the branches (line, branch) that press it.
Wheel = tuple[Station, list[tuple[int, int]]]


def _wheels_fed(lines: list[ForceLine]) -> list[Wheel]:
    """Every wheel with the branches that press it; a second control's branches join those of the brakes' owner."""
    found: dict[tuple[str, str], list[Wheel]] = {}
    seconds: list[tuple[tuple[str, str], int, int, int]] = []
    for n, line in enumerate(lines):
        for i, branch in enumerate(line.branches):
            key = (branch.station.owner or line.system.name, branch.station.name)
            if branch.station.owner is None:
                found.setdefault(key, []).extend((branch.station, [(n, i)]) for _ in range(branch.wheels))
            else:
                seconds.append((key, n, i, branch.wheels))
    taken: dict[tuple[str, str], int] = {}
    for key, n, i, count in seconds:
        own = found.setdefault(key, [])
        while len(own) < count:  # the owner is not pressed on this path
            own.append((lines[n].branches[i].station, []))
        first = taken.get(key, 0)
        for k in range(count):
            own[(first + k) % len(own)][1].append((n, i))
        taken[key] = first + count
    return [wheel for own in found.values() for wheel in own]


@dataclass(frozen=True)
class WheelForce:
    """One wheel of a `station` [record]: what presses it, `fed` (control, circuit), and its `force` T/R [N] (..., S)."""

    station: Station
    fed: tuple[tuple[str, str], ...]
    force: Floats


def wheel_forces(solved: Solved, place: Place) -> list[WheelForce]:
    """The force of every wheel [record] of a `solved` [record] path at a `place` [record] (..., S), station by station.

    Of several controls that press one wheel the larger pressure counts. Source: statics.
    """
    lines = [pull.pedal.line for pull in solved.pulls]
    torque = _torques(lines, [pull.place(place) for pull in solved.pulls])
    found = []
    for station, fed in _wheels_fed(lines):
        force = reduce(np.maximum, [torque[n][i] for n, i in fed]) / station.rolling_radius
        names = tuple((lines[n].system.name, lines[n].branches[i].circuit) for n, i in fed)
        found.append(WheelForce(station, names, np.asarray(force)))
    return found


def circuits_pressed(systems: Sequence[System]) -> dict[str, frozenset[str]]:
    """The circuits of its brakes' owner into which each second control of `systems` [records] presses {control: circuits}.

    Source: the wheels it shares with them.
    """
    every = [(s, feed, c.name) for s in systems for c in s.cylinder.chambers for feed in c.feeds]
    wheels: dict[tuple[str, str], list[str]] = {}
    for system, feed, circuit in every:
        if system.station(feed.station).owner is None:
            wheels.setdefault((system.name, feed.station), []).extend([circuit] * feed.wheels)
    taken: dict[tuple[str, str], int] = {}
    pressed: dict[str, set[str]] = {}
    for system, feed, _ in every:
        owner = system.station(feed.station).owner
        if owner is None:
            continue
        own, first = wheels.get((owner, feed.station), []), taken.get((owner, feed.station), 0)
        pressed.setdefault(system.name, set()).update(own[(first + k) % len(own)] for k in range(feed.wheels) if own)
        taken[owner, feed.station] = first + feed.wheels
    return {name: frozenset(circuits) for name, circuits in pressed.items()}


def _torques(lines: list[ForceLine], places: list[Place]) -> list[Floats]:
    """Torque per wheel [N·m] of every branch of each line (B, ..., S) at places on their own."""
    return [lookup(behind_rows(line.torque, p.knot.ndim), p.knot, p.fraction) for line, p in zip(lines, places, strict=True)]


def _at_knots(lines: list[ForceLine], numbers: list[Floats]) -> list[Floats]:
    """Torque per wheel [N·m] of every branch of each line (B, ..., M) at the path's knots."""
    return _torques(lines, [place_of(n, line.steps) for n, line in zip(numbers, lines, strict=True)])


def _with_crossings(
    push: Floats, numbers: list[Floats], lines: list[ForceLine], wheels_fed: list[Wheel]
) -> tuple[Floats, list[Floats]]:
    """The path's knots with those at which another control begins to press a shared wheel the harder."""
    pairs = {(a, b) for _, fed in wheels_fed for x, a in enumerate(fed) for b in fed[x + 1 :]}
    if not pairs:
        return push, numbers
    torque = _at_knots(lines, numbers)
    steps = np.arange(push.shape[-1], dtype=np.float64)
    last = steps[:-1] == steps[-2]  # the last straight part goes on, and so may a crossing lie beyond its knot
    parts: list[Floats] = [steps]
    for (n, i), (m, k) in sorted(pairs):
        ahead = torque[n][i] - torque[m][k]
        low, high = ahead[..., :-1], ahead[..., 1:]
        crosses = (low * high < 0.0) | (last & (np.abs(high) < np.abs(low)) & (low * high > 0.0))
        parts.append(np.where(crosses, low / np.where(crosses, low - high, 1.0), 0.0) + steps[:-1])
    front = np.broadcast_shapes(push.shape[:-1], *(p.shape[:-1] for p in parts))
    every = np.sort(np.concatenate([np.broadcast_to(p, (*front, p.shape[-1])) for p in parts], axis=-1), axis=-1)
    every = np.concatenate([every, every[..., -1:] + 1.0], axis=-1)
    at = place_of(every, push.shape[-1] - 1)
    return lookup(push, at.knot, at.fraction), [lookup(n, at.knot, at.fraction) for n in numbers]


def _on_axles(
    lines: list[ForceLine], numbers: list[Floats], wheels_fed: list[Wheel]
) -> tuple[dict[Axle, Floats], dict[Axle, Floats]]:
    """Force [N] at the tyres of each axle at the path's knots, and the wheels [1] that brake on each step.

    A wheel that several controls press gets the larger pressure, and so the larger torque.
    """
    torque = _at_knots(lines, numbers)
    force: dict[Axle, Floats] = {axle: np.zeros(1) for axle in AXLES}
    braking: dict[Axle, Floats] = {axle: np.zeros(1) for axle in AXLES}
    for station, fed in wheels_fed:
        own = torque[fed[0][0]][fed[0][1]]
        for n, i in fed[1:]:
            own = np.maximum(own, torque[n][i])
        force[station.axle] = force[station.axle] + own / station.rolling_radius
        braking[station.axle] = braking[station.axle] + (own[..., 1:] > 0.0)
    shape = np.broadcast_shapes(*(n.shape for n in numbers))
    for axle in AXLES:
        if force[axle].shape[-1] == 1:
            force[axle], braking[axle] = np.zeros(shape), np.zeros((*shape[:-1], shape[-1] - 1))
    return force, braking

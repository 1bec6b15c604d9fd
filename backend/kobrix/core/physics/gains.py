"""What each change bought: what a link of the chain passes on, over what it passed on before, and the product of all links.

Between foot and road a push is multiplied link by link. The gain of a link is (what it passes on ÷ what it gets) now over the
same before; their product says how many times the brake is stronger for the same push. A drum's shoes and a disc's pads are not
pressed alike: where one became the other, pressing and rubbing are one gain.
"""

from dataclasses import dataclass
from functools import reduce
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask, behind_rows, lookup, ratio, stacked
from kobrix.core.physics.chain import Branch, Place
from kobrix.core.physics.disc import Disc, clamp_force
from kobrix.core.physics.paths import Solved

Link = Literal["pin", "booster", "bore", "valve", "pistons", "rotors", "brakes", "tyres"]
Side = Literal["front", "rear", "whole"]
Match = Literal["stop", "push"]
LINKS: tuple[Link, ...] = ("pin", "booster", "bore", "valve", "pistons", "rotors", "tyres")
LEAST_GAIN = 0.005  # a link that gains less is not told
SIDES: tuple[Side, ...] = ("front", "rear", "whole")


@dataclass(frozen=True)
class Gains:
    """Gains at some pushes: of each `link` [1] (..., S), NaN where one of the two does not brake; and their `product` [1]."""

    links: dict[Link, Floats]
    product: Floats


@dataclass(frozen=True)
class Passed:
    """What the first control of a path passes on at some places, station by station: `rod`, `booster` and `bore` are of the whole
    line, the lists of one entry for each station that it feeds. All (..., S)."""

    branches: list[Branch]
    pin: Floats
    booster: Floats
    out: Floats
    inlet: Floats
    outlet: Floats
    torque: Floats
    press: list[Floats]
    force: list[Floats]

    def links(self, side: Side) -> dict[Link, Floats] | None:
        """What each link passes on over what it gets, for one `side` [name], in the order of the chain; None without brakes there.

        Rod over push [1], force over rod [1], pressure over force [1/m²], outlet over inlet [1], pressing force over pressure [m²],
        torque over it [m], force on the road over torque [1/m]; 0 where nothing comes in. Source: definition.
        """
        at = [n for n, branch in enumerate(self.branches) if side in ("whole", branch.station.axle)]
        if not at:
            return None
        inlet, outlet, torque = (values[at] for values in (self.inlet, self.outlet, self.torque))
        press, force = sum(self.press[n] for n in at), sum(self.force[n] for n in at)
        pressure, whole = outlet.sum(axis=0), torque.sum(axis=0)
        return {
            "pin": self.pin, "booster": self.booster, "bore": ratio(inlet.mean(axis=0), self.out),
            "valve": ratio(pressure, inlet.sum(axis=0)), "pistons": ratio(press, pressure), "rotors": ratio(whole, press),
            "tyres": ratio(force, whole),
        }  # fmt: skip

    def kinds(self, side: Side) -> list[bool]:
        """Whether each brake of one `side` [name] is a disc."""
        return [isinstance(b.station.brake, Disc) for b in self.branches if side in ("whole", b.station.axle)]


def passed_on(solved: Solved, place: Place) -> Passed:
    """What the first control of a `solved` [record] path passes on at a `place` [record] (..., S). Source: each link's own function."""
    pull = solved.pulls[0]
    own, line = pull.place(place), pull.pedal.line
    fed: dict[str, tuple[int, Branch]] = {}
    for i, branch in enumerate(line.branches):
        fed.setdefault(branch.station.name, (i, branch))
    push = np.asarray(solved.push_at(place)) * pull.ratio
    rod, out = (lookup(v, own.knot, own.fraction) for v in (line.rod, line.out))
    tables = stacked([line.inlet, line.outlet, line.torque], line.inlet.ndim)[:, [i for i, _ in fed.values()]]
    inlet, outlet, torque = (lookup(behind_rows(t, own.knot.ndim), own.knot, own.fraction) for t in tables)
    press, force = [], []
    for n, (_, branch) in enumerate(fed.values()):
        brake = branch.station.brake
        if isinstance(brake, Disc):
            press.append(clamp_force(outlet[n], brake.side_area, brake.efficiency, brake.threshold))
        else:
            press.append(torque[n] / (brake.shoe_factor * brake.radius))
        force.append(torque[n] * branch.station.wheels / branch.station.rolling_radius)
    branches = [branch for _, branch in fed.values()]
    return Passed(branches, ratio(rod, push), ratio(out, rod), out, inlet, outlet, torque, press, force)


def _gains(now: Passed, then: Passed, known: Mask, side: Side) -> Gains | None:
    mine, theirs = now.links(side), then.links(side)
    if mine is None or theirs is None:
        return None
    fine = reduce(np.logical_and, [known, *(mine[n] > 0.0 for n in LINKS), *(theirs[n] > 0.0 for n in LINKS)])
    gain: dict[Link, Floats] = {n: np.where(fine, mine[n] / np.where(theirs[n] > 0.0, theirs[n], 1.0), np.nan) for n in LINKS}
    if now.kinds(side) != then.kinds(side):
        rotors = gain.pop("rotors")
        gain = {("brakes" if n == "pistons" else n): v * rotors if n == "pistons" else v for n, v in gain.items()}
    return Gains(gain, reduce(np.multiply, gain.values()))


def link_gains(own: Solved, before: Solved, place: Place) -> dict[Match, dict[Side, Gains]]:
    """Gains [record] of the links of `own` [record] at a `place` [record] (..., S) over those of the path `before` [record].

    By whether `before` is taken at the same deceleration (stop) or at the same push, then by the sides on which both have brakes.
    Source: definition.
    """
    now = passed_on(own, place)
    stop, reached = before.reach(lookup(own.road.decel, place.knot, place.fraction))
    push = before.place_at(own.push_at(place))
    found: dict[Match, dict[Side, Gains]] = {}
    for match, there, known in (("stop", stop, reached), ("push", push, np.ones(push.fraction.shape, dtype=bool))):
        then = passed_on(before, there)
        sides = {side: _gains(now, then, known, side) for side in SIDES}
        found[match] = {side: gains for side, gains in sides.items() if gains is not None}  # type: ignore[index]
    return found

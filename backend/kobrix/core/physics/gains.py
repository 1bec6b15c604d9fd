"""What each change bought: what a link of the chain passes on, over what it passed on before, and the product of all links.

Between foot and road a push is multiplied link by link. The gain of a link is (what it passes on ÷ what it gets) now over the
same before; their product says how many times the brake is stronger for the same push. A drum's shoes and a disc's pads are not
pressed alike: where one became the other, pressing and rubbing are one gain.
"""

from dataclasses import dataclass
from functools import reduce
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, lookup, ratio, stacked
from kobrix.core.physics.chain import Branch, Place
from kobrix.core.physics.disc import Disc, clamp_force
from kobrix.core.physics.paths import Pull, Solved

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


def _fed(pull: Pull, side: Side) -> list[tuple[int, Branch]]:
    """The first branch of every station of one side, with its place among the line's branches."""
    found: dict[str, tuple[int, Branch]] = {}
    for i, branch in enumerate(pull.pedal.line.branches):
        if side in ("whole", branch.station.axle):
            found.setdefault(branch.station.name, (i, branch))
    return list(found.values())


def passed_on(solved: Solved, place: Place, side: Side) -> dict[Link, Floats] | None:
    """What each link of the first control of a `solved` [record] path passes on over what it gets, at a `place` [record] (..., S).

    `side` [name]: the stations of one axle, or all. None where the control has none there. In the order of the chain: rod over
    push [1], force over rod [1], pressure over force [1/m²], outlet over inlet [1], pressing force over pressure [m²], torque
    over it [m], force on the road over torque [1/m]; 0 where nothing comes in. Source: definition.
    """
    pull = solved.pulls[0]
    fed = _fed(pull, side)
    if not fed:
        return None
    own, line = pull.place(place), pull.pedal.line
    push = np.asarray(solved.push_at(place)) * pull.ratio
    rod, out = (lookup(v, own.knot, own.fraction) for v in (line.rod, line.out))
    at = [i for i, _ in fed]
    inlet, outlet, torque = lookup(stacked([line.inlet, line.outlet, line.torque], line.inlet.ndim), own.knot, own.fraction)[
        :, at
    ]
    presses, forces = [], []
    for n, (_, branch) in enumerate(fed):
        brake = branch.station.brake
        if isinstance(brake, Disc):
            presses.append(clamp_force(outlet[n], brake.side_area, brake.efficiency, brake.threshold))
        else:
            presses.append(torque[n] / (brake.shoe_factor * brake.radius))
        forces.append(torque[n] * branch.station.wheels / branch.station.rolling_radius)
    press, force = sum(presses), sum(forces)
    whole = torque.sum(axis=0)
    return {
        "pin": ratio(rod, push), "booster": ratio(out, rod), "bore": ratio(inlet.mean(axis=0), out),
        "valve": ratio(outlet.sum(axis=0), inlet.sum(axis=0)), "pistons": ratio(press, outlet.sum(axis=0)),
        "rotors": ratio(whole, press), "tyres": ratio(force, whole),
    }  # fmt: skip


def link_gains(own: Solved, before: Solved, place: Place, side: Side, match: Match) -> Gains | None:
    """Gains [record] of the links of `own` [record] at a `place` [record] (..., S) over those of the path `before` [record].

    `side` [name]; `match` [name]: `before` is taken at the same deceleration (stop) or at the same push. None where one of the
    two has no brakes on that side. Source: definition.
    """
    if match == "stop":
        there, known = before.reach(lookup(own.road.decel, place.knot, place.fraction))
    else:
        there = before.place_at(own.push_at(place))
        known = np.ones(there.fraction.shape, dtype=bool)
    now, then = passed_on(own, place, side), passed_on(before, there, side)
    if now is None or then is None:
        return None
    fine = reduce(np.logical_and, [known, *(now[n] > 0.0 for n in LINKS), *(then[n] > 0.0 for n in LINKS)])
    gain: dict[Link, Floats] = {n: np.where(fine, now[n] / np.where(then[n] > 0.0, then[n], 1.0), np.nan) for n in LINKS}
    kinds = [[isinstance(b.station.brake, Disc) for _, b in _fed(s.pulls[0], side)] for s in (own, before)]
    if kinds[0] != kinds[1]:
        gain = {
            ("brakes" if n == "pistons" else n): v * gain["rotors"] if n == "pistons" else v
            for n, v in gain.items()
            if n != "rotors"
        }
    return Gains(gain, reduce(np.multiply, gain.values()))

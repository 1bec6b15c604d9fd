"""What turns the vehicle when one wheel of an axle brakes and the other does not."""

import re
from dataclasses import dataclass

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.physics.chain import Place, Side
from kobrix.core.physics.paths import Solved, wheel_forces
from kobrix.core.physics.vehicle import AXLES, Axle

_WORD = re.compile(r"(?<![a-z])(left|right)(?![a-z])")
_OTHER: dict[Side, Side] = {"left": "right", "right": "left"}


def side_named(name: str) -> Side | None:
    """The side that a `name` [text] tells, None where it tells none or both.

    >>> side_named("left_main"), side_named("brightness")
    ('left', None)
    """
    found = set(_WORD.findall(name.lower().replace("_", " ")))
    return found.pop() if len(found) == 1 else None


@dataclass(frozen=True)
class _Wheel:
    """One wheel: its `side`, whether that was `told`, how the line feeds it, and its `force` [N] (..., S)."""

    side: Side
    told: bool
    fed: tuple[tuple[str, str], ...]
    force: Floats


def _wheels(solved: Solved, place: Place, wheels: dict[Axle, int]) -> dict[Axle, list[_Wheel]]:
    """Wheels of the axles that have two, each on its side: told by the station, its name or a control's; else the first
    circuit's wheel is right in front and left behind."""
    found: dict[Axle, list[_Wheel]] = {}
    forces = wheel_forces(solved, place)
    for axle in AXLES:
        own = [w for w in forces if w.station.axle == axle] if wheels[axle] > 1 else []
        told: list[Side | None] = []
        for wheel in own:
            named = [s for control, _ in wheel.fed if (s := side_named(control)) is not None]
            told.append(wheel.station.side or (named[0] if named else None))
        guess: Side = "right" if axle == "front" else "left"
        for n, wheel in enumerate(own):
            others = [s for k, s in enumerate(told) if k != n and s is not None]
            untold = _OTHER[others[0]] if others else guess if n % 2 == 0 else _OTHER[guess]
            found.setdefault(axle, []).append(_Wheel(told[n] or untold, told[n] is not None, wheel.fed, wheel.force))
    return found


@dataclass(frozen=True)
class Turning:
    """What turns a vehicle: the force on the `right` less that on the left [N] (..., S); `told` [yes or no], whether the file says
    which wheel is on which side."""

    right: Floats
    told: bool

    def moment(self, track: Number) -> Floats:
        """Yaw moment |Σ ±B·track/2| [N·m] on a `track` [m]. Any shape. Source: moments about the middle."""
        return np.abs(self.right) * track / 2.0


def turning(solved: Solved, place: Place, wheels: dict[Axle, int]) -> Turning:
    """What turns the vehicle at a `place` [record] (..., S) of a `solved` [record] path; `wheels` {axle: [1]}.

    B = T/R of each wheel, locked or not; an axle's only wheel has no arm. Source: moments.
    """
    found = _wheels(solved, place, wheels)
    right: Floats = np.zeros(1)
    told, guessed = False, False
    for own in found.values():
        alike = len({w.fed for w in own}) == 1
        told, guessed = told or any(w.told for w in own), guessed or (any(not w.told for w in own) and not alike)
        for wheel in own:
            right = right + (wheel.force if wheel.side == "right" else -wheel.force)
    return Turning(right, told and not guessed)

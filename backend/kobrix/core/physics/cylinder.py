"""The master cylinder: a force becomes a pressure, and a stroke becomes a volume."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number

CylinderKind = Literal["single", "tandem", "twin"]


@dataclass(frozen=True)
class Feed:
    """What a chamber feeds: `station` [name] and how many of its `wheels` [1]."""

    station: str
    wheels: int


@dataclass(frozen=True)
class Chamber:
    """One pressure chamber and its circuit.

    `name` of the circuit; `bore` [m]; `stroke` [m] of its own piston, None when not known; `lost` [m] until its port
    is closed; `force_share` [1] of the force it gets; `travel_share` [1] of its stroke that the rod feels; `feeds`.
    """

    name: str
    bore: Number
    stroke: Number | None
    lost: Number
    force_share: Number
    travel_share: Number
    feeds: tuple[Feed, ...]

    @property
    def area(self) -> Number:
        """Bore area [m²]."""
        return bore_area(self.bore)


@dataclass(frozen=True)
class Cylinder:
    """A master cylinder, or two on a balance bar.

    `kind`, `efficiency` [1], `spring` [N] of each piston, and its `chambers`, a tandem's primary first. `stop` [m]: how far
    one cylinder of a bar can run ahead of the other before the bar meets its stop, None when nothing stops it.
    """

    kind: CylinderKind
    efficiency: Number
    spring: Number
    chambers: tuple[Chamber, ...]
    stop: Number | None = None


def bore_area(bore: Number) -> Number:
    """Area π·D²/4 [m²] of a `bore` [m]. Any shape. Source: geometry.

    >>> round(bore_area(0.0254) * 1e6, 1)
    506.7
    """
    return np.pi * bore * bore / 4.0


def bore_for_area(area: Number) -> Floats:
    """Bore √(4A/π) [m] of an `area` [m²]: the inverse of `bore_area`. Any shape. Source: geometry."""
    return np.sqrt(np.asarray(area) * 4.0 / np.pi)


def line_pressure(force: Number, area: Number, efficiency: Number, spring: Number) -> Floats:
    """Line pressure max(0, F·η − F_spring)/A [Pa], gauge.

    `force` [N] on the piston, `area` [m²], `efficiency` [1], `spring` [N]. Any shape. Source: statics.
    """
    return np.asarray(np.maximum(0.0, np.asarray(force * efficiency - spring)) / area)


def force_for_pressure(pressure: Number, area: Number, efficiency: Number, spring: Number) -> Number:
    """Force on the piston [N] for a line `pressure` [Pa]: the inverse of `line_pressure`.

    `area` [m²], `efficiency` [1], `spring` [N]. At pressure 0: the greatest force that makes none. Any shape.
    Source: statics.
    """
    return (pressure * area + spring) / efficiency

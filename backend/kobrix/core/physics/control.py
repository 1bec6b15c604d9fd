"""The control: a pedal or lever that turns the push of a foot or hand into a push on the rod."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.physics.linkage import Linkage, ratio_at

ControlKind = Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"]


@dataclass(frozen=True)
class Control:
    """A pedal or lever; without a `linkage` the rod is straight and the ratio constant.

    `kind`; `pivot_to_pad` [m]; `pivot_to_pin` [m]; `efficiency` [1]; `return_force` [N] at the rod;
    `free_play` [m] at the pad; `available` [m] of pad travel to the floor or stop, None when not known;
    `mount_give` [m/N] of the cylinder's mounting, 0 when it does not yield.
    """

    kind: ControlKind
    pivot_to_pad: Number
    pivot_to_pin: Number
    efficiency: Number
    return_force: Number
    free_play: Number
    available: Number | None
    mount_give: Number
    linkage: Linkage | None = None

    @property
    def ratio(self) -> Number:
        """Pedal ratio i [1] at rest."""
        if self.linkage is not None:
            return ratio_at(self.linkage, self.pivot_to_pad, 0.0)
        return pedal_ratio(self.pivot_to_pad, self.pivot_to_pin)


def pedal_ratio(pivot_to_pad: Number, pivot_to_pin: Number) -> Number:
    """Pedal ratio i = a/b [1] of `pivot_to_pad` [m] over `pivot_to_pin` [m], straight rod.

    Source: lever law. Any shape.

    >>> round(pedal_ratio(14, 3), 2)
    4.67
    """
    return pivot_to_pad / pivot_to_pin


def pin_for_ratio(pivot_to_pad: Number, ratio: Number) -> Number:
    """Pivot to pin b = a/i [m] that gives `ratio` [1] with `pivot_to_pad` [m]. Source: lever law. Any shape.

    >>> round(pin_for_ratio(14, 6), 3)
    2.333
    """
    return pivot_to_pad / ratio


def rod_force(pedal_force: Number, ratio: Number, efficiency: Number, return_force: Number) -> Floats:
    """Rod force max(0, i·F·η − F_return) [N].

    `pedal_force` [N] at the pad, `ratio` [1], `efficiency` [1], `return_force` [N] at the rod. Any shape.
    Source: lever law.

    >>> float(rod_force(400, 5.5, 1, 0))
    2200.0
    """
    return np.asarray(np.maximum(0.0, ratio * pedal_force * efficiency - return_force))


def pedal_force_for_rod(rod: Number, ratio: Number, efficiency: Number, return_force: Number) -> Number:
    """Pedal force [N] that gives a rod force `rod` [N]: the inverse of `rod_force`.

    `ratio` [1], `efficiency` [1], `return_force` [N]. At rod 0: the greatest push that moves nothing. Any shape.
    Source: lever law.
    """
    return (rod + return_force) / (ratio * efficiency)


def mount_travel(rod: Number, mount_give: Number, ratio: Number) -> Number:
    """Pad travel [m] spent on a yielding mounting: `rod` [N] · `mount_give` [m/N] · `ratio` [1].

    Any shape. Source: Hooke's law; sheet metal near 4 kN/mm is our estimate.
    """
    return rod * mount_give * ratio

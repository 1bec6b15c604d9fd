"""The drum brake: shoes that help or hinder themselves, as one shoe factor C*."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.errors import BadEntry
from kobrix.core.numerics.arrays import Number

ShoeKind = Literal["leading_trailing", "two_leading", "duo_servo"]


@dataclass(frozen=True)
class Drum:
    """The drum brake of one wheel.

    `cylinder_area` [m²] of the wheel cylinder; `radius` [m] of the drum; `shoe_factor` [1];
    `sensitivity` [1], relative change of the factor over that of the friction, None when C* was given;
    `efficiency` [1]; `threshold` [Pa] of the shoe springs; `clearance` [m] per shoe; `give` [m³/Pa].
    """

    cylinder_area: Number
    radius: Number
    shoe_factor: Number
    sensitivity: Number | None
    efficiency: Number
    threshold: Number
    clearance: Number
    give: Number


def shoe_factor(kind: ShoeKind, friction: Number, k: Number) -> Number:
    """Shoe factor C* [1], torque over input force and drum radius.

    `kind` [name]; `friction` [1] of the lining; `k` [1], shoe half-height over drum radius. Leading-trailing
    4µk²/(k² − µ²), two-leading 4µk/(k − µ), duo-servo 4µk²/(k − µ)². Any shape. Raises BadEntry where µ ≥ k: the shoe
    locks itself. Source: short-shoe theory.

    >>> round(shoe_factor("leading_trailing", 0.38, 0.8), 4)
    1.9629
    """
    if np.ndim(friction) or np.ndim(k):
        friction = np.minimum(friction, 0.999 * np.asarray(k))  # of many trials one that locks itself brakes beyond every limit
    elif friction >= k:
        raise BadEntry(
            "lining friction",
            f"µ {friction:g}",
            f"below {k:g} (the shoe's half-height over the drum radius)",
            "with more friction the shoe locks itself and cannot be controlled",
        )
    if kind == "leading_trailing":
        return 4.0 * friction * k**2 / (k**2 - friction**2)
    if kind == "two_leading":
        return 4.0 * friction * k / (k - friction)
    return 4.0 * friction * k**2 / (k - friction) ** 2


def sensitivity(kind: ShoeKind, friction: Number, k: Number) -> Number:
    """Relative change of C* over the relative change of friction [1].

    `kind` [name]; `friction` [1]; `k` [1]. Any shape. Source: derivative of `shoe_factor`.
    """
    if kind == "leading_trailing":
        return (k**2 + friction**2) / (k**2 - friction**2)
    if kind == "two_leading":
        return k / (k - friction)
    return (k + friction) / (k - friction)


def pivoted_shoe_factor(friction: Number, h: Number, c: Number, b: Number, leading: bool) -> Number:
    """Factor µh/(c ∓ µb) [1] of one pivoted short shoe, for drums whose shoe dimensions are known.

    `friction` [1]; `h` [m] pivot to wheel cylinder; `c` [m] pivot to lining centre along the shoe; `b` [m] pivot to
    drum face across; `leading` [yes or no]. Any shape. Source: short-shoe theory.
    """
    return friction * h / (c - friction * b if leading else c + friction * b)

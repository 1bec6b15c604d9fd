"""The disc brake: one side's piston area, clamp force, effective radius, torque, and the fluid it takes."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number

RadiusRule = Literal["uniform_wear", "uniform_pressure"]


@dataclass(frozen=True)
class Disc:
    """The disc brakes of one wheel.

    `fixed` caliper or floating; `side_area` [m²] of the pistons on ONE side; `calipers` [1] per wheel;
    `effective_radius` [m]; `friction` [1] of the pads; `efficiency` [1]; `threshold` [Pa] before the pads press;
    `clearance` [m] per pad; `knock_back` [m] per pad; `caliper_give` [m³/Pa] and `pad_give` [m³/Pa] of one caliper.
    """

    fixed: bool
    side_area: Number
    calipers: int
    effective_radius: Number
    friction: Number
    efficiency: Number
    threshold: Number
    clearance: Number
    knock_back: Number
    caliper_give: Number
    pad_give: Number


def with_area(disc: Disc, area: Number) -> Disc:
    """The `disc` [record] with another one-side piston `area` [m²]; the gives of body and pads grow with it.

    Any shape. Source: give per area, our estimate.
    """
    scale = area / disc.side_area
    return replace(disc, side_area=area, caliper_give=disc.caliper_give * scale, pad_give=disc.pad_give * scale)


def side_area(pistons: list[Number]) -> Number:
    """Piston area on one side Σ π·d²/4 [m²] of `pistons` [m]: a fixed caliper's one side, a floating one's all.

    Any shape. Counting both sides of a fixed caliper is the classic error: the other side only answers the first.
    Source: statics of the caliper.
    """
    return np.pi / 4.0 * sum((d * d for d in pistons), start=np.float64(0.0))


def effective_radius(rotor: Number, pad_height: Number, edge_inset: Number, rule: RadiusRule) -> Number:
    """Effective radius [m] of a `rotor` [m] diameter with pads of `pad_height` [m], `edge_inset` [m] below the edge.

    `rule` [name]: uniform wear (r_o + r_i)/2, or uniform pressure ⅔(r_o³ − r_i³)/(r_o² − r_i²). Any shape.
    Source: disc clutch theory.
    """
    r_o = rotor / 2.0 - edge_inset
    r_i = r_o - pad_height
    if rule == "uniform_wear":
        return (r_o + r_i) / 2.0
    return 2.0 / 3.0 * (r_o**2 + r_o * r_i + r_i**2) / (r_o + r_i)


def clamp_force(pressure: Number, area: Number, efficiency: Number, threshold: Number) -> Floats:
    """Clamp force η·A_side·max(0, p − p₀) [N] of one caliper.

    `pressure` [Pa], `area` [m²] of one side, `efficiency` [1], `threshold` [Pa]. Any shape. Source: statics.
    """
    return efficiency * area * np.maximum(0.0, np.asarray(pressure) - threshold)


def torque(clamp: Number, friction: Number, radius: Number, calipers: Number) -> Number:
    """Brake torque 2·µ·N·r_e·n [N·m] of one wheel: two faces rub.

    `clamp` [N], `friction` [1], `radius` [m] effective, `calipers` [1] per wheel. Any shape. Source: Coulomb.
    """
    return 2.0 * friction * clamp * radius * calipers


def clearance_volume(area: Number, gap: Number) -> Number:
    """Fluid [m³] that closes a `gap` [m] at each of two pads, one-side `area` [m²]; fixed and floating alike.

    Any shape. Source: a floating caliper's pistons travel both gaps, a fixed one's two sides travel one each.
    """
    return 2.0 * area * gap


def give(area: Number, per_pressure: Number) -> Number:
    """Fluid per pressure [m³/Pa] of a give of `per_pressure` [m/Pa] at two pads, one-side `area` [m²].

    Any shape. Source: linear give, our estimate.
    """
    return 2.0 * area * per_pressure

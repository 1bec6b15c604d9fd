"""Hoses, pipes, fluid and air: what the line swallows before the brakes get it."""

from dataclasses import dataclass

import numpy as np

from kobrix.core.constants import ATMOSPHERE
from kobrix.core.numerics.arrays import Floats, Number


@dataclass(frozen=True)
class Lines:
    """All lines of one station, by what they swallow.

    `hose_give` [m³/Pa], and `braided_give` [m³/Pa] of the same hoses if they were braided; `pipe_give` [m³/Pa];
    `fluid_volume` [m³] from chamber to pistons; `bulk` [Pa]; `air` [m³].
    """

    hose_give: Number
    braided_give: Number
    pipe_give: Number
    fluid_volume: Number
    bulk: Number
    air: Number


def hose_give(coefficient: Number, length: Number, count: Number) -> Number:
    """Swelling per pressure [m³/Pa] of hoses: `coefficient` [m³/(m·Pa)] · `length` [m] · `count` [1].

    Any shape. Source: linear swelling, our estimate; FMVSS 106 gives a legal ceiling, never the default.
    """
    return coefficient * length * count


def bore_volume(bore: Number, length: Number) -> Number:
    """Volume [m³] inside a line of `bore` [m] and `length` [m]. Any shape. Source: geometry."""
    return np.pi * bore * bore / 4.0 * length


def pipe_give(outer: Number, wall: Number, length: Number, youngs: Number, poisson: Number) -> Number:
    """Swelling per pressure [m³/Pa] of a hard line, V·(2/E)·[(r_o² + r_i²)/(r_o² − r_i²) + ν].

    `outer` [m] diameter, `wall` [m], `length` [m], `youngs` [Pa], `poisson` [1]. Any shape.
    Source: thick-walled tube, Lamé.
    """
    r_o = outer / 2.0
    r_i = r_o - wall
    volume = bore_volume(2.0 * r_i, length)
    return volume * 2.0 / youngs * ((r_o**2 + r_i**2) / (r_o**2 - r_i**2) + poisson)


def air_volume(air: Number, pressure: Number) -> Floats:
    """Volume [m³] that trapped `air` [m³, at rest] gives up under a gauge `pressure` [Pa]: V·p/(p + p_atm).

    Any shape. Source: Boyle's law.
    """
    p = np.asarray(pressure, dtype=np.float64)
    return air * p / (p + ATMOSPHERE)

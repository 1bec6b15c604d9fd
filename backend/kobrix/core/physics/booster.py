"""The booster: help that rises with the push until it runs out."""

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.constants import ATMOSPHERE
from kobrix.core.numerics.arrays import Floats, Mask, Number

BoosterKind = Literal["vacuum", "hydraulic", "electric"]


@dataclass(frozen=True)
class Booster:
    """Any booster, by what it does to the rod force.

    `kind`; `gain` [1], 1 or more; `cut_in` [N]; `jump_in` [N], the assist at cut-in; `limit` [N], the greatest assist;
    `lost_travel` [m] of the rod; `return_spring` [N], held back when it has failed.
    """

    kind: BoosterKind
    gain: Number
    cut_in: Number
    jump_in: Number
    limit: Number
    lost_travel: Number
    return_spring: Number


def vacuum_limit(diameters: list[Number], depression: Number, efficiency: Number) -> Number:
    """Greatest assist of a vacuum booster Σ Δp·π·d²/4·η [N].

    `diameters` [m] effective, one per diaphragm; `depression` [Pa]; `efficiency` [1]. Any shape.
    Source: pressure times area.
    """
    area = sum((np.pi * d * d / 4.0 for d in diameters), start=np.float64(0.0))
    return depression * area * efficiency


def boosted(rod: Number, gain: Number, cut_in: Number, jump_in: Number, limit: Number) -> Floats:
    """Force on the cylinder [N] of a working booster.

    `rod` [N]; `gain` [1]; `cut_in` [N]; `jump_in` [N]; `limit` [N]. Nothing comes out up to the cut-in; above it
    F + min(jump + (G − 1)(F − cut), limit). Any shape. Source: model of the assist curve, common practice.
    """
    rod_ = np.asarray(rod)
    assist = np.minimum(jump_in + (gain - 1.0) * (rod_ - cut_in), limit)
    return np.where(rod_ > cut_in, rod_ + assist, 0.0)


def rod_for_boosted(out: Number, gain: Number, cut_in: Number, jump_in: Number, limit: Number) -> Floats:
    """Rod force [N] for an `out` [N] of a working booster: the inverse of `boosted`.

    `gain` [1]; `cut_in` [N]; `jump_in` [N]; `limit` [N]. Inside the leap at cut-in the rod force is the cut-in.
    Any shape. Source: as `boosted`.
    """
    out_ = np.asarray(out)
    start = np.minimum(jump_in, limit)
    on_slope = cut_in + (out_ - cut_in - start) / gain
    past_runout = out_ - limit
    return np.maximum(cut_in, np.maximum(on_slope, past_runout))


def runout_force(gain: Number, cut_in: Number, jump_in: Number, limit: Number) -> tuple[Floats, Mask]:
    """Rod force [N] at which the help stops growing, and where there is such a force (none for a gain of 1).

    `gain` [1]; `cut_in` [N]; `jump_in` [N]; `limit` [N]. Any shape. Source: as `boosted`.
    """
    slope = np.asarray(gain) - 1.0
    runs_out = slope > 0.0
    safe = np.where(runs_out, slope, 1.0)
    return np.where(runs_out, cut_in + np.maximum(0.0, limit - jump_in) / safe, cut_in), runs_out


def accumulator_stops(volume: float, precharge: float, full: float, least: float, per_stop: float) -> int:
    """Stops left in a gas accumulator, floor(V₀·(p₀/max(p_min, p₀) − p₀/p_max)/V_stop), absolute pressures.

    `volume` [m³]; `precharge` [Pa], `full` [Pa], `least` [Pa], all gauge; `per_stop` [m³]. Source: Boyle's law, isothermal.
    """
    gas, most, end = (p + ATMOSPHERE for p in (precharge, full, least))
    return max(0, math.floor(volume * (gas / max(end, gas) - gas / most) / per_stop))


def failed(rod: Number, return_spring: Number) -> Floats:
    """Force on the cylinder [N] behind a booster that gives no help: max(0, `rod` [N] − `return_spring` [N]).

    Any shape. Source: statics.
    """
    return np.maximum(0.0, np.asarray(rod) - return_spring)

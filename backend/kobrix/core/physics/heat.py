"""Rotor heat: one stop, a series of stops with cooling between, and what it means for pads and fluid."""

import math
from dataclasses import dataclass

import numpy as np

from kobrix.core.constants import ASSUMED, EXACT, PUBLISHED
from kobrix.core.numerics.arrays import Floats, Number

_STEPS, _LONG = 96, 60.0  # Runge-Kutta steps in each stop and in each minute [s] of a pause: the error is far below 1e-9 K
_THERE = 1e-9  # K from the air: cooled, however long the pause still is
KELVIN = 273.15


@dataclass(frozen=True)
class Rotor:
    """One rotor: `mass` [kg]; `area` [m²] that cools, both faces and vane walls; `vented` [yes or no]."""

    mass: Number
    area: Number
    vented: bool


@dataclass(frozen=True)
class Step:
    """One slow-down and the pause after it: `first` and `last` speed [m/s]; `energy` [J] into the rotor; `time` [s] it takes;
    `pause` [s] at `pause_speed` [m/s]."""

    first: float
    last: float
    energy: Number
    time: Number
    pause: float
    pause_speed: float


def stop_energy(mass: Number, rotating: Number, first: Number, last: Number, drag: Number = 0.0) -> Number:
    """Energy ½·m·(1 + ρ + d)·(v₁² − v₂²) [J] of one slow-down.

    `mass` [kg]; `rotating` [1]; `first` [m/s]; `last` [m/s]; `drag` [1] d, what the vehicle brakes of a trailer over its own mass.
    Any shape. Source: mechanics.
    """
    return 0.5 * mass * (1.0 + rotating + drag) * (first * first - last * last)


def rotor_energy(energy: Number, axle_share: Number, rotors: int) -> Number:
    """Energy [J] into one rotor: `energy` [J] of the stop × `axle_share` [1] × 0.95 / `rotors` [1] of that axle.

    Any shape. Source: the rotor takes nearly all, the pad little: common practice.
    """
    return energy * axle_share * ASSUMED["heat.into_rotor"].value / rotors


def rise(energy: Number, mass: Number) -> Number:
    """Rise [K] of a rotor of `mass` [kg] that keeps all of an `energy` [J]. Any shape. Source: calorimetry."""
    return energy / (mass * ASSUMED["heat.iron"].value)


def _run(rotor: Rotor, start: Number, air: float, step: Step, braking: bool) -> tuple[Number, Number]:
    """Temperature at the end, and the highest on the way, of a slow-down or of the pause after it; temperatures in °C."""
    time = step.time if braking else step.pause
    steps = _STEPS if braking else _STEPS * max(1, math.ceil(step.pause / _LONG))
    h = time / steps
    still, moving = ASSUMED["heat.film_still"].value, ASSUMED["heat.film_vented" if rotor.vented else "heat.film_solid"].value
    radiates = ASSUMED["heat.emissivity"].value * EXACT["stefan"].value * rotor.area
    fourth, holds = (air + KELVIN) ** 4, rotor.mass * ASSUMED["heat.iron"].value
    whole, slower = step.first + step.last, step.first - step.last

    def at(t: Number) -> tuple[Number, Number]:
        """The film's loss [W/K] and the power [W] going in at a time; both the same all through a pause."""
        speed = step.first - slower * t / step.time
        return (still + moving * speed) * rotor.area, step.energy * 2.0 * speed / (whole * step.time)

    def rate(film: Number, power: Number, temperature: Number) -> Number:
        return (power - (film * (temperature - air) + radiates * ((temperature + KELVIN) ** 4 - fourth))) / holds

    now, peak = start, start
    middle = late = at(0.0) if braking else ((still + moving * step.pause_speed) * rotor.area, 0.0)
    slope = rate(*late, now)
    for n in range(steps):
        if braking:
            middle, late = at(n * h + h / 2), at(n * h + h)
        elif abs(now - air) < _THERE if isinstance(now, float) else bool(np.all(np.abs(now - air) < _THERE)):
            break
        b = rate(*middle, now + h / 2 * slope)
        c = rate(*middle, now + h / 2 * b)
        d = rate(*late, now + h * c)
        after = now + h / 6 * (slope + 2 * b + 2 * c + d)
        fall = rate(*late, after)
        turn = _turn(now, after, slope, fall, h)
        peak = max(peak, after, turn) if isinstance(turn, float) else np.maximum(peak, np.maximum(after, turn))
        now, slope = after, fall
    return now, peak


def _turn(low: Number, high: Number, rise_: Number, fall: Number, h: Number) -> Number:
    """Highest point of the cubic through both ends of a step with their slopes, the low end where it does not turn."""
    if isinstance(low, float) and isinstance(high, float) and isinstance(rise_, float) and isinstance(fall, float):
        if not rise_ > 0.0 > fall:
            return low
        return _cubic(low, high, rise_, fall, h, rise_ / (rise_ - fall))
    turns = (np.asarray(rise_) > 0.0) & (np.asarray(fall) < 0.0)
    s = np.where(turns, rise_ / np.where(turns, rise_ - fall, 1.0), 0.0)
    return np.where(turns, _cubic(low, high, rise_, fall, h, s), low)


def _cubic(low: Number, high: Number, rise_: Number, fall: Number, h: Number, s: Number) -> Number:
    """The cubic through both ends of a step `h` with their slopes, at a share `s` of it."""
    return (
        low * (1 + 2 * s) * (1 - s) ** 2 + h * rise_ * s * (1 - s) ** 2
        + high * s * s * (3 - 2 * s) + h * fall * s * s * (s - 1)
    )  # fmt: skip


def series(rotor: Rotor, start: Number, air: float, steps: list[Step]) -> tuple[list[Number], list[Number], Number]:
    """Temperatures [°C] of a `rotor` [record] over `steps` [records]: at each start, the peak of each, and after the last pause.

    `start` [°C]; `air` [°C]. m·c·dT/dt = P − (h₀ + h₁v)A(T − T_a) − εσA(T⁴ − T_a⁴), P(t) = E·2v/((v₁ + v₂)t). Any shape.
    Source: lumped rotor; film coefficients our estimate; Runge-Kutta of fourth order.
    """
    starts: list[Number] = []
    peaks: list[Number] = []
    now = start
    for step in steps:
        starts.append(now)
        now, peak = _run(rotor, now, air, step, braking=True)
        peaks.append(peak)
        if step.pause > 0.0:
            now, _ = _run(rotor, now, air, step, braking=False)
    return starts, peaks, now


def cooled(rotor: Rotor, start: Number, air: float, time: float, speed: float) -> Number:
    """Temperature [°C] of a `rotor` [record] after a `time` [s] rolling at a `speed` [m/s] from `start` [°C] in `air` [°C].

    Any shape. Source: as `series`.
    """
    return _run(rotor, start, air, Step(speed, speed, 0.0, time, time, speed), braking=False)[0]


def time_to_cool(rotor: Rotor, start: float, air: float, wanted: float, speed: float) -> float | None:
    """Time [s] until a `rotor` [record] is down from `start` to `wanted` [°C] at a `speed` [m/s]; 0 if it is there, None if `air` [°C] is not below.

    Source: as `series`; the time by a root finder.
    """
    if start <= wanted:
        return 0.0
    if wanted <= air:
        return None
    from scipy.optimize import brentq  # loaded when asked for: it would double the time of a start

    most = 60.0
    while float(cooled(rotor, start, air, most, speed)) > wanted:
        most *= 2.0
    return float(brentq(lambda t: float(cooled(rotor, start, air, t, speed)) - wanted, 0.0, most, xtol=1e-9, rtol=1e-13))


def fluid_estimate(peak: Number, air: float) -> Number:
    """Fluid temperature [°C] behind the pads, T_a + 0.25·(T_peak − T_a): `peak` [°C] of the rotor, `air` [°C].

    Any shape. Source: our estimate; a heat shield, spokes and time change it.
    """
    return air + ASSUMED["heat.fluid_share"].value * (peak - air)


def wet_boiling(fluid: str) -> float:
    """Wet boiling point [°C] of a `fluid` [name]: DOT 3, DOT 4, DOT 5, DOT 5.1. Source: FMVSS 116, from memory."""
    return PUBLISHED[f"wet_boiling.{fluid}"].value


def friction_at(temperature: Number, points: list[tuple[float, float]]) -> Floats:
    """Friction [1] at a `temperature` [°C] on a curve of `points` ([°C], [1]): straight between, level outside. Any shape.

    Source: the pad's own curve.
    """
    hot, mu = np.array(sorted(points)).T
    return np.asarray(np.interp(temperature, hot, mu))

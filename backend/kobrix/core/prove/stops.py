"""One stop: from a trace, or from three typed numbers, to distances that can be compared."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, TypedDict

import numpy as np

from kobrix.core.constants import KMH, G
from kobrix.core.numerics.arrays import Floats

Reason = Literal["never_through_trigger", "braking_from_the_first_sample", "no_onset", "never_at_rest"]
WINDY = 5.0  # m/s, from memory: UN R13 trials
BAND = 0.10  # of the nominal speed, SAE J299, from memory
QUESTIONED = 0.03  # our estimate


@dataclass(frozen=True)
class Conditions:
    """What a stop is corrected by: nominal speed [m/s], grade (uphill positive), headwind [m/s]; None for what is not known."""

    nominal: float | None = None
    grade: float = 0.0
    headwind: float | None = None

    @property
    def windy(self) -> bool | None:
        """Whether the wind was too strong to tell; None for an unknown one."""
        return None if self.headwind is None else abs(self.headwind) > WINDY + 1e-9


class Corrected(TypedDict):
    """A stop's distance on the level and from the nominal speed, None with its reason where that cannot be; its steady-stop check."""

    level_m: float | None
    nominal_m: float | None
    nominal_reason: Literal["grade", "speed_off"] | None
    windy: bool | None
    check_speed_kmh: float | None
    steady_gap: float | None
    questioned: bool | None


class TraceAnswer(Corrected):
    """stop_trace: when it began and ended, how far and how long, MFDD and lag; None with a `reason` for what it cannot tell."""

    reason: Reason | None
    trigger_s: float | None
    onset_s: float | None
    end_s: float | None
    onset_speed_kmh: float | None
    trigger_distance_m: float | None
    trigger_time_s: float | None
    distance_m: float | None
    time_s: float | None
    mfdd_m_per_s2: float | None
    mfdd_g: float | None
    lag_s: float | None


class TypedAnswer(Corrected):
    """stop_typed: a stop of three numbers, its deceleration by each; None for what was not typed."""

    speed_kmh: float
    distance_m: float | None
    time_s: float | None
    decel_by_distance_g: float | None
    decel_by_time_g: float | None
    lag_s: float | None
    decel_g: float | None
    mfdd_g: None


def corrected(way: float | None, speed: float | None, time: float | None, lag: float | None, on: Conditions) -> Corrected:
    """A stop's `way` [m] from `speed` [m/s] on the level and from the nominal speed, and its steady-stop check.

    `time` [s]; `lag` [s]; `on` [record].
    """
    out: Corrected = {
        "level_m": None, "nominal_m": None, "nominal_reason": None, "windy": on.windy, "check_speed_kmh": None,
        "steady_gap": None, "questioned": None,
    }  # fmt: skip
    if way is None or speed is None or speed <= 0 or way <= 0:
        return out
    decel = speed**2 / (2 * way)
    on_level = decel - G * math.sin(math.atan(on.grade))
    if on_level <= 0:
        out["nominal_reason"] = "grade"
    else:
        level = way * decel / on_level
        out["level_m"] = level
        if on.nominal is not None:
            if abs(speed / on.nominal - 1) > BAND + 1e-12:
                out["nominal_reason"] = "speed_off"
            else:
                out["nominal_m"] = level * (on.nominal / speed) ** 2
    if time is not None and lag is not None and time + lag > 0:
        check = 2 * way / (time + lag)
        gap = check / speed - 1
        out["check_speed_kmh"], out["steady_gap"], out["questioned"] = check / KMH, gap, abs(gap) > QUESTIONED + 1e-9
    return out


def along(way: Floats, speed: Floats) -> tuple[Floats, Floats]:
    """Time since the first place [s] and deceleration [m/s²] at places of a stop, (n,) each, n of 2 or more.

    `way` [m] and `speed` [m/s] at the places, (n,) each; between two of them the deceleration is taken to stay, at one it is the mean of
    its two sides. Where the way stands still between two places no time passes.
    """
    step, mean = np.diff(way), (speed[1:] + speed[:-1]) / 2
    took = np.divide(step, mean, out=np.zeros_like(step), where=mean > 0)
    rate = np.divide(-np.diff(speed), took, out=np.zeros_like(step), where=took > 0)
    return np.concatenate(([0.0], np.cumsum(took))), np.concatenate(([rate[0]], (rate[1:] + rate[:-1]) / 2, [rate[-1]]))


def steady(way: float, speed: float, places: int) -> tuple[Floats, Floats]:
    """Way [m] and speed [m/s], (places,) each, of a stop that brakes alike from first to last, evenly in time.

    `way` [m] in all, `speed` [m/s] at its beginning, `places` [how many].
    """
    share = 1 - np.linspace(0.0, 1.0, places)
    return way * (1 - share**2), speed * share


@dataclass(frozen=True)
class Trace:
    """A stop as recorded: times [s], speeds [m/s], and, where they were recorded, ways [m] and decelerations [m/s²]."""

    t: Floats
    v: Floats
    s: Floats | None = None
    a: Floats | None = None
    window: float = 0.3  # s, of the slope: our estimate
    onset_decel: float = 1.0  # m/s²: our estimate
    end_speed: float = 1.0 * KMH

    @cached_property
    def way(self) -> Floats:
        """Way run at the samples [m]: recorded, or the speed summed by trapezoids."""
        if self.s is not None:
            return self.s
        steps = (self.v[1:] + self.v[:-1]) / 2 * np.diff(self.t)
        return np.concatenate([[0.0], np.cumsum(steps)])

    def way_at(self, t: float) -> float:
        """Way run [m] at a time within the trace."""
        k = min(int(np.searchsorted(self.t, t, side="right")) - 1, len(self.t) - 2)
        if self.s is not None:
            return float(np.interp(t, self.t, self.s))
        return float(self.way[k] + (self.v[k] + self.speed_at(t)) / 2 * (t - self.t[k]))

    def speed_at(self, t: float) -> float:
        """Speed [m/s] at a time, straight between the samples."""
        return float(np.interp(t, self.t, self.v))

    def crossing(self, speed: float, first_from: int | None = None) -> tuple[int, float] | None:
        """Where the speed falls through `speed` [m/s]: the last such sample and the time; the first from a sample where one is given."""
        falls = np.flatnonzero((self.v[:-1] >= speed) & (self.v[1:] < speed))
        if first_from is not None:
            falls = falls[falls >= first_from]
        if len(falls) == 0:
            return None
        k = int(falls[0] if first_from is not None else falls[-1])
        share = (self.v[k] - speed) / (self.v[k] - self.v[k + 1])
        return k, float(self.t[k] + share * (self.t[k + 1] - self.t[k]))

    @cached_property
    def decel(self) -> Floats:
        """Deceleration at the samples [m/s²]: recorded, or minus the least-squares slope within the window."""
        if self.a is not None:
            return self.a
        found = np.empty(len(self.t))
        for k, at in enumerate(self.t):
            near = np.flatnonzero(np.abs(self.t - at) <= self.window / 2 + 1e-9)
            if len(near) < 3:
                near = np.arange(max(0, k - 1), min(len(self.t), k + 2))
            t, v = self.t[near] - self.t[near].mean(), self.v[near]
            found[k] = -float(t @ (v - v.mean())) / float(t @ t)
        return found

    def onset(self, trigger: float) -> tuple[float | None, bool]:
        """When braking began [s], and whether it was on from the first sample; back from where 0.8 of the `trigger` is crossed."""
        hit = self.crossing(0.8 * trigger)
        if hit is None or self.decel[hit[0]] < self.onset_decel - 1e-12:
            return None, False
        k = hit[0]
        while k > 0 and self.decel[k - 1] >= self.onset_decel - 1e-12:
            k -= 1
        if k == 0:
            return float(self.t[0]), True
        low, high = self.decel[k - 1], self.decel[k]
        share = (self.onset_decel - low) / (high - low)
        return float(self.t[k - 1] + share * (self.t[k] - self.t[k - 1])), False


BEFORE_S, AFTER_S = 5.0, 1.0  # of a stop's own samples before the trigger and after rest, our estimate


def stops_in(t: Floats, v: Floats, trigger: float, end_speed: float) -> list[tuple[int, int]]:
    """Where stops stand in a recording of a whole drive: (first, last + 1) sample of each that falls through the `trigger` and to rest.

    `t` [s] (N,) rising, `v` [m/s] (N,); `trigger` [m/s]; `end_speed` [m/s]. Source: counting.
    """
    rests = np.flatnonzero((v[:-1] >= end_speed) & (v[1:] < end_speed))
    falls = np.flatnonzero((v[:-1] >= trigger) & (v[1:] < trigger))
    found: list[tuple[int, int]] = []
    before = 0
    for rest in rests:
        own = falls[(falls >= before) & (falls <= rest)]
        if own.size:
            first = max(before, int(np.searchsorted(t, t[own[-1]] - BEFORE_S)))
            last = int(np.searchsorted(t, t[rest + 1] + AFTER_S, side="right"))
            found.append((first, max(last, int(rest) + 2)))
        before = int(rest) + 1
    return found


def stop_trace(trace: Trace, trigger: float, onset_given: float | None, on: Conditions) -> TraceAnswer:
    """A recorded stop: onset, MFDD by UN R13 (from memory), distance, lag, corrections; `reason` for what it cannot tell.

    `trace` [record]; `trigger` [m/s]; `onset_given` [s]; `on` [record].
    """
    start = trace.crossing(trigger)
    if start is None:
        return {
            "reason": "never_through_trigger", "trigger_s": None, "onset_s": None, "end_s": None, "onset_speed_kmh": None,
            "trigger_distance_m": None, "trigger_time_s": None, "distance_m": None, "time_s": None, "mfdd_m_per_s2": None, "mfdd_g": None,
            "lag_s": None, **corrected(None, None, None, None, on),
        }  # fmt: skip
    found, first = trace.onset(trigger)
    onset = found if onset_given is None else onset_given
    reason: Reason | None = None
    if onset_given is None:
        reason = "braking_from_the_first_sample" if first else "no_onset" if found is None else None
    end = trace.crossing(trace.end_speed, first_from=start[0])
    if end is None:
        reason = "never_at_rest"
    speed = None if onset is None else trace.speed_at(onset)
    base = trigger if speed is None else speed
    marks = trace.crossing(0.8 * base), trace.crossing(0.1 * base)
    mfdd = None
    if marks[0] is not None and marks[1] is not None:
        way = trace.way_at(marks[1][1]) - trace.way_at(marks[0][1])
        mfdd = (0.8**2 - 0.1**2) * base**2 / (2 * way) if way > 0 else None
    way_run = time = lag = None
    if end is not None and onset is not None:
        way_run, time = trace.way_at(end[1]) - trace.way_at(onset), end[1] - onset
    if way_run is not None and mfdd is not None and speed:
        lag = (way_run - speed**2 / (2 * mfdd)) / speed
    return {
        "reason": reason, "trigger_s": start[1], "onset_s": onset, "end_s": None if end is None else end[1],
        "onset_speed_kmh": None if speed is None else speed / KMH,
        "trigger_distance_m": None if end is None else trace.way_at(end[1]) - trace.way_at(start[1]),
        "trigger_time_s": None if end is None else end[1] - start[1], "distance_m": way_run, "time_s": time, "mfdd_m_per_s2": mfdd,
        "mfdd_g": None if mfdd is None else mfdd / G, "lag_s": lag, **corrected(way_run, speed, time, lag, on),
    }  # fmt: skip


def stop_typed(speed: float, way: float | None, time: float | None, expected_lag: float, on: Conditions) -> TypedAnswer:
    """A stop of three typed numbers: `speed` [m/s], `way` [m], `time` [s]; what was not typed stays unknown.

    `expected_lag` [s]; `on` [record].
    """
    lag = decel = None
    if way is not None and time is not None:
        lag = 2 * way / speed - time
        if speed * time > way:
            decel = speed**2 / (2 * (speed * time - way) * G)
    return {
        "speed_kmh": speed / KMH, "distance_m": way, "time_s": time,
        "decel_by_distance_g": None if way is None else speed**2 / (2 * way * G),
        "decel_by_time_g": None if time is None else speed / (time * G), "lag_s": lag, "decel_g": decel, "mfdd_g": None,
        **corrected(way, speed, time, expected_lag, on),
    }  # fmt: skip

"""Sets of stops against each other: what they show, what they cannot, how many more would tell."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, NotRequired, TypedDict

import numpy as np

from kobrix.core.prove.estimates import Sample, mean_of, t_975, t_beyond
from kobrix.core.prove.stops import BAND

MOST_STOPS = 10_000
LimitedBy = Literal["tyres", "brakes", "push", "cannot_tell"]
LimitedWhy = Literal["locked", "at_predicted_lock", "push_at_limit", "room_to_press"]
PairVerdict = Literal["too_few", "no_scatter", "far_outside_scatter", "likely_real", "inside_scatter"]
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(80)


@dataclass(frozen=True)
class Stop:
    """A typed stop of a set: way [m], speed [m/s]; what else was noted."""

    way: float
    speed: float
    direction: str | None = None
    locked: str | None = None
    push: float | None = None
    mfdd_g: float | None = None
    struck: bool = False


@dataclass(frozen=True)
class StopSet:
    """Stops of one state of the vehicle, what was changed since the set before, and the lock predicted for it [g]."""

    name: str
    stops: list[Stop]
    changed: list[str]
    predicted_lock_g: float | None = None


@lru_cache(maxsize=256)
def best_bias(n: int) -> float:
    """How many standard deviations the best of `n` normal readings lies beyond the mean: n∫zφΦⁿ⁻¹dz [1]."""
    if n < 2:
        return 0.0
    from scipy import integrate, special  # loaded when asked for: it would double the time of a start

    value = integrate.quad(
        lambda z: z * math.exp(-z * z / 2) * special.ndtr(z) ** (n - 1), -12, 12, epsabs=1e-13, epsrel=1e-12, limit=400
    )[0]
    return float(n * value / math.sqrt(2 * math.pi))


def power(effect: float, n: int) -> float:
    """Chance [1] that a two-sided 0.05 t test of two sets of n stops shows a difference of effect standard deviations.

    Noncentral t by integration over the scatter found, which stays finite where tables do not.

    `effect` [standard deviations]; `n` [1].
    """
    from scipy import special

    dof = 2 * n - 2
    shift, edge = effect * math.sqrt(n / 2), t_975(dof)
    ends = special.chdtri(dof, 1 - np.array([1e-14, 1e-3, 0.5, 1 - 1e-3])), special.chdtri(dof, 1e-14)
    bounds = np.array([*ends[0], ends[1]])
    middle, half = (bounds[1:] + bounds[:-1]) / 2, (bounds[1:] - bounds[:-1]) / 2
    q = middle[:, None] + half[:, None] * _NODES
    s = np.sqrt(q / dof)
    density = np.exp((dof / 2 - 1) * np.log(q) - q / 2 - special.gammaln(dof / 2) - dof / 2 * math.log(2))
    seen = special.ndtr(shift - edge * s) + special.ndtr(-shift - edge * s)
    return float(np.sum(half[:, None] * _WEIGHTS * seen * density))


def stops_each(effect: float) -> int | None:
    """Least number of stops each way whose test has a power of 0.8; None above ten thousand.

    `effect` [standard deviations].
    """
    if effect <= 0 or power(effect, MOST_STOPS) < 0.8:
        return None
    low, high = 1, 2
    while power(effect, high) < 0.8:
        low, high = high, min(2 * high, MOST_STOPS)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if power(effect, middle) < 0.8 else (low, middle)
    return high


def doubt_of_difference(sd: float, n: int) -> float:
    """Half the 95 % interval of the difference of two means of as many stops each, both of one scatter.

    `sd` [any unit, the answer's]; `n` [1], at least 2. Source: Student's t with 2n − 2 degrees of freedom.

    >>> round(doubt_of_difference(1.5, 5), 3)
    2.188
    """
    return t_975(2 * n - 2) * sd * math.sqrt(2 / n)


class LeftOut(TypedDict):
    """A stop that does not count, by its place in the set, and why."""

    stop: int
    why: Literal["struck", "speed_off"]


class SetAnswer(TypedDict):
    """One set: how many count, their distances from the nominal speed [m], mean and scatter, and what set them; None where one stop, or
    none, tells nothing."""

    name: str
    n: int
    left_out: list[LeftOut]
    corrected_m: list[float]
    mean_m: float | None
    sd_m: float | None
    se_m: float | None
    dof: int | None
    low_m: float | None
    high_m: float | None
    both_ways: bool
    best_m: float | None
    best_of_bias_m: float | None
    best_expected_m: float | None
    limited_by: LimitedBy
    limited_why: LimitedWhy | None
    locked_share: float | None
    rear_locked: int
    mean_push_n: float | None
    mean_mfdd_g: float | None
    out_minus_back_m: NotRequired[float]


# Two sets by name: how much shorter the second stops [m], its doubt, what that says, and how many stops each way would tell.
PairAnswer = TypedDict(
    "PairAnswer",
    {
        "from": str, "to": str, "shorter_m": float | None, "se_m": float | None, "dof": float | None, "low_m": float | None,
        "high_m": float | None, "p": float | None, "verdict": PairVerdict, "stops_each": int | None, "more_from": int | None,
        "more_to": int | None, "best_claim_m": float | None, "push_differs": bool | None, "cause": str | None,
    },
)  # fmt: skip


class CompareAnswer(TypedDict):
    """stops_compare: the sets, and the pairs of them that were asked."""

    sets: list[SetAnswer]
    pairs: list[PairAnswer]


@dataclass(frozen=True)
class Told:
    """What one set tells."""

    own: StopSet
    counted: list[Stop]
    ways: list[float]
    sample: Sample | None
    push: float | None


def told(own: StopSet, nominal: float) -> tuple[Told, list[LeftOut]]:
    """The counted stops of a set from the `nominal` speed [m/s], and those left out with why.

    `own` [record].
    """
    counted, ways = list[Stop](), list[float]()
    left: list[LeftOut] = []
    for k, stop in enumerate(own.stops):
        if stop.struck:
            left.append({"stop": k, "why": "struck"})
        elif abs(stop.speed / nominal - 1) > BAND + 1e-12:
            left.append({"stop": k, "why": "speed_off"})
        else:
            counted.append(stop)
            ways.append(stop.way * (nominal / stop.speed) ** 2)
    sample = mean_of(ways, [s.direction for s in counted]) if ways else None
    pushes = [s.push for s in counted if s.push is not None]
    return Told(own, counted, ways, sample, float(np.mean(pushes)) if pushes else None), left


def _limited(known: Told, limit: float, share: float | None, mfdd: float | None) -> tuple[LimitedBy, LimitedWhy | None]:
    """Whether the tyres, the brakes or the foot set the stops, and why; limits are our estimate."""
    notes = [s.locked for s in known.counted if s.locked is not None]
    lock = known.own.predicted_lock_g
    if share is not None and share >= 0.5 - 1e-9:
        return "tyres", "locked"
    if mfdd is not None and lock is not None and mfdd >= 0.95 * lock - 1e-9:
        return "tyres", "at_predicted_lock"
    if len(notes) >= 3 and all(n == "none" for n in notes) and known.push is not None:
        hard = known.push >= 0.9 * limit - 1e-9
        return ("brakes", "push_at_limit") if hard else ("push", "room_to_press")
    return "cannot_tell", None


def set_figures(known: Told, left: list[LeftOut], force_limit: float) -> SetAnswer:
    """One set by the names of the open format.

    `known` [record]; `left` [rows]; `force_limit` [N].
    """
    sample, ways = known.sample, known.ways
    notes = [s.locked for s in known.counted if s.locked is not None]
    mfdds = [s.mfdd_g for s in known.counted if s.mfdd_g is not None]
    share = sum(n != "none" for n in notes) / len(notes) if notes else None
    mfdd = float(np.mean(mfdds)) if mfdds else None
    limited = _limited(known, force_limit, share, mfdd)
    low, high = sample.interval if sample else (None, None)
    bias = best_bias(len(ways)) * sample.sd if sample is not None and sample.sd is not None else None
    out: SetAnswer = {
        "name": known.own.name, "n": len(ways), "left_out": left, "corrected_m": ways,
        "mean_m": sample.mean if sample else None, "sd_m": sample.sd if sample else None, "se_m": sample.se if sample else None,
        "dof": sample.dof if sample else None, "low_m": low, "high_m": high,
        "both_ways": sample is not None and sample.out_minus_back is not None, "best_m": min(ways, default=None),
        "best_of_bias_m": bias, "best_expected_m": None if bias is None or sample is None else sample.mean - bias,
        "limited_by": limited[0], "limited_why": limited[1], "locked_share": share,
        "rear_locked": sum(n in ("rear", "both") for n in notes), "mean_push_n": known.push, "mean_mfdd_g": mfdd,
    }  # fmt: skip
    if sample is not None and sample.out_minus_back is not None:
        out["out_minus_back_m"] = sample.out_minus_back
    return out


def pair_figures(one: Told, two: Told, between: list[StopSet], wanted: float | None) -> PairAnswer:
    """Two sets compared: Welch's test, what it says, and how many stops each way would show the difference.

    `one` [record]; `two` [record]; `between` [records]; `wanted` [m].
    """
    best = min(one.ways) - min(two.ways) if one.ways and two.ways else None
    differs = None
    if one.push is not None and two.push is not None:
        differs = abs(two.push / one.push - 1) > 0.10 + 1e-9
    out: PairAnswer = {
        "from": one.own.name, "to": two.own.name, "shorter_m": None, "se_m": None, "dof": None, "low_m": None, "high_m": None, "p": None,
        "verdict": "too_few", "stops_each": None, "more_from": None, "more_to": None, "best_claim_m": best, "push_differs": differs,
        "cause": None,
    }  # fmt: skip
    a, b = one.sample, two.sample
    if a is None or b is None or a.sd is None or b.sd is None or a.se is None or b.se is None:
        return out
    assert a.dof is not None
    assert b.dof is not None
    shorter = a.mean - b.mean
    if a.sd == 0 and b.sd == 0:
        out["verdict"], out["shorter_m"] = "no_scatter", shorter
        return out
    se = math.hypot(a.se, b.se)
    dof = (a.se**2 + b.se**2) ** 2 / (a.se**4 / a.dof + b.se**4 / b.dof)
    half, p = t_975(dof) * se, 2 * t_beyond(abs(shorter) / se, dof)
    verdict: PairVerdict = "far_outside_scatter" if p < 0.001 else "likely_real" if p < 0.05 else "inside_scatter"
    effect = (wanted if wanted is not None else abs(shorter)) / math.sqrt((a.sd**2 + b.sd**2) / 2)
    each = stops_each(effect)
    out |= {
        "shorter_m": shorter, "se_m": se, "dof": dof, "low_m": shorter - half, "high_m": shorter + half, "p": p, "verdict": verdict,
        "stops_each": each, "more_from": None if each is None else max(0, each - a.n),
        "more_to": None if each is None else max(0, each - b.n),
    }  # fmt: skip
    if verdict != "inside_scatter":
        changed = list(dict.fromkeys(what for own in between for what in own.changed))
        out["cause"] = None if not changed else changed[0] if len(changed) == 1 else "several"
    return out

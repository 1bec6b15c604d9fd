"""The stand test before the first drive: what gauges and a ruler say of ratio, booster, bar and valve, and whether to drive."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, TypedDict

import numpy as np

from kobrix.core.figures import EPS, Shown
from kobrix.core.numerics.arrays import Floats
from kobrix.core.prove.estimates import Estimate, Fit, chi2, line, widened

Fitted = Literal["ratio_efficiency", "threshold_n", "gain", "run_out_n", "knee_kpa", "valve_slope", "bar_front_share"]
KneeReason = Literal["rear_differs", "no_knee_seen"]
OFF: dict[str, float] = {"ratio_efficiency": 0.10, "gain": 0.10, "run_out_n": 0.10}  # shares: our estimate
OFF_BY = {"threshold_n": 15.0, "valve_slope": 0.05, "bar_front_share": 0.03}
KNEE_OFF = (200.0, 0.10)  # kPa, share
LOW_PRESSURE, FLOOR = 0.7, 0.85


class LineAnswer(TypedDict):
    """An axle's line: pressure by push."""

    slope_kpa_per_n: Shown
    threshold_n: Shown


class ValveAnswer(TypedDict):
    """A seen valve."""

    knee_kpa: Shown
    slope: Shown


class Compared(TypedDict):
    """A fitted figure beside the plan's: whether the plan's lies outside its interval, and further off than is allowed."""

    name: Fitted
    fitted: float
    plan: float
    outside: bool
    off: bool


@dataclass(frozen=True)
class Read:
    """Readings of one axle's gauge while it presses: pushes [N], pressures [kPa], their doubt [kPa]."""

    force: Floats
    pressure: Floats
    sigma: float


@dataclass(frozen=True)
class Line:
    """The fitted line of an axle: slope [kPa/N] and threshold [N] of its first part, run-out [N] and gain where it breaks."""

    slope: Estimate
    threshold: Estimate
    at: Fit
    run_out: Estimate | None = None
    gain: Estimate | None = None
    second: Estimate | None = None

    @property
    def broken(self) -> bool:
        """Whether it breaks in two."""
        return self.run_out is not None

    def figures(self) -> LineAnswer:
        """By the names of the open format."""
        return {"slope_kpa_per_n": self.slope.figures(), "threshold_n": self.threshold.figures()}


def straight(read: Read) -> Line | None:
    """One line p = m·F + c; None without two different forces.

    `read` [record].
    """
    if len(read.force) < 2:
        return None
    fit = line(read.force, read.pressure, read.sigma)
    if fit is None or fit.values[1] == 0:
        return None
    c, m = (float(v) for v in fit.values)
    return Line(fit.one(1), fit.derived(-c / m, (-1 / m, c / m**2)), fit)


def broken(read: Read, one: Line) -> Line:
    """The line broken in two where that fits better by χ²(0.99, 2): a booster that runs out; else the one line.

    `read` [record]; `one` [record].
    """
    force, pressure = read.force, read.pressure
    best: tuple[float, Fit, Fit, int] | None = None
    for j in range(2, len(force) - 1):
        if len(set(force[:j])) < 2 or len(set(force[j:])) < 2:
            continue
        low, high = line(force[:j], pressure[:j], read.sigma), line(force[j:], pressure[j:], read.sigma)
        if low is None or high is None or not high.values[1] < low.values[1]:
            continue
        cross = (high.values[0] - low.values[0]) / (low.values[1] - high.values[1])
        if not force[j - 1] - EPS <= cross <= force[j] + EPS:
            continue
        misfit = low.misfit + high.misfit
        if best is None or misfit < best[0] - EPS:
            best = (misfit, low, high, j)
    if best is None or one.at.misfit - best[0] < chi2(0.99, 2):
        return one
    columns = []
    for fit, part in ((best[1], force[: best[3]]), (best[2], force[best[3] :])):
        x = np.column_stack([np.ones(len(part)), part])
        columns.append((fit.values, np.linalg.inv(x.T @ x / read.sigma**2)))
    values = np.concatenate([columns[0][0], columns[1][0]])
    inverse = np.zeros((4, 4))
    inverse[:2, :2], inverse[2:, 2:] = columns[0][1], columns[1][1]
    whole = widened(values, inverse, best[0], len(force), 4)
    c1, m1, c2, m2 = (float(v) for v in values)
    cross, d = (c2 - c1) / (m1 - m2), m1 - m2
    return Line(
        whole.one(1), whole.derived(-c1 / m1, (-1 / m1, c1 / m1**2, 0, 0)), whole,
        whole.derived(cross, (-1 / d, -cross / d, 1 / d, cross / d)), whole.derived(m1 / m2, (0, 1 / m2, 0, -m1 / m2**2)), whole.one(3),
    )  # fmt: skip


@dataclass(frozen=True)
class Knee:
    """What two gauges say of a valve: `knee` [kPa] and `slope` where one is seen, else the `reason`; how far was `seen` [kPa]."""

    knee: Estimate | None
    slope: Estimate | None
    reason: KneeReason | None
    seen: float | None


def knee_of(front: Floats, rear: Floats, sigma: float) -> Knee:
    """A proportioning valve's knee and slope from pairs of pressures [kPa], sorted; `sigma` [kPa] of their difference.

    `front` [kPa]; `rear` [kPa].
    """
    n = len(front)
    if n < 2:
        return Knee(None, None, "rear_differs" if n and _differs(front, rear, sigma) else "no_knee_seen", None)
    none = float(np.sum(((rear - front) / sigma) ** 2))
    best: tuple[float, Floats, int] | None = None
    for j in range(n - 1):
        x, y = front[j:], rear[j:]
        fit = line(x, y, sigma) if len(set(x)) > 1 else None
        if fit is None:
            continue
        a, s = (float(v) for v in fit.values)
        if not -0.1 <= s < 1:
            continue
        knee, low = a / (1 - s), float(front[j - 1]) if j else 0.0
        if not low - EPS <= knee <= float(front[j]) + EPS:
            continue
        misfit = float(np.sum(((rear[:j] - front[:j]) / sigma) ** 2)) + fit.misfit
        if best is None or misfit < best[0] - EPS:
            best = (misfit, fit.values, j)
    seen = float(front.max())
    if best is not None and none - best[0] >= chi2(0.99, 2):
        x = np.column_stack([np.ones(n - best[2]), front[best[2] :]])
        whole = widened(best[1], np.asarray(np.linalg.inv(x.T @ x / sigma**2), dtype=np.float64), best[0], n, 2)
        a, s = (float(v) for v in best[1])
        found = whole.derived(a / (1 - s), (1 / (1 - s), a / (1 - s) ** 2))
        if found.low > 0:
            return Knee(found, whole.one(1), None, seen)
    return Knee(None, None, "rear_differs" if none > chi2(0.99, n) else "no_knee_seen", seen)


def _differs(front: Floats, rear: Floats, sigma: float) -> bool:
    return float(np.sum(((rear - front) / sigma) ** 2)) > chi2(0.99, len(front))


def against(name: Fitted, fitted: Estimate | None, plan: float | None) -> Compared | None:
    """A fitted figure against the plan's; None where either is not known.

    `name` [name]; `fitted` [record]; `plan` [its unit].
    """
    if fitted is None or plan is None:
        return None
    gap = abs(fitted.value - plan)
    if name == "knee_kpa":
        limit = max(KNEE_OFF[0], KNEE_OFF[1] * abs(plan))
    else:
        limit = OFF_BY[name] if name in OFF_BY else OFF[name] * abs(plan)
    outside = not fitted.low <= plan <= fitted.high
    return {"name": name, "fitted": fitted.value, "plan": plan, "outside": outside, "off": gap > limit + EPS}


def product(a: Estimate, b: Estimate, p: float, q: float) -> tuple[Estimate, Estimate]:
    """Sum p·a + q·b of two independent slopes, and a's share of it; the larger factor of both.

    `a` [record]; `b` [record]; `p` [any]; `q` [any].
    """
    k, whole = max(a.k, b.k), p * a.value + q * b.value
    total = Estimate(whole, math.hypot(p * a.se, q * b.se), k)
    share = p * a.value / whole
    spread = math.hypot(p * q * b.value / whole**2 * a.se, p * q * a.value / whole**2 * b.se)
    return total, Estimate(share, spread, k)


def cut_in(forces: Sequence[float], readings: Sequence[float | None], pressing: float) -> list[float] | None:
    """Between which pushes [N] a gauge begins to press: the greatest below that reads none, and the first that presses.

    `forces` [N]; `readings` [kPa]; `pressing` [kPa].
    """
    first = next((f for f, p in zip(forces, readings, strict=True) if p is not None and p > pressing), None)
    if first is None:
        return None
    below = [f for f, p in zip(forces, readings, strict=True) if p is not None and p <= pressing and f < first]
    return [max(below), first] if below else None


def valve_figures(knee: Knee) -> ValveAnswer | None:
    """A seen valve by the names of the open format.

    `knee` [record].
    """
    if knee.knee is None or knee.slope is None:
        return None
    return {"knee_kpa": knee.knee.figures(), "slope": knee.slope.figures()}

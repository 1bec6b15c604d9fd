"""Figures with their doubt: straight fits, means, and the 95 % intervals of both."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np

from kobrix.core.figures import Shown
from kobrix.core.numerics.arrays import Floats

Z_975 = NormalDist().inv_cdf(0.975)


@dataclass(frozen=True)
class Estimate:
    """A `value`, its standard error, and how many of them its 95 % interval reaches to each side."""

    value: float
    se: float
    k: float = Z_975

    @property
    def low(self) -> float:
        """Lower end of the 95 % interval."""
        return self.value - self.k * self.se

    @property
    def high(self) -> float:
        """Upper end of the 95 % interval."""
        return self.value + self.k * self.se

    def times(self, factor: float) -> "Estimate":
        """The estimate in another unit."""
        return Estimate(self.value * factor, abs(factor) * self.se, self.k)

    def figures(self) -> Shown:
        """By the names of the open format."""
        return {"value": self.value, "se": self.se, "low": self.low, "high": self.high}


def shown(estimate: Estimate | None) -> Shown | None:
    """An estimate by the names of the open format, None for none.

    `estimate` [record].
    """
    return None if estimate is None else estimate.figures()


def chi2(share: float, count: int) -> float:
    """Quantile of χ² at a `share` [1] with count degrees of freedom.

    `count` [1].
    """
    from scipy.special import chdtri  # loaded when asked for, as every one of scipy: it would double the time of a start

    return float(chdtri(count, 1 - share))


def t_975(dof: float) -> float:
    """How many standard errors a 95 % interval reaches to each side: Student's t.

    `dof` [degrees of freedom]. Source: published, 10 readings: 2.262157.

    >>> round(t_975(9), 6)
    2.262157
    """
    from scipy.special import stdtrit

    return float(stdtrit(dof, 0.975))


def t_beyond(t: float, dof: float) -> float:
    """Chance [1] of a Student's t above `t` [1].

    `dof` [degrees of freedom].
    """
    from scipy.special import stdtr

    return float(stdtr(dof, -t))


@dataclass(frozen=True)
class Fit:
    """A least-squares fit: `values` (p), their covariance (p, p), the misfit Q = Σ(residual/σ)², and the interval's factor."""

    values: Floats
    cov: Floats
    misfit: float
    k: float

    def one(self, place: int) -> Estimate:
        """The estimate of one of its values."""
        return Estimate(float(self.values[place]), math.sqrt(max(0.0, float(self.cov[place, place]))), self.k)

    def derived(self, value: float, slopes: Sequence[float]) -> Estimate:
        """An estimate of what is worked out from the values; `slopes` are its derivatives by them: first-order propagation."""
        g = np.asarray(slopes, dtype=np.float64)
        return Estimate(value, math.sqrt(max(0.0, float(g @ self.cov @ g))), self.k)


def widened(values: Floats, inverse: Floats, misfit: float, n: int, p: int) -> Fit:
    """The fit rule: where the readings scatter more than stated, the covariance is widened by Q/(n − p) and t takes z's place.

    Common practice (weighted least squares with stated doubts).

    `values` [any] (n); `inverse` [any] (p, p); `misfit` [1]; `n` [1]; `p` [1].
    """
    if n > p and misfit / (n - p) > 1.0:
        return Fit(values, inverse * (misfit / (n - p)), misfit, t_975(n - p))
    return Fit(values, inverse, misfit, Z_975)


def least_squares(columns: Floats, y: Floats, sigma: float) -> Fit | None:
    """Fit of y (n) by columns (n, p) with one stated doubt sigma; None where the columns cannot be told apart.

    `columns` [any] (n, p); `y` [any] (n); `sigma` [unit of the reading].
    """
    n, p = columns.shape
    normal = columns.T @ columns / sigma**2
    if n < p or np.linalg.matrix_rank(columns) < p:
        return None
    inverse: Floats = np.asarray(np.linalg.inv(normal), dtype=np.float64)
    values: Floats = np.asarray(np.linalg.lstsq(columns, y, rcond=None)[0], dtype=np.float64)
    misfit = float(np.sum(((y - columns @ values) / sigma) ** 2))
    return widened(values, inverse, misfit, n, p)


def line(x: Floats, y: Floats, sigma: float) -> Fit | None:
    """Straight line y = a + b·x with one stated doubt: values (a, b); None without two different x.

    `x` [any] (n); `y` [any] (n); `sigma` [unit of the reading].
    """
    x = np.asarray(x, dtype=np.float64)
    return least_squares(np.column_stack([np.ones(len(x)), x]), np.asarray(y, dtype=np.float64), sigma)


@dataclass(frozen=True)
class Sample:
    """Mean of a handful of readings: n, its standard deviation, standard error and degrees of freedom; None where one tells none."""

    n: int
    mean: float
    sd: float | None
    se: float | None
    dof: int | None
    out_minus_back: float | None = None

    @property
    def interval(self) -> tuple[float | None, float | None]:
        """The 95 % t-interval of the mean."""
        if self.se is None or self.dof is None:
            return None, None
        half = t_975(self.dof) * self.se
        return self.mean - half, self.mean + half


def mean_of(values: Sequence[float], directions: Sequence[str | None]) -> Sample:
    """Mean of values; driven both ways with every direction known, the mean of the two means, the scatter pooled within them.

    `values` [any] (n); `directions` [out or back, None unknown] (n).
    """
    v = np.asarray(values, dtype=np.float64)
    out, back = (np.array([d == way for d in directions]) for way in ("out", "back"))
    n = len(v)
    if n >= 3 and bool((out | back).all()) and out.any() and back.any():
        a, b = v[out], v[back]
        squares = float(np.sum((a - a.mean()) ** 2) + np.sum((b - b.mean()) ** 2))
        sd = math.sqrt(squares / (n - 2))
        se = sd / 2 * math.sqrt(1 / len(a) + 1 / len(b))
        return Sample(n, float(a.mean() + b.mean()) / 2, sd, se, n - 2, float(a.mean() - b.mean()))
    if n < 2:
        return Sample(n, float(v.mean()), None, None, None)
    sd = float(v.std(ddof=1))
    return Sample(n, float(v.mean()), sd, sd / math.sqrt(n), n - 1)

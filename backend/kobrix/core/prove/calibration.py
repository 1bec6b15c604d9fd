"""What stops and gauges teach the model: friction, efficiency and grip, each one factor for all, with the doubt that is left."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.errors import BadPlace
from kobrix.core.numerics.arrays import Floats
from kobrix.core.prove.estimates import Estimate

FactorName = Literal["friction", "efficiency", "grip"]
FACTORS: tuple[FactorName, ...] = ("friction", "efficiency", "grip")
CLOSE, ROUNDS, STEP = 1e-12, 60, 1e-6
TOLD = 0.1


@dataclass(frozen=True)
class Learned:
    """The `factors` found (3), their covariance (3, 3), the readings' misfit, and the model before and after (n)."""

    factors: Floats
    cov: Floats
    misfit: float
    before: Floats
    after: Floats

    def one(self, place: int) -> Estimate:
        """The estimate of one factor."""
        return Estimate(float(self.factors[place]), math.sqrt(float(self.cov[place, place])))


def learn(model: Callable[[Floats], Floats], readings: Floats, sigma: Floats, priors: Floats) -> Learned:
    """Factors that make the `model` {(3) -> (n)} fit the readings (n) with doubts sigma (n) and priors 1 ± sd (3).

    Least Σ(residual/σ)² + Σ((factor − 1)/prior)² by Gauss-Newton from 1, derivatives by central differences. Common practice.

    `readings` [g or kPa] (n); `sigma` [unit of the reading]; `priors` [1] (3).
    """
    factors = np.ones(3)
    before = model(factors)
    now = before

    def slopes(at: Floats) -> Floats:
        found = np.empty((len(readings), 3))
        for k in range(3):
            up, down = at.copy(), at.copy()
            up[k] += STEP
            down[k] -= STEP
            found[:, k] = (model(up) - model(down)) / (2 * STEP)
        return found

    for _ in range(ROUNDS):
        jacobian = np.vstack([slopes(factors) / sigma[:, None], np.diag(1 / priors)])
        missing = np.concatenate([(readings - now) / sigma, (1 - factors) / priors])
        step = np.linalg.lstsq(jacobian, missing, rcond=None)[0]
        factors = factors + step
        now = model(factors)
        if not (np.isfinite(now).all() and np.isfinite(factors).all() and (factors > 0).all()):
            raise BadPlace("stops", "the readings lie so far from the model that no factors fit them.")
        if float(np.max(np.abs(step))) < CLOSE:
            break
    jacobian = np.vstack([slopes(factors) / sigma[:, None], np.diag(1 / priors)])
    misfit = float(np.sum(((readings - now) / sigma) ** 2))
    return Learned(factors, np.asarray(np.linalg.inv(jacobian.T @ jacobian), dtype=np.float64), misfit, before, now)


def lag(prior: tuple[float, float], readings: list[float], sigma: float) -> Estimate:
    """Lag [s]: the normal mean of a prior (value, sd) and readings ± sigma.

    `prior` [s]; `readings` [g or kPa] (n); `sigma` [unit of the reading].
    """
    weights = np.array([1 / prior[1] ** 2, *([1 / sigma**2] * len(readings))])
    values = np.array([prior[0], *readings])
    return Estimate(float(weights @ values / weights.sum()), 1 / math.sqrt(float(weights.sum())))

"""How sure a figure is: seeded trials on the same chain, every uncertain entry drawn at once."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats

Shape = Literal["uniform", "normal"]


@dataclass(frozen=True)
class Spread:
    """Figures of many trials: `p5`, `p50`, `p95` and `sd` [the figure's unit]."""

    p5: float
    p50: float
    p95: float
    sd: float


def draws(values: dict[str, float], plus_minus: dict[str, float], samples: int, seed: int, shape: Shape) -> dict[str, Floats]:
    """`samples` [1] of each of `values` {name: [its unit]} within `plus_minus` {name: [same]}.

    `shape` [name] uniform: ± is the half width; normal: ± is one standard deviation. The same `seed` [1] gives the same
    draws. Source: Monte Carlo.
    """
    random = np.random.default_rng(seed)
    found: dict[str, Floats] = {}
    for name, width in plus_minus.items():
        unit = random.standard_normal(samples) if shape == "normal" else random.uniform(-1.0, 1.0, samples)
        found[name] = values[name] + width * unit
    return found


def three_point(least: float, usual: float, most: float, luck: Floats) -> Floats:
    """Values [any] between `least` [same] and `most` [same], most often near the `usual` [same], for even draws `luck` [1] (N,).

    The inverse of a beta distribution with 1 + 4(usual − least)/span and 1 + 4(most − usual)/span. Source: PERT, common practice.
    """
    from scipy.special import betaincinv  # loaded when something is doubted: it would double the time of a start

    span = most - least
    return np.asarray(least + span * betaincinv(1.0 + 4.0 * (usual - least) / span, 1.0 + 4.0 * (most - usual) / span, luck))


def standard_deviation(plus_minus: float, shape: Shape) -> float:
    """Standard deviation [same] of a `plus_minus` [any] of a `shape` [name]. Source: uniform distribution, ±/√3."""
    return plus_minus if shape == "normal" else plus_minus / float(np.sqrt(3.0))


def spread(figures: Floats) -> Spread:
    """Percentiles (linear) and standard deviation [record] of `figures` [any] (N,). Source: NumPy's percentile, linear."""
    p5, p50, p95 = np.percentile(figures, [5.0, 50.0, 95.0])
    return Spread(float(p5), float(p50), float(p95), float(np.std(figures, ddof=1)))

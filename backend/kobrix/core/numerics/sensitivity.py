"""Which entry a figure hangs on: rank correlations of seeded trials, and the first order from slopes."""

import numpy as np

from kobrix.core.numerics.arrays import Floats


def rank(drawn: Floats, figures: Floats) -> float:
    """Spearman's rank correlation [1] of a `drawn` [any] entry with `figures` [any], both (N,); 0 where one never changes.

    Source: Spearman.
    """
    return float(ranks(drawn[:, None], figures)[0])


def ranks(drawn: Floats, figures: Floats) -> Floats:
    """Spearman's rank correlation [1] (M,) of each of the `drawn` [any] entries (N, M) with `figures` [any] (N,).

    Source: Spearman: the correlation of the ranks.
    """
    from scipy.stats import rankdata  # loaded when something is doubted: it would double the time of a start

    own, theirs = rankdata(drawn, axis=0), rankdata(figures)
    own, theirs = own - own.mean(axis=0), theirs - theirs.mean()
    size = np.sqrt((own**2).sum(axis=0) * (theirs**2).sum())
    return np.asarray(np.where(size > 0.0, (own * theirs[:, None]).sum(axis=0) / np.where(size > 0.0, size, 1.0), 0.0))


def first_order(slopes: dict[str, float], deviations: dict[str, float]) -> float:
    """First-order standard deviation √Σ(∂f/∂x·s)² of a figure [its unit].

    `slopes` {name: [unit per unit]}; `deviations` {name: [its unit]}. Source: propagation of uncertainty.
    """
    return float(np.sqrt(sum((slopes[name] * s) ** 2 for name, s in deviations.items())))

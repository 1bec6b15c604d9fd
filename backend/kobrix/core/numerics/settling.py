"""How much of the doubt about a yes or no goes when one entry is measured: trials split at the thirds of its draw."""

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask

_PARTS = 3


def thirds(own: Floats, broken: Mask) -> Floats:
    """Share of `broken` [yes or no] (N,) trials in each third of an entry's draws `own` [1] (N,), (3,). Source: counting."""
    part = np.minimum((own * _PARTS).astype(np.int64), _PARTS - 1)
    count = np.bincount(part, minlength=_PARTS)
    return np.where(count > 0, np.bincount(part, broken, _PARTS) / np.maximum(count, 1), float(np.mean(broken)))


def settles(own: Floats, broken: Mask) -> float:
    """Share [1] of the doubt about `broken` [yes or no] (N,) that goes with an entry drawn as `own` [1] (N,).

    mean((c_k − c)²)/(c(1 − c)), c_k the share in the thirds of the draw; 0 where nothing is in doubt. Source: analysis of variance.
    """
    whole = float(np.mean(broken))
    doubt = whole * (1.0 - whole)
    return 0.0 if doubt <= 0.0 else float(np.mean((thirds(own, broken) - whole) ** 2)) / doubt

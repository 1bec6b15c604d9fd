"""How much of the doubt about a yes or no goes when one entry is measured: trials split at the thirds of its draw."""

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask

_PARTS = 3


def thirds(own: Floats, broken: Mask) -> Floats:
    """Share of `broken` [yes or no] (N,) trials in each third of the draws `own` [1] (..., N) of entries, (..., 3). Source: counting."""
    part = np.minimum((own * _PARTS).astype(np.int64), _PARTS - 1)
    inside = np.stack([part == number for number in range(_PARTS)], axis=-2)
    count = np.count_nonzero(inside, axis=-1)
    return np.where(count > 0, np.count_nonzero(inside & broken, axis=-1) / np.maximum(count, 1), float(np.mean(broken)))


def settles(own: Floats, broken: Mask) -> Floats:
    """Share [1] (...) of the doubt about `broken` [yes or no] (N,) that goes with each of the entries drawn as `own` [1] (..., N).

    mean((c_k − c)²)/(c(1 − c)), c_k the share in the thirds of the draw; 0 where nothing is in doubt. Source: analysis of variance.
    """
    whole = float(np.mean(broken))
    doubt = whole * (1.0 - whole)
    gone = np.mean((thirds(own, broken) - whole) ** 2, axis=-1)
    return np.asarray(gone / doubt if doubt > 0.0 else np.zeros_like(gone))

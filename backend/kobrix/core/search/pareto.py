"""What a search keeps: which limit a combination broke first, how many broke only that, and what nothing beats."""

import numpy as np
from numpy.typing import NDArray

from kobrix.core.numerics.arrays import Floats, Mask

# Why a combination falls, in the order it is asked: what is cheap first; each is counted at the first that it breaks.
LIMITS = ("no_stop", "rear_first", "early_lock", "effort", "travel", "stroke", "wheel_room", "slippery", "sharing",
          "lost_circuit", "price")  # fmt: skip
BIT = {name: np.uint16(1 << n) for n, name in enumerate(LIMITS)}
_FIRST = np.array([next((n for n in range(len(LIMITS)) if bits >> n & 1), len(LIMITS)) for bits in range(1 << len(LIMITS))])


def beyond_band(least: Floats, effort: Floats, low: float, good: float) -> Floats:
    """How far [N] the push lies outside the good band, from `least` [N] to `effort` [N], `low` [N] to `good` [N].

    Any shape. Source: model.
    """
    return np.maximum(0.0, np.maximum(low - least, effort - good))


def non_dominated(costs: Floats) -> Mask:
    """Which of `costs` [any] (N, M), the less the better each, no other beats: none as good in all and better in one.

    Source: the definition, in blocks against what was not beaten before, least sums first.
    """
    count = costs.shape[0]
    kept = np.ones(count, dtype=bool)
    if count == 0:
        return kept
    ranks = np.stack([np.unique(column, return_inverse=True)[1] for column in costs.T], axis=1).astype(np.int32)
    order = np.argsort(ranks.sum(axis=1), kind="stable")  # whoever beats another has the lower sum
    front = np.empty((0, costs.shape[1]), dtype=np.int32)
    waiting = order
    while waiting.size:
        head, waiting = waiting[:128], waiting[128:]
        own = ranks[head]
        beaten = _dominated(own, own)
        kept[head[beaten]] = False
        front = own[~beaten]
        stay = ~_dominated(ranks[waiting], front)
        kept[waiting[~stay]] = False
        waiting = waiting[stay]
    return kept


def _dominated(some: NDArray[np.int32], by: NDArray[np.int32]) -> Mask:
    """Which rows of `some` a row of `by` beats."""
    found = np.zeros(some.shape[0], dtype=bool)
    step = max(1, 4_000_000 // max(1, by.size))
    for first in range(0, some.shape[0], step):
        own = some[first : first + step, None, :]
        as_good, better = np.all(by <= own, axis=2), np.any(by < own, axis=2)
        found[first : first + step] = np.any(as_good & better, axis=1)
    return found


def first_broken(broken: NDArray[np.uint16]) -> NDArray[np.int64]:
    """Number [1] of the first limit of LIMITS among the bits `broken` [1], their count where none is. Any shape. Source: order."""
    return np.asarray(_FIRST[broken])


def tally(broken: NDArray[np.uint16]) -> tuple[NDArray[np.int64], dict[str, int]]:
    """How many of the bits `broken` [1] fall first at each limit, those that break none last; and at each limit alone.

    Any shape. Source: counting.
    """
    counts = np.bincount(broken.ravel(), minlength=_FIRST.size)
    first = np.bincount(_FIRST, weights=counts, minlength=len(LIMITS) + 1).astype(np.int64)
    return first, {name: int(counts[bit]) for name, bit in BIT.items()}


def only_broken(broken: NDArray[np.uint16], name: str) -> Mask:
    """Where the bits `broken` [1] are those of the limit by `name` [text] alone. Any shape. Source: definition."""
    return np.asarray(broken == BIT[name])

"""The number type of the core, and the few array helpers that every subject needs."""

from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Number = float | Floats
Mask = NDArray[np.bool_]


def lookup(table: Floats, index: NDArray[np.int64], fraction: Floats) -> Floats:
    """Values between two knots of `table` [any] (..., K): at knot `index` [1] (..., S) plus `fraction` [1] of the step.

    A fraction above 1 at the last step follows the last straight part outwards. Units are the table's [any].
    """
    low, high = at_step(table[..., :-1], index), at_step(table[..., 1:], index)
    return np.asarray(low + fraction * (high - low), dtype=np.float64)


def ratio(top: Number, bottom: Number) -> Floats:
    """`top`/`bottom` [any], and 0 where `bottom` is 0: the share of nothing."""
    top_, bottom_ = np.asarray(top, dtype=np.float64), np.asarray(bottom, dtype=np.float64)
    return np.divide(top_, bottom_, out=np.zeros(np.broadcast_shapes(top_.shape, bottom_.shape)), where=bottom_ != 0)


def last_axis(*parts: Any) -> Floats:
    """The `parts` [any] of any shape joined along the last axis, after broadcasting the axes in front of it."""
    arrays = [np.atleast_1d(np.asarray(part, dtype=np.float64)) for part in parts]
    front = np.broadcast_shapes(*(a.shape[:-1] for a in arrays))
    return np.concatenate([np.broadcast_to(a, (*front, a.shape[-1])) for a in arrays], axis=-1)


def per_line(value: Number) -> Floats:
    """`value` [any] without its last axis of length 1 (a figure that holds for a whole line); a scalar stays."""
    array = np.asarray(value, dtype=np.float64)
    return array[..., 0] if array.ndim else array


def at_step(steps: Floats, knot: NDArray[np.int64]) -> Floats:
    """Values of `steps` (..., K−1) [any] on the straight parts numbered `knot` [1] (..., S)."""
    if steps.ndim == 1:
        return steps[knot]
    if knot.size == knot.shape[-1]:  # the same places on every line
        picked = steps[..., knot.reshape(-1)]
        return picked.reshape((1,) * (knot.ndim - picked.ndim) + picked.shape)
    if steps.size == steps.shape[-1]:  # one line, many places
        picked = steps.reshape(-1)[knot]
        return picked.reshape((1,) * (steps.ndim - picked.ndim) + picked.shape)
    shape = np.broadcast_shapes(steps.shape[:-1], knot.shape[:-1])
    full = np.broadcast_to(steps, (*shape, steps.shape[-1]))
    return np.take_along_axis(full, np.broadcast_to(knot, (*shape, knot.shape[-1])), axis=-1)

"""The number type of the core, and the few array helpers that every subject needs."""

import math
from collections.abc import Sequence
from functools import lru_cache
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Number = float | Floats
Mask = NDArray[np.bool_]
_ROUNDING = 1e-12
_SMALL = 4096  # numbers that are copied sooner than a view of them is made
Scalar = TypeVar("Scalar", bound=np.generic)


def at_step(steps: Floats, knot: NDArray[np.int64]) -> Floats:
    """Values of `steps` (..., K−1) [any] on the straight parts numbered `knot` [1] (..., S); leading axes broadcast."""
    if steps.ndim == 1:
        return steps[knot]
    if knot.ndim == 1 or knot.size == knot.shape[-1]:  # the same places on every line
        picked = steps[..., knot.reshape(-1)]
        return picked if picked.ndim >= knot.ndim else picked.reshape((1,) * (knot.ndim - picked.ndim) + picked.shape)
    flat, where = _flat(steps, knot)
    return flat.take(where)


def _flat(table: Floats, knot: NDArray[np.int64]) -> tuple[Floats, NDArray[np.int64]]:
    """The `table` (..., K) as one row, and where in it the places `knot` (..., S) of each line are."""
    front, size = table.shape[:-1], table.shape[-1]
    shape = front if front[-knot.ndim + 1 :] == knot.shape[:-1] else np.broadcast_shapes(front, knot.shape[:-1])
    flat = as_shape(table, (*shape, size)).reshape(-1)
    return flat, (_starts(shape, size) if flat.size <= _SMALL else _begins(shape, size)) + knot


def _begins(shape: tuple[int, ...], size: int) -> NDArray[np.int64]:
    """Where each line of `shape` lines of `size` begins in one row of them all."""
    return np.arange(0, math.prod(shape) * size, size, dtype=np.int64).reshape((*shape, 1))


_starts = lru_cache(maxsize=256)(_begins)  # the few shapes of one setup come again and again


def as_shape(array: NDArray[Scalar], shape: tuple[int, ...]) -> NDArray[Scalar]:
    """The `array` [any] broadcast to a `shape` [1], itself where it has that shape."""
    if array.shape == shape:
        return array
    if math.prod(shape) > _SMALL:
        return np.broadcast_to(array, shape)
    filled = np.empty(shape, dtype=array.dtype)  # a quarter of the time that a view takes to make
    filled[...] = array
    return filled


def behind_rows(table: Floats, axes: int) -> Floats:
    """The rows of a `table` [any] (R, ..., K) made ready for places of so many `axes` [1] (..., S): ones between the rows and the
    rest, so that the rows never meet the trials or setups that the places have in front."""
    missing = axes - (table.ndim - 1)
    return table if missing <= 0 else table.reshape(table.shape[0], *(1,) * missing, *table.shape[1:])


def healthy(array: Floats) -> Floats:
    """The first of the failures of an `array` [any] (..., C, K), which is none; an array without that axis stays."""
    return array[..., :1, :] if array.ndim > 1 else array


def around(table: Floats, knot: NDArray[np.int64]) -> tuple[Floats, Floats]:
    """Values of `table` [any] (..., K) at the lower and the upper end of the straight parts numbered `knot` [1] (..., S)."""
    if table.ndim == 1 or knot.ndim == 1 or knot.size == knot.shape[-1]:
        return at_step(table[..., :-1], knot), at_step(table[..., 1:], knot)
    flat, where = _flat(table, knot)
    return flat.take(where), flat[1:].take(where)


def at_both(start: Floats, end: Floats, knot: NDArray[np.int64]) -> tuple[Floats, Floats]:
    """As `at_step`, of two tables of one shape: `start` [any] and `end` [any] (..., K−1) at `knot` [1] (..., S)."""
    if start.ndim == 1 or knot.ndim == 1 or knot.size == knot.shape[-1] or start.shape != end.shape:
        return at_step(start, knot), at_step(end, knot)
    flat, where = _flat(start, knot)
    return flat.take(where), as_shape(end, (*where.shape[:-1], end.shape[-1])).reshape(-1).take(where)


def lookup(table: Floats, index: NDArray[np.int64], fraction: Floats) -> Floats:
    """Values between two knots of `table` [any] (..., K): at knot `index` [1] (..., S) plus `fraction` [1] of the step.

    A fraction above 1 at the last step follows the last straight part outwards. Units are the table's [any].
    """
    low, high = around(table, index)
    return np.asarray(low + fraction * (high - low))


def rises(low: Floats, high: Floats) -> Mask:
    """Whether `high` [any] lies above `low` [same] by more than rounding does. Any shape."""
    return np.asarray(high - low > _ROUNDING * np.abs(high))


def ratio(top: Number, bottom: Number) -> Floats:
    """`top`/`bottom` [any], and 0 where `bottom` is 0: the share of nothing."""
    whole = np.asarray(bottom, dtype=np.float64)
    nothing = whole == 0.0
    return np.asarray(np.where(nothing, 0.0, top / np.where(nothing, 1.0, whole)))


def last_axis(*parts: Any) -> Floats:
    """The `parts` [any] of any shape joined along the last axis, after broadcasting the axes in front of it."""
    arrays = [np.asarray(part, dtype=np.float64) for part in parts]
    if all(a.ndim < 2 for a in arrays):
        return np.concatenate([a.reshape(-1) for a in arrays])
    arrays = [np.atleast_1d(a) for a in arrays]
    front = np.broadcast_shapes(*(a.shape[:-1] for a in arrays))
    return np.concatenate([np.broadcast_to(a, (*front, a.shape[-1])) for a in arrays], axis=-1)


def stacked(values: Sequence[Any], axes: int) -> Floats:
    """The `values` [any] side by side along a new first axis, each with `axes` [1] axes behind it."""
    shapes = {getattr(value, "shape", ()) for value in values}
    alike = len(shapes) == 1
    shape = shapes.pop() if alike else np.broadcast_shapes(*shapes)
    whole = (len(values), *(1,) * (axes - len(shape)), *shape)
    if alike:
        return np.array(values, dtype=np.float64).reshape(whole)
    filled = np.empty(whole)
    for row, value in zip(filled, values, strict=True):
        row[...] = value
    return filled


def per_line(value: Number) -> Floats:
    """`value` [any] without its last axis of length 1 (a figure that holds for a whole line); a scalar stays."""
    array = np.asarray(value, dtype=np.float64)
    return array[..., 0] if array.ndim else array

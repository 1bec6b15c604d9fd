"""Records of parts laid over rows: one record whose numbers are columns, so that a chain is solved once for all of them."""

from collections.abc import Sequence
from dataclasses import fields, is_dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.errors import Impossible


def structure_of(record: Any) -> Any:
    """What a `record` [record] is made of, without its numbers: two of one make can stand in one block. Source: structure."""
    if is_dataclass(record) and not isinstance(record, type):
        return (type(record).__name__, *((f.name, structure_of(getattr(record, f.name))) for f in fields(record)))
    if isinstance(record, tuple | list):
        return tuple(structure_of(part) for part in record)
    return record if isinstance(record, str) else record is None


def batched(records: Sequence[Any], rows: NDArray[np.int64]) -> Any:
    """The `records` [record] of one make as one, every number that differs an array (D, 1, 1, 1) by `rows` [1] (D,).

    Raises Impossible where something other than a number differs. Source: structure.
    """
    first = records[0]
    if all(r is first for r in records):
        return first
    if is_dataclass(first) and not isinstance(first, type):
        return replace(first, **{f.name: batched([getattr(r, f.name) for r in records], rows) for f in fields(first)})
    if isinstance(first, tuple):
        return tuple(batched(column, rows) for column in zip(*records, strict=True))
    if isinstance(first, np.ndarray) and first.ndim:
        if all(np.array_equal(first, r) for r in records):
            return first
        raise Impossible("a search", "a valve that senses the load cannot differ between the parts that are tried")
    if isinstance(first, int | float | np.number | np.ndarray) and not isinstance(first, bool):
        values = np.array([float(r) for r in records])
        return first if np.all(values == values[0]) else values[rows].reshape(-1, 1, 1, 1)
    return first  # a word, or whether a caliper is fixed: nothing is reckoned with it


def taken_rows(record: Any, rows: NDArray[np.int64]) -> Any:
    """The `rows` [1] (D,) of a `record` [record] whose arrays are (n, 1, 1, 1). Source: structure."""
    if is_dataclass(record) and not isinstance(record, type):
        return replace(record, **{f.name: taken_rows(getattr(record, f.name), rows) for f in fields(record)})
    if isinstance(record, tuple):
        return tuple(taken_rows(part, rows) for part in record)
    return record[rows] if isinstance(record, np.ndarray) and record.ndim == 4 else record

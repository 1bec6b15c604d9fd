"""Where curves pass what is wanted, in many brackets at once."""

from collections.abc import Callable

import numpy as np

from kobrix.core.numerics.arrays import Floats

_MOST = 64  # looks: a bracket is halved at least as often as that, so by then nothing is left of it
_CUT = 0.2  # of a bracket's width, by which the chord's crossing is first drawn to its middle


def first_over(curve: Callable[[Floats], Floats], low: Floats, high: Floats, wanted: Floats) -> Floats:
    """The end of the bracket `low` [any] to `high` [same] at which a `curve` {places -> values} is `wanted` [of the values] or more,
    to the last digit: as halving finds it, in a third of the looks or fewer where the curve is smooth.

    What is not known (NaN) is not there yet; where the low end is over, it is the low end. Any shape.
    Source: interpolate, truncate, project (Oliveira and Takahashi 2020), from memory.
    """

    def above(place: Floats) -> Floats:
        value = curve(place) - wanted
        return np.where(np.isnan(value), -np.inf, value)

    under, over = above(low), above(high)
    high = np.where(under >= 0.0, low, high)
    width = high - low
    least = 2.0 * np.spacing(np.maximum(np.abs(low), np.abs(high)))
    draws = _CUT / np.where(width > 0.0, width, 1.0)
    for n in range(_MOST):
        width = high - low
        if np.all(width <= least):
            break
        middle = low + 0.5 * width
        with np.errstate(invalid="ignore", divide="ignore"):
            chord = low + width * (under / (under - over))
        chord = np.where(np.isfinite(chord), chord, middle)
        toward, far = np.sign(middle - chord), np.abs(middle - chord)
        cut = np.minimum(draws * width * width, far)
        room = np.maximum(least * 2.0 ** (_MOST - 2 - n) - 0.5 * width, 0.0)  # that halving would not have closed in fewer looks
        place = middle - toward * np.minimum(far - cut, room)
        place = np.clip(place, np.nextafter(low, high), np.nextafter(high, low))
        value = above(place)
        reached = value >= 0.0
        high, over = np.where(reached, place, high), np.where(reached, value, over)
        low, under = np.where(reached, low, place), np.where(reached, under, value)
    return np.asarray(high)

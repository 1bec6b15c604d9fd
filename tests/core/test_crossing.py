"""Where curves pass what is wanted, against plain halving: to the last digits, in fewer looks where a curve is smooth."""

import unittest
from collections.abc import Callable

import numpy as np
from kobrix.core.numerics.arrays import Floats
from kobrix.core.numerics.crossing import first_over

MANY = 400
DRAWN = np.random.default_rng(7)
LOW = DRAWN.uniform(0.0, 40.0, MANY)
HIGH = LOW + DRAWN.uniform(1e-3, 1.0, MANY)
OWN, SHARE = DRAWN.uniform(0.1, 1.9, MANY), DRAWN.uniform(0.01, 1.0, MANY)


def halved(curve: Callable[[Floats], Floats], wanted: Floats) -> Floats:
    """The upper end of the bracket once nothing is left of it."""
    low, high = LOW, HIGH
    for _ in range(80):
        middle = 0.5 * (low + high)
        over = np.nan_to_num(curve(middle), nan=-np.inf) >= wanted
        low, high = np.where(over, low, middle), np.where(over, middle, high)
    return high


class Crossing(unittest.TestCase):
    def agrees(self, curve: Callable[[Floats], Floats], most: int) -> None:
        looks = 0

        def counted(place: Floats) -> Floats:
            nonlocal looks
            looks += 1
            return curve(place)

        first = np.nan_to_num(curve(LOW), nan=-1.0)
        wanted = first + (curve(HIGH) - first) * SHARE
        found = first_over(counted, LOW, HIGH, wanted)
        self.assertTrue(np.all(np.nan_to_num(curve(found), nan=-np.inf) >= wanted))
        np.testing.assert_array_less(np.abs(found - halved(curve, wanted)), 4.0 * np.spacing(found))
        self.assertLessEqual(looks, most)

    def test_what_is_smooth_takes_few_looks(self) -> None:
        self.agrees(lambda x: np.exp(OWN * (x - LOW)) + 1e-3 * x**3, 20)
        self.agrees(lambda x: (x - LOW) ** 9, 26)
        self.agrees(lambda x: np.sqrt(np.maximum(x - LOW, 0.0)), 30)

    def test_leaps_bends_and_what_is_not_known_are_no_worse_than_halving(self) -> None:
        bend = LOW + 0.5 * OWN * (HIGH - LOW)
        self.agrees(lambda x: np.where(x > bend, 5.0, -1.0) + 0.1 * x, 66)
        self.agrees(lambda x: np.maximum(1e-4 * (x - LOW), 1e6 * (x - bend)), 66)
        self.agrees(lambda x: np.where(x < LOW + 0.3 * OWN * (HIGH - LOW), np.nan, 3.0 * (x - LOW)), 66)

    def test_a_bracket_that_is_over_from_its_start_is_its_start(self) -> None:
        low, high = np.array([1.0, 2.0]), np.array([3.0, 2.0])
        np.testing.assert_array_equal(first_over(lambda x: x, low, high, np.array([0.5, 2.0])), low)

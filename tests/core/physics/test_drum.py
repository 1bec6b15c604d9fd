"""The shoe factor: one number refuses a shoe that locks itself, a batch of trials holds it just below."""

import unittest

import numpy as np
from kobrix.core.errors import BadEntry
from kobrix.core.physics.drum import shoe_factor

KINDS = ("leading_trailing", "two_leading", "duo_servo")


class ShoeFactor(unittest.TestCase):
    def test_a_batch_is_the_numbers_one_by_one(self) -> None:
        friction = np.linspace(0.2, 0.7, 6)
        for kind in KINDS:
            told = np.asarray(shoe_factor(kind, friction, 0.8))  # type: ignore[arg-type]
            for value, own in zip(told, friction, strict=True):
                self.assertAlmostEqual(float(value), float(shoe_factor(kind, float(own), 0.8)), places=12)  # type: ignore[arg-type]

    def test_a_shoe_that_locks_itself_is_refused_alone_and_held_at_a_thousandth_below_in_a_batch(self) -> None:
        for kind in KINDS:
            with self.assertRaises(BadEntry):
                shoe_factor(kind, 0.8, 0.8)  # type: ignore[arg-type]
            told = np.asarray(shoe_factor(kind, np.array([0.799, 0.8, 1.4]), np.array([0.8, 0.8, 0.8])))  # type: ignore[arg-type]
            edge = float(shoe_factor(kind, 0.999 * 0.8, 0.8))  # type: ignore[arg-type]
            self.assertLess(told[0], edge)
            self.assertEqual([told[1], told[2]], [edge, edge])


if __name__ == "__main__":
    unittest.main()

"""What stops teach: factors of a straight model against the normal equations, priors that hold, readings that no factors fit."""

import math
import unittest
from collections.abc import Callable

import numpy as np
from kobrix.core.errors import BadPlace
from kobrix.core.numerics.arrays import Floats
from kobrix.core.prove.calibration import lag, learn

Model = Callable[[Floats], Floats]
PRIORS = np.array([0.08, 0.05, 0.05])


class Learning(unittest.TestCase):
    SLOPES = np.array([[0.5, 0.3, 0.0], [0.7, 0.4, 0.0], [0.0, 0.0, 0.8], [0.0, 3000.0, 0.0]])
    SIGMA = np.array([0.02, 0.02, 0.02, 100.0])

    def model(self, factors: Floats) -> Floats:
        return np.asarray(self.SLOPES @ factors)

    def test_a_straight_model_is_the_normal_equations(self) -> None:
        readings = self.model(np.array([1.1, 0.95, 0.9]))
        found = learn(self.model, readings, self.SIGMA, PRIORS)
        whole = np.vstack([self.SLOPES / self.SIGMA[:, None], np.diag(1 / PRIORS)])
        wanted = np.concatenate([readings / self.SIGMA, 1 / PRIORS])
        np.testing.assert_allclose(found.factors, np.linalg.solve(whole.T @ whole, whole.T @ wanted), rtol=1e-9)
        np.testing.assert_allclose(found.cov, np.linalg.inv(whole.T @ whole), rtol=1e-6)
        self.assertAlmostEqual(found.misfit, float(np.sum(((readings - self.model(found.factors)) / self.SIGMA) ** 2)))
        np.testing.assert_allclose(found.before, self.model(np.ones(3)))
        np.testing.assert_allclose(found.after, self.model(found.factors))

    def test_what_no_reading_tells_of_keeps_its_prior(self) -> None:
        found = learn(lambda f: np.array([0.8 * f[2]]), np.array([0.72]), np.array([1e-4]), PRIORS)
        self.assertAlmostEqual(found.one(2).value, 0.9, places=4)
        for place in (0, 1):
            self.assertAlmostEqual(found.one(place).value, 1.0)
            self.assertAlmostEqual(found.one(place).se, PRIORS[place])

    def test_a_product_of_factors_is_split_by_what_was_doubted_more(self) -> None:
        found = learn(lambda f: np.array([f[0] * f[1]]), np.array([1.2]), np.array([1e-6]), PRIORS)
        self.assertAlmostEqual(float(found.factors[0] * found.factors[1]), 1.2, places=6)
        self.assertGreater(found.factors[0] - 1, found.factors[1] - 1)
        self.assertLess(found.cov[0, 1], 0)

    def test_readings_that_no_factors_fit_are_refused(self) -> None:
        below: Model = lambda f: f[:1]  # noqa: E731
        beyond: Model = lambda f: np.where(f[:1] < 1.5, f[:1], np.nan)  # noqa: E731
        for model, reading in ((below, -50.0), (beyond, 2.0)):
            with self.assertRaises(BadPlace) as refused:
                learn(model, np.array([reading]), np.array([1e-6]), PRIORS)
            self.assertEqual(refused.exception.place, "stops")


class Lag(unittest.TestCase):
    def test_the_more_is_read_the_less_the_prior_counts(self) -> None:
        none = lag((0.15, 0.10), [], 0.05)
        self.assertAlmostEqual(none.value, 0.15)
        self.assertAlmostEqual(none.se, 0.10)
        some = lag((0.15, 0.10), [0.30, 0.34], 0.05)
        weight = 1 / 0.01 + 2 / 0.0025
        self.assertAlmostEqual(some.value, (0.15 / 0.01 + 0.64 / 0.0025) / weight)
        self.assertAlmostEqual(some.se, 1 / math.sqrt(weight))


if __name__ == "__main__":
    unittest.main()

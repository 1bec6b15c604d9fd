"""The stand test's fits: lines, breaks and knees found again from what made them, with and without noise; each figure against its plan."""

import math
import unittest
from typing import Any

import numpy as np
from kobrix.core.prove import stand
from kobrix.core.prove.estimates import Estimate
from kobrix.core.prove.stand import Fitted, Read, against, broken, cut_in, knee_of, product, straight
from scipy import stats

FORCE = np.array([50.0, 100.0, 150.0, 200.0, 250.0, 300.0, 350.0])


class OneLine(unittest.TestCase):
    def test_slope_and_threshold_are_those_of_the_line(self) -> None:
        line = straight(Read(FORCE, 22.0 * (FORCE - 18.0), 100.0))
        assert line is not None
        self.assertAlmostEqual(line.slope.value, 22.0)
        self.assertAlmostEqual(line.threshold.value, 18.0)
        # σ/√Σ(F − F̄)²: common practice
        self.assertAlmostEqual(line.slope.se, 100 / math.sqrt(float(np.sum((FORCE - FORCE.mean()) ** 2))))
        self.assertFalse(line.broken)
        self.assertEqual(set(line.figures()), {"slope_kpa_per_n", "threshold_n"})

    def test_a_noisy_one_is_scipy_s_and_its_interval_holds_the_truth(self) -> None:
        draw, held = np.random.default_rng(8), 0
        for _ in range(300):
            pressure = 22.0 * (FORCE - 18.0) + draw.normal(0, 100, len(FORCE))
            line = straight(Read(FORCE, pressure, 100.0))
            assert line is not None
            known = stats.linregress(FORCE, pressure)
            self.assertAlmostEqual(line.slope.value, known.slope)
            self.assertAlmostEqual(line.threshold.value, -known.intercept / known.slope)
            held += line.threshold.low <= 18.0 <= line.threshold.high
        self.assertGreater(held / 300, 0.93)

    def test_one_force_makes_no_line_and_a_level_one_no_threshold(self) -> None:
        self.assertIsNone(straight(Read(FORCE[:1], FORCE[:1], 100.0)))
        self.assertIsNone(straight(Read(np.array([50.0, 50.0]), np.array([900.0, 950.0]), 100.0)))
        self.assertIsNone(straight(Read(FORCE, np.full(7, 0.0), 100.0)))


class Broken(unittest.TestCase):
    def fit(self, pressure: Any, sigma: float = 50.0) -> Any:
        read = Read(FORCE, np.asarray(pressure, dtype=float), sigma)
        one = straight(read)
        assert one is not None
        return broken(read, one)

    def test_run_out_gain_and_threshold_of_a_boosted_line(self) -> None:
        for out in (120.0, 180.0, 225.0, 290.0):
            line = self.fit(np.where(out >= FORCE, 40 * (FORCE - 12), 40 * (out - 12) + 10 * (FORCE - out)))
            self.assertAlmostEqual(line.run_out.value, out, msg=out)
            self.assertAlmostEqual(line.gain.value, 4.0)
            self.assertAlmostEqual(line.slope.value, 40.0)
            self.assertAlmostEqual(line.second.value, 10.0)
            self.assertAlmostEqual(line.threshold.value, 12.0)

    def test_a_line_that_bends_upward_or_hardly_is_one_line(self) -> None:
        self.assertFalse(self.fit(np.where(FORCE <= 200, 10 * FORCE, 2000 + 40 * (FORCE - 200))).broken)
        self.assertFalse(self.fit(20 * FORCE + np.array([30, -30, 30, -30, 30, -30, 30])).broken)

    def test_readings_that_scatter_widen_the_run_out(self) -> None:
        clean = np.where(FORCE <= 200, 40 * (FORCE - 12), 40 * 188 + 10 * (FORCE - 200))
        rough = clean + np.array([90, -90, 90, -90, 90, -90, 90])
        calm, wild = self.fit(clean), self.fit(rough)
        self.assertGreater(wild.run_out.se, 1.5 * calm.run_out.se)
        self.assertGreater(wild.run_out.k, calm.run_out.k)  # t takes the place of z


class Knees(unittest.TestCase):
    FRONT = np.array([800.0, 1600.0, 2400.0, 3600.0, 4800.0, 6000.0])

    def test_knee_and_slope_are_found_again(self) -> None:
        for knee, slope in ((700.0, 0.0), (2000.0, 0.3), (2400.0, 0.43), (3000.0, 0.25), (4000.0, 0.35)):
            found = knee_of(self.FRONT, np.minimum(self.FRONT, knee + slope * (self.FRONT - knee)), 140.0)
            assert found.knee is not None
            assert found.slope is not None
            self.assertAlmostEqual(found.knee.value, knee, msg=(knee, slope))
            self.assertAlmostEqual(found.slope.value, slope)
            self.assertEqual((found.reason, found.seen), (None, 6000.0))
            self.assertEqual(set(stand.valve_figures(found) or {}), {"knee_kpa", "slope"})

    def test_a_knee_beyond_what_was_pressed_is_not_seen(self) -> None:
        found = knee_of(self.FRONT, self.FRONT.copy(), 140.0)
        self.assertEqual((found.knee, found.reason, found.seen), (None, "no_knee_seen", 6000.0))
        self.assertIsNone(stand.valve_figures(found))

    def test_a_rear_that_is_higher_or_lower_all_along_is_told(self) -> None:
        self.assertEqual(knee_of(self.FRONT, self.FRONT + 900, 140.0).reason, "rear_differs")
        self.assertEqual(knee_of(self.FRONT, 1.2 * self.FRONT, 140.0).reason, "rear_differs")
        self.assertEqual(knee_of(self.FRONT[:1], self.FRONT[:1] - 900, 140.0).reason, "rear_differs")
        self.assertEqual(knee_of(self.FRONT[:1], self.FRONT[:1], 140.0).reason, "no_knee_seen")
        self.assertEqual(knee_of(self.FRONT[:0], self.FRONT[:0], 140.0).reason, "no_knee_seen")


class Against(unittest.TestCase):
    def said(self, name: Fitted, fitted: float, plan: float, se: float = 0.0) -> tuple[bool, bool]:
        found = against(name, Estimate(fitted, se), plan)
        assert found is not None
        self.assertEqual((found["name"], found["fitted"], found["plan"]), (name, fitted, plan))
        return found["outside"], found["off"]

    def test_each_figure_s_own_limit_on_both_sides(self) -> None:
        cases: tuple[tuple[Fitted, float, float], ...] = (
            ("ratio_efficiency", 5.0, 0.5), ("gain", 4.0, 0.4), ("run_out_n", 200.0, 20.0), ("threshold_n", 12.0, 15.0),
            ("valve_slope", 0.35, 0.05), ("bar_front_share", 0.6, 0.03), ("knee_kpa", 1000.0, 200.0), ("knee_kpa", 3000.0, 300.0),
        )  # fmt: skip
        for name, plan, limit in cases:
            for sign in (1, -1):
                self.assertEqual(self.said(name, plan + sign * limit * 0.999, plan), (True, False), name)
                self.assertEqual(self.said(name, plan + sign * limit * 1.001, plan), (True, True), name)

    def test_inside_its_interval_it_is_not_outside(self) -> None:
        self.assertEqual(self.said("gain", 4.6, 4.0, se=0.31), (False, True))
        self.assertEqual(self.said("gain", 4.6, 4.0, se=0.30), (True, True))

    def test_what_is_not_known_on_either_side_is_not_held(self) -> None:
        self.assertIsNone(against("gain", None, 4.0))
        self.assertIsNone(against("gain", Estimate(4.0, 0.1), None))


class Bars(unittest.TestCase):
    def test_two_slopes_give_their_sum_and_share(self) -> None:
        total, share = product(Estimate(10.0, 0.2), Estimate(8.0, 0.3, 2.5), 300.0, 250.0)
        self.assertAlmostEqual(total.value, 5000.0)
        self.assertAlmostEqual(share.value, 0.6)
        self.assertEqual((total.k, share.k), (2.5, 2.5))
        draw = np.random.default_rng(2)
        a, b = draw.normal(10.0, 0.2, 200_000), draw.normal(8.0, 0.3, 200_000)
        self.assertAlmostEqual(total.se, float((300 * a + 250 * b).std()), delta=1.0)
        self.assertAlmostEqual(share.se, float((300 * a / (300 * a + 250 * b)).std()), delta=2e-4)


class CutIn(unittest.TestCase):
    def test_between_the_last_that_reads_none_and_the_first_that_presses(self) -> None:
        for readings, expected in (
            ([0.0, 100.0, 900.0, 1000.0], [20.0, 30.0]),
            ([0.0, None, 900.0, 1000.0], [10.0, 30.0]),
            ([0.0, 900.0, 100.0, 1000.0], [10.0, 20.0]),
            ([200.0, 201.0, None, None], [10.0, 20.0]),
            ([201.0, 300.0, 400.0, 500.0], None),
            ([0.0, 10.0, 200.0, None], None),
            ([None, None, None, 900.0], None),
        ):
            self.assertEqual(cut_in([10.0, 20.0, 30.0, 40.0], readings, 200.0), expected, readings)


if __name__ == "__main__":
    unittest.main()

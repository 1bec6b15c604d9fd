"""Small pieces of Prove held alone: the fit rule, means both ways, lines that break, leaks and air."""

import math
import unittest

import numpy as np
from kobrix.core.physics import heat
from kobrix.core.prove.bleeding import Loss, class_of, where_lost
from kobrix.core.prove.calibration import lag
from kobrix.core.prove.compare import best_bias
from kobrix.core.prove.estimates import Z_975, Estimate, line, mean_of
from kobrix.core.prove.stand import Read, broken, cut_in, knee_of, straight
from kobrix.core.prove.stops import along, steady
from scipy import stats


class Along(unittest.TestCase):
    def test_a_steady_stop_keeps_its_time_and_its_deceleration(self) -> None:
        way, speed = steady(30.0, 20.0, 7)
        time, decel = along(way, speed)
        self.assertEqual((way[0], way[-1], speed[0], speed[-1]), (0.0, 30.0, 20.0, 0.0))
        np.testing.assert_allclose(decel, 20.0**2 / 60.0)
        np.testing.assert_allclose(time, np.linspace(0.0, 3.0, 7), atol=1e-12)

    def test_two_halves_braked_unlike_each_have_their_own(self) -> None:
        # 20 to 10 m/s at 2.5 m/s² takes 60 m and 4 s, 10 to 0 at 5 m/s² takes 10 m and 2 s
        time, decel = along(np.array([0.0, 60.0, 60.0, 70.0]), np.array([20.0, 10.0, 10.0, 0.0]))
        np.testing.assert_allclose(time, [0.0, 4.0, 4.0, 6.0])
        np.testing.assert_allclose(decel, [2.5, 1.25, 2.5, 5.0])


class Fits(unittest.TestCase):
    def test_readings_that_scatter_more_than_stated_widen_the_doubt(self) -> None:
        x, y = np.array([0.0, 1.0, 2.0, 3.0]), np.array([0.0, 1.4, 1.6, 3.0])
        calm, wild = line(x, y, 1.0), line(x, y, 0.01)
        assert calm is not None
        assert wild is not None
        self.assertEqual(calm.k, Z_975)
        self.assertAlmostEqual(wild.k, float(stats.t.ppf(0.975, 2)))
        known = stats.linregress(x, y)
        self.assertAlmostEqual(wild.one(1).value, known.slope)
        self.assertAlmostEqual(wild.one(1).se, known.stderr)
        self.assertIsNone(line(np.array([1.0, 1.0]), np.array([1.0, 2.0]), 1.0))

    def test_both_ways_the_road_falls_out(self) -> None:
        found = mean_of([40.0, 44.0, 41.0, 45.0], ["out", "back", "out", "back"])
        self.assertAlmostEqual(found.mean, 42.5)
        self.assertAlmostEqual(found.sd or 0.0, math.sqrt(0.5))
        self.assertEqual((found.dof, found.out_minus_back), (2, -4.0))
        alone = mean_of([40.0], [None])
        self.assertEqual((alone.sd, alone.interval), (None, (None, None)))

    def test_the_best_of_two_and_of_many(self) -> None:
        self.assertAlmostEqual(best_bias(2), 1 / math.sqrt(math.pi), places=9)
        self.assertLess(best_bias(5), best_bias(20))
        self.assertEqual(best_bias(1), 0.0)

    def test_a_lag_between_its_prior_and_its_readings(self) -> None:
        found = lag((0.1, 0.1), [0.3], 0.1)
        self.assertAlmostEqual(found.value, 0.2)
        self.assertAlmostEqual(found.se, 0.1 / math.sqrt(2))


class Stand(unittest.TestCase):
    def test_a_booster_that_runs_out_breaks_the_line(self) -> None:
        force = np.array([50.0, 100.0, 150.0, 250.0, 300.0, 350.0])
        pressure = np.where(force <= 200, 40 * force - 400, 7600 + 8 * (force - 200))
        read = Read(force, pressure, 50.0)
        one = straight(read)
        assert one is not None
        two = broken(read, one)
        assert two.run_out is not None
        assert two.gain is not None
        self.assertAlmostEqual(two.run_out.value, 200.0)
        self.assertAlmostEqual(two.gain.value, 5.0)
        self.assertAlmostEqual(two.threshold.value, 10.0)
        even = Read(force, 20 * force, 50.0)
        plain = straight(even)
        assert plain is not None
        self.assertFalse(broken(even, plain).broken)

    def test_a_valve_s_knee(self) -> None:
        front = np.array([1000.0, 2000.0, 3000.0, 5000.0, 7000.0])
        seen = knee_of(front, np.minimum(front, 2500 + 0.3 * (front - 2500)), 140.0)
        assert seen.knee is not None
        assert seen.slope is not None
        self.assertAlmostEqual(seen.knee.value, 2500.0)
        self.assertAlmostEqual(seen.slope.value, 0.3)
        self.assertEqual(knee_of(front, front, 140.0).reason, "no_knee_seen")
        self.assertEqual(knee_of(front, front + 2000, 140.0).reason, "rear_differs")

    def test_where_a_gauge_begins(self) -> None:
        self.assertEqual(cut_in([10, 20, 30], [0.0, 50.0, 900.0], 200.0), [20, 30])
        self.assertIsNone(cut_in([10, 20], [900.0, 1000.0], 200.0))
        self.assertIsNone(cut_in([10, 20], [0.0, 0.0], 200.0))


class Leaks(unittest.TestCase):
    def test_classes(self) -> None:
        for value, se, kind in (
            (0.01, 0.02, "tight"),
            (0.01, 0.2, "cannot_tell"),
            (0.05, 0.01, "tight"),
            (0.3, 0.05, "seep"),
            (2.0, 0.1, "leak"),
        ):
            self.assertEqual(class_of(Estimate(value, se), 0.06, 0.5), kind)

    def test_one_circuit(self) -> None:
        both: dict[frozenset[str], Loss] = {frozenset(): "leak", frozenset(["circuit"]): "tight"}
        self.assertEqual(where_lost(both, ["circuit"]), "beyond_circuit")
        self.assertEqual(where_lost({}, ["circuit"]), "cannot_tell")


class Cooling(unittest.TestCase):
    ROTOR = heat.Rotor(6.0, 0.15, True)

    def test_a_long_pause_is_as_many_short_ones(self) -> None:
        whole = float(heat.cooled(self.ROTOR, 300.0, 20.0, 600.0, 15.0))
        now = 300.0
        for _ in range(60):
            now = float(heat.cooled(self.ROTOR, now, 20.0, 10.0, 15.0))
        self.assertAlmostEqual(whole, now, places=8)
        self.assertAlmostEqual(float(heat.cooled(self.ROTOR, 300.0, 20.0, 1e7, 15.0)), 20.0, places=8)

    def test_the_time_it_takes(self) -> None:
        time = heat.time_to_cool(self.ROTOR, 300.0, 20.0, 100.0, 15.0)
        assert time is not None
        self.assertAlmostEqual(float(heat.cooled(self.ROTOR, 300.0, 20.0, time, 15.0)), 100.0, places=6)
        self.assertEqual(heat.time_to_cool(self.ROTOR, 90.0, 20.0, 100.0, 15.0), 0.0)
        self.assertIsNone(heat.time_to_cool(self.ROTOR, 300.0, 20.0, 20.0, 15.0))

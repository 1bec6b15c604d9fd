"""The next setting of a valve or bar: the posterior summed another way, its symmetries, its steps and its levels."""

import math
import unittest
from typing import Any

import numpy as np
from kobrix.core.prove import valve_setting
from kobrix.core.prove.valve_setting import Adjuster
from scipy import integrate, special

valve_next: Any = valve_setting.valve_next  # figures by name, of any kind


class Posterior(unittest.TestCase):
    RANGE = Adjuster(0.0, 20.0, 8.0, 1, 1.0)

    def test_it_is_the_integral_over_the_turn_over(self) -> None:
        log = [(6.0, "front"), (9.0, "front"), (13.0, "rear"), (11.0, "both"), (3.0, "none")]

        def density(c: float) -> float:
            rear = {x: float(special.expit(x - c)) for x, _ in log}
            told = 1.0
            for x, what in log:
                p = rear[x]
                told *= {"rear": p, "front": 1 - p, "both": math.sqrt(p * (1 - p)), "none": 1.0}[what]
            return math.exp(-0.5 * ((c - 10.0) / 4.0) ** 2) * told

        whole = integrate.quad(density, 0, 20)[0]
        mean = integrate.quad(lambda c: c * density(c), 0, 20)[0] / whole
        chance = integrate.quad(lambda c: float(special.expit(8.0 - c)) * density(c), 0, 20)[0] / whole
        found = valve_next(self.RANGE, log, (10.0, 4.0), None)
        self.assertAlmostEqual(found["turn_over"]["mean"], mean, places=3)
        self.assertAlmostEqual(found["rear_first_chance_now"], chance, places=3)
        self.assertEqual(found["lock_notes"], 4)

    def test_nothing_known_is_the_whole_range(self) -> None:
        found = valve_next(self.RANGE, [], None, None)["turn_over"]
        self.assertAlmostEqual(found["mean"], 10.0)
        self.assertAlmostEqual(found["median"], 10.0)
        self.assertAlmostEqual(found["sd"], 20 / math.sqrt(12), delta=0.05)
        self.assertAlmostEqual(found["low"], 0.5)
        self.assertAlmostEqual(found["high"], 19.5)

    def test_more_front_is_more_rear_seen_in_a_mirror(self) -> None:
        log = [(6.0, "front"), (13.0, "rear"), (11.0, "both")]
        turned = {"front": "front", "rear": "rear", "both": "both"}
        plain = valve_next(self.RANGE, log, (9.0, 3.0), None)
        mirror = valve_next(Adjuster(0.0, 20.0, 12.0, -1, 1.0), [(20 - x, turned[w]) for x, w in log], (11.0, 3.0), None)
        self.assertAlmostEqual(mirror["rear_first_chance_now"], plain["rear_first_chance_now"])
        self.assertAlmostEqual(mirror["next"], 20 - plain["next"])
        self.assertAlmostEqual(mirror["turn_over"]["mean"], 20 - plain["turn_over"]["mean"])
        self.assertEqual(mirror["reason"], plain["reason"])

    def test_notes_far_out_are_no_overflow(self) -> None:
        tight = Adjuster(0.0, 10_000.0, 5000.0, 1, 1.0)
        found = valve_next(tight, [(0.0, "rear"), (10_000.0, "front")], None, None)
        self.assertTrue(all(math.isfinite(v) for v in found["turn_over"].values()))


class Following(unittest.TestCase):
    def test_the_most_rearward_setting_that_is_seldom_enough(self) -> None:
        log = [(6.0, "front"), (8.0, "front"), (12.0, "rear"), (14.0, "rear")]
        found = valve_next(Adjuster(0.0, 20.0, 8.0, 1, 0.5), log, None, None)
        self.assertLessEqual(found["next_chance"], 0.05)
        step = 20.0 / 400
        more = valve_next(Adjuster(0.0, 20.0, found["next"] + step, 1, 0.5), log, None, None)
        self.assertGreater(more["rear_first_chance_now"], 0.05)
        self.assertIsNone(found["reason"])

    def test_rearward_it_goes_one_step_at_a_time_forward_at_once(self) -> None:
        log = [(12.0, "front"), (14.0, "front"), (16.0, "rear")]
        stepped = valve_next(Adjuster(0.0, 20.0, 5.0, 1, 0.5, most_step=2.0), log, None, None)
        self.assertEqual((stepped["next"], stepped["reason"]), (7.0, "one_step_at_a_time"))
        back = valve_next(Adjuster(0.0, 20.0, 19.0, 1, 0.5, most_step=2.0), log, None, None)
        self.assertLess(back["next"], 17.0)
        self.assertIsNone(back["reason"])
        front = valve_next(Adjuster(0.0, 20.0, 15.0, -1, 0.5, most_step=2.0), [(20 - x, w) for x, w in log], None, None)
        self.assertEqual((front["next"], front["reason"]), (13.0, "one_step_at_a_time"))

    def test_where_no_setting_is_seldom_enough_it_says_so(self) -> None:
        found = valve_next(Adjuster(0.0, 20.0, 5.0, 1, 1.0), [(0.0, "rear"), (1.0, "rear"), (2.0, "rear")], None, None)
        self.assertEqual((found["next"], found["next_chance"], found["reason"]), (None, None, "none_low_enough"))
        self.assertIsNone(
            valve_next(Adjuster(0.0, 20.0, 5.0, 1, 1.0), [(0.0, "rear")] * 3, None, (1000.0, 50.0))["next_knee_kpa"]
        )

    def test_a_setting_s_pressure(self) -> None:
        found = valve_next(Adjuster(2.0, 20.0, 8.0, 1, 0.5), [(10.0, "front"), (16.0, "rear")], None, (1000.0, 150.0))
        self.assertAlmostEqual(found["next_knee_kpa"], 1000 + 150 * (found["next"] - 2.0))

    def test_levels_by_the_chance_now(self) -> None:
        seen = {}
        for now in np.linspace(0.0, 20.0, 81):
            found = valve_next(Adjuster(0.0, 20.0, float(now), 1, 0.8), [(9.0, "front"), (11.0, "rear")], (10.0, 1.0), None)
            chance = found["rear_first_chance_now"]
            level = next(
                name for most, name in ((0.02, "good"), (0.10, "note"), (0.30, "caution"), (2, "danger")) if chance < most
            )
            self.assertEqual(found["level"], level, now)
            seen[level] = chance
        self.assertEqual(list(seen), ["good", "note", "caution", "danger"])


if __name__ == "__main__":
    unittest.main()

"""The parking brake: the grade it holds from the forces on a slope, and every limit on both sides."""

import math
import unittest
from typing import Any

from kobrix.core.constants import G
from kobrix.core.fit import parking
from kobrix.core.fit.parking import Vehicle, lock_alone

parking_brake: Any = parking.parking_brake  # figures by name, of any kind

CAR = Vehicle(1300.0, 0.55, 0.2, 0.8, 0.3)
RTW = 0.3 * 1300 * G


class Slopes(unittest.TestCase):
    def test_torque_holds_the_slope_whose_pull_it_balances(self) -> None:
        for grade in (0.05, 0.2, 0.5):
            torque = RTW * math.sin(math.atan(grade))
            found = parking_brake(CAR, False, torque, 0.2, None, 0.0)
            self.assertAlmostEqual(found["torque_grade"], grade)

    def test_grip_holds_the_slope_whose_pull_its_axle_s_weight_allows(self) -> None:
        """Moments about the other axle: weight's height turns some of it to the lower wheels."""
        found = parking_brake(CAR, False, 1e9, 0.2, None, 0.0)
        for key, sign in (("grip_grade_nose_up", 1), ("grip_grade_nose_down", -1)):
            slope = math.atan(found[key])
            on_rear = (1 - CAR.front_share) * math.cos(slope) + sign * CAR.chi * math.sin(slope)
            self.assertAlmostEqual(CAR.grip * on_rear, math.sin(slope), msg=key)
        front = parking_brake(CAR, True, 1e9, 0.2, None, 0.0)
        for key, sign in (("grip_grade_nose_up", -1), ("grip_grade_nose_down", 1)):
            slope = math.atan(front[key])
            on_front = CAR.front_share * math.cos(slope) + sign * CAR.chi * math.sin(slope)
            self.assertAlmostEqual(CAR.grip * on_front, math.sin(slope), msg=key)

    def test_the_lesser_of_torque_and_grip_holds(self) -> None:
        weak = parking_brake(CAR, False, 0.1 * RTW, 0.2, None, 0.0)
        self.assertEqual([weak[k] for k in ("holds_nose_up", "holds_nose_down", "holds_grade")], [weak["torque_grade"]] * 3)
        strong = parking_brake(CAR, False, 1e9, 0.2, None, 0.0)
        self.assertEqual(strong["holds_grade"], min(strong["grip_grade_nose_up"], strong["grip_grade_nose_down"]))
        self.assertIsNone(strong["torque_grade"])  # any


class Alone(unittest.TestCase):
    def test_a_rear_axle_locks_where_its_own_load_allows_no_more(self) -> None:
        z = lock_alone(CAR, front=False)
        self.assertAlmostEqual(z, CAR.grip * (1 - CAR.front_share - z * CAR.chi))
        z = lock_alone(CAR, front=True)
        self.assertAlmostEqual(z, CAR.grip * (CAR.front_share + z * CAR.chi))

    def test_a_tall_one_lifts_before_its_front_locks(self) -> None:
        tall = Vehicle(250.0, 0.5, 0.9, 1.2, 0.3)
        self.assertAlmostEqual(lock_alone(tall, front=True), 0.5 / 0.9)

    def test_what_it_stops_with_ends_at_the_lock(self) -> None:
        lock = lock_alone(CAR, front=False)
        for share, locks in ((0.999, False), (1.001, True)):
            found = parking_brake(CAR, False, share * lock * RTW, 0.2, None, 0.0)
            self.assertAlmostEqual(found["decel_alone_g"], min(share, 1.0) * lock)
            self.assertEqual(found["locks"], locks)


class Pulls(unittest.TestCase):
    def test_the_pull_that_a_grade_needs_and_its_limit(self) -> None:
        needed = RTW * math.sin(math.atan(0.2))
        for pull, level in ((400.0, "good"), (401.0, "danger")):
            found = parking_brake(CAR, False, needed, 0.2, pull, 400.0)
            self.assertAlmostEqual(found["torque_needed_nm"], needed)
            self.assertAlmostEqual(found["pull_needed_n"], pull)
            self.assertEqual(found["level"], level)
        half = parking_brake(CAR, False, 2 * needed, 0.2, 400.0, 400.0)
        self.assertAlmostEqual(half["pull_needed_n"], 200.0)

    def test_without_a_lever_the_torque_itself_decides(self) -> None:
        needed = RTW * math.sin(math.atan(0.2))
        for share, level in ((1.0, "good"), (0.999, "danger")):
            found = parking_brake(CAR, False, share * needed, 0.2, None, 0.0)
            self.assertEqual((found["level"], found["pull_needed_n"]), (level, None))

    def test_on_ice_no_pull_is_enough(self) -> None:
        icy = Vehicle(1300.0, 0.55, 0.2, 0.3, 0.3)
        found = parking_brake(icy, False, 1e6, 0.2, 1.0, 400.0)
        self.assertEqual((found["grip_allows_grade"], found["level"]), (False, "danger"))


if __name__ == "__main__":
    unittest.main()

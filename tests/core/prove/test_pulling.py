"""Uneven braking from how far a vehicle turned: the equations solved the other way round, verdicts on both sides of each edge."""

import math
import unittest
from typing import Any

from kobrix.core.constants import G
from kobrix.core.prove import pulling
from kobrix.core.prove.pulling import Body, Turned

imbalance: Any = pulling.imbalance  # figures by name, of any kind
pull: Any = pulling.pull

CAR = Body(mass=1200.0, track=1.4, wheelbase=2.5, front_share=0.6)
PLANE = Body(mass=600.0, track=1.9, castering=True, gyration=1.3, arm=4.0)


def turned(
    heading: float | None = None, rate: float | None = None, offset: float | None = None, way: str | None = None
) -> Turned:
    return Turned(3.0, 36.0, 0.7, way, heading, rate, offset)


class Turning(unittest.TestCase):
    def test_a_car_s_heading_is_what_its_tyres_answer_the_moment_with(self) -> None:
        """Neutral steer: both axles at one slip angle; the side forces' moment about the centre is the brakes' own."""
        found, uneven = imbalance(CAR, turned(heading=0.02))
        curve = 0.02 / 36.0  # 1/m, turned evenly along the way
        moment = CAR.stiffness * CAR.mass * G * 0.6 * 0.4 * CAR.wheelbase**2 * curve
        self.assertAlmostEqual(found["yaw_moment_nm"], moment)
        self.assertAlmostEqual(found["force_difference_n"], moment / (CAR.track / 2))
        self.assertAlmostEqual(uneven, found["force_difference_n"] / (1200 * 0.7 * G))
        self.assertAlmostEqual(found["left_share"] - (1 - found["left_share"]), uneven)
        self.assertIsNone(found["rudder_force_n"])

    def test_a_castering_one_is_held_by_its_inertia_alone(self) -> None:
        found, _ = imbalance(PLANE, turned(heading=0.02))
        acceleration = 2 * 0.02 / 3.0**2
        self.assertAlmostEqual(found["yaw_moment_nm"], 600 * 1.3**2 * acceleration)
        self.assertAlmostEqual(found["rudder_force_n"], found["yaw_moment_nm"] / 4.0)

    def test_heading_rate_and_offset_tell_the_same(self) -> None:
        """A steady curve ends H·d/2 beside the straight line; a steady yaw acceleration H·d/6 where the speed falls to rest evenly."""
        for body, part in ((CAR, 2), (PLANE, 6)):
            by_heading = imbalance(body, turned(heading=0.03))[1]
            self.assertAlmostEqual(imbalance(body, turned(rate=0.03 / 3.0))[1], by_heading)
            self.assertAlmostEqual(imbalance(body, turned(offset=0.03 * 36.0 / part))[1], by_heading)
        self.assertEqual(imbalance(CAR, turned(heading=-0.03))[1], -imbalance(CAR, turned(heading=0.03))[1])
        self.assertAlmostEqual(imbalance(CAR, turned(heading=0.02))[0]["heading_deg"], math.degrees(0.02))


class Verdicts(unittest.TestCase):
    def stops(self, *uneven: float, ways: tuple[str | None, ...] = ()) -> list[Turned]:
        one = imbalance(CAR, turned(heading=1.0))[1]
        directions = ways or (None,) * len(uneven)
        return [turned(heading=u / one, way=way) for u, way in zip(uneven, directions, strict=True)]

    def test_each_on_both_sides_of_its_edge(self) -> None:
        for uneven, verdict, side in (
            ((0.05, 0.051, 0.049), "even", None),
            ((0.0999, 0.0999, 0.0999), "even", None),
            ((0.09, 0.10, 0.104), "even", None),  # the interval reaches beyond, the mean does not
            ((0.10, 0.11, 0.105), "uneven", "left"),
            ((-0.10, -0.11, -0.105), "uneven", "right"),
            ((0.30, 0.30, 0.30), "uneven", "left"),
            ((0.301, 0.301, 0.301), "pulls", "left"),
            ((-0.5, -0.45, -0.55), "pulls", "right"),
            ((0.4, -0.2, 0.1), "cannot_tell", None),
            ((0.4,), "cannot_tell", None),
        ):
            found = pull(CAR, self.stops(*uneven))
            self.assertEqual((found["verdict"], found["side"]), (verdict, side), uneven)

    def test_both_ways_the_road_s_camber_is_told_apart_from_the_vehicle(self) -> None:
        found = pull(CAR, self.stops(0.25, 0.05, 0.25, 0.05, ways=("out", "back", "out", "back")))
        self.assertTrue(found["both_ways"])
        self.assertAlmostEqual(found["vehicle"]["value"], 0.15)
        self.assertAlmostEqual(found["road"], 0.10)
        one_way = pull(CAR, self.stops(0.25, 0.05, ways=("out", "out")))
        self.assertEqual((one_way["both_ways"], one_way["road"]), (False, None))

    def test_of_a_castering_one_it_is_the_least(self) -> None:
        self.assertTrue(pull(PLANE, [turned(heading=0.01)])["least"])
        self.assertFalse(pull(CAR, [turned(heading=0.01)])["least"])


if __name__ == "__main__":
    unittest.main()

"""The working of a stop: what stands behind the sign of equality is the figure that the stop shows, and its numbers give it."""

import re
import unittest
from typing import Any

from kobrix.core.constants import G
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import StopView

from tests.cases import demo_job
from tests.stages.prove.test_service import stored, with_sets


def view_of(**body: Any) -> StopView:
    """One stop of a set, as the page shows it."""
    return prove_of(stored(with_sets("a"), [{"set": "a", "speed_kmh": 79.0, **body}]))["sets"][0]["stops"][0]


def numbers(stop: StopView, what: str) -> list[float]:
    """The numbers of a step of its working."""
    step = next(s for s in stop["working"] if s["what"] == what)
    return [float(n) for n in re.findall(r"[+-]?\d+(?:\.\d+)?", step["numbers"])]


class WorkingTest(unittest.TestCase):
    def test_every_stop_of_the_demo_says_how_its_distance_came_about(self) -> None:
        for own in prove_of(stored(demo_job()))["sets"]:
            for stop in own["stops"]:
                way, nominal, speed, told = numbers(stop, "from 80 km/h")
                self.assertAlmostEqual(told, stop["corrected_m"] or 0.0, delta=0.051)
                self.assertAlmostEqual(way * (nominal / speed) ** 2, told, delta=0.1)
                speed_m, two, distance, g, decel = numbers(stop, "mean deceleration")
                self.assertAlmostEqual(speed_m**2 / (two * distance * g), decel, delta=0.002)
                self.assertAlmostEqual(decel, stop["decel_g"] or 0.0, delta=0.0006)

    def test_a_slope_two_marks_and_a_time_have_their_steps(self) -> None:
        stop = view_of(brake_on_mark_m=100, rest_mark_m=140.5, time_s=3.9, grade=0.02)
        self.assertEqual(
            numbers(stop, "distance"), [140.5, -100.0, 40.5] if numbers(stop, "distance")[1] < 0 else [140.5, 100.0, 40.5]
        )
        way, a, again, lifted, level = numbers(stop, "on the level")
        self.assertAlmostEqual(lifted, G * 0.02, delta=0.006)
        self.assertAlmostEqual(way * a / (again - lifted), level, delta=0.15)
        lag = numbers(stop, "time to build up")[-1]
        self.assertAlmostEqual(lag, 2 * 40.5 / (79 / 3.6) - 3.9, delta=0.006)
        speed, gap = numbers(stop, "held against itself")
        self.assertAlmostEqual(speed, 2 * 40.5 / 3.9 * 3.6, delta=0.06)
        self.assertAlmostEqual(gap, 100 * (speed / 79 - 1), delta=0.13)

    def test_what_is_not_known_is_not_worked_out(self) -> None:
        self.assertEqual(view_of()["working"], [])
        far = view_of(speed_kmh=60, distance_m=25)
        self.assertIn("more than 10 % off", next(s for s in far["working"] if s["what"] == "from 80 km/h")["numbers"])
        self.assertEqual([s["what"] for s in view_of(time_s=4)["working"]], ["mean deceleration"])
        recorded = view_of(distance_m=40, trace="trace-00000001", mfdd_g=0.7, lag_s=0.3)
        self.assertEqual(numbers(recorded, "MFDD"), [0.7])


if __name__ == "__main__":
    unittest.main()

"""Hoses: the arc at bump solved from its own geometry, every verdict on both sides of its edge."""

import math
import unittest
from typing import Any

from kobrix.core.fit import hoses
from kobrix.core.fit.hoses import Reach, bend_at_bump, verdict

hose_reach: Any = hoses.hose_reach  # figures by name, of any kind


class Arcs(unittest.TestCase):
    def test_an_arc_has_its_length_and_its_chord(self) -> None:
        for ends, bump in ((0.0, 200.0), (40.0, 180.0), (60.0, 100.0)):
            reach = Reach(300, bump, 300, ends)
            for hose in (bump + 1, bump + 20, bump + 90, bump + 300):
                turn, radius = bend_at_bump(reach, hose)
                assert radius is not None
                self.assertAlmostEqual(turn * radius, hose - ends)
                self.assertAlmostEqual(2 * radius * math.sin(turn / 2), bump - ends, places=6)

    def test_a_tight_one_is_straight(self) -> None:
        self.assertEqual(bend_at_bump(Reach(300, 250, 300), 250.0), (0.0, None))
        self.assertEqual(bend_at_bump(Reach(300, 250, 300, 30.0), 240.0), (0.0, None))


class Verdicts(unittest.TestCase):
    REACH = Reach(droop=300.0, bump=220.0, lock=280.0, ends=50.0)

    def test_limits_are_those_of_the_rules(self) -> None:
        found = hose_reach(self.REACH, None, None)
        self.assertAlmostEqual(found["least_mm"], 50 + 250 * 1.04 + 10)
        self.assertAlmostEqual(found["greatest_mm"], min(300 * 1.15 + 25, 50 + 1.5 * math.pi / math.sqrt(2) * 170))
        self.assertEqual((found["possible"], found["longest_string"]), (True, "droop"))
        self.assertEqual(hose_reach(Reach(280, 220, 300), None, None)["longest_string"], "lock")
        self.assertEqual(hose_reach(Reach(300, 220, 300), None, None)["longest_string"], "droop")
        self.assertNotIn("verdict", found)
        self.assertNotIn("choose_mm", found)

    def test_a_short_bump_bounds_it_by_the_arc(self) -> None:
        found = hose_reach(Reach(300.0, 120.0, 300.0, ends=50.0), None, None)
        self.assertAlmostEqual(found["greatest_mm"], 50 + 1.5 * math.pi / math.sqrt(2) * 70)
        self.assertFalse(found["possible"])

    def test_each_on_both_sides_of_its_edge(self) -> None:
        for hose, said in ((319.999, "too_short"), (320.0, "fits"), (370.0, "fits"), (370.001, "too_long")):
            self.assertEqual(verdict(self.REACH, hose), said, hose)
        radius = bend_at_bump(self.REACH, 350.0)[1]
        assert radius is not None
        for least, said in ((radius - 0.001, "fits"), (radius + 0.001, "kinks")):
            self.assertEqual(verdict(Reach(300.0, 220.0, 280.0, 50.0, least_bend_radius=least), 350.0), said)

    def test_what_a_hose_does(self) -> None:
        found = hose_reach(self.REACH, 340.0, None)
        turn, radius = bend_at_bump(self.REACH, 340.0)
        self.assertEqual((found["slack_mm"], found["verdict"], found["bend_radius_at_bump_mm"]), (40.0, "fits", radius))
        self.assertAlmostEqual(found["turn_at_bump_deg"], math.degrees(turn))

    def test_the_shortest_that_fits_is_chosen(self) -> None:
        self.assertEqual(hose_reach(self.REACH, None, [400.0, 360.0, 330.0, 310.0, 40.0])["choose_mm"], 330.0)
        self.assertIsNone(hose_reach(self.REACH, None, [400.0, 310.0])["choose_mm"])
        self.assertIsNone(hose_reach(self.REACH, None, [])["choose_mm"])


if __name__ == "__main__":
    unittest.main()

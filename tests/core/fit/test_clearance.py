"""Gaps of random wheels over random calipers against shapely, and what a move, a spacer and a stud bring on both sides of each limit."""

import math
import random
import unittest
from dataclasses import replace
from typing import Any

import numpy as np
from kobrix.core.fit import clearance
from kobrix.core.fit.clearance import FAR, LIMITS, Box, Clearance, Stud, Weights, gaps, rim_profile
from shapely.geometry import LineString, Point, Polygon

wheel_clearance: Any = clearance.wheel_clearance  # figures by name, of any kind

RIM = rim_profile(28.0, 170.0, 35.0, 150.0)
BODY = ((-18.0, 90.0), (60.0, 90.0), (60.0, 160.0), (-18.0, 160.0))


def shape(**changes: Any) -> Clearance:
    return Clearance(**({"profile": RIM, "outline": BODY} | changes))


class Shapely(unittest.TestCase):
    """Two polygons that do not meet are as far apart as their nearest edges: another library's distance."""

    def test_a_caliper_in_the_room_is_as_far_from_barrel_and_spoke_as_shapely_says(self) -> None:
        draw, seen = random.Random(4), 0
        for _ in range(300):
            back, barrel, offset, width = (
                draw.uniform(15, 40),
                draw.uniform(150, 200),
                draw.uniform(10, 50),
                draw.uniform(120, 200),
            )
            rim = rim_profile(back, barrel, offset, width)
            angles = sorted(draw.uniform(0, 2 * math.pi) for _ in range(draw.randint(3, 7)))
            middle = (draw.uniform(20, 60), draw.uniform(90, 130))
            body = tuple((middle[0] + 45 * math.cos(a), middle[1] + 35 * math.sin(a)) for a in angles)
            asked = shape(profile=rim, outline=body, hat=draw.uniform(0, 8), spacer=draw.choice((0.0, 5.0)), shims=draw.uniform(-3, 3),
                          move=draw.uniform(-3, 3))  # fmt: skip
            face = -(asked.hat + asked.spacer)
            caliper = Polygon([(x + asked.shims, r + asked.move) for x, r in body])
            spoke = LineString([(x + face, r) for x, r in rim[:2]])
            over = LineString([(x + face, r) for x, r in rim[1:]])
            room = Polygon(
                [(rim[0][0] + face, 0), *[(x + face, r) for x, r in rim], (rim[2][0] + face, FAR), (FAR, FAR), (FAR, 0)]
            )
            if not (caliper.is_valid and room.contains(caliper)):
                continue
            seen += 1
            found = gaps(asked)
            self.assertAlmostEqual(found["barrel"].gap, caliper.distance(over), places=7)
            self.assertAlmostEqual(found["spoke"].gap, caliper.distance(spoke), places=7)
        self.assertGreater(seen, 80)

    def test_weights_are_as_far_as_shapely_says(self) -> None:
        draw = random.Random(6)
        for _ in range(200):
            weights = Weights(draw.uniform(-20, 40), draw.uniform(45, 90), draw.uniform(2, 6))
            body = tuple((x, r + draw.uniform(-4, 4)) for x, r in BODY)
            asked = shape(outline=body, weights=weights)
            low = 170.0 - weights.thickness
            block = Polygon([(weights.x_from, low), (weights.x_to, low), (weights.x_to, FAR), (weights.x_from, FAR)])
            self.assertAlmostEqual(gaps(asked)["weights"].gap, Polygon(body).distance(block), places=7)

    def test_inside_is_what_shapely_covers(self) -> None:
        draw = random.Random(9)
        polygon = [(0.0, 0.0), (40.0, 5.0), (35.0, 30.0), (20.0, 12.0), (5.0, 28.0)]
        whole = Polygon(polygon)
        for _ in range(500):
            p = draw.uniform(-5, 45), draw.uniform(-5, 35)
            self.assertEqual(clearance.inside(p, polygon), whole.covers(Point(p)))


class Into(unittest.TestCase):
    def test_a_corner_beyond_the_barrel_is_a_negative_gap(self) -> None:
        deep = shape(outline=((0.0, 90.0), (60.0, 90.0), (60.0, 175.0), (0.0, 175.0)))
        found = gaps(deep)["barrel"]
        self.assertAlmostEqual(found.gap, -5.0)
        self.assertEqual(wheel_clearance(deep)["barrel"]["level"], "danger")
        self.assertEqual(wheel_clearance(deep)["level"], "danger")

    def test_and_one_beyond_the_spoke(self) -> None:
        deep = shape(outline=((-31.0, 90.0), (60.0, 90.0), (60.0, 150.0), (-31.0, 150.0)))
        self.assertAlmostEqual(gaps(deep)["spoke"].gap, -3.0)

    def test_a_box_is_as_high_as_its_corners_along_the_wheel(self) -> None:
        flat, long = (shape(outline=Box(0.0, 60.0, 90.0, 160.0, half)) for half in (0.0, 50.0))
        self.assertAlmostEqual(gaps(flat)["barrel"].gap, 10.0)
        self.assertAlmostEqual(gaps(long)["barrel"].gap, 170 - math.hypot(160, 50))


class Doubt(unittest.TestCase):
    def test_p5_is_what_one_in_twenty_falls_below(self) -> None:
        """Half widths of uniform laws, summed as a normal law: against a draw of a quarter of a million."""
        widths = {"envelope_r_mm": 0.5, "wheel_r_mm": 1.0, "bearing_mm": 0.3, "envelope_x_mm": 4.0}
        found = gaps(shape(plus_minus=widths))["barrel"]
        draw = np.random.default_rng(1)
        spread = sum(draw.uniform(-w, w, 250_000) for name, w in widths.items() if name != "envelope_x_mm")
        self.assertAlmostEqual(found.p5, float(np.quantile(found.gap + spread, 0.05)), delta=0.05)
        self.assertAlmostEqual(found.gap - found.p5, 1.6448536269514722 * math.sqrt((0.25 + 1.0 + 0.09) / 3))

    def test_the_spoke_is_doubted_along_the_axle_alone(self) -> None:
        radial = gaps(shape(plus_minus={"envelope_r_mm": 5.0, "wheel_r_mm": 5.0}))["spoke"]
        self.assertEqual(radial.p5, radial.gap)
        for name in ("envelope_x_mm", "shims_mm", "wheel_x_mm", "spacer_mm", "hat_thickness_mm"):
            along = gaps(shape(plus_minus={name: 3.0}))["spoke"]
            self.assertAlmostEqual(along.gap - along.p5, 1.6448536269514722 * math.sqrt(3.0), msg=name)

    def test_bridge_and_sides_have_their_own_doubts(self) -> None:
        asked = shape(
            bridge_radius=144.0, rotor_diameter=280.0, slot_centre=27.0, hat_offset=26.4, slot_width=24.0, rotor_thickness=20.0
        )
        found = gaps(asked)
        self.assertAlmostEqual(found["bridge"].gap, 4.0)
        self.assertAlmostEqual(found["sides"].gap, 2.0 - 0.6)
        for gap, names in (("bridge", clearance.BRIDGE), ("sides", clearance.SIDES)):
            for name in set(clearance.RADIAL + clearance.AXIAL + clearance.BRIDGE + clearance.SIDES):
                own = gaps(replace(asked, plus_minus={name: 1.0}))[gap]
                self.assertEqual(own.p5 < own.gap, name in names, (gap, name))
        out = wheel_clearance(asked)
        self.assertAlmostEqual(out["off_centre_mm"], 0.6)
        self.assertAlmostEqual(out["shim_needed_mm"], -0.6)


class Levels(unittest.TestCase):
    def test_by_p5_on_both_sides_of_the_limit(self) -> None:
        for top, level in ((166.999, "good"), (167.0, "good"), (167.001, "caution"), (170.0, "caution"), (170.001, "danger")):
            body = ((0.0, 90.0), (60.0, 90.0), (60.0, top), (0.0, top))
            self.assertEqual(wheel_clearance(shape(outline=body))["barrel"]["level"], level, top)

    def test_the_least_is_the_one_with_the_least_to_spare(self) -> None:
        asked = shape(bridge_radius=142.5, rotor_diameter=280.0)  # bridge 2.5 of 2; barrel 10 of 3; spoke 10 of 3
        self.assertEqual(wheel_clearance(asked)["least"], "bridge")
        self.assertEqual(wheel_clearance(shape())["least"], "barrel")  # a tie: the first
        self.assertEqual(wheel_clearance(shape(limits=LIMITS | {"spoke_mm": 3.5}))["least"], "spoke")


class Mends(unittest.TestCase):
    TALL = ((-18.0, 90.0), (60.0, 90.0), (60.0, 168.2), (-18.0, 168.2))

    def test_the_first_move_that_brings_all_to_their_limits(self) -> None:
        found = wheel_clearance(shape(outline=self.TALL))
        self.assertAlmostEqual(found["extra_move_mm"], -1.2)
        doubted = wheel_clearance(shape(outline=self.TALL, plus_minus={"wheel_r_mm": 1.0}))
        self.assertLess(doubted["extra_move_p5_mm"], doubted["extra_move_mm"])
        self.assertEqual(wheel_clearance(shape())["extra_move_mm"], 0.0)

    def test_none_where_one_gap_takes_what_the_other_gives(self) -> None:
        between = shape(outline=self.TALL, bridge_radius=142.5, rotor_diameter=280.0)
        self.assertIsNone(wheel_clearance(between)["extra_move_mm"])

    def test_the_first_spacer_that_clears_the_spoke(self) -> None:
        near = shape(outline=((-26.2, 90.0), (60.0, 90.0), (60.0, 160.0), (-26.2, 160.0)))
        self.assertAlmostEqual(wheel_clearance(near)["extra_spacer_mm"], 1.5)
        self.assertIsNone(wheel_clearance(shape(outline=self.TALL))["extra_spacer_mm"])

    def test_what_a_move_does_to_the_radius_and_the_push(self) -> None:
        found = wheel_clearance(shape(move=2.0, pad_outer_radius=138.5, pad_height=44.0, rotor_diameter=280.0))
        self.assertAlmostEqual(found["effective_radius_before_mm"], (138.5 + 138.5 - 44) / 2)
        self.assertAlmostEqual(found["effective_radius_mm"], (140.0 + 140.5 - 44) / 2)
        self.assertAlmostEqual(found["push_factor"], found["effective_radius_before_mm"] / found["effective_radius_mm"])
        self.assertAlmostEqual(found["pad_overhang_mm"], 0.5)


class Studs(unittest.TestCase):
    def said(self, length: float, nut: float = math.inf, spacer: float = 0.0) -> dict[str, Any]:
        found = wheel_clearance(shape(hat=6.0, spacer=spacer, stud=Stud(length, 12.0, 1.5, 10.0, nut)))["stud"]
        assert isinstance(found, dict)
        return found

    def test_a_diameter_of_thread_is_wanted(self) -> None:
        self.assertEqual((self.said(28.0)["engaged_mm"], self.said(28.0)["level"]), (12.0, "good"))
        self.assertEqual(self.said(27.9)["level"], "danger")
        self.assertEqual(self.said(28.0, spacer=0.5)["level"], "danger")
        self.assertEqual((self.said(28.0)["turns"], self.said(28.0)["turns_needed"]), (8.0, 8.0))
        self.assertEqual(self.said(5.0)["engaged_mm"], 0.0)

    def test_the_thickest_spacer_that_leaves_it(self) -> None:
        self.assertEqual(self.said(33.0)["greatest_spacer_mm"], 5.0)
        self.assertEqual(self.said(28.0)["greatest_spacer_mm"], 0.0)
        self.assertIsNone(self.said(27.0)["greatest_spacer_mm"])
        self.assertIsNone(self.said(40.0, nut=11.0)["greatest_spacer_mm"])
        self.assertEqual((self.said(40.0, nut=11.0)["engaged_mm"], self.said(40.0, nut=11.0)["level"]), (11.0, "danger"))

    def test_a_short_stud_is_the_whole_s_danger(self) -> None:
        self.assertEqual(wheel_clearance(shape(stud=Stud(15.0, 12.0, 1.5, 10.0)))["level"], "danger")


if __name__ == "__main__":
    unittest.main()

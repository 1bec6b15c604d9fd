"""Small pieces of Fit held alone: threads, rims, outlines, patterns, locks of one axle, cans of fluid."""

import math
import unittest

from kobrix.core.fit.clearance import (
    Box,
    Clearance,
    Weights,
    barrel_over,
    gaps,
    inside,
    nearest,
    off_centre,
    outline_of,
    rim_profile,
)
from kobrix.core.fit.hoses import Reach, bend_at_bump, verdict
from kobrix.core.fit.missing import Fluid
from kobrix.core.fit.parking import Vehicle, lock_alone
from kobrix.core.fit.plates import Outline, Pattern, circle, rectangle
from kobrix.core.fit.threads import thread_of
from kobrix.core.fit.tubes import Bend, Stock, Tube, developed_of, length_of, line_length

NPT = {"1/8": 10.287}


class Threads(unittest.TestCase):
    def test_one_spelling_whatever_was_typed(self) -> None:
        cases = (
            ("M10x1", 10.0, 1.0, "M10x1"), ("m10 x 1.0", 10.0, 1.0, "M10x1"), ("M10×1.25", 10.0, 1.25, "M10x1.25"),
            ("3/8-24", 9.525, 25.4 / 24, "3/8-24"), ("3/8 - 24", 9.525, 25.4 / 24, "3/8-24"),
            ("1 1/4-12", 31.75, 25.4 / 12, "1 1/4-12"), ("1/8-27 npt", 10.287, 25.4 / 27, "1/8-27 NPT"),
        )  # fmt: skip
        for typed, diameter, pitch, text in cases:
            found = thread_of(typed, NPT)
            assert found is not None
            self.assertAlmostEqual(found.diameter, diameter)
            self.assertAlmostEqual(found.pitch, pitch)
            self.assertEqual((found.text, found.tapered), (text, text.endswith("NPT")))

    def test_what_is_no_thread(self) -> None:
        for typed in ("", "M10", "3/8", "3/0-24", "3/8-0", "half", "3/4-14 NPT", "M0x1", "x1"):
            self.assertIsNone(thread_of(typed, NPT), typed)

    def test_the_same_thread_by_what_a_gauge_can_tell(self) -> None:
        own, inch, fine, taper = (thread_of(t, NPT) for t in ("M10x1", "3/8-24", "M10x1.25", "1/8-27 NPT"))
        assert own and inch and fine and taper
        self.assertTrue(own.same(own))
        for other in (inch, fine, taper):
            self.assertFalse(own.same(other))


class Wheels(unittest.TestCase):
    def test_a_plain_rim(self) -> None:
        self.assertEqual(rim_profile(20.0, 170.0, 35.0, 150.0), ((-20.0, 0.0), (-20.0, 170.0), (110.0, 170.0)))

    def test_points_and_polygons(self) -> None:
        square = [(0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0)]
        self.assertTrue(inside((2.0, 2.0), square))
        self.assertTrue(inside((4.0, 2.0), square))
        self.assertFalse(inside((4.1, 2.0), square))
        self.assertEqual(nearest((5.0, 9.0), (0.0, 0.0), (4.0, 0.0)), (4.0, 0.0))
        self.assertEqual(nearest((1.0, 3.0), (1.0, 1.0), (1.0, 1.0)), (1.0, 1.0))

    def test_shims_and_moves(self) -> None:
        rim = rim_profile(20.0, 170.0, 35.0, 150.0)
        moved = Clearance(rim, ((0.0, 90.0), (50.0, 90.0), (50.0, 160.0)), shims=2.0, move=-3.0)
        self.assertEqual(outline_of(moved), [(2.0, 87.0), (52.0, 87.0), (52.0, 157.0)])
        self.assertIsNone(off_centre(moved))
        centred = Clearance(rim, Box(0, 50, 90, 160, 0), shims=1.5, slot_centre=27.0, hat_offset=26.0)
        self.assertEqual(off_centre(centred), 2.5)
        self.assertNotIn("bridge", gaps(centred))

    def test_weights_hang_from_the_least_barrel_over_them(self) -> None:
        profile = [(-20.0, 0.0), (-20.0, 160.0), (0.0, 160.0), (100.0, 180.0)]
        self.assertEqual(barrel_over(Weights(-30.0, -10.0, 4.0), profile, 0.0), 160.0)
        self.assertAlmostEqual(barrel_over(Weights(50.0, 80.0, 4.0), profile, 0.0) or 0.0, 170.0)
        self.assertIsNone(barrel_over(Weights(150.0, 160.0, 4.0), profile, 0.0))


class Plates(unittest.TestCase):
    def test_distance_to_a_rounded_edge(self) -> None:
        plate = Outline((-50.0, -30.0, 50.0, 30.0), 10.0)
        self.assertAlmostEqual(plate.edge(0.0, 0.0), 30.0)
        self.assertAlmostEqual(plate.edge(50.0, 0.0), 0.0)
        corner = 10.0 - math.hypot(10.0, 10.0)
        self.assertAlmostEqual(plate.edge(50.0, 30.0), corner)
        disc = Outline((-40.0, -40.0, 40.0, 40.0), 40.0)
        self.assertAlmostEqual(disc.edge(30.0, 40.0), -10.0)

    def test_a_pattern_turns_before_it_is_centred(self) -> None:
        own = Pattern(((10.0, 0.0),), 8.0, 90.0, (5.0, 1.0)).holes("new", (0.0, 2.0))[0]
        self.assertAlmostEqual(own.x, 5.0)
        self.assertAlmostEqual(own.y, 13.0)
        self.assertEqual(own.name, "new_1")
        self.assertEqual(rectangle(4.0, 2.0), ((2.0, 1.0), (-2.0, 1.0), (-2.0, -1.0), (2.0, -1.0)))
        self.assertEqual([round(x, 9) + 0.0 for x, _ in circle(4, 10.0)], [5.0, 0.0, -5.0, 0.0])


class TheRest(unittest.TestCase):
    def test_a_straight_hose_and_a_ring(self) -> None:
        self.assertEqual(bend_at_bump(Reach(300, 320, 300), 310), (0.0, None))
        turn, radius = bend_at_bump(Reach(300, 50, 300, ends=60), 160)
        self.assertAlmostEqual(turn, 2 * math.pi)
        self.assertAlmostEqual(radius or 0.0, 100 / (2 * math.pi))
        self.assertEqual(verdict(Reach(300, 200, 300), 500), "too_long")
        self.assertEqual(verdict(Reach(200, 60, 200, least_bend_radius=60), 225), "kinks")

    def test_one_axle_alone(self) -> None:
        car = Vehicle(1000.0, 0.5, 0.2, 0.8, 0.3)
        self.assertAlmostEqual(lock_alone(car, front=False), 0.4 / 1.16)
        self.assertAlmostEqual(lock_alone(car, front=True), 0.4 / 0.84)
        tall = Vehicle(200.0, 0.5, 0.7, 1.0, 0.3)
        self.assertAlmostEqual(lock_alone(tall, front=True), 0.5 / 0.7)  # it lifts its rear before the front locks

    def test_cans_of_fluid(self) -> None:
        self.assertEqual(Fluid(0.0).litres, 0.0)
        self.assertEqual(Fluid(100.0, 4.0, flush=True).litres, 0.25)
        self.assertEqual(Fluid(250 / 1.2, flush=False).litres, 0.25)
        self.assertEqual(Fluid(250 / 1.2 + 0.01, flush=False).litres, 0.5)

    def test_a_line_of_bends(self) -> None:
        tube = Tube("a", 4.76, "steel", ("bubble", "none"), 4.0, [Bend(90.0, 10.0), 30.0, Bend(180.0, 20.0)])
        self.assertAlmostEqual(developed_of(tube), math.pi / 2 * 10 + 30 + math.pi * 20)
        self.assertAlmostEqual(length_of(tube) - developed_of(tube), 4.0)
        found = line_length([tube, tube], [Stock(200.0, 4.7, "steel", 1)], 1.0)
        self.assertEqual(found["unplaced"], ["a"])
        short = line_length([tube], [Stock(1000.0, 6.0, "steel"), Stock(1000.0, 4.76, "copper_nickel")], 1.0)
        self.assertEqual((short["pieces"], short["unplaced"]), ([], ["a"]))

"""Plates: edges against shapely's rounded outlines, webs and needs counted by hand, shared holes, threads in the plate."""

import math
import random
import unittest
from typing import Any

from kobrix.core.fit import plates
from kobrix.core.fit.plates import Hole, Outline, Pattern, Plate, circle, rectangle
from shapely.geometry import Point, box

plate: Any = plates.plate  # figures by name, of any kind

OLD = Pattern(((30.0, 0.0), (-30.0, 0.0)), 10.0).holes("old")


def made(**changes: Any) -> dict[str, Any]:
    found: dict[str, Any] = plate(Plate(**({"old": OLD, "new": [], "bore": None} | changes)))
    return found


class Edges(unittest.TestCase):
    def test_the_edge_of_a_rounded_plate_is_as_far_as_shapely_says(self) -> None:
        draw = random.Random(2)
        for corner in (0.0, 6.0, 20.0):
            outline = Outline((-60.0, -40.0, 60.0, 40.0), corner)
            core = box(-60 + corner, -40 + corner, 60 - corner, 40 - corner)
            edge = core.buffer(corner, quad_segs=4096).exterior if corner else core.exterior
            for _ in range(200):
                x, y = draw.uniform(-75, 75), draw.uniform(-55, 55)
                inside = (corner and core.distance(Point(x, y)) < corner) or core.contains(Point(x, y))
                self.assertAlmostEqual(outline.edge(x, y), (1 if inside else -1) * edge.distance(Point(x, y)), places=4)

    def test_each_level_on_both_sides_of_its_edge(self) -> None:
        for half, level in ((45.0, "good"), (44.999, "caution"), (35.001, "caution"), (35.0, "danger"), (29.0, "danger")):
            found = made(outline=Outline((-half, -60.0, half, 60.0)))
            self.assertEqual(found["holes"][0]["level"], level, half)
            self.assertEqual(found["level"], level)
            self.assertAlmostEqual(found["holes"][0]["edge_mm"], half - 30)

    def test_a_bore_needs_its_own_radius_and_the_largest_hole_s_share(self) -> None:
        found = made(bore=Hole("bore", 0.0, 0.0, 40.0))
        self.assertEqual(found["holes"][-1]["edge_needed_mm"], 20.0 + 15.0)
        self.assertEqual([row["edge_needed_mm"] for row in found["holes"][:2]], [15.0, 15.0])

    def test_drawn_by_itself_it_is_the_least_that_gives_each_its_need(self) -> None:
        found = made(new=Pattern(((0.0, 20.4),), 12.0).holes("new"))
        self.assertEqual(found["extents_mm"], [-45.0, -15.0, 45.0, 39.0])  # 20.4 + 18 = 38.4, out to a whole millimetre
        self.assertTrue(all(row["edge_mm"] >= row["edge_needed_mm"] for row in found["holes"]))
        self.assertEqual(found["level"], "good")


class Webs(unittest.TestCase):
    def test_between_every_two_holes(self) -> None:
        new = [Hole("new_1", 30.0, 14.0, 8.0), Hole("new_2", 30.0, 40.0, 8.0)]
        found = made(new=new)
        self.assertEqual([row["between"] for row in found["webs_below"]], [["old_1", "new_1"]])
        (row,) = found["webs_below"]
        self.assertAlmostEqual(row["web_mm"], 14.0 - 9.0)
        self.assertEqual((row["web_needed_mm"], row["level"]), (10.0, "caution"))
        self.assertEqual(found["least_web"], row)

    def test_holes_that_cut_each_other_are_a_danger(self) -> None:
        for y, level in ((8.9, "danger"), (9.0, "caution"), (18.999, "caution"), (19.0, None)):
            rows = made(new=[Hole("new_1", 30.0, y, 8.0)])["webs_below"]
            self.assertEqual([row["level"] for row in rows], [] if level is None else [level], y)

    def test_beside_a_bore_the_largest_hole_counts_not_the_bore(self) -> None:
        (row,) = made(bore=Hole("bore", 0.0, 0.0, 46.0))["webs_below"][:1]
        self.assertEqual((row["web_needed_mm"], row["web_mm"]), (10.0, 30.0 - 28.0))

    def test_the_least_edge_is_the_one_with_the_least_to_spare(self) -> None:
        found = made(old=[Hole("a", -20.0, 0.0, 6.0), Hole("b", 20.0, 0.0, 12.0)], outline=Outline((-40.0, -40.0, 40.0, 40.0)))
        self.assertEqual(found["least_edge"], "b")
        alone = made(old=[Hole("a", 0.0, 0.0, 6.0)])
        self.assertEqual((alone["least_web"], alone["webs_below"]), (None, []))


class Shared(unittest.TestCase):
    def test_a_new_hole_on_an_old_one_is_that_hole_the_larger_of_both(self) -> None:
        for away, shared in ((0.0, True), (0.05, True), (0.0501, False)):
            found = made(new=[Hole("new_1", 30.0 + away, 0.0, 12.0, tapped=True)])
            self.assertEqual(found["shared"], [["old_1", "new_1"]] if shared else [], away)
            self.assertEqual(len(found["holes"]), 2 if shared else 3)
        merged = made(new=[Hole("new_1", 30.0, 0.0, 12.0, tapped=True)], thickness=8.0)["holes"][0]
        self.assertEqual((merged["name"], merged["diameter_mm"], merged["thread_needed_mm"]), ("old_1", 12.0, 12.0))
        self.assertEqual(made(new=[Hole("new_1", 30.0, 0.0, 6.0)])["holes"][0]["diameter_mm"], 10.0)


class Threads(unittest.TestCase):
    def test_a_diameter_in_steel_and_half_as_much_again_in_aluminium(self) -> None:
        tapped = Pattern(((30.0, 0.0), (-30.0, 0.0)), 10.0, tapped=True).holes("old")
        for material, thickness, level in (
            ("steel", 10.0, "good"), ("steel", 9.99, "caution"), ("aluminium", 15.0, "good"), ("aluminium", 14.99, "caution"),
        ):  # fmt: skip
            found = made(old=tapped, material=material, thickness=thickness)
            self.assertEqual(found["holes"][0]["level"], level, (material, thickness))
        self.assertNotIn("thread_needed_mm", made(old=tapped)["holes"][0])
        outside = made(old=tapped, thickness=2.0, outline=Outline((-29.0, -50.0, 29.0, 50.0)))
        self.assertEqual(outside["holes"][0]["level"], "danger")  # the worse of both


class Patterns(unittest.TestCase):
    def test_a_bolt_circle_s_chords(self) -> None:
        for count in (3, 4, 5, 6):
            points = circle(count, 100.0)
            for k in range(count):
                self.assertAlmostEqual(math.dist(points[k], points[k - 1]), 100 * math.sin(math.pi / count))
            self.assertAlmostEqual(points[0][0], 50.0)

    def test_turning_keeps_every_distance(self) -> None:
        points = rectangle(80.0, 50.0)
        still, turned = (Pattern(points, 8.0, turn, (5.0, -3.0)).holes("new", (1.0, 2.0)) for turn in (0.0, 37.0))
        for a in range(4):
            self.assertAlmostEqual(
                math.dist((turned[a].x, turned[a].y), (6.0, -1.0)), math.dist((still[a].x, still[a].y), (6.0, -1.0))
            )
            angle = math.atan2(turned[a].y + 1, turned[a].x - 6) - math.atan2(still[a].y + 1, still[a].x - 6)
            self.assertAlmostEqual(math.degrees(angle) % 360, 37.0)


if __name__ == "__main__":
    unittest.main()

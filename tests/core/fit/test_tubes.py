"""Hard lines: their length measured along a path walked in small steps, bends and stock on both sides of each limit."""

import itertools
import math
import random
import unittest
from typing import Any

import numpy as np
from kobrix.core.errors import BadPlace
from kobrix.core.fit import tubes
from kobrix.core.fit.tubes import Bend, Stock, Tube, Way, developed_of, way_through

cut: Any = tubes.cut  # figures by name, of any kind
line_length: Any = tubes.line_length


def tube(way: Way, name: str = "a", ends: tuple[str, str] = ("none", "none"), allowance: float = 0.0) -> Tube:
    return Tube(name, 4.76, "steel", ends, allowance, way)


def rounded(points: list[np.ndarray], radius: float) -> float:
    """Length of a polyline whose corners are rounded, by walking each arc about its own centre."""
    total, start = 0.0, points[0]
    for a, b, c in zip(points, points[1:], points[2:], strict=False):
        u, v = (a - b) / np.linalg.norm(a - b), (c - b) / np.linalg.norm(c - b)
        half = math.acos(float(np.clip(u @ v, -1, 1))) / 2
        if half > math.pi / 2 - 1e-9:
            continue
        back = radius / math.tan(half)
        middle = b + (u + v) / np.linalg.norm(u + v) * radius / math.sin(half)
        p, q = b + back * u - middle, b + back * v - middle
        total += float(np.linalg.norm(b + back * u - start))
        angle = math.acos(float(np.clip(p @ q / radius**2, -1, 1)))
        walked = [(math.sin((1 - t) * angle) * p + math.sin(t * angle) * q) / math.sin(angle) for t in np.linspace(0, 1, 2001)]
        total += sum(float(np.linalg.norm(y - x)) for x, y in itertools.pairwise(walked))
        start = b + back * v
    return total + float(np.linalg.norm(points[-1] - start))


class Ways(unittest.TestCase):
    def test_random_corners_in_space_have_the_length_that_is_walked(self) -> None:
        draw = random.Random(3)
        for _ in range(40):
            at, points = np.zeros(3), [np.zeros(3)]
            for _ in range(draw.randint(1, 5)):
                step = np.array([draw.gauss(0, 1) for _ in range(3)])
                at = at + step / np.linalg.norm(step) * draw.uniform(300, 600)
                points.append(at)
            try:
                way = way_through([(float(p[0]), float(p[1]), float(p[2])) for p in points], 20.0, "points_mm")
            except BadPlace:
                continue  # a sharp turn back
            self.assertAlmostEqual(developed_of(tube(way)), rounded(points, 20.0), places=3)

    def test_a_right_angle(self) -> None:
        way = way_through([(0, 0, 0), (100, 0, 0), (100, 80, 0)], 15.0, "points_mm")
        self.assertEqual(
            [round(p, 9) if isinstance(p, float) else (round(p.angle, 9), p.radius) for p in way], [85.0, (90.0, 15.0), 65.0]
        )

    def test_straight_on_is_no_bend(self) -> None:
        way = way_through([(0, 0, 0), (100, 0, 0), (250, 0, 0)], 15.0, "points_mm")
        self.assertEqual(way, [100.0, 150.0])

    def test_bends_that_need_more_than_their_leg_are_named_by_its_end(self) -> None:
        corners = [(0.0, 0.0, 0.0), (100.0, 0.0, 0.0), (100.0, 30.0, 0.0), (0.0, 30.0, 0.0)]
        used_up = way_through(corners, 15.0, "p")[2]
        assert isinstance(used_up, float)
        self.assertAlmostEqual(used_up, 0.0)
        with self.assertRaises(BadPlace) as refused:
            way_through(corners, 15.1, "tubes.0.points_mm")
        self.assertEqual(refused.exception.place, "tubes.0.points_mm.2")
        with self.assertRaises(BadPlace) as twice:
            way_through([(0, 0, 0), (5, 0, 0), (5, 0, 0)], 15.0, "p")
        self.assertEqual(twice.exception.place, "p.2")


class Cuts(unittest.TestCase):
    def test_three_diameters_of_radius_are_not_tight(self) -> None:
        way: Way = [50.0, Bend(90, 14.28), 50.0, Bend(90, 14.27), 50.0, Bend(30, 20.0)]
        self.assertEqual(cut(tube(way))["tight_bends"], [1])

    def test_a_flare_needs_its_straight(self) -> None:
        for first, last, ends, expected in (
            (25.0, 25.0, ("bubble", "bubble"), []),
            (24.9, 25.0, ("bubble", "bubble"), ["start"]),
            (24.9, 24.9, ("none", "bubble"), ["end"]),
            (24.9, 24.9, ("bubble", "none"), ["start"]),
            (10.0, 10.0, ("none", "none"), []),
        ):
            self.assertEqual(cut(tube([first, Bend(90, 30), last], ends=ends))["short_ends"], expected)
        self.assertEqual(cut(tube([Bend(90, 30), 50.0, Bend(90, 30)], ends=("bubble", "bubble")))["short_ends"], ["start", "end"])

    def test_its_tag_rounds_up_to_what_is_cut(self) -> None:
        for length, said in ((500.0, 500), (500.0000005, 500), (500.01, 501)):
            found = cut(tube([length], name="line 3", ends=("bubble", "none"), allowance=4.0))
            self.assertEqual(found["tag"], f"line 3 | 4.76 mm steel | cut {said + 4} mm | bubble to none")
            self.assertAlmostEqual(found["cut_mm"], found["developed_mm"] + 4.0)


class Laying(unittest.TestCase):
    def laid(self, lengths: list[float], stock: list[Stock], saw: float = 1.0) -> dict[str, Any]:
        found: dict[str, Any] = line_length([tube([length], name=f"l{k}") for k, length in enumerate(lengths)], stock, saw)
        return found

    def test_the_longest_first_into_the_first_that_has_room(self) -> None:
        found = self.laid([300.0, 900.0, 600.0, 90.0], [Stock(1000.0, 4.76, "steel")])
        self.assertEqual([p["lines"] for p in found["pieces"]], [["l1", "l3"], ["l2", "l0"]])
        self.assertEqual([p["left_mm"] for p in found["pieces"]], [1000 - 901 - 91, 1000 - 601 - 301])
        self.assertEqual((found["total_cut_mm"], found["unplaced"]), (1890.0, []))
        self.assertEqual(found["total_left_mm"], sum(p["left_mm"] for p in found["pieces"]))

    def test_equally_long_ones_stay_in_order(self) -> None:
        found = self.laid([400.0, 400.0000001, 400.0], [Stock(1300.0, 4.76, "steel")])
        self.assertEqual(found["pieces"][0]["lines"], ["l0", "l1", "l2"])

    def test_the_last_cut_needs_no_saw_to_spare(self) -> None:
        found = self.laid([499.0, 500.0], [Stock(1000.0, 4.76, "steel", 1)])
        self.assertEqual((found["pieces"][0]["lines"], found["pieces"][0]["left_mm"]), (["l1", "l0"], 0.0))
        self.assertEqual(self.laid([500.0, 500.0], [Stock(1000.0, 4.76, "steel", 1)])["unplaced"], ["l1"])

    def test_rows_of_stock_are_used_in_order_as_long_as_there_are_some(self) -> None:
        stock = [Stock(500.0, 4.76, "steel", 1), Stock(2000.0, 4.8, "steel")]
        found = self.laid([450.0, 460.0, 1500.0], stock)
        self.assertEqual([(p["stock"], p["lines"]) for p in found["pieces"]], [(1, ["l2", "l1"]), (0, ["l0"])])

    def test_only_of_its_material_and_size(self) -> None:
        for row, placed in ((Stock(1000.0, 4.86, "steel"), True), (Stock(1000.0, 4.87, "steel"), False),
                            (Stock(1000.0, 4.76, "copper_nickel"), False), (Stock(399.0, 4.76, "steel"), False)):  # fmt: skip
            self.assertEqual(self.laid([400.0], [row])["unplaced"], [] if placed else ["l0"], row)


if __name__ == "__main__":
    unittest.main()

"""Balloons of marks that lie close: parted, near their marks, within the frame; those that have room stay."""

import itertools
import math
import random
import unittest
from typing import Any

from tests.screen.case import ScreenCase

FRAME = {"left": 50, "right": 580, "top": 26, "bottom": 370}
LEAST = 21.0


class Apart(ScreenCase):
    modules = ("charts/apart.ts",)

    def parted(self, marks: list[list[float]]) -> list[list[float]]:
        found: list[list[float]] = self.ask("charts/apart", "parted", marks, LEAST, FRAME)
        return found

    def check(self, marks: list[Any]) -> None:
        found = self.parted(marks)
        self.assertEqual(len(found), len(marks))
        for a, b in itertools.combinations(found, 2):
            self.assertGreaterEqual(math.dist(a, b), LEAST - 0.05)
        for x, y in found:
            self.assertTrue(50 <= x <= 580 and 26 <= y <= 370, (x, y))

    def test_random_marks_are_parted_within_the_frame(self) -> None:
        draw = random.Random(7)
        for _ in range(60):
            middle, wide = (draw.uniform(50, 580), draw.uniform(26, 370)), draw.choice((4.0, 40.0, 300.0))
            self.check(
                [
                    [
                        min(580, max(50, middle[0] + draw.uniform(-wide, wide))),
                        min(370, max(26, middle[1] + draw.uniform(-wide, wide))),
                    ]
                    for _ in range(9)
                ]
            )

    def test_marks_on_one_place_are_parted_too(self) -> None:
        self.check([[300.0, 200.0]] * 9)
        self.check([[50.0, 26.0]] * 5)  # in a corner

    def test_those_that_have_room_stay_where_they_are(self) -> None:
        marks = [[100.0, 100.0], [121.0, 100.0], [300.0, 300.0]]
        self.assertEqual(self.parted(marks), marks)
        near = self.parted([[100.0, 100.0], [106.0, 100.0]])
        for own, mark in zip(near, ([100.0, 100.0], [106.0, 100.0]), strict=True):
            self.assertLess(math.dist(own, mark), 8.0)


if __name__ == "__main__":
    unittest.main()

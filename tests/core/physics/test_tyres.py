"""Size codes of tyres."""

import unittest

from kobrix.core.errors import BadEntry
from kobrix.core.physics.tyres import from_code


class Codes(unittest.TestCase):
    def test_metric(self) -> None:
        tyre = from_code("185/60R15")
        self.assertAlmostEqual(tyre.diameter, 0.603, places=6)
        self.assertAlmostEqual(tyre.rolling_radius, 0.29271, places=4)

    def test_prefix_speed_letters_and_what_follows_are_ignored(self) -> None:
        plain = from_code("205/55R16")
        for code in ("P205/55R16", "205/55ZR16", "205/55 R16 91V", "205/55vr16", "LT205/55R16", "T205/55R16"):
            self.assertEqual(from_code(code), plain, code)

    def test_flotation_gives_its_diameter(self) -> None:
        self.assertAlmostEqual(from_code("31x10.50R15").diameter, 31 * 0.0254)
        self.assertAlmostEqual(from_code("31×10.50R15LT").diameter, 31 * 0.0254)

    def test_aspect_less_sizes_are_estimates(self) -> None:
        metric, inch = from_code("155R13"), from_code("5.60-15")
        self.assertTrue(metric.estimated and inch.estimated)
        self.assertAlmostEqual(metric.diameter, 13 * 0.0254 + 2 * 0.155 * 0.82)
        self.assertAlmostEqual(inch.diameter, (15 + 2 * 5.60 * 0.92) * 0.0254)
        self.assertEqual(inch.build, "cross-ply")

    def test_letters_and_hundredths_of_an_inch_are_the_sizes_they_stand_for(self) -> None:
        for code, same in (
            ("MT90-16", "130/90-16"), ("MT90B16", "130/90B16"), ("MU85 B16", "140/85B16"), ("MV85-15", "150/85-15"),
            ("500x5", "5.00-5"), ("500-5", "5.00-5"), ("5.00x5", "5.00-5"), ("600x6", "6.00-6"), ("6.00 × 6", "6.00-6"), ("800x6", "8.00-6"),
        ):  # fmt: skip
            self.assertEqual(from_code(code), from_code(same), code)
        self.assertAlmostEqual(from_code("145-10").diameter, (10 * 25.4 + 2 * 145 * 0.82) / 1000, places=9)  # millimetres
        with self.assertRaisesRegex(BadEntry, "MT90-16"):
            from_code("MX90-16")

    def test_cross_ply_rolls_shorter(self) -> None:
        self.assertLess(from_code("185/60-15").rolling_radius, from_code("185/60R15").rolling_radius)

    def test_a_width_without_aspect_is_inches_below_30_and_millimetres_from_100(self) -> None:
        # model: width >= 100 is mm, aspect 0.82; below 30 is inches, aspect 0.92; between them an error
        self.assertAlmostEqual(from_code("29.5-15").diameter, (15 + 2 * 29.5 * 0.92) * 0.0254, places=12)
        self.assertAlmostEqual(from_code("100R15").diameter, 15 * 0.0254 + 2 * 0.1 * 0.82, places=12)
        for code in ("30-15", "35-15", "99R15"):
            with self.assertRaisesRegex(BadEntry, "neither millimetres nor inches"):
                from_code(code)

    def test_nonsense_is_refused_in_words(self) -> None:
        for code in ("", "abc", "185/60", "50R15", "185/60R99", "1e300"):
            with self.assertRaisesRegex(BadEntry, "allowed is a size such as"):
                from_code(code)

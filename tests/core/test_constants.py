"""A number stands in one place, with its unit, its standing and a range that it lies in."""

import itertools
import re
import unittest

from kobrix.core.constants import ASSUMED, EXACT, INCH, PUBLISHED, SAME_SIZE, STANDARD_BORES, assumed, bore_name
from kobrix.core.rules import limits

from tests.cases import ROOT

SOURCES = [p for p in (ROOT / "backend" / "kobrix").rglob("*.py") if p.name != "constants.py"]


class Tables(unittest.TestCase):
    def test_every_number_says_its_unit_its_standing_and_its_source(self) -> None:
        for table in (EXACT, PUBLISHED, ASSUMED):
            for key, known in table.items():
                self.assertTrue(known.unit and known.source and known.standing, key)

    def test_every_default_lies_in_its_own_range(self) -> None:
        for key, known in ASSUMED.items():
            if known.standing == "published" and known.least is None:
                continue
            assert known.least is not None and known.most is not None, key
            self.assertLessEqual(known.least, known.value, key)
            self.assertLessEqual(known.value, known.most, key)

    def test_standards_are_said_to_be_from_memory(self) -> None:
        for key, known in PUBLISHED.items():
            self.assertEqual(known.standing, "from memory", key)

    def test_every_default_is_used_and_every_use_is_a_default(self) -> None:
        text = "\n".join(p.read_text(encoding="utf-8") for p in SOURCES)
        for key in ASSUMED:
            root = key.rsplit(".", 1)[0] if key.startswith("pipe.") else key
            stem = {"hose.rubber": "hose.", "hose.braided": "hose."}.get(key, root)
            self.assertTrue(stem in text or key.split(".")[0] == "pipe", key)
        for used in re.findall(r'assumed\("([^"{]+)"\)', text):
            self.assertIn(used, ASSUMED)
        with self.assertRaises(KeyError):
            assumed("no.such")

    def test_no_number_of_the_tables_is_written_a_second_time(self) -> None:
        for telling in ("5.670374419e-8", "101325", "0.45359237", "6894.757"):
            places = [p.name for p in SOURCES if telling in p.read_text(encoding="utf-8")]
            self.assertEqual(places, [], telling)


class Bores(unittest.TestCase):
    def test_they_rise_and_differ(self) -> None:
        sizes = [size for _, size in STANDARD_BORES]
        self.assertEqual(sizes, sorted(sizes))
        self.assertTrue(all(b - a > SAME_SIZE for a, b in itertools.pairwise(sizes)))

    def test_names_are_their_sizes(self) -> None:
        for name, size in STANDARD_BORES:
            self.assertEqual(bore_name(size), name)
            self.assertEqual(bore_name(size + 0.9 * SAME_SIZE), name)
            number = name.split()[0] if name.endswith("mm") else None
            if number is not None:
                self.assertAlmostEqual(float(number) / 1000, size)
        self.assertEqual(bore_name(0.0170), "17 mm")
        self.assertIsNone(bore_name(0.0166))
        self.assertEqual(bore_name(1.125 * INCH), "1 1/8 in")


class Bands(unittest.TestCase):
    def test_limits_rise(self) -> None:
        for band in (*limits.EFFORT.values(), limits.TRAVEL):
            self.assertTrue(band.low < band.good < band.caution < band.danger)
            self.assertTrue(band.source)

    def test_levels_at_and_past_each_limit(self) -> None:
        band = limits.EFFORT["car_pedal"]
        wanted = {119: "note", 120: "good", 350: "good", 351: "note", 450: "note", 451: "caution", 500: "caution", 501: "danger"}
        self.assertEqual({f: band.level(f) for f in wanted}, wanted)

    def test_a_control_without_a_published_limit_is_judged_by_its_stated_one(self) -> None:
        toes = limits.effort_band("aircraft_pedal")
        self.assertEqual((toes.low, toes.good, toes.caution, toes.danger), (30.0, 150.0, 250.0, 350.0))
        self.assertEqual(limits.effort_level("aircraft_pedal", 301, 300), "danger")
        self.assertEqual(limits.effort_level("aircraft_pedal", 120, 300), "good")


if __name__ == "__main__":
    unittest.main()

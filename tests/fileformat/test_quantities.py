"""Quantities as people type them, converted values held against an independent unit library."""

import unittest
import warnings
from typing import Any

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from kobrix.core.errors import BadEntry
from kobrix.fileformat.quantities import label_of, other_unit, read, si, split_list, unit_of


def value(text: str, name: str = "bore_mm") -> float:
    return read(text, name).value


class Reading(unittest.TestCase):
    def test_fractions_mixed_numbers_and_marks(self) -> None:
        for text, mm in (("7/8", 22.225), ("13/16 in", 20.6375), ('1 1/16"', 26.9875), ("1-1/16", 26.9875), ("2 1/4 in", 57.15),
                         ('5-3/4"', 146.05), ("1½", 38.1), ("⅞ in", 22.225), ("20.6mm", 20.6), ("1.1 in.", 27.94), (".5 in", 12.7),
                         ('14"', 355.6), ("8 ft 2 1/2 in", 2501.9), ("38", 38.0)):  # fmt: skip
            self.assertAlmostEqual(value(text), mm, places=9, msg=text)

    def test_a_temperature_in_fahrenheit_has_its_own_zero(self) -> None:
        for text, celsius in (
            ("32 °F", 0.0),
            ("212 °F", 100.0),
            ("-40 F", -40.0),
            ("68 °f", 20.0),
            ("20", 20.0),
            ("20 °C", 20.0),
        ):
            self.assertAlmostEqual(value(text, "ambient_c"), celsius, places=9, msg=text)
        self.assertAlmostEqual(read("104", "ambient_c", "°F").value, 40.0)
        self.assertEqual((other_unit(20.0, "ambient_c", "°F"), other_unit(20.0, "ambient_c", "°C")), ("20 °C", "68 °F"))

    def test_a_bare_fraction_is_inches_and_a_bare_number_the_preferred_unit(self) -> None:
        self.assertEqual(read("7/8", "bore_mm").symbol, "in")
        self.assertEqual(read("900", "knee_kpa", "psi").text, "900 psi")
        self.assertAlmostEqual(read("900", "knee_kpa", "psi").value, 6205.28, places=2)
        self.assertEqual(read("22", "bore_mm", "nonsense").symbol, "mm")

    def test_what_was_typed_is_kept_with_its_unit(self) -> None:
        self.assertEqual(read(" 13/16 in ", "bore_mm").text, "13/16 in")
        self.assertEqual(read("7/8", "bore_mm").text, "7/8 in")

    def test_thousands_are_grouped_and_other_commas_are_asked_about(self) -> None:
        self.assertEqual(value("1,310 kg", "mass_kg"), 1310.0)
        with self.assertRaisesRegex(BadEntry, "13.5 or as 135"):
            value("13,5")

    def test_shares_and_per_cent(self) -> None:
        self.assertAlmostEqual(value("58.5 %", "front_share"), 0.585)
        for text, kept in (("52", "52 %"), ("52 %", "52 %"), ("52/48", "52/48"), ("0.52", "0.52"), ("13/25", "13/25")):
            self.assertAlmostEqual(value(text, "front_share"), 0.52, msg=text)
            self.assertEqual(read(text, "front_share").text, kept)
            self.assertAlmostEqual(value(kept, "front_share"), 0.52, msg=kept)
        self.assertEqual((value("1", "front_share"), value("50/50", "front_share"), value("1/2", "front_share")), (1.0, 0.5, 0.5))
        self.assertEqual((value("120", "front_share"), value("-52", "front_share"), value("2", "slope")), (120.0, -52.0, 2.0))
        self.assertAlmostEqual(value("0.38", "friction"), 0.38)

    def test_wrong_kinds_and_nonsense_are_refused_in_words(self) -> None:
        for text, words in (("900 psi", "unit of a pressure"), ("", "nothing was entered"), ("abc", "no number"), ("7/0", "0 below"),
                            ("3 furlong", "not a unit known here"), ("x" * 300, "no number")):  # fmt: skip
            with self.assertRaises(BadEntry) as refused:
                value(text)
            self.assertIn(words, str(refused.exception).lower())
            self.assertLess(len(str(refused.exception)), 260)

    def test_numbers_that_are_none(self) -> None:
        for bad in (float("nan"), float("inf"), True):
            with self.assertRaises(BadEntry):
                si(bad, "bore_mm")

    def test_lists_of_pistons(self) -> None:
        self.assertEqual(split_list("2 × 38.1", "pistons_mm"), ["38.1 mm", "38.1 mm"])
        self.assertEqual(split_list("2 x 1 1/2 in", "pistons_mm"), ["1 1/2 in"] * 2)
        self.assertEqual(split_list("38.1 + 34.9 mm", "pistons_mm"), ["38.1 mm", "34.9 mm"])
        for bad in ("", "40 x 38", "0 x 38", "2 x"):
            with self.assertRaises(BadEntry):
                split_list(bad, "pistons_mm")

    def test_names_say_their_unit(self) -> None:
        self.assertEqual(unit_of("coefficient_cm3_per_m_mpa"), ("hose give", "cm³/(m·MPa)"))
        self.assertEqual(unit_of("mount_stiffness_n_per_mm"), ("stiffness", "N/mm"))
        self.assertEqual(unit_of("slope"), ("ratio", ""))
        self.assertEqual(label_of("pivot_to_pad_mm"), "pivot to pad")

    @given(st.floats(0.001, 1e6))
    def test_a_number_with_its_own_unit_is_itself(self, number: float) -> None:
        self.assertAlmostEqual(read(f"{number!r} mm", "bore_mm").value / number, 1.0, places=14)

    @given(st.integers(0, 30), st.integers(1, 63), st.sampled_from([2, 4, 8, 16, 32, 64]))
    def test_mixed_numbers(self, whole: int, top: int, bottom: int) -> None:
        expected = (whole + top / bottom) * 25.4
        for text in (f"{whole} {top}/{bottom} in", f'{whole}-{top}/{bottom}"', f"{whole} {top}/{bottom}"):
            self.assertAlmostEqual(value(text), expected, places=9)


class AgainstPint(unittest.TestCase):
    """Converted values only: that library reads mixed fractions another way, so our own parser does not lean on it."""

    PAIRS = (("1000 psi", "psi", 1000, "pressure_kpa", "kPa"), ("20 inHg", "inHg", 20, "vacuum_kpa", "kPa"),
             ("900 lbf", "lbf", 900, "limit_n", "N"), ("2,680 lb", "lb", 2680, "mass_kg", "kg"), ("4.5 in3", "inch**3", 4.5, "air_cm3", "cm**3"),
             ("60 mph", "mph", 60, "speed_kmh", "km/hour"), ("80 ft lb", "ft*lbf", 80, "torque_nm", "N*m"),
             ("15 in", "inch", 15, "length_mm", "mm"), ("0.9375 in", "inch", 0.9375, "bore_mm", "mm"), ("3 bar", "bar", 3, "knee_kpa", "kPa"))  # fmt: skip

    def test_conversions(self) -> None:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            import pint

            units: Any = pint.UnitRegistry()
            for text, unit, number, name, own in self.PAIRS:
                expected = (number * units(unit)).to(own).magnitude
                np.testing.assert_allclose(value(text, name), expected, rtol=2e-7, err_msg=text)

    def test_printed_values(self) -> None:
        self.assertAlmostEqual(value("1000 psi", "knee_kpa") / 100, 68.94757, places=5)
        self.assertAlmostEqual(value("20 inHg", "vacuum_kpa"), 67.72777, places=4)
        self.assertAlmostEqual(value("15/16 in"), 23.8125, places=9)

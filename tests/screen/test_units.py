"""Figures as the screen writes them, against the core's own units and against pint."""

import unittest
from typing import Any

import pint
from kobrix.fileformat.quantities import read

from tests.screen.case import ScreenCase

UNITS: Any = pint.UnitRegistry()


class Formats(ScreenCase):
    modules = ("units/format.ts",)

    def test_figures_are_rounded_as_they_are_read(self) -> None:
        for name, value, text in (
            ("millimetres", 98.49, "98"), ("tenths", 12.25, "12.3"), ("decel", 0.8149, "0.81"), ("lock", 0.81949, "0.819"),
            ("percent", 0.664, "66 %"), ("size", 20.6375, "20.64"), ("size", 292.0, "292"), ("size", 38.10, "38.1"),
        ):  # fmt: skip
            self.assertEqual(self.ask("units/format", name, value), text, (name, value))

    def test_one_is_not_many(self) -> None:
        counted = [self.ask("units/format", "counted", n, "danger", "dangers") for n in (0, 1, 2)]
        self.assertEqual(counted, ["0 dangers", "1 danger", "2 dangers"])

    def test_equal_sizes_stand_together_and_stay_as_typed(self) -> None:
        for entries, text in (
            ([38.1, 38.1], "2 × 38.1 mm"),
            (["1 1/2 in", "1 1/2 in", 34.9], "2 × 1 1/2 in + 34.9 mm"),
            ([38.1, 34.9, 38.1], "38.1 mm + 34.9 mm + 38.1 mm"),
            ([], ""),
        ):  # fmt: skip
            self.assertEqual(self.ask("units/format", "grouped", entries), text)

    def test_an_entry_is_shown_as_it_was_typed(self) -> None:
        for entry, unit, text in (
            ("13/16 in", "mm", "13/16 in"), (0.515, "", "0.515"), (48, "mm", "48 mm"), (None, "mm", ""), ([1], "mm", "")
        ):  # fmt: skip
            self.assertEqual(self.ask("units/format", "asTyped", entry, unit), text)


class Chosen(ScreenCase):
    modules = ("units/preference.ts", "units/display.ts", "units/sentences.ts")

    def shown(self, name: str, value: float) -> str:
        found = self.ask("units/display", name, value)
        return f"{found['v']} {found['unit']}"

    def choose(self, **units: str) -> None:
        for quantity, unit in units.items():
            self.ask("units/preference", "prefer", quantity, unit)

    def test_newton_and_megapascal_are_what_is_shown_at_first(self) -> None:
        self.choose(shownForce="N", shownPressure="MPa")
        self.assertEqual(self.shown("force", 341.4), "341 N")
        self.assertEqual(self.shown("great", 7590.0), "7.59 kN")
        self.assertEqual(self.shown("great", 12960.0), "13.0 kN")
        self.assertEqual(self.shown("great", 9994.9), "9.99 kN")
        self.assertEqual(self.shown("torque", 1110.6), "1111 N m")
        self.assertEqual(self.shown("pressure", 5613.0), "5.61 MPa")
        self.assertEqual(self.shown("otherForce", 341.4), "77 lbf")
        self.assertEqual(self.shown("otherPressure", 5613.0), "814 psi")

    def test_every_unit_says_the_same_as_pint(self) -> None:
        self.choose(shownForce="lbf")
        for newtons in (1.0, 341.4, 500.0, 12960.0):
            pounds = UNITS.Quantity(newtons, "newton").to("pound_force").magnitude
            self.assertEqual(self.shown("force", newtons), f"{round(pounds)} lbf")
            self.assertEqual(self.shown("great", newtons), f"{round(pounds)} lbf")
        feet = UNITS.Quantity(1110.6, "newton * meter").to("pound_force * foot").magnitude
        self.assertEqual(self.shown("torque", 1110.6), f"{round(feet)} lbf ft")
        self.choose(shownForce="N")
        for unit, name, digits in (("bar", "bar", 1), ("psi", "psi", 0), ("MPa", "megapascal", 2)):
            self.choose(shownPressure=unit)
            value = UNITS.Quantity(5613.0, "kilopascal").to(name).magnitude
            self.assertEqual(self.shown("pressure", 5613.0), f"{value:.{digits}f} {unit}")
        self.choose(shownPressure="psi")
        self.assertEqual(self.shown("otherPressure", 5613.0), "5.61 MPa")
        self.choose(shownPressure="MPa")
        self.assertEqual(self.shown("areaOf", 3.879), "3.88 cm²")
        self.choose(shownLength="in")
        area = UNITS.Quantity(3.879, "centimeter ** 2").to("inch ** 2").magnitude
        self.assertEqual(self.shown("areaOf", 3.879), f"{area:.3f} in²")
        self.choose(shownLength="mm")

    def test_a_sentence_is_in_the_unit_chosen(self) -> None:
        def said(sentence: str) -> str:
            found: str = self.ask("units/sentences", "inChosenUnits", sentence)
            return found

        plain = (
            "Effort 369 N for 0.74 g, inside 120 to 350 N.", "knee 2.40 MPa, 24 mm; 1110 N m; 3 Nm; M10x1; 5 N/mm",
            "The 10 psi residual valve at the rear must go.", "No. 4 N2 x 12 Nails",
        )  # fmt: skip
        self.choose(shownForce="N", shownPressure="MPa")
        for sentence in plain:
            self.assertEqual(said(sentence), sentence)
        self.assertEqual(said("set 290 psi; 342 is the edge"), "set 2.00 MPa; 342 is the edge")
        self.choose(shownForce="lbf", shownPressure="bar")
        self.assertEqual(said(plain[0]), "Effort 83 lbf for 0.74 g, inside 27 to 79 lbf.")
        self.assertEqual(said(plain[1]), "knee 24.0 bar, 24 mm; 1110 N m; 3 Nm; M10x1; 5 N/mm")
        self.assertEqual(said(plain[2]), plain[2])
        self.assertEqual(said(plain[3]), plain[3])
        self.assertEqual(said("1,200 N and 12.9 kN at 900 kPa"), "270 lbf and 2900 lbf at 9.0 bar")
        self.choose(shownLength="in")
        self.assertEqual(said("22.81 cm² of 38.10 mm, 4 N/mm²"), "3.536 in² of 1.5000 in, 4 N/mm²")
        self.choose(shownLength="mm")
        self.choose(shownForce="N", shownPressure="MPa")

    def test_a_scale_counts_in_what_the_server_reads(self) -> None:
        for unit in ("N", "lbf"):
            self.choose(shownForce=unit)
            self.assertAlmostEqual(1.0 / self.ask("units/display", "perNewton"), read(f"1 {unit}", "push_n").value, places=12)
        for unit in ("MPa", "bar", "psi"):
            self.choose(shownPressure=unit)
            kilopascal = read(f"1 {unit}", "knee_kpa").value
            self.assertAlmostEqual(1.0 / self.ask("units/display", "perKilopascal") / kilopascal, 1.0, places=12)
        self.choose(shownForce="N", shownPressure="MPa")

    def test_a_unit_is_said_in_words(self) -> None:
        self.assertEqual(self.ask("units/display", "spoken", {"v": "341", "unit": "N"}), "341 newton")
        self.assertEqual(self.ask("units/display", "spoken", {"v": "814", "unit": "psi"}), "814 pound per square inch")
        self.assertEqual(self.ask("units/display", "spoken", {"v": "4", "unit": "kN"}), "4 kN")

    def test_a_bare_number_is_in_the_unit_a_person_prefers_where_there_is_a_choice(self) -> None:
        preferred = {"length": "in", "mass": "lb", "pressure": "bar", "force": "lbf"}
        for unit, expected in (("mm", "in"), ("kg", "lb"), ("kPa", "bar"), ("N", "lbf"), ("deg", None), ("", None)):
            self.assertEqual(self.ask("units/preference", "preferredFor", unit, preferred), expected)

    def test_every_unit_that_can_be_chosen_is_read_by_the_server(self) -> None:
        names = {"length": "bore_mm", "mass": "mass_kg", "pressure": "knee_kpa", "force": "push_n",
                 "shownForce": "push_n", "shownPressure": "knee_kpa", "shownLength": "bore_mm", "m": "distance_m", "ft": "distance_m",
                 "km/h": "speed_kmh", "mph": "speed_kmh", "shownHeat": "ambient_c"}  # fmt: skip
        for quantity, units in self.ask("units/preference", "UNITS").items():
            for unit in (one for pair in units for one in pair.split(", ")):
                self.assertEqual(read("2", names.get(quantity) or names[unit], unit).text, f"2 {unit}")


if __name__ == "__main__":
    unittest.main()

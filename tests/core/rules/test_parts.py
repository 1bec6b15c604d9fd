"""Rules learned at the bench, at their edges: what lies just inside is let be, what lies just outside is told with its figures."""

import unittest
from typing import Any

from kobrix.core.constants import PUBLISHED
from kobrix.core.rules.limits import HOSE_YEARS, PSI, RATIO_MANUAL, RATIO_POWER, RESIDUAL_DISC, ROD_ANGLE, Judgement
from kobrix.demo import SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import demo_job
from tests.core.rules.test_braking import changed, judged

CONTROL, CYLINDER = "systems__0__control__", "systems__0__cylinder__"
FRONT, REAR = "systems__0__stations__0__", "systems__0__stations__1__"


class Edges(unittest.TestCase):
    def found(self, **fields: Any) -> dict[str, Judgement]:
        """What is said of plan A with some fields changed, by its id."""
        return {j.id: j for j in judged(changed(demo_job().setup("plan A"), **fields))}

    def edge(self, name: str, inside: dict[str, Any], outside: dict[str, Any]) -> Judgement:
        """The judgement that is made outside of its limit and not inside."""
        self.assertNotIn(name, self.found(**inside))
        found = self.found(**outside)
        self.assertIn(name, found)
        return found[name]

    def test_a_pedal_s_ratio_without_a_booster_and_with_one(self) -> None:
        pad = 300.0
        for band, booster in ((RATIO_MANUAL, None), (RATIO_POWER, {"kind": "vacuum", "gain": 4.0, "limit_n": 3000})):
            for ratio, step in ((band[0], -0.02), (band[1], 0.02)):
                fields = {f"{CONTROL}pivot_to_pad_mm": pad, "systems__0__booster": booster}
                told = self.edge(
                    "pedal_ratio", {**fields, f"{CONTROL}pivot_to_pin_mm": pad / ratio},
                    {**fields, f"{CONTROL}pivot_to_pin_mm": pad / (ratio + step)},
                )  # fmt: skip
                self.assertEqual(told.level, "note")
                self.assertAlmostEqual(told.value or 0.0, ratio + step, places=9)
                self.assertIn(f"{ratio + step:.2f}", told.sentence)

    def test_hoses_by_age_and_by_how_they_swell(self) -> None:
        hose = {"kind": "rubber", "length_mm": 400, "count": 2}
        ceiling = PUBLISHED["hose_ceiling"].value * 1e12
        lines = f"{FRONT}lines__hoses"
        old = self.edge(
            "hose_age_front", {lines: [{**hose, "age_years": HOSE_YEARS}]}, {lines: [{**hose, "age_years": HOSE_YEARS + 1}]}
        )
        self.assertEqual((old.level, old.limit), ("caution", HOSE_YEARS))
        give = "coefficient_cm3_per_m_mpa"
        tired = self.edge(
            "hose_growth_front", {lines: [{**hose, give: ceiling * 0.999}]}, {lines: [{**hose, give: ceiling * 1.01}]}
        )
        self.assertIn(f"{ceiling:.2f}", tired.sentence)

    def test_a_rotor_at_the_least_thickness_that_was_entered(self) -> None:
        least = {f"{FRONT}brake__rotor_least_thickness_mm": 19.0}
        thin = self.edge(
            "rotor_front",
            {**least, f"{FRONT}brake__rotor_thickness_mm": 19.0},
            {**least, f"{FRONT}brake__rotor_thickness_mm": 18.9},
        )
        self.assertEqual(thin.level, "danger")
        self.assertEqual(thin.sentence, "The front rotor is 18.9 mm thick; the least is 19.0 mm.")
        self.assertNotIn("rotor_front", self.found(**{f"{FRONT}brake__rotor_thickness_mm": 5.0}), "no limit is ever invented")

    def test_a_reservoir_against_the_wear_of_its_pads(self) -> None:
        """Σ 2·A·n·wear with a fifth to spare: two calipers, each 2 × 38.1 mm on a side."""
        asked = 1.2 * 2 * 2 * (2 * 3.141592653589793 * 3.81**2 / 4) * 0.8  # cm³ for 8 mm of wear per pad
        wear = {f"{FRONT}brake__pad_wear_mm": 8}
        small = self.edge("reservoir_front", {**wear, f"{CYLINDER}reservoir_cm3": {"front": asked * 1.001}},
                          {**wear, f"{CYLINDER}reservoir_cm3": {"front": asked * 0.99}})  # fmt: skip
        self.assertAlmostEqual((small.limit or 0.0) * 1e6, asked, places=6)

    def test_the_floor_or_the_end_of_the_stroke(self) -> None:
        """The whole stroke needs (30 mm)·292/48 + 5 mm of pedal: told once, and only where it needs 2 mm more than there is."""
        bottom, room = 30.0 * 292.0 / 48.0 + 5.0, f"{CONTROL}available_travel_mm"
        within = self.found(**{room: bottom - 1.9})
        self.assertNotIn("floor_first", within)
        self.assertNotIn("full stroke", within["lost_rear"].reason)
        over = self.found(**{room: bottom - 2.1})
        told = [j for j in over.values() if "full stroke" in f"{j.sentence} {j.reason}"]
        self.assertEqual(len(told), 1)
        lost = self.found(**{room: 150})
        self.assertIn("188 mm of travel and the room is 150", lost["lost_rear"].reason)
        self.assertNotIn("floor_first", lost)

    def test_a_residual_valve_on_a_disc_and_a_cylinder_below(self) -> None:
        held = {"kind": "residual", "pressure_kpa": RESIDUAL_DISC / 1e3}
        more = {"kind": "residual", "pressure_kpa": 10 * PSI / 1e3}
        told = self.edge("residual_rear", {f"{REAR}devices": [held]}, {f"{REAR}devices": [more]})
        self.assertIn("10 psi", told.sentence)
        unknown = self.found(**{f"{REAR}devices": [{"kind": "residual"}]})["residual_rear"]
        self.assertTrue(unknown.sentence.startswith("The residual valve"))
        height = f"{CYLINDER}height_above_brakes_mm"
        below = self.edge("residual_front", {height: 0}, {height: -1})
        self.assertIn("2 psi", below.reason)
        self.assertNotIn("residual_front", self.found(**{height: -1, f"{FRONT}devices": [held]}))

    def test_what_belongs_in_which_line(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": "600 psi", "slope": 0.4}
        self.edge("series_rear", {f"{REAR}devices": [valve]}, {f"{REAR}devices": [valve, valve]})
        self.edge("valve_front", {f"{REAR}devices": [valve]}, {f"{FRONT}devices": [valve]})
        lock = {"kind": "line_lock"}
        self.edge("line_lock_rear", {f"{FRONT}devices": [lock]}, {f"{REAR}devices": [lock]})

    def test_a_rod_that_can_fall_out_is_a_danger_and_one_not_looked_at_is_not_accused(self) -> None:
        told = self.edge("rod_retained", {f"{CONTROL}rod_retained": True}, {f"{CONTROL}rod_retained": False})
        self.assertEqual(told.level, "danger")
        self.assertNotIn("rod_retained", self.found())

    def test_a_rod_that_runs_crooked_somewhere_in_its_stroke(self) -> None:
        path = next(p for p in SETUPS if "hill-climb" in p.name)
        plain = files.read_file(files.parse_json(path.read_bytes()))
        assert isinstance(plain, Setup)
        control = plain.systems[0].control
        pin = float(str(control.pivot_to_pin_mm).split()[0])
        for off, crooked in ((0.0, False), (30.0, True)):
            rod = 400.0
            link = {"rest_angle_deg": -90, "bore_direction_deg": 0, "bore_point_mm": [rod, -pin + off], "rod_mm": rod, "sense": 1}
            setup = changed(plain, systems__0__control__linkage=link)
            told = [j for j in judged(setup) if j.id.startswith("rod_angle")]
            self.assertEqual(bool(told), crooked, off)
            for judgement in told:
                self.assertGreater(judgement.value or 0.0, ROD_ANGLE)


if __name__ == "__main__":
    unittest.main()

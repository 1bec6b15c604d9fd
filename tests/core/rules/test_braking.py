"""Judgements once their trials have run: what they say, and of which setup."""

import unittest
from typing import Any

from kobrix.core.rules import limits
from kobrix.core.rules.limits import EFFORT, LEVELS, Judgement
from kobrix.evaluate.solve import Answer, ByContent
from kobrix.evaluate.uncertainty import bare
from kobrix.evaluate.verdicts import tried
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import applied, demo_job


def judged(setup: Setup, found: Setup | None = None) -> list[Judgement]:
    """All judgements on a setup, each with its chance."""
    studied = tried(ByContent(setup), None if found is None else ByContent(found), None, bare())
    assert studied is not None
    return studied.judgements


def changed(setup: Setup, **fields: Any) -> Setup:
    """A setup with dotted fields changed (dots written as two underscores)."""
    edits = [{"path": path.replace("__", "."), "value": value} for path, value in fields.items()]
    document = applied(setup.model_dump(exclude_unset=True), edits)
    return files.check(Setup, document)


def by_id(found: list[Judgement], name: str) -> Judgement:
    return next(j for j in found if j.id == name)


class Levels(unittest.TestCase):
    def test_effort_bands(self) -> None:
        levels = [limits.effort_level("car_pedal", f) for f in (90, 120, 350, 400, 451, 501)]
        self.assertEqual(levels, ["note", "good", "good", "note", "caution", "danger"])
        self.assertEqual(limits.effort_level("aircraft_pedal", 300), "caution")
        self.assertEqual([limits.effort_level("aircraft_pedal", f, 500) for f in (200, 400, 501)], ["good", "caution", "danger"])
        self.assertEqual([limits.effort_level("car_pedal", f, None, "truck") for f in (390, 560, 699, 701)],
                         ["good", "caution", "caution", "danger"])  # fmt: skip
        self.assertEqual(EFFORT["hand_lever"].level(201), "danger")

    def test_travel_bands(self) -> None:
        self.assertEqual([limits.travel_level(s) for s in (0.55, 0.6, 0.7, 0.9)], ["good", "note", "caution", "danger"])


class Demo(unittest.TestCase):
    def setUp(self) -> None:
        self.job = demo_job()
        self.found = self.job.setup("as found")

    def test_as_found_is_too_heavy(self) -> None:
        effort = by_id(judged(self.found), "effort")
        self.assertEqual(effort.level, "danger")
        self.assertGreater(effort.value or 0.0, 500.0)

    def test_dangers_come_first(self) -> None:
        order = [LEVELS.index(j.level) for j in judged(self.job.setup("plan B"), self.found)]
        self.assertEqual(order, sorted(order))
        self.assertEqual(order[0], 0)

    def test_plan_a_names_the_pin_the_residual_valve_and_the_floor(self) -> None:
        found = judged(self.job.setup("plan A"), self.found)
        self.assertIn("16 mm", by_id(found, "pin_move").sentence)
        self.assertIn("10 psi", by_id(found, "residual_rear").sentence)
        self.assertIn("floor", by_id(found, "lost_rear").sentence)

    def test_a_pushrod_that_can_fall_out_is_a_danger(self) -> None:
        loose = changed(self.job.setup("plan A"), systems__0__control__rod_retained=False)
        self.assertEqual(by_id(judged(loose), "rod_retained").level, "danger")

    def test_a_single_cylinder_is_cautioned(self) -> None:
        cylinder = {"kind": "single", "bore_mm": "13/16 in", "stroke_mm": 30}
        single = changed(self.job.setup("plan A"), systems__0__cylinder=cylinder)
        found = judged(single)
        self.assertEqual(by_id(found, "one_circuit").level, "caution")
        self.assertEqual(by_id(found, "lost_circuit").level, "danger")

    def test_valves_in_series_and_in_front_are_cautioned(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": "600 psi", "slope": 0.4}
        devices = {"systems__0__stations__1__devices": [valve, valve], "systems__0__stations__0__devices": [valve]}
        ids = [j.id for j in judged(changed(self.job.setup("plan A"), **devices))]
        self.assertIn("series_rear", ids)
        self.assertIn("valve_front", ids)


class Parts(unittest.TestCase):
    """Rules about parts, each with a setup that breaks it and one that does not."""

    def ids(self, **fields: Any) -> list[str]:
        return [j.id for j in judged(changed(demo_job().setup("plan A"), **fields))]

    def test_a_valve_that_is_not_needed(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": 3000, "slope": 0.4}
        small = {"systems__0__stations__1__brake__pistons_mm": ["30 mm"], "systems__0__stations__1__devices": [valve]}
        self.assertIn("valve_not_needed", self.ids(**small))
        strong = {"systems__0__stations__1__brake__pistons_mm": ["44 mm"], "systems__0__stations__1__devices": [valve]}
        self.assertNotIn("valve_not_needed", self.ids(**strong))

    def test_tired_and_old_hoses(self) -> None:
        hose = {"kind": "rubber", "length_mm": 400, "count": 2}
        tired = {**hose, "coefficient_cm3_per_m_mpa": 0.3, "age_years": 14}
        found = self.ids(systems__0__stations__0__lines__hoses=[tired])
        self.assertIn("hose_growth_front", found)
        self.assertIn("hose_age_front", found)
        sound = {**hose, "coefficient_cm3_per_m_mpa": 0.2, "age_years": 4}
        self.assertFalse({"hose_growth_front", "hose_age_front"} & set(self.ids(systems__0__stations__0__lines__hoses=[sound])))

    def test_thin_rotors_and_small_reservoirs(self) -> None:
        thin = {
            "systems__0__stations__0__brake__rotor_thickness_mm": 18.2,
            "systems__0__stations__0__brake__rotor_least_thickness_mm": 19,
        }
        self.assertIn("rotor_front", self.ids(**thin))
        worn = {"systems__0__stations__0__brake__pad_wear_mm": 9, "systems__0__cylinder__reservoir_cm3": {"front": 60}}
        self.assertIn("reservoir_front", self.ids(**worn))
        worn["systems__0__cylinder__reservoir_cm3"] = {"front": 120}
        self.assertNotIn("reservoir_front", self.ids(**worn))

    def test_silicone_and_a_cylinder_below_the_brakes(self) -> None:
        self.assertIn("silicone", self.ids(systems__0__fluid="DOT 5"))
        found = self.ids(systems__0__cylinder__height_above_brakes_mm=-120)
        self.assertIn("residual_front", found)

    def test_hot_pads_that_leave_too_little_are_told_and_others_are_not(self) -> None:
        self.assertNotIn("hot", self.ids())
        weak = {f"systems__0__stations__{i}__brake__friction": {"cold": 0.38, "hot": 0.06} for i in (0, 1)}
        self.assertIn("hot", self.ids(**weak))

    def test_a_bypass_gives_the_rear_all_when_the_front_is_lost(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": 1000, "slope": 0.2}
        best = []
        for bypass in (False, True):
            setup = changed(demo_job().setup("plan A"), systems__0__stations__1__devices=[{**valve, "bypass": bypass}])
            answer = Answer(setup)
            assert answer.solved is not None and answer.solved.main.left is not None
            best.append(float(answer.solved.main.left.best[0, answer.solved.names.index("lost_front")]))
        self.assertGreater(best[1], best[0] * 1.2)


if __name__ == "__main__":
    unittest.main()

"""Answers to what a file asks besides: reasons where there is none, names that are checked, the invented vehicles."""

import copy
import json
import math
import unittest
from typing import Any

from kobrix.core.errors import BadEntry, BadFile
from kobrix.demo import SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions

from tests.cases import demo_job, evaluate, example_document, example_setup

LINKAGE = {"rest_angle_deg": -98, "sense": 1, "bore_point_mm": [160, -82], "bore_direction_deg": 0, "rod_mm": "7 in"}


def answers(setup: Setup | None = None, **asked: Any) -> dict[str, Any]:
    """The answers to some questions."""
    found: dict[str, Any] = evaluate(setup or example_setup(), files.check(Questions, asked))["answers"]
    return found


def changed(**systems: Any) -> Setup:
    """The example with parts of its system replaced."""
    document = copy.deepcopy(example_document())
    document["systems"][0].update(systems)
    return files.check(Setup, document)


class Reasons(unittest.TestCase):
    def test_a_null_carries_its_reason(self) -> None:
        found = answers(
            inverse={"bore_for_effort": {"decel_g": 0.6, "effort_n": 3}, "bar_for_share": {"decel_g": 0.5, "front_share": 0.7},
                     "rear_area_for_share": {"decel_g": 4.9, "front_share": 0.05}},
            nominal={"distance_m": 40, "speed_kmh": 80, "nominal_speed_kmh": 100},
            heat={"station": "rear", "speed_from_kmh": 100},
        )  # fmt: skip
        self.assertEqual(found["inverse"]["bore_for_effort"]["bore_mm"], None)
        self.assertIn("does not press", found["inverse"]["bore_for_effort"]["reason"])
        self.assertIn("no bar", found["inverse"]["bar_for_share"]["reason"])
        self.assertIn("more than 10 % off", found["nominal"]["reason"])
        self.assertIn("rotor mass", found["heat"]["reason"])

    def test_brakes_that_no_push_makes_press_heat_no_rotor(self) -> None:
        stations = copy.deepcopy(example_document()["systems"][0]["stations"])
        for station in stations:
            station["devices"] = [{"kind": "proportioning", "knee_kpa": 0, "slope": 0}]
            station["brake"].update(rotor_mass_kg=5, rotor_cooling_area_cm2=1600)
        found = answers(changed(stations=stations), heat={"station": "front", "speed_from_kmh": 100})
        self.assertIn("brakes that give the design stop", found["heat"]["reason"])

    def test_knees_that_are_not_needed_or_not_enough(self) -> None:
        stations = copy.deepcopy(example_document()["systems"][0]["stations"])
        stations[1]["brake"]["pistons_mm"] = [24]
        found = answers(changed(stations=stations), inverse={"knee_for_lock_order": {"margin": 0.02}})
        self.assertEqual(found["inverse"]["knee_for_lock_order"], {"knee_kpa": None, "reason": "not_needed"})
        stations[1]["brake"]["pistons_mm"] = [80, 80, 80]
        found = answers(changed(stations=stations), inverse={"knee_for_lock_order": {"margin": 0.02}})
        self.assertEqual(found["inverse"]["knee_for_lock_order"], {"knee_kpa": None, "reason": "none_low_enough"})

    def test_names_that_are_not_there(self) -> None:
        every: tuple[dict[str, Any], ...] = (
            {"parking": {"station": "middle", "torque_nm": 900}},
            {"parking": {"station": "rear", "torque_nm": 900, "load_state": "empty"}},
            {"heat": {"station": "front", "speed_from_kmh": 100, "path": "hand"}},
            {"tolerance": {"decel_g": 0.5, "plus_minus": {"systems.0.cylinder.width_mm": 1}}},
            {"tolerance": {"decel_g": 0.5, "plus_minus": {"systems.0.name": 1}}},
        )
        for asked in every:
            with self.assertRaises(BadEntry) as caught:
                answers(**asked)
            self.assertIn("allowed is", str(caught.exception))

    def test_bad_questions_are_refused_in_words(self) -> None:
        bad: tuple[tuple[dict[str, Any], str], ...] = (
            ({"stop": {"speed_kmh": "100 psi", "decel_g": 0.8}}, "unit of a pressure"),
            ({"mfdd": {"speed_kmh": 100, "begin_m": 60, "end_m": 20}}, "comes before"),
            ({"working": {}}, "exactly one of the two"),
            ({"heat": {"station": "front", "speed_from_kmh": 30, "speed_to_kmh": 60}}, "ends slower"),
        )
        for asked, words in bad:
            with self.assertRaisesRegex(BadFile, words):
                answers(**asked)

    def test_no_air_is_missing_where_the_pedal_is_explained(self) -> None:
        found = answers(trapped_air={"station": "rear", "pedal_force_n": 120, "pedal_travel_mm": 60})
        self.assertEqual(found["trapped_air"]["trapped_air_cm3"], 0.0)


class Doubt(unittest.TestCase):
    def test_it_is_the_same_for_the_same_seed_and_takes_typed_widths(self) -> None:
        asked = {"decel_g": 0.6, "seed": 5, "samples": 400, "plus_minus": {"systems.0.cylinder.bore_mm": "± 0.002 in"}}
        first, again = (answers(tolerance=asked)["tolerance"] for _ in range(2))
        self.assertEqual(first, again)
        metric = answers(tolerance={**asked, "plus_minus": {"systems.0.cylinder.bore_mm": 0.0508}})["tolerance"]
        self.assertAlmostEqual(first["p50_n"], metric["p50_n"], places=9)

    def test_a_stop_that_some_trials_never_reach_says_how_often(self) -> None:
        document = copy.deepcopy(example_document())
        for station in document["systems"][0]["stations"]:
            station["devices"] = [{"kind": "limiting", "setting_kpa": 3000}]
        weak = files.check(Setup, document)
        asked = {"decel_g": 0.49, "samples": 500, "plus_minus": {"systems.0.stations.0.brake.friction.cold": 0.08}}
        found = answers(weak, tolerance=asked)["tolerance"]
        self.assertGreater(found["never_reached_probability"], 0.05)
        self.assertLess(found["never_reached_probability"], 0.95)


class DrumsForAShare(unittest.TestCase):
    def test_the_wheel_cylinder_and_the_drum_that_are_told_give_the_share(self) -> None:
        setup = demo_job().setup("as found")
        asked = {"decel_g": 0.6, "front_share": 0.72}
        found = answers(setup, inverse={"rear_area_for_share": asked, "rear_rotor_for_share": asked})["inverse"]
        area, drum = found["rear_area_for_share"], found["rear_rotor_for_share"]
        self.assertIsNone(area["rear_side_area_cm2"])
        self.assertIsNone(drum["rear_rotor_diameter_mm"])
        wheel_cylinder = math.sqrt(area["rear_cylinder_area_cm2"] * 4 / math.pi) * 10
        for told in ({"wheel_cylinder_mm": wheel_cylinder}, {"drum_diameter_mm": drum["rear_drum_diameter_mm"]}):
            document = setup.model_dump(mode="json", exclude_unset=True)
            document["systems"][0]["stations"][1]["brake"].update(told)
            own = files.check(Setup, document)
            first = next(iter(evaluate(own, Questions(wanted_decels_g=[0.6]))["load_states"].values()))["paths"]["service"]
            push = first["pedal_force_for_decel"][0]["pedal_force_n"]
            then = next(iter(evaluate(own, Questions(pedal_forces_n=[push]))["load_states"].values()))["paths"]["service"]
            self.assertAlmostEqual(then["at_pedal_force"][0]["front_brake_share"], 0.72, places=6, msg=str(told))


class Working(unittest.TestCase):
    def test_every_step_adds_up_and_names_its_source(self) -> None:
        steps = {s["id"]: s for s in answers(working={"pedal_force_n": 120})["working"]["steps"]}
        moment = evaluate(example_setup(), Questions(pedal_forces_n=[120]))
        at = moment["load_states"]["driver only"]["paths"]["service"]["at_pedal_force"][0]
        self.assertAlmostEqual(steps["decel"]["value"], at["decel_g"], places=12)
        own = at["systems"]["service"]
        self.assertAlmostEqual(steps["service.travel"]["value"], own["pedal_travel_mm"], places=9)
        self.assertAlmostEqual(steps["service.rear.outlet"]["value"] * 1e3, own["stations"]["rear"]["pressure_kpa"], places=6)
        self.assertAlmostEqual(steps["service.front.clamp"]["value"], own["stations"]["front"]["clamp_n"], places=6)
        for step in steps.values():
            self.assertTrue(step["source"] and step["formula"] and step["numbers"] and step["unit"])
            self.assertTrue(all(used in steps for used in step["uses"]), step["id"])

    def test_a_drum_and_a_twin_have_theirs(self) -> None:
        for path in SETUPS:
            setup = files.read_file(files.parse_json(path.read_bytes()))
            assert isinstance(setup, Setup)
            found = answers(setup, working={"decel_g": 0.2})["working"]
            self.assertGreater(len(found["steps"]), 10, path.name)


class Vehicles(unittest.TestCase):
    def test_every_invented_vehicle_is_answered_without_nan(self) -> None:
        for path in SETUPS:
            document = files.parse_json(path.read_bytes())
            setup = files.read_file(document)
            assert isinstance(setup, Setup)
            self.assertIn("(invented)", setup.name)
            self.assertEqual(setup.model_dump(exclude_unset=True), document)
            result = evaluate(setup, Questions(pedal_forces_n=[0, 80, 250, 900], wanted_decels_g=[0.1, 0.5, 3]))
            json.dumps(result, allow_nan=False)
            self.assertNotIn("needs", result)

    def test_paths_of_several_controls(self) -> None:
        setup = files.read_file(files.parse_json(SETUPS[1].read_bytes()))
        assert isinstance(setup, Setup)
        paths = evaluate(setup)["load_states"]["rider"]["paths"]
        self.assertEqual(list(paths), ["hand_alone", "foot_alone", "together"])
        self.assertIn("hand_lost_circuit", paths["together"]["failures"])
        self.assertNotIn("distribution", paths["together"])
        design = paths["together"]["design_stop"]["systems"]
        self.assertAlmostEqual(design["foot"]["control_force_n"], 0.6 * design["hand"]["control_force_n"], places=9)
        way = {"name": "together", "ratio": {"hand": 1.0, "foot": 1.2}}
        other = evaluate(setup, files.check(Questions, {"control_paths": [way]}))["load_states"]["rider"]["paths"]
        own = other["together"]["design_stop"]["systems"]
        self.assertAlmostEqual(own["foot"]["control_force_n"], 1.2 * own["hand"]["control_force_n"], places=9)
        with self.assertRaisesRegex(BadEntry, "hand, foot"):
            evaluate(setup, files.check(Questions, {"control_paths": [{"name": "x", "ratio": {"knee": 1.0}}]}))

    def test_a_linkage_reports_its_ratio_and_angles(self) -> None:
        control = {**example_document()["systems"][0]["control"], "pivot_to_pin_mm": 76, "linkage": LINKAGE}
        result = evaluate(changed(control=control), Questions(pedal_forces_n=[120], wanted_decels_g=[0.5]))
        json.dumps(result, allow_nan=False)
        linkage = result["systems"]["service"]["linkage"]
        self.assertAlmostEqual(linkage["ratio_change"], linkage["ratio_full"] / linkage["ratio_rest"] - 1, places=12)
        own = result["load_states"]["driver only"]["paths"]["service"]["at_pedal_force"][0]["systems"]["service"]
        self.assertAlmostEqual(own["rod_force_n"], own["instant_ratio"] * 120 * 0.92 - 18, places=5)
        bad = {**control, "linkage": {**LINKAGE, "sense": -1}}
        with self.assertRaisesRegex(BadEntry, "drives the piston into the bore"):
            evaluate(changed(control=bad))

    def test_an_accumulator_counts_its_stops(self) -> None:
        booster = {"kind": "hydraulic", "gain": 4, "pump_pressure_kpa": 9000, "piston_area_cm2": 6.0,
                   "accumulator": {"volume_cm3": 400, "precharge_kpa": 4000, "full_kpa": 9000, "least_kpa": 5000, "per_stop_cm3": 15}}  # fmt: skip
        found = evaluate(changed(booster=booster))["systems"]["service"]
        gas, most, least = (p + 101.325 for p in (4000, 9000, 5000))
        self.assertEqual(found["accumulator_stops"], int(400 * (gas / least - gas / most) / 15))
        self.assertAlmostEqual(found["assist_limit_n"], 9e6 * 6e-4, places=6)


if __name__ == "__main__":
    unittest.main()

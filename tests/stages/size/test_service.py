"""What Size asks besides the line: other bores, failures, the working, setups side by side."""

import unittest
from typing import Any, get_args

from kobrix.core.errors import BadFile, NotFound
from kobrix.demo import SETUPS
from kobrix.evaluate.answer_shapes import RotorHeat
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.rotor_heat import heat_of_all
from kobrix.fileformat import files
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.layouts import Layout, new_job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions
from kobrix.stages.size.compare import compare
from kobrix.stages.size.service import failed_at, moment_at, working_at
from kobrix.stages.size.shapes import Comparison, Failed, PathView, SizeView, StepView

from tests.cases import conforms, demo_document, demo_job, evaluate, size_of


class Sheets(unittest.TestCase):
    def test_a_setup_that_cannot_be_solved_yet_brings_its_measure_sheet(self) -> None:
        document = demo_document()
        self.assertEqual(size_of(files.check(Job, document))["sheets"], {})
        del document["plans"][1]["systems"][0]["cylinder"]["bore_mm"]
        job = files.check(Job, document)
        view = size_of(job)
        conforms(SizeView, view)
        self.assertEqual(view["sheets"], {"plan B": measure_sheet(job, "plan B")})
        for layout in get_args(Layout):
            new = new_job("new", layout)
            self.assertEqual(size_of(new)["sheets"], {AS_FOUND: measure_sheet(new, AS_FOUND)})


class Paths(unittest.TestCase):
    def test_every_invented_vehicle_has_each_control_alone_and_all_together(self) -> None:
        wanted = {"hill-climb": ["pedal"], "motorcycle": ["hand_alone", "foot_alone", "together"]}
        for path in SETUPS:
            setup = files.read_file(files.parse_json(path.read_bytes()))
            assert isinstance(setup, Setup)
            view = size_of(files.as_job(setup))
            conforms(SizeView, view)
            names = [p["name"] for p in view["setups"][0]["solved"]["paths"]]
            self.assertEqual(names, wanted.get(path.name.split(".")[0], names))
            result = evaluate(setup)
            for own in view["setups"][0]["solved"]["paths"]:
                conforms(PathView, own)
                for state in own["states"]:
                    known = result["load_states"][state["name"]]["paths"][own["name"]]
                    self.assertEqual(state["first_lock"], known["first_lock"])
                    if state["lock"] is not None:
                        self.assertAlmostEqual(state["lock"]["push_n"], known["lock_pedal_force_n"], places=6)

    def test_another_bore_is_what_the_setup_with_that_bore_gives(self) -> None:
        view = size_of(demo_job())
        bores = view["setups"][1]["solved"]["paths"][0]["bores"]
        for name in ("3/4 in", "1 in"):
            own = next(b for b in bores if b["name"] == name)["states"][1]
            document = demo_document()
            document["plans"][0]["systems"][0]["cylinder"]["bore_mm"] = name
            at = moment_at(files.check(Job, document).setup("plan A"), 1, None, view["wanted_decel_g"])
            self.assertAlmostEqual(own["push_n"], at["pedal_force_n"], places=6)
            self.assertAlmostEqual(own["travel_mm"], at["systems"]["service"]["pedal_travel_mm"], places=6)


class Failures(unittest.TestCase):
    def test_the_line_with_a_failure_is_the_result_file_s(self) -> None:
        setup = demo_job().setup("plan A")
        result = evaluate(setup)
        left = result["load_states"]["four up"]["paths"]["service"]["failures"]
        for name in ("lost_front", "lost_rear", "hot", "wet"):
            found = failed_at(setup, 1, 800.0, name)
            conforms(Failed, found)
            curves = found["curves"]
            push = left[name]["pedal_force_n"]
            i = max(i for i, n in enumerate(curves["push_n"]) if n <= push)
            low, high = curves["push_n"][i], curves["push_n"][min(i + 1, len(curves["push_n"]) - 1)]
            part = (push - low) / (high - low) if high > low else 0.0
            z = curves["decel_g"][i] + part * (curves["decel_g"][min(i + 1, len(curves["push_n"]) - 1)] - curves["decel_g"][i])
            self.assertAlmostEqual(z, left[name]["decel_g"], places=6)

    def test_air_makes_the_pedal_longer_and_nothing_else(self) -> None:
        setup = demo_job().setup("plan A")
        air, sound = (dict[str, Any](failed_at(setup, 0, 800.0, name)["curves"]) for name in ("air_rear", "healthy"))
        self.assertEqual(air["decel_g"], sound["decel_g"])
        longer = air["lines"]["service"]["travel_mm"][-1] - sound["lines"]["service"]["travel_mm"][-1]
        pressure = air["lines"]["service"]["stations"]["rear"]["outlet_kpa"][-1]
        bore = 25.4 * 13 / 16
        stroke = 1000.0 * pressure / (pressure + 101.325) / (3.141592653589793 * bore**2 / 4)  # Boyle, 1 cm³
        self.assertAlmostEqual(longer, stroke * 292 / 48, places=6)

    def test_a_failure_that_is_none(self) -> None:
        with self.assertRaises(NotFound):
            failed_at(demo_job().setup("plan A"), 0, 800.0, "lost_middle")
        with self.assertRaises(NotFound):
            moment_at(demo_job().setup("plan A"), 0, 300.0, None, "together")


class Working(unittest.TestCase):
    def test_every_step_says_where_its_numbers_come_from(self) -> None:
        setup = demo_job().setup("plan A")
        steps = working_at(setup, 0, 341.0)
        for step in steps:
            conforms(StepView, step)
        by = {s["id"]: s for s in steps}
        self.assertIn("systems.0.cylinder.bore_mm", by["service.front.inlet"]["provenance"])
        self.assertIn("systems.0.stations.1.brake.pistons_mm", by["service.rear.clamp"]["provenance"])
        self.assertIn("systems.0.stations.0.lines.hoses.0.length_mm", by["service.travel.front.hose"]["provenance"])
        load = "vehicle.load_states.0."
        self.assertEqual(by["decel"]["provenance"], [f"{load}mass_kg"])
        self.assertEqual(by["adhesion.front"]["provenance"], [])  # of the load and the force alone, each with its own
        shared = [f"{load}{name}" for name in ("mass_kg", "front_share", "cg_height_mm")]
        self.assertEqual(by["load.front"]["provenance"], [*shared, "vehicle.wheelbase_mm"])
        self.assertAlmostEqual(by["service.front.inlet"]["value"], 5.42, places=2)
        for step in steps:
            for path in step["provenance"]:
                here: Any = setup.model_dump()
                for name in path.split("."):
                    if here is None:  # a part that was left out: its default is used
                        break
                    here = here[int(name)] if name.isdigit() else here[name]


class SideBySide(unittest.TestCase):
    def test_the_results_are_the_result_file_s_and_only_what_differs_is_listed(self) -> None:
        found = compare(demo_job(), 0, decel=0.7)
        conforms(Comparison, found)
        rows = {r["label"]: r["values"] for r in found["results"]}
        for i, name in enumerate(found["setups"]):
            result = evaluate(demo_job().setup(name), Questions(pedal_forces_n=[300.0]))
            path = result["load_states"]["driver and charger"]["paths"]["service"]
            self.assertAlmostEqual(float(rows["first lock"][i]), path["lock_decel_g"], places=3)
            at = moment_at(demo_job().setup(name), 0, None, 0.7)
            held = ", at its first lock" if path["lock_decel_g"] < 0.7 else ""
            self.assertEqual(rows["push for the stop"][i], f"{at['pedal_force_n']:.0f}{held}")
        labels = [r["label"] for r in found["inputs"]]
        self.assertIn("bore", labels)
        self.assertNotIn("wheelbase", labels)
        self.assertTrue(all(len(set(r["values"])) > 1 for r in found["inputs"]))
        self.assertIn("Plan A: 58 % lighter", found["words"][0])

    def test_against_another_plan_in_words(self) -> None:
        found = compare(demo_job(), 1, "plan B", 0.6)
        self.assertTrue(all(w.endswith("than plan B.") for w in found["words"]))
        self.assertEqual(len(found["words"]), 2)


class Heat(unittest.TestCase):
    def test_every_disc_of_a_setup_and_the_reason_for_a_drum(self) -> None:
        asked: Any = {
            "speed_from_kmh": "100 km/h",
            "speed_to_kmh": "20 km/h",
            "stops": 3,
            "cooling_time_s": "30 s",
            "cooling_speed_kmh": "60 km/h",
        }
        found: Any = heat_of_all(demo_job().setup("as found"), asked)
        for doc in found.values():
            conforms(RotorHeat, doc)
        self.assertEqual(len(found["front"]["peaks_c"]), 3)
        self.assertIn("discs only", found["rear"]["reason"])
        share, energy = found["front"]["axle_share"], found["front"]["stop_energy_j"]
        self.assertAlmostEqual(energy, 0.5 * 1310 * ((100 / 3.6) ** 2 - (20 / 3.6) ** 2), places=3)
        self.assertAlmostEqual(found["front"]["rotor_energy_j"], energy * share * 0.95 / 2, places=6)
        with self.assertRaises(BadFile):
            heat_of_all(demo_job().setup("plan A"), {**asked, "speed_from_kmh": "warm"})


if __name__ == "__main__":
    unittest.main()

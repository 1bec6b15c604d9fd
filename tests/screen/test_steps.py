"""The steps that the screen sends, read by the server and carried out on documents of every kind."""

import unittest
from typing import Any

from kobrix.api.edits import edits_of
from kobrix.api.requests import ChangeIn
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import pointer
from kobrix.store.edits import value_at

from tests.cases import applied, demo_document, size_of
from tests.screen.case import ScreenCase

PIN = "systems.0.control.pivot_to_pin_mm"


def after(document: dict[str, Any], step: dict[str, Any]) -> dict[str, Any]:
    """The document after a step of the screen; it can be read."""
    changed = applied(document, edits_of(document, ChangeIn(base=0, **step)))
    files.check(Job, changed)
    return changed


def entry(path: str, **more: Any) -> dict[str, Any]:
    """An entry of the sheet as the screen has it."""
    return {"path": path, "label": "pivot to pin", "default": None, "stand_in": None, **more}


class Measured(ScreenCase):
    modules = ("chain/entrySteps.ts",)

    def step(self, name: str, *args: Any) -> dict[str, Any]:
        step: dict[str, Any] = self.ask("chain/entrySteps", name, *args)
        return step

    def test_what_is_typed_as_found_is_read_and_followed(self) -> None:
        document, path = demo_document(), "as_found.systems.0.control.pivot_to_pad_mm"
        same = value_at(document, pointer(path))[0]
        plans = [p["systems"][0]["control"]["pivot_to_pad_mm"] == same for p in document["plans"]]
        changed = after(document, self.step("typedStep", entry(path), "11 1/2", "in"))
        self.assertEqual(value_at(changed, pointer(path))[0], "11 1/2 in")
        self.assertEqual([p["systems"][0]["control"]["pivot_to_pad_mm"] == "11 1/2 in" for p in changed["plans"]], plans)

    def test_not_known_lets_a_value_stand_in_and_says_so(self) -> None:
        document, path = demo_document(), f"plans.0.{PIN}"
        changed = after(document, self.step("unknownStep", entry(path, stand_in={"text": "60 mm"})))
        self.assertEqual(value_at(changed, pointer(path))[0], "60 mm")
        self.assertIn(path, changed["assumed"])
        left_out = self.step("unknownStep", entry(path, default={"text": "60 mm"}, stand_in={"text": "60 mm"}))
        self.assertNotIn("text", left_out["edits"][0], "what has a default of its own is left out")
        again = after(changed, self.step("typedStep", entry(path), "50 mm"))
        self.assertNotIn(path, again["assumed"], "measured, it is no longer assumed")

    def test_a_tolerance_is_put_in_and_taken_out(self) -> None:
        document, path = demo_document(), f"as_found.{PIN}"
        document.pop("tolerances", None)
        changed = after(document, self.step("toleranceStep", entry(path), "1/16", "in"))
        self.assertEqual(changed["tolerances"], {path: "1/16 in"})
        self.assertEqual(after(changed, self.step("toleranceStep", entry(path), "  ", "in"))["tolerances"], {})

    def test_a_choice_is_stored_as_it_is(self) -> None:
        path = "plans.0.systems.0.fluid"
        self.assertEqual(
            value_at(after(demo_document(), self.step("valueStep", entry(path), "DOT 5.1")), pointer(path))[0], "DOT 5.1"
        )


class Sized(ScreenCase):
    modules = ("chain/place.ts", "units/preference.ts")

    def setUp(self) -> None:
        self.look(demo_document())

    def look(self, document: dict[str, Any]) -> None:
        """The job as a screen has it, from here on."""
        self.document, self.view = document, size_of(files.check(Job, document))
        job = {"document": document, "setups": ["as found", *(p["name"] for p in document["plans"])]}
        self.own = self.ask("chain/place", "setupIn", job, "plan A")
        self.place = self.ask("chain/place", "placeOf", self.solved["lines"][0], "plan A", self.own)
        self.rear = next(s for s in self.solved["parts"]["stations"] if s["axle"] == "rear")

    @property
    def solved(self) -> dict[str, Any]:
        path: dict[str, Any] = self.view["setups"][1]["solved"]["paths"][-1]
        return path

    def test_a_setup_is_found_by_its_name(self) -> None:
        document = demo_document()
        job = {"document": document, "setups": ["as found", *(p["name"] for p in document["plans"])]}
        for name, own in zip(job["setups"], (document["as_found"], *document["plans"]), strict=True):
            self.assertEqual(self.ask("chain/place", "setupIn", job, name), own)
        self.assertIsNone(self.ask("chain/place", "valueAt", document, "plans.9.name"))

    def knee(self, text: str) -> tuple[str, list[dict[str, Any]]]:
        """What typing a knee is called, and the devices of the rear line after it, which is looked at from then on."""
        step = self.ask("chain/place", "kneeStep", self.place, self.rear, text)
        self.look(after(self.document, step))
        path = f"{self.ask('chain/place', 'stationPath', self.place, self.rear['name'])}.devices"
        return step["label"], value_at(self.own, pointer(path))[0]

    def test_a_knee_is_put_in_changed_and_taken_out(self) -> None:
        self.assertIsNone(self.rear["valve_place"])
        label, devices = self.knee("650")
        self.assertEqual((label, devices[-1]), ("valve in", {"kind": "proportioning", "knee_kpa": "650 psi"}))
        label, devices = self.knee("5 MPa")
        self.assertEqual((label, devices[self.rear["valve_place"]]["knee_kpa"]), ("valve knee", "5 MPa"))
        self.assertEqual(self.knee("700")[1][self.rear["valve_place"]]["knee_kpa"], "700 psi")
        label, devices = self.knee("  ")
        self.assertEqual((label, [d for d in devices if d["kind"] == "proportioning"]), ("valve out", []))
        self.assertIsNone(self.rear["valve_place"])
        self.assertEqual(self.knee("3 MPa")[1][-1]["knee_kpa"], "3 MPa")

    def test_a_knee_is_dragged_along_the_path_before_the_valve(self) -> None:
        state = self.solved["states"][0]
        knee = self.ask("chain/place", "kneeOf", self.solved, state)
        self.assertFalse(knee["present"])
        lock = next(i for i, push in enumerate(state["curves"]["push_n"]) if push >= state["lock"]["push_n"])
        inlet = state["curves"]["lines"][self.solved["system"]]["stations"][self.rear["name"]]["inlet_kpa"]
        self.assertEqual(knee["kpa"], inlet[lock], "where it locks, while there is no valve")
        self.knee("3 MPa")
        state = self.solved["states"][0]
        knee = self.ask("chain/place", "kneeOf", self.solved, state)
        self.assertTrue(knee["present"])
        self.assertAlmostEqual(knee["kpa"], 3000.0, places=6)
        self.assertTrue(all(p["kpa"] <= 3000.5 for p in knee["points"]))
        ratios = [p["rear"] / p["front"] for p in knee["points"] if p["front"] > 0]
        self.assertAlmostEqual(min(ratios), max(ratios), places=6, msg="before the valve the sharing is a straight line here")
        self.assertIsNone(self.ask("chain/place", "kneeOf", {**self.solved, "lines": self.solved["lines"] * 2}, state))

    def test_a_bare_number_of_a_length_is_in_the_unit_preferred(self) -> None:
        for quantity, unit, path in (("length", "in", PIN), ("pressure", "bar", "systems.0.stations.1.devices.0.knee_kpa")):
            before = self.ask("units/preference", "current")[quantity]
            self.ask("units/preference", "prefer", quantity, unit)
            step = self.ask("chain/place", "typedStep", self.place, "a part", path, "2")
            self.assertEqual(step["edits"], [{"path": pointer(path), "text": "2", "preferred": unit}])
            self.assertEqual(step["under"], "plan A")
            self.ask("units/preference", "prefer", quantity, before)

    def test_every_field_of_every_demo_vehicle_is_where_the_file_has_it(self) -> None:
        from kobrix.demo import JOBS, SETUPS

        for file in (*JOBS, *SETUPS):
            value = files.read_file(files.parse_json(file.read_bytes()))
            job = files.as_job(value) if isinstance(value, Setup) else value
            document: Any = job.model_dump(exclude_unset=True)
            page = {"document": document, "setups": job.names}
            for setup in size_of(job)["setups"]:
                own = self.ask("chain/place", "setupIn", page, setup["key"])
                for path in setup["solved"]["paths"] if setup["solved"] else []:
                    for line in path["lines"]:
                        place = self.ask("chain/place", "placeOf", line, setup["key"], own)
                        control = value_at(own, pointer(f"{place['control']}.control"))[0]
                        self.assertIn("pivot_to_pad_mm", control, (job.name, line["system"]))
                        for station in line["parts"]["stations"]:
                            at = self.ask("chain/place", "stationPath", place, station["name"])
                            stored = value_at(own, pointer(at))[0]
                            self.assertEqual(stored["name"], station["name"])


if __name__ == "__main__":
    unittest.main()

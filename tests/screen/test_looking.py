"""What a person looks at and steps through in Size: the reducer, where fields live, sizes, valves, mends; the job's progress."""

import copy
import itertools
import unittest
from typing import Any

from kobrix.demo import JOBS, SETUPS
from kobrix.setup import files
from kobrix.setup.entries import typed_edit
from kobrix.setup.job import Job
from kobrix.setup.model import Setup, controls_of
from kobrix.setup.view import job_view
from kobrix.store.edits import apply, value_at

from tests.cases import demo_document
from tests.screen.case import ScreenCase

EDITS = "features/size/edits.ts"


class Reducer(ScreenCase):
    modules = ("features/size/state.ts",)
    state: dict[str, Any] = {
        "setup": "plan A", "path": None, "load": 1, "asked": {"by": "push", "value": 300}, "match": "stop", "failure": "lost_front"
    }  # fmt: skip

    def after(self, **look: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("features/size/state", "looking", self.state, look)
        return found

    def test_another_setup_is_looked_at_whole_and_at_the_same_push(self) -> None:
        self.assertEqual(self.after(type="setup", setup="plan B"), {**self.state, "setup": "plan B", "failure": None})

    def test_another_path_or_load_is_looked_at_at_the_stop_wanted(self) -> None:
        stop = {"by": "decel", "value": 0.81}
        self.assertEqual(self.after(type="load", load=0, decel=0.81), {**self.state, "load": 0, "asked": stop})
        self.assertEqual(self.after(type="path", path="hand_alone", decel=0.81),
                         {**self.state, "path": "hand_alone", "failure": None, "asked": stop})  # fmt: skip

    def test_nothing_below_no_push(self) -> None:
        self.assertEqual(self.after(type="push", value=-4)["asked"], {"by": "push", "value": 0})
        self.assertEqual(self.after(type="decel", value=-1)["asked"], {"by": "decel", "value": 0})

    def test_the_rest_changes_only_itself(self) -> None:
        self.assertEqual(self.after(type="match", match="push"), {**self.state, "match": "push"})
        self.assertEqual(self.after(type="failure", failure=None), {**self.state, "failure": None})


class Places(ScreenCase):
    modules = (EDITS,)

    def place(self, document: dict[str, Any], setup: str, control: str) -> dict[str, Any]:
        found: dict[str, Any] = self.ask(EDITS, "placeOf", document, setup, control)
        return found

    def test_every_control_of_every_demo_job_is_found_where_the_file_has_it(self) -> None:
        for file in (*JOBS, *SETUPS):
            value = files.read_file(files.parse_json(file.read_bytes()))
            job = files.as_job(value) if isinstance(value, Setup) else value
            document = job.model_dump(exclude_unset=True)
            for name in ("as found", *(p.name for p in job.plans)):
                for control in controls_of(job.setup(name).systems):
                    place = self.place(document, name, control.name)
                    stored, there = value_at(document, f"{place['control']}.control")
                    self.assertTrue(there, (file.name, name, control.name))
                    self.assertEqual(stored.get("kind", "car_pedal"), control.control.kind)
                    system, _ = value_at(document, place["owner"])
                    for station in system["stations"]:
                        path = self.ask(EDITS, "stationPath", place, station["name"])
                        self.assertEqual(value_at(document, path)[0], station)

    def test_second_controls_are_found_by_name_and_by_number(self) -> None:
        document = demo_document()
        system = document["plans"][0]["systems"][0]
        second = {"control": copy.deepcopy(system["control"]), "cylinder": copy.deepcopy(system["cylinder"])}
        own = system["name"]
        system["second_control"] = second
        self.assertEqual(self.place(document, "plan A", f"{own}_second")["control"], "plans.0.systems.0.second_control")
        system["second_control"] = [second, {**second, "name": "instructor"}]
        self.assertEqual(self.place(document, "plan A", f"{own}_second_1")["control"], "plans.0.systems.0.second_control.0")
        place = self.place(document, "plan A", "instructor")
        self.assertEqual((place["control"], place["owner"]), ("plans.0.systems.0.second_control.1", "plans.0.systems.0"))
        self.assertEqual(self.place(document, "plan A", "nobody")["control"], "plans.0.systems.0")


class Steps(ScreenCase):
    modules = (EDITS, "units/preference.ts")

    def setUp(self) -> None:
        self.look(demo_document())

    def look(self, document: dict[str, Any]) -> None:
        """The job as a screen has it, from here on."""
        self.document, self.view = document, job_view(files.check(Job, document))
        self.place = self.ask(EDITS, "placeOf", document, "plan A", self.solved["system"])
        self.rear = next(s for s in self.solved["parts"]["stations"] if s["axle"] == "rear")

    @property
    def solved(self) -> dict[str, Any]:
        path: dict[str, Any] = self.view["setups"][1]["solved"]["paths"][-1]
        return path

    def test_standard_bores_are_stepped_one_by_one_and_end(self) -> None:
        bores, now = self.view["standard_bores"], 0.0
        up = []
        while (found := self.ask(EDITS, "nextBore", bores, now, 1)) is not None:
            now = found["bore_mm"]
            up.append(now)
        self.assertEqual(up, sorted(up))
        self.assertTrue(all(b - a > 0.15 for a, b in itertools.pairwise(up)), "two names of one size are one step")
        down = [now]
        while (found := self.ask(EDITS, "nextBore", bores, down[-1], -1)) is not None:
            down.append(found["bore_mm"])
        self.assertEqual(next(round(b, 2) for b in reversed(down)), round(up[0], 2))
        self.assertLessEqual(abs(len(down) - len(up)), 1)
        between = self.ask(EDITS, "nextBore", bores, 20.9, 1)
        self.assertGreater(between["bore_mm"], 20.9 + 0.15)

    def knee(self, text: str) -> tuple[str, list[dict[str, Any]]]:
        """What typing a knee is called, and the devices of the rear line after it, which is looked at from then on."""
        step = self.ask(EDITS, "kneeStep", self.place, self.rear, text)
        edits = [typed_edit(e["path"], e["text"], e.get("preferred")) if "text" in e else e for e in step["edits"]]
        self.look(apply(self.document, edits)[0])
        devices = value_at(self.document, f"{self.ask(EDITS, 'stationPath', self.place, self.rear['name'])}.devices")[0]
        return step["label"], devices

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
        knee = self.ask(EDITS, "kneeOf", self.solved, state)
        self.assertFalse(knee["present"])
        lock = next(i for i, push in enumerate(state["curves"]["push_n"]) if push >= state["lock"]["push_n"])
        inlet = state["curves"]["lines"][self.solved["system"]]["stations"][self.rear["name"]]["inlet_kpa"]
        self.assertEqual(knee["kpa"], inlet[lock], "where it locks, while there is no valve")
        self.knee("3 MPa")
        state = self.solved["states"][0]
        knee = self.ask(EDITS, "kneeOf", self.solved, state)
        self.assertTrue(knee["present"])
        self.assertAlmostEqual(knee["kpa"], 3000.0, places=6)
        self.assertTrue(all(p["kpa"] <= 3000.5 for p in knee["points"]))
        ratios = [p["rear"] / p["front"] for p in knee["points"] if p["front"] > 0]
        self.assertAlmostEqual(min(ratios), max(ratios), places=6, msg="before the valve the sharing is a straight line here")
        self.assertIsNone(self.ask(EDITS, "kneeOf", {**self.solved, "lines": self.solved["lines"] * 2}, state))

    def test_a_mend_that_is_tried_is_shown_where_it_would_be_stored(self) -> None:
        mends = [f["mend"] for f in self.view["setups"][1]["findings"] if f["mend"] and f["mend"]["edits"]]
        self.assertTrue(mends)
        for mend in mends:
            step = self.ask(EDITS, "mendStep", self.place, mend["label"], mend["edits"])
            stored, _ = apply(self.document, step["edits"])
            self.assertEqual(self.ask(EDITS, "withEdits", self.document, step["edits"]), stored)
            files.check(Job, stored)

    def test_a_bare_number_of_a_length_is_in_the_unit_preferred(self) -> None:
        for quantity, unit, path in (("length", "in", "plans.0.systems.0.control.pivot_to_pin_mm"),
                                     ("pressure", "bar", "plans.0.systems.0.stations.1.devices.0.knee_kpa")):  # fmt: skip
            before = self.ask("units/preference", "current")[quantity]
            self.ask("units/preference", "prefer", quantity, unit)
            self.assertEqual(
                self.ask(EDITS, "typed", "a part", path, "2")["edits"], [{"path": path, "text": "2", "preferred": unit}]
            )
            self.ask("units/preference", "prefer", quantity, before)


class Progress(ScreenCase):
    modules = ("ui/progress.ts",)

    def stages(self, done: int, *levels: str | None, doubted: int = 0, solved: bool = True) -> list[tuple[str, str]]:
        setups: list[dict[str, Any]] = [
            {"key": f"plan {n}", "solved": {} if solved else None, "level": level} for n, level in enumerate(("danger", *levels))
        ]
        view = {"measured": {"done": done, "total": 57, "doubted": doubted}, "setups": setups}
        found = self.ask("ui/progress", "progressOf", view)
        return [(found[stage]["state"], found[stage]["words"]) for stage in ("Measure", "Size")]

    def test_measuring_says_how_much_is_done_and_what_is_in_doubt(self) -> None:
        for done, doubted, state, words in (
            (0, 0, "empty", "empty"), (50, 3, "begun", "begun: 50 of 57"), (57, 3, "doubt", "doubt: 3 unsure"), (57, 0, "ready", "ready")
        ):  # fmt: skip
            self.assertEqual(self.stages(done, "danger", doubted=doubted)[0], (state, words))

    def test_sizing_stands_as_the_best_of_the_plans(self) -> None:
        for levels, state in (
            (("danger", "danger"), "begun"), (("danger", "caution"), "doubt"), (("caution", "note", "danger"), "ready"),
            (("good",), "ready"), ((), "begun"),
        ):  # fmt: skip
            self.assertEqual(self.stages(57, *levels)[1][0], state, levels)
        self.assertEqual(self.stages(0, None, solved=False)[1], ("empty", "empty"))


if __name__ == "__main__":
    unittest.main()

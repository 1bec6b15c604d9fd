"""The edits that the screen makes of whole documents, carried out by the store and checked as files."""

import copy
import unittest
from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.setup import files
from kobrix.setup.job import Job
from kobrix.store.edits import apply, value_at

from tests.cases import demo_document
from tests.screen.case import ScreenCase

PIN = "systems.0.control.pivot_to_pin_mm"


def known() -> dict[str, Any]:
    """The demo job with something known of an entry of each setup."""
    document = demo_document()
    document["tolerances"] = {
        f"as_found.{PIN}": "1 mm",
        f"plans.0.{PIN}": "2 mm",
        f"plans.1.{PIN}": "3 mm",
        "vehicle.mass_kg": "5 kg",
    }
    document["assumed"] = [f"plans.0.{PIN}", f"plans.1.{PIN}"]
    return document


class Plans(ScreenCase):
    modules = ("ui/plans.ts", "api/document.ts")

    def done(self, document: dict[str, Any], name: str, *args: str) -> dict[str, Any]:
        """The document after the edits of `name`, which is a job that can be read."""
        after, _ = apply(document, self.ask("ui/plans", name, document, *args))
        files.check(Job, after)
        result: dict[str, Any] = after
        return result

    def test_the_first_free_letter_names_a_plan(self) -> None:
        document = demo_document()
        self.assertEqual(self.ask("ui/plans", "freeName", document), "plan C")
        document["plans"][0]["name"] = "mine"
        self.assertEqual(self.ask("ui/plans", "freeName", document), "plan A")
        document["plans"] = [{"name": f"plan {letter}"} for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"]
        self.assertEqual(self.ask("ui/plans", "freeName", document), "plan 27")

    def test_a_copy_has_the_parts_and_what_is_known_of_them(self) -> None:
        before = known()
        for source, place in (("plan B", "plans.1"), ("as found", "as_found")):
            after = self.done(copy.deepcopy(before), "copyEdits", source, "plan C")
            own, there = value_at(after, "plans.2")
            self.assertTrue(there)
            self.assertEqual(own["systems"], value_at(before, place)[0]["systems"])
            self.assertEqual(own["name"], "plan C")
            self.assertEqual(after["tolerances"][f"plans.2.{PIN}"], before["tolerances"][f"{place}.{PIN}"])
            self.assertEqual(f"plans.2.{PIN}" in after["assumed"], f"{place}.{PIN}" in before["assumed"])
            self.assertEqual({k: v for k, v in after["tolerances"].items() if "plans.2" not in k}, before["tolerances"])
            self.assertEqual(after["plans"][:2], before["plans"])

    def test_what_is_known_of_the_plans_behind_one_that_goes_moves_up(self) -> None:
        after = self.done(known(), "removeEdits", "plan A")
        self.assertEqual([p["name"] for p in after["plans"]], ["plan B"])
        self.assertEqual(after["tolerances"], {f"as_found.{PIN}": "1 mm", f"plans.0.{PIN}": "3 mm", "vehicle.mass_kg": "5 kg"})
        self.assertEqual(after["assumed"], [f"plans.0.{PIN}"])

    def test_the_last_plan_goes_and_leaves_the_others(self) -> None:
        after = self.done(known(), "removeEdits", "plan B")
        self.assertEqual(after["tolerances"], {f"as_found.{PIN}": "1 mm", f"plans.0.{PIN}": "2 mm", "vehicle.mass_kg": "5 kg"})

    def test_a_new_name_changes_nothing_else(self) -> None:
        before = known()
        after = self.done(copy.deepcopy(before), "renameEdits", "plan B", "on the shelf")
        before["plans"][1]["name"] = "on the shelf"
        self.assertEqual(after, before)

    def test_a_name_that_is_taken_is_refused_by_the_file(self) -> None:
        after, _ = apply(demo_document(), self.ask("ui/plans", "renameEdits", demo_document(), "plan B", "plan A"))
        with self.assertRaises(Exception) as refused:
            files.check(Job, after)
        self.assertIn("plan A", str(refused.exception))

    def test_screen_and_store_find_the_same_at_a_path(self) -> None:
        document = demo_document()
        for path in ("name", "vehicle.wheelbase_mm", f"plans.1.{PIN}", "plans.0.systems.0.stations.1.brake.pistons_mm.0"):
            self.assertEqual(self.ask("api/document", "valueAt", document, path), value_at(document, path)[0], path)
        for path in ("plans.9.name", "name.first", "nothing.at.all"):
            self.assertIsNone(self.ask("api/document", "valueAt", document, path))
        self.assertEqual(self.ask("api/document", "rootOf", document, "plan B"), "plans.1")
        self.assertEqual(self.ask("api/document", "rootOf", document, "as found"), "as_found")


def entry(path: str, **more: Any) -> dict[str, Any]:
    """An entry of the sheet as the screen has it."""
    return {"path": path, "label": "pivot to pin", "default": None, "stand_in": None, **more}


class Measured(ScreenCase):
    modules = ("features/measure/steps.ts",)

    def step(self, name: str, *args: Any) -> list[dict[str, Any]]:
        edits: list[dict[str, Any]] = self.ask("features/measure/steps", name, *args)["edits"]
        return edits

    def test_what_is_found_follows_into_the_plans_that_had_the_same(self) -> None:
        document = demo_document()
        path = "as_found.systems.0.control.pivot_to_pad_mm"
        below = path.removeprefix("as_found.")
        same = [f"plans.{i}.{below}" for i, plan in enumerate(document["plans"])
                if value_at(plan, below) == value_at(document["as_found"], below)]  # fmt: skip
        self.assertTrue(same)
        edits = self.step("typedStep", document, entry(path), "11 1/2", "in")
        self.assertEqual([e["path"] for e in edits], [path, *same])
        self.assertEqual({e["text"] for e in edits}, {"11 1/2"})
        self.assertEqual({e["preferred"] for e in edits}, {"in"})
        document["plans"][0]["systems"][0]["control"]["pivot_to_pad_mm"] = "300 mm"
        self.assertNotIn(f"plans.0.{below}", [e["path"] for e in self.step("typedStep", document, entry(path), "300 mm")])

    def test_an_entry_of_a_plan_stays_in_it(self) -> None:
        edits = self.step("typedStep", demo_document(), entry(f"plans.0.{PIN}"), "50 mm")
        self.assertEqual([e["path"] for e in edits], [f"plans.0.{PIN}"])

    def test_not_known_lets_a_value_stand_in_and_says_so(self) -> None:
        document, path = known(), f"as_found.{PIN}"
        edits = self.step("unknownStep", document, entry(path, stand_in={"text": "60 mm"}))
        self.assertEqual(edits[0], {"path": path, "text": "60 mm"})
        self.assertEqual(edits[-1], {"path": "assumed", "value": [*document["assumed"], path]})
        edits = self.step("unknownStep", document, entry(path, default={"text": "60 mm"}, stand_in={"text": "60 mm"}))
        self.assertEqual(edits[0], {"path": path}, "what has a default of its own is left out")

    def test_an_entry_that_is_measured_is_no_longer_assumed(self) -> None:
        document = known()
        edits = self.step("typedStep", document, entry(f"plans.0.{PIN}"), "50 mm")
        self.assertEqual(edits[-1], {"path": "assumed", "value": [f"plans.1.{PIN}"]})

    def test_a_tolerance_is_put_in_and_taken_out(self) -> None:
        path = f"as_found.{PIN}"
        for text, plus in (("1/16 in", "1/16 in"), ("", None), ("  ", None)):
            edits = self.step("toleranceStep", entry(path), text, "in")
            self.assertEqual(edits[0]["path"], f"tolerances.[{path}]")
            self.assertEqual(edits[0].get("text"), plus)
            apply(known(), [{"path": edits[0]["path"], **({"value": plus} if plus else {})}])

    def test_a_choice_is_stored_as_it_is_and_nothing_takes_it_away(self) -> None:
        path = "plans.0.systems.0.fluid"
        self.assertEqual(self.step("valueStep", demo_document(), entry(path), "DOT 5.1"), [{"path": path, "value": "DOT 5.1"}])
        edits = self.step("editsStep", demo_document(), "no booster", [{"path": "plans.0.systems.0.booster", "value": None}])
        self.assertEqual(edits, [{"path": "plans.0.systems.0.booster"}])
        with self.assertRaises(BadEntry):
            apply(demo_document(), [{"path": "plans.9.systems.0.fluid", "value": "DOT 4"}])


if __name__ == "__main__":
    unittest.main()

"""Plans made, renamed, moved and taken out, what is found followed into them, and what is known of entries going with them."""

import copy
import unittest
from typing import Any

from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat import files, job_edits
from kobrix.fileformat.job import Job
from kobrix.fileformat.paths import Edit, insert_at, pointer, set_at, take_away
from kobrix.store.edits import apply, value_at

from tests.cases import applied, demo_document, every_layout

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


def done(document: dict[str, Any], edits: list[Edit]) -> dict[str, Any]:
    """The document after `edits` and what follows from them, which is a job that can be read."""
    after = applied(document, job_edits.with_entries(document, edits, lambda now, own: apply(now, own)[0]))
    files.check(Job, after)
    return after


class Plans(unittest.TestCase):
    def test_the_first_free_letter_names_a_plan(self) -> None:
        document = demo_document()
        self.assertEqual(job_edits.free_name(document), "plan C")
        document["plans"][0]["name"] = "mine"
        self.assertEqual(job_edits.free_name(document), "plan A")
        document["plans"] = [{"name": f"plan {letter}"} for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"]
        self.assertEqual(job_edits.free_name(document), "plan 27")

    def test_a_copy_has_the_parts_and_what_is_known_of_them(self) -> None:
        before = known()
        for source, place in (("plan B", "plans.1"), ("as found", "as_found")):
            after = done(copy.deepcopy(before), job_edits.copy_plan(before, source, "plan C"))
            own = after["plans"][2]
            self.assertEqual(own["systems"], value_at(before, pointer(place))[0]["systems"])
            self.assertEqual(own["name"], "plan C")
            self.assertNotIn("note", own)
            self.assertEqual(after["tolerances"][f"plans.2.{PIN}"], before["tolerances"][f"{place}.{PIN}"])
            self.assertEqual(f"plans.2.{PIN}" in after["assumed"], f"{place}.{PIN}" in before["assumed"])
            self.assertEqual({k: v for k, v in after["tolerances"].items() if "plans.2" not in k}, before["tolerances"])
            self.assertEqual(after["plans"][:2], before["plans"])

    def test_the_first_plan_of_every_layout_is_a_copy_of_what_was_found(self) -> None:
        for job in every_layout():
            document = job.model_dump(exclude_unset=True)
            after = done(copy.deepcopy(document), job_edits.copy_plan(document, "as found", job_edits.free_name(document)))
            self.assertEqual(after["plans"][-1]["systems"], document["as_found"]["systems"], job.name)

    def test_what_is_known_of_the_plans_behind_one_that_goes_moves_up(self) -> None:
        after = done(known(), job_edits.remove_plan(known(), "plan A"))
        self.assertEqual([p["name"] for p in after["plans"]], ["plan B"])
        self.assertEqual(after["tolerances"], {f"as_found.{PIN}": "1 mm", f"plans.0.{PIN}": "3 mm", "vehicle.mass_kg": "5 kg"})
        self.assertEqual(after["assumed"], [f"plans.0.{PIN}"])

    def test_the_last_plan_goes_and_leaves_the_others(self) -> None:
        after = done(known(), job_edits.remove_plan(known(), "plan B"))
        self.assertEqual(after["tolerances"], {f"as_found.{PIN}": "1 mm", f"plans.0.{PIN}": "2 mm", "vehicle.mass_kg": "5 kg"})

    def test_a_plan_put_elsewhere_takes_what_is_known_of_it_along(self) -> None:
        after = done(known(), job_edits.move_plan(known(), "plan B", 0))
        self.assertEqual([p["name"] for p in after["plans"]], ["plan B", "plan A"])
        self.assertEqual(after["tolerances"][f"plans.0.{PIN}"], "3 mm")
        self.assertEqual(after["tolerances"][f"plans.1.{PIN}"], "2 mm")

    def test_a_new_name_changes_nothing_else(self) -> None:
        before = known()
        after = done(copy.deepcopy(before), job_edits.rename_plan(before, "plan B", "on the shelf"))
        before["plans"][1]["name"] = "on the shelf"
        self.assertEqual(after, before)

    def test_a_name_that_is_taken_is_refused_by_the_file(self) -> None:
        with self.assertRaises(Exception) as refused:
            done(demo_document(), job_edits.rename_plan(demo_document(), "plan B", "plan A"))
        self.assertIn("plan A", str(refused.exception))

    def test_as_found_and_what_is_not_there_are_refused(self) -> None:
        document = demo_document()
        for refused in (
            lambda: job_edits.rename_plan(document, "as found", "x"), lambda: job_edits.remove_plan(document, "as found"),
            lambda: job_edits.move_plan(document, "as found", 0), lambda: job_edits.move_plan(document, "plan A", 2),
        ):  # fmt: skip
            self.assertRaises(BadEntry, refused)
        for absent in (lambda: job_edits.copy_plan(document, "plan Z", "x"), lambda: job_edits.remove_plan(document, "plan Z")):
            self.assertRaises(NotFound, absent)


class Entries(unittest.TestCase):
    def test_what_is_known_follows_the_places_of_a_list(self) -> None:
        """Devices of a line and plans alike: what stands behind the place moves with it, what is taken out is forgotten."""
        path = "as_found.systems.0.stations.1.devices"
        cases: list[tuple[list[Edit], dict[str, str]]] = [
            ([insert_at(f"{path}.0", {"kind": "residual", "holds_kpa": "2 psi"})], {"1": "a", "2": "b"}),
            ([insert_at(f"{path}.1", {"kind": "residual", "holds_kpa": "2 psi"})], {"0": "a", "2": "b"}),
            ([insert_at(f"{path}.2", {"kind": "residual", "holds_kpa": "2 psi"})], {"0": "a", "1": "b"}),
            ([take_away(f"{path}.0")], {"0": "b"}),
            ([{"op": "move", "path": pointer(f"{path}.0"), "to": pointer(f"{path}.1")}], {"1": "a", "0": "b"}),
        ]
        for edits, names in cases:
            document = demo_document()
            document["as_found"]["systems"][0]["stations"][1]["devices"] = [
                {"kind": "proportioning", "knee_kpa": "3 MPa"},
                {"kind": "residual", "holds_kpa": "10 psi"},
            ]
            document["assumed"] = [f"{path}.0.knee_kpa", f"{path}.1.holds_kpa"]
            document["tolerances"] = {}
            after = applied(document, job_edits.with_entries(document, edits, lambda now, own: apply(now, own)[0]))
            stands = {p.removeprefix(f"{path}.").split(".")[0]: p.rpartition(".")[2] for p in after["assumed"]}
            expected = {place: {"a": "knee_kpa", "b": "holds_kpa"}[name] for place, name in names.items()}
            self.assertEqual(stands, expected)

    def test_what_is_found_follows_into_the_plans_that_had_the_same(self) -> None:
        document = demo_document()
        pad = "systems.0.control.pivot_to_pad_mm"
        found = value_at(document, pointer(f"as_found.{pad}"))[0]
        same = [i for i, plan in enumerate(document["plans"]) if value_at(plan, pointer(pad))[0] == found]
        self.assertTrue(same)
        edits = job_edits.also_in_plans(document, [set_at(f"as_found.{pad}", "300 mm")])
        paths = [e["path"] for e in edits]
        self.assertEqual(paths, [pointer(f"as_found.{pad}"), *(pointer(f"plans.{i}.{pad}") for i in same)])
        document["plans"][same[0]]["systems"][0]["control"]["pivot_to_pad_mm"] = "280 mm"
        paths = [e["path"] for e in job_edits.also_in_plans(document, [set_at(f"as_found.{pad}", "300 mm")])]
        self.assertNotIn(pointer(f"plans.{same[0]}.{pad}"), paths)
        own = [set_at(f"plans.0.{pad}", "300 mm"), set_at("vehicle.mass_kg", "1200 kg")]
        self.assertEqual(job_edits.also_in_plans(document, own), own, "a plan's own entry stays in it")

    def test_said_known_and_said_not_to_be(self) -> None:
        document, path = known(), f"as_found.{PIN}"
        after = applied(document, job_edits.said_known(document, path, False))
        self.assertEqual(after["assumed"], [*document["assumed"], path])
        self.assertEqual(applied(after, job_edits.said_known(after, path, True)), document)
        self.assertEqual(job_edits.said_known(document, path, True), [])
        self.assertEqual(job_edits.said_known(document, f"plans.0.{PIN}", False), [])
        del document["assumed"]
        self.assertEqual(applied(document, job_edits.said_known(document, path, False))["assumed"], [path])


if __name__ == "__main__":
    unittest.main()

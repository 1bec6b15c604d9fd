"""Every field of the sheet of every invented vehicle: it leads somewhere, takes what it shows, and its presses keep the job valid."""

import copy
import json
import unittest
from collections.abc import Iterator
from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.demo import SETUPS
from kobrix.evaluate.entries.shapes import Sheet
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import pointer
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.typed_input import typed_edit
from kobrix.store.edits import apply, run, value_at

from tests.cases import applied, conforms, demo_document, demo_job

Doc = dict[str, Any]


def every_job() -> Iterator[Job]:
    """The demo job, the same with a linkage, and each invented setup as a job."""
    yield demo_job()
    document = demo_document()
    linkage = {"rest_angle_deg": "-80 deg", "bore_point_mm": ["5.9 in", -60], "bore_direction_deg": 4.5, "rod_mm": "160 mm"}
    document["as_found"]["systems"][0]["control"]["linkage"] = linkage
    yield files.check(Job, document)
    for path in SETUPS:
        setup = files.read_file(files.parse_json(path.read_bytes()))
        assert isinstance(setup, Setup)
        yield files.as_job(setup)


def entries_of(sheet: Any) -> list[Doc]:
    """Every entry of a sheet."""
    return [e for s in sheet["sections"] for g in s["groups"] for e in g["entries"]]


class EveryEntry(unittest.TestCase):
    def test_sheets_have_their_shape_and_no_path_stands_twice(self) -> None:
        for job in every_job():
            for name in ("as found", *(p.name for p in job.plans)):
                sheet = measure_sheet(job, name)
                conforms(Sheet, sheet)
                paths = [(e["path"], e["key"]) for e in entries_of(sheet)]
                self.assertEqual(len(paths), len(set(paths)), job.name)

    def test_what_is_shown_typed_again_changes_nothing(self) -> None:
        for job in every_job():
            document = job.model_dump(exclude_unset=True)
            for entry in entries_of(measure_sheet(job, "as found")):
                if entry["kind"] in ("choice", "flag") or not entry["text"]:
                    continue
                with self.subTest(job=job.name, path=entry["path"]):
                    changed = applied(document, [typed_edit(pointer(entry["path"]), entry["text"])])
                    again = measure_sheet(files.check(Job, changed), "as found")
                    same = next(e for e in entries_of(again) if (e["path"], e["key"]) == (entry["path"], entry["key"]))
                    if entry["value"] is not None:
                        self.assertAlmostEqual(same["value"], entry["value"], places=9)
                    self.assertEqual(same["values"], entry["values"])

    def test_every_choice_and_every_press_keeps_the_job_valid_and_is_undone_by_its_inverse(self) -> None:
        for job in every_job():
            document = job.model_dump(exclude_unset=True)
            sheet = measure_sheet(job, "as found")
            presses = [
                c["edits"] for e in entries_of(sheet) for c in e["choices"] if e["key"] != "linkage.sense" or c["value"] == "1"
            ]
            presses += [g["remove"] for s in sheet["sections"] for g in s["groups"] if g["remove"]]
            presses += [a["edits"] for s in sheet["sections"] for a in s["adds"]]
            for edits in presses:
                with self.subTest(job=job.name, edits=str(edits)[:120]):
                    changed, _, inverse = apply(document, edits)
                    measure_sheet(files.check(Job, changed), "as found")
                    self.assertEqual(json.dumps(run(changed, inverse)), json.dumps(document))

    def test_a_default_lies_in_what_is_allowed_and_may_be_typed(self) -> None:
        for job in every_job():
            document = job.model_dump(exclude_unset=True)
            for entry in entries_of(measure_sheet(job, "as found")):
                known = entry["default"] or entry["stand_in"]
                if known is None:
                    continue
                with self.subTest(job=job.name, path=entry["path"]):
                    self.assertLessEqual(entry["least"], known["value"])
                    self.assertLessEqual(known["value"], entry["most"])
                    changed = applied(document, [typed_edit(pointer(entry["path"]), known["text"])])
                    files.check(Job, changed)

    def test_what_lies_outside_is_refused_with_the_range_that_is_shown(self) -> None:
        job = demo_job()
        document = job.model_dump(exclude_unset=True)
        for entry in entries_of(measure_sheet(job, "as found")):
            if entry["kind"] != "quantity" or entry["most"] is None:
                continue
            wrong = entry["most"] * 3 + 7
            edit = {"path": entry["path"], "value": wrong}
            changed = applied(document, [edit])
            with self.subTest(path=entry["path"]), self.assertRaises(Exception) as refused:
                files.check(Job, changed)
            self.assertIn(entry["allowed"], str(refused.exception))

    def test_a_unit_of_another_kind_is_refused_in_every_field(self) -> None:
        wrong = {"mm": "5 kg", "kg": "5 mm", "N": "5 mm", "kPa": "5 mm", "": "5 kg"}
        for entry in entries_of(measure_sheet(demo_job(), "as found")):
            if entry["kind"] == "quantity" and entry["unit"] in wrong:
                with self.subTest(path=entry["path"]), self.assertRaises(BadEntry):
                    typed_edit(pointer(entry["path"]), wrong[entry["unit"]])

    def test_the_other_unit_is_the_same_size(self) -> None:
        near = {"mm": 0.3, "kg": 0.06, "N": 0.06, "kPa": 4.0}
        for job in every_job():
            for entry in entries_of(measure_sheet(job, "as found")):
                if entry["value"] is None or not entry["other"] or entry["unit"] not in near:
                    continue
                name = entry["path"].removesuffix(".0").removesuffix(".1").split(".")[-1]
                with self.subTest(path=entry["path"], other=entry["other"]):
                    again = value_of(entry["other"], name)
                    self.assertAlmostEqual(again, entry["value"], delta=max(near[entry["unit"]], 6e-3 * abs(entry["value"])))

    def test_paths_lead_to_what_is_shown(self) -> None:
        for job in every_job():
            document = job.model_dump()
            for entry in entries_of(measure_sheet(job, "as found")):
                if entry["state"] == "measured" and entry["kind"] in ("quantity", "text", "count"):
                    value, there = value_at(document, pointer(entry["path"]))
                    self.assertTrue(there, entry["path"])
                    self.assertIn(str(value).split(" ")[0].rstrip("0").rstrip("."), entry["text"], entry["path"])


class Untouched(unittest.TestCase):
    def test_making_a_sheet_changes_nothing(self) -> None:
        job = demo_job()
        before = copy.deepcopy(job.model_dump())
        measure_sheet(job, "plan A")
        self.assertEqual(job.model_dump(), before)


if __name__ == "__main__":
    unittest.main()

"""The open files: shape, versions, and sentences for what is wrong."""

import copy
import json
import unittest
from collections.abc import Callable
from typing import Any

from kobrix.core.errors import BadEntry, BadFile, NotFound
from kobrix.evaluate.to_core import convert
from kobrix.fileformat import LARGEST_BYTES, files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.typed_input import typed_edit

from tests.cases import demo_document, evaluate, example_document, example_setup

Change = Callable[[dict[str, Any]], Any]


def refused(change: Change) -> str:
    """What the reader says of the example with a change in it."""
    document = copy.deepcopy(example_document())
    change(document)
    try:
        files.read_file(document)
    except BadFile as error:
        return "\n".join(error.problems)
    return "accepted"


class Refusals(unittest.TestCase):
    def test_each_mistake_has_its_field_what_was_given_and_what_is_allowed(self) -> None:
        cases: list[tuple[Change, list[str]]] = [
            (lambda d: d["systems"][0]["cylinder"].update(bore_mm="900 psi"), ["systems.0.cylinder.bore_mm", "'900 psi'", "length"]),
            (lambda d: d["systems"][0]["cylinder"].update(bore_mm=0), ["cylinder.bore_mm", "0 mm", "from 5 mm to 80 mm"]),
            (lambda d: d["systems"][0]["cylinder"].update(bore_mm=-20), ["bore_mm", "-20 mm"]),
            (lambda d: d["systems"][0]["cylinder"].update(bore_mm=1e300), ["bore_mm", "1e+300 mm"]),
            (lambda d: d["systems"][0]["cylinder"].update(bore_mm=float("nan")), ["bore_mm", "nan"]),
            (lambda d: d["systems"][0]["control"].update(pivot_to_pin_mm=400), ["pivot_to_pin_mm", "400 mm", "below 318 mm"]),
            (lambda d: d["systems"][0]["control"].update(pivot_to_pin_mm=[3]), ["pivot_to_pin_mm", "[3]"]),
            (lambda d: d["systems"][0]["cylinder"].update(kind="triple"), ["cylinder", "'triple'", "'tandem'"]),
            (lambda d: d["systems"][0].pop("control"), ["control", "missing"]),
            (lambda d: d["vehicle"].update(colour="red"), ["vehicle.colour", "not known"]),
            (lambda d: d.update(version=7), ["version", "7", "allowed is 1"]),
            (lambda d: d.update(version=True), ["version", "True"]),
            (lambda d: d.update(format="other"), ["format", "'other'", "kobrix-setup"]),
            (lambda d: d["systems"][0]["stations"][0]["lines"]["hard_lines"][0].update(outer_mm=4.75, wall_mm=2.4), ["wall_mm", "below 2.375 mm", "must have a bore"]),
            (lambda d: d["systems"][0]["stations"][0].update(tyre="round"), ["tyre", "'round'", "185/65R15"]),
            (lambda d: d["systems"][0]["stations"][0]["brake"].update(pad_height_mm=140), ["pad_height_mm", "140 mm", "below 129 mm"]),
            (lambda d: d["systems"][0]["stations"][0]["brake"].update(pistons_mm=[]), ["pistons_mm"]),
            (lambda d: d["vehicle"]["load_states"].append(d["vehicle"]["load_states"][0]), ["load_states", "twice"]),
            (lambda d: d["vehicle"]["load_states"][0].update(front_share="120 %"), ["front_share", "120 %", "to 1"]),
            (lambda d: d["systems"][0]["cylinder"]["circuits"][0]["feeds"][0].update(station="middle"), ["middle", "front or rear"]),
            (lambda d: d["systems"][0]["stations"][1]["devices"][0].update(slope=1.5), ["slope", "1.5", "add pressure"]),
        ]  # fmt: skip
        for change, words in cases:
            said = refused(change)
            with self.subTest(said=said):
                for word in words:
                    self.assertIn(word, said)

    def test_json_itself(self) -> None:
        with self.assertRaisesRegex(BadFile, "Line 2, column"):
            files.parse_json('{"a": 1,\n x}')
        with self.assertRaisesRegex(BadFile, "NaN, which is not a number"):
            files.parse_json('{"a": NaN}')
        with self.assertRaisesRegex(BadFile, "allowed are up to"):
            files.parse_json(" " * (LARGEST_BYTES + 1))
        with self.assertRaisesRegex(BadFile, "nested too deeply"):
            files.parse_json("[" * 100_000)
        with self.assertRaisesRegex(BadFile, "UTF-8"):
            files.parse_json(b"\xff\xfe\x00")
        with self.assertRaisesRegex(BadFile, "one object"):
            files.read_file([1, 2])


class Shapes(unittest.TestCase):
    def test_the_example_is_a_setup_and_stays_as_typed(self) -> None:
        setup = example_setup()
        self.assertEqual(setup.model_dump()["systems"][0]["cylinder"]["bore_mm"], "13/16 in")
        self.assertEqual(setup.model_dump(exclude_unset=True), example_document())

    def test_the_demo_is_a_job_whose_plans_are_setups(self) -> None:
        job = files.read_file(demo_document())
        assert isinstance(job, Job)
        self.assertEqual(job.setup("plan B").name, f"{job.name}, plan B")
        with self.assertRaisesRegex(NotFound, "as found, plan A, plan B"):
            job.setup("plan C")

    def test_a_plan_may_override_the_vehicle(self) -> None:
        document = demo_document()
        document["plans"][0]["vehicle"] = {"grip_front": 1.1}
        job = files.check(Job, document)
        self.assertEqual(job.setup("plan A").vehicle.grip_front, 1.1)
        self.assertEqual(job.setup("plan B").vehicle.grip_front, 0.9)
        document["plans"][0]["vehicle"] = {"grip_front": "wet"}
        with self.assertRaisesRegex(BadFile, "grip_front"):
            files.check(Job, document)

    def test_the_schema_is_json_and_names_units_ranges_and_defaults(self) -> None:
        text = json.dumps(files.schema())
        self.assertIn("Bore [mm], from 5 mm to 80 mm", text)
        self.assertIn("Assumed when left out: 0.92 1 (common practice", text)

    def test_typed_edits(self) -> None:
        self.assertEqual(typed_edit("/a/bore_mm", "7/8"), {"op": "set", "path": "/a/bore_mm", "value": "7/8 in"})
        self.assertEqual(typed_edit("/a/pistons_mm", "2 x 38")["value"], ["38 mm", "38 mm"])
        self.assertEqual(typed_edit("/a/tyre", " 185/60R15 ")["value"], "185/60R15")
        for path in ("/a/calipers", "/a/price"):  # as much of what was typed as names it
            with self.assertRaisesRegex(BadEntry, f"'{'x' * 40}'"):
                typed_edit(path, "x" * 60)
        self.assertEqual(typed_edit("/a/front_share", "49 %")["value"], 0.49)
        self.assertEqual(typed_edit("/a/bore_mm", "  "), {"op": "remove", "path": "/a/bore_mm"})


class Incomplete(unittest.TestCase):
    def without(self, *paths: str) -> Setup:
        document = example_document()
        for path in paths:
            here = document
            parts = path.split(".")
            for part in parts[:-1]:
                here = here[int(part)] if part.isdigit() else here[part]  # type: ignore[index]
            here.pop(parts[-1])
        return files.check(Setup, document)

    def test_each_answer_says_what_it_needs(self) -> None:
        result = evaluate(self.without("systems.0.cylinder.bore_mm", "vehicle.wheelbase_mm"))
        self.assertEqual(set(result["needs"]["decel"]), {"systems.0.cylinder.bore_mm", "vehicle.wheelbase_mm"})
        self.assertNotIn("load_states", result)

    def test_forces_do_not_ask_for_lines(self) -> None:
        result = evaluate(self.without("systems.0.stations.0.lines", "systems.0.control.available_travel_mm"))
        path = result["load_states"]["driver only"]["paths"]["service"]
        self.assertAlmostEqual(path["lock_decel_g"], 0.913179646338, places=11)
        self.assertNotIn("failures", path)
        self.assertNotIn("pedal_travel_mm", path["design_stop"]["systems"]["service"])
        self.assertEqual(set(result["needs"]["travel"]), {"systems.0.stations.0.lines", "systems.0.control.available_travel_mm"})

    def test_only_the_table_of_defaults_is_assumed(self) -> None:
        setup = self.without("systems.0.control.efficiency", "systems.0.cylinder.efficiency")
        self.assertEqual(convert(setup).gaps.decel, [])
        full = evaluate(example_setup())["load_states"]["driver only"]["paths"]["service"]
        self.assertEqual(evaluate(setup)["load_states"]["driver only"]["paths"]["service"], full)

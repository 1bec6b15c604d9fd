"""Fit of every vehicle: the lines joint by joint, what mends them, the list, the wheel cut through the brake."""

import copy
import itertools
import json
import math
import random
import re
import unittest
from datetime import date
from typing import Any

import numpy as np
from kobrix.core.errors import BadFile
from kobrix.core.fit.line_map import Branch, opened_by, places_of
from kobrix.evaluate.ask.run import ask
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat import files
from kobrix.fileformat.fit import JOINT_KEY
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import new_job
from kobrix.fileformat.paths import below
from kobrix.fileformat.tables import table
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.service import chosen, fit_of, standing
from kobrix.stages.fit.shapes import FitView
from kobrix.store.edits import apply

from tests.cases import EXAMPLES, conforms, demo_document, demo_job, every_layout


def with_edits(document: dict[str, Any], edits: list[Any], root: str = "plans.0") -> dict[str, Any]:
    """A job's `document` after edits of the setup at `root`."""
    return dict(apply(document, below(root, edits))[0])


def fitted(document: dict[str, Any], name: str = "plan A") -> Any:
    """Fit of a setup of a job's `document`."""
    return fit_of(files.check(Job, document), 0, name)


class EveryVehicle(unittest.TestCase):
    def test_how_near_a_hose_comes_to_what_gets_hot_is_noted(self) -> None:
        for typed, level in (("60 mm", "caution"), ("4 in", "good"), (None, None)):
            document = demo_document()
            hose = document["plans"][0]["fit"].setdefault("hoses", {}).setdefault("front", {})
            if typed is not None:
                hose["heat_mm"] = typed
            view = fit_of(files.check(Job, document), 0, "plan A")
            (own,) = [h for h in view["hoses"] if h["axle"] == "front"]
            self.assertEqual((own["heat_level"], own["heat_sentence"] == ""), (level, level is None))
            self.assertEqual(own["level"], "good")  # how long it must be is another question

    def test_what_stands_there_as_found_is_known_behind_the_new(self) -> None:
        job = demo_job()
        front, rear = fit_of(job, 0, "plan A")["sections"]
        assert front["old"] is not None and rear["old"] is not None
        self.assertEqual((front["old"]["words"], front["old"]["radius_mm"]), ("rotor 240 mm", 120.0))
        self.assertRegex(rear["old"]["words"], "^drum ")
        self.assertIsNone(rear["old"]["thickness_mm"])
        self.assertEqual([s["old"] for s in fit_of(job, 0, "as found")["sections"]], [None, None])

    def test_every_setup_of_every_layout_is_mapped_and_has_its_shape(self) -> None:
        for job in every_layout():
            for name in job.names:
                with self.subTest(job=job.name, setup=name):
                    view = fit_of(job, 3, name)
                    conforms(FitView, view)
                    keys = [j["key"] for j in view["joints"]]
                    self.assertEqual(len(keys), len(set(keys)))
                    self.assertTrue(all(re.match(JOINT_KEY, k) for k in keys))
                    self.assertEqual([j["number"] for j in view["joints"]], list(range(1, len(keys) + 1)))
                    ends = sum(
                        s.wheels * getattr(s.brake, "calipers", 1) for system in job.setup(name).systems for s in system.stations
                    )
                    self.assertEqual(sum(j["count"] for j in view["joints"] if j["kind"] == "brake"), ends)
                    self.assertIn(standing(StoredJob(job, 0))["state"], ("empty", "begun", "doubt", "ready"))

    def test_an_aircraft_has_no_front_and_no_rear(self) -> None:
        job = next(j for j in every_layout() if "Ardle" in j.name)
        for name in job.names:
            said = json.dumps({k: v for k, v in fit_of(job, 0, name).items() if k != "options"})
            for path in ('"axle": "rear"', "fit.sections.rear", "fit.hoses.rear", "/rear/"):
                said = said.replace(path, "")
            self.assertNotIn("rear", said.lower().replace('"name": "rear', ""))
        self.assertEqual([s["title"] for s in fit_of(job, 0, "as found")["sections"]], ["main"])

    def test_a_setup_that_is_not_named_is_the_first_plan(self) -> None:
        job = demo_job()
        self.assertEqual(chosen(job, None), "plan A")
        self.assertEqual(chosen(job, "plan Z"), "plan A")
        self.assertEqual(chosen(job, "as found"), "as found")


class Map(unittest.TestCase):
    def test_lines_split_where_the_brakes_are_more_than_the_lines(self) -> None:
        for ends, hoses, hard, lanes in itertools.product((1, 2, 4), (0, 1, 2, 4), (True, False), (1, 2)):
            if hoses > ends:
                continue
            with self.subTest(ends=ends, hoses=hoses, hard=hard, lanes=lanes):
                places = places_of(
                    Branch(ends, hoses, hard, ("proportioning", "switch"), lanes, "first" if lanes == 1 else "alone")
                )
                count = {p.kind: p.count for p in places}
                own = max(1, min(lanes, ends))
                self.assertEqual(count["port"], own)
                self.assertEqual(count["brake"], ends)
                self.assertEqual([count.get(k) for k in ("shared_in", "shared_out")], [1, 1] if lanes == 1 else [None, None])
                self.assertEqual(count["valve_in"], count["valve_out"])
                self.assertEqual(count["switch"], own)
                for one, other in itertools.pairwise(places):
                    if other.kind != "switch" and one.kind != "switch":
                        self.assertEqual(one.b, other.a, "what leaves one joint enters the next")
                tees = count.get("tee_out", own)
                self.assertLessEqual(tees, ends)

    def test_the_stations_of_a_single_cylinder_hang_on_its_one_port(self) -> None:
        document = new_job("n", "car_front_rear").model_dump(mode="json", exclude_unset=True)
        document["as_found"]["systems"][0]["cylinder"] = {"kind": "single", "bore_mm": "7/8 in"}
        front, rear = fit_of(files.check(Job, document), 0, "as found")["branches"]
        kinds = [key.split("-", 2)[2] for key in front["joints"]]
        self.assertEqual(kinds[:3], ["port", "shared-in", "shared-out"])
        self.assertEqual(rear["joints"][0], "0-1-shared-out")
        self.assertNotIn("0-1-port", rear["joints"])

    def test_a_diagonal_car_has_a_port_for_each_wheel(self) -> None:
        document = demo_document()
        document["plans"][0]["systems"][0]["cylinder"]["circuits"] = "diagonal"
        counts = {j["key"]: j["count"] for j in fitted(document)["joints"]}
        self.assertEqual(counts["0-0-port"], 2)
        kinds = {j["key"]: j["kind"] for j in fitted(document)["joints"]}
        self.assertEqual(kinds["0-0-tee-in"], "own", "kept, though it is no longer on the map")

    def test_only_what_a_change_unscrews_is_opened(self) -> None:
        self.assertEqual(opened_by(["pads", "rotors", "pin_moved"]), set())
        opened = {j["key"]: j["opened"] for j in fitted(demo_document())["joints"]}
        self.assertEqual({k for k, on in opened.items() if on}, {"0-0-port", "0-0-brake", "0-1-port", "0-1-brake", "own-1"})


class Joints(unittest.TestCase):
    def test_the_demo_has_one_that_does_not_seal_and_one_open(self) -> None:
        view = fitted(demo_document())
        bad = {j["key"]: j["reason"] for j in view["joints"] if j["level"] != "good"}
        self.assertEqual(bad, {"0-1-hose-in": "seat_differs", "own-1": "open_port"})
        self.assertEqual(view["doubts"], 3)  # two joints, one gap
        self.assertEqual(standing(StoredJob(demo_job(), 0)), {"state": "doubt", "words": "1 does not fit"})

    def test_any_two_ends_are_judged_as_the_question_judges_them_and_every_mend_mends(self) -> None:
        draw = random.Random(7)
        every = [
            {"family": row["family"], "role": role, "thread": t["thread"]}
            for row in table("fittings")["families"] for role in row["roles"] for t in row["threads"]
        ]  # fmt: skip
        mended = 0
        for _ in range(250):
            document = demo_document()
            a, b = copy.deepcopy(draw.choice(every)), copy.deepcopy(draw.choice(every))
            document["plans"][0]["fit"]["joints"]["0-1-hose-in"] = {"a": a, "b": b}
            view = fitted(document)
            joint = next(j for j in view["joints"] if j["key"] == "0-1-hose-in")
            washers = table("fittings")["washers"]
            needed = max(washers.get(e["family"], 0) for e in (a, b))
            line = {"tube_mm": 4.76, "material": "steel"}
            asked = [{**e, **({"washers": needed} if needed else {})} for e in (a, b)]
            question = {"question": "joint_match", "a": {**line, **asked[0]}, "b": {**asked[1], "on": "hose"}}
            told: Any = ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0]
            self.assertEqual((joint["match"], joint["reason"]), (told["match"], told["reason"]))
            for mend in joint["mends"]:
                if not mend["edits"]:
                    continue
                after = next(j for j in fitted(with_edits(document, mend["edits"]))["joints"] if j["key"] == "0-1-hose-in")
                self.assertTrue(after["match"], (a, b, mend["words"]))
                mended += 1
        self.assertGreater(mended, 100)

    def test_an_adapter_goes_on_the_list_once_for_each_place_and_can_be_left_out_again(self) -> None:
        document = demo_document()
        joint = next(j for j in fitted(document)["joints"] if j["key"] == "0-1-hose-in")
        put = with_edits(document, next(m["edits"] for m in joint["mends"] if m["kind"] == "adapter"))
        rows = {r["part"]: r["count"] for r in fitted(put)["parts"]["rows"]}
        self.assertEqual(rows["adapter 45° double flare, 3/8-24 to 37° flare, 3/8-24"], 2)
        again = next(j for j in fitted(put)["joints"] if j["key"] == "0-1-hose-in")
        back = with_edits(put, again["mends"][0]["edits"])
        self.assertEqual(fitted(back)["joints"], fitted(document)["joints"])

    def test_refused_metal_and_old_washers_are_told(self) -> None:
        document = demo_document()
        joints = document["plans"][0]["fit"]["joints"]
        joints["0-0-port"]["b"]["material"] = "copper"
        joints["0-0-brake"]["a"]["washers"] = 1
        joints["0-1-brake"]["a"]["washers_used"] = True
        view = {j["key"]: j for j in fitted(document)["joints"]}
        self.assertEqual(
            [view[k]["reason"] for k in ("0-0-port", "0-0-brake", "0-1-brake")], ["material_refused", "washers_missing", "match"]
        )
        self.assertEqual(view["0-1-brake"]["level"], "caution")
        mended = with_edits(with_edits(document, view["0-0-port"]["mends"][0]["edits"]), view["0-0-brake"]["mends"][0]["edits"])
        self.assertTrue(all(j["match"] for j in fitted(mended)["joints"] if j["key"] in ("0-0-port", "0-0-brake")))


class PartsList(unittest.TestCase):
    def test_what_the_demo_is_missing(self) -> None:
        parts = fitted(demo_document())["parts"]
        self.assertEqual(parts["sentence"], "Still missing: crush washer M10x1 (2), plug 3/8-24 (1), hose bracket (2).")
        self.assertEqual((parts["missing"], parts["here"]), (3, 18))
        self.assertAlmostEqual(parts["cost"], sum(r["cost"] for r in parts["rows"]))
        self.assertTrue(all(r["missing"] > 0 for r in parts["rows"][:3]))

    def test_two_banjos_take_two_washers_each_at_each_wheel(self) -> None:
        rows = {r["part"]: r for r in fitted(demo_document())["parts"]["rows"]}
        self.assertEqual(rows["crush washer M10x1"]["count"], 2 * 2 + 2 * 2)
        self.assertEqual(rows["caliper bolt"]["count"], 2 * 4)

    def test_fluid_is_bought_twice_over_and_a_fifth_more_to_the_next_quarter_litre(self) -> None:
        document = demo_document()
        document["plans"][0]["systems"][0]["cylinder"]["reservoir_cm3"] = {"front": 150, "rear": 150}
        stations = answer_of(ByContent(files.check(Job, document).setup("plan A"))).converted.systems[0].stations
        held = sum(float(np.max(st.lines.fluid_volume)) for st in stations if st.lines is not None) * 1e6 + 300
        row = next(r for r in fitted(document)["parts"]["rows"] if "fluid" in r["part"])
        self.assertEqual(row["count"], math.ceil(held * 2 * 1.2 / 250) / 4)

    def test_a_part_of_the_shelf_that_is_the_plans_is_counted_and_priced(self) -> None:
        document = demo_document()
        document["parts_list"] = []
        document["shelf"].append(
            {
                "name": "from the shelf",
                "kind": "caliper",
                "axle": "rear",
                "on_hand": True,
                "price": 90,
                "caliper": "floating",
                "pistons_mm": ["36 mm"],
            }
        )
        row = next(r for r in fitted(document)["parts"]["rows"] if r["part"] == "rear caliper, floating, 36")
        self.assertEqual((row["missing"], row["price"], row["cost"], row["shelf"]), (0.0, 45.0, 90.0, True))

    def test_days_left_and_the_alarm(self) -> None:
        document = demo_document()
        document["planned"] = "2026-05-09"
        job = files.check(Job, document)
        for today, left, alarm in ((date(2026, 5, 7), 2, True), (date(2026, 5, 6), 3, False), (date(2026, 5, 12), -3, True)):
            parts = fit_of(job, 0, "plan A", today)["parts"]
            self.assertEqual((parts["days_left"], parts["alarm"]), (left, alarm))

    def test_what_is_listed_and_not_asked_for_stays_on_the_list(self) -> None:
        document = demo_document()
        document["parts_list"].append({"part": "odd bolt", "have": 3})
        document["parts_list"].append({"part": "felt pen", "wanted": 2})
        rows = {r["part"]: r for r in fitted(document)["parts"]["rows"]}
        self.assertTrue(rows["odd bolt"]["own"])
        self.assertEqual((rows["felt pen"]["count"], rows["felt pen"]["missing"]), (2, 2))

    def test_a_part_twice_and_a_day_that_is_none_are_refused(self) -> None:
        document = demo_document()
        document["parts_list"].append({"part": "hose bracket"})
        with self.assertRaisesRegex(BadFile, "hose bracket"):
            files.check(Job, document)
        for day in ("tomorrow", "2026-02-30"):
            with self.assertRaises(BadFile):
                files.check(Job, {**demo_document(), "planned": day})


class Sections(unittest.TestCase):
    def test_the_demo_section_is_that_of_the_example_question(self) -> None:
        told = json.loads((EXAMPLES / "answers-fit.json").read_text(encoding="utf-8"))["answers"][0]
        section = fitted(demo_document())["sections"][0]
        gaps = {g["name"]: g["gap_mm"] for g in section["gaps"]}
        for name in ("barrel", "bridge", "sides"):
            self.assertAlmostEqual(gaps[name], told[name]["gap_mm"])
        self.assertAlmostEqual(section["effective_radius_mm"], told["effective_radius_mm"])
        self.assertEqual((section["least"], section["level"]), ("barrel", "caution"))

    def test_taking_the_mend_brings_every_gap_to_what_is_wanted(self) -> None:
        document = demo_document()
        for mend in fitted(document)["sections"][0]["mends"]:
            after = fitted(with_edits(document, mend["edits"]))["sections"][0]
            self.assertEqual(after["level"], "good", mend["words"])
            self.assertTrue(all(g["p5_mm"] >= g["limit_mm"] - 1e-9 for g in after["gaps"]))

    def test_into_each_other_is_a_danger_and_a_wrong_size_is_named(self) -> None:
        document = demo_document()
        caliper = document["plans"][0]["fit"]["sections"]["front"]["caliper"]
        caliper["r_to_mm"] = "174 mm"
        section = fitted(document)["sections"][0]
        self.assertEqual(section["level"], "danger")
        self.assertIn("into each other", section["sentence"])
        document["plans"][0]["fit"]["sections"]["front"]["wheel"]["width_mm"] = "30 mm"
        document["plans"][0]["fit"]["sections"]["front"]["wheel"]["offset_mm"] = "-60 mm"
        refused = fitted(document)["sections"][0]
        self.assertIn("Rim width", refused["refused"])
        self.assertEqual(refused["gaps"], [])

    def test_what_is_not_measured_is_asked_for(self) -> None:
        rear = fitted(demo_document())["sections"][1]
        self.assertEqual((len(rear["needs"]), rear["level"], rear["gaps"]), (8, None, []))
        self.assertEqual("".join(f["letter"] for f in rear["fields"]), "ABCDEFGH")

    def test_hoses_too_short_kinked_and_too_long(self) -> None:
        document = demo_document()
        hose = document["plans"][0]["fit"]["hoses"]["front"]
        told = {}
        for length in ("360 mm", "400 mm", "480 mm"):
            hose["hose_mm"] = length
            told[length] = fitted(document)["hoses"][0]["verdict"]
        self.assertEqual(told, {"360 mm": "too_short", "400 mm": "fits", "480 mm": "too_long"})

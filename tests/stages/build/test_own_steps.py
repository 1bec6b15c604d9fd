"""Own steps, another order, what goes wrong, and time and money: never against what must come before."""

import itertools
import random
import unittest
from typing import Any

from kobrix.core.errors import BadFile
from kobrix.core.work.steps import arranged
from kobrix.fileformat import files
from kobrix.fileformat.building import Building, OwnStep
from kobrix.fileformat.job import Job
from kobrix.fileformat.tables import table
from kobrix.stages.build.own_steps import of_day
from kobrix.stages.build.service import build_of
from kobrix.stages.build.shapes import BuildView, WorkStep
from kobrix.stages.common import StoredJob

from tests.cases import conforms, demo_document, demo_job, every_layout
from tests.stages.build.test_service import done, with_build, worked


def steps_of(view: BuildView) -> list[WorkStep]:
    """Every step of a view in its order."""
    return [s for d in view["days"] for s in d["steps"]]


class Order(unittest.TestCase):
    def holds(self, steps: list[WorkStep]) -> None:
        at = {s["key"]: n for n, s in enumerate(steps)}
        for s in steps:
            for before in s["before"]:
                self.assertLess(at[before], at[s["key"]], f"{before} before {s['key']}")

    def test_any_wish_keeps_what_must_come_before(self) -> None:
        draw = random.Random(4)
        for job in every_layout():
            for name in job.names:
                keys = [s["key"] for s in steps_of(build_of(StoredJob(job, 0), name))]
                wanted = draw.sample(keys, len(keys) * 2 // 3)
                document = job.model_dump(exclude_none=True)
                plan = document["as_found"] if name == job.names[0] else document["plans"][job.names.index(name) - 1]
                plan["build"] = (plan.get("build") or {}) | {"order": wanted[:600]}
                view = build_of(StoredJob(files.check(Job, document), 0), name)
                with self.subTest(f"{job.name} {name}"):
                    self.holds(steps_of(view))
                    self.assertEqual(sorted(keys), sorted(s["key"] for s in steps_of(view)))
                    self.assertEqual(len(worked(view)), len(keys))

    def test_without_a_wish_nothing_moves_and_neighbours_change_places_where_they_may(self) -> None:
        steps = steps_of(build_of(StoredJob(demo_job(), 0), "plan A"))
        told = [(s["key"], s["phase"], s["before"]) for s in steps]
        self.assertEqual(arranged(told, []), [s["key"] for s in steps])
        for first, second in itertools.pairwise(steps):
            may = first["phase"] == second["phase"] and first["key"] not in second["before"]
            self.assertEqual((first["later"], second["earlier"]), (may, may))
        keys = [s["key"] for s in steps]
        at = next(n for n, s in enumerate(steps) if s["later"])
        keys[at], keys[at + 1] = keys[at + 1], keys[at]
        moved = steps_of(build_of(StoredJob(with_build(order=keys), 0), "plan A"))
        self.assertEqual([s["key"] for s in moved], keys)


class Own(unittest.TestCase):
    def test_a_step_of_ones_own_comes_before_the_step_it_names_and_holds_it_up(self) -> None:
        target = next(s for s in steps_of(build_of(StoredJob(demo_job(), 0), "plan A")) if s["row"] == "rod_off")["key"]
        own = [
            {"id": "first", "words": "Oil the clip.", "before": target},
            {"id": "second", "words": "The clip prised out with a hook.", "before": target, "critical": True},
        ]
        job = with_build(
            own=own,
            torques=[{"row": "own/second", "torque_nm": "9 N m", "source": "sheet"}],
            waits=[{"step": "own/first", "part": "a hook"}],
        )
        view = build_of(StoredJob(job, 0, done("own/first", by="IV")), "plan A")
        conforms(BuildView, view)
        steps = {s["key"]: s for s in steps_of(view)}
        order = list(steps)
        self.assertEqual(order[order.index(target) - 2 : order.index(target)], ["own/first", "own/second"])
        self.assertTrue({"own/first", "own/second"} <= set(steps[target]["before"]))
        self.assertIn("own/second", steps[target]["waits"])
        first, second = steps["own/first"], steps["own/second"]
        assert first["done"] is not None
        self.assertEqual(first["done"]["by"], "IV")
        self.assertEqual((first["part"], first["own_at"], first["critical"], first["asks_torque"]), ("a hook", 0, False, False))
        self.assertEqual((second["torque"], second["source"], second["critical"], second["own_at"]), ("9 N m", "sheet", True, 1))
        self.assertEqual((second["place"], second["phase"]), (steps[target]["place"], steps[target]["phase"]))
        self.assertEqual(view["total"], len(order))

    def test_a_step_whose_place_is_gone_stays_at_the_end(self) -> None:
        job = with_build(own=[{"id": "lost", "words": "Look again at the bracket.", "before": "gone/nowhere"}])
        self.assertEqual(steps_of(build_of(StoredJob(job, 0), "plan A"))[-1]["key"], "own/lost")
        document = demo_document()
        document["as_found"]["build"] = {"own": [{"id": "only", "words": "Clean it."}]}
        (day,) = build_of(StoredJob(files.check(Job, document), 0), "as found")["days"]
        self.assertEqual([s["key"] for s in day["steps"]], ["own/only"])

    def test_own_steps_before_own_steps_and_rings_of_them_find_a_day(self) -> None:
        own = Building(own=[OwnStep(id="a", words="x", before="one/row"), OwnStep(id="b", words="y", before="own/a"),
                            OwnStep(id="c", words="z", before="own/d"), OwnStep(id="d", words="w", before="own/c")])  # fmt: skip
        self.assertEqual([o.id for _, o in of_day(own, "one", ["one", "two"])], ["a", "b"])
        self.assertEqual([o.id for _, o in of_day(own, "two", ["one", "two"])], ["c", "d"])

    def test_the_same_id_twice_is_refused(self) -> None:
        with self.assertRaises(BadFile):
            with_build(own=[{"id": "a", "words": "x"}, {"id": "a", "words": "y"}])


class Troubles(unittest.TestCase):
    def test_every_trouble_belongs_to_steps_that_there_are(self) -> None:
        rows = {r["id"]: r for r in table("build-steps")["rows"]}
        shops = {"fittings", "fluid", "fasteners", "made", "others"}
        for t in table("troubles")["troubles"]:
            with self.subTest(t["id"]):
                self.assertLessEqual(set(t["rows"]), rows.keys())
                self.assertTrue(any(r in t["rows"] or set(rows[r]["tools"]) & set(t["tools"]) for r in rows))
                self.assertTrue(t["steps"])
                self.assertLessEqual({p["shop"] for p in t["parts"]}, shops)
                self.assertTrue(all(len(s["words"]) <= 200 for s in t["steps"]) and all(len(p["part"]) <= 80 for p in t["parts"]))

    def test_a_joint_that_was_made_anew_is_signed_for(self) -> None:
        for t in table("troubles")["troubles"]:
            if any("joint" in s["words"] and "tightened" in s["words"] for s in t["steps"]):
                self.assertTrue(t["steps"][-1]["critical"], t["id"])

    def test_a_step_offers_what_can_go_wrong_at_it(self) -> None:
        steps: dict[str, Any] = {s["row"]: s for s in steps_of(build_of(StoredJob(demo_job(), 0), "plan A"))}
        self.assertIn("flare_nut_seized", steps["open_system"]["troubles"])
        self.assertIn("rotor_stuck", steps["drum_off"]["troubles"])
        self.assertEqual(steps["photograph"]["troubles"], [])


class Sum(unittest.TestCase):
    def test_minutes_that_were_noted_and_parts_that_were_paid(self) -> None:
        document = demo_document()
        document["parts_list"] = [
            {"part": "a", "have": 2, "price": 80}, {"part": "b", "have": 1}, {"part": "c", "ordered": 3, "price": 5}, {"part": "d", "wanted": 4, "price": 100},
        ]  # fmt: skip
        document["plans"][0]["fit"]["route"] = {"evenings": 5, "tools_price": 60}
        job = files.check(Job, document)
        told = build_of(StoredJob(job, 0, (*done("x", minutes=12.5), *done("y", minutes=30), *done("z"))), "plan A")["sum"]
        self.assertEqual(
            told, {"minutes": 42.5, "timed": 2, "evenings": 5, "here": 160.0, "ordered": 15.0, "unpriced": 1, "tools": 60}
        )


if __name__ == "__main__":
    unittest.main()

"""Build: steps in an order that can be worked, days and groups, what is done, and the half-done states."""

import itertools
import random
import unittest
from typing import Any

from kobrix.core.errors import BadFile
from kobrix.core.work.steps import Change
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.tables import table
from kobrix.stages.build.service import build_of, chosen, standing
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import StoredJob
from kobrix.store.records import Record

from tests.cases import conforms, demo_document, demo_job, every_layout


def with_build(**build: Any) -> Job:
    """The demo job with a build of its own in plan A."""
    document = demo_document()
    document["plans"][0]["build"] = build
    return files.check(Job, document)


def done(*steps: str, at: str = "2026-05-02T14:05:00Z", **more: Any) -> tuple[Record, ...]:
    """Records that these steps of plan A are done."""
    return tuple(Record(n, f"key-{n:08d}", "signed", at, {"setup": "plan A", "step": s, **more}) for n, s in enumerate(steps))


def worked(view: BuildView) -> list[str]:
    """The steps in the order in which they come due when each is done as soon as it is."""
    order: list[str] = []
    steps = [s for d in view["days"] for s in d["steps"]]
    left = {s["key"]: set(s["waits"]) for s in steps}
    while left:
        free = next((k for k, waits in left.items() if not waits & left.keys()), None)
        if free is None:
            raise AssertionError(f"these wait for each other: {sorted(left)[:5]}")
        order.append(free)
        del left[free]
    return order


class Steps(unittest.TestCase):
    def test_every_setup_of_every_layout_has_its_shape(self) -> None:
        for job in every_layout():
            for name in job.names:
                with self.subTest(job=job.name, setup=name):
                    view = build_of(StoredJob(job, 2), name)
                    conforms(BuildView, view)
                    self.assertEqual(len(worked(view)), view["total"])
                    self.assertEqual(view["certified"], job.vehicle.kind == "aircraft")

    def test_every_pair_of_changes_and_random_sets_can_be_worked_off(self) -> None:
        known = table("build-steps")
        every = [Change(k, a) for k in known["kinds"] for a in (("front", "rear") if k in known["with_axle"] else (None,))]
        draw = random.Random(11)
        sets = [list(pair) for pair in itertools.combinations(every, 2)] + [
            draw.sample(every, draw.randint(3, 9)) for _ in range(60)
        ]
        for also in sets[::3]:
            document = demo_document()
            document["plans"][0]["systems"] = document["as_found"]["systems"]
            rows = [{"kind": c.kind, **({"axle": c.axle} if c.axle else {})} for c in also]
            document["plans"][0]["build"] = {"also": rows}
            view = build_of(StoredJob(files.check(Job, document), 0), "plan A")
            order = worked(view)
            place = {k: n for n, k in enumerate(order)}
            for step in (s for d in view["days"] for s in d["steps"]):
                self.assertTrue(all(place[b] < place[step["key"]] for b in step["before"]), step["key"])
            rows_in_order = [k.rpartition("/")[2].split(":")[0] for k in order]
            if "open_system" in rows_in_order:
                self.assertLess(rows_in_order.index("open_system"), rows_in_order.index("close_system"))

    def test_what_is_due_now_moves_on_as_steps_are_done(self) -> None:
        job = demo_job()
        view = build_of(StoredJob(job, 0), "plan A")
        first, day = view["now"], view["days"][0]["key"]
        self.assertEqual(first, f"{day}/parts_check")
        later = build_of(StoredJob(job, 0, done(f"{day}/parts_check", by="R. H.")), "plan A")
        self.assertNotEqual(later["now"], first)
        step = later["days"][0]["steps"][0]
        self.assertEqual((step["done"] or {"by": ""})["by"], "R. H.")
        self.assertEqual(
            (later["done"], standing(StoredJob(job, 0, done(f"{day}/parts_check")))["words"]), (1, f"1 of {later['total']}")
        )

    def test_a_step_taken_back_is_open_again(self) -> None:
        job = demo_job()
        record = Record(
            1,
            "key-00000001",
            "signed",
            "2026-05-02T14:05:00Z",
            {"setup": "plan A", "step": "pedal+cylinder+front+rear/chock"},
            "wrong car",
        )
        self.assertEqual(build_of(StoredJob(job, 0, (record,)), "plan A")["done"], 0)

    def test_the_system_is_open_from_the_first_joint_to_the_last(self) -> None:
        job, day = demo_job(), "pedal+cylinder+front+rear"
        opened = build_of(StoredJob(job, 0, done(f"{day}/open_system")), "plan A")
        self.assertEqual(opened["open_since"], "2026-05-02T14:05:00Z")
        self.assertEqual(standing(StoredJob(job, 0, done(f"{day}/open_system")))["state"], "doubt")
        closed = build_of(StoredJob(job, 0, done(f"{day}/open_system", f"{day}/close_system")), "plan A")
        self.assertIsNone(closed["open_since"])

    def test_the_makers_torque_stands_at_its_steps_and_is_never_made_up(self) -> None:
        plain = build_of(StoredJob(demo_job(), 0), "plan A")
        self.assertEqual({s["torque"] for d in plain["days"] for s in d["steps"]}, {""})
        job = with_build(
            torques=[{"row": "caliper_on", "torque_nm": "63 ft lb", "source": "bracket sheet"}], wrench_most_nm="80 Nm"
        )
        view = build_of(StoredJob(job, 0), "plan A")
        own = [s for d in view["days"] for s in d["steps"] if s["row"] == "caliper_on"]
        self.assertEqual(len(own), 4)
        self.assertEqual({(s["torque"], s["source"], s["too_much"]) for s in own}, {("63 ft lb", "bracket sheet", True)})

    def test_a_step_that_waits_for_a_part_is_not_due(self) -> None:
        first = build_of(StoredJob(demo_job(), 0), "plan A")["now"]
        view = build_of(StoredJob(with_build(waits=[{"step": first, "part": "a lamp"}]), 0), "plan A")
        self.assertNotEqual(view["now"], first)

    def test_what_is_no_change_is_refused(self) -> None:
        for also in ({"kind": "paint"}, {"kind": "hoses"}):
            with self.assertRaises(BadFile):
                with_build(also=[also])


class Order(unittest.TestCase):
    def test_the_rear_before_the_front_is_not_driven_and_the_best_order_stays_out_of_the_red(self) -> None:
        order = build_of(StoredJob(demo_job(), 0), "plan A")["order"]
        assert order is not None
        states = {s["letters"]: s for s in order["states"]}
        self.assertEqual(len(states), 16)
        self.assertFalse(states["R"]["may_drive"])
        self.assertEqual(states["R"]["chance"], 1.0)
        self.assertTrue(all(s["may_drive"] for s in order["states"] if s["on_best"]))
        self.assertEqual(sum(s["on_best"] for s in order["states"]), 5)

    def test_taking_the_order_makes_a_day_of_each_group(self) -> None:
        job = demo_job()
        order = build_of(StoredJob(job, 0), "plan A")["order"]
        assert order is not None
        view = build_of(StoredJob(with_build(days=order["edits"][0]["value"]), 0), "plan A")
        self.assertEqual([d["groups"] for d in view["days"]], [[n] for n in order["best"]])
        self.assertEqual(len(worked(view)), view["total"])

    def test_a_group_that_no_day_names_is_done_at_the_end(self) -> None:
        view = build_of(StoredJob(with_build(days=[["rear"], ["nothing such"]]), 0), "plan A")
        self.assertEqual([d["groups"] for d in view["days"]], [["rear"], ["pedal", "cylinder", "front"]])

    def test_where_there_is_nothing_to_choose_there_is_no_ladder(self) -> None:
        self.assertIsNone(build_of(StoredJob(demo_job(), 0), "as found")["order"])
        self.assertEqual(chosen(demo_job(), "plan Q"), "plan A")

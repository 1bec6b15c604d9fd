"""Leak watch: the joints that a plan opens, each looked at twice; wet stands until it was looked at again."""

import unittest
from typing import Any

from kobrix.evaluate.line_places import ways_of
from kobrix.evaluate.plan_changes import changes_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.bleed.service import standing
from kobrix.stages.bleed.shapes import WatchView
from kobrix.stages.bleed.watch import watch_of
from kobrix.stages.common import StoredJob
from kobrix.store.records import Record

from tests.cases import conforms, demo_document, demo_job, every_layout


def look(n: int, joint: str, when: str, dry: bool, struck: str | None = None) -> Record:
    """A look at a joint of plan A."""
    return Record(
        n, f"key-{n:08d}", "looked", "2026-05-09T10:00:00Z", {"setup": "plan A", "joint": joint, "when": when, "dry": dry}, struck
    )


class WatchTest(unittest.TestCase):
    def test_the_joints_are_those_that_the_plan_opens(self) -> None:
        job = demo_job()
        watch = watch_of(job, "plan A", ())
        conforms(WatchView, watch)
        opened = {p.key for way in ways_of(job.setup("plan A"), changes_of(job, "plan A")) for p in way.placed if p.opened}
        joints = {j["joint"] for j in watch["joints"]}
        self.assertEqual(opened, joints - {"own-1"})
        self.assertEqual((watch["level"], watch["dry_hold"], watch["dry_drive"]), ("caution", 0, 0))
        self.assertEqual(watch_of(job, "as found", ())["joints"], [])

    def test_a_joint_that_a_person_marked_follows_it(self) -> None:
        document: dict[str, Any] = demo_document()
        document["plans"][0]["fit"].setdefault("joints", {})["0-0-port"] = {"opened": False, "name": "front port"}
        document["plans"][0]["fit"]["joints"]["0-1-tee-in"] = {"opened": True, "name": "the rear tee", "count": 3}
        joints = {j["joint"]: j for j in watch_of(files.check(Job, document), "plan A", ())["joints"]}
        self.assertNotIn("0-0-port", joints)
        self.assertEqual((joints["0-1-tee-in"]["title"], joints["0-1-tee-in"]["count"]), ("the rear tee", 3))

    def test_a_joint_of_one_s_own_is_watched_unless_it_is_said_to_stay_closed(self) -> None:
        document: dict[str, Any] = demo_document()
        document["plans"][0]["fit"].setdefault("joints", {}).update({
            "own-8": {}, "own-9": {"name": "the gauge tee", "count": 2}, "own-10": {"opened": False},
        })  # fmt: skip
        joints = {j["joint"]: j for j in watch_of(files.check(Job, document), "plan A", ())["joints"]}
        self.assertEqual((joints["own-8"]["title"], joints["own-8"]["count"]), ("a joint of your own", 1))
        self.assertEqual((joints["own-9"]["title"], joints["own-9"]["count"]), ("the gauge tee", 2))
        self.assertNotIn("own-10", joints)

    def test_dry_twice_is_good_and_wet_is_danger_until_looked_at_again(self) -> None:
        job = demo_job()
        keys = [j["joint"] for j in watch_of(job, "plan A", ())["joints"]]
        held = tuple(look(n, key, "hold", True) for n, key in enumerate(keys))
        self.assertEqual(watch_of(job, "plan A", held)["level"], "note")
        driven = (*held, *(look(100 + n, key, "drive", True) for n, key in enumerate(keys)))
        both = watch_of(job, "plan A", driven)
        self.assertEqual((both["level"], both["dry_hold"], both["dry_drive"]), ("good", len(keys), len(keys)))
        wet = (*driven, look(300, keys[1], "drive", False))
        told = watch_of(job, "plan A", wet)
        self.assertEqual((told["level"], len(told["wet"]), told["dry_drive"]), ("danger", 1, len(keys) - 1))
        self.assertEqual(standing(StoredJob(job, 1, (*wet, Record(500, "key-00000500", "bled", "", {"setup": "plan A", "screw": "x"}, None))))["state"], "doubt")  # fmt: skip
        self.assertEqual(watch_of(job, "plan A", (*wet, look(301, keys[1], "drive", True)))["level"], "good")
        self.assertEqual(
            watch_of(job, "plan A", (*driven, look(300, keys[1], "drive", False, "the wrong joint")))["level"], "good"
        )

    def test_every_layout_and_plan(self) -> None:
        for job in every_layout():
            for name in job.names:
                with self.subTest(f"{job.name} {name}"):
                    conforms(WatchView, watch_of(job, name, ()))


if __name__ == "__main__":
    unittest.main()

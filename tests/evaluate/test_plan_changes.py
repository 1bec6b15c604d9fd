"""What a plan changes, by groups: put together again they are the plan."""

import copy
import unittest

from kobrix.evaluate.ask.steps import differs
from kobrix.evaluate.ask.subject import set_in
from kobrix.evaluate.plan_changes import changes_of, groups_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job

from tests.cases import demo_document, demo_job, every_layout


class Groups(unittest.TestCase):
    def test_all_groups_set_make_the_systems_of_the_plan(self) -> None:
        job = demo_job()
        document = copy.deepcopy(job.setup("as found").model_dump(exclude_none=True))
        for group in groups_of(job, "plan A"):
            for path, value in group.sets.items():
                set_in(document, path, value)
        plan = job.setup("plan A").model_dump(exclude_none=True)
        self.assertFalse(differs(document["systems"], plan["systems"]))

    def test_every_change_is_in_one_group(self) -> None:
        for job in every_layout():
            for name in job.names:
                told = changes_of(job, name)
                grouped = [c for g in groups_of(job, name) for c in g.changes]
                self.assertEqual(sorted(map(str, told)), sorted(map(str, grouped)))

    def test_as_found_changes_nothing_and_pads_open_nothing(self) -> None:
        job = demo_job()
        self.assertEqual(changes_of(job, "as found"), [])
        document = demo_document()
        document["plans"][0]["systems"] = copy.deepcopy(document["as_found"]["systems"])
        document["plans"][0]["systems"][0]["stations"][0]["brake"]["friction"] = {"cold": 0.43}
        (group,) = groups_of(files.check(Job, document), "plan A")
        self.assertEqual(([c.kind for c in group.changes], group.opens), (["pads"], False))

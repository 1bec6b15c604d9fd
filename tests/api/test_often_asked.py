"""What people ask: answered with figures that the model gives by another way, on every layout, and not before it can be."""

import itertools
import unittest
from typing import get_args

from kobrix.api.often_asked import OftenAsked, often_asked
from kobrix.evaluate.solve import Answer, ByContent, answer_of, wanted_stop
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import Layout, new_job
from kobrix.fileformat.paths import set_at
from kobrix.stages.match.space import edited

from tests.api.case import ApiCase
from tests.cases import conforms, demo_document, demo_job, every_layout


class Answers(unittest.TestCase):
    def test_each_size_is_the_setup_with_that_size(self) -> None:
        job = demo_job()
        told = often_asked(job, "plan A")
        conforms(OftenAsked, told)
        wanted = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names])
        assert wanted is not None
        for one, path in (("bore", "cylinder.bore_mm"), ("pin", "control.pivot_to_pin_mm")):
            rows = next(a for a in told["answers"] if a["id"] == one)["rows"]
            self.assertGreater(len(rows), 4)
            self.assertEqual(sum(r["now"] for r in rows), 1)
            for row in rows:
                setup = edited(job.setup("plan A"), [set_at(f"systems.0.{path}", row["name"].removeprefix("pin at "))])
                answer = Answer(setup)
                assert answer.solved is not None
                healthy = answer.solved.main.healthy
                place, _ = healthy.reach(wanted)
                self.assertAlmostEqual(row["push_n"] or 0.0, float(healthy.push_at(place).max()), delta=0.5)

    def test_a_bigger_bore_is_harder_and_shorter_everywhere(self) -> None:
        for job in every_layout():
            for name in job.names:
                told = often_asked(job, name)
                conforms(OftenAsked, told)
                for one in told["answers"]:
                    self.assertRegex(one["answer"], r"[.!]$", one["id"])
                    if one["id"] == "bore":
                        known = [
                            (r["push_n"], r["travel_share"])
                            for r in one["rows"]
                            if r["push_n"] is not None and r["travel_share"] is not None
                        ]
                        for (push, share), (more, less) in itertools.pairwise(known):
                            self.assertLess(push, more)
                            self.assertGreaterEqual(share, less)

    def test_a_travel_that_is_not_known_is_said_and_nothing_is_called_good(self) -> None:
        document = demo_document()
        for plan in (document["as_found"], *document["plans"]):
            plan["systems"][0]["control"].pop("available_travel_mm")
        told = {a["id"]: a for a in often_asked(files.check(Job, document), "plan A")["answers"]}
        self.assertNotIn("caliper", told)
        for one in ("bore", "pin"):
            self.assertIn("By the push alone", told[one]["answer"])
            self.assertIn("is not known yet", told[one]["answer"])
            self.assertNotEqual(told[one]["level"], "good")

    def test_an_empty_job_has_none_yet_and_no_vehicle_is_asked_what_it_has_not(self) -> None:
        for layout in get_args(Layout):
            told = often_asked(new_job("x", layout), "as found")
            self.assertEqual(told["answers"], [])
        for job in every_layout():
            if job.vehicle.kind in ("motorcycle", "aircraft"):
                ids = {a["id"] for a in often_asked(job, job.names[-1])["answers"]}
                self.assertFalse(ids & {"booster", "valve"})


class Door(ApiCase):
    def test_it_is_asked_of_a_setup(self) -> None:
        for setup in ("", "?setup=as%20found", "?setup=no%20such"):
            conforms(OftenAsked, self.client.get(f"/api/jobs/1/often-asked{setup}").json())
        self.problem(self.client.get("/api/jobs/9/often-asked"), 404, "9")


if __name__ == "__main__":
    unittest.main()

"""Rebuilding a cylinder: each cup's sweep against the stroke of the result file, and what a pit in its way means."""

import unittest

from kobrix.evaluate.solve import ByContent, answer_of, at_stop, wanted_stop
from kobrix.fileformat.building import Building
from kobrix.fileformat.questions import Questions
from kobrix.stages.build.rebuild import cups_of
from kobrix.stages.build.service import build_of
from kobrix.stages.build.shapes import BuildView, CupView
from kobrix.stages.common import StoredJob

from tests.cases import conforms, demo_job, evaluate, every_layout


class Sweep(unittest.TestCase):
    def test_a_tandems_primary_cup_moves_as_far_as_the_pushrod(self) -> None:
        job = demo_job()
        primary, secondary = cups_of(job, "plan A", Building())
        self.assertEqual((primary["name"], secondary["name"]), ("primary cup", "secondary cup"))
        wanted = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names])
        push, _ = at_stop(answer_of(ByContent(job.setup("plan A"))), wanted)
        assert push is not None
        cylinder = job.setup("plan A").systems[0].cylinder
        shares = []
        for state in evaluate(job.setup("plan A"), Questions(pedal_forces_n=[push]))["load_states"].values():
            shares.append(state["paths"]["service"]["at_pedal_force"][0]["systems"]["service"]["piston_travel_mm"])
        stroke = float(cylinder.stroke_mm)  # type: ignore[union-attr, arg-type]
        self.assertAlmostEqual(primary["at_stop_mm"] or 0.0, max(shares), places=6)
        self.assertAlmostEqual(primary["most_mm"], stroke, places=9)
        self.assertAlmostEqual(secondary["most_mm"], stroke / 2, places=9)
        self.assertLess(secondary["at_stop_mm"] or 0.0, primary["at_stop_mm"] or 0.0)

    def pit(self, mm: float) -> CupView:
        return cups_of(demo_job(), "plan A", Building.model_validate({"pits": {"primary cup": f"{mm:.2f} mm"}}))[0]

    def test_a_pit_is_judged_by_where_it_lies(self) -> None:
        cup = self.pit(1.0)
        at, most = cup["at_stop_mm"] or 0.0, cup["most_mm"]
        self.assertEqual((cup["level"], "every hard stop" in cup["sentence"]), ("danger", True))
        self.assertIn("circuit is lost", self.pit((at + most) / 2)["sentence"])
        self.assertEqual(self.pit(most + 0.5)["level"], "danger")
        far = self.pit(most + 4.0)
        self.assertEqual((far["level"], far["sentence"].split(":")[0]), ("good", "Beyond the cup's way by 4.0 mm"))

    def test_every_layout_has_its_cups_or_none(self) -> None:
        for job in every_layout():
            for name in job.names:
                view = build_of(StoredJob(job, 0), name)
                conforms(BuildView, view)
                known = answer_of(ByContent(job.setup(name))).solved is not None
                self.assertTrue(known or not view["cups"])
                for cup in view["cups"]:
                    self.assertGreater(cup["most_mm"], 0.0)
                    self.assertGreaterEqual(cup["at_stop_mm"] or 0.0, 0.0)
                self.assertEqual(len({c["name"] for c in view["cups"]}), len(view["cups"]))


if __name__ == "__main__":
    unittest.main()

"""The parking brake on Fit's page: the figures of the question, and what a plan does to it."""

import unittest
from typing import Any

from kobrix.evaluate.ask.run import ask
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.fit.service import fit_of

from tests.cases import demo_document, every_layout


def parking_of(name: str = "plan A", **shape: Any) -> Any:
    """The parking brake of a setup of the demo job."""
    document = demo_document()
    plan = document["as_found"] if name == "as found" else document["plans"][0]
    plan.setdefault("fit", {})["parking"] = shape
    return fit_of(files.check(Job, document), 0, name)["parking"]


class Parking(unittest.TestCase):
    def test_the_figures_are_those_of_the_question(self) -> None:
        view = parking_of(actuator="caliper", control="hand", control_ratio=6.5, actuator_ratio=11, effective_radius_mm=109.5)
        question = {
            "question": "parking_brake", "control": {"kind": "hand", "lever_ratio": 6.5}, "tyre": "185/60R15",
            "actuator": {"kind": "caliper", "lever_ratio": 11, "friction": 0.38, "effective_radius_mm": 109.5},
            "vehicle": {"mass_kg": 1310, "front_share": 0.49, "cg_height_mm": 530, "wheelbase_mm": 2480, "grip": 0.9},
        }  # fmt: skip
        told: Any = ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0]
        own = view["states"][0]
        for ours, theirs in (
            ("grade_up", "holds_nose_up"),
            ("grade_down", "holds_nose_down"),
            ("pull_n", "pull_needed_n"),
            ("alone_g", "decel_alone_g"),
        ):
            self.assertAlmostEqual(own[ours], told[theirs])
        self.assertAlmostEqual(view["cable_n"], told["cable_force_n"])
        self.assertEqual(len(view["states"]), 2)

    def test_the_pads_radius_is_the_rotors_where_none_is_typed(self) -> None:
        typed = parking_of(actuator="caliper", control_ratio=6.5, actuator_ratio=11, effective_radius_mm=(258 - 3 - 36) / 2)
        plain = parking_of(actuator="caliper", control_ratio=6.5, actuator_ratio=11)
        self.assertAlmostEqual(plain["states"][0]["alone_g"], typed["states"][0]["alone_g"])

    def test_drums_to_discs_lose_it_and_what_is_missing_is_asked_for(self) -> None:
        self.assertIn("Lost with the drums", parking_of()["kept"])
        self.assertNotIn("Lost", parking_of("as found")["kept"])
        self.assertEqual(len(parking_of(actuator="caliper")["needs"]), 2)
        self.assertEqual(parking_of("as found", actuator="shoes", control_ratio=6, actuator_ratio=4)["level"], "good")
        self.assertEqual(parking_of(actuator="clamp", clamp_n="600 N")["level"], "danger")
        self.assertEqual(parking_of(actuator="clamp")["needs"], ["the clamp, from its maker"])

    def test_lining_that_locks_itself_is_refused_in_words(self) -> None:
        view = parking_of("as found", actuator="shoes", control_ratio=6, actuator_ratio=4, friction=0.85)
        self.assertIn("locks itself", view["refused"])

    def test_every_layout_has_one_or_says_that_it_is_not_asked_for(self) -> None:
        for job in every_layout():
            kept = fit_of(job, 0, job.names[-1])["parking"]["kept"]
            self.assertEqual(kept == "Not asked for here.", job.vehicle.kind in ("motorcycle", "aircraft"))

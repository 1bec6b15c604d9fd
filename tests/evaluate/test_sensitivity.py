"""Which doubt matters most: the study against plain evaluations of the same setup."""

import unittest
from typing import Any

from kobrix.core.errors import Impossible
from kobrix.evaluate.sensitivity import sensitivity_of
from kobrix.evaluate.uncertainty import said_of, uncertain_entries
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import new_job
from kobrix.fileformat.questions import Questions

from tests.cases import demo_document, demo_job, evaluate


def effort(document: dict[str, Any], decel: float) -> float:
    """Push for a deceleration of plan A, by the result file."""
    setup = files.check(Job, document).setup("plan A")
    result = evaluate(setup, Questions(wanted_decels_g=[decel]))
    found: float = result["load_states"][setup.vehicle.load_states[0].name]["paths"]["service"]["pedal_force_for_decel"][0][
        "pedal_force_n"
    ]
    return found


class Matters(unittest.TestCase):
    def test_each_end_of_a_range_is_what_the_setup_with_that_entry_gives(self) -> None:
        found: Any = sensitivity_of(demo_job(), "plan A")
        own = {e["path"]: e for e in found["entries"]}["systems.0.control.efficiency"]
        for end, value in enumerate((own["least"], own["most"])):
            document = demo_document()
            document["plans"][0]["systems"][0]["control"]["efficiency"] = value
            self.assertAlmostEqual(own["push_n"][end], effort(document, found["decel_g"]), places=6)

    def test_the_geometry_of_a_linkage_is_doubted_within_its_width(self) -> None:
        document = demo_document()
        linkage = {"rest_angle_deg": -80, "bore_point_mm": [150, -55], "bore_direction_deg": 0, "rod_mm": 160}
        document["plans"][0]["systems"][0]["control"]["linkage"] = linkage
        path = "systems.0.control.linkage.bore_point_mm.1"
        document["tolerances"] = {f"plans.0.{path}": "± 4 mm"}
        found: Any = sensitivity_of(files.check(Job, document), "plan A")
        own = {e["path"]: e for e in found["entries"]}[path]
        for end, height in enumerate((-59, -51)):
            linkage["bore_point_mm"] = [150, height]
            self.assertAlmostEqual(own["push_n"][end], effort(document, found["decel_g"]), places=6)

    def test_a_tolerance_is_doubted_within_its_own_width_and_what_moves_nothing_ranks_low(self) -> None:
        document = demo_document()
        document["tolerances"] = {"plans.0.systems.0.stations.0.brake.friction.cold": "± 0.05"}
        found: Any = sensitivity_of(files.check(Job, document), "plan A")
        rank = {e["path"]: e for e in found["entries"]}
        friction = rank["systems.0.stations.0.brake.friction.cold"]
        self.assertEqual(
            (round(friction["least"], 6), round(friction["most"], 6), friction["standing"]), (0.33, 0.43, "plus_minus")
        )
        self.assertLess(friction["push_rank"], -0.4)  # more friction, less push
        running = rank["systems.0.stations.0.brake.clearance_mm"]
        self.assertLess(abs(running["push_rank"]), 0.2)
        self.assertGreater(running["travel_rank"], 0.2)
        self.assertGreater(running["travel_mm"][1], running["travel_mm"][0] + 8)

    def test_the_middle_of_the_trials_is_near_what_is_entered_and_the_same_every_time(self) -> None:
        found, again = (dict[str, Any](sensitivity_of(demo_job(), "plan A")) for _ in range(2))
        self.assertEqual(found, again)
        nominal = effort(demo_document(), found["decel_g"])
        self.assertLess(found["push_n"]["p5"], nominal)
        self.assertGreater(found["push_n"]["p95"], nominal)
        self.assertAlmostEqual(found["push_n"]["p50"], nominal, delta=0.1 * nominal)  # springs and turning mass can only add

    def test_said_not_to_be_known_is_doubted_over_the_stand_in_s_range(self) -> None:
        document = demo_document()
        document["assumed"] = ["vehicle.load_states.0.cg_height_mm"]
        job = files.check(Job, document)
        found = uncertain_entries(job.setup("plan A"), said_of(job, "plan A"))
        [height] = [d for d in found if d.path == "vehicle.load_states.0.cg_height_mm"]
        self.assertTrue(height.assumed)
        self.assertAlmostEqual(height.least, 450.0)
        self.assertAlmostEqual(height.most, 700.0)

    def test_an_empty_job_has_no_answer_yet(self) -> None:
        with self.assertRaises(Impossible):
            sensitivity_of(new_job("new", "motorcycle"), "as found")


if __name__ == "__main__":
    unittest.main()

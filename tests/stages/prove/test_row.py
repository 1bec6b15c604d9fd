"""A row of stops: its heat is bed_recipe's, its bite by hand, and it is held against no other set."""

import math
import unittest
from typing import Any

from kobrix.core.constants import G
from kobrix.evaluate.ask import bed
from kobrix.evaluate.ask.subject import Subject
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.stages.prove.row import BITE_DOUBT
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView, RowView
from scipy import stats

from tests.cases import conforms, demo_document, demo_job, every_layout
from tests.stages.prove.test_service import stored

PUSH = 310.0


def with_row(setup: str = "plan A", gap: Any = "25 s") -> Job:
    """The demo job with one set, driven as a row."""
    document = demo_document() | {"records": []}
    document["proving"] = {"nominal_kmh": 80, "sets": [{"name": "row", "setup": setup, "row_gap_s": gap}]}
    return files.check(Job, document)


def stops(decels: list[float], **more: Any) -> list[dict[str, Any]]:
    """Stops from 80 km/h at these decelerations [g]."""
    return [{"set": "row", "speed_kmh": 80, "distance_m": (80 / 3.6) ** 2 / (2 * d * G), "push_n": PUSH, **more} for d in decels]


class RowTest(unittest.TestCase):
    def row(self, job: Job, bodies: list[dict[str, Any]]) -> RowView:
        view = prove_of(stored(job, bodies))
        conforms(ProveView, view)
        (row,) = view["rows"]
        return row

    def test_the_heat_is_that_of_the_recipe_question(self) -> None:
        decels = [0.6, 0.55, 0.5]
        row = self.row(with_row(), stops(decels, rotor_front_c="120 °C"))
        stages = [{"from_kmh": 80, "to_kmh": 0, "count": 1, "decel_g": d, "gap_s": 25} for d in decels]
        told: Any = bed.recipe(Asked({"setup": demo_job().setup("plan A").model_dump(exclude_none=True), "stages": stages}))
        for own, slow in zip(row["stops"], told["slow_downs"], strict=True):
            self.assertAlmostEqual(own["starts_at_s"], slow["starts_at_s"], places=6)
            for name in ("front", "rear"):
                rotor = own["rotors"][name]
                assert rotor is not None
                self.assertAlmostEqual(rotor["peak_c"], slow["stations"][name]["peak_c"], places=6)
                self.assertAlmostEqual(rotor["start_c"], slow["stations"][name]["start_c"], places=6)
                self.assertEqual(rotor["read_c"], 120.0 if name == "front" else None)
        self.assertAlmostEqual(row["whole_s"], told["whole_s"], places=6)
        self.assertEqual((row["stations"], row["needs"]), (["front", "rear"], ""))

    def test_a_bite_is_the_deceleration_over_that_of_the_push_cold(self) -> None:
        subject = Subject(Asked({"setup": demo_job().setup("plan A").model_dump(exclude_none=True)}))
        cold = {push: subject.decel_at(subject.path.healthy, push) for push in (PUSH, 400.0)}
        bodies = stops([0.6, 0.6, 0.6])
        bodies[1]["push_n"] = 400
        bodies[2]["locked"] = "front"
        bites = [s["bite"] for s in self.row(with_row(), bodies)["stops"]]
        self.assertEqual(bites[0], 1.0)
        assert bites[1] is not None
        self.assertAlmostEqual(bites[1], cold[PUSH] / cold[400.0], places=9)
        self.assertIsNone(bites[2])

    def test_fade_is_told_with_its_interval_and_not_out_of_scatter(self) -> None:
        fading = [0.60, 0.59, 0.57, 0.54, 0.52, 0.50]
        row = self.row(with_row(), stops(fading))
        line = stats.linregress(range(6), [math.log(d / fading[0]) for d in fading])
        assert row["change"] is not None and row["low"] is not None and row["high"] is not None
        self.assertAlmostEqual(row["change"], math.expm1(line.slope * 5), places=9)
        # Stated doubt leads where the readings scatter less: BITE_DOUBT over the spread of the stops' numbers.
        half = stats.norm.ppf(0.975) * BITE_DOUBT / math.sqrt(17.5) * 5
        self.assertAlmostEqual(row["low"], math.expm1(line.slope * 5 - half), places=9)
        self.assertAlmostEqual(row["high"], math.expm1(line.slope * 5 + half), places=9)
        self.assertEqual(row["level"], "caution")
        self.assertEqual(self.row(with_row(), stops([0.6, 0.5, 0.42, 0.36, 0.3, 0.26]))["level"], "danger")
        even = self.row(with_row(), stops([0.60, 0.61, 0.59, 0.60]))
        self.assertEqual(even["level"], "good")
        assert even["low"] is not None and even["high"] is not None
        self.assertLess(even["low"], 0.0)
        self.assertGreater(even["high"], 0.0)
        few = self.row(with_row(), stops([0.6, 0.5]))
        self.assertEqual((few["level"], few["change"]), ("note", None))

    def test_a_row_is_held_against_no_other_set_and_teaches_nothing(self) -> None:
        view = prove_of(stored(demo_job()))
        names = {row["set"] for row in view["rows"]}
        self.assertEqual(names, {"plan A, row"})
        self.assertFalse(names & {name for pair in view["pairs"] for name in (pair["first"], pair["second"])})
        self.assertNotIn("plan A, row", [c["of"] for c in view["calibrations"]])
        self.assertEqual(view["rows"][0]["level"], "caution")

    def test_what_is_not_known_is_said(self) -> None:
        bare = self.row(with_row(), [{"set": "row", "speed_kmh": 80}])
        self.assertEqual((bare["stops"], bare["stations"]), ([], []))
        self.assertNotEqual(bare["needs"], "")
        job = with_row()
        document = job.model_dump(exclude_none=True)
        for station in document["plans"][0]["systems"][0]["stations"]:
            station["brake"].pop("rotor_mass_kg")
        cold = self.row(files.check(Job, document), stops([0.6, 0.6, 0.6]))
        self.assertEqual((len(cold["stops"]), cold["stations"]), (3, []))
        self.assertNotEqual(cold["needs"], "")

    def test_every_layout_complete_or_not_has_its_row(self) -> None:
        for job in every_layout():
            with self.subTest(job.name):
                document = job.model_dump(exclude_none=True) | {"records": []}
                document["proving"] = {"sets": [{"name": "row", "setup": job.names[0], "row_gap_s": 30}]}
                row = self.row(files.check(Job, document), stops([0.3, 0.3, 0.3]))
                self.assertTrue(row["stops"] or row["needs"])


if __name__ == "__main__":
    unittest.main()

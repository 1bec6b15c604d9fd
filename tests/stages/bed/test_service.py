"""Bed: the maker's recipe through the heat of the rotors, what does not fit, and what was driven."""

import unittest
from typing import Any

from kobrix.devices.thermometer import reading
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.bed.service import bed_of, standing
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.common import StoredJob
from kobrix.store.records import Record

from tests.cases import conforms, demo_document, demo_job, every_layout


def with_bed(**change: Any) -> Job:
    """The demo job with its recipe changed."""
    document = demo_document()
    document["plans"][0]["bed"].update(change)
    return files.check(Job, document)


def driven(*numbers: int, **more: Any) -> tuple[Record, ...]:
    """Records of slow-downs of plan A."""
    return tuple(
        Record(n, f"key-{n:08d}", "bedded", "2026-05-15T18:00:00Z", {"setup": "plan A", "number": n, **more}) for n in numbers
    )


class Recipe(unittest.TestCase):
    def test_every_setup_of_every_layout_has_its_shape(self) -> None:
        stage = {"from_kmh": 60, "to_kmh": 20, "count": 3, "decel_g": 0.2, "gap_s": 30}
        for job in every_layout():
            document = job.model_dump(exclude_unset=True)
            document["as_found"]["bed"] = {"stages": [stage]}
            own = files.check(Job, document)
            with self.subTest(job=job.name):
                view = bed_of(StoredJob(own, 1), "as found")
                conforms(BedView, view)
                self.assertEqual(view["certified"], job.vehicle.kind == "aircraft")
                if view["needs"] == 0 and view["refused"] == "":
                    self.assertEqual(len(view["slow_downs"]), 3)

    def test_the_demo_s_rotors_by_the_energy_that_each_takes(self) -> None:
        view = bed_of(StoredJob(demo_job(), 0), "plan A")
        first = view["slow_downs"][0]
        energy = 0.5 * 1310 * ((80 / 3.6) ** 2 - (30 / 3.6) ** 2)
        self.assertAlmostEqual(energy, 277_970.679, places=2)
        rise = {name: (r["peak_c"] - r["start_c"]) for name, r in first["rotors"].items() if r is not None}
        self.assertGreater(rise["front"], rise["rear"])
        self.assertEqual(len(view["slow_downs"]), 12)
        self.assertTrue(
            all(a["ends_at_m"] < b["ends_at_m"] for a, b in zip(view["slow_downs"], view["slow_downs"][1:], strict=False))
        )
        self.assertEqual([c["id"] for c in view["cautions"]], ["below_window"])

    def test_a_short_road_a_full_stop_and_pads_too_hot_are_told(self) -> None:
        short = bed_of(StoredJob(with_bed(road_m="3 km"), 0), "plan A")
        self.assertIn("no_room", [c["id"] for c in short["cautions"]])
        self.assertEqual(sum(s["fits"] for s in short["slow_downs"]), short["fits"])
        stages = demo_document()["plans"][0]["bed"]["stages"]
        stop = bed_of(StoredJob(with_bed(stages=[{**stages[0], "to_kmh": 0}]), 0), "plan A")
        self.assertIn("full_stop", [c["id"] for c in stop["cautions"]])
        hot = bed_of(StoredJob(with_bed(pads={"front": {"most_c": 120}}), 0), "plan A")
        self.assertIn(("above_most", "danger"), [(c["id"], c["level"]) for c in hot["cautions"]])

    def test_a_recipe_that_cannot_be_driven_is_refused_in_words_and_none_is_made_up(self) -> None:
        wrong = bed_of(StoredJob(with_bed(stages=[{"from_kmh": 80, "to_kmh": 30, "count": 2, "decel_g": 1.4}]), 0), "plan A")
        self.assertNotEqual(wrong["refused"], "")
        self.assertEqual(wrong["slow_downs"], [])
        empty = bed_of(StoredJob(with_bed(stages=[]), 0), "plan A")
        self.assertEqual((empty["slow_downs"], empty["stages"]), ([], []))


class Driven(unittest.TestCase):
    def test_what_was_driven_is_counted_once_and_simulated_readings_are_not(self) -> None:
        job = demo_job()
        view = bed_of(StoredJob(job, 0, driven(1, 2)), "plan A")
        self.assertEqual([s["driven"] is not None for s in view["slow_downs"]][:3], [True, True, False])
        self.assertEqual(standing(StoredJob(job, 0, driven(1, 2))), {"state": "begun", "words": "2 of 12"})
        self.assertEqual(bed_of(StoredJob(job, 0, driven(1, simulated=True)), "plan A")["driven"], 0)
        self.assertEqual(standing(StoredJob(job, 0, driven(*range(1, 13))))["words"], "bedded")

    def test_the_simulated_thermometer_is_reproducible(self) -> None:
        self.assertEqual([reading(200.0, n) for n in range(4)], [reading(200.0, n) for n in range(4)])
        self.assertLess(abs(sum(reading(200.0, n) for n in range(200)) / 200 - 200.0), 2.0)

"""Bleed: the order of the screws, holds and the stand test, of every vehicle."""

import unittest
from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.devices.gauges import reading
from kobrix.evaluate.ask.subject import Subject
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.stages.bleed.bands import bands_of
from kobrix.stages.bleed.service import bleed_of, simulated, stand_of, standing
from kobrix.stages.bleed.shapes import BleedView, SimulateIn, StandView
from kobrix.stages.common import StoredJob
from kobrix.store.records import Record

from tests.cases import applied, conforms, demo_document, demo_job, every_layout

FORCES = (20.0, 49.0, 98.0, 196.0, 343.0)


def records(kind: str, bodies: list[dict[str, Any]]) -> tuple[Record, ...]:
    """Records of plan A."""
    return tuple(Record(n, f"key-{n:08d}", kind, "2026-05-02T14:05:00Z", {"setup": "plan A", **b}) for n, b in enumerate(bodies))


def pushes(
    job: Job, air: float = 0.0, factor: float = 1.0, forces: tuple[float, ...] = FORCES, **more: Any
) -> list[dict[str, Any]]:
    """What a perfect scale, gauges and ruler read of plan A with more air in its front lines, or other pressures."""
    setup = job.setup("plan A").model_dump(exclude_none=True)
    setup["systems"][0]["stations"][0]["lines"]["air_cm3"] = air
    subject = Subject(Asked({"setup": setup}))
    return [
        {"force": f, "front_kpa": factor * subject.pressure_at(f, "front") / 1000, "rear_kpa": factor * subject.pressure_at(f, "rear") / 1000,
         "travel_mm": subject.travel_at(subject.path.healthy, f), **more}
        for f in forces
    ]  # fmt: skip


class Screws(unittest.TestCase):
    def test_every_setup_of_every_layout_has_its_shape_and_every_wheel_its_screw(self) -> None:
        for job in every_layout():
            for name in job.names:
                with self.subTest(job=job.name, setup=name):
                    view = bleed_of(StoredJob(job, 1), name)
                    conforms(BleedView, view)
                    wheels = sum(s.wheels for system in job.setup(name).systems for s in system.stations)
                    self.assertEqual(sum(len(s["screws"]) for s in view["schools"]), wheels)
                    self.assertTrue(all(s["refused"] == "" for s in view["schools"]))

    def test_the_fluid_of_all_screws_is_twice_what_the_lines_hold(self) -> None:
        view = bleed_of(StoredJob(demo_job(), 0), "plan A")
        stations = Subject(Asked({"setup": demo_job().setup("plan A").model_dump(exclude_none=True)})).system.stations
        held = sum(float(s.lines.fluid_volume) for s in stations if s.lines is not None) * 1e6
        self.assertAlmostEqual(view["schools"][0]["total_cm3"] or 0.0, 2 * held, places=6)

    def test_the_maker_s_own_order_two_screws_and_silicone(self) -> None:
        document = demo_document()
        document["plans"][0]["bleed"] = {
            "school": "list",
            "order": ["front left", "front right", "rear left", "rear right"],
            "two_screws": ["front left"],
            "fluid_in": "DOT 5",
        }
        school = bleed_of(StoredJob(files.check(Job, document), 0), "plan A")["schools"][0]
        self.assertEqual(
            [s["name"] for s in school["screws"]][:3], ["front left, inner screw", "front left, outer screw", "front right"]
        )
        self.assertEqual([w["level"] for w in school["warnings"]], ["danger"])
        document["plans"][0]["bleed"]["order"] = ["front left"]
        self.assertIn("leaves out", bleed_of(StoredJob(files.check(Job, document), 0), "plan A")["schools"][0]["refused"])

    def test_a_screw_that_was_bled_says_so_until_it_is_bled_again(self) -> None:
        kept = records("bled", [{"screw": "rear left", "bubbles": False, "by": "K. L."}])
        screw = next(
            s for s in bleed_of(StoredJob(demo_job(), 0, kept), "plan A")["schools"][0]["screws"] if s["name"] == "rear left"
        )
        self.assertEqual((screw["bled"] or {"by": ""})["by"], "K. L.")


class Holds(unittest.TestCase):
    def test_a_leak_is_placed_by_plugging_and_a_tight_one_is_good(self) -> None:
        def hold(sink: float, *plugged: str) -> dict[str, Any]:
            times = [5, 15, 30, 60, 90, 120]
            return {"plugged": list(plugged), "times_s": times, "travels_mm": [90 + sink * t / 60 for t in times]}

        view = bleed_of(
            StoredJob(demo_job(), 0, records("hold", [hold(20), hold(20, "front"), hold(0, "rear"), hold(0, "front", "rear")])),
            "plan A",
        )
        self.assertEqual(view["holds"]["level"], "danger")
        self.assertIn("rear circuit", view["holds"]["sentence"])
        tight = bleed_of(StoredJob(demo_job(), 0, records("hold", [hold(0.0)])), "plan A")
        self.assertEqual(tight["holds"]["level"], "good")
        one = records("hold", [{"times_s": [5, 30], "travels_mm": [90, 90.2]}])
        self.assertNotEqual(bleed_of(StoredJob(demo_job(), 0, one), "plan A")["holds"]["sentence"], "")


class Stand(unittest.TestCase):
    def test_as_planned_it_may_be_driven_slowly_and_simulated_readings_never_count(self) -> None:
        job = demo_job()
        own = pushes(job, forces=(11.0, 13.0, 15.0, *FORCES))
        view = stand_of(StoredJob(job, 0, records("push", own)), "plan A")
        conforms(StandView, view)
        self.assertEqual((view["verdict"], view["reasons"]), ("drive_slowly", []))
        none = stand_of(StoredJob(job, 0, records("push", [{**p, "simulated": True} for p in own])), "plan A")
        self.assertIsNone(none["verdict"])
        self.assertEqual(len(none["pushes"]), len(own))

    def test_air_left_in_on_purpose_is_found_with_how_much(self) -> None:
        job = demo_job()
        view = stand_of(StoredJob(job, 0, records("push", pushes(job, air=0.6, forces=(11.0, 13.0, 15.0, *FORCES)))), "plan A")
        self.assertEqual(view["verdict"], "look_again")
        air = next(f for f in view["fitted"] if f["name"] == "air_cm3")
        self.assertAlmostEqual(air["value"], 0.6, delta=0.05)
        self.assertIn("air", view["travel_sentence"])

    def test_a_dead_circuit_is_not_driven(self) -> None:
        job = demo_job()
        dead = [{**p, "rear_kpa": 0} for p in pushes(job)]
        view = stand_of(StoredJob(job, 0, records("push", dead)), "plan A")
        self.assertEqual(view["verdict"], "do_not_drive")
        self.assertIn("the rear circuit gives nothing", view["reasons"])
        self.assertEqual(standing(StoredJob(job, 0, records("push", dead)))["words"], "do not drive")

    def test_what_is_accepted_becomes_measured_and_the_plan_then_agrees(self) -> None:
        document = demo_document()
        job = files.check(Job, document)
        own = pushes(job, factor=0.85)
        before = stand_of(StoredJob(job, 0, records("push", own)), "plan A")
        fitted = next(f for f in before["fitted"] if f["name"] == "ratio_efficiency")
        self.assertTrue(fitted["off"])
        after_job = files.check(Job, applied(document, fitted["edits"]))
        after = stand_of(StoredJob(after_job, 0, records("push", own)), "plan A")
        again = next(f for f in after["fitted"] if f["name"] == "ratio_efficiency")
        self.assertAlmostEqual(again["value"], again["plan"] or 0.0, delta=0.01)
        self.assertFalse(again["off"])

    def test_runs_stand_apart_and_the_last_is_shown(self) -> None:
        job = demo_job()
        rows = [*({**p, "run": 1} for p in pushes(job, air=0.8)), *({**p, "run": 2} for p in pushes(job))]
        stored = StoredJob(job, 0, records("push", rows))
        self.assertEqual((stand_of(stored, "plan A")["run"], stand_of(stored, "plan A")["runs"]), (2, [1, 2]))
        self.assertEqual(len(stand_of(stored, "plan A", 1)["pushes"]), 5)

    def test_the_bands_hold_the_plan_itself(self) -> None:
        job = demo_job()
        bands = bands_of(job, "plan A", "service", 450.0)
        subject = Subject(Asked({"setup": job.setup("plan A").model_dump(exclude_none=True)}))
        for point in bands.front[3:]:
            own = subject.pressure_at(point["force_n"], "front") / 1000
            self.assertTrue(point["low"] <= own <= point["high"], point)
        for point in bands.travel[6:]:
            own = subject.travel_at(subject.path.healthy, point["force_n"])
            self.assertTrue(point["low"] <= own <= point["high"], point)

    def test_a_control_of_one_axle_does_not_miss_the_other_gauge(self) -> None:
        job = next(j for j in every_layout() if "Tolver" in j.name)
        subject = Subject(
            Asked({"setup": job.setup("plan A").model_dump(exclude_none=True), "path": "hand_alone", "system": "hand"})
        )
        rows = [
            {
                "force": f,
                "front_kpa": subject.pressure_at(f, "front") / 1000,
                "travel_mm": subject.travel_at(subject.path.healthy, f),
            }
            for f in (15, 30, 60, 90, 120)
        ]
        view = stand_of(StoredJob(job, 0, records("push", rows)), "plan A")
        self.assertEqual((view["has_front"], view["has_rear"]), (True, False))
        self.assertNotIn("no rear gauge was read", view["reasons"])


class Simulated(unittest.TestCase):
    def test_the_same_seed_reads_the_same_and_near_the_truth(self) -> None:
        self.assertEqual(reading(3000.0, None, 80.0, 4), reading(3000.0, None, 80.0, 4))
        self.assertNotEqual(reading(3000.0, None, 80.0, 4), reading(3000.0, None, 80.0, 5))
        job = demo_job()
        told = simulated(job, SimulateIn(setup="plan A", force="20 kgf", seed=3))
        subject = Subject(Asked({"setup": job.setup("plan A").model_dump(exclude_none=True)}))
        self.assertAlmostEqual(told["front_kpa"] or 0.0, subject.pressure_at(196.13, "front") / 1000, delta=300)
        self.assertIsNone(reading(None, 1.0, None, 1)["front_kpa"])

    def test_a_setup_without_lines_is_refused_in_words(self) -> None:
        with self.assertRaisesRegex(BadEntry, "simulated gauges"):
            simulated(next(iter(every_layout())), SimulateIn(setup="as found", force="100", seed=1))

"""Prove: what stops say of each other, computed another way, and what they must not be made to say."""

import math
import random
import statistics
import unittest
from typing import Any

from kobrix.core.prove.compare import doubt_of_difference
from kobrix.demo import SETUPS
from kobrix.evaluate.ask.subject import Subject
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.stages.common import StoredJob
from kobrix.stages.prove.predicted import predicted
from kobrix.stages.prove.service import prove_of, standing
from kobrix.stages.prove.shapes import ProveView
from kobrix.store.records import Record
from scipy import stats

from tests.cases import applied, conforms, demo_document, demo_job, every_layout


def stored(job: Job, bodies: list[dict[str, Any]] | None = None, struck: dict[int, str] | None = None) -> StoredJob:
    """A job with its own records, or with stops as given."""
    own = [r.body for r in job.records if r.kind == "stop"] if bodies is None else bodies
    return StoredJob(
        job,
        4,
        tuple(Record(n, f"key-{n:08d}", "stop", "2026-05-01T10:00:00Z", b, (struck or {}).get(n)) for n, b in enumerate(own)),
    )


def with_sets(*names: str, **more: Any) -> Job:
    """The demo job with sets of these names and no stops of its own."""
    document = demo_document()
    document["records"] = []
    document["proving"] = {"nominal_kmh": 80, "sets": [{"name": n, "setup": "plan A"} for n in names], **more}
    return files.check(Job, document)


def stop(of: str, distance: float, **more: Any) -> dict[str, Any]:
    """A stop from 80 km/h."""
    return {"set": of, "speed_kmh": 80, "distance_m": distance, **more}


class Demo(unittest.TestCase):
    def test_tyres_gave_nothing_measurable_the_plan_did_and_bedding_is_likely(self) -> None:
        view = prove_of(stored(demo_job()))
        conforms(ProveView, view)
        self.assertEqual(
            [p["verdict"] for p in view["pairs"]], ["inside_scatter", "far_outside_scatter", "likely_real", "far_outside_scatter"]
        )
        self.assertEqual([p["cause"] for p in view["pairs"]], [None, "brakes", "bedding", "several"])
        self.assertEqual([s["n"] for s in view["sets"]], [5, 5, 4, 5, 10])
        self.assertEqual(standing(stored(demo_job())), {"state": "ready", "words": "29 stops"})
        valve = view["valve"]
        assert valve is not None  # wide open, front first once: the rear may well be first there
        self.assertEqual((valve["level"], valve["next"], valve["notes"]), ("danger", 6.08, 1))

    def test_the_means_and_intervals_are_those_of_another_library(self) -> None:
        job = demo_job()
        view = prove_of(
            stored(job, [{k: v for k, v in r.body.items() if k != "direction"} for r in job.records if r.kind == "stop"])
        )
        for own in view["sets"]:
            ways = [s["distance_m"] * (80 / s["speed_kmh"]) ** 2 for s in own["stops"] if s["distance_m"]]
            low, high = stats.t.interval(
                0.95, len(ways) - 1, statistics.mean(ways), statistics.stdev(ways) / math.sqrt(len(ways))
            )
            for ours, theirs in ((own["mean_m"], statistics.mean(ways)), (own["low_m"], low), (own["high_m"], high)):
                self.assertAlmostEqual(ours or 0.0, theirs)


class Counted(unittest.TestCase):
    def test_what_does_not_count_is_shown_with_why_and_changes_nothing(self) -> None:
        job = with_sets("a", "b")
        fine = [stop("a", 40.0), stop("a", 41.0), stop("b", 30.0), stop("b", 31.0)]
        extra = [
            stop("a", 90.0),
            stop("a", 20.0, simulated=True),
            {"set": "a", "speed_kmh": 80},
            {"set": "b", "speed_kmh": 60, "distance_m": 18.0},
        ]
        alone, among = prove_of(stored(job, fine)), prove_of(stored(job, fine + extra, {4: "a dog"}))
        for one, other in zip(alone["sets"], among["sets"], strict=True):
            self.assertEqual((one["n"], one["mean_m"]), (other["n"], other["mean_m"]))
        left = [s["left_out"] for v in among["sets"] for s in v["stops"] if s["left_out"]]
        self.assertEqual(len(left), 4)
        self.assertEqual(standing(stored(job, [extra[1]]))["state"], "empty")

    def test_a_slope_is_taken_out_and_two_marks_are_a_distance(self) -> None:
        job = with_sets("a")
        view = prove_of(
            stored(job, [stop("a", 40.0, grade="2 %"), {"set": "a", "speed_kmh": 80, "brake_on_mark_m": 12, "rest_mark_m": -28}])
        )
        up, marks = view["sets"][0]["stops"]
        decel = (80 / 3.6) ** 2 / 80
        self.assertAlmostEqual(up["corrected_m"] or 0.0, 40.0 * decel / (decel - 9.80665 * math.sin(math.atan(0.02))))
        self.assertEqual(marks["distance_m"], 40.0)

    def test_stops_of_a_set_that_was_taken_out_stay_in_sight(self) -> None:
        view = prove_of(stored(with_sets("a"), [stop("a", 40.0), stop("gone", 50.0)]))
        self.assertEqual([(s["name"], s["orphan"]) for s in view["sets"]], [("a", False), ("gone", True)])

    def test_one_stop_each_is_too_few_and_none_says_so(self) -> None:
        two = prove_of(stored(with_sets("a", "b"), [stop("a", 40.0), stop("b", 30.0)]))
        self.assertEqual([p["verdict"] for p in two["pairs"]], ["too_few"])
        self.assertIn("No stop yet", prove_of(stored(with_sets(), []))["headline"])
        self.assertEqual(prove_of(stored(with_sets("a"), [stop("a", 40.0)]))["pairs"], [])


class Random(unittest.TestCase):
    def test_without_a_difference_about_one_in_twenty_is_called_real(self) -> None:
        draw, called, tries = random.Random(3), 0, 200
        job = with_sets("a", "b")
        for _ in range(tries):
            bodies = [stop(of, draw.gauss(40.0, 1.2)) for of in ("a", "b") for _ in range(5)]
            verdict = prove_of(stored(job, bodies))["pairs"][0]["verdict"]
            called += verdict in ("likely_real", "far_outside_scatter")
        self.assertLessEqual(abs(called / tries - 0.05), 0.045)


class Predicted(unittest.TestCase):
    def test_the_middle_of_the_band_is_near_the_models_own_stop(self) -> None:
        job = demo_job()
        for name, push in (("as found", 500.0), ("plan A", 340.0)):
            seen = predicted(job, name, push, 500.0, 80.0)
            assert seen is not None
            subject = Subject(Asked({"setup": job.setup(name).model_dump(exclude_none=True)}))
            decel = min(subject.decel_at(subject.path.healthy, push), subject.one(subject.path.healthy.event.decel))
            v = 80 / 3.6
            self.assertAlmostEqual(seen["mid_m"] / (v**2 / (2 * decel * 9.80665) + v * 0.15), 1.0, delta=0.04)
            self.assertLess(seen["low_m"], seen["mid_m"])

    def test_every_vehicle_is_predicted_or_says_nothing(self) -> None:
        for job in every_layout():
            document = {
                **job.model_dump(exclude_unset=True),
                "proving": {"sets": [{"name": "x", "setup": job.names[-1]}]},
                "records": [],
            }
            view = prove_of(StoredJob(files.check(Job, document), 0))
            conforms(ProveView, view)
            if job.vehicle.kind == "aircraft":
                self.assertIn("certified", view["cautions"][0])


class Day(unittest.TestCase):
    def test_the_plan_of_the_day_says_how_many_stops_tell(self) -> None:
        view = prove_of(stored(with_sets("a", "b", wanted_m="2 m"), []))
        self.assertEqual(view["plan"]["wanted_from"], "typed")
        self.assertFalse(view["plan"]["scatter_known"])
        each, scatter = view["plan"]["stops_each"] or 0, view["plan"]["scatter_m"]
        self.assertGreater(each, 2)
        # as many stops leave a doubt below the gain; a good deal fewer do not
        self.assertLess(doubt_of_difference(scatter, each), 2.0)
        self.assertGreater(doubt_of_difference(scatter, max(2, each // 3)), 1.2)

    def test_the_valves_next_setting_follows_what_locked(self) -> None:
        own = {"least": 0, "most": 8, "now": 4.5, "unit": "turns"}
        job = with_sets("a", adjuster=own)
        log = [(2, "front"), (3, "none"), (4, "front"), (5.5, "rear"), (4.5, "front")]
        valve = prove_of(stored(job, [stop("a", 40.0, valve=s, locked=w) for s, w in log]))["valve"]
        assert valve is not None
        self.assertEqual((valve["level"], valve["next"], valve["notes"]), ("caution", 3.56, 4))  # 3.56 is the example question's
        self.assertIn("No stop has said", (prove_of(stored(job, []))["valve"] or {"sentence": ""})["sentence"])

    def test_where_no_setting_is_safe_enough_there_is_no_next_one(self) -> None:
        """The rear locks first three times at the setting that gives it least: the page stands and says so, whichever way the knob counts."""
        for more_is, end, now, said in (
            ("rear", 0, 0, "It goes no further forward"), ("front", 8, 8, "It goes no further forward"), ("rear", 0, 2, "Even at 0 turns"),
        ):  # fmt: skip
            job = with_sets("a", adjuster={"least": 0, "most": 8, "now": now, "unit": "turns", "more_is": more_is})
            valve = prove_of(stored(job, [stop("a", 40.0, valve=end, locked="rear")] * 3))["valve"]
            assert valve is not None
            self.assertEqual((valve["level"], valve["next"], valve["next_chance"], valve["notes"]), ("danger", None, None, 3))
            self.assertIn(said, valve["sentence"])

    def test_a_push_of_nothing_tells_nothing_and_the_page_stands(self) -> None:
        sets = with_sets("a", "b")
        noted, left = (
            prove_of(stored(sets, [stop("a", 40.0, **more), stop("a", 41.0, push_n=200)]))
            for more in ({"push_n": 0, "mfdd_g": 0}, {})
        )
        self.assertEqual([s["predicted"] for s in noted["sets"]], [s["predicted"] for s in left["sets"]])
        self.assertEqual(noted["sets"][0]["n"], 2)

    def test_a_setting_in_pressure_is_a_whole_number(self) -> None:
        job = with_sets("a", adjuster={"least": 1000, "most": 4150, "now": 2000, "unit": "kPa"})
        valve = prove_of(
            stored(job, [stop("a", 40.0, valve=s, locked=w) for s, w in ((2000, "front"), (2600, "front"), (3900, "rear"))])
        )["valve"]
        assert valve is not None
        self.assertEqual(valve["next"], round(valve["next"] or 0.1))
        self.assertIn(f"Next: {valve['next']:.0f}", valve["sentence"])


class Foreseen(unittest.TestCase):
    def test_where_no_push_was_read_the_limit_is_assumed_and_said_to_be(self) -> None:
        job = demo_job()
        read, none, limit = (predicted(job, "plan A", push, 500.0, 80.0) for push in (250.0, None, 500.0))
        assert read is not None
        assert none is not None
        assert limit is not None
        self.assertEqual(
            [(p["push_n"], p["assumed"]) for p in (read, none, limit)], [(250.0, False), (500.0, True), (500.0, False)]
        )
        self.assertEqual((none["low_m"], none["mid_m"], none["high_m"]), (limit["low_m"], limit["mid_m"], limit["high_m"]))
        self.assertGreater(read["mid_m"], limit["mid_m"])


class OneControl(unittest.TestCase):
    """A motorcycle's stops with the hand, the foot, and both."""

    def job(self, **more: Any) -> Job:
        setup = files.read_file(files.parse_json(SETUPS[1].read_bytes()))
        assert isinstance(setup, Setup)
        document = files.as_job(setup).model_dump(exclude_unset=True)
        named = [{"name": "hand", "setup": "as found", "pressed": "hand"}, {"name": "foot", "setup": "as found", "pressed": "foot"},
                 {"name": "both", "setup": "as found"}]  # fmt: skip
        return files.check(Job, {**document, "proving": {"nominal_kmh": 60, "sets": named} | more})

    def test_each_is_foreseen_by_its_own_control(self) -> None:
        job = self.job()
        view = prove_of(stored(job, []))
        conforms(ProveView, view)
        self.assertEqual([s["pressed"] for s in view["sets"]], ["hand", "foot", ""])
        self.assertEqual(view["controls"], {name: ["hand", "foot"] for name in job.names})
        seen = {s["name"]: s["predicted"] for s in view["sets"]}
        setup_ = job.setup("as found").model_dump(exclude_none=True)
        for name, path in (("hand", "hand_alone"), ("foot", "foot_alone"), ("both", "together")):
            predicted_ = seen[name]
            assert predicted_ is not None
            own = Subject(Asked({"setup": setup_, "path": path}))
            decel = min(own.decel_at(own.path.healthy, predicted_["push_n"]), own.one(own.path.healthy.event.decel))
            v = 60 / 3.6
            self.assertAlmostEqual(predicted_["mid_m"] / (v**2 / (2 * decel * 9.80665) + v * 0.15), 1.0, delta=0.05, msg=name)
        # what is asked of a hand and of a foot (UN R78, from memory), where no push was read
        self.assertEqual([p["push_n"] for n in ("hand", "foot") if (p := seen[n]) is not None], [200.0, 350.0])
        stated = prove_of(stored(self.job(force_limit_n="150 N"), []))
        self.assertEqual({s["predicted"]["push_n"] for s in stated["sets"] if s["predicted"]}, {150.0})

    def test_what_a_set_teaches_is_of_its_control(self) -> None:
        job = self.job()
        bodies = [{"set": "hand", "speed_kmh": 60, "distance_m": 24.0 + n, "push_n": 120, "locked": "none"} for n in range(5)]
        (taught,) = prove_of(stored(job, bodies))["calibrations"]
        self.assertEqual((taught["of"], taught["setup"]), ("hand", "as found"))
        with_both = self.job(sets=[{"name": "both", "setup": "as found"}])
        (other,) = prove_of(stored(with_both, [{**b, "set": "both"} for b in bodies]))["calibrations"]
        self.assertNotAlmostEqual(taught["rms_before_g"] or 0.0, other["rms_before_g"] or 0.0, places=3)

    def test_a_control_that_the_setup_does_not_have_foresees_nothing(self) -> None:
        self.assertIsNone(predicted(self.job(), "as found", 100.0, 500.0, 60.0, "knee"))
        self.assertEqual(prove_of(stored(demo_job()))["controls"], {})


class Taught(unittest.TestCase):
    def test_taken_over_the_model_meets_the_stops_and_teaches_next_to_nothing_more(self) -> None:
        document = demo_document()
        job = files.check(Job, document)
        every = tuple(Record(n, r.key, r.kind, r.made_at, r.body) for n, r in enumerate(job.records))
        before = next(c for c in prove_of(StoredJob(job, 0, every))["calibrations"] if c["setup"] == "plan A")
        self.assertTrue(before["fits"])
        self.assertLess(before["rms_after_g"] or 0.0, 0.3 * (before["rms_before_g"] or 0.0))
        after_job = files.check(Job, applied(document, before["edits"]))
        after = next(c for c in prove_of(StoredJob(after_job, 0, every))["calibrations"] if c["setup"] == "plan A")
        for factor in after["factors"]:
            self.assertAlmostEqual(factor["value"], 1.0, delta=0.02)
        self.assertEqual(after_job.tolerances["plans.0.systems.0.stations.0.brake.friction.cold"][:2], "0.")

    def test_what_is_taken_over_is_the_factor_of_the_entry_with_its_share_as_doubt(self) -> None:
        document = demo_document()
        document["proving"] = {"nominal_kmh": 80, "sets": [{"name": "a", "setup": "as found"}, {"name": "b", "setup": "plan A"}]}
        document["records"] = []
        job = files.check(Job, document)
        stops = [stop(of, 44.0 + n, push_n=700 - 40 * n, locked="none") for of in "ab" for n in range(3)]
        stops += [stop(of, 38.0 + n, push_n=800, locked="front") for of in "ab" for n in range(3)]
        seen: set[tuple[str, str]] = set()
        for told in prove_of(stored(job, stops))["calibrations"]:
            factors = {f["name"]: f for f in told["factors"]}
            seen |= {(told["setup"], name) for name, f in factors.items() if f["told"]}
            sets = {edit["path"]: edit["value"] for edit in told["edits"]}
            root = {"as found": "as_found", "plan A": "plans.0"}[told["setup"]]
            own = job.setup(told["setup"])
            cold = {f"{root}.systems.0.stations.{n}.brake.friction.cold" for n in (0, 1)}
            paths = dict.fromkeys(cold, "friction") | {f"{root}.systems.0.control.efficiency": "efficiency"}
            if told["setup"] == "as found":  # a plan's grip is a figure of its own; its doubt is the road's
                paths |= {f"vehicle.grip_{axle}": "grip" for axle in ("front", "rear")}
            else:
                grip = factors["grip"]["value"] * float(own.vehicle.grip_front or 0)
                self.assertAlmostEqual(sets[f"/{root}/vehicle/grip_front".replace(".", "/")], grip, delta=5e-4)
            paths = {path: name for path, name in paths.items() if factors[name]["told"]}
            for path, name in paths.items():
                factor, value = factors[name], sets["/" + path.replace(".", "/")]
                if name == "grip":
                    self.assertAlmostEqual(value, factor["value"] * float(own.vehicle.grip_front or 0), delta=5e-4)
                half = (factor["high"] - factor["low"]) / 2 * value / factor["value"]
                self.assertAlmostEqual(float(sets[f"/tolerances/{path}"]), half, delta=6e-4, msg=path)
            self.assertEqual(len(told["edits"]), 2 * len(paths) + (0 if told["setup"] == "as found" else 2))
        self.assertLessEqual({("as found", "grip"), ("as found", "friction"), ("plan A", "grip"), ("plan A", "friction")}, seen)

    def test_too_few_readings_and_simulated_ones_teach_nothing(self) -> None:
        job = with_sets("a")
        self.assertEqual(prove_of(stored(job, [stop("a", 36.0, push_n=340)]))["calibrations"], [])
        self.assertEqual(prove_of(stored(job, [stop("a", 36.0, push_n=340, simulated=True)] * 4))["calibrations"], [])
        self.assertEqual(len(prove_of(stored(job, [stop("a", 36.0 + n, push_n=340) for n in range(4)]))["calibrations"]), 1)

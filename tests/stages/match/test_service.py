"""A search through whole parts: every kept setup alone gives the same, every rejected one breaks what it is said to break."""

import itertools
import re
import unittest
from typing import Any

import numpy as np
from kobrix.core.errors import BadEntry, BadFile, Impossible, NotFound
from kobrix.core.rules.limits import LEVELS
from kobrix.core.search.pareto import LIMITS
from kobrix.demo import SETUPS
from kobrix.evaluate.solve import Answer, wanted_stop
from kobrix.evaluate.verdicts import nominal
from kobrix.fileformat import files
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.stages.match.alone import alone
from kobrix.stages.match.choices import choices_of
from kobrix.stages.match.parts import brake_of, brake_words, common_parts, price_of
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import Run, search
from kobrix.stages.match.space import edited, space_of

from tests.cases import demo_document, demo_job

PINS = {"least_mm": "42 mm", "most_mm": "60 mm", "step_mm": "6 mm"}
WHOLE: dict[str, Any] = {
    "setup": "plan A", "pins": PINS, "bores": {"sizes_mm": ["0.70 in", "13/16 in", "1 in"], "price": 104},
    "front": {"calipers": ["own", "four-piston, 36 mm"], "pads": ["own", "pads with more bite"]},
    "rear": {"calipers": ["own", "floating, 38 mm", "four-piston, 38.1 mm"]},
    "valve": {"least_kpa": "1.4 MPa", "most_kpa": "4.4 MPa", "step_kpa": "1 MPa", "price": 60},
}  # fmt: skip


def searched(job: Job, ask: Search) -> Any:
    """What a search finds, to be looked into."""
    return search(job, ask)


def asked(**more: Any) -> Search:
    """The small search, with `more` in it."""
    return files.check(Search, {**WHOLE, **more})


class EveryCombination(unittest.TestCase):
    """All of a small grid against each setup made by its own edits and solved from the file, as a person would."""

    job: Job
    run_: Run

    @classmethod
    def setUpClass(cls) -> None:
        cls.job = demo_job()
        cls.run_ = Run(cls.job, asked(limits={"price": 400}))
        while cls.run_.step():
            pass

    def alone(self, edits: Any) -> tuple[Answer, dict[str, bool], float, float, float]:
        """A setup by its edits: which limits it breaks, its push and travel at the stop, and what lost circuits leave."""
        answer = Answer(edited(self.job.setup("plan A"), edits))
        assert answer.solved is not None
        bounds, path = self.run_.space.bounds, answer.solved.main
        place, known = path.healthy.reach(bounds.decel)
        push = float(np.max(path.healthy.push_at(place)))
        travel = float(np.max(path.healthy.pulls[0].pedal.pad_at(place)))
        said = {j.id: j for j in nominal(answer, None, None)}
        order = said["lock_order"]
        front, rear = (path.healthy.road.locks[axle][:, 0] for axle in ("front", "rear"))
        close = bool(((rear < front + 0.03) & np.isfinite(rear)).any())
        slippery = order.kind == "rear_first_slippery" and not close
        lost = [(said[n].value or 0.0) < (bounds.left or 0.0) for n in ("lost_front", "lost_rear")]
        broken = {
            "no_stop": not bool(known.all()), "rear_first": order.kind in ("rear_first", "rear_lifts") or close,
            "early_lock": bool((path.lock_decel < bounds.first_lock).any()), "effort": push > bounds.effort,
            "travel": travel > bounds.travel_share * self.run_.space.room, "slippery": slippery,
            "sharing": any(j.rule.startswith("distribution") and j.kind == "broken" for j in said.values()), "lost_circuit": any(lost),
        }  # fmt: skip
        assert path.left is not None
        circuits = [n for n, name in enumerate(answer.solved.names) if name in ("lost_front", "lost_rear")]
        return answer, broken, push, travel, float(path.left.best[:, circuits].min())

    def test_each_alone_breaks_what_it_is_said_to_break_and_has_the_same_figures(self) -> None:
        run, counts = self.run_, dict.fromkeys(LIMITS, 0)
        met = run._met()
        numbers = {(int(s), int(f), int(b)): n for n, (s, f, b) in enumerate(zip(met.spread, met.foot, met.behind, strict=True))}
        seen = 0
        for s, spread in enumerate(run.space.spreads):
            before, behind = int(np.prod(spread.block.before)), int(np.prod(spread.block.behind))
            for f, d in itertools.product(range(before), range(behind)):
                chosen = spread.chosen(f, d)
                edits = [edit for choice in chosen.values() for edit in choice.edits]
                _, broken, push, travel, left = self.alone(edits)
                price = sum(c.price for c in chosen.values())
                broken["price"] = price > 400
                first = next((name for name in LIMITS if broken.get(name)), None)
                self.assertEqual(first is None, (s, f, d) in numbers, (chosen, broken))
                if first is not None:
                    counts[first] += 1
                    continue
                seen += 1
                own = met.figures[:, numbers[s, f, d]]
                self.assertAlmostEqual(own[0] / push, 1.0, places=9)
                self.assertAlmostEqual(own[2] / travel, 1.0, places=9)
                self.assertAlmostEqual(own[4], price)
                self.assertAlmostEqual(met.left[numbers[s, f, d]], left, delta=1e-7)
        self.assertGreater(seen, 3)
        told = {fall["id"]: fall["count"] for fall in run.progress()["fall"]}
        self.assertEqual(told, {name: n for name, n in counts.items() if n})

    def test_the_front_is_brute_force_s(self) -> None:
        met = self.run_._met()
        costs = self.run_._costs(met)
        beaten = [any((o <= own).all() and (o < own).any() for o in costs) for own in costs]
        found = dict[str, Any](self.run_.finish())
        self.assertEqual(found["not_beaten"], beaten.count(False))
        self.assertEqual(sum(not row["beaten"] for row in found["kept"]), beaten.count(False))

    def test_each_thing_that_may_change_counts_its_choices(self) -> None:
        found = asked(booster_gone=True).sizes(twin=False)
        wanted = {"pin places": 4, "bores": 3, "front brakes": 4, "rear brakes": 3, "valves": 5, "boosters": 2}
        self.assertEqual(found, wanted)
        self.assertEqual(asked().sizes(twin=True)["bores"], 9)
        self.assertEqual(Search(setup="plan A").sizes(twin=False), {})

    def test_counts_squares_and_words_agree(self) -> None:
        found = self.run_.progress()
        self.assertEqual(found["total"], found["done"])
        self.assertEqual(sum(f["count"] for f in found["fall"]) + found["meet"], found["total"])
        self.assertEqual(sum(sum(s["count"]) for s in found["squares"]) + found["outside"], found["total"])
        for fall in found["fall"]:
            self.assertLessEqual(fall["only"], fall["count"])
            self.assertTrue(fall["words"])

    def test_no_danger_is_kept(self) -> None:
        found = dict[str, Any](self.run_.finish())
        for row in found["kept"]:
            answer = Answer(edited(self.job.setup("plan A"), row["edits"]))
            worst = min((j.level for j in nominal(answer, None, None)), key=LEVELS.index)
            self.assertNotEqual(worst, "danger", row["words"])


class Asking(unittest.TestCase):
    def setUp(self) -> None:
        self.job = demo_job()

    def test_the_same_seed_the_same_result_and_another_draws_others(self) -> None:
        first, again, other = (searched(self.job, asked(seed=s)) for s in (1, 1, 2))
        self.assertEqual(first, again)
        ranges = [[r["doubt"]["push_n"] for r in f["kept"] if r["doubt"]] for f in (first, other)]
        self.assertNotEqual(*ranges)
        joint = [[r["joint_chance"] for r in f["kept"]] for f in (first, other)]
        self.assertNotEqual(*joint)

    def test_every_reason_is_true(self) -> None:
        found = searched(self.job, asked())
        kept = [r for r in found["kept"] if r["reasons"]]  # those worth buying: the surest
        self.assertEqual([r["sure"] for r in kept], [(r["joint_chance"] or 0.0) >= 0.9 for r in kept])
        told = {reason: row for row in found["kept"] for reason in row["reasons"]}
        lightest = next(r for reason, r in told.items() if reason.startswith("the lightest push"))
        self.assertEqual(lightest["push_n"], min(r["push_n"] for r in kept))
        shortest = next(r for reason, r in told.items() if reason.startswith("the shortest travel"))
        self.assertEqual(shortest["travel_mm"], min(r["travel_mm"] for r in kept))
        same = next(r for reason, r in told.items() if reason.startswith("the pin stays"))
        self.assertEqual(same["words"]["pin"], "48 mm")
        priced = [r["price"] for r in kept if r["price"] is not None]
        cheap = next(r for reason, r in told.items() if reason in ("nothing to buy",) or reason.startswith("the cheapest"))
        self.assertEqual(cheap["price"], min(priced))

    def test_doubt_holds_the_figure_and_says_what_to_measure(self) -> None:
        row = next(r for r in searched(self.job, asked())["kept"] if r["doubt"])
        for key in ("push_n", "travel_mm"):
            spread = row["doubt"][key]
            self.assertLess(spread["p5"], spread["p50"])
            self.assertLess(spread["p50"], spread["p95"])
            self.assertTrue(spread["p5"] < row[key] < spread["p95"])
        self.assertTrue(all(0.0 <= c <= 1.0 for c in row["doubt"]["chances"].values()))
        self.assertTrue(row["doubt"]["measure"][0]["label"])

    def test_a_limit_let_out_lets_in_what_was_said(self) -> None:
        narrow = asked(limits={"effort_n": 380})
        found = searched(self.job, narrow)
        more = next(m for m in found["more"] if m["id"] == "effort")
        self.assertEqual(more["limits"], {"effort_n": 418})
        wider = searched(self.job, asked(limits=more["limits"]))
        self.assertEqual(wider["meet"], found["meet"] + more["count"])

    def test_what_is_wanted_comes_first(self) -> None:
        found = searched(self.job, asked(wanted={"effort_n": "350 N"}))
        nearest = found["kept"][0]
        self.assertIn("nearest to what is wanted", nearest["reasons"][0])
        self.assertEqual(abs(nearest["push_n"] - 350), min(abs(r["push_n"] - 350) for r in found["kept"] if r["reasons"]))

    def test_too_many_are_refused_with_the_count_and_a_way_out(self) -> None:
        wide = asked(
            pins={"least_mm": 20, "most_mm": 100, "step_mm": 0.01}, valve={"least_kpa": 1000, "most_kpa": 4000, "step_kpa": 10}
        )
        with self.assertRaises(BadEntry) as refused:
            space_of(self.job, wide, 0.8)
        count = 8001 * 3 * 4 * 3 * 302
        self.assertIn(f"{count:,} combinations", str(refused.exception))
        self.assertIn("at most 5,000,000", str(refused.exception))
        fits = int(re.search(r"(\d+) pin places instead of 8,001", str(refused.exception))[1])  # type: ignore[index]
        self.assertLessEqual(fits * count // 8001, 5_000_000)

    def test_nonsense_is_refused_in_words(self) -> None:
        cases: list[tuple[dict[str, Any], type[Exception], str]] = [
            ({"rear": {"calipers": ["no such thing"]}}, NotFound, "rear caliper"),
            ({"pins": {"least_mm": 40, "most_mm": "400 mm", "step_mm": 1}}, BadEntry, "between pivot and pad"),
            ({"bar": {"least_share": 0.4, "most_share": 0.6}}, BadEntry, "balance bar"),
            ({"setup": "plan Z"}, NotFound, "plan Z"),
        ]  # fmt: skip
        for more, kind, words in cases:
            with self.subTest(words), self.assertRaisesRegex(kind, words):
                space_of(self.job, asked(**more), 0.8)
        bads: tuple[dict[str, Any], ...] = ({"limits": {"effort_n": 900}}, {"limits": {"travel_share": 0.95}}, {"pins": {"least_mm": 50, "most_mm": 40}},
                    {"bores": {"sizes_mm": []}}, {"seed": -1}, {"unknown": 1})  # fmt: skip
        for bad in bads:
            with self.subTest(bad), self.assertRaises(BadFile):
                asked(**bad)

    def test_gaps_say_why(self) -> None:
        document = demo_document()
        del document["plans"][0]["systems"][0]["control"]["available_travel_mm"]
        with self.assertRaisesRegex(Impossible, "Pedal: travel to the stop"):
            space_of(files.check(Job, document), asked(), 0.8)
        choices: Any = choices_of(files.check(Job, document), "plan A")
        self.assertIn("Pedal: travel to the stop", choices["reason"])

    def test_a_near_miss_tells_the_value_of_its_one_limit_at_which_it_appears(self) -> None:
        cases: tuple[dict[str, Any], ...] = ({"effort_n": 130}, {"travel_share": 0.35}, {"first_lock_g": 1.2})
        opened = 0
        for limits in cases:
            found = searched(self.job, asked(limits=limits))
            self.assertEqual((found["meet"], found["kept"]), (0, []), limits)
            for miss in found["misses"]:
                if miss["limits"] is None:
                    continue
                self.assertEqual(
                    miss["limit"],
                    {"effort_n": "effort", "travel_share": "travel", "first_lock_g": "early_lock"}[next(iter(limits))],
                )
                figure, over = (float(n) for n in re.findall(r"[0-9.]+", miss["said"]))
                if miss["limit"] == "effort":  # what is said is so many per cent over the limit
                    self.assertAlmostEqual(figure, 130 * (1 + over / 100), delta=1.5)
                if miss["limit"] == "travel":
                    self.assertAlmostEqual(figure, 0.35 * 150 * (1 + over / 100), delta=1.0)  # mm, of a room of 150
                if miss["limit"] == "early_lock":
                    self.assertAlmostEqual(figure, 1.2 * (1 - over / 100), delta=0.02)
                [(name, value)] = miss["limits"].items()
                again = searched(self.job, asked(limits={**limits, name: value}))
                if name in limits:
                    self.assertGreater(again["meet"], 0, (limits, miss["said"]))
                    opened += 1
                    tighter = {
                        "effort_n": value - 1.5,
                        "travel_share": value - 0.0015,
                        "first_lock_g": value + 0.0015,
                        "price": value - 1.5,
                    }
                    if miss is found["misses"][0]:
                        self.assertEqual(
                            searched(self.job, asked(limits={**limits, name: tighter[name]}))["meet"], 0, miss["said"]
                        )
        self.assertGreater(opened, 3)

    def test_a_bore_named_twice_is_one_and_the_fitted_one_costs_nothing(self) -> None:
        ask = asked(
            bores={"sizes_mm": ["13/16 in", "20.6 mm", 20.64], "price": 104}, pins=None, front=None, rear=None, valve=None
        )
        space = space_of(self.job, ask, 0.8)
        self.assertEqual(space.count, 1)
        self.assertEqual(space.spreads[0].cylinders[0].price, 0.0)


class OtherVehicles(unittest.TestCase):
    def test_a_drum_is_replaced_whole_and_nothing_of_it_fits_a_caliper(self) -> None:
        job = demo_job()
        ask = files.check(Search, {
            "setup": "as found", "limits": {"effort_n": 500},
            "rear": {"calipers": ["own", "floating, 38 mm"], "rotors": ["own", "rotor 258 mm, solid"], "pads": ["own", "pads, edge letters FE"]},
        })  # fmt: skip
        space = space_of(job, ask, 0.8)
        self.assertEqual((space.count, space.unfit, len(space.spreads)), (2, 6, 2))

    def test_the_booster_can_go(self) -> None:
        document = demo_document()
        document["plans"][0]["systems"][0]["booster"] = {
            "kind": "vacuum", "nominal_diaphragms_mm": ["8 in"], "gain": 3.2, "cut_in_n": 60, "jump_in_n": 120,
        }  # fmt: skip
        ask = asked(front=None, rear=None, valve=None, booster_gone=True)
        found = searched(files.check(Job, document), ask)
        self.assertEqual(found["total"], 4 * 3 * 2)
        self.assertEqual({r["words"]["booster"] for r in found["kept"]} - {"vacuum", "none"}, set())

    def test_a_bar_is_set_and_each_cylinder_has_its_bore(self) -> None:
        path = next(p for p in SETUPS if "hill-climb" in p.name)
        value = files.read_file(files.parse_json(path.read_bytes()))
        job = files.as_job(value) if not isinstance(value, Job) else value
        ask = files.check(Search, {
            "setup": "plan A", "bores": {"sizes_mm": ["5/8 in", "0.70 in", "3/4 in"]},
            "bar": {"least_share": 0.4, "most_share": 0.7, "step_share": 0.1},
        })  # fmt: skip
        found = searched(job, ask)
        self.assertEqual(found["total"], 9 * 4)
        decel = wanted_stop([Answer(job.setup(n)) for n in ("as found", "plan A")])
        for row in found["kept"][:3]:
            answer = Answer(edited(job.setup("plan A"), row["edits"]))
            assert answer.solved is not None and decel is not None
            path_ = answer.solved.main.healthy
            self.assertAlmostEqual(float(np.max(path_.push_at(path_.reach(decel)[0]))) / row["push_n"], 1.0, places=9)


class Shelf(unittest.TestCase):
    def test_common_parts_have_no_price_and_read_as_their_names_say(self) -> None:
        for part in common_parts():
            self.assertIsNone(part.price)
            self.assertTrue(np.isnan(price_of(part)))
        self.assertEqual(price_of(None), 0.0)

    def test_a_brake_of_parts_keeps_what_no_part_brings(self) -> None:
        own = demo_document()["plans"][0]["systems"][0]["stations"][1]["brake"]
        caliper = next(p for p in demo_job().shelf if p.name == "floating, 38 mm")
        brake = brake_of(own, caliper, None, None)
        self.assertEqual((brake["pistons_mm"], brake["rotor_diameter_mm"]), (["38 mm"], "258 mm"))
        self.assertEqual(brake_words(brake), "1 × 38 on 258")
        self.assertEqual(brake_words({"kind": "drum", "drum_diameter_mm": 203}), "drum 203")
        self.assertIs(brake_of(own, None, None, None), own)

    def test_a_part_needs_its_sizes_and_a_name_of_its_own(self) -> None:
        document = demo_document()
        for part, words in (
            ({"name": "a", "kind": "rotor"}, "rotor_diameter_mm"), ({"name": "own", "kind": "pad", "friction": {"cold": 0.4}}, "'own'"),
            (document["shelf"][0], "twice"),
        ):  # fmt: skip
            with self.subTest(words), self.assertRaisesRegex(BadFile, words):
                files.check(Job, {**document, "shelf": [*document["shelf"], part]})


class OneControlAtATime(unittest.TestCase):
    """Several controls: the one that is searched alone, its edits and entries below the whole vehicle."""

    def job(self, name: str) -> Job:
        [path] = [p for p in SETUPS if p.stem.startswith(name)]
        setup = files.read_file(files.parse_json(path.read_bytes()))
        assert isinstance(setup, Setup)
        return files.as_job(setup)

    def test_every_control_of_every_vehicle_runs_to_the_end(self) -> None:
        for name, controls in (
            ("motorcycle", ["hand", "foot"]),
            ("light-aircraft", ["left", "right"]),
            ("trials-car", ["pedal"]),
        ):
            job = self.job(name)
            for control in controls:
                with self.subTest(name, control=control):
                    choices: Any = choices_of(job, AS_FOUND, control)
                    self.assertEqual((choices["controls"], choices["reason"]), (controls, None))
                    found = searched(job, choices["ask"])
                    self.assertEqual((found["control"], found["done"]), (control, found["total"]))
                    self.assertNotIn("rear_first", [f["id"] for f in found["fall"]])

    def test_what_is_kept_is_the_control_changed_in_the_whole_vehicle(self) -> None:
        job = self.job("motorcycle")
        found = searched(job, files.check(Search, {"control": "foot", "bores": {"sizes_mm": ["1/2 in", "9/16 in", "5/8 in"]}}))
        row = next(r for r in found["kept"] if r["edits"])
        self.assertTrue(all(e["path"].startswith("/systems/1/") for e in row["edits"]))
        self.assertTrue(all(m["path"].split(".")[2] == "1" for m in row["doubt"]["measure"] if ".systems." in m["path"]))
        whole = Answer(edited(job.setup(AS_FOUND), row["edits"]))
        assert whole.solved is not None
        path = whole.solved.paths["foot_alone"]
        place, known = path.healthy.reach(found["decel_g"])
        self.assertTrue(known.all())
        self.assertAlmostEqual(float(np.max(path.healthy.push_at(place))), row["push_n"], delta=1e-6 * row["push_n"])

    def test_what_is_said_of_its_entries_goes_with_it(self) -> None:
        document = self.job("motorcycle").model_dump(mode="json", exclude_unset=True)
        hand, foot = (f"as_found.systems.{i}.cylinder.bore_mm" for i in (0, 1))
        document |= {"exact": [hand], "tolerances": {foot: "± 0.1 mm", "vehicle.wheelbase_mm": "± 20 mm"}}
        whole = files.check(Job, document)
        of_foot = alone(whole, AS_FOUND, "foot")
        self.assertEqual(of_foot.job.exact, [])
        self.assertEqual(
            of_foot.job.tolerances, {"as_found.systems.0.cylinder.bore_mm": "± 0.1 mm", "vehicle.wheelbase_mm": "± 20 mm"}
        )
        self.assertEqual(of_foot.path("as_found.systems.0.cylinder.bore_mm"), foot)
        self.assertEqual(alone(whole, AS_FOUND, "hand").job.exact, [hand])
        with self.assertRaisesRegex(NotFound, "hand, foot"):
            alone(whole, AS_FOUND, "knee")


if __name__ == "__main__":
    unittest.main()

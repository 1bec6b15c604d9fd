"""Sets of stops against each other, held against statistics from outside, and each branch of what a set is said to be limited by."""

import math
import random
import unittest
from collections.abc import Sequence
from typing import Any

import numpy as np
from kobrix.core.constants import KMH
from kobrix.core.prove import compare
from kobrix.core.prove.compare import Stop, StopSet, Told
from scipy import stats
from statsmodels.stats.power import TTestIndPower

NOMINAL = 80 * KMH
# Figures by name, of any kind.
set_figures: Any = compare.set_figures
pair_figures: Any = compare.pair_figures


def a_set(ways: list[float], name: str = "one", changed: tuple[str, ...] = (), **each: Any) -> Told:
    return compare.told(StopSet(name, [Stop(way, NOMINAL, **each) for way in ways], list(changed)), NOMINAL)[0]


def figures(ways: list[float], lock: float | None = None, limit: float = 500.0, **each: Any) -> dict[str, Any]:
    own = StopSet("one", [Stop(way, NOMINAL, **each) for way in ways], [], lock)
    found: dict[str, Any] = set_figures(*compare.told(own, NOMINAL), limit)
    return found


class Power(unittest.TestCase):
    def test_it_is_that_of_the_noncentral_t(self) -> None:
        """statsmodels solves the same test by its own noncentral t."""
        outside = TTestIndPower()
        for effect in (0.3, 0.8, 1.5, 2.5):
            for n in (2, 3, 5, 10, 40):
                expected = outside.power(effect, n, 0.05, alternative="two-sided")
                if math.isfinite(expected):
                    self.assertAlmostEqual(compare.power(effect, n), expected, places=7, msg=(effect, n))

    def test_without_an_effect_it_is_the_level_of_the_test(self) -> None:
        for n in (2, 3, 10, 1000):
            self.assertAlmostEqual(compare.power(0.0, n), 0.05, places=9)

    def test_it_grows_with_the_effect_and_with_the_stops_and_ends_at_one(self) -> None:
        for n in (2, 5, 20):
            row = [compare.power(e, n) for e in np.linspace(0.0, 6.0, 25)]
            self.assertEqual(row, sorted(row))
        column = [compare.power(0.7, n) for n in range(2, 60)]
        self.assertEqual(column, sorted(column))
        self.assertAlmostEqual(compare.power(40.0, 30), 1.0, places=9)

    def test_the_least_number_of_stops_is_the_least(self) -> None:
        for effect in (0.05, 0.2, 0.55, 1.0, 1.7, 3.0, 9.0):
            n = compare.stops_each(effect)
            assert n is not None
            self.assertGreaterEqual(compare.power(effect, n), 0.8)
            self.assertTrue(n == 2 or compare.power(effect, n - 1) < 0.8, (effect, n))
        # statsmodels: 25.52 of each for 0.8 standard deviations
        self.assertEqual(compare.stops_each(0.8), math.ceil(TTestIndPower().solve_power(0.8, None, 0.05, 0.8)))

    def test_what_no_number_shows_has_none(self) -> None:
        for effect in (0.0, -1.0, 0.01):
            self.assertIsNone(compare.stops_each(effect))


class BestOfAFew(unittest.TestCase):
    def test_the_expected_best_of_normal_readings(self) -> None:
        # Order statistics of the standard normal law: 2: 1/√π, 3: 3/(2√π), 5: 1.16296, 10: 1.53875 (published tables)
        for n, expected in ((2, 1 / math.sqrt(math.pi)), (3, 1.5 / math.sqrt(math.pi)), (5, 1.16296), (10, 1.53875)):
            self.assertAlmostEqual(compare.best_bias(n), expected, places=5)

    def test_it_is_what_a_draw_gives(self) -> None:
        draw = np.random.default_rng(3).normal(size=(200_000, 4))
        self.assertAlmostEqual(compare.best_bias(4), float(draw.max(axis=1).mean()), delta=0.01)

    def test_one_reading_has_no_best(self) -> None:
        self.assertEqual([compare.best_bias(n) for n in (0, 1)], [0.0, 0.0])
        alone = figures([40.0])
        self.assertEqual(alone["n"], 1)
        self.assertEqual([alone[k] for k in ("sd_m", "se_m", "dof", "low_m", "best_of_bias_m", "best_expected_m")], [None] * 6)

    def test_mean_less_bias_is_what_the_best_was_to_be(self) -> None:
        found = figures([40.0, 42.0, 41.0, 44.0])
        self.assertEqual(found["best_m"], 40.0)
        self.assertAlmostEqual(found["best_of_bias_m"], compare.best_bias(4) * float(np.std([40, 42, 41, 44], ddof=1)))
        self.assertAlmostEqual(found["best_expected_m"], found["mean_m"] - found["best_of_bias_m"])


class OneSet(unittest.TestCase):
    def test_mean_and_interval_are_those_of_scipy(self) -> None:
        ways = [40.1, 42.6, 41.2, 44.0, 39.7]
        found = figures(ways)
        low, high = stats.t.interval(0.95, 4, loc=np.mean(ways), scale=stats.sem(ways))
        self.assertAlmostEqual(found["low_m"], low)
        self.assertAlmostEqual(found["high_m"], high)
        self.assertFalse(found["both_ways"])
        self.assertNotIn("out_minus_back_m", found)

    def test_stops_off_the_speed_and_those_struck_are_left_out_in_that_order_of_reasons(self) -> None:
        edge = 1.10 * NOMINAL
        stops = [Stop(40, NOMINAL), Stop(40, NOMINAL, struck=True), Stop(40, edge), Stop(40, edge * 1.0001),
                 Stop(40, 0.9 * NOMINAL), Stop(40, 0.8999 * NOMINAL, struck=True)]  # fmt: skip
        known, left = compare.told(StopSet("one", stops, []), NOMINAL)
        self.assertEqual(left, [{"stop": 1, "why": "struck"}, {"stop": 3, "why": "speed_off"}, {"stop": 5, "why": "struck"}])
        np.testing.assert_allclose(known.ways, [40, 40 / 1.21, 40 / 0.81])

    def test_a_set_whose_stops_are_all_left_out_has_no_figures(self) -> None:
        known, left = compare.told(StopSet("one", [Stop(40, NOMINAL, struck=True)], []), NOMINAL)
        found = set_figures(known, left, 500.0)
        self.assertEqual((found["n"], found["mean_m"], found["best_m"], found["limited_by"]), (0, None, None, "cannot_tell"))
        self.assertEqual((found["locked_share"], found["mean_push_n"], found["mean_mfdd_g"]), (None, None, None))

    def test_driven_both_ways_the_road_s_part_is_told(self) -> None:
        stops = [Stop(w, NOMINAL, direction=d) for w, d in ((40.0, "out"), (44.0, "back"), (41.0, "out"), (46.0, "back"))]
        found = set_figures(*compare.told(StopSet("one", stops, []), NOMINAL), 500.0)
        self.assertTrue(found["both_ways"])
        self.assertAlmostEqual(found["out_minus_back_m"], 40.5 - 45.0)
        self.assertEqual(found["dof"], 2)


class LimitedBy(unittest.TestCase):
    def said(
        self, locked: Sequence[str | None], push: float | None, mfdd: float | None, lock: float | None
    ) -> tuple[str, str | None]:
        stops = [Stop(40.0, NOMINAL, locked=one, push=push, mfdd_g=mfdd) for one in locked]
        found = set_figures(*compare.told(StopSet("one", stops, [], lock), NOMINAL), 500.0)
        return found["limited_by"], found["limited_why"]

    def test_the_first_that_holds(self) -> None:
        for locked, push, mfdd, lock, expected in (
            (["front", "none"], 300.0, None, None, ("tyres", "locked")),  # half of them
            (["front", "none", "none"], 300.0, None, None, ("push", "room_to_press")),
            (["none", "none", "none"], 450.0, None, None, ("brakes", "push_at_limit")),
            (["none", "none", "none"], 449.0, None, None, ("push", "room_to_press")),
            (["none", "none"], 450.0, None, None, ("cannot_tell", None)),  # too few notes
            (["none", "none", None], 450.0, None, None, ("cannot_tell", None)),
            (["none", "none", "none"], None, None, None, ("cannot_tell", None)),
            (["none", "none", "none"], 300.0, 0.76, 0.8, ("tyres", "at_predicted_lock")),
            (["none", "none", "none"], 300.0, 0.759, 0.8, ("push", "room_to_press")),
            ([None, None], None, 0.9, None, ("cannot_tell", None)),
        ):
            if expected == ("push", "room_to_press") and "front" in locked:
                expected = ("cannot_tell", None)  # one locked: not "none of them"
            self.assertEqual(self.said(locked, push, mfdd, lock), expected, (locked, push, mfdd, lock))

    def test_who_locked_is_counted(self) -> None:
        stops = [Stop(40.0, NOMINAL, locked=one) for one in ("front", "rear", "both", "none", None)]
        found = set_figures(*compare.told(StopSet("one", stops, []), NOMINAL), 500.0)
        self.assertEqual((found["locked_share"], found["rear_locked"]), (0.75, 2))


class Pairs(unittest.TestCase):
    def test_welch_s_test_is_scipy_s_for_random_sets(self) -> None:
        draw = random.Random(5)
        for _ in range(40):
            one = [draw.gauss(42, 1.5) for _ in range(draw.randint(2, 8))]
            two = [draw.gauss(40, 0.7) for _ in range(draw.randint(2, 8))]
            found = pair_figures(a_set(one), a_set(two), [], None)
            known = stats.ttest_ind(one, two, equal_var=False)
            interval = known.confidence_interval(0.95)
            for key, expected in (("p", known.pvalue), ("dof", known.df), ("low_m", interval.low), ("high_m", interval.high)):
                self.assertAlmostEqual(found[key], expected, places=9, msg=key)
            p = known.pvalue
            verdict = "far_outside_scatter" if p < 0.001 else "likely_real" if p < 0.05 else "inside_scatter"
            self.assertEqual(found["verdict"], verdict)

    def test_too_few_and_no_scatter_leave_the_rest_unknown(self) -> None:
        few = pair_figures(a_set([42.0], push=300.0), a_set([40.0, 41.0], push=331.0), [], None)
        self.assertEqual((few["verdict"], few["best_claim_m"], few["push_differs"]), ("too_few", 2.0, True))
        self.assertTrue(all(few[k] is None for k in ("shorter_m", "se_m", "p", "stops_each", "more_from", "cause")))
        none = pair_figures(a_set([42.0, 42.0]), a_set([40.0, 40.0]), [], None)
        self.assertEqual((none["verdict"], none["shorter_m"], none["p"]), ("no_scatter", 2.0, None))
        empty = pair_figures(a_set([]), a_set([40.0, 41.0]), [], None)
        self.assertEqual((empty["verdict"], empty["best_claim_m"]), ("too_few", None))

    def test_a_tenth_of_the_push_is_the_edge(self) -> None:
        for push, differs in ((330.0, False), (330.1, True), (270.0, False), (269.9, True)):
            pair = pair_figures(a_set([42.0, 41.0], push=300.0), a_set([40.0, 41.0], push=push), [], None)
            self.assertEqual(pair["push_differs"], differs, push)
        unknown = pair_figures(a_set([42.0, 41.0]), a_set([40.0, 41.0], push=300.0), [], None)
        self.assertIsNone(unknown["push_differs"])

    def test_how_many_more_would_tell(self) -> None:
        one, two = a_set([42.0, 43.0, 41.0]), a_set([41.5, 42.5, 40.5, 41.5])
        for wanted in (None, 0.5, 2.0):
            found = pair_figures(one, two, [], wanted)
            assert one.sample is not None
            assert two.sample is not None
            sd = math.sqrt(((one.sample.sd or 0) ** 2 + (two.sample.sd or 0) ** 2) / 2)
            each = compare.stops_each((0.5 if wanted is None else wanted) / sd)
            assert each is not None
            self.assertEqual(
                (found["stops_each"], found["more_from"], found["more_to"]), (each, max(0, each - 3), max(0, each - 4))
            )

    def test_the_cause_is_what_was_changed_between_and_only_of_what_is_real(self) -> None:
        far, near = a_set([50.0, 50.1, 49.9]), a_set([40.0, 40.1, 39.9])
        for changed, expected in (
            ([], None), ([["tyres"]], "tyres"), ([["tyres"], ["tyres"]], "tyres"), ([["tyres", "pads"]], "several"),
            ([["tyres"], ["pads"]], "several"), ([[], ["pads"]], "pads"),
        ):  # fmt: skip
            between = [StopSet("x", [], list(names)) for names in changed]
            self.assertEqual(pair_figures(far, near, between, None)["cause"], expected)
        same = pair_figures(a_set([42.0, 41.0, 43.0]), a_set([42.1, 41.0, 43.0]), [StopSet("x", [], ["tyres"])], None)
        self.assertEqual((same["verdict"], same["cause"]), ("inside_scatter", None))

    def test_a_plan_of_the_day_foretells_its_interval(self) -> None:
        sets = [a_set([42.0 + d for d in (-1.2, 0.0, 1.2)]), a_set([41.0 + d for d in (-1.2, 0.0, 1.2)])]
        found = pair_figures(sets[0], sets[1], [], None)
        self.assertAlmostEqual(compare.doubt_of_difference(1.2, 3), (found["high_m"] - found["low_m"]) / 2)


if __name__ == "__main__":
    unittest.main()

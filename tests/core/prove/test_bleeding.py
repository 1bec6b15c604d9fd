"""Bleeding: orders by length and by seat, volumes and fillings counted by hand, what pumping and holds tell on both sides of each edge."""

import itertools
import math
import unittest
from typing import Any

from kobrix.core.errors import BadPlace
from kobrix.core.prove import bleeding
from kobrix.core.prove.bleeding import Branch, Hold, Reservoir, Trunk
from kobrix.core.prove.estimates import Estimate

# Figures by name, of any kind.
bleed_order: Any = bleeding.bleed_order
pumped: Any = bleeding.pumped
fluid_warnings: Any = bleeding.fluid_warnings


def car(**lengths: float | None) -> list[Branch]:
    """Four wheels; the cylinder sits on the left."""
    return [
        Branch(f"{axle} {side}", axle, side, 40.0, lengths.get(f"{axle}_{side}"), 10.0)
        for axle, side in itertools.product(("front", "rear"), ("left", "right"))
    ]


class Orders(unittest.TestCase):
    LENGTHS = {"front_left": 600.0, "front_right": 1500.0, "rear_left": 3200.0, "rear_right": 3900.0}

    def named(self, branches: list[Branch], school: str, listed: list[str] | None = None, trunks: Any = None) -> list[str]:
        places = bleeding.order_of(branches, trunks or {}, school, "left", listed or [])
        return [branches[k].name for k in places]

    def test_by_length(self) -> None:
        far = ["rear right", "rear left", "front right", "front left"]
        self.assertEqual(self.named(car(**self.LENGTHS), "furthest_first"), far)
        self.assertEqual(self.named(car(**self.LENGTHS), "nearest_first"), far[::-1])

    def test_without_lengths_by_seat_the_cylinder_s_own_side_last(self) -> None:
        far = ["rear right", "rear left", "front right", "front left"]
        self.assertEqual(self.named(car(), "furthest_first"), far)
        self.assertEqual(self.named(car(), "nearest_first"), far[::-1])
        one_missing = car(**{**self.LENGTHS, "rear_right": None, "front_left": 9000.0})
        self.assertEqual(self.named(one_missing, "furthest_first"), far)

    def test_crosswise_goes_to_the_other_corner(self) -> None:
        self.assertEqual(self.named(car(), "diagonal"), ["rear right", "front left", "rear left", "front right"])

    def test_a_list_is_followed(self) -> None:
        listed = ["front left", "rear right", "front right", "rear left"]
        self.assertEqual(self.named(car(), "list", listed), listed)

    def test_a_shared_line_counts_for_each_of_its_wheels(self) -> None:
        branches = [Branch("a", "rear", "left", 40.0, 500.0, 5.0, trunk="rear"), Branch("b", "front", "left", 40.0, 2000.0, 5.0)]
        self.assertEqual(self.named(branches, "furthest_first", trunks={"rear": Trunk(2500.0, 12.0)}), ["a", "b"])
        self.assertEqual(self.named(branches, "furthest_first", trunks={"rear": Trunk(1000.0, 12.0)}), ["b", "a"])
        self.assertEqual(self.named(branches, "nearest_first", trunks={"rear": Trunk(2500.0, 12.0)}), ["b", "a"])

    def test_equally_far_stay_in_their_order(self) -> None:
        branches = car(**dict.fromkeys(self.LENGTHS, 1000.0))
        for school in ("furthest_first", "nearest_first"):
            self.assertEqual(self.named(branches, school), [b.name for b in branches])


class Volumes(unittest.TestCase):
    def test_a_line_s_volume(self) -> None:
        self.assertAlmostEqual(bleeding.line_volume(1000.0, 3.0), math.pi * 9 / 4)

    def bled(self, reservoir: Reservoir, *branches: Branch, flush: float = 1.0, density: float = 1.0) -> dict[str, Any]:
        trunks = {"rear": Trunk(2500.0, 12.0)}
        found: dict[str, Any] = bleed_order(list(branches), trunks, list(range(len(branches))), flush, reservoir, density)
        return found

    def test_each_screw_has_its_line_and_caliper_and_a_trunk_goes_to_the_first(self) -> None:
        one = Branch("a", "rear", "left", 40.0, 500.0, 5.0, trunk="rear")
        two = Branch("b", "rear", "right", 40.0, 900.0, 7.0, trunk="rear")
        found = self.bled(Reservoir(None, None), one, two, flush=3.0, density=1.05)
        self.assertEqual([row["fluid_cm3"] for row in found["order"]], [3 * (5 + 12 + 40), 3 * (7 + 40)])
        self.assertAlmostEqual(found["total_fluid_cm3"], 312.0)
        self.assertAlmostEqual(found["order"][0]["fluid_g"], 171.0 * 1.05)
        self.assertAlmostEqual(found["total_g"], 312.0 * 1.05)
        self.assertEqual((found["total_strokes"], found["top_ups"]), (None, None))
        self.assertEqual((found["order"][0]["strokes"], found["order"][0]["pushed_cm3"]), (None, 171.0))

    def test_two_screws_share_a_caliper_the_line_goes_with_the_first(self) -> None:
        for outer, names in ((False, ["inner", "outer"]), (True, ["outer", "inner"])):
            rows = self.bled(Reservoir(None, None), Branch("a", "front", "left", 40.0, 500.0, 5.0, 2, outer), flush=2.0)["order"]
            self.assertEqual([(row["screw"], row["fluid_cm3"]) for row in rows], [(names[0], 2 * 25.0), (names[1], 2 * 20.0)])

    def test_strokes_are_whole_and_what_they_push_is_theirs(self) -> None:
        (row,) = self.bled(Reservoir(4.0, None), Branch("a", "front", "left", 40.0, 500.0, 5.0))["order"]
        self.assertEqual((row["strokes"], row["pushed_cm3"]), (12, 48.0))  # 45 cm³ by fours
        (even,) = self.bled(Reservoir(5.0, None), Branch("a", "front", "left", 40.0, 500.0, 5.0))["order"]
        self.assertEqual((even["strokes"], even["pushed_cm3"]), (9, 45.0))

    def test_the_reservoir_is_filled_before_it_runs_low_and_the_level_is_carried_on(self) -> None:
        branches = [Branch(name, "front", "left", 20.0, 500.0, 0.0) for name in "abc"]
        found = self.bled(Reservoir(4.0, 30.0, 10.0), *branches)
        level, expected = 30.0, []
        for _ in branches:
            filled = []
            for number in range(1, 6):
                if level - 4.0 < 10.0:
                    filled.append(number)
                    level = 30.0
                level -= 4.0
            expected.append(filled)
        self.assertEqual([row["top_up_before_strokes"] for row in found["order"]], expected)
        self.assertEqual(found["top_ups"], sum(map(len, expected)))
        self.assertEqual(expected, [[], [1], [1]])  # just low after five strokes: filled before the sixth

    def test_drawn_by_a_pump_it_is_filled_whenever_it_is_low(self) -> None:
        branches = [Branch("a", "front", "left", 45.0, 500.0, 0.0), Branch("b", "front", "left", 10.0, 500.0, 0.0)]
        rows = self.bled(Reservoir(None, 30.0, 10.0), *branches)["order"]
        self.assertEqual([row["top_up_after_cm3"] for row in rows], [[20.0, 40.0], []])
        (row,) = self.bled(Reservoir(None, 30.0, 10.0), Branch("a", "front", "left", 20.0, 500.0, 0.0))["order"]
        self.assertEqual(row["top_up_after_cm3"], [])  # exactly to the mark

    def test_an_unknown_volume_leaves_the_totals_unknown_and_begins_from_full(self) -> None:
        known = Branch("b", "front", "left", 20.0, 500.0, 0.0)
        found = self.bled(Reservoir(4.0, 30.0, 10.0), known, Branch("a", "rear", "left", 20.0, None, None), known)
        self.assertEqual([row["fluid_cm3"] for row in found["order"]], [20.0, None, 20.0])
        self.assertEqual(
            [found[k] for k in ("total_fluid_cm3", "total_strokes", "total_pushed_cm3", "total_g", "top_ups")], [None] * 5
        )
        self.assertEqual([row["top_up_before_strokes"] for row in found["order"]], [[], None, []])

    def test_pushes_without_end_are_refused(self) -> None:
        with self.assertRaises(BadPlace) as refused:
            self.bled(Reservoir(1e-4, None), Branch("a", "front", "left", 20.0, 500.0, 0.0))
        self.assertEqual(refused.exception.place, "branches.0")


class Fluids(unittest.TestCase):
    def test_silicone_mixes_with_none(self) -> None:
        for fluid, inside, expected in (
            ("DOT 4", None, [("fluid_in_unknown", "note")]),
            ("DOT 4", "DOT 4", []),
            ("DOT 5", "DOT 5", []),
            ("DOT 4", "DOT 3", [("grade_mixed", "caution")]),
            ("DOT 5.1", "DOT 4", [("grade_mixed", "caution")]),
            ("DOT 5", "DOT 4", [("silicone_mixed", "danger")]),
            ("DOT 5.1", "DOT 5", [("silicone_mixed", "danger")]),
        ):
            self.assertEqual([(w["id"], w["level"]) for w in fluid_warnings(fluid, inside)], expected, (fluid, inside))


class Pumping(unittest.TestCase):
    AREA, RATIO, LIMIT = 400.0, 6.0, 2.77

    def said(self, rise: float, extra: float | None, after_drive: bool = False) -> tuple[str, str]:
        found = pumped(rise, self.LIMIT, self.AREA, self.RATIO, None, extra, after_drive)
        return found["verdict"], found["level"]

    def test_each_verdict_on_both_sides_of_its_edge(self) -> None:
        edge = self.LIMIT
        for rise, extra, after, expected in (
            (-edge - 0.01, None, False, ("falls", "danger")),
            (-edge, None, False, ("no_change", "good")),
            (edge, 9.0, False, ("no_change", "good")),
            (edge + 0.01, None, False, ("air_or_clearance", "caution")),
            (edge + 0.01, edge + 0.01, False, ("air", "caution")),
            (edge + 0.01, edge, False, ("clearance", "caution")),
            (edge + 0.01, edge, True, ("knock_back", "caution")),
            (edge + 0.01, edge + 0.01, True, ("air", "caution")),
        ):
            self.assertEqual(self.said(rise, extra, after), expected, (rise, extra, after))

    def test_what_was_taken_up_and_the_gap_it_was(self) -> None:
        found = pumped(12.0, self.LIMIT, self.AREA, self.RATIO, 8000.0, None, False)
        self.assertAlmostEqual(found["taken_up_cm3"], 12.0 * 400 / 6 / 1000)
        self.assertAlmostEqual(found["gap_mm_per_pad"], 0.1)
        for rise, slack in ((-5.0, 8000.0), (0.0, 8000.0)):
            sunk = pumped(rise, self.LIMIT, self.AREA, self.RATIO, slack, None, False)
            self.assertEqual((sunk["taken_up_cm3"], sunk["gap_mm_per_pad"]), (None, None))
        self.assertIsNone(pumped(12.0, self.LIMIT, self.AREA, self.RATIO, None, None, False)["gap_mm_per_pad"])


class Holds(unittest.TestCase):
    def test_how_fast_it_sinks_and_loses(self) -> None:
        hold = Hold(frozenset(), [10.0, 20.0, 30.0], [50.0, 51.0, 52.0])
        sink, loss = bleeding.loss_of(hold, 0.5, 400.0, 6.0)
        self.assertAlmostEqual(sink.value, 6.0)
        self.assertAlmostEqual(loss.value, 6.0 * 400 / 6 / 1000)
        self.assertAlmostEqual(sink.se, 60 * 0.5 / math.sqrt(200))  # σ/√Σ(t − t̄)²
        self.assertAlmostEqual(loss.se / loss.value, sink.se / sink.value)

    def test_each_class_on_both_sides_of_its_edge(self) -> None:
        for value, se, expected in (
            (-0.1, 0.01, "tight"), (0.03, 0.015, "tight"), (0.03, 0.02, "cannot_tell"), (0.059, 0.001, "tight"), (0.06, 0.001, "seep"),
            (0.5, 0.01, "seep"), (0.501, 0.01, "leak"), (5.0, 4.0, "cannot_tell"),
        ):  # fmt: skip
            self.assertEqual(bleeding.class_of(Estimate(value, se), 0.06, 0.5), expected, (value, se))

    def test_every_combination_of_holds_with_two_circuits(self) -> None:
        """The rules said again, the other way round: what is known of the whole, then of the cylinder, then of each circuit."""
        none, front, rear, both = (frozenset(p) for p in ((), ("front",), ("rear",), ("front", "rear")))
        kinds: tuple[bleeding.Loss | None, ...] = (None, "tight", "seep", "leak", "cannot_tell")
        for chosen in itertools.product(kinds, repeat=4):
            classes = {p: k for p, k in zip((none, front, rear, both), chosen, strict=True) if k is not None}
            whole, f, r, closed = chosen
            loses = ("seep", "leak")
            if whole not in (*loses, "tight"):
                expected = "cannot_tell"
            elif whole == "tight":
                expected = "none"
            elif closed in loses:
                expected = "cylinder"
            elif f == "tight" and r == "tight":
                expected = "cannot_tell"
            elif f == "tight":
                expected = "beyond_front"
            elif r == "tight":
                expected = "beyond_rear"
            elif closed == "tight" and f in loses and r in loses:
                expected = "beyond_each"
            else:
                expected = "not_located"
            self.assertEqual(bleeding.where_lost(classes, ["front", "rear"]), expected, chosen)


if __name__ == "__main__":
    unittest.main()

"""Donors: the table's rules applied one dimension at a time, ranks that compare as the score says, whatever the order given."""

import random
import unittest
from typing import Any

from kobrix.core.fit import donors
from kobrix.core.fit.donors import Donor, dimensions
from kobrix.fileformat.tables import table

donor_rank: Any = donors.donor_rank  # figures by name, of any kind
RULES = table("donor-rules")
NEEDS: dict[str, float | str] = {
    "diameter_mm": 280.0, "thickness_mm": 22.0, "hat_offset_mm": 26.0, "hub_bore_mm": 63.4, "holes": 4.0, "bolt_circle_mm": 108.0,
}  # fmt: skip


def one(greatest: float | None = None, tolerance: dict[str, float] | None = None, **changes: float) -> dict[str, Any]:
    has = {key: value for key, value in (NEEDS | changes).items() if value is not None}
    (found,) = donor_rank(RULES, "rotor", NEEDS, tolerance or {}, [Donor("a", has)], greatest)["ranked"]
    assert isinstance(found, dict)
    return found


class OneDimension(unittest.TestCase):
    def test_a_part_that_is_what_is_needed_needs_nothing(self) -> None:
        found = one()
        self.assertEqual((found["score"], found["make"], found["unknown"], found["usable"]), ([0, 0, 0, 0, 0, 0.0], [], [], True))

    def test_within_the_table_s_tolerance_it_fits_and_beyond_it_is_made_by_the_side(self) -> None:
        for name, rule in dimensions(RULES, "rotor").items():
            if "other" in rule or name not in NEEDS:
                continue
            for sign, side in ((1, "above"), (-1, "below")):
                within = one(**{name: float(NEEDS[name]) + sign * rule["tolerance"]})
                self.assertEqual(within["make"], [], name)
                self.assertAlmostEqual(within["score"][-1], 1.0 if rule["tolerance"] > 0 else 0.0)
                away = rule["tolerance"] + 0.5
                (made,) = one(**{name: float(NEEDS[name]) + sign * away})["make"]
                told = rule[side]
                self.assertEqual((made["code"], made["class"]), (told["code"], RULES["classes"][told["code"]]))
                if told["factor"] is None:
                    self.assertIsNone(made["value_mm"])
                else:
                    self.assertAlmostEqual(made["value_mm"], told["factor"] * sign * away)

    def test_a_stated_tolerance_leads(self) -> None:
        self.assertEqual(one(tolerance={"hat_offset_mm": 4.0}, hat_offset_mm=29.9)["make"], [])
        self.assertNotEqual(one(tolerance={"hat_offset_mm": 0.1}, hat_offset_mm=26.2)["make"], [])

    def test_other_holes_are_drilled_once(self) -> None:
        found = one(holes=5.0, bolt_circle_mm=114.3)
        codes = [row["code"] for row in found["make"]]
        self.assertEqual(codes.count("redrill"), 1)

    def test_a_rotor_too_big_for_the_wheel_is_that_and_nothing_else(self) -> None:
        for diameter, code in ((300.0, None), (300.1, "too_big")):
            made = one(greatest=300.0, diameter_mm=diameter)["make"]
            self.assertEqual([row["code"] for row in made if row["code"] == "too_big"], [] if code is None else [code], diameter)
        (row,) = one(greatest=300.0, diameter_mm=304.0)["make"]
        self.assertAlmostEqual(row["value_mm"], 4.0)
        self.assertEqual(one(greatest=270.0)["make"], [])  # what was needed is let be

    def test_what_is_not_stated_is_unknown_not_right(self) -> None:
        has = {key: value for key, value in NEEDS.items() if key != "hub_bore_mm"}
        (found,) = donor_rank(RULES, "rotor", NEEDS, {}, [Donor("a", has)])["ranked"]
        self.assertEqual((found["unknown"], found["score"][1]), (["hub_bore_mm"], 1))


class Ranks(unittest.TestCase):
    def parts(self, seed: int) -> list[Donor]:
        draw = random.Random(seed)
        found = []
        for k in range(60):
            has = {name: float(value) + draw.choice((0.0, 0.0, 0.3, -0.4, 2.0, -3.0)) for name, value in NEEDS.items()}
            has["holes"] = draw.choice((4.0, 4.0, 5.0))
            if draw.random() < 0.2:
                del has[draw.choice(list(has))]
            found.append(Donor(f"p{k}", dict(has), draw.choice((None, 20.0, 40.0))))
        return found

    def test_the_score_then_the_price_then_the_order(self) -> None:
        for seed in range(10):
            parts = self.parts(seed)
            by_name = {part.name: (k, part) for k, part in enumerate(parts)}
            keys = []
            for row in donor_rank(RULES, "rotor", NEEDS, {}, parts)["ranked"]:
                k, part = by_name[row["name"]]
                keys.append((*row["score"][:-1], round(row["score"][-1], 9), part.price is None, part.price or 0.0, k))
            self.assertEqual(keys, sorted(keys))
            self.assertEqual(len(keys), len(parts))

    def test_sums_within_a_billionth_are_the_same_and_the_price_decides(self) -> None:
        need = float(NEEDS["hub_bore_mm"])
        tolerance = {"hub_bore_mm": 1.0}
        for off, first in ((4e-10, "cheap"), (4e-9, "near")):
            parts = [
                Donor("near", {**NEEDS, "hub_bore_mm": need + 0.5}, 40.0),
                Donor("cheap", {**NEEDS, "hub_bore_mm": need + 0.5 + off}, 20.0),
            ]
            ranked = donor_rank(RULES, "rotor", NEEDS, tolerance, parts)["ranked"]
            self.assertEqual(ranked[0]["name"], first, off)

    def test_the_score_counts_what_is_made(self) -> None:
        for row in donor_rank(RULES, "rotor", NEEDS, {}, self.parts(99))["ranked"]:
            kinds = [made["class"] for made in row["make"]]
            self.assertEqual(row["score"][:5], [kinds.count("impossible"), len(row["unknown"]), kinds.count("irreversible"),
                                                kinds.count("made"), kinds.count("shim")])  # fmt: skip
            self.assertEqual(row["usable"], "impossible" not in kinds)


if __name__ == "__main__":
    unittest.main()

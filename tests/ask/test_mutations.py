"""Questions with something missing or wrong in them: an answer, or an error at a place; never a fault."""

import copy
import json
import random
import unittest
from typing import Any

from kobrix.evaluate.ask.run import ask

from tests.ask.test_fit import BOX, WHEEL
from tests.ask.test_prove import plan_a
from tests.cases import ROOT

BAD: tuple[Any, ...] = (-1, 0, "x", None, 1e9, 1e-9, [], {}, True, float("nan"), "3/8 in", -0.5, "front", 1e300, [1], 2, 0.5)
TRIALS = 900


def questions() -> list[dict[str, Any]]:
    """One good question of most kinds."""
    shown = json.loads((ROOT / "docs" / "questions.example.json").read_text(encoding="utf-8"))["ask"]
    setup = plan_a()
    push = {"pedal_force_n": 60, "front_kpa": 900, "rear_kpa": 900, "travel_mm": 80}
    branch = {"name": "one", "axle": "rear", "side": "left", "line_length_mm": 900, "caliper_volume_cm3": 20}
    vehicle = {"mass_kg": 1000, "front_share": 0.5, "cg_height_mm": 500, "wheelbase_mm": 2500, "grip": 0.8}
    actuator = {"kind": "caliper", "lever_ratio": 9, "friction": 0.4, "effective_radius_mm": 100}
    return [
        *shown,
        {"question": "wheel_clearance", "wheel": WHEEL, "caliper": BOX, "plus_minus": {"bearing_mm": 0.2}},
        {"question": "plate", "old": {"kind": "pair", "spacing_mm": 60, "hole_mm": 8}, "bore": {"diameter_mm": 20}},
        {"question": "donor_rank", "part": "rotor", "needs": {"diameter_mm": 280}, "parts": [{"diameter_mm": 281}]},
        {"question": "still_missing", "joints": [{"family": "banjo", "thread": "M10x1"}], "fluid": {"system_cm3": 200}},
        {"question": "parking_brake", "control": {"lever_ratio": 6}, "actuator": actuator, "vehicle": vehicle, "tyre": "185/60R15"},
        {"question": "bleed_order", "branches": [branch], "bore_mm": 20, "stroke_mm": 30, "reservoir_cm3": 90},
        {"question": "air_from_pushes", "setup": setup, "pushes": [push, {**push, "pedal_force_n": 200, "travel_mm": 99}]},
        {"question": "stand_test", "setup": setup, "pushes": [push, {**push, "pedal_force_n": 200, "front_kpa": 3000}]},
        {"question": "bed_recipe", "setup": setup, "stages": [{"from_kmh": 80, "to_kmh": 30, "count": 2, "decel_g": 0.4, "gap_s": 20}]},
        {"question": "calibrate", "setup": setup, "stops": [{"decel_g": 0.5, "push_n": 220}]},
        {"question": "stop_trace", "nominal_kmh": 30, "samples": {"t_s": [0, 1, 2, 3, 4, 5], "speed_kmh": [40, 40, 28, 15, 2, 0]}},
        {"question": "valve_next", "least": 0, "most": 8, "now": 4, "log": [{"setting": 3, "locked": "front"}]},
        {"question": "pull", "mass_kg": 1000, "track_mm": 1400, "wheelbase_mm": 2500, "front_share": 0.5,
         "stops": [{"speed_kmh": 60, "time_s": 3, "offset_m": 1}]},
    ]  # fmt: skip


def places(value: Any, way: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in a question but its name."""
    rows = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    return [found for key, part in rows if key != "question" for found in ((*way, key), *places(part, (*way, key)))]


class Mutations(unittest.TestCase):
    def test_good_ones_are_answered(self) -> None:
        for question in questions():
            self.assertNotIn(
                "error", ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0], question
            )

    def test_nothing_falls_over(self) -> None:
        draw, good = random.Random(9), questions()
        refused = 0
        for _ in range(TRIALS):
            question = copy.deepcopy(draw.choice(good))
            way = draw.choice(places(question))
            here: Any = question
            for key in way[:-1]:
                here = here[key]
            if draw.random() < 0.3:
                del here[way[-1]]
            else:
                here[way[-1]] = draw.choice(BAD)
            with self.subTest(question=question["question"], way=way):
                answer = ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0]
                json.dumps(answer, allow_nan=False)
                error: Any = answer.get("error")
                if error is not None:
                    refused += 1
                    self.assertEqual(set(error), {"place", "reason"})
                    self.assertTrue(error["reason"])
        self.assertGreater(refused, TRIALS // 3)


class Named(unittest.TestCase):
    def test_a_setup_that_is_not_there_is_told_with_those_that_are(self) -> None:
        question = {"question": "half_done", "setup": "b", "groups": []}
        none: dict[str, Any] = {}
        for setups, known in (({"a": none, "c": none}, "known are a, c."), (none, "known are none.")):
            told: Any = ask({"format": "kobrix-questions", "version": 1, "setups": setups, "ask": [question]})["answers"][0]
            self.assertEqual(told["error"]["place"], "setup")
            self.assertIn(known, told["error"]["reason"])

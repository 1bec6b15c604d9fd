"""Shipped vehicles with numbers changed at random: every answer is finite, or refused in words."""

import copy
import json
import random
import unittest
from typing import Any

from kobrix.core.errors import KobrixError
from kobrix.demo import SETUPS
from kobrix.evaluate.findings import tried_findings
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.evaluate.uncertainty import bare
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions

from tests.cases import evaluate, example_document

COUNTS = {"version", "wheels", "count", "calipers", "sense", "front", "rear"}
ASKED = {
    "pedal_forces_n": [0, 0.001, 50, 300, 5000], "wanted_decels_g": [0, 0.01, 0.4, 1.2, 5], "working": {"pedal_force_n": 200},
    "inverse": {
        "bore_for_effort": {"decel_g": 0.4, "effort_n": 150}, "ratio_for_effort": {"decel_g": 0.4, "effort_n": 150},
        "rear_area_for_share": {"decel_g": 0.4, "front_share": 0.7}, "rear_rotor_for_share": {"decel_g": 0.4, "front_share": 0.7},
        "bar_for_share": {"decel_g": 0.4, "front_share": 0.6}, "knee_for_lock_order": {},
    },
}  # fmt: skip


def shaken(part: Any, chance: random.Random) -> None:
    """Numbers of a document changed where they stand."""
    for key, value in part.items() if isinstance(part, dict) else enumerate(part):
        if isinstance(value, dict | list):
            shaken(value, chance)
        elif isinstance(value, int | float) and not isinstance(value, bool) and key not in COUNTS and chance.random() < 0.12:
            wild = chance.random() < 0.25
            part[key] = value * (chance.choice([0.0, 0.3, 2.5]) if wild else chance.uniform(0.6, 1.6))


def with_extras(document: dict[str, Any], chance: random.Random) -> None:
    """Linkages and valves here and there."""
    for system in document["systems"]:
        if chance.random() < 0.3:
            system["control"]["linkage"] = {
                "rest_angle_deg": chance.uniform(-120, -70), "bore_direction_deg": chance.uniform(-15, 15), "rod_mm": chance.uniform(120, 250),
                "bore_point_mm": [chance.uniform(100, 200), chance.uniform(-100, -30)],
            }  # fmt: skip
        for station in system["stations"]:
            if chance.random() < 0.3:
                station["devices"] = [chance.choice([
                    {"kind": "load_sensing", "knee_kpa": 2000, "coefficient_kpa_per_n": 0.4, "reference_rear_load_n": 4000, "slope": 0.3},
                    {"kind": "deceleration_sensing", "decel_g": chance.uniform(0.1, 1.2), "slope": 0.3},
                    {"kind": "proportioning", "knee_kpa": 0, "slope": 0}, {"kind": "metering", "hold_kpa": 0, "blend_kpa": 300},
                ])]  # fmt: skip


class RandomVehicles(unittest.TestCase):
    def test_every_answer_is_finite_or_refused_in_words(self) -> None:
        chance = random.Random(21)
        bases = [example_document(), *(json.loads(p.read_text(encoding="utf-8")) for p in SETUPS)]
        answered = 0
        for _ in range(40):
            document = copy.deepcopy(chance.choice(bases))
            shaken(document, chance)
            with_extras(document, chance)
            try:
                setup = files.check(Setup, document)
                result = evaluate(setup, files.check(Questions, ASKED))
            except KobrixError as refused:
                self.assertTrue(str(refused))
                continue
            json.dumps(result, allow_nan=False)
            known = ByContent(setup)
            answer_of(known)
            json.dumps(tried_findings(known, None, None, bare(), None, 40), allow_nan=False)
            answered += 1
        self.assertGreater(answered, 20)


if __name__ == "__main__":
    unittest.main()

"""A load state that pulls a trailer, before anything locks: what the brakes give is what the road takes."""

import unittest

import numpy as np
from kobrix.evaluate.as_found import as_found_trials
from kobrix.evaluate.to_core import convert
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.paths import set_at
from kobrix.fileformat.quantities import si
from kobrix.fileformat.questions import Questions
from kobrix.stages.match.space import edited

from tests.cases import demo_document, demo_job, evaluate

TRAILER = {"mass_kg": 900, "braked_share": 0.3, "nose_kg": 60, "hitch_behind_axle_mm": 900, "hitch_height_mm": 420}


class Trailer(unittest.TestCase):
    def test_below_the_first_lock_the_grip_gives_what_the_brakes_ask(self) -> None:
        setup = edited(demo_job().setup("plan A"), [set_at("vehicle.load_states.0.trailer", TRAILER)])
        state = next(iter(evaluate(setup, Questions(pedal_forces_n=[60.0, 150.0]))["load_states"].values()))
        for row in state["paths"]["service"]["at_pedal_force"]:
            self.assertGreater(row["decel_g"], 0.05)
            self.assertAlmostEqual(row["grip_decel_g"], row["decel_g"], places=9)
            self.assertEqual(row["locked"], [])

    def test_its_nose_comes_down_by_its_own_height_where_that_is_known(self) -> None:
        plain = demo_job().setup("plan A")
        whole = {**TRAILER, "cg_height_mm": 950, "hitch_to_axle_mm": 2600}
        for given, rise in ((TRAILER, 0.0), ({**TRAILER, "cg_height_mm": 950}, 0.0), ({**TRAILER, "hitch_to_axle_mm": 2600}, 0.0),
                            (whole, 900 * (0.95 - 0.7 * 0.42) / 2.6)):  # fmt: skip
            setup = edited(plain, [set_at("vehicle.load_states.0.trailer", given)])
            load, mass = convert(setup).load, si(setup.vehicle.load_states[0].mass_kg or 0, "mass_kg")
            assert load is not None
            base = si(setup.vehicle.wheelbase_mm or 0, "wheelbase_mm")
            own = {
                name: float(np.ravel(getattr(load.trailer, name))[0])
                for name in ("drag", "nose", "nose_rise", "behind", "height")
            }
            asked = {
                "drag": 0.7 * 900 / mass,
                "nose": 60 / mass,
                "nose_rise": rise / mass,
                "behind": 0.9 / base,
                "height": 0.42 / base,
            }
            for name, value in asked.items():
                self.assertAlmostEqual(own[name], value, msg=(name, given))


class OneCircuit(unittest.TestCase):
    def test_where_one_circuit_is_all_there_is_nothing_is_left_to_compare(self) -> None:
        two = as_found_trials(demo_job(), 50, 1)
        assert two is not None
        self.assertIsNotNone(two.left)
        document = demo_document()
        document["as_found"]["systems"][0]["cylinder"] = {"kind": "single", "bore_mm": "7/8 in", "stroke_mm": 30}
        one = as_found_trials(files.check(Job, document), 50, 1)
        assert one is not None
        self.assertIsNone(one.left)


if __name__ == "__main__":
    unittest.main()

"""Results: against the independently computed example, and the shapes that the screen gets."""

import json
import math
import unittest
from typing import Any

import numpy as np
from kobrix.core.errors import Impossible
from kobrix.evaluate.shapes import Moment
from kobrix.fileformat import files
from kobrix.fileformat.questions import Questions
from kobrix.stages.size.service import moment_at
from kobrix.stages.size.shapes import SizeView

from tests.cases import conforms, demo_job, evaluate, every_layout, example_result, example_setup, size_of

EXACT = 1e-9
ITERATED = {"stiffness_n_per_mm": 1e-6}  # a slope: taken by small steps in the example, in closed form here
DIGITS = 5e-12  # the example is printed with twelve figures


def differences(wanted: Any, found: Any, path: str = "") -> list[str]:
    """Where `found` lacks what `wanted` holds, or differs from it."""
    if isinstance(wanted, dict):
        missing = [f"{path}.{key} is missing" for key in wanted if key not in found]
        return missing + [d for key in wanted if key in found for d in differences(wanted[key], found[key], f"{path}.{key}")]
    if isinstance(wanted, list):
        if len(wanted) != len(found):
            return [f"{path} has {len(found)} entries, wanted {len(wanted)}"]
        return [d for i, (a, b) in enumerate(zip(wanted, found, strict=True)) for d in differences(a, b, f"{path}.{i}")]
    if isinstance(wanted, float) and isinstance(found, int | float) and not isinstance(found, bool):
        close = ITERATED.get(path.split(".")[-1], EXACT) + DIGITS
        return [] if math.isclose(wanted, found, rel_tol=close, abs_tol=1e-9) else [f"{path}: {found}, wanted {wanted}"]
    return [] if wanted == found else [f"{path}: {found!r}, wanted {wanted!r}"]


class Example(unittest.TestCase):
    """The example result was computed outside the project from the same definitions."""

    def test_every_key_agrees(self) -> None:
        wanted = example_result()
        found = evaluate(example_setup(), Questions.model_validate(wanted["questions"]))
        sampled = wanted["answers"].pop("tolerance")
        for part in wanted:
            self.assertEqual(differences(wanted[part], found[part], part), [])
        self.assertEqual(sorted(sampled), sorted(found["answers"]["tolerance"]))

    def test_what_is_sampled_agrees_within_four_standard_errors_and_ranks_within_a_tenth(self) -> None:
        result = example_result()
        wanted, n = result["answers"]["tolerance"], result["questions"]["tolerance"]["samples"]
        found = evaluate(example_setup(), Questions.model_validate(result["questions"]))["answers"]["tolerance"]
        sd = wanted["sd_n"]
        at_median, at_end = math.sqrt(math.pi / 2), math.sqrt(0.05 * 0.95) / 0.10314  # of a normal distribution
        errors = {"p50_n": sd * at_median, "p5_n": sd * at_end, "p95_n": sd * at_end, "sd_n": sd / math.sqrt(2)}
        for name, one in errors.items():  # both are samples, so their difference has twice the variance
            self.assertAlmostEqual(found[name], wanted[name], delta=4 * one * math.sqrt(2 / n), msg=name)
        for name in ("rear_first_probability", "effort_over_limit_probability", "travel_over_limit_probability"):
            p = wanted[name]
            self.assertAlmostEqual(found[name], p, delta=4 * math.sqrt(2 * p * (1 - p) / n), msg=name)
        for name, rank in wanted["rank"].items():
            self.assertAlmostEqual(found["rank"][name], rank, delta=0.1, msg=name)
        self.assertAlmostEqual(found["first_order_sd_n"] / wanted["first_order_sd_n"], 1.0, delta=1e-6)

    def test_the_comparison_itself_can_fail(self) -> None:
        self.assertEqual(len(differences({"a": 1.0, "b": [1]}, {"a": 1.0 + 3e-9, "b": [1, 2]})), 2)
        self.assertEqual(differences({"a": 1}, {}), [".a is missing"])

    def test_nothing_is_nan_or_infinite(self) -> None:
        json.dumps(evaluate(example_setup()), allow_nan=False)
        json.dumps(size_of(demo_job()), allow_nan=False)

    def test_a_stop_beyond_the_grip_is_null_with_its_reason(self) -> None:
        result = evaluate(example_setup(), Questions(wanted_decels_g=[1.5]))
        answer = result["load_states"]["driver only"]["paths"]["service"]["pedal_force_for_decel"][0]
        self.assertIsNone(answer["pedal_force_n"])
        self.assertEqual(answer["reason"], "the front locks first, at 0.91 g")


class View(unittest.TestCase):
    view: dict[str, Any]

    @classmethod
    def setUpClass(cls) -> None:
        cls.view = size_of(demo_job())

    def test_it_has_exactly_the_shape_that_the_screen_is_promised(self) -> None:
        conforms(SizeView, self.view)
        conforms(Moment, moment_at(demo_job().setup("plan A"), 0, 341.0, None))

    def test_setups_are_compared_at_one_stop(self) -> None:
        self.assertAlmostEqual(self.view["wanted_decel_g"], 0.81)
        pushes = [s["solved"]["paths"][-1]["states"][0]["stop_push_n"] for s in self.view["setups"]]
        self.assertIsNone(pushes[2])  # its rear locks first, below that stop
        for push, drawn in zip(pushes[:2], (805.5, 341.1), strict=True):
            self.assertAlmostEqual(push, drawn, delta=0.06)

    def test_nothing_slides_on_a_sample_below_the_first_lock(self) -> None:
        for job in (demo_job(), *every_layout()):
            for setup in size_of(job)["setups"]:
                for path in setup["solved"]["paths"] if setup["solved"] else ():
                    for state in path["states"]:
                        push, slides = (np.array(state["curves"][k]) for k in ("push_n", "front_locked"))
                        slides = np.maximum(slides, state["curves"]["rear_locked"]) > 0.5
                        if slides.any() and state["first_lock"] in ("front", "rear", "both"):
                            first = int(np.argmax(slides))
                            self.assertLess(push[first] - push[first - 1], 1e-6 * push[first], (job.name, path["name"]))

    def test_between_samples_the_look_up_is_the_core_within_a_hundredth(self) -> None:
        setup = demo_job().setup("plan A")
        curves = self.view["setups"][1]["solved"]["paths"][0]["states"][0]["curves"]
        pushes = curves["push_n"]
        for i in range(1, len(pushes) - 1, 5):
            middle = (pushes[i] + pushes[i + 1]) / 2
            exact = moment_at(setup, 0, middle, None)
            looked = (curves["decel_g"][i] + curves["decel_g"][i + 1]) / 2
            self.assertAlmostEqual(looked, exact["decel_g"], places=9)
            travel = (curves["lines"]["service"]["travel_mm"][i] + curves["lines"]["service"]["travel_mm"][i + 1]) / 2
            self.assertAlmostEqual(travel, exact["systems"]["service"]["pedal_travel_mm"], delta=0.01)

    def test_curves_cover_the_range_and_rise(self) -> None:
        for setup in self.view["setups"]:
            for state in setup["solved"]["paths"][0]["states"]:
                pushes = state["curves"]["push_n"]
                self.assertEqual(pushes[0], 0.0)
                self.assertGreaterEqual(pushes[-1], self.view["push_range_n"] - 1e-9)
                self.assertEqual(pushes, sorted(set(pushes)))
                self.assertEqual({len(v) for v in state["curves"]["lines"]["service"]["causes_mm"].values()}, {len(pushes)})

    def test_an_incomplete_setup_says_what_it_needs_and_the_others_go_on(self) -> None:
        document = demo_job().model_dump(exclude_unset=True)
        del document["plans"][0]["systems"][0]["cylinder"]["bore_mm"]
        view = size_of(files.check(type(demo_job()), document))
        conforms(SizeView, view)
        self.assertIsNone(view["setups"][1]["solved"])
        self.assertEqual(view["setups"][1]["needs"]["decel"], ["systems.0.cylinder.bore_mm"])
        self.assertIsNotNone(view["setups"][2]["solved"])

    def test_a_stop_that_the_brakes_never_give_is_an_impossible_question(self) -> None:
        document = demo_job().setup("plan A").model_dump(exclude_unset=True)
        for station in document["systems"][0]["stations"]:
            station["devices"] = [{"kind": "limiting", "setting_kpa": 500}]
        weak = files.check(type(demo_job().setup("plan A")), document)
        with self.assertRaisesRegex(Impossible, "the brakes give at most 0.0"):
            moment_at(weak, 0, None, 0.9)


if __name__ == "__main__":
    unittest.main()

"""What the screen looks up and lays side by side, against the core's own answer for exactly that push."""

import math
import random
import unittest
from typing import Any, ClassVar

from kobrix.demo import SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.stages.size.service import moment_at

from tests.cases import demo_job, size_of
from tests.screen.case import ScreenCase


def demo_view() -> dict[str, Any]:
    """The demo job as a screen gets it."""
    view: dict[str, Any] = size_of(demo_job())
    return view


class Looking(ScreenCase):
    modules = ("chain/figures.ts", "chain/gains.ts", "stages/size/instruments.ts", "chain/words.ts")
    job: ClassVar[Job] = demo_job()
    view: ClassVar[dict[str, Any]] = demo_view()

    def solved(self, setup: int) -> dict[str, Any]:
        path: dict[str, Any] = self.view["setups"][setup]["solved"]["paths"][-1]
        return path

    def figures(self, setup: int, push: float, load: int = 0) -> dict[str, Any]:
        solved = self.solved(setup)
        found: dict[str, Any] = self.ask("chain/figures", "figuresAt", solved["states"][load]["curves"], push, solved["system"])
        return found

    def exact(self, setup: int, push: float, load: int = 0) -> dict[str, Any]:
        """The core's figures for exactly this push, as the screen keeps them."""
        moment = moment_at(self.job.setup(self.view["setups"][setup]["key"]), load, push, None)
        found: dict[str, Any] = self.ask("chain/figures", "figuresOf", moment, self.solved(setup)["system"])
        return found

    def test_between_two_samples_the_screen_shows_what_the_core_says(self) -> None:
        draw = random.Random(5)
        for setup in range(3):
            for load in range(len(self.solved(setup)["states"])):
                for _ in range(12):
                    push = draw.uniform(1.0, self.view["push_range_n"] - 1.0)
                    mine, core = self.figures(setup, push, load), self.exact(setup, push, load)
                    self.assertAlmostEqual(mine["push"], core["push"], places=6)
                    for name in ("front", "rear", "decel", "rod", "out", "travel", "piston"):
                        self.assertAlmostEqual(
                            mine[name], core[name], delta=2e-3 * abs(core[name]) + 1e-6, msg=(setup, push, name)
                        )
                    self.assertEqual(mine["locked"], core["locked"], (setup, push))
                    self.assertEqual(
                        set(mine["causes"]) - {k for k, v in mine["causes"].items() if v == 0.0}, set(core["causes"])
                    )
                    for name, own in core["stations"].items():
                        for figure in ("inlet", "outlet", "torque"):
                            self.assertAlmostEqual(mine["stations"][name][figure], own[figure], delta=2e-3 * own[figure] + 1e-6)

    def test_past_either_end_the_last_sample_stands(self) -> None:
        curves = self.solved(1)["states"][0]["curves"]
        self.assertEqual(self.figures(1, -50.0)["rod"], 0.0)
        beyond = self.figures(1, 1e6)
        self.assertEqual(beyond["decel"], curves["decel_g"][-1])
        self.assertEqual(beyond["travel"], curves["lines"][self.solved(1)["system"]]["travel_mm"][-1])

    def test_the_push_for_a_stop_gives_that_stop(self) -> None:
        for setup in range(3):
            curves = self.solved(setup)["states"][0]["curves"]
            for decel in (0.1, 0.45, 0.81):
                push = self.ask("chain/figures", "pushFor", curves, decel)
                self.assertAlmostEqual(self.figures(setup, push)["decel"], decel, places=9)
            self.assertIsNone(self.ask("chain/figures", "pushFor", curves, curves["decel_g"][-1] + 0.01))

    def test_the_gains_of_the_links_multiply_to_what_the_brakes_gained(self) -> None:
        """In a row the gains are the brake force for a push, over the same as found: at the same push, and at the same stop."""
        for setup in (1, 2):
            state = self.solved(setup)["states"][0]
            pushes = state["curves"]["push_n"]
            for push in (150.0, 341.0, 600.0):
                now = self.figures(setup, push)
                stop = self.ask("chain/figures", "pushFor", self.solved(0)["states"][0]["curves"], now["decel"])
                for match, before in (("push", push), ("stop", stop)):
                    if before is None:
                        continue
                    found = self.figures(0, before)
                    for side in ("front", "rear", "whole"):
                        gains = self.ask("chain/gains", "gainsAt", state["gains"], pushes, push, match, side)
                        now_per, found_per = (
                            sum(f[a] for a in ("front", "rear") if side in (a, "whole")) / f["push"] for f in (now, found)
                        )
                        product = math.prod(g["gain"] for g in gains)
                        # what is left out is nearer to one than half a per cent, a link
                        self.assertAlmostEqual(product / (now_per / found_per), 1.0, delta=0.02, msg=(push, setup, side, match))
                        self.assertEqual([g["link"] for g in gains], sorted(g["link"] for g in gains))

    def test_the_side_that_changed_most_is_looked_at_first(self) -> None:
        state = self.solved(1)["states"][0]
        side = self.ask("chain/gains", "mostChanged", state["gains"], state["curves"]["push_n"], 341.0, "push")
        now, found = self.figures(1, 341.0), self.figures(0, 341.0)
        change = {axle: abs(math.log(now[axle] / found[axle])) for axle in ("front", "rear")}
        self.assertEqual(side, max(change, key=lambda axle: change[axle]))

    def test_without_a_push_there_are_no_gains(self) -> None:
        state = self.solved(1)["states"][0]
        self.assertIsNone(self.ask("chain/gains", "gainsAt", state["gains"], state["curves"]["push_n"], 0.0, "push", "front"))
        self.assertIsNone(self.ask("chain/gains", "gainsAt", None, state["curves"]["push_n"], 341.0, "push", "front"))

    def test_the_causes_told_sum_to_the_travel(self) -> None:
        for setup in range(3):
            now = self.exact(setup, 341.0)
            causes = self.ask("stages/size/instruments", "causesOf", now, self.solved(setup)["parts"]["stations"])
            self.assertAlmostEqual(sum(c["mm"] for c in causes), now["travel"], delta=0.005 * 15)
            self.assertEqual(len({c["name"] for c in causes}), len(causes))
        odd = {"causes": {"front.leak": 2.0, "control.free_play": 1.0, "rear.hose": 0.001}}
        self.assertEqual(self.ask("stages/size/instruments", "causesOf", odd, []),
                         [{"name": "free play", "side": "shared", "mm": 1.0}, {"name": "front leak", "side": "shared", "mm": 2.0}])  # fmt: skip

    def test_what_each_circuit_leaves_is_told_as_its_finding_judges_it(self) -> None:
        failures = self.solved(1)["states"][0]["failures"]
        findings = self.view["setups"][1]["findings"]
        lost = self.ask("stages/size/instruments", "lostOf", failures, findings)
        self.assertEqual([x["words"] for x in lost], ["front circuit lost", "rear circuit lost"])
        levels = {f["id"]: f["level"] for f in findings}
        for told, own in zip(lost, failures, strict=True):
            self.assertEqual(told["level"], {"note": "good"}.get(levels[own["name"]], levels[own["name"]]))
            self.assertIn(f"{own['best_grip_decel_g']:.2f} g", told["ends"])

    def test_what_is_the_same_of_several_controls_is_said_once(self) -> None:
        left = {"name": "left_lost_circuit", "kind": "circuit", "what": "circuit", "system": "left", "loss": "circuit lost", "pedal_force_n": 0.0,
                "limited_by": "contact", "best_grip_decel_g": 0.0, "pedal_travel_mm": None}  # fmt: skip
        right = {**left, "name": "right_lost_circuit", "system": "right"}
        gone = {
            **left,
            "name": "lost_booster",
            "kind": "booster",
            "what": None,
            "system": None,
            "loss": "booster lost",
            "limited_by": "all_lost",
        }
        told = self.ask(
            "stages/size/instruments", "lostOf", [left, right, gone], [{"id": "left_lost_circuit", "level": "danger"}]
        )
        self.assertEqual([(x["words"], x["ends"], x["level"]) for x in told],
                         [("one circuit lost", "floor before contact", "danger"), ("booster lost", "no brakes left", "good")])  # fmt: skip
        other = {**right, "limited_by": "all_lost"}
        told = self.ask("stages/size/instruments", "lostOf", [left, other], [])
        self.assertEqual([x["words"] for x in told], ["left: circuit lost", "right: circuit lost"])

    def test_a_cause_stands_with_the_axle_of_its_station_whatever_it_is_called(self) -> None:
        stations = [{"name": "wheel one", "axle": "rear"}, {"name": "rear", "axle": "front"}]
        causes = {"wheel one.clearance": 1.0, "rear.clearance": 2.0, "rear.drum": 3.0, "wheel one.hose": 0.5}
        found = self.ask("stages/size/instruments", "causesOf", {"causes": causes}, stations)
        self.assertEqual([(c["name"], c["side"], c["mm"]) for c in found],
                         [("pad clearance, front", "front", 2.0), ("pad clearance, rear", "rear", 1.0),
                          ("drum give, front", "front", 3.0), ("hoses", "shared", 0.5)])  # fmt: skip

    def test_paths_are_drawn_from_found_to_plan(self) -> None:
        using = self.view["setups"][1]
        paths = self.ask(
            "stages/size/instruments",
            "pathsOf",
            self.view["setups"],
            using,
            self.solved(1)["states"][0],
            self.solved(1)["name"],
            0,
        )
        self.assertEqual([(p["name"], p["kind"]) for p in paths], [("as found", "found"), ("B", "other"), ("A", "plan")])
        for path, setup in zip(paths, (0, 2, 1), strict=True):
            lock = self.solved(setup)["states"][0]["lock"]
            self.assertEqual(path["lock"] and path["lock"]["decel"], lock and lock["decel_g"])

    def test_factors_in_a_row_take_the_push_to_the_road(self) -> None:
        """The factors printed under the line, multiplied as printed, give the printed deceleration to their digits."""
        for setup in (1, 2):
            solved, now = self.solved(setup), self.figures(setup, 341.0)
            weight = solved["states"][0]["balance"]["weight_n"]
            factors = self.ask("chain/words", "factors", solved, now, weight)
            self.assertEqual(len(factors), 9)
            pedal, bore = factors[1][0].split(" × "), factors[3][0].split(" × ")
            rod = 341.0 * float(pedal[0].removeprefix("× ")) * float(pedal[1])
            self.assertAlmostEqual(rod, now["rod"], delta=0.005 * rod)
            pressure = rod / (float(bore[0].split()[1]) * 1e-4) * float(bore[1]) / 1e3
            front = next(s for s in solved["parts"]["stations"] if s["axle"] == "front")
            self.assertAlmostEqual(pressure, now["stations"][front["name"]]["inlet"], delta=0.01 * pressure)

    def test_a_change_is_said_with_direction_and_meaning(self) -> None:
        for lighter, longer, words in (
            (56.2, 10.4, "56 % lighter, 10 mm longer than as found."),
            (-12.4, -3.6, "12 % heavier, 4 mm shorter than as found."),
            (0.2, -3.6, "the same push, 4 mm shorter than as found."),
            (20.0, 0.3, "20 % lighter than as found, the same travel."),
            (20.0, None, "20 % lighter than as found."),
            (0.2, 0.3, "the same push and travel as found."),
            (-0.4, None, "the same push as found."),
        ):
            told = self.ask("chain/words", "difference", {"lighter_percent": lighter, "longer_mm": longer})
            self.assertEqual(told, words)
        self.assertEqual(self.ask("chain/words", "difference", None), "")

    def test_what_slides_is_said(self) -> None:
        for locked, words in (([], None), (["front"], "front slides: 0.72 g on the road"),
                              (["front", "rear"], "front and rear slide: 0.72 g on the road")):  # fmt: skip
            self.assertEqual(self.ask("chain/words", "sliding", {"locked": locked, "gripDecel": 0.72}), words)


class SeveralControls(ScreenCase):
    modules = ("chain/figures.ts", "chain/geometry.ts")

    def test_a_brake_that_two_controls_press_shows_the_stronger(self) -> None:
        shared = 0
        for file in SETUPS:
            value = files.read_file(files.parse_json(file.read_bytes()))
            assert isinstance(value, Setup)
            for setup in size_of(files.as_job(value))["setups"]:
                for path in setup["solved"]["paths"] if setup["solved"] else []:
                    curves = path["states"][0]["curves"]
                    now = self.ask("chain/figures", "figuresAt", curves, 0.4 * curves["push_n"][-1], path["system"])
                    for name, own in now["stations"].items():
                        every = [line["stations"][name]["torque"] for line in now["lines"].values() if name in line["stations"]]
                        self.assertEqual(own["torque"], max(every))
                        shared += len(every) > 1
                    rows = self.ask("chain/geometry", "rowsOf", path)
                    self.assertTrue(1 <= len(rows) <= 2)
                    self.assertEqual(len({row["y"] for row in rows}), len(rows))
        self.assertGreater(shared, 0, "the trials car's levers press brakes of the pedal")

    def test_a_path_without_the_control_has_no_figures(self) -> None:
        moment = moment_at(demo_job().setup(AS_FOUND), 0, 300.0, None)
        self.assertIsNone(self.ask("chain/figures", "figuresOf", moment, "hand"))


if __name__ == "__main__":
    unittest.main()

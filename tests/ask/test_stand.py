"""stand_test on a boosted pedal and a balance bar: readings by the booster's own formula (model.md), each figure found again from them."""

import math
from typing import Any

from tests.ask.case import Questions
from tests.ask.test_prove import plan_a

GAIN, CUT_IN, ASSIST, LIMIT = 3.0, 80.0, 200.0, 1600.0  # of the help: 1, N, N, N
RETURN, SPRING, ETA_C, ETA_M = 30.0, 60.0, 0.9, 0.95
RATIO = 240 / 60
AREA = math.pi / 4 * 23.8**2  # mm²
LOW, HIGH = (30, 45, 60, 75, 90, 110, 130, 150, 170, 190), (320, 350, 380, 410, 440, 470)


def boosted(**help_: Any) -> dict[str, Any]:
    """Plan A with an electric booster, no valve, and round figures."""
    setup = plan_a()
    own = setup["systems"][0]
    own["control"] |= {"pivot_to_pad_mm": 240, "pivot_to_pin_mm": 60, "efficiency": ETA_C, "return_force_n": RETURN}
    own["cylinder"] |= {"bore_mm": 23.8, "efficiency": ETA_M, "spring_n": SPRING}
    given = {"kind": "electric", "gain": GAIN, "cut_in_n": CUT_IN, "jump_in_n": ASSIST, "limit_n": LIMIT, **help_}
    own["booster"] = {name: value for name, value in given.items() if value is not None}
    for station in own["stations"]:
        station["devices"] = []
    return setup


def rod(force: float) -> float:
    return max(0.0, RATIO * force * ETA_C - RETURN)


def pressure(force: float, gain: float = GAIN, limit: float = LIMIT) -> float:
    """Line pressure [kPa] at a push [N]."""
    own = rod(force)
    out = 0.0 if own <= CUT_IN else own + min(ASSIST + (gain - 1) * (own - CUT_IN), limit)
    return max(0.0, out * ETA_M - SPRING) / AREA * 1000


def pushes(forces: tuple[float, ...], **made: float) -> list[dict[str, float]]:
    return [{"pedal_force_n": f, "front_kpa": pressure(f, **made), "rear_kpa": pressure(f, **made)} for f in forces]


RUN_OUT_ROD = CUT_IN + (LIMIT - ASSIST) / (GAIN - 1)
RUN_OUT = (RUN_OUT_ROD + RETURN) / (RATIO * ETA_C)


class Boosted(Questions):
    def test_over_the_run_out_gain_force_and_efficiency_are_found_again(self) -> None:
        got = self.ask("stand_test", setup=boosted(), pushes=pushes(LOW + HIGH), gauge_doubt_kpa=20, force_doubt_n=0)
        self.assertAlmostEqual(got["gain"]["value"], GAIN)
        self.assertAlmostEqual(got["run_out_n"]["value"], RUN_OUT)
        self.assertAlmostEqual(got["ratio_efficiency"]["value"], RATIO * ETA_C * ETA_M)
        self.assertIsNone(got["gain_if_ratio_as_planned"])
        told = {row["name"]: (row["fitted"], row["plan"], row["off"]) for row in got["against_plan"]}
        self.assertEqual(set(told), {"ratio_efficiency", "gain", "run_out_n"})
        for fitted, plan, off in told.values():
            self.assertAlmostEqual(fitted, plan)
            self.assertFalse(off)
        self.assertEqual((got["verdict"], got["reasons"]), ("look_again", ["travel_not_read"]))

    def test_the_jump_is_the_line_at_the_middle_of_the_cut_in(self) -> None:
        got = self.ask("stand_test", setup=boosted(), pushes=pushes((20, 25, *LOW)), gauge_doubt_kpa=20, force_doubt_n=0)
        first = next(f for f in LOW if rod(f) > CUT_IN)
        before = max(f for f in (20, 25, *LOW) if rod(f) <= CUT_IN)
        self.assertEqual(got["cut_in_between_n"], [before, first])
        middle = (before + first) / 2
        own = rod(middle)
        line = (own + ASSIST + (GAIN - 1) * (own - CUT_IN)) * ETA_M - SPRING
        self.assertAlmostEqual(got["jump_in_kpa"]["value"], line / AREA * 1000)

    def test_below_the_run_out_the_gain_is_told_if_the_ratio_is_as_planned(self) -> None:
        for gain in (GAIN, 1.0):  # a help of gain 1 never runs out
            low = pushes(LOW, gain=gain)
            got = self.ask("stand_test", setup=boosted(gain=gain), pushes=low, gauge_doubt_kpa=20, force_doubt_n=0)
            self.assertAlmostEqual(got["gain_if_ratio_as_planned"]["value"], gain)
            self.assertIsNone(got["ratio_efficiency"])
            self.assertEqual([row["name"] for row in got["against_plan"]], ["gain"])

    def test_above_the_run_out_the_ratio_is_told(self) -> None:
        self.assertLess(RUN_OUT, HIGH[0])
        got = self.ask("stand_test", setup=boosted(), pushes=pushes(HIGH), gauge_doubt_kpa=20, force_doubt_n=0)
        self.assertAlmostEqual(got["ratio_efficiency"]["value"], RATIO * ETA_C * ETA_M)
        self.assertEqual((got["gain"], got["gain_if_ratio_as_planned"], got["run_out_n"]), (None, None, None))
        self.assertIsNone(got["cut_in_between_n"])

    def test_a_line_that_is_unbroken_over_the_plan_s_run_out_tells_neither(self) -> None:
        half = pushes((150, 200, 290, 330), gain=1.0)  # a straight line on both sides of the plan's run-out
        got = self.ask("stand_test", setup=boosted(), pushes=half, gauge_doubt_kpa=20, force_doubt_n=0)
        self.assertEqual((got["ratio_efficiency"], got["gain"], got["gain_if_ratio_as_planned"]), (None, None, None))

    def test_a_weaker_help_is_off(self) -> None:
        weak = pushes(LOW + HIGH, gain=2.4, limit=1200.0)
        got = self.ask("stand_test", setup=boosted(), pushes=weak, gauge_doubt_kpa=20, force_doubt_n=0)
        self.assertIn("gain_off", got["reasons"])
        self.assertNotIn("ratio_efficiency_off", got["reasons"])
        self.assertAlmostEqual(got["gain"]["value"], 2.4)
        run_out = (CUT_IN + (1200 - ASSIST) / 1.4 + RETURN) / (RATIO * ETA_C)
        self.assertAlmostEqual(got["run_out_n"]["value"], run_out)


class Valves(Questions):
    def read(self, knee: float | None, plan: list[dict[str, Any]]) -> dict[str, Any]:
        """Readings of a valve at `knee` [kPa] with slope 0.4, none at all where None, held against a `plan`."""
        setup = boosted()
        del setup["systems"][0]["booster"]
        setup["systems"][0]["stations"][1]["devices"] = plan
        rows = []
        for f in (100, 200, 300, 400, 500, 600):
            front = max(0.0, rod(f) * ETA_M - SPRING) / AREA * 1000
            rear = front if knee is None or front < knee else knee + 0.4 * (front - knee)
            rows.append({"pedal_force_n": f, "front_kpa": front, "rear_kpa": rear})
        return self.ask("stand_test", setup=setup, pushes=rows, gauge_doubt_kpa=10)

    def test_a_valve_is_found_missing_unplanned_or_as_planned(self) -> None:
        planned: dict[str, Any] = {"kind": "proportioning", "knee_kpa": 2000, "slope": 0.4}
        as_planned = self.read(2000, [planned])
        self.assertAlmostEqual(as_planned["valve"]["knee_kpa"]["value"], 2000)
        self.assertAlmostEqual(as_planned["valve"]["slope"]["value"], 0.4)
        self.assertEqual(as_planned["reasons"], ["travel_not_read"])
        self.assertIn("knee_missing", self.read(None, [planned])["reasons"])
        self.assertNotIn("knee_missing", self.read(None, [{**planned, "knee_kpa": 4200}])["reasons"])
        self.assertIn("knee_unplanned", self.read(2000, [])["reasons"])
        limiting = {
            row["name"]: row["plan"] for row in self.read(2000, [{"kind": "limiting", "setting_kpa": 2000}])["against_plan"]
        }
        self.assertEqual((limiting["knee_kpa"], limiting["valve_slope"]), (2000, 0.0))
        self.assertIn("valve_slope_off", self.read(2000, [{"kind": "limiting", "setting_kpa": 2000}])["reasons"])

    def test_the_threshold_is_that_of_spring_and_return(self) -> None:
        rows = {row["name"]: row for row in self.read(None, [])["against_plan"]}
        threshold = (SPRING / ETA_M + RETURN) / (RATIO * ETA_C)
        self.assertAlmostEqual(rows["threshold_n"]["plan"], threshold)
        self.assertAlmostEqual(rows["threshold_n"]["fitted"], threshold)
        self.assertAlmostEqual(rows["ratio_efficiency"]["fitted"], RATIO * ETA_C * ETA_M)

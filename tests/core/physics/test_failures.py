"""What is left in failures, against a slow walk up the push."""

import unittest
from dataclasses import replace
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.physics import valves
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import Condition, System
from kobrix.core.physics.failures import LIMITS
from kobrix.core.physics.solved_setup import SolvedSetup

from tests.cases import case_of, plain_load, plain_system

VACUUM = Booster("vacuum", 4.2, 50.0, 190.0, 1500.0, 0.0012, 120.0)
NAMES = ("healthy", "lost_booster", "lost_front", "lost_rear", "hot", "shut")


def conditions() -> Condition:
    """Health and five failures side by side."""

    def column(*values: float) -> Any:
        return np.array(values, dtype=float)[:, None]

    return Condition(
        booster_lost=np.array([[False], [True], [False], [False], [False], [False]]),
        alive={"front": column(1, 1, 0, 1, 1, 1), "rear": column(1, 1, 1, 0, 1, 1)},
        friction={n: column(0.38, 0.38, 0.38, 0.38, 0.25, 0.38) for n in ("front", "rear")},
        shut={"rear": np.array([[False], [False], [False], [False], [False], [True]])},
    )


def left_of(system: System, limit: float = 500.0, grip: float = 0.9) -> SolvedSetup:
    """The six conditions solved."""
    return case_of(system, plain_load(grip=grip), conditions(), NAMES, limit)


def walked(case: SolvedSetup, c: int, limit: float) -> tuple[float, float]:
    """Greatest deceleration at any push up to whatever ends it, and the push that does, by a fine walk."""
    failed = case.main.failed
    pedal = failed.pulls[0].pedal
    assert pedal.travel is not None
    pushes = np.linspace(0.0, limit, 20001)
    place = failed.place_at(np.broadcast_to(pushes, (1, len(NAMES), pushes.size)))
    at = failed.at(place)
    pad = np.broadcast_to(pedal.pad_at(place), at.decel.shape)[0, c]
    spent = np.broadcast_to(pedal.travel.bottomed(place), at.decel.shape)[0, c]
    room = float(case.systems[0].control.available or np.inf)
    fine = (pad <= room) & ~spent
    end = int(np.argmax(~fine)) if not fine.all() else pushes.size
    if end == 0:
        return 0.0, 0.0
    return float(at.grip_decel[0, c, :end].max()), float(pushes[end - 1])


class AgainstAWalk(unittest.TestCase):
    def check(self, system: System, limit: float = 500.0, grip: float = 0.9) -> SolvedSetup:
        case = left_of(system, limit, grip)
        left = case.main.left
        assert left is not None
        for c, name in enumerate(NAMES):
            best, push = walked(case, c, limit)
            if LIMITS[int(left.limited[0, c])] in ("contact", "all_lost"):
                self.assertEqual(best, 0.0, name)
                continue
            self.assertAlmostEqual(float(left.push[0, c]), push, delta=limit / 5000, msg=name)
            self.assertAlmostEqual(float(left.best[0, c]), best, delta=2e-3, msg=name)
        return case

    def test_a_plain_car(self) -> None:
        self.check(plain_system())

    def test_with_a_booster(self) -> None:
        self.check(plain_system(booster=VACUUM))

    def test_with_a_valve_and_air(self) -> None:
        self.check(plain_system(rear_devices=(valves.Proportioning(2e6, 0.3),), air=1.5e-6))

    def test_where_wheels_slide_long_before_the_limit(self) -> None:
        self.check(plain_system(booster=VACUUM), grip=0.3)

    def test_a_short_pedal(self) -> None:
        system = plain_system()
        case = self.check(replace(system, control=replace(system.control, available=0.095)))
        left = case.main.left
        assert left is not None
        self.assertEqual({LIMITS[int(i)] for i in left.limited[0]} & {"travel", "contact"}, {"travel", "contact"})

    def test_a_strong_foot(self) -> None:
        self.check(plain_system(rear_area=2200e-6), limit=900.0)

    @settings(max_examples=15, deadline=None)
    @given(st.floats(0.0159, 0.0286), st.floats(0.03, 0.07), st.floats(600e-6, 2500e-6), st.floats(0.25, 1.0))
    def test_many_cars(self, bore: float, pin: float, area: float, grip: float) -> None:
        system = plain_system(bore=bore, rear_area=area)
        self.check(replace(system, control=replace(system.control, pivot_to_pin=pin)), grip=grip)


class TheRule(unittest.TestCase):
    def test_enough_is_2_44_metres_per_second_squared(self) -> None:  # UN R13-H secondary braking, from memory
        left = left_of(plain_system()).main.left
        assert left is not None
        np.testing.assert_array_equal(left.enough, left.best * 9.80665 >= 2.44)

    def test_a_lost_booster_leaves_the_foot_and_holds_its_spring(self) -> None:
        case = left_of(plain_system(booster=VACUUM))
        failed = case.main.failed
        place = failed.place_at(np.full((1, len(NAMES), 1), 200.0))
        rod = 200.0 * 292 / 48 * 0.92
        out = np.broadcast_to(failed.pulls[0].pedal.line.out, (len(NAMES), failed.pulls[0].pedal.line.out.shape[-1]))
        knot, fraction = int(place.knot[0, 1, 0]), float(place.fraction[0, 1, 0])
        found = out[1, knot] + fraction * (out[1, knot + 1] - out[1, knot])
        self.assertAlmostEqual(found, rod - 120.0, places=9)

    def test_health_stands_first_and_is_the_healthy_path(self) -> None:
        case = left_of(plain_system(booster=VACUUM))
        alone = case_of(plain_system(booster=VACUUM), plain_load()).main
        self.assertAlmostEqual(float(case.main.lock_decel[0]), float(alone.lock_decel[0]), places=12)
        a, b = (float(p.healthy.push_at(p.design).squeeze()) for p in (case.main, alone))
        self.assertAlmostEqual(a, b, places=9)


if __name__ == "__main__":
    unittest.main()

"""Lock order at every grip and the sharing clauses, against a fine walk along the line."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.physics import valves
from kobrix.core.physics.chain import Place
from kobrix.core.physics.paths import Solved
from kobrix.core.physics.sharing import LOW_GRIP, distribution_kept, rear_first_grips
from kobrix.core.physics.vehicle import Load

from tests.cases import WHEELS, plain_load, plain_system, solved

areas, knees, slopes = st.floats(500e-6, 3500e-6), st.floats(0.3e6, 8e6), st.floats(0.0, 0.9)


def walk(path: Solved, most: float = 3.0) -> Place:
    """Very many places along the line, its last part `most` steps on."""
    steps = path.road.decel.shape[-1] - 1
    knots = np.repeat(np.arange(steps), 4000)
    fraction = np.tile(np.linspace(0.0, 1.0, 4001)[1:], steps)
    fraction[-4000:] *= most
    return Place(knots, fraction)


def with_valve(area: float, knee: float, slope: float) -> Solved:
    """The plain car with other rear pistons and a valve."""
    return solved(plain_system(rear_area=area, rear_devices=(valves.Proportioning(knee, slope),)))


class LockOrder(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(areas, knees, slopes)
    def test_against_a_fine_walk(self, area: float, knee: float, slope: float) -> None:
        path = with_valve(area, knee, slope)
        some, low, high = (v.squeeze() for v in rear_first_grips(path.road, WHEELS))
        at = path.at(walk(path))
        front, rear = at.use_front.squeeze() / 0.9, at.use_rear.squeeze() / 0.9
        share = np.maximum(front, rear)
        inside = (share <= 1.0) & (share >= LOW_GRIP / 0.9)
        first = inside & (rear > front * (1 + 1e-6))
        self.assertTrue(bool(some) or not first.any())
        if first.any():
            self.assertAlmostEqual(float(low), float((share * 0.9)[first].min()), delta=0.01)
            self.assertAlmostEqual(float(high), float((share * 0.9)[first].max()), delta=0.01)

    def test_a_valve_that_only_works_on_a_dry_road_is_seen(self) -> None:
        path = with_valve(2280e-6, 0.9e6, 0.3)
        some, low, high = (v.squeeze() for v in rear_first_grips(path.road, WHEELS))
        self.assertTrue(bool(some))
        self.assertLess(float(path.road.locks["front"].squeeze()), float(path.road.locks["rear"].squeeze()))
        self.assertLess(float(low), 0.2)
        self.assertLess(float(high), 0.5)

    def test_the_ideal_sharing_is_never_rear_first(self) -> None:
        load = plain_load(chi=1e-13)  # nothing is transferred: the static share is ideal at every stop
        area = 2280e-6 * 0.1165 / 0.1095 * (1 - 0.49) / 0.49
        path = solved(plain_system(rear_area=area), load)
        some, _, _ = rear_first_grips(path.road, WHEELS)
        self.assertFalse(some.any())

    def test_many_setups_at_once_are_each_alone(self) -> None:
        sizes = np.array([700e-6, 1500e-6, 2600e-6])
        together = solved(plain_system(rear_area=sizes[:, None, None, None]))  # type: ignore[arg-type]
        some = rear_first_grips(together.road, WHEELS)[0].reshape(-1)
        for size, found in zip(sizes, some, strict=True):
            alone = rear_first_grips(solved(plain_system(rear_area=float(size))).road, WHEELS)[0]
            self.assertEqual(bool(alone.squeeze()), bool(found))


class Clauses(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(areas, knees, slopes, st.floats(0.35, 0.6))
    def test_against_a_fine_walk(self, area: float, knee: float, slope: float, share: float) -> None:
        system = plain_system(rear_area=area, rear_devices=(valves.Proportioning(knee, slope),))
        path = solved(system, plain_load(share=share))
        above, kept = (bool(v.squeeze()) for v in distribution_kept(path.road))
        at = path.at(walk(path, 6.0))
        z, front, rear = (v.squeeze() for v in (at.decel, at.use_front, at.use_rear))
        inside = (z >= 0.15) & (z <= 0.80)
        worst = float(np.max(np.where(inside, rear - front, -1.0)))
        if abs(worst) > 1e-4:
            self.assertEqual(above, worst < 0)
        lacking = -1.0
        for use in (front, rear):
            counts = (use >= 0.2) & (use <= 0.8)
            lacking = max(lacking, float(np.max(np.where(counts, 0.1 + 0.7 * (use - 0.2) - z, -1.0))))
        if abs(lacking) > 1e-4:
            self.assertEqual(kept, lacking < 0)

    def test_one_axle_alone_uses_too_much(self) -> None:
        front_only = replace(plain_system(), stations=tuple(
            replace(s, devices=(valves.Limiting(1.0),)) if s.axle == "rear" else s for s in plain_system().stations
        ))  # fmt: skip
        above, kept = distribution_kept(solved(front_only).road)
        self.assertTrue(above.all())
        self.assertFalse(kept.any())

    def test_it_does_not_know_the_grip(self) -> None:
        loads: list[Load] = [plain_load(grip=g) for g in (0.3, 0.9)]
        found = [[bool(v.squeeze()) for v in distribution_kept(solved(plain_system(), load).road)] for load in loads]
        self.assertEqual(found[0], found[1])


if __name__ == "__main__":
    unittest.main()

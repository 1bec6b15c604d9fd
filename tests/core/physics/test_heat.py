"""Rotor heat against an independent integrator and against sums of energy."""

import unittest
from dataclasses import replace
from typing import Any

import numpy as np
from kobrix.core.constants import ASSUMED
from kobrix.core.physics import heat
from kobrix.core.physics.heat import Rotor, Step
from scipy.integrate import solve_ivp

ROTOR = Rotor(5.6, 0.165, True)
STOP = Step(110 / 3.6, 30 / 3.6, 168e3, 2.76, 45.0, 90 / 3.6)


def rate(rotor: Rotor, temperature: float, air: float, speed: float, power: float) -> float:
    """The rotor's balance, written out here once more."""
    h = 10.0 + (2.5 if rotor.vented else 2.0) * speed
    lost = h * float(rotor.area) * (temperature - air)
    lost += 0.6 * 5.670374419e-8 * float(rotor.area) * ((temperature + 273.15) ** 4 - (air + 273.15) ** 4)
    return (power - lost) / (float(rotor.mass) * 500.0)


def by_scipy(rotor: Rotor, start: float, air: float, step: Step) -> tuple[float, float, float]:
    """End and peak of one slow-down and the end of its pause, by solve_ivp."""
    v1, v2, time = step.first, step.last, float(step.time)

    def braking(t: float, y: Any) -> list[float]:
        v = v1 - (v1 - v2) * t / time
        return [rate(rotor, y[0], air, v, float(step.energy) * 2 * v / ((v1 + v2) * time))]

    tight: dict[str, Any] = {"rtol": 1e-12, "atol": 1e-10, "method": "DOP853"}
    stop = solve_ivp(braking, (0.0, time), [start], dense_output=True, **tight)
    assert stop.sol is not None
    peak = float(np.max(stop.sol(np.linspace(0, time, 200001))))

    def cooling(_: float, y: Any) -> list[float]:
        return [rate(rotor, y[0], air, step.pause_speed, 0.0)]

    pause = solve_ivp(cooling, (0.0, step.pause), [stop.y[0, -1]], **tight)
    return float(stop.y[0, -1]), peak, float(pause.y[0, -1])


class AgainstSolveIvp(unittest.TestCase):
    def test_a_series(self) -> None:
        starts, peaks, last = heat.series(ROTOR, 40.0, 20.0, [STOP] * 3)
        now = 40.0
        for start, peak in zip(starts, peaks, strict=True):
            self.assertAlmostEqual(float(start), now, places=6)
            _, highest, now = by_scipy(ROTOR, now, 20.0, STOP)
            self.assertAlmostEqual(float(peak), highest, places=6)
        self.assertAlmostEqual(float(last), now, places=6)

    def test_to_rest_the_peak_comes_before_the_end(self) -> None:
        slow = replace(STOP, last=0.0, time=30.0, energy=40e3)
        solid = Rotor(1.2, 0.2, False)
        end, highest, _ = by_scipy(solid, 250.0, 20.0, slow)
        _, peaks, _ = heat.series(solid, 250.0, 20.0, [slow])
        self.assertGreater(highest, end + 0.01)
        self.assertAlmostEqual(float(peaks[0]), highest, places=5)

    def test_many_at_once_are_each_alone(self) -> None:
        mass = np.array([3.0, 5.6, 9.0])
        together = heat.series(Rotor(mass, 0.165, True), 40.0, 20.0, [STOP] * 2)[1][1]
        for own, expected in zip(mass, np.asarray(together), strict=True):
            alone = heat.series(Rotor(float(own), 0.165, True), 40.0, 20.0, [STOP] * 2)[1][1]
            self.assertAlmostEqual(float(alone), float(expected), places=10)


class Limits(unittest.TestCase):
    def test_a_rotor_that_loses_nothing_keeps_all_the_energy(self) -> None:
        shut = Rotor(5.6, 1e-12, False)
        starts, peaks, last = heat.series(shut, 20.0, 20.0, [replace(STOP, pause=0.0)] * 3)
        rise = float(heat.rise(168e3, 5.6))
        self.assertAlmostEqual(float(last), 20 + 3 * rise, places=5)
        self.assertAlmostEqual(float(peaks[2]), float(last), places=9)
        self.assertAlmostEqual(float(starts[1]), 20 + rise, places=6)

    def test_the_peak_within_a_step_is_the_cubics(self) -> None:
        peak = heat._turn(np.array([5.0, 5.0, 3.0]), np.array([5.0, 7.0, 5.0]), np.array([1.0, -1.0, 6.0]), -1.0, 1.0)
        # the cubic through both ends: equal ends turn half way at h·(rise − fall)/8 above; one that does not turn has its low end
        s = 6.0 / 7.0
        last = 3 * (1 + 2 * s) * (1 - s) ** 2 + 6 * s * (1 - s) ** 2 + 5 * s * s * (3 - 2 * s) - s * s * (s - 1)
        np.testing.assert_allclose(peak, [5.25, 5.0, last], rtol=1e-12)

    def test_energy_is_shared_out(self) -> None:
        whole = float(heat.stop_energy(1310.0, 0.05, 100 / 3.6, 0.0))
        self.assertAlmostEqual(whole, 0.5 * 1310 * 1.05 * (100 / 3.6) ** 2, places=6)
        parts = 2 * float(heat.rotor_energy(whole, 0.7, 2)) + 2 * float(heat.rotor_energy(whole, 0.3, 2))
        self.assertAlmostEqual(parts, whole * ASSUMED["heat.into_rotor"].value, places=6)

    def test_fade_is_straight_between_and_level_outside(self) -> None:
        curve = [(100.0, 0.40), (300.0, 0.36), (500.0, 0.22)]
        found = [float(heat.friction_at(t, curve)) for t in (20.0, 100.0, 200.0, 400.0, 900.0)]
        np.testing.assert_allclose(found, [0.40, 0.40, 0.38, 0.29, 0.22])

    def test_boiling_points(self) -> None:  # FMVSS 116, from memory
        self.assertEqual([heat.wet_boiling(f) for f in ("DOT 3", "DOT 4", "DOT 5", "DOT 5.1")], [140, 155, 180, 180])
        self.assertEqual(float(heat.fluid_estimate(220.0, 20.0)), 70.0)


if __name__ == "__main__":
    unittest.main()

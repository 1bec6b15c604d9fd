"""The force line as a whole: knots, places, locks, against other ways to the same numbers."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.numerics.arrays import lookup
from kobrix.core.physics import chain, valves, variants, vehicle
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import Condition, first_reach, follow
from kobrix.core.physics.pedal import Pedal
from kobrix.core.physics.sharing import rear_first_grips
from scipy.optimize import brentq

from tests.cases import WHEELS, case_of, plain_load, plain_system, solved

VACUUM = Booster("vacuum", 4.2, 50.0, 190.0, 1500.0, 0.0012, 120.0)
MIXED = (valves.Metering(0.3e6, 1.0e6), valves.Proportioning(3e6, 0.35))


class Knots(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(1.0, 1500.0), st.booleans(), st.booleans())
    def test_between_knots_the_line_is_the_formulas_themselves(self, push: float, helped: bool, valved: bool) -> None:
        system = plain_system(rear_devices=MIXED if valved else (), booster=VACUUM if helped else None)
        line = follow(system)
        place = Pedal(line, None).place_at(push)
        rod = 292 / 48 * push * 0.92
        out = rod if not helped else (0.0 if rod <= 50 else rod + min(190 + 3.2 * (rod - 50), 1500.0))
        p = max(0.0, out * 0.95) / (np.pi * 0.0206375**2 / 4)
        for branch, outlet in zip(line.branches, line.outlet, strict=True):
            there = float(lookup(outlet, place.knot, place.fraction).squeeze())
            expected = float(valves.outlet(branch.station.devices, p))
            self.assertAlmostEqual(there, expected, delta=1e-9 * expected + 1e-6)

    def test_the_leap_is_vertical_and_its_foot_is_no_pressure(self) -> None:
        line = follow(plain_system(booster=VACUUM))
        foot = 50.0 / (292 / 48 * 0.92)
        at = Pedal(line, None).place_at(np.array([foot, foot * (1 + 1e-12)]))
        out = lookup(line.out, at.knot, at.fraction)
        self.assertEqual(out[0], 0.0)
        self.assertAlmostEqual(out[1], 240.0, places=6)

    def test_past_the_last_knot_the_last_straight_part_goes_on(self) -> None:
        line = follow(plain_system())
        at = Pedal(line, None).place_at(np.array([1e5]))
        self.assertAlmostEqual(float(lookup(line.rod, at.knot, at.fraction)[0]), 1e5 * 292 / 48 * 0.92, places=4)

    def test_a_set_of_bores_gives_what_each_gives_alone(self) -> None:
        bores = np.array([0.0174625, 0.0206375, 0.0254])
        for base in (plain_system(), plain_system(rear_devices=MIXED, booster=VACUUM)):  # knees and run-out in another order each
            together = variants.attempt(case_of(base, plain_load()), variants.with_bore(base, bores[:, None, None, None]))
            assert together.pad is not None
            for bore, push, pad in zip(bores, together.push, together.pad, strict=True):
                alone = variants.attempt(case_of(base, plain_load()), variants.with_bore(base, float(bore)))
                assert alone.pad is not None
                self.assertAlmostEqual(float(alone.push), float(push), places=9)
                self.assertAlmostEqual(float(alone.pad), float(pad), places=12)


class Places(unittest.TestCase):
    def test_wanted_decel_returns_from_its_push(self) -> None:
        road = solved(plain_system(rear_devices=MIXED, booster=VACUUM)).road
        for z in (0.02, 0.1, 0.3, 0.6, 0.9):
            place, known = first_reach(road.decel, z)
            self.assertTrue(known.all())
            back = lookup(road.decel, place.knot, place.fraction)
            self.assertAlmostEqual(float(back.squeeze()), z, places=12)

    def test_what_rises_by_rounding_alone_does_not_go_on(self) -> None:
        curve = np.array([0.0, 7.3e6, 7.3e6 * (1 + 2e-16)])
        _, known = first_reach(curve, np.array([8e6]))
        self.assertFalse(known.any())

    def test_a_flat_curve_is_reached_at_its_start_and_never_passed(self) -> None:
        curve = np.array([0.0, 0.0, 2.0, 2.0])
        place, known = first_reach(curve, np.array([2.0, 2.1]))
        self.assertEqual(known.tolist(), [True, False])
        self.assertEqual(place.number[0], 2.0)


class Locks(unittest.TestCase):
    def lock_by_search(self, system: chain.System, load: vehicle.Load, axle: vehicle.Axle) -> float:
        """The same lock by a root finder on the push, sharing no code with the knots."""
        mass, psi, chi = (float(np.squeeze(v)) for v in (load.mass, load.front_share, load.chi))

        def forces(push: float) -> dict[str, float]:
            p = 292 / 48 * push * 0.92 * 0.95 / (np.pi * 0.0206375**2 / 4)
            found: dict[str, float] = {}
            for s in system.stations:
                out = float(valves.outlet(s.devices, p))
                brake = s.brake
                found[s.axle] = 2 * 2 * 0.38 * 0.98 * float(brake.side_area) * out * float(brake.effective_radius) / 0.2927  # type: ignore[union-attr]
            return found

        def missing(push: float) -> float:
            f = forces(push)
            z = (f["front"] + f["rear"]) / (mass * 9.80665)
            share = psi + chi * z if axle == "front" else 1 - psi - chi * z
            return f[axle] - 0.9 * mass * 9.80665 * share

        push = float(brentq(missing, 1.0, 3000.0, xtol=1e-12))
        f = forces(push)
        return (f["front"] + f["rear"]) / (mass * 9.80665)

    def test_against_a_root_finder(self) -> None:
        for devices in ((), (valves.Proportioning(3e6, 0.35),)):
            system = plain_system(rear_devices=devices)
            road = solved(system).road
            for axle in vehicle.AXLES:
                self.assertAlmostEqual(
                    float(road.locks[axle].squeeze()), self.lock_by_search(system, plain_load(), axle), places=9
                )

    def test_a_limited_front_never_locks(self) -> None:
        system = plain_system()
        front = replace(system.stations[0], devices=(valves.Limiting(1e6),))
        road = solved(replace(system, stations=(front, system.stations[1]))).road
        self.assertFalse(np.isfinite(road.locks["front"]).any())
        self.assertTrue(np.isfinite(road.locks["rear"]).all())

    def test_without_grip_to_spare_both_lock_at_the_grip_limit(self) -> None:
        system, load = plain_system(), plain_load()
        road = solved(system, load).road
        share = float((road.front[..., -1] / (road.front + road.rear)[..., -1]).squeeze())
        mu = (share - 0.49) / 0.21371  # at this grip the fixed sharing is the ideal one
        even = plain_load(grip=mu)
        case = case_of(system, even)
        self.assertTrue(case.main.healthy.event.front.all() and case.main.healthy.event.rear.all())
        self.assertAlmostEqual(float(case.main.lock_decel.squeeze()), mu, places=9)

    def test_rotating_parts_move_the_push_and_not_the_lock(self) -> None:
        still, turning = plain_load(), replace(plain_load(), rotating=0.05)
        a, b = (case_of(plain_system(), load) for load in (still, turning))
        self.assertAlmostEqual(float(a.main.lock_decel.squeeze()), float(b.main.lock_decel.squeeze()), places=12)
        heavier = float((b.main.healthy.push_at(b.main.design) / a.main.healthy.push_at(a.main.design)).squeeze())
        self.assertAlmostEqual(heavier, 1.05, places=9)

    def test_rear_lift_comes_first_on_a_tall_short_vehicle(self) -> None:
        load = plain_load(share=0.55, chi=0.7, grip=1.3)
        front_only = solved(plain_system(), load, Condition(shut={"rear": True}))
        self.assertTrue(front_only.event.lift.all())
        self.assertAlmostEqual(float(front_only.event.decel.squeeze()), 0.45 / 0.7, places=12)
        at = front_only.at(front_only.place_at(np.array([2000.0])))
        self.assertAlmostEqual(float(at.grip_decel.squeeze()), 0.45 / 0.7, places=12)
        self.assertTrue(at.rear_lifts.all() and not at.front_locked.any())

    def test_a_braked_rear_always_locks_before_it_lifts(self) -> None:
        case = case_of(plain_system(), plain_load(share=0.55, chi=0.7, grip=1.3))
        self.assertTrue(case.main.healthy.event.rear.all())
        self.assertLess(float(case.main.lock_decel.squeeze()), 0.45 / 0.7)

    def test_rear_first_at_low_grip_is_noticed_though_the_dry_road_is_good(self) -> None:
        strong = plain_system(rear_area=2280e-6, rear_devices=(valves.Proportioning(0.9e6, 0.3),))
        on_dry = solved(strong)
        some, low, _ = rear_first_grips(on_dry.road, WHEELS)
        self.assertLess(float(on_dry.road.locks["front"].squeeze()), float(on_dry.road.locks["rear"].squeeze()))
        self.assertTrue(some.all())
        self.assertLess(float(low.squeeze()), 0.3)


class PanicStops(unittest.TestCase):
    def test_before_the_lock_grip_takes_nothing_away(self) -> None:
        case = case_of(plain_system(), plain_load())
        at = case.main.healthy.at(case.main.healthy.place_at(np.array([100.0, 300.0])))
        np.testing.assert_allclose(at.decel, at.grip_decel)

    def test_both_sliding_is_the_sliding_grip(self) -> None:
        case = case_of(plain_system(), plain_load())
        at = case.main.healthy.at(case.main.healthy.place_at(np.array([3000.0])))
        self.assertTrue(at.front_locked.all() and at.rear_locked.all())
        self.assertAlmostEqual(float(at.grip_decel.squeeze()), 0.8 * 0.9, places=12)

    def test_past_first_lock_the_stop_is_worse_than_at_it(self) -> None:
        case = case_of(plain_system(), plain_load())
        lock = float(case.main.lock_decel.squeeze())
        at = case.main.healthy.at(case.main.healthy.place_at(np.array([380.0])))
        self.assertTrue(at.front_locked.all() and not at.rear_locked.any())
        self.assertLess(float(at.grip_decel.squeeze()), lock)

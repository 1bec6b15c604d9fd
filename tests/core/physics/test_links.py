"""Each link on its own: control, booster, cylinder, valves, disc, drum, and its inverse."""

import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from kobrix.core.errors import BadEntry
from kobrix.core.physics import booster, control, cylinder, disc, drum, lines, valves

FORCES = st.floats(0.0, 5000.0)
PRESSURES = st.floats(0.0, 20e6)


class ControlTest(unittest.TestCase):
    def test_rod_force_is_never_negative(self) -> None:
        self.assertEqual(float(control.rod_force(2.0, 4.0, 0.92, 18.0)), 0.0)

    @given(FORCES, st.floats(1.5, 9.0), st.floats(0.5, 1.0), st.floats(0.0, 50.0))
    def test_push_returns_from_the_rod(self, rod: float, ratio: float, efficiency: float, spring: float) -> None:
        push = control.pedal_force_for_rod(rod, ratio, efficiency, spring)
        self.assertAlmostEqual(float(control.rod_force(push, ratio, efficiency, spring)), rod, delta=1e-9 * (1 + rod))

    def test_arrays_give_what_scalars_give(self) -> None:
        forces = np.array([0.0, 10.0, 400.0])
        together = control.rod_force(forces, 6.0, 0.9, 20.0)
        self.assertEqual([float(control.rod_force(f, 6.0, 0.9, 20.0)) for f in forces], together.tolist())

    def test_pin_for_ratio_undoes_ratio(self) -> None:
        self.assertAlmostEqual(float(control.pedal_ratio(0.3, control.pin_for_ratio(0.3, 6.2))), 6.2)


class BoosterTest(unittest.TestCase):
    PARTS = (4.2, 50.0, 190.0, 1500.0)

    def test_nothing_comes_out_up_to_the_cut_in(self) -> None:
        self.assertEqual(booster.boosted(np.array([0.0, 49.0, 50.0]), *self.PARTS).tolist(), [0.0, 0.0, 0.0])
        self.assertAlmostEqual(float(booster.boosted(50.0 + 1e-9, *self.PARTS)), 240.0, places=6)

    def test_help_stops_growing_at_run_out(self) -> None:
        force, runs_out = booster.runout_force(*self.PARTS)
        self.assertTrue(bool(runs_out))
        at = booster.boosted(np.array([float(force), float(force) + 100.0]), *self.PARTS)
        self.assertAlmostEqual(float(at[1] - at[0]), 100.0)
        self.assertAlmostEqual(float(at[0] - force), 1500.0)

    def test_a_gain_of_one_never_runs_out(self) -> None:
        self.assertFalse(bool(booster.runout_force(1.0, 50.0, 0.0, 800.0)[1]))

    @given(st.floats(50.1, 3000.0), st.floats(1.0, 9.0), st.floats(0.0, 400.0), st.floats(0.0, 3000.0))
    def test_input_returns_from_output(self, rod: float, gain: float, jump: float, limit: float) -> None:
        out = booster.boosted(rod, gain, 50.0, jump, limit)
        self.assertAlmostEqual(float(booster.rod_for_boosted(out, gain, 50.0, jump, limit)), rod, delta=1e-9 * (1 + rod + limit))

    def test_inside_the_leap_the_input_is_the_cut_in(self) -> None:
        self.assertEqual(float(booster.rod_for_boosted(100.0, *self.PARTS)), 50.0)

    def test_a_failed_booster_holds_its_spring(self) -> None:
        self.assertEqual(booster.failed(np.array([100.0, 300.0]), 120.0).tolist(), [0.0, 180.0])


class CylinderTest(unittest.TestCase):
    @given(PRESSURES, st.floats(0.01, 0.04), st.floats(0.0, 80.0))
    def test_force_returns_from_pressure(self, pressure: float, bore: float, spring: float) -> None:
        area = cylinder.bore_area(bore)
        force = cylinder.force_for_pressure(pressure, area, 0.95, spring)
        self.assertAlmostEqual(float(cylinder.line_pressure(force, area, 0.95, spring)), pressure, delta=1e-9 * (1 + pressure))

    def test_bore_returns_from_area(self) -> None:
        self.assertAlmostEqual(float(cylinder.bore_for_area(cylinder.bore_area(0.0206375))), 0.0206375)


class ValvesTest(unittest.TestCase):
    CHAIN = (valves.Metering(0.4e6, 1.2e6), valves.Proportioning(3e6, 0.4), valves.Limiting(5e6))

    def test_metering_holds_then_blends(self) -> None:
        p = valves.outlet(self.CHAIN[:1], np.array([0.2e6, 0.4e6, 0.8e6, 1.2e6, 2e6]))
        np.testing.assert_allclose(p, [0.0, 0.0, 0.6e6, 1.2e6, 2e6])

    def test_in_series_slopes_multiply(self) -> None:
        two = (valves.Proportioning(2e6, 0.5), valves.Proportioning(1e6, 0.4))
        rise = float(valves.outlet(two, 4e6)) - float(valves.outlet(two, 3e6))
        self.assertAlmostEqual(rise / 1e6, 0.5 * 0.4)

    @given(st.floats(1.0, 15e6))
    def test_inlet_returns_where_the_curve_rises(self, pressure: float) -> None:
        out = float(valves.outlet(self.CHAIN[:2], pressure))
        if out > 0.0:
            self.assertAlmostEqual(float(valves.inlet(self.CHAIN[:2], out)), pressure, delta=1e-6 * pressure + 1e-3)

    def test_bends_are_named_at_the_inlet(self) -> None:
        bends = sorted(float(b) for b in valves.knees(self.CHAIN))
        np.testing.assert_allclose(bends, [0.4e6, 1.2e6, 3e6, 8e6])

    def test_a_closed_slope_has_no_second_inlet(self) -> None:
        self.assertEqual(float(valves.inlet([valves.Proportioning(2e6, 0.0)], 3e6)), 2e6)

    def test_load_sensing_settles_with_the_load_and_never_below_zero(self) -> None:
        device = valves.LoadSensing(2e6, 1e3, 4000.0, 0.3)
        knees = valves.knee_for_load(device, np.array([1000.0, 4000.0, 5000.0]))
        np.testing.assert_allclose(knees, [0.0, 2e6, 3e6])

    def test_passive_devices_leave_the_pressure(self) -> None:
        passive = (valves.Passive("residual", 70e3), valves.Passive("switch", 350e3))
        self.assertEqual(float(valves.outlet(passive, 2e6)), 2e6)
        self.assertFalse(any(map(valves.changes_pressure, passive)))


class DiscTest(unittest.TestCase):
    @given(st.floats(0.15, 0.4), st.floats(0.02, 0.06))
    def test_uniform_pressure_lies_outside_uniform_wear(self, rotor: float, pad: float) -> None:
        wear = float(disc.effective_radius(rotor, pad, 0.0015, "uniform_wear"))
        pressure = float(disc.effective_radius(rotor, pad, 0.0015, "uniform_pressure"))
        self.assertGreaterEqual(pressure, wear - 1e-12)

    def test_a_threshold_takes_its_pressure_off(self) -> None:
        self.assertEqual(float(disc.clamp_force(80e3, 1e-3, 1.0, 100e3)), 0.0)
        self.assertAlmostEqual(float(disc.clamp_force(300e3, 1e-3, 1.0, 100e3)), 200.0)

    @given(st.floats(0.02, 0.06), st.floats(0.0, 0.001))
    def test_fixed_and_floating_take_the_same_fluid(self, piston: float, gap: float) -> None:
        one_side = disc.side_area([piston, piston])
        floating = disc.side_area([piston * 2**0.5])
        self.assertAlmostEqual(float(disc.clearance_volume(one_side, gap)), float(disc.clearance_volume(floating, gap)))


class DrumTest(unittest.TestCase):
    def test_self_locking_is_refused_in_words(self) -> None:
        with self.assertRaisesRegex(BadEntry, "locks itself"):
            drum.shoe_factor("duo_servo", 0.8, 0.8)

    def test_types_in_order_of_their_help(self) -> None:
        kinds: tuple[drum.ShoeKind, ...] = ("leading_trailing", "two_leading", "duo_servo")
        factors = [float(drum.shoe_factor(kind, 0.35, 0.8)) for kind in kinds]
        self.assertEqual(factors, sorted(factors))

    def test_sensitivity_is_the_slope_of_the_factor(self) -> None:
        for kind in ("leading_trailing", "two_leading", "duo_servo"):
            mu, step = 0.37, 1e-6
            rise = float(drum.shoe_factor(kind, mu + step, 0.8)) - float(drum.shoe_factor(kind, mu - step, 0.8))
            numeric = rise / (2 * step) * mu / float(drum.shoe_factor(kind, mu, 0.8))
            self.assertAlmostEqual(float(drum.sensitivity(kind, mu, 0.8)), numeric, places=6)


class LinesTest(unittest.TestCase):
    def test_all_the_air_is_gone_at_high_pressure_and_none_at_rest(self) -> None:
        self.assertEqual(float(lines.air_volume(2e-6, 0.0)), 0.0)
        self.assertAlmostEqual(float(lines.air_volume(2e-6, 1e12)), 2e-6)
        self.assertAlmostEqual(float(lines.air_volume(2e-6, 101325.0)), 1e-6)

    def test_a_thin_tube_gives_as_the_thin_wall_formula(self) -> None:
        give = float(lines.pipe_give(0.010, 0.0001, 1.0, 200e9, 0.3))
        r = 0.00495
        thin = np.pi * r**2 * 2 / 200e9 * (r / 0.0001)
        self.assertAlmostEqual(give / thin, 1.0, delta=0.02)

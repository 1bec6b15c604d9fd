"""Worked cases and published values from outside the project, each with its source beside it."""

import unittest

import numpy as np
from kobrix.core.constants import STANDARD_BORES, G, bore_name
from kobrix.core.physics import chain, control, cylinder, disc, drum, tyres, valves, vehicle
from kobrix.core.physics.sharing import distribution_kept

from tests.cases import solved


class WorkedCases(unittest.TestCase):
    """Invented numbers, worked by hand outside the project; tolerances from the printed digits."""

    def test_1_manual_disc(self) -> None:
        rod = float(control.rod_force(400, 5.5, 1.0, 0.0))
        pressure = float(cylinder.line_pressure(rod, cylinder.bore_area(0.022225), 1.0, 0.0))
        clamp = float(disc.clamp_force(pressure, disc.side_area([0.054]), 1.0, 0.0))
        torque = float(disc.torque(clamp, 0.38, 0.112, 1))
        self.assertAlmostEqual(rod, 2200.0)
        self.assertAlmostEqual(pressure / 1e6, 5.671, places=3)
        self.assertAlmostEqual(clamp / 1e3, 12.99, places=2)
        self.assertAlmostEqual(torque, 1105.5, places=1)
        self.assertAlmostEqual(torque / 0.298, 3710, delta=0.5)

    def test_2_fixed_and_floating_alike(self) -> None:
        one_side = disc.side_area([0.0381, 0.0381])
        self.assertAlmostEqual(float(disc.clamp_force(6e6, one_side, 1.0, 0.0)) / 1e3, 13.68, places=2)
        self.assertAlmostEqual(float(disc.clearance_volume(one_side, 0.00015)) * 1e9, 684.1, places=1)
        wrong = disc.side_area([0.0381] * 4)
        self.assertAlmostEqual(float(disc.clamp_force(6e6, wrong, 1.0, 0.0)) / 1e3, 27.36, places=2)

    def test_3_proportioning(self) -> None:
        valve = [valves.Proportioning(3e6, 0.35)]
        for inlet, outlet in ((2.5, 2.5), (7.0, 4.4), (10.0, 5.45)):
            self.assertAlmostEqual(float(valves.outlet(valve, inlet * 1e6)) / 1e6, outlet, places=3)
        self.assertAlmostEqual(float(valves.inlet(valve, 4.0e6)) / 1e6, 5.857, places=3)

    def test_4_sharing_and_the_rear_curve(self) -> None:
        load = vehicle.Load(np.array([[[1200.0]]]), 1 - 1.10 / 2.45, 0.55 / 2.45, 0.8, 0.8, 0.8, 0.0)
        critical = (0.72 - (1 - 1.10 / 2.45)) / (0.55 / 2.45)
        self.assertAlmostEqual(critical, 0.7527, places=4)
        weight = 1200 * G

        def use(z: float) -> tuple[float, float]:
            front, rear = (np.array(share * z * weight) for share in (0.72, 0.28))
            return (
                float(np.squeeze(vehicle.adhesion_used(front, vehicle.axle_load(load, "front", z)))),
                float(np.squeeze(vehicle.adhesion_used(rear, vehicle.axle_load(load, "rear", z)))),
            )

        for z, front, rear in ((0.5, 0.5428, 0.4158), (0.8, 0.7884, 0.8315)):
            self.assertAlmostEqual(use(z)[0], front, places=4)
            self.assertAlmostEqual(use(z)[1], rear, places=4)
        path = solved(self.fixed_sharing(0.72), load)
        self.assertTrue(path.event.rear.all())
        self.assertAlmostEqual(float(path.event.decel.squeeze()), 0.7815, places=4)
        limit = float(vehicle.grip_limit(load, 1.0, 1.0).squeeze())
        self.assertAlmostEqual(float(path.event.decel.squeeze()) / limit, 0.9769, places=4)
        above, _ = distribution_kept(path.road)
        self.assertFalse(bool(above.squeeze()))

    def fixed_sharing(self, front: float) -> chain.System:
        """A system that shares its force as `front` to the rest, whatever the push."""
        side = disc.Disc(True, 1e-3, 1, 0.1, 0.4, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0)
        rear = disc.Disc(True, 1e-3 * (1 - front) / front, 1, 0.1, 0.4, 1.0, 0.0, 0.0, 0.0, 0.0, 0.0)
        stations = (
            chain.Station("front", "front", 2, 0.3, side, (), None),
            chain.Station("rear", "rear", 2, 0.3, rear, (), None),
        )
        chambers = tuple(cylinder.Chamber(n, 0.02, None, 0.0, 1.0, 1.0, (cylinder.Feed(n, 2),)) for n in ("front", "rear"))
        pedal = control.Control("car_pedal", 0.3, 0.06, 1.0, 0.0, 0.0, None, 0.0)
        return chain.System("s", pedal, None, cylinder.Cylinder("tandem", 1.0, 0.0, chambers), stations)

    def test_5_pivoted_shoes(self) -> None:
        lead = float(drum.pivoted_shoe_factor(0.35, 180, 90, 110, leading=True))
        trail = float(drum.pivoted_shoe_factor(0.35, 180, 90, 110, leading=False))
        self.assertAlmostEqual(lead, 1.223, places=3)
        self.assertAlmostEqual(trail, 0.4903, places=4)
        self.assertAlmostEqual(lead + trail, 1.714, delta=0.0011)
        self.assertAlmostEqual(2 * lead, 2.447, places=3)
        self.assertAlmostEqual(90 / 110, 0.818, places=3)

    def test_6_hose_growth_at_the_legal_ceiling(self) -> None:
        # FMVSS 106 table I, from memory: 1/8 in regular, cc per foot at 1000 and 1500 psi
        at = float(np.interp(7e6, [6.894757e6, 10.342136e6], [0.66, 0.79]))
        self.assertAlmostEqual(4 * 0.35 / 0.3048 * at, 3.050, places=3)


class Published(unittest.TestCase):
    def test_bore_areas(self) -> None:
        # handbook areas in mm², four figures
        for name, area in (("5/8 in", 197.9), ("3/4 in", 285.0), ("13/16 in", 334.5), ("7/8 in", 387.9), ("15/16 in", 445.3),
                           ("1 in", 506.7), ("1 1/16 in", 572.0), ("1 1/8 in", 641.3), ("1 1/4 in", 791.7)):  # fmt: skip
            size = dict(STANDARD_BORES)[name]
            self.assertAlmostEqual(float(cylinder.bore_area(size)) * 1e6, area, delta=0.06)
        self.assertAlmostEqual(float(cylinder.bore_area(0.019)) * 1e6, 283.5, places=1)

    def test_metric_names_are_the_same_sizes(self) -> None:
        # common practice: sizes sold under an inch and a metric name
        for metric, name in ((15.87, "5/8 in"), (17.46, "11/16 in"), (19.05, "3/4 in"), (20.64, "13/16 in"), (22.2, "7/8 in"),
                             (23.8, "15/16 in"), (25.4, "1 in"), (27.0, "1 1/16 in"), (28.6, "1 1/8 in"), (31.75, "1 1/4 in")):  # fmt: skip
            self.assertEqual(bore_name(metric / 1000), name)

    def test_tyre_of_the_handbook(self) -> None:
        # ETRTO, from memory: 205/55R16
        tyre = tyres.from_code("205/55R16")
        self.assertAlmostEqual(tyre.diameter * 1000, 631.9, places=1)
        self.assertAlmostEqual(tyre.rolling_radius * 2 * np.pi * 1000, 1927, delta=0.5)
        self.assertAlmostEqual(tyre.rolling_radius * 1000, 306.7, places=1)

    def test_shoe_factors_lie_in_the_usual_ranges(self) -> None:
        # handbook ranges at usual linings
        for kind, low, high in (("leading_trailing", 2.0, 2.5), ("two_leading", 2.5, 3.5), ("duo_servo", 4.0, 6.0)):
            at = [float(drum.shoe_factor(kind, mu, 0.8)) for mu in (0.32, 0.36, 0.40, 0.44)]  # type: ignore[arg-type]
            self.assertTrue(any(low <= c <= high for c in at), kind)

    def test_axle_loads_of_three_measured_cars(self) -> None:
        # open vehicle parameter sets (BSD-3): mass, front axle to CG, rear axle to CG, CG height
        from vehiclemodels import parameters_vehicle1, parameters_vehicle2, parameters_vehicle3

        sets = (
            parameters_vehicle1.parameters_vehicle1,
            parameters_vehicle2.parameters_vehicle2,
            parameters_vehicle3.parameters_vehicle3,
        )
        printed = (
            (1225.888, 0.88392, 1.50876, 0.557784),
            (1093.295, 1.156196, 1.422717, 0.574869),
            (1478.898, 1.150792, 1.321136, 0.747817),
        )
        for read, (mass, a, b, h) in zip(sets, printed, strict=True):
            car = read()
            for own, given in ((car.m, mass), (car.a, a), (car.b, b), (car.h_cg, h)):
                self.assertAlmostEqual(own, given, delta=0.0005 * given)
            load = vehicle.Load(car.m, car.b / (car.a + car.b), car.h_cg / (car.a + car.b), 1, 1, 0.8, 0)
            front = float(vehicle.axle_load(load, "front", 0.0))
            self.assertAlmostEqual(front * car.a, float(vehicle.axle_load(load, "rear", 0.0)) * car.b, places=6)
            moved = float(vehicle.axle_load(load, "front", 0.5)) - front
            self.assertAlmostEqual(moved, car.m * G * 0.5 * car.h_cg / (car.a + car.b), places=6)


class Trade(unittest.TestCase):
    """Facts of the trade: common practice, no source."""

    def test_fourteen_over_three(self) -> None:
        self.assertAlmostEqual(float(control.pedal_ratio(14, 3)), 4.67, places=2)
        self.assertAlmostEqual(float(control.pedal_ratio(14, 3 - 0.75)), 6.22, places=2)

    def test_a_smaller_bore_gives_more_pressure(self) -> None:
        ratio = float(cylinder.bore_area(1.125)) / float(cylinder.bore_area(0.875))
        self.assertAlmostEqual(ratio, 1.653, places=3)

    def test_a_38_mm_piston_for_a_31_mm_one(self) -> None:
        self.assertAlmostEqual(float(disc.side_area([0.038])) / float(disc.side_area([0.031])), 1.50, places=2)

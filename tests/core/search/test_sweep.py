"""The sweep against every combination solved alone, and the doubt against first-order propagation."""

import itertools
import unittest
from dataclasses import replace

import numpy as np
from kobrix.core.errors import Impossible
from kobrix.core.numerics import sensitivity, uncertainty
from kobrix.core.physics import disc, variants
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import System, first_reach
from kobrix.core.physics.cylinder import Chamber, Cylinder, Feed
from kobrix.core.physics.disc import Disc, with_area
from kobrix.core.physics.paths import solve_path
from kobrix.core.search import sweep
from kobrix.core.search.sweep import Choices
from uncertainties import ufloat

from tests.cases import WHEELS, plain_load, plain_system

VACUUM = Booster("vacuum", 4.2, 50.0, 190.0, 1500.0, 0.0012, 120.0)
CHOICES = Choices(
    bores=np.array([0.0190, 0.0206, 0.0238]), ratios=np.array([4.5, 6.1]), rear_areas=np.array([7e-4, 1.0e-3, 1.9e-3]),
    front_radii=np.array([0.105, 0.1165]), knees=np.array([1.2e6, 3e6, 9e6]), slope=0.35,
)  # fmt: skip


def alone(base: System, bore: float, ratio: float, area: float, radius: float, knee: float) -> System:
    """One combination as a system of its own."""
    system = variants.with_knee(variants.with_bore(base, bore), knee, 0.35)
    stations = []
    for station in system.stations:
        brake = station.brake
        assert isinstance(brake, Disc)
        changed = with_area(brake, area) if station.axle == "rear" else replace(brake, effective_radius=radius)
        stations.append(replace(station, brake=changed))
    control = replace(system.control, pivot_to_pin=system.control.pivot_to_pad / ratio)
    return replace(system, stations=tuple(stations), control=control)


class Sweep(unittest.TestCase):
    def check(self, base: System) -> None:
        load = plain_load(mass=1310.0)
        two = replace(load, mass=np.array([1310.0, 1560.0])[:, None, None], front_share=np.array([0.49, 0.44])[:, None, None],
                      chi=np.array([0.2137, 0.2217])[:, None, None])  # fmt: skip
        grid = sweep.sweep(base, two, WHEELS, CHOICES, 0.55)
        assert CHOICES.bores is not None and CHOICES.ratios is not None and CHOICES.rear_areas is not None
        assert CHOICES.front_radii is not None and CHOICES.knees is not None
        lists = (CHOICES.bores, CHOICES.ratios, CHOICES.rear_areas, CHOICES.front_radii, CHOICES.knees)
        for at in itertools.product(*(range(v.size) for v in lists)):
            path = solve_path("x", [(alone(base, *(float(v[i]) for v, i in zip(lists, at, strict=True))), 1.0)], two, WHEELS)
            place, known = first_reach(path.road.decel, 0.55)
            self.assertTrue(known.all())
            b, r, a, f, k = at
            behind = (0, a, f, 0, k)
            self.assertAlmostEqual(float(path.push_at(place).max()) / float(grid.effort[(b, r, *behind)]), 1.0, places=9)
            pad = float(path.pulls[0].pedal.pad_at(place).max())
            self.assertAlmostEqual(pad / float(grid.travel[(b, r, *behind)]), 1.0, places=9)
            moment = path.at(place)
            share = float((moment.front / (moment.front + moment.rear)).min())
            self.assertAlmostEqual(share, float(grid.front_share[behind]), places=9)
            first = bool((path.road.locks["front"] < path.road.locks["rear"]).all())
            self.assertEqual(first, bool(grid.front_first[behind]))

    def test_every_combination_alone_gives_the_same(self) -> None:
        self.check(plain_system())

    def test_with_a_booster_and_a_yielding_mount(self) -> None:
        base = plain_system(booster=VACUUM)
        self.check(replace(base, control=replace(base.control, mount_give=1 / 4e6, return_force=18.0)))

    def test_it_counts_and_refuses_what_it_cannot_lay_out(self) -> None:
        self.assertEqual(sweep.count(CHOICES), 3 * 2 * 3 * 2 * 3)
        chambers = tuple(Chamber(n, 0.019, 0.028, 0.001, 0.5, 0.5, (Feed(n, 2),)) for n in ("front", "rear"))
        twin = replace(plain_system(), cylinder=Cylinder("twin", 0.95, 0.0, chambers))
        with self.assertRaisesRegex(Impossible, "one by one"):
            sweep.sweep(twin, plain_load(), WHEELS, CHOICES, 0.5)

    def test_a_stop_out_of_reach_is_masked_and_nothing_is_nan(self) -> None:
        flat = Choices(knees=np.array([0.2e6, 3e6]), slope=0.0)
        grid = sweep.sweep(plain_system(rear_area=9e-3), plain_load(), WHEELS, flat, 5.0)
        self.assertTrue(np.isfinite(grid.effort).all() and np.isfinite(grid.travel).all())


class Doubt(unittest.TestCase):
    def test_torque_against_uncertainties(self) -> None:
        """T = 2µpAr, µ .38±.02, p 6.0±.15 MPa, A 2290 mm², r 112±1 mm: relative s = 0.0589475."""
        mu, p, r = ufloat(0.38, 0.02), ufloat(6.0e6, 0.15e6), ufloat(0.112, 0.001)
        known = 2 * mu * p * 2290e-6 * r
        relative = known.std_dev / known.nominal_value
        self.assertAlmostEqual(relative, 0.0589475, places=7)
        drawn = uncertainty.draws(
            {"mu": 0.38, "p": 6.0e6, "r": 0.112}, {"mu": 0.02, "p": 0.15e6, "r": 0.001}, 200_000, 3, "normal"
        )
        torque = np.asarray(disc.torque(disc.clamp_force(drawn["p"], 2290e-6, 1.0, 0.0), drawn["mu"], drawn["r"], 1))
        spread = uncertainty.spread(torque)
        four = 4 / np.sqrt(2 * 200_000)
        self.assertAlmostEqual(spread.sd / known.nominal_value, relative, delta=relative * (four + 0.003))
        slopes = {"mu": known.nominal_value / 0.38, "p": known.nominal_value / 6.0e6, "r": known.nominal_value / 0.112}
        first = sensitivity.first_order(slopes, {"mu": 0.02, "p": 0.15e6, "r": 0.001})
        self.assertAlmostEqual(first, known.std_dev, places=9)

    def test_the_same_seed_the_same_draws_and_a_uniform_stays_inside(self) -> None:
        a, b = (uncertainty.draws({"x": 5.0}, {"x": 0.5}, 1000, 7, "uniform")["x"] for _ in range(2))
        np.testing.assert_array_equal(a, b)
        self.assertTrue((np.abs(a - 5.0) <= 0.5).all())
        self.assertAlmostEqual(uncertainty.standard_deviation(0.5, "uniform"), 0.5 / np.sqrt(3))

    def test_rank_of_what_never_changes_is_nothing(self) -> None:
        self.assertEqual(sensitivity.rank(np.ones(5), np.arange(5.0)), 0.0)
        self.assertAlmostEqual(sensitivity.rank(np.arange(5.0), -np.arange(5.0)), -1.0, places=12)


class Lost(unittest.TestCase):
    def test_a_lost_booster_leaves_its_spring_to_be_pushed(self) -> None:
        help_ = Booster("vacuum", 4.0, 40.0, 60.0, 2500.0, 0.001, 120.0)
        self.assertEqual(list(sweep.rod_for(help_, np.array([100.0, 900.0]), lost=True)), [220.0, 1020.0])
        self.assertEqual(list(sweep.rod_for(None, np.array([100.0]), lost=True)), [100.0])


if __name__ == "__main__":
    unittest.main()

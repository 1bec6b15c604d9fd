"""What each part of a line swallows, by hand; and what the sum does when one thing changes."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.physics import lines
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import Station, System
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.drum import Drum
from kobrix.core.physics.lines import Lines
from kobrix.core.physics.travel import swallowed

from tests.cases import plain_disc, plain_system, solved

DRY = Lines(0.0, 0.0, 0.0, 0.0, 1.8e9, 0.0)
A = np.pi * 0.0206375**2 / 4
I = 292 / 48  # noqa: E741


def pad(system: System, push: float) -> float:
    """Pad travel at a push [m]."""
    path = solved(system)
    return float(path.pulls[0].pedal.pad_at(path.place_at(push)).squeeze())


def pressure(push: float) -> float:
    """Line pressure of the plain car [Pa]."""
    return I * push * 0.92 * 0.95 / A


class ByHand(unittest.TestCase):
    def test_a_disc(self) -> None:
        brake = replace(plain_disc(area=2000e-6), clearance=0.0001, knock_back=0.0002, calipers=2)
        taken = swallowed(Station("front", "front", 2, 0.3, brake, (), DRY))
        self.assertAlmostEqual(float(taken["clearance"][0]), 2 * 2 * 2 * 2000e-6 * 0.0001, places=15)
        self.assertAlmostEqual(float(taken["knock_back"][0]), 2 * 2 * 2 * 2000e-6 * 0.0002, places=15)
        self.assertAlmostEqual(float(taken["caliper"][1]) * 1e12, 2 * 2 * 2 * 2000e-6 * 7.5, places=12)
        self.assertAlmostEqual(float(taken["pads"][1]) * 1e12, 2 * 2 * 2 * 2000e-6 * 8.0, places=12)

    def test_a_drum(self) -> None:
        brake = Drum(285e-6, 0.1, 2.0, None, 0.96, 300e3, 0.0005, 0.1e-12)
        taken = swallowed(Station("rear", "rear", 2, 0.3, brake, (), DRY))
        self.assertAlmostEqual(float(taken["shoes"][0]), 2 * 2 * 285e-6 * 0.0005, places=15)
        self.assertAlmostEqual(float(taken["drum"][1]) * 1e12, 2 * 0.1, places=12)

    def test_hoses_pipe_and_fluid_are_the_stations_own_totals(self) -> None:
        own = Lines(lines.hose_give(0.12e-12, 0.4, 2), 0.0, 0.001e-12, 90e-6, 1.8e9, 0.0)
        for wheels in (1, 2):
            taken = swallowed(Station("front", "front", wheels, 0.3, plain_disc(), (), own))
            self.assertAlmostEqual(float(taken["hose"][1]) * 1e12, 0.096, places=12)
            self.assertAlmostEqual(float(taken["hard_line"][1]) * 1e12, 0.001, places=12)
            self.assertAlmostEqual(float(taken["fluid"][1]) * 1e12, 90e-6 / 1.8e9 * 1e12, places=12)

    def test_the_whole_pedal_of_the_plain_car(self) -> None:
        p, push = pressure(300.0), 300.0
        front = 4 * 2280e-6 * (0.00012 + (7.5e-12 + 8e-12) * p)
        rear = 4 * 1017.9e-6 * (0.00012 + (7.5e-12 + 8e-12) * p)
        line = 2 * (0.048e-12 + 0.0003e-12 + 100e-6 / 1.8e9) * p
        self.assertAlmostEqual(pad(plain_system(), push), 0.005 + I * (0.0024 + (front + rear + line) / A), places=12)

    def test_a_booster_that_loses_travel_and_a_mount_that_yields(self) -> None:
        help_ = Booster("vacuum", 1.0, 0.0, 0.0, 0.0, 0.002, 0.0)
        helped = replace(plain_system(), booster=help_)
        self.assertAlmostEqual(pad(helped, 200.0) - pad(plain_system(), 200.0), 0.002 * I, places=12)
        soft = replace(plain_system(), control=replace(plain_system().control, mount_give=1 / 4e6))
        rod = I * 200.0 * 0.92
        self.assertAlmostEqual(pad(soft, 200.0) - pad(plain_system(), 200.0), rod / 4e6 * I, places=12)


class WhenOneThingChanges(unittest.TestCase):
    @settings(max_examples=30, deadline=None)
    @given(st.floats(50.0, 450.0), st.floats(1.05, 1.6))
    def test_a_shorter_pin_distance_is_a_longer_and_lighter_pedal(self, push: float, more: float) -> None:
        near = replace(plain_system(), control=replace(plain_system().control, pivot_to_pin=0.048 / more))
        self.assertGreater(pad(near, push), pad(plain_system(), push))
        a, b = (float(solved(s).at(solved(s).place_at(push)).decel.squeeze()) for s in (plain_system(), near))
        self.assertAlmostEqual(b / a, more, places=9)

    @settings(max_examples=30, deadline=None)
    @given(st.floats(50.0, 450.0), st.floats(0.0, 3e-6))
    def test_air_only_makes_it_longer(self, push: float, air: float) -> None:
        self.assertGreaterEqual(pad(plain_system(air=air), push), pad(plain_system(), push))
        a, b = (solved(s) for s in (plain_system(), plain_system(air=air)))
        self.assertEqual(float(a.at(a.place_at(push)).decel.squeeze()), float(b.at(b.place_at(push)).decel.squeeze()))

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.0, 600.0), st.floats(0.0, 600.0))
    def test_a_harder_push_never_shortens_the_travel(self, one: float, other: float) -> None:
        low, high = sorted((one, other))
        self.assertLessEqual(pad(plain_system(air=1e-6), low), pad(plain_system(air=1e-6), high) + 1e-15)

    def test_no_loss_no_give_no_travel_but_the_strokes(self) -> None:
        rigid = []
        for station in plain_system().stations:
            assert isinstance(station.brake, Disc)
            brake = replace(station.brake, clearance=0.0, caliper_give=0.0, pad_give=0.0)
            rigid.append(replace(station, brake=brake, lines=DRY))
        self.assertAlmostEqual(pad(replace(plain_system(), stations=tuple(rigid)), 300.0), 0.005 + I * 0.0024, places=12)


if __name__ == "__main__":
    unittest.main()

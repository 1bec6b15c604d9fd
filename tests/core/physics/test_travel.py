"""Pedal travel by cause, what is left in failures, against hand sums."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Number
from kobrix.core.physics import chain, pedal, travel
from kobrix.core.physics.chain import Condition, follow
from kobrix.core.physics.failures import LIMITS, Left
from kobrix.core.physics.pedal import Pedal

from tests.cases import case_of, plain_system

A = np.pi * 0.0206375**2 / 4
I = 292 / 48  # noqa: E741


def pedal_of(system: chain.System) -> Pedal:
    line = follow(system)
    return Pedal(line, travel.along(line))


def pad_at(system: chain.System, push: float) -> float:
    known = pedal_of(system)
    return float(known.pad_at(known.place_at(push)).squeeze())


class Causes(unittest.TestCase):
    def test_clearance_by_hand(self) -> None:
        known = pedal_of(plain_system())
        front = float(known.causes_at(known.place_at(341.0))["front", "clearance"].squeeze())
        self.assertAlmostEqual(front, 2 * 2 * 2280e-6 * 0.00012 / A * I, places=12)

    def test_causes_sum_to_the_pad_and_the_piston(self) -> None:
        known = pedal_of(plain_system(air=1e-6))
        place = known.place_at(200.0)
        whole = float(np.sum([v.squeeze() for v in known.causes_at(place).values()]))
        self.assertAlmostEqual(whole, float(known.pad_at(place).squeeze()), places=12)
        assert known.travel is not None
        self.assertAlmostEqual((whole - 0.005) / I, float(known.travel.piston.at(place).squeeze()), places=12)

    def test_nothing_pressed_nothing_travels(self) -> None:
        self.assertEqual(pad_at(plain_system(), 0.0), 0.0)

    def test_the_smallest_push_takes_all_clearance(self) -> None:
        known = pedal_of(plain_system())
        _, contact = known.contact()
        self.assertAlmostEqual(pad_at(plain_system(), 1e-9), float(contact.squeeze()), places=9)
        self.assertGreater(float(contact.squeeze()), 0.04)

    def test_air_needs_more_travel_the_less_the_harder_the_push(self) -> None:
        pads = [pad_at(plain_system(air=2e-6), push) - pad_at(plain_system(), push) for push in (50.0, 300.0)]
        self.assertLess(pads[0], pads[1])
        self.assertLess(pads[1], 2 * 2e-6 / A * I)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(0.05, 0.3), st.floats(0.0, 5e-6))
    def test_the_push_at_a_travel_gives_that_travel_back(self, wanted: float, air: float) -> None:
        known = pedal_of(plain_system(air=air))
        place, ok = known.reach_pad(np.array([wanted]))
        self.assertTrue(ok.all())
        _, contact = known.contact()
        if wanted > float(contact.squeeze()):
            self.assertAlmostEqual(float(known.pad_at(place).squeeze()), wanted, places=11)

    def test_unknown_lines_are_an_impossible_question(self) -> None:
        system = plain_system()
        bare = replace(system, stations=tuple(replace(s, lines=None) for s in system.stations))
        with self.assertRaisesRegex(Impossible, "lines are not known"):
            travel.along(follow(bare))

    def test_stiffness_is_the_slope_of_the_push(self) -> None:
        known = pedal_of(plain_system(air=1e-6))
        near = known.pad_at(known.place_at(np.array([249.99, 250.01]))).squeeze()
        slope = float(known.stiffness(known.place_at(250.0)).squeeze())
        self.assertAlmostEqual(slope / (0.02 / float(near[1] - near[0])), 1.0, places=5)

    def test_trapped_air_is_found_again(self) -> None:
        push, air = 200.0, 1.5e-6
        system = plain_system()
        front = replace(system.stations[0], lines=replace(system.stations[0].lines, air=air))  # type: ignore[type-var]
        missing = pad_at(replace(system, stations=(front, system.stations[1])), push) - pad_at(system, push)
        pressure = I * push * 0.92 * 0.95 / A
        self.assertAlmostEqual(float(travel.trapped_air(missing, pressure, A, I)) * 1e6, air * 1e6, places=9)
        self.assertEqual(float(travel.trapped_air(-0.01, pressure, A, I)), 0.0)

    def test_bottoming_and_the_pin_window_agree(self) -> None:
        least = float(pedal.pin_window(0.292, 0.030, 0.001, 0.150, 0.005))
        moved = replace(plain_system().control, pivot_to_pin=least)
        self.assertAlmostEqual(float(pedal.bottoming(moved, 0.030, 0.001)), 0.150, places=12)


class WhatIsLeft(unittest.TestCase):
    def lost(self, system: chain.System) -> Left:
        alive: dict[str, Number] = {"front": np.array([[1.0], [0.0], [1.0]]), "rear": np.array([[1.0], [1.0], [0.0]])}
        found = case_of(system, condition=Condition(alive=alive), names=("healthy", "lost_front", "lost_rear")).main.left
        assert found is not None
        return found

    def test_a_lost_chamber_runs_its_whole_stroke(self) -> None:
        found = self.lost(plain_system())
        rear_alone = 0.005 + I * (0.015 + 0.0012 + 2 * 2 * 1017.9e-6 * 0.00012 / A)
        self.assertAlmostEqual(float(found.pulls["service"].contact[0, 1]), rear_alone, places=9)

    def test_the_floor_ends_the_push_and_the_travel_there_is_the_room(self) -> None:
        found = self.lost(plain_system())
        self.assertEqual(LIMITS[int(found.limited[0, 2])], "travel")
        self.assertAlmostEqual(float(found.pulls["service"].pad[0, 2]), 0.150, places=9)
        self.assertLess(float(found.push[0, 2]), 500.0)

    def test_contact_beyond_the_floor_is_no_brake(self) -> None:
        system = plain_system()
        found = self.lost(replace(system, control=replace(system.control, available=0.080)))
        self.assertEqual([LIMITS[int(i)] for i in found.limited[0, 1:]], ["contact", "contact"])

    def test_a_chamber_is_spent_by_much_air(self) -> None:
        system = plain_system(air=6e-6)
        system = replace(system, control=replace(system.control, available=0.400))
        found = case_of(system).main.left
        assert found is not None
        self.assertEqual(LIMITS[int(found.limited.squeeze())], "chamber")

    def test_best_is_just_before_a_lock_when_the_push_goes_past_it(self) -> None:
        case = case_of(plain_system(), limit=450.0)
        left = case.main.left
        assert left is not None
        self.assertAlmostEqual(float(left.best.squeeze()), float(case.main.lock_decel.squeeze()), places=12)
        self.assertLess(float(left.moment.grip_decel.squeeze()), float(left.best.squeeze()))

"""Pedal travel by cause, what is left in failures, against hand sums."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core import chain, travel
from kobrix.core.arrays import Number
from kobrix.core.case import solve
from kobrix.core.chain import Condition, follow, place_at
from kobrix.core.errors import Impossible
from kobrix.core.failures import LIMITS, Left

from tests.cases import WHEELS, plain_load, plain_system

A = np.pi * 0.0206375**2 / 4
I = 292 / 48  # noqa: E741


def at_push(system: chain.System, push: float) -> tuple[travel.Travel, chain.Place]:
    line = follow(system)
    return travel.along(line), place_at(line, np.array([push]))


class Causes(unittest.TestCase):
    def test_clearance_by_hand(self) -> None:
        known, place = at_push(plain_system(), 341.0)
        front = known.causes["front", "clearance"].at(place)[0]
        self.assertAlmostEqual(front, 2 * 2 * 2280e-6 * 0.00012 / A * I, places=12)

    def test_causes_sum_to_the_pad_and_the_piston(self) -> None:
        known, place = at_push(plain_system(air=1e-6), 200.0)
        whole = sum(float(curve.at(place)[0]) for curve in known.causes.values())
        self.assertAlmostEqual(whole, float(known.pad.at(place)[0]), places=12)
        piston = (whole - 0.005) / I
        self.assertAlmostEqual(piston, float(known.piston.at(place)[0]), places=12)

    def test_nothing_pressed_nothing_travels(self) -> None:
        known, place = at_push(plain_system(), 0.0)
        self.assertEqual(float(known.pad.at(place)[0]), 0.0)

    def test_the_smallest_push_takes_all_clearance(self) -> None:
        known, place = at_push(plain_system(), 1e-9)
        _, contact = known.contact()
        self.assertAlmostEqual(float(known.pad.at(place)[0]), float(contact), places=9)
        self.assertGreater(float(contact), 0.04)

    def test_air_needs_more_travel_the_less_the_harder_the_push(self) -> None:
        pads = []
        for push in (50.0, 300.0):
            dry, place = at_push(plain_system(), push)
            wet, _ = at_push(plain_system(air=2e-6), push)
            pads.append(float(wet.pad.at(place)[0] - dry.pad.at(place)[0]))
        self.assertLess(pads[0], pads[1])
        self.assertLess(pads[1], 2 * 2e-6 / A * I)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(0.05, 0.3), st.floats(0.0, 5e-6))
    def test_the_push_at_a_travel_gives_that_travel_back(self, wanted: float, air: float) -> None:
        known = travel.along(follow(plain_system(air=air)))
        place, ok = travel.reach(known.pad, np.array([wanted]))
        self.assertTrue(ok.all())
        _, contact = known.contact()
        if wanted > float(contact):
            self.assertAlmostEqual(float(known.pad.at(place)[0]), wanted, places=11)

    def test_unknown_lines_are_an_impossible_question(self) -> None:
        system = plain_system()
        bare = replace(system, stations=tuple(replace(s, lines=None) for s in system.stations))
        with self.assertRaisesRegex(Impossible, "lines are not known"):
            travel.along(follow(bare))

    def test_stiffness_is_the_slope_of_the_push(self) -> None:
        line = follow(plain_system(air=1e-6))
        known = travel.along(line)
        place = place_at(line, np.array([250.0]))
        near = known.pad.at(place_at(line, np.array([249.99, 250.01])))
        self.assertAlmostEqual(float(travel.stiffness(line, known, place)[0]) / (0.02 / (near[1] - near[0])), 1.0, places=5)

    def test_trapped_air_is_found_again(self) -> None:
        push, air = 200.0, 1.5e-6
        clean, place = at_push(plain_system(), push)
        system = plain_system()
        front = replace(system.stations[0], lines=replace(system.stations[0].lines, air=air))  # type: ignore[type-var]
        spongy, _ = at_push(replace(system, stations=(front, system.stations[1])), push)
        missing = float(spongy.pad.at(place)[0] - clean.pad.at(place)[0])
        pressure = I * push * 0.92 * 0.95 / A
        self.assertAlmostEqual(float(travel.trapped_air(missing, pressure, A, I)) * 1e6, air * 1e6, places=9)
        self.assertEqual(float(travel.trapped_air(-0.01, pressure, A, I)), 0.0)

    def test_bottoming_and_the_pin_window_agree(self) -> None:
        least = float(travel.pin_window(0.292, 0.030, 0.001, 0.150, 0.005))
        self.assertAlmostEqual(float(travel.bottoming(0.030, 0.001, 0.292 / least, 0.005)), 0.150, places=12)


class WhatIsLeft(unittest.TestCase):
    def left(self, system: chain.System, names: tuple[str, ...], condition: Condition, limit: float = 500.0) -> Left:
        found = solve(system, plain_load(), WHEELS, names, condition, {}, limit).left
        assert found is not None
        return found

    def lost(self, system: chain.System) -> Left:
        alive: dict[str, Number] = {"front": np.array([[0.0], [1.0]]), "rear": np.array([[1.0], [0.0]])}
        return self.left(system, ("lost_front", "lost_rear"), Condition(alive=alive))

    def test_a_lost_chamber_runs_its_whole_stroke(self) -> None:
        found = self.lost(plain_system())
        rear_alone = 0.005 + I * (0.015 + 0.0012 + 2 * 2 * 1017.9e-6 * 0.00012 / A)
        self.assertAlmostEqual(float(found.contact[0, 0]), rear_alone, places=9)

    def test_the_floor_ends_the_push_and_the_travel_there_is_the_room(self) -> None:
        found = self.lost(plain_system())
        self.assertEqual(LIMITS[int(found.limited[0, 1])], "travel")
        self.assertAlmostEqual(float(found.pad[0, 1]), 0.150, places=9)
        self.assertLess(float(found.push[0, 1]), 500.0)

    def test_contact_beyond_the_floor_is_no_brake(self) -> None:
        system = plain_system()
        found = self.lost(replace(system, control=replace(system.control, available=0.080)))
        self.assertEqual([LIMITS[int(i)] for i in found.limited[0]], ["contact", "contact"])

    def test_a_chamber_is_spent_by_much_air(self) -> None:
        system = plain_system(air=6e-6)
        system = replace(system, control=replace(system.control, available=0.400))
        found = self.left(system, ("as it is",), Condition(booster_lost=np.array([[False]])))
        self.assertEqual(LIMITS[int(found.limited.squeeze())], "chamber")

    def test_best_is_just_before_a_lock_when_the_push_goes_past_it(self) -> None:
        case = solve(plain_system(), plain_load(), WHEELS, ("none",), Condition(booster_lost=np.array([[False]])), {}, 450.0)
        assert case.left is not None
        self.assertAlmostEqual(float(case.left.best.squeeze()), float(case.lock_decel.squeeze()), places=12)
        self.assertLess(float(case.left.moment.grip_decel.squeeze()), float(case.left.best.squeeze()))

"""The linkage against a slider-crank solved by search, and the pedal that works through it."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.physics import linkage
from kobrix.core.physics.chain import System, follow, whole_stroke
from kobrix.core.physics.linkage import Linkage
from kobrix.core.physics.pedal import Pedal, bottoming
from kobrix.core.physics.travel import along
from scipy.optimize import brentq

from tests.cases import plain_system, solved

# The pin hangs below the pivot and swings forward; the bore runs forward, a little low, so the rod is never quite in line.
LINK = Linkage(0.048, np.radians(-98.0), 1.0, (0.10, -0.052), 0.0, 0.115)


def socket_by_search(link: Linkage, angle: float) -> float:
    """Where on the bore's axis a point stands a rod's length ahead of the pin, by a root finder."""
    rod = float(link.rod)
    pin = np.array([link.radius * np.cos(angle), link.radius * np.sin(angle)])
    along_axis = np.array([np.cos(link.direction), np.sin(link.direction)])
    point = np.array(link.point, dtype=float)
    near = float((pin - point) @ along_axis)
    return float(brentq(lambda s: float(np.linalg.norm(point + s * along_axis - pin)) - rod, near, near + 1.0, xtol=1e-15))


def linked(mount: float = 0.0) -> System:
    """The plain car with the linkage in its pedal."""
    system = plain_system()
    return replace(system, control=replace(system.control, linkage=LINK, mount_give=mount, efficiency=1.0))


class Geometry(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(0.0, 0.8))
    def test_socket_and_angle_against_a_root_finder(self, swing: float) -> None:
        angle = LINK.rest + swing
        found = socket_by_search(LINK, float(angle))
        self.assertAlmostEqual(float(linkage.socket(LINK, angle)), found, places=12)
        stroke = found - float(linkage.socket(LINK, LINK.rest))
        self.assertAlmostEqual(float(linkage.angle_at(LINK, stroke)), float(angle), places=9)
        self.assertAlmostEqual(float(linkage.arc_and_ratio(LINK, 0.292, stroke)[0]), 0.292 * swing, places=9)

    def test_the_pad_goes_its_arc_to_the_end_of_the_stroke(self) -> None:
        control = replace(linked().control, free_play=0.004)
        stroke = socket_by_search(LINK, float(LINK.rest) + 0.5) - socket_by_search(LINK, float(LINK.rest))
        far = float(control.pivot_to_pad) * 0.5
        self.assertAlmostEqual(float(bottoming(control, stroke, 0.0)), far + 0.004, places=9)
        step = 1e-6  # what the booster loses at the rod is multiplied by the ratio there: the slope of the arc
        after = brentq(
            lambda turn: (
                socket_by_search(LINK, float(LINK.rest) + turn) - socket_by_search(LINK, float(LINK.rest)) - stroke - step
            ),
            0.4,
            0.6,
        )
        slope = float(control.pivot_to_pad) * (float(after) - 0.5) / step
        self.assertAlmostEqual(float(bottoming(control, stroke, 0.002)), far + 0.004 + 0.002 * slope, places=6)

    def test_the_ratio_is_the_slope_of_the_searched_stroke(self) -> None:
        for swing in (0.0, 0.2, 0.5, 0.7):
            angle, h = float(LINK.rest) + swing, 1e-5
            slope = (socket_by_search(LINK, angle + h) - socket_by_search(LINK, angle - h)) / (2 * h)
            stroke = socket_by_search(LINK, angle) - socket_by_search(LINK, float(LINK.rest))
            self.assertAlmostEqual(float(linkage.ratio_at(LINK, 0.292, stroke)), 0.292 / slope, places=5)

    def test_the_rod_angle_is_seen_from_the_pin(self) -> None:
        stroke = 0.012
        angle = float(linkage.angle_at(LINK, stroke))
        across = LINK.radius * np.sin(angle) - LINK.point[1]
        self.assertAlmostEqual(float(linkage.rod_angle(LINK, stroke)), abs(float(np.arcsin(across / LINK.rod))), places=12)

    def test_a_rod_that_does_not_reach_and_a_wrong_sense_are_told(self) -> None:
        self.assertTrue(linkage.reachable(LINK))
        self.assertFalse(linkage.reachable(replace(LINK, rod=0.001, point=(0.1, 0.2))))
        self.assertFalse(linkage.reachable(replace(LINK, sense=-1.0)))


class ThePedal(unittest.TestCase):
    def setUp(self) -> None:
        line = follow(linked())
        self.pedal = Pedal(line, along(line))

    def test_a_push_comes_back_from_its_place(self) -> None:
        for push in (20.0, 120.0, 341.0, 600.0):
            place = self.pedal.place_at(push)
            self.assertAlmostEqual(float(self.pedal.push_at(place).squeeze()), push, places=6)

    def test_no_push_is_no_travel_and_more_than_there_is_is_the_most(self) -> None:
        self.assertEqual(float(self.pedal.place_at(0.0).number.squeeze()), 0.0)
        self.assertEqual(float(self.pedal.pad_at(self.pedal.place_at(0.0)).squeeze()), 0.0)
        self.assertTrue(np.isfinite(self.pedal.pad_at(self.pedal.place_at(1e9))).all())

    def test_a_push_that_takes_the_piston_past_its_stroke_is_not_balanced(self) -> None:
        stroke = whole_stroke(self.pedal.line.system)
        assert stroke is not None
        assert self.pedal.travel is not None
        pushes = np.linspace(50.0, 4000.0, 80)
        place, known = self.pedal.balance(pushes)
        inside = self.pedal.travel.piston.at(place).squeeze() <= stroke
        np.testing.assert_array_equal(known.squeeze(), inside)
        self.assertEqual((bool(inside[0]), bool(inside[-1])), (True, False))

    def test_a_travel_comes_back_from_its_place(self) -> None:
        for wanted in (0.06, 0.09, 0.11):
            place, ok = self.pedal.reach_pad(np.array([wanted]))
            self.assertTrue(ok.all())
            self.assertAlmostEqual(float(self.pedal.pad_at(place).squeeze()), wanted, places=9)

    def test_work_at_the_pad_is_work_at_the_rod(self) -> None:
        """Without friction the push over the arc does what the rod does over the stroke: virtual work, after contact."""
        assert self.pedal.travel is not None
        pushes = np.linspace(1.0, 400.0, 4001)
        place = self.pedal.place_at(pushes)
        arc = self.pedal.pad_at(place).squeeze()
        stroke = self.pedal.travel.piston.at(place).squeeze()
        rod = self.pedal.ratio_at(place) * pushes
        at_pad = np.sum((pushes[1:] + pushes[:-1]) / 2 * np.diff(arc))
        at_rod = np.sum((np.squeeze(rod)[1:] + np.squeeze(rod)[:-1]) / 2 * np.diff(stroke))
        self.assertAlmostEqual(at_pad / at_rod, 1.0, places=6)

    def test_causes_sum_to_the_arc(self) -> None:
        place = self.pedal.place_at(300.0)
        causes = self.pedal.causes_at(place)
        assert self.pedal.travel is not None
        stroke = float(self.pedal.travel.piston.at(place).squeeze())
        arc = float(linkage.arc_and_ratio(LINK, 0.292, stroke)[0])
        self.assertAlmostEqual(float(np.sum([v.squeeze() for v in causes.values()])), arc + 0.005, places=12)

    def test_stiffness_is_the_slope_of_the_push(self) -> None:
        near = self.pedal.pad_at(self.pedal.place_at(np.array([249.9, 250.1]))).squeeze()
        slope = float(self.pedal.stiffness(self.pedal.place_at(250.0)).squeeze())
        self.assertAlmostEqual(slope / (0.2 / float(near[1] - near[0])), 1.0, places=4)

    def test_locks_do_not_know_the_pedal(self) -> None:
        straight = solved(plain_system())
        bent = solved(linked())
        np.testing.assert_allclose(bent.event.decel, straight.event.decel, rtol=1e-12)


if __name__ == "__main__":
    unittest.main()

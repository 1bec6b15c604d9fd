"""Inverse questions: what is answered is put in, and the forward chain gives the question back."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.errors import Impossible
from kobrix.core.physics import inverse, valves, variants
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import System, first_reach
from kobrix.core.physics.cylinder import Chamber, Cylinder, Feed
from kobrix.core.physics.disc import Disc, with_area
from kobrix.core.physics.linkage import Linkage

from tests.cases import WHEELS, case_of, plain_load, plain_system, solved

VACUUM = Booster("vacuum", 4.2, 50.0, 190.0, 1500.0, 0.0012, 120.0)
VALVE = (valves.Proportioning(2.5e6, 0.35),)
LINK = Linkage(0.048, np.radians(-98.0), 1.0, (0.10, -0.052), 0.0, 0.115)


def push_for(system: System, decel: float) -> float:
    """The push that gives a deceleration, forward."""
    path = solved(system)
    place, known = first_reach(path.road.decel, decel)
    assert known.all()
    return float(path.push_at(place).squeeze())


def share_at(system: System, decel: float) -> float:
    """Front share of the braking at a deceleration, forward."""
    path = solved(system)
    place, _ = first_reach(path.road.decel, decel)
    at = path.at(place)
    return float((at.front / (at.front + at.rear)).squeeze())


class Effort(unittest.TestCase):
    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.2, 0.8), st.floats(60.0, 600.0), st.booleans(), st.booleans())
    def test_bore_and_ratio(self, decel: float, effort: float, helped: bool, valved: bool) -> None:
        system = plain_system(rear_devices=VALVE if valved else (), booster=VACUUM if helped else None)
        bore = inverse.bore_for_effort(solved(system), WHEELS, 0, decel, effort)
        self.assertAlmostEqual(push_for(variants.with_bore(system, bore), decel) / effort, 1.0, places=9)
        ratio, pin = inverse.ratio_for_effort(solved(system), 0, decel, effort)
        moved = replace(system, control=replace(system.control, pivot_to_pin=pin))
        self.assertAlmostEqual(push_for(moved, decel) / effort, 1.0, places=9)
        self.assertAlmostEqual(0.292 / pin, ratio, places=12)

    def test_a_bore_under_a_linkage_is_found_by_search(self) -> None:
        system = plain_system()
        system = replace(system, control=replace(system.control, linkage=LINK))
        bore = inverse.bore_for_effort(solved(system), WHEELS, 0, 0.6, 250.0)
        self.assertAlmostEqual(push_for(variants.with_bore(system, bore), 0.6), 250.0, places=5)
        with self.assertRaisesRegex(Impossible, "the ratio follows the stroke"):
            inverse.ratio_for_effort(solved(system), 0, 0.6, 250.0)

    def test_a_push_that_does_not_press_and_a_stop_never_given(self) -> None:
        with self.assertRaisesRegex(Impossible, "does not press"):
            inverse.bore_for_effort(solved(plain_system(booster=VACUUM)), WHEELS, 0, 0.5, 5.0)
        weak = tuple(replace(s, devices=(valves.Limiting(0.4e6),)) for s in plain_system().stations)
        with self.assertRaisesRegex(Impossible, "at most 0"):
            inverse.bore_for_effort(solved(replace(plain_system(), stations=weak)), WHEELS, 0, 0.9, 300.0)


class Share(unittest.TestCase):
    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.2, 0.8), st.floats(0.55, 0.9), st.booleans())
    def test_rear_area_and_rotor(self, decel: float, share: float, valved: bool) -> None:
        system = plain_system(rear_devices=VALVE if valved else ())
        scale = inverse.rear_scale_for_share(solved(system), 0, decel, share)
        rear = system.station("rear")
        assert isinstance(rear.brake, Disc)
        larger = replace(rear, brake=with_area(rear.brake, rear.brake.side_area * scale))
        changed = replace(system, stations=tuple(larger if s is rear else s for s in system.stations))
        self.assertAlmostEqual(share_at(changed, decel), share, places=9)
        for rule in ("uniform_wear", "uniform_pressure"):
            outer = 0.129 - 0.0015
            inner = outer - 0.037
            own = (outer + inner) / 2 if rule == "uniform_wear" else 2 / 3 * (outer**3 - inner**3) / (outer**2 - inner**2)
            brake = replace(rear.brake, effective_radius=own)
            rotor = inverse.rotor_for_scale(brake, 0.258, 0.037, 0.0015, 1.2, rule)
            outer = rotor / 2 - 0.0015
            inner = outer - 0.037
            new = (outer + inner) / 2 if rule == "uniform_wear" else 2 / 3 * (outer**3 - inner**3) / (outer**2 - inner**2)
            self.assertAlmostEqual(new / own, 1.2, places=9)

    @settings(max_examples=20, deadline=None)
    @given(st.floats(0.2, 0.7), st.floats(0.5, 0.8))
    def test_the_bar(self, decel: float, share: float) -> None:
        def twin(front: float) -> System:
            parts = {"front": (0.019, front), "rear": (0.0206, 1 - front)}
            chambers = tuple(Chamber(n, d, 0.028, 0.001, b, b, (Feed(n, 2),)) for n, (d, b) in parts.items())
            return replace(plain_system(), cylinder=Cylinder("twin", 0.95, 12.0, chambers))

        bar = inverse.bar_for_share(solved(twin(0.5)), 0, decel, share)
        self.assertAlmostEqual(share_at(twin(bar), decel), share, places=9)
        with self.assertRaisesRegex(Impossible, "no bar"):
            inverse.bar_for_share(solved(plain_system()), 0, decel, share)


class Knee(unittest.TestCase):
    def margins(self, system: System) -> float:
        locks = solved(system).road.locks
        return float((locks["rear"] / locks["front"]).squeeze())

    def test_it_is_the_greatest(self) -> None:
        system = plain_system(rear_area=1500e-6)
        for margin in (0.0, 0.02, 0.1):
            knee, reason = inverse.knee_for_lock_order(case_of(system), system, margin)
            assert knee is not None
            self.assertIsNone(reason)
            self.assertAlmostEqual(self.margins(variants.with_knee(system, knee, 0.43)), 1 + margin, places=9)
            self.assertLess(self.margins(variants.with_knee(system, knee * 1.0001, 0.43)), 1 + margin)

    def test_not_needed_and_none_low_enough(self) -> None:
        small, large = plain_system(rear_area=600e-6), plain_system(rear_area=9000e-6)
        self.assertEqual(inverse.knee_for_lock_order(case_of(small), small, 0.02), (None, "not_needed"))
        self.assertEqual(inverse.knee_for_lock_order(case_of(large), large, 0.02), (None, "none_low_enough"))


class Properties(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.floats(0.014, 0.03), st.floats(1.02, 1.5))
    def test_a_bigger_bore_less_pressure_and_less_travel(self, bore: float, more: float) -> None:
        small, large = (solved(plain_system(bore=b)) for b in (bore, bore * more))
        pads, inlets = [], []
        for path in (small, large):
            place = path.place_at(250.0)
            pads.append(float(path.pulls[0].pedal.pad_at(place).squeeze()))
            inlets.append(float(path.at(place).front.squeeze()))
        self.assertGreater(inlets[0], inlets[1])
        self.assertGreater(pads[0], pads[1])

    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.05, 0.85))
    def test_ideal_shares_sum_to_the_deceleration(self, z: float) -> None:
        from kobrix.core.physics import vehicle

        load = plain_load()
        both = sum(float(vehicle.ideal_force(load, a, z).squeeze()) for a in vehicle.AXLES)
        self.assertAlmostEqual(both / float(np.squeeze(load.weight)), z, places=12)

    @settings(max_examples=20, deadline=None)
    @given(st.floats(0.5, 2.0))
    def test_another_size_of_everything_changes_no_share(self, scale: float) -> None:
        """All lengths × s, areas × s², masses × s² (so that forces scale alike): shares, ratios and locks stay."""
        base = plain_system()
        stations = tuple(
            replace(s, rolling_radius=s.rolling_radius * scale,
                    brake=replace(s.brake, side_area=s.brake.side_area * scale**2, effective_radius=s.brake.effective_radius * scale))
            for s in base.stations if isinstance(s.brake, Disc)
        )  # fmt: skip
        control = replace(base.control, pivot_to_pad=0.292 * scale, pivot_to_pin=0.048 * scale)
        large = replace(variants.with_bore(base, 0.0206375 * scale), control=control, stations=stations)
        load = plain_load(mass=1310.0 * scale**2)
        path = solved(large, load)
        self.assertAlmostEqual(float(path.event.decel.squeeze()) / float(solved(base).event.decel.squeeze()), 1.0, places=12)
        place, _ = first_reach(path.road.decel, 0.6)
        self.assertAlmostEqual(float(path.push_at(place).squeeze()) / push_for(base, 0.6) / scale**2, 1.0, places=9)


if __name__ == "__main__":
    unittest.main()

"""Several controls on one vehicle, twins on a bar, second controls in series, valves that feel the stop."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.numerics.arrays import lookup
from kobrix.core.physics import valves
from kobrix.core.physics.chain import Condition, System
from kobrix.core.physics.cylinder import Chamber, Cylinder, Feed
from kobrix.core.physics.linkage import Linkage
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.solved_setup import settle_decel
from scipy.optimize import brentq

from tests.cases import WHEELS, case_of, plain_load, plain_system, solved

AREA = np.pi / 4


def twin(share: float = 0.55, stop: float | None = None) -> System:
    """The plain car with a cylinder for each end on a bar that gives the front `share`."""
    bores = {"front": (0.019, share), "rear": (0.0206, 1 - share)}
    chambers = tuple(Chamber(n, d, 0.028, 0.001, b, b, (Feed(n, 2),)) for n, (d, b) in bores.items())
    return replace(plain_system(), cylinder=Cylinder("twin", 0.95, 0.0, chambers, stop))


def half(name: str, axle: str) -> System:
    """One axle of the plain car with a control and a single cylinder of its own."""
    system = plain_system()
    station = system.station(axle)
    chamber = Chamber("circuit", 0.0159, 0.02, 0.001, 1.0, 1.0, (Feed(axle, 2),))
    return replace(system, name=name, cylinder=Cylinder("single", 0.95, 0.0, (chamber,)), stations=(station,))


def at(path: Solved, push: float) -> tuple[float, float, float]:
    """Front and rear force and deceleration at a push."""
    moment = path.at(path.place_at(push))
    return float(moment.front.squeeze()), float(moment.rear.squeeze()), float(moment.decel.squeeze())


class Twins(unittest.TestCase):
    def test_each_end_gets_its_share_of_the_force(self) -> None:
        path = solved(twin(0.55))
        place = path.place_at(200.0)
        rod = 200.0 * 292 / 48 * 0.92
        inlet = lookup(path.pulls[0].pedal.line.inlet, place.knot, place.fraction).squeeze()
        self.assertAlmostEqual(inlet[0], 0.55 * rod * 0.95 / (AREA * 0.019**2), delta=1e-3)
        self.assertAlmostEqual(inlet[1], 0.45 * rod * 0.95 / (AREA * 0.0206**2), delta=1e-3)

    def test_the_pedal_follows_the_bearing(self) -> None:
        path = solved(twin(0.55))
        pedal = path.pulls[0].pedal
        assert pedal.travel is not None
        place = path.place_at(200.0)
        front, rear = (float(pedal.travel.chambers[n].at(place).squeeze()) + 0.001 for n in ("front", "rear"))
        self.assertAlmostEqual(float(pedal.travel.piston.at(place).squeeze()), 0.55 * front + 0.45 * rear, places=12)

    def test_a_piston_without_pressure_does_not_move(self) -> None:
        """Springs hold the end with the smaller share back: until it has pressure it takes no stroke, lost it would take all."""
        cylinder = replace(twin(0.3).cylinder, spring=25.0)
        path = solved(replace(twin(0.3), cylinder=cylinder))
        pedal = path.pulls[0].pedal
        assert pedal.travel is not None
        starts = {n: 25.0 / 0.95 / share / (292 / 48 * 0.92) for n, share in (("front", 0.3), ("rear", 0.7))}
        place = path.place_at(0.5 * (starts["front"] + starts["rear"]))
        self.assertEqual(float(pedal.travel.chambers["front"].at(place).squeeze()), 0.0)
        rear = float(pedal.travel.chambers["rear"].at(place).squeeze()) + 0.001
        self.assertAlmostEqual(float(pedal.travel.piston.at(place).squeeze()), 0.7 * rear, places=12)
        self.assertEqual(float(pedal.pad_at(path.place_at(0.9 * starts["rear"])).squeeze()), 0.0)

    def test_a_lost_end_runs_to_its_stroke_or_to_the_bars_stop(self) -> None:
        alive = Condition(alive={"front": np.array([[1.0], [0.0]]), "rear": np.ones((2, 1))})
        for stop, run in ((None, 0.028), (0.004, None)):
            system = twin(0.55, stop)
            case = case_of(
                replace(system, control=replace(system.control, available=0.4)), condition=alive, names=("healthy", "lost")
            )
            pedal = case.main.failed.pulls[0].pedal
            assert pedal.travel is not None
            place = case.main.failed.place_at(np.array([[[250.0]] * 2]))
            rear = float(pedal.travel.chambers["rear"].at(place)[0, 1, 0]) + 0.001
            lost = run if run is not None else min(0.028, rear + 0.004)
            x = float(pedal.travel.piston.at(place)[0, 1, 0])
            self.assertAlmostEqual(x, 0.45 * rear + 0.55 * lost, places=12)

    def test_the_bar_moves_the_sharing_and_not_the_sum_of_forces_on_it(self) -> None:
        shares = [at(solved(twin(b)), 150.0)[0] / sum(at(solved(twin(b)), 150.0)[:2]) for b in (0.45, 0.55, 0.65)]
        self.assertEqual(shares, sorted(shares))


class SeveralControls(unittest.TestCase):
    def setUp(self) -> None:
        self.hand, self.foot = half("hand", "front"), half("foot", "rear")

    def path(self, *pulls: tuple[System, float]) -> Solved:
        return solve_path("path", list(pulls), plain_load(), WHEELS)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(1.0, 900.0), st.floats(0.2, 2.0))
    def test_together_is_each_at_its_own_force(self, push: float, ratio: float) -> None:
        both = at(self.path((self.hand, 1.0), (self.foot, ratio)), push)
        front, rear = at(self.path((self.hand, 1.0)), push)[0], at(self.path((self.foot, 1.0)), push * ratio)[1]
        self.assertAlmostEqual(both[0], front, delta=1e-9 * front + 1e-9)
        self.assertAlmostEqual(both[1], rear, delta=1e-9 * rear + 1e-9)

    def test_a_control_with_a_linkage_beside_a_straight_one(self) -> None:
        link = Linkage(0.048, np.radians(-98.0), 1.0, (0.10, -0.052), 0.0, 0.115)
        foot = replace(self.foot, control=replace(self.foot.control, linkage=link))
        both = self.path((self.hand, 1.0), (foot, 0.6))
        for push in (5.0, 60.0, 150.0, 400.0):
            front, rear, _ = at(both, push)
            self.assertAlmostEqual(front / at(self.path((self.hand, 1.0)), push)[0], 1.0, places=9)
            self.assertAlmostEqual(rear / at(self.path((foot, 1.0)), push * 0.6)[1], 1.0, places=6)
        place = both.place_at(200.0)
        alone = self.path((foot, 1.0))
        pads = [float(p.pedal.pad_at(q).squeeze()) for p, q in
                ((both.pulls[1], both.pulls[1].place(place)), (alone.pulls[0], alone.place_at(120.0)))]  # fmt: skip
        self.assertAlmostEqual(pads[0] / pads[1], 1.0, places=6)

    def test_two_linkages_are_each_followed_at_any_push(self) -> None:
        """Drawn linkages, ratios that turn back on the way among them, against the same control alone, whose push is not joined."""
        chance, looked = np.random.default_rng(3), 0
        for whole, close in ((False, 1e-5), (True, 0.015)):
            for _ in range(12):
                rest = np.radians(chance.uniform(-112.0, -74.0, 2))
                feet = [replace(own, control=replace(own.control, linkage=Linkage(0.048, at_rest, 1.0, (0.10, -0.05), 0.0, 0.115)))
                        for own, at_rest in zip((self.hand, self.foot), rest, strict=True)]  # fmt: skip
                both = solve_path("together", [(feet[0], 1.0), (feet[1], 0.6)], plain_load(), WHEELS, whole=whole)
                for push in chance.uniform(1.0, 500.0, 6):
                    place, balanced = both.balance(push)
                    if not np.all(balanced):  # past a dead point there is no push
                        continue
                    looked += 1
                    for pull, foot, share in zip(both.pulls, feet, (1.0, 0.6), strict=True):
                        with self.subTest(whole=whole, rest=rest, push=push, system=foot.name):
                            felt = float(pull.pedal.push_at(pull.place(place)).squeeze())
                            self.assertAlmostEqual(felt / (push * share), 1.0, delta=close)
        self.assertGreater(looked, 90)

    def test_a_linkage_is_looked_at_where_its_ratio_changes(self) -> None:
        count = {}
        for radius in (0.19, 0.048):
            link = Linkage(radius, np.radians(-90.0), 1.0, (0.10, -radius), 0.0, 0.4)
            foot = replace(self.foot, control=replace(self.foot.control, linkage=link))
            push = self.path((self.hand, 1.0), (foot, 0.6)).push
            assert push is not None
            count[radius] = push.shape[-1]
        self.assertLess(count[0.19], 0.8 * count[0.048])

    def test_the_push_for_a_stop_comes_back(self) -> None:
        path = self.path((self.hand, 1.0), (self.foot, 0.6))
        place = path.place_at(np.array([3.0, 80.0, 250.0]))
        np.testing.assert_allclose(path.push_at(place).squeeze(), [3.0, 80.0, 250.0], rtol=1e-12)

    def test_an_axle_without_a_working_control_does_not_brake(self) -> None:
        alone = self.path((self.hand, 1.0))
        self.assertEqual(at(alone, 200.0)[1], 0.0)
        self.assertFalse(np.isfinite(alone.road.locks["rear"]).any())

    def test_lock_of_both_against_a_root_finder(self) -> None:
        path = self.path((self.hand, 1.0), (self.foot, 0.6))

        def missing(push: float) -> float:
            front, _, z = at(path, push)
            return front - 0.9 * 1310 * 9.80665 * (0.49 + 0.21371 * z)

        z = at(path, float(brentq(missing, 1.0, 5000.0, xtol=1e-12)))[2]
        self.assertAlmostEqual(float(path.road.locks["front"].squeeze()), z, places=9)


class InSeries(unittest.TestCase):
    def setUp(self) -> None:
        self.pedal = plain_system()
        rear = replace(self.pedal.station("rear"), owner="service")
        chamber = Chamber("circuit", 0.0159, 0.02, 0.001, 1.0, 1.0, (Feed("rear", 1),))
        self.lever = System(
            "lever", replace(self.pedal.control, kind="hand_lever"), None, Cylinder("single", 0.95, 0.0, (chamber,)), (rear,)
        )

    def rear_force(self, pulls: list[tuple[System, float]], push: float) -> float:
        return at(solve_path("path", pulls, plain_load(), WHEELS), push)[1]

    @settings(max_examples=40, deadline=None)
    @given(st.floats(5.0, 500.0), st.floats(0.1, 2.0))
    def test_the_larger_pressure_wins_at_the_shared_wheel_only(self, push: float, ratio: float) -> None:
        together = self.rear_force([(self.pedal, 1.0), (self.lever, ratio)], push)
        pedal = self.rear_force([(self.pedal, 1.0)], push) / 2
        lever = self.rear_force([(self.lever, 1.0)], push * ratio)
        self.assertAlmostEqual(together, pedal + max(pedal, lever), delta=1e-9 * together)

    def test_the_crossing_is_a_knot(self) -> None:
        """Where the lever overtakes the pedal the line bends: a lever with a return spring starts late and rises faster."""
        late = replace(self.lever, control=replace(self.lever.control, return_force=900.0))
        for push in np.linspace(150.0, 600.0, 46):
            together = self.rear_force([(self.pedal, 1.0), (late, 1.0)], float(push))
            pedal, lever = self.rear_force([(self.pedal, 1.0)], float(push)) / 2, self.rear_force([(late, 1.0)], float(push))
            self.assertAlmostEqual(together, pedal + max(pedal, lever), delta=1e-9 * together)


class FeelsTheStop(unittest.TestCase):
    def test_the_knee_is_the_pressure_at_the_wanted_deceleration(self) -> None:
        system = plain_system(rear_devices=(valves.DecelSensing(0.45, 0.3),))
        (settled,) = settle_decel([(system, 1.0)], plain_load(), WHEELS)
        (valve,) = settled.station("rear").devices
        assert isinstance(valve, valves.Proportioning)
        path = solved(plain_system())
        push = float(brentq(lambda f: at(path, f)[2] - 0.45, 1.0, 1000.0, xtol=1e-12))
        pressure = push * 292 / 48 * 0.92 * 0.95 / (AREA * 0.0206375**2)
        self.assertAlmostEqual(float(np.squeeze(valve.knee)), pressure, delta=1e-6 * pressure)

    def test_a_deceleration_never_reached_leaves_it_open(self) -> None:
        weak = tuple(replace(s, devices=(valves.Limiting(0.3e6),)) for s in plain_system().stations)
        rear = replace(weak[1], devices=(valves.Limiting(0.3e6), valves.DecelSensing(0.9, 0.3)))
        system = replace(plain_system(), stations=(weak[0], rear))
        (settled,) = settle_decel([(system, 1.0)], plain_load(), WHEELS)
        limited = replace(plain_system(), stations=weak)
        self.assertAlmostEqual(at(solved(settled), 400.0)[2], at(solved(limited), 400.0)[2], places=12)


if __name__ == "__main__":
    unittest.main()

"""Every combination that a search tries, against the same setup solved alone; the front against brute force."""

import itertools
import unittest
from dataclasses import replace

import numpy as np
from kobrix.core.constants import PUBLISHED, G
from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Number
from kobrix.core.physics import sharing
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import Condition, Station, System, first_reach
from kobrix.core.physics.cylinder import Chamber, Cylinder, Feed
from kobrix.core.physics.disc import Disc, with_area
from kobrix.core.physics.linkage import Linkage
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.valves import DecelSensing, Device, Proportioning
from kobrix.core.physics.vehicle import Load
from kobrix.core.search import engine, pareto
from kobrix.core.search.engine import Block, Bounds
from kobrix.core.search.left import least_left
from kobrix.core.search.pareto import LIMITS

from tests.cases import WHEELS, case_of, plain_load, plain_system

NEED = PUBLISHED["secondary_decel"].value / G
BOUNDS = Bounds(0.6, 400.0, 0.62, 0.62, True, True, NEED, 500.0, 260.0)
VACUUM = Booster("vacuum", 3.1, 50.0, 150.0, 900.0, 0.0012, 120.0)


def stations(system: System) -> tuple[tuple[Station, ...], ...]:
    """Two front brakes; two rear ones, each with two knees."""
    front, rear = system.stations
    assert isinstance(front.brake, Disc) and isinstance(rear.brake, Disc)
    fronts = (front, replace(front, brake=replace(with_area(front.brake, 1.7e-3), friction=0.42, effective_radius=0.108)))
    knees: tuple[Device, ...] = (Proportioning(1.6e6, 0.35), Proportioning(6e6, 0.35))
    rears = tuple(
        replace(rear, brake=with_area(rear.brake, a), devices=(k,)) for a, k in itertools.product((0.7e-3, 1.9e-3), knees)
    )
    return fronts, rears


def cylinder(bore: float, stroke: float = 0.016) -> Cylinder:
    """A tandem cylinder."""
    chambers = tuple(Chamber(n, bore, stroke, 0.0012, 1.0, 1.0, (Feed(n, 2),)) for n in ("front", "rear"))
    return Cylinder("tandem", 0.95, 12.0, chambers)


def block(system: System, bores: tuple[Cylinder, ...], boosters: tuple[Booster | None, ...]) -> Block:
    """A small grid; the second front brake has no price, the third rear one does not fit."""
    own = stations(system)
    return Block(
        system, bores, boosters, np.array([0.042, 0.048, 0.061]), own, np.array([90.0 * n for n in range(len(bores))]), np.zeros(len(boosters)),
        (np.array([0.0, np.nan]), np.array([0.0, 60.0, 120.0, 200.0])), (np.array([True, True]), np.array([True, True, False, True])),
    )  # fmt: skip


def two_loads() -> Load:
    """Empty and laden."""
    column = (slice(None), None, None)
    return replace(plain_load(), mass=np.array([1310.0, 1560.0])[column], front_share=np.array([0.49, 0.44])[column],
                   chi=np.array([0.2137, 0.2217])[column])  # fmt: skip


def alone(own: Block, c: int, h: int, i: int, places: tuple[int, ...]) -> SolvedSetup:
    """One combination as a setup of its own, with its lost circuits and its lost booster."""
    parts = tuple(options[at] for options, at in zip(own.options, places, strict=False))
    control = replace(own.system.control, pivot_to_pin=float(own.pins[i]))
    system = replace(own.system, cylinder=own.cylinders[c], booster=own.boosters[h], control=control, stations=parts)
    names = [ch.name for ch in system.cylinder.chambers]
    alive: dict[str, Number] = {n: np.array([1.0, *(0.0 if n == gone else 1.0 for gone in names), 1.0])[:, None] for n in names}
    lost = np.array([False, *(False for _ in names), True])[:, None]
    asked = ("healthy", *(f"lost_{n}" for n in names), "lost_booster")
    return case_of(system, two_loads(), Condition(booster_lost=lost, alive=alive), asked)


def broken_alone(case: SolvedSetup, price: float, fits: bool, bounds: Bounds) -> tuple[set[str], float, float, float]:
    """What a setup solved alone breaks, its push, its travel, and the least that a lost circuit leaves it."""
    path = case.main
    road, event, pedal = path.healthy.road, path.healthy.event, path.healthy.pulls[0].pedal
    place, known = first_reach(road.decel, bounds.decel)
    effort, travel = float(path.healthy.push_at(place).max()), float(pedal.pad_at(place).max())
    assert path.left is not None and pedal.travel is not None
    room = float(case.systems[0].control.available or 0.0)
    rear_first = bool((event.rear & ~event.front).any() or event.lift.any())
    slippery, _, _ = sharing.rear_first_grips(road, WHEELS)
    above, kept = sharing.distribution_kept(road)
    circuits = len(case.names) - 1 - (case.systems[0].booster is None)  # a booster that is not there cannot be lost
    found = {
        "no_stop": not known.all(), "rear_first": rear_first, "early_lock": bool((path.lock_decel < bounds.first_lock).any()),
        "effort": effort > bounds.effort, "travel": travel > bounds.travel_share * room,
        "stroke": bool(pedal.travel.bottomed(place).any()), "wheel_room": not fits,
        "slippery": bool(slippery.any()) and not rear_first, "sharing": not bool((above & kept).all()),
        "lost_circuit": bool((path.left.best[:, 1 : 1 + circuits] < NEED).any()),
        "price": not price <= (bounds.price or np.inf),
    }  # fmt: skip
    return {name for name, broke in found.items() if broke}, effort, travel, float(path.left.best[:, 1:3].min())


class EveryCombination(unittest.TestCase):
    def check(self, own: Block, bounds: Bounds = BOUNDS) -> None:
        load = two_loads()
        rows = np.arange(int(np.prod(own.behind)))
        tried = engine.evaluate(own, rows, load, WHEELS, bounds)
        grid = np.indices((int(np.prod(own.before)), rows.size)).reshape(2, -1)
        left = least_left(own, grid[0], grid[1], load, WHEELS, bounds).reshape(tried.effort.shape)
        seen: set[str] = set()
        for f, d in itertools.product(range(tried.effort.shape[0]), rows):
            c, h, i = (int(n) for n in np.unravel_index(f, own.before))
            places = tuple(int(n) for n in np.unravel_index(d, own.behind))
            c = places[-1] if own.twin else c
            case = alone(own, c, h, i, places)
            price = sum(float(p[at]) for p, at in zip(own.option_prices, places, strict=False)) + float(own.cylinder_prices[c])
            fits = all(bool(f_[at]) for f_, at in zip(own.option_fits, places, strict=False))
            broken, effort, travel, least = broken_alone(case, price, fits, bounds)
            ours = {name for n, name in enumerate(LIMITS) if int(tried.broken[f, d]) >> n & 1}
            self.assertEqual(ours, broken, (f, d))
            self.assertAlmostEqual(tried.effort[f, d] / effort, 1.0, places=9)
            self.assertAlmostEqual(tried.travel[f, d] / travel, 1.0, places=9)
            self.assertAlmostEqual(left[f, d], least, delta=1e-7, msg=(c, h, i, places))
            lightest = engine.lightest(own, np.array([f]), tried.pressure[[d]], tried.volume[[d]])[0]
            pushes = case.main.healthy.push_at(first_reach(case.main.healthy.road.decel, bounds.decel)[0])
            self.assertAlmostEqual(lightest / float(pushes.min()), 1.0, places=9)
            use = float((case.main.lock_decel / case.main.grip_limit).min())
            self.assertAlmostEqual(float(tried.grip_use[d]), use, places=9)
            seen |= broken
        self.assertGreater(len(seen), 4, "the grid is meant to break many limits")

    def test_tandem_with_and_without_help(self) -> None:
        self.check(block(plain_system(), (cylinder(0.01746), cylinder(0.0206), cylinder(0.0254, 0.02)), (None, VACUUM)))

    def test_diagonal_circuits_and_little_room(self) -> None:
        chambers = tuple(
            Chamber(n, 0.019, 0.016, 0.0012, 1.0, 1.0, (Feed("front", 1), Feed("rear", 1))) for n in ("circuit_1", "circuit_2")
        )
        small = replace(plain_system().control, available=0.105)
        own = Cylinder("tandem", 0.95, 0.0, chambers)
        self.check(block(replace(plain_system(), control=small, cylinder=own), (own,), (None,)))

    def test_only_the_pin_may_change(self) -> None:
        own = block(plain_system(), (cylinder(0.0206),), (None,))
        one = replace(own, options=tuple(o[:1] for o in own.options), option_prices=(np.zeros(1), np.zeros(1)))
        load = two_loads()
        tried = engine.evaluate(one, np.arange(1), load, WHEELS, BOUNDS)
        left = least_left(one, np.arange(3), np.zeros(3, dtype=np.int64), load, WHEELS, BOUNDS)
        for i in range(3):
            _, effort, _, least = broken_alone(alone(one, 0, 0, i, (0, 0)), 0.0, True, BOUNDS)
            self.assertAlmostEqual(tried.effort[i, 0] / effort, 1.0, places=9)
            self.assertAlmostEqual(left[i], least, delta=1e-7)

    def test_two_cylinders_on_a_bar(self) -> None:
        def bar(share: float, bore: float) -> Cylinder:
            own = [Chamber("front", bore, 0.028, 0.001, share, share, (Feed("front", 2),)),
                   Chamber("rear", 0.0175, 0.028, 0.001, 1 - share, 1 - share, (Feed("rear", 2),))]  # fmt: skip
            return Cylinder("twin", 0.95, 0.0, tuple(own), 0.012)

        system = replace(plain_system(), cylinder=bar(0.5, 0.019))
        self.check(block(system, (bar(0.5, 0.019), bar(0.6, 0.0159)), (None,)))

    def test_a_mounting_that_yields_and_air_in_the_lines(self) -> None:
        base = plain_system(air=2e-6)
        soft = replace(base, control=replace(base.control, mount_give=1 / 1.5e6, return_force=20.0, available=0.13))
        self.check(block(soft, (cylinder(0.0190), cylinder(0.0222)), (None, VACUUM)))

    def test_low_grip_where_a_wheel_slides_before_enough_is_left(self) -> None:
        load = replace(two_loads(), grip_front=0.24, grip_rear=0.24)
        own = block(plain_system(), (cylinder(0.019),), (None,))
        tried = engine.evaluate(own, np.arange(8), load, WHEELS, replace(BOUNDS, decel=0.2, first_lock=0.0))
        lost = np.uint16(1 << LIMITS.index("lost_circuit"))
        self.assertTrue((tried.broken & lost > 0).all())

    def test_a_linkage(self) -> None:
        base = plain_system(air=1e-6)
        link = Linkage(float(base.control.pivot_to_pin), -np.pi / 2, 1.0, (0.0, -0.043), 0.0, 0.11)
        control = replace(base.control, linkage=link, mount_give=1 / 2e6, return_force=15.0)
        own = block(replace(base, control=control), (cylinder(0.01746), cylinder(0.0206), cylinder(0.0254, 0.02)), (None, VACUUM))
        self.check(replace(own, pins=np.array([float(base.control.pivot_to_pin)])))
        with self.assertRaisesRegex(Impossible, "does not move alone"):
            engine.evaluate(own, np.arange(2), two_loads(), WHEELS, BOUNDS)

    def test_what_cannot_be_searched_says_why(self) -> None:
        own = block(plain_system(), (cylinder(0.019),), (None,))
        rows = np.arange(2)

        def refused(changed: Block, why: str) -> None:
            with self.assertRaisesRegex(Impossible, why):
                engine.evaluate(changed, rows, two_loads(), WHEELS, BOUNDS)

        refused(replace(own, system=replace(own.system, control=replace(own.system.control, available=None))), "to its stop")
        bare = tuple(tuple(replace(s, lines=None) for s in some) for some in own.options)
        refused(replace(own, options=bare), "lines are not measured")
        strokes = tuple(replace(c, stroke=None) for c in own.cylinders[0].chambers)
        refused(replace(own, cylinders=(replace(own.cylinders[0], chambers=strokes),)), "stroke is not known")
        follows = (own.options[0], tuple(replace(s, devices=(DecelSensing(0.4, 0.3),)) for s in own.options[1]))
        refused(replace(own, options=follows), "one by one")


class NotBeaten(unittest.TestCase):
    def brute(self, costs: np.ndarray[tuple[int, int], np.dtype[np.float64]]) -> list[bool]:
        return [not any((o <= own).all() and (o < own).any() for o in costs) for own in costs]

    def test_the_front_is_brute_force_s(self) -> None:
        random = np.random.default_rng(4)
        for count, kinds in ((1, 3), (40, 2), (300, 4), (700, 9)):
            costs = random.integers(0, kinds, (count, 5)).astype(np.float64)  # many ties
            self.assertEqual(pareto.non_dominated(costs).tolist(), self.brute(costs))
            costs = random.random((count, 3))
            self.assertEqual(pareto.non_dominated(costs).tolist(), self.brute(costs))
        self.assertEqual(pareto.non_dominated(np.empty((0, 5))).size, 0)

    def test_of_two_that_are_alike_both_stay_and_an_unknown_price_loses(self) -> None:
        costs = np.array([[1.0, 2.0], [1.0, 2.0], [1.0, np.inf]])
        self.assertEqual(pareto.non_dominated(costs).tolist(), [True, True, False])


class Bits(unittest.TestCase):
    def test_each_is_counted_at_the_first_it_breaks(self) -> None:
        bits = np.array([0, 1, 8 + 16, 1 << 10, 16], dtype=np.uint16)
        self.assertEqual(pareto.first_broken(bits).tolist(), [len(LIMITS), 0, 3, 10, 4])
        first, only = pareto.tally(bits)
        self.assertEqual((first[0], first[3], first[4], first[10], first[-1]), (1, 1, 1, 1, 1))
        self.assertEqual((only["no_stop"], only["effort"], only["travel"], only["price"]), (1, 0, 1, 1))
        self.assertEqual(pareto.only_broken(bits, "travel").tolist(), [False, False, False, False, True])

    def test_the_band_is_good_inside_and_counted_outside(self) -> None:
        beyond = pareto.beyond_band(np.array([100.0, 130.0, 200.0]), np.array([140.0, 300.0, 380.0]), 120.0, 350.0)
        self.assertEqual(beyond.tolist(), [20.0, 0.0, 30.0])

    def test_parts_cover_everything_once(self) -> None:
        own = block(plain_system(), (cylinder(0.019),), (None,))
        self.assertEqual(own.count, 1 * 1 * 3 * 2 * 4)
        parts = list(engine.parts_of(own, 7))
        self.assertEqual(np.concatenate(parts).tolist(), list(range(8)))
        self.assertGreater(len(parts), 1)


if __name__ == "__main__":
    unittest.main()

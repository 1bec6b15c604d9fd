"""Axle loads, grip, and what is left once wheels slide, against moments written out and a slow walk up the push."""

import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.constants import G
from kobrix.core.physics import vehicle
from kobrix.core.physics.chain import Place
from kobrix.core.physics.vehicle import AXLES, Load

from tests.cases import plain_load, plain_system, solved

masses, shares, heights = st.floats(200, 4000), st.floats(0.3, 0.7), st.floats(0.1, 0.4)


def one(mass: float, share: float, chi: float, front: float = 0.9, rear: float = 0.9) -> Load:
    """A load state of plain numbers."""
    return Load(mass, share, chi, front, rear, 0.8, 0.0)


class AxleLoads(unittest.TestCase):
    @settings(max_examples=50, deadline=None)
    @given(masses, shares, heights, st.floats(0.0, 0.7))
    def test_they_sum_to_the_weight_and_balance_the_moment(self, mass: float, share: float, chi: float, z: float) -> None:
        load = one(mass, share, chi)
        front, rear = (float(vehicle.axle_load(load, a, z)) for a in AXLES)
        self.assertAlmostEqual((front + rear) / (mass * G), 1.0, places=12)
        # moments about the rear contact, wheelbase 1: front·1 = weight·share + inertia·chi
        self.assertAlmostEqual(front / (mass * G), share + z * chi, places=12)

    def test_a_lifted_rear_carries_nothing(self) -> None:
        load = one(1000, 0.5, 0.4)
        lift = float(vehicle.rear_lift_decel(load))
        self.assertAlmostEqual(lift, 1.25)
        self.assertAlmostEqual(float(vehicle.axle_load(load, "rear", lift)), 0.0, places=9)
        self.assertEqual(float(vehicle.axle_load(load, "rear", lift + 0.5)), 0.0)
        self.assertEqual(float(vehicle.adhesion_used(100.0, vehicle.axle_load(load, "rear", lift + 0.5))), 0.0)

    def test_height_by_lifting_comes_back(self) -> None:
        """A car of known height tilted by hand: the gain on the axle left down gives the height back."""
        wheelbase, total, height, centre, share = 2.5, 1100.0, 0.55, 0.29, 0.55
        for lift in (0.3, 0.6, 0.9):
            angle = np.arcsin(lift / wheelbase)
            # moments about the wheel centre that stays down, weights along the tilted wheelbase
            arm = wheelbase * (1 - share) * np.cos(angle)
            other = (arm - (height - centre) * np.sin(angle)) / (wheelbase * np.cos(angle)) * total
            gain = (total - other) - total * share
            found = float(vehicle.height_by_lifting(wheelbase, total, gain, lift, centre))
            self.assertAlmostEqual(found, height, places=9)


class Grip(unittest.TestCase):
    @settings(max_examples=50, deadline=None)
    @given(masses, shares, heights, st.floats(0.2, 1.1), st.floats(0.2, 1.1))
    def test_the_limit_uses_both_axles_to_the_full(
        self, mass: float, share: float, chi: float, front: float, rear: float
    ) -> None:
        load = one(mass, share, chi, front, rear)
        z = float(vehicle.grip_limit(load, 1.0, 1.0))
        lift = (1 - share) / chi
        if z < lift:
            force = sum(load.grip(a) * float(vehicle.axle_load(load, a, z)) for a in AXLES)
            self.assertAlmostEqual(float(force) / (mass * G), z, places=9)
        else:
            self.assertAlmostEqual(z, lift, places=12)

    def test_one_braked_axle_or_one_braked_wheel(self) -> None:
        load = one(1000, 0.5, 0.2)
        self.assertAlmostEqual(float(vehicle.grip_limit(load, 1.0, 0.0)), 0.9 * 0.5 / (1 - 0.2 * 0.9), places=12)
        self.assertAlmostEqual(float(vehicle.grip_limit(load, 0.0, 1.0)), 0.9 * 0.5 / (1 + 0.2 * 0.9), places=12)
        self.assertAlmostEqual(float(vehicle.grip_limit(load, 0.5, 0.0)), 0.45 * 0.5 / (1 - 0.2 * 0.45), places=12)

    def test_equal_grip_is_the_grip(self) -> None:
        self.assertAlmostEqual(float(vehicle.grip_limit(one(1234, 0.47, 0.23, 0.77, 0.77), 1.0, 1.0)), 0.77, places=12)


def walked(load: Load, beta: float, most: float, steps: int = 20001) -> list[tuple[float, bool, bool]]:
    """A slow walk up the push with a fixed front share: deceleration and which axle slides, kept once it has begun."""
    mass, psi, chi = (float(np.squeeze(v)) for v in (load.mass, load.front_share, load.chi))
    mu, slide = float(np.squeeze(load.grip_front)), float(np.squeeze(load.sliding))
    weight, front, rear = mass * G, False, False
    path = []
    for total in np.linspace(0.0, most, steps):
        b_f, b_r = beta * total / weight, (1 - beta) * total / weight
        for _ in range(4):  # settle: each lock changes the loads
            s = slide * mu
            if front and rear:
                z = s
            elif front:
                z = (s * psi + b_r) / (1 - s * chi)
            elif rear:
                z = (s * (1 - psi) + b_f) / (1 + s * chi)
            else:
                z = b_f + b_r
            gaps = {"front": b_f - mu * (psi + z * chi), "rear": b_r - mu * (1 - psi - z * chi)}
            if not front and not rear:  # the one that has gone further past its grip locked first
                share = {"front": b_f / (psi + z * chi), "rear": b_r / max(1e-9, 1 - psi - z * chi)}
                if max(gaps.values()) >= 0:
                    first = max(share, key=lambda a: share[a])
                    front, rear = first == "front", first == "rear"
                    continue
            elif gaps["rear" if front else "front"] >= 0 and not (front and rear):
                front = rear = True
                continue
            break
        path.append((z, front, rear))
    return path


class Sliding(unittest.TestCase):
    """The panic stop of the core at places along its line, against the slow walk."""

    def check(self, rear_area: float) -> None:
        load = plain_load()
        path = solved(plain_system(rear_area=rear_area), load)
        knot = path.road.decel.shape[-1] - 2
        ends = path.road.table[:2, 0, 0, -1]
        beta, scale = float(ends[0] / ends.sum()), float(ends.sum())
        walk = walked(load, beta, 3.0 * scale, 601)
        places = Place(np.full(601, knot), np.linspace(0.0, 3.0, 601))
        seen = path.at(places)
        for n, (z, front, rear) in enumerate(walk):
            edge = any(walk[max(0, n - 1)][1:] != walk[m][1:] for m in (n, min(600, n + 1)))
            if edge:
                continue  # a step of the walk straddles the lock
            self.assertEqual((front, rear), (bool(seen.front_locked[0, 0, n]), bool(seen.rear_locked[0, 0, n])), n)
            self.assertAlmostEqual(float(seen.grip_decel[0, 0, n]), z, places=9)

    def test_front_first(self) -> None:
        self.check(900e-6)

    def test_rear_first(self) -> None:
        self.check(2600e-6)

    def test_nearly_ideal(self) -> None:
        self.check(1290e-6)

    def test_the_grip_that_slides_is_the_stated_share(self) -> None:
        for sliding in (0.6, 1.0):
            path = solved(plain_system(), replace(plain_load(), sliding=sliding))
            far = path.at(Place(np.array([path.road.decel.shape[-1] - 2]), np.array([50.0])))
            self.assertAlmostEqual(float(far.grip_decel.squeeze()), sliding * 0.9, places=12)


if __name__ == "__main__":
    unittest.main()

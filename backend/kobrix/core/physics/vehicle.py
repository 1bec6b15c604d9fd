"""The vehicle on the road: axle loads, what the grip allows, and the laws' view of the sharing."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

import numpy as np

from kobrix.core.constants import G
from kobrix.core.numerics.arrays import Floats, Mask, Number

VehicleKind = Literal["car", "motorcycle", "aircraft"]
Axle = Literal["front", "rear"]
AXLES: tuple[Axle, Axle] = ("front", "rear")


@dataclass(frozen=True)
class Load:
    """One load state, or several along leading axes, on a wheelbase.

    `mass` [kg]; `front_share` [1] static; `chi` [1], centre of gravity height over wheelbase; `grip_front` [1] and
    `grip_rear` [1]; `sliding` [1], grip of a locked tyre over its peak; `rotating` [1], rotating share of the mass.
    """

    mass: Number
    front_share: Number
    chi: Number
    grip_front: Number
    grip_rear: Number
    sliding: Number
    rotating: Number

    def grip(self, axle: Axle) -> Number:
        """Peak grip [1] of `axle` [name]."""
        return self.grip_front if axle == "front" else self.grip_rear

    @cached_property
    def weight(self) -> Number:
        """Weight m·g [N]."""
        return self.mass * G


def axle_load(load: Load, axle: Axle, decel: Number) -> Floats:
    """Load [N] on `axle` [name] of `load` [record] at a deceleration `decel` [g], never below 0.

    W_f = m·g·(ψ + zχ), W_r = m·g·(1 − ψ − zχ). Any shape. Source: moments about the contact points.
    """
    return np.maximum(0.0, load.weight * axle_share(load, axle, decel))


def axle_share(load: Load, axle: Axle, decel: Number) -> Floats:
    """Share [1] of the weight on `axle` [name] of `load` [record] at `decel` [g]; below 0 once the wheels lift.

    Any shape. Source: moments about the contact points.
    """
    front = np.asarray(load.front_share + decel * load.chi)
    return front if axle == "front" else 1.0 - front


def axle_loads(load: Load, decel: Floats) -> Floats:
    """Loads [N] on front and rear (2, ...) of `load` [record] at `decel` [g] (...), never below 0. Source: as `axle_load`."""
    front = load.front_share + decel * load.chi
    return np.maximum(0.0, load.weight * np.array([front, 1.0 - front]))


def rear_lift_decel(load: Load) -> Floats:
    """Deceleration [g] at which the rear of `load` [record] lifts, (1 − ψ)/χ. Any shape. Source: moments."""
    return (1.0 - np.asarray(load.front_share)) / load.chi


def grip_limit(load: Load, front_braked: Number, rear_braked: Number) -> Floats:
    """Deceleration [g] at which every braked axle of `load` [record] gives all its grip at once, never above rear lift.

    `front_braked` [1] and `rear_braked` [1]: braked wheels over wheels of that axle. Any shape.
    Source: z = Σ µ·n·W(z)/W, solved for z.
    """
    front, rear = load.grip_front * front_braked, load.grip_rear * rear_braked
    z = (front * load.front_share + rear * (1.0 - np.asarray(load.front_share))) / (1.0 - load.chi * (front - rear))
    return np.minimum(z, rear_lift_decel(load))


def adhesion_used(force: Number, carried: Number) -> Floats:
    """Adhesion utilisation f = B/(W·n) [1] of an axle: the grip it would need.

    `force` [N] on the road; `carried` [N] by the wheels that brake, W·n. 0 where nothing brakes, and where the axle
    carries nothing. Any shape. Source: UN R13-H, from memory.
    """
    holds = np.asarray(carried) > 0.0
    return np.asarray(np.where(holds, force / np.where(holds, carried, 1.0), 0.0))


def ideal_force(load: Load, axle: Axle, decel: Number) -> Floats:
    """Brake force [N] of `axle` [name] at which both axles of `load` [record] use the same grip at `decel` [g].

    b_f = z(ψ + zχ), b_r = z(1 − ψ − zχ), times the weight. Any shape. Source: moments.
    """
    return decel * axle_load(load, axle, decel)


@dataclass(frozen=True)
class Panic:
    """What happens when the force is raised past a lock.

    `decel` [g]; `front_locked` and `rear_locked` [yes or no]; `rear_lifts` [yes or no]. One shape for all.
    """

    decel: Floats
    front_locked: Mask
    rear_locked: Mask
    rear_lifts: Mask


def panic(
    load: Load,
    front: Number,
    rear: Number,
    front_braked: Number,
    rear_braked: Number,
    first: Mask,
    front_first: Mask,
    rear_first: Mask,
    lifted: Mask,
) -> Panic:
    """Deceleration past first lock, the force raised from zero.

    `load` [record]; `front` [N] and `rear` [N] that the brakes would give on the road; `front_braked` [1] and
    `rear_braked` [1] wheels over wheels; `first` [yes or no], the first lock is past; `front_first` and `rear_first`
    [yes or no], which axle locked first (both may); `lifted` [yes or no], the rear lifted before any lock.
    A locked axle stays locked and gives sliding·µ·W; the other locks when its force reaches µ·W at the new z.
    Any shape. Source: moments with one axle sliding.
    """
    b_f = np.asarray(front) / load.weight
    b_r = np.asarray(rear) / load.weight
    peak_f = np.asarray(load.grip_front * front_braked)
    peak_r = np.asarray(load.grip_rear * rear_braked)
    slide_f, slide_r = load.sliding * peak_f, load.sliding * peak_r
    psi, rear_psi, chi = load.front_share, 1.0 - np.asarray(load.front_share), load.chi

    front_slides = (slide_f * psi + b_r) / (1.0 - slide_f * chi)
    rear_slides = (slide_r * rear_psi + b_f) / (1.0 + slide_r * chi)
    both_slide = (slide_f * psi + slide_r * rear_psi) / (1.0 - chi * (slide_f - slide_r))
    rear_follows = (b_r > 0.0) & (b_r >= peak_r * (rear_psi - front_slides * chi))
    front_follows = (b_f > 0.0) & (b_f >= peak_f * (psi + rear_slides * chi))

    past = first & ~lifted
    front_locked = past & (front_first | (rear_first & front_follows))
    rear_locked = past & (rear_first | (front_first & rear_follows))
    with_front, without = np.where(rear_locked, both_slide, front_slides), np.where(rear_locked, rear_slides, b_f + b_r)
    z = np.where(front_locked, with_front, without)
    lift = rear_lift_decel(load)
    return Panic(np.minimum(z, lift), front_locked, rear_locked, np.asarray(z >= lift))


def height_by_lifting(wheelbase: Number, total: Number, gain: Number, lift: Number, wheel_centre: Number) -> Floats:
    """Centre of gravity height [m] by lifting one axle, h = r_w + L·ΔW/(W·tan θ), sin θ = lift/L.

    `wheelbase` [m]; `total` [kg]; `gain` [kg] on the axle left down; `lift` [m]; `wheel_centre` [m] above the ground.
    Any shape. Source: moments on the tilted vehicle.
    """
    angle = np.arcsin(np.asarray(lift) / wheelbase)
    return wheel_centre + wheelbase * gain / (total * np.tan(angle))

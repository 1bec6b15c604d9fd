"""The vehicle on the road: axle loads, what the grip allows, and the laws' view of the sharing."""

from dataclasses import dataclass, fields, replace
from functools import cached_property
from typing import Literal

import numpy as np

from kobrix.core.constants import G
from kobrix.core.numerics.arrays import Floats, Mask, Number, per_line

_ROUNDING = 1e-12

VehicleKind = Literal["car", "truck", "motorcycle", "aircraft"]
Axle = Literal["front", "rear"]
AXLES: tuple[Axle, Axle] = ("front", "rear")


@dataclass(frozen=True)
class Trailer:
    """What a trailer does to the vehicle that pulls it, all over the vehicle's weight or its wheelbase [1]; 0 without one.

    `drag`: what the vehicle brakes of it, (1 − k)·m_t/m; `nose`: the load on the hitch over the weight, `nose_rise` its rise per g;
    `behind`: hitch behind the rear axle, `height` of the hitch, over the wheelbase.
    """

    drag: Number = 0.0
    nose: Number = 0.0
    nose_rise: Number = 0.0
    behind: Number = 0.0
    height: Number = 0.0


NO_TRAILER = Trailer()


@dataclass(frozen=True)
class Load:
    """One load state, or several along leading axes, on a wheelbase.

    `mass` [kg]; `front_share` [1] static; `chi` [1], centre of gravity height over wheelbase; `grip_front` [1] and
    `grip_rear` [1]; `sliding` [1], grip of a locked tyre over its peak; `rotating` [1], rotating share of the mass; the
    `trailer` [record] it pulls.
    """

    mass: Number
    front_share: Number
    chi: Number
    grip_front: Number
    grip_rear: Number
    sliding: Number
    rotating: Number
    trailer: Trailer = NO_TRAILER

    def grip(self, axle: Axle) -> Number:
        """Peak grip [1] of `axle` [name]."""
        return self.grip_front if axle == "front" else self.grip_rear

    @cached_property
    def weight(self) -> Number:
        """Weight m·g [N], without a trailer."""
        return self.mass * G

    @cached_property
    def pulled(self) -> Number:
        """ΣF/(m·g·z) [1]: 1 and what is pushed by a trailer that brakes too little itself."""
        return 1.0 + self.trailer.drag

    @cached_property
    def at_rest(self) -> dict[Axle, Number]:
        """Load of each axle over the weight, standing {axle: [1]}."""
        own, front = self.trailer, np.asarray(self.front_share)
        return {"front": front - own.nose * own.behind, "rear": 1.0 - front + own.nose * (1.0 + own.behind)}

    @cached_property
    def rise(self) -> dict[Axle, Number]:
        """What the load of each axle over the weight gains per g {axle: [1]}.

        W_f = m·g(ψ + zχ) − S·e/L + H·h_h/L, W_r = m·g(1 − ψ − zχ) + S(1 + e/L) − H·h_h/L, H = (1 − k)·m_t·g·z.
        """
        own, pull = self.trailer, self.chi + self.trailer.drag * self.trailer.height
        return {"front": pull - own.nose_rise * own.behind, "rear": -pull + own.nose_rise * (1.0 + own.behind)}


def one_state(load: Load, number: int) -> Load:
    """The load state of a `number` [1] of `load` [record] (L, 1, 1), as plain numbers. Source: definition."""

    def own(value: Number) -> float:
        array = np.asarray(value, dtype=np.float64).reshape(-1)
        return float(array[min(number, array.size - 1)])

    trailer = Trailer(**{f.name: own(getattr(load.trailer, f.name)) for f in fields(Trailer)})
    return replace(load, **{f.name: own(getattr(load, f.name)) for f in fields(Load) if f.name != "trailer"}, trailer=trailer)


def on_line(load: Load) -> Load:
    """The `load` [record] without the last axis of its arrays: figures that hold for a whole line. Source: shape."""
    own = Trailer(**{f.name: per_line(getattr(load.trailer, f.name)) for f in fields(Trailer)})
    return replace(load, **{f.name: per_line(getattr(load, f.name)) for f in fields(Load) if f.name != "trailer"}, trailer=own)


def road_share(load: Load) -> Number:
    """What a brake's own force T·wheels/R is divided by [1] to be the force on the road of `load` [record]: 1 + ρ, with a trailer
    (1 + ρ + d)/(1 + d), d what the vehicle brakes of it over its own mass. Any shape. Source: Newton, the wheels' inertia."""
    return (load.pulled + load.rotating) / load.pulled


def axle_load(load: Load, axle: Axle, decel: Number) -> Floats:
    """Load [N] on `axle` [name] of `load` [record] at a deceleration `decel` [g], never below 0.

    W_f = m·g·(ψ + zχ), W_r = m·g·(1 − ψ − zχ), a trailer's pull besides; past rear lift both stay as they are there, so that the
    front never bears more than there is. Any shape. Source: moments about the contact points.
    """
    return np.maximum(0.0, load.weight * axle_share(load, axle, np.minimum(decel, rear_lift_decel(load))))


def axle_share(load: Load, axle: Axle, decel: Number) -> Floats:
    """Load of `axle` [name] of `load` [record] over the weight [1] at `decel` [g]; below 0 once the wheels lift.

    Any shape. Source: moments about the contact points.
    """
    return np.asarray(load.at_rest[axle] + decel * load.rise[axle])


def axle_loads(load: Load, decel: Floats) -> Floats:
    """Loads [N] on front and rear (2, ...) of `load` [record] at `decel` [g] (...), never below 0. Source: as `axle_load`."""
    z = np.minimum(decel, rear_lift_decel(load))
    return np.maximum(0.0, load.weight * np.array([axle_share(load, axle, z) for axle in AXLES]))


def rear_lift_decel(load: Load) -> Floats:
    """Deceleration [g] at which the rear of `load` [record] lifts, (1 − ψ)/χ; infinite where a trailer's nose keeps it down.

    Any shape. Source: moments.
    """
    fall = -np.asarray(load.rise["rear"])
    return np.asarray(np.where(fall > 0.0, load.at_rest["rear"] / np.where(fall > 0.0, fall, 1.0), np.inf))


def grip_limit(load: Load, front_braked: Number, rear_braked: Number) -> Floats:
    """Deceleration [g] at which every braked axle of `load` [record] gives all its grip at once, never above rear lift.

    `front_braked` [1] and `rear_braked` [1]: braked wheels over wheels of that axle. Any shape.
    Source: z·ΣF/(m·g·z) = Σ µ·n·W(z)/(m·g), solved for z.
    """
    front, rear = load.grip_front * front_braked, load.grip_rear * rear_braked
    left = np.asarray(load.pulled - front * load.rise["front"] - rear * load.rise["rear"])
    given = front * load.at_rest["front"] + rear * load.at_rest["rear"]
    z = np.where(
        left > 0.0, given / np.where(left > 0.0, left, 1.0), np.inf
    )  # infinite: the loads rise faster than the stop asks
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

    b_f = z(ψ + zχ), b_r = z(1 − ψ − zχ), times the weight; with a trailer the whole pull, in the proportion of the loads. Any
    shape. Source: moments.
    """
    whole = load.at_rest["front"] + load.at_rest["rear"] + decel * (load.rise["front"] + load.rise["rear"])
    return decel * load.pulled * axle_load(load, axle, decel) / whole


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
    A locked axle stays locked and gives sliding·µ·W; the other locks when its force reaches µ·W at the new z. Once the rear has
    lifted everything stays: z as it is there, and nothing locks any more. Any shape. Source: moments with one axle sliding.
    """
    b_f = np.asarray(front) / load.weight
    b_r = np.asarray(rear) / load.weight
    peak_f = np.asarray(load.grip_front * front_braked)
    peak_r = np.asarray(load.grip_rear * rear_braked)
    one = sliding(load, peak_f, peak_r)
    lift = rear_lift_decel(load)
    front_slides = (one.front + b_r) / one.with_front
    rear_slides = (one.rear + b_f) / one.with_rear
    both_slide = (one.front + one.rear) / (one.with_front + one.with_rear - load.pulled)
    rear_follows = (b_r > 0.0) & (b_r >= peak_r * axle_share(load, "rear", front_slides))
    front_follows = (b_f > 0.0) & (b_f >= peak_f * axle_share(load, "front", rear_slides)) & (one.front_locks_at <= lift)

    past = first & ~lifted
    front_locked = past & (front_first | (rear_first & front_follows))
    rear_locked = past & (rear_first | (front_first & rear_follows))
    with_front, without = (
        np.where(rear_locked, both_slide, front_slides),
        np.where(rear_locked, rear_slides, (b_f + b_r) / load.pulled),
    )
    z = np.where(front_locked, with_front, without)
    lifts = lifted | (z >= lift * (1.0 - _ROUNDING))
    return Panic(np.where(lifts, lift, z), front_locked, rear_locked, np.asarray(lifts))


@dataclass(frozen=True)
class Sliding:
    """One axle sliding, over the weight: `front` and `rear` [1], what each gives at rest; `with_front` and `with_rear` [1], what z
    is divided by while that axle slides; and the other one's lock: `rear_locks_with` and `front_locks_with` [1], the force it then
    gives, and `rear_locks_at` and `front_locks_at` [g], infinite where it never does."""

    front: Number
    rear: Number
    with_front: Number
    with_rear: Number
    rear_locks_with: Number
    front_locks_with: Number
    rear_locks_at: Floats
    front_locks_at: Floats


def sliding(load: Load, peak_front: Number, peak_rear: Number) -> Sliding:
    """What one sliding axle of `load` [record] leaves [record], with `peak_front` [1] and `peak_rear` [1] µ·n_braked/n_wheels.

    z·pulled = sliding·µ·W(z) + b, solved for z. Any shape. Source: moments with one axle sliding.
    """
    slide = {"front": load.sliding * peak_front, "rear": load.sliding * peak_rear}
    given = {axle: slide[axle] * load.at_rest[axle] for axle in AXLES}
    over = {axle: load.pulled - slide[axle] * load.rise[axle] for axle in AXLES}

    def other(peak: Number, axle: Axle, sliding_one: Axle) -> tuple[Floats, Floats]:
        """Force over the weight at which `axle` locks while the other slides, and the z there."""
        below = np.asarray(1.0 - peak * load.rise[axle] / over[sliding_one])
        force = peak * (load.at_rest[axle] + load.rise[axle] * given[sliding_one] / over[sliding_one])
        ever = below > 0.0
        needed = np.where(ever, force / np.where(ever, below, 1.0), np.inf)
        return needed, np.asarray((given[sliding_one] + needed) / over[sliding_one])

    rear, rear_at = other(peak_rear, "rear", "front")
    front, front_at = other(peak_front, "front", "rear")
    return Sliding(given["front"], given["rear"], over["front"], over["rear"], rear, front, rear_at, front_at)


def height_by_lifting(wheelbase: Number, total: Number, gain: Number, lift: Number, wheel_centre: Number) -> Floats:
    """Centre of gravity height [m] by lifting one axle, h = r_w + L·ΔW/(W·tan θ), sin θ = lift/L.

    `wheelbase` [m]; `total` [kg]; `gain` [kg] on the axle left down; `lift` [m]; `wheel_centre` [m] above the ground.
    Any shape. Source: moments on the tilted vehicle.
    """
    angle = np.arcsin(np.asarray(lift) / wheelbase)
    return wheel_centre + wheelbase * gain / (total * np.tan(angle))

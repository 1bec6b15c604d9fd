"""Which end uses its grip first, at every push: exact, because on a straight part the question is a quadratic.

On a straight part the brake forces, the deceleration and so the axle loads are straight. Whether the rear uses more of its
grip than the front, B_r·W_f > B_f·W_r, is then a parabola's sign: its ends, its vertex and its roots tell everything.
"""

from dataclasses import dataclass, replace

import numpy as np

from kobrix.core.constants import PUBLISHED
from kobrix.core.numerics.arrays import Floats, Mask, Number, as_shape, at_step, lookup
from kobrix.core.physics.chain import Place
from kobrix.core.physics.road import Road, on_road
from kobrix.core.physics.vehicle import AXLES, Axle, Load, axle_share

LOW_GRIP = 0.15  # the least grip that lock order is judged at, our rule
_FAR = 1e6  # steps past the last knot within which a straight part is followed


@dataclass(frozen=True)
class _Parts:
    """Straight parts (..., K−1): forces and loads at their start and their rise over one step."""

    force: dict[Axle, tuple[Floats, Floats]]
    carried: dict[Axle, tuple[Floats, Floats]]
    decel: tuple[Floats, Floats]


def _parts(road: Road, grip: dict[Axle, Number]) -> _Parts:
    load = road.load
    z, rise = road.decel[..., :-1], road.decel[..., 1:] - road.decel[..., :-1]
    force: dict[Axle, tuple[Floats, Floats]] = {}
    carried: dict[Axle, tuple[Floats, Floats]] = {}
    for axle in AXLES:
        own = road.force(axle)
        force[axle] = own[..., :-1], own[..., 1:] - own[..., :-1]
        peak = road.braked(axle) * grip[axle] * load.weight
        carried[axle] = peak * axle_share(load, axle, z), peak * load.rise[axle] * rise
    return _Parts(force, carried, (z, rise))


def _divide(top: Floats, bottom: Floats) -> Floats:
    ok = bottom != 0.0
    return np.asarray(np.where(ok, top / np.where(ok, bottom, 1.0), 0.0))


def _turns(parts: _Parts) -> list[Floats]:
    """Places on each step at which the parabola B_r·W_f − B_f·W_r is zero or turns."""
    (bf, df), (br, dr) = parts.force["front"], parts.force["rear"]
    (wf, ef), (wr, er) = parts.carried["front"], parts.carried["rear"]
    a = dr * ef - df * er
    b = br * ef + dr * wf - bf * er - df * wr
    c = br * wf - bf * wr
    root = np.sqrt(np.maximum(0.0, b * b - 4.0 * a * c))
    large = -0.5 * (b + np.where(b >= 0.0, root, -root))  # without cancellation
    return [_divide(-b, 2.0 * a), _divide(large, a), _divide(c, large)]


def _places(road: Road, wanted: list[Floats], most: Number) -> Place:
    """All `wanted` fractions of each step, both ends too, cut to the step; the last step goes on to `most`."""
    steps = road.decel.shape[-1] - 1
    end = np.ones(steps)
    limit = np.where(np.arange(steps) == steps - 1, np.asarray(most), end)
    full = (*road.decel.shape[:-1], steps)
    inside = [np.minimum(np.maximum(w, 0.0), limit) for w in wanted]
    every = [as_shape(part, full) for part in (np.zeros(1), limit, *inside)]
    fraction = np.concatenate(every, axis=-1)
    return Place(as_shape(np.tile(np.arange(steps), len(every)), fraction.shape), fraction)


def _use(road: Road, axle: Axle, place: Place, z: Floats, grip: Number) -> Floats:
    force = lookup(road.force(axle), place.knot, place.fraction)
    carried = road.load.weight * axle_share(road.load, axle, z) * at_step(road.braked(axle), place.knot) * grip
    return np.asarray(np.where(carried > 0.0, force / np.where(carried > 0.0, carried, 1.0), 0.0))


def rear_first_grips(road: Road, wheels: dict[Axle, int], least: float = LOW_GRIP) -> tuple[Mask, Floats, Floats]:
    """Where the rear would lock first at some grip from `least` [1] up to the stated one, on a `road` [record] (..., K).

    `wheels` {axle: [1]}. Both grips shrink together. Returns (...): whether there is such a grip, and the least and
    greatest of them [1] (as the larger of the two axles' grips). Exact. Source: model.
    """
    load = road.load
    peak = np.maximum(load.grip_front, load.grip_rear)
    grip: dict[Axle, Number] = {"front": load.grip_front, "rear": load.grip_rear}
    steps = road.decel.shape[-1] - 1
    lowest = least / peak
    slippery = _slippery(road, load, lowest, wheels)
    ends = [np.minimum(r.places["front"], r.places["rear"])[..., None] for r in (road, slippery)]
    own = [np.where(np.isfinite(e), e, 0.0) for e in ends]
    longer = np.maximum(1.0, own[0] - (steps - 1))
    at_ends = [as_shape(e - np.arange(steps), road.decel[..., 1:].shape) for e in own]
    place = _places(road, [*_turns(_parts(road, grip)), *at_ends], longer)
    z = lookup(road.decel, place.knot, place.fraction)
    front, rear = (_use(road, axle, place, z, grip[axle]) for axle in AXLES)
    share = np.maximum(front, rear)
    inside = (share <= 1.0 + 1e-9) & (share >= lowest * (1.0 - 1e-9)) & (rear > 0.0)
    some = np.any(inside & (rear > front * (1.0 + 1e-9)), axis=-1)
    near = inside & (rear >= front * (1.0 - 1e-6))
    low = np.min(np.where(near, share * peak, np.inf), axis=-1)
    high = np.max(np.where(near, share * peak, 0.0), axis=-1)
    return some, np.where(some, low, 0.0), np.where(some, high, 0.0)


def _slippery(road: Road, load: Load, share: Number, wheels: dict[Axle, int]) -> Road:
    """The same forces at a `share` of the stated grip."""
    low = replace(load, grip_front=load.grip_front * share, grip_rear=load.grip_rear * share, rotating=0.0)
    braking: dict[Axle, Floats] = {axle: road.braked(axle) * max(1, wheels[axle]) for axle in AXLES}
    return on_road(low, {axle: road.force(axle) for axle in AXLES}, braking, wheels)


def distribution_kept(road: Road) -> tuple[Mask, Mask]:
    """Whether the sharing keeps both clauses of UN R13-H (from memory) on a `road` [record] (..., K), nothing sliding.

    Returns two masks (...): the rear curve never above the front for z 0.15 to 0.80; and z ≥ 0.1 + 0.7(k − 0.2) for k 0.2
    to 0.8, each axle's. Exact. Source: UN R13-H, from memory.
    """
    known = {name: item.value for name, item in PUBLISHED.items() if name.startswith("distribution")}
    parts = _parts(road, {"front": 1.0, "rear": 1.0})
    z, rise = parts.decel
    bounds = (known["distribution_z_least"], known["distribution_z_most"])
    place = _places(road, [*_turns(parts)[:1], *(_divide(bound - z, rise) for bound in bounds)], _FAR)
    at = lookup(road.decel, place.knot, place.fraction)
    front, rear = (_use(road, axle, place, at, 1.0) for axle in AXLES)
    inside = (at >= bounds[0] * (1.0 - 1e-12)) & (at <= bounds[1] * (1.0 + 1e-12))
    above = np.any(inside & (rear > front * (1.0 + 1e-9)), axis=-1)
    kept = np.ones(above.shape, dtype=bool)
    slope = known["distribution_slope"]
    offset = slope * known["distribution_k_least"] - known["distribution_offset"]  # (z + offset)·W ≥ slope·B
    for axle in AXLES:
        (b, db), (w, dw) = parts.force[axle], parts.carried[axle]
        vertex = _divide(-((z + offset) * dw + rise * w - slope * db), 2.0 * rise * dw)
        edges = [_divide(k * w - b, db - k * dw) for k in (known["distribution_k_least"], known["distribution_k_most"])]
        place = _places(road, [vertex, *edges], _FAR)
        at = lookup(road.decel, place.knot, place.fraction)
        use = _use(road, axle, place, at, 1.0)
        counts = (use >= known["distribution_k_least"] * (1.0 - 1e-12)) & (use <= known["distribution_k_most"] * (1.0 + 1e-12))
        kept &= ~np.any(counts & (at + offset < slope * use - 1e-12), axis=-1)
    return ~above, kept

"""What a lost circuit leaves of combinations that a search kept: the other way round, from how far force and room reach."""

from collections.abc import Callable, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.numerics.arrays import Floats, Mask, lookup
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics import linkage
from kobrix.core.physics.chain import Place, first_reach, place_of
from kobrix.core.physics.failures import best_up_to
from kobrix.core.physics.road import Event, Road
from kobrix.core.physics.travel import Air, Capped, Curve, reach
from kobrix.core.physics.vehicle import Axle, Load
from kobrix.core.search import sweep
from kobrix.core.search.engine import FAR, HALVINGS, Block, Bounds, Foot, linked, solve_behind, stroke_of


def least_left(
    block: Block, before: NDArray[np.int64], rows: NDArray[np.int64], load: Load, wheels: dict[Axle, int], bounds: Bounds
) -> Floats:
    """The least stop [g] (N,) that a lost circuit leaves, over circuits and load states; 0 where one circuit is all there is.

    `block` [record]; `before` [1] and `rows` [1] (N,) the numbers of each combination before and behind the push; `load` [record],
    `wheels` {axle: [1]}, `bounds` [record] as in `evaluate`. Source: model.
    """
    unique, inverse = np.unique(rows, return_inverse=True)
    behind = solve_behind(block, unique, load, wheels, failures=True)
    if not behind.lost or before.size == 0:
        return np.zeros(before.size)
    solved, control = behind.solved, block.system.control
    road, event, travel = solved.road, solved.event, solved.pulls[0].pedal.travel
    assert travel is not None and control.available is not None

    def columns(values: Any, last: int, first: int = 0) -> Any:
        """The rows of figures whose D axis, if any, stands before L, C and `last` more axes and behind `first` others; the
        healthy condition left out."""
        array = np.asarray(values, dtype=np.float64)
        if array.ndim >= 2 + last and array.shape[array.ndim - 1 - last] > 1:
            array = np.take(array, np.arange(1, array.shape[array.ndim - 1 - last]), axis=array.ndim - 1 - last)
        at = array.ndim - 3 - last
        return np.take(array, inverse, axis=at) if at >= first and array.shape[at] > 1 else array

    def curve(own: Curve) -> Curve:
        air = tuple(Air(columns(a.factor, 1), columns(a.start, 1), columns(a.end, 1)) for a in own.air)
        capped = tuple(Capped(curve(c.curve), columns(c.cap, 1), columns(c.factor, 1)) for c in own.capped)
        return Curve(columns(own.start, 1), columns(own.end, 1), air, capped)

    shape = (before.size, behind.loads, len(behind.lost))
    table, braked = columns(road.table, 1, 1), columns(road.braked_table, 1, 1)
    table, braked = (
        np.broadcast_to(t.reshape(t.shape[0], *(1,) * (5 - t.ndim), *t.shape[1:]), (t.shape[0], *shape, t.shape[-1]))
        for t in (table, braked)
    )
    locks = [{axle: columns(v, 0) for axle, v in own.items()} for own in (road.places, road.locks)]
    own_road = Road(load, table, braked, locks[0], locks[1])
    place, decel = (np.broadcast_to(columns(v, 0), shape) for v in (event.place, event.decel))
    own_event = Event(place, decel, *(np.broadcast_to(columns(v, 0) > 0.0, shape) for v in (event.front, event.rear, event.lift)))
    c, h, i = np.unravel_index(before, block.before)
    feet = [Foot(own, block.twin) for own in block.cylinders]

    def each(values: Sequence[float] | Floats, at: NDArray[np.int64]) -> Floats:
        return np.asarray(values, dtype=np.float64)[at].reshape(-1, 1, 1)

    area = each([1.0 if block.twin else float(f.cylinder.chambers[0].area) for f in feet], c)
    runs = np.stack([each([float(f.run(name)) for f in feet], c) for name in behind.lost], axis=-1)[..., 0, :]  # (N, 1, C)
    ratio = each(control.pivot_to_pad / block.pins, i)
    rod = np.asarray(controls.rod_force(bounds.force, ratio, control.efficiency, control.return_force))
    out = np.stack([
        rod if b is None else boosting.boosted(rod, b.gain, b.cut_in, b.jump_in, b.limit) for b in block.boosters
    ])[h, np.arange(h.size)]  # fmt: skip
    pressure = out
    if not block.twin:
        friction, spring = (each([float(getattr(f.cylinder, n)) for f in feet], c) for n in ("efficiency", "spring"))
        pressure = cylinders.line_pressure(out, area, friction, spring)
    knots = columns(solved.pulls[0].pedal.knots, 1)
    end = first_reach(knots, np.broadcast_to(pressure, shape)[..., None])[0].number[..., 0]
    lost_rod = each([0.0 if b is None else float(b.lost_travel) for b in block.boosters], h)
    room = (float(control.available) - control.free_play) / ratio - lost_rod
    piston, steps = curve(travel.piston), road.decel.shape[-1] - 1

    def ends_at(own: Curve, wanted: Floats) -> Floats:
        place, ok = reach(own, np.broadcast_to(wanted, shape)[..., None])
        return np.asarray(np.where(ok[..., 0], place.number[..., 0], np.inf))

    if control.linkage is not None:
        end = _where_linked_ends(piston, knots, shape, runs, area, steps, bounds.force, block, h, c)
    elif np.any(np.asarray(control.mount_give) > 0.0):
        end = _where_room_ends(piston, knots, end, room, runs, area, steps, control, block, h, c)
    else:
        end = np.minimum(end, ends_at(piston, (room - runs) * area))
    for n, chamber in enumerate(block.system.cylinder.chambers):
        if block.twin:
            usable = columns(travel.usable[chamber.name] or 0.0, 1)
            usable = usable[..., 0] if np.ndim(usable) else usable
        else:
            usable = each([float(stroke_of(f.cylinder.chambers[n]) - f.cylinder.chambers[n].lost) for f in feet], c) * area
        alive = np.array([name != chamber.name for name in behind.lost])
        end = np.where(alive, np.minimum(end, ends_at(curve(travel.chambers[chamber.name]), usable)), end)
    best, _ = best_up_to(own_road, own_event, place_of(end[..., None], steps))
    return np.asarray(np.broadcast_to(best, shape).min(axis=(1, 2)))


def _where_room_ends(
    piston: Curve, knots: Floats, end: Floats, room: Floats, runs: Floats, area: Floats, steps: int, control: controls.Control,
    block: Block, h: NDArray[np.int64], c: NDArray[np.int64],
) -> Floats:  # fmt: skip
    """Place numbers at which a mounting that yields, too, has used up the room, or `end` where that comes first; halving."""

    def over(number: Floats) -> Mask:
        place = place_of(number[..., None], steps)
        rod = _rods(knots, place, block, h, c)
        return np.asarray(runs + piston.at(place)[..., 0] / area + rod * control.mount_give > room)

    return _last_not(over, end)


def _where_linked_ends(
    piston: Curve, knots: Floats, shape: tuple[int, ...], runs: Floats, area: Floats, steps: int, force: float, block: Block,
    h: NDArray[np.int64], c: NDArray[np.int64],
) -> Floats:  # fmt: skip
    """Place numbers at which a linkage asks for more than the `force` [N] or the room; halving."""
    control = block.system.control
    link, room = control.linkage, control.available
    assert link is not None and room is not None
    lost = np.array([0.0 if b is None else float(b.lost_travel) for b in block.boosters])[h].reshape(-1, 1, 1)

    def over(number: Floats) -> Mask:
        place = place_of(number[..., None], steps)
        rod, stroke = _rods(knots, place, block, h, c), runs + piston.at(place)[..., 0] / area
        push, travel = linked(control, link, None, rod, stroke)
        with np.errstate(invalid="ignore"):
            travel = travel + lost * linkage.ratio_at(link, control.pivot_to_pad, stroke)
        return np.asarray(~(push <= force) | ~(travel <= room))

    return _last_not(over, np.full(shape, steps - 1 + FAR))


def _rods(knots: Floats, place: Place, block: Block, h: NDArray[np.int64], c: NDArray[np.int64]) -> Floats:
    """Rod force [N] (N, L, C) at a place, each combination with its own booster and cylinder."""
    force = lookup(knots, place.knot, place.fraction)[..., 0]
    if not block.twin:
        force = np.stack([Foot(own, False).out(force) for own in block.cylinders])[c, np.arange(c.size)]
    return np.stack([sweep.rod_for(help_, force) for help_ in block.boosters])[h, np.arange(h.size)]


def _last_not(over: Callable[[Floats], Mask], end: Floats) -> Floats:
    """The last place number up to `end` that is not yet over; halving."""
    low, high = np.zeros(end.shape), end.copy()
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        beyond = over(middle)
        low, high = np.where(beyond, low, middle), np.where(beyond, middle, high)
    return low

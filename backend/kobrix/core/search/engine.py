"""The setups worth buying: whole parts in every combination, what breaks a limit named, what another beats left out.

As in `matching`, the chain behind the cylinder is solved once for each combination of brakes and valves, and cylinders,
boosters and pins are laid over it. A circuit lost is asked the other way round: which pressure leaves the least stop that is
asked for, and do force, room and stroke reach it? That is as cheap as the healthy stop, so every combination is judged on it.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask, Number, lookup
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics import linkage
from kobrix.core.physics.chain import HEALTHY, Condition, Place, Station, System, first_reach, place_of
from kobrix.core.physics.failures import best_up_to
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.road import Event, Road, limit_of
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.travel import Air, Capped, Curve, reach
from kobrix.core.physics.valves import DecelSensing
from kobrix.core.physics.vehicle import Axle, Load
from kobrix.core.search import sweep
from kobrix.core.search.batching import batched, taken_rows
from kobrix.core.search.pareto import BIT

_FAR = 1e6  # steps past the last knot: any push
_HALVINGS = 70


@dataclass(frozen=True)
class Block:
    """Combinations of one make: `system` [record], its `cylinders` and `boosters` [records], `pins` [m] (n,), and for each
    of its stations the `options` [records]; what each costs besides, NaN where not known: `cylinder_prices` (n,),
    `booster_prices` (n,), `option_prices` (n,) for each station; `option_fits` (n,) whether the rotor goes into the wheel."""

    system: System
    cylinders: tuple[cylinders.Cylinder, ...]
    boosters: tuple[boosting.Booster | None, ...]
    pins: Floats
    options: tuple[tuple[Station, ...], ...]
    cylinder_prices: Floats
    booster_prices: Floats
    option_prices: tuple[Floats, ...]
    option_fits: tuple[Mask, ...]

    @cached_property
    def columns(self) -> tuple[Any, ...]:
        """What stands behind the push as records of arrays (n, 1, 1, 1): each station's options, and twin cylinders."""
        lists = (*self.options, *((self.cylinders,) if self.twin else ()))
        return tuple(batched(own, np.arange(len(own), dtype=np.int64)) for own in lists)

    @property
    def twin(self) -> bool:
        """Whether two cylinders share a bar: they then stand behind the push with the brakes."""
        return self.system.cylinder.kind == "twin"

    @property
    def behind(self) -> tuple[int, ...]:
        """How many there are of each thing behind the push [1]."""
        return (*(len(o) for o in self.options), *((len(self.cylinders),) if self.twin else ()))

    @property
    def before(self) -> tuple[int, int, int]:
        """How many cylinders, boosters and pins [1] stand before it."""
        return (1 if self.twin else len(self.cylinders), len(self.boosters), self.pins.size)

    @property
    def count(self) -> int:
        """How many combinations there are [1]."""
        return int(np.prod(self.before) * np.prod(self.behind))


@dataclass(frozen=True)
class Bounds:
    """What must hold: at a stop of `decel` [g] at most `effort` [N] and `travel_share` [1] of the room, the first lock not
    before `first_lock` [g], `lock_as_found` [yes or no] where that is what the vehicle does as found, the rear at least `margin` [g] after the
    front; `sharing` [yes or no], the clauses for cars; `lift` [yes or no], no rear lift before a lock;
    with a circuit or the booster lost `left` [g] for `force` [N] within the room, None when it is not asked; at most a
    `price`, None for any."""

    decel: float
    effort: float
    travel_share: float
    first_lock: float
    sharing: bool
    lift: bool
    left: float | None
    force: float
    price: float | None
    lock_as_found: bool = False
    margin: float = 0.0


@dataclass(frozen=True)
class Tried:
    """Figures of some combinations (F, D), F before the push and D behind it, the worst over load states: `effort` [N],
    `travel` [m], `price`, NaN where not known, `broken` bits of LIMITS; and behind the push the least (D,) `grip_use` [1],
    `first_lock` [g], `pressure` [Pa] (of twin cylinders the force on the bar [N]) and `volume` [m³] (there the stroke [m])."""

    effort: Floats
    travel: Floats
    price: Floats
    broken: NDArray[np.uint16]
    grip_use: Floats
    first_lock: Floats
    pressure: Floats
    volume: Floats


def _mark(broken: NDArray[np.uint16], mask: Any, name: str) -> None:
    np.bitwise_or(broken, BIT[name], out=broken, where=mask)


@dataclass(frozen=True)
class _Behind:
    """What lies behind the push for D combinations, healthy first, then each circuit lost."""

    solved: Solved
    lost: tuple[str, ...]
    combinations: int
    loads: int

    def over(self, values: Number, condition: int = 0) -> Floats:
        """Figures (..., S of 1) of one condition as (D, L)."""
        array = np.asarray(values, dtype=np.float64)[..., 0]
        array = array.reshape((1,) * (3 - array.ndim) + array.shape)
        column = array[..., condition] if array.shape[-1] > 1 else array[..., 0]
        return np.broadcast_to(column, (self.combinations, self.loads))


def _solve(block: Block, rows: NDArray[np.int64], load: Load, wheels: dict[Axle, int], failures: bool) -> _Behind:
    """The chain behind the push for the combinations numbered `rows`."""
    places = np.unravel_index(rows, block.behind)
    parts = [taken_rows(own, at) for own, at in zip(block.columns, places, strict=True)]
    system = replace(block.system, stations=tuple(parts[: len(block.options)]))
    if block.twin:
        system = replace(system, cylinder=parts[-1])
    unit = sweep.without_foot(system)
    names = [c.name for c in unit.cylinder.chambers]
    lost = tuple(names) if failures and len(names) > 1 else ()
    condition = HEALTHY
    if lost:
        alive: dict[str, Number] = {n: np.array([1.0, *(0.0 if n == gone else 1.0 for gone in lost)])[:, None] for n in names}
        condition = Condition(alive=alive)
    solved = solve_path(system.name, [(unit, 1.0)], load, wheels, [condition], whole=True)
    loads = int(np.broadcast_shapes(np.shape(load.mass), (1, 1, 1))[0])
    return _Behind(solved, lost, rows.size, loads)


def least_place(road: Road, event: Event, need: float) -> tuple[Place, Mask]:
    """First place (..., 1) on a `road` [record] with its `event` [record] by which `need` [g] was reached at any push, and
    whether it ever is: a driver backs off a sliding wheel. Source: model.
    """
    place, reached = first_reach(road.decel, need)
    fine = reached[..., 0] & (event.decel >= need)
    late = reached[..., 0] & ~fine
    if not np.any(late):
        return place, np.asarray(fine)
    steps, shape = road.decel.shape[-1] - 1, road.decel.shape[:-1]
    ever = late & (best_up_to(road, event, place_of(np.full((*shape, 1), steps - 1 + _FAR), steps))[0] >= need)
    if not np.any(ever):
        return place, np.asarray(fine)
    low = np.where(np.isfinite(event.place), event.place, 0.0)
    high = np.full(low.shape, steps - 1 + _FAR)
    for _ in range(_HALVINGS):
        middle = 0.5 * (low + high)
        enough = best_up_to(road, event, place_of(middle[..., None], steps))[0] >= need
        low, high = np.where(enough, low, middle), np.where(enough, middle, high)
    number = np.where(ever[..., None], high[..., None], place.number)
    return place_of(number, steps), np.asarray(fine | ever)


@dataclass(frozen=True)
class _Pressed:
    """A place on every line: its `pressure` [Pa] (the force on the bar of twin cylinders), the `volume` [m³] taken (there the
    stroke [m]), `own` of each chamber, (D, L); `known` (D, L) whether it is reached."""

    pressure: Floats
    volume: Floats
    own: dict[str, Floats]
    known: Mask


def _pressed(behind: _Behind, place: Place, known: Mask, condition: int = 0) -> _Pressed:
    travel = behind.solved.pulls[0].pedal.travel
    if travel is None:
        raise Impossible("a search", "pedal travel is not known: the lines are not measured")

    def over(values: Number) -> Floats:
        return behind.over(values, condition)

    own = {name: over(curve.at(place)) for name, curve in travel.chambers.items()}
    reached = over(known[..., None].astype(np.float64)) > 0.0
    return _Pressed(over(behind.solved.push_at(place)), over(travel.piston.at(place)), own, reached)


@dataclass(frozen=True)
class _Foot:
    """One cylinder before the fluid: its `area` [m²], what its pistons lose [m], and its chambers."""

    cylinder: cylinders.Cylinder
    twin: bool

    def out(self, pressure: Floats) -> Floats:
        if self.twin:
            return pressure
        area, own = self.cylinder.chambers[0].area, self.cylinder
        return np.asarray(cylinders.force_for_pressure(pressure, area, own.efficiency, own.spring))

    def run(self, lost: str | None) -> float:
        """Stroke [m] that takes no fluid: closing the ports, and the whole stroke of a `lost` chamber."""
        if self.twin:
            return 0.0
        return sum(float(_stroke(c)) if c.name == lost else float(c.lost) for c in self.cylinder.chambers)

    def stroke(self, pressed: _Pressed, lost: str | None) -> Floats:
        area = 1.0 if self.twin else self.cylinder.chambers[0].area
        return np.asarray(self.run(lost) + pressed.volume / area)

    def spent(self, pressed: _Pressed, lost: str | None, chambers: Sequence[cylinders.Chamber]) -> Mask:
        """Whether a chamber that still works needs more stroke than it has (D,)."""
        some = np.zeros(pressed.pressure.shape[0], dtype=bool)
        for own, behind in zip(self.cylinder.chambers, chambers, strict=True):
            if own.name == lost:
                continue
            if self.twin:
                usable = np.asarray(_stroke(behind) - behind.lost)
                usable = usable.reshape(-1, 1) if usable.ndim else usable
                some |= (pressed.own[own.name] > usable).any(axis=1)
            else:
                some |= (pressed.own[own.name] / own.area > _stroke(own) - own.lost).any(axis=1)
        return some


def _stroke(chamber: cylinders.Chamber) -> Number:
    if chamber.stroke is None:
        raise Impossible("a search", "the cylinder's stroke is not known")
    return chamber.stroke


def _behind_limits(behind: _Behind, wheels: dict[Axle, int], bounds: Bounds) -> tuple[NDArray[np.uint16], Floats, Floats]:
    """What the road says (D,): the bits, the share of the grip used at the first lock, and that lock."""
    healthy = behind.solved.healthy()
    road, event = healthy.road, healthy.event
    broken = np.zeros(behind.combinations, dtype=np.uint16)

    def mark(name: str, mask: Any) -> None:
        _mark(broken, mask, name)

    def over(mask: Any) -> Mask:
        return behind.over(np.asarray(mask, dtype=np.float64)[..., None]) > 0.0

    both = bool(np.any(road.front > 0.0)) and bool(np.any(road.rear > 0.0))
    rear = over(event.rear & ~event.front & both)  # a control of the rear alone has no order to keep
    if bounds.margin > 0.0 and both:
        close = road.locks["rear"] < road.locks["front"] + bounds.margin
        rear = rear | over(close & np.isfinite(road.locks["rear"]))
    if bounds.lift:
        rear = rear | over(event.lift)
    mark("rear_first", rear.any(axis=1))
    lock = behind.over(event.decel[..., None])
    mark("early_lock", (lock < bounds.first_lock * (1.0 - 1e-12)).any(axis=1))
    if both:
        some, _, _ = rear_first_grips(road, wheels)
        mark("slippery", (over(some) & ~rear).any(axis=1) & ~rear.any(axis=1))
        if bounds.sharing:
            above, kept = distribution_kept(road)
            mark("sharing", (~over(above) | ~over(kept)).any(axis=1))
    limit = behind.over(np.asarray(limit_of(road))[..., None, None])
    use = np.where(np.isfinite(lock), lock / limit, 1.0).min(axis=1)
    return broken, use, lock.min(axis=1)


def evaluate(block: Block, rows: NDArray[np.int64], load: Load, wheels: dict[Axle, int], bounds: Bounds) -> Tried:
    """Every combination of a `block` [record] whose things behind the push have the numbers `rows` [1] (D,).

    `load` [record] (L, 1, 1), load sensing valves settled; `wheels` {axle: [1]}; `bounds` [record]. A linkage stands as it is: its
    pin does not move. Raises Impossible where strokes or lines are not known. Source: the chain, each limit as its judgement has it.
    """
    control = block.system.control
    if control.linkage is not None and block.pins.size > 1:
        raise Impossible("a search", "the pin of a linkage does not move alone: its cylinder and rod move with it")
    if control.available is None:
        raise Impossible("a search", "the pedal's travel to its stop is not known")
    if any(isinstance(d, DecelSensing) for own in block.options for s in own for d in s.devices):
        raise Impossible("a search", "a deceleration sensing valve follows the whole vehicle and is evaluated one by one")
    behind = _solve(block, rows, load, wheels, bounds.left is not None)
    fixed, use, lock = _behind_limits(behind, wheels, bounds)
    road = behind.solved.healthy().road
    place, known = first_reach(road.decel, bounds.decel)
    stop = _pressed(behind, place, known[..., 0])
    _mark(fixed, ~stop.known.all(axis=1), "no_stop")
    asked: list[tuple[str | None, _Pressed]] = []  # what each failure needs; None: the booster
    if bounds.left is not None:
        every, reached = least_place(behind.solved.road, behind.solved.event, bounds.left)
        asked = [(name, _pressed(behind, every, reached, n + 1)) for n, name in enumerate(behind.lost)]
        asked.append((None, _pressed(behind, every, reached, 0)))
    places = np.unravel_index(rows, block.behind)
    prices = np.zeros(rows.size)
    for own, fits, at in zip(block.option_prices, block.option_fits, places, strict=False):
        prices = prices + own[at]
        _mark(fixed, ~fits[at], "wheel_room")
    if block.twin:
        prices = prices + block.cylinder_prices[places[-1]]

    chambers = behind.solved.pulls[0].system.cylinder.chambers
    shape = (*block.before, rows.size)
    effort, travel, price = (np.empty(shape) for _ in range(3))
    broken = np.empty(shape, dtype=np.uint16)
    room = float(control.available)
    for c in range(block.before[0]):
        foot = _Foot(block.cylinders[c], block.twin)
        out, stroke = foot.out(stop.pressure), foot.stroke(stop, None)
        fixed_c = np.where(foot.spent(stop, None, chambers), fixed | BIT["stroke"], fixed)
        failed = [(lost, foot.out(own.pressure), foot.stroke(own, lost), foot.spent(own, lost, chambers) | ~own.known.all(axis=1))
                  for lost, own in asked]  # fmt: skip
        for h, help_ in enumerate(block.boosters):
            rod = sweep.rod_for(help_, out)
            effort[c, h], travel[c, h] = _at_the_foot(block, help_, rod, stroke)
            price[c, h] = prices + block.booster_prices[h] + (0.0 if block.twin else block.cylinder_prices[c])
            broken[c, h] = fixed_c
            for lost, out_, run, gone in failed:
                if lost is None and help_ is None:
                    continue
                hard, far = _at_the_foot(block, help_, sweep.rod_for(help_, out_, lost is None), run)
                _mark(broken[c, h], (hard > bounds.force) | (far > room) | gone, "lost_circuit")
    _mark(broken, effort > bounds.effort, "effort")
    _mark(broken, travel > bounds.travel_share * room, "travel")
    if bounds.price is not None:
        _mark(broken, ~(price <= bounds.price), "price")  # what has no price cannot be said to keep a ceiling
    flat = (int(np.prod(block.before)), rows.size)
    least, volume = stop.pressure.min(axis=1), stop.volume.min(axis=1)
    return Tried(effort.reshape(flat), travel.reshape(flat), price.reshape(flat), broken.reshape(flat), use, lock, least, volume)


def _at_the_foot(block: Block, help_: boosting.Booster | None, rod: Floats, stroke: Floats) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m] (pins, D), the worst over load states, for a `rod` [N] and the cylinder's `stroke` [m] (D, L)."""
    control = block.system.control
    if control.linkage is None:  # the worst load state is the same for every ratio
        return sweep.at_the_foot(control, help_, control.pivot_to_pad / block.pins, rod.max(axis=1), stroke.max(axis=1))
    push, travel = _linked(control, control.linkage, help_, rod, stroke)
    return push.max(axis=1)[None], travel.max(axis=1)[None]


def _linked(
    control: controls.Control, linked: linkage.Linkage, help_: boosting.Booster | None, rod: Floats, stroke: Floats
) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m] over a linkage, any shape; infinite past its dead point."""
    ratio = linkage.ratio_at(linked, control.pivot_to_pad, stroke)
    push = controls.pedal_force_for_rod(rod, ratio, control.efficiency, control.return_force)
    lost = 0.0 if help_ is None else help_.lost_travel
    travel = control.pivot_to_pad * linkage.swing(linked, stroke) + lost * ratio + control.free_play
    travel = travel + controls.mount_travel(rod, control.mount_give, ratio)
    beyond = ~np.isfinite(ratio) | ~np.isfinite(travel)
    return np.where(beyond, np.inf, push), np.where(beyond, np.inf, travel)


def least_left(
    block: Block, before: NDArray[np.int64], rows: NDArray[np.int64], load: Load, wheels: dict[Axle, int], bounds: Bounds
) -> Floats:
    """The least stop [g] (N,) that a lost circuit leaves, over circuits and load states; 0 where one circuit is all there is.

    `block` [record]; `before` [1] and `rows` [1] (N,) the numbers of each combination before and behind the push; `load` [record],
    `wheels` {axle: [1]}, `bounds` [record] as in `evaluate`. Source: model.
    """
    unique, inverse = np.unique(rows, return_inverse=True)
    behind = _solve(block, unique, load, wheels, failures=True)
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
    feet = [_Foot(own, block.twin) for own in block.cylinders]

    def each(values: Sequence[float] | Floats, at: NDArray[np.int64]) -> Floats:
        return np.asarray(values, dtype=np.float64)[at].reshape(-1, 1, 1)

    area = each([1.0 if block.twin else float(f.cylinder.chambers[0].area) for f in feet], c)
    runs = np.stack([each([f.run(name) for f in feet], c) for name in behind.lost], axis=-1)[..., 0, :]  # (N, 1, C)
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
            usable = each([float(_stroke(f.cylinder.chambers[n]) - f.cylinder.chambers[n].lost) for f in feet], c) * area
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
    linked, room = control.linkage, control.available
    assert linked is not None and room is not None
    lost = np.array([0.0 if b is None else float(b.lost_travel) for b in block.boosters])[h].reshape(-1, 1, 1)

    def over(number: Floats) -> Mask:
        place = place_of(number[..., None], steps)
        rod, stroke = _rods(knots, place, block, h, c), runs + piston.at(place)[..., 0] / area
        push, travel = _linked(control, linked, None, rod, stroke)
        with np.errstate(invalid="ignore"):
            travel = travel + lost * linkage.ratio_at(linked, control.pivot_to_pad, stroke)
        return np.asarray(~(push <= force) | ~(travel <= room))

    return _last_not(over, np.full(shape, steps - 1 + _FAR))


def _rods(knots: Floats, place: Place, block: Block, h: NDArray[np.int64], c: NDArray[np.int64]) -> Floats:
    """Rod force [N] (N, L, C) at a place, each combination with its own booster and cylinder."""
    force = lookup(knots, place.knot, place.fraction)[..., 0]
    if not block.twin:
        force = np.stack([_Foot(own, False).out(force) for own in block.cylinders])[c, np.arange(c.size)]
    return np.stack([sweep.rod_for(help_, force) for help_ in block.boosters])[h, np.arange(h.size)]


def _last_not(over: Callable[[Floats], Mask], end: Floats) -> Floats:
    """The last place number up to `end` that is not yet over; halving."""
    low, high = np.zeros(end.shape), end.copy()
    for _ in range(_HALVINGS):
        middle = 0.5 * (low + high)
        beyond = over(middle)
        low, high = np.where(beyond, low, middle), np.where(beyond, middle, high)
    return low


def lightest(block: Block, before: NDArray[np.int64], pressure: Floats, volume: Floats) -> Floats:
    """The least push [N] (N,) over load states of combinations of a `block` [record] numbered `before` [1] the push, by the
    least `pressure` [Pa] and `volume` [m³] (N,) of each. Source: the chain."""
    c, h, i = np.unravel_index(before, block.before)
    found = np.empty(before.size)
    for n, own in enumerate(block.cylinders[: block.before[0]]):
        for k, help_ in enumerate(block.boosters):
            at = (c == n) & (h == k)
            foot, control = _Foot(own, block.twin), block.system.control
            rod = sweep.rod_for(help_, foot.out(pressure[at]))
            ratio: Number = control.pivot_to_pad / block.pins[i[at]]
            if control.linkage is not None:
                stroke = foot.run(None) + volume[at] / (1.0 if block.twin else foot.cylinder.chambers[0].area)
                ratio = linkage.ratio_at(control.linkage, control.pivot_to_pad, stroke)
            found[at] = controls.pedal_force_for_rod(rod, ratio, control.efficiency, control.return_force)
    return found


def parts_of(block: Block, most: int) -> Iterator[NDArray[np.int64]]:
    """The numbers [1] of what lies behind the push in a `block` [record], in parts of about `most` [1] combinations, the first
    a quarter of that so that something shows soon.

    Source: memory stays bounded.
    """
    step = max(1, most // int(np.prod(block.before)))
    whole, first = int(np.prod(block.behind)), 0
    while first < whole:
        end = min(whole, first + (step if first else max(1, step // 4)))
        yield np.arange(first, end, dtype=np.int64)
        first = end

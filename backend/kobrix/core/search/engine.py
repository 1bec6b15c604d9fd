"""The setups worth buying: whole parts in every combination, what breaks a limit named, what another beats left out.

As in `matching`, the chain behind the cylinder is solved once for each combination of brakes and valves, and cylinders,
boosters and pins are laid over it. A circuit lost is asked the other way round: which pressure leaves the least stop that is
asked for, and do force, room and stroke reach it? That is as cheap as the healthy stop, so every combination is judged on it.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask, Number
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics import linkage
from kobrix.core.physics.chain import HEALTHY, Condition, Place, Station, System, first_reach, place_of
from kobrix.core.physics.failures import best_up_to
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.road import Event, Road, limit_of
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.valves import DecelSensing
from kobrix.core.physics.vehicle import Axle, Load
from kobrix.core.search import sweep
from kobrix.core.search.batching import batched, taken_rows
from kobrix.core.search.pareto import BIT

FAR = 1e6  # steps past the last knot: any push
HALVINGS = 70


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
class Unpressed:
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


def solve_behind(block: Block, rows: NDArray[np.int64], load: Load, wheels: dict[Axle, int], failures: bool) -> Unpressed:
    """The chain behind the push for the combinations of a `block` [record] numbered `rows` [1] (D,), with `failures` [yes or no] or without.

    `load` [record] (L, 1, 1); `wheels` {axle: [1]}. Source: the chain.
    """
    places = np.unravel_index(rows, block.behind)
    parts = [taken_rows(own, at) for own, at in zip(block.columns, places, strict=True)]
    system = replace(block.system, stations=tuple(parts[: len(block.options)]))
    if block.twin:
        system = replace(system, cylinder=parts[-1])
    return solve_without_foot(system, load, wheels, rows.size, failures)


def solve_without_foot(system: System, load: Load, wheels: dict[Axle, int], combinations: int, failures: bool) -> Unpressed:
    """The chain of a `system` [record] behind its cylinder [record], its numbers columns (D, 1, 1, 1) of `combinations` [1], with
    `failures` [yes or no] or without. `load` [record] (L, 1, 1) or (D, L, 1, 1); `wheels` {axle: [1]}. Source: the chain.
    """
    unit = sweep.without_foot(system)
    names = [c.name for c in unit.cylinder.chambers]
    lost = tuple(names) if failures and len(names) > 1 else ()
    condition = HEALTHY
    if lost:
        alive: dict[str, Number] = {n: np.array([1.0, *(0.0 if n == gone else 1.0 for gone in lost)])[:, None] for n in names}
        condition = Condition(alive=alive)
    solved = solve_path(system.name, [(unit, 1.0)], load, wheels, [condition], whole=True)
    return Unpressed(solved, lost, combinations, solved.road.decel.shape[-3])


def least_place(road: Road, event: Event, need: Number) -> tuple[Place, Mask]:
    """First place (..., 1) on a `road` [record] with its `event` [record] by which `need` [g], one or (...), was reached at any push, and
    whether it ever is: a driver backs off a sliding wheel. Source: model.
    """
    place, reached = first_reach(road.decel, np.asarray(need)[..., None])
    fine = reached[..., 0] & (event.decel >= need)
    late = reached[..., 0] & ~fine
    if not np.any(late):
        return place, np.asarray(fine)
    steps, shape = road.decel.shape[-1] - 1, road.decel.shape[:-1]
    ever = late & (best_up_to(road, event, place_of(np.full((*shape, 1), steps - 1 + FAR), steps))[0] >= need)
    if not np.any(ever):
        return place, np.asarray(fine)
    low = np.where(np.isfinite(event.place), event.place, 0.0)
    high = np.full(low.shape, steps - 1 + FAR)
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        enough = best_up_to(road, event, place_of(middle[..., None], steps))[0] >= need
        low, high = np.where(enough, low, middle), np.where(enough, middle, high)
    number = np.where(ever[..., None], high[..., None], place.number)
    return place_of(number, steps), np.asarray(fine | ever)


@dataclass(frozen=True)
class Pressed:
    """A place on every line: its `pressure` [Pa] (the force on the bar of twin cylinders), the `volume` [m³] taken (there the
    stroke [m]), `own` of each chamber, (D, L); `known` (D, L) whether it is reached."""

    pressure: Floats
    volume: Floats
    own: dict[str, Floats]
    known: Mask


def pressed_at(behind: Unpressed, place: Place, known: Mask, condition: int = 0) -> Pressed:
    """What is pressed at a `place` [record] `behind` the push [record], `known` [yes or no] whether it is reached, of the `condition` [1] of that
    number. Raises Impossible where the lines are not known. Source: the chain."""
    travel = behind.solved.pulls[0].pedal.travel
    if travel is None:
        raise Impossible("a search", "pedal travel is not known: the lines are not measured")

    def over(values: Number) -> Floats:
        return behind.over(values, condition)

    own = {name: over(curve.at(place)) for name, curve in travel.chambers.items()}
    reached = over(known[..., None].astype(np.float64)) > 0.0
    return Pressed(over(behind.solved.push_at(place)), over(travel.piston.at(place)), own, reached)


@dataclass(frozen=True)
class Foot:
    """One cylinder before the fluid: its `area` [m²], what its pistons lose [m], and its chambers."""

    cylinder: cylinders.Cylinder
    twin: bool

    def out(self, pressure: Floats) -> Floats:
        """Force [N] at the cylinder for a `pressure` [Pa]; of twin cylinders it is that force."""
        if self.twin:
            return pressure
        area, own = self.cylinder.chambers[0].area, self.cylinder
        return np.asarray(cylinders.force_for_pressure(pressure, area, own.efficiency, own.spring))

    def run(self, lost: str | None) -> Number:
        """Stroke [m] that takes no fluid: closing the ports, and the whole stroke of a `lost` chamber."""
        if self.twin:
            return 0.0
        return sum(stroke_of(c) if c.name == lost else c.lost for c in self.cylinder.chambers)

    def stroke(self, pressed: Pressed, lost: str | None) -> Floats:
        """Stroke [m] (D, L) where it is `pressed`, with a `lost` chamber."""
        area = 1.0 if self.twin else self.cylinder.chambers[0].area
        return np.asarray(self.run(lost) + pressed.volume / area)

    def spent(self, pressed: Pressed, lost: str | None, chambers: Sequence[cylinders.Chamber]) -> Mask:
        """Whether a chamber that still works needs more stroke than it has (D,)."""
        some = np.zeros(pressed.pressure.shape[0], dtype=bool)
        for own, behind in zip(self.cylinder.chambers, chambers, strict=True):
            if own.name == lost:
                continue
            if self.twin:
                usable = np.asarray(stroke_of(behind) - behind.lost)
                usable = usable.reshape(-1, 1) if usable.ndim else usable
                some |= (pressed.own[own.name] > usable).any(axis=1)
            else:
                some |= (pressed.own[own.name] / own.area > stroke_of(own) - own.lost).any(axis=1)
        return some


def stroke_of(chamber: cylinders.Chamber) -> Number:
    """Stroke [m] of a `chamber` [record]. Raises Impossible where it is not known. Source: the entry."""
    if chamber.stroke is None:
        raise Impossible("a search", "the cylinder's stroke is not known")
    return chamber.stroke


def behind_limits(
    behind: Unpressed, wheels: dict[Axle, int], bounds: Bounds, least_lock: Number
) -> tuple[NDArray[np.uint16], Floats, Floats]:
    """What the road says of what lies `behind` the push [record] (D,): the bits [1] of the `bounds` [record] that break, the first
    lock not before `least_lock` [g], one or (D, 1); the share of the grip used at the first lock [1], and that lock [g]. `wheels` {axle: [1]}. Source: each limit as its judgement has it."""
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
    mark("early_lock", (lock < least_lock * (1.0 - 1e-12)).any(axis=1))
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
    behind = solve_behind(block, rows, load, wheels, bounds.left is not None)
    fixed, use, lock = behind_limits(behind, wheels, bounds, bounds.first_lock)
    road = behind.solved.healthy().road
    place, known = first_reach(road.decel, bounds.decel)
    stop = pressed_at(behind, place, known[..., 0])
    _mark(fixed, ~stop.known.all(axis=1), "no_stop")
    asked: list[tuple[str | None, Pressed]] = []  # what each failure needs; None: the booster
    if bounds.left is not None:
        every, reached = least_place(behind.solved.road, behind.solved.event, bounds.left)
        asked = [(name, pressed_at(behind, every, reached, n + 1)) for n, name in enumerate(behind.lost)]
        asked.append((None, pressed_at(behind, every, reached, 0)))
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
        foot = Foot(block.cylinders[c], block.twin)
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
    push, travel = linked(control, control.linkage, help_, rod, stroke)
    return push.max(axis=1)[None], travel.max(axis=1)[None]


def linked(
    control: controls.Control, link: linkage.Linkage, help_: boosting.Booster | None, rod: Floats, stroke: Floats
) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m] of a `control` [record] over its `link` [record], any shape; infinite past its dead point.

    `help_` [record], None for no booster; `rod` [N]; `stroke` [m] of the cylinder. Source: slider-crank.
    """
    arc, ratio = linkage.arc_and_ratio(link, control.pivot_to_pad, stroke)
    push = controls.pedal_force_for_rod(rod, ratio, control.efficiency, control.return_force)
    lost = 0.0 if help_ is None else help_.lost_travel
    travel = arc + lost * ratio + control.free_play
    travel = travel + controls.mount_travel(rod, control.mount_give, ratio)
    beyond = ~np.isfinite(ratio) | ~np.isfinite(travel)
    return np.where(beyond, np.inf, push), np.where(beyond, np.inf, travel)


def lightest(block: Block, before: NDArray[np.int64], pressure: Floats, volume: Floats) -> Floats:
    """The least push [N] (N,) over load states of combinations of a `block` [record] numbered `before` [1] the push, by the
    least `pressure` [Pa] and `volume` [m³] (N,) of each. Source: the chain."""
    c, h, i = np.unravel_index(before, block.before)
    found = np.empty(before.size)
    for n, own in enumerate(block.cylinders[: block.before[0]]):
        for k, help_ in enumerate(block.boosters):
            at = (c == n) & (h == k)
            foot, control = Foot(own, block.twin), block.system.control
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

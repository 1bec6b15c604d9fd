"""Which plausible vehicles of a combination hold every limit at once: what lies behind the push solved once for all feet.

The trials of one set of brakes and valves stand where a search has its combinations (N, L). Every cylinder, booster and pin, drawn in the
same trials, is then laid over them by their formulas, as the search does it.
"""

from dataclasses import dataclass, fields, is_dataclass, replace
from typing import Any

import numpy as np

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import System, first_reach
from kobrix.core.physics.control import Control, mount_travel, pedal_force_for_rod
from kobrix.core.physics.solved_setup import settle
from kobrix.core.physics.vehicle import Axle, Load
from kobrix.core.search import sweep
from kobrix.core.search.engine import (
    Bounds,
    Foot,
    Pressed,
    behind_limits,
    least_place,
    linked,
    pressed_at,
    solve_without_foot,
)


@dataclass(frozen=True)
class Least:
    """What each trial (N,) may not fall below: the first `lock` [g] and what is `left` [g] with something lost, None when it is not asked."""

    lock: Floats
    left: Floats | None


@dataclass(frozen=True)
class Behind:
    """The trials of one set of brakes and valves: which break a limit whatever the foot, `broken` [yes or no] (N,); the wanted `stop` [Pressed],
    and what each lost circuit needs, `lost` [(name, Pressed)], the booster's by None; `unasked` [yes or no] (N,), nothing need be left."""

    broken: Mask
    stop: Pressed
    lost: tuple[tuple[str | None, Pressed], ...]
    unasked: Mask
    chambers: tuple[Any, ...]


def behind_of(system: System, load: Load, wheels: dict[Axle, int], bounds: Bounds, least: Least, trials: int) -> Behind:
    """What lies behind the push of a `system` [record] in its `trials` [1], its numbers and those of the `load` [record] columns (N, 1, 1, 1).

    `wheels` {axle: [1]}; `bounds` [record]; `least` [record] in each trial. Raises Impossible where the lines are not known. Source: the chain.
    """
    behind = solve_without_foot(settle(system, load), load, wheels, trials, least.left is not None)
    broken = behind_limits(behind, wheels, replace(bounds, margin=0.0), least.lock[:, None])[0] > 0
    place, known = first_reach(behind.solved.healthy().road.decel, bounds.decel)
    stop = pressed_at(behind, place, known[..., 0])
    lost: list[tuple[str | None, Pressed]] = []
    unasked = np.ones(trials, dtype=bool)
    if least.left is not None:
        unasked = least.left <= 0.0
        every, reached = least_place(behind.solved.road, behind.solved.event, least.left[:, None, None])
        lost = [(name, pressed_at(behind, every, reached, n + 1)) for n, name in enumerate(behind.lost)]
        lost.append((None, pressed_at(behind, every, reached, 0)))
    chambers = behind.solved.pulls[0].system.cylinder.chambers
    return Behind(broken | ~stop.known.all(axis=1), stop, tuple(lost), unasked, chambers)


def holding(behind: Behind, foot: System, bounds: Bounds) -> Mask:
    """Which trials (N,) hold every one of the `bounds` [record] with the control, booster and cylinder of the `foot` [record] before what
    lies `behind` [record]. Raises Impossible where the pedal's room is not known. Source: the chain, each limit as its judgement has it.
    """
    control, help_, cylinder = (_per_trial(part) for part in (foot.control, foot.booster, foot.cylinder))
    if control.available is None:
        raise Impossible("a search", "the pedal's travel to its stop is not known")
    own = Foot(cylinder, cylinder.kind == "twin")
    chambers = tuple(_per_trial(c) for c in behind.chambers)
    effort, travel = _at_the_foot(
        control, help_, sweep.rod_for(help_, own.out(behind.stop.pressure)), own.stroke(behind.stop, None)
    )
    broken = behind.broken | own.spent(behind.stop, None, chambers)
    broken = broken | (effort > bounds.effort).any(axis=1) | (travel > bounds.travel_share * control.available).any(axis=1)
    for name, pressed in behind.lost:
        if name is None and help_ is None:
            continue
        rod = sweep.rod_for(help_, own.out(pressed.pressure), name is None)
        hard, far = _at_the_foot(control, help_, rod, own.stroke(pressed, name))
        gone = (hard > bounds.force).any(axis=1) | (far > control.available).any(axis=1)
        gone = gone | own.spent(pressed, name, chambers) | ~pressed.known.all(axis=1)
        broken = broken | (gone & ~behind.unasked)
    return np.asarray(~broken)


def _at_the_foot(control: Control, help_: Booster | None, rod: Floats, stroke: Floats) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m] (N, L) for a `rod` [N] and the cylinder's `stroke` [m]."""
    if control.linkage is not None:
        return linked(control, control.linkage, help_, rod, stroke)
    push = np.asarray(pedal_force_for_rod(rod, control.ratio, control.efficiency, control.return_force))
    lost = 0.0 if help_ is None else help_.lost_travel
    return push, (lost + stroke) * control.ratio + control.free_play + mount_travel(rod, control.mount_give, control.ratio)


def _per_trial(record: Any) -> Any:
    """A record whose columns (N, 1, 1, 1) stand before the load states, (N, 1)."""
    if is_dataclass(record) and not isinstance(record, type):
        return replace(record, **{f.name: _per_trial(getattr(record, f.name)) for f in fields(record)})
    if isinstance(record, tuple):
        return tuple(map(_per_trial, record))
    return record[..., 0, 0] if isinstance(record, np.ndarray) and record.ndim == 4 else record

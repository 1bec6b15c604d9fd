"""One setup solved: healthy, with every failure, in every load state, on every control path, and the stop it is judged at."""

from dataclasses import dataclass, replace

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask, Number, lookup
from kobrix.core.physics import valves
from kobrix.core.physics.chain import Condition, Place, Station, System, first_reach
from kobrix.core.physics.failures import Failing, Left, Room, what_is_left
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.road import Event, Road, limit_of
from kobrix.core.physics.vehicle import Axle, Load, axle_load

DESIGN_SHARE = 0.9  # of the first lock: the stop a setup is judged at
_NEVER = 1e12  # Pa: the knee of a deceleration sensing valve whose deceleration is never reached


@dataclass(frozen=True)
class SolvedPath:
    """A control path solved: `healthy` and, with its failures, `failed` [Solved]; what is `left`, None where not known;
    `grip_limit` [g] (L,); `design` place (L, 1, 1), its `design_decel` [g] (L,) and `design_known` [yes or no] (L,)."""

    healthy: Solved
    failed: Solved
    left: Left | None
    grip_limit: Floats
    design: Place
    design_decel: Floats
    design_known: Mask

    @property
    def lock_decel(self) -> Floats:
        """First lock or lift [g] (L,), inf when none."""
        return self.healthy.event.decel[:, 0]


@dataclass(frozen=True)
class SolvedSetup:
    """A setup solved. Load states stand along the first axis (L), conditions along the second: health, then the failures.

    `systems` with their valves settled; `load` [record] (L, 1, 1); `wheels` {axle: [1]}; `conditions` [record]; `paths`
    {name: [record]}, the one of all controls last.
    """

    systems: tuple[System, ...]
    load: Load
    wheels: dict[Axle, int]
    conditions: tuple[Failing, ...]
    paths: dict[str, SolvedPath]

    @property
    def names(self) -> tuple[str, ...]:
        """Names of the conditions, health first."""
        return tuple(c.name for c in self.conditions)

    @property
    def main(self) -> SolvedPath:
        """The path of all controls together."""
        return next(reversed(self.paths.values()))


def settle(system: System, load: Load) -> System:
    """The `system` [record] with its load sensing valves settled at the rear loads of `load` [record] (L, 1, 1)."""
    if not any(isinstance(d, valves.LoadSensing) for s in system.stations for d in s.devices):
        return system
    rear = axle_load(load, "rear", 0.0)
    return replace(system, stations=tuple(replace(s, devices=valves.settled(s.devices, rear)) for s in system.stations))


def settle_decel(systems: list[tuple[System, float]], load: Load, wheels: dict[Axle, int]) -> list[System]:
    """The `systems` [(record, ratio)] of one control path with their deceleration sensing valves settled for `load` [record].

    The knee is the inlet pressure at which the vehicle, these controls pressed and the valve open, reaches the valve's
    deceleration, nothing sliding; never reached, it stays open. Each load state and each trial has its own. `wheels` {axle: [1]}. Source: model.
    """
    if not any(isinstance(d, valves.DecelSensing) for system, _ in systems for s in system.stations for d in s.devices):
        return [system for system, _ in systems]
    open_ = solve_path("together", systems, load, wheels)

    def knee(system: System, station: Station, place: int, device: valves.DecelSensing) -> Number:
        where, known = first_reach(open_.road.decel, device.decel)
        pull = next(p for p in open_.pulls if p.system.name == system.name)
        own = pull.place(where)
        branch = next(i for i, b in enumerate(pull.pedal.line.branches) if b.station.name == station.name)
        inlet = lookup(pull.pedal.line.inlet[branch], own.knot, own.fraction)
        return np.where(known, valves.outlet(station.devices[:place], inlet), _NEVER)

    def settled(system: System, station: Station) -> Station:
        knees = {i: knee(system, station, i, d) for i, d in enumerate(station.devices) if isinstance(d, valves.DecelSensing)}
        return replace(station, devices=valves.set_at(station.devices, knees))

    return [replace(system, stations=tuple(settled(system, s) for s in system.stations)) for system, _ in systems]


def design_stop(road: Road, event: Event, limit: Floats) -> tuple[Place, Floats, Mask]:
    """The stop a setup is judged at: 0.9 of its first lock, or of the grip limit when nothing locks.

    `road` [record] and `event` [record] healthy (..., L, 1); `limit` [g] (..., L). Returns place (..., L, 1, 1), decel [g]
    (..., L), and whether the chain ever gives it. Source: model.
    """
    lock = event.decel[..., 0]
    decel = DESIGN_SHARE * np.where(np.isfinite(lock), lock, limit)
    place, known = first_reach(road.decel, decel[..., None, None])
    return place, decel, known[..., 0, 0]


@dataclass(frozen=True)
class Asked:
    """What is asked of a setup: `failures` [record], the first its health; a `conditions`
    [record] for each system with arrays (C, 1), `air` {system: {station: [m³]}} (C, 1), and the `rooms` {system: [record]} of the controls."""

    failures: tuple[Failing, ...]
    conditions: tuple[Condition, ...]
    air: dict[str, dict[str, Number]]
    rooms: dict[str, Room]


def _path(
    name: str, systems: list[tuple[System, float]], load: Load, wheels: dict[Axle, int], asked: Asked, whole: bool
) -> SolvedPath:
    own = [s.name for s, _ in systems]
    rows = [c for c, system in zip(asked.conditions, asked.rooms, strict=True) if system in own]
    strokes = all(strokes_known(s) for s, _ in systems)
    bare = systems if strokes else [(without_lines(s), r) for s, r in systems]
    failed = solve_path(name, bare, load, wheels, rows, asked.air, whole)
    healthy = failed.healthy() if strokes else solve_path(name, systems, load, wheels)
    limit = limit_of(healthy.road)
    design, decel, known = design_stop(healthy.road, healthy.event, limit)
    if any(s.control.linkage is not None for s, _ in systems):
        known = known & np.isfinite(healthy.push_at(design)[..., 0, 0])
    left = None
    measured = all(p.pedal.travel is not None and asked.rooms[p.system.name].available is not None for p in failed.pulls)
    if measured and not (whole and len(asked.failures) == 1):  # of many trials that lose nothing nobody asks what is left
        left = what_is_left(failed, asked.rooms)
    return SolvedPath(healthy, failed, left, limit, design, decel, known)


def strokes_known(system: System) -> bool:
    """Whether every chamber of a `system` [record] has its stroke stated."""
    return all(c.stroke is not None for c in system.cylinder.chambers)


def without_lines(system: System) -> System:
    """The `system` [record] with its lines not known: forces are then all there is."""
    return replace(system, stations=tuple(replace(s, lines=None) for s in system.stations))


def solve(
    systems: tuple[System, ...],
    load: Load,
    wheels: dict[Axle, int],
    ways: dict[str, dict[str, float]],
    asked: Asked,
    whole: bool = False,
) -> SolvedSetup:
    """Solve a setup [SolvedSetup]: the whole of what Size shows.

    `systems` [record]; `load` [record] (L, 1, 1); `wheels` {axle: [1]}; `ways` {path: {system: force ratio [1]}}, all
    together last; `asked` [record]; `whole` [yes or no], travel as sums only: many trials at once. Source: model.
    """
    settled = [settle(system, load) for system in systems]
    paths, own = {}, {s.name: s for s in settled}
    for name, ratios in ways.items():
        pulled = [(s, ratios[s.name]) for s in settled if ratios.get(s.name, 0.0) > 0.0]
        on_path = settle_decel(pulled, load, wheels)
        own |= {s.name: s for s in on_path}
        paths[name] = _path(name, [(s, r) for s, (_, r) in zip(on_path, pulled, strict=True)], load, wheels, asked, whole)
    return SolvedSetup(tuple(own.values()), load, wheels, asked.failures, paths)

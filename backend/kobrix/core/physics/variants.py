"""A solved setup with a part changed: another bore, braided hoses, a valve at a knee. One at a time or many.

Arrays of changes stand as (N, 1, 1, 1) in front of the load states, so that one solution answers all of them.
"""

from dataclasses import dataclass, replace

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.physics import valves
from kobrix.core.physics.chain import Station, System
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.road import limit_of
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup, design_stop


@dataclass(frozen=True)
class Trial:
    """A changed system at its own design stop: the heaviest `push` [N] and longest `pad` [m] over load states (...)."""

    solved: Solved
    push: Floats
    pad: Floats | None


def attempt(setup: SolvedSetup, system: System) -> Trial:
    """Solve a changed `system` [record] in place of the one of its name, on the vehicle of `setup` [record] with all controls.

    Arrays of changes stand as (N, 1, 1, 1).
    """
    solved = on_path(setup, setup.main, system)
    place, _, known = design_stop(solved.road, solved.event, limit_of(solved.road))
    pull = next(p for p in solved.pulls if p.system.name == system.name)
    push = np.where(known, solved.push_at(place)[..., 0, 0] * pull.ratio, np.inf)
    if pull.pedal.travel is None:
        return Trial(solved, np.max(push, axis=-1), None)
    pad = np.broadcast_to(pull.pedal.pad_at(pull.place(place))[..., 0, 0], push.shape)
    return Trial(solved, np.max(push, axis=-1), np.max(np.where(known, pad, np.inf), axis=-1))


def on_path(setup: SolvedSetup, path: SolvedPath, system: System) -> Solved:
    """A changed `system` [record] in place of the one of its name on a `path` [record] of `setup` [record].

    Arrays of changes stand as (N, 1, 1, 1). Source: the chain.
    """
    pulls = [(system if p.system.name == system.name else p.system, p.ratio) for p in path.healthy.pulls]
    return solve_path(path.healthy.name, pulls, setup.load, setup.wheels, whole=True)


def with_bore(system: System, bore: Number) -> System:
    """The `system` [record] with every chamber of another `bore` [m]."""
    chambers = tuple(replace(c, bore=bore) for c in system.cylinder.chambers)
    return replace(system, cylinder=replace(system.cylinder, chambers=chambers))


def braided(system: System) -> System:
    """The `system` [record] with all hoses braided."""

    def swap(station: Station) -> Station:
        if station.lines is None:
            return station
        give = np.minimum(station.lines.hose_give, station.lines.braided_give)
        return replace(station, lines=replace(station.lines, hose_give=give))

    return replace(system, stations=tuple(map(swap, system.stations)))


def with_knee(system: System, knee: Number, slope: Number) -> System:
    """The `system` [record] with one proportioning valve of `knee` [Pa] and `slope` [1] in the rear lines."""

    def swap(station: Station) -> Station:
        if station.axle != "rear":
            return station
        others = tuple(d for d in station.devices if not isinstance(d, valves.Proportioning))
        return replace(station, devices=(*others, valves.Proportioning(knee, slope)))

    return replace(system, stations=tuple(map(swap, system.stations)))

"""Every combination of what may change, evaluated at once.

The pressure that a stop asks for, the sharing and the lock order know only what lies behind the cylinder; the push and the
travel know the cylinder and the pedal besides. So the chain behind the cylinder is solved once for each combination of
pistons, rotors and knees, with a cylinder of one square metre and no pedal, and the bores and ratios are laid over it.
"""

from dataclasses import dataclass, replace

import numpy as np

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import Place, Station, System, first_reach
from kobrix.core.physics.disc import Disc, with_area
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.valves import Proportioning
from kobrix.core.physics.vehicle import Axle, Load

_WORKING_SET = 4_000_000  # figures worked on at once, so that memory stays bounded


@dataclass(frozen=True)
class Choices:
    """What may change, each a list (n,), None where it stays: `bores` [m], `ratios` [1], `front_areas` and `rear_areas` [m²]
    of one side, `front_radii` and `rear_radii` [m] effective, `knees` [Pa] of a valve in the rear lines with its `slope` [1]."""

    bores: Floats | None = None
    ratios: Floats | None = None
    front_areas: Floats | None = None
    rear_areas: Floats | None = None
    front_radii: Floats | None = None
    rear_radii: Floats | None = None
    knees: Floats | None = None
    slope: float = 0.43


@dataclass(frozen=True)
class Grid:
    """Figures of every combination, the worst over load states.

    `effort` [N] and `travel` [m] at the stop (bores, ratios, front areas, rear areas, front radii, rear radii, knees), NaN-free:
    `known` [yes or no] says where the stop is reached; `front_share` [1] of the braking there and `front_first` [yes or no]
    (the last five axes).
    """

    effort: Floats
    travel: Floats
    known: Mask
    front_share: Floats
    front_first: Mask


def count(choices: Choices) -> int:
    """How many combinations `choices` [record] make. Source: counting."""
    lists = (choices.bores, choices.ratios, choices.front_areas, choices.rear_areas, choices.front_radii, choices.rear_radii,
             choices.knees)  # fmt: skip
    return int(np.prod([1 if own is None else own.size for own in lists]))


def without_foot(system: System) -> System:
    """The `system` [record] behind its cylinder: one square metre without loss, so that its force is the pressure and its
    stroke the volume. Two cylinders on a bar stay as they are, and the force is the one on the bar. Source: the chain.
    """
    plain = replace(system.control, pivot_to_pad=1.0, pivot_to_pin=1.0, efficiency=1.0, return_force=0.0, free_play=0.0,
                    mount_give=0.0, linkage=None)  # fmt: skip
    if system.cylinder.kind == "twin":
        return replace(system, control=plain, booster=None)
    one = float(cylinders.bore_for_area(1.0))
    chambers = tuple(
        replace(c, bore=one, lost=0.0, stroke=0.0, force_share=1.0, travel_share=1.0) for c in system.cylinder.chambers
    )
    unit = replace(system.cylinder, efficiency=1.0, spring=0.0, chambers=chambers)
    return replace(system, control=plain, booster=None, cylinder=unit)


def behind(system: System, choices: Choices) -> System:
    """The `system` [record] behind its cylinder with every one of `choices` [record] for pistons, rotors and knees.

    Arrays stand as (D, 1, 1, 1), D combinations. Source: the chain.
    """
    lists = [choices.front_areas, choices.rear_areas, choices.front_radii, choices.rear_radii, choices.knees]
    mesh = np.meshgrid(*[np.zeros(1) if own is None else own for own in lists], indexing="ij")
    columns = [None if own is None else m.reshape(-1, 1, 1, 1) for own, m in zip(lists, mesh, strict=True)]

    def changed(station: Station) -> Station:
        area, radius = columns[:2][station.axle == "rear"], columns[2:4][station.axle == "rear"]
        brake = station.brake
        if (area is not None or radius is not None) and not isinstance(brake, Disc):
            raise Impossible(f"other pistons or rotors at {station.name}", "it is a drum")
        if area is not None and isinstance(brake, Disc):
            brake = with_area(brake, area)
        if radius is not None and isinstance(brake, Disc):
            brake = replace(brake, effective_radius=radius)
        devices = station.devices
        if columns[4] is not None and station.axle == "rear":
            devices = (*(d for d in devices if not isinstance(d, Proportioning)), Proportioning(columns[4], choices.slope))
        return replace(station, brake=brake, devices=devices)

    return without_foot(replace(system, stations=tuple(map(changed, system.stations))))


def over_loads(values: Floats, combinations: int, loads: int) -> Floats:
    """Figures `values` [any] (D or 1, L or 1, ...) of so many `combinations` [1] and `loads` [1] as (D, L). Source: shape."""
    array = np.asarray(values, dtype=np.float64)
    array = array.reshape((1,) * (4 - array.ndim) + array.shape)[..., 0, 0]
    return np.broadcast_to(array, (combinations, loads))


def sweep(system: System, load: Load, wheels: dict[Axle, int], choices: Choices, decel: float) -> Grid:
    """Figures of every combination of `choices` [record] of a `system` [record] at one stop of `decel` [g].

    `load` [record] (L, 1, 1), load sensing valves settled; `wheels` {axle: [1]}. Cylinders whose circuits have one pressure,
    without linkage. Raises Impossible for others. Source: the chain, laid out so that nothing is solved twice.
    """
    if system.cylinder.kind == "twin" or system.control.linkage is not None:
        raise Impossible("a sweep", "twin cylinders and linkages are evaluated one by one")
    solved = solve_path(system.name, [(behind(system, choices), 1.0)], load, wheels, whole=True)
    shape = tuple(1 if own is None else own.size for own in
                  (choices.front_areas, choices.rear_areas, choices.front_radii, choices.rear_radii, choices.knees))  # fmt: skip
    combinations, loads = int(np.prod(shape)), int(np.broadcast_shapes(np.shape(load.mass), (1, 1, 1))[0])
    place, reached = first_reach(solved.road.decel, decel)
    known = (over_loads(reached.astype(np.float64), combinations, loads) > 0.0).all(axis=1)
    pressure = over_loads(solved.push_at(place), combinations, loads)
    volume = _volume(solved, place, combinations, loads)
    at = solved.at(place)
    front, rear = (over_loads(v, combinations, loads) for v in (at.front, at.rear))
    total = front + rear
    share = (front / np.where(total > 0.0, total, 1.0)).min(axis=1)
    locks = [over_loads(solved.road.locks[a][..., None], combinations, loads) for a in ("front", "rear")]
    first = (locks[0] < locks[1]).all(axis=1)
    effort, travel = _over_the_pedal(system, choices, pressure, volume)
    whole = (*effort.shape[:2], *shape)
    return Grid(effort.reshape(whole), travel.reshape(whole), known.reshape(shape), share.reshape(shape), first.reshape(shape))


def _volume(solved: Solved, place: Place, combinations: int, loads: int) -> Floats | None:
    travel = solved.pulls[0].pedal.travel
    return None if travel is None else over_loads(travel.piston.at(place), combinations, loads)


def rod_for(help_: Booster | None, out: Floats, lost: bool = False) -> Floats:
    """Rod force [N] for an `out` [N] behind a booster `help_` [record], None when there is none; `lost` [yes or no]: it has
    failed. Any shape. Source: booster.
    """
    if help_ is None:
        return out
    if lost:
        return np.asarray(out + help_.return_spring)
    return boosting.rod_for_boosted(out, help_.gain, help_.cut_in, help_.jump_in, help_.limit)


def at_the_foot(
    control: controls.Control, help_: Booster | None, ratios: Floats, rod: Floats, stroke: Floats | None
) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m] (R, D) of a `control` [record] at each of `ratios` [1] (R,), for a `rod` [N] (D,) and the
    cylinder's `stroke` [m] (D,), None when it is not known; `help_` [record] adds its lost travel. Source: lever law.
    """
    effort = np.empty((ratios.size, rod.size))
    travel = np.empty(effort.shape) if stroke is not None else np.zeros(effort.shape)
    lost = 0.0 if help_ is None else help_.lost_travel
    step = max(1, _WORKING_SET // max(1, rod.size))
    for first in range(0, ratios.size, step):
        some = slice(first, first + step)
        ratio = ratios[some, None]
        effort[some] = controls.pedal_force_for_rod(rod, ratio, control.efficiency, control.return_force)
        if stroke is not None:
            np.multiply(lost + stroke, ratio, out=travel[some])
            travel[some] += control.free_play
            if np.any(np.asarray(control.mount_give) > 0.0):
                travel[some] += controls.mount_travel(rod, control.mount_give, ratio)
    return effort, travel


def _over_the_pedal(system: System, choices: Choices, pressure: Floats, volume: Floats | None) -> tuple[Floats, Floats]:
    """Push [N] and pad travel [m], the worst over load states (bores, ratios, D), of `pressure` and `volume` (D, L)."""
    control, help_, cylinder = system.control, system.booster, system.cylinder
    bores = np.atleast_1d(np.asarray(cylinder.chambers[0].bore if choices.bores is None else choices.bores, dtype=np.float64))
    ratios = np.atleast_1d(np.asarray(control.ratio if choices.ratios is None else choices.ratios, dtype=np.float64))
    lost = sum(float(c.lost) for c in cylinder.chambers)
    effort = np.empty((bores.size, ratios.size, pressure.shape[0]))
    travel = np.empty(effort.shape)
    for n, bore in enumerate(bores):
        area = cylinders.bore_area(float(bore))
        out = np.asarray(cylinders.force_for_pressure(pressure, area, cylinder.efficiency, cylinder.spring))
        rod = rod_for(help_, out).max(axis=1)  # the push rises with it: the worst load state is the same for every ratio
        stroke = None if volume is None else lost + (volume / area).max(axis=1)
        effort[n], travel[n] = at_the_foot(control, help_, ratios, rod, stroke)
    return effort, travel

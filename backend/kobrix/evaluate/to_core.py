"""From a setup file to the records of the core: units to SI, defaults from the one table, and a list of what is missing."""

from dataclasses import dataclass, field, replace

import numpy as np

from kobrix.core.constants import assumed
from kobrix.core.errors import BadEntry
from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import chain, disc, drum, lines, linkage, tyres, valves, vehicle
from kobrix.core.physics import control as controls
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics.yaw import side_named
from kobrix.fileformat import models
from kobrix.fileformat import stations as wheel_ends
from kobrix.fileformat.quantities import Typed, si

STATES = ("cold", "hot", "wet")


@dataclass
class Gaps:
    """Dotted paths of what is missing: for forces and decelerations, and besides for travel."""

    decel: list[str] = field(default_factory=list)
    travel: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Converted:
    """A setup in the core's records. `systems` is empty and `load` None when something for `decel` is missing.

    `friction` {state: {system: {station: µ or C*}}} and `fallback` {state: {system: stations whose value was not given}}.
    """

    systems: tuple[chain.System, ...]
    load: vehicle.Load | None
    load_names: tuple[str, ...]
    wheels: dict[vehicle.Axle, int]
    friction: dict[str, dict[str, dict[str, Number]]]
    fallback: dict[str, dict[str, list[str]]]
    tyres: dict[str, tyres.Tyre]
    gaps: Gaps


def value(typed: Typed | None, name: str, key: str) -> float:
    """SI value of a `typed` entry of the field `name`, or the default `key` when it was left out."""
    return assumed(key) if typed is None else si(typed, name)


def _need(typed: Typed | None, name: str, path: str, gaps: list[str]) -> float:
    if typed is None:
        gaps.append(f"{path}.{name}")
        return float("nan")
    return si(typed, name)


def linkage_of(part: models.Linkage, radius: float, path: str) -> linkage.Linkage:
    """The linkage of a `part` with its pin at a `radius` [m]. Raises BadEntry, naming `path`, where the rod cannot work."""
    x, y = (si(v, "bore_point_mm") for v in part.bore_point_mm)
    angles = (si(part.rest_angle_deg, "rest_angle_deg"), si(part.bore_direction_deg, "bore_direction_deg"))
    link = linkage.Linkage(radius, angles[0], float(part.sense), (x, y), angles[1], si(part.rod_mm, "rod_mm"))
    if np.ndim(radius) == 0 and np.isfinite(radius) and not linkage.reachable(link):
        raise BadEntry(
            f"{path}.linkage", "a rod that does not reach the bore's axis, or a pedal that pulls the piston out",
            "a rod long enough, and the sense in which pressing drives the piston into the bore",
        )  # fmt: skip
    return link


def _control(part: models.Control, path: str, gaps: Gaps) -> controls.Control:
    stiffness = part.mount_stiffness_n_per_mm
    pin = _need(part.pivot_to_pin_mm, "pivot_to_pin_mm", path, gaps.decel)
    if part.available_travel_mm is None:
        gaps.travel.append(f"{path}.available_travel_mm")
    return controls.Control(
        kind=part.kind,
        pivot_to_pad=_need(part.pivot_to_pad_mm, "pivot_to_pad_mm", path, gaps.decel),
        pivot_to_pin=pin,
        efficiency=value(part.efficiency, "efficiency", "control.efficiency"),
        return_force=value(part.return_force_n, "return_force_n", "control.return_force"),
        free_play=value(part.free_play_mm, "free_play_mm", "control.free_play"),
        available=None if part.available_travel_mm is None else si(part.available_travel_mm, "available_travel_mm"),
        mount_give=0.0 if stiffness is None else 1.0 / si(stiffness, "mount_stiffness_n_per_mm"),
        linkage=None if part.linkage is None else linkage_of(part.linkage, pin, path),
    )


def _assist_limit(part: models.Booster, path: str, gaps: Gaps) -> Number:
    if part.limit_n is not None:
        return si(part.limit_n, "limit_n")
    if part.kind == "vacuum":
        if part.diaphragms_mm is not None:
            effective: list[Number] = [si(d, "diaphragms_mm") for d in part.diaphragms_mm]
        elif part.nominal_diaphragms_mm is not None:
            share = assumed("booster.effective_of_nominal")
            effective = [share * si(d, "nominal_diaphragms_mm") for d in part.nominal_diaphragms_mm]
        else:
            gaps.decel.append(f"{path}.nominal_diaphragms_mm")
            effective = []
        depression = value(part.vacuum_kpa, "vacuum_kpa", "booster.vacuum")
        return boosting.vacuum_limit(effective, depression, value(part.efficiency, "efficiency", "booster.efficiency"))
    if part.kind == "hydraulic":
        pump = _need(part.pump_pressure_kpa, "pump_pressure_kpa", path, gaps.decel)
        return pump * _need(part.piston_area_cm2, "piston_area_cm2", path, gaps.decel)
    return _need(part.limit_n, "limit_n", path, gaps.decel)


def _booster(part: models.Booster, path: str, gaps: Gaps) -> boosting.Booster:
    return boosting.Booster(
        kind=part.kind,
        gain=_need(part.gain, "gain", path, gaps.decel),
        cut_in=value(part.cut_in_n, "cut_in_n", "booster.cut_in"),
        jump_in=value(part.jump_in_n, "jump_in_n", "booster.jump_in"),
        limit=_assist_limit(part, path, gaps),
        lost_travel=value(part.lost_travel_mm, "lost_travel_mm", "booster.lost_travel"),
        return_spring=value(part.return_spring_n, "return_spring_n", "booster.return_spring"),
    )


def _circuits(part: models.TandemCylinder, stations: list[wheel_ends.Station]) -> list[tuple[str, tuple[cylinders.Feed, ...]]]:
    """Circuits with what they feed, the primary's first."""
    if part.circuits == "diagonal":
        halves = tuple(cylinders.Feed(s.name, max(1, s.wheels // 2)) for s in stations)
        return [("circuit_1", halves), ("circuit_2", halves)]
    if part.circuits == "front_rear":
        named = [
            (axle, tuple(cylinders.Feed(s.name, s.wheels) for s in stations if s.axle == axle)) for axle in ("front", "rear")
        ]
    else:
        named = [(c.name, tuple(cylinders.Feed(f.station, f.wheels) for f in c.feeds)) for c in part.circuits]
    first = part.primary_feeds or ("front" if any(n == "front" for n, _ in named) else named[0][0])
    return sorted(named, key=lambda c: c[0] != first)


def _stroke(part: models.Bored, path: str, gaps: Gaps) -> float | None:
    if part.stroke_mm is None:
        gaps.travel.append(f"{path}.stroke_mm")
        return None
    return si(part.stroke_mm, "stroke_mm")


def _twin(part: models.TwinCylinder, stations: list[wheel_ends.Station], path: str, gaps: Gaps) -> cylinders.Cylinder:
    bar = part.bar
    if bar.front_share is not None:
        share = si(bar.front_share, "front_share")
    else:
        front, rear = (si(v or 0.0, "clevis_mm") for v in (bar.pivot_to_front_clevis_mm, bar.pivot_to_rear_clevis_mm))
        share = rear / (front + rear)
    chambers = []
    for name, own, half in (("front", share, part.front), ("rear", 1.0 - share, part.rear)):
        feeds = tuple(cylinders.Feed(s.name, s.wheels) for s in stations if s.axle == name)
        chambers.append(cylinders.Chamber(
            name, _need(half.bore_mm, "bore_mm", f"{path}.{name}", gaps.decel), _stroke(half, f"{path}.{name}", gaps),
            value(half.lost_mm, "lost_mm", "cylinder.lost"), own, own, feeds,
        ))  # fmt: skip
    stop = bar.stop_mm if bar.stop_mm is not None else part.stop_mm
    return cylinders.Cylinder(
        "twin", value(part.efficiency, "efficiency", "cylinder.efficiency"), value(part.spring_n, "spring_n", "cylinder.spring"),
        tuple(chambers), None if stop is None else si(stop, "stop_mm"),
    )  # fmt: skip


def _cylinder(part: models.Cylinder, stations: list[wheel_ends.Station], path: str, gaps: Gaps) -> cylinders.Cylinder:
    if isinstance(part, models.TwinCylinder):
        return _twin(part, stations, path, gaps)
    bore = _need(part.bore_mm, "bore_mm", path, gaps.decel)
    stroke = _stroke(part, path, gaps)
    efficiency = value(part.efficiency, "efficiency", "cylinder.efficiency")
    spring = value(part.spring_n, "spring_n", "cylinder.spring")
    lost = value(part.lost_mm, "lost_mm", "cylinder.lost")
    if not isinstance(part, models.TandemCylinder):
        feeds = tuple(cylinders.Feed(s.name, s.wheels) for s in stations)
        chamber = cylinders.Chamber("circuit", bore, stroke, lost, 1.0, 1.0, feeds)
        return cylinders.Cylinder("single", efficiency, spring, (chamber,))
    share = value(part.primary_share, "primary_share", "cylinder.primary_share")
    losses = (part.lost_primary_mm, part.lost_secondary_mm)
    chambers = []
    for (name, feeds), own, typed in zip(_circuits(part, stations), (share, 1.0 - share), losses, strict=True):
        port = lost if typed is None else si(typed, "lost_mm")
        chambers.append(cylinders.Chamber(name, bore, None if stroke is None else stroke * own, port, 1.0, 1.0, feeds))
    return cylinders.Cylinder("tandem", efficiency, spring, tuple(chambers))


def _disc(part: wheel_ends.DiscBrake, path: str, gaps: Gaps) -> disc.Disc:
    if part.caliper is None:
        gaps.decel.append(f"{path}.caliper")
    if part.pistons_mm is None:
        gaps.decel.append(f"{path}.pistons_mm")
    if part.friction is None or part.friction.cold is None:
        gaps.decel.append(f"{path}.friction.cold")
    fixed = part.caliper == "fixed"
    area = disc.side_area([si(d, "pistons_mm") for d in part.pistons_mm or []])
    radius = disc.effective_radius(
        _need(part.rotor_diameter_mm, "rotor_diameter_mm", path, gaps.decel),
        _need(part.pad_height_mm, "pad_height_mm", path, gaps.decel),
        value(part.edge_inset_mm, "edge_inset_mm", "disc.edge_inset"),
        part.radius_rule,
    )
    if part.caliper_volume_cm3_per_mpa is not None:
        give: Number = si(part.caliper_volume_cm3_per_mpa, "caliper_volume_cm3_per_mpa")
    else:
        key = "disc.give_fixed" if fixed else "disc.give_floating"
        give = disc.give(area, value(part.caliper_give_um_per_mpa, "caliper_give_um_per_mpa", key))
    return disc.Disc(
        fixed=fixed,
        side_area=area,
        calipers=part.calipers,
        effective_radius=radius,
        friction=_rub(part, "cold")[0],
        efficiency=value(part.efficiency, "efficiency", "disc.efficiency"),
        threshold=value(part.threshold_kpa, "threshold_kpa", "disc.threshold"),
        clearance=value(part.clearance_mm, "clearance_mm", "disc.clearance"),
        knock_back=value(part.knock_back_mm, "knock_back_mm", "disc.knock_back"),
        caliper_give=give,
        pad_give=disc.give(area, value(part.pad_give_um_per_mpa, "pad_give_um_per_mpa", "disc.pad_give")),
    )


def _drum(part: wheel_ends.DrumBrake, residual: bool, path: str, gaps: Gaps) -> drum.Drum:
    given = part.c_star is not None
    if not given:
        if part.shoes is None:
            gaps.decel.append(f"{path}.shoes")
        if part.friction is None or part.friction.cold is None:
            gaps.decel.append(f"{path}.friction.cold")
    clearance = "drum.shoe_clearance_residual" if residual else "drum.shoe_clearance"
    k = value(part.shoe_k, "shoe_k", "drum.shoe_k")
    by_friction = not given and part.shoes is not None and part.friction is not None and part.friction.cold is not None
    return drum.Drum(
        cylinder_area=cylinders.bore_area(_need(part.wheel_cylinder_mm, "wheel_cylinder_mm", path, gaps.decel)),
        radius=_need(part.drum_diameter_mm, "drum_diameter_mm", path, gaps.decel) / 2.0,
        shoe_factor=_rub(part, "cold")[0],
        sensitivity=drum.sensitivity(part.shoes, si(part.friction.cold, "friction"), k) if by_friction else None,  # type: ignore[arg-type, union-attr]
        efficiency=value(part.efficiency, "efficiency", "drum.efficiency"),
        threshold=value(part.threshold_kpa, "threshold_kpa", "drum.threshold"),
        clearance=value(part.shoe_clearance_mm, "shoe_clearance_mm", clearance),
        give=value(part.give_cm3_per_mpa, "give_cm3_per_mpa", "drum.give"),
    )


def _rub(part: wheel_ends.DiscBrake | wheel_ends.DrumBrake, state: str) -> tuple[Number, bool]:
    """µ of a disc or C* of a drum in a `state`, and whether the cold value stood in."""
    if isinstance(part, wheel_ends.DrumBrake) and part.c_star is not None:
        source = part.c_star if isinstance(part.c_star, wheel_ends.ShoeFactor) else wheel_ends.ShoeFactor(cold=part.c_star)
        own, name = (getattr(source, state), source.cold), "c_star"
    else:
        friction = part.friction or wheel_ends.Friction()
        own, name = (getattr(friction, state), friction.cold), "friction"
    typed = own[0] if own[0] is not None else own[1]
    if typed is None:
        return float("nan"), False
    rub: Number = si(typed, name)
    if isinstance(part, wheel_ends.DrumBrake) and part.c_star is None:
        if part.shoes is None:
            return float("nan"), False
        rub = drum.shoe_factor(part.shoes, rub, value(part.shoe_k, "shoe_k", "drum.shoe_k"))
    return rub, own[0] is None


def device_of(part: wheel_ends.Device) -> valves.Device:
    """The core's device of a `part` of the file."""
    if isinstance(part, wheel_ends.MeteringValve):
        return valves.Metering(si(part.hold_kpa, "hold_kpa"), si(part.blend_kpa, "blend_kpa"))
    if isinstance(part, wheel_ends.ProportioningValve):
        return valves.Proportioning(si(part.knee_kpa, "knee_kpa"), value(part.slope, "slope", "valve.slope"), part.bypass)
    if isinstance(part, wheel_ends.LimitingValve):
        return valves.Limiting(si(part.setting_kpa, "setting_kpa"))
    if isinstance(part, wheel_ends.LoadSensingValve):
        return valves.LoadSensing(
            si(part.knee_kpa, "knee_kpa"),
            si(part.coefficient_kpa_per_n, "coefficient_kpa_per_n"),
            si(part.reference_rear_load_n, "reference_rear_load_n"),
            si(part.slope, "slope"),
        )
    if isinstance(part, wheel_ends.DecelSensingValve):
        return valves.DecelSensing(si(part.decel_g, "decel_g"), si(part.slope, "slope"))
    return valves.Passive(part.kind, None if part.pressure_kpa is None else si(part.pressure_kpa, "pressure_kpa"))


def _hose(part: wheel_ends.Hose, path: str, gaps: Gaps) -> Number:
    if part.coefficient_cm3_per_m_mpa is not None:
        coefficient = si(part.coefficient_cm3_per_m_mpa, "coefficient_cm3_per_m_mpa")
    elif part.kind is not None:
        coefficient = assumed(f"hose.{part.kind}")
    else:
        gaps.travel.append(f"{path}.kind")
        coefficient = float("nan")
    return lines.hose_give(coefficient, _need(part.length_mm, "length_mm", path, gaps.travel), part.count)


def _pipe(part: wheel_ends.HardLine, path: str, gaps: Gaps) -> Number:
    if part.material is None and (part.youngs_gpa is None or part.poisson is None):
        gaps.travel.append(f"{path}.material")
        return float("nan")
    youngs = value(part.youngs_gpa, "youngs_gpa", f"pipe.{part.material}.youngs")
    poisson = value(part.poisson, "poisson", f"pipe.{part.material}.poisson")
    outer, wall = _tube(part)
    return lines.pipe_give(outer, wall, _need(part.length_mm, "length_mm", path, gaps.travel), youngs, poisson)


def _length(part: wheel_ends.Hose | wheel_ends.HardLine) -> float:
    return float("nan") if part.length_mm is None else si(part.length_mm, "length_mm")


def _tube(part: wheel_ends.HardLine) -> tuple[float, float]:
    """Outer diameter and wall [m] of a hard line."""
    return value(part.outer_mm, "outer_mm", "pipe.outer"), value(part.wall_mm, "wall_mm", "pipe.wall")


def _fluid_volume(part: wheel_ends.Lines, station: wheel_ends.Station, brake: disc.Disc | drum.Drum) -> Number:
    """All fluid from chamber to pistons [m³] when it was not stated: lines, hoses, and what stands behind the pistons."""
    bore = assumed("hose.bore")
    inside: Number = sum(lines.bore_volume(bore, _length(h)) * h.count for h in part.hoses)
    for pipe in part.hard_lines:
        outer, wall = _tube(pipe)
        inside = inside + lines.bore_volume(outer - 2.0 * wall, _length(pipe))
    reach = assumed("fluid.piston_reach")
    if isinstance(brake, disc.Disc):
        return inside + station.wheels * brake.calipers * 2.0 * brake.side_area * reach
    return inside + station.wheels * 2.0 * brake.cylinder_area * reach


def _lines(station: wheel_ends.Station, brake: disc.Disc | drum.Drum, fluid: str, path: str, gaps: Gaps) -> lines.Lines | None:
    part = station.lines
    if part is None:
        gaps.travel.append(path)
        return None
    before = len(gaps.travel)
    hose: Number = sum(_hose(h, f"{path}.hoses.{i}", gaps) for i, h in enumerate(part.hoses))
    braided: Number = sum(lines.hose_give(assumed("hose.braided"), _length(h), h.count) for h in part.hoses)
    pipe: Number = sum(_pipe(h, f"{path}.hard_lines.{i}", gaps) for i, h in enumerate(part.hard_lines))
    volume = part.fluid_volume_cm3
    bulk = "fluid.bulk_silicone" if fluid == "DOT 5" else "fluid.bulk"
    if len(gaps.travel) > before:
        return None
    return lines.Lines(
        hose_give=hose,
        braided_give=braided,
        pipe_give=pipe,
        fluid_volume=_fluid_volume(part, station, brake) if volume is None else si(volume, "fluid_volume_cm3"),
        bulk=value(part.bulk_modulus_gpa, "bulk_modulus_gpa", bulk),
        air=0.0 if part.air_cm3 is None else si(part.air_cm3, "air_cm3"),
    )


def _station(part: wheel_ends.Station, fluid: str, path: str, gaps: Gaps, sizes: dict[str, tyres.Tyre]) -> chain.Station:
    if part.tyre is not None:
        sizes[part.name] = tyres.from_code(part.tyre)
    if part.rolling_radius_mm is not None:
        radius = si(part.rolling_radius_mm, "rolling_radius_mm")
    elif part.tyre is not None:
        radius = sizes[part.name].rolling_radius
    else:
        gaps.decel.append(f"{path}.tyre")
        radius = float("nan")
    residual = any(d.kind == "residual" for d in part.devices)
    brake: disc.Disc | drum.Drum
    if isinstance(part.brake, wheel_ends.DiscBrake):
        brake = _disc(part.brake, f"{path}.brake", gaps)
    else:
        brake = _drum(part.brake, residual, f"{path}.brake", gaps)
    own, side = _lines(part, brake, fluid, f"{path}.lines", gaps), part.side or side_named(part.name)
    devices = tuple(map(device_of, part.devices))
    return chain.Station(part.name, part.axle, part.wheels, radius, brake, devices, own, side=side)


def _side_by_side(values: list[Number]) -> Floats:
    """Values of the load states along an axis of their own (L, 1, 1), trials (N, 1, 1, 1) in front of it."""
    if not values:
        return np.zeros((0, 1, 1))
    if all(isinstance(v, float) for v in values):
        return np.array(values).reshape(-1, 1, 1)
    arrays = [np.asarray(v, dtype=np.float64) for v in values]
    arrays = [a if a.ndim > 3 else a.reshape(1, 1, 1) for a in arrays]
    front = np.broadcast_shapes(*(a.shape[:-3] for a in arrays))
    return np.concatenate([np.broadcast_to(a, (*front, 1, 1, 1)) for a in arrays], axis=-3)


def _trailer(state: models.LoadState, mass: Number, wheelbase: Number, path: str, gaps: list[str]) -> tuple[Number, ...]:
    """The core's five figures of a load state's trailer, none without one."""
    own = state.trailer
    if own is None or not own.model_dump(exclude_none=True):
        return (0.0,) * 5
    names = ("mass_kg", "braked_share", "nose_kg", "hitch_behind_axle_mm", "hitch_height_mm")
    pulled, share, nose, behind, height = (_need(getattr(own, name), name, path, gaps) for name in names)
    drag = (1.0 - share) * pulled / mass
    rise: Number = 0.0
    if own.cg_height_mm is not None and own.hitch_to_axle_mm is not None:
        centre, arm = si(own.cg_height_mm, "cg_height_mm"), si(own.hitch_to_axle_mm, "hitch_to_axle_mm")
        rise = pulled / mass * (centre - (1.0 - share) * height) / arm
    return drag, nose / mass, rise, behind / wheelbase, height / wheelbase


def _load(part: models.Vehicle, gaps: Gaps) -> vehicle.Load:
    path, need = "vehicle", gaps.decel
    if not part.load_states:
        need.append("vehicle.load_states")
    wheelbase = _need(part.wheelbase_mm, "wheelbase_mm", path, need)
    states = [
        [_need(getattr(s, name), name, f"{path}.load_states.{i}", need) for name in ("mass_kg", "front_share", "cg_height_mm")]
        for i, s in enumerate(part.load_states)
    ]
    columns = [_side_by_side([state[i] for state in states]) for i in range(3)]
    pulled = [_trailer(s, mass, wheelbase, f"{path}.load_states.{i}.trailer", need)
              for i, (s, (mass, *_)) in enumerate(zip(part.load_states, states, strict=True))]  # fmt: skip
    trailer = vehicle.NO_TRAILER
    if any(s.trailer is not None for s in part.load_states):
        trailer = vehicle.Trailer(*(_side_by_side([own[i] for own in pulled]) for i in range(5)))
    return vehicle.Load(
        mass=columns[0],
        front_share=columns[1],
        chi=columns[2] / wheelbase,
        grip_front=_need(part.grip_front, "grip_front", path, need),
        grip_rear=_need(part.grip_rear, "grip_rear", path, need),
        sliding=value(part.sliding_factor, "sliding_factor", "vehicle.sliding_factor"),
        rotating=value(part.rotating_share, "rotating_share", "vehicle.rotating_share"),
        trailer=trailer,
    )


def _seconds(part: models.System, own: chain.System, path: str, gaps: Gaps) -> list[chain.System]:
    """Second controls as systems of their own that press the same brakes."""
    found = []
    listed = isinstance(part.second_control, list)
    for n, (name, second) in enumerate(part.seconds):
        below = f"{path}.second_control" + (f".{n}" if listed else "")
        control = _control(second.control, f"{below}.control", gaps)
        cylinder = _cylinder(second.cylinder, part.stations, f"{below}.cylinder", gaps)
        feeds = second.feeds or [models.Feed(station=s.name, wheels=s.wheels) for s in part.stations]
        chamber = replace(cylinder.chambers[0], feeds=tuple(cylinders.Feed(f.station, f.wheels) for f in feeds))
        fed = {f.station for f in feeds}
        stations = tuple(replace(s, owner=part.name) for s in own.stations if s.name in fed)
        found.append(chain.System(name, control, None, replace(cylinder, chambers=(chamber,)), stations))
    return found


def _system(part: models.System, path: str, gaps: Gaps, sizes: dict[str, tyres.Tyre]) -> list[chain.System]:
    control = _control(part.control, f"{path}.control", gaps)
    help_ = _booster(part.booster, f"{path}.booster", gaps) if part.booster is not None else None
    cylinder = _cylinder(part.cylinder, part.stations, f"{path}.cylinder", gaps)
    if any(not c.feeds for c in cylinder.chambers):
        raise BadEntry(
            f"{path}.stations", "brakes on one axle only", "front and rear brakes for a cylinder that feeds each with one half"
        )
    stations = tuple(_station(s, part.fluid, f"{path}.stations.{i}", gaps, sizes) for i, s in enumerate(part.stations))
    if control.linkage is not None:
        gaps.decel += [gap for gap in gaps.travel if gap.startswith(f"{path}.stations")]
    own = chain.System(part.name, control, help_, cylinder, stations)
    return [own, *_seconds(part, own, path, gaps)]


def station_of(part: wheel_ends.Station, fluid: str) -> chain.Station:
    """The core's station of one `part` of the file that is complete, with the system's `fluid`."""
    return _station(part, fluid, part.name, Gaps([], []), {})


def wheels_of(setup: models.Setup) -> dict[vehicle.Axle, int]:
    """Wheels of each axle: as stated, else the sum over the stations, at most 2."""
    every = [s for system in setup.systems for s in system.stations]
    stated = setup.vehicle.wheels or {}
    return {axle: stated.get(axle, min(2, sum(s.wheels for s in every if s.axle == axle))) for axle in vehicle.AXLES}


def convert(setup: models.Setup) -> Converted:
    """A `setup` as the core's records, in SI, with what it still needs. Raises BadEntry where a value contradicts another."""
    gaps = Gaps()
    sizes: dict[str, tyres.Tyre] = {}
    systems = tuple(s for i, part in enumerate(setup.systems) for s in _system(part, f"systems.{i}", gaps, sizes))
    load = _load(setup.vehicle, gaps)
    friction: dict[str, dict[str, dict[str, Number]]] = {}
    fallback: dict[str, dict[str, list[str]]] = {}
    for state in STATES:
        rubs = {c.name: {s.name: _rub(s.brake, state) for s in c.system.stations} for c in models.controls_of(setup.systems)}
        friction[state] = {system: {name: rub for name, (rub, _) in own.items()} for system, own in rubs.items()}
        fallback[state] = {name: [s for s, (_, stood_in) in own.items() if stood_in] for name, own in rubs.items()}
    complete = not gaps.decel
    return Converted(
        systems if complete else (),
        load if complete else None,
        tuple(s.name for s in setup.vehicle.load_states),
        wheels_of(setup),
        friction,
        fallback,
        sizes,
        gaps,
    )

"""What a screen shows of one control path of a setup: its parts, and the range of the push as the core's samples.

A scrub of the push is a look-up between the samples; at rest a screen asks `view.moment_at` for exactly that push.
"""

import math
from typing import Any

import numpy as np

from kobrix.core.constants import STANDARD_BORES, bore_name
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics import chain, disc, variants, vehicle
from kobrix.core.physics.chain import whole_stroke
from kobrix.core.physics.drum import Drum
from kobrix.core.physics.gains import LEAST_GAIN, Match, link_gains
from kobrix.core.physics.paths import Solved
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup
from kobrix.core.physics.valves import Passive, Proportioning
from kobrix.core.rules.words import crosses, loss_words, plain
from kobrix.evaluate.results import CM2, KPA, MM, Places, PullPlaces, failures_document, first_lock
from kobrix.evaluate.solve import Answer, pick
from kobrix.fileformat.models import controls_of
from kobrix.fileformat.quantities import si
from kobrix.fileformat.stations import DiscBrake, Station
from kobrix.stages.size.part_shapes import Parts, StationParts
from kobrix.stages.size.shapes import (
    Balance,
    BoreState,
    BoreView,
    Curves,
    FailureView,
    GainCurves,
    LineCurves,
    LineView,
    LockView,
    PathView,
    SideGainCurves,
    StateView,
)

SAMPLES = 48  # of the push, besides the knots
AIR_CM3 = 1.0  # of air, looked at in each station
_WORDS = {"front": "front locks first", "rear": "rear locks first", "both": "both lock together",
          "rear_lift": "rear lifts", "none": "nothing locks"}  # fmt: skip
_ONE_AXLE = {
    "front": "wheels lock",
    "rear": "wheels lock",
    "both": "wheels lock",
    "rear_lift": "nose goes over",
    "none": "nothing locks",
}


def _station_parts(station: chain.Station, answer: Answer, part: Station) -> StationParts:
    tyre = answer.converted.tyres.get(station.name)
    hoses: list[str] = sorted({h.kind or "other" for h in (part.lines.hoses if part.lines else [])})
    valve = next((d for d in station.devices if isinstance(d, Proportioning)), None)
    residual = [d.pressure for d in station.devices if isinstance(d, Passive) and d.kind == "residual"]
    doc: StationParts = {
        "name": station.name, "axle": station.axle, "wheels": station.wheels, "tyre": part.tyre,
        "rolling_radius_mm": float(station.rolling_radius) * MM, "rim_mm": None if tyre is None else tyre.rim * MM,
        "hoses": hoses,
        "valve": None if valve is None else {"knee_kpa": float(np.max(valve.knee)) * KPA, "slope": float(np.max(valve.slope))},
        "valve_place": next((i for i, d in enumerate(part.devices) if d.kind == "proportioning"), None),
        "residual_kpa": None if not residual or residual[0] is None else float(residual[0]) * KPA,
        "disc": None, "drum": None,
    }  # fmt: skip
    brake = station.brake
    if isinstance(brake, Drum):
        doc["drum"] = {
            "wheel_cylinder_mm": math.sqrt(float(brake.cylinder_area) * 4 / math.pi) * MM,
            "drum_diameter_mm": float(brake.radius) * 2 * MM, "shoe_factor": float(brake.shoe_factor),
            "efficiency": float(brake.efficiency), "area_cm2": float(brake.cylinder_area) * CM2,
            "threshold_kpa": float(brake.threshold) * KPA,
        }  # fmt: skip
    elif isinstance(part.brake, DiscBrake):
        thickness = part.brake.rotor_thickness_mm
        doc["disc"] = {
            "fixed": brake.fixed, "pistons_mm": [si(d, "pistons_mm") * MM for d in part.brake.pistons_mm or []],
            "calipers": brake.calipers, "rotor_diameter_mm": si(part.brake.rotor_diameter_mm or 0.0, "rotor_diameter_mm") * MM,
            "pad_height_mm": si(part.brake.pad_height_mm or 0.0, "pad_height_mm") * MM,
            "effective_radius_mm": float(brake.effective_radius) * MM, "area_cm2": float(brake.side_area) * CM2,
            "efficiency": float(brake.efficiency), "friction": float(brake.friction), "vented": bool(part.brake.rotor_vented),
            "thickness_mm": None if thickness is None else si(thickness, "rotor_thickness_mm") * MM,
        }  # fmt: skip
    return doc


def parts(answer: Answer, system: chain.System) -> Parts:
    """Dimensions and constants of a system that a screen draws and writes, in the units of their names."""
    control, cylinder = system.control, system.cylinder
    stroke = whole_stroke(system)
    handled = next(h for h in controls_of(answer.setup.systems) if h.name == system.name)
    stated = {s.name: s for s in handled.system.stations}
    first = cylinder.chambers[0]
    return {
        "pedal": {
            "kind": control.kind, "linked": control.linkage is not None,
            "pivot_to_pad_mm": float(control.pivot_to_pad) * MM, "pivot_to_pin_mm": float(control.pivot_to_pin) * MM,
            "ratio": float(control.ratio), "efficiency": float(control.efficiency),
            "available_mm": None if control.available is None else float(control.available) * MM,
            "free_play_mm": float(control.free_play) * MM,
        },
        "booster": None if system.booster is None else {
            "kind": system.booster.kind, "gain": float(system.booster.gain), "limit_n": float(system.booster.limit),
            "cut_in_n": float(system.booster.cut_in),
        },
        "cylinder": {
            "kind": cylinder.kind, "bore_mm": float(first.bore) * MM, "bore_name": bore_name(float(first.bore)),
            "area_cm2": float(first.area) * CM2, "efficiency": float(cylinder.efficiency),
            "stroke_mm": None if stroke is None else float(stroke) * MM,
            "circuits": [c.name for c in cylinder.chambers],
            "chambers": [
                {"circuit": c.name, "bore_mm": float(c.bore) * MM, "bore_name": bore_name(float(c.bore)),
                 "area_cm2": float(c.area) * CM2, "share": float(c.force_share)}
                for c in cylinder.chambers
            ],
            "crossed": len(cylinder.chambers) > 1 and all(crosses(system, c) for c in cylinder.chambers),
        },
        "stations": [_station_parts(s, answer, stated[s.name]) for s in system.stations],
    }  # fmt: skip


def _column(values: Any, load: int, scale: float = 1.0) -> list[float]:
    """One load state of figures (1 or L, 1, S), or (S,) that hold for all, as a list."""
    array = np.asarray(values, dtype=np.float64)
    if array.ndim > 1:
        array = array.reshape(-1, array.shape[-1])
        array = array[min(load, array.shape[0] - 1)]
    own: list[float] = (array * scale if scale != 1.0 else array).tolist()
    return own


def _line_curves(own: PullPlaces, load: int, size: int) -> LineCurves:
    """One control over the range of the path's pushes: its own forces, pressures and travel."""

    def column(values: Any, scale: float = 1.0) -> list[float]:
        array = np.asarray(values, dtype=np.float64)
        return _column(array if array.shape[-1:] == (size,) else np.broadcast_to(array, (*array.shape[:-1], size)), load, scale)

    doc: LineCurves = {"rod_n": column(own.rod), "out_n": column(own.out), "stations": {}, "travel_mm": None, "piston_mm": None,
                "causes_mm": {}, "ratio": None, "rod_angle_deg": None}  # fmt: skip
    for i, name in enumerate(own.names):
        if name in doc["stations"]:
            continue
        brake = own.pull.system.station(name).brake
        inlet, outlet, torque = own.branches[:, i]
        clamp: Any = None
        if isinstance(brake, disc.Disc):
            clamp = column(disc.clamp_force(outlet, brake.side_area, brake.efficiency, brake.threshold))
        doc["stations"][name] = {
            "inlet_kpa": column(inlet, KPA), "outlet_kpa": column(outlet, KPA), "torque_nm": column(torque), "clamp_n": clamp,
        }  # fmt: skip
    if own.pad is not None:
        doc["travel_mm"], doc["piston_mm"] = column(own.pad, MM), column(own.piston, MM)
        doc["causes_mm"] = {f"{where}.{cause}": column(v, MM) for (where, cause), v in own.causes.items()}
    if own.ratio is not None:
        doc["ratio"], doc["rod_angle_deg"] = column(own.ratio), column(own.angle, math.degrees(1.0))
    return doc


def curves(load: int, pushes: Floats, at: Places) -> Curves:
    """The whole range of `pushes` [N] in one load state, one list a figure, in the units of their names."""
    moment, size = at.moment, pushes.size

    def column(values: Any) -> list[float]:
        array = np.asarray(values, dtype=np.float64)
        return _column(array if array.shape[-1:] == (size,) else np.broadcast_to(array, (*array.shape[:-1], size)), load)

    def borne(use: Floats, carried: Floats) -> list[float | None]:
        return [u if w > 0.0 else None for u, w in zip(column(use), column(carried), strict=True)]

    spin = float(at.spin[min(load, at.spin.size - 1)])
    return {
        "push_n": pushes.tolist(),
        "front_n": column(moment.front * spin), "rear_n": column(moment.rear * spin),
        "decel_g": column(moment.decel), "grip_decel_g": column(moment.grip_decel),
        "adhesion_front": borne(moment.use_front, moment.load_front), "adhesion_rear": borne(moment.use_rear, moment.load_rear),
        "front_locked": column(moment.front_locked), "rear_locked": column(moment.rear_locked),
        "ideal_front_share": column(moment.load_front / (moment.load_front + moment.load_rear)),
        "lines": {own.pull.system.name: _line_curves(own, load, size) for own in at.pulls},
    }  # fmt: skip


def _balance(solved: SolvedSetup, load: int) -> Balance:
    """What the tyres allow in one load state: ideal sharing, lock lines and the weight, for a plot of rear over front [N]."""
    one = vehicle.one_state(solved.load, load)
    weight, psi, chi, mu_f, mu_r = (float(v) for v in (one.weight, one.front_share, one.chi, one.grip_front, one.grip_rear))
    limit, own = float(vehicle.grip_limit(one, 1.0, 1.0)), float(vehicle.road_share(one))  # of the brakes' own force
    z = np.linspace(0.0, limit, 31)
    ideal = (own * vehicle.ideal_force(one, axle, z) for axle in vehicle.AXLES)
    corner = [own * float(one.grip(axle) * vehicle.axle_load(one, axle, limit)) for axle in vehicle.AXLES]

    def alone(axle: vehicle.Axle) -> float:
        """Force [N] at which an axle locks while the other does not brake."""
        mu = one.grip(axle)
        return float(own * weight * one.pulled * mu * one.at_rest[axle] / (one.pulled - mu * one.rise[axle]))

    return {
        "weight_n": weight, "front_share": psi, "chi": chi, "grip_front": mu_f, "grip_rear": mu_r, "grip_limit_g": limit,
        "ideal_n": [[float(f), float(r)] for f, r in zip(*ideal, strict=True)], "corner_n": corner,
        "front_lock_n": [alone("front"), 0.0], "rear_lock_n": [0.0, alone("rear")],
    }  # fmt: skip


def locks_of(path: SolvedPath) -> list[LockView | None]:
    """Push, deceleration and axle forces at the first lock or lift, by load state; None when nothing happens."""
    solved = path.healthy
    ever = np.isfinite(solved.event.place)
    place = chain.place_of(np.where(ever, solved.event.place, 0.0)[..., None], solved.road.decel.shape[-1] - 1)
    at, pushes = solved.at(place), solved.push_at(place)
    spin = np.broadcast_to(np.reshape(vehicle.road_share(solved.road.load), (-1,)), (ever.shape[0],))
    return [
        {
            "push_n": pick(pushes, load, 0, 0), "decel_g": pick(solved.event.decel, load, 0),
            "front_n": pick(at.front, load, 0, 0) * spin[load], "rear_n": pick(at.rear, load, 0, 0) * spin[load],
        } if ever[load, 0] else None
        for load in range(ever.shape[0])
    ]  # fmt: skip


def _failures(answer: Answer, path: SolvedPath, load: int) -> list[FailureView]:
    """What each lost circuit or booster leaves, for the travel's plot."""
    rows: list[FailureView] = []
    if path.left is None or answer.solved is None:
        return rows
    left = failures_document(answer, path, load)
    for failing in answer.solved.conditions:
        own = left.get(failing.name)
        if own is None or not failing.is_loss or not own["systems"]:
            continue
        rows.append({
            "name": failing.name, "kind": failing.kind, "what": failing.what, "system": plain(failing.system) if failing.system else None, "loss": loss_words(failing, answer.solved.systems),
            "pedal_force_n": own["pedal_force_n"], "limited_by": own["limited_by"], "best_grip_decel_g": own["best_grip_decel_g"],
            "pedal_travel_mm": next(iter(own["systems"].values()))["pedal_travel_mm"],
        })  # fmt: skip
    return rows


def gain_curves(own: Solved, before: Solved, place: chain.Place, loads: int) -> list[GainCurves]:
    """What each change bought at the places of the samples, for each of so many load states."""
    found = link_gains(own, before, place)

    def column(values: Floats, load: int) -> list[float | None]:
        return [v if math.isfinite(v) else None for v in _column(values, load)]

    def matched(match: Match, load: int) -> dict[str, SideGainCurves]:
        sides: dict[str, SideGainCurves] = {}
        for side, gains in found[match].items():
            links = {link: values for link, values in gains.links.items() if not np.all(np.abs(values - 1.0) <= LEAST_GAIN)}
            sides[side] = {"links": {str(n): column(v, load) for n, v in links.items()}, "product": column(gains.product, load)}
        return sides

    return [{"same_stop": matched("stop", n), "same_push": matched("push", n)} for n in range(loads)]


def range_of(solved: Solved, reach: float) -> Floats:
    """Pushes [N] from nothing to `reach` [N]: even samples, the knots and right after each for the leaps, the first locks and right before."""
    knots = np.unique(solved.pulls[0].pedal.knots / solved.pulls[0].ratio if solved.push is None else solved.push)
    knots = knots[knots <= reach]
    if knots.size > 4 * SAMPLES:  # a linkage beside another control is joined at very many places
        knots = knots[:: knots.size // (2 * SAMPLES)]
    locks = _lock_pushes(solved)
    locks = locks[locks <= reach]
    return np.unique(
        np.concatenate([np.linspace(0.0, reach, SAMPLES), knots, np.nextafter(knots, np.inf), locks, locks * (1.0 - 1e-7)])
    )


def _lock_pushes(solved: Solved) -> Floats:
    """Pushes [N] at which something locks or lifts first, of the load states in which anything does."""
    number = solved.event.place[..., None]
    ever = np.isfinite(number)
    push = solved.push_at(chain.place_of(np.where(ever, number, 0.0), solved.road.decel.shape[-1] - 1))
    found = np.where(ever, push, np.inf)
    return np.asarray(found[np.isfinite(found)])


def _bores(solved: SolvedSetup, path: SolvedPath, wanted: float) -> list[BoreView]:
    """Push and travel at the wanted stop with each standard bore in place of a single control's own, by load state."""
    if len(path.healthy.pulls) != 1 or path.healthy.pulls[0].system.cylinder.kind == "twin":
        return []
    pull = path.healthy.pulls[0]
    sizes = np.array([size for _, size in STANDARD_BORES]).reshape(-1, 1, 1, 1)
    others = variants.on_path(solved, path, variants.with_bore(pull.system, sizes))
    place, known = others.reach(wanted)
    pushes = others.push_at(place)
    other = others.pulls[0]
    pads = None if other.pedal.travel is None else other.pedal.pad_at(other.place(place))
    shape = np.broadcast_shapes(pushes.shape, known.shape)
    docs: list[BoreView] = []
    for n, (name, size) in enumerate(STANDARD_BORES):
        states: list[BoreState | None] = []
        for load in range(shape[1]):
            ok = pick(known, n, load, 0, 0) and np.isfinite(pick(pushes, n, load, 0, 0))
            travel = None if pads is None else pick(pads, n, load, 0, 0) * MM
            states.append({"push_n": pick(pushes, n, load, 0, 0), "travel_mm": travel} if ok else None)
        docs.append({"name": name, "bore_mm": size * MM, "states": states})
    return docs


def stop_or_lock(solved: Solved, decel: float) -> tuple[chain.Place, Any]:
    """Where a path gives a stop [g], or its first lock where that comes before, and whether there is either."""
    place, known = solved.reach(decel)
    lock, number = solved.event.decel[..., None], solved.event.place[..., None]
    past = np.isfinite(lock) & (decel > lock)
    at = np.where(past, number, place.number)
    return chain.place_of(np.where(np.isfinite(at), at, 0.0), solved.road.decel.shape[-1] - 1), known | past


def _title(name: str) -> str:
    if name == "together":
        return "all together"
    return f"{name.removesuffix('_alone')} alone" if name.endswith("_alone") else name


def path_view(answer: Answer, name: str, wanted: float, reach: float, before: Answer | None) -> PathView:
    """One control path by `name` of a solved `answer`, at the `wanted` stop [g], for pushes up to `reach` [N].

    What each change bought is told against `before`, where there is one with the same control path and load states.
    """
    solved = answer.solved
    assert solved is not None
    path = solved.paths[name]
    healthy = path.healthy
    pushes = range_of(healthy, reach)
    places = healthy.place_at(pushes)
    sampled = Places(healthy, places)
    then = None
    if before is not None and before.solved is not None and before.converted.load_names == answer.converted.load_names:
        then = before.solved.paths.get(name)
    one_axle = not (np.any(healthy.road.front > 0.0) and np.any(healthy.road.rear > 0.0))
    locks = locks_of(path)
    reached, known = stop_or_lock(healthy, wanted)
    at_stop = Places(healthy, reached)
    states: list[StateView] = []
    names = answer.converted.load_names
    gains = None if then is None else gain_curves(healthy, then.healthy, places, len(names))
    wheelbase = si(answer.setup.vehicle.wheelbase_mm or 0.0, "wheelbase_mm")
    for load, title in enumerate(names):
        lock = locks[load]
        ok = pick(known, load, 0, 0)
        held = lock is not None and wanted > lock["decel_g"]  # the stop is not reached: the first lock is shown
        states.append({
            "name": title,
            "mass_kg": pick(solved.load.mass, load, 0, 0), "front_share": pick(solved.load.front_share, load, 0, 0),
            "cg_height_mm": pick(solved.load.chi, load, 0, 0) * wheelbase * MM,
            "first_lock": first_lock(path, load), "first_lock_words": (_ONE_AXLE if one_axle else _WORDS)[first_lock(path, load)],
            "lock": lock,
            "grip_efficiency": None if lock is None else lock["decel_g"] / pick(path.grip_limit, load),
            "stop_push_n": pick(at_stop.push, load, 0, 0) if ok and not held else None,
            "at_stop": at_stop.moment_document(load, 0) if ok else None,
            "balance": _balance(solved, load),
            "failures": _failures(answer, path, load),
            "curves": curves(load, pushes, sampled),
            "gains": None if gains is None else gains[load],
        })  # fmt: skip
    handled = {c.name: c for c in controls_of(answer.setup.systems)}
    lines: list[LineView] = [
        {
            "system": p.system.name, "ratio": p.ratio, "parts": parts(answer, p.system),
            "place": {"control": handled[p.system.name].path, "owner": handled[p.system.name].owner},
        }
        for p in healthy.pulls
    ]  # fmt: skip
    return {
        "name": name, "title": _title(name), "one_axle": one_axle, "system": lines[0]["system"], "parts": lines[0]["parts"], "lines": lines,
        "states": states, "against_found": [], "bores": _bores(solved, path, wanted),
    }  # fmt: skip

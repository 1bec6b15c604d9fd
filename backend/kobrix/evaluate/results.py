"""From a solved solved_setup to the result file: names with their units, nothing computed but the units."""

import math
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, behind_rows, lookup
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import chain, disc, linkage, valves, vehicle
from kobrix.core.physics.chain import whole_stroke
from kobrix.core.physics.drum import Drum
from kobrix.core.physics.failures import LIMITS, healthy_end
from kobrix.core.physics.paths import Pull, Solved
from kobrix.core.physics.pedal import bottoming
from kobrix.core.physics.sharing import distribution_kept
from kobrix.core.physics.solved_setup import SolvedPath, strokes_known
from kobrix.core.physics.travel import Travel
from kobrix.core.physics.working import Step
from kobrix.core.physics.yaw import Turning, turning
from kobrix.core.rules.limits import effort_level, travel_level
from kobrix.core.rules.pins import pin_places
from kobrix.evaluate.answer_shapes import WorkingStep
from kobrix.evaluate.shapes import (
    DesignControl,
    DesignStop,
    FailureLeft,
    ForceForDecel,
    LinkageResult,
    Lock,
    Moment,
    NoMoment,
    PathResult,
    PinWindow,
    Result,
    StationMoment,
    StationResult,
    SystemMoment,
    SystemResult,
)
from kobrix.evaluate.solve import Answer, facts_of, pick
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.questions import HEALTH

KPA, MM, CM3, CM2 = 1e-3, 1e3, 1e6, 1e4
_NO_PULL = 1e-6  # N: what rounding leaves pulls nowhere
PAST_STROKE = "the linkage does not balance that push within the cylinder's stroke"


def or_none(value: float) -> float | None:
    return value if np.isfinite(value) else None


def _knee(device: valves.Device, load: int) -> float | None:
    return pick(device.knee, load, 0, 0) * KPA if isinstance(device, valves.Proportioning) else None


def station_document(station: chain.Station, pull: Pull) -> StationResult:
    """What a station is, whatever the push: rolling radius, area, effective radius or shoe factor."""
    brake = station.brake
    doc: StationResult = {"rolling_radius_mm": float(station.rolling_radius) * MM}
    if isinstance(brake, Drum):
        doc |= {"cylinder_area_cm2": float(brake.cylinder_area) * CM2, "c_star": float(brake.shoe_factor)}
        if brake.sensitivity is not None:
            doc["drum_sensitivity"] = float(brake.sensitivity)
    else:
        doc |= {"side_area_cm2": float(brake.side_area) * CM2, "effective_radius_mm": float(brake.effective_radius) * MM}
    line = pull.pedal.line
    for order, device in enumerate(station.devices):
        if isinstance(device, valves.Passive) and device.kind == "switch" and device.pressure is not None:
            branch = next(i for i, b in enumerate(line.branches) if b.station is station)
            where = np.asarray(valves.outlet(station.devices[:order], line.inlet[branch]))
            place, ever = chain.first_reach(where, device.pressure)
            doc["switch_pedal_force_n"] = pick(pull.pedal.push_at(place), 0, 0, 0) if pick(ever, 0, 0, 0) else None
    return doc


def _linkage_document(system: chain.System) -> LinkageResult | None:
    control, stroke = system.control, whole_stroke(system)
    link = control.linkage
    if link is None:
        return None
    rest = float(linkage.ratio_at(link, control.pivot_to_pad, 0.0))
    doc: LinkageResult = {"ratio_rest": rest, "rod_angle_rest_deg": math.degrees(float(linkage.rod_angle(link, 0.0)))}
    if stroke is not None:
        full = float(linkage.ratio_at(link, control.pivot_to_pad, stroke))
        if not math.isfinite(full):
            return {**doc, "ratio_full": None, "reason": "the linkage passes a dead point before the stroke is spent"}
        doc |= {
            "ratio_full": full, "ratio_change": full / rest - 1.0,
            "rod_angle_full_deg": math.degrees(float(linkage.rod_angle(link, stroke))),
            "rod_angle_largest_deg": math.degrees(float(linkage.largest_rod_angle(link, stroke))),
        }  # fmt: skip
    return doc


def pin_window_document(answer: Answer, system: chain.System) -> PinWindow | None:
    """Where the pin may sit: the least for the room of the whole stroke, the greatest for a good effort at the design stop."""
    limit = facts_of(answer).force_limits.get(system.name)
    window = None if answer.solved is None else pin_places(answer.solved, system, limit, answer.setup.vehicle.kind)
    if window is None:
        return None
    least, greatest = window
    return {"least_mm": least * MM, "greatest_mm": greatest * MM, "empty": least > greatest}


def system_document(answer: Answer, system: chain.System, pull: Pull) -> SystemResult:
    """What a system is, whatever the push."""
    control, help_ = system.control, system.booster
    doc: SystemResult = {"pedal_ratio": float(control.ratio), "stations": {}}
    stroke, lost = whole_stroke(system), float(help_.lost_travel) if help_ is not None else 0.0
    if stroke is not None:
        bottom = float(bottoming(control, stroke, lost))
        if math.isfinite(bottom):
            doc["bottoming_travel_mm"] = bottom * MM
            if control.available is not None:
                doc["floor_comes_first"] = bottom > float(control.available)
    window = pin_window_document(answer, system)
    if window is not None:
        doc["pin_window"] = window
    linked = _linkage_document(system)
    if linked is not None:
        doc["linkage"] = linked
    if help_ is not None:
        doc["assist_limit_n"] = float(help_.limit)
        runout, runs_out = boosting.runout_force(help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        doc["runout_force_n"] = float(runout) if bool(runs_out) else None
        place, _ = chain.first_reach(pull.pedal.line.rod, runout)
        doc["runout_pedal_force_n"] = pick(pull.pedal.push_at(place), 0, 0, 0) if bool(runs_out) else None
        held = next((s.booster for s in answer.setup.systems if s.name == system.name), None)
        if held is not None and held.accumulator is not None:
            sizes = [
                si(getattr(held.accumulator, n), n)
                for n in ("volume_cm3", "precharge_kpa", "full_kpa", "least_kpa", "per_stop_cm3")
            ]
            doc["accumulator_stops"] = boosting.accumulator_stops(*sizes)
    doc["stations"] = {s.name: station_document(s, pull) for s in system.stations}
    return doc


class Places:
    """Figures of a solved path at places (1 or L, 1, S), written for one load state and one place at a time."""

    def __init__(self, solved: Solved, place: chain.Place) -> None:
        self.solved, self.place = solved, place
        self.moment = solved.at(place)
        self.push = solved.push_at(place)
        loads = self.moment.decel.shape[-3] if self.moment.decel.ndim > 2 else 1
        self.spin = np.broadcast_to(np.reshape(vehicle.road_share(solved.road.load), (-1,)), (loads,))
        self.pulls = [PullPlaces(pull, pull.place(place)) for pull in solved.pulls]

    def moment_document(self, load: int, s: int) -> Moment:
        """The road's figures at one place."""
        at = self.moment
        front, rear = (pick(v, load, 0, s) * self.spin[load] for v in (at.front, at.rear))  # the brakes' own, T·wheels/R
        masks = zip(vehicle.AXLES, (at.front_locked, at.rear_locked), strict=True)
        locked = [axle for axle, mask in masks if pick(mask, load, 0, s)]
        push = pick(self.push, load, 0, s)
        return {
            "pedal_force_n": push,
            "decel_g": pick(at.decel, load, 0, s),
            "grip_decel_g": pick(at.grip_decel, load, 0, s),
            "locked": locked,
            "rear_lifts": bool(pick(at.rear_lifts, load, 0, s)),
            "front_brake_force_n": front,
            "rear_brake_force_n": rear,
            "front_brake_share": front / (front + rear) if front + rear > 0 else None,
            "adhesion_front": pick(at.use_front, load, 0, s) if pick(at.load_front, load, 0, s) > 0.0 else None,
            "adhesion_rear": pick(at.use_rear, load, 0, s) if pick(at.load_rear, load, 0, s) > 0.0 else None,
            "systems": {p.pull.system.name: p.document(load, s, push * p.pull.ratio) for p in self.pulls},
        }


class PullPlaces:
    """Figures of one control on a path at places on its own line."""

    def __init__(self, pull: Pull, place: chain.Place) -> None:
        self.pull, line, pedal = pull, pull.pedal.line, pull.pedal
        self.rod = lookup(line.rod, place.knot, place.fraction)
        self.out = lookup(line.out, place.knot, place.fraction)
        self.branches = np.array([
            lookup(behind_rows(v, place.knot.ndim), place.knot, place.fraction) for v in (line.inlet, line.outlet, line.torque)
        ])  # fmt: skip
        self.names = [b.station.name for b in line.branches]
        self.pad = self.piston = self.bottomed = None
        self.causes: dict[tuple[str, str], Floats] = {}
        self.volumes: dict[str, Floats] = {}
        self.ratio = self.angle = None
        known = pedal.travel
        if known is not None:
            strokes = known.strokes(place)
            self.causes = pedal.causes_at(place, strokes)
            self.pad, self.piston = pedal.pad_at(place), known.piston.at(place)
            self.bottomed = known.bottomed(place)
            for name, per_stroke in known.volumes.items():
                self.volumes[name] = np.asarray(sum(v for (where, _), v in strokes.items() if where == name) * per_stroke)
            if pedal.linked is not None:
                self.ratio = np.asarray(pedal.ratio_at(place))
                self.angle = linkage.rod_angle(pedal.linked, self.piston)

    def document(self, load: int, s: int, push: float) -> SystemMoment:
        """The control's figures at one place, at its own force `push` [N]."""
        stations: dict[str, StationMoment] = {}
        for i, name in reversed(list(enumerate(self.names))):
            inlet, outlet, torque = (pick(self.branches[k, i], load, 0, s) for k in range(3))
            stations[name] = {"pressure_in_kpa": inlet * KPA, "pressure_kpa": outlet * KPA, "torque_per_wheel_nm": torque}
            station = self.pull.system.station(name)
            if isinstance(station.brake, disc.Disc):
                brake = station.brake
                clamp = disc.clamp_force(outlet, brake.side_area, brake.efficiency, brake.threshold)
                stations[name]["clamp_n"] = float(clamp)
            knees = [_knee(d, load) for d in station.devices]
            if any(
                isinstance(k, float) and np.ndim(d.knee)
                for k, d in zip(knees, station.devices, strict=True)
                if isinstance(d, valves.Proportioning)
            ):
                stations[name]["knee_kpa"] = next(k for k in knees if k is not None)
            if name in self.volumes:
                stations[name]["volume_cm3"] = pick(self.volumes[name], load, 0, s) * CM3
        doc: SystemMoment = {
            "control_force_n": push,
            "rod_force_n": pick(self.rod, load, 0, s),
            "booster_out_n": pick(self.out, load, 0, s),
            "stations": dict(sorted(stations.items())),
        }
        if self.pad is not None:
            doc |= {
                "pedal_travel_mm": pick(self.pad, load, 0, s) * MM,
                "piston_travel_mm": pick(self.piston, load, 0, s) * MM,
                "bottomed": bool(pick(self.bottomed, load, 0, s)),
            }
        if self.ratio is not None:
            doc["instant_ratio"] = pick(self.ratio, load, 0, s)
            doc["rod_angle_deg"] = math.degrees(pick(self.angle, load, 0, s))
        if self.causes:
            doc["breakdown_mm"] = breakdown({key: pick(v, load, 0, s) for key, v in self.causes.items()})
        return doc


def step_document(step: Step) -> WorkingStep:
    """One step of the working, as files have it."""
    return {
        "id": step.id, "formula": step.formula, "numbers": step.numbers, "value": step.value, "unit": step.unit,
        "source": step.source, "uses": list(step.uses),
    }  # fmt: skip


def breakdown(causes: dict[tuple[str, str], float]) -> dict[str, dict[str, float]]:
    """Travel by where and cause [mm] from `causes` [m]; zeros left out."""
    doc: dict[str, dict[str, float]] = {}
    for (where, cause), value in causes.items():
        if value > 0.0:
            doc.setdefault(where, {})[cause] = value * MM
    return doc


def first_lock(path: SolvedPath, load: int) -> Lock:
    """Name of the first event in a load state: front, rear, both, rear_lift or none."""
    event = path.healthy.event
    front, rear, lift = (bool(pick(m, load, 0)) for m in (event.front, event.rear, event.lift))
    return "rear_lift" if lift else "both" if front and rear else "front" if front else "rear" if rear else "none"


def event_place(path: SolvedPath, load: int) -> chain.Place | None:
    """Where on the line the first lock or lift happens in a load state, None when nothing does."""
    number = pick(path.healthy.event.place, load, 0)
    if not np.isfinite(number):
        return None
    return chain.place_of(np.array([[[number]]]), path.healthy.road.decel.shape[-1] - 1)


def force_for_decel(path: SolvedPath, load: int, wanted: float) -> ForceForDecel:
    """The path's force for a wanted deceleration, or null with the reason."""
    road, event = path.healthy.road, path.healthy.event
    place, known = path.healthy.reach(wanted)
    lock = pick(event.decel, load, 0)
    if wanted > lock:
        what = {"front": "the front locks", "rear": "the rear locks", "both": "both axles lock", "rear_lift": "the rear lifts"}
        reason = f"{what[first_lock(path, load)]} first, at {lock:.2f} g"
        return {"decel_g": wanted, "pedal_force_n": None, "in_jump": False, "reason": reason}
    if not pick(known, load, 0, 0):
        most = float(np.max(road.decel[load]))
        linked = any(p.pedal.linked is not None for p in path.healthy.pulls)
        why = "the linkage passes its dead point first" if linked else f"the brakes give at most {most:.2f} g"
        reason = f"no pedal force reaches {wanted:g} g: {why}"
        return {"decel_g": wanted, "pedal_force_n": None, "in_jump": False, "reason": reason}
    leap = bool(pick(path.healthy.leaps_at(place), load, 0, 0))
    return {"decel_g": wanted, "pedal_force_n": pick(path.healthy.push_at(place), load, 0, 0), "in_jump": leap}


def _design_control(answer: Answer, path: SolvedPath, pull: Pull, load: int, force: float) -> DesignControl:
    system, place = pull.system, pull.place(path.design)
    own: DesignControl = {"control_force_n": force}
    known = pull.pedal.travel
    if known is not None:
        pad = pick(pull.pedal.pad_at(place), load, 0, 0)
        own["pedal_travel_mm"] = pad * MM
        if system.control.available is not None:
            share = pad / float(system.control.available)
            own |= {"travel_share": share, "travel_level": travel_level(share)}
        if strokes_known(system):
            own["stroke_share"] = _stroke_share(system, known, place, load)
        own["stiffness_n_per_mm"] = pick(pull.pedal.stiffness(place), load, 0, 0) / MM
        if pull.pedal.linked is not None:
            own["instant_ratio"] = pick(np.asarray(pull.pedal.ratio_at(place)), load, 0, 0)
            own["rod_angle_deg"] = math.degrees(pick(linkage.rod_angle(pull.pedal.linked, known.piston.at(place)), load, 0, 0))
    limit = facts_of(answer).force_limits.get(system.name)
    own["effort_level"] = effort_level(system.control.kind, force, limit, answer.setup.vehicle.kind)
    return own


def _stroke_share(system: chain.System, known: Travel, place: chain.Place, load: int) -> float:
    if system.cylinder.kind != "twin":
        whole = sum(float(c.stroke) for c in system.cylinder.chambers if c.stroke is not None)
        return float(pick(known.piston.at(place), load, 0, 0)) / whole
    live = {c.name: c.lost for c in system.cylinder.chambers}
    shares = []
    for chamber in system.cylinder.chambers:
        taken = pick(known.chambers[chamber.name].at(place), load, 0, 0)
        own = taken + float(live[chamber.name]) if taken > 0.0 else 0.0
        shares.append(own / float(chamber.stroke or 1.0))
    return max(shares)


def design_document(answer: Answer, path: SolvedPath, load: int) -> DesignStop:
    """The stop a setup is judged at, in one load state."""
    decel = pick(path.design_decel, load)
    if not pick(path.design_known, load):
        return {"decel_g": decel, "pedal_force_n": None, "reason": f"the brakes never give {decel:.2f} g"}
    force = pick(path.healthy.push_at(path.design), load, 0, 0)
    systems = {p.system.name: _design_control(answer, path, p, load, force * p.ratio) for p in path.healthy.pulls}
    return {"decel_g": decel, "pedal_force_n": force, "systems": systems}


def _fallback(answer: Answer, path: SolvedPath, state: str) -> list[str]:
    """Stations of a path whose friction in a `state` was not given, so that the cold one stood in."""
    own = answer.converted.fallback[state] if state != "cold" else {}
    return list(dict.fromkeys(name for pull in path.healthy.pulls for name in own.get(pull.system.name, ())))


def failures_document(answer: Answer, path: SolvedPath, load: int) -> dict[str, FailureLeft]:
    """What each failure leaves on a path, in one load state."""
    left, solved = path.left, answer.solved
    if left is None or solved is None:
        return {}
    turns = turning(path.failed, left.place, solved.wheels)
    track = answer.setup.vehicle.track_mm
    doc: dict[str, FailureLeft] = {}
    for c, failure in enumerate(answer.failures):
        if failure is HEALTH or not solved.conditions[c].befalls(path.failed):
            continue
        limited = LIMITS[pick(left.limited, load, c)]
        nothing = limited == "all_lost" or (limited == "contact" and len(left.pulls) == 1)
        at = left.moment
        masks = zip(vehicle.AXLES, (at.front_locked, at.rear_locked), strict=True)
        locked = [axle for axle, mask in masks if pick(mask, load, c, 0) and not nothing]
        doc[failure.name] = {
            "pedal_force_n": 0.0 if limited == "all_lost" else pick(left.push, load, c),
            "limited_by": limited,
            "decel_g": 0.0 if nothing else pick(at.decel, load, c, 0),
            "grip_decel_g": 0.0 if nothing else pick(at.grip_decel, load, c, 0),
            "best_grip_decel_g": 0.0 if nothing else pick(left.best, load, c),
            "locked": locked,
            "reaches_2p44_m_per_s2": bool(pick(left.enough, load, c)) and not nothing,
            "does_not_reach": limited == "contact",
            "friction_fallback": _fallback(answer, path, failure.friction),
            "systems": {
                name: {
                    "contact_travel_mm": or_none(pick(own.contact, load, c) * MM),
                    "travel_at_force_limit_mm": or_none(pick(own.at_limit, load, c) * MM) if pick(own.ever, load, c) else None,
                    "pedal_travel_mm": pick(own.pad, load, c) * MM if pick(own.ever, load, c) else None,
                }
                for name, own in left.pulls.items()
            },
        }
        if failure.kind in ("circuit", "upstream"):
            _tell_turning(doc[failure.name], turns, load, c, None if track is None else si(track, "track_mm"))
    return doc


def _tell_turning(doc: FailureLeft, turns: Turning, load: int, c: int, track: float | None) -> None:
    """The yaw moment of a failure, and which way it pulls where the sides are told."""
    right = 0.0 if doc["limited_by"] in ("all_lost", "contact") else pick(turns.right, load, c, 0)
    if track is not None:
        doc["yaw_moment_nm"] = float(Turning(np.asarray(right), turns.told).moment(track))
    if turns.told and abs(right) > _NO_PULL:
        doc["pulls"] = "right" if right > 0.0 else "left"


def rows_document(answer: Answer, path: SolvedPath, load: int, pushes: list[float]) -> list[Moment | NoMoment]:
    """What happens at each of `pushes` [N] of a path in one load state: the endless chain, and what ends it where it does."""
    place, balanced = path.healthy.balance(np.array(pushes))
    at, end = Places(path.healthy, place), healthy_end(path.healthy, answer.rooms)
    rows: list[Moment | NoMoment] = []
    for s, push in enumerate(pushes):
        if not pick(balanced, load, 0, s):
            rows.append({"pedal_force_n": push, "decel_g": None, "reason": PAST_STROKE})
            continue
        row = at.moment_document(load, s)
        if end is not None and push > pick(end.push, load):
            kind: Literal["floor", "chamber"] = "floor" if pick(end.floor, load) else "chamber"
            row["beyond"] = {
                "kind": kind,
                "system": end.system[min(load, len(end.system) - 1)],
                "pedal_force_n": pick(end.push, load),
            }
        rows.append(row)
    return rows


def path_document(answer: Answer, path: SolvedPath, load: int) -> PathResult:
    """All answers for one path in one load state."""
    event, road = path.healthy.event, path.healthy.road
    lock = or_none(pick(event.decel, load, 0))
    limit = pick(path.grip_limit, load)
    front, rear = (or_none(pick(road.locks[axle], load, 0)) for axle in vehicle.AXLES)
    pushes = [value_of(f, "pedal_forces_n") for f in answer.questions.pedal_forces_n]
    place = event_place(path, load)
    doc: PathResult = {
        "grip_limit_g": limit,
        "first_lock": first_lock(path, load),
        "lock_decel_g": lock,
        "lock_pedal_force_n": None if place is None else or_none(pick(path.healthy.push_at(place), load, 0, 0)),
        "grip_efficiency": None if lock is None else lock / limit,
        "front_lock_decel_g": front,
        "rear_lock_decel_g": rear,
        "design_stop": design_document(answer, path, load),
    }
    if pushes:
        doc["at_pedal_force"] = rows_document(answer, path, load, pushes)
    wanted = [value_of(z, "wanted_decels_g") for z in answer.questions.wanted_decels_g]
    if wanted:
        doc["pedal_force_for_decel"] = [force_for_decel(path, load, z) for z in wanted]
    failures = failures_document(answer, path, load)
    if failures:
        doc["failures"] = failures
    if answer.setup.vehicle.kind == "car" and answer.setup.vehicle.load_states[load].trailer is None:
        above, kept = distribution_kept(road)
        doc["distribution"] = {"rear_not_above_front": bool(pick(above, load, 0)), "use_limit_kept": bool(pick(kept, load, 0))}
    return doc


def result_document(answer: Answer) -> Result:
    """The result file of an answer."""
    solved_setup, asked = answer.solved, answer.questions.model_dump(exclude_unset=True)
    doc: Result = {"format": "kobrix-result", "version": 1, "name": answer.setup.name, "questions": asked}
    if solved_setup is not None:
        pulls = {p.system.name: p for p in solved_setup.main.healthy.pulls}
        doc["systems"] = {s.name: system_document(answer, s, pulls[s.name]) for s in solved_setup.systems if s.name in pulls}
        doc["load_states"] = {}
        for i, name in enumerate(answer.converted.load_names):
            doc["load_states"][name] = {
                "front_axle_load_n": pick(vehicle.axle_load(solved_setup.load, "front", 0.0), i, 0, 0),
                "rear_axle_load_n": pick(vehicle.axle_load(solved_setup.load, "rear", 0.0), i, 0, 0),
                "rear_lift_decel_g": or_none(pick(vehicle.rear_lift_decel(solved_setup.load), i, 0, 0)),
                "paths": {name: path_document(answer, path, i) for name, path in solved_setup.paths.items()},
            }
    if answer.needs:
        doc["needs"] = answer.needs
    unanswered = sorted(answer.questions.model_extra or {})
    if unanswered:
        doc["unanswered"] = unanswered
    return doc

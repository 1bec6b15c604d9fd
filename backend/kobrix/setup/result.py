"""From a solved case to the result file: names with their units, nothing computed but the units."""

from typing import Any

import numpy as np

from kobrix.core import booster as boosting
from kobrix.core import case as cases
from kobrix.core import chain, disc, travel, vehicle
from kobrix.core.arrays import Floats, lookup
from kobrix.core.drum import Drum
from kobrix.core.failures import LIMITS
from kobrix.core.judgements import effort_level, travel_level
from kobrix.core.valves import Passive
from kobrix.setup.convert import Converted, convert
from kobrix.setup.model import Setup
from kobrix.setup.quantities import value_of
from kobrix.setup.questions import Failure, Questions, as_arrays, failures_of, force_limit

KPA, MM, CM3, CM2 = 1e-3, 1e3, 1e6, 1e4
Doc = dict[str, Any]


class Answer:
    """A setup converted and solved, ready to be written; `case` is None when something is missing."""

    def __init__(self, setup: Setup, questions: Questions | None = None) -> None:
        self.setup, self.questions = setup, questions or Questions()
        self.converted: Converted = convert(setup)
        self.case: cases.Case | None = None
        self.failures: list[Failure] = []
        system, load = self.converted.system, self.converted.load
        if system is not None and load is not None:
            self.failures = failures_of(system, self.questions.failures)
            sides = as_arrays(system, self.failures, self.converted)
            self.force_limit = force_limit(self.questions, system.control.kind)
            self.case = cases.solve(
                system, load, self.converted.wheels, sides.names, sides.condition, sides.air, self.force_limit
            )

    @property
    def needs(self) -> dict[str, list[str]]:
        """What is missing for which answer: dotted paths."""
        gaps = self.converted.gaps
        found = {"decel": gaps.decel, "travel": gaps.decel + gaps.travel}
        return {answer: paths for answer, paths in found.items() if paths}


def pick(values: Any, *index: int) -> Any:
    """One figure of an array whose leading axes may have length 1, as a plain number."""
    array = np.asarray(values)
    place = tuple(0 if size == 1 else i for i, size in zip(index[-array.ndim :] if array.ndim else (), array.shape, strict=True))
    return array[place].item()


def or_none(value: float) -> float | None:
    return value if np.isfinite(value) else None


def station_document(station: chain.Station, case: cases.Case) -> Doc:
    """What a station is, whatever the push: rolling radius, area, effective radius or shoe factor."""
    brake = station.brake
    doc: Doc = {"rolling_radius_mm": float(station.rolling_radius) * MM}
    if isinstance(brake, Drum):
        doc |= {"cylinder_area_cm2": float(brake.cylinder_area) * CM2, "c_star": float(brake.shoe_factor)}
        if brake.sensitivity is not None:
            doc["drum_sensitivity"] = float(brake.sensitivity)
    else:
        doc |= {"side_area_cm2": float(brake.side_area) * CM2, "effective_radius_mm": float(brake.effective_radius) * MM}
    line = case.healthy.line
    for device in station.devices:
        if isinstance(device, Passive) and device.kind == "switch" and device.pressure is not None:
            branch = next(b for b in line.branches if b.station is station)
            place, ever = chain.first_reach(branch.outlet, device.pressure)
            if pick(ever, 0, 0, 0):
                doc["switch_pedal_force_n"] = pick(case.healthy.push_at(place), 0, 0, 0)
    return doc


def system_document(case: cases.Case) -> Doc:
    """What a system is, whatever the push."""
    system = case.system
    control, help_ = system.control, system.booster
    ratio = float(control.ratio)
    doc: Doc = {"pedal_ratio": ratio}
    strokes = [c.stroke for c in system.cylinder.chambers]
    lost = float(help_.lost_travel) if help_ is not None else 0.0
    if all(s is not None for s in strokes):
        whole = sum(float(s) for s in strokes if s is not None)
        bottom = float(travel.bottoming(whole, lost, ratio, control.free_play))
        doc["bottoming_travel_mm"] = bottom * MM
        if control.available is not None:
            doc["floor_comes_first"] = bottom > float(control.available)
    if help_ is not None:
        doc["assist_limit_n"] = float(help_.limit)
        runout, runs_out = boosting.runout_force(help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        doc["runout_force_n"] = float(runout) if bool(runs_out) else None
        place, _ = chain.first_reach(case.healthy.line.rod, runout)
        doc["runout_pedal_force_n"] = pick(case.healthy.push_at(place), 0, 0, 0) if bool(runs_out) else None
    doc["stations"] = {s.name: station_document(s, case) for s in system.stations}
    return doc


class Places:
    """Figures of a solved line at places (L, 1, S), written for one load state and one place at a time."""

    def __init__(self, solved: cases.Solved, place: chain.Place) -> None:
        self.solved, self.place = solved, place
        self.moment = solved.at(place)
        line = solved.line
        self.push = lookup(line.push, place.knot, place.fraction)
        self.rod = lookup(line.rod, place.knot, place.fraction)
        self.out = lookup(line.out, place.knot, place.fraction)
        self.branches = {
            b.station.name: [lookup(v, place.knot, place.fraction) for v in (b.inlet, b.outlet, b.torque)]
            for b in reversed(line.branches)
        }
        known = solved.travel
        self.travel = None if known is None else known
        self.pad = None if known is None else known.pad.at(place)
        self.piston = None if known is None else known.piston.at(place)
        self.bottomed = None if known is None else known.bottomed(place)
        self.causes = {} if known is None else {key: curve.at(place) for key, curve in known.causes.items()}
        self.volumes = {} if known is None else self._volumes()

    def _volumes(self) -> dict[str, Floats]:
        ratio = self.solved.line.system.control.ratio
        volumes: dict[str, Floats] = {}
        for branch in self.solved.line.branches:
            name = branch.station.name
            if name in volumes:
                continue
            chamber = next(c for c in self.solved.line.system.cylinder.chambers if c.name == branch.circuit)
            factor = chamber.area / (ratio * chamber.travel_share)
            parts = [values for (where, _), values in self.causes.items() if where == name]
            volumes[name] = np.asarray(sum(parts) * factor)
        return volumes

    def system(self, load: int, s: int) -> Doc:
        """The system's figures at one place."""
        doc: Doc = {
            "control_force_n": pick(self.push, load, 0, s),
            "rod_force_n": pick(self.rod, load, 0, s),
            "booster_out_n": pick(self.out, load, 0, s),
        }
        if self.pad is not None and self.piston is not None and self.bottomed is not None:
            doc |= {
                "pedal_travel_mm": pick(self.pad, load, 0, s) * MM,
                "piston_travel_mm": pick(self.piston, load, 0, s) * MM,
                "bottomed": bool(pick(self.bottomed, load, 0, s)),
            }
        stations: Doc = {}
        for name, (inlet, outlet, torque) in self.branches.items():
            stations[name] = {
                "pressure_in_kpa": pick(inlet, load, 0, s) * KPA,
                "pressure_kpa": pick(outlet, load, 0, s) * KPA,
                "torque_per_wheel_nm": pick(torque, load, 0, s),
            }
            station = self.solved.line.system.station(name)
            if isinstance(station.brake, disc.Disc):
                brake = station.brake
                clamp = disc.clamp_force(pick(outlet, load, 0, s), brake.side_area, brake.efficiency, brake.threshold)
                stations[name]["clamp_n"] = float(clamp)
            if name in self.volumes:
                stations[name]["volume_cm3"] = pick(self.volumes[name], load, 0, s) * CM3
        doc["stations"] = dict(sorted(stations.items()))
        if self.causes:
            doc["breakdown_mm"] = breakdown({key: pick(v, load, 0, s) for key, v in self.causes.items()})
        return doc

    def moment_document(self, load: int, s: int) -> Doc:
        """The road's figures at one place."""
        at = self.moment
        front, rear = pick(at.front, load, 0, s), pick(at.rear, load, 0, s)
        locked = [axle for axle, mask in (("front", at.front_locked), ("rear", at.rear_locked)) if pick(mask, load, 0, s)]
        return {
            "pedal_force_n": pick(self.push, load, 0, s),
            "decel_g": pick(at.decel, load, 0, s),
            "grip_decel_g": pick(at.grip_decel, load, 0, s),
            "locked": locked,
            "rear_lifts": bool(pick(at.rear_lifts, load, 0, s)),
            "front_brake_force_n": front,
            "rear_brake_force_n": rear,
            "front_brake_share": front / (front + rear) if front + rear > 0 else None,
            "adhesion_front": pick(at.use_front, load, 0, s),
            "adhesion_rear": pick(at.use_rear, load, 0, s),
            "systems": {self.solved.line.system.name: self.system(load, s)},
        }


def breakdown(causes: dict[tuple[str, str], float]) -> Doc:
    """Travel by where and cause [mm] from `causes` [m]; zeros left out."""
    doc: Doc = {}
    for (where, cause), value in causes.items():
        if value > 0.0:
            doc.setdefault(where, {})[cause] = value * MM
    return doc


def moments(case: cases.Case, place: chain.Place, load: int) -> list[Doc]:
    """Figures for one load state at `place` (1 or L, 1, S)."""
    at = Places(case.healthy, place)
    return [at.moment_document(load, s) for s in range(place.knot.shape[-1])]


def first_lock(case: cases.Case, load: int) -> str:
    """Name of the first event in a load state: front, rear, both, rear_lift or none."""
    event = case.healthy.event
    front, rear, lift = (bool(pick(m, load, 0)) for m in (event.front, event.rear, event.lift))
    return "rear_lift" if lift else "both" if front and rear else "front" if front else "rear" if rear else "none"


def event_place(case: cases.Case, load: int) -> chain.Place | None:
    """Where on the line the first lock or lift happens in a load state, None when nothing does."""
    number = pick(case.healthy.event.place, load, 0)
    if not np.isfinite(number):
        return None
    knot = min(int(number), case.healthy.line.steps - 1)
    return chain.Place(np.array([[[knot]]]), np.array([[[number - knot]]]))


def force_for_decel(case: cases.Case, load: int, wanted: float) -> Doc:
    """Pedal force for a wanted deceleration, or null with the reason."""
    road, event = case.healthy.road, case.healthy.event
    place, known = chain.first_reach(road.decel, wanted)
    lock = pick(event.decel, load, 0)
    if wanted > lock:
        what = {"front": "the front locks", "rear": "the rear locks", "both": "both axles lock", "rear_lift": "the rear lifts"}
        reason = f"no pedal force reaches {wanted:g} g: {what[first_lock(case, load)]} at {lock:.2f} g"
        return {"decel_g": wanted, "pedal_force_n": None, "in_jump": False, "reason": reason}
    if not pick(known, load, 0, 0):
        most = float(np.max(road.decel[load]))
        reason = f"no pedal force reaches {wanted:g} g: the brakes give at most {most:.2f} g"
        return {"decel_g": wanted, "pedal_force_n": None, "in_jump": False, "reason": reason}
    line = case.healthy.line
    knot = pick(place.knot, load, 0, 0)
    pushes = np.broadcast_to(line.push, (*road.decel.shape[:-1], line.push.shape[-1]))[load, 0]
    leap = bool(pushes[knot] == pushes[knot + 1] and knot > 0 and pushes[knot] > 0.0)
    return {"decel_g": wanted, "pedal_force_n": pick(case.healthy.push_at(place), load, 0, 0), "in_jump": leap}


def design_document(case: cases.Case, load: int) -> Doc:
    """The stop a setup is judged at, in one load state."""
    decel = pick(case.design_decel, load)
    if not pick(case.design_known, load):
        return {"decel_g": decel, "pedal_force_n": None, "reason": f"the brakes never give {decel:.2f} g"}
    system, solved = case.system, case.healthy
    force = pick(solved.push_at(case.design), load, 0, 0)
    own: Doc = {"control_force_n": force}
    if solved.travel is not None:
        pad = pick(solved.travel.pad.at(case.design), load, 0, 0)
        own["pedal_travel_mm"] = pad * MM
        if system.control.available is not None:
            share = pad / float(system.control.available)
            own |= {"travel_share": share, "travel_level": travel_level(share)}
        strokes = [c.stroke for c in system.cylinder.chambers]
        if all(s is not None for s in strokes):
            whole = sum(float(s) for s in strokes if s is not None)
            own["stroke_share"] = pick(solved.travel.piston.at(case.design), load, 0, 0) / whole
        stiff = travel.stiffness(solved.line, solved.travel, case.design)
        own["stiffness_n_per_mm"] = pick(stiff, load, 0, 0) / MM
    level = effort_level(system.control.kind, force)
    if level is not None:
        own["effort_level"] = level
    return {"decel_g": decel, "pedal_force_n": force, "systems": {system.name: own}}


def failures_document(answer: Answer, case: cases.Case, load: int) -> Doc:
    """What each failure leaves, in one load state."""
    left, names = case.left, case.names
    if left is None:
        return {}
    doc: Doc = {}
    for c, (name, failure) in enumerate(zip(names, answer.failures, strict=True)):
        limited = LIMITS[pick(left.limited, load, c)]
        gone = limited in ("contact", "all_lost")
        at = left.moment
        locked = [a for a, m in (("front", at.front_locked), ("rear", at.rear_locked)) if pick(m, load, c, 0) and not gone]
        doc[name] = {
            "pedal_force_n": 0.0 if limited == "all_lost" else pick(left.push, load, c),
            "limited_by": limited,
            "decel_g": 0.0 if gone else pick(at.decel, load, c, 0),
            "grip_decel_g": 0.0 if gone else pick(at.grip_decel, load, c, 0),
            "best_grip_decel_g": 0.0 if gone else pick(left.best, load, c),
            "locked": locked,
            "reaches_2p44_m_per_s2": bool(pick(left.enough, load, c)) and not gone,
            "does_not_reach": limited == "contact",
            "friction_fallback": answer.converted.fallback[failure.friction] if failure.friction != "cold" else [],
            "systems": {
                case.system.name: {
                    "contact_travel_mm": pick(left.contact, load, c) * MM,
                    "travel_at_force_limit_mm": pick(left.at_limit, load, c) * MM,
                    "pedal_travel_mm": None if limited == "all_lost" else pick(left.pad, load, c) * MM,
                }
            },
        }
    return doc


def path_document(answer: Answer, case: cases.Case, load: int) -> Doc:
    """All answers for one load state."""
    event, road = case.healthy.event, case.healthy.road
    lock = or_none(pick(event.decel, load, 0))
    limit = pick(case.grip_limit, load)
    front, rear = (or_none(pick(road.locks[axle], load, 0)) for axle in vehicle.AXLES)
    pushes = [value_of(f, "pedal_forces_n") for f in answer.questions.pedal_forces_n]
    doc: Doc = {"grip_limit_g": limit, "first_lock": first_lock(case, load), "lock_decel_g": lock}
    place = event_place(case, load)
    doc["lock_pedal_force_n"] = None if place is None else pick(case.healthy.push_at(place), load, 0, 0)
    doc["grip_efficiency"] = None if lock is None else lock / limit
    doc |= {"front_lock_decel_g": front, "rear_lock_decel_g": rear}
    if pushes:
        doc["at_pedal_force"] = moments(case, chain.place_at(case.healthy.line, np.array(pushes)), load)
    wanted = [value_of(z, "wanted_decels_g") for z in answer.questions.wanted_decels_g]
    if wanted:
        doc["pedal_force_for_decel"] = [force_for_decel(case, load, z) for z in wanted]
    doc["design_stop"] = design_document(case, load)
    failures = failures_document(answer, case, load)
    if failures:
        doc["failures"] = failures
    above, kept = vehicle.distribution_kept(*cases.adhesion_curve(case.healthy))
    doc["distribution"] = {"rear_not_above_front": bool(pick(above, load, 0)), "use_limit_kept": bool(pick(kept, load, 0))}
    return doc


def evaluate(setup: Setup, questions: Questions | None = None) -> Doc:
    """The result file of a `setup`: what is asked, what is always answered, and what each answer still needs."""
    return result_document(Answer(setup, questions))


def result_document(answer: Answer) -> Doc:
    """The result file of an answer."""
    case, asked = answer.case, answer.questions.model_dump(exclude_defaults=True)
    doc: Doc = {"format": "kobrix-result", "version": 1, "name": answer.setup.name, "questions": asked}
    if case is not None:
        doc["systems"] = {case.system.name: system_document(case)}
        doc["load_states"] = {}
        for i, name in enumerate(answer.converted.load_names):
            doc["load_states"][name] = {
                "front_axle_load_n": pick(vehicle.axle_load(case.load, "front", 0.0), i, 0, 0),
                "rear_axle_load_n": pick(vehicle.axle_load(case.load, "rear", 0.0), i, 0, 0),
                "rear_lift_decel_g": pick(vehicle.rear_lift_decel(case.load), i, 0, 0),
                "paths": {case.system.name: path_document(answer, case, i)},
            }
    if answer.needs:
        doc["needs"] = answer.needs
    unanswered = sorted(answer.questions.model_extra or {})
    if unanswered:
        doc["unanswered"] = unanswered
    return doc

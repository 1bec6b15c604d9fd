"""What a screen shows of a whole job: every setup at one wanted stop, with the range of the push as the core's samples.

A scrub of the push is a look-up between the samples; at rest a screen asks `moment_at` for exactly that push.
"""

import math
from typing import Any

import numpy as np

from kobrix.core import case as cases
from kobrix.core import chain, disc, judgements, mends, vehicle
from kobrix.core.arrays import Floats
from kobrix.core.constants import STANDARD_BORES, bore_name
from kobrix.core.drum import Drum
from kobrix.core.errors import Impossible
from kobrix.core.practice import whole_stroke
from kobrix.core.valves import Passive, Proportioning
from kobrix.core.verdict import judge
from kobrix.setup.job import AS_FOUND, Job
from kobrix.setup.mends import edits_of
from kobrix.setup.model import Setup
from kobrix.setup.quantities import si
from kobrix.setup.result import CM2, KPA, MM, Answer, Doc, Places, facts_of, failures_document, first_lock, pick
from kobrix.setup.stations import DiscBrake, Station

SAMPLES = 48  # of the push, besides the knots
_WORDS = {"front": "front locks first", "rear": "rear locks first", "both": "both lock together",
          "rear_lift": "rear lifts", "none": "nothing locks"}  # fmt: skip


def _bench(answer: Answer, found: Answer | None) -> judgements.Bench | None:
    if answer.case is None:
        return None
    return judgements.Bench(answer.case, answer.converted.load_names, facts_of(answer), found.case if found is not None else None)


def findings(answer: Answer, found: Answer | None = None) -> list[Doc]:
    """Judgements on an answer, danger first, with their mends as edits; `found` is the setup as found, to compare with."""
    bench = _bench(answer, found)
    if bench is None:
        return []
    docs = []
    for item in mends.offer(bench, judge(bench)):
        mend = item.mend
        docs.append({
            "id": item.id, "level": item.level, "sentence": item.sentence, "reason": item.reason, "source": item.source,
            "value": item.value, "limit": item.limit,
            "mend": None if mend is None else {"kind": mend.kind, "label": mend.label, "edits": edits_of(mend, answer.setup)},
        })  # fmt: skip
    return docs


def _station_parts(station: chain.Station, answer: Answer, part: Station) -> Doc:
    tyre = answer.converted.tyres.get(station.name)
    hoses = sorted({h.kind or "other" for h in (part.lines.hoses if part.lines else [])})
    valve = next((d for d in station.devices if isinstance(d, Proportioning)), None)
    residual = [d.pressure for d in station.devices if isinstance(d, Passive) and d.kind == "residual"]
    doc: Doc = {
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


def parts(answer: Answer, system: chain.System) -> Doc:
    """Dimensions and constants of a system that a screen draws and writes, in the units of their names."""
    control, cylinder = system.control, system.cylinder
    stroke = whole_stroke(system)
    bore = float(cylinder.chambers[0].bore)
    part = next(s for s in answer.setup.systems if s.name == system.name)
    return {
        "pedal": {
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
            "kind": cylinder.kind, "bore_mm": bore * MM, "bore_name": bore_name(bore),
            "area_cm2": float(cylinder.chambers[0].area) * CM2, "efficiency": float(cylinder.efficiency),
            "stroke_mm": None if stroke is None else stroke * MM,
            "circuits": [c.name for c in cylinder.chambers],
        },
        "stations": [_station_parts(s, answer, own) for s, own in zip(system.stations, part.stations, strict=True)],
    }  # fmt: skip


def _column(values: Any, load: int, scale: float = 1.0) -> list[float]:
    """One load state of figures (1 or L, 1, S), or (S,) that hold for all, as a list."""
    array = np.asarray(values, dtype=np.float64)
    if array.ndim > 1:
        array = array.reshape(-1, array.shape[-1])
        array = array[min(load, array.shape[0] - 1)]
    own: list[float] = (array * scale if scale != 1.0 else array).tolist()
    return own


def _curves(case: cases.Case, load: int, pushes: Floats, at: Places) -> Doc:
    """The whole range of pushes in one load state, one list a figure, in the units of their names."""
    own, moment = at.pulls[0], at.moment
    size = pushes.size

    def column(values: Any, scale: float = 1.0) -> list[float]:
        array = np.asarray(values, dtype=np.float64)
        return _column(array if array.shape[-1:] == (size,) else np.broadcast_to(array, (*array.shape[:-1], size)), load, scale)

    doc: Doc = {
        "push_n": pushes.tolist(),
        "rod_n": column(own.rod), "out_n": column(own.out),
        "front_n": column(moment.front), "rear_n": column(moment.rear),
        "decel_g": column(moment.decel), "grip_decel_g": column(moment.grip_decel),
        "adhesion_front": column(moment.use_front), "adhesion_rear": column(moment.use_rear),
        "front_locked": column(moment.front_locked), "rear_locked": column(moment.rear_locked),
        "ideal_front_share": column(vehicle.axle_share(case.load, "front", moment.decel)),
        "stations": {}, "travel_mm": None, "piston_mm": None, "causes_mm": {},
    }  # fmt: skip
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
    return doc


def _balance(case: cases.Case, load: int) -> Doc:
    """What the tyres allow in one load state: ideal sharing, lock lines and the weight, for a plot of rear over front [N]."""
    state = case.load
    weight, psi, chi = (pick(np.asarray(v), load, 0, 0) for v in (state.weight, state.front_share, state.chi))
    mu_f, mu_r = float(np.max(state.grip_front)), float(np.max(state.grip_rear))
    one = vehicle.Load(weight / 9.80665, psi, chi, mu_f, mu_r, 1.0, 0.0)
    limit = min(float(vehicle.grip_limit(one, 1.0, 1.0)), (1.0 - psi) / chi)
    z = np.linspace(0.0, limit, 31)
    ideal = [
        [float(a), float(b)]
        for a, b in zip(vehicle.ideal_force(one, "front", z), vehicle.ideal_force(one, "rear", z), strict=True)
    ]
    corner = [mu_f * float(vehicle.axle_load(one, "front", limit)), mu_r * float(vehicle.axle_load(one, "rear", limit))]
    return {
        "weight_n": weight, "front_share": psi, "chi": chi, "grip_front": mu_f, "grip_rear": mu_r, "grip_limit_g": limit,
        "ideal_n": ideal, "corner_n": corner,
        "front_lock_n": [mu_f * psi * weight / (1.0 - mu_f * chi), 0.0],
        "rear_lock_n": [0.0, mu_r * (1.0 - psi) * weight / (1.0 + mu_r * chi)],
    }  # fmt: skip


def _locks(path: cases.Path) -> list[Doc | None]:
    """Push, deceleration and axle forces at the first lock or lift, by load state; None when nothing happens."""
    solved = path.healthy
    ever = np.isfinite(solved.event.place)
    place = chain.place_of(np.where(ever, solved.event.place, 0.0)[..., None], solved.road.decel.shape[-1] - 1)
    at, pushes = solved.at(place), solved.push_at(place)
    return [
        {
            "push_n": pick(pushes, load, 0, 0), "decel_g": pick(solved.event.decel, load, 0),
            "front_n": pick(at.front, load, 0, 0), "rear_n": pick(at.rear, load, 0, 0),
        } if ever[load, 0] else None
        for load in range(ever.shape[0])
    ]  # fmt: skip


def wanted_stop(answers: list[Answer]) -> float | None:
    """The one stop that setups are compared at: 0.9 of the least grip limit over setups and load states, in g."""
    limits = [float(np.min(a.case.main.grip_limit)) for a in answers if a.case is not None]
    return cases.DESIGN_SHARE * min(limits) if limits else None


def _differences(own: Doc | None, found: Doc | None, system: str, found_system: str) -> Doc | None:
    """A setup against the one as found at the same stop: lighter in per cent, longer in mm."""
    if own is None or found is None or not found["pedal_force_n"]:
        return None
    ours, theirs = own["systems"][system].get("pedal_travel_mm"), found["systems"][found_system].get("pedal_travel_mm")
    longer = None if ours is None or theirs is None else ours - theirs
    return {"lighter_percent": (1.0 - own["pedal_force_n"] / found["pedal_force_n"]) * 100.0, "longer_mm": longer}


def _headline(doc: Doc, push: float | None) -> str:
    worst = next(iter(doc["findings"]), None)
    if worst is not None and worst["id"] == "lock_order" and worst["level"] == "danger":
        return "rear first" if "rear" in worst["sentence"].lower() else "lifts"
    return "no such stop" if push is None else f"{push:.0f} N"


def _failures(answer: Answer, path: cases.Path, load: int) -> list[Doc]:
    """What each lost circuit or booster leaves, for the travel's plot."""
    kept = ("pedal_force_n", "limited_by", "best_grip_decel_g", "reaches_2p44_m_per_s2")
    rows = []
    for name, left in failures_document(answer, path, load).items():
        if name.startswith("lost_"):
            own = next(iter(left["systems"].values()))
            rows.append({"name": name, **{key: left[key] for key in kept}, "pedal_travel_mm": own["pedal_travel_mm"]})
    return rows


def _not_drawn(case: cases.Case) -> str | None:
    """Why Size does not draw a setup yet, None when it does."""
    if len(case.systems) > 1:
        return f"it has {len(case.systems)} controls, and Size draws one; kobrix evaluate answers for all of them"
    system = case.systems[0]
    if system.cylinder.kind == "twin":
        return "its two cylinders stand on a balance bar, and Size draws one cylinder; kobrix evaluate answers for it"
    if system.control.linkage is not None:
        return "its pedal works through a linkage, and Size draws a straight rod; kobrix evaluate answers for it"
    return None


def _setup_view(answer: Answer, found: Answer | None, key: str, title: str, wanted: float, reach: float) -> Doc:
    case = answer.case
    doc: Doc = {
        "key": key,
        "name": title,
        "needs": answer.needs,
        "note": None,
        "solved": None,
        "findings": findings(answer, found),
    }
    doc["level"] = doc["findings"][0]["level"] if doc["findings"] else None
    doc["headline"] = "incomplete"
    if case is None:
        return doc
    doc["note"] = _not_drawn(case)
    if doc["note"] is not None:
        doc["headline"] = "not drawn yet"
        return doc
    path = case.main
    healthy = path.healthy
    knots = np.unique(healthy.pulls[0].pedal.knots if healthy.push is None else healthy.push)
    knots = knots[knots <= reach]
    pushes = np.unique(np.concatenate([np.linspace(0.0, reach, SAMPLES), knots, np.nextafter(knots, np.inf)]))
    sampled = Places(healthy, healthy.place_at(pushes))
    reached, known = chain.first_reach(healthy.road.decel, wanted)
    at_stop = Places(healthy, reached)
    states, locks = [], _locks(path)
    for load, name in enumerate(answer.converted.load_names):
        lock = locks[load]
        states.append({
            "name": name,
            "mass_kg": pick(case.load.mass, load, 0, 0), "front_share": pick(case.load.front_share, load, 0, 0),
            "cg_height_mm": pick(case.load.chi, load, 0, 0) * si(answer.setup.vehicle.wheelbase_mm or 0.0, "wheelbase_mm") * MM,
            "first_lock": first_lock(path, load), "first_lock_words": _WORDS[first_lock(path, load)],
            "lock": lock,
            "grip_efficiency": None if lock is None else lock["decel_g"] / pick(path.grip_limit, load),
            "stop_push_n": pick(at_stop.push, load, 0, 0) if pick(known, load, 0, 0) else None,
            "at_stop": at_stop.moment_document(load, 0) if pick(known, load, 0, 0) else None,
            "balance": _balance(case, load),
            "failures": _failures(answer, path, load),
            "curves": _curves(case, load, pushes, sampled),
        })  # fmt: skip
    system = case.systems[0]
    doc["solved"] = {"system": system.name, "parts": parts(answer, system), "states": states, "against_found": []}
    doc["headline"] = _headline(doc, states[0]["stop_push_n"])
    return doc


def _reach(answers: list[Answer], wanted: float, limit: float) -> float:
    """Greatest push of the common range: past the limit, every lock and every wanted stop."""
    pushes = [1.1 * limit]
    for answer in answers:
        if answer.case is not None:
            path = answer.case.main
            place, known = chain.first_reach(path.healthy.road.decel, wanted)
            pushes += np.broadcast_to(path.healthy.push_at(place), known.shape)[known].tolist()
            pushes += [lock["push_n"] for lock in _locks(path) if lock is not None]
    return min(3000.0, math.ceil(1.03 * max(pushes) / 50.0) * 50.0)


def job_view(job: Job) -> Doc:
    """Everything a screen shows of a `job` at its wanted stop."""
    names = [AS_FOUND, *(p.name for p in job.plans)]
    answers = [Answer(job.setup(name)) for name in names]
    wanted = wanted_stop(answers)
    solved = [a for a in answers if a.case is not None]
    kind = job.as_found.systems[0].control.kind
    band = judgements.EFFORT.get(kind)
    limit = next(iter(solved[0].rooms.values())).force if solved else judgements.EFFORT["car_pedal"].danger
    reach = _reach(answers, wanted, limit) if wanted is not None else 1.2 * limit
    found = answers[0]
    views = [
        _setup_view(a, None if i == 0 else found, name, name, wanted or 0.0, reach)
        for i, (a, name) in enumerate(zip(answers, names, strict=True))
    ]
    base = views[0]["solved"]
    for view in views:
        own = view["solved"]
        if own is not None and base is not None:
            own["against_found"] = [
                _differences(mine["at_stop"], theirs["at_stop"], own["system"], base["system"])
                for mine, theirs in zip(own["states"], base["states"], strict=True)
            ]
    return {
        "wanted_decel_g": wanted,
        "push_range_n": reach,
        "force_limit_n": limit,
        "effort": None if band is None else {"low": band.low, "good": band.good, "caution": band.caution, "danger": band.danger},
        "travel": {"good": judgements.TRAVEL.good, "caution": judgements.TRAVEL.caution, "danger": judgements.TRAVEL.danger},
        "standard_bores": [{"name": name, "bore_mm": size * MM} for name, size in STANDARD_BORES],
        "setups": views,
    }  # fmt: skip


def moment_at(setup: Setup, load: int, push: float | None, decel: float | None) -> Doc:
    """The core's figures for exactly one push [N], or for the push of one deceleration [g], in one load state.

    Raises Impossible where the setup is incomplete or the brakes never give it.
    """
    answer = Answer(setup)
    if answer.case is None:
        raise Impossible("the force line", "it still needs " + ", ".join(answer.needs["decel"]))
    solved = answer.case.main.healthy
    if push is not None:
        return Places(solved, solved.place_at(np.array([push]))).moment_document(load, 0)
    wanted = decel or 0.0
    place, known = chain.first_reach(solved.road.decel, wanted)
    if not pick(known, load, 0, 0):
        most = float(np.max(solved.road.decel[load]))
        raise Impossible(f"a stop of {wanted:g} g", f"the brakes give at most {most:.2f} g at any push")
    return Places(solved, place).moment_document(load, 0)

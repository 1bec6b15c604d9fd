"""Answers to the questions that a file may carry besides, in the names of the result file; null with its reason where there is none."""

from functools import partial
from typing import Any

import numpy as np

from kobrix.core.constants import PUBLISHED, G, assumed
from kobrix.core.errors import BadEntry, Impossible
from kobrix.core.numerics import sensitivity, uncertainty
from kobrix.core.physics import inverse
from kobrix.core.physics import stopping_distance as stops
from kobrix.core.physics.chain import figure_at
from kobrix.core.physics.disc import side_area
from kobrix.core.physics.drum import Drum
from kobrix.core.physics.paths import Pull, solve_path
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup, settle, settle_decel
from kobrix.core.physics.travel import trapped_air
from kobrix.core.physics.vehicle import Load, height_by_lifting
from kobrix.core.physics.working import working
from kobrix.evaluate.answer_shapes import (
    Answers,
    BarAnswer,
    BoreAnswer,
    CgHeightAnswer,
    InverseAnswers,
    KneeAnswer,
    MfddAnswer,
    NominalAnswer,
    NoseOverAnswer,
    ParkingAnswer,
    RatioAnswer,
    RearAreaAnswer,
    RearRotorAnswer,
    ReservoirAnswer,
    StopAnswer,
    ToleranceAnswer,
    TrappedAirAnswer,
    WorkingAnswer,
)
from kobrix.evaluate.of_one import or_reason, station_named, where
from kobrix.evaluate.results import CM2, KPA, MM, result_document, step_document
from kobrix.evaluate.rotor_heat import rotor_heat
from kobrix.evaluate.shapes import Result
from kobrix.evaluate.solve import Answer, pick
from kobrix.evaluate.to_core import convert
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.questions import Inverse, Questions, Tolerance, Working
from kobrix.fileformat.stations import DiscBrake

_KMH = 3.6
_SLOPE_STEP = 1e-4  # of the ±, for the central difference of the first order


def _inverse(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> InverseAnswers:
    doc: InverseAnswers = {}
    if asked.bore_for_effort is not None:
        doc["bore_for_effort"] = or_reason(("bore_mm",), lambda: _bore(answer, solved_setup, asked))
    if asked.ratio_for_effort is not None:
        names = ("ratio", "pivot_to_pin_mm", "pin_move_mm")
        doc["ratio_for_effort"] = or_reason(names, lambda: _ratio(answer, solved_setup, asked))
    if asked.rear_area_for_share is not None:
        doc["rear_area_for_share"] = or_reason(("rear_side_area_cm2",), lambda: _rear_area(answer, solved_setup, asked))
    if asked.rear_rotor_for_share is not None:
        doc["rear_rotor_for_share"] = or_reason(("rear_rotor_diameter_mm",), lambda: _rear_rotor(answer, solved_setup, asked))
    if asked.bar_for_share is not None:
        doc["bar_for_share"] = or_reason(("bar_front_share",), lambda: _bar(answer, solved_setup, asked))
    if asked.knee_for_lock_order is not None:
        doc["knee_for_lock_order"] = or_reason(("knee_kpa",), lambda: _knee(answer, solved_setup, asked))
    return doc


def _bore(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> BoreAnswer:
    assert asked.bore_for_effort is not None
    own = asked.bore_for_effort
    load, path = where(answer, solved_setup, own)
    wanted = si(own.decel_g, "decel_g"), si(own.effort_n, "effort_n")
    return {"bore_mm": inverse.bore_for_effort(path.healthy, solved_setup.wheels, load, *wanted) * MM}


def _ratio(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> RatioAnswer:
    assert asked.ratio_for_effort is not None
    own = asked.ratio_for_effort
    load, path = where(answer, solved_setup, own)
    ratio, pin = inverse.ratio_for_effort(path.healthy, load, si(own.decel_g, "decel_g"), si(own.effort_n, "effort_n"))
    now = float(path.healthy.pulls[0].system.control.pivot_to_pin)
    return {"ratio": ratio, "pivot_to_pin_mm": pin * MM, "pin_move_mm": (now - pin) * MM}


def _rear(path: SolvedPath) -> Any:
    rear = [s for p in path.healthy.pulls for s in p.system.stations if s.axle == "rear"]
    if len(rear) != 1:
        raise Impossible("the rear brakes", f"there are {len(rear)} rear stations; the question is about one")
    return rear[0]


def _scale(answer: Answer, solved_setup: SolvedSetup, asked: Any) -> tuple[SolvedPath, float]:
    load, path = where(answer, solved_setup, asked)
    share = si(asked.decel_g, "decel_g"), si(asked.front_share, "front_share")
    return path, inverse.rear_scale_for_share(path.healthy, load, *share)


def _rear_area(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> RearAreaAnswer:
    path, scale = _scale(answer, solved_setup, asked.rear_area_for_share)
    brake = _rear(path).brake
    if isinstance(brake, Drum):
        return {"rear_side_area_cm2": None, "rear_cylinder_area_cm2": float(brake.cylinder_area) * scale * CM2}
    return {"rear_side_area_cm2": float(brake.side_area) * scale * CM2}


def _rear_rotor(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> RearRotorAnswer:
    path, scale = _scale(answer, solved_setup, asked.rear_rotor_for_share)
    station = _rear(path)
    if isinstance(station.brake, Drum):
        return {"rear_rotor_diameter_mm": None, "rear_drum_diameter_mm": float(station.brake.radius) * 2.0 * scale * MM}
    part = station_named(answer, station.name).brake
    assert isinstance(part, DiscBrake)
    rotor, pad = si(part.rotor_diameter_mm or 0.0, "rotor_diameter_mm"), si(part.pad_height_mm or 0.0, "pad_height_mm")
    inset = assumed("disc.edge_inset") if part.edge_inset_mm is None else si(part.edge_inset_mm, "edge_inset_mm")
    return {"rear_rotor_diameter_mm": inverse.rotor_for_scale(station.brake, rotor, pad, inset, scale, part.radius_rule) * MM}


def _bar(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> BarAnswer:
    assert asked.bar_for_share is not None
    own = asked.bar_for_share
    load, path = where(answer, solved_setup, own)
    wanted = si(own.decel_g, "decel_g"), si(own.front_share, "front_share")
    return {"bar_front_share": inverse.bar_for_share(path.healthy, load, *wanted)}


def _knee(answer: Answer, solved_setup: SolvedSetup, asked: Inverse) -> KneeAnswer:
    assert asked.knee_for_lock_order is not None
    own = asked.knee_for_lock_order
    _, path = where(answer, solved_setup, own)
    pull = next((p for p in path.healthy.pulls if any(s.axle == "rear" for s in p.system.stations)), None)
    if pull is None or len(path.healthy.pulls) != 1:
        raise Impossible("the knee", "one control must feed front and rear")
    knee, reason = inverse.knee_for_lock_order(solved_setup, pull.system, si(own.margin, "margin"))
    return {"knee_kpa": None if knee is None else knee * KPA, "reason": reason}


def _trapped(answer: Answer, solved_setup: SolvedSetup) -> TrappedAirAnswer:
    asked = answer.questions.trapped_air
    assert asked is not None
    load, path = where(answer, solved_setup, asked)
    station_named(answer, asked.station)
    pull = next(p for p in path.healthy.pulls if any(s.name == asked.station for s in p.system.stations))
    if pull.pedal.travel is None:
        raise Impossible("trapped air", "it still needs " + ", ".join(answer.needs.get("travel", [])))
    place = pull.pedal.place_at(si(asked.pedal_force_n, "pedal_force_n"))
    own = pick(pull.pedal.pad_at(place), load, 0, 0)
    missing = si(asked.pedal_travel_mm, "pedal_travel_mm") - own
    line = pull.pedal.line
    branch = next(i for i, b in enumerate(line.branches) if b.station.name == asked.station)
    pressure = figure_at(line.outlet[branch], place, load)
    if pressure <= 0.0:
        raise Impossible("trapped air", f"{asked.pedal_force_n} does not press the {asked.station} brakes")
    ratio = pick(np.asarray(pull.pedal.ratio_at(place)), load, 0, 0)
    per_stroke = float(pull.pedal.travel.volumes[asked.station])
    return {"trapped_air_cm3": float(trapped_air(missing, pressure, per_stroke, ratio)) * 1e6}


def _stop(answer: Answer) -> StopAnswer:
    asked = answer.questions.stop
    assert asked is not None
    speed = si(asked.speed_kmh, "speed_kmh")
    build = stops.BUILD_UP if asked.build_up_s is None else si(asked.build_up_s, "build_up_s")
    way = stops.distance(speed, si(asked.decel_g, "decel_g") * G, si(asked.reaction_s, "reaction_s"), build)
    return {"distance_m": float(way), "limit_m": float(stops.distance_limit(speed))}


def _mfdd(answer: Answer) -> MfddAnswer:
    asked = answer.questions.mfdd
    assert asked is not None
    return {
        "mfdd_m_per_s2": float(
            stops.mfdd(si(asked.speed_kmh, "speed_kmh"), si(asked.begin_m, "begin_m"), si(asked.end_m, "end_m"))
        )
    }


def _nominal(answer: Answer) -> NominalAnswer:
    asked = answer.questions.nominal
    assert asked is not None
    speeds = si(asked.speed_kmh, "speed_kmh"), si(asked.nominal_speed_kmh, "nominal_speed_kmh")
    return {"distance_m": stops.to_nominal(si(asked.distance_m, "distance_m"), *speeds)}


def _parking(answer: Answer, solved_setup: SolvedSetup) -> ParkingAnswer:
    asked = answer.questions.parking
    assert asked is not None
    load, _ = where(answer, solved_setup, asked)
    station_named(answer, asked.station)
    station = next(s for system in solved_setup.systems for s in system.stations if s.name == asked.station)
    mass, psi, chi = (
        pick(np.asarray(v), load, 0, 0) for v in (solved_setup.load.mass, solved_setup.load.front_share, solved_setup.load.chi)
    )
    front = station.axle == "front"
    grip = pick(np.asarray(solved_setup.load.grip(station.axle)), load, 0, 0)
    torque = stops.grade_by_torque(si(asked.torque_nm, "torque_nm"), float(station.rolling_radius), mass)
    up, down = (stops.grade_by_grip(grip, psi if front else 1.0 - psi, chi, front, nose_down) for nose_down in (False, True))
    grades = [g for g in (torque, up, down) if g is not None]
    holds = min(grades) if grades else None
    return {
        "torque_grade": torque, "grip_grade_nose_up": up, "grip_grade_nose_down": down, "holds_grade": holds,
        "holds_usual_test": holds is None or holds >= PUBLISHED["parking_grade"].value,
    }  # fmt: skip


def _reservoir(answer: Answer) -> ReservoirAnswer:
    asked = answer.questions.reservoir
    assert asked is not None
    wear: dict[str, float] = {}
    for station in (s for system in answer.setup.systems for s in system.stations):
        brake = station.brake
        if isinstance(brake, DiscBrake) and brake.pistons_mm:
            area = side_area([si(d, "pistons_mm") for d in brake.pistons_mm])
            wear[station.name] = (
                float(stops.wear_volume(area, si(asked.wear_mm, "wear_mm"), brake.calipers, station.wheels)) * 1e6
            )
    return {"wear_cm3": wear, "least_reservoir_cm3": assumed("reservoir.reserve") * sum(wear.values())}


def _cg_height(answer: Answer) -> CgHeightAnswer:
    asked = answer.questions.cg_height
    assert asked is not None
    wheelbase = answer.setup.vehicle.wheelbase_mm
    if wheelbase is None:
        raise Impossible("the height", "it still needs vehicle.wheelbase_mm")
    base, lift = si(wheelbase, "wheelbase_mm"), si(asked.lift_mm, "lift_mm")
    if lift >= base:
        raise Impossible("the height", "the axle cannot be lifted by the whole wheelbase")
    sizes = si(asked.total_kg, "total_kg"), si(asked.gain_kg, "gain_kg"), lift, si(asked.wheel_centre_mm, "wheel_centre_mm")
    return {"cg_height_mm": float(height_by_lifting(base, *sizes)) * MM}


def _nose_over(answer: Answer) -> NoseOverAnswer:
    asked = answer.questions.nose_over
    assert asked is not None
    return {"nose_over_g": stops.nose_over(si(asked.behind_mm, "behind_mm"), si(asked.height_mm, "height_mm"))}


def _working(answer: Answer, solved_setup: SolvedSetup, asked: Working) -> WorkingAnswer:
    load, path = where(answer, solved_setup, asked)
    solved = path.healthy
    if asked.pedal_force_n is not None:
        place = solved.place_at(si(asked.pedal_force_n, "pedal_force_n"))
    else:
        place, known = solved.reach(si(asked.decel_g or 0.0, "decel_g"))
        if not pick(known, load, 0, 0):
            raise Impossible(f"a stop of {asked.decel_g} g", "the brakes never give it")
    steps = working(solved, place, load)
    return {"steps": [step_document(s) for s in steps]}


def changed(part: Any, path: list[str], value: Any) -> Any:
    """A copy of a model `part` with the entry at a dotted `path` replaced; what is drawn is not validated again."""
    if not path:
        return value
    name, rest = path[0], path[1:]
    if isinstance(part, list):
        return [changed(p, rest, value) if i == int(name) else p for i, p in enumerate(part)]
    return part.model_copy(update={name: changed(getattr(part, name), rest, value)})


def _typed_at(setup: Setup, path: str) -> Any:
    part: Any = setup
    try:
        for name in path.split("."):
            part = part[int(name)] if isinstance(part, list) else getattr(part, name)
    except (AttributeError, IndexError, ValueError):
        raise BadEntry("plus_minus", repr(path), "a dotted path to a figure of the setup") from None
    if part is None or isinstance(part, bool) or not isinstance(part, int | float | str):
        raise BadEntry("plus_minus", repr(path), "a path to a figure that the setup states")
    return part


def _field(path: str) -> str:
    """The field whose unit a path's figure has: the last name that is no number and no friction state."""
    names = [n for n in path.split(".") if not n.isdigit() and n not in ("cold", "hot", "wet")]
    return names[-1]


def _effort(setup: Setup, answer: Answer, asked: Tolerance, path_name: str) -> tuple[Pull, Any, Any, Any, Load]:
    """Push, its place and whether it is reached for a setup whose entries may be trials (N, 1, 1, 1)."""
    converted = convert(setup)
    assert converted.load is not None
    solved_setup = answer.solved
    assert solved_setup is not None
    ratios = {p.system.name: p.ratio for p in solved_setup.paths[path_name].healthy.pulls}
    systems = [(settle(s, converted.load), ratios[s.name]) for s in converted.systems if s.name in ratios]
    own = settle_decel(systems, converted.load, converted.wheels)
    solved = solve_path(path_name, [(s, r) for s, (_, r) in zip(own, systems, strict=True)], converted.load, converted.wheels)
    place, known = solved.reach(si(asked.decel_g, "decel_g"))
    return solved.pulls[0], solved, place, known, converted.load


def _column(values: Any, load: int, samples: int) -> Any:
    """Trials of one load state (N,) from figures (N or 1, L or 1, 1, 1)."""
    array = np.asarray(values, dtype=np.float64)
    array = array.reshape((1,) * (4 - array.ndim) + array.shape)
    array = array[:, min(load, array.shape[1] - 1), 0, 0]
    return np.broadcast_to(array, (samples,))


def _tolerance(answer: Answer, solved_setup: SolvedSetup, asked: Tolerance) -> ToleranceAnswer:
    load, path = where(answer, solved_setup, asked)
    name = next(n for n, p in solved_setup.paths.items() if p is path)
    nominal = {p: value_of(_typed_at(answer.setup, p), _field(p)) for p in asked.plus_minus}
    widths = {p: value_of(str(w).lstrip("±+- ") if isinstance(w, str) else w, _field(p)) for p, w in asked.plus_minus.items()}
    drawn = uncertainty.draws(nominal, widths, asked.samples, asked.seed, asked.shape)
    setup: Any = answer.setup
    for p, values in drawn.items():
        setup = changed(setup, p.split("."), values[:, None, None, None])
    pull, solved, place, known, _ = _effort(setup, answer, asked, name)
    n = asked.samples
    reached = _column(known, load, n) > 0.0
    if not reached.any():
        raise Impossible(f"the effort for {asked.decel_g} g", "the brakes never give that stop")
    pushes = _column(solved.push_at(place), load, n)
    figures = pushes[reached]
    spread = uncertainty.spread(figures)
    doc: ToleranceAnswer = {"p5_n": spread.p5, "p50_n": spread.p50, "p95_n": spread.p95, "sd_n": spread.sd}
    slopes = {p: _slope(answer, asked, name, load, p, nominal[p], widths[p]) for p in nominal}
    deviations = {p: uncertainty.standard_deviation(w, asked.shape) for p, w in widths.items()}
    doc["first_order_sd_n"] = sensitivity.first_order(slopes, deviations)
    doc["rank"] = {p: sensitivity.rank(drawn[p][reached], figures) for p in nominal}
    event = solved.event
    rear = _column((event.rear & ~event.front)[..., None], load, n)
    doc["rear_first_probability"] = float(np.mean(rear))
    if asked.effort_limit_n is not None:
        over = ~reached | (pushes > si(asked.effort_limit_n, "effort_limit_n"))
        doc["effort_over_limit_probability"] = float(np.mean(over))
    if asked.travel_limit_mm is not None and pull.pedal.travel is not None:
        pads = _column(pull.pedal.pad_at(pull.place(place)), load, n)
        doc["travel_over_limit_probability"] = float(np.mean(~reached | (pads > si(asked.travel_limit_mm, "travel_limit_mm"))))
    if not reached.all():
        doc["never_reached_probability"] = float(np.mean(~reached))
    return doc


def _slope(answer: Answer, asked: Tolerance, name: str, load: int, path: str, nominal: float, width: float) -> float:
    """Central difference of the effort over one entry, in the entry's unit."""
    step = _SLOPE_STEP * width if width > 0.0 else 1.0
    ends = np.array([nominal - step, nominal + step])[:, None, None, None]
    _, solved, place, known, _ = _effort(changed(answer.setup, path.split("."), ends), answer, asked, name)
    if not np.all(_column(known, load, 2)):
        return 0.0
    low, high = _column(solved.push_at(place), load, 2)
    return float(high - low) / (2.0 * step)


def answers_document(answer: Answer) -> Answers:
    """Every answer asked for besides, {question: document}; null figures carry their reason."""
    asked, solved = answer.questions, answer.solved
    doc: Answers = {}
    if solved is not None:
        if asked.inverse is not None:
            doc["inverse"] = _inverse(answer, solved, asked.inverse)
        if asked.trapped_air is not None:
            doc["trapped_air"] = or_reason(("trapped_air_cm3",), partial(_trapped, answer, solved))
        if asked.heat is not None:
            doc["heat"] = or_reason(("peaks_c",), partial(rotor_heat, answer, solved, asked.heat))
        if asked.parking is not None:
            doc["parking"] = _parking(answer, solved)
        if asked.working is not None:
            doc["working"] = or_reason(("steps",), partial(_working, answer, solved, asked.working))
        if asked.tolerance is not None:
            doc["tolerance"] = or_reason(("p50_n",), partial(_tolerance, answer, solved, asked.tolerance))
    if asked.stop is not None:
        doc["stop"] = _stop(answer)
    if asked.mfdd is not None:
        doc["mfdd"] = _mfdd(answer)
    if asked.nominal is not None:
        doc["nominal"] = or_reason(("distance_m",), partial(_nominal, answer))
    if asked.reservoir is not None:
        doc["reservoir"] = _reservoir(answer)
    if asked.cg_height is not None:
        doc["cg_height"] = or_reason(("cg_height_mm",), partial(_cg_height, answer))
    if asked.nose_over is not None:
        doc["nose_over"] = _nose_over(answer)
    return doc


def evaluate(setup: Setup, questions: Questions | None = None) -> Result:
    """The result file of a `setup`: what is asked, what is always answered, and what each answer still needs."""
    return whole_document(Answer(setup, questions))


def whole_document(answer: Answer) -> Result:
    """The result file of an `answer`, with all that was asked besides."""
    doc = result_document(answer)
    own = answers_document(answer)
    if own:
        doc["answers"] = own
    return doc

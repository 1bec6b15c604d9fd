"""Rotor heat of a setup: a series of slow-downs as asked, and the row of stops that setups are compared by."""

from functools import partial

from kobrix.core.constants import G
from kobrix.core.errors import Impossible
from kobrix.core.physics import heat
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.vehicle import one_state
from kobrix.evaluate.answer_shapes import RotorHeat
from kobrix.evaluate.of_one import or_reason, station_named, where
from kobrix.evaluate.solve import Answer, pick
from kobrix.fileformat.files import check
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import JsonObject
from kobrix.fileformat.quantities import label_of, si
from kobrix.fileformat.questions import Heat
from kobrix.fileformat.stations import DiscBrake


def rotor_of(brake: DiscBrake) -> heat.Rotor | None:
    """The core's rotor of a `brake`; None where its mass or its cooling area is not known."""
    if brake.rotor_mass_kg is None or brake.rotor_cooling_area_cm2 is None:
        return None
    mass, area = si(brake.rotor_mass_kg, "rotor_mass_kg"), si(brake.rotor_cooling_area_cm2, "rotor_cooling_area_cm2")
    return heat.Rotor(mass, area, bool(brake.rotor_vented))


def rotors_on(setup: Setup, axle: str) -> int:
    """How many rotors and drums share the heat of an `axle`."""
    same = [s for system in setup.systems for s in system.stations if s.axle == axle]
    return sum(s.wheels * (s.brake.rotors_per_wheel if isinstance(s.brake, DiscBrake) else 1) for s in same)


def rotor_heat(answer: Answer, solved_setup: SolvedSetup, asked: Heat) -> RotorHeat:
    """A series of slow-downs as asked. Raises Impossible with what it still needs."""
    load, path = where(answer, solved_setup, asked)
    part = station_named(answer, asked.station)
    brake = part.brake
    if not isinstance(brake, DiscBrake):
        raise Impossible("heat", "rotor heat is worked out for discs only")
    lacking = [n for n in ("rotor_mass_kg", "rotor_cooling_area_cm2") if getattr(brake, n) is None]
    at = path.healthy.at(path.design)
    front, rear = pick(at.front, load, 0, 0), pick(at.rear, load, 0, 0)
    if lacking or not pick(path.design_known, load) or front + rear <= 0.0:
        raise Impossible(
            "heat", "it still needs " + ", ".join([label_of(n) for n in lacking] or ["brakes that give the design stop"])
        )
    share = (front if part.axle == "front" else rear) / (front + rear)
    rotors = rotors_on(answer.setup, part.axle)
    first, last = si(asked.speed_from_kmh, "speed_from_kmh"), si(asked.speed_to_kmh, "speed_to_kmh")
    own_load = one_state(solved_setup.load, load)
    energy = float(heat.stop_energy(own_load.mass, own_load.rotating, first, last, own_load.trailer.drag))
    own = float(heat.rotor_energy(energy, share, rotors))
    rotor = rotor_of(brake)
    assert rotor is not None
    air = si(asked.ambient_c, "ambient_c")
    start = air if asked.start_c is None else si(asked.start_c, "start_c")
    time = (first - last) / (pick(path.design_decel, load) * G)
    pause, pause_speed = si(asked.cooling_time_s, "cooling_time_s"), si(asked.cooling_speed_kmh, "cooling_speed_kmh")
    steps = [heat.Step(first, last, own, time, pause, pause_speed)] * asked.stops
    starts, peaks, cooled = heat.series(rotor, start, air, steps)
    fluid = next(s.fluid for s in answer.setup.systems if any(x.name == part.name for x in s.stations))
    estimate, boiling = float(heat.fluid_estimate(max(map(float, peaks)), air)), heat.wet_boiling(fluid)
    doc: RotorHeat = {
        "stop_energy_j": energy, "axle_share": share, "rotor_energy_j": own,
        "single_stop_rise_k": float(heat.rise(own, rotor.mass)),
        "starts_c": [float(t) for t in starts], "peaks_c": [float(t) for t in peaks], "last_cooled_c": float(cooled),
        "fluid_estimate_c": estimate, "wet_boiling_c": boiling, "fluid_margin_k": boiling - estimate,
    }  # fmt: skip
    if asked.friction_curve:
        points = [(si(p.temperature_c, "temperature_c"), si(p.friction, "friction")) for p in asked.friction_curve]
        doc["friction_at_start"] = [float(heat.friction_at(t, points)) for t in starts]
    return doc


def heat_of_all(setup: Setup, asked: JsonObject) -> dict[str, RotorHeat]:
    """A series of slow-downs {question's own keys} for every disc of a `setup`: {station: heat, null with the reason}.

    Raises BadFile for a question that cannot be read.
    """
    answer = Answer(setup)
    found: dict[str, RotorHeat] = {}
    for station in (s for system in setup.systems for s in system.stations):
        question = check(Heat, {**asked, "station": station.name})
        if answer.solved is None:
            found[station.name] = {"peaks_c": None, "reason": "it still needs " + ", ".join(answer.needs["decel"])}
        else:
            found[station.name] = or_reason(("peaks_c",), partial(rotor_heat, answer, answer.solved, question))
    return found


# The row of stops that setups are compared by, and pads and fluid judged: our estimate of a hard road.
ROW = {
    "speed_from_kmh": 100, "speed_to_kmh": 0, "ambient_c": 20, "start_c": 80, "stops": 10, "cooling_speed_kmh": 80, "cooling_time_s": 30,
}  # fmt: skip


class PeakOverAir(RotorHeat):
    """A rotor's heat with the air it is told above."""

    air_c: float


def row_of_stops(answer: Answer) -> dict[str, PeakOverAir]:
    """What every disc of a complete `answer` whose mass and cooling area are known reaches in the row of stops {station: heat}."""
    found: dict[str, PeakOverAir] = {}
    if answer.solved is None:
        return found
    for station in (s for system in answer.setup.systems for s in system.stations):
        brake = station.brake
        if isinstance(brake, DiscBrake) and rotor_of(brake) is not None:
            question = Heat.model_validate({**ROW, "station": station.name})
            heat = or_reason(("peaks_c",), partial(rotor_heat, answer, answer.solved, question))
            found[station.name] = {**heat, "air_c": float(ROW["ambient_c"])}
    return found

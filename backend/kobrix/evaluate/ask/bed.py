"""bed_recipe: rotor temperatures, road and time of a bedding recipe typed from the pad's sheet."""

from dataclasses import dataclass
from typing import Literal, TypedDict

import numpy as np

from kobrix.core.constants import KMH, G
from kobrix.core.figures import Level
from kobrix.core.physics import heat
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.vehicle import Load
from kobrix.evaluate.ask.subject import Subject
from kobrix.evaluate.rotor_heat import rotor_of, rotors_on
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.stations import DiscBrake

MOST = 1000  # slow-downs of a stage


class DiscSlowed(TypedDict):
    """A rotor in one slow-down [°C, J]."""

    start_c: float
    peak_c: float
    end_c: float
    rotor_energy_j: float


class SlowedDown(TypedDict):
    """A slow-down: its stage, its number, when it starts and where it ends, the vehicle's energy, and each station's rotor."""

    stage: int
    number: int
    starts_at_s: float
    ends_at_m: float
    energy_j: float
    stations: dict[str, DiscSlowed | None]


class DiscBedded(TypedDict):
    """A rotor over the whole recipe [°C, J, s]: how hot, how long it cools (None: never), and how many peaks lie in the pad's window."""

    peak_c: float
    after_last_c: float
    after_cooling_c: float
    rotor_energy_j: float
    cool_to_s: float | None
    fluid_estimate_c: float
    in_window: int | None


class BedCaution(TypedDict):
    """What to heed of a recipe, of a station or of the whole."""

    id: Literal["full_stop", "above_most", "above_window", "below_window", "fluid_hot", "no_room"]
    level: Level
    station: str | None


class RecipeAnswer(TypedDict):
    """bed_recipe: the slow-downs, each station over the whole, road [m] and time [s], whether it fits, and what to heed."""

    slow_downs: list[SlowedDown]
    stations: dict[str, DiscBedded | None]
    energy_j: float
    needed_m: float
    whole_m: float
    whole_s: float
    fits: bool | None
    slow_downs_that_fit: int | None
    cautions: list[BedCaution]


@dataclass(frozen=True)
class Disc:
    """A disc that is followed: its station, axle, rotor and how many of its axle's rotors share the heat."""

    name: str
    axle: str
    rotor: heat.Rotor
    rotors: int
    fluid: str


@dataclass(frozen=True)
class SlowDown:
    """One slow-down and the pause after it: stage, speeds [m/s], deceleration [g], pause [s] at a speed [m/s]."""

    stage: int
    first: float
    last: float
    decel: float
    pause: float
    pause_speed: float

    @property
    def time(self) -> float:
        """How long it takes [s]."""
        return (self.first - self.last) / (self.decel * G)

    @property
    def way(self) -> float:
        """How far it goes [m]."""
        return (self.first**2 - self.last**2) / (2 * self.decel * G)


def _slow_downs(asked: Asked) -> tuple[list[SlowDown], list[Asked]]:
    found, stages = [], asked.parts("stages")
    for n, row in enumerate(stages):
        first, last = row.number("from_kmh") * KMH, row.number("to_kmh", "zero") * KMH
        if last >= first:
            raise row.bad("to_kmh", "it is not below the speed it is from.")
        count, decel = row.count("count", least=1), row.number("decel_g")
        if count > MOST:
            raise row.bad("count", f"{count} was given; at most {MOST} are followed.")
        pause_speed = row.number("cooling_speed_kmh") * KMH if row.given("cooling_speed_kmh") else (first + last) / 2
        if row.given("gap_s") or not row.given("gap_m"):
            gap = row.number("gap_s", "zero")
        else:
            gap = row.number("gap_m", "zero") / pause_speed
        for k in range(count):
            pause, speed = gap, pause_speed
            if k == count - 1 and row.given("cool_s"):
                pause = row.number("cool_s", "zero")
                speed = row.number("cool_kmh", "zero") * KMH if row.given("cool_kmh") else pause_speed
            found.append(SlowDown(n, first, last, decel, pause, speed))
    return found, stages


def _discs(subject: Subject) -> dict[str, Disc | None]:
    found: dict[str, Disc | None] = {}
    for system in subject.setup.systems:
        for part in system.stations:
            brake = part.brake
            found[part.name] = None
            rotor = rotor_of(brake) if isinstance(brake, DiscBrake) else None
            if rotor is not None:
                found[part.name] = Disc(part.name, part.axle, rotor, rotors_on(subject.setup, part.axle), system.fluid)
    return found


def _shares(subject: Subject, stages: list[Asked]) -> list[dict[str, float]]:
    """Each axle's share of the brake forces at each stage's deceleration."""
    found = []
    for row in stages:
        place, known = subject.path.healthy.reach(row.number("decel_g"))
        if not subject.one(known):
            raise row.bad("decel_g", "the brakes never give it.")
        at = subject.path.healthy.at(place)
        front, rear = subject.one(at.front), subject.one(at.rear)
        found.append({"front": front / (front + rear), "rear": rear / (front + rear)})
    return found


def _load(solved: SolvedSetup, subject: Subject) -> tuple[float, float, float]:
    load: Load = solved.load
    return subject.one(load.mass), subject.one(load.rotating), subject.one(load.trailer.drag)


@dataclass
class Followed:
    """What one disc went through: temperatures [°C] and energies [J]."""

    starts: list[float]
    peaks: list[float]
    ends: list[float]
    energies: list[float]
    cooled: float


def _follow(disc: Disc, slow: list[SlowDown], shares: list[dict[str, float]], body: tuple[float, float, float],
            start: float, air: float) -> Followed:  # fmt: skip
    out, now = Followed([], [], [], [], start), start
    for one in slow:
        whole = float(heat.stop_energy(body[0], body[1], one.first, one.last, body[2]))
        energy = float(heat.rotor_energy(whole, shares[one.stage][disc.axle], disc.rotors))
        braking = heat.Step(one.first, one.last, energy, one.time, 0.0, one.pause_speed)
        out.starts.append(now)
        _, peaks, end = heat.series(disc.rotor, now, air, [braking])
        out.peaks.append(float(peaks[0]))
        out.ends.append(float(end))
        out.energies.append(energy)
        now = float(heat.cooled(disc.rotor, float(end), air, one.pause, one.pause_speed)) if one.pause > 0 else float(end)
    out.cooled = now
    return out


def _cautions(slow: list[SlowDown], discs: dict[str, Disc | None], known: dict[str, Followed], pads: dict[str, Asked], air: float,
              fits: bool | None) -> list[BedCaution]:  # fmt: skip
    found: list[BedCaution] = []
    if any(one.last == 0 for one in slow):
        found.append({"id": "full_stop", "level": "caution", "station": None})
    for name, own in known.items():
        disc, pad, peak = discs[name], pads.get(name), max(own.peaks)
        if pad is not None:
            most, high, low = (pad.maybe(key, "any") for key in ("most_c", "window_high_c", "window_low_c"))
            if most is not None and peak > most + 1e-9:
                found.append({"id": "above_most", "level": "danger", "station": name})
            elif high is not None and peak > high + 1e-9:
                found.append({"id": "above_window", "level": "caution", "station": name})
            elif low is not None and peak < low - 1e-9:
                found.append({"id": "below_window", "level": "note", "station": name})
        assert disc is not None
        margin = heat.wet_boiling(disc.fluid) - float(heat.fluid_estimate(peak, air))
        if margin < 30 - 1e-9:
            found.append({"id": "fluid_hot", "level": "danger" if margin < -1e-9 else "caution", "station": name})
    if fits is False:
        found.append({"id": "no_room", "level": "caution", "station": None})
    return found


def recipe(asked: Asked) -> RecipeAnswer:
    """bed_recipe: what each disc goes through, the road and the time it takes."""
    subject = Subject(asked)
    slow, stages = _slow_downs(asked)
    air = asked.default("ambient_c", 20.0, "any")
    start, cool_to = asked.default("start_c", air, "any"), asked.default("cool_to_c", 100.0, "any")
    discs = _discs(subject)
    group = asked.part_or_empty("pads").known(discs)
    pads = {name: group.part(name) for name in group.value if group.given(name)}
    shares, body = _shares(subject, stages), _load(subject.solved, subject)
    known = {name: _follow(disc, slow, shares, body, start, air) for name, disc in discs.items() if disc is not None}
    rows: list[SlowedDown] = []
    clock = way = needed = 0.0
    energies, ends = [], []
    counts: dict[int, int] = {}
    for k, one in enumerate(slow):
        energy = float(heat.stop_energy(body[0], body[1], one.first, one.last, body[2]))
        counts[one.stage] = counts.get(one.stage, 0) + 1
        at, needed = clock, way + one.way
        rows.append({
            "stage": one.stage, "number": k + 1, "starts_at_s": at, "ends_at_m": needed, "energy_j": energy,
            "stations": {
                name: None if name not in known else {
                    "start_c": known[name].starts[k], "peak_c": known[name].peaks[k], "end_c": known[name].ends[k],
                    "rotor_energy_j": known[name].energies[k],
                } for name in discs
            },
        })  # fmt: skip
        energies.append(energy)
        ends.append(needed)
        clock, way = at + one.time + one.pause, needed + one.pause * one.pause_speed
    road = asked.maybe("road_m")
    fit = None if road is None else int(np.sum(np.array(ends) <= road + 1e-9))
    last = slow[-1]
    stations: dict[str, DiscBedded | None] = {}
    for name, disc in discs.items():
        if disc is None:
            stations[name] = None
            continue
        own, pad = known[name], pads.get(name)
        peak, after = max(own.peaks), own.ends[-1]
        inside = None
        if pad is not None and pad.given("window_low_c") and pad.given("window_high_c"):
            low, high = pad.number("window_low_c", "any"), pad.number("window_high_c", "any")
            inside = sum(1 for p in own.peaks if low - 1e-9 <= p <= high + 1e-9)
        stations[name] = {
            "peak_c": peak, "after_last_c": after, "after_cooling_c": own.cooled, "rotor_energy_j": sum(own.energies),
            "cool_to_s": heat.time_to_cool(disc.rotor, after, air, cool_to, last.pause_speed),
            "fluid_estimate_c": float(heat.fluid_estimate(peak, air)), "in_window": inside,
        }  # fmt: skip
    fits = None if fit is None else fit == len(slow)
    return {
        "slow_downs": rows, "stations": stations, "energy_j": sum(energies), "needed_m": needed, "whole_m": way, "whole_s": clock,
        "fits": fits, "slow_downs_that_fit": fit, "cautions": _cautions(slow, discs, known, pads, air, fits),
    }  # fmt: skip

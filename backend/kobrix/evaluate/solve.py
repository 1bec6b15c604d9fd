"""A setup of the file solved by the core: on every control path, in every load state, healthy and with every failure."""

from functools import lru_cache
from typing import Any, Generic, TypeVar

import numpy as np
from pydantic import BaseModel

from kobrix.core.constants import ASSUMED
from kobrix.core.errors import BadEntry
from kobrix.core.numerics.arrays import Number
from kobrix.core.physics import chain, disc, valves
from kobrix.core.physics.failures import HEALTH as HEALTHY
from kobrix.core.physics.failures import Failing, Room
from kobrix.core.physics.paths import circuits_pressed
from kobrix.core.physics.solved_setup import DESIGN_SHARE, Asked, SolvedSetup, solve
from kobrix.core.rules import limits
from kobrix.core.rules.limits import Facts
from kobrix.evaluate.shapes import Needs
from kobrix.evaluate.to_core import Converted, convert
from kobrix.fileformat.models import Setup, controls_of
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.questions import HEALTH, NONE, Failure, Questions
from kobrix.fileformat.stations import DiscBrake, DrumBrake, ShoeFactor

FOOT_SHARE = ASSUMED["motorcycle.foot_share"].value


def rooms_of(setup: Setup, systems: tuple[chain.System, ...], questions: Questions) -> dict[str, Room]:
    """What each control has: the most that is asked of a person on it, and its travel."""
    rooms = {}
    for part, system in zip(controls_of(setup.systems), systems, strict=True):
        if questions.force_limit_n is not None:
            force = si(questions.force_limit_n, "force_limit_n")
        elif part.control.force_limit_n is not None:
            force = si(part.control.force_limit_n, "force_limit_n")
        else:
            force = limits.force_limit(part.control.kind, setup.vehicle.kind)
        rooms[system.name] = Room(force, system.control.available)
    return rooms


def control_paths_of(setup: Setup, questions: Questions) -> dict[str, dict[str, float]]:
    """Control paths {name: {system: force ratio}}: each control alone, those asked for, and all together last.

    Raises BadEntry for an unknown system.
    """
    names = [c.name for c in controls_of(setup.systems)]
    for way in questions.control_paths:
        unknown = [n for n in way.ratio if n not in names]
        if unknown or not any(way.ratio.values()):
            raise BadEntry(
                f"control path {way.name}", ", ".join(unknown) or "no force", "a force on one or more of " + ", ".join(names)
            )
    asked = {way.name: way.ratio for way in questions.control_paths}
    if len(names) == 1:
        return {**asked, names[0]: {names[0]: 1.0}}
    foot = FOOT_SHARE if setup.vehicle.kind == "motorcycle" else 1.0
    together = {c.name: foot if c.control.kind == "motorcycle_foot" else 1.0 for c in controls_of(setup.systems)}
    stated = setup.vehicle.force_ratio or {}
    unknown = [n for n in stated if n not in names]
    if unknown:
        raise BadEntry("vehicle.force_ratio", ", ".join(unknown), "a share for one or more of " + ", ".join(names))
    together |= {name: value_of(share, "force_ratio") for name, share in stated.items()}
    alone = {f"{name}_alone": {name: 1.0} for name in names}
    return {**alone, **{n: r for n, r in asked.items() if n != "together"}, "together": asked.get("together", together)}


@lru_cache(maxsize=256)
def _own(**parts: Any) -> Failure:
    """A failure that is asked of every setup: our own, so there is nothing to validate."""
    return Failure.model_construct(**parts)


def _always(systems: tuple[chain.System, ...]) -> list[Failure]:
    several = len(systems) > 1
    owners = {s.owner for system in systems for s in system.stations}
    found: list[Failure] = []
    for system in systems:
        before = f"{system.name}_" if several else ""
        if system.booster is not None:
            found.append(_own(name=f"{before}lost_booster", system=system.name, lost_booster=True))
        found += [_own(name=f"{before}lost_{c.name}", system=system.name, lost=c.name) for c in system.cylinder.chambers]
        if system.name in owners:
            found.append(_own(name=f"{before}lost_upstream", system=system.name, lost_upstream=True))
    found += [_own(name="hot", friction="hot"), _own(name="wet", friction="wet")]
    for station in (s for system in systems for s in system.stations if s.owner is None):
        if any(valves.changes_pressure(d) for d in station.devices):
            found.append(_own(name=f"{station.name}_valves_shut", shut=(station.name,)))
            found.append(_own(name=f"{station.name}_valves_open", open=(station.name,)))
    return found


def failures_of(systems: tuple[chain.System, ...], asked: list[Failure]) -> list[Failure]:
    """Health, the failures that are asked of every setup of `systems`, then those `asked`. Raises BadEntry for unknown names."""
    names = [s.name for s in systems]
    stations = [s.name for system in systems for s in system.stations if s.owner is None]
    for failure in asked:
        if failure.system is not None and failure.system not in names:
            raise BadEntry(f"failure {failure.name}", f"system {failure.system!r}", " or ".join(names))
        own = [s for s in systems if failure.system in (None, s.name)]
        circuits = [c.name for s in own for c in s.cylinder.chambers]
        if failure.lost is not None and failure.lost not in circuits:
            raise BadEntry(f"failure {failure.name}", f"circuit {failure.lost!r}", " or ".join(circuits))
        for name in (*failure.shut, *failure.open, *(a.station for a in failure.air)):
            if name not in stations:
                raise BadEntry(f"failure {failure.name}", f"station {name!r}", " or ".join(stations))
    return [HEALTH, *_always(systems), *asked]


def dry_circuits(failure: Failure, systems: tuple[chain.System, ...]) -> frozenset[tuple[str, str]]:
    """The circuits (control, circuit) that a `failure` leaves without fluid: what hangs downstream of a leak goes with it.

    A second control sits at the wheel's side of its system's own cylinder. A circuit lost takes the second controls that press into
    it; a second control's own lost takes the circuits it presses into; what is lost upstream of them takes nothing of theirs.
    """
    if failure.lost is None and not failure.lost_upstream:
        return frozenset()
    pressed = circuits_pressed(systems)
    owner_of = {s.name: next((x.owner for x in s.stations if x.owner is not None), None) for s in systems}
    dry: set[tuple[str, str]] = set()
    for system in (s for s in systems if failure.system in (None, s.name)):
        owner = owner_of[system.name]
        seconds = [name for name, own in owner_of.items() if own == system.name]
        if failure.lost_upstream:
            dry |= {(system.name, circuit) for name in seconds for circuit in pressed[name]}
        elif any(c.name == failure.lost for c in system.cylinder.chambers):
            dry.add((system.name, str(failure.lost)))
            if owner is not None:
                dry |= {(owner, circuit) for circuit in pressed[system.name]}
            dry |= {(name, "circuit") for name in seconds if failure.lost in pressed[name]}
    return frozenset(dry)


def _condition(
    system: chain.System, failures: list[Failure], dry: list[frozenset[tuple[str, str]]], converted: Converted
) -> chain.Condition:
    def column(values: list[float]) -> Number:
        return np.array(values, dtype=np.float64)[:, None]

    def mask(values: list[bool]) -> np.ndarray[tuple[int, ...], np.dtype[np.bool_]]:
        return np.array(values, dtype=bool)[:, None]

    def here(failure: Failure) -> bool:
        return failure.system in (None, system.name)

    stations = system.stations
    rubs = converted.friction
    return chain.Condition(
        booster_lost=mask([f.lost_booster and here(f) for f in failures]),
        alive={c.name: column([0.0 if (system.name, c.name) in own else 1.0 for own in dry]) for c in system.cylinder.chambers},
        friction={s.name: chain.along_failures([rubs[f.friction][system.name][s.name] for f in failures]) for s in stations},
        shut={s.name: mask([s.name in f.shut for f in failures]) for s in stations},
        open={s.name: mask([s.name in f.open for f in failures]) for s in stations},
    )


def failing_of(failure: Failure, systems: tuple[chain.System, ...]) -> Failing:
    """The core's record of a `failure` of the file; with several controls it says whose a loss is, and what it takes from whom."""
    if failure is HEALTH:
        return HEALTHY
    several = len(systems) > 1
    controls = None
    if failure.lost is not None or failure.lost_upstream:
        controls = frozenset(name for name, _ in dry_circuits(failure, systems))
    elif failure.lost_booster:
        controls = frozenset(s.name for s in systems if failure.system in (None, s.name))
    named = frozenset([*failure.shut, *failure.open, *(a.station for a in failure.air)])
    return Failing(failure.name, failure.kind, failure.system if several else None, failure.what, controls, named or None)


def as_asked(systems: tuple[chain.System, ...], failures: list[Failure], converted: Converted, rooms: dict[str, Room]) -> Asked:
    """`failures` of `systems` side by side along an axis (C, 1), so that one solution answers all; `rooms` of the controls."""

    def air_in(failure: Failure, station: chain.Station) -> Number:
        own: Number = station.lines.air if station.lines is not None else 0.0
        return own + sum(si(a.volume_cm3, "volume_cm3") for a in failure.air if a.station == station.name)

    dry = [dry_circuits(f, systems) for f in failures]
    conditions = tuple(_condition(system, failures, dry, converted) for system in systems)
    air: dict[str, dict[str, Number]] = {}
    for system in systems:
        air[system.name] = {s.name: chain.along_failures([air_in(f, s) for f in failures]) for s in system.stations}
    return Asked(tuple(failing_of(f, systems) for f in failures), conditions, air, rooms)


class Answer:
    """A setup converted and solved, ready to be written; `solved_setup` is None when something is missing."""

    def __init__(self, setup: Setup, questions: Questions | None = None) -> None:
        self.setup, self.questions = setup, questions or NONE
        self.converted: Converted = convert(setup)
        self.solved: SolvedSetup | None = None
        self.failures: list[Failure] = []
        self.rooms: dict[str, Room] = {}
        systems, load = self.converted.systems, self.converted.load
        if systems and load is not None:
            self.failures = failures_of(systems, self.questions.failures)
            self.rooms = rooms_of(setup, systems, self.questions)
            asked = as_asked(systems, self.failures, self.converted, self.rooms)
            self.solved = solve(systems, load, self.converted.wheels, control_paths_of(setup, self.questions), asked)

    @property
    def needs(self) -> Needs:
        """What is missing for which answer: dotted paths."""
        gaps = self.converted.gaps
        found: Needs = {}
        if gaps.decel:
            found["decel"] = gaps.decel
        if gaps.decel or gaps.travel:
            found["travel"] = gaps.decel + gaps.travel
        return found


def facts_of(answer: Answer) -> Facts:
    """What the file says of parts that no formula needs, for the judgements."""
    retained: dict[str, bool] = {}
    vehicle = answer.setup.vehicle
    found = Facts(
        vehicle.kind,
        tuple(s.trailer is not None for s in vehicle.load_states),
        vehicle.force_ratio is not None,
        retained=retained,
    )
    for system in answer.setup.systems:
        found.fluids[system.name] = system.fluid
        if system.fluid_most_c is not None:
            found.fluid_most[system.name] = si(system.fluid_most_c, "fluid_most_c")
        if system.control.rod_retained is not None:
            retained[system.name] = system.control.rod_retained
        if system.control.force_limit_n is not None:
            found.force_limits[system.name] = si(system.control.force_limit_n, "force_limit_n")
        if system.cylinder.height_above_brakes_mm is not None:
            found.heights[system.name] = si(system.cylinder.height_above_brakes_mm, "height_above_brakes_mm")
        found.reservoirs.update({c: si(v, "reservoir_cm3") for c, v in (system.cylinder.reservoir_cm3 or {}).items()})
        for station in system.stations:
            ages = [
                si(h.age_years, "age_years") for h in (station.lines.hoses if station.lines else []) if h.age_years is not None
            ]
            if ages:
                found.hose_years[station.name] = max(ages)
            gives = [
                si(h.coefficient_cm3_per_m_mpa, "coefficient_cm3_per_m_mpa")
                for h in (station.lines.hoses if station.lines else []) if h.coefficient_cm3_per_m_mpa is not None
            ]  # fmt: skip
            if gives:
                found.hose_gives[station.name] = max(gives)
            brake = station.brake
            given = brake.c_star if isinstance(brake, DrumBrake) and isinstance(brake.c_star, ShoeFactor) else brake.friction
            found.given[station.name] = frozenset(s for s in ("hot", "wet") if getattr(given, s, None) is not None)
            if isinstance(brake, DrumBrake) and brake.cup_expanders is not None:
                found.cup_expanders[station.name] = brake.cup_expanders
            if isinstance(brake, DiscBrake) and brake.pad_most_c is not None:
                found.pad_most[station.name] = si(brake.pad_most_c, "pad_most_c")
            if isinstance(brake, DiscBrake) and brake.rotor_thickness_mm is not None:
                least = brake.rotor_least_thickness_mm
                found.rotors[station.name] = (
                    si(brake.rotor_thickness_mm, "rotor_thickness_mm"), None if least is None else si(least, "rotor_least_thickness_mm")
                )  # fmt: skip
            if isinstance(brake, DiscBrake) and brake.pad_wear_mm is not None and brake.pistons_mm:
                area = float(disc.side_area([si(d, "pistons_mm") for d in brake.pistons_mm]))
                found.wear[station.name] = 2.0 * area * brake.calipers * station.wheels * si(brake.pad_wear_mm, "pad_wear_mm")
    return found


def pick(values: Any, *index: int) -> Any:
    """One figure of an array whose leading axes may have length 1, as a plain number."""
    array = np.asarray(values)
    place = tuple(0 if size == 1 else i for i, size in zip(index[-array.ndim :] if array.ndim else (), array.shape, strict=True))
    return array[place].item()


Part = TypeVar("Part", bound=BaseModel)


class ByContent(Generic[Part]):
    """A setup or a job by what stands in it: two with the same are one."""

    def __init__(self, part: Part) -> None:
        self.part: Part = part
        self._text = part.model_dump_json()

    def __hash__(self) -> int:
        return hash(self._text)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, ByContent) and self._text == other._text


@lru_cache(maxsize=384)
def answer_of(known: ByContent[Setup]) -> Answer:
    return Answer(known.part)


def wanted_stop(answers: list[Answer]) -> float | None:
    """The one stop that setups are compared at: 0.9 of the least grip limit over setups and load states, in g; those that never brake aside.
    None where none does."""
    limits = [float(np.min(a.solved.main.grip_limit)) for a in answers if a.solved is not None]
    some = [limit for limit in limits if limit > 0.0]
    return DESIGN_SHARE * min(some) if some else None


def at_stop(answer: Answer, decel: float | None, system: str | None = None) -> tuple[float | None, float | None]:
    """Push [N] and share of the pedal's room [1] at a stop of `decel` [g], the worst over load states, the room of one `system` where it is
    named; None where it is not reached or not known."""
    if answer.solved is None or decel is None:
        return None, None
    healthy = answer.solved.main.healthy
    place, known = healthy.reach(decel)
    if not bool(known.all()):
        return None, None
    push, shares = float(healthy.push_at(place).max()), []
    for pull in healthy.pulls:
        room = pull.system.control.available
        if system is not None and pull.system.name != system:
            continue
        if room is None or pull.pedal.travel is None:
            return push, None
        shares.append(float(pull.pedal.pad_at(pull.place(place)).max()) / float(room))
    return push, max(shares)

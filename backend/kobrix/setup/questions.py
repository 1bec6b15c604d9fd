"""The questions that may be asked of a setup, and the failures that are asked always."""

from functools import lru_cache
from typing import Annotated, Any, Literal, Self

import numpy as np
from pydantic import ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core import chain, valves
from kobrix.core.arrays import Number
from kobrix.core.case import Asked
from kobrix.core.constants import ASSUMED, PUBLISHED
from kobrix.core.errors import BadEntry
from kobrix.core.failures import Room
from kobrix.setup.base import Name, Part
from kobrix.setup.convert import Converted
from kobrix.setup.fields import Quantity
from kobrix.setup.model import Setup, controls_of
from kobrix.setup.quantities import Typed, si

FOOT_SHARE = ASSUMED["motorcycle.foot_share"].value
Push = Annotated[Typed, Quantity("pedal_forces_n", 0, 20000)]
Decel = Annotated[Typed, Quantity("wanted_decels_g", 0, 5)]


class AirIn(Part):
    """Air in the lines of one station."""

    station: Name
    volume_cm3: Annotated[Typed, Quantity("volume_cm3", 0, 500)]


class Failure(Part):
    """Something that fails, by a name of its own; `system` where several have a circuit or booster of that kind."""

    name: Name
    system: str | None = None
    lost: str | None = None
    lost_booster: bool = False
    friction: Literal["cold", "hot", "wet"] = "cold"
    shut: tuple[str, ...] = ()
    open: tuple[str, ...] = ()
    air: list[AirIn] = []


HEALTH = Failure(name="healthy")


class Way(Part):
    """A control path: each control's share of the path's force."""

    name: Name
    ratio: dict[str, Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)]] = Field(min_length=1)


class OfOne(Part):
    """A question about one load state (the first) on one control path (the last), unless they are named."""

    load_state: str | None = None
    path: str | None = None


class ForEffort(OfOne):
    """Which part gives a stop at an effort?"""

    decel_g: Decel
    effort_n: Annotated[Typed, Quantity("effort_n", 1, 5000)]


class ForShare(OfOne):
    """Which part gives a share of the braking to the front?"""

    decel_g: Decel
    front_share: Annotated[Typed, Quantity("front_share", 0.01, 0.99)]


class KneeFor(OfOne):
    """Which knee keeps the front first, with a margin?"""

    margin: Annotated[Typed, Quantity("margin", 0, 1)] = 0.0


class Inverse(Part):
    """What a part would have to be."""

    bore_for_effort: ForEffort | None = None
    ratio_for_effort: ForEffort | None = None
    rear_area_for_share: ForShare | None = None
    rear_rotor_for_share: ForShare | None = None
    bar_for_share: ForShare | None = None
    knee_for_lock_order: KneeFor | None = None


class TrappedAir(OfOne):
    """How much air explains a measured pedal?"""

    station: Name
    pedal_force_n: Push
    pedal_travel_mm: Annotated[Typed, Quantity("pedal_travel_mm", 0, 1000)]


class Stop(Part):
    """How far does a stop take?"""

    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500)]
    decel_g: Annotated[Typed, Quantity("decel_g", 0, 5, above=True)]
    reaction_s: Annotated[Typed, Quantity("reaction_s", 0, 5)] = 0.0
    build_up_s: Annotated[Typed | None, Quantity("build_up_s", 0, 5, "", "stop.build_up")] = None


class Mfdd(Part):
    """Mean fully developed deceleration of a measured stop."""

    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500, above=True)]
    begin_m: Annotated[Typed, Quantity("begin_m", 0, 2000)]
    end_m: Annotated[Typed, Quantity("end_m", 0, 2000, above=True)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("begin_m", "end_m", "the way at 0.8 of the speed comes before that at 0.1")
        return self


class Nominal(Part):
    """A measured stop as it would be from the nominal speed."""

    distance_m: Annotated[Typed, Quantity("distance_m", 0, 2000)]
    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500, above=True)]
    nominal_speed_kmh: Annotated[Typed, Quantity("nominal_speed_kmh", 0, 500, above=True)]


class FadePoint(Part):
    """Friction of the pads at a temperature."""

    temperature_c: Annotated[Typed, Quantity("temperature_c", -50, 1500)]
    friction: Annotated[Typed, Quantity("friction", 0.01, 1.5)]


class Heat(OfOne):
    """How hot does a rotor get in a series of slow-downs with pauses between?"""

    station: Name
    speed_from_kmh: Annotated[Typed, Quantity("speed_from_kmh", 0, 500, above=True)]
    speed_to_kmh: Annotated[Typed, Quantity("speed_to_kmh", 0, 500)] = 0.0
    ambient_c: Annotated[Typed, Quantity("ambient_c", -50, 60)] = 20.0
    start_c: Annotated[Typed | None, Quantity("start_c", -50, 1200)] = None
    stops: Annotated[int, Field(ge=1, le=100)] = 1
    cooling_speed_kmh: Annotated[Typed, Quantity("cooling_speed_kmh", 0, 500)] = 0.0
    cooling_time_s: Annotated[Typed, Quantity("cooling_time_s", 0, 86400)] = 0.0
    friction_curve: list[FadePoint] = Field(default=[], max_length=40)

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("speed_to_kmh", "speed_from_kmh", "a slow-down ends slower than it begins")
        return self


class Parking(OfOne):
    """Which grade does the parking brake hold?"""

    station: Name
    torque_nm: Annotated[Typed, Quantity("torque_nm", 0, 100000)]


class Reservoir(Part):
    """What do worn pads take from the reservoir?"""

    wear_mm: Annotated[Typed, Quantity("wear_mm", 0, 50)]


class CgHeight(OfOne):
    """Centre of gravity height from lifting one axle."""

    lift_mm: Annotated[Typed, Quantity("lift_mm", 0, 3000, above=True)]
    total_kg: Annotated[Typed, Quantity("total_kg", 0, 60000, above=True)]
    gain_kg: Annotated[Typed, Quantity("gain_kg", 0, 20000)]
    wheel_centre_mm: Annotated[Typed, Quantity("wheel_centre_mm", 0, 1000)]


class NoseOver(Part):
    """When does a tail-dragger go over its nose?"""

    behind_mm: Annotated[Typed, Quantity("behind_mm", 0, 10000)]
    height_mm: Annotated[Typed, Quantity("height_mm", 0, 5000, above=True)]


class Tolerance(OfOne):
    """How sure is the effort for a stop? `plus_minus` by dotted path, in the unit of the path's last name."""

    decel_g: Decel
    samples: Annotated[int, Field(ge=10, le=200000)] = 2000
    seed: Annotated[int, Field(ge=0, le=2**32 - 1)] = 1
    shape: Literal["uniform", "normal"] = "uniform"
    effort_limit_n: Annotated[Typed | None, Quantity("effort_limit_n", 1, 5000)] = None
    travel_limit_mm: Annotated[Typed | None, Quantity("travel_limit_mm", 1, 1000)] = None
    plus_minus: dict[str, Typed] = Field(min_length=1, max_length=60)


class Working(OfOne):
    """How do the figures at one push, or at the push of one deceleration, come about?"""

    pedal_force_n: Push | None = None
    decel_g: Decel | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        if (self.pedal_force_n is None) == (self.decel_g is None):
            sentence = str(BadEntry("working", "neither or both", "a pedal force or a deceleration: exactly one of the two"))
            raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "pedal_force_n"})
        return self


class Questions(Part):
    """What is asked besides the answers that are always given. Questions of another kind are named as unanswered."""

    model_config = ConfigDict(extra="allow", use_attribute_docstrings=True)

    pedal_forces_n: list[Push] = Field(default=[], max_length=500)
    wanted_decels_g: list[Decel] = Field(default=[], max_length=500)
    force_limit_n: Annotated[Typed, Quantity("force_limit_n", 1, 5000)] | None = None
    control_paths: list[Way] = Field(default=[], max_length=12)
    failures: list[Failure] = Field(default=[], max_length=50)
    inverse: Inverse | None = None
    trapped_air: TrappedAir | None = None
    stop: Stop | None = None
    mfdd: Mfdd | None = None
    nominal: Nominal | None = None
    heat: Heat | None = None
    parking: Parking | None = None
    reservoir: Reservoir | None = None
    cg_height: CgHeight | None = None
    nose_over: NoseOver | None = None
    tolerance: Tolerance | None = None
    working: Working | None = None


NONE = Questions()  # nothing is asked


def rooms_of(setup: Setup, systems: tuple[chain.System, ...], questions: Questions) -> dict[str, Room]:
    """What each control has: the most that is asked of a person on it, and its travel."""
    rooms = {}
    for part, system in zip(controls_of(setup.systems), systems, strict=True):
        if questions.force_limit_n is not None:
            force = si(questions.force_limit_n, "force_limit_n")
        elif part.control.force_limit_n is not None:
            force = si(part.control.force_limit_n, "force_limit_n")
        else:
            known = PUBLISHED.get(f"force_limit_{part.control.kind}")
            force = (known or PUBLISHED["force_limit_car_pedal"]).value
        room = system.control.available
        rooms[system.name] = Room(force, None if room is None else float(room))
    return rooms


def ways_of(setup: Setup, questions: Questions) -> dict[str, dict[str, float]]:
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
    alone = {f"{name}_alone": {name: 1.0} for name in names}
    return {**alone, **{n: r for n, r in asked.items() if n != "together"}, "together": asked.get("together", together)}


@lru_cache(maxsize=256)
def _own(**parts: Any) -> Failure:
    """A failure that is asked of every setup: our own, so there is nothing to validate."""
    return Failure.model_construct(**parts)


def _always(systems: tuple[chain.System, ...]) -> list[Failure]:
    several = len(systems) > 1
    found: list[Failure] = []
    for system in systems:
        before = f"{system.name}_" if several else ""
        if system.booster is not None:
            found.append(_own(name=f"{before}lost_booster", system=system.name, lost_booster=True))
        found += [_own(name=f"{before}lost_{c.name}", system=system.name, lost=c.name) for c in system.cylinder.chambers]
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


def _condition(system: chain.System, failures: list[Failure], converted: Converted) -> chain.Condition:
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
        alive={
            c.name: column([0.0 if f.lost == c.name and here(f) else 1.0 for f in failures]) for c in system.cylinder.chambers
        },
        friction={s.name: column([float(rubs[f.friction][system.name][s.name]) for f in failures]) for s in stations},
        shut={s.name: mask([s.name in f.shut for f in failures]) for s in stations},
        open={s.name: mask([s.name in f.open for f in failures]) for s in stations},
    )


def as_asked(systems: tuple[chain.System, ...], failures: list[Failure], converted: Converted, rooms: dict[str, Room]) -> Asked:
    """`failures` of `systems` side by side along an axis (C, 1), so that one solution answers all; `rooms` of the controls."""

    def air_in(failure: Failure, station: chain.Station) -> float:
        own = float(station.lines.air) if station.lines is not None else 0.0
        return own + sum(si(a.volume_cm3, "volume_cm3") for a in failure.air if a.station == station.name)

    conditions = tuple(_condition(system, failures, converted) for system in systems)
    air: dict[str, dict[str, Number]] = {}
    for system in systems:
        air[system.name] = {s.name: np.array([air_in(f, s) for f in failures])[:, None] for s in system.stations}
    return Asked(tuple(f.name for f in failures), conditions, air, rooms)

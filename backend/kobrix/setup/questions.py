"""The questions that may be asked of a setup, and the failures that are asked always."""

from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from pydantic import ConfigDict, Field

from kobrix.core import chain, valves
from kobrix.core.arrays import Number
from kobrix.core.constants import PUBLISHED
from kobrix.core.errors import BadEntry
from kobrix.setup.convert import Converted
from kobrix.setup.fields import Quantity
from kobrix.setup.model import Name, Part
from kobrix.setup.quantities import Typed, si

Push = Annotated[Typed, Quantity("pedal_forces_n", 0, 20000)]
Decel = Annotated[Typed, Quantity("wanted_decels_g", 0, 5)]


class AirIn(Part):
    """Air in the lines of one station."""

    station: Name
    volume_cm3: Annotated[Typed, Quantity("volume_cm3", 0, 500)]


class Failure(Part):
    """Something that fails, by a name of its own."""

    name: Name
    lost: str | None = None
    lost_booster: bool = False
    friction: Literal["cold", "hot", "wet"] = "cold"
    shut: list[str] = []
    open: list[str] = []
    air: list[AirIn] = []


class Questions(Part):
    """What is asked besides the answers that are always given. Questions of another kind are named as unanswered."""

    model_config = ConfigDict(extra="allow", use_attribute_docstrings=True)

    pedal_forces_n: list[Push] = Field(default=[], max_length=500)
    wanted_decels_g: list[Decel] = Field(default=[], max_length=500)
    force_limit_n: Annotated[Typed, Quantity("force_limit_n", 1, 5000)] | None = None
    failures: list[Failure] = Field(default=[], max_length=50)


def force_limit(questions: Questions, kind: str) -> float:
    """Greatest push [N] that is asked of a person on a control of that `kind`."""
    if questions.force_limit_n is not None:
        return si(questions.force_limit_n, "force_limit_n")
    known = PUBLISHED.get(f"force_limit_{kind}")
    return (known or PUBLISHED["force_limit_car_pedal"]).value


def failures_of(system: chain.System, asked: list[Failure]) -> list[Failure]:
    """The failures that are asked of every `system`, then those `asked` by name. Raises BadEntry for unknown names."""
    circuits = [c.name for c in system.cylinder.chambers]
    stations = [s.name for s in system.stations]
    always = [Failure(name="lost_booster", lost_booster=True)] if system.booster is not None else []
    always += [Failure(name=f"lost_{name}", lost=name) for name in circuits]
    always += [Failure(name="hot", friction="hot"), Failure(name="wet", friction="wet")]
    for station in system.stations:
        if any(valves.changes_pressure(d) for d in station.devices):
            always.append(Failure(name=f"{station.name}_valves_shut", shut=[station.name]))
            always.append(Failure(name=f"{station.name}_valves_open", open=[station.name]))
    for failure in asked:
        if failure.lost is not None and failure.lost not in circuits:
            raise BadEntry(f"failure {failure.name}", f"circuit {failure.lost!r}", " or ".join(circuits))
        for name in (*failure.shut, *failure.open, *(a.station for a in failure.air)):
            if name not in stations:
                raise BadEntry(f"failure {failure.name}", f"station {name!r}", " or ".join(stations))
    return always + asked


@dataclass(frozen=True)
class Conditions:
    """Failures as one condition with an axis (C, 1), their names, and `air` {station: [m³]} besides the lines' own."""

    names: tuple[str, ...]
    condition: chain.Condition
    air: dict[str, Number]


def as_arrays(system: chain.System, failures: list[Failure], converted: Converted) -> Conditions:
    """`failures` of a `system` side by side, so that one solution answers all."""

    def column(values: list[float]) -> Number:
        return np.array(values, dtype=np.float64)[:, None]

    def mask(values: list[bool]) -> np.ndarray[tuple[int, ...], np.dtype[np.bool_]]:
        return np.array(values, dtype=bool)[:, None]

    def passes(failure: Failure, station: chain.Station) -> bool:
        bypass = any(isinstance(d, valves.Proportioning) and d.bypass for d in station.devices)
        return station.name in failure.open or (bypass and failure.lost == "front")

    def air_in(failure: Failure, station: chain.Station) -> float:
        own = float(station.lines.air) if station.lines is not None else 0.0
        return own + sum(si(a.volume_cm3, "volume_cm3") for a in failure.air if a.station == station.name)

    stations = system.stations
    condition = chain.Condition(
        booster_lost=mask([f.lost_booster for f in failures]),
        alive={c.name: column([0.0 if f.lost == c.name else 1.0 for f in failures]) for c in system.cylinder.chambers},
        friction={s.name: column([float(converted.friction[f.friction][s.name]) for f in failures]) for s in stations},
        shut={s.name: mask([s.name in f.shut for f in failures]) for s in stations},
        open={s.name: mask([passes(f, s) for f in failures]) for s in stations},
    )
    air = {s.name: column([air_in(f, s) for f in failures]) for s in stations}
    return Conditions(tuple(f.name for f in failures), condition, air)

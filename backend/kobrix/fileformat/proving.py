"""How a job is proven: from which speed, in which sets of stops, and what was changed before each."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from kobrix.fileformat.base import Name, Sparse, q, unique
from kobrix.fileformat.quantities import Typed

Changed = Literal["tyres", "brakes", "bedding", "valve", "load", "road"]


class StopSet(Sparse):
    """A set of stops: the setup that was driven, and what was changed since the set before; `row_gap_s`: its stops were driven one
    after another, with this time between rest and the next onset; `pressed`: the one control it was stopped with, by its name, all
    together where none is named."""

    name: Name
    setup: Name
    changed: list[Changed] = Field(default=[], max_length=6)
    row_gap_s: Annotated[Typed | None, q("row_gap_s", 0, 3600)] = None
    pressed: Name | None = None


class Adjuster(Sparse):
    """A rear valve or a balance bar that can be set: from `least` to `most`, where it stands `now`, which way the rear gets more."""

    least: Annotated[float, Field(ge=-1000, le=100_000)]
    most: Annotated[float, Field(ge=-1000, le=100_000)]
    now: Annotated[float, Field(ge=-1000, le=100_000)]
    more_is: Literal["rear", "front"] = "rear"
    unit: Annotated[str, Field(max_length=20)] = "turns"
    knee_kpa_at_least: Annotated[Typed | None, q("knee_kpa_at_least", 0, 40000)] = None
    knee_kpa_per_setting: Annotated[Typed | None, q("knee_kpa_per_setting", -40000, 40000)] = None


class Proving(Sparse):
    """The speed that stops are driven from, the gain that is looked for, the most that is pushed, the sets and the adjuster."""

    nominal_kmh: Annotated[Typed | None, q("nominal_kmh", 10, 300)] = None
    wanted_m: Annotated[Typed | None, q("wanted_m", 0.1, 200)] = None
    force_limit_n: Annotated[Typed | None, q("force_limit_n", 10, 3000)] = None
    sets: list[StopSet] | None = Field(None, max_length=30)
    adjuster: Adjuster | None = None
    radius_of_gyration_mm: Annotated[Typed | None, q("radius_of_gyration_mm", 50, 10_000)] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique([s.name for s in self.sets or []], "sets", "set")
        return self

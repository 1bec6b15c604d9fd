"""How a plan is built: on which days which groups, what else is done, makers' torques, and what is waited for."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.fileformat.base import Name, Sparse, q, unique
from kobrix.fileformat.quantities import Typed
from kobrix.fileformat.tables import table

Axle = Literal["front", "rear"]


def _refuse(field: str, given: str, allowed: str) -> PydanticCustomError:
    return PydanticCustomError("relation", "{sentence}", {"sentence": str(BadEntry(field, given, allowed)), "field": field})


class AlsoDone(Sparse):
    """A change that the setups do not show: a lamp switch, the parking brake; the axle where its kind has one."""

    kind: Name
    axle: Axle | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        known = table("build-steps")
        if self.kind not in known["kinds"]:
            raise _refuse("kind", repr(self.kind), ", ".join(known["kinds"]))
        if self.kind in known["with_axle"] and self.axle is None:
            raise _refuse("axle", "none", "front or rear, as this change has one")
        return self


class Torque(Sparse):
    """What a part's maker states for the fasteners of a step: the value, and where it is written. Never a figure of ours."""

    row: Name
    torque_nm: Annotated[Typed, q("torque_nm", 0.1, 2000)]
    source: Annotated[str, Field(min_length=1, max_length=120)]


class Waiting(Sparse):
    """A step that waits for a part."""

    step: Name
    part: Annotated[str, Field(min_length=1, max_length=80)]


class OwnStep(Sparse):
    """A step that a person added, or that something gone wrong asks for: what is done, `before` which step, signed where it is critical."""

    id: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    words: Annotated[str, Field(min_length=1, max_length=200)]
    before: Name | None = None
    critical: bool | None = None


class Building(Sparse):
    """The work of a plan. `own`: steps of a person's own; `order`: steps by their keys as a person wants them, within what must
    come before. `days`: the groups done on each; left out, all in one go. `wrench_most_nm`: the most its wrench shows.
    `pits`: by the cup's name how far from where it rests a pit lies."""

    days: list[list[Name]] | None = Field(None, max_length=12)
    also: list[AlsoDone] | None = Field(None, max_length=30)
    torques: list[Torque] | None = Field(None, max_length=100)
    waits: list[Waiting] | None = Field(None, max_length=100)
    wrench_most_nm: Annotated[Typed | None, q("torque_nm", 1, 2000)] = None
    own: list[OwnStep] | None = Field(None, max_length=100)
    order: list[Name] | None = Field(None, max_length=600)
    pits: dict[Name, Annotated[Typed, q("pit_mm", 0, 500)]] | None = Field(None, max_length=12)

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique([s.id for s in self.own or []], "own", "step")
        return self

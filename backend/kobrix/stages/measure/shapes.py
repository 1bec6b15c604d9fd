"""Request and response shapes of Measure."""

from typing import Literal

from pydantic import Field
from typing_extensions import TypedDict

from kobrix.evaluate.entries.shapes import Sheet
from kobrix.stages.common import Request


class MeasureView(Sheet):
    """The sheet of one setup, as of a `revision` of the job."""

    page: Literal["measure"]
    revision: int


class LookIn(Request):
    """A push or a stop as typed; a bare number is in the `preferred` unit."""

    name: Literal["pedal_force_n", "decel_g"]
    text: str = Field(max_length=400)
    preferred: str | None = Field(None, max_length=10)


class LookOut(TypedDict):
    """What was typed, in the unit of its name."""

    value: float


class HelperIn(Request):
    """What was read, as typed, by the helper's names; `preferred` units of bare numbers by length and mass."""

    given: dict[str, str] = Field(max_length=12)
    preferred: dict[str, str] = {}

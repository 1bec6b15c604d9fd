"""Shapes of what the API takes."""

from typing import Any, Literal

from pydantic import Field

from kobrix.api.shapes import Shape
from kobrix.setup.begin import Layout


class EditIn(Shape):
    """An edit: what was typed (`text`), or a `value`; neither takes the field away."""

    path: str = Field(min_length=1, max_length=300)
    text: str | None = Field(None, max_length=2000)
    value: Any = None
    preferred: str | None = Field(None, max_length=10)


class ChangeIn(Shape):
    """Edits made on revision `base`, as one step."""

    base: int
    label: str = Field("change", max_length=200)
    gesture: str | None = Field(None, max_length=60)
    edits: list[EditIn] = Field(min_length=1, max_length=100)


class NewJobIn(Shape):
    """An empty job: its name and the vehicle's layout."""

    name: str = Field(min_length=1, max_length=80, pattern=r"\S")
    layout: Layout


class TryIn(Shape):
    """Edits tried on a setup without storing them."""

    setup: str
    edits: list[EditIn] = Field(min_length=1, max_length=100)


class StepIn(Shape):
    """Undo or redo on revision `base`."""

    base: int


class MomentIn(Shape):
    """Exactly one push or one deceleration, of one setup in one load state."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    pedal_force_n: float | None = Field(None, ge=0, le=20000, allow_inf_nan=False)
    decel_g: float | None = Field(None, ge=0, le=5, allow_inf_nan=False)


class LookIn(Shape):
    """A push or a stop as typed; a bare number is in the `preferred` unit."""

    name: Literal["pedal_force_n", "decel_g"]
    text: str = Field(max_length=400)
    preferred: str | None = Field(None, max_length=10)


class WorkingIn(Shape):
    """The working of every figure at one push."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    pedal_force_n: float = Field(ge=0, le=20000, allow_inf_nan=False)


class FailedIn(Shape):
    """One failure of a setup in one load state, for pushes up to `reach_n`."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    failure: str
    reach_n: float = Field(gt=0, le=20000, allow_inf_nan=False)


class HeatIn(Shape):
    """A series of slow-downs with pauses between, quantities as typed."""

    setup: str
    load: int = Field(0, ge=0, le=20)
    speed_from_kmh: str = Field(max_length=40)
    speed_to_kmh: str = Field("0 km/h", max_length=40)
    stops: int = Field(1, ge=1, le=100)
    cooling_time_s: str = Field("0 s", max_length=40)
    cooling_speed_kmh: str = Field("0 km/h", max_length=40)
    ambient_c: str = Field("20", max_length=40)

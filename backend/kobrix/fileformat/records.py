"""Records of what happened at the vehicle, as the job's file has them: written once, struck out with a reason, never undone away."""

from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from kobrix.fileformat.base import Name, Part, Sparse, q
from kobrix.fileformat.quantities import Typed

Words = Annotated[str, Field(min_length=1, max_length=80)]
Text = Annotated[str, Field(max_length=400)]
KEY = r"^[A-Za-z0-9-]{8,64}$"
Locked = Literal["none", "front", "rear", "both"]


class Stop(Sparse):
    """A stop from a speed to rest: what was read of it, and what stood around it. What is not known is left out."""

    set: Name
    speed_kmh: Annotated[Typed, q("speed_kmh", 5, 400)]
    distance_m: Annotated[Typed | None, q("distance_m", 0.3, 2000)] = None
    brake_on_mark_m: Annotated[Typed | None, q("brake_on_mark_m", -5000, 5000)] = None
    rest_mark_m: Annotated[Typed | None, q("rest_mark_m", -5000, 5000)] = None
    time_s: Annotated[Typed | None, q("time_s", 0.1, 120)] = None
    direction: Literal["out", "back"] | None = None
    locked: Locked | None = None
    push_n: Annotated[Typed | None, q("push_n", 0, 5000)] = None
    as_hard: bool | None = None
    valve: Annotated[float | None, Field(ge=-100_000, le=100_000)] = None
    grade: Annotated[Typed | None, q("grade", -0.3, 0.3)] = None
    headwind_m_per_s: Annotated[Typed | None, q("headwind_m_per_s", -40, 40)] = None
    rotor_front_c: Annotated[Typed | None, q("rotor_front_c", -40, 1200)] = None
    rotor_rear_c: Annotated[Typed | None, q("rotor_rear_c", -40, 1200)] = None
    heading_deg: Annotated[Typed | None, q("heading_deg", -180, 180)] = None
    offset_m: Annotated[Typed | None, q("offset_m", -50, 50)] = None
    feel: Words | None = None
    surface: Words | None = None
    load: Words | None = None
    tyres: Words | None = None
    note: Text | None = None
    simulated: bool | None = None
    trace: Annotated[str | None, Field(pattern=KEY)] = None
    mfdd_g: Annotated[float | None, Field(ge=0, le=5)] = None
    lag_s: Annotated[float | None, Field(ge=-5, le=5)] = None
    curve: list[tuple[float, float]] | None = Field(None, max_length=80)


class StandPush(Sparse):
    """A push of a stand test: the force at the pad, and what the gauges at the bleed screws and the ruler read."""

    force: Annotated[Typed, q("pedal_force_n", 0, 3000)]
    front_kpa: Annotated[Typed | None, q("front_kpa", 0, 40000)] = None
    rear_kpa: Annotated[Typed | None, q("rear_kpa", 0, 40000)] = None
    travel_mm: Annotated[Typed | None, q("travel_mm", 0, 400)] = None
    setup: Name
    system: Words | None = None
    run: Annotated[int, Field(ge=1, le=99)] = 1
    simulated: bool | None = None


class Hold(Sparse):
    """A pedal held hard: the ruler at two times or more, and the circuits that were plugged."""

    setup: Name
    system: Words | None = None
    plugged: list[Words] = Field(default=[], max_length=4)
    times_s: list[Annotated[Typed, q("time_s", 0, 600)]] = Field(min_length=2, max_length=20)
    travels_mm: list[Annotated[Typed, q("travel_mm", 0, 400)]] = Field(min_length=2, max_length=20)


class Signed(Sparse):
    """A step of the work that is done: by whom, where it kills with what torque and where that comes from."""

    setup: Name
    step: Words
    by: Words | None = None
    torque_nm: Annotated[Typed | None, q("torque_nm", 0.1, 2000)] = None
    source: Words | None = None
    note: Text | None = None
    photos: list[Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]] | None = Field(None, max_length=12)
    minutes: Annotated[float | None, Field(ge=0, le=100_000)] = None


class Seen(Sparse):
    """How it was: a photograph or a sentence at a step, whether the old part goes back, and the bag its bolts are in."""

    setup: Name
    step: Words
    words: Text
    sha256: Annotated[str | None, Field(pattern=r"^[0-9a-f]{64}$")] = None
    goes_back: bool | None = None
    bag: Annotated[int | None, Field(ge=1, le=999)] = None


class Bled(Sparse):
    """A bleed screw that was bled: how much came out, and whether the last of it had bubbles."""

    setup: Name
    screw: Words
    fluid: Words | None = None
    volume_cm3: Annotated[Typed | None, q("volume_cm3", 0, 5000)] = None
    strokes: Annotated[int | None, Field(ge=0, le=1000)] = None
    bubbles: bool | None = None
    dry: bool | None = None
    by: Words | None = None


class Bedded(Sparse):
    """A slow-down of the pads' recipe."""

    setup: Name
    number: Annotated[int, Field(ge=1, le=500)]
    front_c: Annotated[Typed | None, q("front_c", -40, 1200)] = None
    rear_c: Annotated[Typed | None, q("rear_c", -40, 1200)] = None
    simulated: bool | None = None


class Looked(Sparse):
    """A joint that was opened and looked at: after the hold on stands, or after the first drive; dry or wet."""

    setup: Name
    joint: Words
    when: Literal["hold", "drive"]
    dry: bool
    by: Words | None = None
    note: Text | None = None


class Driven(Sparse):
    """A step of the first drive that was done."""

    setup: Name
    step: Words
    by: Words | None = None


class Remark(Sparse):
    """What somebody who read a copy of the job has to say of it, at a place of it."""

    setup: Name
    place: Words
    words: Annotated[str, Field(min_length=1, max_length=400)]
    by: Words | None = None


class Struck(Part):
    """A record that no longer counts, with the reason; none: it counts again."""

    of: Annotated[str, Field(pattern=KEY)]
    why: Text | None = None


BODIES: dict[str, type[Part]] = {
    "stop": Stop, "push": StandPush, "hold": Hold, "signed": Signed, "seen": Seen, "bled": Bled, "bedded": Bedded,
    "looked": Looked, "driven": Driven, "remark": Remark, "struck": Struck,
}  # fmt: skip
RecordKind = Literal["stop", "push", "hold", "signed", "seen", "bled", "bedded", "looked", "driven", "remark", "struck"]


Readings = Annotated[list[float], Field(min_length=3, max_length=20_000)]


class FiledTrace(Sparse):
    """The samples of a recorded stop: times from its first sample on, and what was read at each; `source`: the file they came in."""

    key: Annotated[str, Field(pattern=KEY)]
    source: Words
    t_s: Readings
    speed_kmh: Readings
    distance_m: Readings | None = None
    decel_m_per_s2: Readings | None = None
    front_kpa: Readings | None = None
    rear_kpa: Readings | None = None
    front_c: Readings | None = None
    rear_c: Readings | None = None

    @model_validator(mode="after")
    def _even(self) -> Self:
        own = self.model_dump(exclude_none=True, exclude={"key", "source"})
        for name, values in own.items():
            if len(values) != len(self.t_s):
                raise ValueError(f"{name} has {len(values)} readings, the times {len(self.t_s)}")
        return self


class FiledRecord(Part):
    """A record in the job's file: its key, its kind, when it was made, and what it says."""

    key: Annotated[str, Field(pattern=KEY)]
    kind: RecordKind
    made_at: Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}Z$")]
    body: dict[str, Any]

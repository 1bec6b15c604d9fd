"""What Bleed shows of a setup: the order of the screws, pedals that were held, and the stand test before the first drive."""

from typing import Literal

from pydantic import Field
from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.fileformat.paths import Edit
from kobrix.stages.common import Request

StandVerdict = Literal["drive_slowly", "look_again", "do_not_drive"]


class BledView(TypedDict):
    """That a screw was bled."""

    key: str
    at: str
    by: str
    bubbles: bool | None
    dry: bool
    volume: str


class ScrewView(TypedDict):
    """A bleed screw in its order: what comes out of it [cm³, g], strokes, and when the reservoir is filled up."""

    name: str
    branch: str
    screw: str
    fluid_cm3: float | None
    fluid_g: float | None
    strokes: int | None
    top_up: str
    bled: BledView | None


class WarningView(TypedDict):
    """Something about the fluid or the order."""

    level: Level
    words: str


class SchoolView(TypedDict):
    """The order of the screws of one system."""

    system: str
    screws: list[ScrewView]
    total_cm3: float | None
    total_g: float | None
    strokes: int | None
    top_ups: int | None
    order_from: str
    warnings: list[WarningView]
    refused: str


class HoldView(TypedDict):
    """A pedal that was held: what the ruler says of it."""

    key: str
    plugged: list[str]
    readings: str
    kind: str
    loss_cm3: float | None
    loss_low_cm3: float | None
    loss_high_cm3: float | None
    struck: str | None


class HoldsView(TypedDict):
    """All holds together: whether it leaks, and where."""

    rows: list[HoldView]
    circuits: list[str]
    level: Level | None
    sentence: str


class PushView(TypedDict):
    """A push of the stand test as read, and its figures."""

    key: str
    run: int
    force: str
    force_n: float
    front: str
    front_kpa: float | None
    rear: str
    rear_kpa: float | None
    travel: str
    travel_mm: float | None
    simulated: bool
    struck: str | None


class BandPoint(TypedDict):
    """What the model sees at a push [N]: P5, P50, P95 of a figure."""

    force_n: float
    low: float
    mid: float
    high: float


class FittedView(TypedDict):
    """A figure that the test fitted, against the plan's."""

    name: str
    words: str
    value: float
    low: float
    high: float
    plan: float | None
    unit: str
    off: bool
    accept: str
    edits: list[Edit]


class StandView(TypedDict):
    """The stand test of one run: what was read, what it fits, and whether to drive."""

    system: str
    systems: list[str]
    run: int
    runs: list[int]
    pushes: list[PushView]
    has_front: bool
    has_rear: bool
    front: list[BandPoint]
    rear: list[BandPoint]
    travel: list[BandPoint]
    verdict: StandVerdict | None
    reasons: list[str]
    fitted: list[FittedView]
    travel_sentence: str
    needs: int
    refused: str
    signed: BledView | None


class LookView(TypedDict):
    """A look at a joint: when and by whom, dry or wet."""

    key: str
    at: str
    by: str
    dry: bool


class WatchedJoint(TypedDict):
    """A joint that the work opened, and the looks at it: after the hold, and after the first drive."""

    joint: str
    title: str
    where: str
    count: int
    hold: LookView | None
    drive: LookView | None


class WatchView(TypedDict):
    """Every opened joint looked at twice."""

    joints: list[WatchedJoint]
    dry_hold: int
    dry_drive: int
    wet: list[str]
    level: Level
    sentence: str


class BleedView(TypedDict):
    """Bleed of one setup, as of a `revision`."""

    page: Literal["bleed"]
    revision: int
    setup: str
    schools: list[SchoolView]
    school: str
    method: str
    fluid_in: str
    fluid: str
    reservoir: str
    low_mark: str
    stroke: str
    holds: HoldsView
    stand: StandView
    watch: WatchView
    certified: bool


class SimulateIn(Request):
    """A push that simulated gauges are asked for, as typed."""

    setup: str = Field(max_length=80)
    system: str | None = Field(None, max_length=80)
    force: str = Field(max_length=40)
    preferred: str | None = Field(None, max_length=10)
    seed: int = Field(ge=0, le=2**31)


class SimulateOut(TypedDict):
    """What simulated gauges and a ruler show."""

    force: str
    front_kpa: float | None
    rear_kpa: float | None
    travel_mm: float | None


class PushIn(Request):
    """A push as typed: what the scale showed, and how far the pad went from rest."""

    force: str = Field(max_length=40)
    travel: str = Field(max_length=40)


class PushesIn(Request):
    """Pushes with a scale and a ruler."""

    setup: str = Field(max_length=80)
    system: str | None = Field(None, max_length=80)
    pushes: list[PushIn] = Field(min_length=2, max_length=12)


class PumpedIn(Request):
    """A pedal that was pumped: its travel at the first and the third quick push, and beside it a hard one where it was read."""

    setup: str = Field(max_length=80)
    system: str | None = Field(None, max_length=80)
    first: str = Field(max_length=40)
    third: str = Field(max_length=40)
    force: str = Field("", max_length=40)
    hard_force: str = Field("", max_length=40)
    hard_travel: str = Field("", max_length=40)
    after_drive: bool = False


class ToldView(TypedDict):
    """What the readings tell, or that they cannot tell."""

    verdict: str
    level: Level
    sentence: str
    more: str
    figures: str

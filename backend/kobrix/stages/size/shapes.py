"""Request and response shapes of Size."""

from typing import Literal

from pydantic import Field
from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.core.physics.failures import FailureKind
from kobrix.core.physics.working import Figure
from kobrix.evaluate.answer_shapes import WorkingStep
from kobrix.evaluate.entries.shapes import Sheet
from kobrix.evaluate.shapes import Axle, DoubtedEntry, Finding, LimitedBy, Lock, Mend, Moment, Needs, TrialsRun
from kobrix.fileformat.paths import JsonObject
from kobrix.stages.common import Request
from kobrix.stages.size.part_shapes import Parts

Point = list[float]


class ControlPlace(TypedDict):
    """Where a control and its cylinder stand below the setup, and the system whose brakes it presses: dotted paths."""

    control: str
    owner: str


class LineView(TypedDict):
    """One control on a path: its force is the path's times `ratio`."""

    system: str
    ratio: float
    place: ControlPlace
    parts: Parts


class StationCurves(TypedDict):
    """One station over the range of pushes."""

    inlet_kpa: list[float]
    outlet_kpa: list[float]
    torque_nm: list[float]
    clamp_n: list[float] | None


class LineCurves(TypedDict):
    """One control over the range of pushes."""

    rod_n: list[float]
    out_n: list[float]
    stations: dict[str, StationCurves]
    travel_mm: list[float] | None
    piston_mm: list[float] | None
    causes_mm: dict[str, list[float]]
    ratio: list[float] | None
    rod_angle_deg: list[float] | None


class Curves(TypedDict):
    """The whole range of pushes: one figure a list, all of one length."""

    push_n: list[float]
    front_n: list[float]
    rear_n: list[float]
    decel_g: list[float]
    grip_decel_g: list[float]
    adhesion_front: list[float | None]
    adhesion_rear: list[float | None]
    front_locked: list[float]
    rear_locked: list[float]
    ideal_front_share: list[float]
    lines: dict[str, LineCurves]


class Balance(TypedDict):
    """What the tyres allow, for a plot of rear over front force."""

    weight_n: float
    front_share: float
    chi: float
    grip_front: float
    grip_rear: float
    grip_limit_g: float
    ideal_n: list[Point]
    corner_n: Point
    front_lock_n: Point
    rear_lock_n: Point


class FailureView(TypedDict):
    """What a lost circuit or booster leaves; `what`: the circuit; `loss`: short words without the control, whose name stands in `system` where there are several."""

    name: str
    kind: FailureKind
    what: str | None
    system: str | None
    loss: str
    pedal_force_n: float
    limited_by: LimitedBy
    best_grip_decel_g: float
    pedal_travel_mm: float | None


class LockView(TypedDict):
    """The first lock or lift."""

    push_n: float
    decel_g: float
    front_n: float
    rear_n: float


class SideGainCurves(TypedDict):
    """Gains of the links of one side over the range of pushes, those that are not one throughout; null where one of the two
    setups does not brake. Their product."""

    links: dict[str, list[float | None]]
    product: list[float | None]


class GainCurves(TypedDict):
    """What each change bought, by side: the setup before at the same stop, and at the same push."""

    same_stop: dict[str, SideGainCurves]
    same_push: dict[str, SideGainCurves]


class StateView(TypedDict):
    """A setup in one load state."""

    name: str
    mass_kg: float
    front_share: float
    cg_height_mm: float
    first_lock: Lock
    first_lock_words: str
    lock: LockView | None
    grip_efficiency: float | None
    stop_push_n: float | None
    at_stop: Moment | None
    balance: Balance
    failures: list[FailureView]
    curves: Curves
    gains: GainCurves | None


class Against(TypedDict):
    """A setup against the one as found, at the same stop."""

    lighter_percent: float
    longer_mm: float | None


class BoreState(TypedDict):
    """The wanted stop with another bore."""

    push_n: float
    travel_mm: float | None


class BoreView(TypedDict):
    """A standard bore in place of the setup's own, solved at the wanted stop in each load state; None where it is not reached."""

    name: str
    bore_mm: float
    states: list[BoreState | None]


class PathView(TypedDict):
    """One control path: each control alone, or all together."""

    name: str
    title: str
    one_axle: bool
    system: str
    parts: Parts
    lines: list[LineView]
    states: list[StateView]
    against_found: list[Against | None]
    bores: list[BoreView]


class FailureName(TypedDict):
    """A failure that can be drawn."""

    name: str
    words: str


class Solved(TypedDict):
    """A setup that is complete enough to be followed: its control paths, the one of all controls last."""

    paths: list[PathView]
    failures: list[FailureName]


class Failed(TypedDict):
    """The range of pushes with a failure in it, and what is left of each link against the setup without it."""

    name: str
    words: str
    curves: Curves
    gains: GainCurves | None


class Headline(TypedDict):
    """How a setup stands in a word: what is worst, or the push for the stop wanted."""

    kind: Literal["incomplete", "rear_first", "rear_lifts", "no_such_stop", "push"]
    push_n: float | None


class StepView(WorkingStep):
    """A step of the working as a screen shows it: whose figure it is, and the fields that its numbers come from."""

    figure: Figure
    station: str | None
    axle: Axle | None
    where: str | None
    cause: str | None
    provenance: list[str]


class SetupView(TypedDict):
    """A setup on the screen."""

    key: str
    name: str
    needs: Needs
    level: Level | None
    headline: Headline
    findings: list[Finding]
    solved: Solved | None


class WorstOf(TypedDict):
    """What is worst of a setup, in a sentence."""

    level: Level
    sentence: str


class Card(TypedDict):
    """A job at a glance: the first plan, or as found where there is none, at the wanted stop; how much it still needs."""

    setup: str
    to_go: int
    push_n: float | None
    was_n: float | None
    decel_g: float | None
    front_share: float | None
    worst: WorstOf | None


class EffortBand(TypedDict):
    """Comfort and limits of the push."""

    low: float
    good: float
    caution: float
    danger: float


class TravelBand(TypedDict):
    """Limits of the share of the pedal's room."""

    good: float
    caution: float
    danger: float


class Bore(TypedDict):
    """A standard bore."""

    name: str
    bore_mm: float


class Tried(TypedDict):
    """A setup as it would be, and how it would stand in the job's document."""

    setup: SetupView
    document: JsonObject


class OwnLimitsView(TypedDict):
    """A person's own lines over the feel of the pedal, null where none is drawn."""

    effort_n: float | None
    travel_mm: float | None


class SizeView(TypedDict):
    """Every setup of a job at one wanted stop, as of a `revision`; the sheet of each that cannot be solved yet, by its key."""

    page: Literal["size"]
    revision: int
    wanted_decel_g: float | None
    push_range_n: float
    force_limit_n: float
    effort: EffortBand | None
    travel: TravelBand
    own_limits: OwnLimitsView
    standard_bores: list[Bore]
    setups: list[SetupView]
    sheets: dict[str, Sheet]


class SetupVerdicts(TypedDict):
    """A setup once its trials have run: its worst level, its findings with their chances, and what was drawn."""

    key: str
    level: Level | None
    findings: list[Finding]
    doubts: list[DoubtedEntry]


class Verdicts(TypedDict):
    """Every setup of a job judged with its trials, as of a `revision`."""

    revision: int
    setups: list[SetupVerdicts]
    trials: TrialsRun


class MendsView(TypedDict):
    """What would mend the findings of a setup, by finding, as of a `revision`."""

    revision: int
    key: str
    mends: dict[str, list[Mend]]


class ComparedInput(TypedDict):
    """An entry that differs between setups."""

    part: str
    label: str
    values: list[str]


class ComparedResult(TypedDict):
    """A result of each setup."""

    label: str
    unit: str
    values: list[str]
    differs: bool


class Comparison(TypedDict):
    """Setups side by side at one stop."""

    setups: list[str]
    decel_g: float
    inputs: list[ComparedInput]
    results: list[ComparedResult]
    words: list[str]


class MomentIn(Request):
    """Exactly one push or one deceleration, of one setup in one load state."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    pedal_force_n: float | None = Field(None, ge=0, le=20000, allow_inf_nan=False)
    decel_g: float | None = Field(None, ge=0, le=5, allow_inf_nan=False)


class WorkingIn(Request):
    """The working of every figure at one push."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    pedal_force_n: float = Field(ge=0, le=20000, allow_inf_nan=False)


class FailedIn(Request):
    """One failure of a setup in one load state, for pushes up to `reach_n`."""

    setup: str
    path: str | None = None
    load: int = Field(0, ge=0, le=20)
    failure: str
    reach_n: float = Field(gt=0, le=20000, allow_inf_nan=False)


class HeatIn(Request):
    """A series of slow-downs with pauses between, quantities as typed."""

    setup: str
    load: int = Field(0, ge=0, le=20)
    speed_from_kmh: str = Field(max_length=40)
    speed_to_kmh: str = Field("0 km/h", max_length=40)
    stops: int = Field(1, ge=1, le=100)
    cooling_time_s: str = Field("0 s", max_length=40)
    cooling_speed_kmh: str = Field("0 km/h", max_length=40)
    ambient_c: str = Field("20", max_length=40)

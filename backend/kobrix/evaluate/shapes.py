"""Records of what an evaluation answers, in the names and units of the result file.

Declared once: what a function here returns, what mypy checks, what the API's document and the screen's types are made from.
"""

from typing import Literal, NotRequired

from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.evaluate.answer_shapes import Answers
from kobrix.fileformat.paths import Edit, JsonObject

Axle = Literal["front", "rear"]
Lock = Literal["front", "rear", "both", "rear_lift", "none"]
Standing = Literal["assumed", "plus_minus", "usual", "exact"]
LimitedBy = Literal["force", "travel", "chamber", "contact", "all_lost"]


class StationMoment(TypedDict):
    """One station at a push."""

    pressure_in_kpa: float
    pressure_kpa: float
    torque_per_wheel_nm: float
    clamp_n: NotRequired[float]
    volume_cm3: NotRequired[float]
    knee_kpa: NotRequired[float]


class SystemMoment(TypedDict):
    """One control at a push."""

    control_force_n: float
    rod_force_n: float
    booster_out_n: float
    pedal_travel_mm: NotRequired[float]
    piston_travel_mm: NotRequired[float]
    bottomed: NotRequired[bool]
    instant_ratio: NotRequired[float]
    rod_angle_deg: NotRequired[float]
    stations: dict[str, StationMoment]
    breakdown_mm: NotRequired[dict[str, dict[str, float]]]


class Beyond(TypedDict):
    """Why a push moves nothing more: what ended before it, of which control, and the path's push there."""

    kind: Literal["floor", "chamber"]
    system: str
    pedal_force_n: float


class NoMoment(TypedDict):
    """A push that a linkage cannot balance."""

    pedal_force_n: float
    decel_g: None
    reason: str


class Moment(TypedDict):
    """The road at a push: the chain as if nothing ended it, and `beyond` where something does."""

    pedal_force_n: float
    decel_g: float
    grip_decel_g: float
    locked: list[Axle]
    rear_lifts: bool
    front_brake_force_n: float
    rear_brake_force_n: float
    front_brake_share: float | None
    adhesion_front: float | None
    adhesion_rear: float | None
    systems: dict[str, SystemMoment]
    beyond: NotRequired[Beyond]


class ForceForDecel(TypedDict):
    """The path's force for a wanted deceleration; null with the `reason`."""

    decel_g: float
    pedal_force_n: float | None
    in_jump: bool
    reason: NotRequired[str]


class DesignControl(TypedDict):
    """One control at the stop a setup is judged at."""

    control_force_n: float
    pedal_travel_mm: NotRequired[float]
    travel_share: NotRequired[float]
    travel_level: NotRequired[Level]
    stroke_share: NotRequired[float]
    stiffness_n_per_mm: NotRequired[float]
    instant_ratio: NotRequired[float]
    rod_angle_deg: NotRequired[float]
    effort_level: NotRequired[Level]


class DesignStop(TypedDict):
    """The stop a setup is judged at; the force null with the `reason` where the brakes never give it."""

    decel_g: float
    pedal_force_n: float | None
    reason: NotRequired[str]
    systems: NotRequired[dict[str, DesignControl]]


class ControlLeft(TypedDict):
    """One control in a failure."""

    contact_travel_mm: float | None
    travel_at_force_limit_mm: float | None
    pedal_travel_mm: float | None


class FailureLeft(TypedDict):
    """What a failure leaves."""

    pedal_force_n: float
    limited_by: LimitedBy
    decel_g: float
    grip_decel_g: float
    best_grip_decel_g: float
    locked: list[Axle]
    reaches_2p44_m_per_s2: bool
    does_not_reach: bool
    friction_fallback: list[str]
    systems: dict[str, ControlLeft]
    yaw_moment_nm: NotRequired[float]
    pulls: NotRequired[Literal["left", "right"]]


class Distribution(TypedDict):
    """The two clauses on sharing for cars."""

    rear_not_above_front: bool
    use_limit_kept: bool


class PathResult(TypedDict):
    """All answers for one control path in one load state."""

    grip_limit_g: float
    first_lock: Lock
    lock_decel_g: float | None
    lock_pedal_force_n: float | None
    grip_efficiency: float | None
    front_lock_decel_g: float | None
    rear_lock_decel_g: float | None
    at_pedal_force: NotRequired[list[Moment | NoMoment]]
    pedal_force_for_decel: NotRequired[list[ForceForDecel]]
    design_stop: DesignStop
    failures: NotRequired[dict[str, FailureLeft]]
    distribution: NotRequired[Distribution]


class LoadStateResult(TypedDict):
    """One load state: axle loads, the deceleration that lifts the rear, and every control path."""

    front_axle_load_n: float
    rear_axle_load_n: float
    rear_lift_decel_g: float | None
    paths: dict[str, PathResult]


class StationResult(TypedDict):
    """What a station is, whatever the push."""

    rolling_radius_mm: float
    side_area_cm2: NotRequired[float]
    effective_radius_mm: NotRequired[float]
    cylinder_area_cm2: NotRequired[float]
    c_star: NotRequired[float]
    drum_sensitivity: NotRequired[float]
    switch_pedal_force_n: NotRequired[float | None]


class PinWindow(TypedDict):
    """Where the pushrod's pin may sit, from the pivot."""

    least_mm: float
    greatest_mm: float
    empty: bool


class LinkageResult(TypedDict):
    """A linkage at rest and at full stroke; `ratio_full` null with the `reason` past a dead point."""

    ratio_rest: float
    rod_angle_rest_deg: float
    ratio_full: NotRequired[float | None]
    ratio_change: NotRequired[float]
    rod_angle_full_deg: NotRequired[float]
    rod_angle_largest_deg: NotRequired[float]
    reason: NotRequired[str]


class SystemResult(TypedDict):
    """What a control, its booster and its cylinder are, whatever the push."""

    pedal_ratio: float
    bottoming_travel_mm: NotRequired[float]
    floor_comes_first: NotRequired[bool]
    pin_window: NotRequired[PinWindow]
    linkage: NotRequired[LinkageResult]
    assist_limit_n: NotRequired[float]
    runout_force_n: NotRequired[float | None]
    runout_pedal_force_n: NotRequired[float | None]
    accumulator_stops: NotRequired[int]
    stations: dict[str, StationResult]


class Brought(TypedDict):
    """What a mend makes worse: the judgement, its new level and figure, in words."""

    id: str
    level: Level
    value: float | None
    sentence: str


class Mend(TypedDict):
    """A mend as it was tried: a label to press, its name while it is looked at, the edits below the setup that it makes; the judgements
    it cures and those it makes worse; what it gives in words; of a valve the nominal `edge` [kPa]."""

    kind: str
    label: str
    name: str
    edits: list[Edit]
    cures: list[str]
    brings: list[Brought]
    words: str
    edge: float | None


class Settle(TypedDict):
    """What would settle a verdict: the act, its minutes, the entries it measures, the share of the doubt that goes, and what the chance
    becomes, the smaller first."""

    act: str
    minutes: int
    paths: list[str]
    settles: float
    low: float
    high: float


class Finding(TypedDict):
    """A judgement in words, with its chance once it was tried."""

    id: str
    rule: str
    kind: str
    level: Level
    sentence: str
    reason: str
    source: str
    value: float | None
    limit: float | None
    unit: str
    links: list[str]
    chance: float | None
    chance_limit: float | None
    sampling_error: float | None
    was_so: bool | None
    settle: list[Settle]
    by_stops: float
    mends: list[Mend]
    state: Literal["tried", "nominal"]


class DoubtedEntry(TypedDict):
    """An entry that was drawn, or is exact because the person says so: dotted path below the setup, its range."""

    path: str
    standing: Standing
    least: float
    most: float


class TrialsRun(TypedDict):
    """How many trials, of which seed."""

    n: int
    seed: int


class Bought(TypedDict):
    """Gains of the links of one side, in the order of the chain, and their product."""

    links: dict[str, float]
    product: float


SideGains = dict[str, Bought]


class PathGains(TypedDict):
    """Gains on one control path: the setup before at the same stop, and at the same push."""

    same_stop: SideGains
    same_push: SideGains


class LoadStateGains(TypedDict):
    """Gains in one load state."""

    paths: dict[str, PathGains]


class GainsResult(TypedDict):
    """What each change bought against the setup as found, at one stop."""

    decel_g: float
    load_states: dict[str, LoadStateGains]


class Needs(TypedDict, total=False):
    """Dotted paths of what is missing: for forces and decelerations, and besides for travel."""

    decel: list[str]
    travel: list[str]


class Result(TypedDict):
    """The result file."""

    format: Literal["kobrix-result"]
    version: Literal[1]
    name: str
    questions: JsonObject
    systems: NotRequired[dict[str, SystemResult]]
    load_states: NotRequired[dict[str, LoadStateResult]]
    needs: NotRequired[Needs]
    unanswered: NotRequired[list[str]]
    answers: NotRequired[Answers]
    findings: NotRequired[list[Finding]]
    doubts: NotRequired[list[DoubtedEntry]]
    trials: NotRequired[TrialsRun]
    gains: NotRequired[GainsResult]


class Percentiles(TypedDict):
    """Percentiles of the trials."""

    p5: float
    p50: float
    p95: float


class SensitiveEntry(TypedDict):
    """What one doubted entry does: alone from one end of its range to the other, and its rank in the trials."""

    path: str
    standing: Standing
    value: float
    least: float
    most: float
    push_rank: float
    push_n: list[float] | None
    travel_rank: float
    travel_mm: list[float] | None


class Sensitivity(TypedDict):
    """Every doubted entry, the one that moves most first."""

    decel_g: float
    push_n: Percentiles | None
    travel_mm: Percentiles | None
    entries: list[SensitiveEntry]
    trials: int

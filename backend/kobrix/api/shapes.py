"""Shapes of what the API gives; the front end's types are generated from them."""

from typing import Any, Literal

from pydantic import BaseModel, ConfigDict

Level = Literal["good", "note", "caution", "danger"]
Lock = Literal["front", "rear", "both", "rear_lift", "none"]
Point = list[float]


class Shape(BaseModel):
    """Base of the shapes: nothing may stand in them that is not named."""

    model_config = ConfigDict(extra="forbid")


class JobLine(Shape):
    """A job in the list."""

    id: int
    name: str
    revision: int
    changed_at: str
    plans: list[str]


class Problem(BaseModel):
    """An error (RFC 9457)."""

    type: str
    title: str
    status: int
    detail: str
    problems: list[str] = []
    field: str | None = None
    revision: int | None = None
    both: list[dict[str, Any]] = []


class StationMoment(Shape):
    """One station at a push."""

    pressure_in_kpa: float
    pressure_kpa: float
    torque_per_wheel_nm: float
    clamp_n: float | None = None
    volume_cm3: float | None = None
    knee_kpa: float | None = None


class SystemMoment(Shape):
    """One system at a push."""

    control_force_n: float
    rod_force_n: float
    booster_out_n: float
    pedal_travel_mm: float | None = None
    piston_travel_mm: float | None = None
    bottomed: bool | None = None
    stations: dict[str, StationMoment]
    breakdown_mm: dict[str, dict[str, float]] | None = None
    instant_ratio: float | None = None
    rod_angle_deg: float | None = None


class Moment(Shape):
    """The road at a push."""

    pedal_force_n: float
    decel_g: float
    grip_decel_g: float
    locked: list[Literal["front", "rear"]]
    rear_lifts: bool
    front_brake_force_n: float
    rear_brake_force_n: float
    front_brake_share: float | None
    adhesion_front: float
    adhesion_rear: float
    systems: dict[str, SystemMoment]


class MendOut(Shape):
    """A mend: a label to press, and the edits it makes below the setup."""

    kind: str
    label: str
    edits: list[dict[str, Any]]


class FindingOut(Shape):
    """A judgement in words."""

    id: str
    level: Level
    sentence: str
    reason: str
    source: str
    value: float | None
    limit: float | None
    mend: MendOut | None


class PedalParts(Shape):
    """The pedal's dimensions."""

    kind: Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"]
    linked: bool
    pivot_to_pad_mm: float
    pivot_to_pin_mm: float
    ratio: float
    efficiency: float
    available_mm: float | None
    free_play_mm: float


class BoosterParts(Shape):
    """The booster's figures."""

    kind: Literal["vacuum", "hydraulic", "electric"]
    gain: float
    limit_n: float
    cut_in_n: float


class ChamberParts(Shape):
    """One chamber: its circuit, its bore, and its share of the rod's force."""

    circuit: str
    bore_mm: float
    bore_name: str | None
    area_cm2: float
    share: float


class CylinderParts(Shape):
    """The cylinder's dimensions."""

    kind: Literal["single", "tandem", "twin"]
    bore_mm: float
    bore_name: str | None
    area_cm2: float
    efficiency: float
    stroke_mm: float | None
    circuits: list[str]
    chambers: list[ChamberParts]


class DiscParts(Shape):
    """A disc brake's dimensions."""

    fixed: bool
    pistons_mm: list[float]
    calipers: int
    rotor_diameter_mm: float
    pad_height_mm: float
    effective_radius_mm: float
    area_cm2: float
    efficiency: float
    friction: float
    vented: bool
    thickness_mm: float | None


class DrumParts(Shape):
    """A drum brake's dimensions."""

    wheel_cylinder_mm: float
    drum_diameter_mm: float
    shoe_factor: float
    efficiency: float
    area_cm2: float
    threshold_kpa: float


class ValveParts(Shape):
    """A proportioning valve."""

    knee_kpa: float
    slope: float


class StationParts(Shape):
    """A station's parts."""

    name: str
    axle: Literal["front", "rear"]
    wheels: int
    tyre: str | None
    rolling_radius_mm: float
    rim_mm: float | None
    hoses: list[str]
    valve: ValveParts | None
    valve_place: int | None
    residual_kpa: float | None
    disc: DiscParts | None
    drum: DrumParts | None


class Parts(Shape):
    """A setup's parts, as a screen draws them."""

    pedal: PedalParts
    booster: BoosterParts | None
    cylinder: CylinderParts
    stations: list[StationParts]


class LineView(Shape):
    """One control on a path: its force is the path's times `ratio`."""

    system: str
    ratio: float
    parts: Parts


class StationCurves(Shape):
    """One station over the range of pushes."""

    inlet_kpa: list[float]
    outlet_kpa: list[float]
    torque_nm: list[float]
    clamp_n: list[float] | None


class LineCurves(Shape):
    """One control over the range of pushes."""

    rod_n: list[float]
    out_n: list[float]
    stations: dict[str, StationCurves]
    travel_mm: list[float] | None
    piston_mm: list[float] | None
    causes_mm: dict[str, list[float]]
    ratio: list[float] | None
    rod_angle_deg: list[float] | None


class Curves(Shape):
    """The whole range of pushes: one figure a list, all of one length."""

    push_n: list[float]
    front_n: list[float]
    rear_n: list[float]
    decel_g: list[float]
    grip_decel_g: list[float]
    adhesion_front: list[float]
    adhesion_rear: list[float]
    front_locked: list[float]
    rear_locked: list[float]
    ideal_front_share: list[float]
    lines: dict[str, LineCurves]


class Balance(Shape):
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


class FailureView(Shape):
    """What a lost circuit or booster leaves."""

    name: str
    pedal_force_n: float
    limited_by: Literal["force", "travel", "chamber", "contact", "all_lost"]
    best_grip_decel_g: float
    reaches_2p44_m_per_s2: bool
    pedal_travel_mm: float | None


class LockView(Shape):
    """The first lock or lift."""

    push_n: float
    decel_g: float
    front_n: float
    rear_n: float


class StateView(Shape):
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


class Against(Shape):
    """A setup against the one as found, at the same stop."""

    lighter_percent: float
    longer_mm: float | None


class BoreState(Shape):
    """The wanted stop with another bore."""

    push_n: float
    travel_mm: float | None


class BoreView(Shape):
    """A standard bore in place of the setup's own, solved at the wanted stop in each load state; None where it is not reached."""

    name: str
    bore_mm: float
    states: list[BoreState | None]


class PathView(Shape):
    """One control path: each control alone, or all together."""

    name: str
    title: str
    system: str
    parts: Parts
    lines: list[LineView]
    states: list[StateView]
    against_found: list[Against | None]
    bores: list[BoreView]


class FailureName(Shape):
    """A failure that can be drawn."""

    name: str
    words: str


class Solved(Shape):
    """A setup that is complete enough to be followed: its control paths, the one of all controls last."""

    paths: list[PathView]
    failures: list[FailureName]


class Failed(Shape):
    """The range of pushes with a failure in it."""

    name: str
    words: str
    curves: Curves


class WorkingStep(Shape):
    """One step: the formula, the same with its numbers, what it uses, and the fields its numbers come from."""

    id: str
    formula: str
    numbers: str
    value: float
    unit: str
    source: str
    uses: list[str]
    origins: list[str]


class SetupView(Shape):
    """A setup on the screen."""

    key: str
    name: str
    needs: dict[str, list[str]]
    level: Level | None
    headline: str
    findings: list[FindingOut]
    solved: Solved | None


class EffortBand(Shape):
    """Comfort and limits of the push."""

    low: float
    good: float
    caution: float
    danger: float


class TravelBand(Shape):
    """Limits of the share of the pedal's room."""

    good: float
    caution: float
    danger: float


class Bore(Shape):
    """A standard bore."""

    name: str
    bore_mm: float


class Measured(Shape):
    """How much of the job as found is measured, and how much of it is in doubt."""

    done: int
    total: int
    doubted: int


class JobView(Shape):
    """Every setup of a job, at one wanted stop."""

    measured: Measured

    wanted_decel_g: float | None
    push_range_n: float
    force_limit_n: float
    effort: EffortBand | None
    travel: TravelBand
    standard_bores: list[Bore]
    setups: list[SetupView]


class JobOut(Shape):
    """A job as stored, with what a screen shows of it."""

    id: int
    name: str
    revision: int
    changed_at: str
    can_undo: bool
    can_redo: bool
    document: dict[str, Any]
    view: JobView


class HeatOut(Shape):
    """One rotor in the series; `peaks_c` null with the `reason`."""

    peaks_c: list[float] | None
    reason: str | None = None
    starts_c: list[float] | None = None
    last_cooled_c: float | None = None
    rotor_energy_j: float | None = None
    stop_energy_j: float | None = None
    axle_share: float | None = None
    single_stop_rise_k: float | None = None
    fluid_estimate_c: float | None = None
    wet_boiling_c: float | None = None
    fluid_margin_k: float | None = None

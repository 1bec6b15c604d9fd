"""Shapes of the answers to what a file may ask besides: declared once, for the result file, the API and the screen."""

from typing_extensions import TypedDict


class BoreAnswer(TypedDict, total=False):
    """Bore for an effort."""

    bore_mm: float | None
    reason: str


class RatioAnswer(TypedDict, total=False):
    """Pedal ratio for an effort, and where its pin sits."""

    ratio: float | None
    pivot_to_pin_mm: float | None
    pin_move_mm: float | None
    reason: str


class RearAreaAnswer(TypedDict, total=False):
    """Rear piston area for a share; of a drum the wheel cylinder's."""

    rear_side_area_cm2: float | None
    rear_cylinder_area_cm2: float
    reason: str


class RearRotorAnswer(TypedDict, total=False):
    """Rear rotor or drum for a share."""

    rear_rotor_diameter_mm: float | None
    rear_drum_diameter_mm: float
    reason: str


class BarAnswer(TypedDict, total=False):
    """The bar's share for a share of the braking."""

    bar_front_share: float | None
    reason: str


class KneeAnswer(TypedDict, total=False):
    """The greatest knee that keeps the front first."""

    knee_kpa: float | None
    reason: str | None


class InverseAnswers(TypedDict, total=False):
    """What a part would have to be."""

    bore_for_effort: BoreAnswer
    ratio_for_effort: RatioAnswer
    rear_area_for_share: RearAreaAnswer
    rear_rotor_for_share: RearRotorAnswer
    bar_for_share: BarAnswer
    knee_for_lock_order: KneeAnswer


class TrappedAirAnswer(TypedDict, total=False):
    """Air that explains a measured pedal."""

    trapped_air_cm3: float | None
    reason: str


class StopAnswer(TypedDict):
    """A stopping distance, and the longest that is allowed."""

    distance_m: float
    limit_m: float


class MfddAnswer(TypedDict):
    """Mean fully developed deceleration."""

    mfdd_m_per_s2: float


class NominalAnswer(TypedDict, total=False):
    """A measured stop as from the nominal speed."""

    distance_m: float | None
    reason: str


class RotorHeat(TypedDict, total=False):
    """One rotor in a series of slow-downs; `peaks_c` null with the `reason`."""

    peaks_c: list[float] | None
    reason: str
    starts_c: list[float]
    last_cooled_c: float
    stop_energy_j: float
    axle_share: float
    rotor_energy_j: float
    single_stop_rise_k: float
    fluid_estimate_c: float
    wet_boiling_c: float
    fluid_margin_k: float
    friction_at_start: list[float]


class ParkingAnswer(TypedDict):
    """Grades a parking brake holds; null: any."""

    torque_grade: float | None
    grip_grade_nose_up: float | None
    grip_grade_nose_down: float | None
    holds_grade: float | None
    holds_usual_test: bool


class ReservoirAnswer(TypedDict):
    """What worn pads take from the reservoir."""

    wear_cm3: dict[str, float]
    least_reservoir_cm3: float


class CgHeightAnswer(TypedDict, total=False):
    """Height of the centre of gravity."""

    cg_height_mm: float | None
    reason: str


class NoseOverAnswer(TypedDict):
    """When a tail-dragger goes over its nose."""

    nose_over_g: float


class WorkingStep(TypedDict):
    """One step of a figure's working: the formula, the same with its numbers, and what it uses."""

    id: str
    formula: str
    numbers: str
    value: float
    unit: str
    source: str
    uses: list[str]


class WorkingAnswer(TypedDict, total=False):
    """Every step from foot to road."""

    steps: list[WorkingStep] | None
    reason: str


class ToleranceAnswer(TypedDict, total=False):
    """How sure the effort for a stop is."""

    p5_n: float
    p50_n: float | None
    p95_n: float
    sd_n: float
    first_order_sd_n: float
    rank: dict[str, float]
    rear_first_probability: float
    effort_over_limit_probability: float
    travel_over_limit_probability: float
    never_reached_probability: float
    reason: str


class Answers(TypedDict, total=False):
    """Answers to what was asked besides."""

    inverse: InverseAnswers
    trapped_air: TrappedAirAnswer
    heat: RotorHeat
    parking: ParkingAnswer
    working: WorkingAnswer
    tolerance: ToleranceAnswer
    stop: StopAnswer
    mfdd: MfddAnswer
    nominal: NominalAnswer
    reservoir: ReservoirAnswer
    cg_height: CgHeightAnswer
    nose_over: NoseOverAnswer

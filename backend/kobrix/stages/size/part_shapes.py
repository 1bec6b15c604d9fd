"""The parts of a setup as Size shows them along the line: pedal, booster, cylinder, brakes, valves."""

from typing import Literal

from typing_extensions import TypedDict


class PedalParts(TypedDict):
    """The pedal's dimensions."""

    kind: Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"]
    linked: bool
    pivot_to_pad_mm: float
    pivot_to_pin_mm: float
    ratio: float
    efficiency: float
    available_mm: float | None
    free_play_mm: float


class BoosterParts(TypedDict):
    """The booster's figures."""

    kind: Literal["vacuum", "hydraulic", "electric"]
    gain: float
    limit_n: float
    cut_in_n: float


class ChamberParts(TypedDict):
    """One chamber: its circuit, its bore, and its share of the rod's force."""

    circuit: str
    bore_mm: float
    bore_name: str | None
    area_cm2: float
    share: float


class CylinderParts(TypedDict):
    """The cylinder's dimensions."""

    kind: Literal["single", "tandem", "twin"]
    bore_mm: float
    bore_name: str | None
    area_cm2: float
    efficiency: float
    stroke_mm: float | None
    circuits: list[str]
    chambers: list[ChamberParts]
    crossed: bool
    """Whether each circuit feeds a wheel of either axle: a diagonal split."""


class DiscParts(TypedDict):
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


class DrumParts(TypedDict):
    """A drum brake's dimensions."""

    wheel_cylinder_mm: float
    drum_diameter_mm: float
    shoe_factor: float
    efficiency: float
    area_cm2: float
    threshold_kpa: float


class ValveParts(TypedDict):
    """A proportioning valve."""

    knee_kpa: float
    slope: float


class StationParts(TypedDict):
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


class Parts(TypedDict):
    """A setup's parts, as a screen draws them."""

    pedal: PedalParts
    booster: BoosterParts | None
    cylinder: CylinderParts
    stations: list[StationParts]

"""A station in the file: its brake, the devices before it and its lines."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.core.physics import tyres
from kobrix.fileformat.base import Name, Part, Sparse, q
from kobrix.fileformat.quantities import Typed


class Friction(Sparse):
    """Friction of pads or linings: cold, and hot and wet where known (else cold stands in, and the result says so)."""

    cold: Annotated[Typed | None, q("friction", 0.05, 1.2, "usual pads lie between 0.25 and 0.55", doubt="friction")] = None
    hot: Annotated[Typed | None, q("friction", 0.01, 1.2, doubt="friction")] = None
    wet: Annotated[Typed | None, q("friction", 0.01, 1.2, doubt="friction")] = None


class ShoeFactor(Part):
    """Shoe factor C* given by the maker: cold, and hot and wet where known."""

    cold: Annotated[Typed | None, q("c_star", 0.2, 12, doubt="c_star")] = None
    hot: Annotated[Typed | None, q("c_star", 0.05, 12, doubt="c_star")] = None
    wet: Annotated[Typed | None, q("c_star", 0.05, 12, doubt="c_star")] = None


class DiscBrake(Part):
    """A disc brake of one wheel. A fixed caliper's pistons are those of ONE side, a floating one's are all."""

    kind: Literal["disc"]
    caliper: Literal["fixed", "floating"] | None = None
    pistons_mm: list[Annotated[Typed, q("pistons_mm", 5, 150)]] | None = Field(None, min_length=1, max_length=12)
    calipers: Annotated[int, Field(ge=1, le=4)] = 1
    rotor_diameter_mm: Annotated[Typed | None, q("rotor_diameter_mm", 80, 600, doubt="rotor_diameter")] = None
    pad_height_mm: Annotated[Typed | None, q("pad_height_mm", 5, 200, doubt="pad_height")] = None
    edge_inset_mm: Annotated[Typed | None, q("edge_inset_mm", 0, 30, "", "disc.edge_inset")] = None
    radius_rule: Literal["uniform_wear", "uniform_pressure"] = "uniform_wear"
    friction: Friction | None = None
    efficiency: Annotated[Typed | None, q("efficiency", 0.3, 1, "friction never adds force", "disc.efficiency")] = None
    threshold_kpa: Annotated[Typed | None, q("threshold_kpa", 0, 3000, "", "disc.threshold")] = None
    clearance_mm: Annotated[Typed | None, q("clearance_mm", 0, 3, "", "disc.clearance")] = None
    knock_back_mm: Annotated[Typed | None, q("knock_back_mm", 0, 5, "", "disc.knock_back")] = None
    caliper_give_um_per_mpa: Annotated[Typed | None, q("caliper_give_um_per_mpa", 0, 500, "left out: 7.5 fixed, 12 floating")] = (
        None
    )
    caliper_volume_cm3_per_mpa: Annotated[Typed | None, q("caliper_volume_cm3_per_mpa", 0, 10)] = None
    pad_give_um_per_mpa: Annotated[Typed | None, q("pad_give_um_per_mpa", 0, 500, "", "disc.pad_give")] = None
    rotor_mass_kg: Annotated[Typed | None, q("rotor_mass_kg", 0.1, 60)] = None
    rotor_cooling_area_cm2: Annotated[Typed | None, q("rotor_cooling_area_cm2", 10, 30000)] = None
    rotor_vented: bool | None = None
    rotors_per_wheel: Annotated[int, Field(ge=1, le=2)] = 1
    rotor_thickness_mm: Annotated[Typed | None, q("rotor_thickness_mm", 2, 80)] = None
    rotor_least_thickness_mm: Annotated[Typed | None, q("rotor_least_thickness_mm", 1, 80)] = None
    pad_wear_mm: Annotated[Typed | None, q("pad_wear_mm", 0, 30)] = None
    pad_most_c: Annotated[Typed | None, q("pad_most_c", 50, 1500, "the most its maker states")] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("pad_height_mm", "rotor_diameter_mm", "the pad must fit between the rotor's edge and its centre", 0.5)
        return self


class DrumBrake(Part):
    """A drum brake of one wheel: by the type of its shoes and the lining's friction, or by a given C*."""

    kind: Literal["drum"]
    wheel_cylinder_mm: Annotated[Typed | None, q("wheel_cylinder_mm", 5, 80)] = None
    drum_diameter_mm: Annotated[Typed | None, q("drum_diameter_mm", 60, 600)] = None
    shoes: Literal["leading_trailing", "two_leading", "duo_servo"] | None = None
    friction: Friction | None = None
    shoe_k: Annotated[Typed | None, q("shoe_k", 0.4, 1, "", "drum.shoe_k")] = None
    c_star: Annotated[Typed, q("c_star", 0.2, 12, doubt="c_star")] | ShoeFactor | None = None
    efficiency: Annotated[Typed | None, q("efficiency", 0.3, 1, "friction never adds force", "drum.efficiency")] = None
    threshold_kpa: Annotated[Typed | None, q("threshold_kpa", 0, 3000, "", "drum.threshold")] = None
    shoe_clearance_mm: Annotated[Typed | None, q("shoe_clearance_mm", 0, 5, "", "drum.shoe_clearance")] = None
    give_cm3_per_mpa: Annotated[Typed | None, q("give_cm3_per_mpa", 0, 10, "", "drum.give")] = None
    cup_expanders: bool | None = None


Brake = Annotated[DiscBrake | DrumBrake, Field(discriminator="kind")]


class MeteringValve(Part):
    """Holds the front back until the rear shoes have moved."""

    kind: Literal["metering"]
    hold_kpa: Annotated[Typed, q("hold_kpa", 0, 20000)]
    blend_kpa: Annotated[Typed, q("blend_kpa", 0, 20000, above=True)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("hold_kpa", "blend_kpa", "it holds before it blends")
        return self


class ProportioningValve(Part):
    """Passes all up to the knee and a share of what is above it."""

    kind: Literal["proportioning"]
    knee_kpa: Annotated[Typed, q("knee_kpa", 0, 30000, doubt="valve")]
    slope: Annotated[Typed | None, q("slope", 0, 1, "above 1 it would add pressure", "valve.slope")] = None
    bypass: bool = False
    adjustable: bool = False


class LimitingValve(Part):
    """Lets the pressure rise to a setting and no further."""

    kind: Literal["limiting", "regulator"]
    setting_kpa: Annotated[Typed, q("setting_kpa", 0, 30000, above=True, doubt="valve")]
    adjustable: bool = False


class LoadSensingValve(Part):
    """A proportioning valve whose knee follows the rear axle's load."""

    kind: Literal["load_sensing"]
    knee_kpa: Annotated[Typed, q("knee_kpa", 0, 30000, doubt="valve")]
    coefficient_kpa_per_n: Annotated[Typed, q("coefficient_kpa_per_n", 0, 100)]
    reference_rear_load_n: Annotated[Typed, q("reference_rear_load_n", 0, 1e6)]
    slope: Annotated[Typed, q("slope", 0, 1, "above 1 it would add pressure")]


class DecelSensingValve(Part):
    """A proportioning valve that begins to work at a deceleration."""

    kind: Literal["deceleration_sensing"]
    decel_g: Annotated[Typed, q("decel_g", 0, 3, above=True, doubt="valve_decel")]
    slope: Annotated[Typed, q("slope", 0, 1, "above 1 it would add pressure")]


class PassiveDevice(Part):
    """A device that leaves the pressure as it is while the pedal is pressed."""

    kind: Literal["residual", "line_lock", "park_valve", "switch"]
    pressure_kpa: Annotated[Typed | None, q("pressure_kpa", 0, 5000)] = None


Device = Annotated[
    MeteringValve | ProportioningValve | LimitingValve | LoadSensingValve | DecelSensingValve | PassiveDevice,
    Field(discriminator="kind"),
]


class Hose(Part):
    """Flexible hoses of one kind, each of the length; the count is of the whole station."""

    kind: Literal["rubber", "braided"] | None = None
    coefficient_cm3_per_m_mpa: Annotated[
        Typed | None, q("coefficient_cm3_per_m_mpa", 0, 5, "left out: 0.12 rubber, 0.04 braided", doubt="hose_growth")
    ] = None
    length_mm: Annotated[Typed | None, q("length_mm", 0, 20000, doubt="hose_length")] = None
    count: Annotated[int, Field(ge=0, le=12)] = 1
    age_years: Annotated[Typed | None, q("age_years", 0, 100)] = None


class HardLine(Part):
    """Hard line of one kind, the length of the whole station."""

    material: Literal["steel", "copper_nickel", "stainless"] | None = None
    youngs_gpa: Annotated[Typed | None, q("youngs_gpa", 1, 1000)] = None
    poisson: Annotated[Typed | None, q("poisson", 0, 0.5)] = None
    length_mm: Annotated[Typed | None, q("length_mm", 0, 50000, doubt="hard_line_length")] = None
    outer_mm: Annotated[Typed | None, q("outer_mm", 1, 30, "", "pipe.outer")] = None
    wall_mm: Annotated[Typed | None, q("wall_mm", 0.1, 10, "", "pipe.wall")] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("wall_mm", "outer_mm", "the line must have a bore", 0.5)
        return self


class Lines(Part):
    """All lines of a station, and what is in them. Left out lists mean there are none of that kind."""

    hoses: list[Hose] = Field(default=[], max_length=12)
    hard_lines: list[HardLine] = Field(default=[], max_length=24)
    fluid_volume_cm3: Annotated[
        Typed | None, q("fluid_volume_cm3", 0, 5000, "left out: lines, hoses and what stands behind the pistons")
    ] = None
    air_cm3: Annotated[Typed | None, q("air_cm3", 0, 500, "left out: none")] = None
    bulk_modulus_gpa: Annotated[Typed | None, q("bulk_modulus_gpa", 0.1, 5, "left out: 1.8, silicone 1.0")] = None


class Station(Part):
    """The wheel brakes of one kind on one axle, with the lines and valves that lead to them."""

    name: Name
    axle: Literal["front", "rear"]
    wheels: Annotated[int, Field(ge=1, le=2)] = 2
    side: Literal["left", "right"] | None = None
    tyre: str | None = Field(None, max_length=40)
    rolling_radius_mm: Annotated[Typed | None, q("rolling_radius_mm", 50, 1000, doubt="rolling_radius")] = None
    brake: Brake
    devices: list[Device] = Field(default=[], max_length=8)
    lines: Lines | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        if self.tyre:
            try:
                tyres.from_code(self.tyre)
            except BadEntry as refused:
                raise PydanticCustomError("relation", "{sentence}", {"sentence": str(refused), "field": "tyre"}) from None
        return self

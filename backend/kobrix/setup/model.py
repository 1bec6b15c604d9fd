"""The setup file as models: every name carries its unit; anything with a stated default may be left out.

A setup may also be incomplete: what is missing is None here, and each answer says what it needs.
"""

from dataclasses import dataclass
from typing import Annotated, Literal, Self

from pydantic import BaseModel, ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core import tyres
from kobrix.core.errors import BadEntry
from kobrix.setup.fields import Quantity, with_unit
from kobrix.setup.quantities import Typed, label_of, value_of

Name = Annotated[str, Field(min_length=1, max_length=80)]


def _q(name: str, least: float, most: float, why: str = "", assumed: str | None = None, above: bool = False) -> Quantity:
    return Quantity(name, least, most, why, assumed, above)


class Part(BaseModel):
    """Base of every part of the file: unknown names are refused, entries stay as typed."""

    model_config = ConfigDict(extra="forbid", use_attribute_docstrings=True)

    def below(self, small: str, large: str, why: str, share: float = 1.0) -> None:
        """Refuse a `small` field that is not below `share` of the `large` one, when both are given."""
        a, b = getattr(self, small), getattr(self, large)
        if a is None or b is None or value_of(a, small) < value_of(b, large) * share:
            return
        limit = with_unit(value_of(b, large) * share, large)
        sentence = str(BadEntry(label_of(small), f"{a!r}" if isinstance(a, str) else with_unit(a, small),
                                f"below {limit} ({label_of(large)})", why))  # fmt: skip
        raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": small})


def _unique(names: list[str], field: str, what: str) -> None:
    twice = sorted({n for n in names if names.count(n) > 1})
    if twice:
        sentence = str(BadEntry(field, f"{twice[0]!r} twice", f"a name of its own for each {what}"))
        raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": field})


class LoadState(Part):
    """The vehicle as it stands in one state of load."""

    name: Name
    mass_kg: Annotated[
        Typed | None, _q("mass_kg", 20, 60000, "a lighter or heavier road vehicle is not one this model is for")
    ] = None
    front_share: Annotated[
        Typed | None, _q("front_share", 0, 1, "it is the share of the weight on the front wheels", above=True)
    ] = None
    cg_height_mm: Annotated[Typed | None, _q("cg_height_mm", 50, 3000, "it is measured from the ground")] = None


class Vehicle(Part):
    """What the brakes stop."""

    kind: Literal["car", "motorcycle", "aircraft"] = "car"
    wheelbase_mm: Annotated[Typed | None, _q("wheelbase_mm", 300, 12000)] = None
    grip_front: Annotated[Typed | None, _q("grip_front", 0.05, 2.5, "a road tyre on dry asphalt gives about 0.9")] = None
    grip_rear: Annotated[Typed | None, _q("grip_rear", 0.05, 2.5, "a road tyre on dry asphalt gives about 0.9")] = None
    load_states: list[LoadState] = Field(default=[], max_length=12)
    sliding_factor: Annotated[
        Typed | None, _q("sliding_factor", 0.3, 1, "a locked tyre grips less than its peak", "vehicle.sliding_factor")
    ] = None
    rotating_share: Annotated[Typed | None, _q("rotating_share", 0, 0.5, "", "vehicle.rotating_share")] = None
    wheels: dict[Literal["front", "rear"], Annotated[int, Field(ge=0, le=2)]] | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        _unique([s.name for s in self.load_states], "load_states", "load state")
        return self


class Linkage(Part):
    """Pedal and cylinder in the plane: the pivot is the origin, the pin's radius is the control's `pivot_to_pin_mm`."""

    rest_angle_deg: Annotated[Typed, _q("rest_angle_deg", -360, 360)]
    sense: Literal[1, -1] = 1
    bore_point_mm: Annotated[list[Annotated[Typed, _q("bore_point_mm", -2000, 2000)]], Field(min_length=2, max_length=2)]
    bore_direction_deg: Annotated[Typed, _q("bore_direction_deg", -360, 360)]
    rod_mm: Annotated[Typed, _q("rod_mm", 10, 1500)]


class Control(Part):
    """The pedal: pivot to pad centre, pivot to pushrod pin, and the room it has."""

    kind: Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"] = "car_pedal"
    pivot_to_pad_mm: Annotated[Typed | None, _q("pivot_to_pad_mm", 20, 800)] = None
    pivot_to_pin_mm: Annotated[Typed | None, _q("pivot_to_pin_mm", 3, 800)] = None
    available_travel_mm: Annotated[Typed | None, _q("available_travel_mm", 1, 500)] = None
    free_play_mm: Annotated[Typed | None, _q("free_play_mm", 0, 100, "", "control.free_play")] = None
    efficiency: Annotated[Typed | None, _q("efficiency", 0.3, 1, "friction never adds force", "control.efficiency")] = None
    return_force_n: Annotated[Typed | None, _q("return_force_n", 0, 500, "", "control.return_force")] = None
    mount_stiffness_n_per_mm: Annotated[Typed | None, _q("mount_stiffness_n_per_mm", 50, 1e7, "left out: it does not yield")] = (
        None
    )
    rod_retained: bool | None = None
    force_limit_n: Annotated[Typed | None, _q("force_limit_n", 1, 5000, "the most that is asked of a person here")] = None
    linkage: Linkage | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("pivot_to_pin_mm", "pivot_to_pad_mm", "the pin sits between the pivot and the pad")
        self.below("free_play_mm", "available_travel_mm", "free play is part of the room")
        return self


class Booster(Part):
    """The booster: what helps, how much, from when, and where it runs out."""

    kind: Literal["vacuum", "hydraulic", "electric"]
    diaphragms_mm: list[Annotated[Typed, _q("diaphragms_mm", 50, 500)]] | None = Field(None, max_length=4)
    nominal_diaphragms_mm: list[Annotated[Typed, _q("nominal_diaphragms_mm", 50, 500)]] | None = Field(None, max_length=4)
    vacuum_kpa: Annotated[
        Typed | None, _q("vacuum_kpa", 0, 101.325, "no vacuum is deeper than the air is heavy", "booster.vacuum")
    ] = None
    efficiency: Annotated[Typed | None, _q("efficiency", 0.3, 1, "", "booster.efficiency")] = None
    pump_pressure_kpa: Annotated[Typed | None, _q("pump_pressure_kpa", 100, 30000)] = None
    piston_area_cm2: Annotated[Typed | None, _q("piston_area_cm2", 0.1, 100)] = None
    limit_n: Annotated[Typed | None, _q("limit_n", 0, 50000)] = None
    gain: Annotated[Typed | None, _q("gain", 1, 50, "below 1 it would hinder")] = None
    cut_in_n: Annotated[Typed | None, _q("cut_in_n", 0, 1000, "", "booster.cut_in")] = None
    jump_in_n: Annotated[Typed | None, _q("jump_in_n", 0, 5000, "", "booster.jump_in")] = None
    lost_travel_mm: Annotated[Typed | None, _q("lost_travel_mm", 0, 20, "", "booster.lost_travel")] = None
    return_spring_n: Annotated[Typed | None, _q("return_spring_n", 0, 1000, "", "booster.return_spring")] = None
    accumulator: "Accumulator | None" = None


class Accumulator(Part):
    """Gas-filled reserve of a hydraulic booster, gauge pressures."""

    volume_cm3: Annotated[Typed, _q("volume_cm3", 1, 20000)]
    precharge_kpa: Annotated[Typed, _q("precharge_kpa", 0, 40000)]
    full_kpa: Annotated[Typed, _q("full_kpa", 0, 40000, above=True)]
    least_kpa: Annotated[Typed, _q("least_kpa", 0, 40000)]
    per_stop_cm3: Annotated[Typed, _q("per_stop_cm3", 0, 5000, above=True)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("precharge_kpa", "full_kpa", "a full reserve is above its gas")
        self.below("least_kpa", "full_kpa", "it is emptied from full to least")
        return self


class Feed(Part):
    """What a circuit feeds: a station and how many of its wheels."""

    station: Name
    wheels: Annotated[int, Field(ge=1, le=2)]


class Circuit(Part):
    """One circuit by name, and what it feeds."""

    name: Name
    feeds: list[Feed] = Field(min_length=1, max_length=4)


class Bored(Part):
    """A bore with a stroke."""

    bore_mm: Annotated[Typed | None, _q("bore_mm", 5, 80, "master cylinders of vehicles lie well inside this range")] = None
    stroke_mm: Annotated[Typed | None, _q("stroke_mm", 2, 150)] = None
    lost_mm: Annotated[Typed | None, _q("lost_mm", 0, 20, "", "cylinder.lost")] = None


class CylinderPart(Part):
    """What every master cylinder has."""

    efficiency: Annotated[Typed | None, _q("efficiency", 0.3, 1, "friction never adds force", "cylinder.efficiency")] = None
    spring_n: Annotated[Typed | None, _q("spring_n", 0, 1000, "", "cylinder.spring")] = None
    height_above_brakes_mm: Annotated[Typed | None, _q("height_above_brakes_mm", -2000, 2000)] = None
    reservoir_cm3: dict[str, Annotated[Typed, _q("reservoir_cm3", 0, 5000)]] | None = None


class SingleCylinder(CylinderPart, Bored):
    """One chamber for all brakes: one leak loses them all."""

    kind: Literal["single"]


class TandemCylinder(CylinderPart, Bored):
    """Two chambers in one bore: the same pressure, strokes add."""

    kind: Literal["tandem"]
    lost_primary_mm: Annotated[Typed | None, _q("lost_primary_mm", 0, 20, "", "cylinder.lost")] = None
    lost_secondary_mm: Annotated[Typed | None, _q("lost_secondary_mm", 0, 20, "", "cylinder.lost")] = None
    primary_share: Annotated[Typed | None, _q("primary_share", 0.1, 0.9, "", "cylinder.primary_share")] = None
    primary_feeds: Name | None = None
    circuits: Literal["front_rear", "diagonal"] | list[Circuit] = "front_rear"

    @model_validator(mode="after")
    def _check(self) -> Self:
        if isinstance(self.circuits, list):
            if len(self.circuits) != 2:
                sentence = str(BadEntry("circuits", f"{len(self.circuits)} circuits", "two, one for each chamber"))
                raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "circuits"})
            _unique([c.name for c in self.circuits], "circuits", "circuit")
        return self


class BalanceBar(Part):
    """How a bar shares the force: the front's share, or the bearing's distance to each clevis."""

    front_share: Annotated[Typed | None, _q("front_share", 0.05, 0.95, "a bar cannot give one cylinder nearly all")] = None
    pivot_to_front_clevis_mm: Annotated[Typed | None, _q("pivot_to_front_clevis_mm", 1, 300)] = None
    pivot_to_rear_clevis_mm: Annotated[Typed | None, _q("pivot_to_rear_clevis_mm", 1, 300)] = None
    stop_mm: Annotated[Typed | None, _q("stop_mm", 0, 100)] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        clevises = (self.pivot_to_front_clevis_mm, self.pivot_to_rear_clevis_mm)
        if (self.front_share is None) == all(c is None for c in clevises) or clevises.count(None) == 1:
            sentence = str(BadEntry("bar", "neither or both", "the front's share, or the distances to both clevises"))
            raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "front_share"})
        return self


class TwinCylinder(CylinderPart):
    """Two cylinders on a balance bar; the one named front feeds the front."""

    kind: Literal["twin"]
    front: Bored
    rear: Bored
    bar: BalanceBar
    stop_mm: Annotated[Typed | None, _q("stop_mm", 0, 100)] = None


Cylinder = Annotated[SingleCylinder | TandemCylinder | TwinCylinder, Field(discriminator="kind")]


class Friction(Part):
    """Friction of pads or linings: cold, and hot and wet where known (else cold stands in, and the result says so)."""

    cold: Annotated[Typed | None, _q("friction", 0.05, 1.2, "usual pads lie between 0.25 and 0.55")] = None
    hot: Annotated[Typed | None, _q("friction", 0.01, 1.2)] = None
    wet: Annotated[Typed | None, _q("friction", 0.01, 1.2)] = None


class ShoeFactor(Part):
    """Shoe factor C* given by the maker: cold, and hot and wet where known."""

    cold: Annotated[Typed | None, _q("c_star", 0.2, 12)] = None
    hot: Annotated[Typed | None, _q("c_star", 0.05, 12)] = None
    wet: Annotated[Typed | None, _q("c_star", 0.05, 12)] = None


class DiscBrake(Part):
    """A disc brake of one wheel. A fixed caliper's pistons are those of ONE side, a floating one's are all."""

    kind: Literal["disc"]
    caliper: Literal["fixed", "floating"] | None = None
    pistons_mm: list[Annotated[Typed, _q("pistons_mm", 5, 150)]] | None = Field(None, min_length=1, max_length=12)
    calipers: Annotated[int, Field(ge=1, le=4)] = 1
    rotor_diameter_mm: Annotated[Typed | None, _q("rotor_diameter_mm", 80, 600)] = None
    pad_height_mm: Annotated[Typed | None, _q("pad_height_mm", 5, 200)] = None
    edge_inset_mm: Annotated[Typed | None, _q("edge_inset_mm", 0, 30, "", "disc.edge_inset")] = None
    radius_rule: Literal["uniform_wear", "uniform_pressure"] = "uniform_wear"
    friction: Friction | None = None
    efficiency: Annotated[Typed | None, _q("efficiency", 0.3, 1, "friction never adds force", "disc.efficiency")] = None
    threshold_kpa: Annotated[Typed | None, _q("threshold_kpa", 0, 3000, "", "disc.threshold")] = None
    clearance_mm: Annotated[Typed | None, _q("clearance_mm", 0, 3, "", "disc.clearance")] = None
    knock_back_mm: Annotated[Typed | None, _q("knock_back_mm", 0, 5, "", "disc.knock_back")] = None
    caliper_give_um_per_mpa: Annotated[
        Typed | None, _q("caliper_give_um_per_mpa", 0, 500, "left out: 7.5 fixed, 12 floating")
    ] = None
    caliper_volume_cm3_per_mpa: Annotated[Typed | None, _q("caliper_volume_cm3_per_mpa", 0, 10)] = None
    pad_give_um_per_mpa: Annotated[Typed | None, _q("pad_give_um_per_mpa", 0, 500, "", "disc.pad_give")] = None
    rotor_mass_kg: Annotated[Typed | None, _q("rotor_mass_kg", 0.1, 60)] = None
    rotor_cooling_area_cm2: Annotated[Typed | None, _q("rotor_cooling_area_cm2", 10, 30000)] = None
    rotor_vented: bool | None = None
    rotors_per_wheel: Annotated[int, Field(ge=1, le=2)] = 1
    rotor_thickness_mm: Annotated[Typed | None, _q("rotor_thickness_mm", 2, 80)] = None
    rotor_least_thickness_mm: Annotated[Typed | None, _q("rotor_least_thickness_mm", 1, 80)] = None
    pad_wear_mm: Annotated[Typed | None, _q("pad_wear_mm", 0, 30)] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("pad_height_mm", "rotor_diameter_mm", "the pad must fit between the rotor's edge and its centre", 0.5)
        return self


class DrumBrake(Part):
    """A drum brake of one wheel: by the type of its shoes and the lining's friction, or by a given C*."""

    kind: Literal["drum"]
    wheel_cylinder_mm: Annotated[Typed | None, _q("wheel_cylinder_mm", 5, 80)] = None
    drum_diameter_mm: Annotated[Typed | None, _q("drum_diameter_mm", 60, 600)] = None
    shoes: Literal["leading_trailing", "two_leading", "duo_servo"] | None = None
    friction: Friction | None = None
    shoe_k: Annotated[Typed | None, _q("shoe_k", 0.4, 1, "", "drum.shoe_k")] = None
    c_star: Annotated[Typed, _q("c_star", 0.2, 12)] | ShoeFactor | None = None
    efficiency: Annotated[Typed | None, _q("efficiency", 0.3, 1, "friction never adds force", "drum.efficiency")] = None
    threshold_kpa: Annotated[Typed | None, _q("threshold_kpa", 0, 3000, "", "drum.threshold")] = None
    shoe_clearance_mm: Annotated[Typed | None, _q("shoe_clearance_mm", 0, 5, "", "drum.shoe_clearance")] = None
    give_cm3_per_mpa: Annotated[Typed | None, _q("give_cm3_per_mpa", 0, 10, "", "drum.give")] = None


Brake = Annotated[DiscBrake | DrumBrake, Field(discriminator="kind")]


class MeteringValve(Part):
    """Holds the front back until the rear shoes have moved."""

    kind: Literal["metering"]
    hold_kpa: Annotated[Typed, _q("hold_kpa", 0, 20000)]
    blend_kpa: Annotated[Typed, _q("blend_kpa", 0, 20000, above=True)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("hold_kpa", "blend_kpa", "it holds before it blends")
        return self


class ProportioningValve(Part):
    """Passes all up to the knee and a share of what is above it."""

    kind: Literal["proportioning"]
    knee_kpa: Annotated[Typed, _q("knee_kpa", 0, 30000)]
    slope: Annotated[Typed | None, _q("slope", 0, 1, "above 1 it would add pressure", "valve.slope")] = None
    bypass: bool = False


class LimitingValve(Part):
    """Lets the pressure rise to a setting and no further."""

    kind: Literal["limiting", "regulator"]
    setting_kpa: Annotated[Typed, _q("setting_kpa", 0, 30000, above=True)]


class LoadSensingValve(Part):
    """A proportioning valve whose knee follows the rear axle's load."""

    kind: Literal["load_sensing"]
    knee_kpa: Annotated[Typed, _q("knee_kpa", 0, 30000)]
    coefficient_kpa_per_n: Annotated[Typed, _q("coefficient_kpa_per_n", 0, 100)]
    reference_rear_load_n: Annotated[Typed, _q("reference_rear_load_n", 0, 1e6)]
    slope: Annotated[Typed, _q("slope", 0, 1, "above 1 it would add pressure")]


class DecelSensingValve(Part):
    """A proportioning valve that begins to work at a deceleration."""

    kind: Literal["deceleration_sensing"]
    decel_g: Annotated[Typed, _q("decel_g", 0, 3, above=True)]
    slope: Annotated[Typed, _q("slope", 0, 1, "above 1 it would add pressure")]


class PassiveDevice(Part):
    """A device that leaves the pressure as it is while the pedal is pressed."""

    kind: Literal["residual", "line_lock", "park_valve", "switch"]
    pressure_kpa: Annotated[Typed | None, _q("pressure_kpa", 0, 5000)] = None


Device = Annotated[
    MeteringValve | ProportioningValve | LimitingValve | LoadSensingValve | DecelSensingValve | PassiveDevice,
    Field(discriminator="kind"),
]


class Hose(Part):
    """Flexible hoses of one kind, each of the length; the count is of the whole station."""

    kind: Literal["rubber", "braided"] | None = None
    coefficient_cm3_per_m_mpa: Annotated[
        Typed | None, _q("coefficient_cm3_per_m_mpa", 0, 5, "left out: 0.12 rubber, 0.04 braided")
    ] = None
    length_mm: Annotated[Typed, _q("length_mm", 0, 20000)]
    count: Annotated[int, Field(ge=0, le=12)] = 1
    age_years: Annotated[Typed | None, _q("age_years", 0, 100)] = None


class HardLine(Part):
    """Hard line of one kind, the length of the whole station."""

    material: Literal["steel", "copper_nickel", "stainless"] | None = None
    youngs_gpa: Annotated[Typed | None, _q("youngs_gpa", 1, 1000)] = None
    poisson: Annotated[Typed | None, _q("poisson", 0, 0.5)] = None
    length_mm: Annotated[Typed, _q("length_mm", 0, 50000)]
    outer_mm: Annotated[Typed, _q("outer_mm", 1, 30)]
    wall_mm: Annotated[Typed, _q("wall_mm", 0.1, 10)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("wall_mm", "outer_mm", "the line must have a bore", 0.5)
        return self


class Lines(Part):
    """All lines of a station, and what is in them. Left out lists mean there are none of that kind."""

    hoses: list[Hose] = Field(default=[], max_length=12)
    hard_lines: list[HardLine] = Field(default=[], max_length=24)
    fluid_volume_cm3: Annotated[
        Typed | None, _q("fluid_volume_cm3", 0, 5000, "left out: lines, hoses and what stands behind the pistons")
    ] = None
    air_cm3: Annotated[Typed | None, _q("air_cm3", 0, 500, "left out: none")] = None
    bulk_modulus_gpa: Annotated[Typed | None, _q("bulk_modulus_gpa", 0.1, 5, "left out: 1.8, silicone 1.0")] = None


class Station(Part):
    """The wheel brakes of one kind on one axle, with the lines and valves that lead to them."""

    name: Name
    axle: Literal["front", "rear"]
    wheels: Annotated[int, Field(ge=1, le=2)] = 2
    tyre: str | None = Field(None, max_length=40)
    rolling_radius_mm: Annotated[Typed | None, _q("rolling_radius_mm", 50, 1000)] = None
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


class SecondControl(Part):
    """A second control in series: a lever or another pilot's pedal that presses some of the same brakes."""

    name: Name | None = None
    control: Control
    cylinder: SingleCylinder
    feeds: list[Feed] | None = Field(None, min_length=1, max_length=4)


class System(Part):
    """One control, its booster and cylinder, and the stations it feeds."""

    name: Name
    fluid: Literal["DOT 3", "DOT 4", "DOT 5", "DOT 5.1"] = "DOT 4"
    control: Control
    booster: Booster | None = None
    cylinder: Cylinder
    stations: list[Station] = Field(min_length=1, max_length=4)
    second_control: SecondControl | list[SecondControl] | None = None

    @property
    def seconds(self) -> list[tuple[str, SecondControl]]:
        """The second controls by name."""
        own = self.second_control or []
        every = own if isinstance(own, list) else [own]
        return [(s.name or f"{self.name}_second" + (f"_{i + 1}" if len(every) > 1 else ""), s) for i, s in enumerate(every)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        names = [s.name for s in self.stations]
        _unique(names, "stations", "station")
        fed = self.cylinder.circuits if isinstance(self.cylinder, TandemCylinder) else []
        feeds = [c.feeds for c in fed] if isinstance(fed, list) else []
        for group in [*feeds, *(s.feeds or [] for _, s in self.seconds)]:
            for feed in group:
                if feed.station not in names:
                    sentence = str(BadEntry("circuits", f"station {feed.station!r}", " or ".join(names)))
                    raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "cylinder.circuits"})
        return self


@dataclass(frozen=True)
class Handled:
    """One control of a setup: its `name`, its `control`, and the `system` whose brakes it presses."""

    name: str
    control: Control
    system: System


def controls_of(systems: list[System]) -> list[Handled]:
    """Every control of `systems` in their order, second controls after their system's own."""
    return [
        Handled(name, control, system)
        for system in systems
        for name, control in [(system.name, system.control), *((n, s.control) for n, s in system.seconds)]
    ]


class Setup(Part):
    """A whole setup: the open file format `kobrix-setup`, version 1."""

    format: Literal["kobrix-setup"]
    version: Literal[1]
    name: Name
    vehicle: Vehicle
    systems: list[System] = Field(min_length=1, max_length=4)

    @model_validator(mode="after")
    def _check(self) -> Self:
        names = [s.name for s in self.systems]
        _unique([*names, *(name for s in self.systems for name, _ in s.seconds)], "systems", "system")
        return self

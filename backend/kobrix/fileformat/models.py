"""The setup file as models: every name carries its unit; anything with a stated default may be left out.

A setup may also be incomplete: what is missing is None here, and each answer says what it needs.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.fileformat.base import Name, Part, q, unique
from kobrix.fileformat.quantities import Typed
from kobrix.fileformat.stations import Station


class Trailer(Part):
    """A trailer behind the vehicle: what it weighs, which share of its own braking it does, and where it pulls."""

    mass_kg: Annotated[Typed | None, q("mass_kg", 20, 60000)] = None
    braked_share: Annotated[Typed | None, q("braked_share", 0, 1, "1: its own brakes stop all of it")] = None
    nose_kg: Annotated[Typed | None, q("nose_kg", 0, 5000, "the load on the hitch, standing")] = None
    hitch_behind_axle_mm: Annotated[Typed | None, q("hitch_behind_axle_mm", -2000, 4000)] = None
    hitch_height_mm: Annotated[Typed | None, q("hitch_height_mm", 0, 2000)] = None
    cg_height_mm: Annotated[Typed | None, q("cg_height_mm", 50, 4000, "left out: the nose load stays as it stands")] = None
    hitch_to_axle_mm: Annotated[Typed | None, q("hitch_to_axle_mm", 300, 15000, "left out: the nose load stays as it stands")] = (
        None
    )


class LoadState(Part):
    """The vehicle as it stands in one state of load."""

    name: Name
    mass_kg: Annotated[
        Typed | None, q("mass_kg", 20, 60000, "a lighter or heavier road vehicle is not one this model is for", doubt="mass")
    ] = None
    front_share: Annotated[
        Typed | None, q("front_share", 0, 1, "it is the share of the weight on the front wheels", above=True, doubt="front_share")
    ] = None
    cg_height_mm: Annotated[Typed | None, q("cg_height_mm", 50, 3000, "it is measured from the ground", doubt="cg_height")] = None
    trailer: Trailer | None = None


class Vehicle(Part):
    """What the brakes stop."""

    kind: Literal["car", "truck", "motorcycle", "aircraft"] = "car"
    wheelbase_mm: Annotated[Typed | None, q("wheelbase_mm", 300, 12000, doubt="wheelbase")] = None
    track_mm: Annotated[Typed | None, q("track_mm", 200, 4000, "the middle of one tyre to the middle of the other")] = None
    force_ratio: dict[str, Annotated[Typed, q("force_ratio", 0, 10)]] | None = None
    grip_front: Annotated[
        Typed | None, q("grip_front", 0.05, 2.5, "a road tyre on dry asphalt gives about 0.9", doubt="grip")
    ] = None
    grip_rear: Annotated[Typed | None, q("grip_rear", 0.05, 2.5, "a road tyre on dry asphalt gives about 0.9", doubt="grip")] = (
        None
    )
    load_states: list[LoadState] = Field(default=[], max_length=12)
    sliding_factor: Annotated[
        Typed | None, q("sliding_factor", 0.3, 1, "a locked tyre grips less than its peak", "vehicle.sliding_factor")
    ] = None
    rotating_share: Annotated[Typed | None, q("rotating_share", 0, 0.5, "", "vehicle.rotating_share")] = None
    wheels: dict[Literal["front", "rear"], Annotated[int, Field(ge=0, le=2)]] | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique([s.name for s in self.load_states], "load_states", "load state")
        return self


class Linkage(Part):
    """Pedal and cylinder in the plane: the pivot is the origin, the pin's radius is the control's `pivot_to_pin_mm`."""

    rest_angle_deg: Annotated[Typed, q("rest_angle_deg", -360, 360)]
    sense: Literal[1, -1] = 1
    bore_point_mm: Annotated[list[Annotated[Typed, q("bore_point_mm", -2000, 2000)]], Field(min_length=2, max_length=2)]
    bore_direction_deg: Annotated[Typed, q("bore_direction_deg", -360, 360)]
    rod_mm: Annotated[Typed, q("rod_mm", 10, 1500)]


class Control(Part):
    """The pedal: pivot to pad centre, pivot to pushrod pin, and the room it has."""

    kind: Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"] = "car_pedal"
    pivot_to_pad_mm: Annotated[Typed | None, q("pivot_to_pad_mm", 20, 800, doubt="pedal_length")] = None
    pivot_to_pin_mm: Annotated[Typed | None, q("pivot_to_pin_mm", 3, 800, doubt="pedal_length")] = None
    available_travel_mm: Annotated[Typed | None, q("available_travel_mm", 1, 500, doubt="pedal_room")] = None
    free_play_mm: Annotated[Typed | None, q("free_play_mm", 0, 100, "", "control.free_play", doubt="free_play")] = None
    efficiency: Annotated[Typed | None, q("efficiency", 0.3, 1, "friction never adds force", "control.efficiency")] = None
    return_force_n: Annotated[Typed | None, q("return_force_n", 0, 500, "", "control.return_force")] = None
    mount_stiffness_n_per_mm: Annotated[Typed | None, q("mount_stiffness_n_per_mm", 50, 1e7, "left out: it does not yield")] = (
        None
    )
    rod_retained: bool | None = None
    force_limit_n: Annotated[Typed | None, q("force_limit_n", 1, 5000, "the most that is asked of a person here")] = None
    linkage: Linkage | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("pivot_to_pin_mm", "pivot_to_pad_mm", "the pin sits between the pivot and the pad")
        self.below("free_play_mm", "available_travel_mm", "free play is part of the room")
        return self


class Booster(Part):
    """The booster: what helps, how much, from when, and where it runs out."""

    kind: Literal["vacuum", "hydraulic", "electric"]
    diaphragms_mm: list[Annotated[Typed, q("diaphragms_mm", 50, 500)]] | None = Field(None, max_length=4)
    nominal_diaphragms_mm: list[Annotated[Typed, q("nominal_diaphragms_mm", 50, 500)]] | None = Field(None, max_length=4)
    vacuum_kpa: Annotated[
        Typed | None, q("vacuum_kpa", 0, 101.325, "no vacuum is deeper than the air is heavy", "booster.vacuum", doubt="vacuum")
    ] = None
    efficiency: Annotated[Typed | None, q("efficiency", 0.3, 1, "", "booster.efficiency")] = None
    pump_pressure_kpa: Annotated[Typed | None, q("pump_pressure_kpa", 100, 30000)] = None
    piston_area_cm2: Annotated[Typed | None, q("piston_area_cm2", 0.1, 100)] = None
    limit_n: Annotated[Typed | None, q("limit_n", 0, 50000)] = None
    gain: Annotated[Typed | None, q("gain", 1, 50, "below 1 it would hinder", doubt="booster_gain")] = None
    cut_in_n: Annotated[Typed | None, q("cut_in_n", 0, 1000, "", "booster.cut_in")] = None
    jump_in_n: Annotated[Typed | None, q("jump_in_n", 0, 5000, "", "booster.jump_in")] = None
    lost_travel_mm: Annotated[Typed | None, q("lost_travel_mm", 0, 20, "", "booster.lost_travel")] = None
    return_spring_n: Annotated[Typed | None, q("return_spring_n", 0, 1000, "", "booster.return_spring")] = None
    accumulator: "Accumulator | None" = None


class Accumulator(Part):
    """Gas-filled reserve of a hydraulic booster, gauge pressures."""

    volume_cm3: Annotated[Typed, q("volume_cm3", 1, 20000)]
    precharge_kpa: Annotated[Typed, q("precharge_kpa", 0, 40000)]
    full_kpa: Annotated[Typed, q("full_kpa", 0, 40000, above=True)]
    least_kpa: Annotated[Typed, q("least_kpa", 0, 40000)]
    per_stop_cm3: Annotated[Typed, q("per_stop_cm3", 0, 5000, above=True)]

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

    bore_mm: Annotated[Typed | None, q("bore_mm", 5, 80, "master cylinders of vehicles lie well inside this range")] = None
    stroke_mm: Annotated[Typed | None, q("stroke_mm", 2, 150)] = None
    lost_mm: Annotated[Typed | None, q("lost_mm", 0, 20, "", "cylinder.lost")] = None


class CylinderPart(Part):
    """What every master cylinder has."""

    efficiency: Annotated[Typed | None, q("efficiency", 0.3, 1, "friction never adds force", "cylinder.efficiency")] = None
    spring_n: Annotated[Typed | None, q("spring_n", 0, 1000, "", "cylinder.spring")] = None
    height_above_brakes_mm: Annotated[Typed | None, q("height_above_brakes_mm", -2000, 2000)] = None
    reservoir_cm3: dict[str, Annotated[Typed, q("reservoir_cm3", 0, 5000)]] | None = None


class SingleCylinder(CylinderPart, Bored):
    """One chamber for all brakes: one leak loses them all."""

    kind: Literal["single"]


class TandemCylinder(CylinderPart, Bored):
    """Two chambers in one bore: the same pressure, strokes add."""

    kind: Literal["tandem"]
    lost_primary_mm: Annotated[Typed | None, q("lost_primary_mm", 0, 20, "", "cylinder.lost")] = None
    lost_secondary_mm: Annotated[Typed | None, q("lost_secondary_mm", 0, 20, "", "cylinder.lost")] = None
    primary_share: Annotated[Typed | None, q("primary_share", 0.1, 0.9, "", "cylinder.primary_share")] = None
    primary_feeds: Name | None = None
    circuits: Literal["front_rear", "diagonal"] | list[Circuit] = "front_rear"

    @model_validator(mode="after")
    def _check(self) -> Self:
        if isinstance(self.circuits, list):
            if len(self.circuits) != 2:
                sentence = str(BadEntry("circuits", f"{len(self.circuits)} circuits", "two, one for each chamber"))
                raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "circuits"})
            unique([c.name for c in self.circuits], "circuits", "circuit")
        return self


class BalanceBar(Part):
    """How a bar shares the force: the front's share, or the bearing's distance to each clevis."""

    front_share: Annotated[
        Typed | None, q("front_share", 0.05, 0.95, "a bar cannot give one cylinder nearly all", doubt="bar_share")
    ] = None
    pivot_to_front_clevis_mm: Annotated[Typed | None, q("pivot_to_front_clevis_mm", 1, 300)] = None
    pivot_to_rear_clevis_mm: Annotated[Typed | None, q("pivot_to_rear_clevis_mm", 1, 300)] = None
    stop_mm: Annotated[Typed | None, q("stop_mm", 0, 100)] = None

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
    stop_mm: Annotated[Typed | None, q("stop_mm", 0, 100)] = None


Cylinder = Annotated[SingleCylinder | TandemCylinder | TwinCylinder, Field(discriminator="kind")]


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
    fluid_most_c: Annotated[
        Typed | None, q("fluid_most_c", 50, 400, "the most its maker states; left out: its wet boiling point")
    ] = None
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
        unique(names, "stations", "station")
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
    """One control of a setup: its `name`, its `control`, and the `system` whose brakes it presses; the dotted `path` below the
    setup of what holds the control and its cylinder, and of the system that owns the brakes."""

    name: str
    control: Control
    system: System
    path: str
    owner: str


def controls_of(systems: list[System]) -> list[Handled]:
    """Every control of `systems` in their order, second controls after their system's own."""
    found = []
    for i, system in enumerate(systems):
        own = f"systems.{i}"
        found.append(Handled(system.name, system.control, system, own, own))
        listed = isinstance(system.second_control, list)
        for n, (name, second) in enumerate(system.seconds):
            found.append(Handled(name, second.control, system, f"{own}.second_control" + (f".{n}" if listed else ""), own))
    return found


def unique_controls(systems: Sequence[System]) -> None:
    """Refuse `systems` of which two, or a second control among them, have one name. Raises PydanticCustomError."""
    unique([*(s.name for s in systems), *(name for s in systems for name, _ in s.seconds)], "systems", "system")


class Setup(Part):
    """A whole setup: the open file format `kobrix-setup`, version 1."""

    format: Literal["kobrix-setup"]
    version: Literal[1]
    name: Annotated[str, Field(min_length=1, max_length=170)]
    vehicle: Vehicle
    systems: list[System] = Field(min_length=1, max_length=4)

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique_controls(self.systems)
        return self

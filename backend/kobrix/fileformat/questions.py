"""The questions that a file may carry, or that may be asked beside it."""

from typing import Annotated, Literal, Self

from pydantic import ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.fileformat.base import Name, Part
from kobrix.fileformat.fields import Quantity
from kobrix.fileformat.quantities import Typed

Push = Annotated[Typed, Quantity("pedal_forces_n", 0, 20000)]
Decel = Annotated[Typed, Quantity("wanted_decels_g", 0, 5)]


class AirIn(Part):
    """Air in the lines of one station."""

    station: Name
    volume_cm3: Annotated[Typed, Quantity("volume_cm3", 0, 500)]


class Failure(Part):
    """Something that fails, by a name of its own; `system` where several have a circuit or booster of that kind."""

    name: Name
    system: str | None = None
    lost: str | None = None
    lost_booster: bool = False
    lost_upstream: bool = False
    friction: Literal["cold", "hot", "wet"] = "cold"
    shut: tuple[str, ...] = ()
    open: tuple[str, ...] = ()
    air: list[AirIn] = []

    @property
    def kind(self) -> Literal["circuit", "upstream", "booster", "hot", "wet", "valves_shut", "valves_open", "air", "other"]:
        """What fails, where it is one thing."""
        parts = {
            "circuit": self.lost is not None, "upstream": self.lost_upstream, "booster": self.lost_booster, "hot": self.friction == "hot",
            "wet": self.friction == "wet", "valves_shut": bool(self.shut), "valves_open": bool(self.open), "air": bool(self.air),
        }  # fmt: skip
        found = [name for name, fails in parts.items() if fails]
        return found[0] if len(found) == 1 else "other"  # type: ignore[return-value]

    @property
    def what(self) -> str | None:
        """The circuit or the station that it befalls, where it is one."""
        named = [self.lost] if self.lost is not None else [*self.shut, *self.open, *(a.station for a in self.air)]
        return named[0] if len(named) == 1 else None


HEALTH = Failure(name="healthy")


class ControlPath(Part):
    """A control path: each control's share of the path's force."""

    name: Name
    ratio: dict[str, Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)]] = Field(min_length=1)


class OfOne(Part):
    """A question about one load state (the first) on one control path (the last), unless they are named."""

    load_state: str | None = None
    path: str | None = None


class ForEffort(OfOne):
    """Which part gives a stop at an effort?"""

    decel_g: Decel
    effort_n: Annotated[Typed, Quantity("effort_n", 1, 5000)]


class ForShare(OfOne):
    """Which part gives a share of the braking to the front?"""

    decel_g: Decel
    front_share: Annotated[Typed, Quantity("front_share", 0.01, 0.99)]


class KneeFor(OfOne):
    """Which knee keeps the front first, with a margin?"""

    margin: Annotated[Typed, Quantity("margin", 0, 1)] = 0.0


class Inverse(Part):
    """What a part would have to be."""

    bore_for_effort: ForEffort | None = None
    ratio_for_effort: ForEffort | None = None
    rear_area_for_share: ForShare | None = None
    rear_rotor_for_share: ForShare | None = None
    bar_for_share: ForShare | None = None
    knee_for_lock_order: KneeFor | None = None


class TrappedAir(OfOne):
    """How much air explains a measured pedal?"""

    station: Name
    pedal_force_n: Push
    pedal_travel_mm: Annotated[Typed, Quantity("pedal_travel_mm", 0, 1000)]


class Stop(Part):
    """How far does a stop take?"""

    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500)]
    decel_g: Annotated[Typed, Quantity("decel_g", 0, 5, above=True)]
    reaction_s: Annotated[Typed, Quantity("reaction_s", 0, 5)] = 0.0
    build_up_s: Annotated[Typed | None, Quantity("build_up_s", 0, 5, "", "stop.build_up")] = None


class Mfdd(Part):
    """Mean fully developed deceleration of a measured stop."""

    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500, above=True)]
    begin_m: Annotated[Typed, Quantity("begin_m", 0, 2000)]
    end_m: Annotated[Typed, Quantity("end_m", 0, 2000, above=True)]

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("begin_m", "end_m", "the way at 0.8 of the speed comes before that at 0.1")
        return self


class Nominal(Part):
    """A measured stop as it would be from the nominal speed."""

    distance_m: Annotated[Typed, Quantity("distance_m", 0, 2000)]
    speed_kmh: Annotated[Typed, Quantity("speed_kmh", 0, 500, above=True)]
    nominal_speed_kmh: Annotated[Typed, Quantity("nominal_speed_kmh", 0, 500, above=True)]


class FadePoint(Part):
    """Friction of the pads at a temperature."""

    temperature_c: Annotated[Typed, Quantity("temperature_c", -50, 1500)]
    friction: Annotated[Typed, Quantity("friction", 0.01, 1.5)]


class Heat(OfOne):
    """How hot does a rotor get in a series of slow-downs with pauses between?"""

    station: Name
    speed_from_kmh: Annotated[Typed, Quantity("speed_from_kmh", 0, 500, above=True)]
    speed_to_kmh: Annotated[Typed, Quantity("speed_to_kmh", 0, 500)] = 0.0
    ambient_c: Annotated[Typed, Quantity("ambient_c", -50, 60)] = 20.0
    start_c: Annotated[Typed | None, Quantity("start_c", -50, 1200)] = None
    stops: Annotated[int, Field(ge=1, le=100)] = 1
    cooling_speed_kmh: Annotated[Typed, Quantity("cooling_speed_kmh", 0, 500)] = 0.0
    cooling_time_s: Annotated[Typed, Quantity("cooling_time_s", 0, 86400)] = 0.0
    friction_curve: list[FadePoint] = Field(default=[], max_length=40)

    @model_validator(mode="after")
    def _check(self) -> Self:
        self.below("speed_to_kmh", "speed_from_kmh", "a slow-down ends slower than it begins")
        return self


class Parking(OfOne):
    """Which grade does the parking brake hold?"""

    station: Name
    torque_nm: Annotated[Typed, Quantity("torque_nm", 0, 100000)]


class Reservoir(Part):
    """What do worn pads take from the reservoir?"""

    wear_mm: Annotated[Typed, Quantity("wear_mm", 0, 50)]


class CgHeight(OfOne):
    """Centre of gravity height from lifting one axle."""

    lift_mm: Annotated[Typed, Quantity("lift_mm", 0, 3000, above=True)]
    total_kg: Annotated[Typed, Quantity("total_kg", 0, 60000, above=True)]
    gain_kg: Annotated[Typed, Quantity("gain_kg", 0, 20000)]
    wheel_centre_mm: Annotated[Typed, Quantity("wheel_centre_mm", 0, 1000)]


class NoseOver(Part):
    """When does a tail-dragger go over its nose?"""

    behind_mm: Annotated[Typed, Quantity("behind_mm", 0, 10000)]
    height_mm: Annotated[Typed, Quantity("height_mm", 0, 5000, above=True)]


class Tolerance(OfOne):
    """How sure is the effort for a stop? `plus_minus` by dotted path, in the unit of the path's last name."""

    decel_g: Decel
    samples: Annotated[int, Field(ge=10, le=200000)] = 2000
    seed: Annotated[int, Field(ge=0, le=2**32 - 1)] = 1
    shape: Literal["uniform", "normal"] = "uniform"
    effort_limit_n: Annotated[Typed | None, Quantity("effort_limit_n", 1, 5000)] = None
    travel_limit_mm: Annotated[Typed | None, Quantity("travel_limit_mm", 1, 1000)] = None
    plus_minus: dict[str, Typed] = Field(min_length=1, max_length=60)


class Trials(Part):
    """How many trials the chances are counted in, their seed, and whether what was typed bare has its usual doubt."""

    n: Annotated[int, Field(ge=20, le=20000)] = 400
    seed: Annotated[int, Field(ge=0, le=2**32 - 1)] = 1
    usual_doubts: bool = True


class Working(OfOne):
    """How do the figures at one push, or at the push of one deceleration, come about?"""

    pedal_force_n: Push | None = None
    decel_g: Decel | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        if (self.pedal_force_n is None) == (self.decel_g is None):
            sentence = str(BadEntry("working", "neither or both", "a pedal force or a deceleration: exactly one of the two"))
            raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": "pedal_force_n"})
        return self


class Questions(Part):
    """What is asked besides the answers that are always given. Questions of another kind are named as unanswered."""

    model_config = ConfigDict(extra="allow", use_attribute_docstrings=True)

    pedal_forces_n: list[Push] = Field(default=[], max_length=500)
    wanted_decels_g: list[Decel] = Field(default=[], max_length=500)
    force_limit_n: Annotated[Typed, Quantity("force_limit_n", 1, 5000)] | None = None
    control_paths: list[ControlPath] = Field(default=[], max_length=12)
    failures: list[Failure] = Field(default=[], max_length=50)
    inverse: Inverse | None = None
    trapped_air: TrappedAir | None = None
    stop: Stop | None = None
    mfdd: Mfdd | None = None
    nominal: Nominal | None = None
    heat: Heat | None = None
    parking: Parking | None = None
    reservoir: Reservoir | None = None
    cg_height: CgHeight | None = None
    nose_over: NoseOver | None = None
    tolerance: Tolerance | None = None
    working: Working | None = None
    trials: Trials | None = None


NONE = Questions()  # nothing is asked

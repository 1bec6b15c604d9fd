"""What Bed shows of a setup: the recipe, where it takes the rotors, and how many slow-downs are driven."""

from typing import Literal

from typing_extensions import TypedDict

from kobrix.core.figures import Level


class RecipeStage(TypedDict):
    """A stage of the recipe as typed; `at`: its place in the file."""

    at: int
    from_kmh: str
    to_kmh: str
    count: int
    decel_g: str
    gap_s: str
    gap_m: str
    cool_s: str
    cool_kmh: str


class RotorAt(TypedDict):
    """A station's rotor at one slow-down [°C]: before, at its hottest, after; and what a simulated thermometer would show."""

    start_c: float
    peak_c: float
    simulated_c: float


class SlowDown(TypedDict):
    """One slow-down: when and where it begins and ends, how fast, and the rotors by station."""

    number: int
    stage: int
    starts_at_s: float
    ends_at_m: float
    from_kmh: float
    to_kmh: float
    decel_g: float
    rotors: dict[str, RotorAt | None]
    fits: bool
    driven: str | None
    key: str | None


class StationHeat(TypedDict):
    """How hot a station gets over the whole recipe [°C], and what its pads want."""

    name: str
    known: bool
    peak_c: float | None
    after_last_c: float | None
    after_cooling_c: float | None
    cool_to_s: float | None
    window_low: str
    window_high: str
    most: str


class BedCaution(TypedDict):
    """Something that stands against the recipe as it is."""

    id: str
    level: Level
    words: str


class BedView(TypedDict):
    """Bed of one setup, as of a `revision`."""

    page: Literal["bed"]
    revision: int
    setup: str
    source: str
    ambient: str
    road: str
    cool_to: str
    stages: list[RecipeStage]
    slow_downs: list[SlowDown]
    heat: list[StationHeat]
    cautions: list[BedCaution]
    needed_m: float | None
    whole_s: float | None
    whole_m: float | None
    fits: int | None
    refused: str
    needs: int
    driven: int
    certified: bool

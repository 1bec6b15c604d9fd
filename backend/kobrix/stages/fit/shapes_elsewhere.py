"""What Fit shows of parts from elsewhere: the yard's bands, donors of the library, and the plans as routes."""

from pydantic import Field
from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.evaluate.ask.acceptance import Verdict
from kobrix.stages.common import Request


class YardLimit(TypedDict):
    """A limit that a part must keep, as it is written."""

    key: str
    words: str
    text: str


class YardPoint(TypedDict):
    """One value of a dimension: the chance [1] that all limits hold, and with the best valve where one is worth it."""

    value: float
    chance: float
    valve_chance: float | None
    knee_kpa: float | None
    worst: str


class YardBand(TypedDict):
    """One dimension of a part: what it is now, the chances over its range, and from where to where to keep it."""

    what: str
    station: str | None
    label: str
    unit: str
    now: float
    points: list[YardPoint]
    keep: list[float] | None
    with_valve: list[float] | None


class YardView(TypedDict):
    """What a part must be so that every limit holds; `needs`: how many entries are missing before anything can be said."""

    setup: str
    limits: list[YardLimit]
    keep_share: float
    trials: int
    bands: list[YardBand]
    chance_now: float | None
    needs: int
    stations: list[str]


class BrokenShare(TypedDict):
    """What goes wrong with a part, and in how many plausible vehicles [1]."""

    words: str
    chance: float


class YardPart(TypedDict):
    """What to do with the part in the hand, and why."""

    verdict: Verdict
    chance: float
    valve_chance: float | None
    knee_kpa: float | None
    broken: list[BrokenShare]


class HandPart(Request):
    """A part in the hand, as typed: the pistons of one side, the rotor, the friction; what is left out stays as it is."""

    station: str = Field(max_length=80)
    pistons: str = Field("", max_length=80)
    rotor: str = Field("", max_length=40)
    friction: str = Field("", max_length=40)
    preferred: str | None = Field(None, max_length=10)


class YardIn(Request):
    """The limits as typed, by their keys; what is left out is the job's own. `part`: what is in the hand."""

    setup: str = Field(max_length=80)
    limits: dict[str, str] = Field({}, max_length=8)
    part: HandPart | None = None


class DonorField(TypedDict):
    """A dimension that is needed; `from_setup`: it stands in from the setup until another is typed."""

    key: str
    label: str
    unit: str
    text: str
    from_setup: bool


class DonorRow(TypedDict):
    """A part of the library for a need: what must be made to fit it, and what is not known of it."""

    id: int
    name: str
    source: str
    price: float | None
    level: Level
    usable: bool
    make: list[str]
    unknown: list[str]
    sizes: str


class DonorGroup(TypedDict):
    """Rotors or calipers: what is needed, and the library's parts of that kind, the least to make first."""

    part: str
    fields: list[DonorField]
    rows: list[DonorRow]
    count: int
    usable: int
    refused: str


class DonorsView(TypedDict):
    """The library ranked for what a setup needs at an axle."""

    setup: str
    axle: str
    axles: list[str]
    groups: list[DonorGroup]
    library: int


class RouteView(TypedDict):
    """A setup as a route: price, what is cut for good, and what it buys at the stop wanted for all."""

    setup: str
    kind: str
    parts_price: float
    unpriced: int
    tools: str
    tools_price: float | None
    whole_price: float
    cuts: str
    evenings: float | None
    joints: int
    doubts: int
    push_n: float | None
    travel_share: float | None
    lock_g: float | None
    heat_c: float | None
    parking: str
    chance: float | None


class RoutesView(TypedDict):
    """Every setup of a job side by side, pushes at one stop [g] wanted for all."""

    wanted_g: float | None
    routes: list[RouteView]


class LibraryIn(Request):
    """A table of parts, as CSV or as a spreadsheet puts it on the clipboard; `keep`: taken in, else only looked at."""

    text: str = Field(max_length=4_000_000)
    keep: bool = False


class LibraryOut(TypedDict):
    """How many parts a table has, how many were new, and the first of them."""

    parts: int
    added: int
    first: list[str]

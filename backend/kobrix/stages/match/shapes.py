"""Response shapes of Match; what it takes is the request itself."""

from typing import Literal

from typing_extensions import TypedDict

from kobrix.evaluate.shapes import Percentiles
from kobrix.fileformat.paths import Edit, JsonObject
from kobrix.fileformat.shelf import ShelfPart
from kobrix.stages.match.request import Search


class Squares(TypedDict):
    """Where combinations lie on the plot, by the first limit they broke ("kept": none): square numbers and how many in each."""

    id: str
    at: list[int]
    count: list[int]


class Fallen(TypedDict):
    """Why combinations fell: counted at the first limit they broke, and how many broke only that one."""

    id: str
    words: str
    count: int
    only: int


class LetIn(TypedDict):
    """What a limit let out by one step would let in; `limits` None where no entry lets it out."""

    id: str
    words: str
    count: int
    limits: JsonObject | None


class Mark(TypedDict):
    """A setup of the job on the plot, at the same stop."""

    name: str
    push_n: float
    travel_mm: float


class EntryToMeasure(TypedDict):
    """An entry whose doubt matters."""

    path: str
    label: str
    rank: float
    assumed: bool


class Uncertainty(TypedDict):
    """How sure a setup's figures are."""

    push_n: Percentiles | None
    travel_mm: Percentiles | None
    margin_g: Percentiles | None
    chances: dict[str, float]
    joint_chance: float | None
    order_by_friction: bool
    trials: int
    measure: list[EntryToMeasure]


class Kept(TypedDict):
    """A setup that meets every limit."""

    words: dict[str, str]
    push_n: float
    lightest_n: float
    travel_mm: float
    travel_share: float
    grip_use: float
    left_g: float
    price: float | None
    edits: list[Edit]
    reasons: list[str]
    as_it_stands: bool
    beaten: bool
    joint_chance: float | None
    sure: bool
    doubt: Uncertainty | None


class Miss(TypedDict):
    """A setup that breaks one limit by a little: which, its figure and the limit, the value of that limit at which it appears (None
    where a danger stands before it), and what makes it."""

    words: dict[str, str]
    limit: str
    said: str
    limits: JsonObject | None
    edits: list[Edit]


class Scale(TypedDict):
    """Ends of the plot's axes."""

    travel_mm: float
    push_n: float


class Comfort(TypedDict):
    """The good band of the push."""

    low: float
    good: float


class Found(TypedDict):
    """What a search has found so far."""

    setup: str
    control: str | None
    """Of several controls the one that was searched, alone."""
    total: int
    done: int
    outside: int
    unfit: int
    decel_g: float
    room_mm: float
    effort_n: float
    travel_share: float
    first_lock_g: float
    band: Comfort
    scale: Scale
    across: int
    up: int
    squares: list[Squares]
    meet: int
    fall: list[Fallen]
    more: list[LetIn]
    setups: list[Mark]
    not_beaten: int
    untried: int
    to_look: int
    looked: int
    misses: list[Miss]
    kept: list[Kept]


class SearchState(TypedDict):
    """A search of a job: none, running, done, stopped or failed."""

    state: Literal["none", "running", "done", "stopped", "failed"]
    ask: Search | None
    revision: int
    seconds: float
    error: str | None
    found: Found | None


class OwnParts(TypedDict):
    """What is fitted at one axle."""

    axle: Literal["front", "rear"]
    words: str
    drum: bool


class MatchChoices(TypedDict):
    """What a search on a setup may be made of: a first `ask`, what is fitted, and all parts there are."""

    ask: Search
    controls: list[str]
    """Of several controls their names: they are searched one at a time."""
    own: list[OwnParts]
    twin: bool
    linkage: bool
    """A linkage's pin does not move alone: it is not offered."""
    booster: str | None
    pin_mm: float | None
    bore: str
    valve: bool
    shelf: list[ShelfPart]
    common: list[ShelfPart]
    standard_bores: list[str]
    effort_limit_n: float
    travel_limit_share: float
    decel_g: float
    rims_mm: dict[str, float]
    car: bool
    reason: str | None

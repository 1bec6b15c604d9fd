"""Shapes of what a search gives; what it takes is the ask itself."""

from typing import Any, Literal

from kobrix.api.shapes import Shape
from kobrix.setup.search_ask import Search
from kobrix.setup.shelf import ShelfPart


class Squares(Shape):
    """Where combinations lie on the plot, by the first limit they broke ("kept": none): square numbers and how many in each."""

    id: str
    at: list[int]
    count: list[int]


class Fallen(Shape):
    """Why combinations fell: counted at the first limit they broke, and how many broke only that one."""

    id: str
    words: str
    count: int
    only: int


class LetIn(Shape):
    """What a limit let out by one step would let in; `limits` None where no entry lets it out."""

    id: str
    words: str
    count: int
    limits: dict[str, Any] | None


class Mark(Shape):
    """A setup of the job on the plot, at the same stop."""

    name: str
    push_n: float
    travel_mm: float


class Range3(Shape):
    """P5, P50 and P95."""

    p5: float
    p50: float
    p95: float


class ToMeasure(Shape):
    """An entry whose doubt matters."""

    path: str
    label: str
    rank: float
    assumed: bool


class DoubtOut(Shape):
    """How sure a setup's figures are."""

    push_n: Range3 | None
    travel_mm: Range3 | None
    margin_g: Range3 | None
    chances: dict[str, float]
    trials: int
    measure: list[ToMeasure]


class MatchEdit(Shape):
    """An edit below the setup; without a value it takes away."""

    path: str
    value: Any = None


class KeptOut(Shape):
    """A setup that meets every limit."""

    words: dict[str, str]
    push_n: float
    lightest_n: float
    travel_mm: float
    travel_share: float
    grip_use: float
    left_g: float
    price: float | None
    edits: list[MatchEdit]
    reasons: list[str]
    as_it_stands: bool
    beaten: bool
    doubt: DoubtOut | None


class Scale(Shape):
    """Ends of the plot's axes."""

    travel_mm: float
    push_n: float


class Comfort(Shape):
    """The good band of the push."""

    low: float
    good: float


class Found(Shape):
    """What a search has found so far."""

    setup: str
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
    kept: list[KeptOut]


class MatchOut(Shape):
    """A search of a job: none, running, done, stopped or failed."""

    state: Literal["none", "running", "done", "stopped", "failed"]
    ask: Search | None
    revision: int
    seconds: float
    error: str | None
    found: Found | None


class OwnParts(Shape):
    """What is fitted at one axle."""

    axle: Literal["front", "rear"]
    words: str
    drum: bool


class MatchChoices(Shape):
    """What a search on a setup may be made of: a first `ask`, what is fitted, and all parts there are."""

    ask: Search
    own: list[OwnParts]
    twin: bool
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

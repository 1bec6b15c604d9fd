"""What Build shows of a plan: which group comes first, and every step with what must be done before it."""

from typing import Literal

from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.fileformat.paths import Edit


class Done(TypedDict):
    """That a step is done: by whom and when, and with what torque from where; `key` of its record."""

    key: str
    at: str
    by: str
    torque: str
    source: str
    note: str


class SeenView(TypedDict):
    """How it was at a step."""

    key: str
    at: str
    words: str
    sha256: str | None
    goes_back: bool | None
    bag: int | None


class WorkStep(TypedDict):
    """A step of the work; `waits`: the steps that must be done first and are not; `torque`: what its maker states, "" not known;
    `earlier`, `later`: whether it may change places with the step before or after it; `own_at`: its place among the person's own steps."""

    key: str
    row: str
    where: str
    place: str
    phase: int
    phase_words: str
    text: str
    short: str
    caution: str
    record: str
    tools: list[str]
    critical: bool
    asks_torque: bool
    torque: str
    source: str
    torque_at: int | None
    too_much: bool
    before: list[str]
    waits: list[str]
    part: str
    part_at: int | None
    earlier: bool
    later: bool
    own_at: int | None
    troubles: list[str]
    done: Done | None
    seen: list[SeenView]


class DayView(TypedDict):
    """What is done in one go: its groups and its steps in order; `open`: with the hydraulic system open."""

    key: str
    title: str
    groups: list[str]
    steps: list[WorkStep]
    done: int
    tools: list[str]


class GroupView(TypedDict):
    """A group of changes that are done together."""

    name: str
    letter: str
    words: str
    opens: bool


class HalfDone(TypedDict):
    """The vehicle with some groups done: what may be driven so, and why not; `chance`: rear first in plausible vehicles."""

    done: list[str]
    letters: str
    may_drive: bool
    dangers: list[str]
    push_n: float | None
    chance: float | None
    on_best: bool


class OrderView(TypedDict):
    """The order of the groups: every half-done state, and the best way through them; empty where the systems are not the same."""

    groups: list[GroupView]
    states: list[HalfDone]
    best: list[str]
    orders: int
    orders_out_of_red: int
    decel_g: float
    sentence: str
    edits: list[Edit]


class AlsoView(TypedDict):
    """A change that a person added, and its place in the list."""

    kind: str
    words: str
    at: int


class KindView(TypedDict):
    """A kind of change that can be added, and what it is called."""

    kind: str
    words: str


class CupView(TypedDict):
    """A cup of a cylinder: how far it moves at the stop wanted, and at most [mm]; where a pit lies from its rest, and what that means."""

    name: str
    at_stop_mm: float | None
    most_mm: float
    pit: str
    level: Level | None
    sentence: str


class TroubleStep(TypedDict):
    """What is done when something went wrong; signed where it is critical."""

    words: str
    critical: bool


class TroublePart(TypedDict):
    """What it takes."""

    part: str
    count: int
    shop: str


class TroubleView(TypedDict):
    """Something that goes wrong at a step."""

    id: str
    words: str
    steps: list[TroubleStep]
    parts: list[TroublePart]


class WorkSum(TypedDict):
    """Time and money so far: minutes that were noted and in how many steps; what the parts that are here and that are ordered cost;
    how many of them have no price; tools and evenings as planned."""

    minutes: float
    timed: int
    evenings: float | None
    here: float
    ordered: float
    unpriced: int
    tools: float | None


class BuildView(TypedDict):
    """Build of one setup, as of a `revision`."""

    page: Literal["build"]
    revision: int
    setup: str
    root: str
    changes: list[str]
    days: list[DayView]
    order: OrderView | None
    also: list[AlsoView]
    kinds: list[KindView]
    with_axle: list[str]
    total: int
    done: int
    critical: int
    signed: int
    open_since: str | None
    now: str | None
    wrench: str
    cups: list[CupView]
    troubles: list[TroubleView]
    sum: WorkSum
    certified: bool

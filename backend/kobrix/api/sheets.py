"""Shapes of Measure: the sheet, what matters most, helpers and photographs."""

from typing import Any, Literal

from pydantic import Field

from kobrix.api.shapes import Shape


class Edit(Shape):
    """An edit of the job; without a value it takes the field away."""

    path: str
    value: Any = None


class Choice(Shape):
    """One of the words a field may have, and the edits that choose it."""

    value: str
    label: str
    edits: list[Edit]


class Usual(Shape):
    """A usual value that stands in, with its standing, source and range."""

    value: float
    text: str
    standing: str
    source: str
    least: float | None
    most: float | None


class PlusMinus(Shape):
    """How far an entry may be off, as typed, and the range that leaves."""

    text: str
    value: float
    least: float
    most: float


class Entry(Shape):
    """One field of the sheet."""

    key: str
    path: str
    label: str
    how: str
    kind: Literal["quantity", "list", "text", "count", "flag", "choice"]
    more: bool
    guess: bool
    text: str
    flag: bool | None
    state: Literal["measured", "assumed", "unknown"]
    value: float | None
    values: list[float]
    other: str
    unit: str
    allowed: str
    why: str
    least: float | None
    most: float | None
    plus_minus: PlusMinus | None
    needed: Literal["decel", "travel"] | None
    unsure: bool
    default: Usual | None
    stand_in: Usual | None
    choices: list[Choice]


class Group(Shape):
    """Entries that belong together; `remove` takes them away."""

    title: str
    entries: list[Entry]
    remove: list[Edit]


class Press(Shape):
    """A press that adds something."""

    label: str
    edits: list[Edit]


class Derived(Shape):
    """What follows at once from the entries."""

    label: str
    text: str
    note: str


class DeviceAsk(Shape):
    """What a device needs."""

    field: str
    label: str
    how: str


class DeviceKind(Shape):
    """A device that can be put in a line."""

    kind: str
    label: str
    asks: list[DeviceAsk]


class DeviceTarget(Shape):
    """Where a device can be put, and what is there."""

    label: str
    path: str
    have: list[dict[str, Any]]


class Devices(Shape):
    """Devices that can be put in, and where."""

    targets: list[DeviceTarget]
    kinds: list[DeviceKind]


class HelperAsk(Shape):
    """What a helper asks to be read."""

    field: str
    label: str


class HelperOut(Shape):
    """A helper of a section."""

    name: str
    title: str
    how: str
    asks: list[HelperAsk]


class Section(Shape):
    """One part of the vehicle."""

    key: str
    kind: Literal["control", "linkage", "booster", "cylinder", "brake", "lines", "vehicle"]
    title: str
    note: str
    groups: list[Group]
    adds: list[Press]
    devices: Devices | None
    derived: list[Derived]
    helpers: list[HelperOut]
    done: int
    total: int
    unsure: int
    needed: bool
    state: Literal["empty", "begun", "doubt", "ready"]


class Missing(Shape):
    """An entry that an answer still needs."""

    path: str
    section: str
    label: str


class SheetNeeds(Shape):
    """What is still needed: for forces and decelerations, and besides for travel."""

    decel: list[Missing]
    travel: list[Missing]


class PhotoOut(Shape):
    """A photograph by its hash."""

    sha256: str
    name: str = ""


class NoteOut(Shape):
    """What was seen on a part."""

    about: str
    text: str
    level: Literal["fine", "watch", "renew"]
    photos: list[PhotoOut]


class Sheet(Shape):
    """What a person measures on one setup."""

    setup: str
    root: str
    kind: Literal["car", "motorcycle", "aircraft"]
    sections: list[Section]
    done: int
    total: int
    needs: SheetNeeds
    condition: list[NoteOut]


class Spread(Shape):
    """Percentiles of the trials."""

    p5: float
    p50: float
    p95: float


class Matter(Shape):
    """What one doubted entry does: alone from one end of its range to the other, and its rank in the trials."""

    path: str
    assumed: bool
    value: float
    least: float
    most: float
    push_rank: float
    push_n: list[float] | None
    travel_rank: float
    travel_mm: list[float] | None


class Matters(Shape):
    """Every doubted entry, the one that moves most first."""

    decel_g: float
    push_n: Spread | None
    travel_mm: Spread | None
    entries: list[Matter]
    trials: int


class HelpIn(Shape):
    """What was read, as typed, by the helper's names; `preferred` units of bare numbers by length and mass."""

    given: dict[str, str] = Field(max_length=12)
    preferred: dict[str, str] = {}


class HelpEntry(Shape):
    """An entry that a helper fills."""

    key: str
    text: str


class HelpOut(Shape):
    """What a helper makes of it."""

    entries: list[HelpEntry]
    plus_minus: dict[str, str]
    sentence: str


class LookOut(Shape):
    """What was typed, in the unit of its name."""

    value: float


class ComparedInput(Shape):
    """An entry that differs between setups."""

    part: str
    label: str
    values: list[str]


class ComparedResult(Shape):
    """A result of each setup."""

    label: str
    unit: str
    values: list[str]
    differs: bool


class Comparison(Shape):
    """Setups side by side at one stop."""

    setups: list[str]
    decel_g: float
    inputs: list[ComparedInput]
    results: list[ComparedResult]
    words: list[str]

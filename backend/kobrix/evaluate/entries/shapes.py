"""Records of the measure sheet: every entry of a setup as a person takes it."""

from typing import Literal, NotRequired

from typing_extensions import TypedDict

from kobrix.core.physics.vehicle import VehicleKind
from kobrix.fileformat.paths import Edit

SectionKind = Literal["control", "linkage", "booster", "cylinder", "brake", "lines", "vehicle"]


class Choice(TypedDict):
    """One of the words a field may have, and the edits that choose it."""

    value: str
    label: str
    edits: list[Edit]


class Usual(TypedDict):
    """A usual value that stands in, with its standing, source and range."""

    value: float
    text: str
    standing: str
    source: str
    least: float | None
    most: float | None


class PlusMinus(TypedDict):
    """How far an entry may be off, as typed, and the range that leaves."""

    text: str
    value: float
    least: float
    most: float


class UsualDoubt(TypedDict):
    """How far what is typed bare is usually off, in words and in the entry's unit."""

    text: str
    value: float


class Entry(TypedDict):
    """One field of the sheet."""

    key: str
    path: str
    label: str
    how: str
    kind: Literal["quantity", "list", "text", "count", "flag", "choice"]
    more: bool
    guess: bool
    line: bool
    """Whether the force line cannot do without it."""
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
    exact: bool
    usual_doubt: UsualDoubt | None
    needed: Literal["decel", "travel"] | None
    unsure: bool
    default: Usual | None
    stand_in: Usual | None
    choices: list[Choice]


Piece = Literal["hose", "hard_line", "device", "all"]
ControlKind = Literal["car_pedal", "motorcycle_foot", "hand_lever", "aircraft_pedal"]


class Group(TypedDict):
    """Entries that belong together; `remove` takes them away. In the lines: the `station` whose they are, and the `piece`."""

    title: str
    station: str | None
    piece: Piece | None
    entries: list[Entry]
    remove: list[Edit]


class Addition(TypedDict):
    """A press that adds something."""

    label: str
    edits: list[Edit]


class Derived(TypedDict):
    """What follows at once from the entries."""

    label: str
    text: str
    note: str


class DeviceAsk(TypedDict):
    """What a device needs."""

    field: str
    label: str
    how: str


class DeviceKind(TypedDict):
    """A device that can be put in a line."""

    kind: str
    label: str
    asks: list[DeviceAsk]


class DeviceTarget(TypedDict):
    """Where a device can be put: the pointer of the list."""

    label: str
    path: str


class Devices(TypedDict):
    """Devices that can be put in, and where."""

    targets: list[DeviceTarget]
    kinds: list[DeviceKind]


class HelperAsk(TypedDict):
    """What a helper asks to be read."""

    field: str
    label: str


class Helper(TypedDict):
    """A helper of a section."""

    name: str
    title: str
    how: str
    asks: list[HelperAsk]


class Section(TypedDict):
    """One part of the vehicle; of a control its kind, of a brake its axle."""

    key: str
    kind: SectionKind
    control: ControlKind | None
    axle: Literal["front", "rear"] | None
    title: str
    note: str
    groups: list[Group]
    adds: list[Addition]
    devices: Devices | None
    derived: list[Derived]
    helpers: list[Helper]
    done: int
    total: int
    unsure: int
    needed: bool
    state: Literal["empty", "begun", "doubt", "ready"]


class Missing(TypedDict):
    """An entry that an answer still needs."""

    path: str
    section: str
    label: str


class SheetNeeds(TypedDict):
    """What is still needed: for forces and decelerations, and besides for travel."""

    decel: list[Missing]
    travel: list[Missing]


class Photo(TypedDict):
    """A photograph by its hash."""

    sha256: str
    name: NotRequired[str]


class Note(TypedDict):
    """What was seen on a part."""

    about: str
    text: str
    level: Literal["fine", "watch", "renew"]
    photos: list[Photo]


class Sheet(TypedDict):
    """What a person measures on one setup."""

    setup: str
    root: str
    kind: VehicleKind
    sections: list[Section]
    done: int
    total: int
    needs: SheetNeeds
    condition: list[Note]


class Measured(TypedDict):
    """How much of the job as found is measured, and how much of it is in doubt."""

    done: int
    total: int
    doubted: int


class HelperEntry(TypedDict):
    """An entry that a helper fills."""

    key: str
    text: str


class HelperAnswer(TypedDict):
    """What a helper makes of it."""

    entries: list[HelperEntry]
    plus_minus: dict[str, str]
    sentence: str

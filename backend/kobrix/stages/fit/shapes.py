"""What Fit shows of one setup: the lines joint by joint, the parts list, the wheel cut through the brake, the hoses."""

from typing import Literal

from pydantic import Field
from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.core.fit.line_map import Kind, PartOfLine
from kobrix.fileformat.paths import Edit
from kobrix.stages.common import Request

Axle = Literal["front", "rear"]
SectionGroup = Literal["wheel", "caliper", "rotor", "stud", "doubts"]


class EndOption(TypedDict):
    """A thing that an end can be: its `id` (family and role), its words, the threads that it is made with."""

    id: str
    family: str
    role: str
    words: str
    threads: list[str]


class JointEndView(TypedDict):
    """One end of a joint: what `part` it belongs to, in words; what it is, as an option's id, and its thread, "" where not known."""

    part: PartOfLine
    words: str
    option: str
    thread: str
    said: str
    family: str
    tube_mm: str
    material: str
    washers: int | None
    washers_used: bool
    sealant: bool
    options: list[str]


class JointMend(TypedDict):
    """What would mend a joint, and the edits that are it; none where it is done by hand."""

    kind: str
    words: str
    edits: list[Edit]


class JointView(TypedDict):
    """One place of the map, judged. `path`: where it stands below the setup; `own`: added by a person; `opened`: in this change."""

    key: str
    number: int
    kind: Kind | Literal["own"]
    path: str
    title: str
    count: int
    a: JointEndView
    b: JointEndView
    open: bool
    adapter: bool
    opened: bool
    own: bool
    match: bool
    reason: str
    level: Level
    sentence: str
    needs: list[str]
    mends: list[JointMend]
    cautions: list[str]
    washers_needed: int
    note: str


class BranchView(TypedDict):
    """The way from a cylinder to one station's brakes: its joints by key, in the order in which the fluid meets them."""

    system: str
    station: str
    axle: Axle | None
    cylinder: str
    line: str
    hose: str
    brake: str
    devices: list[str]
    joints: list[str]


class MapNote(TypedDict):
    """Something to look at on the lines as a whole."""

    level: Level
    words: str


class ListRow(TypedDict):
    """A part of the list; `at`: its line in the job's own list, None where it has none; `own`: only there because a person wants it."""

    part: str
    count: float
    have: float
    ordered: float
    missing: float
    price: float | None
    cost: float | None
    source: str
    shop: str
    at: int | None
    own: bool
    shelf: bool


class PartsListView(TypedDict):
    """Everything that the plan needs, less what is here."""

    rows: list[ListRow]
    sentence: str
    missing: int
    here: int
    cost: float
    unpriced: int
    planned: str
    days_left: int | None
    alarm: bool


class SectionField(TypedDict):
    """A size of the section as typed, where it stands, and how it is measured; `wanted`: a gap hangs on it."""

    key: str
    letter: str
    group: SectionGroup
    path: str
    label: str
    text: str
    how: str
    wanted: bool
    value_mm: float | None


class GapView(TypedDict):
    """A gap between caliper and wheel or rotor [mm], how small it may be in one of twenty, and what is wanted."""

    name: str
    words: str
    gap_mm: float
    p5_mm: float
    limit_mm: float
    level: Level
    at: list[float] | None


class StudView(TypedDict):
    """Thread of a wheel stud in its nut [mm and turns], and the thickest spacer that leaves enough."""

    engaged_mm: float
    turns: float
    turns_needed: float
    level: Level
    greatest_spacer_mm: float | None


class SectionMend(TypedDict):
    """A move of the bracket or a spacer that brings every gap to what is wanted, and what it does to the push."""

    words: str
    edits: list[Edit]


class OldBrake(TypedDict):
    """What stands there as found, to be drawn behind: its rotor or drum [mm], and the caliper's outline where that was measured."""

    words: str
    radius_mm: float | None
    thickness_mm: float | None
    hat_offset_mm: float | None
    outline: list[list[float]]


class SectionView(TypedDict):
    """The wheel of one axle cut through the brake: the sizes, and the gaps where they are known; points are [x, r] in mm."""

    axle: Axle
    title: str
    disc: bool
    fields: list[SectionField]
    needs: list[str]
    refused: str
    gaps: list[GapView]
    least: str | None
    level: Level | None
    sentence: str
    mends: list[SectionMend]
    stud: StudView | None
    profile: list[list[float]]
    outline: list[list[float]]
    rotor_radius_mm: float | None
    rotor_thickness_mm: float | None
    hat_offset_mm: float | None
    pad: list[float] | None
    shim_needed_mm: float | None
    effective_radius_mm: float | None
    old: OldBrake | None


class HoseView(TypedDict):
    """The length of a hose from three strings: at least, at most [mm], and what the meant one does."""

    axle: Axle
    title: str
    path: str
    droop: str
    bump: str
    lock: str
    ends: str
    hose: str
    heat: str
    heat_level: Level | None
    heat_sentence: str
    least_mm: float | None
    greatest_mm: float | None
    verdict: str
    level: Level | None
    sentence: str


class PlateHole(TypedDict):
    """A hole of a plate: its middle, its diameter, and how much edge it has and wants [mm]."""

    name: str
    x_mm: float
    y_mm: float
    diameter_mm: float
    edge_mm: float
    edge_needed_mm: float
    level: Level
    old: bool


class WebView(TypedDict):
    """What is left between two holes, where it is less than wanted [mm]."""

    between: str
    web_mm: float
    needed_mm: float
    level: Level


class PlateView(TypedDict):
    """A plate or bracket: its patterns as typed, what is missing, or its holes, outline and webs."""

    at: int
    path: str
    name: str
    old: dict[str, str]
    new: dict[str, str]
    shift_x: str
    shift_y: str
    bore: str
    thickness: str
    material: str
    needs: list[str]
    refused: str
    holes: list[PlateHole]
    webs: list[WebView]
    extents_mm: list[float]
    corner_mm: float
    level: Level | None
    sentence: str


class ParkingState(TypedDict):
    """The parking brake in one state of load: the grade it holds nose up and nose down (none: any), the pull for the grade wanted [N],
    and what it stops alone [g]."""

    load: str
    grade_up: float | None
    grade_down: float | None
    pull_n: float | None
    alone_g: float
    locks: bool
    level: Level


class ParkingView(TypedDict):
    """The parking brake: its sizes as typed, what is missing, and what it holds."""

    path: str
    kept: str
    control: str
    control_ratio: str
    actuator: str
    actuator_ratio: str
    clamp: str
    drum: str
    shoes: str
    friction: str
    radius: str
    grade: str
    needs: list[str]
    refused: str
    cable_n: float | None
    states: list[ParkingState]
    level: Level | None
    sentence: str


class TubeView(TypedDict):
    """A hard line: as typed, what to cut [mm], its tag, and what is hard to make of it."""

    at: int
    name: str
    outer: str
    usual_outer: str
    material: str
    start: str
    end: str
    way: str
    cut_mm: float | None
    developed_mm: float | None
    tag: str
    bends: list[str]
    notes: list[str]
    refused: str


class PieceView(TypedDict):
    """A length that is cut: which stock it is of, the lines out of it, and what is left [mm]."""

    stock: int
    lines: list[str]
    left_mm: float


class StockView(TypedDict):
    """Lengths to cut from."""

    at: int
    length: str
    count: int | None


class CutListView(TypedDict):
    """The hard lines to be cut, and how they lie in the stock [mm]."""

    tubes: list[TubeView]
    total_cut_mm: float
    pieces: list[PieceView]
    unplaced: list[str]
    left_mm: float
    stock: list[StockView]
    refused: str


class FitView(TypedDict):
    """Fit of one setup, as of a `revision` of the job."""

    page: Literal["fit"]
    revision: int
    setup: str
    options: list[EndOption]
    branches: list[BranchView]
    joints: list[JointView]
    notes: list[MapNote]
    parts: PartsListView
    sections: list[SectionView]
    hoses: list[HoseView]
    plates: list[PlateView]
    parking: ParkingView
    cutlist: CutListView
    doubts: int


class HandIn(Request):
    """What was measured of a fitting in the hand, as typed: over (a male) or inside (a female) the crests, pitch or threads per inch."""

    gender: Literal["male", "female"]
    over_crest: str = Field(max_length=40)
    pitch: str = Field("", max_length=40)
    tpi: str = Field("", max_length=40)
    seen: str = Field("", max_length=20)
    tapered: bool | None = None
    preferred: str | None = Field(None, max_length=10)


class Candidate(TypedDict):
    """What a fitting in the hand may be."""

    option: str
    words: str
    thread: str


class HandOut(TypedDict):
    """What a fitting may be, the likeliest first, and what to measure to tell them apart."""

    candidates: list[Candidate]
    tell_apart: list[str]

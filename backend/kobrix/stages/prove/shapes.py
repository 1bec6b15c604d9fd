"""What Prove shows of a job: sets of stops against the prediction, what they can and cannot tell, and how many more would."""

from typing import Literal

from typing_extensions import TypedDict

from kobrix.core.figures import Level
from kobrix.core.prove.compare import PairVerdict
from kobrix.fileformat.paths import Edit
from kobrix.fileformat.proving import Changed


class StopStep(TypedDict):
    """A step of a stop's working: what it is of, the formula, the same with its numbers, and its source."""

    what: str
    formula: str
    numbers: str
    source: str


class StopLine(TypedDict):
    """A stop as a line from its onset to rest, at the nominal speed where it can be put to it: way [m], speed [km/h], time [s] and
    deceleration [g] at each place; empty where its way is not known. `steady`: not recorded, drawn as if it braked alike throughout."""

    way_m: list[float]
    speed_kmh: list[float]
    time_s: list[float]
    decel_g: list[float]
    steady: bool


class StopView(TypedDict):
    """One stop: what was read, what follows from it [m, g, s], and why it does not count; `where`: its place among the set's stops."""

    key: str
    made_at: str
    number: int
    speed: str
    distance: str
    time: str
    speed_kmh: float
    distance_m: float | None
    corrected_m: float | None
    decel_g: float | None
    lag_s: float | None
    direction: str | None
    locked: str | None
    push: str
    around: str
    left_out: str
    struck: str | None
    simulated: bool
    questioned: bool
    windy: bool
    mfdd_g: float | None
    trace: str | None
    line: StopLine
    working: list[StopStep]


class Predicted(TypedDict):
    """Where the model sees the stops of a set [m]: P5, P50, P95 at a push [N], which is assumed where none was read."""

    low_m: float
    mid_m: float
    high_m: float
    push_n: float
    assumed: bool
    lock_g: float | None


class StopSetView(TypedDict):
    """A set of stops: its mean with the 95 % interval [m], its stops, and what set them."""

    name: str
    setup: str
    changed: list[Changed]
    at: int
    n: int
    mean_m: float | None
    low_m: float | None
    high_m: float | None
    sd_m: float | None
    best_m: float | None
    best_expected_m: float | None
    both_ways: bool
    predicted: Predicted | None
    limited: str
    limited_words: str
    stops: list[StopView]
    orphan: bool
    row_gap: str
    pressed: str


class PairView(TypedDict):
    """Two sets compared: how much shorter [m], the interval, and what that says."""

    first: str
    second: str
    verdict: PairVerdict
    level: Level
    sentence: str
    more: str
    shorter_m: float | None
    low_m: float | None
    high_m: float | None
    stops_each: int | None
    best_claim_m: float | None
    cause: str | None


class DayPlan(TypedDict):
    """Before the first stop: the doubt of a mean of five [m], the gain that is looked for [m], and how many stops each would tell."""

    scatter_m: float
    scatter_known: bool
    doubt_m: float
    wanted_m: float | None
    wanted_from: Literal["typed", "predicted", "none"]
    stops_each: int | None
    sentence: str


class ValveView(TypedDict):
    """An adjustable valve or bar: the chance that the rear is first as it is set, and the next setting with its chance; None where none
    is safe enough, or nothing can be said."""

    least: float
    most: float
    now: float
    unit: str
    chance_now: float | None
    level: Level
    next: float | None
    next_chance: float | None
    low: float
    high: float
    notes: int
    sentence: str


class PullView(TypedDict):
    """Which side brakes more in the last set that notes a turn: left and right apart [% of the braking], left positive."""

    set: str
    n: int
    verdict: str
    level: Level
    sentence: str
    percent: float | None
    low: float | None
    high: float | None


class FactorView(TypedDict):
    """A factor that the readings teach: its value with its interval; `told`: whether they say anything of it."""

    name: str
    words: str
    value: float
    low: float
    high: float
    told: bool


class RowRotor(TypedDict):
    """One rotor in one stop of a row [°C]: where the model sees it begin and end, and what was read."""

    start_c: float
    peak_c: float
    read_c: float | None


class RowStop(TypedDict):
    """One stop of a row: its clock [s] by the model, its speed [km/h], its bite [1], deceleration over what the push gives cold by the
    model, the first stop's taken as 1."""

    number: int
    starts_at_s: float
    from_kmh: float
    rotors: dict[str, RowRotor | None]
    bite: float | None


class RowView(TypedDict):
    """A set whose stops were driven one after another: heat against the model, and whether the brakes faded over it."""

    set: str
    stops: list[RowStop]
    stations: list[str]
    whole_s: float
    change: float | None
    low: float | None
    high: float | None
    level: Level
    sentence: str
    needs: str


class CalibrationView(TypedDict):
    """What the stops of a set and the stand test teach of a setup, and the edits that take it over."""

    setup: str
    of: str
    readings: int
    fits: bool
    factors: list[FactorView]
    lag_s: float
    rms_before_g: float | None
    rms_after_g: float | None
    accept: str
    edits: list[Edit]


class DriveStep(TypedDict):
    """A step of the first drive: what to do, what ends it, and when and by whom it was done."""

    id: str
    words: str
    stop: str
    key: str | None
    at: str
    by: str


class FirstDrive(TypedDict):
    """The first drive of a setup; `gate`: what comes before it and is not there yet."""

    setup: str
    gate: str
    steps: list[DriveStep]
    done: int


class ProveView(TypedDict):
    """Prove of a job, as of a `revision`."""

    page: Literal["prove"]
    revision: int
    nominal: str
    nominal_kmh: float
    wanted: str
    sets: list[StopSetView]
    pairs: list[PairView]
    headline: str
    headline_level: Level | None
    plan: DayPlan
    rows: list[RowView]
    first_drive: FirstDrive
    pull: PullView | None
    gyration: str
    castering: bool
    valve: ValveView | None
    calibrations: list[CalibrationView]
    longest_m: float
    setups: list[str]
    controls: dict[str, list[str]]
    cautions: list[str]


class RecordingColumn(TypedDict):
    """A column of a recording: its head, what it is of and in which unit, and its first figures; `guessed`: the unit is not in the head."""

    head: str
    role: str
    unit: str
    guessed: bool
    first: list[str]


class RoleView(TypedDict):
    """What a column may be of, and its units."""

    role: str
    words: str
    units: list[str]


class RecordedStop(TypedDict):
    """A stop found in a recording; `reason`: why it cannot be kept."""

    number: int
    at_s: float
    speed_kmh: float | None
    distance_m: float | None
    time_s: float | None
    nominal_m: float | None
    mfdd_g: float | None
    lag_s: float | None
    front_kpa: float | None
    rear_kpa: float | None
    questioned: bool
    speed_off: bool
    reason: str
    samples: int
    curve_m: list[float]
    curve_kmh: list[float]


class RecordingView(TypedDict):
    """What is in a recording: its columns, and its stops from at least `trigger_kmh` to rest; `needs`: what it cannot be read without."""

    kind: str
    rows: int
    dropped: int
    columns: list[RecordingColumn]
    roles: list[RoleView]
    stops: list[RecordedStop]
    needs: str
    trigger_kmh: float
    seconds: float | None
    fastest_kmh: float | None


class KeptStops(TypedDict):
    """The keys of the records that were made."""

    keys: list[str]

"""What a judgement is: the records, and the limits in one table, each with its source.

The rules themselves are in stopping.py (what the foot and the road say) and practice.py (what the parts say); verdict.py
asks them all. A danger cannot be switched off.
"""

from dataclasses import dataclass, field
from typing import Literal

from kobrix.core.constants import INCH, POUND, PUBLISHED, G
from kobrix.core.physics.control import ControlKind
from kobrix.core.physics.solved_setup import SolvedSetup

Level = Literal["good", "note", "caution", "danger"]
LEVELS: tuple[Level, ...] = ("danger", "caution", "note", "good")
PSI = POUND * G / INCH**2


@dataclass(frozen=True)
class Band:
    """Limits of one figure: good from `low` to `good`, caution above `caution`, danger above `danger`, with `source`."""

    low: float
    good: float
    caution: float
    danger: float
    source: str

    def level(self, value: float) -> Level:
        """Level of a `value`; below good, and between good and caution, a note."""
        if value > self.danger:
            return "danger"
        if value > self.caution:
            return "caution"
        return "good" if self.low <= value <= self.good else "note"


EFFORT: dict[str, Band] = {
    "car_pedal": Band(120.0, 350.0, 450.0, PUBLISHED["force_limit_car_pedal"].value, "UN R13-H, from memory; comfort: common practice"),
    "motorcycle_foot": Band(60.0, 250.0, 300.0, PUBLISHED["force_limit_motorcycle_foot"].value, "UN R78, from memory; comfort: our estimate"),
    "hand_lever": Band(40.0, 130.0, 160.0, PUBLISHED["force_limit_hand_lever"].value, "UN R78, from memory; comfort: common practice"),
}  # fmt: skip
TRAVEL = Band(0.0, 0.55, 0.65, 0.85, "common practice")
RATIO_MANUAL, RATIO_POWER = (5.0, 7.0), (2.5, 5.0)  # common practice
RESIDUAL_DISC = 2.5 * PSI  # a disc bears 2 psi; what is sold for drums holds 10: common practice
LEAST_KNEE, SLOPES = 1.0e6, (0.43, 0.35, 0.30, 0.25)  # an adjustable valve's usual reach, our estimate
ROD_ANGLE = 0.05235987755982988  # rad, 3°: a rod more crooked than this wears bore and seal, common practice
HOSE_YEARS = 10.0  # rubber hoses older than this are changed: common practice; the maker's date and term come first


@dataclass(frozen=True)
class Mend:
    """What would mend it: `kind`, a short `label` to press, the `name` of what is then tried, and the computed `figures` {name: SI
    value}."""

    kind: str
    label: str
    name: str
    figures: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Judgement:
    """One judgement: `id`, `level`, `sentence`, `reason`, `value` and `limit` in SI, `source`, and perhaps a `mend`; the
    `system` [name] it is about, None for the whole vehicle; the `rule` it is of, the id itself where a rule speaks once; and
    `kind`, what was found, of a rule that can find several things."""

    id: str
    level: Level
    sentence: str
    reason: str
    source: str
    value: float | None = None
    limit: float | None = None
    mend: Mend | None = None
    system: str | None = None
    rule: str = ""
    kind: str = ""

    def __post_init__(self) -> None:
        if not self.rule:
            object.__setattr__(self, "rule", self.id)


@dataclass(frozen=True)
class Facts:
    """What a file says of parts that no formula needs; an absent name is not known.

    `kind` of vehicle; by system: `retained` pushrods, `heights` [m] of the cylinder above the brakes, `fluids`,
    `force_limits` [N]; by station: `hose_years` [a], `hose_gives` [m³/(m·Pa)], `rotors` (thickness, least) [m], `wear` [m³] of its worn pads; by
    circuit `reservoirs` [m³].
    """

    kind: str = "car"
    retained: dict[str, bool] = field(default_factory=dict)
    heights: dict[str, float] = field(default_factory=dict)
    fluids: dict[str, str] = field(default_factory=dict)
    force_limits: dict[str, float] = field(default_factory=dict)
    hose_years: dict[str, float] = field(default_factory=dict)
    hose_gives: dict[str, float] = field(default_factory=dict)
    rotors: dict[str, tuple[float, float | None]] = field(default_factory=dict)
    wear: dict[str, float] = field(default_factory=dict)
    reservoirs: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Bench:
    """What a rule looks at: the `solved` setup, the `load_names`, the `facts` of the file, the solved setup as `found` (None for itself)."""

    solved: SolvedSetup
    load_names: tuple[str, ...]
    facts: Facts = Facts()
    found: SolvedSetup | None = None

    def in_state(self, load: int) -> str:
        """The words that name a `load` state [1], empty where there is only one."""
        return f", {self.load_names[load]}" if len(self.load_names) > 1 else ""

    def tag(self, system: str) -> str:
        """What tells the same rule apart for a `system` [name], empty where there is only one."""
        return f"_{system}" if len(self.solved.systems) > 1 else ""

    def of(self, system: str) -> str:
        """The words that name a `system` [name], empty where there is only one."""
        return f", {system}" if len(self.solved.systems) > 1 else ""


def force_limit(kind: ControlKind, vehicle: str) -> float:
    """The most force [N] that is asked of a person on a control of `kind` [name] in a `vehicle` [name]; of toes that of a foot.

    Source: UN R13-H, R13 and R78, from memory.
    """
    if kind == "car_pedal" and vehicle == "truck":
        return PUBLISHED["force_limit_truck"].value
    return PUBLISHED.get(f"force_limit_{kind}", PUBLISHED["force_limit_car_pedal"]).value


def effort_band(kind: ControlKind, limit: float | None = None) -> Band | None:
    """Limits of effort on a control of `kind` [name]; without published ones, those of a stated `limit` [N], else None."""
    band = EFFORT.get(kind)
    if band is None and limit is not None:
        return Band(0.0, 0.7 * limit, 0.9 * limit, limit, "the stated limit; comfort: our estimate")
    return band


def effort_level(kind: ControlKind, force: float, limit: float | None = None) -> Level | None:
    """Level of a pedal `force` [N] on a control of `kind` [name] with a stated `limit` [N]; None where none is known."""
    band = effort_band(kind, limit)
    return None if band is None else band.level(force)


def travel_level(share: float) -> Level:
    """Level of a `share` [1] of the pedal's room used at the design stop."""
    return TRAVEL.level(share)

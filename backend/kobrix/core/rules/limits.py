"""What a judgement is: the records, and the limits in one table, each with its source.

The rules themselves are beside this file: braking (what the road says), foot (effort, travel, run-out), lost (what failures leave),
worse (an upgrade that is a downgrade), heat, parts and pins; run.py asks them all. A danger cannot be switched off.
"""

from dataclasses import dataclass, field

from kobrix.core.constants import INCH, POUND, PUBLISHED, G
from kobrix.core.figures import Level
from kobrix.core.physics.control import ControlKind
from kobrix.core.physics.solved_setup import SolvedSetup

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
    "truck_pedal": Band(120.0, 400.0, 550.0, PUBLISHED["force_limit_truck"].value, "UN R13, from memory; comfort: our estimate"),
    "aircraft_pedal": Band(30.0, 150.0, 250.0, 350.0, "our estimate"),
    "hand_lever": Band(40.0, 130.0, 160.0, PUBLISHED["force_limit_hand_lever"].value, "UN R78, from memory; comfort: common practice"),
}  # fmt: skip
TRAVEL = Band(0.0, 0.55, 0.65, 0.85, "common practice")
RATIO_MANUAL, RATIO_POWER = (5.0, 7.0), (2.5, 5.0)  # common practice
RESIDUAL_DISC = 2.5 * PSI  # a disc bears 2 psi; what is sold for drums holds 10: common practice
LEAST_KNEE, SLOPES = 1.0e6, (0.43, 0.35, 0.30, 0.25)  # an adjustable valve's usual reach, our estimate
ROD_ANGLE = 0.05235987755982988  # rad, 3°: a rod more crooked than this wears bore and seal, common practice
SWITCH_FORCE = 60.0  # N: a lamp that asks for more comes late, our estimate
CHANCE_GOOD, CHANCE_NOTE, CHANCE_CAUTION = 0.02, 0.10, 0.30  # of plausible vehicles that break a limit, our estimate
SAME_BUILT, LEAST_BUILT = 0.02, 0.10  # g: a circuit lost is "so it was built" within, and while so much is left, our estimate
STROKE_SLACK = 0.002  # m: full stroke beyond the room by less is not told, our estimate
PIN_MOVED = 0.0005  # m: a pin less far from where it was is the same pin measured twice, our estimate
PIN_SLACK = 0.001  # m: a window this much short is not empty, our estimate
WORSE_NOTE, WORSE_CAUTION = 0.02, 0.05  # of the figure as found: what an upgrade may not lose, our estimate
PAD_MARGIN, FLUID_MARGIN = 50.0, 20.0  # K below the most that is stated, our estimate
HOSE_YEARS = 10.0  # rubber hoses older than this are changed: common practice; the maker's date and term come first


@dataclass(frozen=True)
class Judgement:
    """One judgement: `id`, `level`, `sentence`, `reason`, `value` and `limit` in `unit` (SI, decelerations in g), `source`; the
    `system` [name] it is about, None for the whole vehicle; the `rule` it is of, the id itself where a rule speaks once; `kind`,
    what was found, of a rule that can find several things; `about`, of two systems what the same is said of; `links`, the links of
    the chain it shows at.

    `chance` [1] of breaking `chance_limit` (`limit` where that is None), None where it has none; `tried`, whether the level has had
    its trials. In `sentence` {of} stands for the systems it is said of."""

    id: str
    level: Level
    sentence: str
    reason: str
    source: str
    value: float | None = None
    limit: float | None = None
    unit: str = ""
    system: str | None = None
    rule: str = ""
    kind: str = ""
    about: str = ""
    links: tuple[str, ...] = ()
    chance: float | None = None
    chance_limit: float | None = None
    tried: bool = True
    systems: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        if not self.rule:
            object.__setattr__(self, "rule", self.id)


@dataclass(frozen=True)
class Facts:
    """What a file says of parts that no formula needs; an absent name is not known.

    `kind` of vehicle; `trailers`, whether each load state has one; `ratio_stated`, whether the force ratio of the controls is; by
    system: `retained` pushrods, `heights` [m] of the cylinder above the brakes, `fluids`, `fluid_most` [°C], `force_limits` [N];
    by station: `given` (states of friction that were entered), `pad_most` [°C], `cup_expanders`, `hose_years` [a], `hose_gives` [m³/(m·Pa)], `rotors` (thickness, least) [m], `wear` [m³] of its worn pads; by
    circuit `reservoirs` [m³].
    """

    kind: str = "car"
    trailers: tuple[bool, ...] = ()
    ratio_stated: bool = False
    given: dict[str, frozenset[str]] = field(default_factory=dict)
    fluid_most: dict[str, float] = field(default_factory=dict)
    pad_most: dict[str, float] = field(default_factory=dict)
    cup_expanders: dict[str, bool] = field(default_factory=dict)
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
class RotorPeak:
    """What a rotor reaches in the row of stops: `peak` [°C], its `rise` [K] over the air, and the fluid's estimate [°C]."""

    peak: float
    rise: float
    fluid: float


@dataclass(frozen=True)
class Bench:
    """What a rule looks at: the `solved` setup, the `load_names`, the `facts` of the file, the solved setup as `found` (None for itself),
    the stop `wanted` [g] by all setups, the `chances` {id: [1]} of breaking each limit (None: not tried yet), and what every rotor
    reaches in the row of stops, `heats`, of this setup and of the one as found."""

    solved: SolvedSetup
    load_names: tuple[str, ...]
    facts: Facts = Facts()
    found: SolvedSetup | None = None
    wanted: float | None = None
    chances: dict[str, float] | None = None
    heats: dict[str, RotorPeak] = field(default_factory=dict)
    found_heats: dict[str, RotorPeak] = field(default_factory=dict)

    def in_state(self, load: int) -> str:
        """The words that name a `load` state [1], empty where there is only one."""
        return f", {self.load_names[load]}" if len(self.load_names) > 1 else ""

    def tag(self, system: str) -> str:
        """What tells the same rule apart for a `system` [name], empty where there is only one."""
        return f"_{system}" if len(self.solved.systems) > 1 else ""

    def chance(self, id_: str) -> float | None:
        """Chance [1] of breaking the limit of the judgement by `id_` [name]; None where it has none, or was not tried yet."""
        return None if self.chances is None else self.chances.get(id_)

    @property
    def tried(self) -> bool:
        """Whether chances are known."""
        return self.chances is not None


def by_chance(chance: float, most: Level = "danger") -> Level:
    """Level of a `chance` [1] of breaking a limit, `most` [name] the worst it may be called. Source: our estimate."""
    level: Level = (
        "good"
        if chance <= CHANCE_GOOD
        else "note"
        if chance <= CHANCE_NOTE
        else "caution"
        if chance <= CHANCE_CAUTION
        else "danger"
    )
    return LEVELS[max(LEVELS.index(level), LEVELS.index(most))]


def worse_of(first: Level, second: Level) -> Level:
    """The worse of two levels, `first` [name] and `second` [name]. Source: their order."""
    return LEVELS[min(LEVELS.index(first), LEVELS.index(second))]


def percent(chance: float) -> str:
    """A `chance` [1] in whole per cents: "under 1 %", "31 %", "over 99 %". Source: four hundred trials tell no more."""
    if chance < 0.005:
        return "under 1 %"
    return "over 99 %" if chance > 0.995 else f"{chance * 100:.0f} %"


def force_limit(kind: ControlKind, vehicle: str) -> float:
    """The most force [N] that is asked of a person on a control of `kind` [name] in a `vehicle` [name]; of toes that of a foot.

    Source: UN R13-H, R13 and R78, from memory.
    """
    if kind == "car_pedal" and vehicle == "truck":
        return PUBLISHED["force_limit_truck"].value
    return PUBLISHED.get(f"force_limit_{kind}", PUBLISHED["force_limit_car_pedal"]).value


def effort_band(kind: ControlKind, limit: float | None = None, vehicle: str = "car") -> Band:
    """Limits of effort on a control of `kind` [name] in a `vehicle` [name]; of toes a stated `limit` [N] leads, the rest in proportion."""
    if kind == "car_pedal" and vehicle == "truck":
        return EFFORT["truck_pedal"]
    band = EFFORT[kind]
    if kind != "aircraft_pedal" or limit is None:
        return band
    scale = limit / band.danger
    return Band(
        min(band.low, 0.5 * scale * band.good),
        scale * band.good,
        scale * band.caution,
        limit,
        "the stated limit; comfort: our estimate",
    )


def effort_level(kind: ControlKind, force: float, limit: float | None = None, vehicle: str = "car") -> Level:
    """Level of a pedal `force` [N] on a control of `kind` [name] with a stated `limit` [N] in a `vehicle` [name]."""
    return effort_band(kind, limit, vehicle).level(force)


def travel_level(share: float) -> Level:
    """Level of a `share` [1] of the pedal's room used at the design stop."""
    return TRAVEL.level(share)

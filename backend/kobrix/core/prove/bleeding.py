"""Bleeding: the order of the screws, what each takes, when the reservoir must be filled; what a hold and pumping tell."""

import math
from dataclasses import dataclass
from typing import Literal, TypedDict, TypeVar

import numpy as np

from kobrix.core.errors import BadPlace
from kobrix.core.figures import Level, Shown, Warned
from kobrix.core.prove.estimates import Estimate, line

Number = TypeVar("Number", int, float)
Screw = Literal["only", "inner", "outer"]
Pumped = Literal["falls", "no_change", "air_or_clearance", "air", "knock_back", "clearance"]
Loss = Literal["tight", "seep", "leak", "cannot_tell"]
DENSITY = {"DOT 5": 0.96}  # g/cm³, from memory
USUAL_DENSITY = 1.05
SILICONE = "DOT 5"
MOST_STROKES = 100_000


@dataclass(frozen=True)
class Branch:
    """A wheel's screws: its line's length and volume [mm, cm³] where known, its caliper's volume [cm³], and its trunk."""

    name: str
    axle: str
    side: str
    caliper: float
    length: float | None
    line: float | None
    screws: int = 1
    outer_first: bool = False
    trunk: str | None = None


@dataclass(frozen=True)
class Trunk:
    """A line that branches share: `length` [mm] and `volume` [cm³]."""

    length: float
    volume: float


@dataclass(frozen=True)
class Reservoir:
    """What a push moves and what the reservoir holds [cm³]; None where it is not known."""

    stroke: float | None
    full: float | None
    low: float = 0.0


def line_volume(length: float, bore: float) -> float:
    """Volume [cm³] of a line of `length` and `bore` [mm]."""
    return math.pi / 4 * bore**2 * length / 1000


def _furthest(branches: list[Branch], trunks: dict[str, Trunk], cylinder_side: str) -> list[int]:
    """Places of the branches, the furthest first: by lengths, or by seats where one is missing."""
    lengths = [None if b.length is None else b.length + (trunks[b.trunk].length if b.trunk else 0.0) for b in branches]
    if any(length is None for length in lengths):
        return sorted(range(len(branches)), key=lambda k: (branches[k].axle != "rear", branches[k].side == cylinder_side))
    return sorted(range(len(branches)), key=lambda k: -(lengths[k] or 0.0))


def order_of(branches: list[Branch], trunks: dict[str, Trunk], school: str, cylinder_side: str, listed: list[str]) -> list[int]:
    """Places of the branches in the order they are bled, by the school (common practice).

    `branches` [records]; `trunks` {name: record}; `school` [name]; `cylinder_side` [name]; `listed` [names].
    """
    if school == "list":
        return [next(k for k, b in enumerate(branches) if b.name == name) for name in listed]
    far = _furthest(branches, trunks, cylinder_side)
    if school == "nearest_first":
        if any(b.length is None for b in branches):
            return far[::-1]
        lengths = [(b.length or 0.0) + (trunks[b.trunk].length if b.trunk else 0.0) for b in branches]
        return sorted(range(len(branches)), key=lambda k: lengths[k])
    if school == "furthest_first":
        return far
    left, found = list(far), []
    while left:
        first = left.pop(0)
        found.append(first)
        a = branches[first]
        across = next((k for k in left if branches[k].axle != a.axle and branches[k].side != a.side), None)
        if across is not None:
            left.remove(across)
            found.append(across)
    return found


class _Level:
    """The reservoir's level while screws are bled, and the fillings."""

    def __init__(self, reservoir: Reservoir) -> None:
        self.reservoir, self.level = reservoir, reservoir.full

    def strokes(self, count: int) -> list[int]:
        """Numbers of this screw's strokes before which it is filled up."""
        stroke, full, low = self.reservoir.stroke or 0.0, self.reservoir.full or 0.0, self.reservoir.low
        filled = []
        for number in range(1, count + 1):
            level = full if self.level is None else self.level
            if level - stroke < low - 1e-9:
                filled.append(number)
                level = full
            self.level = level - stroke
        return filled

    def drawn(self, volume: float) -> list[float]:
        """What this screw has drawn [cm³] each time it is filled up."""
        full, low = self.reservoir.full or 0.0, self.reservoir.low
        filled: list[float] = []
        taken = 0.0
        level = full if self.level is None else self.level
        while volume - taken > level - low + 1e-9:
            taken += level - low
            filled.append(taken)
            level = full
        self.level = level - (volume - taken)
        return filled


class ScrewAnswer(TypedDict):
    """A screw in its turn: fluid, pushes of the pedal, and before which pushes, or after how much of its fluid, to fill up."""

    branch: str
    screw: Screw
    fluid_cm3: float | None
    fluid_g: float | None
    strokes: int | None
    pushed_cm3: float | None
    top_up_before_strokes: list[int] | None
    top_up_after_cm3: list[float] | None


class Screws(TypedDict):
    """The screws in order, and the whole of each figure, None where a part of it is not known."""

    order: list[ScrewAnswer]
    stroke_volume_cm3: float | None
    total_fluid_cm3: float | None
    total_strokes: int | None
    total_pushed_cm3: float | None
    total_g: float | None
    top_ups: int | None


class BleedAnswer(Screws):
    """bleed_order: the screws, what their order is made of, and what to heed."""

    order_from: Literal["list", "seats", "lengths"]
    warnings: list[Warned]


class PumpedAnswer(TypedDict):
    """pumped: how much the pedal comes up [mm], what that takes up, and what it says."""

    rise_mm: float
    limit_mm: float
    taken_up_cm3: float | None
    gap_mm_per_pad: float | None
    extra_give_mm: float | None
    verdict: Pumped
    level: Level


Held = TypedDict(
    "Held", {"plugged": list[str], "sink_mm_per_min": Shown, "loss_cm3_per_min": Shown, "class": Loss}
)  # a pedal held with circuits plugged: how fast it sinks, what it loses, and what that is


class HoldAnswer(TypedDict):
    """leak_hold: the holds, and where the fluid goes."""

    holds: list[Held]
    where: str
    level: Level


def bleed_order(branches: list[Branch], trunks: dict[str, Trunk], order: list[int], flush: float, reservoir: Reservoir,
                density: float) -> Screws:  # fmt: skip
    """Each screw in order with its fluid, strokes and fillings; totals are None where a volume is not known.

    `branches` [records]; `trunks` {name: record}; `order` [places]; `flush` [1]; `reservoir` [record]; `density` [g/cm³].
    """
    rows: list[ScrewAnswer] = []
    seen: set[str] = set()
    level = _Level(reservoir)
    fluids, pushes, counts, fills = list[float | None](), list[float | None](), list[int | None](), list[int | None]()
    for place in order:
        branch = branches[place]
        pipe = branch.line
        if branch.trunk is not None and branch.trunk not in seen:
            seen.add(branch.trunk)
            pipe = None if pipe is None else pipe + trunks[branch.trunk].volume
        two = branch.screws == 2
        names: list[Screw] = ["only"] if not two else (["outer", "inner"] if branch.outer_first else ["inner", "outer"])
        first = None if pipe is None else flush * (pipe + branch.caliper / len(names))
        for name, volume in zip(names, [first, flush * branch.caliper / 2][: len(names)], strict=True):
            strokes = None
            if volume is not None and reservoir.stroke is not None:
                strokes = math.ceil(volume / reservoir.stroke - 1e-9)
                if strokes > MOST_STROKES:
                    raise BadPlace(f"branches.{place}", f"it takes {strokes} pushes; at most {MOST_STROKES} are counted.")
            pushed = volume if strokes is None else strokes * (reservoir.stroke or 0.0)
            before: list[int] | None = None
            after: list[float] | None = None
            if reservoir.full is not None and volume is not None:
                if strokes is not None:
                    before = level.strokes(strokes)
                else:
                    after = level.drawn(volume)
            if volume is None:
                level.level = reservoir.full
            rows.append({
                "branch": branch.name, "screw": name, "fluid_cm3": volume, "fluid_g": None if volume is None else volume * density,
                "strokes": strokes, "pushed_cm3": pushed, "top_up_before_strokes": before, "top_up_after_cm3": after,
            })  # fmt: skip
            fluids.append(volume)
            pushes.append(pushed)
            counts.append(strokes)
            filled = before if before is not None else after
            fills.append(None if filled is None else len(filled))
    total = _sum(pushes)
    return {
        "order": rows, "stroke_volume_cm3": reservoir.stroke, "total_fluid_cm3": _sum(fluids), "total_strokes": _sum(counts),
        "total_pushed_cm3": total, "total_g": None if total is None else total * density, "top_ups": _sum(fills),
    }  # fmt: skip


def _sum(values: list[Number | None]) -> Number | None:
    known = [v for v in values if v is not None]
    return sum(known) if len(known) == len(values) else None


def fluid_warnings(fluid: str, fluid_in: str | None) -> list[Warned]:
    """What to heed of the fluid that goes in over the one that is in: silicone mixes with none (common practice).

    `fluid` [name]; `fluid_in` [name].
    """
    if fluid_in is None:
        return [{"id": "fluid_in_unknown", "level": "note"}]
    if fluid == fluid_in:
        return []
    silicone = SILICONE in (fluid, fluid_in)
    return [{"id": "silicone_mixed", "level": "danger"} if silicone else {"id": "grade_mixed", "level": "caution"}]


def pumped(rise: float, limit: float, area: float, ratio: float, slack: float | None, extra: float | None,
           after_drive: bool) -> PumpedAnswer:  # fmt: skip
    """What a pedal that comes up by pumping tells: `rise` and `limit` [mm], cylinder `area` [mm²], pedal `ratio`.

    `slack` is Σ wheels·2·A·n [mm²] of the brakes that may be set back, `extra` the give of a hard push over the plan's [mm].

    `after_drive` [yes or no].
    """
    taken = rise * area / ratio / 1000 if rise > 0 else None
    verdict: Pumped
    if rise < -limit - 1e-9:
        verdict = "falls"
    elif rise <= limit + 1e-9:
        verdict = "no_change"
    elif extra is None:
        verdict = "air_or_clearance"
    elif extra > limit + 1e-9:
        verdict = "air"
    else:
        verdict = "knock_back" if after_drive else "clearance"
    return {
        "rise_mm": rise, "limit_mm": limit, "taken_up_cm3": taken,
        "gap_mm_per_pad": None if slack is None or taken is None else taken * 1000 / slack, "extra_give_mm": extra,
        "verdict": verdict, "level": "danger" if verdict == "falls" else "good" if verdict == "no_change" else "caution",
    }  # fmt: skip


@dataclass(frozen=True)
class Hold:
    """A pedal held at one force: which circuits were plugged, and where it was [s, mm] after it settled."""

    plugged: frozenset[str]
    times: list[float]
    travels: list[float]


def loss_of(hold: Hold, doubt: float, area: float, ratio: float) -> tuple[Estimate, Estimate]:
    """How fast the pedal sinks [mm/min] and fluid is lost [cm³/min]; `doubt` [mm] of each reading, `area` [mm²].

    `hold` [record]; `ratio` [1].
    """
    fit = line(np.array(hold.times), np.array(hold.travels), doubt)
    assert fit is not None
    sink = fit.one(1).times(60.0)
    return sink, sink.times(area / ratio / 1000)


def class_of(loss: Estimate, tight: float, leak: float) -> Loss:
    """Whether a `loss` [cm³/min] is tight, a seep, a leak, or cannot be told; limits are our estimate.

    `tight` [cm³/min]; `leak` [cm³/min].
    """
    if loss.low <= 0.0:
        return "tight" if loss.high <= tight + 1e-9 else "cannot_tell"
    if loss.value < tight - 1e-9:
        return "tight"
    return "seep" if loss.value <= leak + 1e-9 else "leak"


def where_lost(classes: dict[frozenset[str], Loss], circuits: list[str]) -> str:
    """Where the fluid goes, from what each hold says with which circuits plugged.

    `classes` {plugged circuits: class}; `circuits` [names].
    """
    every = frozenset(circuits)
    loses = {plugged for plugged, kind in classes.items() if kind in ("seep", "leak")}
    open_hold = classes.get(frozenset())
    if open_hold in (None, "cannot_tell"):
        return "cannot_tell"
    if open_hold == "tight":
        return "none"
    if every in loses:
        return "cylinder"
    alone = [c for c in circuits if classes.get(frozenset([c])) == "tight"]
    if len(circuits) > 1 and alone:
        return f"beyond_{alone[0]}" if len(alone) == 1 else "cannot_tell"
    if classes.get(every) == "tight":
        if len(circuits) == 1:
            return f"beyond_{circuits[0]}"
        if all(frozenset([c]) in loses for c in circuits):
            return "beyond_each"
    return "not_located"

"""acceptance: how far a part may differ and all limits still hold, and what to do with the one in the hand."""

import copy
import math
from collections.abc import Callable
from typing import Any, Literal, TypedDict

import numpy as np

from kobrix.core.errors import BadPlace
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup
from kobrix.evaluate.ask.subject import Document, circuits_lost, read_setup, solved_of
from kobrix.evaluate.solve import Answer
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.quantities import value_of

Limit = Literal["effort", "travel", "lock_order", "lost_circuit"]
Verdict = Literal["keep", "keep_with_valve", "leave"]
Figure = Literal["effort_n", "travel_share", "lock_ratio", "lost_circuit_decel_g"]
FIGURES: dict[Limit, Figure] = {
    "effort": "effort_n", "travel": "travel_share", "lock_order": "lock_ratio", "lost_circuit": "lost_circuit_decel_g"
}  # fmt: skip
LIMITS: tuple[Limit, ...] = ("effort", "travel", "lock_order", "lost_circuit")
WHATS = ("side_area_cm2", "bore_mm", "rotor_diameter_mm", "friction_factor")
POINTS, SLACK = 25, 1e-12
VALVE_SLOPE = 0.35  # our estimate
HIGHEST_KNEE = 40_000.0  # kPa: no valve is set above


class Values(TypedDict, total=False):
    """The limits' figures, of those that were asked, the worst over load states and systems; None beyond every bound."""

    effort_n: float | None
    travel_share: float | None
    lock_ratio: float | None
    lost_circuit_decel_g: float | None


class Interval(TypedDict):
    """A dimension: what it is now, and the band around it that holds all limits, with the limit met at each end (None: none there)."""

    what: str
    station: str | None
    now: float
    low: float | None
    high: float | None
    low_limit: Limit | None
    high_limit: Limit | None


class Judged(TypedDict):
    """A part in the hand: what to do with it, and what breaks."""

    name: str
    verdict: Verdict
    broken: list[Limit]
    knee_kpa: float | None


class AcceptanceAnswer(TypedDict):
    """acceptance: the setup's own figures and what they break, the bands, and the candidates."""

    values: Values
    broken: list[Limit]
    intervals: list[Interval]
    candidates: list[Judged]


class Limits:
    """What must hold, as asked."""

    def __init__(self, asked: Asked) -> None:
        known = ("decel_g", "effort_n", "travel_share", "lock_margin", "lost_circuit_decel_g")
        part = asked.part("limits").known(known)
        self.effort, self.travel = part.maybe("effort_n", "zero"), part.maybe("travel_share", "zero")
        self.margin, self.lost = part.maybe("lock_margin", "zero"), part.maybe("lost_circuit_decel_g", "zero")
        wants = self.effort is not None or self.travel is not None
        self.decel = part.number("decel_g") if wants else part.maybe("decel_g")

    def values(self, answer: Answer, solved: SolvedSetup) -> dict[Limit, float]:
        """The figures of the limits that are asked, the worst over load states and systems."""
        path, found = solved.main, dict[Limit, float]()
        if self.decel is not None:
            place, known = path.healthy.reach(self.decel)
            if self.effort is not None:
                push = np.where(known, path.healthy.push_at(place), np.inf)
                found["effort"] = float(np.max(push))
            if self.travel is not None:
                found["travel"] = _travel(path, answer, place, known)
        if self.margin is not None:
            found["lock_order"] = _lock_ratio(path)
        if self.lost is not None:
            found["lost_circuit"] = lost_circuit(path, solved)
        return found

    def broken(self, values: dict[Limit, float]) -> list[Limit]:
        """The limits that do not hold, in order."""
        found: list[Limit] = []
        for name in LIMITS:
            if name not in values:
                continue
            most = {"effort": self.effort, "travel": self.travel}.get(name)
            value = values[name]
            if most is not None:
                if not value <= most * (1 + SLACK):
                    found.append(name)
                continue
            least = 1 + (self.margin or 0.0) if name == "lock_order" else (self.lost or 0.0)
            if not value >= least * (1 - SLACK):
                found.append(name)
        return found


def _travel(path: SolvedPath, answer: Answer, place: Any, known: Any) -> float:
    shares = [0.0]
    for pull in path.healthy.pulls:
        room = answer.rooms[pull.system.name].available
        if room is None or pull.pedal.travel is None:
            raise BadPlace("setup", f"travel of {pull.system.name} is not known: its lines and its available travel are needed.")
        pad = np.where(known, pull.pedal.pad_at(pull.place(place)), np.inf)
        shares.append(float(np.max(pad)) / float(np.max(room)))
    return max(shares)


def _lock_ratio(path: SolvedPath) -> float:
    """Least ratio of the rear's own lock to the front's; inf where the rear never locks, 0 where only the front never does."""
    locks = path.healthy.road.locks
    front, rear = (np.broadcast_to(locks[a], (*path.lock_decel.shape, 1)).reshape(-1) for a in ("front", "rear"))
    ratios = [math.inf if math.isinf(r) else 0.0 if math.isinf(f) else r / f for f, r in zip(front, rear, strict=True)]
    return float(min(ratios))


def lost_circuit(path: SolvedPath, solved: SolvedSetup) -> float:
    """Least deceleration [g] with a circuit lost, over circuits and load states; inf where none can be lost."""
    if path.left is None:
        raise BadPlace("setup", "what a lost circuit leaves is not known: lines, strokes and available travel are needed.")
    return min((best for _, best in circuits_lost(path, solved)), default=math.inf)


def station_of(document: Document, name: str) -> Document | None:
    """The station of that `name` in a setup's `document`."""
    rows = (s for system in document["systems"] for s in system.get("stations") or [] if s.get("name") == name)
    return next(rows, None)


def now_of(document: Document, what: str, station: str | None) -> float:
    """What a dimension is now, in the unit of its name."""
    if what == "friction_factor":
        return 1.0
    if what == "bore_mm":
        cylinder = document["systems"][0]["cylinder"]
        return value_of(cylinder["bore_mm"] if "bore_mm" in cylinder else cylinder["front"]["bore_mm"], "bore_mm")
    brake = (station_of(document, station or "") or {})["brake"]
    if what == "rotor_diameter_mm":
        return value_of(brake["rotor_diameter_mm"], what)
    return sum(math.pi / 4 * value_of(d, "pistons_mm") ** 2 for d in brake["pistons_mm"]) / 100


def changed(document: Document, what: str, station: str | None, value: float) -> Document:
    """A copy of a setup's `document` with one dimension set."""
    own = copy.deepcopy(document)
    if what == "bore_mm":
        cylinder = own["systems"][0]["cylinder"]
        if "bore_mm" in cylinder:
            cylinder["bore_mm"] = value
        else:
            scale = value / now_of(document, what, None)
            for half in ("front", "rear"):
                cylinder[half]["bore_mm"] = value_of(cylinder[half]["bore_mm"], what) * scale
        return own
    brake = (station_of(own, station or "") or {})["brake"]
    if what == "rotor_diameter_mm":
        brake[what] = value
    elif what == "side_area_cm2":
        scale = math.sqrt(value / now_of(document, what, station))
        brake["pistons_mm"] = [value_of(d, "pistons_mm") * scale for d in brake["pistons_mm"]]
    else:
        brake["friction"] = {k: value_of(v, "friction") * value for k, v in brake["friction"].items() if v is not None}
    return own


def _dimension(asked: Asked, document: Document) -> tuple[str, str | None]:
    what = asked.word("what", WHATS)
    if what == "bore_mm":
        return what, None
    names = [s.get("name") for system in document["systems"] for s in system.get("stations") or []]
    name = asked.word("station", [str(n) for n in names])
    if ((station_of(document, name) or {}).get("brake") or {}).get("kind") != "disc":
        raise asked.bad("station", f"{name} is not a disc.")
    return what, name


class Judge:
    """A setup's limits for any change of it."""

    def __init__(self, asked: Asked) -> None:
        self.document: Document = asked.raw("setup")
        self.limits = Limits(asked)
        self.place = asked.at("setup")

    def values(self, document: Document) -> dict[Limit, float]:
        """The figures of the limits for a changed `document`."""
        return self.limits.values(*solved_of(read_setup(document, self.place), self.place))

    def broken(self, document: Document) -> list[Limit]:
        """The limits that a changed `document` does not hold; all of them where it cannot be one."""
        try:
            return self.limits.broken(self.values(document))
        except BadPlace:
            return list(LIMITS)


def _edge(broken: Callable[[float], list[Limit]], good: float, bad: float, span: float) -> tuple[float, Limit]:
    """Where limits stop holding between a `good` and a `bad` value, on the holding side, and the first that breaks there."""
    first = broken(bad)[0]
    while abs(bad - good) > 1e-10 * span:
        middle = (good + bad) / 2
        fails = broken(middle)
        if fails:
            bad, first = middle, fails[0]
        else:
            good = middle
    return good, first


def _interval(judge: Judge, what: str, station: str | None, low: float, high: float) -> Interval:
    """The run of a dimension that holds all limits, nearest to what it is now."""
    now = now_of(judge.document, what, station)

    def broken(value: float) -> list[Limit]:
        return judge.broken(changed(judge.document, what, station, value))

    values = [low + (high - low) * k / (POINTS - 1) for k in range(POINTS)]
    fails = [broken(v) for v in values]
    runs: list[tuple[int, int]] = []
    for k, found in enumerate(fails):
        if found:
            continue
        if runs and runs[-1][1] == k - 1:
            runs[-1] = (runs[-1][0], k)
        else:
            runs.append((k, k))
    if not runs:
        return {"what": what, "station": station, "now": now, "low": None, "high": None,
                "low_limit": fails[0][0], "high_limit": fails[-1][0]}  # fmt: skip

    def away(run: tuple[int, int]) -> float:
        return max(values[run[0]] - now, now - values[run[1]], 0.0)

    a, b = min(runs, key=lambda run: (round(away(run), 9), run[0]))
    span = high - low
    start, first = (values[a], None) if a == 0 else _edge(broken, values[a], values[a - 1], span)
    end, last = (values[b], None) if b == POINTS - 1 else _edge(broken, values[b], values[b + 1], span)
    return {"what": what, "station": station, "now": now, "low": start, "high": end, "low_limit": first, "high_limit": last}


def _with_knee(document: Document, station: str, knee: float, slope: float) -> Document:
    own = copy.deepcopy(document)
    part = station_of(own, station) or {}
    kept = [d for d in part.get("devices") or [] if d.get("kind") != "proportioning"]
    part["devices"] = [*kept, {"kind": "proportioning", "knee_kpa": knee, "slope": slope}]
    return own


def _with_valve(judge: Judge, document: Document, slope: float) -> tuple[float, list[Limit]] | None:
    """The greatest knee [kPa] with which the rear no longer locks first and what breaks then; None where no valve can help."""
    rears = [s for system in document["systems"] for s in system.get("stations") or [] if s.get("axle") == "rear"]
    if len(document["systems"]) != 1 or len(rears) != 1:
        return None
    name = str(rears[0]["name"])

    def breaks(knee: float) -> bool:
        return "lock_order" in judge.broken(_with_knee(document, name, knee, slope))

    low, high = 1e-3, HIGHEST_KNEE
    if breaks(low):
        return None
    while high - low > 1e-9 * high:
        middle = (low + high) / 2
        low, high = (low, middle) if breaks(middle) else (middle, high)
    return low, judge.broken(_with_knee(document, name, low, slope))


def accepted(asked: Asked) -> AcceptanceAnswer:
    """acceptance: bands of each dimension at the limits, and a verdict on each candidate."""
    judge = Judge(asked)
    values = judge.values(judge.document)
    told: Values = {}
    for name, figure in values.items():
        told[FIGURES[name]] = figure if math.isfinite(figure) else None
    intervals, rows = list[Interval](), list[Judged]()
    for row in asked.parts("dimensions", 0):
        what, station = _dimension(row, judge.document)
        low, high = row.number("from"), row.number("to")
        if high <= low:
            raise row.bad("to", "it is not above where it is from.")
        intervals.append(_interval(judge, what, station, low, high))
    slope = asked.default("valve_slope", VALVE_SLOPE)
    for k, row in enumerate(asked.parts("candidates", 0), 1):
        own = judge.document
        for part in row.parts("set"):
            what, station = _dimension(part, judge.document)
            own = changed(own, what, station, part.number("value"))
        broken, knee = judge.broken(own), None
        verdict: Verdict = "keep"
        if broken:
            verdict = "leave"
            valve = _with_valve(judge, own, slope) if broken == ["lock_order"] else None
            if valve is not None:
                if valve[1]:
                    broken = valve[1]
                else:
                    verdict, knee = "keep_with_valve", valve[0]
        rows.append({"name": row.text("name", f"part {k}"), "verdict": verdict, "broken": broken, "knee_kpa": knee})
    return {
        "values": told, "broken": judge.limits.broken(values),
        "intervals": intervals, "candidates": rows,
    }  # fmt: skip

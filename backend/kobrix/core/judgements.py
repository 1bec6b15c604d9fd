"""Rules of practice: what is good, what is dangerous, why, and what would mend it, with figures that are computed.

A rule is data (limits in one table, each with its source) and a function. A danger cannot be switched off.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from kobrix.core.case import LOW_GRIP, Case, adhesion_curve, rear_first_grips
from kobrix.core.constants import INCH, POUND, PUBLISHED, G
from kobrix.core.control import ControlKind
from kobrix.core.disc import Disc
from kobrix.core.failures import LIMITS
from kobrix.core.valves import Passive, Proportioning
from kobrix.core.vehicle import distribution_kept

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
RATIO_MANUAL, RATIO_POWER = (5.0, 7.0), (2.5, 5.0)
RESIDUAL_DISC = 2.5 * PSI  # a disc bears 2 psi; what is sold for drums holds 10
LEAST_KNEE, SLOPES = 1.0e6, (0.43, 0.35, 0.30, 0.25)  # an adjustable valve's usual reach, our estimate


@dataclass(frozen=True)
class Mend:
    """What would mend it: `kind`, a short `label` to press, and the computed `figures` {name: SI value}."""

    kind: str
    label: str
    figures: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Judgement:
    """One judgement: `id`, `level`, `sentence`, `reason`, `value` and `limit` in SI, `source`, and perhaps a `mend`."""

    id: str
    level: Level
    sentence: str
    reason: str
    source: str
    value: float | None = None
    limit: float | None = None
    mend: Mend | None = None


@dataclass(frozen=True)
class Bench:
    """What a rule looks at: the `case`, the `load_names`, the case as `found` (None for itself), and facts of the file."""

    case: Case
    load_names: tuple[str, ...]
    found: Case | None = None
    rod_retained: bool | None = None
    hose_age: float | None = None
    height_above_brakes: float | None = None


Rule = Callable[[Bench], list[Judgement]]


def effort_level(kind: ControlKind, force: float) -> Level | None:
    """Level of a pedal `force` [N] on a control of `kind` [name]; None where no limit is known."""
    band = EFFORT.get(kind)
    return None if band is None else band.level(force)


def travel_level(share: float) -> Level:
    """Level of a `share` [1] of the pedal's room used at the design stop."""
    return TRAVEL.level(share)


def _in_state(bench: Bench, load: int) -> str:
    return f", {bench.load_names[load]}" if len(bench.load_names) > 1 else ""


def effort(bench: Bench) -> list[Judgement]:
    """Push at the design stop, the heaviest over the load states of `bench` [record]."""
    case = bench.case
    kind, band = case.system.control.kind, EFFORT.get(case.system.control.kind)
    if band is None:
        return []
    if not np.any(case.design_known):
        return [
            Judgement("effort", "danger", "The brakes never give a hard stop.", "No push reaches 0.9 of the grip.", band.source)
        ]
    push = np.where(case.design_known, case.healthy.push_at(case.design)[:, 0, 0], -np.inf)
    worst = int(np.argmax(push))
    force, where = float(push[worst]), _in_state(bench, worst)
    level = effort_level(kind, force) or "note"
    good = f"{band.low:.0f} to {band.good:.0f} N"
    head = f"Effort {force:.0f} N for {case.design_decel[worst]:.2f} g{where}"
    if level == "good":
        return [
            Judgement("effort", level, f"{head}, inside {good}.", "Comfortable for a hard stop.", band.source, force, band.good)
        ]
    if force < band.low:
        text = f"{head}: below {band.low:.0f} N.", "So light a pedal is hard to meter."
        return [Judgement("effort", level, *text, band.source, force, band.low)]
    limit = band.danger if level == "danger" else band.caution if level == "caution" else band.good
    reason = f"Good is {good}; a smaller bore, the pin nearer the pivot or larger pistons lighten it."
    return [Judgement("effort", level, f"{head}: over {limit:.0f} N.", reason, band.source, force, limit)]


def travel(bench: Bench) -> list[Judgement]:
    """Share of the pedal's room used at the design stop, the largest over the load states of `bench` [record]."""
    case, known, room = bench.case, bench.case.healthy.travel, bench.case.system.control.available
    if known is None or room is None or not np.any(case.design_known):
        return []
    pad = np.broadcast_to(known.pad.at(case.design)[..., 0, 0], case.design_known.shape)
    worst = int(np.argmax(np.where(case.design_known, pad, 0.0)))
    share, available = float(pad[worst]) / float(room), float(room)
    level = travel_level(share)
    head = f"Travel {pad[worst] * 1e3:.0f} of {available * 1e3:.0f} mm, {share * 100:.0f} %{_in_state(bench, worst)}"
    if level == "good":
        return [
            Judgement("travel", level, f"{head}.", "Room is left for worn pads, heat and air.", TRAVEL.source, share, TRAVEL.good)
        ]
    limit = {"note": TRAVEL.good, "caution": TRAVEL.caution, "danger": TRAVEL.danger}[level]
    reason = "Worn pads, heat and air take more: little is left to the floor."
    return [Judgement("travel", level, f"{head}: over {limit * 100:.0f} %.", reason, TRAVEL.source, share, limit)]


def lock_order(bench: Bench) -> list[Judgement]:
    """Which end locks first, at every grip from 0.15 up and in every load state of `bench` [record]."""
    case = bench.case
    road, event = case.healthy.road, case.healthy.event
    source = "UN R13-H, from memory: the front first, so that the vehicle stays in line"
    if not np.any(road.line.force("rear") > 0.0) or not np.any(road.line.force("front") > 0.0):
        return []
    some, low, high = (np.asarray(v)[..., 0] for v in rear_first_grips(road, case.wheels))
    grip = float(np.max(np.maximum(case.load.grip_front, case.load.grip_rear)))
    if np.any(some):
        worst = int(np.argmax(np.where(some, high, 0.0)))
        rear = event.rear[:, 0] & ~event.front[:, 0]
        if np.any(rear):
            worst = int(np.argmin(np.where(rear, event.decel[:, 0], np.inf)))
            z = float(event.decel[worst, 0])
            sentence = f"The rear locks first, {z:.3f} g{_in_state(bench, worst)}."
            return [
                Judgement(
                    "lock_order", "danger", sentence, f"Below the grip of {grip:.2f}, and that can spin the car.", source, z, grip
                )
            ]
        span = f"grip {low[worst]:.2f} to {high[worst]:.2f}"
        sentence = f"On a slippery road the rear locks first ({span}{_in_state(bench, worst)})."
        return [
            Judgement(
                "lock_order",
                "danger",
                sentence,
                "That can spin the car where it is hardest to catch.",
                source,
                float(low[worst]),
                grip,
            )
        ]
    lift = event.lift[:, 0]
    if np.any(lift):
        z = float(event.decel[int(np.argmax(lift)), 0])
        return [
            Judgement(
                "lock_order",
                "danger",
                f"The rear lifts at {z:.2f} g before any wheel locks.",
                "Nothing holds the vehicle down behind.",
                "moments",
                z,
            )
        ]
    first = event.front[:, 0]
    if not np.any(first):
        return [Judgement("lock_order", "note", "No wheel locks at any push.", "The brakes are weaker than the tyres.", source)]
    z = float(np.min(np.where(first, event.decel[:, 0], np.inf)))
    reason = f"In every load state and at every grip from {LOW_GRIP} up."
    return [Judgement("lock_order", "good", f"The front locks first, {z:.3f} g.", reason, source, z, grip)]


def distribution(bench: Bench) -> list[Judgement]:
    """The two clauses on sharing, in every load state of `bench` [record]."""
    above, kept = (np.asarray(v)[..., 0] for v in distribution_kept(*adhesion_curve(bench.case.healthy)))
    source = "UN R13-H, from memory"
    out = []
    if not np.all(above):
        text = "The rear uses more grip than the front between 0.15 and 0.80 g.", "The sharing rule for cars forbids it."
        out.append(Judgement("distribution_rear", "caution", *text, source))
    if not np.all(kept):
        worst = _in_state(bench, int(np.argmin(kept)))
        text = (
            f"One axle's grip is used too early{worst}.",
            "The rule wants z ≥ 0.1 + 0.7(k − 0.2): the other axle could help more.",
        )
        out.append(Judgement("distribution_use", "caution", *text, source))
    return out


def failures(bench: Bench) -> list[Judgement]:
    """What each lost circuit or booster leaves, the worst over the load states of `bench` [record]."""
    case, left = bench.case, bench.case.left
    if left is None:
        return []
    need = PUBLISHED["secondary_decel"].value / G
    source = "UN R13-H secondary braking, from memory"
    best, limited, push = left.best, left.limited, left.push
    out = []
    for c, name in enumerate(case.names):
        if not name.startswith("lost_"):
            continue
        lost = name.removeprefix("lost_").replace("_", " ")
        what = (
            "Booster lost"
            if lost == "booster"
            else "The only circuit lost"
            if lost == "circuit"
            else f"{lost.capitalize()} circuit lost"
        )
        stops = [0.0 if LIMITS[limited[i, c]] in ("contact", "all_lost") else float(best[i, c]) for i in range(best.shape[0])]
        worst = int(np.argmin(stops))
        limit, z, force = LIMITS[limited[worst, c]], stops[worst], float(push[worst, c])
        ends = {
            "travel": f"the floor at {force:.0f} N, {z:.2f} g",
            "chamber": f"a chamber spent at {force:.0f} N, {z:.2f} g",
            "contact": "the floor before a brake is touched",
            "all_lost": "no brakes left",
            "force": f"{z:.2f} g at {force:.0f} N",
        }[limit]
        head = f"{what}: {ends}{_in_state(bench, worst)}."
        asked = f"The least asked is {need:.2f} g."
        if z < need:
            out.append(Judgement(name, "danger", head, asked, source, z, need, Mend("show", "Show it")))
        elif limit in ("travel", "chamber"):
            out.append(Judgement(name, "caution", head, asked, source, z, need, Mend("show", "Show it")))
        else:
            out.append(Judgement(name, "good", head, asked, source, z, need))
    return out


def one_circuit(bench: Bench) -> list[Judgement]:
    """One circuit for all brakes of `bench` [record] is one leak from none."""
    if bench.case.system.cylinder.kind != "single" or bench.case.system.control.kind != "car_pedal":
        return []
    text = "One circuit feeds all brakes.", "One leak loses them all; a tandem cylinder keeps half."
    return [Judgement("one_circuit", "caution", *text, "common practice; law for most cars")]


def pin_move(bench: Bench) -> list[Judgement]:
    """A moved pin of `bench` [record] against the one as found: the cylinder's mounting moves with it."""
    if bench.found is None:
        return []
    moved = float(bench.found.system.control.pivot_to_pin) - float(bench.case.system.control.pivot_to_pin)
    if abs(moved) < 0.0005:
        return []
    text = f"Move the cylinder's mounting by the same {abs(moved) * 1e3:.0f} mm.", "Else the rod runs crooked."
    return [Judgement("pin_move", "note", *text, "common practice", moved)]


def residual(bench: Bench) -> list[Judgement]:
    """Residual valves of `bench` [record] against the brakes they feed."""
    out = []
    for station in bench.case.system.stations:
        held = [d.pressure for d in station.devices if isinstance(d, Passive) and d.kind == "residual"]
        for pressure in held:
            psi = None if pressure is None else float(pressure) / PSI
            if isinstance(station.brake, Disc) and (pressure is None or float(pressure) > RESIDUAL_DISC):
                name = "The" if psi is None else f"The {psi:.0f} psi"
                text = f"{name} residual valve at the {station.name} must go.", "Made for drums; it would hold the disc pads on."
                out.append(Judgement(f"residual_{station.name}", "note", *text, "common practice: 2 psi discs, 10 psi drums",
                                     mend=Mend("remove_residual", "Take it out")))  # fmt: skip
        low = bench.height_above_brakes is not None and bench.height_above_brakes < 0.0
        if low and not held and isinstance(station.brake, Disc):
            text = f"The cylinder sits below the {station.name} brakes.", "A 2 psi residual valve keeps fluid from running back."
            out.append(Judgement(f"residual_{station.name}", "note", *text, "common practice"))
    return out


def valves_in_series(bench: Bench) -> list[Judgement]:
    """Two proportioning valves in one line of `bench` [record] multiply."""
    out = []
    for station in bench.case.system.stations:
        if sum(isinstance(d, Proportioning) for d in station.devices) > 1:
            text = f"Two proportioning valves in the {station.name} line.", "In series their slopes multiply: take one out."
            out.append(Judgement(f"series_{station.name}", "caution", *text, "common practice"))
        if station.axle == "front" and any(isinstance(d, Proportioning) for d in station.devices):
            text = "A proportioning valve in the front line.", "It belongs in the rear line: here it hastens rear lock."
            out.append(Judgement(f"valve_{station.name}", "caution", *text, "common practice"))
    return out


def floor_first(bench: Bench) -> list[Judgement]:
    """Whether the pedal of `bench` [record] meets the floor before the piston meets its end."""
    control, strokes = bench.case.system.control, [c.stroke for c in bench.case.system.cylinder.chambers]
    if control.available is None or any(s is None for s in strokes):
        return []
    help_ = bench.case.system.booster
    lost = float(help_.lost_travel) if help_ is not None else 0.0
    whole = sum(float(s) for s in strokes if s is not None) + lost
    bottom = whole * float(control.ratio) + float(control.free_play)
    if bottom <= float(control.available):
        return []
    text = (
        f"The full stroke needs {bottom * 1e3:.0f} mm of pedal; the room is {float(control.available) * 1e3:.0f} mm.",
        "The floor comes first: with one circuit lost the stroke left may not be reached.",
    )
    return [Judgement("floor_first", "caution", *text, "common practice", bottom, float(control.available))]


def rod_retained(bench: Bench) -> list[Judgement]:
    """A pushrod of `bench` [record] that can fall out loses the brakes."""
    if bench.rod_retained is not False:
        return []
    text = "The pushrod is not retained.", "If it falls out all braking is gone: it must have a stop or clip."
    return [Judgement("rod_retained", "danger", *text, "common practice")]


def pedal_ratio(bench: Bench) -> list[Judgement]:
    """The ratio of `bench` [record] against what is usual with and without a booster."""
    if bench.case.system.control.kind != "car_pedal":
        return []
    power = bench.case.system.booster is not None
    low, high = RATIO_POWER if power else RATIO_MANUAL
    ratio = float(bench.case.system.control.ratio)
    if low <= ratio <= high:
        return []
    kind = "with a booster" if power else "without a booster"
    reason = f"Usual {kind} is {low:g} to {high:g}; we follow the effort and travel it gives, not the rule."
    return [Judgement("pedal_ratio", "note", f"The pedal ratio is {ratio:.2f}.", reason, "common practice", ratio, high)]


def tyres_limit(bench: Bench) -> list[Judgement]:
    """Brakes of `bench` [record] that already use nearly all of the grip: bigger ones do not stop shorter."""
    lock, limit = bench.case.lock_decel, bench.case.grip_limit
    share = float(np.min(np.where(np.isfinite(lock), lock / limit, 0.0)))
    if share < 0.95:
        return []
    text = (
        f"{share * 100:.0f} % of the grip is used at first lock.",
        "Tyres are the limit: bigger brakes change feel and heat, not distance.",
    )
    return [Judgement("tyres_limit", "good", *text, "model", share, 0.95)]


RULES: tuple[Rule, ...] = (
    lock_order, effort, travel, failures, distribution, floor_first, one_circuit, rod_retained, residual, valves_in_series,
    pin_move, pedal_ratio, tyres_limit,
)  # fmt: skip


def judge(bench: Bench) -> list[Judgement]:
    """All judgements on `bench` [record], danger first, in the order of the rules within a level."""
    found = [judgement for rule in RULES for judgement in rule(bench)]
    return sorted(found, key=lambda j: LEVELS.index(j.level))

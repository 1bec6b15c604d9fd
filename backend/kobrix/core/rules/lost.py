"""Rules about what is left when a circuit, a booster or a valve fails, and when the pads are hot or wet."""

import numpy as np

from kobrix.core.constants import PUBLISHED, G
from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.chain import whole_stroke
from kobrix.core.physics.failures import LIMITS, Failing, Left
from kobrix.core.physics.pedal import bottoming
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.limits import LEAST_BUILT, SAME_BUILT, STROKE_SLACK, Bench, Judgement, by_chance, percent, worse_of
from kobrix.core.rules.words import a_capital, failure_words, plain

ASKED = {"car": "secondary_decel", "truck": "secondary_decel_truck"}  # whose law asks for so much to be left


def least_asked(kind: str) -> float | None:
    """The least stop [g] that a lost circuit must leave a vehicle of `kind` [name]; None where no rule is known.

    Source: UN R13-H and R13, from memory.
    """
    return PUBLISHED[ASKED[kind]].value / G if kind in ASKED else None


def stops_left(left: Left, c: int, several: bool) -> Floats:
    """What condition `c` [1] leaves [g] (..., L) of `left` [record]; with `several` [yes or no] controls the others go on. Source: model."""
    best = left.best[..., c]
    if several:
        return best
    limited = left.limited[..., c]
    return np.where((limited == LIMITS.index("contact")) | (limited == LIMITS.index("all_lost")), 0.0, best)


def _found_left(found: SolvedSetup | None, name: str) -> float | None:
    """What the same failure leaves the vehicle as found, the least over load states [g]."""
    if found is None or found.main.left is None or name not in found.names:
        return None
    return float(np.min(stops_left(found.main.left, found.names.index(name), len(found.systems) > 1)))


def _ends(limit: str, force: float, z: float) -> str:
    return {
        "travel": f"the pedal reaches the floor at {force:.0f} N and it still stops at {z:.2f} g",
        "chamber": f"a chamber is spent at {force:.0f} N and it still stops at {z:.2f} g",
        "contact": "the pedal reaches the floor before a brake is touched", "all_lost": "no brakes left, the pedal to the floor",
        "force": f"it still stops at {z:.2f} g, pushed with {force:.0f} N",
    }[limit]  # fmt: skip


def _judged(bench: Bench, failing: Failing) -> bool:
    """Whether a failure is judged at all: hot and wet only where that friction was entered."""
    if failing.kind in ("hot", "wet"):
        return any(failing.kind in own for own in bench.facts.given.values())
    return failing.kind != "healthy"


def failures(bench: Bench) -> list[Judgement]:
    """What each lost circuit or booster leaves, the worst over the load states of `bench` [record].

    Front valves shut are a front circuit lost, and not told twice.
    """
    setup = bench.solved
    left = setup.main.left
    if left is None:
        return []
    several = len(setup.systems) > 1
    out = []
    told_floor = False
    for c, failing in enumerate(setup.conditions):
        front_shut = failing.kind == "valves_shut" and failing.what is not None and _axle_of(setup, failing.what) == "front"
        if not _judged(bench, failing) or front_shut or not failing.befalls(setup.main.failed):
            continue
        found = _failure(bench, failing, left, c, several)
        if found is None:
            continue
        if found.kind == "circuit" and found.about.endswith("travel") and not told_floor:
            more = _full_stroke(bench)
            told_floor = bool(more)
            found = Judgement(**{**vars(found), "reason": f"{found.reason} {more}".strip()})
        out.append(found)
    return out


def _axle_of(setup: SolvedSetup, station: str) -> str | None:
    return next((s.axle for system in setup.systems for s in system.stations if s.name == station), None)


def _failure(bench: Bench, failing: Failing, left: Left, c: int, several: bool) -> Judgement | None:
    stops = stops_left(left, c, several)
    worst = int(np.argmin(stops))
    limit, z, force = LIMITS[left.limited[worst, c]], float(stops[worst]), float(left.push[worst, c])
    need, chance = least_asked(bench.facts.kind), bench.chance(failing.name)
    words = a_capital(failure_words(failing, bench.solved.systems))
    if failing.is_loss and failing.system:
        words = a_capital(words.partition(": ")[2]) + "{of}"
    if failing.kind == "wet":
        words += ", on the stated grip"
    ends = _ends(limit, force, z)
    if failing.is_loss and several and limit == "force":
        ends = f"{z:.2f} g at {_pressing(left, c, worst)}"
    head = f"{words}: {ends}{bench.in_state(worst)}."
    links = ("cylinder", "valves", "brakes")
    about = f"{failing.what} {limit}" if failing.is_loss else failing.name
    if need is None:
        if not failing.is_loss:
            return None
        text = "No rule says how much must be left; know it before you need it."
        return Judgement(failing.name, "note", head, text, "the chain", z, None, "g", failing.system, "failure", failing.kind, about, links,
                         tried=bench.tried)  # fmt: skip
    source = (
        "UN R13-H secondary braking, from memory"
        if bench.facts.kind == "car"
        else "UN R13 secondary braking at 700 N, from memory"
    )
    reason = f"The least asked is {need:.2f} g."
    level: Level
    if z < need:
        before = _found_left(bench.found, failing.name) if bench.found is not None else z
        built = before is not None and z >= before - SAME_BUILT and z >= LEAST_BUILT
        level = "caution" if built else "danger"
        if built:
            reason += " So it was built."
    else:
        level = "good" if failing.is_loss else "note"
        if chance is not None and failing.is_loss:
            level = by_chance(chance, "caution")
        elif not bench.tried and failing.is_loss:
            level = "note"
        if limit in ("travel", "chamber"):
            level = worse_of(level, "note")
        if not failing.is_loss:
            return None  # heat, water and stuck valves are told where they leave too little
    if chance is not None and chance > 0.02:
        reason += f" Less is left in {percent(chance)} of plausible vehicles."
    return Judgement(failing.name, level, head, reason, source, z, need, "g", failing.system, "failure", failing.kind, about, links,
                     chance=chance, tried=bench.tried)  # fmt: skip


def _pressing(left: Left, c: int, load: int) -> str:
    """The controls that still press, each with its force: "foot 350 N"."""
    names = [name for name, own in left.pulls.items() if bool(own.ever[load, c])]
    pushes = {name: float(left.pulls[name].push[load, c]) for name in names}
    if len({round(p) for p in pushes.values()}) == 1 and len(names) > 1:
        return f"{next(iter(pushes.values())):.0f} N on each"
    return ", ".join(f"{plain(name)} {push:.0f} N" for name, push in pushes.items()) or "no push"


def beyond_the_room(bench: Bench) -> list[tuple[str, float, float]]:
    """Controls of `bench` [record] whose whole stroke needs more room than there is: name, needed [m], room [m]. Source: model."""
    found = []
    for system in bench.solved.systems:
        control, help_, stroke = system.control, system.booster, whole_stroke(system)
        if control.available is None or stroke is None:
            continue
        bottom = float(bottoming(control, stroke, 0.0 if help_ is None else help_.lost_travel))
        if bottom > float(control.available) + STROKE_SLACK:
            found.append((system.name, bottom, float(control.available)))
    return found


def _full_stroke(bench: Bench) -> str:
    over = beyond_the_room(bench)
    if not over:
        return ""
    _, bottom, room = over[0]
    return f"The full stroke needs {bottom * 1e3:.0f} mm of travel and the room is {room * 1e3:.0f} mm, so the floor comes first."


def floor_first(bench: Bench) -> list[Judgement]:
    """A pedal of `bench` [record] that meets the floor before its piston its end, where no lost circuit has said so."""
    left = bench.solved.main.left
    if left is not None and any(f.kind == "circuit" and (left.limited[:, c] == LIMITS.index("travel")).any()
                                for c, f in enumerate(bench.solved.conditions)):  # fmt: skip
        return []
    return [
        Judgement(f"floor_first{bench.tag(name)}", "note", f"The full stroke needs {bottom * 1e3:.0f} mm of travel{{of}}; the room is {room * 1e3:.0f} mm.",
                  "The floor comes before the end of the cylinder.", "common practice", bottom, room, "m", name, "floor_first", links=("pedal", "cylinder"))
        for name, bottom, room in beyond_the_room(bench)
    ]  # fmt: skip

"""Mends: sets of one or two changes, tried on the whole setup as they will be stored, and judged by every verdict with its chance.

A mend is offered only if its target's level falls and nothing it brings is worse than what it cures was; what gets worse is named.
"""

import math
from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from functools import lru_cache
from itertools import islice

import numpy as np
from pydantic import ValidationError

from kobrix.core.errors import KobrixError
from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import lookup
from kobrix.core.physics.chain import first_reach, place_of
from kobrix.core.physics.sharing import distribution_kept
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.vehicle import one_state, rear_lift_decel
from kobrix.core.rules.limits import LEVELS, PSI, SLOPES, Judgement, percent
from kobrix.evaluate import changes
from kobrix.evaluate.changes import Change, both, with_edits
from kobrix.evaluate.shapes import Brought, Mend
from kobrix.evaluate.solve import Answer, ByContent, answer_of
from kobrix.evaluate.uncertainty import FEWER, SEED, TRIALS, Entered, uncertain_entries
from kobrix.evaluate.verdicts import Tried, batch_of, nominal, nothing_lost, order_kept, rear_first_chance, tried
from kobrix.fileformat.field_catalog import quantity_of
from kobrix.fileformat.models import Setup, controls_of
from kobrix.fileformat.shelf import ShelfPart
from kobrix.fileformat.stations import ProportioningValve

_SHORT, _OFFERED = 5, 2  # tried on fewer trials, and offered
_NONE, _WIDENS, _LOWERS = range(3)  # how a change helps
_PAIRS = 40  # pairs of changes that are looked at nominally
_LOWEST = 0.7e6  # Pa: below it no knee is set
_STEPS, _REAR_FIRST = 8, 0.05  # halvings of a knee; the chance of rear first that it may leave
_NOSE_SHARE, _NOSE_CHANCE = 0.8, 0.02
SAME_PUSH = 0.03  # of the push: closer than this a foot feels no difference, our estimate

_Known = tuple[ByContent[Setup], ByContent[Setup] | None, float | None, Entered]


def _rank(level: Level) -> int:
    """The higher the better."""
    return LEVELS.index(level)


@lru_cache(maxsize=48)
def mends_of(
    known: ByContent[Setup],
    as_found: ByContent[Setup] | None,
    wanted: float | None,
    entered: Entered,
    shelf: tuple[ByContent[ShelfPart], ...] = (),
) -> dict[str, list[Mend]]:
    """The mends of every finding of caution or worse of a setup, and of effort and a moved pin, {judgement: mends, the best first}."""
    studied = tried(known, as_found, wanted, entered)
    if studied is None:
        return {}
    found: dict[str, list[Mend]] = {}
    left = _most_tried(known.part)
    base: _Known = (known, as_found, wanted, entered)
    made: dict[str, list[Change]] = {}
    for one in studied.judgements:
        bad = one.level in ("caution", "danger") or (one.rule in ("effort", "pin_move") and one.level == "note")
        if not bad:
            continue
        key = f"{one.rule}.{one.kind}.{one.system}"
        if key not in made:
            made[key] = _looked_at(one, base, shelf)
        own = made[key][: min(max(left, 1), 2 * _SHORT)]
        left -= len(own)
        offered = _offered(one, own, base, studied)
        if offered:
            found[one.id] = offered
    return found


def _most_tried(setup: Setup) -> int:
    """How many changes of a setup are tried in all, beside one for each finding: fewer where the pushes of a linkage are looked for, so
    that the wait is bounded."""
    controls = controls_of(setup.systems)
    linked = sum(c.control.linkage is not None for c in controls)
    return 60 if linked == 0 else 24 if len(controls) == 1 else 3


def _setup(known: ByContent[Setup], change: Change) -> ByContent[Setup] | None:
    """A setup with a change in it; None where it does not fit, or cannot be solved."""
    try:
        made = ByContent(with_edits(known.part, change.edits))
        return made if answer_of(made).solved is not None else None
    except (ValidationError, KobrixError):
        return None


def _candidates(one: Judgement, setup: Setup, before: Setup | None, shelf: tuple[ByContent[ShelfPart], ...]) -> Iterable[Change]:
    """Single changes that bear on a judgement, in no order."""
    own, parts = one.system, tuple(p.part for p in shelf)
    own_all = one.systems or (own,)
    bores, pins, hoses, help_ = (
        _of_all(f, setup, own_all) for f in (changes.bores, changes.pins, changes.hoses, changes.boosters)
    )
    rear, front = list(changes.pistons(setup, "rear", parts)), list(changes.pistons(setup, "front", parts))
    pads = [*changes.pads(setup, "front"), *changes.pads(setup, "rear")]
    station = one.id.partition("_")[2]
    by_rule: dict[str, list[Change]] = {
        "effort": [*bores, *pins, *pads, *help_], "travel": [*hoses, *bores, *pins],
        "lock_order": [*changes.bars(setup), *rear, *pads, *front], "distribution_rear": [*changes.bars(setup), *rear, *pads, *front],
        "distribution_use": [*changes.bars(setup), *rear, *pads, *front],
        "failure": [*hoses, *bores, *pins, *changes.splits(setup), *pads], "runout": help_,
        "residual": [c for c in (changes.without_devices(setup, "residual", station),) if c is not None],
        "series": [c for c in (changes.one_of_two_valves(setup, station),) if c is not None],
        "line_lock": [c for c in (changes.without_devices(setup, "line_lock", one.id.removeprefix("line_lock_")),) if c is not None],
        "pin_move": [] if before is None else list(changes.pin_kept(setup, before, own)),
    }  # fmt: skip
    return by_rule.get(one.rule, [])


def _of_all(kind: Callable[[Setup, str | None], Iterator[Change]], setup: Setup, systems: Iterable[str | None]) -> list[Change]:
    """Changes of a `kind` made at every one of `systems` at once: left and right are never made unlike."""
    by_name: dict[str, list[Change]] = {}
    names = list(systems)
    for system in names:
        for change in kind(setup, system):
            by_name.setdefault(change.name, []).append(change)
    return [replace(own[0], edits=tuple(e for c in own for e in c.edits)) for own in by_name.values() if len(own) == len(names)]


def _looked_at(one: Judgement, base: _Known, shelf: tuple[ByContent[ShelfPart], ...]) -> list[Change]:
    """The changes that nominally lower a judgement's level or widen its margin, least change first; pairs where no single does."""
    known, as_found, wanted, _ = base
    setup, before = known.part, None if as_found is None else as_found.part
    now = answer_of(known)
    singles = list(_candidates(one, setup, before, shelf))
    special = list(_set_by_trials(one, base))
    helped = [(_help(one, now, known, as_found, wanted, c), c) for c in singles]
    fine = [c for help_, c in helped if help_ > _NONE]
    if one.rule == "pin_move":
        return fine[:_SHORT]
    # What nominally lowers the level comes before what only widens the margin: small steps would use up the few that are tried.
    cures = {id(c) for help_, c in helped if help_ == _LOWERS} | {id(c) for c in special}
    fine = sorted([*special, *fine], key=lambda c: (id(c) not in cures, c.change))
    if (
        len(fine) < _SHORT
        and _most_tried(setup) > 3
        and one.rule in ("lock_order", "distribution_rear", "distribution_use", "effort", "travel", "failure")
    ):
        fine += list(islice(_pairs(one, base, singles, now), _SHORT))
    return fine


def _pairs(one: Judgement, base: _Known, singles: list[Change], now: Answer) -> Iterator[Change]:
    """Two changes of different families that help together, least change first."""
    known, as_found, wanted, _ = base
    pairs = sorted(
        (both(a, b) for n, a in enumerate(singles) for b in singles[n + 1 :] if a.family != b.family), key=lambda c: c.change
    )
    for pair in pairs[:_PAIRS]:
        if _help(one, now, known, as_found, wanted, pair) > _NONE:
            yield pair


def _help(
    one: Judgement, now: Answer, known: ByContent[Setup], as_found: ByContent[Setup] | None, wanted: float | None, change: Change
) -> int:
    """How a change helps a judgement nominally: not, its margin is wider, or its level falls."""
    made = _setup(known, change)
    if made is None:
        return _NONE
    answer, found = answer_of(made), None if as_found is None else answer_of(as_found)
    if one.rule == "pin_move":
        return _LOWERS if _same_pedal(now, answer, one.system) else _NONE
    then = {j.id: j for j in nominal(answer, found, wanted, heats=False)}.get(one.id)
    if one.rule == "lock_order":
        margins = _lock_margin(now), _lock_margin(answer)
        return _NONE if margins[1] <= margins[0] + 1e-9 else _LOWERS if margins[0] <= 0.0 < margins[1] else _WIDENS
    if then is None:
        return _LOWERS
    mine = {j.id: j for j in nominal(now, found, wanted, heats=False)}.get(one.id)
    if mine is None or _rank(then.level) > _rank(mine.level):
        return _LOWERS
    if then.value is None or mine.value is None or one.chance is None:
        return _NONE
    more = one.rule == "failure" or one.kind == "light"
    return _WIDENS if (then.value > mine.value if more else then.value < mine.value) else _NONE


def _lock_margin(answer: Answer) -> float:
    """The least over load states of the rear's own lock less the front's [g]."""
    assert answer.solved is not None
    road = answer.solved.main.healthy.road
    front, rear = (np.where(np.isfinite(v), v, 9.0) for v in (road.locks["front"], road.locks["rear"]))
    return float(np.min(rear - front))


def _same_pedal(now: Answer, then: Answer, system: str | None) -> bool:
    """Whether a control feels the same at its design stop, and does not overrun its room."""
    felt = [_felt(a, system) for a in (now, then)]
    if felt[0] is None or felt[1] is None:
        return False
    return abs(felt[1][0] / felt[0][0] - 1.0) <= SAME_PUSH and felt[1][1] <= 0.85


def _felt(answer: Answer, system: str | None) -> tuple[float, float] | None:
    """Push [N] and share of the room of a control at its design stop, the largest over load states."""
    assert answer.solved is not None
    path = answer.solved.main
    pull = next((p for p in path.healthy.pulls if system in (None, p.system.name)), None)
    if pull is None or pull.pedal.travel is None or pull.system.control.available is None or not np.all(path.design_known):
        return None
    push = float(np.max(path.healthy.push_at(path.design))) * pull.ratio
    return push, float(np.max(pull.pedal.pad_at(pull.place(path.design)))) / float(pull.system.control.available)


def _set_by_trials(one: Judgement, base: _Known) -> Iterator[Change]:
    """A valve or a regulator whose setting the trials decide."""
    known = base[0]
    answer = answer_of(known)
    assert answer.solved is not None
    ends = {s.axle for p in answer.solved.main.healthy.pulls for s in p.system.stations}
    if one.rule in ("lock_order", "distribution_rear") and ends == {"front", "rear"} and one.kind != "rear_lifts":
        yield from _valves(known, base[3])
    if one.rule == "nose_over":
        setting = _regulator(known, base[3])
        if setting is not None:
            yield changes.regulator(known.part, setting)


def _valves(known: ByContent[Setup], entered: Entered) -> Iterator[Change]:
    """A valve in the rear lines: of the first slope that will do, the greatest knee that keeps the chance of rear first low."""
    setup = known.part
    solved = answer_of(known).solved
    assert solved is not None
    allowed = quantity_of(ProportioningValve, "knee_kpa")
    assert allowed is not None
    most = min(_inlet_at_lock(solved) * 1.5, allowed.most * 1e3 - PSI)  # it is written in whole psi

    def with_knee(knee: float, slope: float) -> Setup:
        return with_edits(setup, changes.valve(setup, knee, slope).edits)

    for slope in SLOPES:
        low = _LOWEST
        try:
            if rear_first_chance(with_knee(low, slope), entered, TRIALS) > _REAR_FIRST:
                continue
            high = max(most, 2.0 * low)
            for _ in range(_STEPS):
                middle = 0.5 * (low + high)
                good = rear_first_chance(with_knee(middle, slope), entered, TRIALS) <= _REAR_FIRST and _above(
                    with_knee(middle, slope)
                )
                low, high = (middle, high) if good else (low, middle)
        except (ValidationError, KobrixError):
            return
        knee = max(10.0, math.floor(low / PSI / 10.0 + 1e-9) * 10.0) * PSI
        if not order_kept(with_knee(knee, slope)):
            continue
        edge = _edge(setup, slope, knee, most)
        if not any(d.kind == "proportioning" and d.bypass for s in setup.systems for t in s.stations for d in t.devices):
            yield changes.valve(setup, knee, slope, edge=edge)
        yield changes.valve(setup, knee, slope, bypass=True, edge=edge)
        return


def _above(setup: Setup) -> bool:
    """Whether the rear clause holds nominally: it too falls as a knee rises."""
    return setup.vehicle.kind != "car" or bool(np.all(distribution_kept(nothing_lost(setup).main.healthy.road)[0]))


def _edge(setup: Setup, slope: float, low: float, high: float) -> float:
    """The greatest knee [Pa] at which the front is nominally first: the edge, not a setting."""
    for _ in range(12):
        middle = 0.5 * (low + high)
        fine = order_kept(with_edits(setup, changes.valve(setup, middle, slope).edits))
        low, high = (middle, high) if fine else (low, middle)
    return low


def _inlet_at_lock(solved: SolvedSetup) -> float:
    """Inlet pressure [Pa] at the first lock, the largest over load states and branches."""
    healthy = solved.main.healthy
    number = np.where(np.isfinite(healthy.event.place), healthy.event.place, 0.0)[..., None]
    place = place_of(number, healthy.road.decel.shape[-1] - 1)
    most = 0.0
    for pull in healthy.pulls:
        at = pull.place(place)
        for row in pull.pedal.line.inlet:
            most = max(most, float(np.max(lookup(row, at.knot, at.fraction))))
    return most


def _regulator(known: ByContent[Setup], entered: Entered) -> float | None:
    """The greatest setting [Pa] at most 0.8 of the pressure at which the tail lifts that leaves nose-over a small chance."""
    setup, solved = known.part, answer_of(known).solved
    assert solved is not None
    road = solved.main.healthy.road
    least = math.inf
    for load in range(solved.main.grip_limit.size):
        lift = float(rear_lift_decel(one_state(solved.load, load)))
        place, ever = first_reach(road.decel[min(load, road.decel.shape[0] - 1), 0], lift)
        if not ever.all():
            continue
        for pull in solved.main.healthy.pulls:
            own = pull.place(place)
            row = pull.pedal.line.inlet[0]
            row = row[min(load, row.shape[0] - 1), 0] if row.ndim > 2 else row
            least = min(least, float(np.max(lookup(row, own.knot, own.fraction))))
    if not math.isfinite(least):
        return None
    high, low = _NOSE_SHARE * least, 0.1 * least
    for setting in np.linspace(high, low, 10):
        rounded = math.floor(float(setting) / PSI / 10.0 + 1e-9) * 10.0 * PSI
        try:
            if rounded > 0.0 and _nose_over(with_edits(setup, changes.regulator(setup, rounded).edits), entered) <= _NOSE_CHANCE:
                return rounded
        except (ValidationError, KobrixError):
            return None
    return None


def _nose_over(setup: Setup, entered: Entered) -> float:
    """The chance that the nose goes over before a tyre slips."""
    entries = [e for e in uncertain_entries(setup, entered) if e.standing != "exact"]
    batch = batch_of(setup, entries, TRIALS, SEED, losses=False)
    assert batch is not None
    lift = batch.main.healthy.event.lift[..., 0]
    return float(np.mean(np.any(np.broadcast_to(lift, (TRIALS, lift.shape[-1])), axis=-1)))


def _offered(one: Judgement, made: list[Change], base: _Known, studied: Tried) -> list[Mend]:
    """The mends of one judgement: the few that hold on fewer trials, and of those the best on all of them."""
    known, as_found, wanted, entered = base
    kept: list[tuple[bool, float, Change]] = []
    for change in made:
        setup = _setup(known, change)
        if setup is None:
            continue
        try:
            first = tried(setup, as_found, wanted, entered, FEWER)
            if first is None or not _falls(one, first):
                continue
            full = tried(setup, as_found, wanted, entered)
        except KobrixError:
            continue
        if full is None or not _falls(one, full):
            continue
        brings = _brings(studied, full)
        if any(_rank(b["level"]) < _rank(one.level) for b in brings):
            continue
        kept.append((bool(brings), change.change, change))
        if sum(not brought for brought, *_ in kept) >= _OFFERED or len(kept) >= 2 * _OFFERED:
            break
    kept.sort(key=lambda k: k[:2])
    mends: list[Mend] = []
    families: set[str] = set()
    for _, _, change in kept:
        if change.family in families and change.kind != "valve_bypass":
            continue  # never two sizes of one family
        families.add(change.family)
        setup = _setup(known, change)
        assert setup is not None
        full = tried(setup, as_found, wanted, entered)
        assert full is not None
        mend = _mend(change, one, studied, full)
        if change.kind == "valve_bypass" and any(m["kind"] == "valve" and set(m["cures"]) >= set(mend["cures"]) for m in mends):
            continue  # the bypass buys nothing here
        mends.append(mend)
    return mends[:_OFFERED]


def _falls(one: Judgement, then: Tried) -> bool:
    """Whether the level of a judgement falls; a moved pin's is mended where the pin is not moved."""
    after = {j.id: j for j in then.judgements}.get(one.id)
    if after is None and one.rule == "failure":  # another split has other circuits: the worst of them
        after = next((j for j in then.judgements if j.rule == "failure" and j.kind == one.kind), None)
    return after is None or _rank(after.level) > _rank(one.level)


def _brings(before: Tried, after: Tried) -> list[Brought]:
    """What is worse than it was: the level is higher, or the judgement is new and not good."""
    was = {j.id: j.level for j in before.judgements}
    found: list[Brought] = []
    for one in after.judgements:
        if _rank(one.level) < _rank(was.get(one.id, "good")):
            found.append({"id": one.id, "level": one.level, "value": one.value, "sentence": one.sentence})
    return found


def _mend(change: Change, one: Judgement, before: Tried, after: Tried) -> Mend:
    was = {j.id: j for j in before.judgements}
    then = {j.id: j for j in after.judgements}
    cures = [
        id_ for id_, j in was.items()
        if j.level != "good" and (id_ not in then or _rank(then[id_].level) > _rank(j.level))
    ]  # fmt: skip
    return {
        "kind": change.kind, "label": change.label, "name": change.name, "edits": list(change.edits), "cures": cures,
        "brings": _brings(before, after), "words": _words(change, one, then), "edge": None if change.edge is None else change.edge / 1e3,
    }  # fmt: skip


def _words(change: Change, one: Judgement, then: dict[str, Judgement]) -> str:
    """What a mend gives, from the setup as it is then: the chance it leaves, push and travel."""
    after = then.get(one.id)
    parts = []
    if after is not None:
        untold = "" if after.chance is None or percent(after.chance) in after.sentence else f" Broken in {percent(after.chance)}."
        parts.append(after.sentence + untold)
    parts += [j.sentence for id_, j in then.items() if j.rule in ("effort", "travel") and id_ != one.id][:2]
    if change.edge is not None:
        parts.append(f"{change.edge / PSI:.0f} psi is the edge: set it on the road.")
    return " ".join(parts)

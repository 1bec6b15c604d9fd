"""All rules asked of one setup, danger first."""

import math
from collections.abc import Callable
from dataclasses import replace

from kobrix.core.rules import braking, foot, heat, lost, parts, pins, worse
from kobrix.core.rules.limits import LEVELS, Bench, Judgement
from kobrix.core.rules.words import listed

Rule = Callable[[Bench], list[Judgement]]
RULES: tuple[Rule, ...] = (
    braking.lock_order, foot.effort, foot.travel, lost.failures, worse.downgrade, braking.distribution, foot.runout, heat.temperatures,
    lost.floor_first, parts.one_circuit, parts.rod_retained, parts.rotor_thickness, parts.residual,
    parts.valves_in_series, parts.rod_angle, parts.pin_move, pins.pin_room, parts.pedal_ratio, parts.hose_age, parts.hose_growth,
    parts.reservoir, parts.silicone, foot.brake_switch, braking.trailers, braking.tyres_limit,
)  # fmt: skip


def judge(bench: Bench) -> list[Judgement]:
    """All judgements on `bench` [record], danger first, in the order of the rules within a level."""
    found = said_once([judgement for rule in RULES for judgement in rule(bench)], len(bench.solved.systems))
    return sorted(found, key=lambda j: LEVELS.index(j.level))


def _alike(value: float | None) -> str:
    """Figures that read the same."""
    return "" if value is None else f"{value:.3g}"


def _badness(found: Judgement) -> float:
    """How much worse of two alike: more above the limit, or more below it."""
    value = found.value or 0.0
    return -value if found.rule == "failure" else value


def _whose(found: Judgement, names: list[str], controls: int) -> str:
    """Whose it is: what fails is of one of them at a time, all else of each."""
    every, fails = len(names) > 2 and len(names) == controls, found.rule == "failure"
    if every:
        return "any control" if fails else "every control"
    return listed(names, "or" if fails else "and")


def _worst(group: list[Judgement]) -> Judgement:
    """The worst; of those within rounding of it the first, so that left and right do not take turns."""
    most = max(_badness(one) for one in group)
    return next(one for one in group if math.isclose(_badness(one), most, rel_tol=1e-9))


def said_once(found: list[Judgement], controls: int) -> list[Judgement]:
    """`found` [list of Judgement] with what is the same for several controls said once, of the worst; of several `controls` [1] it says whose.

    Source: what a person must read.
    """
    groups: dict[tuple[str, ...], list[Judgement]] = {}
    for one in found:
        same = (one.rule, one.level, one.kind, one.about, _alike(one.value)) if one.system is not None else (one.id,)
        groups.setdefault(same, []).append(one)
    told = []
    for group in groups.values():
        worst = _worst(group)
        names = [j.system for j in group if j.system is not None]
        of = f", {_whose(worst, names, controls)}" if controls >= 2 and names else ""
        told.append(replace(worst, sentence=worst.sentence.replace("{of}", of), systems=tuple(names)))
    return told

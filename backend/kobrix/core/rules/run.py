"""All rules asked of one setup, danger first."""

from collections.abc import Callable

from kobrix.core.rules import braking, parts, pins
from kobrix.core.rules.limits import LEVELS, Bench, Judgement

Rule = Callable[[Bench], list[Judgement]]
RULES: tuple[Rule, ...] = (
    braking.lock_order, braking.effort, braking.travel, braking.failures, braking.distribution, braking.valve_not_needed,
    parts.floor_first, parts.one_circuit, parts.rod_retained, parts.rotor_thickness, parts.residual,
    parts.valves_in_series, parts.rod_angle, parts.pin_move, pins.pin_room, parts.pedal_ratio, parts.hose_age, parts.hose_growth,
    parts.reservoir, parts.silicone, braking.tyres_limit,
)  # fmt: skip


def judge(bench: Bench) -> list[Judgement]:
    """All judgements on `bench` [record], danger first, in the order of the rules within a level."""
    found = [judgement for rule in RULES for judgement in rule(bench)]
    return sorted(found, key=lambda j: LEVELS.index(j.level))

"""All rules asked of one setup, danger first."""

from collections.abc import Callable

from kobrix.core.rules import braking as stopping
from kobrix.core.rules import parts as practice
from kobrix.core.rules import pins
from kobrix.core.rules.limits import LEVELS, Bench, Judgement

Rule = Callable[[Bench], list[Judgement]]
RULES: tuple[Rule, ...] = (
    stopping.lock_order, stopping.effort, stopping.travel, stopping.failures, stopping.distribution, stopping.valve_not_needed,
    practice.floor_first, practice.one_circuit, practice.rod_retained, practice.rotor_thickness, practice.residual,
    practice.valves_in_series, practice.rod_angle, practice.pin_move, pins.pin_room, practice.pedal_ratio, practice.hose_age, practice.hose_growth,
    practice.reservoir, practice.silicone, stopping.tyres_limit,
)  # fmt: skip


def judge(bench: Bench) -> list[Judgement]:
    """All judgements on `bench` [record], danger first, in the order of the rules within a level."""
    found = [judgement for rule in RULES for judgement in rule(bench)]
    return sorted(found, key=lambda j: LEVELS.index(j.level))

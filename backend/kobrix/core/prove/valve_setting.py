"""Where an adjustable valve or balance bar turns from front first to rear first, and the next setting to try."""

import math
from dataclasses import dataclass
from typing import Literal, TypedDict

import numpy as np

from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import Floats

POINTS = 401
Reason = Literal["none_low_enough", "one_step_at_a_time"]


@dataclass(frozen=True)
class Adjuster:
    """Its range and present setting (turns or pressure); `sign` 1 where more is more rear; `spread` of the turn-over."""

    least: float
    most: float
    now: float
    sign: int
    spread: float
    wanted_chance: float = 0.05  # our estimate
    most_step: float = math.inf


class TurnOver(TypedDict):
    """Where front first turns to rear first [the adjuster's unit]."""

    mean: float
    sd: float
    low: float
    median: float
    high: float


class SettingAnswer(TypedDict):
    """valve_next: the turn-over, the chance that the rear is first now, and the next setting with its chance; None where none is sure
    enough."""

    turn_over: TurnOver
    rear_first_chance_now: float
    next: float | None
    next_chance: float | None
    reason: Reason | None
    next_knee_kpa: float | None
    lock_notes: int
    level: Level


def valve_next(adjuster: Adjuster, log: list[tuple[float, str]], predicted: tuple[float, float] | None,
               knee: tuple[float, float] | None) -> SettingAnswer:  # fmt: skip
    """Turn-over, chance of rear first now, and the next setting, from a log of (setting, which locked); a grid posterior.

    `adjuster` [record]; `log` [(setting, which locked)]; `predicted` [(setting, sd)]; `knee` [(kPa at the least, kPa per
    setting)].
    """
    grid = np.linspace(adjuster.least, adjuster.most, POINTS)

    def rear_first(x: float, at: Floats) -> Floats:
        steep = np.clip(adjuster.sign * (x - at) / adjuster.spread, -700, 700)
        return np.asarray(1 / (1 + np.exp(-steep)))

    weight = np.zeros(POINTS) if predicted is None else -0.5 * ((grid - predicted[0]) / predicted[1]) ** 2
    for setting, locked in log:
        steep = adjuster.sign * (setting - grid) / adjuster.spread
        rear, front = -np.logaddexp(0, -steep), -np.logaddexp(0, steep)
        weight = weight + {"rear": rear, "front": front, "both": (rear + front) / 2, "none": np.zeros(POINTS)}[locked]
    weight = np.exp(weight - weight.max())
    weight /= weight.sum()
    mean = float(weight @ grid)
    summed = np.cumsum(weight)
    low, median, high = (float(grid[int(np.argmax(summed >= share - 1e-12))]) for share in (0.025, 0.5, 0.975))
    chances = np.array([float(weight @ rear_first(x, grid)) for x in grid])
    now = float(weight @ rear_first(adjuster.now, grid))
    allowed = np.flatnonzero(chances <= adjuster.wanted_chance + 1e-12)
    following, chance = None, None
    reason: Reason | None = None
    if len(allowed) == 0:
        reason = "none_low_enough"
    else:
        following = float(grid[allowed[-1] if adjuster.sign > 0 else allowed[0]])
        if (following - adjuster.now) * adjuster.sign > adjuster.most_step + 1e-12:
            following, reason = adjuster.now + adjuster.sign * adjuster.most_step, "one_step_at_a_time"
        chance = float(weight @ rear_first(following, grid))
    level: Level = "good" if now < 0.02 else "note" if now < 0.10 else "caution" if now < 0.30 else "danger"
    return {
        "turn_over": {
            "mean": mean, "sd": math.sqrt(float(weight @ (grid - mean) ** 2)), "low": low, "median": median, "high": high,
        },
        "rear_first_chance_now": now, "next": following, "next_chance": chance, "reason": reason,
        "next_knee_kpa": None if knee is None or following is None else knee[0] + knee[1] * (following - adjuster.least),
        "lock_notes": sum(locked != "none" for _, locked in log), "level": level,
    }  # fmt: skip

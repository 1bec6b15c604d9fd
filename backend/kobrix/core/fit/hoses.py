"""How long a brake hose must be, from three strings: wheel at droop, at full lock, and at bump [mm]."""

import math
from dataclasses import dataclass
from typing import Literal, NotRequired, TypedDict

from kobrix.core.figures import EPS

Verdict = Literal["too_short", "kinks", "too_long", "fits"]


@dataclass(frozen=True)
class Reach:
    """Strings joint to joint [mm]: `droop` and `lock` along the hose's way, `bump` straight; `ends` are its rigid parts."""

    droop: float
    bump: float
    lock: float
    ends: float = 0.0
    least_bend_radius: float = 40.0  # our estimate
    shortens_share: float = 0.04  # under pressure and when bent: our estimate
    least_slack: float = 10.0
    greatest_share: float = 0.15

    @property
    def longest(self) -> float:
        """The longer of the two strings along the hose [mm]."""
        return max(self.droop, self.lock)

    @property
    def least(self) -> float:
        """The shortest hose that is never pulled [mm]."""
        return self.ends + max(0.0, self.longest - self.ends) * (1 + self.shortens_share) + self.least_slack

    @property
    def greatest(self) -> float:
        """The longest hose that stays out of the way [mm]: an arc of 270° at bump at most."""
        chord = max(0.0, self.bump - self.ends)
        return min(self.longest * (1 + self.greatest_share) + 25, self.ends + 1.5 * math.pi / math.sqrt(2) * chord)


def bend_at_bump(reach: Reach, hose: float) -> tuple[float, float | None]:
    """Turn [rad] and radius [mm] of the arc that the hose makes at bump; 0 and None where it is straight.

    `reach` [record]; `hose` [mm].
    """
    free, chord = hose - reach.ends, max(0.0, reach.bump - reach.ends)
    if free <= chord:
        return 0.0, None
    if chord == 0:
        return 2 * math.pi, free / (2 * math.pi)
    from scipy.optimize import brentq  # loaded when asked for: it would double the time of a start

    half = brentq(lambda x: free * math.sin(x) / x - chord, 1e-12, math.pi, xtol=1e-15, rtol=1e-14)
    return 2 * half, free / (2 * half)


def verdict(reach: Reach, hose: float) -> Verdict:
    """Whether a `hose` [mm] is too short, kinks, is too long, or fits.

    `reach` [record].
    """
    if hose < reach.least - EPS:
        return "too_short"
    radius = bend_at_bump(reach, hose)[1]
    if radius is not None and radius < reach.least_bend_radius - 1e-6:
        return "kinks"
    return "too_long" if hose > reach.greatest + EPS else "fits"


class HoseAnswer(TypedDict):
    """hose_reach: how long a hose must and may be, what a given one does [mm, °], and the shortest that fits of those to choose from."""

    least_mm: float
    greatest_mm: float
    possible: bool
    longest_string: Literal["droop", "lock"]
    slack_mm: NotRequired[float]
    verdict: NotRequired[Verdict]
    bend_radius_at_bump_mm: NotRequired[float | None]
    turn_at_bump_deg: NotRequired[float]
    choose_mm: NotRequired[float | None]


def hose_reach(reach: Reach, hose: float | None, lengths: list[float] | None) -> HoseAnswer:
    """What length is needed, what a given hose does, and the shortest of the lengths that fits.

    `reach` [record]; `hose` [mm]; `lengths` [mm].
    """
    out: HoseAnswer = {
        "least_mm": reach.least, "greatest_mm": reach.greatest, "possible": reach.least <= reach.greatest + EPS,
        "longest_string": "droop" if reach.droop >= reach.lock - EPS else "lock",
    }  # fmt: skip
    if hose is not None:
        turn, radius = bend_at_bump(reach, hose)
        out |= {
            "slack_mm": hose - reach.longest, "verdict": verdict(reach, hose), "bend_radius_at_bump_mm": radius,
            "turn_at_bump_deg": math.degrees(turn),
        }  # fmt: skip
    if lengths is not None:
        fit = [length for length in lengths if length > reach.ends and verdict(reach, length) == "fits"]
        out["choose_mm"] = min(fit, default=None)
    return out

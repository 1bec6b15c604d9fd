"""How unevenly a vehicle brakes left and right, from how far it turned in stops with the wheel held straight."""

import math
from dataclasses import dataclass
from typing import Literal, TypedDict

from kobrix.core.constants import G
from kobrix.core.prove.estimates import mean_of

Verdict = Literal["even", "uneven", "pulls", "cannot_tell"]
EVEN, UNEVEN = 0.10, 0.30  # inspections allow 25 to 30 %, from memory


@dataclass(frozen=True)
class Body:
    """What turns: mass [kg], track [m]; a car's wheelbase [m], front share and cornering stiffness [1/rad of load], or the radius of
    gyration [m] of a castering one; `arm` of a rudder [m]."""

    mass: float
    track: float
    castering: bool = False
    wheelbase: float = 0.0
    front_share: float = 0.5
    stiffness: float = 12.0
    gyration: float = 0.0
    arm: float | None = None


@dataclass(frozen=True)
class Turned:
    """A stop: time [s], way [m], deceleration [g], which way, and the turn by heading [rad], rate [rad/s] or offset [m], left +."""

    time: float
    way: float
    decel: float
    direction: str | None
    heading: float | None
    rate: float | None
    offset: float | None


class TurnedAnswer(TypedDict):
    """One stop: how far it turned, the moment that did it, and the difference of left and right."""

    time_s: float
    distance_m: float
    decel_g: float
    heading_deg: float
    yaw_moment_nm: float
    force_difference_n: float
    imbalance: float
    left_share: float
    rudder_force_n: float | None


class Imbalance(TypedDict):
    """The vehicle's imbalance [1] over its stops; no doubt is known of one stop alone."""

    value: float
    se: float | None
    low: float | None
    high: float | None


class PullAnswer(TypedDict):
    """pull: the stops, the imbalance of the vehicle and, driven both ways, of the road, and what it means."""

    stops: list[TurnedAnswer]
    both_ways: bool
    road: float | None
    vehicle: Imbalance
    verdict: Verdict
    least: bool
    side: Literal["left", "right"] | None


def imbalance(body: Body, stop: Turned) -> tuple[TurnedAnswer, float]:
    """One stop's left-right difference by the names of the open format, and the imbalance [1].

    A car in a steady curve, neutral steer; a castering one by its inertia, the least it can be. Source: moments about the vertical.

    `body` [record]; `stop` [record].
    """
    if stop.heading is not None:
        heading = stop.heading
    elif stop.rate is not None:
        heading = stop.rate * stop.time
    else:
        heading = (stop.offset or 0.0) / stop.way * (6 if body.castering else 2)
    if body.castering:
        moment = body.mass * body.gyration**2 * 2 * heading / stop.time**2
    else:
        share = body.front_share * (1 - body.front_share)
        moment = body.stiffness * body.mass * G * share * body.wheelbase**2 * heading / stop.way
    force = 2 * moment / body.track
    uneven = force / (body.mass * stop.decel * G)
    return {
        "time_s": stop.time, "distance_m": stop.way, "decel_g": stop.decel, "heading_deg": math.degrees(heading),
        "yaw_moment_nm": moment, "force_difference_n": force, "imbalance": uneven, "left_share": 0.5 + uneven / 2,
        "rudder_force_n": None if body.arm is None else moment / body.arm,
    }, uneven  # fmt: skip


def pull(body: Body, stops: list[Turned]) -> PullAnswer:
    """Imbalance of the vehicle and, driven both ways, of the road, with what it means.

    `body` [record]; `stops` [records].
    """
    rows = [imbalance(body, stop) for stop in stops]
    sample = mean_of([uneven for _, uneven in rows], [s.direction for s in stops])
    low, high = sample.interval
    side: Literal["left", "right"] = "left" if sample.mean > 0 else "right"
    verdict: Verdict
    if low is None or high is None:
        verdict = "cannot_tell"
    elif low >= -EVEN - 1e-9 and high <= EVEN + 1e-9:
        verdict = "even"
    elif low <= 0 <= high:
        verdict = "cannot_tell"
    elif abs(sample.mean) < EVEN - 1e-9:
        verdict = "even"
    else:
        verdict = "uneven" if abs(sample.mean) <= UNEVEN + 1e-9 else "pulls"
    both = sample.out_minus_back
    return {
        "stops": [row for row, _ in rows], "both_ways": both is not None, "road": None if both is None else both / 2,
        "vehicle": {"value": sample.mean, "se": sample.se, "low": low, "high": high}, "verdict": verdict,
        "least": body.castering, "side": side if verdict in ("uneven", "pulls") else None,
    }  # fmt: skip

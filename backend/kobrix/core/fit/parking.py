"""The parking brake alone: its force, the grade it holds, and what it stops with."""

import math
from dataclasses import dataclass
from typing import NotRequired, TypedDict

from kobrix.core.constants import G
from kobrix.core.figures import EPS, Level
from kobrix.core.physics.stopping_distance import grade_by_grip, grade_by_torque

PULL = {"hand": 400.0, "foot": 500.0}  # N, FMVSS 135 S7.12, from memory


@dataclass(frozen=True)
class Vehicle:
    """What is held: mass [kg], front share, χ = height over wheelbase [1], grip [1], the tyre's rolling radius [m]."""

    mass: float
    front_share: float
    chi: float
    grip: float
    radius: float

    @property
    def weight_torque(self) -> float:
        """Tyre radius times weight [N·m]."""
        return self.radius * self.mass * G


def lock_alone(vehicle: Vehicle, front: bool) -> float:
    """Deceleration [g] at which one axle braked alone locks, inf where it never does. Source: moments.

    `vehicle` [record]; `front` [yes or no].
    """
    transfer = vehicle.grip * vehicle.chi
    if not front:
        return vehicle.grip * (1 - vehicle.front_share) / (1 + transfer)
    first = vehicle.grip * vehicle.front_share / (1 - transfer) if transfer < 1 else math.inf
    lift = (1 - vehicle.front_share) / vehicle.chi
    return min(first, lift)


def _lesser(a: float | None, b: float | None) -> float | None:
    known = [v for v in (a, b) if v is not None]
    return min(known, default=None)


class ParkingAnswer(TypedDict):
    """parking_brake: the forces [N] that a lever makes, of a brake that has one; its torque [N·m], the grades it holds (None: any), and
    what it stops alone [g]."""

    cable_force_n: NotRequired[float]
    shoe_force_n: NotRequired[float]
    clamp_n: NotRequired[float]
    torque_nm: float
    torque_grade: float | None
    grip_grade_nose_up: float | None
    grip_grade_nose_down: float | None
    holds_nose_up: float | None
    holds_nose_down: float | None
    holds_grade: float | None
    decel_alone_g: float
    locks: bool
    torque_needed_nm: float
    grip_allows_grade: bool
    pull_needed_n: float | None
    level: Level


def parking_brake(
    vehicle: Vehicle, front: bool, torque: float, grade: float, pull: float | None, allowed: float
) -> ParkingAnswer:
    """What a parking `torque` [N·m] of the axle holds, stops and needs on a `grade`; `pull` [N] gives it, None without a lever.

    `vehicle` [record]; `front` [yes or no]; `allowed` [N].
    """
    by_torque = grade_by_torque(torque, vehicle.radius, vehicle.mass)
    share = vehicle.front_share if front else 1 - vehicle.front_share
    up = grade_by_grip(vehicle.grip, share, vehicle.chi, front, nose_down=False)
    down = grade_by_grip(vehicle.grip, share, vehicle.chi, front, nose_down=True)
    holds_up, holds_down = _lesser(by_torque, up), _lesser(by_torque, down)
    lock, decel = lock_alone(vehicle, front), torque / vehicle.weight_torque
    needed = vehicle.weight_torque * math.sin(math.atan(grade))
    grip_allows = all(limit is None or limit >= grade - EPS for limit in (up, down))
    pull_needed = None if pull is None else pull * needed / torque
    enough = torque >= needed - EPS if pull_needed is None else pull_needed <= allowed + EPS
    return {
        "torque_nm": torque, "torque_grade": by_torque, "grip_grade_nose_up": up, "grip_grade_nose_down": down,
        "holds_nose_up": holds_up, "holds_nose_down": holds_down, "holds_grade": _lesser(holds_up, holds_down),
        "decel_alone_g": min(decel, lock), "locks": decel > lock, "torque_needed_nm": needed, "grip_allows_grade": grip_allows,
        "pull_needed_n": pull_needed, "level": "good" if enough and grip_allows else "danger",
    }  # fmt: skip

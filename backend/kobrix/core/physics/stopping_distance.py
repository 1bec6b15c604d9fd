"""Stopping distance, mean fully developed deceleration, the correction to a nominal speed, and holding still on a grade."""

import numpy as np

from kobrix.core.constants import ASSUMED, KMH, PUBLISHED, G
from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Number

BUILD_UP = ASSUMED["stop.build_up"].value


def distance(speed: Number, decel: Number, reaction: Number = 0.0, build_up: Number = BUILD_UP) -> Number:
    """Stopping distance v·t_r + v·t_b/2 + v²/(2a) [m].

    `speed` [m/s]; `decel` [m/s²]; `reaction` [s]; `build_up` [s] until the brakes are full. Leaves out a·t_b²/24, about
    3 cm. Any shape. Source: mechanics, the build-up straight.

    >>> round(float(distance(100 / 3.6, 0.8 * 9.80665)), 4)
    53.3428
    """
    return speed * reaction + speed * build_up / 2.0 + speed * speed / (2.0 * decel)


def distance_limit(speed: Number) -> Number:
    """Longest allowed distance 0.1·V + 0.0060·V² [m] from a `speed` [m/s], V in km/h. Source: UN R13-H, from memory.

    Any shape.

    >>> round(float(distance_limit(100 / 3.6)), 6)
    70.0
    """
    v = speed / KMH
    return PUBLISHED["distance_reaction"].value * v + PUBLISHED["distance_braking"].value * v * v


def mfdd(speed: Number, begin: Number, end: Number) -> Number:
    """Mean fully developed deceleration (v_b² − v_e²)/(2(s_e − s_b)) [m/s²], v_b 0.8 and v_e 0.1 of the `speed` [m/s].

    `begin` [m] and `end` [m], the way run when those speeds are passed. Any shape. Source: UN R13-H, from memory.
    """
    first, last = (PUBLISHED[k].value * speed for k in ("mfdd_begin", "mfdd_end"))
    return (first * first - last * last) / (2.0 * (end - begin))


def to_nominal(way: float, speed: float, nominal: float) -> float:
    """A stop's `way` [m] from a `speed` [m/s] as it would be from a `nominal` [m/s]: s·(V_n/V)².

    Raises Impossible where the two differ by more than 10 %. Source: SAE J299, from memory.
    """
    if abs(speed / nominal - 1.0) > PUBLISHED["nominal_band"].value + 1e-12:
        raise Impossible(
            "the correction to the nominal speed", f"{speed / KMH:.1f} km/h is more than 10 % off {nominal / KMH:.1f} km/h"
        )
    return way * (nominal / speed) ** 2


def grade_by_torque(torque: float, radius: float, mass: float) -> float | None:
    """Steepest grade [1] a parking `torque` [N·m] of a whole station holds, with a tyre `radius` [m] and a `mass` [kg].

    ΣT/R = m·g·sin(atan q), so q = tan(asin(T/(R·m·g))); None where it holds any grade. Source: statics.
    """
    share = torque / (radius * mass * G)
    return None if share >= 1.0 else float(np.tan(np.arcsin(share)))


def grade_by_grip(grip: float, share: float, chi: float, front: bool, nose_down: bool) -> float | None:
    """Steepest grade [1] on which the tyres of one axle hold: q ≤ μ·(share ± χq).

    `grip` [1]; static `share` [1] of that axle; `chi` [1]; `front` axle or rear; `nose_down` [yes or no]. Nose down loads
    the front. None where the tyres hold any grade. Source: statics.
    """
    sign = 1.0 if front == nose_down else -1.0
    rest = 1.0 - sign * grip * chi
    return None if rest <= 0.0 else grip * share / rest


def nose_over(behind: float, height: float) -> float:
    """Deceleration [g] at which a tail-dragger goes over its nose, z = x/h.

    `behind` [m], centre of gravity behind the main wheels' contact, fuselage level; `height` [m]. No lift. Source: moments.
    """
    return behind / height


def wear_volume(area: Number, wear: Number, calipers: int, wheels: int) -> Floats:
    """Fluid [m³] that worn pads of a whole station take: 2·A_side·wear·n.

    `area` [m²] of one side; `wear` [m] of each pad; `calipers` [1] per wheel; `wheels` [1]. Any shape. Source: geometry.
    """
    return np.asarray(2.0 * area * wear * calipers * wheels)

"""The linkage between pedal and cylinder: a pin on an arc, a rod of fixed length, a piston on a straight bore.

The pivot is the origin. The pin sits at radius b and angle θ; the bore's axis goes through a point in a direction into the
bore; the rod joins the pin to the piston's socket, which lies ahead of the pin. This is a slider-crank, solved in closed
form: the pin is where the circle about the pivot meets the circle of the rod about the socket.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number


@dataclass(frozen=True)
class Linkage:
    """Geometry of pedal and cylinder.

    `radius` [m] pivot to pin; `rest` [rad] angle of the pin at rest; `sense` [1], 1 or −1, the sign of the angle when
    pressed; `point` ([m], [m]) on the bore's axis; `direction` [rad] of the axis into the bore; `rod` [m] long.
    """

    radius: Number
    rest: Number
    sense: float
    point: tuple[Number, Number]
    direction: Number
    rod: Number

    @cached_property
    def axis(self) -> tuple[Number, Number]:
        """Direction of the bore's axis (cos, sin) [1]."""
        return np.cos(self.direction), np.sin(self.direction)

    @cached_property
    def pin(self) -> tuple[Number, Number]:
        """Pin ([m], [m]) from the pivot at rest."""
        return _pin(self, self.rest)

    @cached_property
    def start(self) -> Floats:
        """Place of the socket along the bore's axis [m] at rest."""
        return socket(self, self.rest)

    @cached_property
    def side(self) -> Floats:
        """On which side of the line from pivot to socket the pin rests [1], 1 or −1."""
        c, s = self.axis
        pin_x, pin_y = self.pin
        return np.asarray(np.sign((self.point[0] + self.start * c) * pin_y - (self.point[1] + self.start * s) * pin_x))


def _pin(link: Linkage, angle: Number) -> tuple[Number, Number]:
    """Pin ([m], [m]) from the pivot at an angle [rad]."""
    return link.radius * np.cos(angle), link.radius * np.sin(angle)


def _seen(link: Linkage, pin: tuple[Number, Number]) -> tuple[Number, Number]:
    """A pin along and across the bore's axis [m]."""
    c, s = link.axis
    x, y = pin[0] - link.point[0], pin[1] - link.point[1]
    return x * c + y * s, y * c - x * s


def socket(link: Linkage, angle: Number) -> Floats:
    """Place of the piston's socket along the bore's axis [m] of `link` [record] with the pin at `angle` [rad].

    s = s_pin + √(l² − e²); NaN where the rod does not reach the axis. Any shape. Source: slider-crank.
    """
    along, across = _seen(link, _pin(link, angle))
    with np.errstate(invalid="ignore"):
        return np.asarray(along + np.sqrt(np.square(link.rod) - np.square(across)))


def reachable(link: Linkage) -> bool:
    """Whether the rod of `link` [record] reaches the bore's axis at rest, and pressing drives the piston into the bore.

    Any shape. Source: slider-crank.
    """
    return bool(np.all(np.isfinite(link.start)) and np.all(_slope(link, link.pin) > 0.0))


def _slope(link: Linkage, pin: tuple[Number, Number]) -> Floats:
    """Stroke per angle, in the sense of pressing [m/rad], with the pin there."""
    c, s = link.axis
    along, rise = s * pin[0] - c * pin[1], c * pin[0] + s * pin[1]  # d(pin along)/dθ, d(pin across)/dθ
    _, across = _seen(link, pin)
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.asarray(link.sense * (along - across * rise / np.sqrt(np.square(link.rod) - np.square(across))))


def _pin_after(link: Linkage, stroke: Number) -> tuple[Floats, Floats]:
    """Pin ([m], [m]) from the pivot when the piston has moved by a stroke [m]: circle through circle.

    Of the two crossings the one on the side of the rest position. NaN where the rod is too short.
    """
    c, s = link.axis
    place = link.start + stroke
    x, y = link.point[0] + place * c, link.point[1] + place * s
    far = np.hypot(x, y)
    along = (far**2 + np.square(link.radius) - np.square(link.rod)) / (2.0 * far)
    with np.errstate(invalid="ignore"):
        aside = link.side * np.sqrt(np.square(link.radius) - along**2)
    return np.asarray((along * x - aside * y) / far), np.asarray((along * y + aside * x) / far)


def _turned(link: Linkage, pin: tuple[Number, Number]) -> Floats:
    """Angle [rad] from the rest position to a pin, within half a turn."""
    (x, y), (at_x, at_y) = link.pin, pin
    return np.asarray(np.arctan2(x * at_y - y * at_x, x * at_x + y * at_y))


def angle_at(link: Linkage, stroke: Number) -> Floats:
    """Angle of the pin [rad] of `link` [record] when the piston has moved by `stroke` [m].

    NaN where the rod is too short. Any shape. Source: circle through circle.
    """
    return np.asarray(link.rest + _turned(link, _pin_after(link, stroke)))


def arc_and_ratio(link: Linkage, pivot_to_pad: Number, stroke: Number) -> tuple[Floats, Floats]:
    """Arc [m] that the pad has gone, and pedal ratio i(x) = a/|dx/dθ| [1], of `link` [record] at a `stroke` [m].

    `pivot_to_pad` [m]. The ratio is NaN past a dead point, where pressing no longer drives the piston; both where the rod is
    too short. Any shape. Source: slider-crank, virtual work.
    """
    pin = _pin_after(link, stroke)
    slope = _slope(link, pin)
    ratio = np.where(slope > 0.0, pivot_to_pad / np.where(slope > 0.0, slope, 1.0), np.nan)
    arc = np.where(np.asarray(stroke) == 0.0, 0.0, pivot_to_pad * np.abs(_turned(link, pin)))  # at rest to the last digit
    return arc, ratio


def ratio_at(link: Linkage, pivot_to_pad: Number, stroke: Number) -> Floats:
    """Pedal ratio i(x) [1] of `link` [record] at a `stroke` [m], with `pivot_to_pad` [m]; as `arc_and_ratio`. Any shape.

    Source: slider-crank, virtual work.
    """
    return arc_and_ratio(link, pivot_to_pad, stroke)[1]


def largest_rod_angle(link: Linkage, stroke: Number) -> Floats:
    """Largest angle [rad] between rod and bore of `link` [record] from rest to a `stroke` [m], exact. Any shape.

    The pin stands furthest from the bore's axis at rest, at the end, or where it moves along the axis. Source: geometry.
    """
    first, last = link.rest, angle_at(link, stroke)
    low, high = np.minimum(first, last), np.maximum(first, last)
    across = np.asarray(link.direction + np.pi / 2.0)
    turned = across + np.pi * np.ceil((low - across) / np.pi)  # the first such place from the lower end up
    places = [first, last, np.where(turned <= high, turned, first)]
    return np.asarray(np.max(np.broadcast_arrays(*(_rod_angle(link, _pin(link, place)) for place in places)), axis=0))


def _rod_angle(link: Linkage, pin: tuple[Number, Number]) -> Floats:
    _, across = _seen(link, pin)
    return np.asarray(np.arcsin(np.clip(np.abs(across) / link.rod, 0.0, 1.0)))


def rod_angle(link: Linkage, stroke: Number) -> Floats:
    """Angle [rad] between rod and bore of `link` [record] at a `stroke` [m]. Any shape. Source: geometry."""
    return _rod_angle(link, _pin_after(link, stroke))

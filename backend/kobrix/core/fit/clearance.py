"""Gaps between a caliper and the turning wheel, its weights and its own rotor, with their doubt.

Plane of the axle: x along it from the hub's flange, + inboard; r from it. Limits: common practice.
"""

import itertools
import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Literal, NotRequired, TypedDict

from kobrix.core.figures import EPS, Level, worst

Point = tuple[float, float]  # (x, r) [mm]
FAR = 10_000.0  # mm: beyond every wheel
Z_95 = 1.6448536269514722  # one-sided 95 % of a normal law
LIMITS = {"barrel_mm": 3.0, "spoke_mm": 3.0, "weights_mm": 3.0, "bridge_mm": 2.0, "sides_mm": 2.0}
RADIAL = ("envelope_r_mm", "radial_move_mm", "wheel_r_mm", "bearing_mm")
AXIAL = ("envelope_x_mm", "shims_mm", "wheel_x_mm", "spacer_mm", "hat_thickness_mm")
BRIDGE = ("envelope_r_mm", "radial_move_mm", "rotor_r_mm", "bearing_mm")
SIDES = ("envelope_x_mm", "shims_mm", "hat_offset_mm")
GapName = Literal["barrel", "spoke", "weights", "bridge", "sides"]
NAMES: tuple[GapName, ...] = ("barrel", "spoke", "weights", "bridge", "sides")


@dataclass(frozen=True)
class Box:
    """A caliper drawn as a box: r is to its outer face in the middle, `half_length` to its corners along the wheel [mm]."""

    x_from: float
    x_to: float
    r_from: float
    r_to: float
    half_length: float


@dataclass(frozen=True)
class Weights:
    """Stuck-on balance weights over x from the wheel's face [mm]."""

    x_from: float
    x_to: float
    thickness: float


@dataclass(frozen=True)
class Stud:
    """A wheel stud: `length` from the flange, the wheel's metal under the nut, the nut's own thread [mm]."""

    length: float
    diameter: float
    pitch: float
    seat: float
    nut_thread: float = math.inf


@dataclass(frozen=True)
class Clearance:
    """What is measured for a wheel over a caliper [mm]; None where it was not."""

    profile: tuple[Point, ...]  # x from the wheel's face, from hub to inboard edge
    outline: tuple[Point, ...] | Box
    hat: float = 0.0
    spacer: float = 0.0
    shims: float = 0.0
    move: float = 0.0
    weights: Weights | None = None
    bridge_radius: float | None = None
    slot_centre: float | None = None
    slot_width: float | None = None
    pad_outer_radius: float | None = None
    pad_height: float | None = None
    rotor_diameter: float | None = None
    rotor_thickness: float | None = None
    hat_offset: float | None = None
    stud: Stud | None = None
    limits: dict[str, float] = field(default_factory=lambda: dict(LIMITS))
    plus_minus: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class Gap:
    """A `gap` [mm], its 5 % chance value, and the caliper's point of the pair."""

    gap: float
    p5: float
    at: Point | None = None


def rim_profile(back: float, barrel: float, offset: float, width: float) -> tuple[Point, ...]:
    """Inner side of a plain wheel [mm]: spoke's back at −back, a straight barrel to the inboard edge.

    `back` [mm]; `barrel` [mm]; `offset` [mm]; `width` [mm].
    """
    return ((-back, 0.0), (-back, barrel), (offset + width / 2, barrel))


def outline_of(asked: Clearance) -> list[Point]:
    """The caliper's corners where it sits [mm]: shims and radial move added.

    `asked` [record].
    """
    shape = asked.outline
    if isinstance(shape, Box):
        top = math.hypot(shape.r_to + asked.move, shape.half_length)
        low = shape.r_from + asked.move
        corners = [(shape.x_from, low), (shape.x_to, low), (shape.x_to, top), (shape.x_from, top)]
        return [(x + asked.shims, r) for x, r in corners]
    return [(x + asked.shims, r + asked.move) for x, r in shape]


def nearest(p: Point, a: Point, b: Point) -> Point:
    """The point of the segment a to b that is nearest to p.

    `p` [mm]; `a` [mm]; `b` [mm].
    """
    dx, dr = b[0] - a[0], b[1] - a[1]
    length = dx * dx + dr * dr
    t = 0.0 if length == 0 else min(1.0, max(0.0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dr) / length))
    return a[0] + t * dx, a[1] + t * dr


def inside(p: Point, polygon: list[Point]) -> bool:
    """Whether p lies in a polygon, its edge counted as inside.

    `p` [mm]; `polygon` [mm].
    """
    within = False
    for a, b in zip(polygon, polygon[1:] + polygon[:1], strict=True):
        if math.dist(p, nearest(p, a, b)) <= EPS:
            return True
        if (a[1] > p[1]) != (b[1] > p[1]) and p[0] < a[0] + (p[1] - a[1]) / (b[1] - a[1]) * (b[0] - a[0]):
            within = not within
    return within


def _to_outline(p: Point, outline: list[Point]) -> tuple[float, Point]:
    """Distance of `p` to an outline, negative inside it, and the outline's point."""
    near = min((nearest(p, a, b) for a, b in zip(outline, outline[1:] + outline[:1], strict=True)), key=lambda n: math.dist(p, n))
    away = math.dist(p, near)
    return (-away if inside(p, outline) else away), near


Pair = tuple[float, Point, Point]  # gap, the caliper's point, the other's


def _least(pairs: list[Pair]) -> Pair | None:
    best: Pair | None = None
    for pair in pairs:
        if best is None or pair[0] < best[0] - EPS:
            best = pair
    return best


def _segments(profile: list[Point]) -> dict[str, list[tuple[Point, Point]]]:
    found: dict[str, list[tuple[Point, Point]]] = {"barrel": [], "spoke": []}
    for a, b in itertools.pairwise(profile):
        found["spoke" if abs(b[1] - a[1]) > abs(b[0] - a[0]) else "barrel"].append((a, b))
    return found


def _wheel_gap(kind: str, profile: list[Point], outline: list[Point]) -> Pair | None:
    """Least gap to the barrel or the spoke: corners against its segments, then its points against the outline."""
    segments = _segments(profile)
    own, every = segments[kind], segments["barrel"] + segments["spoke"]
    room = [*profile, (profile[-1][0], FAR), (FAR, FAR), (FAR, 0.0), (profile[0][0], 0.0)]
    pairs: list[Pair] = []
    for corner in outline:
        if not own:
            break
        near = min((nearest(corner, a, b) for a, b in own), key=lambda n: math.dist(corner, n))
        away = math.dist(corner, near)
        nearer = min(math.dist(corner, nearest(corner, a, b)) for a, b in every)
        negative = nearer >= away - EPS and not inside(corner, room)
        pairs.append((-away if negative else away, corner, near))
    ends = list(dict.fromkeys(p for segment in own for p in segment))
    for end in [p for p in profile if p in ends]:
        away, near = _to_outline(end, outline)
        pairs.append((away, near, end))
    return _least(pairs)


def barrel_over(weights: Weights, profile: list[Point], face: float) -> float | None:
    """Least barrel radius [mm] over the weights' x, None where there is no barrel.

    `weights` [record]; `profile` [mm]; `face` [mm], its x.
    """
    low, high = weights.x_from + face, weights.x_to + face
    found: list[float] = []
    for a, b in _segments(profile)["barrel"]:
        start, end = (a, b) if a[0] <= b[0] else (b, a)
        if end[0] < low - EPS or start[0] > high + EPS:
            continue
        for x in (max(start[0], low), min(end[0], high)):
            t = 0.0 if end[0] == start[0] else (x - start[0]) / (end[0] - start[0])
            found.append(start[1] + t * (end[1] - start[1]))
    return min(found, default=None)


def _weights_gap(weights: Weights, profile: list[Point], outline: list[Point], face: float) -> Pair | None:
    over = barrel_over(weights, profile, face)
    if over is None:
        return None
    low, left, right = over - weights.thickness, weights.x_from + face, weights.x_to + face
    shape = [(left, low), (right, low), (right, FAR), (left, FAR)]
    pairs: list[Pair] = []
    for corner in outline:
        away, near = _to_outline(corner, shape)
        pairs.append((away, corner, near))
    for end in shape[:2]:
        away, near = _to_outline(end, outline)
        pairs.append((away, near, end))
    return _least(pairs)


def _p5(gap: float, widths: dict[str, float], shares: dict[str, float]) -> float:
    """Gap that 95 in 100 exceed: uniform laws of those half `widths`, weighed by the `shares`, summed as a normal law."""
    return gap - Z_95 * math.sqrt(sum((shares[name] * widths.get(name, 0.0)) ** 2 / 3 for name in shares))


def gaps(asked: Clearance) -> dict[str, Gap]:
    """Every gap that can be told from what was measured, by name.

    `asked` [record].
    """
    face = -(asked.hat + asked.spacer)
    profile, outline, found = [(x + face, r) for x, r in asked.profile], outline_of(asked), {}
    pairs = {kind: _wheel_gap(kind, profile, outline) for kind in ("barrel", "spoke")}
    if asked.weights is not None:
        pairs["weights"] = _weights_gap(asked.weights, profile, outline, face)
    for name, pair in pairs.items():
        if pair is None:
            continue
        away = math.dist(pair[1], pair[2])
        n = (1.0, 1.0) if away < EPS else ((pair[1][0] - pair[2][0]) / away, (pair[1][1] - pair[2][1]) / away)
        shares = dict.fromkeys(AXIAL, n[0]) | dict.fromkeys(RADIAL, n[1])
        found[name] = Gap(pair[0], _p5(pair[0], asked.plus_minus, shares), pair[1])
    if asked.bridge_radius is not None and asked.rotor_diameter is not None:
        gap = asked.bridge_radius + asked.move - asked.rotor_diameter / 2
        found["bridge"] = Gap(gap, _p5(gap, asked.plus_minus, dict.fromkeys(BRIDGE, 1.0)))
    off = off_centre(asked)
    if off is not None and asked.slot_width is not None and asked.rotor_thickness is not None:
        gap = (asked.slot_width - asked.rotor_thickness) / 2 - abs(off)
        found["sides"] = Gap(gap, _p5(gap, asked.plus_minus, dict.fromkeys(SIDES, 1.0)))
    return found


def off_centre(asked: Clearance) -> float | None:
    """How far the caliper's slot sits inboard of the disc's middle [mm], None where either was not measured.

    `asked` [record].
    """
    if asked.slot_centre is None or asked.hat_offset is None:
        return None
    return asked.slot_centre + asked.shims - asked.hat_offset


def _first(steps: list[float], changed: Callable[[float], Clearance], by_p5: bool) -> float | None:
    """First of the `steps` that brings all but the sides to their limits, None where none does."""
    for step in steps:
        asked = changed(step)
        found = gaps(asked)
        held = [(g.p5 if by_p5 else g.gap) >= asked.limits[f"{n}_mm"] - EPS for n, g in found.items() if n != "sides"]
        if all(held):
            return step
    return None


class AtPoint(TypedDict):
    """A point of the caliper's outline: along the axle, from the axle [mm]."""

    x_mm: float
    r_mm: float


class GapAnswer(TypedDict):
    """A gap, how small it may be in one of twenty, what is wanted [mm], and the caliper's point where it is least."""

    gap_mm: float
    p5_mm: float
    limit_mm: float
    level: Level
    at: NotRequired[AtPoint]


class StudAnswer(TypedDict):
    """Thread in the nut [mm and turns], and the thickest spacer that leaves enough, None where none does."""

    engaged_mm: float
    turns: float
    turns_needed: float
    level: Level
    greatest_spacer_mm: float | None


class ClearanceAnswer(TypedDict):
    """wheel_clearance: the gaps whose sizes are known, the least of them, what a move or a spacer must add, the radius and the studs."""

    off_centre_mm: NotRequired[float]
    shim_needed_mm: NotRequired[float]
    barrel: NotRequired[GapAnswer]
    spoke: NotRequired[GapAnswer]
    weights: NotRequired[GapAnswer]
    bridge: NotRequired[GapAnswer]
    sides: NotRequired[GapAnswer]
    least: GapName | None
    extra_move_mm: float | None
    extra_spacer_mm: float | None
    extra_move_p5_mm: float | None
    extra_spacer_p5_mm: float | None
    effective_radius_mm: NotRequired[float]
    effective_radius_before_mm: NotRequired[float]
    push_factor: NotRequired[float]
    pad_overhang_mm: NotRequired[float]
    stud: NotRequired[StudAnswer]
    level: Level


def wheel_clearance(asked: Clearance) -> ClearanceAnswer:
    """Gaps, what a move or a spacer must add, the radius it changes, and the studs, by the open format's names [mm].

    `asked` [record].
    """
    found, off = gaps(asked), off_centre(asked)
    least: GapName | None = None
    for name in (n for n in NAMES if n in found):
        spare = found[name].gap - asked.limits[f"{name}_mm"]
        if least is None or spare < found[least].gap - asked.limits[f"{least}_mm"] - EPS:
            least = name
    moves = [0.0] + [sign * k / 10 for k in range(1, 101) for sign in (-1, 1)]
    spacers = [k / 2 for k in range(61)]

    def moved(by: float) -> Clearance:
        return replace(asked, move=asked.move + by)

    def spaced(by: float) -> Clearance:
        return replace(asked, spacer=asked.spacer + by)

    out: ClearanceAnswer = {
        "least": least, "extra_move_mm": _first(moves, moved, False), "extra_spacer_mm": _first(spacers, spaced, False),
        "extra_move_p5_mm": _first(moves, moved, True), "extra_spacer_p5_mm": _first(spacers, spaced, True), "level": "good",
    }  # fmt: skip
    if off is not None:
        out["off_centre_mm"], out["shim_needed_mm"] = off, asked.shims - off
    levels: list[Level] = []
    for name in (n for n in NAMES if n in found):
        gap, limit = found[name], asked.limits[f"{name}_mm"]
        level: Level = "danger" if gap.p5 < -EPS else "caution" if gap.p5 < limit - EPS else "good"
        levels.append(level)
        row: GapAnswer = {"gap_mm": gap.gap, "p5_mm": gap.p5, "limit_mm": limit, "level": level}
        if gap.at is not None:
            row["at"] = {"x_mm": gap.at[0], "r_mm": gap.at[1]}
        out[name] = row
    if asked.pad_outer_radius is not None and asked.pad_height is not None and asked.rotor_diameter is not None:
        rotor, pad = asked.rotor_diameter / 2, asked.pad_outer_radius

        def radius(move: float) -> float:
            return (min(pad + move, rotor) + pad + move - (asked.pad_height or 0.0)) / 2

        now, before = radius(asked.move), radius(0.0)
        out |= {"effective_radius_mm": now, "effective_radius_before_mm": before, "push_factor": before / now}
        out["pad_overhang_mm"] = max(0.0, pad + asked.move - rotor)
    if asked.stud is not None:
        out["stud"] = stud = _stud(asked.stud, asked.hat, asked.spacer)
        levels.append(stud["level"])
    out["level"] = worst(levels)
    return out


def _stud(stud: Stud, hat: float, spacer: float) -> StudAnswer:
    """Thread in the nut, its turns, and the thickest spacer that leaves one diameter (common practice) [mm]."""
    engaged = max(0.0, min(stud.length - hat - spacer - stud.seat, stud.nut_thread))
    greatest = stud.length - hat - stud.seat - stud.diameter
    possible = greatest >= -EPS and stud.nut_thread >= stud.diameter - EPS
    return {
        "engaged_mm": engaged, "turns": engaged / stud.pitch, "turns_needed": stud.diameter / stud.pitch,
        "level": "good" if engaged >= stud.diameter - EPS else "danger",
        "greatest_spacer_mm": max(0.0, greatest) if possible else None,
    }  # fmt: skip

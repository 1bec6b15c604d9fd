"""Hard lines: how long to cut each, where a bend is too tight, and how they lie in the stock [mm]."""

import itertools
import math
from dataclasses import dataclass
from functools import cmp_to_key
from typing import Literal, TypedDict

from kobrix.core.errors import BadPlace
from kobrix.core.figures import EPS
from kobrix.core.fit.threads import TUBE_WITHIN

Vector = tuple[float, float, float]
EndName = Literal["start", "end"]
ENDS: tuple[EndName, ...] = ("start", "end")
TIGHT = 3.0  # bend radius under so many outer diameters: common practice
SHORT = 25.0  # mm of straight that a flaring tool needs: common practice


@dataclass(frozen=True)
class Bend:
    """A bend by its angle [deg] and centre line radius [mm]."""

    angle: float
    radius: float


Way = list[float | Bend]  # straights [mm] and bends in order


@dataclass(frozen=True)
class Tube:
    """A line to be made: `ends` are flare families or none, `allowance` what both flares take [mm]."""

    name: str
    outer: float
    material: str
    ends: tuple[str, str]
    allowance: float
    way: Way


@dataclass(frozen=True)
class Stock:
    """A length that can be bought [mm], endless where `count` is None."""

    length: float
    outer: float
    material: str
    count: int | None = None


def way_through(points: list[Vector], radius: float, place: str) -> Way:
    """Straights and bends through corner `points` [mm]; BadPlace at the leg's end where its bends leave no straight.

    `radius` [mm]; `place` [dotted path].
    """
    legs = [tuple(b - a for a, b in zip(p, q, strict=True)) for p, q in itertools.pairwise(points)]
    lengths = [math.hypot(*leg) for leg in legs]
    for k, length in enumerate(lengths):
        if length <= EPS:
            raise BadPlace(f"{place}.{k + 1}", "it is the same point as the one before.")
    turns = [0.0]
    for a, b in itertools.pairwise(legs):
        cross = math.hypot(a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])
        turns.append(math.atan2(cross, sum(u * v for u, v in zip(a, b, strict=True))))
    turns.append(0.0)
    taken = [radius * math.tan(t / 2) if t > 1e-9 else 0.0 for t in turns]
    way: Way = []
    for k, length in enumerate(lengths):
        straight = length - taken[k] - taken[k + 1]
        if straight < -EPS:
            raise BadPlace(f"{place}.{k + 1}", f"the bends take {-straight:.1f} mm more than the leg to it has.")
        if k and turns[k] > 1e-9:
            way.append(Bend(math.degrees(turns[k]), radius))
        way.append(max(0.0, straight))
    return way


def _plain(value: float) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".")


def developed_of(tube: Tube) -> float:
    """Length along the centre line [mm].

    `tube` [record].
    """
    return sum(math.radians(p.angle) * p.radius if isinstance(p, Bend) else p for p in tube.way)


def length_of(tube: Tube) -> float:
    """Length to cut [mm]: developed, and what the flares take.

    `tube` [record].
    """
    return developed_of(tube) + tube.allowance


class BendAnswer(TypedDict):
    """A bend: how far round, on which radius."""

    angle_deg: float
    radius_mm: float


class TubeAnswer(TypedDict):
    """A tube: its developed and its cut length [mm], straights and bends in order, what is hard to make of it, and its tag."""

    name: str
    developed_mm: float
    cut_mm: float
    straights_mm: list[float]
    bends: list[BendAnswer]
    tight_bends: list[int]
    short_ends: list[EndName]
    tag: str


class PieceAnswer(TypedDict):
    """A length that is cut: its row of the stock, the lines out of it, and what is left [mm]."""

    stock: int
    lines: list[str]
    left_mm: float


class LinesAnswer(TypedDict):
    """line_length: the tubes, and how they lie in the stock [mm]."""

    tubes: list[TubeAnswer]
    total_cut_mm: float
    pieces: list[PieceAnswer]
    unplaced: list[str]
    total_left_mm: float


def cut(tube: Tube) -> TubeAnswer:
    """Developed and cut length of a tube, its bends, what is too tight or too short to flare, and its tag.

    `tube` [record].
    """
    straights = [p for p in tube.way if not isinstance(p, Bend)]
    bends = [p for p in tube.way if isinstance(p, Bend)]
    length = length_of(tube)
    short: list[EndName] = []
    for word, end, part in zip(ENDS, tube.ends, (tube.way[0], tube.way[-1]), strict=True):
        if end != "none" and (isinstance(part, Bend) or part < SHORT - EPS):
            short.append(word)
    return {
        "name": tube.name, "developed_mm": developed_of(tube), "cut_mm": length, "straights_mm": straights,
        "bends": [{"angle_deg": b.angle, "radius_mm": b.radius} for b in bends],
        "tight_bends": [k for k, b in enumerate(bends) if b.radius < TIGHT * tube.outer - EPS], "short_ends": short,
        "tag": f"{tube.name} | {_plain(tube.outer)} mm {tube.material} | cut {math.ceil(length - 1e-6)} mm"
        f" | {tube.ends[0]} to {tube.ends[1]}",
    }  # fmt: skip


@dataclass
class _Piece:
    stock: int
    lines: list[str]
    left: float


def line_length(tubes: list[Tube], stock: list[Stock], saw: float) -> LinesAnswer:
    """Every tube cut, and laid into the stock, the longest first into the first opened piece that has room.

    `tubes` [records]; `stock` [records]; `saw` [mm].
    """
    cuts = [cut(tube) for tube in tubes]
    lengths = [length_of(tube) for tube in tubes]

    def longer(i: int, j: int) -> int:
        return 0 if abs(lengths[i] - lengths[j]) <= 1e-6 else (-1 if lengths[i] > lengths[j] else 1)

    pieces: list[_Piece] = []
    used, unplaced = [0] * len(stock), []
    for k in sorted(range(len(tubes)), key=cmp_to_key(longer)):
        tube, need = tubes[k], lengths[k]

        def suits(row: Stock, tube: Tube = tube) -> bool:
            return row.material == tube.material and abs(row.outer - tube.outer) <= TUBE_WITHIN + EPS

        piece = next((p for p in pieces if suits(stock[p.stock]) and p.left >= need - EPS), None)
        if piece is None:
            for s, row in enumerate(stock):
                if suits(row) and row.length >= need - EPS and (row.count is None or used[s] < row.count):
                    used[s] += 1
                    piece = _Piece(s, [], row.length)
                    pieces.append(piece)
                    break
        if piece is None:
            unplaced.append(tube.name)
            continue
        piece.lines.append(tube.name)
        piece.left = max(0.0, piece.left - need - saw)
    return {
        "tubes": cuts, "total_cut_mm": sum(lengths),
        "pieces": [{"stock": p.stock, "lines": p.lines, "left_mm": p.left} for p in pieces], "unplaced": unplaced,
        "total_left_mm": sum(p.left for p in pieces),
    }  # fmt: skip

"""Adapter plates and brackets: holes old and new, their edge distances and webs [mm]. No strength is computed anywhere."""

import math
from dataclasses import dataclass, replace
from typing import NotRequired, TypedDict

from kobrix.core.figures import EPS, Level, worst

SHARED = 0.05  # mm: a new hole within it is the old one
THREADS = {"steel": 1.0, "aluminium": 1.5}  # diameters of thread in the plate: common practice


@dataclass(frozen=True)
class Hole:
    """A hole by name: centre and diameter [mm]."""

    name: str
    x: float
    y: float
    diameter: float
    tapped: bool = False


@dataclass(frozen=True)
class Pattern:
    """Where a pattern's holes lie before turn and centre [mm], and what they are."""

    points: tuple[tuple[float, float], ...]
    hole: float
    turn_deg: float = 0.0
    centre: tuple[float, float] = (0.0, 0.0)
    tapped: bool = False

    def holes(self, name: str, shift: tuple[float, float] = (0.0, 0.0)) -> list[Hole]:
        """Its holes in the old pattern's frame, turned counter-clockwise, then centred and shifted."""
        c, s = math.cos(math.radians(self.turn_deg)), math.sin(math.radians(self.turn_deg))
        cx, cy = self.centre[0] + shift[0], self.centre[1] + shift[1]
        return [
            Hole(f"{name}_{k}", c * x - s * y + cx, s * x + c * y + cy, self.hole, self.tapped)
            for k, (x, y) in enumerate(self.points, 1)
        ]


@dataclass(frozen=True)
class Outline:
    """The plate's edge: a circle (`corner` its radius) or a rectangle with rounded corners [mm]."""

    extents: tuple[float, float, float, float]
    corner: float = 0.0

    def edge(self, x: float, y: float) -> float:
        """Distance from a point to the edge [mm], negative outside."""
        x0, y0, x1, y1 = self.extents
        qx = abs(x - (x0 + x1) / 2) - ((x1 - x0) / 2 - self.corner)
        qy = abs(y - (y0 + y1) / 2) - ((y1 - y0) / 2 - self.corner)
        return self.corner - math.hypot(max(qx, 0.0), max(qy, 0.0)) - min(max(qx, qy), 0.0)


@dataclass(frozen=True)
class Plate:
    """A plate to be made: holes of the part it bolts to, of the part it carries, a bore, and what it is made of."""

    old: list[Hole]
    new: list[Hole]
    bore: Hole | None
    outline: Outline | None = None
    edge_factor: float = 1.5  # diameters from a hole's centre to the edge: common practice
    web_factor: float = 1.0  # our estimate
    thickness: float | None = None
    material: str = "steel"


def circle(count: int, diameter: float) -> tuple[tuple[float, float], ...]:
    """`count` places evenly on a bolt circle [mm], the first on x.

    `diameter` [mm].
    """
    angles = [2 * math.pi * k / count for k in range(count)]
    return tuple((diameter / 2 * math.cos(a), diameter / 2 * math.sin(a)) for a in angles)


def rectangle(width: float, height: float) -> tuple[tuple[float, float], ...]:
    """Four corners, ++ first, counter-clockwise [mm].

    `width` [mm]; `height` [mm].
    """
    return tuple((sx * width / 2, sy * height / 2) for sx, sy in ((1, 1), (-1, 1), (-1, -1), (1, -1)))


def _merged(plate: Plate) -> tuple[list[Hole], list[list[str]]]:
    """All holes in order, a new one that lies on an old one being that one."""
    holes, shared, rest = list(plate.old), [], []
    for new in plate.new:
        k = next((k for k, old in enumerate(plate.old) if math.hypot(old.x - new.x, old.y - new.y) <= SHARED + EPS), None)
        if k is None:
            rest.append(new)
            continue
        old = holes[k]
        holes[k] = replace(old, diameter=max(old.diameter, new.diameter), tapped=old.tapped or new.tapped)
        shared.append([old.name, new.name])
    return holes + rest, shared


class HoleAnswer(TypedDict):
    """A hole: its middle, its diameter, how much edge it has and wants and, tapped, how much thread [mm]."""

    name: str
    x_mm: float
    y_mm: float
    diameter_mm: float
    edge_mm: float
    edge_needed_mm: float
    thread_in_plate_mm: NotRequired[float]
    thread_needed_mm: NotRequired[float]
    level: Level


class WebAnswer(TypedDict):
    """What is left between two holes, and what is wanted [mm]."""

    between: list[str]
    web_mm: float
    web_needed_mm: float
    level: Level


class PlateAnswer(TypedDict):
    """plate: the holes, those that serve both patterns, the outline [mm], and what is too thin."""

    holes: list[HoleAnswer]
    shared: list[list[str]]
    extents_mm: list[float]
    corner_mm: float
    level: Level
    webs_below: list[WebAnswer]
    least_web: WebAnswer | None
    least_edge: str


def plate(asked: Plate) -> PlateAnswer:
    """Holes with their edge distances, webs between them, and the outline, by the open format's names [mm].

    `asked` [record].
    """
    holes, shared = _merged(asked)
    largest = max(hole.diameter for hole in holes)
    needs = [asked.edge_factor * hole.diameter for hole in holes]
    if asked.bore is not None:
        holes.append(asked.bore)
        needs.append(asked.bore.diameter / 2 + asked.edge_factor * largest)
    outline = asked.outline or _least_rectangle(holes, needs)
    rows: list[HoleAnswer] = []
    spare: list[float] = []
    for hole, need in zip(holes, needs, strict=True):
        edge = outline.edge(hole.x, hole.y)
        level: Level = "good" if edge >= need - EPS else "caution" if edge > hole.diameter / 2 + EPS else "danger"
        row: HoleAnswer = {
            "name": hole.name, "x_mm": hole.x, "y_mm": hole.y, "diameter_mm": hole.diameter, "edge_mm": edge,
            "edge_needed_mm": need, "level": level,
        }  # fmt: skip
        if hole.tapped and asked.thickness is not None:
            wanted = THREADS[asked.material] * hole.diameter
            row["thread_in_plate_mm"], row["thread_needed_mm"] = asked.thickness, wanted
            row["level"] = level if asked.thickness >= wanted - EPS else worst([level, "caution"])
        rows.append(row)
        spare.append(edge - need)
    webs: list[tuple[float, WebAnswer]] = []
    for i, a in enumerate(holes):
        for b in holes[i + 1 :]:
            web = math.hypot(a.x - b.x, a.y - b.y) - (a.diameter + b.diameter) / 2
            need = asked.web_factor * min(max(a.diameter, b.diameter), largest)
            thin: Level = "danger" if web < -EPS else "caution" if web < need - EPS else "good"
            webs.append((web, {"between": [a.name, b.name], "web_mm": web, "web_needed_mm": need, "level": thin}))
    least = min((web for web, _ in webs), default=0.0)
    return {
        "holes": rows, "shared": shared, "extents_mm": list(outline.extents), "corner_mm": outline.corner,
        "level": worst([*(row["level"] for row in rows), *(row["level"] for _, row in webs)]),
        "webs_below": [row for _, row in webs if row["level"] != "good"],
        "least_web": next((row for web, row in webs if web <= least + EPS), None),
        "least_edge": next(h.name for h, s in zip(holes, spare, strict=True) if s <= min(spare) + EPS),
    }  # fmt: skip


def _least_rectangle(holes: list[Hole], needs: list[float]) -> Outline:
    """The least rectangle that gives each hole its need, its sides out to whole millimetres."""
    pairs = list(zip(holes, needs, strict=True))
    x0, y0 = (math.floor(min(at - need for at, need in row) + 1e-6) for row in _sides(pairs))
    x1, y1 = (math.ceil(max(at + need for at, need in row) - 1e-6) for row in _sides(pairs))
    return Outline((x0, y0, x1, y1))


def _sides(pairs: list[tuple[Hole, float]]) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
    return [(hole.x, need) for hole, need in pairs], [(hole.y, need) for hole, need in pairs]

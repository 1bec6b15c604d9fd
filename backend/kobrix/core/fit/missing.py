"""What a change still needs: fittings by its joints, consumables by its changes, fluid; less what is on the shelf."""

import math
from dataclasses import dataclass
from typing import Any, NotRequired, TypedDict

from kobrix.core.work.steps import Change, Sides, places

SHOPS = ("fittings", "fluid", "fasteners", "made", "others")
FLUSH, SPARE, CAN = 2.0, 1.2, 250.0  # twice through, a fifth spare (our estimate), in steps of a quarter litre [cm³]


@dataclass(frozen=True)
class Joint:
    """A joint by family and thread (one spelling), how many, and whether it is opened or left open."""

    family: str
    thread: str
    count: int = 1
    opened: bool = True
    open: bool = False


@dataclass(frozen=True)
class Fluid:
    """What the system and the reservoir hold [cm³], whether all is flushed, and the fluid's grade."""

    system: float
    reservoir: float = 0.0
    flush: bool = True
    grade: str = "DOT 4"

    @property
    def litres(self) -> float:
        """Fluid to buy [l], up to the next quarter."""
        need = (self.system + self.reservoir) * (FLUSH if self.flush else 1.0) * SPARE
        return max(0.0, math.ceil(need / CAN - 1e-9) * CAN / 1000)


Item = tuple[str, float, str]  # part, count, shop


def needed(fittings: dict[str, Any], consumables: list[dict[str, Any]], sets: dict[str, list[str]], joints: list[Joint],
           changes: list[Change], sides: Sides, parts: list[Item], fluid: Fluid | None) -> list[Item]:  # fmt: skip
    """Everything needed, each part once, summed at the place where it is named first.

    `fittings` [table]; `consumables` [rows of the table]; `sets` {word: kinds}; `joints` [records]; `changes` [records];
    `sides` {axle: names}; `parts` [(part, count, shop)]; `fluid` [record].
    """
    found: dict[str, tuple[float, str]] = {}

    def add(part: str, count: float, shop: str) -> None:
        before = found.get(part)
        found[part] = (count + before[0], before[1]) if before else (count, shop)

    for joint in joints:
        if not (joint.opened or joint.open):
            continue
        washers, rings = fittings["washers"].get(joint.family, 0), fittings["rings"].get(joint.family, 0)
        if joint.open:
            add(f"plug {joint.thread}", joint.count, "fittings")
        if washers:
            add(f"crush washer {joint.thread}", (1 if joint.open else washers) * joint.count, "fittings")
        if rings:
            add(f"O-ring {joint.thread}", rings * joint.count, "fittings")
    for row in consumables:
        where = places(row["per"], row["trigger"], [], sets, changes, sides)
        if where:
            add(row["part"], row["count"] * len(where), row["shop"])
    for part, count, shop in parts:
        add(part, count, shop)
    if fluid is not None:
        add(f"brake fluid {fluid.grade}, litre", fluid.litres, "fluid")
    return [(part, count, shop) for part, (count, shop) in found.items()]


class Wanted(TypedDict):
    """A part, how many, and the shop that sells it."""

    part: str
    count: float
    shop: str


class MissingAnswer(TypedDict):
    """still_missing: everything needed, what of it is not here, and, with a day planned, the days that are left."""

    need: list[Wanted]
    missing: list[Wanted]
    on_hand_kinds: int
    sentence: str
    days_left: NotRequired[int]
    alarm: NotRequired[bool]


def still_missing(need: list[Item], shelf: dict[str, float], days: int | None) -> MissingAnswer:
    """What is missing after the shelf, by the shop it is bought at; days are left until the job is planned.

    `need` [(part, count, shop)]; `shelf` {part: count [1]}; `days` [1].
    """
    left = [(part, count - shelf.get(part, 0.0), shop) for part, count, shop in need]
    missing = [row for shop in SHOPS for row in left if row[2] == shop and row[1] > 1e-9]
    named = ", ".join(f"{part} ({count:g})" for part, count, _ in missing)
    out: MissingAnswer = {
        "need": [{"part": p, "count": c, "shop": s} for p, c, s in need],
        "missing": [{"part": p, "count": c, "shop": s} for p, c, s in missing], "on_hand_kinds": len(need) - len(missing),
        "sentence": f"Still missing: {named}." if missing else "Nothing is missing.",
    }  # fmt: skip
    if days is not None:
        out["days_left"], out["alarm"] = days, bool(missing) and days <= 2
    return out

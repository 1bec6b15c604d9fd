"""Donor parts ranked by how little must be made to fit them."""

import math
from dataclasses import dataclass
from typing import Any, TypedDict

from kobrix.core.figures import EPS

Rules = dict[str, Any]  # the table of donor rules as shipped
_Asked = tuple[str, dict[str, Any], float | str, float]  # dimension, its rule, what is needed, within how much
KINDS = ("impossible", "irreversible", "made", "shim")  # that are counted; what is noted besides is not
NUMBERS_ONLY = ("side_area_cm2",)  # a difference of it says nothing of how it bolts on


@dataclass(frozen=True)
class Donor:
    """A part by name: its dimensions (numbers, or words for threads), and its price where it is known."""

    name: str
    has: dict[str, float | str]
    price: float | None = None


# What must be made of a part: its code, its class (what kind of work), and how much [mm], None where that says nothing.
Make = TypedDict("Make", {"code": str, "class": str, "value_mm": float | None})


class Ranked(TypedDict):
    """A part: its score (the less, the better), what must be made of it, which dimensions nobody stated, and whether it can be used."""

    name: str
    score: list[float]
    make: list[Make]
    unknown: list[str]
    usable: bool


class DonorsAnswer(TypedDict):
    """donor_rank: the parts, the best first."""

    ranked: list[Ranked]


def dimensions(rules: Rules, part: str) -> dict[str, dict[str, Any]]:
    """The rules of a part (rotor, caliper) by dimension, in order.

    `rules` [table]; `part` [name].
    """
    return {row["dimension"]: row for row in rules[part]}


def _code(
    rule: dict[str, Any], have: float | str, need: float | str, within: float, greatest: float
) -> tuple[str, float | None] | None:
    """What must be made for a dimension that differs, and how much of it; None where it fits."""
    if "other" in rule:
        both = isinstance(have, float) and isinstance(need, float)
        differs = abs(have - need) > EPS if both else have != need  # type: ignore[operator]
        return (rule["other"]["code"], None) if differs else None
    assert isinstance(have, float)
    assert isinstance(need, float)
    d = have - need
    if abs(d) <= within + EPS:
        return None
    if have > greatest + EPS:
        return "too_big", have - greatest
    side = rule["above" if d > 0 else "below"]
    return side["code"], None if side["factor"] is None else side["factor"] * d


def _judged(
    asked: list[_Asked], classes: dict[str, str], donor: Donor, greatest: float | None
) -> tuple[tuple[float, ...], Ranked]:
    apart, unknown = 0.0, list[str]()
    make: list[Make] = []
    for name, rule, need, within in asked:
        have = donor.has.get(name)
        if have is None:
            unknown.append(name)
            continue
        if within > 0 and "other" not in rule and name not in NUMBERS_ONLY:
            apart += abs(have - need) / within  # type: ignore[operator]
        made = _code(rule, have, need, within, math.inf if greatest is None or name != "diameter_mm" else greatest)
        if made is not None and not (made[0] == "redrill" and any(row["code"] == "redrill" for row in make)):
            make.append({"code": made[0], "class": classes[made[0]], "value_mm": made[1]})
    kinds = [row["class"] for row in make]
    impossible, *others = (kinds.count(kind) for kind in KINDS)
    score = (impossible, len(unknown), *others)
    return (*score, round(apart, 9)), {
        "name": donor.name, "score": [*score, apart], "make": make, "unknown": unknown, "usable": impossible == 0
    }  # fmt: skip


def donor_rank(rules: Rules, part: str, needs: dict[str, float | str], tolerance: dict[str, float], donors: list[Donor],
               greatest: float | None = None) -> DonorsAnswer:  # fmt: skip
    """The `donors` by what must be made, the least first; `greatest` is the largest rotor [mm] that the wheel takes.

    `rules` [table]; `part` [name]; `needs` {dimension: its value}; `tolerance` {dimension: [its unit]}.
    """
    asked = [(name, rule, needs[name], tolerance.get(name, rule.get("tolerance", 0.0)))
             for name, rule in dimensions(rules, part).items() if name in needs]  # fmt: skip
    rows = []
    for k, donor in enumerate(donors):
        score, shown = _judged(asked, rules["classes"], donor, greatest)
        rows.append(((*score, donor.price is None, donor.price or 0.0, k), shown))
    return {"ranked": [shown for _, shown in sorted(rows, key=lambda row: row[0])]}

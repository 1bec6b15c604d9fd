"""Donor parts ranked by how little must be made to fit them."""

from dataclasses import dataclass
from typing import Any

from kobrix.core.figures import EPS, Figures

Rules = dict[str, Any]  # the table of donor rules as shipped
_Asked = tuple[str, dict[str, Any], float | str, float]  # dimension, its rule, what is needed, within how much
KINDS = ("impossible", "irreversible", "made", "shim", "note")
NUMBERS_ONLY = ("side_area_cm2",)  # a difference of it says nothing of how it bolts on


@dataclass(frozen=True)
class Donor:
    """A part by name: its dimensions (numbers, or words for threads), and its price where it is known."""

    name: str
    has: dict[str, float | str]
    price: float | None = None


def dimensions(rules: Rules, part: str) -> dict[str, dict[str, Any]]:
    """The rules of a part (rotor, caliper) by dimension, in order.

    `rules` [table]; `part` [name].
    """
    return {row["dimension"]: row for row in rules[part]}


def _judged(
    asked: list[_Asked], classes: dict[str, str], donor: Donor, greatest: float | None
) -> tuple[tuple[float, ...], Figures]:
    counts, apart = dict.fromkeys(KINDS, 0), 0.0
    make, unknown = [], []

    def add(code: str, value: float | None) -> None:
        kind = classes[code]
        counts[kind] += 1
        make.append({"code": code, "class": kind, "value_mm": value})

    for name, rule, need, within in asked:
        have = donor.has.get(name)
        if have is None:
            unknown.append(name)
        elif "other" in rule:
            code = rule["other"]["code"]
            differs = abs(have - need) > EPS if isinstance(have, float) and isinstance(need, float) else have != need
            if differs and not (code == "redrill" and any(row["code"] == code for row in make)):
                add(code, None)
        else:
            assert isinstance(have, float)
            assert isinstance(need, float)
            d = have - need
            if name not in NUMBERS_ONLY and within > 0:
                apart += abs(d) / within
            if abs(d) <= within + EPS:
                continue
            side = rule["above" if d > 0 else "below"]
            if name == "diameter_mm" and greatest is not None and have > greatest + EPS:
                add("too_big", have - greatest)
            else:
                add(side["code"], None if side["factor"] is None else side["factor"] * d)
    usable = counts["impossible"] == 0
    score = (counts["impossible"], len(unknown), counts["irreversible"], counts["made"], counts["shim"])
    return (*score, round(apart, 9)), {
        "name": donor.name, "score": [*score, apart], "make": make, "unknown": unknown, "usable": usable
    }  # fmt: skip


def donor_rank(rules: Rules, part: str, needs: dict[str, float | str], tolerance: dict[str, float], donors: list[Donor],
               greatest: float | None = None) -> Figures:  # fmt: skip
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

"""Donor parts ranked by how little must be made to fit them."""

from dataclasses import dataclass, field
from typing import Any

from kobrix.core.figures import EPS, Figures

Rules = dict[str, Any]  # the table of donor rules as shipped
NUMBERS_ONLY = ("side_area_cm2",)  # a difference of it says nothing of how it bolts on


@dataclass(frozen=True)
class Donor:
    """A part by name: its dimensions (numbers, or words for threads), and its price where it is known."""

    name: str
    has: dict[str, float | str]
    price: float | None = None


@dataclass
class _Score:
    counts: dict[str, int] = field(
        default_factory=lambda: dict.fromkeys(("impossible", "irreversible", "made", "shim", "note"), 0)
    )
    sum: float = 0.0


def dimensions(rules: Rules, part: str) -> dict[str, dict[str, Any]]:
    """The rules of a part (rotor, caliper) by dimension, in order.

    `rules` [table]; `part` [name].
    """
    return {row["dimension"]: row for row in rules[part]}


def _judged(rules: Rules, part: str, needs: dict[str, float | str], tolerance: dict[str, float], donor: Donor,
            greatest: float | None) -> tuple[list[float], Figures]:  # fmt: skip
    score, make, unknown = _Score(), [], []

    def add(code: str, value: float | None) -> None:
        kind = rules["classes"][code]
        score.counts[kind] += 1
        make.append({"code": code, "class": kind, "value_mm": value})

    for name, rule in dimensions(rules, part).items():
        if name not in needs:
            continue
        need, have = needs[name], donor.has.get(name)
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
            d, within = have - need, tolerance.get(name, rule["tolerance"])
            if name not in NUMBERS_ONLY and within > 0:
                score.sum += abs(d) / within
            if abs(d) <= within + EPS:
                continue
            side = rule["above" if d > 0 else "below"]
            if name == "diameter_mm" and greatest is not None and have > greatest + EPS:
                add("too_big", have - greatest)
            else:
                add(side["code"], None if side["factor"] is None else side["factor"] * d)
    counts = [float(score.counts[k]) for k in ("irreversible", "made", "shim")]
    whole = [float(score.counts["impossible"]), float(len(unknown)), *counts, score.sum]
    usable = score.counts["impossible"] == 0
    shown = [*(int(v) for v in whole[:-1]), score.sum]
    return whole, {"name": donor.name, "score": shown, "make": make, "unknown": unknown, "usable": usable}


def donor_rank(rules: Rules, part: str, needs: dict[str, float | str], tolerance: dict[str, float], donors: list[Donor],
               greatest: float | None = None) -> Figures:  # fmt: skip
    """The `donors` by what must be made, the least first; `greatest` is the largest rotor [mm] that the wheel takes.

    `rules` [table]; `part` [name]; `needs` {dimension: its value}; `tolerance` {dimension: [its unit]}.
    """
    rows = []
    for k, donor in enumerate(donors):
        whole, shown = _judged(rules, part, needs, tolerance, donor, greatest)
        price = (donor.price is None, donor.price or 0.0)
        rows.append(((*whole[:-1], round(whole[-1], 9), *price, k), shown))
    return {"ranked": [shown for _, shown in sorted(rows, key=lambda row: row[0])]}

"""What may be driven half done: every subset of the groups judged, and the orders of the groups compared."""

import itertools
import math
from dataclasses import dataclass
from typing import TypedDict

WORSE = 1.1  # a danger that was there before counts as new where it is worse by more than a tenth: our estimate
TRAVEL = 0.85  # share of the room: our estimate


@dataclass(frozen=True)
class Group:
    """Changes done together: whether they open the system, and the names they come after and belong with."""

    name: str
    opens: bool
    after: tuple[str, ...]
    with_: tuple[str, ...]


def worse(dangers: dict[str, float], at_first: dict[str, float]) -> list[str]:
    """The `dangers` {id: badness} that were not there at first, or are worse by more than a tenth.

    `at_first` {id: badness [1]}.
    """
    return [name for name, bad in dangers.items() if name not in at_first or _more(bad, at_first[name])]


def _more(bad: float, before: float) -> bool:
    return not math.isinf(before) and bad > WORSE * before * (1 + 1e-9)


class State(TypedDict):
    """Which groups are done, the dangers then, those that were not there before, and whether it may be driven so."""

    done: list[str]
    dangers: list[str]
    new_dangers: list[str]
    may_drive: bool


class Order(TypedDict):
    """An order of the groups, and what it costs on the way."""

    order: list[str]
    states_with_new_danger: int
    new_dangers_on_the_way: int
    dangers_on_the_way: int
    openings: int


class HalfDoneAnswer(TypedDict):
    """half_done: every state, the orders, the least dangerous first, and that first one."""

    states: list[State]
    orders: list[Order]
    best: list[str] | None


def half_done(groups: list[Group], dangers: list[dict[str, float]]) -> HalfDoneAnswer:
    """States and orders of up to five `groups`; `dangers` {id: badness} of each subset of them, bit k being group k."""
    n = len(groups)
    new = [worse(own, dangers[0]) for own in dangers]
    states: list[State] = [
        {"done": [g.name for k, g in enumerate(groups) if state >> k & 1], "dangers": list(dangers[state]),
         "new_dangers": new[state], "may_drive": not new[state]}
        for state in range(1 << n)
    ]  # fmt: skip
    names = [g.name for g in groups]
    rows: list[tuple[tuple[int, ...], Order]] = []
    for order in itertools.permutations(range(n)):
        place = {names[k]: at for at, k in enumerate(order)}
        if any(place[name] > place[names[k]] for k in order for name in groups[k].after):
            continue
        between = [sum(1 << k for k in order[:count]) for count in range(1, n)]
        opens = [groups[k].opens for k in order]
        row: Order = {
            "order": [names[k] for k in order], "states_with_new_danger": sum(1 for s in between if new[s]),
            "new_dangers_on_the_way": sum(len(new[s]) for s in between),
            "dangers_on_the_way": sum(len(dangers[s]) for s in between),
            "openings": sum(1 for at, own in enumerate(opens) if own and not (at and opens[at - 1])),
        }  # fmt: skip
        costs = row["states_with_new_danger"], row["new_dangers_on_the_way"], row["dangers_on_the_way"], row["openings"]
        rows.append(((*costs, *order), row))
    rows.sort(key=lambda row: row[0])
    orders = [row for _, row in rows]
    return {"states": states, "orders": orders, "best": orders[0]["order"] if orders else None}

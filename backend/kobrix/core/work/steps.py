"""The steps of a build: which a change asks for, at which wheels, and in what order."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NotRequired, TypedDict

Table = dict[str, Any]  # the table of build steps as shipped
Sides = dict[str, list[str]]  # names of the sides by axle
AXLES = ("front", "rear")
LEFT_RIGHT: Sides = {"front": ["left", "right"], "rear": ["left", "right"]}


@dataclass(frozen=True)
class Change:
    """What a plan changes: its kind, and the axle where it has one."""

    kind: str
    axle: str | None = None


@dataclass(frozen=True)
class Place:
    """Where a step is done: an axle, or a side of it; nowhere in particular for the whole job."""

    axle: str | None = None
    side: str | None = None

    @property
    def name(self) -> str | None:
        """`front`, `front_left`; None for the whole job."""
        return self.axle if self.side is None else f"{self.axle}_{self.side}"


def _triggers(word: str, change: Change, sets: dict[str, list[str]]) -> bool:
    if word.startswith("rear_"):
        return change.axle == "rear" and change.kind == word.removeprefix("rear_")
    return change.kind in sets.get(word, [word])


def places(per: str, trigger: list[str], unless: list[str], sets: dict[str, list[str]], changes: list[Change],
           sides: Sides) -> list[Place]:  # fmt: skip
    """Where a row of the table applies: once for the job, per axle or per wheel with a change that triggers it.

    `per` [job, axle or wheel]; `trigger` [words]; `unless` [words]; `sets` {word: kinds}; `changes` [records]; `sides` {axle:
    names}.
    """
    hit = [c for c in changes if any(_triggers(word, c, sets) for word in trigger)]
    bar = [c for c in changes if any(_triggers(word, c, sets) for word in unless)]
    if per == "job":
        return [Place()] if hit and not bar else []
    axles = [a for a in AXLES if any(c.axle == a for c in hit) and not any(c.axle in (a, None) for c in bar)]
    return [Place(a) for a in axles] if per == "axle" else [Place(a, side) for a in axles for side in sides[a]]


@dataclass(frozen=True)
class Step:
    """A step to be done: its row of the table and its place."""

    row: dict[str, Any]
    place: Place

    @property
    def id(self) -> str:
        """`row`, or `row:place`."""
        return f"{self.row['id']}:{self.place.name}" if self.place.name else str(self.row["id"])


def _waits_for(step: Step, other: Step) -> bool:
    """Whether `step` waits for `other`, whose row stands among its `before`: everywhere, on its axle or at its wheel."""
    if "job" in (step.row["per"], other.row["per"]):
        return True
    if "axle" in (step.row["per"], other.row["per"]):
        return step.place.axle == other.place.axle
    return step.place == other.place


def arranged(steps: Sequence[tuple[str, int, Sequence[str]]], wanted: Sequence[str]) -> list[str]:
    """The ids of `steps` as a person wants them, within what must come before.

    `steps` [(id, phase, ids that must come before)] in an order that holds; `wanted` [ids], those it leaves out stay behind the step
    that they follow. Phases stay one after the other.

    >>> arranged([("lift", 1, ()), ("rotor", 2, ()), ("pads", 2, ("rotor",)), ("hose", 2, ())], ["hose", "pads", "rotor", "lift"])
    ['lift', 'hose', 'rotor', 'pads']
    """
    place = {name: n for n, name in enumerate(wanted)}
    rank: dict[str, tuple[int, int, int]] = {}
    behind = -1
    for n, (name, _, _) in enumerate(steps):
        behind = place.get(name, behind)
        rank[name] = (behind, 0 if name in place else 1, n)
    done: list[str] = []
    for phase in sorted({p for _, p, _ in steps}):
        left = {name: set(before) for name, p, before in steps if p == phase}
        while left:
            ready = [name for name, before in left.items() if not before & left.keys()] or list(left)
            first = min(ready, key=lambda name: rank[name])
            del left[first]
            done.append(first)
    return done


def in_order(table: Table, changes: list[Change]) -> list[Change]:
    """The changes once each, by the table's kinds, then front before rear.

    `table` [table]; `changes` [records].
    """
    kinds, axles = table["kinds"], (None, *AXLES)
    return sorted(dict.fromkeys(changes), key=lambda c: (kinds.index(c.kind), axles.index(c.axle)))


class ChangeAnswer(TypedDict):
    """A change, and its axle where it has one."""

    kind: str
    axle: NotRequired[str]


class StepAnswer(TypedDict):
    """A step: its row of the table, where (None: the whole job), its phase, whether it is critical, and which steps come before."""

    id: str
    row: str
    where: str | None
    phase: int
    critical: bool
    before: list[str]


class StepsAnswer(TypedDict):
    """build_steps: the changes, their steps in order, how long the hydraulics are open (places and steps), and the tools."""

    changes: list[ChangeAnswer]
    steps: list[StepAnswer]
    opens_at: int | None
    closes_at: int | None
    while_open: int
    critical_count: int
    tools: list[str]


def build_steps(table: Table, changes: list[Change], sides: Sides, parking: bool = True) -> StepsAnswer:
    """Steps of the changes in order; without a parking brake its steps fall away.

    `table` [table]; `changes` [records]; `sides` {axle: names}; `parking` [yes or no].
    """
    changes = list(dict.fromkeys(changes))
    found = [
        Step(row, place)
        for row in table["rows"]
        if parking or not row["id"].startswith("parking_")
        for place in places(row["per"], row["trigger"], row["unless"], table["sets"], changes, sides)
    ]
    rank = [None, *(n for a in AXLES for n in (a, *(f"{a}_{side}" for side in sides[a])))]
    index = {row["id"]: k for k, row in enumerate(table["rows"])}
    waits = {
        step.id: [o for o in found if o.row["id"] in step.row["before"] and _waits_for(step, o)] for step in found
    }  # fmt: skip
    done: dict[str, int] = {}
    steps: list[Step] = []
    for phase in sorted({step.row["phase"] for step in found}):
        left = [step for step in found if step.row["phase"] == phase]
        while left:
            ready = [s for s in left if all(o.id in done for o in waits[s.id])] or left
            step = min(ready, key=lambda s: (rank.index(s.place.name), index[s.row["id"]]))
            left.remove(step)
            done[step.id] = len(steps)
            steps.append(step)
    opens, closes = done.get("open_system"), done.get("close_system")
    between = closes - opens - 1 if opens is not None and closes is not None else 0
    return {
        "changes": [{"kind": c.kind, "axle": c.axle} if c.axle else {"kind": c.kind} for c in changes],
        "steps": [
            {"id": s.id, "row": s.row["id"], "where": s.place.name, "phase": s.row["phase"], "critical": s.row["critical"],
             "before": [o.id for o in sorted(waits[s.id], key=lambda o: done[o.id])]}
            for s in steps
        ],
        "opens_at": opens, "closes_at": closes, "while_open": between,
        "critical_count": sum(1 for s in steps if s.row["critical"]),
        "tools": list(dict.fromkeys(tool for s in steps for tool in s.row["tools"])),
    }  # fmt: skip

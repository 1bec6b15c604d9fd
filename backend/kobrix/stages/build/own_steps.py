"""What a person puts into the work: steps of their own, what is done when something goes wrong, and the time and money so far."""

from collections.abc import Callable
from typing import Any

from kobrix.fileformat.building import Building, OwnStep
from kobrix.fileformat.fit import Fitting
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.tables import table
from kobrix.stages.build import words
from kobrix.stages.build.shapes import Done, SeenView, TroubleView, WorkStep, WorkSum
from kobrix.store.records import Record

_SHORT = 22  # letters of a step where there is little room


def troubles() -> list[TroubleView]:
    """Everything that can go wrong, what is done then and what it takes."""
    return [{"id": t["id"], "words": t["words"], "steps": t["steps"], "parts": t["parts"]} for t in table("troubles")["troubles"]]


def troubles_at(row: str, tools: list[str]) -> list[str]:
    """What can go wrong at a step of the table, by its `row` and its `tools`."""
    rows: list[dict[str, Any]] = table("troubles")["troubles"]
    return [t["id"] for t in rows if row in t["rows"] or set(tools) & set(t["tools"])]


def key_of(own: OwnStep) -> str:
    """A person's own step as records know it."""
    return f"own/{own.id}"


def of_day(own: Building, day: str, days: list[str]) -> list[tuple[int, OwnStep]]:
    """The own steps that are done on a `day`, with their places in the list: that of the step they come before, else the last of `days`."""
    every = {key_of(o): o for o in own.own or []}

    def on(step: OwnStep, seen: frozenset[str] = frozenset()) -> str:
        before = step.before or ""
        if before in every and before not in seen:
            return on(every[before], seen | {before})
        prefix = before.partition("/")[0]
        return prefix if prefix in days else days[-1]

    return [(n, o) for n, o in enumerate(own.own or []) if on(o) == day]


def _short(text: str) -> str:
    """The first words of a sentence."""
    cut = text[:_SHORT].rpartition(" ")[0] if len(text) > _SHORT else text
    return cut.rstrip(".,;:") or text[:_SHORT]


def with_own(
    steps: list[WorkStep], own: Building, chosen: list[tuple[int, OwnStep]], done: Callable[[str], Done | None],
    seen: dict[str, list[SeenView]],
) -> list[WorkStep]:  # fmt: skip
    """The `steps` with the `chosen` own ones, each before the step it names, which waits for it; at the end where that is not there."""
    found = list(steps)
    for n, step in chosen:
        key = key_of(step)
        at = next((k for k, s in enumerate(found) if s["key"] == step.before), len(found))
        beside = found[at] if at < len(found) else found[-1] if found else None
        torque_at = next((k for k, t in enumerate(own.torques or []) if t.row == key), None)
        torque = (own.torques or [])[torque_at] if torque_at is not None else None
        wait = next((k for k, w in enumerate(own.waits or []) if w.step == key), None)
        phase = 1 if beside is None else beside["phase"]
        made: WorkStep = {
            "key": key, "row": key, "where": "whole job" if beside is None else beside["where"],
            "place": "job" if beside is None else beside["place"], "phase": phase, "phase_words": words.PHASE[phase], "text": step.words,
            "short": _short(step.words), "caution": "", "record": "", "tools": [], "critical": bool(step.critical),
            "asks_torque": bool(step.critical),
            "torque": "" if torque is None else f"{torque.torque_nm:g} N m" if isinstance(torque.torque_nm, int | float) else torque.torque_nm,
            "source": "" if torque is None else torque.source, "torque_at": torque_at, "too_much": False, "before": [], "waits": [],
            "part": (own.waits or [])[wait].part if wait is not None else "", "part_at": wait, "earlier": False, "later": False, "own_at": n,
            "troubles": [], "done": done(key), "seen": seen.get(key, []),
        }  # fmt: skip
        # Several before the same step stay in the order in which they were added: the earlier ones come first.
        if at < len(found):
            made["before"] = [b for b in found[at]["before"] if b.startswith("own/")]
            found[at]["before"] = [*found[at]["before"], key]
        found.insert(at, made)
    return found


def sum_of(job: Job, name: str, records: tuple[Record, ...]) -> WorkSum:
    """Time and money of the setup by `name` so far."""
    timed = [
        float(r.body["minutes"])
        for r in records
        if r.kind == "signed" and r.struck is None and r.body.get("setup") == name and r.body.get("minutes") is not None
    ]
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    route = (plan.fit or Fitting()).route
    parts = [p for p in job.parts_list if p.have or p.ordered]
    return {
        "minutes": sum(timed), "timed": len(timed), "evenings": None if route is None else route.evenings,
        "here": sum((p.price or 0.0) * (p.have or 0.0) for p in parts), "ordered": sum((p.price or 0.0) * (p.ordered or 0.0) for p in parts),
        "unpriced": sum(p.price is None for p in parts), "tools": None if route is None else route.tools_price,
    }  # fmt: skip

"""What a screen shows of a whole job: every setup at one wanted stop, with the range of the push as the core's samples.

A scrub of the push is a look-up between the samples; at rest a screen asks `moment_at` for exactly that push.
"""

import math
from functools import lru_cache
from typing import Generic, TypeVar

import numpy as np
from pydantic import BaseModel

from kobrix.core import case as cases
from kobrix.core import chain, judgements, mends
from kobrix.core.constants import STANDARD_BORES
from kobrix.core.errors import Impossible, NotFound
from kobrix.core.paths import Solved, solve_path
from kobrix.core.verdict import judge
from kobrix.core.working import working
from kobrix.setup.job import AS_FOUND, Job
from kobrix.setup.line_view import curves, locks_of, path_view, range_of
from kobrix.setup.mends import edits_of
from kobrix.setup.model import Setup
from kobrix.setup.origins import origins
from kobrix.setup.questions import AirIn, Failure, as_asked
from kobrix.setup.result import MM, Answer, Doc, Places, facts_of, pick
from kobrix.setup.sheet import measured

AIR_CM3 = 1.0  # of air, looked at in each station


def _bench(answer: Answer, found: Answer | None) -> judgements.Bench | None:
    if answer.case is None:
        return None
    return judgements.Bench(answer.case, answer.converted.load_names, facts_of(answer), found.case if found is not None else None)


def findings(answer: Answer, found: Answer | None = None) -> list[Doc]:
    """Judgements on an answer, danger first, with their mends as edits; `found` is the setup as found, to compare with."""
    bench = _bench(answer, found)
    if bench is None:
        return []
    docs = []
    for item in mends.offer(bench, judge(bench)):
        mend = item.mend
        docs.append({
            "id": item.id, "level": item.level, "sentence": item.sentence, "reason": item.reason, "source": item.source,
            "value": item.value, "limit": item.limit,
            "mend": None if mend is None else {"kind": mend.kind, "label": mend.label, "edits": edits_of(mend, answer.setup, item.system)},
        })  # fmt: skip
    return docs


def wanted_stop(answers: list[Answer]) -> float | None:
    """The one stop that setups are compared at: 0.9 of the least grip limit over setups and load states, in g."""
    limits = [float(np.min(a.case.main.grip_limit)) for a in answers if a.case is not None]
    return cases.DESIGN_SHARE * min(limits) if limits else None


def _differences(own: Doc | None, found: Doc | None, system: str, found_system: str) -> Doc | None:
    """A setup against the one as found at the same stop: lighter in per cent, longer in mm."""
    if own is None or found is None or not found["pedal_force_n"]:
        return None
    ours, theirs = own["systems"][system].get("pedal_travel_mm"), found["systems"][found_system].get("pedal_travel_mm")
    longer = None if ours is None or theirs is None else ours - theirs
    return {"lighter_percent": (1.0 - own["pedal_force_n"] / found["pedal_force_n"]) * 100.0, "longer_mm": longer}


def _headline(doc: Doc, push: float | None) -> str:
    worst = next(iter(doc["findings"]), None)
    if worst is not None and worst["id"] == "lock_order" and worst["level"] == "danger":
        return "rear first" if "rear" in worst["sentence"].lower() else "lifts"
    return "no such stop" if push is None else f"{push:.0f} N"


Part = TypeVar("Part", bound=BaseModel)


class _Known(Generic[Part]):
    """A setup or a job by what stands in it: two with the same are one."""

    def __init__(self, part: Part) -> None:
        self.part: Part = part
        self._text = part.model_dump_json()

    def __hash__(self) -> int:
        return hash(self._text)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Known) and self._text == other._text


@lru_cache(maxsize=48)
def _answer(known: _Known[Setup]) -> Answer:
    return Answer(known.part)


@lru_cache(maxsize=16)
def _measured(known: _Known[Job]) -> Doc:
    return measured(known.part)


@lru_cache(maxsize=48)
def _setup_view(known: _Known[Setup], as_found: _Known[Setup] | None, name: str, wanted: float, reach: float) -> Doc:
    answer, found = _answer(known), None if as_found is None else _answer(as_found)
    doc: Doc = {"key": name, "name": name, "needs": answer.needs, "solved": None, "findings": findings(answer, found)}
    doc["level"] = doc["findings"][0]["level"] if doc["findings"] else None
    doc["headline"] = "incomplete"
    if answer.case is None:
        return doc
    paths = [path_view(answer, name, wanted, reach) for name in answer.case.paths]
    failures = [{"name": f.name, "words": failure_words(f.name)} for f in (*answer.failures[1:], *_airs(answer))]
    doc["solved"] = {"paths": paths, "failures": failures}
    doc["headline"] = _headline(doc, paths[-1]["states"][0]["stop_push_n"])
    return doc


def forget() -> None:
    """Forget what was answered before, as in a server that has just begun."""
    for kept in (_answer, _measured, _setup_view):
        kept.cache_clear()


def _airs(answer: Answer) -> list[Failure]:
    """Air in each station's lines in turn, as something to look at."""
    stations = dict.fromkeys(s.name for system in answer.setup.systems for s in system.stations)
    return [Failure(name=f"air_{name}", air=[AirIn(station=name, volume_cm3=AIR_CM3)]) for name in stations]


def failure_words(name: str) -> str:
    """Words for a failure's `name`: `lost_front` is "front circuit lost"."""
    before, lost, what = name.rpartition("lost_")
    if lost:
        own = [before.replace("_", " ").strip(), "" if what == "circuit" else what.replace("_", " ")]
        return " ".join(filter(None, [*own, "" if what == "booster" else "circuit", "lost"]))
    if name.startswith("air_"):
        return f"{AIR_CM3:g} cm³ of air, {name.removeprefix('air_')}"
    return {"hot": "hot pads", "wet": "wet pads"}.get(name, name.replace("_", " "))


def _reach(answers: list[Answer], wanted: float, limit: float) -> float:
    """Greatest push of the common range: past the limit, every lock and every wanted stop."""
    pushes = [1.1 * limit]
    for answer in answers:
        if answer.case is not None:
            path = answer.case.main
            place, known = chain.first_reach(path.healthy.road.decel, wanted)
            pushes += np.broadcast_to(path.healthy.push_at(place), known.shape)[known].tolist()
            pushes += [lock["push_n"] for lock in locks_of(path) if lock is not None]
    return min(3000.0, math.ceil(1.03 * max(pushes) / 50.0) * 50.0)


def job_view(job: Job) -> Doc:
    """Everything a screen shows of a `job` at its wanted stop."""
    names = [AS_FOUND, *(p.name for p in job.plans)]
    setups = [_Known(job.setup(name)) for name in names]
    answers = [_answer(known) for known in setups]
    wanted = wanted_stop(answers)
    solved = [a for a in answers if a.case is not None]
    kind = job.as_found.systems[0].control.kind
    band = judgements.EFFORT.get(kind)
    limit = next(iter(solved[0].rooms.values())).force if solved else judgements.EFFORT["car_pedal"].danger
    reach = _reach(answers, wanted, limit) if wanted is not None else 1.2 * limit
    views = [
        _setup_view(known, None if i == 0 else setups[0], name, wanted or 0.0, reach)
        for i, (known, name) in enumerate(zip(setups, names, strict=True))
    ]
    base = views[0]["solved"]
    theirs = {p["name"]: p for p in base["paths"]} if base is not None else {}
    for view in views:
        for own in view["solved"]["paths"] if view["solved"] is not None else []:
            was = theirs.get(own["name"])
            if was is not None:
                own["against_found"] = [
                    _differences(mine["at_stop"], other["at_stop"], own["system"], was["system"])
                    for mine, other in zip(own["states"], was["states"], strict=True)
                ]
    return {
        "wanted_decel_g": wanted,
        "push_range_n": reach,
        "force_limit_n": limit,
        "effort": None if band is None else {"low": band.low, "good": band.good, "caution": band.caution, "danger": band.danger},
        "travel": {"good": judgements.TRAVEL.good, "caution": judgements.TRAVEL.caution, "danger": judgements.TRAVEL.danger},
        "standard_bores": [{"name": name, "bore_mm": size * MM} for name, size in STANDARD_BORES],
        "setups": views,
        "measured": _measured(_Known(job.model_copy(update={"plans": []}))),
    }  # fmt: skip


def _solved(setup: Setup, path: str | None) -> tuple[Answer, cases.Path]:
    """The control path by name (the last when None) of a complete `setup`. Raises Impossible, NotFound."""
    answer = _answer(_Known(setup))
    if answer.case is None:
        raise Impossible("the force line", "it still needs " + ", ".join(answer.needs["decel"]))
    if path is None:
        return answer, answer.case.main
    if path not in answer.case.paths:
        raise NotFound("control path", path, ", ".join(answer.case.paths))
    return answer, answer.case.paths[path]


def _place(solved: Solved, load: int, push: float | None, decel: float | None) -> chain.Place:
    if push is not None:
        return solved.place_at(np.array([push]))
    wanted = decel or 0.0
    place, known = solved.reach(wanted)
    if not pick(known, load, 0, 0):
        most = float(np.max(solved.road.decel[min(load, solved.road.decel.shape[0] - 1)]))
        raise Impossible(f"a stop of {wanted:g} g", f"the brakes give at most {most:.2f} g at any push")
    return place


def moment_at(setup: Setup, load: int, push: float | None, decel: float | None, path: str | None = None) -> Doc:
    """The core's figures for exactly one push [N], or for the push of one deceleration [g], in one load state.

    Raises Impossible where the setup is incomplete or the brakes never give it.
    """
    solved = _solved(setup, path)[1].healthy
    return Places(solved, _place(solved, load, push, decel)).moment_document(load, 0)


def working_at(setup: Setup, load: int, push: float, path: str | None = None) -> list[Doc]:
    """Every step from foot to road at one push [N] in one load state, with what its numbers come from."""
    answer, own = _solved(setup, path)
    solved = own.healthy
    steps = working(solved, solved.place_at(np.array([push])), load)
    return [
        {"id": s.id, "formula": s.formula, "numbers": s.numbers, "value": s.value, "unit": s.unit, "source": s.source,
         "uses": list(s.uses), "origins": origins(answer.setup, s.id)}
        for s in steps
    ]  # fmt: skip


def failed_at(setup: Setup, load: int, reach: float, failure: str, path: str | None = None) -> Doc:
    """The range of pushes up to `reach` [N] with one `failure` by name in it, in one load state. Raises NotFound."""
    answer, own = _solved(setup, path)
    assert answer.case is not None
    chosen = next((f for f in (*answer.failures, *_airs(answer)) if f.name == failure), None)
    if chosen is None:
        raise NotFound("failure", failure, ", ".join(f.name for f in answer.failures[1:]))
    systems = answer.case.systems
    asked = as_asked(systems, [chosen], answer.converted, answer.rooms)
    pulled = [(p.system, p.ratio) for p in own.healthy.pulls]
    names = {s.name for s, _ in pulled}
    rows = [c for c, s in zip(asked.conditions, systems, strict=True) if s.name in names]
    if not all(cases.strokes_known(s) for s, _ in pulled):
        pulled = [(cases.without_lines(s), r) for s, r in pulled]
    solved = solve_path(own.healthy.name, pulled, answer.case.load, answer.case.wheels, rows, asked.air)
    pushes = range_of(solved, reach)
    at = Places(solved, solved.place_at(pushes))
    return {"name": failure, "words": failure_words(failure), "curves": curves(answer.case.load, load, pushes, at)}

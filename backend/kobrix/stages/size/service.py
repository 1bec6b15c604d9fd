"""What Size shows of a whole job: every setup at one wanted stop, with the range of the push as the core's samples.

A scrub of the push is a look-up between the samples; at rest a screen asks `moment_at` for exactly that push.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from kobrix.core.constants import STANDARD_BORES
from kobrix.core.errors import Impossible, NotFound
from kobrix.core.physics import chain
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.physics.solved_setup import SolvedPath, strokes_known, without_lines
from kobrix.core.physics.working import working
from kobrix.core.rules import limits
from kobrix.core.rules.words import failure_words
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.findings import doubts_document, nominal_findings, tried_findings
from kobrix.evaluate.mends import mends_of
from kobrix.evaluate.provenance import provenance
from kobrix.evaluate.results import MM, Places, step_document
from kobrix.evaluate.shapes import Finding, Moment
from kobrix.evaluate.solve import Answer, ByContent, answer_of, as_asked, failing_of, pick, wanted_stop
from kobrix.evaluate.uncertainty import SEED, TRIALS, said_of
from kobrix.evaluate.verdicts import tried
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.questions import AirIn, Failure
from kobrix.stages.common import Standing, StoredJob
from kobrix.stages.size.paths import AIR_CM3, curves, gain_curves, locks_of, path_view, range_of, stop_or_lock
from kobrix.stages.size.shapes import (
    Against,
    Card,
    Failed,
    Headline,
    MendsView,
    OwnLimitsView,
    SetupVerdicts,
    SetupView,
    SizeView,
    StepView,
    Verdicts,
)


def _differences(own: Moment | None, found: Moment | None, system: str, found_system: str) -> Against | None:
    """A setup against the one as found at the same stop: lighter in per cent, longer in mm."""
    if own is None or found is None or not found["pedal_force_n"]:
        return None
    ours, theirs = own["systems"][system].get("pedal_travel_mm"), found["systems"][found_system].get("pedal_travel_mm")
    longer = None if ours is None or theirs is None else ours - theirs
    return {"lighter_percent": (1.0 - own["pedal_force_n"] / found["pedal_force_n"]) * 100.0, "longer_mm": longer}


_WORST: dict[str, Literal["rear_first", "rear_lifts"]] = {
    "rear_first": "rear_first", "rear_first_slippery": "rear_first", "rear_lifts": "rear_lifts",
}  # fmt: skip


def _headline(worst: Finding | None, push: float | None) -> Headline:
    """What is worst of a solved setup, or its `push` [N] for the stop wanted."""
    if worst is not None and worst["level"] == "danger" and worst["kind"] in _WORST:
        return {"kind": _WORST[worst["kind"]], "push_n": push}
    return {"kind": "no_such_stop" if push is None else "push", "push_n": push}


@lru_cache(maxsize=48)
def _setup_view(
    known: ByContent[Setup],
    as_found: ByContent[Setup] | None,
    before: ByContent[Setup] | None,
    name: str,
    wanted: float,
    reach: float,
) -> SetupView:
    """One setup at the `wanted` stop [g] for pushes up to `reach` [N]; `before`: what its changes are told against."""
    answer, found = answer_of(known), None if as_found is None else answer_of(as_found)
    told = nominal_findings(answer, found, wanted or None)
    worst = told[0] if told else None
    doc: SetupView = {
        "key": name, "name": name, "needs": answer.needs, "level": None if worst is None else worst["level"],
        "headline": {"kind": "incomplete", "push_n": None}, "findings": told, "solved": None,
    }  # fmt: skip
    if answer.solved is None:
        return doc
    then = None if before is None else answer_of(before)
    paths = [path_view(answer, path, wanted, reach, then) for path in answer.solved.paths]
    systems = answer.solved.systems
    every = (*answer.solved.conditions[1:], *(failing_of(f, systems) for f in _airs(answer)))
    doc["solved"] = {"paths": paths, "failures": [{"name": f.name, "words": failure_words(f, systems, AIR_CM3)} for f in every]}
    doc["headline"] = _headline(worst, paths[-1]["states"][0]["stop_push_n"])
    return doc


def forget() -> None:
    """Forget what was answered before, as in a server that has just begun."""
    for kept in (answer_of, _setup_view, tried, mends_of):
        kept.cache_clear()


def _airs(answer: Answer) -> list[Failure]:
    """Air in each station's lines in turn, as something to look at."""
    stations = dict.fromkeys(s.name for system in answer.setup.systems for s in system.stations)
    return [Failure(name=f"air_{name}", air=[AirIn(station=name, volume_cm3=AIR_CM3)]) for name in stations]


def _reach(answers: list[Answer], wanted: float, limit: float) -> float:
    """Greatest push of the common range: past the limit, every lock and every wanted stop."""
    pushes = [1.1 * limit]
    for answer in answers:
        if answer.solved is not None:
            path = answer.solved.main
            place, known = chain.first_reach(path.healthy.road.decel, wanted)
            pushes += np.broadcast_to(path.healthy.push_at(place), known.shape)[known].tolist()
            pushes += [lock["push_n"] for lock in locks_of(path) if lock is not None]
    return min(3000.0, math.ceil(1.03 * max(pushes) / 50.0) * 50.0)


@dataclass(frozen=True)
class _Common:
    """What all setups of a job are shown at: the stop `wanted` [g], None where none is known; pushes up to `reach` [N]; the
    `limit` [N] of a person."""

    wanted: float | None
    reach: float
    limit: float


def _common(answers: list[Answer]) -> _Common:
    wanted = wanted_stop(answers)
    solved = [a for a in answers if a.solved is not None]
    limit = next(iter(solved[0].rooms.values())).force if solved else limits.EFFORT["car_pedal"].danger
    return _Common(wanted, _reach(answers, wanted, limit) if wanted is not None else 1.2 * limit, limit)


def _own_limits(job: Job) -> OwnLimitsView:
    own = job.own_limits
    return {
        "effort_n": None if own is None or own.effort_n is None else value_of(own.effort_n, "effort_n"),
        "travel_mm": None if own is None or own.travel_mm is None else value_of(own.travel_mm, "travel_mm"),
    }


def size_view(job: Job, revision: int) -> SizeView:
    """Everything that Size shows of a `job` at its wanted stop, as of a `revision`."""
    setups = [ByContent(job.setup(name)) for name in job.names]
    common = _common([answer_of(known) for known in setups])
    views = [
        _setup_view(known, *((None, None) if i == 0 else (setups[0], setups[0])), name, common.wanted or 0.0, common.reach)
        for i, (known, name) in enumerate(zip(setups, job.names, strict=True))
    ]
    control = job.as_found.systems[0].control
    stated = None if control.force_limit_n is None else si(control.force_limit_n, "force_limit_n")
    band = limits.effort_band(control.kind, stated, job.vehicle.kind)
    return {
        "page": "size",
        "revision": revision,
        "wanted_decel_g": common.wanted,
        "push_range_n": common.reach,
        "force_limit_n": common.limit,
        "effort": {"low": band.low, "good": band.good, "caution": band.caution, "danger": band.danger},
        "travel": {"good": limits.TRAVEL.good, "caution": limits.TRAVEL.caution, "danger": limits.TRAVEL.danger},
        "own_limits": _own_limits(job),
        "standard_bores": [{"name": name, "bore_mm": size * MM} for name, size in STANDARD_BORES],
        "setups": [_against(view, views[0]) for view in views],
        "sheets": {view["key"]: measure_sheet(job, view["key"]) for view in views if view["solved"] is None},
    }  # fmt: skip


def _known(job: Job, name: str) -> tuple[ByContent[Setup], ByContent[Setup] | None]:
    """A setup of a `job` by name, and the one as found that it is told against; None for the latter itself. Raises NotFound."""
    return ByContent(job.setup(name)), None if name == AS_FOUND else ByContent(job.setup(AS_FOUND))


def _judged(job: Job, name: str, wanted: float | None) -> list[Finding]:
    """The findings of a setup of a `job`, each with its chance. Raises NotFound."""
    known, found = _known(job, name)
    return tried_findings(known, found, wanted, said_of(job, name), said_of(job, AS_FOUND))


def verdicts_view(job: Job, revision: int) -> Verdicts:
    """What every setup of a `job` is told once its trials have run, as of a `revision`."""
    wanted = wanted_stop([answer_of(ByContent(job.setup(name))) for name in job.names])
    setups: list[SetupVerdicts] = []
    for name in job.names:
        told = _judged(job, name, wanted)
        entries = doubts_document(job.setup(name), said_of(job, name))
        setups.append({"key": name, "level": told[0]["level"] if told else None, "findings": told, "doubts": entries})
    return {"revision": revision, "setups": setups, "trials": {"n": TRIALS, "seed": SEED}}


def mends_view(job: Job, revision: int, name: str) -> MendsView:
    """What would mend the findings of the setup by `name` of a `job`, as of a `revision`. Raises NotFound."""
    wanted = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names])
    known, found = _known(job, name)
    shelf = tuple(map(ByContent, job.shelf))
    return {"revision": revision, "key": name, "mends": mends_of(known, found, wanted, said_of(job, name), shelf)}


def shown(stored: StoredJob, setup: str | None) -> SizeView:
    """What Size shows after a change."""
    del setup  # it shows all of them
    return size_view(stored.job, stored.revision)


def _against(view: SetupView, found: SetupView) -> SetupView:
    """A setup with what it is against the one as found, on each control path that both have."""
    theirs = {p["name"]: p for p in found["solved"]["paths"]} if found["solved"] is not None else {}
    for own in view["solved"]["paths"] if view["solved"] is not None else []:
        was = theirs.get(own["name"])
        if was is not None:
            own["against_found"] = [
                _differences(mine["at_stop"], other["at_stop"], own["system"], was["system"])
                if mine["stop_push_n"] is not None and other["stop_push_n"] is not None
                else None
                for mine, other in zip(own["states"], was["states"], strict=True)
            ]
    return view


def tried_view(job: Job, changed: Job, name: str) -> SetupView:
    """The setup by `name` of a `job` as it would be `changed`; what the change buys is told against the setup as it is.

    Raises NotFound.
    """
    now, found, then = (ByContent(j.setup(n)) for j, n in ((job, name), (changed, AS_FOUND), (changed, name)))
    common = _common([answer_of(ByContent(changed.setup(n))) for n in changed.names])
    as_found = None if name == AS_FOUND else found
    view = _setup_view(then, as_found, now, name, common.wanted or 0.0, common.reach)
    told = _judged(changed, name, common.wanted)
    view = {**view, "findings": told, "level": told[0]["level"] if told else None}
    return _against(view, _setup_view(found, None, None, AS_FOUND, common.wanted or 0.0, common.reach))


def standing(stored: StoredJob) -> Standing:
    """How Size stands: of the plans the one that stands best, with how many dangers or cautions it has."""
    job = stored.job
    names = job.names[1:] or job.names
    answers = [answer_of(ByContent(job.setup(name))) for name in job.names]
    wanted = wanted_stop(answers)
    told = [own for name in names if (own := _judged(job, name, wanted))]
    if not told:
        to_go = min(len(set(answer.needs.get("decel", []))) for answer in answers)
        return {"state": "empty", "words": f"{to_go} to go" if to_go else "empty"}
    counts = [{level: sum(f["level"] == level for f in own) for level in ("danger", "caution")} for own in told]
    best = min(counts, key=lambda n: (n["danger"], n["caution"]))
    if best["danger"]:
        return {"state": "begun", "words": _counted(best["danger"], "danger")}
    return (
        {"state": "doubt", "words": _counted(best["caution"], "caution")}
        if best["caution"]
        else {"state": "ready", "words": "ready"}
    )


def card(job: Job) -> Card:
    """A `job` at a glance."""
    name = (job.names[1:] or job.names)[0]
    answers = {own: answer_of(ByContent(job.setup(own))) for own in dict.fromkeys((AS_FOUND, name))}
    wanted = wanted_stop([answer_of(ByContent(job.setup(own))) for own in job.names])
    told = _judged(job, name, wanted)
    pushes = {own: push_at(answer, wanted) for own, answer in answers.items()}
    push, was = pushes[name], None if name == AS_FOUND else pushes[AS_FOUND]
    share = None if push is None else push["front_brake_share"]
    worst = told[0] if told and told[0]["level"] != "good" else None
    return {
        "setup": name, "to_go": len(set(answers[name].needs.get("decel", []))), "push_n": None if push is None else push["pedal_force_n"],
        "was_n": None if was is None else was["pedal_force_n"],
        "decel_g": None if push is None else push["decel_g"], "front_share": None if share is None else float(share),
        "worst": None if worst is None else {"level": worst["level"], "sentence": worst["sentence"]},
    }  # fmt: skip


def push_at(answer: Answer, wanted: float | None) -> Moment | None:
    """The first load state of the main path at the `wanted` stop [g]; None where it is not known or the brakes never give it."""
    if answer.solved is None or wanted is None:
        return None
    _, known = chain.first_reach(answer.solved.main.healthy.road.decel, wanted)
    return moment_at(answer.setup, 0, None, wanted, None) if pick(known, 0, 0, 0) else None


def _counted(n: int, what: str) -> str:
    return f"{n} {what}" if n == 1 else f"{n} {what}s"


def _solved(setup: Setup, path: str | None) -> tuple[Answer, SolvedPath]:
    """The control path by name (the last when None) of a complete `setup`. Raises Impossible, NotFound."""
    answer = answer_of(ByContent(setup))
    if answer.solved is None:
        raise Impossible("the force line", "it still needs " + ", ".join(answer.needs["decel"]))
    if path is None:
        return answer, answer.solved.main
    if path not in answer.solved.paths:
        raise NotFound("control path", path, ", ".join(answer.solved.paths))
    return answer, answer.solved.paths[path]


def _place(solved: Solved, load: int, push: float | None, decel: float | None) -> chain.Place:
    if push is not None:
        return solved.place_at(np.array([push]))
    wanted = decel or 0.0
    place, known = stop_or_lock(solved, wanted)
    if not pick(known, load, 0, 0):
        most = float(np.max(solved.road.decel[min(load, solved.road.decel.shape[0] - 1)]))
        raise Impossible(f"a stop of {wanted:g} g", f"the brakes give at most {most:.2f} g at any push")
    return place


def moment_at(setup: Setup, load: int, push: float | None, decel: float | None, path: str | None = None) -> Moment:
    """The core's figures for exactly one push [N], or for the push of one deceleration [g], in one load state.

    Raises Impossible where the setup is incomplete or the brakes never give it.
    """
    solved = _solved(setup, path)[1].healthy
    return Places(solved, _place(solved, load, push, decel)).moment_document(load, 0)


def working_at(setup: Setup, load: int, push: float, path: str | None = None) -> list[StepView]:
    """Every step from foot to road at one push [N] in one load state, with what its numbers come from."""
    answer, own = _solved(setup, path)
    solved = own.healthy
    return [
        {**step_document(s), "figure": s.figure, "station": s.station, "axle": s.axle, "where": s.where, "cause": s.cause,
         "provenance": provenance(answer.setup, s)}
        for s in working(solved, solved.place_at(np.array([push])), load)
    ]  # fmt: skip


def failed_at(setup: Setup, load: int, reach: float, failure: str, path: str | None = None) -> Failed:
    """The range of pushes up to `reach` [N] with one `failure` by name in it, in one load state. Raises NotFound."""
    answer, own = _solved(setup, path)
    assert answer.solved is not None
    chosen = next((f for f in (*answer.failures, *_airs(answer)) if f.name == failure), None)
    if chosen is None:
        raise NotFound("failure", failure, ", ".join(f.name for f in answer.failures[1:]))
    systems = answer.solved.systems
    asked = as_asked(systems, [chosen], answer.converted, answer.rooms)
    pulled = [(p.system, p.ratio) for p in own.healthy.pulls]
    names = {s.name for s, _ in pulled}
    rows = [c for c, s in zip(asked.conditions, systems, strict=True) if s.name in names]
    if not all(strokes_known(s) for s, _ in pulled):
        pulled = [(without_lines(s), r) for s, r in pulled]
    solved = solve_path(own.healthy.name, pulled, answer.solved.load, answer.solved.wheels, rows, asked.air)
    pushes = range_of(solved, reach)
    places = solved.place_at(pushes)
    shown = curves(load, pushes, Places(solved, places))
    gains = gain_curves(solved, own.healthy, places, load + 1)[load]
    return {
        "name": failure,
        "words": failure_words(failing_of(chosen, systems), systems, AIR_CM3),
        "curves": shown,
        "gains": gains,
    }

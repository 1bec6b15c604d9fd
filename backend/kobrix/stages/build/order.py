"""The order of the groups: every half-done state judged as a setup of its own, with the chance that its rear locks first."""

import copy
from functools import lru_cache
from typing import Any

import numpy as np

from kobrix.core.errors import BadFile, BadPlace
from kobrix.evaluate.ask import half_done as ask_half
from kobrix.evaluate.ask.subject import set_in
from kobrix.evaluate.plan_changes import ChangeGroup, groups_of
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.evaluate.uncertainty import SEED, said_of
from kobrix.evaluate.verdicts import rear_first_chance
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import set_at
from kobrix.stages.build import words
from kobrix.stages.build.shapes import GroupView, HalfDone, OrderView

TRIALS, DECEL_G = 120, 0.5
MOST = 5  # groups of the question


def axle_words(job: Job, axle: str | None) -> str | None:
    """What an axle is called on this vehicle: an aircraft brakes its main wheels."""
    return "main" if axle is not None and job.vehicle.kind == "aircraft" else axle


def group_view(job: Job, group: ChangeGroup) -> GroupView:
    """A group in words."""
    name = axle_words(job, group.name) or group.name
    said = ", ".join(words.change_words(c, None) for c in group.changes)
    return {"name": group.name, "letter": name[0].upper(), "words": said, "opens": group.opens}


def _state_setup(document: dict[str, Any], groups: list[ChangeGroup], done: list[str]) -> Setup | None:
    own = copy.deepcopy(document)
    for group in groups:
        if group.name in done:
            for path, value in group.sets.items():
                set_in(own, path, value)
    try:
        return files.check(Setup, own)
    except BadFile:
        return None


def _push(setup: Setup) -> float | None:
    solved = answer_of(ByContent(setup)).solved
    if solved is None:
        return None
    place, known = solved.main.healthy.reach(DECEL_G)
    push = np.where(known, solved.main.healthy.push_at(place), np.inf)
    most = float(np.max(push))
    return most if np.isfinite(most) else None


@lru_cache(maxsize=16)
def _order(known: ByContent[Job], name: str) -> OrderView | None:
    job = known.part
    groups = groups_of(job, name)
    if len(groups) < 2 or len(groups) > MOST or any(not g.sets for g in groups):
        return None
    document = job.setup(AS_FOUND).model_dump(exclude_none=True)
    question = {
        "question": "half_done", "setup": document, "decel_g": DECEL_G,
        "groups": [{"name": g.name, "set": g.sets, "opens": g.opens} for g in groups],
    }  # fmt: skip
    try:
        told = ask_half.half(Asked(question))
    except BadPlace:
        return None
    best = told["best"]
    if best is None:
        return None
    letters = {g.name: group_view(job, g)["letter"] for g in groups}
    # Systems of their own, or an aircraft: which axle locks first is no question there.
    asks = job.vehicle.kind in ("car", "truck") and len(job.as_found.systems) == 1
    states: list[HalfDone] = []
    for row in told["states"]:
        setup = _state_setup(document, groups, row["done"])
        solved = setup is not None and answer_of(ByContent(setup)).solved is not None
        at_first = [best[: n + 1] for n in range(len(best))]
        states.append(
            {
                "done": row["done"], "letters": "".join(letters[n] for n in row["done"]), "may_drive": row["may_drive"],
                "dangers": [words.danger_words(d) for d in row["new_dangers"]],
                "push_n": _push(setup) if setup is not None and solved else None,
                "chance": rear_first_chance(setup, said_of(job, AS_FOUND), TRIALS, SEED) if asks and setup is not None and solved else None,
                "on_best": not row["done"] or any(sorted(row["done"]) == sorted(way) for way in at_first),
            }
        )  # fmt: skip
    free = [o for o in told["orders"] if o["states_with_new_danger"] == 0]
    said = (
        f"{len(free)} of {len(told['orders'])} orders stay out of the red. "
        if free
        else "Every order passes through the red: on stands to the end. "
    )
    said += "Best: " + ", then ".join(axle_words(job, n) or n for n in best) + "."
    return {
        "groups": [group_view(job, g) for g in groups], "states": states, "best": best, "orders": len(told["orders"]),
        "orders_out_of_red": len(free), "decel_g": DECEL_G, "sentence": said, "edits": [set_at("build.days", [[n] for n in best])],
    }  # fmt: skip


def order_of(job: Job, name: str) -> OrderView | None:
    """The order of the groups of the setup by `name`; None where there is nothing to choose, or the systems are not the same."""
    bare = job.model_copy(update={"records": [], "proving": None, "parts_list": []})
    return _order(ByContent(bare), name)

"""half_done: what may be driven between the groups of a change, and the best order of them."""

import copy
import math
from typing import Any

import numpy as np

from kobrix.core.constants import PUBLISHED, G
from kobrix.core.errors import BadPlace
from kobrix.core.numerics.arrays import as_shape
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.limits import force_limit
from kobrix.core.work.half_done import TRAVEL, Group, HalfDoneAnswer, half_done
from kobrix.evaluate.ask.subject import Document, circuits_lost, read_setup, set_in, solved_of
from kobrix.evaluate.solve import Answer
from kobrix.fileformat.asked import Asked

MOST_GROUPS = 5


def _per_load(values: Any, loads: int) -> np.ndarray[Any, np.dtype[np.float64]]:
    array = np.asarray(values, dtype=np.float64)
    return np.asarray(as_shape(array.reshape(array.shape[0] if array.ndim > 1 else 1, -1)[:, 0], (loads,)))


def dangers_of(answer: Answer, solved: SolvedSetup, decel: float) -> dict[str, float]:
    """Dangers of a setup {id: badness}, the worst over load states, on the path of all controls."""
    path, loads = solved.main, len(answer.converted.load_names)
    kind, found = answer.setup.vehicle.kind, {}
    cars = kind in ("car", "truck")
    place, known = path.healthy.reach(decel)
    reached = _per_load(known, loads) > 0
    if not reached.all():
        found["no_stop"] = 1.0
    push = _per_load(path.healthy.push_at(place), loads)
    efforts, travels = [], []
    for pull in path.healthy.pulls:
        limit = force_limit(pull.system.control.kind, "car")
        efforts += [float(f) * pull.ratio / limit for f in push[reached]]
        room = answer.rooms[pull.system.name].available
        if room is not None and pull.pedal.travel is not None:
            pad = _per_load(pull.pedal.pad_at(pull.place(place)), loads)
            travels += [float(x) / float(np.max(room)) for x in pad[reached]]
    if efforts and max(efforts) > 1 + 1e-9:
        found["effort"] = max(efforts)
    if travels and max(travels) > TRAVEL + 1e-9:
        found["travel"] = max(travels)
    event = path.healthy.event
    lock = _per_load(event.decel, loads)
    for name, mask, wanted in (("rear_first", event.rear, True), ("rear_lift", event.lift, cars)):
        hit = _per_load(mask, loads) > 0
        if wanted and hit.any():
            found[name] = float(np.max(1 / lock[hit]))
    if cars and path.left is not None:
        for name, best in circuits_lost(path, solved):
            if best * G < PUBLISHED["secondary_decel"].value - 1e-9:
                found[f"lost_{name}"] = max(1 / best if best > 0 else math.inf, found.get(f"lost_{name}", 0.0))
    return found


def _groups(asked: Asked) -> tuple[list[Group], list[Asked]]:
    rows = asked.parts("groups")
    if len(rows) > MOST_GROUPS:
        raise asked.bad("groups", f"{len(rows)} were given; at most {MOST_GROUPS} are judged.")
    names = [row.text("name") for row in rows]
    groups = []
    for k, row in enumerate(rows):
        if names[k] in names[:k]:
            raise row.bad("name", f"{names[k]!r} is the name of another group too.")
        others = [name for name in names if name != names[k]]
        lists = {}
        for key in ("after", "with"):
            lists[key] = tuple(row.texts(key, 0))
            for j, name in enumerate(lists[key]):
                if name not in others:
                    raise row.bad(f"{key}.{j}", f"{name!r} was given; allowed are {', '.join(others) or 'none'}.")
        groups.append(Group(names[k], row.flag("opens"), lists["after"], lists["with"]))
    return groups, rows


def _state(document: Document, rows: list[Asked], state: int) -> Document:
    own = copy.deepcopy(document)
    for k, row in enumerate(rows):
        if not state >> k & 1:
            continue
        changes = row.part("set")
        for path, value in changes.value.items():
            try:
                set_in(own, path, copy.deepcopy(value))
            except KeyError:
                raise BadPlace(f"{changes.place}.{path}", "there is no such place in the setup.") from None
    return own


def half(asked: Asked) -> HalfDoneAnswer:
    """half_done: states, dangers on the way, and the orders of the groups."""
    document: Document = asked.raw("setup")
    decel = asked.default("decel_g", 0.5)
    groups, rows = _groups(asked)
    found: list[dict[str, float]] = []
    for state in range(1 << len(groups)):
        own = _state(document, rows, state)
        try:
            dangers = dangers_of(*solved_of(read_setup(own, asked.at("setup")), asked.at("setup")), decel)
        except BadPlace as error:
            raise _blamed(error, rows, state) from None
        done = {g.name for k, g in enumerate(groups) if state >> k & 1}
        if any(g.name in done and not set(g.with_) <= done for g in groups):
            dangers["incomplete"] = 1.0
        found.append(dangers)
    out = half_done(groups, found)
    if not out["orders"]:
        raise asked.bad("groups", "no order keeps what comes after what.")
    return out


def _blamed(error: BadPlace, rows: list[Asked], state: int) -> BadPlace:
    """The `error` at the change that made it, where one of the state's did."""
    inner = error.place.removeprefix("setup.")
    for k, row in enumerate(rows):
        for path in row.part("set").value if state >> k & 1 else ():
            if inner == path or inner.startswith(path + ".") or path.startswith(inner + "."):
                return BadPlace(f"{row.place}.set.{path}", error.reason)
    return error

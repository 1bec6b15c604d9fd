"""What a step on a job means for the rest of the file: plans made, renamed, put elsewhere and taken out; what is measured as found
holds for the plans that had the same there; and what is known of an entry goes with it. Pure: a document in, edits out.

Entries are called by dotted paths in `assumed`, `exact` and `tolerances`: where a plan or a part of a list moves, they follow.
"""

import copy
import re
from collections.abc import Callable
from functools import partial
from typing import Any

from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat.job import AS_FOUND
from kobrix.fileformat.paths import Edit, JsonObject, dotted, insert_at, pointer, set_at, take_away

_LISTS, _TABLES = ("assumed", "exact"), ("tolerances",)  # entries by their dotted paths
_LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ"
Renamed = Callable[[str], list[str]]


def _plans(document: JsonObject) -> list[Any]:
    found: Any = document.get("plans", [])
    return list(found)


def root_of(document: JsonObject, name: str) -> str:
    """Dotted path of the setup by `name` in a job's `document`. Raises NotFound."""
    names = [p["name"] for p in _plans(document)]
    if name == AS_FOUND:
        return "as_found"
    if name not in names:
        raise NotFound("setup", name, ", ".join([AS_FOUND, *names]))
    return f"plans.{names.index(name)}"


def free_name(document: JsonObject) -> str:
    """A name for the next plan: the first letter that is free, else a number."""
    taken = {p["name"] for p in _plans(document)}
    numbers = (str(n) for n in range(len(taken) + 1, 2 * len(taken) + 2))
    return next(name for name in (f"plan {x}" for x in (*_LETTERS, *numbers)) if name not in taken)


def _follow(document: JsonObject, renamed: Renamed) -> list[Edit]:
    """The edits by which what is known of entries follows them; `renamed` gives an entry's new paths, none where it is gone."""
    edits: list[Edit] = []
    for key in _LISTS:
        now: Any = document.get(key)
        new = [to for path in now or [] for to in renamed(path)]
        if now and new != now:
            edits.append(set_at(key, new))
    for key in _TABLES:
        table: Any = document.get(key)
        after = {to: text for path, text in (table or {}).items() for to in renamed(path)}
        if table and after != table:
            edits.append(set_at(key, after))
    return edits


def _under(path: str, root: str) -> str | None:
    """What stands behind a dotted `root` in a `path`, None where it lies elsewhere."""
    return path[len(root) :] if path == root or path.startswith(f"{root}.") else None


def copy_plan(document: JsonObject, name: str, to: str) -> list[Edit]:
    """A new plan called `to` that starts as a copy of the setup by `name`, with what is known of its entries. Raises NotFound."""
    plans, own = _plans(document), root_of(document, name)
    source: Any = document["as_found"] if name == AS_FOUND else plans[int(own.split(".")[1])]
    made = {**copy.deepcopy(source), "name": to}
    made.pop("note", None)
    new = f"plans.{len(plans)}"

    def renamed(path: str) -> list[str]:
        rest = _under(path, own)
        return [path] if rest is None else [path, new + rest]

    return [insert_at("plans.-", made), *_follow(document, renamed)]


def rename_plan(document: JsonObject, name: str, to: str) -> list[Edit]:
    """The plan by `name` called `to`. Raises NotFound, BadEntry."""
    if name == AS_FOUND:
        raise BadEntry("name", repr(to[:80]), "the name of a plan", "as found stays as it is called")
    return [set_at(f"{root_of(document, name)}.name", to)]


def _numbered(new: dict[int, int | None], root: str, path: str) -> list[str]:
    """A `path` below the list at `root`, its place in it renumbered; none where that place is gone."""
    found = re.match(rf"{re.escape(root)}\.(\d+)(\..*|$)", path)
    if found is None or int(found[1]) not in new:
        return [path]
    at = new[int(found[1])]
    return [] if at is None else [f"{root}.{at}{found[2]}"]


def remove_plan(document: JsonObject, name: str) -> list[Edit]:
    """The plan by `name` taken out; what is known of the entries of those behind it moves up. Raises NotFound, BadEntry."""
    if name == AS_FOUND:
        raise BadEntry("plan", AS_FOUND, "the name of a plan", "as found is what the plans start from")
    return [take_away(root_of(document, name))]


def move_plan(document: JsonObject, name: str, at: int) -> list[Edit]:
    """The plan by `name` put at a place `at` among the plans. Raises NotFound, BadEntry."""
    count = len(_plans(document))
    if name == AS_FOUND or not 0 <= at < count:
        raise BadEntry("place", f"{name} to {at}", f"a plan, and a place from 0 to {max(0, count - 1)}")
    return [{"op": "move", "path": pointer(root_of(document, name)), "to": f"/plans/{at}"}]


def _shifted(document: Any, edit: Edit) -> tuple[str, dict[int, int | None]] | None:
    """The list whose places an `edit` renumbers, and how; None where it renumbers none."""
    root, _, last = dotted(edit["path"]).rpartition(".")
    if edit["op"] == "set" or not last.isdecimal():
        return None
    here = document
    for step in root.split("."):
        if isinstance(here, list):
            here = here[int(step)] if step.isdecimal() and int(step) < len(here) else None
        else:
            here = here.get(step) if isinstance(here, dict) else None
    if not isinstance(here, list) or int(last) >= len(here) + (edit["op"] == "insert"):
        return None
    order: list[int | None] = list(range(len(here)))
    if edit["op"] == "insert":
        order.insert(int(last), None)
    else:
        moved = order.pop(int(last))
        if edit["op"] == "move":
            to = dotted(edit.get("to", "")).rpartition(".")[2]
            if not to.isdecimal():  # refused in words where it is applied
                return None
            order.insert(int(to), moved)
    gone = dict.fromkeys(range(len(here)), None)
    return root, {**gone, **{old: new for new, old in enumerate(order) if old is not None}}


def with_entries(document: JsonObject, edits: list[Edit], apply: Callable[[JsonObject, list[Edit]], JsonObject]) -> list[Edit]:
    """`edits`, and with each that renumbers the places of a list the edits by which what is known of its entries follows them.

    `apply` gives the document after some edits: each is looked at on what the one before it left.
    """
    found: list[Edit] = []
    for n, edit in enumerate(edits):
        shift = _shifted(document, edit)
        own = [edit] if shift is None else [edit, *_follow(document, partial(_numbered, shift[1], shift[0]))]
        found += own
        if any(later["op"] != "set" for later in edits[n + 1 :]):  # only those look at what stands there
            document = apply(document, own)
    return found


def also_in_plans(document: JsonObject, edits: list[Edit]) -> list[Edit]:
    """`edits` as found, and the same in every plan that has the same there as it was found: it was copied from it."""

    def value_at(root: Any, path: str) -> Any:
        here = root
        for step in path.split("/")[1:]:
            if isinstance(here, list):
                here = here[int(step)] if step.isdecimal() and int(step) < len(here) else None
            else:
                here = here.get(step) if isinstance(here, dict) else None
        return here

    found: list[Edit] = []
    for edit in edits:
        found.append(edit)
        below = _below_found(edit["path"])
        if below is None:
            continue
        own = below.removesuffix("/-")
        for n, plan in enumerate(_plans(document)):
            if value_at(plan, own) == value_at(document["as_found"], own):
                more: Edit = {**edit, "path": f"/plans/{n}{below}"}
                to = _below_found(edit.get("to", ""))
                found.append({**more, "to": f"/plans/{n}{to}"} if to is not None else more)
    return found


def _below_found(path: str) -> str | None:
    return path.removeprefix("/as_found") if path.startswith("/as_found/") else None


def said_exact(document: JsonObject, path: str, exact: bool) -> list[Edit]:
    """The entry at a dotted `path` said to be exact, or no longer to be; an entry said to be exact has no ±."""
    listed: Any = document.get("exact", [])
    if not exact:
        return [take_away(f"exact.{listed.index(path)}")] if path in listed else []
    found: list[Edit] = []
    widths: Any = document.get("tolerances", {})
    if path in widths:
        found.append({"op": "remove", "path": f"/tolerances/{path}"})
    if path not in listed:
        found.append(insert_at("exact.-", path))
    return found


def said_known(document: JsonObject, path: str, known: bool) -> list[Edit]:
    """The entry at a dotted `path` said to be known, or not to be; nothing where it is so already."""
    listed: Any = document.get("assumed", [])
    if known:
        return [take_away(f"assumed.{listed.index(path)}")] if path in listed else []
    if path in listed:
        return []
    return [insert_at("assumed.-", path)]

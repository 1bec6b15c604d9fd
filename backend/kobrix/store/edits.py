"""Edits of a document by JSON Pointer, and their inverses, which give it back byte for byte.

What a person does is set, insert, move and remove. It is kept as the operations of a JSON Patch (RFC 6902), applied by the
library of that name: they say exactly what was made, created parents too, so that the inverse says exactly what to take back.
"""

import copy
from typing import Any, NotRequired

import jsonpatch
import jsonpointer
from pydantic_core import from_json, to_json
from typing_extensions import TypedDict

from kobrix.core.errors import BadEntry
from kobrix.fileformat.paths import Edit, JsonObject, set_at, take_away

DEEPEST = 60  # steps of a pointer


class Operation(TypedDict):
    """One operation of a JSON Patch."""

    op: str
    path: str
    value: NotRequired[Any]


def steps(path: str) -> list[str]:
    """The names of a JSON Pointer `path`. Raises BadEntry where it is none."""
    try:
        found = jsonpointer.JsonPointer(path).parts
    except jsonpointer.JsonPointerException:
        raise BadEntry("path", repr(path[:80]), "a JSON Pointer such as /plans/0/name") from None
    if not found or len(found) > DEEPEST:
        raise BadEntry("path", repr(path[:80]), f"a JSON Pointer of 1 to {DEEPEST} names, such as /plans/0/name")
    return [str(part) for part in found]


def _join(parts: list[str]) -> str:
    return "".join("/" + part.replace("~", "~0").replace("/", "~1") for part in parts)


def value_at(document: Any, path: str) -> tuple[Any, bool]:
    """The value at a JSON Pointer `path` of a `document`, and whether there is one."""
    here = document
    for part in steps(path):
        if isinstance(here, dict) and part in here:
            here = here[part]
        elif isinstance(here, list) and part.isdecimal() and int(part) < len(here):
            here = here[int(part)]
        else:
            return None, False
    return here, True


def _nowhere(path: str, parts: list[str]) -> BadEntry:
    return BadEntry("path", repr(path[:80]), "a place in the job", f"there is nothing at {_join(parts)[:80]!r}")


def _within(document: Any, path: str) -> tuple[Any, list[str], str]:
    """What a `path` stands in, the names on the way to it, and its last name. Raises BadEntry where it leads nowhere."""
    *way, name = steps(path)
    here, there = (document, True) if not way else value_at(document, _join(way))
    if not there or not isinstance(here, dict | list):
        raise _nowhere(path, way)
    return here, way, name


def _place(items: list[Any], name: str, path: str, at_end: bool) -> int:
    if at_end and name == "-":
        return len(items)
    if not name.isdecimal() or len(name) > 6 or int(name) >= len(items) + at_end:
        raise BadEntry("path", repr(path[:80]), f"a place from 0 to {len(items) - 1 + at_end} of that list")
    return int(name)


def _set(document: Any, path: str, value: Any) -> tuple[Operation, Operation]:
    """Put a value where a pointer leads; what is missing on the way is made at once with it."""
    parts = steps(path)
    here = document
    for done, part in enumerate(parts):
        if isinstance(here, list):
            here = here[_place(here, part, path, at_end=False)]
        elif isinstance(here, dict) and part in here:
            here = here[part]
        elif isinstance(here, dict):
            made: Any = copy.deepcopy(value)
            for name in reversed(parts[done + 1 :]):
                if name.isdecimal() or name == "-":
                    raise _nowhere(path, parts[: done + 1])
                made = {name: made}
            top = _join(parts[: done + 1])
            return {"op": "add", "path": top, "value": made}, {"op": "remove", "path": top}
        else:
            raise _nowhere(path, parts[: done + 1])
    old = {"op": "replace", "path": path, "value": copy.deepcopy(here)}
    return {"op": "replace", "path": path, "value": copy.deepcopy(value)}, old  # type: ignore[return-value]


def _remove(document: Any, path: str) -> tuple[Operation, Operation] | None:
    """Take away what a pointer leads to; None where there is nothing."""
    if not value_at(document, path)[1]:
        return None
    here, way, name = _within(document, path)
    gone: Operation = {"op": "remove", "path": path}
    if isinstance(here, dict) and list(here)[-1] != name:  # put back, it would stand behind the others: the whole is put back
        return gone, {"op": "replace", "path": _join(way), "value": copy.deepcopy(here)}
    own = here[name] if isinstance(here, dict) else here[int(name)]
    return gone, {"op": "add", "path": path, "value": copy.deepcopy(own)}


def _insert(document: Any, path: str, value: Any) -> tuple[Operation, Operation]:
    """Put a value before a place of a list, or behind its last (`-`), which makes the list where there is none yet."""
    *above, last = steps(path)
    if last == "-" and above and not value_at(document, _join(above))[1]:
        return _set(document, _join(above), [value])
    here, way, name = _within(document, path)
    if not isinstance(here, list):
        raise BadEntry("path", repr(path[:80]), "a place in a list to insert before, or - for its end")
    at = _join([*way, str(_place(here, name, path, at_end=True))])
    return {"op": "add", "path": at, "value": copy.deepcopy(value)}, {"op": "remove", "path": at}


def _move(document: Any, path: str, to: str) -> tuple[Operation, Operation]:
    here, way, name = _within(document, path)
    there, to_way, to_name = _within(document, to)
    if not isinstance(here, list) or there is not here or way != to_way:
        raise BadEntry("path", repr(to[:80]), "another place in the same list")
    first, last = (_join([*way, str(_place(here, n, p, at_end=False))]) for n, p in ((name, path), (to_name, to)))
    forth: Any = {"op": "move", "from": first, "path": last}
    back: Any = {"op": "move", "from": last, "path": first}
    return forth, back


def _operation(document: Any, edit: Edit) -> tuple[Operation, Operation] | None:
    if edit["op"] == "set":
        return _set(document, edit["path"], edit.get("value"))
    if edit["op"] == "insert":
        return _insert(document, edit["path"], edit.get("value"))
    if edit["op"] == "move":
        return _move(document, edit["path"], edit.get("to", ""))
    return _remove(document, edit["path"])


def run(document: JsonObject, operations: list[Operation]) -> JsonObject:
    """A changed copy of a `document` after the `operations` of a JSON Patch. Raises BadEntry where they do not fit it."""
    try:
        changed: JsonObject = jsonpatch.apply_patch(document, operations)
    except (jsonpatch.JsonPatchException, jsonpointer.JsonPointerException) as error:
        raise BadEntry("step", f"{error}"[:120], "a step that fits the job as it is stored") from None
    return changed


def apply(document: JsonObject, edits: list[Edit]) -> tuple[JsonObject, list[Operation], list[Operation]]:
    """A changed copy of `document`, the operations of `edits`, and those that undo them.

    Raises BadEntry where a path leads nowhere.
    """
    changed: Any = from_json(to_json(document))  # a copy, ten times as fast as one object after the other
    forth: list[Operation] = []
    back: list[Operation] = []
    for edit in edits:
        found = _operation(changed, edit)
        if found is not None:
            changed = jsonpatch.apply_patch(changed, [found[0]], in_place=True)
            forth.append(found[0])
            back.insert(0, found[1])
    return changed, forth, back


def of_older(document: JsonObject, kept: list[Any]) -> list[Operation]:
    """The operations of a step as kept: those of an older Kobrix were values at dotted paths, a missing value taking away."""
    if all("op" in item for item in kept):
        return kept
    edits: list[Edit] = []
    for item in kept:
        edit = set_at(item["path"], item["value"]) if "value" in item else take_away(item["path"])
        head, box, key = item["path"].partition(".[")  # `tolerances.[vehicle.mass_kg]`: a name with dots of its own
        edits.append({**edit, "path": f"/{head}/{key.rstrip(']')}"} if box else edit)
    return apply(document, edits)[1]

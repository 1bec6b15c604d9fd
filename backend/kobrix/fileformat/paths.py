"""Places in a file: dotted paths, by which entries are called, and JSON Pointers (RFC 6901), by which edits are made.

An entry is called by its dotted path (`as_found.systems.0.cylinder.bore_mm`): so it stands in `assumed`, `exact` and
`tolerances`. No name in the format has a dot or a slash of its own but those keys themselves.
"""

from typing import Any, Literal, NotRequired

from pydantic import JsonValue
from typing_extensions import TypedDict

JsonObject = dict[str, JsonValue]


class Edit(TypedDict):
    """An edit of a file by JSON Pointer: `set` (in an object, or in place of what a list has), `insert` before a place of a list
    (`-`: at its end; the first makes the list), `move` to the place `to`, `remove`. What is on the way to a place that is set and
    is not there is made."""

    op: Literal["set", "insert", "move", "remove"]
    path: str
    value: NotRequired[Any]
    to: NotRequired[str]


def set_at(path: str, value: Any) -> Edit:
    """The edit that puts `value` at a dotted `path`."""
    return {"op": "set", "path": pointer(path), "value": value}


def take_away(path: str) -> Edit:
    """The edit that takes away what stands at a dotted `path`."""
    return {"op": "remove", "path": pointer(path)}


def insert_at(path: str, value: Any) -> Edit:
    """The edit that puts `value` in a list, before what stands at a dotted `path`; `-` as its last name: at the end."""
    return {"op": "insert", "path": pointer(path), "value": value}


def below(root: str, edits: list[Edit]) -> list[Edit]:
    """`edits` of a setup as edits of the job in which it stands at a dotted `root`; the vehicle stands once, beside the setups."""
    found: list[Edit] = []
    for edit in edits:
        own: Edit = {**edit}
        if not edit["path"].startswith("/vehicle"):
            own["path"] = pointer(root) + edit["path"]
            if "to" in edit:
                own["to"] = pointer(root) + edit["to"]
        found.append(own)
    return found


def pointer(path: str) -> str:
    """The JSON Pointer of a dotted `path`.

    >>> pointer("plans.0.systems.0.cylinder.bore_mm")
    '/plans/0/systems/0/cylinder/bore_mm'
    """
    return "".join(f"/{step}" for step in path.split("."))


def dotted(place: str) -> str:
    """The dotted path of a JSON Pointer `place`, its escapes undone.

    >>> dotted("/plans/0/name")
    'plans.0.name'
    """
    return ".".join(step.replace("~1", "/").replace("~0", "~") for step in place.split("/")[1:])


def field_of(place: str) -> str:
    """The field that a JSON Pointer or dotted `place` ends in: its last name that is no place in a list.

    >>> field_of("/plans/0/systems/0/stations/1/brake/pistons_mm/0")
    'pistons_mm'
    """
    names = place.replace("/", ".").split(".")
    return next((name for name in reversed(names) if name and not name.isdecimal() and name != "-"), place)

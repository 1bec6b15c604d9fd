"""Edits of a document by dotted path, and their inverses."""

import copy
import re
from typing import Any

from kobrix.core.errors import BadEntry

Edit = dict[str, Any]


def steps(path: str) -> list[str]:
    """The names of a dotted `path`; a name that has dots of its own stands in brackets: `tolerances.[vehicle.mass_kg]`."""
    return [boxed or plain for boxed, plain in re.findall(r"\[([^\]]*)\]|([^.\[\]]+)", path)]


def value_at(document: Any, path: str) -> tuple[Any, bool]:
    """The value at a dotted `path` of `document`, and whether there is one."""
    here = document
    for part in steps(path):
        if isinstance(here, dict) and part in here:
            here = here[part]
        elif isinstance(here, list) and part.isdigit() and int(part) < len(here):
            here = here[int(part)]
        else:
            return None, False
    return here, True


def _place(document: Any, path: str) -> tuple[Any, str]:
    parts = steps(path)
    here = document
    for done, part in enumerate(parts[:-1]):
        if isinstance(here, dict):
            here = here.setdefault(part, {})
        elif isinstance(here, list) and part.isdigit() and int(part) < len(here):
            here = here[int(part)]
        else:
            raise BadEntry("path", repr(path), "a place in the job", f"there is nothing at {'.'.join(parts[: done + 1])!r}")
    return here, parts[-1]


def apply(document: Any, edits: list[Edit]) -> tuple[Any, list[Edit]]:
    """A changed copy of `document` and the edits that undo it. An edit without a value takes the field away.

    Raises BadEntry where a path leads nowhere.
    """
    changed = copy.deepcopy(document)
    inverse: list[Edit] = []
    for edit in edits:
        path = edit["path"]
        old, there = value_at(changed, path)
        inverse.insert(0, {"path": path, "value": copy.deepcopy(old)} if there else {"path": path})
        here, name = _place(changed, path)
        if isinstance(here, dict):
            if "value" in edit:
                here[name] = copy.deepcopy(edit["value"])
            else:
                here.pop(name, None)
        elif isinstance(here, list) and name.isdigit() and int(name) < len(here) and "value" in edit:
            here[int(name)] = copy.deepcopy(edit["value"])
        else:
            raise BadEntry("path", repr(path), "a field of the job, or a place that a list already has")
    return changed, inverse

"""What a person typed into a field of a job, made into an edit of the file. Only the server parses."""

import re

from pydantic import JsonValue

from kobrix.core.errors import BadEntry
from kobrix.fileformat.paths import Edit, field_of
from kobrix.fileformat.quantities import label_of, read, split_list, unit_of

_TEXTS = {
    "name",
    "note",
    "tyre",
    "kind",
    "caliper",
    "shoes",
    "material",
    "fluid",
    "axle",
    "circuits",
    "primary_feeds",
    "source",
    "part",
    "shop",
    "thread",
    "family",
    "role",
    "way",
    "tools",
    "cuts",
    "bolt_thread",
    "port_thread",
}
_LISTS = {"pistons_mm", "diaphragms_mm", "nominal_diaphragms_mm"}
_PRICES = {"price", "tools_price"}
_COUNTS = {"holes", "count", "calipers", "wheels", "rotors_per_wheel"}
_TEXT_LIMIT = 400
_LOOKED_AT = {"pedal_force_n": ("push", 5000.0), "decel_g": ("stop wanted", 3.0)}


def _put(path: str, value: JsonValue | list[str]) -> Edit:
    return {"op": "set", "path": path, "value": value}


def typed_edit(path: str, text: str, preferred: str | None = None) -> Edit:
    """The edit of a typed `text` at a JSON Pointer `path`; a bare number is in the `preferred` unit.

    An empty text takes the field away: what it stands for is then not known. Raises BadEntry.
    """
    name = field_of(path)
    if len(text) > _TEXT_LIMIT:
        raise BadEntry(label_of(name), f"{len(text)} characters", f"at most {_TEXT_LIMIT}")
    if not text.strip():
        return {"op": "remove", "path": path}
    if name in _TEXTS:
        return _put(path, text.strip())
    if name in _LISTS:
        return _put(path, split_list(text, name, preferred))
    if name in _COUNTS:
        if not (text.isascii() and text.strip().isdigit() and len(text.strip()) < 10):
            raise BadEntry(label_of(name), repr(text[:40]), "a whole number such as 2")
        return _put(path, int(text))
    if name in _PRICES:
        price = re.fullmatch(r"[€$£\s]*(\d{1,7}(?:[.,]\d{1,2})?)[€$£\s]*", text)
        if price is None:
            raise BadEntry("price", repr(text[:40]), "a number such as 4.80")
        return _put(path, float(price[1].replace(",", ".")))
    if path.startswith("/tolerances/"):
        return _put(path, read(text.lstrip("±+- "), name, preferred).text)
    kept = read(text, name, preferred)
    return _put(path, kept.text if unit_of(name)[0] != "ratio" else kept.value)


def typed_look(name: str, text: str, preferred: str | None = None) -> float:
    """What a person wants to look at, as typed: a push (`pedal_force_n`) or a stop (`decel_g`), in the unit of the name.

    A bare number is in the `preferred` unit. Raises BadEntry.
    """
    label, most = _LOOKED_AT[name]
    found = read(text[:_TEXT_LIMIT], name, preferred)
    if not 0.0 <= found.value <= most:
        raise BadEntry(label, found.text, f"0 to {most:,.0f} {unit_of(name)[1]}")
    return found.value

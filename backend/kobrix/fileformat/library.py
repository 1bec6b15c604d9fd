"""The library of parts that a workshop meets: rotors and calipers with the dimensions that decide, read from and written to a table."""

import csv
import io
import re
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from kobrix.core.errors import BadEntry, BadFile
from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.quantities import Typed, read

MOST_PARTS, MOST_LETTERS = 10_000, 4_000_000
_TOLD = 8
Words = Annotated[str, Field(min_length=1, max_length=80)]


class RotorSizes(Sparse):
    """What decides whether a rotor fits [mm]; `hat_offset_mm` from the flange to the disc's middle."""

    diameter_mm: Annotated[Typed | None, q("diameter_mm", 80, 600)] = None
    thickness_mm: Annotated[Typed | None, q("thickness_mm", 2, 60)] = None
    hat_offset_mm: Annotated[Typed | None, q("hat_offset_mm", -200, 200)] = None
    hub_bore_mm: Annotated[Typed | None, q("hub_bore_mm", 10, 300)] = None
    bolt_circle_mm: Annotated[Typed | None, q("bolt_circle_mm", 20, 400)] = None
    holes: Annotated[int | None, Field(ge=1, le=20)] = None


class CaliperSizes(Sparse):
    """What decides whether a caliper fits: the rotor it takes, how it bolts on [mm], the pistons' area of one side [cm²]."""

    rotor_diameter_mm: Annotated[Typed | None, q("rotor_diameter_mm", 80, 600)] = None
    rotor_thickness_mm: Annotated[Typed | None, q("rotor_thickness_mm", 2, 60)] = None
    bolt_spacing_mm: Annotated[Typed | None, q("bolt_spacing_mm", 10, 400)] = None
    lateral_mm: Annotated[Typed | None, q("lateral_mm", -200, 200)] = None
    side_area_cm2: Annotated[Typed | None, q("side_area_cm2", 0.5, 200)] = None
    bolt_thread: Words | None = None
    port_thread: Words | None = None


class RotorNeeds(RotorSizes):
    """What a plan needs of a rotor; `greatest_diameter_mm`: the largest that the wheel takes."""

    greatest_diameter_mm: Annotated[Typed | None, q("greatest_diameter_mm", 80, 600)] = None


class Donors(Sparse):
    """What a plan needs of parts from elsewhere."""

    rotor: RotorNeeds | None = None
    caliper: CaliperSizes | None = None


class LibraryPart(RotorSizes, CaliperSizes):
    """A part of the library: a rotor or a caliper, where it was seen, what it costs."""

    part: Literal["rotor", "caliper"]
    name: Name
    source: Words | None = None
    price: Annotated[float | None, Field(ge=0, le=1_000_000)] = None


SIZES: dict[str, list[str]] = {"rotor": list(RotorSizes.model_fields), "caliper": list(CaliperSizes.model_fields)}
COLUMNS = ["part", "name", "source", "price", *dict.fromkeys([*SIZES["rotor"], *SIZES["caliper"]])]
_NUMBERS = {"price", "holes"}
_TEXTS = {"part", "name", "source", "bolt_thread", "port_thread"}


def _column(head: str) -> str | None:
    """The column that a head means: its name, or its words with or without the unit."""
    tidy = re.sub(r"[^a-z0-9]+", "_", head.strip().lower().replace("²", "2")).strip("_")
    return next((c for c in COLUMNS if tidy in (c, c.rsplit("_", 1)[0] if c.endswith(("_mm", "_cm2")) else c)), None)


def _cell(name: str, text: str, comma: bool) -> Any:
    if name in _TEXTS:
        return text.removeprefix("'")
    if name in _NUMBERS:
        plain = text.replace(",", ".") if comma else text
        try:
            value = float(plain)
        except ValueError:
            raise BadEntry(name, repr(text[:30]), "a number") from None
        return int(value) if name == "holes" and value.is_integer() else value
    if re.fullmatch(r"[+-]?\d+,\d+", text) and comma:
        text = text.replace(",", ".")
    return read(text, name).text


def _problems_of(error: ValidationError, line: int) -> list[str]:
    return [f"Line {line}, {'.'.join(str(p) for p in e['loc']) or 'part'}: {e['msg'].rstrip('.')}." for e in error.errors()]


def parts_of(text: str) -> list[LibraryPart]:
    """The parts of a table: CSV, or what a spreadsheet puts on the clipboard. Nothing is half read: raises BadFile with every problem by line and column.

    >>> parts_of("part,name,diameter\\nrotor,big one,11 in")[0].diameter_mm
    '11 in'
    """
    if len(text) > MOST_LETTERS:
        raise BadEntry("table", f"{len(text):,} letters", f"up to {MOST_LETTERS:,}", "cut it in two")
    lines = text.lstrip("\ufeff").splitlines()
    head = lines[0] if lines else ""
    mark = next((m for m in ("\t", ";") if m in head), ",")
    rows = csv.reader(io.StringIO("\n".join(lines)), delimiter=mark)
    heads = next(rows, [])
    if len(heads) > 100:
        raise BadEntry("table", f"{len(heads):,} columns", "up to 100")
    columns = [_column(h) for h in heads]
    if "name" not in columns:
        raise BadFile(
            [
                f"Line 1 names no column 'name'; it has {', '.join(repr(h[:30]) for h in heads[:12]) or 'nothing'}. Columns are {', '.join(COLUMNS)}."
            ]
        )
    unknown = [h for h, c in zip(heads, columns, strict=True) if c is None and h.strip()]
    problems = [f"Line 1: {h[:40]!r} is no column; columns are {', '.join(COLUMNS)}." for h in unknown]
    found: list[LibraryPart] = []
    for line, cells in enumerate(rows, 2):
        if not any(c.strip() for c in cells):
            continue
        if len(found) >= MOST_PARTS:
            raise BadEntry("table", f"more than {MOST_PARTS:,} parts", f"up to {MOST_PARTS:,}")
        if len(cells) > len(columns):
            problems.append(f"Line {line} has {len(cells)} cells; line 1 has {len(columns)} columns.")
        else:
            found += _row(line, cells, columns, mark != ",", problems)
        if len(problems) >= _TOLD:
            problems.append("More may follow.")
            break
    if problems:
        raise BadFile([*problems, "Nothing was taken in."])
    return found


def _row(line: int, cells: list[str], columns: list[str | None], comma: bool, problems: list[str]) -> list[LibraryPart]:
    values: dict[str, Any] = {}
    for at, (name, cell) in enumerate(zip(columns, cells, strict=False), 1):
        if name is None or not cell.strip():
            continue
        try:
            values[name] = _cell(name, cell.strip(), comma)
        except BadEntry as refused:
            problems.append(f"Line {line}, column {at}: {refused}")
    if "part" not in values:
        values["part"] = "caliper" if any(values.get(n) is not None for n in SIZES["caliper"]) else "rotor"
    try:
        return [LibraryPart.model_validate(values)]
    except ValidationError as refused:
        problems += _problems_of(refused, line)
        return []

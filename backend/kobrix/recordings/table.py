"""CSV as loggers and spreadsheets write it: commas, semicolons or tabs, decimal points or commas, byte-order marks, heads of several lines."""

import csv
import io
import re

import numpy as np

from kobrix.core.errors import BadEntry, BadFile
from kobrix.recordings.columns import Column, Floats, Recording, guessed

MOST_COLUMNS, MOST_LINES, HEAD_LINES = 64, 2_000_000, 40
_TOLD = 8  # problems told of one file
_CLOCK = re.compile(r"^(?:\d{4}-\d\d-\d\d[T ])?(\d{1,2}):(\d\d):(\d\d(?:[.,]\d+)?)(?:Z|[+-]\d\d:?\d\d)?$")


def decoded(content: bytes) -> str:
    """The text of a file, by its byte-order mark, else UTF-8, else Latin 1."""
    if content[:2] in (b"\xff\xfe", b"\xfe\xff"):
        return content.decode("utf-16", errors="replace")
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError:
        return content.decode("latin-1")


def _number(cell: str, comma: bool) -> float | None:
    """A cell's number; None for none; NaN for an empty cell."""
    text = cell.strip().strip('"').strip()
    if text in ("", "-", "--", "NaN", "nan", "null"):
        return float("nan")
    clock = _CLOCK.match(text)
    if clock:
        return 3600.0 * int(clock[1]) + 60.0 * int(clock[2]) + float(clock[3].replace(",", "."))
    text = text.replace(",", ".") if comma else text
    if not re.fullmatch(r"[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d+)?", text):
        return None
    value = float(text)
    return value if np.isfinite(value) else None


def _split(line: str, mark: str) -> list[str]:
    return next(csv.reader([line], delimiter=mark), [])


def _marked(lines: list[str]) -> str:
    """What stands between the cells: what the first lines have most of, a semicolon or a tab before a comma."""
    head = lines[:HEAD_LINES]
    counts = {mark: sorted(line.count(mark) for line in head)[len(head) // 2] for mark in (";", "\t", ",")}
    return next((mark for mark in (";", "\t") if counts[mark] > 0), ",")


def read_csv(content: bytes) -> Recording:
    """A table of numbers with its heads. Raises BadFile with the line and column of what is no number, BadEntry for too much of it."""
    text = decoded(content)
    if "\0" in text[:4096]:
        raise BadFile(["This is no text: a CSV, GPX or NMEA file is read."])
    lines = text.splitlines()
    if len(lines) > MOST_LINES:
        raise BadEntry("recording", f"{len(lines):,} lines", f"up to {MOST_LINES:,}", "cut it to the stops")
    longest = max((line.count(",") + line.count(";") + line.count("\t") for line in lines[:HEAD_LINES]), default=0)
    if longest > 4 * MOST_COLUMNS:
        raise BadEntry("recording", f"about {longest + 1:,} columns", f"up to {MOST_COLUMNS}", "leave out what is not needed")
    mark = _marked(lines)
    comma = mark != ","
    first = next(
        (n for n, line in enumerate(lines[:HEAD_LINES])
         if len(cells := _split(line, mark)) > 1 and all(_number(c, comma) is not None for c in cells) and any(c.strip() for c in cells)),
        None,
    )  # fmt: skip
    if first is None:
        raise BadFile(
            [f"No line of numbers stands among the first {HEAD_LINES}: a table with a head and a number in each cell is read."]
        )
    width = len(_split(lines[first], mark))
    if width > MOST_COLUMNS:
        raise BadEntry("recording", f"{width:,} columns", f"up to {MOST_COLUMNS}", "leave out what is not needed")
    columns = _heads(lines[:first], mark, width)
    values = _values(lines, first, mark, width, [c.head for c in columns])
    said = ~np.isnan(values).all(axis=1)
    return Recording("csv", columns, values[said], int(np.count_nonzero(~said)))


def _heads(lines: list[str], mark: str, width: int) -> tuple[Column, ...]:
    """The columns by their heads; a line of units below the heads belongs to them."""
    rows = [cells for line in lines if len(cells := _split(line, mark)) == width]
    heads = [" ".join(filter(None, (row[n].strip()[:60] for row in rows[-2:]))) for n in range(width)]
    found, seen = [], set()
    for n, head in enumerate(heads):
        own = guessed(head) if head else Column(f"column {n + 1}")
        if own.role in seen:  # the first of a kind is used, until a person says otherwise
            own = Column(own.head)
        seen.add(own.role)
        found.append(own)
    return tuple(found)


def _values(lines: list[str], first: int, mark: str, width: int, heads: list[str]) -> Floats:
    body = lines[first:]
    try:
        clean = [line.replace(",", ".") for line in body] if mark != "," else body
        values = np.loadtxt(clean, delimiter=mark, dtype=np.float64, ndmin=2, comments=None)
        if values.shape[1] == width and np.isfinite(values).all():
            return values
    except ValueError:
        pass  # something is no number: found out below, by its line
    problems: list[str] = []
    rows: list[list[float]] = []
    for n, cells in enumerate(csv.reader(io.StringIO("\n".join(body)), delimiter=mark), first + 1):
        if not any(c.strip() for c in cells):
            continue
        if len(cells) != width:
            problems.append(f"Line {n} has {len(cells)} columns; the first line of numbers has {width}.")
        else:
            row = [_number(c, mark != ",") for c in cells]
            for at, value in enumerate(row):
                if value is None:
                    problems.append(
                        f"Line {n}, column {at + 1} ({heads[at]}): {cells[at].strip()[:30]!r} was given; allowed is a number."
                    )
            rows.append([float("nan") if v is None else v for v in row])
        if len(problems) >= _TOLD:
            problems.append("More may follow. Nothing was read in.")
            break
    if problems:
        raise BadFile(problems)
    return np.array(rows, dtype=np.float64).reshape(-1, width)

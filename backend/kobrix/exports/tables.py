"""Tables as CSV (RFC 4180) that a spreadsheet opens without running anything in it."""

import csv
from collections.abc import Sequence
from io import StringIO

_RUNS = ("=", "+", "-", "@", "\t", "\r")  # a cell that begins so is a formula to a spreadsheet: common practice


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, int | float) and not isinstance(value, bool):
        return f"{value:g}" if abs(value) < 1e6 else repr(value)
    text = str(value)
    return f"'{text}" if text.startswith(_RUNS) else text


def as_csv(head: Sequence[str], rows: Sequence[Sequence[object]]) -> str:
    """The table as CSV with Windows line ends; texts that a spreadsheet would run are quoted by an apostrophe.

    `head` [names]; `rows` [cells].

    >>> as_csv(["part"], [["=1+1"]])
    "part\\\\r\\\\n'=1+1\\\\r\\\\n"
    """
    out = StringIO(newline="")
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([_cell(name) for name in head])
    writer.writerows([_cell(value) for value in row] for row in rows)
    return out.getvalue()

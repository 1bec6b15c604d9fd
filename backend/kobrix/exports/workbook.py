"""Tables as a workbook (Office Open XML) that a spreadsheet opens without running anything in it."""

import io
import re
from collections.abc import Sequence
from dataclasses import dataclass

_NOT_IN_A_NAME, _NOT_IN_A_CELL = re.compile(r"[\[\]:*?/\\]"), re.compile(r"[\x00-\x08\x0b\x0c\x0e-\x1f]")
LONGEST_NAME, LONGEST_CELL, WIDEST = 31, 32_000, 48  # letters of a sheet's name and of a cell (published limits), columns' width


@dataclass(frozen=True)
class Sheet:
    """A sheet: its `name`, the names of its columns, and its rows."""

    name: str
    head: tuple[str, ...]
    rows: tuple[tuple[object, ...], ...]


def as_xlsx(sheets: Sequence[Sheet]) -> bytes:
    """The `sheets` [records] as one workbook; every text is a text, also one that begins like a formula."""
    from openpyxl import Workbook
    from openpyxl.styles import Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    book.remove(book.worksheets[0])
    for sheet in sheets:
        page = book.create_sheet(_NOT_IN_A_NAME.sub(" ", sheet.name)[:LONGEST_NAME])
        for at, row in enumerate((sheet.head, *sheet.rows), 1):
            for n, value in enumerate(row, 1):
                cell = page.cell(at, n)
                if value is None:
                    continue
                if isinstance(value, int | float) and not isinstance(value, bool):
                    cell.value = value
                else:
                    cell.value = _NOT_IN_A_CELL.sub("", str(value))[:LONGEST_CELL]
                    cell.data_type = "s"  # never a formula
                if at == 1:
                    cell.font = Font(bold=True)
        page.freeze_panes = "A2"
        for n in range(len(sheet.head)):
            width = max((len(str(row[n])) for row in (sheet.head, *sheet.rows) if n < len(row)), default=8)
            page.column_dimensions[get_column_letter(n + 1)].width = min(WIDEST, width + 2)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()

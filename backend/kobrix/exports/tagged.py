"""A PDF whose text is told apart for those who hear it: headings, paragraphs, tables row by row; what repeats on each sheet is left out.

The library tags its pictures only; this adds the same marks to text, in the library's own tree of the document's structure
(ISO 32000-1, 14.7 and 14.8, from memory).
"""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any, Literal

from fpdf import FPDF
from fpdf.structure_tree import StructElem, StructureTreeBuilder
from fpdf.syntax import PDFArray

Kind = Literal["H1", "H2", "P", "Table", "TR", "TH", "TD"]
_LINE, _BESIDE, _ABOVE = 3.9, 1.2, 0.2  # mm: a line of a table, what stands free right of a cell, and above and below it
_SLACK = 0.01  # mm by which a text must stay below the width of its column to be known as one line


class _Children(PDFArray):
    """Every element of the document, for the library goes through them here; written are only those that hang on no other."""

    def serialize(self, *args: Any, **more: Any) -> str:
        """The outermost elements."""
        return PDFArray(e for e in self if e.p.s == "/Document").serialize(*args, **more)


class _Tree(StructureTreeBuilder):
    """The structure of a document, elements in elements."""

    def __init__(self) -> None:
        super().__init__()
        self.doc_struct_elem.k = _Children()
        self._marked: dict[int, int] = {}

    def next_mcid_for_page(self, page_number: int) -> int:
        """The next number of marked content on a page."""
        return self._marked.get(page_number, 0)

    def add_marked_content(
        self,
        page_number: int,
        struct_type: str,
        mcid: int | None = None,
        title: str | None = None,
        alt_text: str | None = None,
        parent: StructElem | None = None,
    ) -> tuple[StructElem, int]:
        """An element in its `parent`, or in the document; `mcid`: of its text, None for one that only holds others."""
        held = self.spid_per_page_number.setdefault(page_number, len(self.spid_per_page_number))
        kids = [] if mcid is None else [mcid]
        element = StructElem(struct_type, parent or self.doc_struct_elem, kids, page_number, title, alt_text)
        self.doc_struct_elem.k.append(element)
        if parent is not None:
            parent.k.append(element)
        if mcid is not None:
            self._marked[page_number] = mcid + 1
            self.struct_tree_root.parent_tree.nums[held].append(element)
        return element, held


class TaggedPdf(FPDF):
    """Sheets whose text carries its kind."""

    def __init__(self, **more: Any) -> None:
        super().__init__(**more)
        self._tree = self.struct_builder = _Tree()

    def _element(self, kind: Kind, parent: StructElem | None, mcid: int | None = None) -> StructElem:
        element, held = self._tree.add_marked_content(self.page, f"/{kind}", mcid, parent=parent)
        self.pages[self.page].struct_parents = held
        self._set_min_pdf_version("1.4")
        return element

    @contextmanager
    def _marked(self, kind: Kind, parent: StructElem | None) -> Iterator[None]:
        mcid = self.struct_builder.next_mcid_for_page(self.page)
        self._element(kind, parent, mcid)
        self._out(f"/{kind} <</MCID {mcid}>> BDC")
        yield
        self._out("EMC")

    @contextmanager
    def artifact(self) -> Iterator[None]:
        """What is drawn in here is no part of the text: it repeats on every sheet."""
        self._out("/Artifact BMC")
        yield
        self._out("EMC")

    def _high(self, wide: float, line: float, text: str) -> float:
        """How high [mm] a `text` stands; most are one line, which need not be broken to know it."""
        if wide and "\n" not in text and self.get_string_width(text) < wide - 2 * self.c_margin - _SLACK:
            return line
        return float(self.multi_cell(wide, line, text, dry_run=True, output="HEIGHT", align="L"))  # type: ignore[arg-type]

    def _room_for(self, high: float) -> None:
        """A new sheet where so much [mm] does not fit on this one: marked text stays on its sheet."""
        if self.will_page_break(high):
            self.add_page()

    def say(self, kind: Kind, text: str, line: float, wide: float = 0, border: Literal[0, 1] | str = 0) -> None:
        """A heading or a paragraph, `wide` [mm] (to the margin where 0), in lines of `line` [mm]."""
        if not text:
            return
        self._room_for(self._high(wide, line, text))
        with self._marked(kind, None):
            self.multi_cell(wide, line, text, border=border, new_x="LMARGIN", new_y="NEXT", align="L")

    def tabled(self, head: Sequence[str], rows: Sequence[Sequence[str]], shares: Sequence[float]) -> None:
        """A table with its `head`, where it has one, again on each sheet; `shares`: of the width, of its columns."""
        whole = sum(shares)
        wide = [self.epw * s / whole for s in shares]
        table = self._element("Table", None)
        if head:
            head_high = self._row_high(head, wide)
            self._row(head, wide, head_high, table, "TH")
        for row in rows:
            high = self._row_high(row, wide)
            if head and self.will_page_break(high):
                self.add_page()
                with self.artifact():
                    self._draw(head, wide, head_high, "TH")
            self._row(row, wide, high, table, "TD")

    def _row_high(self, row: Sequence[str], wide: Sequence[float]) -> float:
        return max(self._high(w - _BESIDE, _LINE, text or " ") for w, text in zip(wide, row, strict=True)) + 2 * _ABOVE

    def _row(self, row: Sequence[str], wide: Sequence[float], high: float, table: StructElem, kind: Literal["TH", "TD"]) -> None:
        self._room_for(high)
        self._draw(row, wide, high, kind, self._element("TR", table))

    def _draw(
        self, row: Sequence[str], wide: Sequence[float], high: float, kind: Literal["TH", "TD"], parent: StructElem | None = None
    ) -> None:
        top, x = self.get_y(), self.l_margin
        self.set_font(style="I" if kind == "TH" else "")
        for text, w in zip(row, wide, strict=True):
            self.set_xy(x, top + _ABOVE)
            if parent is None:
                self.multi_cell(w - _BESIDE, _LINE, text, align="L")
            else:
                with self._marked(kind, parent):
                    self.multi_cell(w - _BESIDE, _LINE, text, align="L")
            x += w
        self.set_font(style="")
        self.set_xy(self.l_margin, top + high)

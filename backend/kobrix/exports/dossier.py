"""One page for an inspector, as PDF: what was changed, the figures, the critical joints, how it was proven. Searchable text, core letters."""

import io
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from fpdf import FPDF

MARGIN, CODE, CODE_TOP = 14.0, 15.0, 7.0  # mm: around the sheet, the code's side, and its top
PICTURE = 78.0  # mm, a photograph with its words
_PLAIN = str.maketrans(
    {"’": "'", "‘": "'", "“": '"', "”": '"', "–": "-", "—": "-", "−": "-", "≥": ">=", "≤": "<=", "→": "to", "…": "..."}
)


@dataclass(frozen=True)
class Section:
    """A part of the page: its `title`, sentences, and a table with its `head`; `wide` gives its columns' shares."""

    title: str
    lines: tuple[str, ...] = ()
    head: tuple[str, ...] = ()
    rows: tuple[tuple[str, ...], ...] = ()
    wide: tuple[float, ...] = ()


@dataclass(frozen=True)
class Picture:
    """A photograph as it was kept, and what it shows."""

    content: bytes
    words: str


@dataclass(frozen=True)
class Dossier:
    """The page: what it is of, the day, what is dangerous or missing, its sections, and what is asked of whoever reads it; the `link` to
    the job where it was printed, drawn as a code; photographs."""

    title: str
    subtitle: str
    alarms: tuple[str, ...] = ()
    sections: tuple[Section, ...] = field(default_factory=tuple)
    foot: str = ""
    link: str = ""
    pictures: tuple[Picture, ...] = ()


def plain(text: str) -> str:
    """A text in the letters that every PDF reader has; what they do not have becomes a question mark."""
    return text.translate(_PLAIN).encode("latin-1", "replace").decode("latin-1")


def _code(pdf: "FPDF", link: str) -> None:
    """The link as a QR code at the head of the first sheet, which can be followed on a screen too."""
    import segno

    rows = [list(row) for row in segno.make(link, micro=False, error="m").matrix]
    side = CODE / len(rows)
    left, top = pdf.w - MARGIN - CODE, CODE_TOP
    pdf.set_fill_color(0, 0, 0)
    for y, row in enumerate(rows):
        for x, dark in enumerate(row):
            if dark:
                pdf.rect(left + x * side, top + y * side, side * 1.02, side * 1.02, style="F")
    pdf.link(left, top, CODE, CODE, link)


def _picture(pdf: "FPDF", picture: Picture) -> None:
    """A photograph with its words beneath, on a sheet of its own where it does not fit any more."""
    if pdf.get_y() > pdf.h - 20 - PICTURE:
        pdf.add_page()
    pdf.image(io.BytesIO(picture.content), h=PICTURE - 10, alt_text=plain(picture.words))
    pdf.set_font("Helvetica", "", 8.5)
    pdf.multi_cell(0, 4, plain(picture.words), new_x="LMARGIN", new_y="NEXT")
    pdf.ln(2)


def as_pdf(dossier: Dossier) -> bytes:
    """The page as PDF on A4; where it is too long it goes on, with its title on each sheet.

    `dossier` [record].
    """
    from fpdf import FPDF, FontFace
    from fpdf.enums import TableBordersLayout

    class Sheet(FPDF):
        """A sheet with the dossier's title above and its page below."""

        def header(self) -> None:
            """The title on every sheet."""
            beside = self.epw - CODE - 3 if dossier.link and self.page_no() == 1 else 0
            self.set_font("Helvetica", "B", 13)
            self.multi_cell(beside, 6, plain(dossier.title), new_x="LMARGIN", new_y="NEXT")
            self.set_font("Helvetica", "", 9)
            self.multi_cell(beside, 4.4, plain(dossier.subtitle), new_x="LMARGIN", new_y="NEXT")
            self.ln(1)

        def footer(self) -> None:
            """Which sheet of how many, and what is asked of the reader."""
            self.set_y(-16)
            self.set_font("Helvetica", "", 7.5)
            self.multi_cell(0, 3.4, plain(f"{dossier.foot} Sheet {self.page_no()} of {{nb}}."), new_x="LMARGIN", new_y="NEXT")

    pdf = Sheet(format="A4")
    pdf.set_margins(MARGIN, 10, MARGIN)
    pdf.set_auto_page_break(True, 20)
    pdf.set_title(dossier.title)
    pdf.set_lang("en")
    pdf.add_page()
    if dossier.link:
        _code(pdf, dossier.link)
        pdf.set_y(max(pdf.get_y(), CODE_TOP + CODE + 1))
    for alarm in dossier.alarms:
        pdf.set_font("Helvetica", "B", 10)
        pdf.set_draw_color(160, 15, 46)
        pdf.set_text_color(160, 15, 46)
        pdf.multi_cell(0, 5.4, plain(alarm), border=1, new_x="LMARGIN", new_y="NEXT")
        pdf.ln(1)
    pdf.set_text_color(0, 0, 0)
    pdf.set_draw_color(0, 0, 0)
    for section in dossier.sections:
        pdf.set_font("Helvetica", "B", 10)
        pdf.cell(0, 5.2, plain(section.title), border="B", new_x="LMARGIN", new_y="NEXT")
        pdf.set_font("Helvetica", "", 8.5)
        for line in section.lines:
            pdf.multi_cell(0, 4, plain(line), new_x="LMARGIN", new_y="NEXT")
        if section.rows:
            with pdf.table(
                col_widths=section.wide or None, line_height=3.9, borders_layout=TableBordersLayout.NONE, text_align="LEFT", first_row_as_headings=bool(section.head),
                headings_style=FontFace(emphasis="ITALICS"), padding=(0.2, 1.2, 0.2, 0),
            ) as table:  # fmt: skip
                for cells in (*((section.head,) if section.head else ()), *section.rows):
                    row = table.row()
                    for cell in cells:
                        row.cell(plain(cell))
        pdf.ln(1.1)
    for picture in dossier.pictures:
        _picture(pdf, picture)
    return bytes(pdf.output())

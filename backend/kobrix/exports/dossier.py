"""One page for an inspector, as PDF: what was changed, the figures, the critical joints, how it was proven. Searchable text, core letters."""

import io
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from fpdf import FPDF

    from kobrix.exports.tagged import TaggedPdf

MARGIN, CODE, CODE_TOP = 14.0, 15.0, 7.0  # mm: around the sheet, the code's side, and its top
PICTURE = 78.0  # mm, a photograph with its words
# Letters that the core fonts do not have, as people write them by hand.
_PLAIN = str.maketrans({
    "’": "'", "‘": "'", "“": '"', "”": '"', "″": '"', "–": "-", "—": "-", "−": "-", "⁻": "^-", "≥": ">=", "≤": "<=", "→": "to", "…": "...",
    "Σ": "sum ", "Φ": "Phi", "α": "alpha", "β": "beta", "δ": "delta", "ε": "epsilon", "η": "eta", "θ": "theta", "κ": "kappa", "λ": "lambda",
    "μ": "\u00b5", "π": "pi", "ρ": "rho", "σ": "sigma", "φ": "phi", "χ": "chi", "ψ": "psi", "Δ": "delta ", "√": "root ", "∫": "integral ", "∞": "endless",
    "⁴": "^4", "ⁿ": "^n", "₀": "0", "₁": "1", "₂": "2", "₈": "8", "€": "EUR", "⅓": "1/3", "⅔": "2/3", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8",
})  # fmt: skip


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


def _picture(pdf: "TaggedPdf", picture: Picture) -> None:
    """A photograph with its words beneath, on a sheet of its own where it does not fit any more."""
    if pdf.get_y() > pdf.h - 20 - PICTURE:
        pdf.add_page()
    pdf.image(io.BytesIO(picture.content), h=PICTURE - 10, alt_text=plain(picture.words))
    pdf.set_font("Helvetica", "", 8.5)
    pdf.say("P", plain(picture.words), 4)
    pdf.ln(2)


def as_pdf(dossier: Dossier) -> bytes:
    """The page as PDF on A4; where it is too long it goes on, with its title on each sheet.

    `dossier` [record].
    """
    from kobrix.exports.tagged import TaggedPdf

    class Sheet(TaggedPdf):
        """A sheet with the dossier's title above and its page below."""

        def header(self) -> None:
            """The title on every sheet: on the first it is the document's, on the others it only repeats."""
            beside = self.epw - CODE - 3 if dossier.link and self.page_no() == 1 else 0
            for kind, style, size, line, words in (("H1", "B", 13, 6, dossier.title), ("P", "", 9, 4.4, dossier.subtitle)):
                self.set_font("Helvetica", style, size)
                if self.page_no() == 1:
                    self.say("H1" if kind == "H1" else "P", plain(words), line, beside)
                else:
                    with self.artifact():
                        self.multi_cell(beside, line, plain(words), new_x="LMARGIN", new_y="NEXT", align="L")
            self.ln(1)

        def footer(self) -> None:
            """Which sheet of how many, and what is asked of the reader."""
            self.set_y(-16)
            self.set_font("Helvetica", "", 7.5)
            with self.artifact():
                self.multi_cell(0, 3.4, plain(f"{dossier.foot} Sheet {self.page_no()} of {{nb}}."), new_x="LMARGIN", new_y="NEXT")

    pdf = Sheet(format="A4")
    pdf.set_margins(MARGIN, 10, MARGIN)
    pdf.set_auto_page_break(True, 20)
    pdf.set_title(dossier.title)
    pdf.set_lang("en")
    pdf.add_page()
    if dossier.link:
        with pdf.artifact():
            _code(pdf, dossier.link)
        pdf.set_y(max(pdf.get_y(), CODE_TOP + CODE + 1))
    for alarm in dossier.alarms:
        pdf.set_font("Helvetica", "B", 10)
        pdf.set_draw_color(160, 15, 46)
        pdf.set_text_color(160, 15, 46)
        pdf.say("P", plain(alarm), 5.4, border=1)
        pdf.ln(1)
    pdf.set_text_color(0, 0, 0)
    pdf.set_draw_color(0, 0, 0)
    for section in dossier.sections:
        pdf.set_font("Helvetica", "B", 10)
        pdf.say("H2", plain(section.title), 5.2, border="B")
        pdf.set_font("Helvetica", "", 8.5)
        for line in section.lines:
            pdf.say("P", plain(line), 4)
        if section.rows:
            rows = [[plain(cell) for cell in row] for row in section.rows]
            pdf.tabled([plain(cell) for cell in section.head], rows, section.wide or (1.0,) * len(section.rows[0]))
        pdf.ln(1.1)
    for picture in dossier.pictures:
        _picture(pdf, picture)
    return bytes(pdf.output())

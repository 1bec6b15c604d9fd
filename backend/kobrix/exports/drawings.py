"""A plate at full size: as DXF, SVG and PDF, with a bar on each sheet that must measure 50.0 mm.

All three hold exactly the same circles and outline, in millimetres. The libraries are loaded when a drawing is asked for: a server
starts without them.
"""

import io
import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Protocol
from xml.sax.saxutils import escape

if TYPE_CHECKING:
    from fpdf import FPDF

BAR = 50.0  # mm
PAPER = {"A4": (210.0, 297.0), "Letter": (215.9, 279.4)}  # mm
MARGIN = 12.0  # mm that no printer needs
NO_STRENGTH = "No strength is judged: a plate that carries brake forces needs a qualified check."


@dataclass(frozen=True)
class Circle:
    """A hole: its `name`, its middle and its diameter [mm]; `old` where it is only there to be matched."""

    name: str
    x: float
    y: float
    diameter: float
    old: bool = False


At = Callable[[float, float], tuple[float, float]]  # where a point of the drawing stands on its sheet


class Extended(Protocol):
    """What is drawn: its title, from (x0, y0) to (x1, y1) [mm]."""

    @property
    def title(self) -> str:
        """What it is."""

    @property
    def extents(self) -> tuple[float, float, float, float]:
        """Its lower left and upper right corners [mm]."""

    @property
    def size(self) -> tuple[float, float]:
        """Width and height [mm]."""


@dataclass(frozen=True)
class PlateDrawing:
    """A plate: its `title`, its outline from (x0, y0) to (x1, y1) with rounded corners, its holes [mm], and what is written on it."""

    title: str
    extents: tuple[float, float, float, float]
    corner: float
    holes: tuple[Circle, ...]
    notes: tuple[str, ...] = ()

    @property
    def size(self) -> tuple[float, float]:
        """Width and height [mm]."""
        x0, y0, x1, y1 = self.extents
        return x1 - x0, y1 - y0


def outline_points(drawing: PlateDrawing) -> list[tuple[float, float, float]]:
    """The outline as points with bulges, counter-clockwise: a bulge is the tangent of a quarter of the corner's arc.

    `drawing` [record].
    """
    x0, y0, x1, y1 = drawing.extents
    r = min(drawing.corner, (x1 - x0) / 2, (y1 - y0) / 2)
    if r <= 0.0:
        return [(x0, y0, 0.0), (x1, y0, 0.0), (x1, y1, 0.0), (x0, y1, 0.0)]
    b = math.tan(math.pi / 8)
    return [
        (x0 + r, y0, 0.0), (x1 - r, y0, b), (x1, y0 + r, 0.0), (x1, y1 - r, b),
        (x1 - r, y1, 0.0), (x0 + r, y1, b), (x0, y1 - r, 0.0), (x0, y0 + r, b),
    ]  # fmt: skip


def as_dxf(drawing: PlateDrawing) -> str:
    """The plate as DXF in millimetres: holes as circles, the outline as one closed line, old holes and the bar on layers of their own.

    `drawing` [record].
    """
    from ezdxf import units
    from ezdxf.filemanagement import new

    document = new("R2010", units=units.MM)
    for layer in ("OUTLINE", "HOLES", "OLD_HOLES", "BAR"):
        document.layers.add(layer)
    space = document.modelspace()
    space.add_lwpolyline(
        [(x, y, b) for x, y, b in outline_points(drawing)], format="xyb", close=True, dxfattribs={"layer": "OUTLINE"}
    )
    for hole in drawing.holes:
        space.add_circle((hole.x, hole.y), hole.diameter / 2, dxfattribs={"layer": "OLD_HOLES" if hole.old else "HOLES"})
    x0, y0 = drawing.extents[:2]
    space.add_line((x0, y0 - 10.0), (x0 + BAR, y0 - 10.0), dxfattribs={"layer": "BAR"})
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def as_svg(drawing: PlateDrawing) -> str:
    """The plate as SVG whose width and height are millimetres.

    `drawing` [record].
    """
    x0, y1 = drawing.extents[0], drawing.extents[3]
    wide, high = drawing.size
    width, height = max(wide, BAR) + 2 * MARGIN, high + 2 * MARGIN + 18.0

    def at(x: float, y: float) -> tuple[float, float]:
        return x - x0 + MARGIN, y1 - y + MARGIN

    left, top = at(x0, y1)
    r = min(drawing.corner, wide / 2, high / 2)
    parts = [f'<rect x="{left:.4f}" y="{top:.4f}" width="{wide:.4f}" height="{high:.4f}" rx="{r:.4f}"/>']
    for hole in drawing.holes:
        x, y = at(hole.x, hole.y)
        dash = ' stroke-dasharray="2 1"' if hole.old else ""
        parts.append(
            f'<circle cx="{x:.4f}" cy="{y:.4f}" r="{hole.diameter / 2:.4f}"{dash}><title>{escape(hole.name)}</title></circle>'
        )
        parts.append(f'<path d="M{x - 3:.4f},{y:.4f}h6M{x:.4f},{y - 3:.4f}v6" stroke-width="0.13"/>')
    base = top + high + 8.0
    parts.append(
        f'<path id="bar" d="M{left:.4f},{base:.4f}h{BAR}M{left:.4f},{base - 1.5:.4f}v3M{left + BAR:.4f},{base - 1.5:.4f}v3"/>'
    )
    texts = [f"{drawing.title}. The bar is 50.0 mm: measure it before you cut.", NO_STRENGTH, *drawing.notes]
    words = "".join(
        f'<text x="{left:.4f}" y="{base + 4.5 + 4 * n:.4f}" font-size="3" font-family="sans-serif" fill="#000" stroke="none">{escape(t)}</text>'
        for n, t in enumerate(texts)
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.4f}mm" height="{height + 4 * len(drawing.notes):.4f}mm" viewBox="0 0 {width:.4f} {height + 4 * len(drawing.notes):.4f}">'
        f'<g fill="none" stroke="#000" stroke-width="0.25">{"".join(parts)}</g>{words}</svg>'
    )  # fmt: skip


def tiles(drawing: Extended, paper: str) -> list[tuple[float, float]]:
    """Lower left corners [mm] of the plate's tiles on sheets of that paper, row by row from the top; neighbours overlap by 10 mm.

    `drawing` [record]; `paper` [A4 or Letter].
    """
    wide, high = PAPER[paper]
    room = (wide - 2 * MARGIN, high - 2 * MARGIN - 30.0)
    x0, y0, _, _ = drawing.extents
    counts = [max(1, math.ceil((size - 10.0) / (own - 10.0) - 1e-9)) for size, own in zip(drawing.size, room, strict=True)]
    return [(x0 + i * (room[0] - 10.0), y0 + j * (room[1] - 10.0)) for j in reversed(range(counts[1])) for i in range(counts[0])]


def on_sheets(drawing: Extended, paper: str, notes: str, drawn: "Callable[[FPDF, At], None]") -> bytes:
    """A drawing at full size as PDF, on as many sheets of the `paper` as it takes, a bar on each.

    `drawing` [record]; `paper` [A4 or Letter]; `notes` [words]; `drawn` [call] draws it, given where a point stands on the sheet.
    """
    from fpdf import FPDF

    wide, high = PAPER[paper]
    pdf = FPDF(unit="mm", format=(wide, high))
    pdf.set_auto_page_break(False)
    pdf.set_title(drawing.title)
    pdf.set_compression(False)
    room = (wide - 2 * MARGIN, high - 2 * MARGIN - 30.0)
    every = tiles(drawing, paper)
    for number, (x0, y0) in enumerate(every, 1):
        top = _sheet_head(pdf, f"{drawing.title}. Sheet {number} of {len(every)}", notes)

        def at(x: float, y: float, x0: float = x0, y0: float = y0, top: float = top) -> tuple[float, float]:
            return MARGIN + x - x0, top + room[1] - (y - y0)

        with pdf.rect_clip(MARGIN, top, room[0], room[1]):
            drawn(pdf, at)
    return bytes(pdf.output())


def _sheet_head(pdf: "FPDF", title: str, notes: str) -> float:
    """A new sheet of a drawing at full size: its title, its notes, and the bar that must measure 50.0 mm; where the drawing begins [mm]."""
    pdf.add_page()
    pdf.set_font("Helvetica", size=9)
    pdf.set_xy(MARGIN, MARGIN)
    pdf.cell(text=_latin(f"{title}, full size: print at 100 %."))
    pdf.set_xy(MARGIN, MARGIN + 4.5)
    pdf.cell(text=_latin(notes[:150]))
    pdf.set_line_width(0.25)
    pdf.line(MARGIN, MARGIN + 13.0, MARGIN + BAR, MARGIN + 13.0)
    for end in (0.0, BAR):
        pdf.line(MARGIN + end, MARGIN + 11.5, MARGIN + end, MARGIN + 14.5)
    pdf.set_xy(MARGIN + BAR + 2, MARGIN + 11.0)
    pdf.cell(text="50.0 mm: measure it")
    return MARGIN + 20.0


def as_pdf(drawing: PlateDrawing, paper: str) -> bytes:
    """The plate as PDF at full size on as many sheets of the `paper` as it takes, a bar on each.

    `drawing` [record]; `paper` [A4 or Letter].
    """

    def drawn(pdf: "FPDF", at: At) -> None:
        left, upper = at(drawing.extents[0], drawing.extents[3])
        pdf.rect(left, upper, *drawing.size, round_corners=drawing.corner > 0, corner_radius=max(drawing.corner, 0.01))
        for hole in drawing.holes:
            x, y = at(hole.x, hole.y)
            if hole.old:
                pdf.set_dash_pattern(dash=2, gap=1)
            pdf.circle(x, y, hole.diameter / 2)
            pdf.set_dash_pattern()
            pdf.line(x - 3, y, x + 3, y)
            pdf.line(x, y - 3, x, y + 3)

    return on_sheets(drawing, paper, " ".join([NO_STRENGTH, *drawing.notes]), drawn)


def _latin(text: str) -> str:
    """What the PDF's own letters can write: others become a question mark."""
    return text.encode("latin-1", "replace").decode("latin-1")

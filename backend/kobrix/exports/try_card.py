"""A card at full size, cut out and tried inside a wheel before anything is bought: the caliper's outline against the wheel's face."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

from kobrix.exports.drawings import At, on_sheets

if TYPE_CHECKING:
    from fpdf import FPDF

FOOT = 55.0  # mm from the axle's middle that the card stands on the wheel's face, inside every hub's own bore and bolts
Point = tuple[float, float]


@dataclass(frozen=True)
class TryCard:
    """The card: its `title`; the caliper's outline as (r from the axle, depth from the wheel's face inboard) [mm]; the gap wanted [mm]."""

    title: str
    outline: tuple[Point, ...]
    gap: float

    @property
    def cut(self) -> tuple[Point, ...]:
        """What is cut: it stands on the wheel's face around the axle's middle, and carries the caliper where it will be [mm]."""
        r0, r1 = min(r for r, _ in self.outline), max(r for r, _ in self.outline)
        d0, d1 = min(d for _, d in self.outline), max(d for _, d in self.outline)
        foot = min(FOOT, r0)
        top = max(d1, 25.0)
        if d0 >= 0.0:
            return ((0.0, 0.0), (foot, 0.0), (foot, d0), (r1, d0), (r1, d1), (foot, d1), (foot, top), (0.0, top))
        return ((0.0, 0.0), (r0, 0.0), (r0, d0), (r1, d0), (r1, d1), (foot, d1), (foot, top), (0.0, top))

    @property
    def extents(self) -> tuple[float, float, float, float]:
        """Its corners, the gap around it with it [mm]."""
        rs, ds = [r for r, _ in self.cut], [d for _, d in self.cut]
        return min(rs), min(ds) - self.gap, max(rs) + self.gap, max(ds) + self.gap

    @property
    def size(self) -> tuple[float, float]:
        """Width and height [mm]."""
        x0, y0, x1, y1 = self.extents
        return x1 - x0, y1 - y0


def card_pdf(card: TryCard, paper: str) -> bytes:
    """The card as PDF at full size: what is cut, the caliper heavy, and around it dashed what must stay free.

    `card` [record]; `paper` [A4 or Letter].
    """

    def drawn(pdf: "FPDF", at: At) -> None:
        pdf.set_line_width(0.25)
        pdf.polygon([at(*p) for p in card.cut])
        pdf.set_line_width(0.7)
        pdf.polygon([at(*p) for p in card.outline])
        pdf.set_line_width(0.25)
        r0, r1 = min(r for r, _ in card.outline), max(r for r, _ in card.outline) + card.gap
        d0, d1 = min(d for _, d in card.outline) - card.gap, max(d for _, d in card.outline) + card.gap
        pdf.set_dash_pattern(dash=2, gap=1)
        pdf.polyline([at(*p) for p in ((r0, d0), (r1, d0), (r1, d1), (r0, d1))])
        pdf.set_dash_pattern(dash=6, gap=1.5)
        pdf.line(*at(0.0, card.extents[1]), *at(0.0, card.extents[3]))
        pdf.set_dash_pattern()
        for words, place in (("AXLE", (1.5, 8.0)), ("wheel's face", (8.0, 1.5))):
            pdf.text(*at(*place), words)

    notes = "Foot on the wheel's face, AXLE on the hub bore's middle; turn it once round. Dashed: what must stay free."
    return on_sheets(card, paper, notes, drawn)

"""The card of a caliper: cut and outline at full size, measured in the PDF, on every sheet a bar of 50.0 mm."""

import io
import re
import unittest
from itertools import pairwise

from kobrix.core.errors import NotFound
from kobrix.exports.drawings import BAR, PAPER
from kobrix.exports.try_card import TryCard, card_pdf
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.fit.service import caliper_card
from pypdf import PdfReader

from tests.cases import demo_document, demo_job, every_layout

MM = 72.0 / 25.4  # points
BOX = ((120.0, 10.0), (160.0, 10.0), (160.0, 90.0), (120.0, 90.0))


def lines(content: bytes, page: int = 0) -> list[tuple[float, float, float, float]]:
    """Every straight piece of a page's paths [mm]."""
    told = PdfReader(io.BytesIO(content)).pages[page].get_contents()
    assert told is not None
    found, at = [], (0.0, 0.0)
    for x, y, op in re.findall(r"([-\d.]+) ([-\d.]+) ([ml])\b", told.get_data().decode("latin-1")):
        to = (float(x) / MM, float(y) / MM)
        if op == "l":
            found.append((*at, *to))
        at = to
    return found


class CardTest(unittest.TestCase):
    def test_its_lines_measure_true_on_both_papers(self) -> None:
        card = TryCard("Caliper, rear", BOX, 3.0)
        for paper in PAPER:
            told = lines(card_pdf(card, paper))
            lengths = sorted(round(((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5, 1) for x0, y0, x1, y1 in told)
            self.assertIn(BAR, lengths)
            self.assertGreaterEqual(lengths.count(40.0), 2)  # the outline across the wheel
            self.assertGreaterEqual(lengths.count(80.0), 2)  # and along the axle
            self.assertIn(86.0, lengths)  # with the gap on both sides

    def test_what_is_cut_carries_the_caliper_and_stands_on_the_face(self) -> None:
        for depth in (10.0, -12.0):
            card = TryCard("x", tuple((r, d - 10.0 + depth) for r, d in BOX), 3.0)
            cut = card.cut
            self.assertEqual(cut[0], (0.0, 0.0))
            self.assertEqual(min(d for _, d in cut), min(0.0, depth))
            for corner in card.outline[1:3]:
                self.assertIn(corner, cut)
            self.assertTrue(all(a[0] == b[0] or a[1] == b[1] for a, b in pairwise([*cut, cut[0]])))

    def test_the_demo_has_one_and_what_is_not_measured_is_said(self) -> None:
        card = caliper_card(demo_job(), "plan A", "front")
        shape = demo_job().plans[0].fit
        assert shape is not None and shape.sections is not None
        self.assertEqual(card.gap, 3.0)
        self.assertEqual(len(card.outline), 4)
        with self.assertRaisesRegex(NotFound, "still to measure"):
            caliper_card(demo_job(), "as found", "front")
        for job in every_layout():
            for name in job.names:
                for axle in ("front", "rear"):
                    try:
                        self.assertTrue(card_pdf(caliper_card(job, name, axle), "A4").startswith(b"%PDF"))
                    except NotFound as refused:
                        self.assertIn("outline of the caliper", str(refused))

    def test_hat_and_spacer_move_it_and_the_bracket_too(self) -> None:
        document = demo_document()
        section = document["plans"][0]["fit"]["sections"]["front"]
        before = caliper_card(files.check(Job, document), "plan A", "front").outline
        section["wheel"]["spacer_mm"] = 5
        section["caliper"]["radial_move_mm"] = 2
        after = caliper_card(files.check(Job, document), "plan A", "front").outline
        base = demo_document()["plans"][0]["fit"]["sections"]["front"]
        spacer = 5 - float(str(base["wheel"].get("spacer_mm", 0)).split()[0])
        for (_, d0), (_, d1) in zip(before, after, strict=True):
            self.assertAlmostEqual(d1 - d0, spacer)
        moved = 2 - float(str(base["caliper"].get("radial_move_mm", 0)).split()[0])
        self.assertAlmostEqual(after[0][0] - before[0][0], moved)


if __name__ == "__main__":
    unittest.main()

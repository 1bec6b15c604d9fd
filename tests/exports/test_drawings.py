"""Drawings at full size: read back by the library that reads DXF, measured in millimetres in SVG and PDF."""

import io
import math
import re
import unittest

import ezdxf.filemanagement
from ezdxf import units
from ezdxf.entities.lwpolyline import LWPolyline
from kobrix.core.errors import NotFound
from kobrix.exports.drawings import BAR, PAPER, Circle, PlateDrawing, as_dxf, as_pdf, as_svg, outline_points, tiles
from kobrix.exports.tables import as_csv
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.fit.service import fit_of, plate_drawing
from pypdf import PdfReader

from tests.cases import demo_document, demo_job

POINT = 72 / 25.4  # points of a millimetre
PLATE = PlateDrawing(
    "bracket", (-50.0, -40.0, 50.0, 46.0), 5.0, (Circle("old 1", -40.0, -30.0, 8.5, True), Circle("new 1", 41.0, 16.0, 8.5))
)


class Dxf(unittest.TestCase):
    def test_holes_outline_and_bar_read_back_in_millimetres(self) -> None:
        document = ezdxf.filemanagement.read(io.StringIO(as_dxf(PLATE)))
        self.assertEqual(document.units, units.MM)
        space = document.modelspace()
        circles = {(c.dxf.layer, c.dxf.center.x, c.dxf.center.y, c.dxf.radius) for c in space.query("CIRCLE")}
        self.assertEqual(circles, {("OLD_HOLES", -40.0, -30.0, 4.25), ("HOLES", 41.0, 16.0, 4.25)})
        (outline,) = space.query("LWPOLYLINE")
        assert isinstance(outline, LWPolyline)
        self.assertTrue(outline.closed)
        xs, ys = [p[0] for p in outline.get_points()], [p[1] for p in outline.get_points()]
        self.assertEqual((min(xs), max(xs), min(ys), max(ys)), (-50.0, 50.0, -40.0, 46.0))
        (bar,) = space.query("LINE")
        self.assertAlmostEqual((bar.dxf.end - bar.dxf.start).magnitude, BAR)

    def test_a_quarter_of_a_corner_is_a_quarter_of_a_circle(self) -> None:
        points = outline_points(PLATE)
        (x1, y1, bulge), (x2, y2, _) = points[1], points[2]
        chord = math.hypot(x2 - x1, y2 - y1)
        radius = chord * (1 + bulge**2) / (4 * bulge)
        self.assertAlmostEqual(radius, 5.0)
        self.assertEqual(len(outline_points(PlateDrawing("x", (0, 0, 9, 9), 0.0, ()))), 4)


class Svg(unittest.TestCase):
    def test_its_width_is_its_millimetres(self) -> None:
        text = as_svg(PLATE)
        width, box = re.search(r'width="([\d.]+)mm"', text), re.search(r'viewBox="0 0 ([\d.]+) ', text)
        assert width is not None
        assert box is not None
        self.assertEqual(width[1], box[1])
        self.assertIn(f"h{BAR}", text)
        self.assertEqual(text.count("<circle"), 2)
        self.assertIn("&lt;b&gt;", as_svg(PlateDrawing("<b>", (0, 0, 9, 9), 0.0, ())))


class Pdf(unittest.TestCase):
    def test_the_bar_on_each_sheet_is_fifty_millimetres(self) -> None:
        for paper, (wide, high) in PAPER.items():
            for plate in (PLATE, PlateDrawing("long", (0.0, 0.0, 400.0, 300.0), 0.0, (Circle("a", 390.0, 290.0, 10.0),))):
                reader = PdfReader(io.BytesIO(as_pdf(plate, paper)))
                self.assertEqual(len(reader.pages), len(tiles(plate, paper)))
                for page in reader.pages:
                    self.assertAlmostEqual(float(page.mediabox.width), wide * POINT, places=1)
                    self.assertAlmostEqual(float(page.mediabox.height), high * POINT, places=1)
                    content = page.get_contents()
                    assert content is not None
                    lines = re.findall(r"([\d.]+) ([\d.]+) m ([\d.]+) ([\d.]+) l", content.get_data().decode("latin-1"))
                    lengths = [math.dist((float(a), float(b)), (float(c), float(d))) / POINT for a, b, c, d in lines]
                    self.assertTrue(any(abs(length - BAR) < 0.02 for length in lengths))
                    self.assertIn("50.0 mm", page.extract_text())

    def test_every_place_of_a_large_plate_is_on_a_sheet(self) -> None:
        plate = PlateDrawing("long", (-20.0, 0.0, 400.0, 300.0), 0.0, ())
        for paper, (wide, high) in PAPER.items():
            every = tiles(plate, paper)
            for x in (-20.0, 100.0, 211.0, 400.0):
                for y in (0.0, 150.0, 299.0):
                    self.assertTrue(any(a <= x <= a + wide - 24 and b <= y <= b + high - 54 for a, b in every), (paper, x, y))


class Plates(unittest.TestCase):
    def test_the_demo_s_plate_is_judged_as_the_question_judges_it(self) -> None:
        (plate,) = fit_of(demo_job(), 0, "plan A")["plates"]
        self.assertEqual(plate["needs"], [])
        self.assertEqual([h["name"] for h in plate["holes"]], ["old 1", "old 2", "old 3", "old 4", "new 1", "new 2", "bore"])
        self.assertEqual((plate["level"] != "good"), bool(plate["webs"]))
        drawing = plate_drawing(demo_job(), "plan A", 0)
        self.assertEqual(len(drawing.holes), 7)
        with self.assertRaises(NotFound):
            plate_drawing(demo_job(), "plan A", 4)

    def test_a_plate_without_its_pattern_says_what_is_missing(self) -> None:
        document = demo_document()
        document["plans"][0]["fit"]["plates"] = [{"name": "bracket"}, {"name": "other", "old": {"kind": "pair"}}]
        job = files.check(Job, document)
        first, second = fit_of(job, 0, "plan A")["plates"]
        self.assertEqual(first["needs"], ["the pattern it is bolted to"])
        self.assertEqual(second["needs"], ["spacing of the old pattern", "hole of the old pattern"])
        with self.assertRaises(NotFound):
            plate_drawing(job, "plan A", 1)


class Tables(unittest.TestCase):
    def test_what_a_spreadsheet_would_run_is_quoted(self) -> None:
        told = as_csv(["a"], [["=1"], ["+1"], ["@x"], ["-1"], [-1], [None], ["fine, really"]])
        self.assertEqual(told.splitlines(), ["a", "'=1", "'+1", "'@x", "'-1", "-1", '""', '"fine, really"'])

"""Drawings and plots stand at their numbers: radii, widths and places measured off the SVG that is drawn."""

import itertools
import math
import random
import re
import unittest
from typing import Any
from xml.etree import ElementTree

from kobrix.core.physics import disc

from tests.cases import demo_job, size_of
from tests.screen.case import ScreenCase, number

Element = ElementTree.Element


def marked(drawing: Element, tag: str, words: str) -> list[Element]:
    """The marks of a `tag` that have all these classes."""
    return [e for e in drawing.iter(tag) if set(words.split()) <= set(e.attrib.get("class", "").split())]


def points(path: str) -> list[tuple[float, float]]:
    """The corners of path data made of straight lines."""
    return [(float(a), float(b)) for a, b in re.findall(r"(-?[\d.]+),(-?[\d.]+)", path)]


class Parts(ScreenCase):
    modules = ("drawings/brakes.tsx", "drawings/cylinder.tsx", "drawings/vehicle.tsx", "drawings/ink.tsx", "drawings/pedal.tsx")

    def test_a_rotor_its_swept_band_and_what_stood_before_are_to_scale(self) -> None:
        for diameter, pad, found, s in ((280.0, 50.0, 240.0, 0.262), (258.0, 38.0, 300.0, 1.0)):
            drawing = self.draw("drawings/brakes", "RotorFace", x=100, y=80, s=s, diameter=diameter, padHeight=pad, found=found)
            radii = [number(c, "r") for c in drawing.iter("circle")]
            self.assertIn(round(diameter / 2 * s, 2), radii)
            swept = marked(drawing, "circle", "swept")[0]
            self.assertAlmostEqual(float(swept.attrib["style"].split(":")[1]), pad * s, places=2)
            # the middle of the band is where the core puts the effective radius of uniform wear
            effective = float(disc.effective_radius(diameter, pad, 1.5, "uniform_wear"))
            self.assertAlmostEqual(number(swept, "r"), effective * s, delta=0.01)
            was = marked(drawing, "circle", "found-shape" if found > diameter else "found")[0]
            self.assertAlmostEqual(number(was, "r"), found / 2 * s, delta=0.01)

    def test_piston_areas_are_to_scale_and_do_not_touch(self) -> None:
        for pistons in ([38.1, 38.1], [54.0], [44.0, 38.0, 34.0]):
            drawing = self.draw("drawings/brakes", "PistonAreas", x=0, y=0, s=0.72, pistons=pistons, found=[48.0])
            own = marked(drawing, "circle", "bore-area")
            self.assertEqual([round(number(c, "r") / 0.36, 1) for c in own], pistons)
            for a, b in itertools.pairwise(own):
                self.assertGreater(number(b, "cy") - number(a, "cy"), number(a, "r") + number(b, "r"))
            places = self.ask("drawings/brakes", "pistonPlaces", pistons, 0.72)
            self.assertAlmostEqual(places[0] - pistons[0] * 0.36, -(places[-1] + pistons[-1] * 0.36), places=9)

    def test_a_bore_and_the_one_before_it_are_to_scale(self) -> None:
        for bore, found in ((20.6375, 22.225), (25.4, 22.225), (20.6375, 0.0)):
            drawing = self.draw("drawings/cylinder", "BoreEnd", x=0, y=0, s=2.2, bore=bore, found=found)
            self.assertAlmostEqual(number(marked(drawing, "circle", "bore-area")[0], "r"), bore * 1.1, delta=0.01)
            before = marked(drawing, "circle", "found-shape") + marked(drawing, "circle", "found")
            self.assertEqual([round(number(c, "r"), 2) for c in before], [round(found * 1.1, 2)] if found else [])

    def test_a_tandem_has_two_pistons_and_fluid_in_front_of_both(self) -> None:
        shape = {"x": 0, "y": 0, "length": 152, "bore": 36, "wall": 8, "push": 10, "found": 0, "fluid": True}
        two = self.draw("drawings/cylinder", "CylinderSection", tandem=True, **shape)
        one = self.draw("drawings/cylinder", "CylinderSection", tandem=False, **shape)
        self.assertEqual(len(marked(two, "path", "spring")), 2)
        self.assertEqual(len(marked(one, "path", "spring")), 1)
        for drawing in (one, two):
            heights = {number(r, "height") for r in marked(drawing, "rect", "fluid")}
            self.assertIn(36.0, heights)

    def test_the_centre_of_gravity_stands_where_the_weights_put_it(self) -> None:
        for front, height in ((0.49, 530.0), (0.62, 610.0)):
            drawing = self.draw(
                "drawings/vehicle", "CarSide", x=10, y=100, s=0.05, wheelbase=2480, radius=293, height=height, front=front
            )
            mark = min(drawing.iter("circle"), key=lambda c: number(c, "r"))
            self.assertAlmostEqual(number(mark, "cx"), 10 + 2480 * (1 - front) * 0.05, delta=0.01)
            self.assertAlmostEqual(number(mark, "cy"), 100 - height * 0.05, delta=0.01)
            wheels = sorted(number(c, "cx") for c in drawing.iter("circle") if abs(number(c, "r") - 293 * 0.05) < 0.01)
            self.assertAlmostEqual(wheels[1] - wheels[0], 2480 * 0.05, delta=0.01)

    def test_an_arc_begins_and_ends_where_it_should(self) -> None:
        draw = random.Random(3)
        for _ in range(50):
            x, y, r = draw.uniform(-50, 50), draw.uniform(-50, 50), draw.uniform(1, 90)
            start, end = draw.uniform(0, 360), draw.uniform(0, 360)
            data = self.ask("drawings/ink", "arc", x, y, r, start, end)
            first = re.match(r"M(-?[\d.]+),(-?[\d.]+)A", data)
            last = re.search(r"(-?[\d.]+),(-?[\d.]+)$", data)
            flags = re.search(r" 0 ([01]) ([01]) ", data)
            assert first and last and flags
            for found, angle in ((first, start), (last, end)):
                self.assertAlmostEqual(float(found[1]), x + r * math.cos(math.radians(angle)), delta=0.011)
                self.assertAlmostEqual(float(found[2]), y + r * math.sin(math.radians(angle)), delta=0.011)
            self.assertEqual(flags[1] == "1", abs(end - start) > 180)
            self.assertEqual(flags[2] == "1", end > start)

    def test_the_pad_hangs_at_its_length_from_the_pivot(self) -> None:
        for degrees in (0.0, 12.0, -20.0):
            px, py = self.ask("drawings/pedal", "pedalPoint", 5, 7, 100, degrees)
            self.assertAlmostEqual(math.hypot(px - 5, py - 7), 100.0, places=6)
        self.assertEqual([round(v, 6) for v in self.ask("drawings/pedal", "pedalPoint", 5, 7, 100, 0)], [5, 107])


class Plots(ScreenCase):
    modules = ("charts/axes.tsx", "charts/TravelStair.tsx", "charts/Feel.tsx", "charts/Balance.tsx", "charts/ValveCurve.tsx",
               "stages/size/tables.ts", "drawings/ink.tsx")  # fmt: skip

    def test_tenths_that_are_printed_sum_to_the_total_that_is_printed(self) -> None:
        draw = random.Random(9)
        for _ in range(60):
            values = [draw.uniform(0.0, 30.0) for _ in range(draw.randint(1, 14))]
            for digits in (1, 3):  # of millimetres, of inches
                printed = self.ask("charts/TravelStair", "printedParts", values, sum(values), digits)
                self.assertAlmostEqual(sum(map(float, printed)), round(sum(values), digits), places=6)
                for text, value in zip(printed, values, strict=True):
                    self.assertAlmostEqual(float(text), value, delta=1.000001 * 10**-digits)

    def test_the_stair_goes_down_from_cause_to_cause_to_the_whole_travel(self) -> None:
        causes: list[dict[str, Any]] = [{"name": "free play", "mm": 5.0, "side": "shared"}, {"name": "caliper give, front", "mm": 20.0, "side": "front"},
                  {"name": "hoses", "mm": 15.0, "side": "shared"}]  # fmt: skip
        drawing = self.draw(
            "charts/TravelStair", "TravelStair", width=360, height=240, causes=causes, total=40.0, available=150.0,
            band={"good": 0.55, "caution": 0.65, "danger": 0.85}, found=30.0, foundName="as found", lost=[],
            stroke={"used": 10.0, "whole": 30.0}, description="",
        )  # fmt: skip
        per_mm = (360 - 10 - 150) / 150.0
        boxes = [r for r in drawing.iter("rect") if "width" in r.attrib]
        at = 150.0
        for cause in causes:
            wide = cause["mm"] * per_mm
            fits = [b for b in boxes if abs(number(b, "x") - at) < 0.02 and abs(number(b, "width") - wide) < 0.02]
            self.assertEqual(len(fits), 1, cause["name"])
            at += wide
        self.assertIn("40.0", {t.text for t in drawing.iter("text")})

    def feel(self, **more: Any) -> Element:
        marks = [{"name": "A", "kind": "plan", "push": 341.0, "travel": 98.0}, {"name": "as found", "kind": "found", "push": 800.0, "travel": 88.0},
                 {"name": "B", "kind": "other", "push": 240.0, "travel": 100.0}]  # fmt: skip
        dots = [{"name": n, "bore": 0, "push": p, "travel": t, "own": n == "7/8 in"} for n, p, t in (
            ("1 in", 520.0, 70.0), ("7/8 in", 400.0, 90.0), ("3/4 in", 290.0, 120.0))]  # fmt: skip
        props = {"width": 300, "height": 200, "dots": dots, "marks": marks, "limit": 500.0, "good": 82.5, "room": 150.0,
                 "effort": {"low": 120, "good": 350, "caution": 450, "danger": 500}, "description": "", "onBore": None, "own": {"push": None, "travel": None}}  # fmt: skip
        return self.draw("charts/Feel", "Feel", **{**props, **more})

    def test_marks_of_feel_stand_at_their_push_and_travel(self) -> None:
        """Two marks make the scales; the third and every dot must then lie where those scales put them."""
        drawing = self.feel()
        plan, found = marked(drawing, "circle", "plan-area")[0], marked(drawing, "circle", "found-shape")[0]
        per_n = (number(plan, "cy") - number(found, "cy")) / (341.0 - 800.0)
        per_mm = (number(plan, "cx") - number(found, "cx")) / (98.0 - 88.0)
        self.assertLess(per_n, 0.0)
        self.assertGreater(per_mm, 0.0)

        def place(push: float, travel: float) -> tuple[float, float]:
            return number(plan, "cx") + (travel - 98) * per_mm, number(plan, "cy") + (push - 341) * per_n

        other = marked(drawing, "rect", "other-mark")[0]
        x, y = place(240.0, 100.0)
        self.assertAlmostEqual(number(other, "x") + 4.5, x, delta=0.05)
        self.assertAlmostEqual(number(other, "y") + 4.5, y, delta=0.05)
        dots = [(number(c, "cx"), number(c, "cy")) for c in drawing.iter("circle") if number(c, "r") == 3.2]
        for (cx, cy), (push, travel) in zip(dots, ((520, 70), (400, 90), (290, 120)), strict=True):
            x, y = place(push, travel)
            self.assertAlmostEqual(cx, x, delta=0.3)
            self.assertAlmostEqual(cy, y, delta=0.3)

    def test_the_comfort_of_feel_spans_the_band_and_the_good_travel(self) -> None:
        drawing = self.feel()
        box, plan, found = (marked(drawing, tag, words)[0] for tag, words in
                            (("rect", "comfort"), ("circle", "plan-area"), ("circle", "found-shape")))  # fmt: skip
        per_n = (number(found, "cy") - number(plan, "cy")) / (341.0 - 800.0)
        self.assertAlmostEqual(number(box, "height"), (350 - 120) * abs(per_n), delta=0.05)
        self.assertEqual(marked(self.feel(effort=None), "rect", "comfort"), [])

    def test_words_of_feel_keep_clear_of_the_plan_s_name(self) -> None:
        """Wherever the plan's mark lies around the one as found: its letter's box and the box of the words do not meet."""
        for push, travel in itertools.product((700.0, 770.0, 800.0, 820.0, 860.0), (84.0, 88.0, 90.0, 94.0, 99.0)):
            plan = {"name": "A", "kind": "plan", "push": push, "travel": travel}
            drawing = self.feel(marks=[plan, {"name": "as found", "kind": "found", "push": 800.0, "travel": 88.0}], dots=[])
            letter, words = marked(drawing, "text", "label-plan")[0], marked(drawing, "text", "label-found")[0]
            wide = 6.1 * len(words.text or "")
            aside = number(letter, "x") > number(words, "x") + wide or number(letter, "x") + 8 < number(words, "x")
            apart = abs(number(letter, "y") - number(words, "y"))
            self.assertTrue(aside or apart >= 9.0, f"{push} N, {travel} mm: {apart:.1f} px apart")

    def test_every_force_line_is_as_wide_as_its_share(self) -> None:
        """The width is the line's own, not a property of the whole drawing."""
        for wide in (0.5, 3.14159, 7):
            line = self.draw("drawings/ink", "Line", a=[0, 0], b=[10, 0], **{"as": "force"}, wide=wide).find("line")
            path = self.draw("drawings/ink", "Path", d="M0,0L10,0", **{"as": "force"}, wide=wide).find("path")
            for drawn in (line, path):
                assert drawn is not None
                self.assertEqual(drawn.attrib["style"], f"stroke-width:{round(wide, 2):g}")
        plain = self.draw("drawings/ink", "Path", d="M0,0L10,0", **{"as": "force"}).find("path")
        assert plain is not None
        self.assertNotIn("style", plain.attrib)

    def test_balance_draws_each_path_to_its_own_lock(self) -> None:
        view = size_of(demo_job())
        solved = view["setups"][1]["solved"]["paths"][-1]
        state = solved["states"][0]
        lock, curves = state["lock"], state["curves"]
        path = {"name": "A", "kind": "plan", "points": list(zip(curves["front_n"], curves["rear_n"], strict=True)),
                "lock": {"front": lock["front_n"], "rear": lock["rear_n"], "decel": lock["decel_g"]}}  # fmt: skip
        drawing = self.draw(
            "charts/Balance", "Balance", width=330, height=240, tyres=state["balance"], paths=[path],
            at={"front": 5000.0, "rear": 1500.0, "name": "A"}, description="", knee=None,
        )  # fmt: skip
        line = marked(drawing, "path", "plan-line")[0]
        corners = points(line.attrib["d"])
        (x0, y0), (x1, y1) = corners[0], corners[-1]
        slope = (y0 - y1) / (x1 - x0)
        ticks = {t.text: t for t in drawing.iter("text") if t.text and re.fullmatch(r"\d+", t.text)}
        across = [t for t in ticks.values() if t.attrib["text-anchor"] == "middle"]
        per_kn = (number(across[-1], "x") - number(across[0], "x")) / (float(across[-1].text or 0) - float(across[0].text or 0))
        self.assertAlmostEqual(x1 - x0, lock["front_n"] / 1e3 * per_kn, delta=0.1)
        self.assertGreater(slope, 0.0)
        ideal = marked(drawing, "path", "thin")
        self.assertTrue(ideal)

    def test_a_valve_s_curve_ends_where_the_pressures_do(self) -> None:
        line = {"name": "rear", "front": False, "points": [[0, 0], [3000, 3000], [7000, 4400]], "at": [5000, 3700]}
        drawing = self.draw("charts/ValveCurve", "ValveCurve", width=330, height=200, lines=[line], description="")
        longest = max((p for p in drawing.iter("path") if len(points(p.attrib["d"])) == 3), key=lambda p: len(p.attrib["d"]))
        (ax, ay), (bx, by), (cx, cy) = points(longest.attrib["d"])
        self.assertAlmostEqual((cx - bx) / (bx - ax), 4.0 / 3.0, delta=0.01)
        self.assertAlmostEqual((cy - by) / (by - ay), 1.4 / 3.0, delta=0.01)

    def test_axes_have_round_ticks_evenly_apart(self) -> None:
        for most, expected in ((800.0, [0, 250, 500, 750]), (1900.0, [0, 500, 1000, 1500]), (501.0, [0, 200, 400])):
            marks = [{"name": "A", "kind": "plan", "push": most, "travel": 98.0}, {"name": "B", "kind": "other", "push": 100.0, "travel": 60.0}]  # fmt: skip
            drawing = self.feel(marks=marks, dots=[])
            up = [t for t in drawing.iter("text") if t.attrib.get("text-anchor") == "end" and re.fullmatch(r"\d+", t.text or "")]
            self.assertEqual([int(t.text or "") for t in up], expected)
            gaps = {round(number(a, "y") - number(b, "y"), 1) for a, b in itertools.pairwise(up)}
            self.assertLessEqual(max(gaps) - min(gaps), 0.11)

    def test_tables_have_the_first_and_the_last_sample_of_their_plot(self) -> None:
        curves = size_of(demo_job())["setups"][1]["solved"]["paths"][-1]["states"][0]["curves"]
        table = self.ask("stages/size/tables", "balanceTable", curves)
        self.assertEqual(table["head"], ["push, N", "front, kN", "rear, kN", "g"])
        self.assertEqual(table["rows"][0][0], f"{curves['push_n'][0]:.0f}")
        self.assertEqual(table["rows"][-1][0], f"{curves['push_n'][-1]:.0f}")
        self.assertEqual(table["rows"][-1][3], f"{curves['decel_g'][-1]:.2f}")
        self.assertTrue(10 <= len(table["rows"]) <= 30)
        adhesion = self.ask("stages/size/tables", "adhesionTable", curves)
        self.assertEqual(adhesion["rows"][-1][1], f"{curves['adhesion_front'][-1]:.2f}")
        heat = self.ask("stages/size/tables", "heatTable", [{"name": "front", "starts": [20.2, 60], "peaks": [101.7]},
                                                               {"name": "rear", "starts": [20, 40], "peaks": [60, 80.4]}])  # fmt: skip
        self.assertEqual(heat["rows"], [["1", "20", "102", "20", "60"], ["2", "60", "0", "40", "80"]])
        self.assertEqual(len(heat["head"]), 5)
        travel = self.ask("stages/size/tables", "travelTable", [{"name": "hoses", "mm": 16.34, "side": "shared"}], 16.34)
        self.assertEqual(travel["rows"], [["hoses", "16.3"], ["in all", "16.3"]])


if __name__ == "__main__":
    unittest.main()

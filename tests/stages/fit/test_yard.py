"""The yard card: bands by chance, what to do with a part in the hand, and the card as one file."""

import json
import re
import unittest
from typing import Any
from unittest import mock

from kobrix.core.errors import BadEntry, NotFound
from kobrix.evaluate.ask.run import ask
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.fit.card import card_html
from kobrix.stages.fit.shapes_elsewhere import HandPart, YardIn, YardView
from kobrix.stages.fit.yard import KEEP, band_of, in_the_yard, yard_of

from tests.cases import conforms, demo_document, demo_job, every_layout

EASY = {"effort_n": "1500 N", "travel_share": "100 %", "lock_margin": "0", "lost_circuit_decel_g": "0.01 g"}


class Bands(unittest.TestCase):
    def test_every_setup_of_every_layout_has_bands_or_says_what_is_missing(self) -> None:
        for job in every_layout():
            name = job.names[-1]
            with self.subTest(job=job.name):
                view = yard_of(job, name, {})
                conforms(YardView, view)
                self.assertEqual(bool(view["bands"]), view["needs"] == 0 and bool(view["stations"]))
                for band in view["bands"]:
                    for point in band["points"]:
                        self.assertTrue(0.0 <= point["chance"] <= 1.0)

    def test_looser_limits_never_lower_a_chance(self) -> None:
        job = demo_job()
        strict, loose = yard_of(job, "plan A", {}), yard_of(job, "plan A", EASY)
        self.assertLessEqual(strict["chance_now"] or 0.0, loose["chance_now"] or 0.0)
        for a, b in zip(strict["bands"], loose["bands"], strict=True):
            for p, q in zip(a["points"], b["points"], strict=True):
                self.assertLessEqual(p["chance"], q["chance"] + 1e-12)

    def test_without_doubt_a_chance_is_all_or_nothing_and_agrees_with_the_question(self) -> None:
        document = demo_document()
        document["name"] = "without doubt"
        job = files.check(Job, document)
        with mock.patch("kobrix.stages.fit.yard.uncertain_entries", return_value=[]):
            view = yard_of(job, "plan A", {"decel_g": "0.81 g", "lost_circuit_decel_g": "0.2 g"})
        limits = {"decel_g": 0.81, "effort_n": 500, "travel_share": 0.85, "lock_margin": 0.03, "lost_circuit_decel_g": 0.2}
        setup = job.setup("plan A").model_dump(exclude_none=True)
        agreed = 0
        for band in view["bands"]:
            candidates = [
                {"name": str(n), "set": [{"what": band["what"], "value": p["value"], **({"station": band["station"]} if band["station"] else {})}]}
                for n, p in enumerate(band["points"])
            ]  # fmt: skip
            question = {"question": "acceptance", "setup": setup, "limits": limits, "candidates": candidates}
            told: Any = ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0]
            for point, row in zip(band["points"], told["candidates"], strict=True):
                self.assertIn(point["chance"], (0.0, 1.0))
                self.assertEqual(point["chance"] == 1.0, row["verdict"] == "keep", (band["label"], point, row))
                agreed += 1
        self.assertGreater(agreed, 60)

    def test_a_band_ends_where_the_chance_falls_below_what_is_kept(self) -> None:
        points: Any = [{"value": float(v), "chance": c, "valve_chance": None} for v, c in enumerate((0.5, 0.8, 1.0, 1.0, 0.7))]
        low, high = band_of(points, "chance") or [0.0, 0.0]
        self.assertAlmostEqual(low, 1.5)
        self.assertAlmostEqual(high, 3.0 + (1.0 - KEEP) / 0.3)
        self.assertIsNone(band_of(points[:2], "chance"))


class InTheHand(unittest.TestCase):
    def test_a_part_is_judged_as_its_value_in_the_band(self) -> None:
        job = demo_job()
        band = next(
            b for b in yard_of(job, "plan A", EASY)["bands"] if (b["what"], b["station"]) == ("rotor_diameter_mm", "front")
        )
        for point in band["points"][::5]:
            part = HandPart(station="front", rotor=f"{point['value']:.6f} mm")
            told = in_the_yard(job, YardIn(setup="plan A", limits=EASY, part=part))
            self.assertAlmostEqual(told["chance"], point["chance"], delta=0.011)
            self.assertEqual(told["verdict"] == "keep", told["chance"] >= KEEP)

    def test_a_valve_is_asked_for_where_only_the_order_of_the_locks_fails(self) -> None:
        part = HandPart(station="rear", pistons="44 mm")
        told = in_the_yard(demo_job(), YardIn(setup="plan A", limits={**EASY, "lock_margin": "3 %"}, part=part))
        self.assertEqual(told["verdict"], "keep_with_valve")
        self.assertGreaterEqual(told["valve_chance"] or 0.0, KEEP)
        self.assertIn("rear", told["broken"][0]["words"])

    def test_what_makes_no_part_is_refused_in_words(self) -> None:
        job = demo_job()
        for part, said in (
            (HandPart(station="rear", pistons="big"), "[Nn]o number"), (HandPart(station="nowhere", rotor="260"), "station with discs"),
            (HandPart(station="rear", friction="3 bar"), "pressure"),
        ):  # fmt: skip
            with self.assertRaisesRegex(BadEntry, said):
                in_the_yard(job, YardIn(setup="plan A", part=part))
        for limits, said in (
            ({"effort_n": "much"}, "[Nn]o number"),
            ({"colour": "red"}, "effort_n"),
            ({"decel_g": "9 g"}, "vehicle can have"),
        ):
            with self.assertRaisesRegex(BadEntry, said):
                yard_of(job, "plan A", limits)
        with self.assertRaises(NotFound):
            yard_of(job, "plan Z", {})

    def test_of_a_setup_that_is_not_complete_nothing_is_said(self) -> None:
        document = demo_document()
        del document["plans"][0]["systems"][0]["stations"][0]["brake"]["friction"]
        for part in (HandPart(station="front", friction="0.42"), HandPart(station="front", rotor="280 mm")):
            with self.assertRaisesRegex(BadEntry, "plan A, with 1 of its entries missing"):
                in_the_yard(files.check(Job, document), YardIn(setup="plan A", part=part))


class Card(unittest.TestCase):
    def test_it_asks_for_nothing_from_outside_and_holds_the_bands(self) -> None:
        view = yard_of(demo_job(), "plan A", EASY)
        html = card_html("<b>job</b>", view)
        self.assertEqual(re.findall(r"(?:src|href)=|https?:|url\(", html), [])
        self.assertNotIn("<b>job", html)
        data = json.loads(re.search(r'id="bands">(.*?)</script>', html)[1].replace("\\u003c", "<"))  # type: ignore[index]
        self.assertEqual([d["points"][0]["chance"] for d in data], [b["points"][0]["chance"] for b in view["bands"]])

    def test_a_job_without_figures_has_a_card_that_says_so(self) -> None:
        job = next(iter(every_layout()))
        self.assertIn("Nothing can be said yet", card_html(job.name, yard_of(job, "as found", {})))

"""A copy to lend and the whole record: what they hold is what the stages show, nothing runs in them that was typed, remarks come back."""

import io
import json
import re
import unittest
from datetime import date
from typing import Any

from kobrix.api.lend import lent_copy
from kobrix.exports.lent import FORMAT, PLACE, as_html
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from pypdf import PdfReader

from tests.api.case import ApiCase
from tests.cases import demo_document, demo_job, every_layout

DAY = date(2026, 5, 7)


class Lent(ApiCase):
    def test_its_figures_and_findings_are_those_that_size_shows(self) -> None:
        told = self.client.get("/api/jobs/1/lend.html?setup=plan+A")
        self.assertEqual((told.status_code, told.headers["content-type"]), (200, "text/html; charset=utf-8"))
        moment = self.client.post("/api/jobs/1/moment", json={"setup": "plan A", "load": 0, "decel_g": self.wanted()}).json()
        self.assertIn(f"{moment['pedal_force_n']:.0f} N", told.text)
        verdicts = self.client.get("/api/jobs/1/verdicts").json()["setups"]
        own = next(s for s in verdicts if s["key"] == "plan A")
        for finding in own["findings"]:
            self.assertIn(finding["sentence"].replace("'", "&#x27;"), told.text)
        self.assertEqual(told.text.count('<div class="f '), len(own["findings"]))
        self.assertIn(PLACE, told.text)
        self.problem(self.client.get("/api/jobs/1/lend.html?setup=plan+Q"), 404, "plan Q")

    def wanted(self) -> float:
        wanted: float = self.client.get("/api/jobs/1/size").json()["wanted_decel_g"]
        return wanted

    def test_the_working_leads_from_the_push_to_the_road(self) -> None:
        copy = lent_copy(demo_job(), "plan A", DAY)
        names = [s.name for s in copy.working]
        self.assertEqual((names[0], "decel" in names), ("push", True))
        rod = next(s for s in copy.working if s.name == "rod")
        told = re.fullmatch(r"([\d.]+)·([\d.]+)·([\d.]+) − 0 = ([\d.]+) N", rod.numbers)
        assert told is not None, rod.numbers
        ratio, push, efficiency, out = map(float, told.groups())
        self.assertAlmostEqual(ratio * push * efficiency, out, delta=0.5)

    def test_every_layout_can_be_lent_empty_or_not(self) -> None:
        for job in every_layout():
            for name in job.names:
                with self.subTest(f"{job.name} {name}"):
                    html = as_html(lent_copy(job, name, DAY))
                    self.assertEqual(len(re.findall(r"<script", html)), 2)
                    self.assertNotIn("http", re.sub(r"http-equiv", "", html))

    def test_what_was_typed_stays_words(self) -> None:
        document: dict[str, Any] = demo_document()
        document["name"] = "</script><script>alert(1)</script>"
        html = as_html(lent_copy(files.check(Job, document), "plan A", DAY))
        self.assertNotIn("<script>alert", html)
        of = re.search(r'id="of">(.*?)</script>', html)
        assert of is not None
        self.assertEqual(json.loads(of[1])["job"], document["name"])
        self.assertEqual(json.loads(of[1])["format"], FORMAT)

    def test_a_remark_is_kept_once_and_settled(self) -> None:
        body = {"setup": "plan A", "place": "push for 0.81 g", "words": "warm or cold?", "by": "R. Holt"}
        for _ in range(2):
            told = self.client.post("/api/jobs/1/records", json={"key": "remark-000001", "kind": "remark", "body": body})
            self.assertEqual(told.status_code, 201, told.text)
        own = [r for r in self.client.get("/api/jobs/1/records").json() if r["kind"] == "remark"]
        self.assertEqual([r["body"] for r in own], [body])
        self.problem(self.client.post("/api/jobs/1/records", json={"key": "remark-000002", "kind": "remark", "body": {**body, "words": ""}}), 422, "words")  # fmt: skip


class Record(ApiCase):
    def pages(self, query: str = "") -> list[str]:
        told = self.client.get(f"/api/jobs/1/record.pdf{query}")
        self.assertEqual(told.status_code, 200, told.text[:300])
        return [" ".join(p.extract_text().split()) for p in PdfReader(io.BytesIO(told.content)).pages]

    def test_behind_the_inspectors_page_stands_everything(self) -> None:
        pages = self.pages()
        first = PdfReader(io.BytesIO(self.client.get("/api/jobs/1/dossier.pdf").content)).pages[0].extract_text()
        self.assertEqual(" ".join(first.split())[:200], pages[0][:200])
        whole = " ".join(pages)
        for title in ("How the push becomes the stop", "Entries", "Findings", "Parts", "Joints", "Work", "Stops", "Records"):
            self.assertIn(title, whole)
        self.assertIn("F_rod = max(0, i·F·", whole.replace(" ", "").replace("F_rod=max(0,i·F·", "F_rod = max(0, i·F·"))
        stops = self.client.get("/api/jobs/1/prove").json()["sets"]
        self.assertIn(f"{stops[3]['stops'][0]['corrected_m']:.4g}", whole)

    def test_it_is_of_one_setup_and_says_where_the_job_is(self) -> None:
        told = self.client.get("/api/jobs/1/record.pdf?setup=as+found")
        links = [
            str(a.get_object()["/A"]["/URI"])
            for a in PdfReader(io.BytesIO(told.content)).pages[0].get("/Annots", [])
            if "/A" in a.get_object()
        ]
        self.assertEqual(links, ["http://127.0.0.1/jobs/1"])
        self.problem(self.client.get("/api/jobs/1/record.pdf?setup=plan+Q"), 404, "plan Q")

    def test_a_photograph_is_printed_with_its_words(self) -> None:
        from PIL import Image

        picture = io.BytesIO()
        Image.new("RGB", (60, 40), (180, 90, 30)).save(picture, "JPEG")
        kept = self.client.post("/api/jobs/1/photos", content=picture.getvalue(), headers={"Content-Type": "image/jpeg"})
        self.assertEqual(kept.status_code, 201, kept.text)
        before = len(PdfReader(io.BytesIO(self.client.get("/api/jobs/1/record.pdf").content)).pages)
        body = {"setup": "plan A", "step": "day/rod_off", "words": "the clip as it was", "sha256": kept.json()["sha256"]}
        self.client.post("/api/jobs/1/records", json={"key": "seen-0000001", "kind": "seen", "body": body})
        gone = {**body, "words": "a picture that is not here", "sha256": "0" * 64}
        self.client.post("/api/jobs/1/records", json={"key": "seen-0000002", "kind": "seen", "body": gone})
        told = PdfReader(io.BytesIO(self.client.get("/api/jobs/1/record.pdf").content))
        self.assertGreaterEqual(len(told.pages), before)
        self.assertEqual(sum(len(page.images) for page in told.pages), 1)
        self.assertIn("rod off: the clip as it was", " ".join(" ".join(p.extract_text().split()) for p in told.pages))


if __name__ == "__main__":
    unittest.main()

"""Fit's door: the page and its changes, the list as a table, what is in the hand, the yard."""

import csv
import io
import unittest

from kobrix.stages.fit.shapes import FitView, HandOut
from kobrix.stages.fit.shapes_elsewhere import YardPart, YardView

from tests.api.case import ApiCase
from tests.cases import conforms


class Fit(ApiCase):
    def test_a_change_made_on_the_page_comes_back_with_it(self) -> None:
        view = self.client.get("/api/jobs/1/fit").json()
        conforms(FitView, view)
        joint = next(j for j in view["joints"] if j["level"] == "danger")
        mend = joint["mends"][0]
        change = {"base": 0, "under": view["setup"], "edits": mend["edits"], "show": {"page": "fit", "setup": view["setup"]}}
        told = self.client.post("/api/jobs/1/changes", json=change)
        self.assertEqual(told.status_code, 200, told.text)
        after = next(j for j in told.json()["shown"]["joints"] if j["key"] == joint["key"])
        self.assertTrue(after["match"])
        stages = {s["title"]: s["words"] for s in self.client.get("/api/jobs/1/stages").json()}
        self.assertEqual(stages["Fit"], "4 missing")

    def test_what_is_no_joint_is_refused_in_words(self) -> None:
        for path, value, words in (
            ("/plans/0/fit/joints/0-0-port/a/family", "welded", "allowed is inverted_45_double"),
            ("/plans/0/fit/joints/0-0-port/a/thread", "M8", "a thread such as 3/8-24"),
            ("/plans/0/fit/joints/0-0-port/b/role", "bolt", "line, port"),
            ("/plans/0/fit/joints/No Place/a", {}, "joints"),
            ("/parts_list/0/have", -1, "have"),
        ):
            self.problem(
                self.client.post("/api/jobs/1/changes", json={"base": 0, "edits": [{"path": path, "value": value}]}), 422, words
            )

    def test_the_list_as_a_table_runs_nothing_in_a_spreadsheet(self) -> None:
        row = {"part": "=HYPERLINK(1)", "wanted": 1, "source": "@shop", "price": 4.5}
        edits = [{"op": "insert", "path": "/parts_list/-", "value": row}]
        self.assertEqual(self.client.post("/api/jobs/1/changes", json={"base": 0, "edits": edits}).status_code, 200)
        told = self.client.get("/api/jobs/1/parts.csv?setup=plan+A")
        self.assertIn("text/csv", told.headers["content-type"])
        rows = list(csv.DictReader(io.StringIO(told.text)))
        own = next(r for r in rows if "HYPERLINK" in r["part"])
        self.assertEqual((own["part"], own["source"], own["price"]), ("'=HYPERLINK(1)", "'@shop", "4.5"))
        self.assertEqual(next(r for r in rows if r["part"] == "crush washer M10x1")["missing"], "2")

    def test_a_fitting_in_the_hand(self) -> None:
        told = self.client.post("/api/fitting", json={"gender": "male", "over_crest": "3/8 in", "tpi": "24", "seen": "flare"})
        conforms(HandOut, told.json())
        self.assertEqual(told.json()["candidates"][0]["thread"], "3/8-24")
        for asked, words in (
            ({"over_crest": "thick"}, "thick"),
            ({"over_crest": "9.9", "seen": "odd"}, "flare, cone"),
            ({"over_crest": "0"}, "above 0"),
        ):
            self.problem(self.client.post("/api/fitting", json={"gender": "male", **asked}), 422, words)

    def test_the_yard(self) -> None:
        asked = {"setup": "plan A", "limits": {"effort_n": "120 lbf"}}
        bands = self.client.post("/api/jobs/1/yard", json=asked)
        conforms(YardView, bands.json())
        self.assertEqual(bands.json()["limits"][1]["text"], "534 N")
        part = self.client.post("/api/jobs/1/yard/part", json={**asked, "part": {"station": "front", "pistons": "38.1, 38.1"}})
        conforms(YardPart, part.json())
        self.problem(self.client.post("/api/jobs/1/yard/part", json=asked), 422, "of a part")
        self.problem(self.client.post("/api/jobs/1/yard", json={"setup": "plan Q"}), 404, "plan Q")
        card = self.client.get("/api/jobs/1/yard.html")
        self.assertIn("attachment", card.headers["content-disposition"])

    def test_pages_of_jobs_that_are_not_there(self) -> None:
        for path in ("fit", "parts.csv", "yard.html"):
            self.problem(self.client.get(f"/api/jobs/99/{path}"), 404, "99")


if __name__ == "__main__":
    unittest.main()

"""Match through the server: begun, looked at, stopped, kept; and from the command line."""

import csv
import io
import json
import tempfile
import time
import unittest
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.cli.main import main
from kobrix.demo import JOBS
from kobrix.stages.match.shapes import MatchChoices, SearchState
from kobrix.store import jobs, searches
from kobrix.store.connection import open_db, prepare

from tests.cases import conforms, demo_document

ASK: dict[str, Any] = {"setup": "plan A", "pins": {"least_mm": "44 mm", "most_mm": "56 mm", "step_mm": "4 mm"},
                       "bores": {"sizes_mm": ["0.70 in", "13/16 in"], "price": 104}}  # fmt: skip
LONG = {
    **ASK, "pins": {"least_mm": 40, "most_mm": 64, "step_mm": 0.1}, "valve": {"least_kpa": 1000, "most_kpa": 9000, "step_kpa": 10},
    "rear": {"calipers": ["own", "floating, 38 mm"]},
}  # fmt: skip


class Served(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Path(folder.name) / "test.sqlite3"
        prepare(self.database)
        with open_db(self.database) as db:
            jobs.add(db, demo_document())
        self.client = TestClient(create_app(self.database), base_url="http://127.0.0.1")

    def begin(self, ask: dict[str, Any] = ASK) -> dict[str, Any]:
        answer = self.client.post("/api/jobs/1/match", json=ask)
        self.assertEqual(answer.status_code, 200, answer.text)
        found: dict[str, Any] = answer.json()
        return found

    def under_way(self, ask: dict[str, Any]) -> dict[str, Any]:
        """The search once its first part is tried."""
        found = self.begin(ask)
        while not found["found"]["done"]:
            self.assertEqual(found["state"], "running")
            time.sleep(0.02)
            found = self.client.get("/api/jobs/1/match").json()
        return found

    def ended(self) -> dict[str, Any]:
        """The search once it is no longer under way."""
        while True:  # a state is waited for, not a time
            found: dict[str, Any] = self.client.get("/api/jobs/1/match").json()
            if found["state"] != "running":
                return found
            time.sleep(0.02)

    def test_it_is_begun_looked_at_and_has_the_declared_shape(self) -> None:
        self.assertEqual(self.client.get("/api/jobs/1/match").json()["state"], "none")
        conforms(SearchState, self.begin())
        found = self.ended()
        conforms(SearchState, found)
        self.assertEqual((found["state"], found["found"]["total"], found["found"]["done"]), ("done", 8, 8))
        self.assertEqual(found["ask"]["bores"]["sizes_mm"], ASK["bores"]["sizes_mm"])
        self.assertGreater(len(found["found"]["kept"]), 0)

    def test_it_is_there_after_a_restart(self) -> None:
        self.begin()
        before = self.ended()
        again = TestClient(create_app(self.database), base_url="http://127.0.0.1")
        self.assertEqual(again.get("/api/jobs/1/match").json(), before)

    def test_a_search_cut_off_is_told_as_stopped(self) -> None:
        with open_db(self.database) as db:
            searches.begin(db, 1, 0, ASK)
        found = self.client.get("/api/jobs/1/match").json()
        self.assertEqual((found["state"], found["found"], found["ask"]["setup"]), ("stopped", None, "plan A"))

    def test_a_long_one_shows_its_progress_and_is_stopped(self) -> None:
        first = self.under_way(LONG)
        self.assertGreater(first["found"]["done"], 0)
        self.assertLess(first["found"]["done"], first["found"]["total"])
        stopped = self.client.delete("/api/jobs/1/match").json()
        stopped = stopped if stopped["state"] != "running" else self.ended()
        self.assertEqual(stopped["state"], "stopped")
        self.assertLess(stopped["found"]["done"], stopped["found"]["total"])
        self.assertEqual(sum(f["count"] for f in stopped["found"]["fall"]) + stopped["found"]["meet"], stopped["found"]["done"])

    def test_another_question_takes_its_place(self) -> None:
        self.begin(LONG)
        self.begin(ASK)
        self.assertEqual(self.ended()["found"]["total"], 8)

    def test_it_is_refused_in_words_and_the_last_one_stays(self) -> None:
        self.begin()
        before = self.ended()
        wide = {
            **ASK,
            "pins": {"least_mm": 20, "most_mm": 200, "step_mm": 0.01},
            "valve": {"least_kpa": 1000, "most_kpa": 20000, "step_kpa": 1},
        }
        for bad, words in (
            (wide, "combinations"),
            ({**ASK, "limits": {"effort_n": 5000}}, "effort"),
            ({**ASK, "setup": "Z"}, "Z"),
        ):
            with self.subTest(words):
                answer = self.client.post("/api/jobs/1/match", json=bad)
                self.assertIn(answer.status_code, (404, 422))
                self.assertEqual(answer.headers["content-type"], "application/problem+json")
                self.assertIn(words, answer.text)
        self.assertEqual(self.client.get("/api/jobs/1/match").json(), before)
        self.assertEqual(self.client.get("/api/jobs/7/match").status_code, 404)

    def test_choices_have_the_declared_shape_for_every_setup(self) -> None:
        for setup in ("as found", "plan A", "plan B"):
            answer = self.client.get("/api/jobs/1/match/choices", params={"setup": setup})
            found = answer.json()
            conforms(MatchChoices, found)
            self.assertIsNone(found["reason"])
            self.assertEqual(len(found["shelf"]), 8)
        self.assertEqual(self.client.get("/api/jobs/1/match/choices", params={"setup": "Z"}).status_code, 404)


class FromTheCommandLine(unittest.TestCase):
    def call(self, *words: str) -> tuple[int, str, str]:
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            code = main(["match", str(JOBS[0]), *words])
        return code, out.getvalue(), err.getvalue()

    def test_a_table_csv_and_json_tell_the_same(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            ask, to_csv, to_json = (Path(folder) / n for n in ("ask.json", "kept.csv", "all.json"))
            ask.write_text(json.dumps(ASK), encoding="utf-8")
            code, out, _ = self.call("--ask", str(ask), "--csv", str(to_csv), "--json", str(to_json))
            self.assertEqual(code, 0)
            self.assertIn("8 combinations tried", out)
            found = json.loads(to_json.read_text(encoding="utf-8"))
            rows = list(csv.DictReader(to_csv.read_text(encoding="utf-8").splitlines()))
        self.assertEqual([float(r["push_n"]) for r in rows], [k["push_n"] for k in found["kept"]])
        self.assertEqual(rows[0]["cylinder"], found["kept"][0]["words"]["cylinder"])
        self.assertIn(f"{found['kept'][0]['push_n']:.0f} N", out)

    def test_without_an_ask_it_tries_pins_and_bores_and_refuses_in_words(self) -> None:
        code, out, _ = self.call("--setup", "plan A")
        self.assertEqual(code, 0)
        self.assertIn("33,750 combinations tried", out)
        code, _, err = self.call("--setup", "plan Z")
        self.assertEqual(code, 2)
        self.assertIn("plan Z", err)


if __name__ == "__main__":
    unittest.main()

"""The server's door: jobs, changes, refusals, and who may ask."""

import gzip
import tempfile
import unittest
from pathlib import Path
from typing import Any
from unittest import mock

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.api.jobs import Changed
from kobrix.api.shapes import CardOut, ExampleOut, FileLook, JobOut, StageOut
from kobrix.cli.serve import fill
from kobrix.fileformat import LARGEST_BYTES
from kobrix.stages.size.shapes import SizeView
from kobrix.store.connection import prepare

from tests.cases import conforms, demo_document, example_document

JSON = {"content-type": "application/json"}
BORE = "/plans/0/systems/0/cylinder/bore_mm"
SIZE = {"show": {"page": "size"}}


class ApiCase(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        database = Path(folder.name) / "test.sqlite3"
        prepare(database)
        fill(database)
        front = Path(folder.name) / "front"
        (front / "assets").mkdir(parents=True)
        (front / "index.html").write_text("<!doctype html><title>Kobrix</title>")
        (front / "assets" / "a.js").write_text("1")
        (front / "assets" / "b.js").write_text("2 + 2")
        (front / "assets" / "b.js.gz").write_bytes(gzip.compress(b"2 + 2"))
        self.client = TestClient(create_app(database, front), base_url="http://127.0.0.1:8420", raise_server_exceptions=False)

    def change(self, base: int, *edits: dict[str, Any], **more: Any) -> Any:
        return self.client.post("/api/jobs/1/changes", json={"base": base, "edits": list(edits), **more})

    def job(self) -> dict[str, Any]:
        found: dict[str, Any] = self.client.get("/api/jobs/1").json()
        return found

    def assert_problem(self, response: Any, status: int, *words: str) -> dict[str, Any]:
        self.assertEqual(response.status_code, status, response.text)
        self.assertEqual(response.headers["content-type"], "application/problem+json")
        body: dict[str, Any] = response.json()
        self.assertEqual(body["status"], status)
        self.assertNotIn("Traceback", response.text)
        for word in words:
            self.assertIn(word, body["detail"])
        return body


class Jobs(ApiCase):
    def test_the_demo_is_there_in_the_promised_shape(self) -> None:
        listed = self.client.get("/api/jobs").json()
        self.assertEqual([j["plans"] for j in listed], [["plan A", "plan B"]])
        conforms(JobOut, self.job())
        conforms(SizeView, self.client.get("/api/jobs/1/size").json())
        conforms(list[StageOut], self.client.get("/api/jobs/1/stages").json())

    def test_cards_copies_examples_and_what_was_put_away(self) -> None:
        card = self.client.get("/api/jobs/1/card").json()
        conforms(CardOut, card)
        self.assertEqual((card["setup"], card["to_go"], round(card["push_n"]), round(card["was_n"])), ("plan A", 0, 341, 805))
        self.assertAlmostEqual(card["front_share"], 0.704, places=3)
        self.assertEqual(
            (card["sketch"]["kind"], card["sketch"]["wheelbase_mm"], card["worst"]["level"]), ("car", 2480.0, "caution")
        )
        copies = [self.client.post("/api/jobs/1/copy").json() for _ in range(2)]
        name = self.job()["name"]
        self.assertEqual([c["name"] for c in copies], [f"{name}, copy", f"{name}, copy 2"])
        self.assertEqual({**copies[1]["document"], "name": name}, self.job()["document"])
        examples = self.client.get("/api/jobs/examples").json()
        conforms(list[ExampleOut], examples)
        for example in examples:
            opened = self.client.post(f"/api/jobs/examples/{example['key']}")
            self.assertEqual((opened.status_code, opened.json()["name"]), (201, example["name"]))
        self.assert_problem(self.client.post("/api/jobs/examples/nothing"), 404, "motorcycle")
        self.client.delete("/api/jobs/2")
        self.assertEqual([j["id"] for j in self.client.get("/api/jobs?away=true").json()], [2])
        begun = self.client.post("/api/jobs/new", json={"name": "new", "layout": "car_front_rear"}).json()
        empty = self.client.get(f"/api/jobs/{begun['id']}/card").json()
        self.assertEqual((empty["to_go"], empty["push_n"], empty["worst"]), (21, None, None))

    def test_a_typed_bore_moves_every_figure_and_can_be_undone(self) -> None:
        before, shown = self.job(), self.client.get("/api/jobs/1/size").json()
        answer = self.change(0, {"path": BORE, "text": "3/4"}, **SIZE).json()
        conforms(Changed, answer)
        after = answer["job"]
        self.assertEqual(after["document"]["plans"][0]["systems"][0]["cylinder"]["bore_mm"], "3/4 in")

        def at_stop(view: dict[str, Any]) -> dict[str, Any]:
            found: dict[str, Any] = view["setups"][1]["solved"]["paths"][0]["states"][0]["at_stop"]
            return found

        self.assertLess(at_stop(answer["shown"])["pedal_force_n"], at_stop(shown)["pedal_force_n"])
        travel = [at_stop(v)["systems"]["service"]["pedal_travel_mm"] for v in (shown, answer["shown"])]
        self.assertLess(travel[0], travel[1])
        undone = self.client.post("/api/jobs/1/undo", json={"base": 1}).json()
        self.assertEqual(
            (undone["job"]["document"], undone["job"]["redo"], undone["shown"]), (before["document"], "change", None)
        )
        redone = self.client.post("/api/jobs/1/redo", json={"base": 2, **SIZE}).json()
        self.assertEqual({**redone["shown"], "revision": 1}, answer["shown"])

    def test_a_change_brings_back_what_the_page_that_asked_shows_and_nothing_else(self) -> None:
        answer = self.change(0, {"path": BORE, "text": "3/4"}, show={"page": "measure", "setup": "plan A"}).json()
        conforms(Changed, answer)
        self.assertEqual(
            (answer["shown"]["page"], answer["shown"]["setup"], answer["shown"]["revision"]), ("measure", "plan A", 1)
        )
        self.assertIsNone(self.change(1, {"path": BORE, "text": "7/8"}).json()["shown"])
        self.assert_problem(
            self.change(2, {"path": BORE, "text": "3/4"}, show={"page": "nowhere"}), 404, "nowhere", "measure, size"
        )

    def test_exactly_one_push(self) -> None:
        asked = {"setup": "plan A", "decel_g": 0.81}
        moment = self.client.post("/api/jobs/1/moment", json=asked).json()
        again = self.client.post("/api/jobs/1/moment", json={"setup": "plan A", "pedal_force_n": moment["pedal_force_n"]}).json()
        self.assertAlmostEqual(again["decel_g"], 0.81, places=12)

    def test_a_setup_file_becomes_a_job(self) -> None:
        added = self.client.post("/api/jobs", json=example_document())
        self.assertEqual(added.status_code, 201)
        self.assertEqual(added.json()["setups"], ["as found", "plan A"])
        self.assertEqual(len(self.client.get("/api/jobs").json()), 2)

    def test_a_job_file_goes_out_as_it_came_in(self) -> None:
        self.assertEqual(self.client.get("/api/jobs/1/file").json(), demo_document())


class Look(ApiCase):
    def test_a_file_is_looked_at_and_nothing_is_stored(self) -> None:
        document = demo_document()
        told = self.client.post("/api/jobs/look", json=document).json()
        conforms(FileLook, told)
        kinds = [r["kind"] for r in document["records"]]
        self.assertEqual(
            told, {"kind": "job", "name": document["name"], "vehicle": "car", "setups": ["as found", "plan A", "plan B"],
                   "records": len(kinds), "stops": kinds.count("stop"), "traces": 0, "twin": True},
        )  # fmt: skip
        document["name"] = "another"
        self.assertFalse(self.client.post("/api/jobs/look", json=document).json()["twin"])
        setup = self.client.post("/api/jobs/look", json=example_document()).json()
        self.assertEqual((setup["kind"], setup["setups"], setup["records"]), ("setup", ["as found", "plan A"], 0))
        self.assertEqual(self.client.post("/api/jobs/look", content=b"{").status_code, 422)
        self.assertEqual(len(self.client.get("/api/jobs").json()), 1)


class Refusals(ApiCase):
    def test_bad_entries_are_sentences_and_change_nothing(self) -> None:
        before = self.job()
        cases = (("900 psi", "'900 psi'", "length"), ("0", "0 mm", "from 5 mm"), ("-3/4 in", "-3/4 in"), ("1e300", "1e300"), ("NaN", "NaN"),
                 ("13,5", "13.5 or as 135"))  # fmt: skip
        for text, *words in cases:
            self.assert_problem(self.change(0, {"path": BORE, "text": text}), 422, *words)
        pin = self.change(0, {"path": "/plans/0/systems/0/control/pivot_to_pin_mm", "text": "300 mm"})
        self.assert_problem(pin, 422, "pivot to pin", "300 mm", "below 292 mm")
        self.assert_problem(self.change(0, {"path": "/plans/7/name", "value": "x"}), 422, "/plans/7")
        self.assert_problem(self.change(0, {"path": "/nonsense", "value": 1}), 422, "nonsense", "not known")
        self.assertEqual(self.job(), before)

    def test_a_stale_base_gets_both_values(self) -> None:
        self.change(0, {"path": BORE, "text": "3/4"})
        body = self.assert_problem(self.change(0, {"path": BORE, "text": "7/8"}), 409, "changed elsewhere")
        self.assertEqual(body["both"], [{"path": BORE, "yours": "7/8 in", "stored": "3/4 in"}])
        self.assertEqual(body["revision"], 1)

    def test_a_step_whose_answer_was_lost_is_sent_again_and_is_one_step(self) -> None:
        first = self.change(0, {"path": BORE, "text": "3/4"}).json()
        again = self.change(0, {"path": BORE, "text": "3/4"})
        self.assertEqual((again.status_code, again.json()["job"]), (200, first["job"]))
        self.client.post("/api/jobs/1/undo", json={"base": 1})
        self.assert_problem(self.change(0, {"path": BORE, "text": "3/4"}), 409, "changed elsewhere")
        self.assert_problem(self.change(0, {"path": BORE, "text": ""}), 409, "changed elsewhere")

    def test_a_row_sent_again_is_one_row(self) -> None:
        note: dict[str, Any] = {
            "op": "insert",
            "path": "/condition/-",
            "value": {"about": "hose", "text": "chafed", "level": "renew"},
        }
        first = self.change(0, note).json()
        again = self.change(0, note)
        self.assertEqual((again.status_code, again.json()["job"]), (200, first["job"]))
        self.assertEqual(len(self.change(1, note).json()["job"]["document"]["condition"]), 2)
        out = {"op": "remove", "path": "/condition/1", "row": {"was": note["value"], "of": 2}}
        gone = self.change(2, out).json()
        again = self.change(2, {**out, "row": {"was": {**note["value"], "text": "another"}, "of": 2}})
        self.assertEqual((again.status_code, again.json()["job"]), (200, gone["job"]))

    def test_a_row_is_taken_out_by_what_it_was_where_the_list_is_another_by_then(self) -> None:
        rows = [{"about": "hose", "text": text, "level": "watch"} for text in ("one", "two", "three", "four")]
        self.change(0, {"path": "/condition", "value": rows})

        def out(revision: int, place: int, text: str, of: int = 4) -> list[str]:
            row = {"was": next(r for r in rows if r["text"] == text), "of": of}
            answer = self.change(revision, {"op": "remove", "path": f"/condition/{place}", "row": row}).json()
            return [r["text"] for r in answer["job"]["document"]["condition"]]

        self.assertEqual(out(1, 1, "two"), ["one", "three", "four"])
        self.assertEqual(out(2, 1, "two"), ["one", "three", "four"])  # pressed twice
        self.assertEqual(out(2, 2, "three"), ["one", "four"])  # pressed before the list was drawn again
        self.assertEqual(out(3, 1, "one", 2), ["one"])  # as long as it was: that place, whatever was typed in it since
        self.assert_problem(self.change(4, {"op": "remove", "path": "/condition/0", "row": {"was": 1, "of": 0}}), 422, "of")

    def test_questions_without_an_answer(self) -> None:
        def post(body: dict[str, Any]) -> Any:
            return self.client.post("/api/jobs/1/moment", json=body)

        self.assert_problem(post({"setup": "plan C", "decel_g": 0.5}), 404, "plan C", "plan A")
        self.assert_problem(post({"setup": "plan A"}), 422, "exactly one")
        self.assert_problem(post({"setup": "plan A", "decel_g": 0.5, "load": 9}), 422, "load: 9", "0 to 1")
        self.assert_problem(post({"setup": "plan A", "decel_g": 9}), 422, "decel_g")
        nan = self.client.post("/api/jobs/1/moment", content=b'{"setup": "plan A", "decel_g": NaN}', headers=JSON)
        self.assert_problem(nan, 422, "decel_g")

    def test_what_is_not_there(self) -> None:
        self.assert_problem(self.client.get("/api/jobs/99"), 404, "job '99'")
        self.assert_problem(self.client.get("/api/nothing"), 404)
        self.assert_problem(self.client.delete("/api/jobs"), 405)
        self.assert_problem(self.client.post("/api/jobs/1/undo", json={"base": 0}), 404, "to undo")

    def test_bad_files(self) -> None:
        self.assert_problem(self.client.post("/api/jobs", content=b"{"), 422, "Line 1")
        self.assert_problem(self.client.post("/api/jobs", json={"format": "kobrix-job", "version": 2}), 422, "version: 2")
        self.assert_problem(self.client.post("/api/jobs", content=b"x" * (LARGEST_BYTES + 100_000)), 413, "bytes")

    def test_an_unexpected_error_is_a_sentence_too(self) -> None:
        for fault in (ValueError("x"), OverflowError("math range error")):
            with self.assertLogs("kobrix", "ERROR"), mock.patch("kobrix.api.jobs.jobs.all_jobs", side_effect=fault):
                self.assert_problem(self.client.get("/api/jobs"), 500, "not changed")
        app = self.client.app
        app.state.database = Path("/nonexistent/kobrix.sqlite3")  # type: ignore[attr-defined]
        with self.assertLogs("kobrix", "ERROR"):
            self.assert_problem(self.client.get("/api/jobs"), 503, "cannot be opened")


class Guard(ApiCase):
    def test_foreign_hosts_and_origins_are_refused(self) -> None:
        for host in ("evil.example", "127.0.0.1.evil.example", "10.0.0.1:8420", ""):
            self.assert_problem(self.client.get("/api/jobs", headers={"host": host}), 403, "host")
        for origin in ("http://evil.example", "http://127.0.0.1:9999", "null"):
            self.assert_problem(self.client.post("/api/jobs", json={}, headers={"origin": origin}), 403, "own pages")
        for host in ("localhost:8420", "127.0.0.1:8420", "[::1]:8420"):
            self.assertEqual(self.client.get("/api/jobs", headers={"host": host, "origin": f"http://{host}"}).status_code, 200)

    def test_pages_run_only_what_ships(self) -> None:
        for path in ("/", "/jobs/1/size", "/api/jobs", "/assets/a.js", "/api/nothing"):
            policy = self.client.get(path).headers["content-security-policy"]
            self.assertIn("script-src 'self';", policy)
            self.assertIn("default-src 'none'", policy)
            self.assertNotIn("http", policy)
        self.assertEqual(self.client.get("/").headers["cache-control"], "no-store")
        self.assertIn("immutable", self.client.get("/assets/a.js").headers["cache-control"])
        for name, takes, sent in (("a", "gzip", None), ("b", "gzip, br", "gzip"), ("b", "identity", None)):
            reply = self.client.get(f"/assets/{name}.js", headers={"Accept-Encoding": takes})
            self.assertEqual(reply.headers.get("content-encoding"), sent, (name, takes))
            self.assertEqual(
                (reply.text, reply.headers["content-type"]), ({"a": "1", "b": "2 + 2"}[name], "text/javascript; charset=utf-8")
            )

    def test_no_file_outside_is_served(self) -> None:
        for path in ("/assets/../../test.sqlite3", "/assets/%2e%2e/%2e%2e/test.sqlite3"):
            self.assertNotIn(b"SQLite", self.client.get(path).content)
        self.assert_problem(self.client.get("/assets/none.js"), 404, "Not found")
        self.assert_problem(self.client.get("/assets/%2e%2e"), 404, "Not found")

    def test_a_field_that_is_refused_is_named_and_not_its_place_in_the_file(self) -> None:
        both = [BORE, BORE.replace("plans/0", "as_found")]
        refused = self.change(0, *({"path": path, "text": "-3 mm"} for path in both))
        body = self.assert_problem(refused, 422, "bore: '-3 mm' was given; allowed is from 5 mm")
        self.assertEqual(len(body["problems"]), 1)
        self.assertNotIn("systems", body["detail"])
        self.assertEqual(self.job()["revision"], 0)

    def test_what_does_not_say_its_length_is_not_read(self) -> None:
        self.assert_problem(self.client.post("/api/jobs", content=iter([b"{}", b" "])), 411, "how long it is")
        self.assert_problem(self.client.post("/api/jobs", content=b"x" * (LARGEST_BYTES + 1)), 413, f"{LARGEST_BYTES:,} bytes")
        self.assertEqual(len(self.client.get("/api/jobs").json()), 1)

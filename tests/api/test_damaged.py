"""Jobs that an older Kobrix left so that they cannot be opened: said in words, and brought round with as little undone as can be."""

import json
import tempfile
import unittest
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.api.errors import DAMAGED
from kobrix.fileformat import files
from kobrix.store import jobs
from kobrix.store.connection import open_db, prepare

from tests.cases import demo_document


class Damaged(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Path(folder.name) / "test.sqlite3"
        prepare(self.database)
        self.client = TestClient(create_app(self.database), base_url="http://127.0.0.1")

    def left(self, document: dict[str, Any], steps: tuple[tuple[str, Any, Any, int], ...] = ()) -> None:
        """A job as stored, with steps as an older Kobrix kept them: label, edits, inverse, undone."""
        with open_db(self.database) as db:
            jobs.add(db, demo_document())
            db.execute("UPDATE jobs SET document = ?", (json.dumps(document),))
            for label, edits, inverse, undone in steps:
                db.execute(
                    "INSERT INTO changes (job_id, label, edits, inverse, undone) VALUES (1, ?, ?, ?, ?)",
                    (label, json.dumps(edits), json.dumps(inverse), undone),
                )

    def round(self) -> Any:
        """The job brought round, after it was refused in words wherever it is asked for."""
        refused = self.client.get("/api/jobs/1")
        self.assertEqual((refused.status_code, refused.json()["type"]), (422, DAMAGED))
        self.assertIn("brought round", refused.json()["detail"])
        self.assertEqual(self.client.get("/api/jobs/1/size").status_code, 422)
        self.assertEqual(self.client.get("/api/jobs").status_code, 200, "the wall still stands")
        answer = self.client.post("/api/jobs/1/round")
        self.assertEqual(answer.status_code, 200, answer.text)
        self.assertEqual(self.client.get("/api/jobs/1").json(), answer.json())
        self.assertEqual(self.client.get("/api/jobs/1/size").status_code, 200)
        return answer.json()["document"]

    def test_empty_parents_that_an_undo_left_are_taken_out(self) -> None:
        document = demo_document()
        document["plans"][0]["systems"][0]["booster"] = {}
        document["plans"][1]["systems"][0]["control"]["linkage"] = {}
        self.left(document)
        self.assertEqual(self.round(), demo_document())

    def test_the_last_step_is_taken_back_where_that_mends_it(self) -> None:
        document = demo_document()
        bad = {"kind": "hovercraft"}
        document["plans"][0]["systems"][0]["booster"] = bad
        path = "plans.0.systems.0.booster"
        self.left(document, (("booster", [{"path": path, "value": bad}], [{"path": path}], 0),))
        self.assertEqual(self.round(), demo_document())
        self.assertEqual(self.client.get("/api/jobs/1").json()["redo"], "booster")

    def test_a_sound_job_is_left_alone(self) -> None:
        self.left(demo_document())
        before = self.client.get("/api/jobs/1").json()
        after = self.client.post("/api/jobs/1/round").json()
        self.assertEqual(after["document"], before["document"])

    def test_what_nothing_mends_is_said(self) -> None:
        self.left({**demo_document(), "vehicle": {"kind": "ship"}})
        answer = self.client.post("/api/jobs/1/round")
        self.assertEqual(answer.status_code, 404)
        self.assertIn("can be opened", answer.json()["detail"])
        self.assertIsInstance(files.parse_json(answer.content), dict)


if __name__ == "__main__":
    unittest.main()

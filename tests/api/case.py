"""A server with the demo job for each test, and what a refusal looks like."""

import tempfile
import unittest
from pathlib import Path
from typing import Any

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.cli.serve import fill
from kobrix.store.connection import prepare

LOCAL = "http://127.0.0.1"


class ApiCase(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Path(folder.name) / "test.sqlite3"
        prepare(self.database)
        fill(self.database)
        self.client = self.door(create_app(self.database), LOCAL)

    def door(self, app: Any, base: str) -> TestClient:
        """A client of `app` that comes through the address `base`."""
        client = TestClient(app, base_url=base, follow_redirects=False)
        self.addCleanup(client.close)
        return client

    def problem(self, response: Any, status: int, words: str) -> None:
        """The answer is a problem of that status, with those words and no trace of the code."""
        self.assertEqual(response.status_code, status, response.text[:300])
        self.assertEqual(response.headers["content-type"], "application/problem+json")
        self.assertIn(words, response.json()["detail"])
        self.assertNotIn("Traceback", response.text)

"""A start: pages are answered at once and behind the guard, what else is asked waits for the application, and a broken one ends the server."""

import contextlib
import io
import tempfile
import threading
import unittest
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any
from unittest import mock

from fastapi.testclient import TestClient
from kobrix.api import loading
from kobrix.api.loading import Loading
from kobrix.api.lock import hashed
from kobrix.api.pairing import Pairing
from kobrix.cli.main import main
from kobrix.store import settings
from kobrix.store.connection import open_db, prepare

from tests.browser import free_port

HERE = "http://127.0.0.1:8420"


class LoadingTest(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database, self.front = Path(folder.name) / "test.sqlite3", Path(folder.name) / "front"
        prepare(self.database)
        (self.front / "assets").mkdir(parents=True)
        (self.front / "index.html").write_text("<!doctype html><title>Kobrix</title>")
        (self.front / "assets" / "a.js").write_text("1")
        self.loaded, self.failed = threading.Event(), threading.Event()

    def start(self, base: str = HERE, pairing: Pairing | None = None) -> TestClient:
        """A client of a server whose application is there once `loaded` is set."""
        own = loading._application

        def held(*found: Any) -> Any:
            self.loaded.wait()
            return own(*found)

        server = Loading(self.database, self.front, pairing)
        with mock.patch.object(loading, "_application", held):
            server.begin(self.failed.set)
        self.addCleanup(server.application.result)
        self.addCleanup(self.loaded.set)
        client = TestClient(server, base_url=base, follow_redirects=False)
        self.addCleanup(client.close)
        return client

    def test_pages_come_before_the_application_and_behind_its_guard(self) -> None:
        client = self.start()
        for path, words in (("/", "<title>Kobrix"), ("/jobs/1/size", "<title>Kobrix"), ("/assets/a.js", "1")):
            reply = client.get(path)
            self.assertIn(words, reply.text)
            self.assertIn("script-src 'self';", reply.headers["content-security-policy"])
        missing = client.get("/assets/none.js")
        self.assertEqual((missing.status_code, missing.headers["content-type"]), (404, "application/problem+json"))
        self.assertEqual(client.get("/", headers={"host": "evil.example"}).status_code, 403)
        self.assertFalse(self.loaded.is_set())

    def test_what_else_is_asked_waits_and_is_answered(self) -> None:
        client = self.start()
        with ThreadPoolExecutor() as pool:
            waiting = [pool.submit(client.get, path) for path in ("/api/jobs", "/unlock", "/api/nothing")]
            self.assertIn("Kobrix", client.get("/").text)
            self.assertEqual([w.done() for w in waiting], [False] * 3)
            self.loaded.set()
            self.assertEqual([w.result().status_code for w in waiting], [200, 303, 404])
        self.assertIn("Kobrix", client.get("/jobs/1").text)
        self.assertFalse(self.failed.is_set())

    def test_who_may_not_come_in_later_may_not_before(self) -> None:
        outside = self.start("http://10.0.0.7:8420", Pairing("10.0.0.7", 8420, lambda _: None))
        self.assertEqual(outside.get("/").status_code, 403)
        with open_db(self.database) as db:
            settings.put(db, settings.PASSPHRASE, hashed("a long one, with words"))
        self.assertEqual(self.start().get("/").headers["location"], "/unlock")

    def test_a_server_that_cannot_be_loaded_ends_and_says_why(self) -> None:
        words = ["serve", "--database", str(self.database), "--port", str(free_port())]
        with (
            mock.patch.object(loading, "_application", side_effect=RuntimeError("broken")),
            contextlib.redirect_stdout(io.StringIO()),
        ):
            self.assertRaisesRegex(RuntimeError, "broken", main, words)


if __name__ == "__main__":
    unittest.main()

"""The passphrase at the door: without one nothing is asked; with one every browser says it once, and who guesses waits."""

import contextlib
import io
import unittest
from unittest import mock

from kobrix.api.app import create_app
from kobrix.api.guesses import FREE_TRIES
from kobrix.api.lock import LEAST, hashed
from kobrix.api.pairing import COOKIE, Pairing
from kobrix.cli.main import main
from kobrix.core.errors import BadEntry
from kobrix.store import settings
from kobrix.store.connection import open_db

from tests.api.case import LOCAL, ApiCase

WORDS = "a long one, with words"


class LockTest(ApiCase):
    def locked(self, pairing: Pairing | None = None) -> None:
        with open_db(self.database) as db:
            settings.put(db, settings.PASSPHRASE, hashed(WORDS))
        self.app = create_app(self.database, None, pairing)
        self.client = self.door(self.app, LOCAL)

    def say(self, words: str) -> int:
        return self.client.post("/unlock", data={"passphrase": words}, headers={"Origin": LOCAL}).status_code

    def test_without_one_nothing_is_asked(self) -> None:
        self.assertEqual(self.client.get("/api/jobs").status_code, 200)
        self.assertEqual(self.client.get("/unlock").headers["location"], "/")

    def test_with_one_nothing_is_told_until_it_is_said_and_then_all_is(self) -> None:
        self.locked()
        self.problem(self.client.get("/api/jobs"), 401, "passphrase")
        self.problem(self.client.post("/api/jobs/1/undo", json={"base": 0}), 401, "passphrase")
        self.assertEqual(self.client.get("/jobs/1/size").headers["location"], "/unlock")
        page = self.client.get("/unlock")
        self.assertIn("form-action 'self'", page.headers["content-security-policy"])
        self.assertEqual((self.say("another"), self.say("")), (403, 403))
        self.problem(self.client.get("/api/jobs"), 401, "passphrase")
        self.assertEqual(self.say(WORDS), 303)
        self.assertEqual(self.client.get("/api/jobs").status_code, 200)
        # A restart knows it still; taken off the list it is asked again.
        again = self.door(create_app(self.database), LOCAL)
        again.cookies.set(COOKIE, self.client.cookies[COOKIE])
        (own,) = again.get("/api/devices").json()["devices"]
        self.assertEqual(again.delete(f"/api/devices/{own['id']}").status_code, 200)
        self.problem(again.get("/api/jobs"), 401, "passphrase")

    def test_who_guesses_waits(self) -> None:
        self.locked()
        for _ in range(FREE_TRIES):
            self.assertEqual(self.say("wrong"), 403)
        told = self.client.post("/unlock", data={"passphrase": WORDS}, headers={"Origin": LOCAL})
        self.assertIn("wait a little", told.text)
        self.problem(self.client.get("/api/jobs"), 401, "passphrase")

    def test_a_foreign_page_cannot_say_it(self) -> None:
        self.locked()
        told = self.client.post("/unlock", data={"passphrase": WORDS}, headers={"Origin": "http://elsewhere.example"})
        self.problem(told, 403, "its own pages")

    def test_a_device_that_is_paired_has_said_enough(self) -> None:
        pairing = Pairing("10.0.0.7", 8420, lambda _: None)
        self.locked(pairing)
        phone = self.door(self.app, "http://10.0.0.7:8420")
        code = pairing.link.rpartition("/")[2]
        self.assertEqual(phone.post(f"/pair/{code}", headers={"Origin": "http://10.0.0.7:8420"}).status_code, 303)
        self.assertEqual(phone.get("/api/jobs").status_code, 200)

    def test_what_is_kept_is_a_hash_and_a_short_one_is_refused(self) -> None:
        kept = hashed(WORDS)
        self.assertTrue(kept.startswith("$argon2id$"))
        self.assertNotIn("long", kept)
        self.assertNotEqual(kept, hashed(WORDS))
        with self.assertRaisesRegex(BadEntry, f"{LEAST} to"):
            hashed("short")

    def test_on_the_command_line(self) -> None:
        for said, left in ((WORDS, "$argon2id$"), ("", None)):
            out = io.StringIO()
            with mock.patch("sys.stdin", io.StringIO(f"{said}\n")), contextlib.redirect_stdout(out):
                self.assertEqual(main(["passphrase", "--database", str(self.database)]), 0)
            with open_db(self.database) as db:
                kept = settings.get(db, settings.PASSPHRASE)
            self.assertEqual(kept is None, left is None)
            self.assertIn("There is no passphrase" if left is None else "is set", out.getvalue())


if __name__ == "__main__":
    unittest.main()

"""Backups at the door: listed, taken away as one file, put back; only on the machine itself."""

import sqlite3
import unittest
from datetime import date
from pathlib import Path
from tempfile import TemporaryDirectory

from kobrix.api.app import create_app
from kobrix.api.pairing import COOKIE, Pairing
from kobrix.store import backup

from tests.api.case import ApiCase


class Backups(ApiCase):
    def test_a_copy_is_taken_away_and_a_daily_one_put_back(self) -> None:
        self.assertEqual(self.client.get("/api/backups").json()["copies"], [])
        backup.of_the_day(self.database, date(2026, 1, 1))
        name = self.client.get("/api/jobs/1").json()["document"]["name"]
        edit = {"base": 0, "edits": [{"path": "/name", "value": "renamed since"}]}
        self.assertEqual(self.client.post("/api/jobs/1/changes", json=edit).status_code, 200)
        told = self.client.get("/api/backups/now.sqlite3")
        self.assertEqual((told.status_code, told.content[:15]), (200, b"SQLite format 3"))
        with TemporaryDirectory() as folder:
            file = Path(folder) / "b.sqlite3"
            file.write_bytes(told.content)
            db = sqlite3.connect(file)
            self.assertEqual(db.execute("SELECT name FROM jobs").fetchone()[0], "renamed since")
            db.close()
        (copy,) = self.client.get("/api/backups").json()["copies"]
        self.assertEqual((copy["day"], copy["jobs"]), ("2026-01-01", 1))
        back = self.client.post(f"/api/backups/{copy['name']}/restore")
        self.assertEqual(back.status_code, 200, back.text)
        self.assertIn("-before-", back.json()["kept"])
        job = self.client.get("/api/jobs/1").json()
        self.assertEqual((job["document"]["name"], job["revision"]), (name, 2))
        self.problem(self.client.post("/api/backups/none.sqlite3/restore"), 404, copy["name"])

    def test_a_device_of_the_network_neither_takes_nor_puts_back(self) -> None:
        pairing = Pairing("192.0.2.7", 8420, lambda _: None, set(), lambda _name, _digest: None)
        app = create_app(self.database, None, pairing)
        token = pairing.pair(pairing.renew().rpartition("/")[2], "192.0.2.9", "phone")
        phone = self.door(app, "http://192.0.2.7:8420")
        phone.cookies.set(COOKIE, token)
        for told in (phone.get("/api/backups"), phone.get("/api/backups/now.sqlite3"), phone.post("/api/backups/x/restore")):
            self.problem(told, 422, "the machine that Kobrix runs on")


if __name__ == "__main__":
    unittest.main()

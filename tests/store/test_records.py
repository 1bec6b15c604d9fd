"""Records: appended, kept once under their key, struck out by a record of their own, and never changed."""

import sqlite3
import tempfile
import unittest
from pathlib import Path

from kobrix.core.errors import BadEntry, BadFile, NotFound
from kobrix.store import jobs, records
from kobrix.store.connection import open_db, prepare

from tests.cases import demo_document

STOP = {"set": "as found", "speed_kmh": "50 mph", "distance_m": "120 ft"}


class Records(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        path = Path(folder.name) / "a.sqlite3"
        prepare(path)
        self.db = self.enterContext(open_db(path))
        document = demo_document()
        document.pop("records")
        self.job = jobs.add(self.db, document).id

    def test_one_is_kept_as_typed_and_once_under_its_key(self) -> None:
        first = records.add(self.db, self.job, "key-00000001", "stop", STOP)
        again = records.add(self.db, self.job, "key-00000001", "stop", {**STOP, "speed_kmh": 70})
        self.assertEqual(first, again)
        self.assertEqual(first.body, STOP)
        self.assertEqual(records.last_id(self.db, self.job), first.id)
        self.assertEqual(len(records.all_of(self.db, self.job)), 1)

    def test_it_is_never_changed(self) -> None:
        records.add(self.db, self.job, "key-00000001", "stop", STOP)
        with self.assertRaisesRegex(sqlite3.IntegrityError, "never changed"):
            self.db.execute("UPDATE records SET body = '{}'")

    def test_struck_out_and_counted_again_both_stay_written(self) -> None:
        records.add(self.db, self.job, "key-00000001", "stop", STOP)
        records.add(self.db, self.job, "key-00000002", "struck", {"of": "key-00000001", "why": "a dog"})
        self.assertEqual([r.struck for r in records.all_of(self.db, self.job)], ["a dog"])
        records.add(self.db, self.job, "key-00000003", "struck", {"of": "key-00000001"})
        self.assertEqual([r.struck for r in records.all_of(self.db, self.job)], [None])
        self.assertEqual([r["kind"] for r in records.filed(self.db, self.job)], ["stop", "struck", "struck"])

    def test_what_is_no_record_is_refused_and_nothing_kept(self) -> None:
        for kind, body, error, words in (
            ("stop", {"set": "a"}, BadFile, "speed"), ("stop", {**STOP, "speed_kmh": "5000"}, BadFile, "speed"), ("stop", {**STOP, "colour": 1}, BadFile, "colour"),
            ("dream", {}, BadEntry, "stop, push"), ("struck", {"of": "key-99999999", "why": "x"}, NotFound, "key-99999999"),
        ):  # fmt: skip
            with self.assertRaisesRegex(error, words):
                records.add(self.db, self.job, "key-00000009", kind, body)
        with self.assertRaises(NotFound):
            records.add(self.db, 99, "key-00000009", "stop", STOP)
        self.assertEqual(records.all_of(self.db, self.job), [])

    def test_they_go_with_their_job(self) -> None:
        records.add(self.db, self.job, "key-00000001", "stop", STOP)
        self.db.execute("DELETE FROM jobs WHERE id = ?", (self.job,))
        self.assertEqual(self.db.execute("SELECT count(*) FROM records").fetchone()[0], 0)

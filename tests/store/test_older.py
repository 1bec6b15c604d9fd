"""A database that an older Kobrix made: everything in it is there after the newer one has opened it."""

import json
import sqlite3
import tempfile
import unittest
from pathlib import Path

from kobrix.core.errors import BadFile
from kobrix.store import jobs, photos, searches
from kobrix.store.connection import migrations, open_db, prepare

from tests.demo_picture import picture


def fine(document: object) -> None:
    """A check that accepts."""


class Older(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "kobrix.sqlite3"

    def made_by(self, version: int) -> None:
        """A database of a `version` with a job, three changes and one of them undone."""
        self.assertTrue(prepare(self.path, [m for m in migrations() if m[0] <= version]))
        with open_db(self.path) as db:
            db.execute("INSERT INTO jobs (name, document) VALUES ('old', ?)", (json.dumps({"name": "old", "n": 0}),))
            for n in range(3):  # as an older Kobrix kept its steps: values at dotted paths
                kept = ([{"path": "n", "value": v}] for v in (n + 1, n))
                db.execute(
                    "INSERT INTO changes (job_id, label, edits, inverse) VALUES (1, ?, ?, ?)",
                    (f"to {n + 1}", *map(json.dumps, kept)),
                )
            db.execute("UPDATE changes SET undone = 1 WHERE id = 3")
            db.execute("UPDATE jobs SET document = ?, revision = 4", (json.dumps({"name": "old", "n": 2}),))

    def test_every_version_opens_with_its_jobs_and_its_steps(self) -> None:
        for version, _ in migrations():
            with self.subTest(version=version):
                self.path = self.path.with_name(f"v{version}.sqlite3")
                self.made_by(version)
                prepare(self.path)
                with open_db(self.path) as db:
                    self.assertEqual(db.execute("PRAGMA user_version").fetchone()[0], migrations()[-1][0])
                    stored = jobs.get(db, 1)
                    self.assertEqual((stored.name, stored.document["n"], stored.undo, stored.redo), ("old", 2, "to 2", "to 3"))
                    self.assertEqual(jobs.redo(self.path, 1, stored.revision, fine).document["n"], 3)
                    self.assertEqual(jobs.undo(self.path, 1, stored.revision + 1, fine).document["n"], 2)
                    self.assertEqual(db.execute("PRAGMA integrity_check").fetchone()[0], "ok")
                    self.assertEqual(db.execute("PRAGMA foreign_key_check").fetchall(), [])

    def test_a_copy_from_before_is_kept_and_is_whole(self) -> None:
        self.made_by(1)
        prepare(self.path)
        copies = sorted(self.path.parent.glob("kobrix-before-*.sqlite3"))
        self.assertGreaterEqual(len(copies), 1)
        with sqlite3.connect(copies[0]) as old:
            self.assertEqual(old.execute("PRAGMA user_version").fetchone()[0], 1)
            self.assertEqual(json.loads(old.execute("SELECT document FROM jobs").fetchone()[0])["n"], 2)
        old.close()

    def test_a_newer_one_and_one_that_is_no_database_are_not_touched(self) -> None:
        self.made_by(migrations()[-1][0])
        with open_db(self.path) as db:
            db.execute("PRAGMA user_version = 99")
        none = self.path.with_name("none.sqlite3")
        none.write_bytes(b"a shopping list, not a database\n" * 200)
        for path, words in ((self.path, "newer Kobrix made it .version 99."), (none, "no database")):
            before = path.read_bytes()
            with self.assertRaisesRegex(BadFile, words):
                prepare(path)
            self.assertEqual(path.read_bytes(), before)

    def test_with_a_job_everything_of_it_goes(self) -> None:
        self.made_by(migrations()[-1][0])
        with open_db(self.path) as db:
            photos.add(db, 1, picture())
            searches.begin(db, 1, 0, {"setup": "as found"})
            db.execute("DELETE FROM jobs WHERE id = 1")
            for table in ("jobs", "changes", "photos", "searches"):
                self.assertEqual(db.execute(f"SELECT COUNT(*) FROM {table}").fetchone()[0], 0, table)


if __name__ == "__main__":
    unittest.main()

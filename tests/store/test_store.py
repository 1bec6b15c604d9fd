"""The store: changes with inverses, stale edits, migrations, and a kill in the middle of writing."""

import json
import os
import signal
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from typing import Any

from kobrix.core.errors import BadEntry, NotFound, Stale
from kobrix.fileformat.paths import set_at
from kobrix.store import jobs
from kobrix.store.connection import migrations, open_db, prepare, writing

from tests.browser import ROOT


def fine(document: Any) -> None:
    """A check that accepts."""


class StoreCase(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "kobrix.sqlite3"
        self.assertTrue(prepare(self.path))

    def add(self) -> jobs.Stored:
        with open_db(self.path) as db:
            return jobs.add(db, {"name": "a job", "n": 0, "list": [1, 2], "deep": {"x": "y"}})

    def change(self, base: int, gesture: str | None = None, **values: Any) -> jobs.Stored:
        edits = [set_at(path, value) for path, value in values.items()]
        return jobs.change(self.path, 1, base, edits, "edit", gesture, fine)


class Changes(StoreCase):
    def test_change_undo_redo_and_what_survives_a_restart(self) -> None:
        self.add()
        self.assertEqual(self.change(0, n=1).document["n"], 1)
        self.assertEqual(self.change(1, n=2).revision, 2)
        self.assertEqual(jobs.undo(self.path, 1, 2, fine).document["n"], 1)
        with open_db(self.path) as db:  # as after a restart: nothing is kept outside the file
            again = jobs.get(db, 1)
        self.assertEqual((again.undo, again.redo), ("edit", "edit"))
        self.assertEqual(jobs.redo(self.path, 1, again.revision, fine).document["n"], 2)

    def test_a_new_change_ends_the_redo(self) -> None:
        self.add()
        self.change(0, n=1)
        jobs.undo(self.path, 1, 1, fine)
        self.assertIsNone(self.change(2, n=9).redo)

    def test_one_gesture_is_one_step(self) -> None:
        self.add()
        for base, n in enumerate((1, 2, 3)):
            self.change(base, gesture="drag", n=n)
        undone = jobs.undo(self.path, 1, 3, fine)
        self.assertEqual(undone.document["n"], 0)
        self.assertIsNone(undone.undo)

    def test_a_stale_edit_is_refused_with_both_values(self) -> None:
        self.add()
        self.change(0, n=1)
        with self.assertRaises(Stale) as refused:
            self.change(0, n=7)
        self.assertEqual(refused.exception.both, [{"path": "/n", "yours": 7, "stored": 1}])
        with open_db(self.path) as db:
            self.assertEqual(jobs.get(db, 1).document["n"], 1)

    def test_what_the_check_refuses_is_not_stored(self) -> None:
        self.add()

        def never(document: Any) -> None:
            raise BadEntry("n", str(document["n"]), "nothing")

        with self.assertRaises(BadEntry):
            jobs.change(self.path, 1, 0, [set_at("n", 1)], "edit", None, never)
        with open_db(self.path) as db:
            self.assertEqual((jobs.get(db, 1).revision, jobs.get(db, 1).undo), (0, None))

    def test_an_undo_that_would_leave_no_job_is_refused_and_changes_nothing(self) -> None:
        self.add()
        self.change(0, n=1)

        def never(document: Any) -> None:
            raise BadEntry("n", str(document["n"]), "nothing")

        with self.assertRaises(BadEntry):
            jobs.undo(self.path, 1, 1, never)
        with open_db(self.path) as db:
            self.assertEqual((jobs.get(db, 1).revision, jobs.get(db, 1).undo), (1, "edit"))

    def test_of_two_on_one_revision_the_second_is_told_though_both_were_checked(self) -> None:
        self.add()

        def another_comes_first(document: Any) -> None:
            if document["n"] == 7:
                self.change(0, n=1)

        with self.assertRaises(Stale) as refused:
            jobs.change(self.path, 1, 0, [set_at("n", 7)], "edit", None, another_comes_first)
        self.assertEqual(refused.exception.both, [{"path": "/n", "yours": 7, "stored": 1}])
        with open_db(self.path) as db:
            self.assertEqual((jobs.get(db, 1).document["n"], jobs.get(db, 1).revision), (1, 1))

    def test_no_change_is_no_step(self) -> None:
        self.add()
        self.assertEqual(self.change(0, n=0).revision, 0)

    def test_what_is_not_there(self) -> None:
        with open_db(self.path) as db, self.assertRaises(NotFound):
            jobs.get(db, 9)
        with self.assertRaises(NotFound):
            jobs.undo(self.path, 9, 0, fine)
        self.add()
        with self.assertRaises(NotFound):
            jobs.redo(self.path, 1, 0, fine)


class Database(StoreCase):
    def test_it_is_strict_has_foreign_keys_and_a_log_ahead(self) -> None:
        with open_db(self.path) as db:
            self.assertEqual(db.execute("PRAGMA journal_mode").fetchone()[0], "wal")
            self.assertEqual(db.execute("PRAGMA foreign_keys").fetchone()[0], 1)
            self.assertEqual(db.execute("PRAGMA user_version").fetchone()[0], migrations()[-1][0])
            with self.assertRaises(sqlite3.IntegrityError):
                db.execute("INSERT INTO jobs (name, document, revision) VALUES ('x', '{}', 'many')")
            with self.assertRaises(sqlite3.IntegrityError):
                db.execute("INSERT INTO changes (job_id, label, edits, inverse) VALUES (99, 'x', '[]', '[]')")
            with self.assertRaises(sqlite3.IntegrityError):
                db.execute("INSERT INTO jobs (name, document) VALUES ('x', 'no json')")

    def test_a_migration_is_whole_or_not_at_all_and_a_copy_is_kept(self) -> None:
        self.add()
        last = migrations()[-1][0]
        good = (last + 1, "ALTER TABLE jobs ADD COLUMN colour TEXT;")
        self.assertFalse(prepare(self.path, [*migrations(), good]))
        copy = self.path.with_name(f"kobrix-before-{last + 1:04d}.sqlite3")
        self.assertTrue(copy.exists())
        with open_db(copy) as db:
            self.assertEqual(jobs.get(db, 1).name, "a job")
        bad = (last + 2, "CREATE TABLE half (x INTEGER) STRICT; CREATE TABLE half (x INTEGER) STRICT;")
        with self.assertRaises(sqlite3.OperationalError):
            prepare(self.path, [*migrations(), good, bad])
        with open_db(self.path) as db:
            self.assertEqual(db.execute("PRAGMA user_version").fetchone()[0], last + 1)
            self.assertIsNone(db.execute("SELECT 1 FROM sqlite_master WHERE name = 'half'").fetchone())

    def test_a_failed_transaction_leaves_nothing(self) -> None:
        with open_db(self.path) as db:
            with self.assertRaises(ZeroDivisionError), writing(db):
                db.execute("INSERT INTO jobs (name, document) VALUES ('x', '{}')")
                raise ZeroDivisionError
            self.assertEqual(jobs.all_jobs(db), [])


WRITER = """
import sys
from pathlib import Path
from kobrix.store import jobs
for n in range(1, 100000):
    edit = {"op": "set", "path": "/n", "value": n}
    stored = jobs.change(Path(sys.argv[1]), 1, n - 1, [edit], "count", None, lambda d: None)
    print(stored.document["n"], flush=True)
"""


class Killed(StoreCase):
    def test_a_kill_while_writing_loses_nothing_that_was_acknowledged(self) -> None:
        self.add()
        environment = {**os.environ, "PYTHONPATH": str(ROOT / "backend")}
        writer = subprocess.Popen(
            [sys.executable, "-c", WRITER, str(self.path)], stdout=subprocess.PIPE, env=environment, text=True
        )
        assert writer.stdout is not None
        acknowledged = 0
        for line in writer.stdout:
            acknowledged = int(line)
            if acknowledged == 60:
                writer.send_signal(signal.SIGKILL)
        writer.wait()
        writer.stdout.close()
        self.assertGreaterEqual(acknowledged, 60)
        prepare(self.path)
        with open_db(self.path) as db:
            stored = jobs.get(db, 1)
            self.assertIn(stored.document["n"], (acknowledged, acknowledged + 1))
            self.assertEqual(stored.document["n"], stored.revision)
            self.assertEqual(db.execute("PRAGMA integrity_check").fetchone()[0], "ok")
            steps = db.execute("SELECT COUNT(*), MAX(edits) FROM changes").fetchone()
            self.assertEqual(steps[0], stored.revision)
            self.assertIsInstance(json.loads(steps[1]), list)

"""Backups: a copy while the database is in use, one a day kept for thirty, and put back without losing what stood there."""

import contextlib
import io
import sqlite3
import tempfile
import threading
import time
import unittest
from datetime import date, timedelta
from pathlib import Path

from kobrix.cli.main import main
from kobrix.cli.serve import fill, serve
from kobrix.core.errors import BadEntry, BadFile, NotFound
from kobrix.store import backup, jobs, records
from kobrix.store.connection import open_db, prepare


def names(database: Path) -> list[str]:
    """Names of the jobs of a database."""
    with open_db(database) as db:
        return sorted(j.name for j in jobs.all_jobs(db))


class Backups(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.database = self.folder / "own.sqlite3"
        prepare(self.database)
        fill(self.database)

    def test_a_copy_made_while_it_is_written_to_has_everything_stored_before(self) -> None:
        with open_db(self.database) as db:
            db.execute("BEGIN IMMEDIATE")
            db.execute("UPDATE jobs SET name = 'not stored yet'")
            backup.copy_to(self.database, self.folder / "copy.sqlite3")
            db.execute("ROLLBACK")
        with open_db(self.folder / "copy.sqlite3") as db:
            self.assertEqual(len(records.all_of(db, 1)), records.last_id(db, 1))
        self.assertEqual(names(self.folder / "copy.sqlite3"), names(self.database))
        with self.assertRaisesRegex(BadEntry, "never overwrites"):
            backup.copy_to(self.database, self.folder / "copy.sqlite3")

    def test_one_a_day_kept_for_thirty(self) -> None:
        first = date(2026, 1, 1)
        for n in range(34):
            backup.of_the_day(self.database, first + timedelta(days=n))
            backup.of_the_day(self.database, first + timedelta(days=n))
        kept = [f.stem[-10:] for f in backup.copies(self.database)]
        self.assertEqual((len(kept), kept[0], kept[-1]), (31, "2026-01-04", "2026-02-03"))
        self.assertIsNone(backup.of_the_day(self.folder / "none.sqlite3", first))

    def test_put_back_and_what_stood_there_is_kept(self) -> None:
        backup.copy_to(self.database, self.folder / "copy.sqlite3")
        with open_db(self.database) as db:
            db.execute("DELETE FROM jobs")
        kept = backup.put_back(self.folder / "copy.sqlite3", self.database)
        self.assertEqual(len(names(self.database)), 1)
        assert kept is not None
        self.assertEqual(names(kept), [])

    def test_a_daily_copy_is_put_back_while_it_is_in_use_and_every_page_hears_of_it(self) -> None:
        backup.of_the_day(self.database, date(2026, 1, 1))
        with open_db(self.database) as held:
            held.execute("SELECT 1 FROM jobs").fetchone()
            with open_db(self.database) as db:
                db.execute("UPDATE jobs SET name = 'changed since', revision = 7")
            (copy,) = backup.listed(self.database)
            self.assertEqual([f.name for f in backup.copies(self.database)[0].parent.iterdir()], [copy.name])
            self.assertEqual((copy.day, copy.jobs, copy.size > 10_000), ("2026-01-01", 1, True))
            kept = backup.put_back_live(copy.name, self.database)
            self.assertEqual(names(kept), ["changed since"])
            self.assertNotEqual(names(self.database), ["changed since"])
            self.assertEqual(held.execute("SELECT revision FROM jobs").fetchone()[0], 8)
        with self.assertRaisesRegex(NotFound, "2026-01-01"):
            backup.put_back_live("../own.sqlite3", self.database)

    def test_who_reads_meanwhile_never_sees_an_older_make(self) -> None:
        backup.of_the_day(self.database, date(2026, 1, 1))
        (copy,) = backup.copies(self.database)
        with open_db(copy) as db:
            db.execute("DROP TABLE settings")
            db.execute("PRAGMA user_version = 10")
        done, read = threading.Event(), list[object]()

        def look() -> None:
            while not done.is_set():
                with open_db(self.database) as db:
                    try:
                        read.append(db.execute("SELECT count(*) FROM settings").fetchone()[0])
                    except sqlite3.OperationalError as error:
                        read.append(str(error))

        reader = threading.Thread(target=look)
        reader.start()
        while not read:
            time.sleep(0.01)
        for _ in range(3):
            backup.put_back_live(copy.name, self.database)
        done.set()
        reader.join()
        self.assertEqual(set(read), {0})

    def test_a_damaged_copy_is_not_offered_and_the_last_good_one_is(self) -> None:
        for day in (1, 2):
            backup.of_the_day(self.database, date(2026, 1, day))
        newest = backup.copies(self.database)[-1]
        newest.write_bytes(b"SQLite format 3\0" + b"x" * 5000)
        self.assertEqual([c.day for c in backup.listed(self.database)], ["2026-01-01"])
        good = backup.last_good(self.database)
        assert good is not None
        self.assertEqual(good.name, "own-2026-01-01.sqlite3")
        with self.assertRaises(BadEntry):
            backup.put_back_live(newest.name, self.database)
        self.assertEqual(len(names(self.database)), 1)
        self.database.write_bytes(b"no database, only words" * 400)
        with self.assertRaisesRegex(BadFile, "kobrix restore --database .*own.sqlite3 .*own-2026-01-01.sqlite3"):
            serve(self.database, 0, False, False)
        self.assertEqual(main(["restore", "--database", str(self.database), str(good)]), 0)
        self.assertEqual(len(names(self.database)), 1)

    def test_what_is_no_backup_changes_nothing(self) -> None:
        (self.folder / "text.sqlite3").write_text("not a database at all, only words" * 40)
        other = self.folder / "other.sqlite3"
        with open_db(other) as db:
            db.execute("CREATE TABLE birds (name TEXT)")
        for file in (self.folder / "text.sqlite3", other, self.folder / "gone.sqlite3"):
            with self.assertRaises(BadEntry):
                backup.put_back(file, self.database)
        self.assertEqual(len(names(self.database)), 1)

    def test_on_the_command_line(self) -> None:
        out = io.StringIO()
        with contextlib.redirect_stdout(out):
            self.assertEqual(main(["backup", "--database", str(self.database), str(self.folder / "b.sqlite3")]), 0)
            self.assertEqual(main(["restore", "--database", str(self.folder / "new.sqlite3"), str(self.folder / "b.sqlite3")]), 0)
            exported = io.StringIO()
            with contextlib.redirect_stdout(exported):
                self.assertEqual(main(["export", "--database", str(self.database), "1"]), 0)
            (self.folder / "job.json").write_text(exported.getvalue(), encoding="utf-8")
            self.assertEqual(main(["import", "--database", str(self.folder / "third.sqlite3"), str(self.folder / "job.json")]), 0)
        self.assertIn("Restored", out.getvalue())
        self.assertEqual(names(self.folder / "new.sqlite3"), names(self.database))
        with open_db(self.folder / "third.sqlite3") as third, open_db(self.database) as own:
            self.assertEqual(records.filed(third, 1), records.filed(own, 1))


if __name__ == "__main__":
    unittest.main()

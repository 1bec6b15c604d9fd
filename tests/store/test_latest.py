"""How far every job is: read anew only when something was written, and then right."""

import unittest
from pathlib import Path
from tempfile import TemporaryDirectory

from kobrix.store import jobs, records
from kobrix.store.connection import open_db, prepare
from kobrix.store.latest import Latest


class LatestTest(unittest.TestCase):
    def test_what_is_written_is_seen_once(self) -> None:
        with TemporaryDirectory() as folder:
            path = Path(folder) / "a.sqlite3"
            prepare(path)
            latest = Latest(path)
            self.addCleanup(latest.close)
            self.assertTrue(latest.look())
            self.assertEqual((latest.jobs, latest.look()), ({}, False))
            with open_db(path) as db:
                job = jobs.add(db, {"name": "x"}).id
            self.assertTrue(latest.look())
            self.assertEqual(latest.jobs, {job: (0, 0)})
            with open_db(path) as db:
                record = records.add(db, job, "key-00000001", "bedded", {"setup": "as found", "number": 1})
            self.assertTrue(latest.look())
            self.assertEqual((latest.jobs, latest.look()), ({job: (0, record.id)}, False))


if __name__ == "__main__":
    unittest.main()

"""Photographs: kept by their content, of a job, of a kind and size; and paths whose names have dots of their own."""

import hashlib
import tempfile
import unittest
from pathlib import Path

from kobrix.core.errors import BadEntry, NotFound
from kobrix.store import jobs, photos
from kobrix.store.connection import open_db, prepare

from tests.cases import demo_document

PNG = b"\x89PNG\r\n\x1a\n" + b"\0" * 40


class Photos(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "jobs.sqlite3"
        prepare(self.path)
        with open_db(self.path) as db:
            self.job = jobs.add(db, demo_document()).id

    def test_it_is_kept_by_its_content_once(self) -> None:
        with open_db(self.path) as db:
            digest = photos.add(db, self.job, PNG)
            self.assertEqual(digest, hashlib.sha256(PNG).hexdigest())
            self.assertEqual(photos.add(db, self.job, PNG), digest)
            self.assertEqual(db.execute("SELECT count(*) FROM photos").fetchone()[0], 1)
            self.assertEqual(photos.get(db, self.job, digest), photos.Photo("image/png", PNG))

    def test_what_is_no_picture_is_too_large_or_of_no_job_is_refused(self) -> None:
        with open_db(self.path) as db:
            for content in (b"", b"<svg onload=alert(1)>", b"GIF89a" + b"\0" * 20, b"\xff\xd8\xff" + b"\0" * photos.LARGEST):
                with self.assertRaises(BadEntry):
                    photos.add(db, self.job, content)
            with self.assertRaises(NotFound):
                photos.add(db, 99, PNG)
            with self.assertRaises(NotFound):
                photos.get(db, self.job, "0" * 64)

    def test_kinds(self) -> None:
        self.assertEqual(photos.kind_of(b"\xff\xd8\xff\xe0"), "image/jpeg")
        self.assertEqual(photos.kind_of(b"RIFF\0\0\0\0WEBPVP8 "), "image/webp")
        self.assertIsNone(photos.kind_of(b"RIFF\0\0\0\0WAVEfmt "))


class PutAway(unittest.TestCase):
    def test_a_job_is_put_away_and_brought_back_as_it_was(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "jobs.sqlite3"
            prepare(path)
            with open_db(path) as db:
                job = jobs.add(db, demo_document())
                jobs.put_away(db, job.id, True)
                self.assertEqual(jobs.all_jobs(db), [])
                self.assertEqual(jobs.revision(db, job.id), 0)
                self.assertEqual(jobs.put_away(db, job.id, False), job)
                self.assertEqual([j.id for j in jobs.all_jobs(db)], [job.id])
                self.assertIsNone(jobs.revision(db, 99))


if __name__ == "__main__":
    unittest.main()

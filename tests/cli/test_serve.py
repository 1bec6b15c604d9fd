"""Starting the server: what it says when it cannot, what it puts into a new database, and what it leaves alone."""

import asyncio
import contextlib
import io
import json
import socket
import sqlite3
import subprocess
import sys
import tempfile
import unittest
import urllib.request
from pathlib import Path
from unittest import mock

from kobrix.cli import serve
from kobrix.cli.main import main
from kobrix.demo import JOBS
from kobrix.store import jobs, records
from kobrix.store.connection import in_words, open_db, prepare

from tests.browser import free_port, server


class Refused(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.database = Path(folder.name) / "deep" / "kobrix.sqlite3"

    def start(self, *words: str) -> tuple[int, str]:
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            code = main(["serve", "--database", str(self.database), *words])
        return code, err.getvalue()

    def test_a_port_in_use_is_said_with_a_way_out_and_nothing_is_made(self) -> None:
        with socket.socket() as other:
            other.bind(("127.0.0.1", 0))
            other.listen()
            code, said = self.start("--port", str(other.getsockname()[1]))
        self.assertEqual(code, 2)
        self.assertIn("is in use", said)
        self.assertIn("KOBRIX_PORT", said)
        self.assertFalse(self.database.exists())

    def test_without_a_network_there_is_no_lan(self) -> None:
        with mock.patch.object(serve, "lan_address", return_value=None):
            code, said = self.start("--port", str(free_port()), "--lan")
        self.assertEqual(code, 2)
        self.assertIn("in no network", said)

    def test_an_address_of_another_machine_cannot_be_listened_on(self) -> None:
        port = free_port()
        code, said = self.start("--port", str(port), "--lan", "192.0.2.7")
        self.assertEqual(code, 2)
        self.assertIn(f"192.0.2.7:{port} cannot be listened on", said)
        self.assertIn("an address of this machine", said)

    def test_a_port_that_may_not_be_had_is_said_with_a_way_out(self) -> None:
        with socket.socket() as other:  # it is held, and nobody answers there
            other.bind(("127.0.0.1", 0))
            port = other.getsockname()[1]
            code, said = self.start("--port", str(port))
        self.assertEqual(code, 2)
        self.assertIn(f"127.0.0.1:{port} cannot be listened on", said)
        self.assertIn("Choose another port", said)

    def test_a_file_that_is_no_database_is_said_and_left(self) -> None:
        self.database.parent.mkdir()
        self.database.write_text("not a database " * 100)
        code, said = self.start("--port", str(free_port()))
        self.assertEqual((code, said.count("Traceback")), (2, 0))
        self.assertIn("it is no database", said)

    def test_whatever_is_wrong_with_the_database_is_one_sentence_with_the_way_out(self) -> None:
        self.database.parent.mkdir()
        prepare(self.database)
        serve.fill(self.database)
        whole = self.database.read_bytes()
        damaged = self.database.with_name("damaged.sqlite3")
        damaged.write_bytes(whole[:4096] + bytes([0x5A]) * 4096 + whole[8192:])
        locked = self.database.with_name("locked.sqlite3")
        locked.write_bytes(whole)
        holder = sqlite3.connect(locked, isolation_level=None)
        self.addCleanup(holder.close)
        holder.execute("PRAGMA locking_mode = EXCLUSIVE")
        holder.execute("BEGIN EXCLUSIVE")
        below_a_file = self.database / "deeper" / "kobrix.sqlite3"
        for database, words in (
            (self.database.parent, "it is a folder"), (below_a_file, "this folder cannot be made"), (damaged, "is damaged"), (locked, "holds it locked"),
        ):  # fmt: skip
            with self.subTest(words), mock.patch("kobrix.store.connection.BUSY_SECONDS", 0.05):
                out, err = io.StringIO(), io.StringIO()
                with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                    code = main(["serve", "--database", str(database), "--port", str(free_port())])
                self.assertEqual((code, out.getvalue(), err.getvalue().count("\n")), (2, "", 1))
                self.assertIn(words, err.getvalue())
        self.assertEqual(damaged.read_bytes()[4096:8192], bytes([0x5A]) * 4096)

    def test_each_fault_of_a_disk_has_its_words(self) -> None:
        for code, words in ((sqlite3.SQLITE_FULL, "disk is full"), (sqlite3.SQLITE_READONLY, "may only be read"), (sqlite3.SQLITE_IOERR_READ, "disk gave an error")):  # fmt: skip
            error = sqlite3.OperationalError("x")
            error.sqlite_errorcode = code
            self.assertIn(words, str(in_words(error)))
        self.assertIsNone(in_words(sqlite3.OperationalError("no such table: jobs")))

    def test_small_answers_do_not_wait_for_the_receipt_of_the_last(self) -> None:
        async def asked() -> int:
            accepted = asyncio.get_running_loop().create_future()

            def took(_reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
                accepted.set_result(writer.get_extra_info("socket").getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY))
                writer.close()

            listening = serve._listening("127.0.0.1", 0)
            async with await asyncio.start_server(took, sock=listening):
                _, writer = await asyncio.open_connection(*listening.getsockname())
                found: int = await accepted
                writer.close()
                return found

        self.assertNotEqual(asyncio.run(asked()), 0)

    def test_the_loopback_is_no_network(self) -> None:
        with mock.patch("kobrix.cli.serve.socket.socket") as probe:
            probe.return_value.__enter__.return_value.getsockname.return_value = ("127.0.0.1", 1)
            self.assertIsNone(serve.lan_address())
            probe.return_value.__enter__.return_value.connect.side_effect = OSError
            self.assertIsNone(serve.lan_address())
            probe.return_value.__enter__.return_value.connect.side_effect = None
            probe.return_value.__enter__.return_value.getsockname.return_value = ("10.1.2.3", 1)
            self.assertEqual(serve.lan_address(), "10.1.2.3")


class Light(unittest.TestCase):
    def test_a_start_loads_nothing_that_only_a_question_needs(self) -> None:
        heavy = ("scipy.stats", "scipy.special", "scipy.optimize", "scipy.integrate", "ezdxf", "reportlab", "openpyxl", "gpxpy")
        code = f"import sys, kobrix.cli.serve; print([name for name in {heavy} if name in sys.modules])"
        loaded = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True).stdout
        self.assertEqual(loaded.strip(), "[]")


class Twice(unittest.TestCase):
    def test_the_demo_is_put_in_once_and_what_was_deleted_stays_deleted(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            database = Path(folder) / "demo.sqlite3"
            with server(database) as url:
                with urllib.request.urlopen(f"{url}/api/jobs") as answer:
                    (job,) = json.load(answer)
                urllib.request.urlopen(urllib.request.Request(f"{url}/api/jobs/{job['id']}", method="DELETE")).close()
            with server(database) as url, urllib.request.urlopen(f"{url}/api/jobs") as answer:
                self.assertEqual(json.load(answer), [])

    def test_one_s_own_database_begins_empty(self) -> None:
        with tempfile.TemporaryDirectory() as folder, server(Path(folder) / "own.sqlite3", demo=False) as url:
            with urllib.request.urlopen(f"{url}/api/jobs") as answer:
                self.assertEqual(json.load(answer), [])
                self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")
            with urllib.request.urlopen(f"{url}/jobs") as answer:
                policy = answer.headers["Content-Security-Policy"]
            self.assertNotIn("unsafe-inline", policy.split("style-src")[0])
            self.assertIn("default-src", policy)


class Filled(unittest.TestCase):
    def test_what_is_filled_in_is_the_demo_job_as_its_file_has_it(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            database = Path(folder) / "a.sqlite3"
            self.assertTrue(prepare(database))
            serve.fill(database)
            with open_db(database) as db:
                (stored,) = jobs.all_jobs(db)
                document = jobs.get(db, stored.id).document | {"records": records.filed(db, stored.id)}
            self.assertEqual(document, json.loads(JOBS[0].read_text(encoding="utf-8")))


if __name__ == "__main__":
    unittest.main()

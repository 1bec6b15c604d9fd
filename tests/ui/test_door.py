"""The door as a real browser comes through it: a phone that is paired by its link, and the passphrase. Browsers send what a test client does not."""

import os
import re
import subprocess
import unittest
from pathlib import Path
from tempfile import TemporaryDirectory

from kobrix.api.lock import hashed
from kobrix.store import settings
from kobrix.store.connection import open_db, prepare
from playwright.sync_api import expect

from tests.browser import PATIENCE_S, ROOT, command, free_port, server, wait_until_up
from tests.ui.case import UiCase

OUTSIDE = "127.0.0.2"  # another address of this machine stands in for the network


class Door(UiCase):
    def test_a_link_lets_a_phone_in_once_it_says_so(self) -> None:
        with TemporaryDirectory() as folder:
            port = free_port()
            words = [*command(Path(folder) / "own.sqlite3", port), "--lan", OUTSIDE]
            environment = {**os.environ, "PYTHONPATH": str(ROOT / "backend"), "PYTHONUNBUFFERED": "1"}
            with subprocess.Popen(words, env=environment, stdout=subprocess.PIPE, text=True) as process:
                try:
                    assert process.stdout is not None
                    link = next(
                        found[0] for line in process.stdout if (found := re.search(r"http://127\.0\.0\.2:\d+/pair/\w+", line))
                    )
                    wait_until_up(f"http://127.0.0.1:{port}")
                    page = self.new_page()
                    page.goto(link)
                    self.axe(page)
                    page.get_by_role("textbox", name="What is it called?").fill("R. H.'s phone")
                    page.get_by_role("button", name="Let it in").click()
                    expect(page).to_have_url(re.compile("/jobs/1/size$"))  # the one job that there is
                    page.goto(f"{link.partition('/pair')[0]}/jobs")
                    expect(page.get_by_role("region", name="Devices")).to_contain_text("R. H.'s phone")
                finally:
                    process.terminate()
                    process.wait(timeout=PATIENCE_S)

    def test_the_passphrase_is_asked_for_and_said(self) -> None:
        with TemporaryDirectory() as folder:
            database = Path(folder) / "own.sqlite3"
            prepare(database)
            with open_db(database) as db:
                settings.put(db, settings.PASSPHRASE, hashed("a long one, with words"))
            with server(database) as url:
                page = self.new_page()
                page.goto(f"{url}/jobs")
                said = page.get_by_label("Passphrase")
                said.fill("a wrong one, with words")
                page.get_by_role("button", name="Open").click()
                expect(page.get_by_role("alert")).to_have_text("That is not it.")
                self.axe(page)
                said.fill("a long one, with words")
                said.press("Enter")
                expect(page.get_by_role("heading", name="New job")).to_be_visible()  # an empty wall
                page.context.clear_cookies()
                page.goto(f"{url}/jobs")
                expect(said).to_be_visible()


if __name__ == "__main__":
    unittest.main()

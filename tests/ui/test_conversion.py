"""A whole conversion with a phone at the vehicle: the order of the groups and every step of Build, over a killed server and a phone off line."""

import io
import os
import re
import subprocess
import tempfile
import unittest
from pathlib import Path

from playwright.sync_api import expect
from pypdf import PdfReader

from tests.browser import ROOT, command, free_port, wait_until_up
from tests.ui.case import PHONE, UiCase


class Conversion(UiCase):
    width, height = PHONE
    touch = True

    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        port = free_port()
        self.words = command(Path(folder.name) / "job.sqlite3", port)
        self.url = f"http://127.0.0.1:{port}"
        self.process = self.serve()
        self.addCleanup(lambda: self.kill())  # the one that runs then

    def serve(self) -> "subprocess.Popen[bytes]":
        process = subprocess.Popen(self.words, env={**os.environ, "PYTHONPATH": str(ROOT / "backend")}, stdout=subprocess.DEVNULL)
        wait_until_up(self.url)
        return process

    def kill(self) -> None:
        """As a power cut would."""
        self.process.kill()
        self.process.wait()

    def press(self, then: "re.Pattern[str]") -> None:
        """What the step on screen asks for: a tap, or for what kills a signature that is held until it is stored."""
        page = self.page
        hold = page.get_by_role("button", name=re.compile("^Hold to sign"))
        done = page.get_by_role("button", name="Done", exact=True)
        expect(hold.or_(done)).to_be_enabled()
        if done.count():
            done.tap()
            return
        hold.hover()
        page.mouse.down()
        expect(self.said).to_have_text(then)
        page.mouse.up()

    def test_every_step_is_done_signed_and_on_the_inspectors_page(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        page.get_by_role("button", name=re.compile("^Steps in this order")).tap()
        said = self.said = page.get_by_text(re.compile(r"^\d+ of \d+ steps done"))
        expect(page.get_by_role("region", name="Steps: pedal")).to_be_visible()
        whole = int(re.findall(r"of (\d+) steps", said.inner_text())[0])
        self.assertGreater(whole, 100)
        waits = page.get_by_role("status", name="Not stored yet")
        for n in range(whole):
            signer = page.get_by_role("textbox", name="who signs")
            if signer.count() and signer.input_value() == "":
                signer.fill("R. H.")
            then = re.compile(rf"^{n + 1} of {whole} steps done")
            if n == 7:
                self.kill()
                self.press(then)
                expect(waits).to_contain_text("1 change waits")
                self.process = self.serve()
            elif 31 <= n < 36:  # the phone is off line for five steps: each is done at once, and all are sent later
                page.context.set_offline(True)
                self.press(then)
                expect(waits).to_contain_text(f"{n - 30} change")
                if n < 35:
                    continue
                page.context.set_offline(False)
            else:
                self.press(then)
            expect(said).to_have_text(then)
            expect(waits).to_have_count(0)
        expect(said).to_have_text(re.compile(r"(\d+) of \1 critical ones signed$"))
        told = page.request.get(f"{self.url}/api/jobs/1/dossier.pdf?setup=plan+A").body()
        text = " ".join(PdfReader(io.BytesIO(told)).pages[0].extract_text().split())
        self.assertNotIn("are not signed", text)
        self.assertIn("tightened, value unknown", text)
        self.assertIn("R. H.", text)
        self.assertIn("cm³ of air", text)  # what was left in on purpose still stands in the way


if __name__ == "__main__":
    unittest.main()

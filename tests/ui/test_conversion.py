"""A whole conversion with a phone at the vehicle, from the order of the groups over every step of Build, the screws, the stand test and
the leak watch to bedded pads: over a server that is killed twice and a phone off line."""

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
from tests.cases import demo_document
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

    def new_job(self) -> str:
        """The demo's vehicle and plans as a job of its own, of which nothing has been worked yet: its address."""
        document = {k: v for k, v in demo_document().items() if k != "records"}
        made = self.page.request.post(f"{self.url}/api/jobs", data=document)
        self.assertEqual(made.status, 201, made.text())
        return f"/jobs/{made.json()['id']}"

    def test_a_plan_is_carried_from_the_order_of_the_groups_to_bedded_pads(self) -> None:
        job = self.new_job()
        self.build(job)
        self.bleed(job)
        self.bed(job)
        told = self.page.request.get(f"{self.url}/api{job}/dossier.pdf?setup=plan+A").body()
        text = " ".join(PdfReader(io.BytesIO(told)).pages[0].extract_text().split())
        self.assertNotIn("are not signed", text)
        for words in (
            "tightened, value unknown",
            "R. H.",
            "cm³ of air",
            "12 of 12 slow-downs driven after Orlan Friction sheet 12 (invented)",
            "5 of 5 dry after the hold, 0 of 5 after",
        ):  # the air is still in there
            self.assertIn(words, text)

    def build(self, job: str) -> None:
        """Every step is done or signed; the server is killed once, and the phone is off line for five of them."""
        page = self.page
        page.goto(f"{self.url}{job}/build")
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

    def bleed(self, job: str) -> None:
        """Four screws, a hold, a stand test with the air left in, and every opened joint looked at; the server is killed in the middle."""
        page = self.page
        page.goto(f"{self.url}{job}/bleed")
        for n in range(1, 5):
            page.get_by_role("button", name=re.compile("^No bubbles: ")).first.tap()
            expect(page.get_by_text(re.compile(f"^{n} of 4 screws without bubbles"))).to_be_visible()
        page.get_by_role("textbox", name="ruler after 5 s").fill("88")
        page.get_by_role("textbox", name="ruler then").fill("88")
        page.get_by_role("button", name="Keep this hold").tap()
        pushes = [r["body"] for r in demo_document()["records"] if r["kind"] == "push"]
        for n, push in enumerate(pushes):
            if n == 2:
                self.kill()
            for name, key in (
                ("scale on the pad", "force"),
                ("front gauge", "front_kpa"),
                ("rear gauge", "rear_kpa"),
                ("ruler", "travel_mm"),
            ):
                page.get_by_role("textbox", name=name, exact=True).fill(push[key])
            page.get_by_role("button", name="Keep this push").tap()
            expect(page.get_by_role("textbox", name="scale on the pad")).to_have_value("")
            if n == 2:
                expect(page.get_by_role("status", name="Not stored yet")).to_contain_text("1 change waits")
                self.process = self.serve()
                expect(page.get_by_role("status", name="Not stored yet")).to_have_count(0)
        expect(page.get_by_text(re.compile("0.5\\d cm³ of air"))).to_be_visible()
        watch = page.get_by_role("region", name="Leak watch")
        dry = watch.get_by_role("button", name=re.compile("^Dry after the hold: "))
        for left in range(dry.count(), 0, -1):
            expect(dry).to_have_count(left)
            dry.first.tap()
        expect(watch.get_by_role("status")).to_contain_text("All dry after the hold")

    def bed(self, job: str) -> None:
        """Every slow-down of the recipe is counted."""
        page = self.page
        page.goto(f"{self.url}{job}/bed")
        for n in range(1, 13):
            expect(page.get_by_text(f"Slow-down {n} of 12")).to_be_visible()
            page.get_by_role("button", name="It started now").tap()
        expect(page.get_by_text("12 of 12 slow-downs driven")).to_be_visible()


if __name__ == "__main__":
    unittest.main()

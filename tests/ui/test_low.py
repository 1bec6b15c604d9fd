"""Size on a laptop of little height: the danger first, whole instruments, nothing that lies over something else."""

import json
import urllib.request
from typing import Any

from kobrix.demo import SETUPS
from playwright.sync_api import expect

from tests.ui.case import UiCase

LEAST = 240  # CSS pixels of an instrument


class Low(UiCase):
    width, height = 1366, 640

    def add(self, body: bytes) -> int:
        request = urllib.request.Request(f"{self.url}/api/jobs", body, {"Content-Type": "application/json"})
        with urllib.request.urlopen(request) as answer:
            return int(json.load(answer)["id"])

    def box(self, locator: Any) -> dict[str, float]:
        """A part's box; it must be drawn."""
        found = locator.bounding_box()
        self.assertIsNotNone(found)
        return dict(found)

    def test_the_worst_danger_and_its_mend_stand_on_the_first_screen(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+B")
        worst = page.get_by_role("region", name="The worst finding")
        expect(worst).to_contain_text("The rear locks first")
        mend = worst.get_by_role("button")
        expect(mend).to_be_visible()
        at = self.box(worst)
        self.assertLess(at["y"] + at["height"], 200)
        mend.click()
        expect(page.get_by_role("status").filter(has_text="Tried, not stored")).to_be_visible()
        expect(worst).to_have_count(0)
        page.get_by_role("button", name="Leave it").click()
        expect(worst).to_be_visible()
        self.no_errors()

    def test_the_chain_is_opened_and_folded(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+A")
        expect(page.get_by_text("was 7/8 in", exact=True)).to_be_visible()
        pin = page.get_by_role("textbox", name="pin")
        expect(pin).to_have_count(0)
        page.get_by_role("button", name="full chain").focus()
        page.keyboard.press("Enter")
        expect(pin.first).to_be_visible()
        page.get_by_role("button", name="short chain").click()
        expect(pin).to_have_count(0)
        self.axe()
        self.no_errors()

    def test_no_instrument_is_crushed_and_nothing_sticks_out(self) -> None:
        jobs = [1, *(self.add(path.read_bytes()) for path in SETUPS)]
        for job in jobs:
            for width, height in ((1366, 640), (1280, 680)):
                self.page.set_viewport_size({"width": width, "height": height})
                page = self.open(f"/jobs/{job}/size")
                strip = page.get_by_role("region", name="Feel").first
                expect(strip).to_be_visible()
                with self.subTest(job=job, width=width):
                    self.assertGreaterEqual(self.box(strip)["height"], LEAST - 1)
                    self.fits()

    def test_higher_it_is_the_whole_sheet_again(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+B")
        self.page.set_viewport_size({"width": 1366, "height": 800})
        expect(page.get_by_role("textbox", name="pin").first).to_be_visible()
        expect(page.get_by_role("region", name="The worst finding")).to_have_count(0)


class Tablet(UiCase):
    width, height = 1024, 768

    def test_every_instrument_is_whole(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+B")
        for name in ("Feel", "Balance", "Heat"):
            part = page.get_by_role("region", name=name).first
            part.scroll_into_view_if_needed()
            whole = part.evaluate("(e) => e.scrollHeight - e.clientHeight")
            self.assertLessEqual(whole, 1, name)
        self.fits()

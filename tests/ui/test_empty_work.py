"""Fit, Build, Bleed, Bed and Prove of a job in which nothing stands yet, for every layout: what is missing is said, with the way to it."""

import unittest
from typing import get_args

from kobrix.fileformat.layouts import Layout
from playwright.sync_api import expect

from tests.ui.case import LAPTOP, PHONE, UiCase

LOW = (1366, 640)
SAID = {
    "fit": "The list is empty: this setup changes nothing yet.",
    "build": "No steps: this setup changes nothing yet.",
    "bleed": "No pressure can be predicted yet",
    "bed": "No stop can be predicted yet",
    "prove": "No set yet.",
}


class Empty(UiCase):
    def begin(self, layout: str) -> int:
        told = self.page.request.post(f"{self.url}/api/jobs/new", data={"name": layout, "layout": layout})
        self.assertEqual(told.status, 201)
        return int(told.json()["id"])

    def test_every_layout_says_what_is_missing_at_every_size(self) -> None:
        page = self.page
        for layout in get_args(Layout):
            job = self.begin(layout)
            for stage, words in SAID.items():
                for width, height in (LAPTOP, LOW, PHONE):
                    with self.subTest(layout=layout, stage=stage, width=width):
                        page.set_viewport_size({"width": width, "height": height})
                        page.goto(f"{self.url}/jobs/{job}/{stage}")
                        expect(page.get_by_text(words, exact=False).first).to_be_visible()
                        self.fits()
        self.no_errors()

    def test_the_way_leads_to_measure_and_nothing_breaks_a_rule(self) -> None:
        page = self.page
        job = self.begin("car_front_rear")
        for stage, words in SAID.items():
            page.goto(f"{self.url}/jobs/{job}/{stage}")
            expect(page.get_by_text(words, exact=False).first).to_be_visible()
            self.axe()
        for stage in ("bleed", "bed"):
            page.goto(f"{self.url}/jobs/{job}/{stage}")
            page.get_by_role("main").get_by_role("link", name="Measure").click()
            expect(page.get_by_role("navigation", name="What to measure")).to_be_visible()
        page.goto(f"{self.url}/jobs/{job}/fit")
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_text("Nothing can be said yet", exact=False)).to_be_visible()
        self.no_errors()

    def test_work_on_the_brake_as_it_is_can_be_listed_without_a_plan(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/{self.begin('motorcycle')}/build")
        expect(page.get_by_role("heading", name="What else is done")).to_be_visible()
        page.get_by_role("button", name="Add its steps").click()
        expect(page.get_by_role("heading", name="Every step")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text(SAID["build"])).to_be_visible()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

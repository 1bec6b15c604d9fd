"""The page of questions people ask: found by keys, answered for the setup chosen, on a laptop and a phone, for every vehicle."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase


class Questions(UiCase):
    def test_it_is_found_by_keys_and_answers_for_the_setup_chosen(self) -> None:
        page = self.open()
        page.keyboard.press("/")
        page.get_by_role("searchbox").or_(page.get_by_role("combobox")).first.fill("questions")
        page.keyboard.press("Enter")
        expect(page).to_have_url(re.compile(r"/jobs/1/questions$"))
        bore = page.get_by_role("region", name="Which bore for this pedal?")
        expect(bore).to_contain_text("13/16 in, as it is")
        expect(page.get_by_role("region", name="May I drive it half done?")).to_contain_text("Best order")
        self.axe()
        page.goto(f"{self.url}/jobs/1/questions?plan=as+found")
        expect(bore).to_contain_text("7/8 in, as it is")
        expect(page.get_by_role("region", name="May I drive it half done?")).to_have_count(0)
        page.get_by_role("link", name="Settle it in Match").click()
        expect(page).to_have_url(re.compile(r"/jobs/1/match"))
        self.no_errors()

    def test_every_vehicle_and_an_empty_job_have_their_page(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        for name in ("motorcycle", "hill-climb", "light-aircraft", "trials-car"):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{name}").status, 201)
        page.request.post(f"{self.url}/api/jobs/new", data={"name": "a new car", "layout": "car_diagonal"})
        for job in range(1, 7):
            page.goto(f"{self.url}/jobs/{job}/questions")
            expect(page.get_by_role("heading", name="Questions people ask").first).to_be_visible()
            if job == 6:
                expect(page.get_by_text(re.compile("^No question can be answered yet"))).to_be_visible()
            else:
                expect(page.get_by_role("region", name=re.compile(r"\\?$")).first).to_be_visible()
            for width, height in ((1366, 640), PHONE):
                page.set_viewport_size({"width": width, "height": height})
                self.fits()
            self.axe()
            page.set_viewport_size({"width": 1280, "height": 800})
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

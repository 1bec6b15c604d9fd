"""Any stage on paper: a whole sheet on A4 across, from a laptop and from a phone, with nothing on it that is only pressed."""

import datetime
import re
import unittest

from playwright.sync_api import Page, expect

from tests.ui.case import PATIENCE, PHONE, UiCase

STAGES = {"Size": "/jobs/1/size", "Measure": "/jobs/1/measure?part=brake.0.0", "Match": "/jobs/1/match?setup=plan+A"}


class Printed(UiCase):
    def stage(self, name: str) -> Page:
        page = self.page
        page.goto(self.url + STAGES[name])
        if name == "Match":
            expect(page.get_by_role("status")).to_contain_text("setups tried", timeout=3 * PATIENCE)
        expect(page.get_by_role("main")).to_be_visible()
        self.idle()
        return page

    def pages(self, page: Page) -> list[tuple[float, float]]:
        """The size of each page of the print, in mm."""
        boxes = re.findall(rb"/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]", page.pdf(prefer_css_page_size=True))
        return [(float(w) / 72 * 25.4, float(h) / 72 * 25.4) for w, h in boxes]

    def check(self, name: str) -> None:
        page = self.stage(name)
        pages = self.pages(page)
        self.assertLessEqual(len(pages), 2 if name == "Match" else 1, name)
        for wide, high in pages:
            self.assertAlmostEqual(wide, 297, delta=1)
            self.assertAlmostEqual(high, 210, delta=1)
        page.emulate_media(media="print")
        expect(page.get_by_role("banner")).to_contain_text("Merrow Skiff estate, electric conversion")
        if self.width > self.height:  # which setup, and when it was printed
            expect(page.get_by_role("banner")).to_contain_text("as found" if name == "Measure" else "plan A")
            expect(page.get_by_role("banner")).to_contain_text(str(datetime.datetime.now().astimezone().year))
        for gone in ("Undo", "Redo", "Find", "Keys", "Again", "More push", "Next unknown", "table"):
            for button in page.get_by_role("button", name=gone).all():
                expect(button).to_be_hidden()
        page.emulate_media(media="null")


class Paper(Printed):
    def test_from_a_laptop(self) -> None:
        for name in STAGES:
            self.check(name)
        self.no_errors()

    def test_every_invented_vehicle_is_one_sheet_however_much_is_found(self) -> None:
        page = self.page
        for n, example in enumerate(("hill-climb", "motorcycle", "light-aircraft", "trials-car"), 2):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{example}").status, 201)
            page.goto(f"{self.url}/jobs/{n}/size")
            found = page.get_by_role("region", name="Findings")
            expect(found.get_by_text("Per cents are of 400 plausible vehicles")).to_be_visible()  # all are tried
            expect(found.get_by_text("being tried")).to_have_count(0)
            self.assertEqual(len(self.pages(page)), 1, example)
            page.goto(f"{self.url}/jobs/{n}/measure")
            expect(page.get_by_role("main")).to_be_visible()
            self.assertEqual(len(self.pages(page)), 1, f"{example}: Measure")
        self.no_errors()

    def test_the_figures_of_the_line_stay(self) -> None:
        page = self.stage("Size")
        page.emulate_media(media="print")
        expect(page.get_by_text("One wrong joint loses all braking").first).to_be_visible()
        line = page.get_by_role("img", name="Force line")
        for figure in ("341 N", "1909 N", "5.42 MPa", "1073 N m"):
            expect(line).to_contain_text(figure)
        for finding in page.get_by_role("region", name="Findings").get_by_role("listitem").all():
            expect(finding).to_be_visible()

    def test_the_reasons_of_a_search_stay(self) -> None:
        page = self.stage("Match")
        page.emulate_media(media="print")
        expect(page.get_by_role("table").get_by_role("row").nth(3)).to_be_visible()
        for words in ("Why the others fell", "What must hold", "Push against travel"):
            expect(page.get_by_role("heading", name=re.compile(words))).to_be_visible()
        expect(page.get_by_text("inspection come first")).to_be_visible()


class FromALowLaptop(Printed):
    width, height = 1366, 640

    def test_the_whole_chain_stands_on_one_sheet(self) -> None:
        self.check("Size")
        page = self.page
        expect(page.get_by_text("full chain")).to_be_visible()  # on the screen it is folded
        page.evaluate("window.dispatchEvent(new Event('beforeprint'))")
        expect(page.get_by_text("full chain")).to_have_count(0)
        expect(page.get_by_role("region", name="The worst finding")).to_have_count(0)
        page.evaluate("window.dispatchEvent(new Event('afterprint'))")
        expect(page.get_by_text("full chain")).to_be_visible()
        self.no_errors()


class FromAPhone(Printed):
    """The same sheets: paper is as wide whatever asks for it."""

    width, height = PHONE
    touch = True

    def test_from_a_phone(self) -> None:
        for name in STAGES:
            self.check(name)


if __name__ == "__main__":
    unittest.main()

"""Without a mouse, without colour, by ear: past the strip to the sheet, forced colours, what undo did, workings on a phone."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase

MARKS = "svg .edge, svg .heavy, svg .force, svg .mark-outline, svg .mark-line"
PAGES = ("/jobs/1/measure", "/jobs/1/size", "/jobs/1/match?setup=plan%20A")


class Access(UiCase):
    def test_the_first_key_leads_past_the_strip_to_the_sheet(self) -> None:
        page = self.page
        for path in PAGES:
            page.goto(self.url + path)
            skip = page.get_by_role("button", name="To the sheet")
            expect(skip).to_be_attached()
            page.keyboard.press("Tab")
            expect(skip).to_be_focused()
            expect(skip).to_be_in_viewport()
            self.axe()
            page.keyboard.press("Enter")
            expect(page.get_by_role("main")).to_be_focused()
        self.no_errors()

    def test_what_was_undone_and_done_again_is_said(self) -> None:
        page = self.open()
        field = page.get_by_role("textbox", name="Cylinder bore")
        field.fill("3/4")
        field.press("Enter")
        undo = page.get_by_role("button", name="Undo: bore")
        undo.click()
        expect(page.get_by_text("Undone: bore")).to_be_attached()
        page.get_by_role("button", name="Redo: bore").click()
        expect(page.get_by_text("Done again: bore")).to_be_attached()
        self.no_errors()

    def test_forced_colours_keep_every_mark(self) -> None:
        for scheme in ("light", "dark"):
            page = self.new_page(forced_colors="active", color_scheme=scheme)
            for path in (*PAGES, "/jobs"):
                page.goto(self.url + path)
                expect(page.locator(MARKS).first).to_be_attached()
                self.idle(page)
                hidden = page.evaluate(
                    """(marks) => {
                      const ground = getComputedStyle(document.body).backgroundColor;
                      return [...document.querySelectorAll(marks)].filter((e) => getComputedStyle(e).stroke === ground).length;
                    }""",
                    MARKS,
                )
                self.assertEqual(hidden, 0, path)
            page.goto(f"{self.url}/jobs/1/size")
            chosen = page.get_by_role("radio", name=re.compile("^Plan A"))
            other = page.get_by_role("radio", name=re.compile("^Plan B"))
            expect(chosen).to_be_checked()
            grounds = [tab.evaluate("e => getComputedStyle(e).backgroundColor") for tab in (chosen, other)]
            self.assertNotEqual(*grounds)
        self.no_errors()


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def test_every_link_s_working_is_there(self) -> None:
        page = self.open()
        for link, figure in (("Cylinder", "5.42 MPa"), ("Pedal", "1909"), ("Road", "0.810 g")):
            page.get_by_role("button", name=f"{link}: working").tap()
            working = page.get_by_role("region", name=f"Working: {link}")
            expect(working.get_by_text(figure).first).to_be_visible()
            self.fits()
            self.axe()
            working.get_by_role("button", name="Close").tap()
            expect(page.get_by_role("img", name="Force line")).to_be_visible()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

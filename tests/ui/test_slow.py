"""A machine many times as slow: what is pressed counts from what was pressed before, and nothing is stored twice."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import UiCase


class Slow(UiCase):
    def slow(self, times: float) -> None:
        self.page.context.new_cdp_session(self.page).send("Emulation.setCPUThrottlingRate", {"rate": times})

    def test_each_key_on_the_knee_counts_from_where_the_last_put_it(self) -> None:
        page = self.open()
        knee = page.get_by_role("slider", name="Valve knee")
        expect(knee).to_have_attribute("aria-valuenow", re.compile("^5765"))
        self.slow(10)
        for n in range(1, 4):
            knee.press("Shift+ArrowLeft")
            page.wait_for_timeout(900)  # a person's pace; the page is not drawn yet, which is what is tried here
            shown = int(knee.get_attribute("aria-valuenow") or 0)
            self.assertLess(abs(shown - (5765 - 500 * n)), 20)
        self.slow(1)
        expect(page.get_by_role("textbox", name="knee")).to_have_value(re.compile(r"^4\.2\d MPa"))
        self.no_errors()

    def test_an_entry_is_stored_once_and_undone_in_one(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/measure")
        field = page.get_by_role("textbox", name="free play")
        expect(field).to_have_value("5 mm")
        sent: list[str] = []
        page.on("request", lambda r: sent.append(r.url) if r.url.endswith("/changes") else None)
        self.slow(8)
        field.fill("6 mm")
        field.press("Enter")
        expect(field).to_have_value("6 mm")
        page.get_by_role("button", name="Undo").click()
        expect(field).to_have_value("5 mm")
        self.assertEqual(len(sent), 1)
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

"""A machine many times as slow: what is pressed counts from what was pressed before, and nothing is stored twice."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import UiCase

# Every place the ring has stood at.
SEEN = """() => {
  window.seen = [];
  const ring = document.querySelector('[aria-label="Valve knee"]');
  new MutationObserver(() => window.seen.push(ring.getAttribute('aria-valuenow')))
    .observe(ring, { attributes: true, attributeFilter: ['aria-valuenow'] });
}"""


class Slow(UiCase):
    def slow(self, times: float) -> None:
        self.page.context.new_cdp_session(self.page).send("Emulation.setCPUThrottlingRate", {"rate": times})

    def test_each_key_on_the_knee_counts_from_where_the_last_put_it(self) -> None:
        for times, key, by in ((15, "Left", -500), (20, "Right", 500), (25, "Left", -500), (30, "Right", 500)):
            with self.subTest(times=times):
                page = self.open()
                knee = page.get_by_role("slider", name="Valve knee")
                before = int(knee.get_attribute("aria-valuenow") or 0)
                page.evaluate(SEEN)
                self.slow(times)
                for _ in range(3):
                    knee.press(f"Shift+Arrow{key}")
                    page.wait_for_timeout(100)  # as fast as a thumb
                there = round((before + 3 * by) / 10) * 10
                expect(knee).to_have_attribute("aria-valuenow", re.compile(f"^{there // 100}"))
                expect(page.get_by_role("textbox", name="knee")).to_have_value(re.compile(f"^{there // 100 / 10}"))
                self.slow(1)
                seen = [int(v) for v in page.evaluate("window.seen")]
                self.assertEqual(seen, sorted(seen, reverse=by < 0))  # never back to where it stood before
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

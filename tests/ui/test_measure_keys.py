"""Measure by keys alone: from an empty job to a plan."""

import re
import unittest
from collections.abc import Callable

from playwright.sync_api import expect

from tests.ui.case import PATIENCE, UiCase

# What a builder reads off the vehicle, by the name of the field.
READ = {
    "pivot to pad centre": "11 1/2 in", "pivot to pushrod pin": "48mm", "travel to the stop": "150", "free play": "5",
    "bore": "13/16", "stroke": "30 mm", "tyre": "185/60R15", "pad friction": "0.38", "rotor thickness": "20",
    "wheelbase": "2480", "grip, front": "0.9", "grip, rear": "0.9", "mass": "1,310 kg", "share on the front": "49 %",
    "height of the centre of gravity": "530", "length of one": "350", "length in all": "1.7 m",
}  # fmt: skip
AXLE = {"Front": {"pistons": "2 x 38.1", "rotor diameter": "280 mm", "pad height": "44"},
        "Rear": {"pistons": "36 mm", "rotor diameter": "258", "pad height": "36"}}  # fmt: skip
CHOICE = {"Front": "fixed, pistons on both sides", "Rear": "floating, pistons on one side"}


class KeysAlone(UiCase):
    def active(self) -> dict[str, str]:
        """What has the focus: its tag, its words, the path of its field, and the title of the section."""
        found: dict[str, str] = self.page.evaluate(
            "(() => { const e = document.activeElement; const box = e.closest('[data-entry]');"
            "return { tag: e.tagName, label: e.getAttribute('aria-label') || e.textContent || '', value: e.value || '',"
            "path: box ? box.dataset.entry : '', title: document.querySelector('main h2')?.textContent || '' } })()"
        )
        return found

    def until(self, fine: Callable[[dict[str, str]], bool], most: int = PATIENCE // 40) -> dict[str, str]:
        """What has the focus, once it is as wanted."""
        for _ in range(most):
            now = self.active()
            if fine(now):
                return now
            self.page.wait_for_timeout(40)
        raise AssertionError(f"the focus stays at {self.active()}")

    def reach(self, words: str, most: int = 60) -> None:
        """Tab until something of those words has the focus."""
        for _ in range(most):
            self.page.keyboard.press("Tab")
            if words in self.active()["label"]:
                return
        self.fail(f"{words} is not reached by keys")

    def measure_all(self) -> None:
        """Next unknown, type what was read, and on, until nothing is needed."""
        page = self.page
        done = page.get_by_text("Enough for push, stop and travel")
        for _ in range(60):
            if done.count():
                return
            page.keyboard.press("n")
            at = self.until(lambda now: now["path"] != "" and now["value"] == "")
            axle = "Front" if at["title"].startswith("Front") else "Rear"
            name = at["label"].removeprefix("front ").removeprefix("rear ")
            choice, text = at["tag"] == "BUTTON" and "brakes" in at["title"], AXLE[axle].get(name) or READ.get(name)
            if not choice and text is None:  # nothing is needed any more: it goes on to what is worth measuring
                expect(done).to_be_visible()
                return
            if choice:  # arrows go along it, Space takes one
                for _ in range(2):
                    if CHOICE[axle] not in self.active()["label"]:
                        page.keyboard.press("ArrowRight")
                page.keyboard.press("Space")
                expect(page.get_by_role("radio", name=CHOICE[axle])).to_be_checked()
            else:
                page.keyboard.type(str(text))
                page.keyboard.press("Enter")
                self.until(lambda now, old=at["path"]: now["path"] != old or now["tag"] != "INPUT")  # type: ignore[misc]
            page.evaluate("document.activeElement.blur()")
        self.fail("more is asked for than was read")

    def test_a_new_job_is_measured_from_nothing_to_a_plan_without_a_danger(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        expect(page.get_by_role("heading", name="New job")).to_be_visible()
        page.get_by_role("textbox", name="name of the vehicle or the job").focus()
        page.keyboard.type("estate, rear discs")
        self.reach("Begin, tape in hand")
        page.keyboard.press("Enter")
        expect(page.get_by_text("more for a push and a stop")).to_be_visible()
        self.measure_all()
        self.axe()
        page.evaluate("document.activeElement.blur()")
        page.keyboard.press("2")
        expect(page.get_by_role("img", name="Force line")).to_be_visible()
        self.reach("New plan from as found")
        page.keyboard.press("Enter")
        expect(page.get_by_role("radio", name=re.compile("Plan A"))).to_be_checked()
        expect(page.get_by_text("danger", exact=True)).to_have_count(0)
        expect(page.get_by_role("img", name="Force line")).to_have_attribute("aria-label", re.compile("plan A: 3[0-9]{2} newton"))
        page.reload()
        expect(page.get_by_role("radio", name=re.compile("Plan A"))).to_be_checked()
        page.keyboard.press("Control+z")
        expect(page.get_by_role("radio", name=re.compile("Plan A"))).to_have_count(0)
        self.no_errors(plan_gone=True)


if __name__ == "__main__":
    unittest.main()

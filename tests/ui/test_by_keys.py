"""A whole job by the keyboard alone: from its name on the wall over the first push and a plan to steps, screws, slow-downs and stops."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import UiCase
from tests.ui.test_empty import READ

# What a person who hears the page is told of where the focus is.
NAME = """(e) => {
  const of = e.getAttribute('aria-labelledby');
  const by = of && of.split(' ').map(id => document.getElementById(id)?.textContent ?? '').join(' ');
  return (e.getAttribute('aria-label') || by || [...(e.labels ?? [])].map(l => l.textContent).join(' ') || e.textContent || '').trim();
}"""
THERE = (
    f"(name) => [...document.querySelectorAll('a, button, input, [tabindex]')].some((e) => new RegExp(name).test(({NAME})(e)))"
)
MOST = 200  # presses of Tab to anything on a page


class ByKeys(UiCase):
    width, height = 1366, 640

    def keys(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)

    def tab_to(self, name: str) -> None:
        """Tab until what has the focus is called so, once it is on the page."""
        self.page.wait_for_function(THERE, arg=name)
        seen = []
        for _ in range(MOST):
            self.keys("Tab")
            seen.append(self.page.evaluate(f"({NAME})(document.activeElement)"))
            if re.search(name, seen[-1]):
                return
        self.fail(f"{name!r} is not reached by Tab; reached were {list(dict.fromkeys(seen))}")

    def typed(self, name: str, text: str) -> None:
        self.tab_to(name)
        self.page.keyboard.type(text)

    def stage(self, number: str, title: str) -> None:
        """A stage by its single key, which is dead in a field: the focus leaves it first."""
        self.page.evaluate("document.activeElement.blur()")
        self.keys(number)
        expect(self.page).to_have_title(re.compile(f": {title}"))

    def first_push(self) -> None:
        page, line = self.page, self.page.get_by_role("img", name="Force line")
        self.tab_to("^Assume the")
        self.keys("Enter")
        expect(page.get_by_role("button", name="Assume the")).to_have_count(0)
        self.on_an_unknown()
        page.evaluate("document.activeElement.blur()")
        self.keys("n")
        for _ in range(40):
            box = page.evaluate("document.activeElement.closest('[data-entry]')?.dataset.entry ?? ''")
            if line.count() or box == "":
                break
            label = page.evaluate("document.activeElement.closest('[data-entry]').querySelector('.name')?.textContent ?? ''")
            if page.evaluate("document.activeElement.tagName") != "BUTTON":
                page.keyboard.type(READ[label])
            self.keys("Enter")
            page.wait_for_function(
                "was => document.activeElement.closest('[data-entry]')?.dataset.entry !== was || document.querySelector('[aria-label^=\"Force line: \"]')",
                arg=box,
            )
        expect(line).to_be_visible()

    def test_a_whole_job(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        expect(page.get_by_role("listitem", name=re.compile("^Merrow Skiff"))).to_contain_text("50 of 57")
        self.typed("name of the vehicle or the job", "By keys")
        self.tab_to("^Begin, tape in hand")
        self.keys("Enter")
        expect(page).to_have_title(re.compile(": Measure"))
        expect(page.get_by_role("navigation", name="What to measure")).to_be_visible()
        self.stage("2", "Size")
        self.first_push()
        self.tab_to("^New plan from as found")
        self.keys("Enter")
        expect(page.get_by_role("radio", name=re.compile("Plan A"))).to_be_checked()
        self.tab_to("^full chain")
        self.keys("Enter")
        self.tab_to("^Cylinder bore")
        self.keys("ArrowDown")  # the next standard size below 7/8
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("13/16 in")
        self.stage("3", "Fit")
        expect(page.get_by_role("main")).to_contain_text("joint")
        self.stage("4", "Build")
        self.tab_to("^Done$")
        self.keys("Enter")
        expect(page.get_by_text(re.compile(r"^1 of \d+ steps done"))).to_be_visible()
        self.stage("5", "Bleed")
        self.tab_to("^No bubbles: ")
        self.keys("Enter")
        expect(page.get_by_text(re.compile(r"^1 of 4 screws without bubbles"))).to_be_visible()
        self.stage("6", "Bed")
        for name, text in (("slow-downs", "2"), ("from", "60"), ("to", "20"), ("how hard", "0.3"), ("gap", "30")):
            self.typed(f"^{name}$", text)
        self.keys("Enter")
        expect(page.get_by_text("Slow-down 1 of 2")).to_be_visible()
        self.tab_to("^It started now")
        self.keys("Enter")
        expect(page.get_by_text("Slow-down 2 of 2")).to_be_visible()
        self.stage("7", "Prove")
        self.typed("^a set more", "as found")
        self.keys("Enter")
        expect(page.get_by_role("list", name="Sets of stops")).to_contain_text("as found")
        self.typed("^distance$", "44")
        self.keys("Enter")
        expect(page.get_by_text("1 stop counts in 1 set")).to_be_visible()
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

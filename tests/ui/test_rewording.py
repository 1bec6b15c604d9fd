"""No state in prose: the page is driven with every sentence of the server reworded, and does and draws the same."""

import json
import re
import unittest
from collections import Counter
from typing import Any, get_args

from kobrix.demo import SETUPS
from kobrix.evaluate.shapes import Standing
from playwright.sync_api import Page, Route, expect

from tests.test_rewording import PROSE, reworded
from tests.ui.case import UiCase

# Everything that is drawn or can be pressed, by what it is and not by what is written on it.
SKELETON = """() => [...document.querySelectorAll('#root *')].map((e) => [
  e.tagName, e.getAttribute('role') ?? '', e instanceof SVGElement ? e.getAttribute('class') ?? '' : '',
  e.getAttribute('aria-pressed') ?? e.getAttribute('aria-checked') ?? '', e.hasAttribute('data-selected') ? 'on' : '',
  e.getAttribute('data-state') ?? '', e.getAttribute('data-level') ?? '', e.hasAttribute('disabled') ? 'off' : '',
].join(' '))"""


def read_by_people(key: str, text: str, value: dict[str, Any]) -> bool:
    """Whether a `text` at `key` of `value` is prose: the standing of an uncertain entry is one of four ids, a source's is words."""
    return (key in PROSE and text not in get_args(Standing)) or (key == "name" and "edits" in value)


def other(value: Any) -> Any:
    """A document with other words wherever only people read them."""
    if isinstance(value, dict):
        return {k: reworded(v) if isinstance(v, str) and read_by_people(k, v, value) else other(v) for k, v in value.items()}
    return [other(v) for v in value] if isinstance(value, list) else value


def reword(route: Route) -> None:
    """The server's answer in other words."""
    answer = route.fetch()
    if "json" not in answer.headers.get("content-type", ""):
        route.fulfill(response=answer)
        return
    route.fulfill(response=answer, body=json.dumps(other(answer.json())))


class Reworded(UiCase):
    def tearDown(self) -> None:
        for page in (p for context in self.browser.contexts for p in context.pages):
            page.unroute_all(behavior="ignoreErrors")  # an answer may still be on its way
        super().tearDown()

    def both(self) -> tuple[Page, Page]:
        """The page as it is, and one that reads everything in other words."""
        changed = self.new_page()
        changed.route(re.compile(r"/api/(?!.*events)"), reword)
        return self.page, changed

    def drawn(self, page: Page, path: str, ready: str) -> Counter[str]:
        page.goto(self.url + path)
        page.locator(ready).first.wait_for()
        self.idle(page)
        return Counter(page.evaluate(SKELETON))

    def alike(self, path: str, ready: str) -> None:
        """Both draw the same, once they have settled."""
        plain, changed = self.both()
        seen = self.drawn(plain, path, ready)
        for _ in range(20):
            found = self.drawn(changed, path, ready)
            if found == seen:
                return
            seen = Counter(plain.evaluate(SKELETON))
        self.assertEqual((found - seen, seen - found), (Counter(), Counter()), path)

    def add(self, name: str) -> int:
        body = next(p for p in SETUPS if name in p.name).read_bytes()
        answer = self.page.request.post(f"{self.url}/api/jobs", data=body, headers={"Content-Type": "application/json"})
        return int(answer.json()["id"])

    def test_every_stage_of_several_vehicles_draws_the_same(self) -> None:
        for job in (1, self.add("motorcycle"), self.add("hill-climb")):
            self.alike(f"/jobs/{job}/size", "#balance svg")
            document = self.page.request.get(f"{self.url}/api/jobs/{job}/measure").json()
            for section in document["sections"]:
                self.alike(f"/jobs/{job}/measure?part={section['key']}", "[data-entry]")

    def test_a_mend_a_failure_and_a_working_do_what_they_do(self) -> None:
        _, page = self.both()
        self.open("/jobs/1/size?plan=plan+B", page)
        page.locator("#findings li .line + button").first.click()
        expect(page.get_by_text("Tried, not stored")).to_be_visible()
        page.get_by_role("button", name="Take it").click()
        expect(page.get_by_text("Tried, not stored")).to_have_count(0)
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        page.locator("#findings .which button").first.click()
        expect(page.get_by_text("What if:").first).to_be_visible()
        page.get_by_role("button", name="Nothing has failed").click()
        counts = []
        for own in (page, self.open("/jobs/1/size?plan=plan+B")):
            own.get_by_role("button", name="Cylinder: working").click()
            expect(own.locator(".steps h3").first).to_be_visible()
            counts.append(own.locator(".steps h3").count())
        self.assertEqual(counts[0], counts[1])
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

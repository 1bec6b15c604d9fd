"""A browser, a server with the demo job, and the words to drive the page with."""

import re
import unittest
from collections.abc import Callable
from contextlib import ExitStack
from typing import Any

from playwright.sync_api import Browser, Locator, Page, Route, expect

from tests.browser import ROOT, chromium, quick_server

AXE = (ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
LAPTOP, PHONE = (1280, 800), (390, 844)
FIGURES_GONE = re.compile(r"404 \(Not Found\) .*/api/jobs/\d+/(verdicts|mends|moment|heat|compare|measure)\b")
PATIENCE = 60_000  # ms, of what is seen; a slow machine is no defect
expect.set_options(timeout=PATIENCE)


class Held(list[Route]):
    """What a page asked for and waits for."""

    open = False

    def came(self, route: Route) -> None:
        if self.open:
            route.continue_()
        else:
            self.append(route)


class UiCase(unittest.TestCase):
    """One browser for the class, one server and one page for each test; a console error fails the test."""

    browser: Browser
    width, height = LAPTOP
    touch = False

    @classmethod
    def setUpClass(cls) -> None:
        stack = ExitStack()
        cls.addClassCleanup(stack.close)
        cls.browser = stack.enter_context(chromium())

    def setUp(self) -> None:
        stack = ExitStack()
        self.addCleanup(stack.close)
        self.url = stack.enter_context(quick_server())
        self.errors: list[str] = []
        self.page = self.new_page()

    def new_page(self, **more: Any) -> Page:
        context = self.browser.new_context(
            viewport={"width": self.width, "height": self.height}, has_touch=self.touch, reduced_motion="reduce", **more
        )
        self.addCleanup(context.close)
        context.set_default_timeout(PATIENCE)
        page = context.new_page()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on(
            "console", lambda said: self.errors.append(f"{said.text} {said.location['url']}") if said.type == "error" else None
        )
        return page

    def open(self, path: str = "/jobs/1/size", page: Page | None = None) -> Page:
        page = page or self.page
        page.goto(self.url + path)
        expect(page.get_by_role("img", name="Force line")).to_be_visible()
        expect(page.get_by_role("textbox", name="Push")).to_be_visible()  # the line comes first, the fields a frame later
        return page

    def open_file(self, file: Any) -> None:
        """Choose a file on the wall, and put what is in it there."""
        self.page.locator("input[type=file]").set_input_files(file)
        self.page.get_by_role("button", name="Put it on the wall").click()

    def tick(self, name: str, on: bool = True, page: Page | None = None) -> None:
        """Press the checkbox of that name unless it stands so already, and wait until it does."""
        box = (page or self.page).get_by_role("checkbox", name=name)
        expect(box).to_be_visible()
        if box.is_checked() != on:
            self.press_words_of(box)
        expect(box).to_be_checked(checked=on)

    def press_words_of(self, box: Locator) -> None:
        """Press what is seen of a checkbox or a radio, once it has come to rest: the box itself is drawn by its label."""
        box.locator("xpath=ancestor::label").click()

    def no_errors(self, *allowed: str, plan_gone: bool = False) -> None:
        """No console error but those of refusals that the test provoked; `plan_gone`: a plan was taken out, and figures of it that
        were on their way came back as not there."""
        refused = [e for e in self.errors if not any(a in e for a in allowed)]
        self.assertEqual([e for e in refused if not (plan_gone and FIGURES_GONE.search(e))], [])

    def fits(self, page: Page | None = None) -> None:
        """Nothing can be pushed sideways, once the page has settled."""
        page = page or self.page
        root = "document.documentElement"
        beyond = f"{root}.scrollWidth - {root}.clientWidth"
        settled = self.comes(lambda: page.evaluate(beyond) <= 0, page)
        self.assertTrue(settled, f"the page can be pushed sideways by {page.evaluate(beyond)} px")

    def comes(self, so: Callable[[], object], page: Page | None = None) -> bool:
        """Whether it comes to be so. What a page asks of the server reaches the test while it waits on the page."""
        for _ in range(PATIENCE // 50):
            if so():
                return True
            (page or self.page).wait_for_timeout(50)
        return False

    def on_an_unknown(self) -> None:
        """The button that was pressed by a key is gone: the next entry that is wanted has the focus, not nothing."""
        expect(self.page.locator("[data-entry][data-state='unknown']:focus-within")).to_have_count(1)

    def hold(self, what: str | re.Pattern[str]) -> Held:
        """What the page asks for there from now on, held back until it is let go."""
        held = Held()
        self.page.route(what, lambda route: held.came(route))
        return held

    def let_go(self, held: Held) -> None:
        """Send on what is held back, once it has come, and what comes later."""
        self.assertTrue(self.comes(lambda: held), "nothing was asked for")
        held.open = True
        for route in held:
            route.continue_()

    def idle(self, page: Page | None = None) -> None:
        """Until nothing is asked of the server any more; a loaded machine takes its time."""
        (page or self.page).wait_for_load_state("networkidle", timeout=4 * PATIENCE)

    def axe(self, page: Page | None = None) -> None:
        """The page breaks no rule of axe-core, once it is there."""
        page = page or self.page
        expect(page.locator("main[aria-busy=true]")).to_have_count(0)
        page.evaluate(AXE)
        found = page.evaluate(
            "axe.run().then(r => r.violations.map(v => v.id + ': ' + v.nodes.map(n => n.target.join(' ')).join(', ')))"
        )
        self.assertEqual(found, [])

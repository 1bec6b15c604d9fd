"""Pages beside the main walk: jobs that Size does not draw, paper, other widths, keys alone, long names."""

import json
import re
import unittest

from kobrix.demo import SETUPS
from playwright.sync_api import Request, expect

from tests.cases import demo_document
from tests.ui.case import PHONE, UiCase

WIDTHS = ((1920, 1080), (1280, 680), (1248, 800), (1000, 800), (768, 1024), (390, 844), (320, 640))


class EveryLayout(UiCase):
    def test_every_vehicle_has_its_line_each_control_alone_and_together(self) -> None:
        page = self.page
        for path, heads in zip(SETUPS, (("Foot",), ("Hand, foot",), ("Foot",), ("Foot",)), strict=True):
            page.goto(f"{self.url}/jobs")
            self.open_file(str(path))
            expect(page.get_by_role("img", name="Force line")).to_be_visible()
            expect(page.get_by_role("button", name=f"{heads[0]}: working")).to_be_visible()
            for switch in page.get_by_role("group", name="What is pressed").or_(
                page.get_by_role("radiogroup", name="What is pressed")
            ).get_by_role("radio").all():  # fmt: skip
                switch.click()
                expect(page.get_by_role("img", name="Force line")).to_have_attribute(
                    "aria-label", re.compile(r"[1-9]\d* newton at the foot")
                )
            self.axe()
        self.no_errors()

    def test_an_incomplete_setup_says_what_it_needs(self) -> None:
        document = demo_document()
        del document["plans"][0]["systems"][0]["cylinder"]["bore_mm"]
        self.page.goto(f"{self.url}/jobs")
        self.open_file({"name": "a.json", "mimeType": "application/json", "buffer": json.dumps(document).encode()})
        expect(self.page.get_by_role("heading", name="1 to go")).to_be_visible()
        expect(self.page.get_by_role("textbox", name="bore", exact=True)).to_have_value("")
        self.page.get_by_role("radio", name=re.compile("Plan B")).click()
        expect(self.page.get_by_role("img", name="Force line")).to_be_visible()
        self.no_errors()


class FirstLoad(UiCase):
    MOST = 250_000  # bytes of scripts as sent, compressed

    def test_the_first_page_takes_few_scripts_and_the_rest_comes_with_a_touch(self) -> None:
        page, sent = self.page, dict[str, Request]()

        def finished(request: Request) -> None:
            sent[request.url.rsplit("/", 1)[-1]] = request

        page.on("requestfinished", finished)
        self.open()
        self.idle()
        scripts = [request for name, request in sent.items() if name.endswith(".js")]
        headers = [response.headers for request in scripts if (response := request.response()) is not None]
        self.assertEqual({h.get("content-encoding") for h in headers}, {"gzip"})
        self.assertLess(sum(request.sizes()["responseBodySize"] for request in scripts), self.MOST)
        self.assertNotIn("KeyList", " ".join(sent))
        with page.expect_request_finished(lambda request: "KeyList" in request.url):
            page.keyboard.press("Shift")
        page.route("**/*.js", lambda route: route.abort())
        page.get_by_role("button", name="Keys").click()  # what was fetched is there without the server
        expect(page.get_by_role("region", name="Keys")).to_be_visible()
        self.no_errors()

    def test_what_is_typed_before_the_finder_is_there_is_kept_for_it(self) -> None:
        page, held = self.page, self.hold(re.compile(r"/assets/(Finder|further)"))
        self.open()
        page.keyboard.press("/")
        page.keyboard.type("n1")  # no key of the page's own
        expect(page.get_by_role("search", name="Find").get_by_role("textbox")).to_have_value("n1")
        page.keyboard.press("Backspace")
        page.keyboard.press("Backspace")
        page.keyboard.type("knee")
        self.let_go(held)
        found = page.get_by_role("searchbox")
        expect(found).to_have_value("knee")
        expect(found).to_be_focused()
        page.keyboard.press("Enter")
        expect(page.get_by_role("search")).to_have_count(0)
        expect(page.get_by_role("textbox", name="knee")).to_be_focused()
        self.no_errors()

    def test_a_part_that_cannot_be_fetched_is_said_and_opens_later(self) -> None:
        page = self.page
        page.route("**/KeyList*.js", lambda route: route.abort())
        self.open()
        keys = page.get_by_role("button", name="Keys")
        keys.click()
        expect(page.get_by_role("alert")).to_contain_text("could not be fetched")
        page.unroute("**/KeyList*.js")
        keys.click()
        expect(page.get_by_role("alert")).to_have_count(0)
        keys.click()
        expect(page.get_by_role("region", name="Keys")).to_be_visible()
        self.no_errors("Failed to load resource")


class OtherShapes(UiCase):
    def test_no_width_scrolls_sideways_and_axe_finds_nothing_in_either_theme(self) -> None:
        for theme in ("light", "dark"):
            self.page.emulate_media(color_scheme=theme)
            for width, height in WIDTHS:
                self.page.set_viewport_size({"width": width, "height": height})
                self.open("/jobs/1/size?plan=plan+B")
                self.fits()
                if (width, height) in ((1920, 1080), (768, 1024), PHONE):
                    self.axe()
        self.no_errors()

    def test_on_paper_the_controls_are_gone_and_the_figures_stay(self) -> None:
        page = self.open()
        page.emulate_media(media="print")
        expect(page.get_by_role("button", name="Undo")).to_be_hidden()
        expect(page.get_by_role("button", name="Try braided")).to_be_hidden()
        expect(page.get_by_text("Travel 103 of 150 mm")).to_be_visible()
        expect(page.get_by_text("One wrong joint loses all braking")).to_be_visible()
        ground = page.evaluate("getComputedStyle(document.documentElement).backgroundColor")
        self.assertEqual(ground, "rgb(255, 255, 255)")

    def test_a_long_name_and_many_plans_break_nothing(self) -> None:
        document = demo_document()
        document["name"] = "Estate " + "with an unusually long and winding name " * 1 + "of eighty"
        plan = document["plans"][0]
        document["plans"] = [{**plan, "name": f"plan number {i} of a patient builder"} for i in range(9)]
        self.page.goto(f"{self.url}/jobs")
        self.open_file({"name": "a.json", "mimeType": "application/json", "buffer": json.dumps(document).encode()})
        expect(self.page.get_by_role("img", name="Force line")).to_be_visible()
        for width, height in ((1280, 800), PHONE):
            self.page.set_viewport_size({"width": width, "height": height})
            expect(self.page.get_by_role("img", name="Force line")).to_be_visible()
            self.fits()
        self.no_errors()


class KeysAlone(UiCase):
    def focus(self, name: str, most: int = 60) -> None:
        """Tab until an element of that name has the focus."""
        for _ in range(most):
            self.page.keyboard.press("Tab")
            found = self.page.evaluate(
                "(() => { const e = document.activeElement; const l = e.labels && e.labels[0];"
                "if (e.tagName === 'SECTION' || e === document.body) return '';"
                "const by = e.getAttribute('aria-labelledby');"
                "return [e.getAttribute('aria-label'), l && l.textContent, by && [...by.split(' ')].map(i =>"
                "document.getElementById(i)?.textContent).join(' '), e.textContent].filter(Boolean).join(' | ') })()"
            )
            if name in found:
                return
        self.fail(f"{name} is not reached by keys")

    def test_a_bore_is_chosen_a_mend_tried_and_both_undone_without_a_pointer(self) -> None:
        page = self.open()
        self.focus("Cylinder bore")
        page.keyboard.press("ArrowUp")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("7/8 in")
        page.keyboard.press("ArrowDown")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("13/16 in")
        expect(page.get_by_role("button", name="Try braided")).to_be_visible()
        self.focus("Try braided", 120)
        page.keyboard.press("Enter")
        expect(page.get_by_text("Tried, not stored")).to_be_visible()
        self.focus("Leave it", 150)
        page.keyboard.press("Shift+Tab")
        page.keyboard.press("Enter")
        expect(page.get_by_text("Tried, not stored")).to_have_count(0)
        expect(page.get_by_text("Travel 103 of 150 mm")).to_have_count(0)
        page.keyboard.press("Control+z")
        expect(page.get_by_text("Travel 103 of 150 mm")).to_be_visible()
        self.no_errors()

    def test_the_focus_is_always_seen(self) -> None:
        page = self.open()
        unseen = []
        for _ in range(45):
            page.keyboard.press("Tab")
            found = page.evaluate(
                "(() => { const e = document.activeElement; if (!e || e === document.body) return null;"
                "const around = [e, e.parentElement, e.querySelector('*'), e.closest('[data-focus-visible]')].filter(Boolean);"
                "const ring = around.some(x => { const s = getComputedStyle(x); return s.outlineStyle !== 'none'"
                "&& parseFloat(s.outlineWidth) > 0; });"
                "return ring ? null : (e.getAttribute('aria-label') || e.textContent || e.tagName).slice(0, 40) })()"
            )
            if found:
                unseen.append(found)
        self.assertEqual(unseen, [])


class PhoneKeys(UiCase):
    width, height = PHONE
    touch = True

    def test_typing_a_fraction_on_a_phone(self) -> None:
        page = self.open()
        field = page.get_by_role("textbox", name="Cylinder bore")
        field.tap()
        field.fill("1 1/16")
        field.press("Enter")
        expect(field).to_have_value("1 1/16 in")
        field.fill("12 apples")
        field.press("Enter")
        expect(page.get_by_role("alert")).to_be_visible()
        self.axe()
        self.no_errors("Failed to load resource")

    def test_the_dock_stays_and_the_line_scrolls(self) -> None:
        page = self.open()
        dock = page.get_by_role("button", name="More push")
        before = dock.bounding_box()
        page.get_by_role("button", name="Findings", exact=True).tap()
        expect(page.get_by_role("heading", name="Findings")).to_be_in_viewport()
        self.assertEqual(dock.bounding_box(), before)
        page.get_by_role("button", name="Line", exact=True).tap()
        expect(page.get_by_role("img", name="Force line")).to_be_in_viewport()


if __name__ == "__main__":
    unittest.main()

"""The real interface, driven as a builder drives it: Size on a laptop and on a phone."""

import re
import unittest

from playwright.sync_api import Page, Route, expect

from tests.ui.case import PHONE, UiCase

REFUSED = "Failed to load resource"


def said(page: Page) -> str:
    """The sentence that stands for the force line."""
    return page.get_by_role("img", name="Force line").get_attribute("aria-label") or ""


class Spoken(UiCase):
    def says(self, words: str) -> None:
        """The sentence that stands for the force line has these words, once the page has settled."""
        line = self.page.get_by_role("img", name="Force line")
        expect(line).to_have_attribute("aria-label", re.compile(re.escape(words)))


class Laptop(Spoken):
    def test_the_demo_opens_on_plan_a_over_as_found(self) -> None:
        self.page.goto(self.url)
        expect(self.page.get_by_role("img", name="Force line")).to_be_visible()
        self.says("341 newton at the foot")
        self.says("as found 805 newton")
        expect(self.page.get_by_role("radio", name=re.compile("Plan A"))).to_be_checked()
        self.no_errors()

    def test_a_newcomer_is_told_once_where_to_begin(self) -> None:
        page = self.open()
        hint = page.get_by_role("complementary", name="First time here")
        expect(hint).to_contain_text("press a part to change it")
        hint.get_by_role("button", name="Got it").press("Enter")
        expect(hint).to_have_count(0)
        expect(page.get_by_role("link", name="Kobrix, all jobs")).to_be_focused()
        page.reload()
        expect(page.get_by_role("img", name="Force line")).to_be_visible()
        expect(hint).to_have_count(0)
        page.set_viewport_size({"width": 390, "height": 844})
        expect(page.get_by_role("region", name="The push")).to_be_visible()
        expect(hint).to_have_count(0)
        self.no_errors()

    def test_a_plan_is_drawn_to_another_place_by_its_tab(self) -> None:
        page = self.open()
        tabs = page.get_by_role("radiogroup", name="Displayed on the line").get_by_role("radio")
        expect(tabs).to_have_text([re.compile("As found"), re.compile("Plan A"), re.compile("Plan B")])
        from_, to = tabs.nth(1).bounding_box(), tabs.nth(2).bounding_box()
        assert from_ is not None
        assert to is not None
        page.mouse.move(from_["x"] + 40, from_["y"] + 20)
        page.mouse.down()
        page.mouse.move(to["x"] + 40, to["y"] + 20, steps=4)
        expect(tabs.nth(2)).to_have_attribute("data-here", "after")
        page.mouse.up()
        expect(tabs).to_have_text([re.compile("As found"), re.compile("Plan B"), re.compile("Plan A")])
        expect(tabs.nth(2)).to_be_checked()  # what is on the line stays there
        page.get_by_role("button", name=re.compile("^Undo: plan A moved")).click()
        expect(tabs.nth(1)).to_contain_text("Plan A")
        self.no_errors()

    def test_many_controls_say_what_each_loss_leaves_once_and_are_tried_from_a_list(self) -> None:
        page = self.page
        self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/light-aircraft").status, 201)
        self.open("/jobs/2/size")
        stair = page.get_by_role("img", name=re.compile("^Pedal travel"))
        for words in ("one circuit lost", "one leak upstream"):
            expect(stair.get_by_text(words, exact=True)).to_have_count(1)
            expect(stair.get_by_text(words, exact=True)).not_to_have_class(
                re.compile("danger")
            )  # no rule says how much must be left
        page.get_by_role("button", name=re.compile("What if")).click()
        page.get_by_role("option", name="left: leak before the second control").click()
        expect(page.get_by_text("What if: left: leak before the second control")).to_be_visible()
        page.get_by_role("button", name=re.compile("What if")).click()
        page.get_by_role("option", name="nothing fails").click()
        expect(page.get_by_text("What if: left: leak before the second control")).to_have_count(0)
        self.no_errors()

    def test_stepping_the_bore_moves_every_figure_survives_a_reload_and_is_undone(self) -> None:
        page = self.open()
        before = said(page)
        page.get_by_role("textbox", name="Cylinder bore").focus()
        page.keyboard.press("ArrowDown")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        expect(page.get_by_role("img", name="Force line")).to_have_attribute("aria-label", re.compile("291 newton"))
        expect(page.get_by_text("113 of 150 mm")).to_be_visible()
        page.reload()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("13/16 in")
        self.says(before)
        page.get_by_role("button", name="Redo").click()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        self.no_errors()

    def test_what_people_type_is_read(self) -> None:
        page = self.open()
        for label, typed, kept in (("Cylinder bore", "7/8", "7/8 in"), ("Cylinder bore", "20.6mm", "20.6mm"), ("Cylinder bore", '1 1/16"', '1 1/16"'),
                                   ("pin", "1 7/8", "1 7/8 in"), ("knee", "900 psi", "900 psi"), ("knee", "650", "650 psi")):  # fmt: skip
            field = page.get_by_role("textbox", name=label, exact=True)
            field.fill(typed)
            field.press("Enter")
            expect(field).to_have_value(kept)
            expect(page.get_by_role("alert")).to_have_count(0)
        self.no_errors()

    def test_typing_on_while_the_first_is_stored_is_no_change_from_elsewhere(self) -> None:
        page = self.open()
        held = self.hold("**/changes")
        field = page.get_by_role("textbox", name="knee")
        field.fill("900 psi")
        field.press("Enter")
        self.assertTrue(self.comes(lambda: held), "the first was not sent")
        field.fill("650")
        self.let_go(held)
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        field.press("Enter")
        expect(field).to_have_value("650 psi")
        expect(page.get_by_role("alert")).to_have_count(0)
        self.no_errors()

    def test_where_the_server_has_others_to_store_first_the_page_is_read_afterwards(self) -> None:
        page = self.open()

        def busy(route: Route) -> None:
            answer = route.fetch()
            route.fulfill(response=answer, json={**answer.json(), "shown": None})

        page.route("**/changes", busy)
        before = said(page)
        field = page.get_by_role("textbox", name="Cylinder bore")
        for typed in ("3/4", "13/16"):  # the second is made on what the first has stored
            field.fill(typed)
            with page.expect_response("**/jobs/1/size*"):
                field.press("Enter")
            expect(field).to_have_value(f"{typed} in")
            expect(page.get_by_role("img", name="Force line")).not_to_have_attribute("aria-label", before)
            before = said(page)
        expect(page.get_by_role("alert")).to_have_count(0)
        self.no_errors()

    def test_nonsense_is_refused_in_words_and_nothing_is_lost(self) -> None:
        page = self.open()
        before = said(page)
        field = page.get_by_role("textbox", name="Cylinder bore")
        for typed, words in (
            ("900 psi", "unit of a pressure"),
            ("0", "from 5 mm to 80 mm"),
            ("13,5", "13.5 or as 135"),
            ("<b>x", "no number"),
        ):
            field.fill(typed)
            field.press("Enter")
            expect(page.get_by_role("alert")).to_contain_text(words, ignore_case=True)
            expect(field).to_have_value(typed)
            self.says(before)
        field.press("Escape")
        expect(field).to_have_value("13/16 in")
        pin = page.get_by_role("textbox", name="pin", exact=True)
        pin.fill("300 mm")
        pin.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("below 292 mm")
        self.no_errors(REFUSED)

    def test_the_push_is_scrubbed_by_keys_typing_and_pointer(self) -> None:
        page = self.open()
        thumb = page.get_by_role("slider", name=re.compile("Push"))
        thumb.focus()
        page.keyboard.press("ArrowRight")
        expect(page.get_by_role("textbox", name="Push")).to_have_value("342")
        page.keyboard.press("Home")
        expect(page.get_by_text("Nothing brakes at this push.")).to_be_visible()
        entry = page.get_by_role("textbox", name="Stop wanted")
        entry.fill("0.5")
        entry.press("Enter")
        expect(page.get_by_role("textbox", name="Push")).to_have_value("211")
        entry = page.get_by_role("textbox", name="Push")
        entry.fill("400")
        entry.press("Enter")
        expect(page.get_by_text("front slides:")).to_be_visible()
        track = page.locator(".track").bounding_box()
        assert track is not None
        page.mouse.click(track["x"] + track["width"] * 0.25, track["y"] + 20)
        expect(page.get_by_role("textbox", name="Push")).to_have_value(re.compile("^(24[6-9]|25[0-4])$"))
        self.no_errors()

    def test_a_push_and_a_stop_are_typed_as_they_are_said(self) -> None:
        page = self.open()
        push, stop = page.get_by_role("textbox", name="Push"), page.get_by_role("textbox", name="Stop wanted")
        push.fill("60 lbf")
        push.press("Enter")
        expect(push).to_have_value("267")
        push.press("ArrowUp")
        expect(push).to_have_value("268")
        stop.fill("4.903325 m/s2")
        stop.press("Tab")
        expect(stop).to_have_value("0.50")
        stop.press("ArrowDown")
        expect(stop).to_have_value("0.49")
        before = push.input_value()
        push.fill("900 psi")
        push.press("Enter")
        said = page.get_by_role("alert")
        expect(said).to_contain_text("pressure")
        expect(push).to_have_value("900 psi")
        self.axe()
        push.press("Escape")
        expect(said).to_have_count(0)
        expect(push).to_have_value(before)
        self.no_errors(REFUSED)

    def find(self, words: str, label: str) -> None:
        """The finder, with some words, and Enter on what it found first."""
        self.page.evaluate("document.activeElement.blur()")
        self.page.keyboard.press("/")
        expect(self.page.get_by_role("searchbox")).to_be_focused()
        self.page.keyboard.type(words)
        first = self.page.get_by_role("option").first
        expect(first).to_contain_text(label)
        expect(first).to_have_attribute("data-focused", "true")
        self.page.keyboard.press("Enter")

    def test_the_finder_goes_to_fields_of_the_sheet_and_to_instruments(self) -> None:
        page = self.open()
        for words, label, name in (
            ("knee", "Valve knee", "knee"), ("stop w", "Stop wanted", "Stop wanted"), ("cyl bore", "Cylinder bore", "Cylinder bore"),
            ("rear pist", "rear pistons", "rear pistons"), ("front rotor", "front rotor diameter", "front rotor diameter"),
            ("pivot to pin", "Pivot to pin", "pin"),
        ):  # fmt: skip
            self.find(words, label)
            expect(page.get_by_role("textbox", name=name).first).to_be_focused()
        page.keyboard.type("42 mm")
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="pin", exact=True)).to_have_value("42 mm")
        for name in ("Pressure through the valve", "Balance"):
            self.find(name.lower(), name)
            expect(page.get_by_role("region", name=name)).to_be_focused()
        page.get_by_role("button", name="Cylinder: working").click()
        expect(page.get_by_role("region", name="Balance")).to_have_count(0)
        self.find("balance", "Balance")
        expect(page.get_by_role("region", name="Balance")).to_be_focused()
        page.reload()
        expect(page.get_by_role("region", name="Pressure through the valve")).to_be_visible()
        self.no_errors()

    def test_at_rest_the_figures_are_the_cores_for_exactly_this_push(self) -> None:
        page = self.open()
        with page.expect_response(
            lambda r: r.url.endswith("/moment") and '"pedal_force_n":237' in (r.request.post_data or "")
        ) as answer:
            entry = page.get_by_role("textbox", name="Push")
            entry.fill("237")
            entry.press("Enter")
        moment = answer.value.json()
        self.assertEqual(moment["pedal_force_n"], 237.0)
        expect(page.get_by_role("img", name="Force line")).to_have_attribute(
            "aria-label", re.compile(f"{moment['decel_g']:.2f} g on the road")
        )

    def test_plans_and_as_found_are_switched_and_a_mend_is_tried(self) -> None:
        page = self.open()
        page.get_by_role("radio", name=re.compile("Plan B")).click()
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_be_visible()
        page.get_by_role("button", name="Try floating, 32 mm").first.click()
        expect(page.get_by_text("Tried, not stored")).to_be_visible()
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_have_count(0)
        page.get_by_role("button", name="Leave it").click()
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_be_visible()
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        page.get_by_role("button", name="Try floating, 32 mm").first.click()
        page.get_by_role("button", name="Take it").click()
        expect(page.get_by_text("Tried, not stored")).to_have_count(0)
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_have_count(0)
        page.get_by_role("button", name=re.compile("(is|are) good")).click()
        expect(page.get_by_text("The front locks first")).to_be_visible()
        page.keyboard.press("Control+z")
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_be_visible()
        page.get_by_role("radio", name=re.compile("As found")).click()
        expect(page.get_by_role("img", name="Force line")).to_have_attribute("aria-label", re.compile("as found: 805 newton"))
        page.reload()
        expect(page.get_by_role("radio", name=re.compile("As found"))).to_be_checked()
        self.no_errors()

    def test_an_edit_on_an_older_revision_is_shown_and_not_lost(self) -> None:
        self.page.route("**/events", lambda route: route.abort())  # this tab does not hear of the other one
        page = self.open()
        other = self.open(page=self.new_page())
        other.get_by_role("textbox", name="Cylinder bore").fill("3/4")
        other.keyboard.press("Enter")
        expect(other.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        mine = page.get_by_role("textbox", name="Cylinder bore")
        mine.fill("1 in")
        mine.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("stored is 3/4 in, you entered 1 in")
        page.get_by_role("button", name="Use mine").click()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("1 in")
        expect(page.get_by_role("alert")).to_have_count(0)
        self.no_errors(REFUSED)

    def test_two_tabs_stay_in_step_and_what_is_being_typed_is_not_lost(self) -> None:
        page, other = self.open(), self.open(page=self.new_page())
        mine = page.get_by_role("textbox", name="Cylinder bore")
        mine.fill("1 in")  # typed, and not stored yet
        other.get_by_role("textbox", name="Cylinder bore").fill("3/4")
        other.keyboard.press("Enter")
        expect(page.get_by_role("img", name="Force line")).to_have_attribute("aria-label", re.compile("291 newton"))
        expect(mine).to_have_value("1 in")
        mine.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("stored is 3/4 in, you entered 1 in")
        mine.press("Enter")
        expect(page.get_by_role("alert")).to_have_count(0)
        expect(other.get_by_role("textbox", name="Cylinder bore")).to_have_value("1 in")
        self.no_errors(REFUSED)

    def test_the_load_state_is_switched(self) -> None:
        page = self.open()
        page.get_by_role("button", name=re.compile("Load state")).click()
        expect(page.get_by_text("1560 kg")).to_be_visible()
        self.no_errors()

    def test_axe_finds_nothing_in_both_themes(self) -> None:
        for path in ("/jobs/1/size", "/jobs/1/size?plan=as+found", "/nowhere"):
            self.page.goto(self.url + path)
            expect(self.page.get_by_role("main")).to_be_visible()
            self.idle()
            self.axe()
        self.open()
        self.page.get_by_role("button", name="Dark drawing").click()
        self.axe()
        self.no_errors()


class Phone(Spoken):
    width, height = PHONE
    touch = True

    def test_the_line_stands_on_end_and_the_push_is_under_the_thumb(self) -> None:
        page = self.open()
        self.fits()
        page.get_by_role("button", name="More push").tap()
        self.says("351 newton")
        page.get_by_role("button", name="Next larger standard bore").tap()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("7/8 in")
        page.get_by_role("button", name="Travel", exact=True).tap()
        expect(page.get_by_role("heading", name="Where the pedal goes")).to_be_in_viewport()
        page.get_by_role("button", name="Undo").tap()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("13/16 in")
        self.no_errors()

    def test_a_push_is_typed_under_the_thumb_too(self) -> None:
        page = self.open()
        push = page.get_by_role("textbox", name="Push")
        push.tap()
        push.fill("60 lbf")
        push.press("Enter")
        self.says("267 newton")
        expect(push).to_have_value("267")
        push.fill("900 psi")
        push.press("Enter")
        expect(page.get_by_role("alert")).to_be_in_viewport(ratio=1)
        self.fits()
        push.press("Escape")
        self.says("267 newton")
        self.no_errors(REFUSED)

    def test_the_plan_on_the_line_is_among_the_tabs_that_are_seen(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+B")
        expect(page.get_by_role("radio", name=re.compile("Plan B"))).to_be_in_viewport(ratio=0.95)
        page = self.open("/jobs/1/size?plan=as+found")
        expect(page.get_by_role("radio", name=re.compile("As found"))).to_be_in_viewport(ratio=0.95)

    def test_a_danger_shows_its_mend_as_a_button(self) -> None:
        page = self.open("/jobs/1/size?plan=plan+B")
        page.get_by_role("button", name="Try floating, 32 mm").first.tap()
        page.get_by_role("button", name="Take it").tap()
        expect(page.get_by_text("The rear locks first, 0.663 g")).to_have_count(0)
        self.no_errors()

    def test_targets_are_large_and_axe_finds_nothing(self) -> None:
        page = self.open()
        small = page.evaluate(
            "[...document.querySelectorAll('button, input[type=text]')].filter(e => e.offsetParent)"
            ".map(e => [e.getAttribute('aria-label') || e.textContent || e.name, e.getBoundingClientRect()])"
            ".filter(([, r]) => r.height < 43.5 || r.width < 24).map(([n, r]) => n + ' ' + r.width + 'x' + r.height)"
        )
        self.assertEqual(small, [])
        self.axe()
        self.no_errors()

    def test_nothing_breaks_at_320(self) -> None:
        self.page.set_viewport_size({"width": 320, "height": 700})
        self.open()
        self.fits()


class Jobs(UiCase):
    def test_a_file_is_checked_and_becomes_a_job(self) -> None:
        self.open()
        self.page.get_by_role("link", name="Kobrix, all jobs").click()
        chooser = self.page.locator("input[type=file]")
        chooser.set_input_files({"name": "bad.json", "mimeType": "application/json", "buffer": b'{"format": "kobrix-job"'})
        expect(self.page.get_by_role("alert")).to_contain_text("bad.json: Line 1")
        from tests.cases import EXAMPLES

        self.open_file(str(EXAMPLES / "setup.json"))
        expect(self.page.get_by_role("img", name="Force line")).to_be_visible()
        expect(self.page).to_have_url(re.compile("/jobs/2/size"))
        self.no_errors(REFUSED)

    def test_a_job_that_is_not_there_is_said(self) -> None:
        self.page.goto(self.url + "/jobs/99/size")
        expect(self.page.get_by_role("heading", name="This job cannot be shown")).to_be_visible()
        expect(self.page.get_by_text("There is no job '99'.")).to_be_visible()


if __name__ == "__main__":
    unittest.main()

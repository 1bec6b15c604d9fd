"""Measure in the real interface: by hand and by touch; photographs, conflicts, paper, plans."""

import re
import tempfile
import unittest
from pathlib import Path

from playwright.sync_api import APIResponse, Page, Route, expect

from tests.demo_picture import picture
from tests.ui.case import PHONE, UiCase


class Sheet(UiCase):
    def measure(self, more: str = "", page: Page | None = None) -> Page:
        page = page or self.page
        page.goto(f"{self.url}/jobs/1/measure{more}")
        expect(page.get_by_role("navigation", name="What to measure")).to_be_visible()
        return page

    def test_an_entry_moves_the_plans_that_had_the_same_and_is_undone_after_a_reload(self) -> None:
        page = self.measure()
        field = page.get_by_role("textbox", name="free play")
        field.fill("1/4")
        field.press("Enter")
        expect(field).to_have_value("1/4 in")
        expect(page.get_by_text("6.35 mm")).to_be_visible()
        page.goto(f"{self.url}/jobs/1/measure?plan=plan+B")
        expect(page.get_by_role("textbox", name="free play")).to_have_value("1/4 in")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("textbox", name="free play")).to_have_value("5 mm")
        self.no_errors()

    def test_enter_held_down_goes_one_entry_on_and_no_further(self) -> None:
        """A finger stays on the key for longer than an entry takes to be stored: it is let go over the choice that follows."""
        page = self.measure()
        page.get_by_role("textbox", name="free play").fill("1/4")
        page.keyboard.down("Enter")
        here = "() => document.activeElement.closest('[data-entry]')?.dataset.entry.endsWith('rod_retained') ?? false"
        page.wait_for_function(here)
        page.keyboard.up("Enter")
        self.assertTrue(page.evaluate(here))
        expect(page.get_by_role("textbox", name="free play")).to_have_value("1/4 in")
        page.keyboard.press("Enter")  # on the choice itself it chooses, and goes on
        expect(page.get_by_role("main").get_by_role("heading", name="Booster")).to_be_visible()
        self.no_errors()

    def test_an_entry_that_moves_the_focus_on_is_stored_once(self) -> None:
        page = self.measure()
        sent: list[str] = []
        page.on("request", lambda r: sent.append(r.url) if r.url.endswith("/changes") else None)
        for n in range(1, 9):
            field = page.get_by_role("textbox", name="free play")
            field.fill(f"{n} mm")
            field.press("Enter")
            expect(field).to_have_value(f"{n} mm")
            expect(field).not_to_be_focused()
            field.focus()
        self.assertEqual(len(sent), 8)
        self.no_errors()

    def test_a_page_read_before_an_undo_does_not_come_back_after_it(self) -> None:
        page = self.measure()
        field = page.get_by_role("textbox", name="free play")
        field.fill("1/4")
        field.press("Enter")
        expect(field).to_have_value("1/4 in")
        held: list[tuple[Route, APIResponse]] = []

        def hold(route: Route) -> None:
            if len(held) < 2:
                held.append((route, route.fetch()))
            else:
                route.continue_()

        page.route(re.compile(r"/api/jobs/1(/measure.*)?$"), hold)
        page.evaluate("document.dispatchEvent(new Event('visibilitychange', {bubbles: true}))")  # the page is looked at again
        self.assertTrue(self.comes(lambda: len(held) == 2))
        page.get_by_role("button", name="Undo").click()
        expect(field).to_have_value("5 mm")
        for route, answer in held:
            route.fulfill(response=answer)
        self.idle(page)
        page.wait_for_timeout(300)
        expect(field).to_have_value("5 mm")
        self.no_errors()

    def test_nonsense_is_refused_where_it_is_typed_and_can_be_given_up(self) -> None:
        page = self.measure()
        field = page.get_by_role("textbox", name="pivot to pushrod pin")
        for typed, words in (
            ("900 psi", "unit of a pressure"),
            ("1 m", "allowed"),
            ("400 mm", "pin sits between"),
            ("2,5", "2.5"),
        ):
            field.fill(typed)
            field.press("Enter")
            expect(page.get_by_role("alert")).to_contain_text(words)
            expect(field).to_have_value(typed)
        field.press("Escape")
        expect(field).to_have_value("64 mm")
        self.no_errors("Failed to load resource")

    def test_the_tape_the_tolerance_and_what_is_not_known(self) -> None:
        page = self.measure()
        page.get_by_role("textbox", name="pivot to pad centre").focus()
        tape = page.get_by_role("slider", name="Tape, pivot to pad centre")
        tape.press("ArrowRight")
        expect(page.get_by_role("textbox", name="pivot to pad centre")).to_have_value("293 mm")
        off = page.get_by_role("textbox", name="it may be off by ±")
        off.fill("1/16")
        off.press("Enter")
        expect(page.get_by_text("± 1/16 in")).to_be_visible()
        page.get_by_role("textbox", name="free play").focus()
        page.get_by_role("button", name="Don’t know: take 0 mm").click()
        expect(page.get_by_text("Assumed: 0 mm.")).to_be_visible()
        self.no_errors()

    def test_helpers_enter_what_they_worked_out(self) -> None:
        page = self.measure("?part=vehicle")
        page.get_by_role("button", name="From four scales").click()
        form = page.get_by_role("group", name="From four scales")
        for name, text in (("left front", "320"), ("right front", "330"), ("left rear", "325"), ("right rear", "335")):
            form.get_by_role("textbox", name=name).fill(text)
        form.get_by_role("button", name="Work it out").click()
        expect(form.get_by_role("status")).to_contain_text("1310 kg in all")
        form.get_by_role("button", name=re.compile("Enter it, four up")).click()
        expect(page.get_by_role("textbox", name="share on the front").nth(1)).to_have_value("0.4962")
        page.get_by_role("button", name="Front brakes").click()
        page.get_by_role("button", name="From the letters on the pad's edge").click()
        page.get_by_role("textbox", name="letters").fill("gg")
        page.keyboard.press("Enter")
        page.get_by_role("button", name=re.compile("Enter it: 0.5, 0.5")).click()
        expect(page.get_by_role("textbox", name="pad friction")).to_have_value("0.5")
        self.no_errors()

    def test_a_valve_is_put_in_and_taken_out(self) -> None:
        page = self.measure("?part=lines.0")
        page.get_by_role("button", name="+ valve or switch").click()
        page.get_by_role("textbox", name="knee, psi").fill("450")
        page.get_by_role("button", name="Put in").click()
        expect(page.get_by_role("heading", name="Front, proportioning valve")).to_be_visible()
        page.get_by_role("button", name="Take out: Front, proportioning valve").click()
        expect(page.get_by_role("heading", name="Front, proportioning valve")).to_have_count(0)
        self.no_errors()

    def test_a_note_with_a_photograph(self) -> None:
        page = self.measure()
        page.get_by_role("button", name=re.compile("^Condition")).click()
        with tempfile.TemporaryDirectory() as folder:
            good, bad = Path(folder) / "pit.png", Path(folder) / "note.png"
            good.write_bytes(picture())
            bad.write_bytes(b"not a picture")
            chooser = page.locator("input[type=file]")
            chooser.set_input_files(str(bad))
            expect(page.get_by_role("alert")).to_contain_text("JPEG, PNG or WebP")
            chooser.set_input_files(str(good))
            expect(page.get_by_role("img", name="pit.png")).to_be_visible()
        page.get_by_role("textbox", name="what").fill("pit 55 mm from the mouth")
        page.get_by_role("button", name="Keep the note").click()
        expect(page.get_by_text("1 note", exact=True)).to_be_visible()
        page.reload()
        page.get_by_role("button", name=re.compile("^Condition")).click()
        shown = page.get_by_role("img", name=re.compile("Pedal: pit.png"))
        expect(shown).to_be_visible()
        expect(shown).to_have_js_property("complete", True)
        self.assertGreater(shown.evaluate("e => e.naturalWidth"), 0)
        self.axe()
        self.no_errors("Failed to load resource")

    def test_finder_and_keys(self) -> None:
        page = self.measure()
        page.keyboard.press("/")
        page.keyboard.type("wheelb")  # at once: what the finder has not come for yet is kept for it
        expect(page.get_by_role("searchbox")).to_have_value("wheelb")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="wheelbase")).to_be_focused()
        page.keyboard.type("/?n12")  # dead in a field
        expect(page.get_by_role("textbox", name="wheelbase")).to_have_value("/?n12")
        page.keyboard.press("Escape")
        page.evaluate("document.activeElement.blur()")
        page.keyboard.press("?")
        expect(page.get_by_role("region", name="Keys")).to_be_visible()
        page.get_by_text("single keys are on").click()
        page.keyboard.press("Escape")
        page.keyboard.press("/")
        expect(page.get_by_role("search")).to_have_count(0)
        self.no_errors()

    def test_every_section_is_clean_in_both_themes_and_on_paper(self) -> None:
        for theme in ("light", "dark"):
            self.page.emulate_media(color_scheme=theme)
            page = self.measure()
            for button in page.get_by_role("navigation", name="What to measure").get_by_role("button").all():
                button.click()
                expect(button).to_have_attribute("aria-current", "true")
                self.axe()
        self.no_errors()

    def test_on_paper_all_sections_stand_with_what_was_entered(self) -> None:
        page = self.measure()
        page.get_by_role("button", name="Dark drawing").click()
        page.emulate_media(media="print")
        for title in ("Pedal", "Cylinder", "Front brakes", "Rear brakes", "Lines, valves", "Vehicle"):
            expect(page.get_by_role("heading", name=title, exact=True)).to_be_visible()
        expect(page.get_by_role("banner")).to_contain_text("Merrow Skiff estate, electric conversion: Measure")
        self.assertEqual([b.inner_text() for b in page.get_by_role("button").all()], [])
        ground = page.evaluate("getComputedStyle(document.documentElement).backgroundColor")
        self.assertEqual(ground, "rgb(255, 255, 255)")  # ink on white, whatever the screen's theme
        self.assertEqual(page.pdf(prefer_css_page_size=True).count(b"/Type /Page\n"), 1)
        for title, label, value in (
            ("Pedal", "pivot to pad centre", "292 mm"),
            ("Cylinder", "stroke", "30 mm"),
            ("Vehicle", "mass", "1,310 kg"),
        ):
            row = page.get_by_role("region", name=title, exact=True).get_by_role("listitem").filter(has_text=label).first
            expect(row).to_contain_text(value)
        page.emulate_media(media="screen")
        expect(page.get_by_role("heading", name="Vehicle", exact=True)).to_have_count(0)

    def test_who_goes_on_before_an_entry_is_stored_is_not_called_back(self) -> None:
        page = self.measure()
        held = self.hold("**/changes")
        page.get_by_role("textbox", name="free play", exact=True).fill("6 mm")
        page.keyboard.press("Enter")
        pin = page.get_by_role("textbox", name="pivot to pushrod pin")
        pin.fill("50 in of str")  # begun while the first is on its way
        self.let_go(held)
        expect(page.get_by_role("contentinfo")).to_contain_text("All changes stored")
        expect(page.get_by_role("textbox", name="free play", exact=True)).to_have_value("6 mm")
        expect(pin).to_be_focused()
        expect(pin).to_have_value("50 in of str")
        self.no_errors()

    def test_a_linkage_is_measured_and_refused_where_the_rod_cannot_work(self) -> None:
        page = self.measure()
        page.get_by_role("button", name="Show what is usually left alone").click()
        page.get_by_role("radio", name="at an angle, or through a linkage").click()
        page.get_by_role("button", name="Linkage").click()
        expect(page.get_by_text("ratio at rest")).to_be_visible()
        field = page.get_by_role("textbox", name="bore, above the pivot")
        expect(field).to_have_value("-64 mm")
        field.fill("-2.2 in")
        field.press("Enter")
        expect(field).to_have_value("-2.2 in")
        rod = page.get_by_role("textbox", name="rod", exact=True)
        rod.fill("20 in of string")
        rod.press("Enter")
        expect(page.get_by_role("alert")).to_be_visible()
        rod.press("Escape")
        page.get_by_role("radio", name="down").click()
        expect(page.get_by_role("alert")).to_contain_text("drives the piston into the bore")
        self.axe()
        self.no_errors("Failed to load resource")

    def test_the_units_of_figures_and_of_bare_numbers_are_chosen(self) -> None:
        page = self.measure()
        page.get_by_role("radiogroup", name="Figures of force").get_by_role("radio", name="lbf").click()
        page.get_by_role("radiogroup", name="Figures of pressure").get_by_role("radio", name="psi").click()
        page.get_by_role("radiogroup", name="Bare numbers of length").get_by_role("radio", name="in").click()
        line = self.open().get_by_role("img", name="Force line")
        expect(line).to_have_attribute("aria-label", re.compile("77 pound-force at the foot.*786 pound per square inch"))
        push = page.get_by_role("textbox", name="Push")
        expect(push).to_have_value("77")
        push.fill("90")
        push.press("Enter")
        expect(line).to_have_attribute("aria-label", re.compile("90 pound-force at the foot"))
        pin = page.get_by_role("textbox", name="pin", exact=True)
        pin.fill("2")
        pin.press("Enter")
        expect(pin).to_have_value("2 in")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Units").click()
        self.axe()
        newton = page.get_by_role("radiogroup", name="Figures of force").get_by_role("radio", name="N", exact=True)
        newton.click()
        expect(line).to_have_attribute("aria-label", re.compile("400 newton at the foot"))  # the same push
        expect(newton).to_be_focused()
        self.no_errors()

    def test_two_tabs_on_one_field(self) -> None:
        page, other = self.measure(), self.measure(page=self.new_page())
        mine = page.get_by_role("textbox", name="free play")
        mine.fill("7 mm")
        theirs = other.get_by_role("textbox", name="free play")
        theirs.fill("4 mm")
        theirs.press("Enter")
        expect(page.get_by_text("5/32 in")).to_be_visible()
        mine.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("stored is 4 mm, you entered 7 mm")
        mine.press("Escape")
        expect(mine).to_have_value("4 mm")
        self.no_errors()


class Thumb(UiCase):
    width, height = PHONE
    touch = True

    def test_a_new_job_is_measured_by_touch(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        page.get_by_role("textbox", name="name of the vehicle or the job").fill("roadster")
        page.get_by_text("Motorcycle", exact=True).tap()
        page.get_by_role("button", name="Begin, tape in hand").tap()
        expect(page.get_by_text("more for a push and a stop")).to_be_attached()
        page.get_by_role("button", name="Next unknown").tap()
        pad = page.get_by_role("region", name="Figures and fractions")
        expect(pad).to_be_visible()
        field = page.locator("input:focus")
        for key in ("3", "5/8", "in"):
            pad.get_by_role("button", name=key, exact=True).tap()
        expect(field).to_have_value("3 5/8 in")
        pad.get_by_role("button", name="Store and go to the next field").tap()
        expect(page.get_by_text("92.08 mm").or_(page.get_by_text("92.07 mm"))).to_be_attached()
        self.axe()
        self.no_errors()

    def test_targets_are_large_and_nothing_scrolls_sideways(self) -> None:
        page = self.page
        for part in ("control.0", "cylinder.0", "brake.0.1", "lines.0", "vehicle"):
            page.goto(f"{self.url}/jobs/1/measure?part={part}")
            expect(page.get_by_role("button", name="Next unknown")).to_be_visible()
            small = page.evaluate(
                "[...document.querySelectorAll('button, input[type=text]')].filter(e => e.offsetParent)"
                ".map(e => [e.getAttribute('aria-label') || e.textContent, e.getBoundingClientRect()])"
                ".filter(([, r]) => r.height < 43.5).map(([n, r]) => n + ' ' + r.height)"
            )
            self.assertEqual(small, [], part)
            self.fits()
        self.axe()


class Plans(UiCase):
    def test_a_plan_is_copied_renamed_compared_and_taken_out_with_undo(self) -> None:
        page = self.open()
        page.get_by_role("button", name="New plan from plan A").click()
        expect(page.get_by_role("radio", name=re.compile("Plan C"))).to_be_checked()
        page.get_by_role("button", name="More about plan C").click()
        page.get_by_role("textbox", name="name of this plan").fill("small bore")
        page.get_by_role("button", name="Rename it").click()
        expect(page.get_by_role("radio", name=re.compile("Small bore"))).to_be_checked()
        bore = page.get_by_role("textbox", name="Cylinder bore")
        bore.fill("3/4")
        bore.press("Enter")
        expect(page.get_by_role("img", name="Force line")).to_have_attribute("aria-label", re.compile("291 newton"))
        page.get_by_role("button", name="More about small bore").click()
        page.get_by_role("button", name="Side by side with the others").click()
        row = page.get_by_role("row", name=re.compile("^push for the stop"))
        expect(row).to_contain_text("291")
        expect(page.get_by_text(re.compile("Small bore: 64 % lighter"))).to_be_visible()
        self.axe()
        page.keyboard.press("Escape")
        page.get_by_role("button", name="More about small bore").click()
        page.get_by_role("button", name="Delete plan (can be undone)").click()
        expect(page.get_by_role("radio", name=re.compile("Small bore"))).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("radio", name=re.compile("Small bore"))).to_be_visible()
        self.no_errors(plan_gone=True)

    def test_what_if_the_working_and_the_knee(self) -> None:
        page = self.open()
        page.get_by_role("radio", name="rear circuit lost").click()
        expect(page.get_by_text("What if: rear circuit lost")).to_be_visible()
        page.get_by_role("button", name="Nothing has failed").click()
        page.get_by_role("button", name="Cylinder: working").click()
        working = page.get_by_role("region", name="Working: Cylinder")
        expect(working.get_by_text("5.42 MPa").first).to_be_visible()
        expect(working.get_by_text("assumed, common practice").first).to_be_visible()
        working.get_by_role("button", name=re.compile("clamp force, front")).click()
        expect(page.get_by_role("region", name="Working: Brakes")).to_be_visible()
        self.axe()
        page.keyboard.press("Escape")
        knee = page.get_by_role("slider", name="Valve knee")
        expect(knee).to_have_attribute("aria-valuenow", re.compile(r"^5765"))
        knee.press("Shift+ArrowLeft")
        expect(knee).to_have_attribute("aria-valuenow", re.compile(r"^5\d\d\d"))
        expect(page.get_by_role("textbox", name="knee")).to_have_value(re.compile(r"^5.*MPa"))
        for _ in range(3):  # faster than they are answered, and the focus stays
            page.keyboard.press("Shift+ArrowLeft")
        expect(knee).to_have_attribute("aria-valuenow", re.compile(r"^37\d\d"))
        expect(page.get_by_role("textbox", name="knee")).to_have_value(re.compile(r"^3\.76 MPa"))
        expect(knee).to_be_focused()
        page.get_by_role("button", name=re.compile("Bore 1 in")).click()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("1 in")
        self.no_errors()

    def test_the_pin_is_dragged_as_one_step_and_every_plot_has_a_table(self) -> None:
        page = self.open()
        box = page.get_by_role("slider", name="Pin, from the pivot").bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 13, box["y"] + 13)
        page.mouse.down()
        for step in range(1, 7):
            page.mouse.move(box["x"] + 13, box["y"] + 13 + step)
            page.wait_for_timeout(60)
        page.mouse.up()
        pin = page.get_by_role("textbox", name="pin", exact=True)
        expect(pin).not_to_have_value("48 mm")
        page.get_by_role("button", name="Undo").click()
        expect(pin).to_have_value("48 mm")
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        for _ in range(3):
            page.get_by_role("button", name="table", exact=True).first.click()
        expect(page.get_by_role("table")).to_have_count(3)
        expect(page.get_by_role("cell", name="13/16 in")).to_be_visible()
        for other in ("Pressure through the valve", "Adhesion used", "Ratio through the stroke", "Heat"):
            page.get_by_role("button", name=re.compile("Instrument 1$")).click()
            page.get_by_role("option", name=other).click()
            expect(page.get_by_role("region", name=other)).to_be_visible()
        expect(page.get_by_text(re.compile("Hottest \\d+ °C"))).to_be_visible()
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

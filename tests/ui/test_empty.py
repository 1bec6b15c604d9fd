"""Size of a new job: drawn as far as it is known, filled by keys alone to the first push, on every layout; and on a phone."""

import json
import re
import typing
import unittest
import urllib.request
from typing import Any

from kobrix.fileformat.layouts import Layout
from playwright.sync_api import Page, expect

from tests.ui.case import PHONE, UiCase

# What is read off the vehicle, by the name of the field; what is a choice, by its words.
READ = {
    "pivot to pad centre": "292", "pivot to the fingers": "90", "pivot to foot pad": "150", "pivot to toe": "160",
    "pivot to pushrod pin": "48", "bore": "7/8", "front bore": "3/4", "rear bore": "3/4", "pistons": "2x38",
    "rotor diameter": "280", "wheelbase": "2480", "mass": "1310", "front tyre": "185/60R15", "rear tyre": "185/60R15", "tyre": "185/60R15",
    "wheel cylinder bore": "3/4", "drum diameter": "203",
}  # fmt: skip


class Begun(UiCase):
    width, height = 1366, 640

    def begun(self, layout: str) -> Page:
        body = json.dumps({"name": f"new {layout}", "layout": layout}).encode()
        asked = urllib.request.Request(f"{self.url}/api/jobs/new", body, {"Content-Type": "application/json"})
        with urllib.request.urlopen(asked) as answer:
            job: dict[str, Any] = json.load(answer)
        self.page.goto(f"{self.url}/jobs/{job['id']}/size")
        expect(self.page.get_by_role("heading", name="to go")).to_be_visible()
        return self.page


class FirstPush(Begun):
    def here(self) -> dict[str, str]:
        found: dict[str, str] = self.page.evaluate(
            "(() => { const e = document.activeElement, box = e.closest('[data-entry]');"
            "return { tag: e.tagName, path: box?.dataset.entry ?? '', state: box?.dataset.state ?? '', "
            "label: e.getAttribute('aria-label') || box?.querySelector('.name')?.textContent || '' } })()"
        )
        return found

    def press(self, *keys: str) -> None:
        for key in keys:
            self.page.keyboard.press(key)
            self.keys += 1

    def walk(self) -> int:
        """Everything that is wanted, typed in the order in which the keys lead there; the number of entries."""
        line = self.page.get_by_role("img", name="Force line")
        entries = 0
        while not line.count():
            before = self.here()
            if before["path"] == "":  # all is in, and the line is on its way
                expect(line).to_be_visible()
                break
            entries += 1
            self.assertLess(entries, 40, "it does not end")
            if before["tag"] == "BUTTON":  # a choice: Enter takes the one that has the focus and goes on
                self.press("Enter")
            else:
                self.press(*READ[before["label"]], "Enter")
            self.page.wait_for_function(
                "path => document.activeElement.closest('[data-entry]')?.dataset.entry !== path"
                " || document.querySelector('[aria-label^=\"Force line: \"]')",
                arg=before["path"],
            )
        return entries

    def first_push(self, layout: str) -> tuple[int, int]:
        self.keys = 0
        page = self.begun(layout)
        page.get_by_role("button", name="Assume the").focus()
        self.press("Enter")
        expect(page.get_by_role("button", name="Assume the")).to_have_count(0)
        self.on_an_unknown()
        entries = self.walk()
        expect(page.get_by_role("img", name="Force line")).to_be_visible()
        return entries, self.keys

    def test_a_car_s_first_push_is_twelve_entries_and_ninety_keystrokes_away(self) -> None:
        entries, keys = self.first_push("car_front_rear")
        self.assertLessEqual(entries, 12)
        self.assertLessEqual(keys, 90)
        travel = self.page.get_by_role("region", name="Where the pedal goes")
        expect(travel).to_contain_text(
            "the pedal’s travel to its stop, the cylinder’s stroke, the hoses’ lengths, the hard lines’ lengths."
        )
        self.no_errors()

    def test_the_right_is_the_same_as_the_left_in_one_press(self) -> None:
        page = self.begun("aircraft_tail_wheel")
        page.get_by_role("button", name="Assume the").click()
        left = page.get_by_role("article", name=re.compile("^Left: "))
        for name in ("pivot to toe", "pivot to pushrod pin", "bore", "pistons", "rotor diameter"):
            field = left.get_by_role("textbox", name=name)
            field.fill(READ[name])
            field.press("Enter")
            expect(field).to_have_value(re.compile(f"^{READ[name].replace('x', ' ?[x×] ?')}"))
        left.get_by_role("radio", name=re.compile("^floating")).click()
        expect(left.get_by_role("radio", name=re.compile("^floating"))).to_be_checked()
        page.get_by_role("button", name=re.compile("^Right: .* the same as left")).press("Enter")
        right = page.get_by_role("article", name=re.compile("^Right: "))
        for name in ("pivot to toe", "bore", "pistons"):
            expect(right.get_by_role("textbox", name=name)).not_to_have_value("")
        expect(right.get_by_role("radio", name=re.compile("^floating"))).to_be_checked()
        self.on_an_unknown()
        page.get_by_role("button", name="Undo").click()
        expect(right.get_by_role("textbox", name="bore")).to_have_value("")
        self.axe()
        self.no_errors()

    def test_what_is_typed_or_chosen_just_before_is_made_the_same_too(self) -> None:
        page = self.begun("aircraft_tail_wheel")
        left, right = (page.get_by_role("article", name=re.compile(f"^{side}: ")) for side in ("Left", "Right"))
        left.get_by_role("textbox", name="bore").fill(READ["bore"])
        left.get_by_role("textbox", name="bore").press("Enter")
        same = page.get_by_role("button", name=re.compile("^Right: .* the same as left"))
        expect(same).to_be_visible()
        held = self.hold("**/changes")
        left.get_by_role("radio", name=re.compile("^floating")).click()
        left.get_by_role("textbox", name="pistons").fill(READ["pistons"])
        same.click()
        self.let_go(held)
        for name in ("bore", "pistons"):
            expect(right.get_by_role("textbox", name=name)).not_to_have_value("")
        expect(right.get_by_role("radio", name=re.compile("^floating"))).to_be_checked()
        expect(same).to_have_count(0)
        self.no_errors()

    def test_what_is_refused_stays_with_what_is_allowed(self) -> None:
        page = self.begun("car_front_rear")
        bore = page.get_by_role("textbox", name="bore")
        bore.fill("900 psi")
        bore.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("length")
        expect(bore).to_have_value("900 psi")
        self.axe()
        self.no_errors("422")

    def test_an_entry_that_is_on_its_way_is_not_asked_for_again(self) -> None:
        page = self.begun("car_front_rear")
        held = self.hold("**/changes")
        on = page.get_by_role("button", name="Next unknown")
        on.click()
        first = self.here()
        page.keyboard.type(READ[first["label"]])
        page.keyboard.press("Enter")
        on.click()
        self.assertNotIn(self.here()["path"], ("", first["path"]))
        self.let_go(held)
        expect(page.locator(f"[data-entry='{first['path']}']")).to_have_attribute("data-state", "measured")
        self.no_errors()

    def test_an_entry_that_another_one_filled_is_not_asked_for(self) -> None:
        page = self.begun("car_front_rear")
        rear = page.get_by_role("article", name=re.compile("^Rear"))
        for name in ("pistons", "rotor diameter"):
            rear.get_by_role("textbox", name=name).fill(READ[name])
            rear.get_by_role("textbox", name=name).press("Enter")
            expect(rear.get_by_role("textbox", name=name)).not_to_be_focused()
        rear.get_by_role("radio", name=re.compile("^floating")).press("Enter")
        tyre = page.get_by_role("article", name=re.compile("^Front")).get_by_role("textbox", name="tyre")
        tyre.fill(READ["tyre"])
        tyre.press("Enter")
        expect(tyre).not_to_be_focused()
        self.assertEqual(self.here()["label"], "wheelbase")
        expect(rear.get_by_role("textbox", name="tyre")).to_have_value(READ["tyre"])
        self.no_errors()

    def test_a_choice_stands_at_once_and_falls_back_when_it_is_refused(self) -> None:
        page = self.begun("car_front_rear")
        steps = self.hold("**/changes")
        rear = page.get_by_role("article", name=re.compile("^Rear"))
        floating = rear.get_by_role("radio", name=re.compile("^floating"))
        floating.press("Enter")
        expect(floating).to_be_checked()
        rear.get_by_role("textbox", name="pistons").press("Enter")
        expect(rear.get_by_role("textbox", name="rotor diameter")).to_be_focused()
        self.assertTrue(self.comes(lambda: steps), "it was not sent")
        no = {"type": "about:blank", "title": "No", "status": 422, "detail": "Refused for a reason.", "problems": [], "both": []}
        steps[0].fulfill(status=422, json=no)
        expect(page.get_by_text("Refused for a reason.")).to_be_visible()
        expect(floating).not_to_be_checked()
        self.no_errors("422")

    def test_who_pressed_by_a_key_goes_on_though_the_sheet_is_drawn_anew_before_it_is_done(self) -> None:
        page = self.begun("car_front_rear")
        steps = self.hold("**/changes")
        mass = page.get_by_role("textbox", name="mass")
        mass.fill(READ["mass"])
        mass.press("Enter")
        assume = page.get_by_role("button", name="Assume the")
        assume.press("Enter")
        self.assertTrue(self.comes(lambda: steps), "the entry was not sent")
        steps.pop(0).continue_()
        self.assertTrue(self.comes(lambda: steps), "the step was not made")
        expect(page.locator("[data-entry$='mass_kg']")).to_have_attribute("data-state", "measured")
        expect(assume).to_be_focused()
        self.let_go(steps)
        expect(assume).to_have_count(0)
        self.on_an_unknown()
        self.no_errors()

    def test_every_layout_is_walked_to_its_first_push_by_keys(self) -> None:
        for layout in typing.get_args(Layout):
            with self.subTest(layout):
                self.first_push(layout)
        self.no_errors()


class OnAPhone(Begun):
    width, height = PHONE
    touch = True

    def test_it_fits_and_breaks_no_rule(self) -> None:
        for layout in typing.get_args(Layout):
            self.begun(layout)
            self.fits()
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

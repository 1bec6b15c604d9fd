"""Prove driven as at the roadside: stops typed with a thumb, off line too, struck out and counted again."""

import re
import unittest

from playwright.sync_api import expect

from tests.api.test_recordings import logged
from tests.ui.case import PHONE, UiCase


class OnALaptop(UiCase):
    def test_the_demo_tells_truthfully_what_the_stops_say(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        expect(page.get_by_text(re.compile("^Plan A, bedded: 10.7 m shorter than as found"))).to_be_visible()
        expect(page.get_by_text("It was the brakes.")).to_be_visible()
        expect(page.get_by_text("it is not worth it")).to_be_visible()
        self.fits()
        self.axe()
        page.emulate_media(color_scheme="dark")
        self.axe()
        self.no_errors()

    def test_a_stop_is_struck_out_with_a_reason_and_counted_again(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        expect(page.get_by_text("29 stops count in 5 sets")).to_be_visible()
        page.get_by_role("button", name="Strike out stop 1", exact=True).click()
        page.get_by_role("textbox", name="why it does not count").fill("a dog ran out")
        page.get_by_role("button", name="Strike it out").click()
        expect(page.get_by_text("28 stops count in 5 sets")).to_be_visible()
        expect(page.get_by_text(re.compile("a dog ran out"))).to_be_visible()
        page.get_by_role("button", name="Count stop 1 again").click()
        expect(page.get_by_text("29 stops count in 5 sets")).to_be_visible()
        self.no_errors()

    def test_a_stop_opens_to_its_working(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        page.get_by_role("button", name="15: how the figures of this stop came about").click()
        expect(page.get_by_text(re.compile(r"^36.4·\(80/79.0\)² = 37.3 m"))).to_be_visible()
        self.fits()
        self.axe()
        page.get_by_role("button", name="15: how the figures of this stop came about").press("Enter")
        expect(page.get_by_text(re.compile(r"^36.4·"))).to_have_count(0)
        self.no_errors()

    def test_a_ring_goes_along_a_stop_by_keys_and_by_hand(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        page.get_by_role("button", name="15: how the figures of this stop came about").click()
        ring = page.get_by_role("slider", name="Along stop 15 of plan A, bedded")
        # 37.3 m from 80 km/h, steadily: half the speed is left after three quarters of the way
        expect(ring).to_have_attribute("aria-valuetext", re.compile(r"^at 40 km/h: 28.0 m, 1.68 s, 0.68 g$"))
        ring.focus()
        page.keyboard.press("Shift+ArrowRight")
        expect(ring).to_have_attribute("aria-valuenow", re.compile("^29"))
        box = ring.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x - 4000, y)
        page.mouse.up()
        expect(ring).to_have_attribute("aria-valuetext", re.compile(r"^at 80 km/h: 0.0 m, 0.00 s"))
        expect(page.get_by_text("stop 15, at 80 km/h")).to_be_visible()
        page.keyboard.press("ArrowUp")
        expect(page.get_by_role("slider", name="Along stop 14 of plan A, new")).to_be_focused()
        self.axe()
        self.no_errors()

    def test_delete_on_the_ring_strikes_its_stop_out_with_a_reason_and_it_stays_in_sight(self) -> None:
        for width, height in ((1280, 800), PHONE):  # the table is folded on a phone
            page = self.page
            page.set_viewport_size({"width": width, "height": height})
            page.goto(f"{self.url}/jobs/1/prove")
            why = page.get_by_role("textbox", name="why it does not count")
            ring = page.get_by_role("slider", name=re.compile("^Along stop"))
            number = int(re.findall("stop ([0-9]+)", ring.get_attribute("aria-label") or "")[0])
            ring.focus()
            page.keyboard.press("Delete")
            expect(why).to_be_focused()
            page.get_by_role("button", name="leave it").press("Enter")
            expect(ring).to_be_focused()
            page.keyboard.press("Delete")
            expect(why).to_be_focused()
            page.keyboard.type("a dog on the road")
            page.keyboard.press("Enter")
            again = page.get_by_role("button", name=f"Count stop {number} again")
            expect(again).to_be_visible()
            expect(page.get_by_role("row").filter(has=again)).to_have_attribute("data-out", "true")
            page.wait_for_function("document.activeElement !== document.body")
            again.press("Enter")
            expect(again).to_have_count(0)
        self.axe()
        self.no_errors()

    def test_another_tab_hears_of_a_stop(self) -> None:
        page, other = self.page, self.new_page()
        for tab in (page, other):
            tab.goto(f"{self.url}/jobs/1/prove")
            expect(tab.get_by_text("29 stops count in 5 sets")).to_be_visible()
        page.get_by_role("textbox", name="distance", exact=True).fill("37")
        page.get_by_role("button", name="Keep this stop").click()
        expect(other.get_by_text("30 stops count in 5 sets")).to_be_visible()
        self.no_errors()

    def test_a_recording_is_read_its_columns_put_right_and_its_stops_kept(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        expect(page.get_by_text("29 stops count in 5 sets")).to_be_visible()
        files = page.locator("input[type=file]")
        panel = page.get_by_role("region", name="Read a recording")
        files.set_input_files({"name": "wrong.csv", "mimeType": "text/csv", "buffer": b"t,v\n0,80\n0.1,=A1\n"})
        expect(panel.get_by_role("alert")).to_contain_text("Line 3, column 2 (v): '=A1' was given")
        files.set_input_files({"name": "drive.csv", "mimeType": "text/csv", "buffer": logged(2).replace(b"speed (km/h)", b"v2")})
        expect(panel.get_by_role("alert")).to_contain_text("one of speed among them")
        panel.get_by_role("button", name=re.compile("not used")).first.click()
        page.get_by_role("option", name="speed", exact=True).click()
        expect(panel.get_by_role("list", name="Stops in the recording").get_by_role("listitem")).to_have_count(2)
        panel.get_by_role("checkbox").first.press(" ")
        self.axe()
        panel.get_by_role("button", name="Keep 1 stop in plan A, row").click()
        expect(panel.get_by_text("1 stop kept")).to_be_visible()
        expect(page.get_by_text("30 stops count in 5 sets")).to_be_visible()
        panel.get_by_role("button", name="simulated meter: one stop").click()
        expect(page.get_by_text("simulated: never counted")).to_be_visible()
        expect(page.get_by_text("30 stops count in 5 sets")).to_be_visible()
        self.no_errors("Failed to load resource")

    def test_a_valve_is_noted_its_next_setting_told_and_written_down(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        panel = page.get_by_role("region", name="Valve or bar")
        panel.get_by_role("button", name="there is none").click()
        for name, text in (("turns from", "0"), ("to", "many"), ("it stands at", "4")):
            panel.get_by_role("textbox", name=name, exact=True).fill(text)
        panel.get_by_role("button", name="Note it").click()
        expect(panel.get_by_role("alert")).to_contain_text("most: many was given; allowed is a number")
        panel.get_by_role("textbox", name="to", exact=True).fill("5")
        panel.get_by_role("button", name="Note it").click()
        verdict = page.get_by_role("region", name="Verdict")
        expect(verdict).to_contain_text("1 note of what locked")  # the demo's own, wide open
        for name, text in (("distance", "37"), ("valve at", "4"), ("distance", "37")):
            page.get_by_role("textbox", name=name, exact=True).fill(text)
        page.get_by_role("button", name=re.compile("^not noted locked|^locked")).first.click()
        page.get_by_role("option", name="rear", exact=True).click()
        page.get_by_role("button", name="Keep this stop").click()
        expect(verdict).to_contain_text("2 notes of what locked")
        press = panel.get_by_role("button", name=re.compile("^It is set to"))
        told = re.findall(r"[\d.]+", press.inner_text())[0]
        press.click()
        expect(panel.get_by_role("textbox", name="valve stands at")).to_have_value(told)
        self.axe()
        self.no_errors()

    def test_a_motorcycle_s_sets_are_stopped_with_hand_foot_or_both(self) -> None:
        page = self.page
        self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/motorcycle").status, 201)
        page.goto(f"{self.url}/jobs/2/prove")
        for name, with_ in (("hand", "hand"), ("both", "all together")):
            page.get_by_role("textbox", name="a set more").fill(name)
            page.get_by_role("button", name=re.compile("stopped with$")).press("Enter")
            page.get_by_role("option", name=with_, exact=True).click()
            page.get_by_role("button", name="Add the set").click()
            expect(page.get_by_role("button", name=f"Change the set {name}")).to_be_visible()
        sets = page.get_by_role("list", name="Sets of stops").get_by_role("listitem")
        expect(sets).to_have_text([re.compile("^hand, driven as found; stopped with hand"), re.compile("^both, driven as found")])
        page.get_by_role("button", name="Change the set both").click()
        page.get_by_role("listitem").get_by_role("button", name=re.compile("stopped with$")).press("Enter")
        page.get_by_role("option", name="foot", exact=True).click()
        expect(sets.nth(1)).to_contain_text("stopped with foot")
        page.get_by_role("listitem").get_by_role("button", name=re.compile("stopped with$")).press("Enter")
        page.get_by_role("option", name="all together", exact=True).click()
        expect(sets.nth(1)).not_to_contain_text("; stopped with")
        page.get_by_role("button", name="Undo").first.click()
        expect(sets.nth(1)).to_contain_text("stopped with foot")
        self.fits()
        self.axe()
        self.no_errors()

    def test_a_set_is_changed_made_a_row_and_its_fade_is_told(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        expect(page.get_by_role("region", name="Row of stops: plan A, row")).to_contain_text("The brakes fade")
        sets = page.get_by_role("region", name="Sets")
        sets.get_by_role("button", name="Change the set plan A, new").click()
        before = page.get_by_role("toolbar", name="Changed before plan A, new")
        before.get_by_role("button", name="tyres").click()
        expect(sets).to_contain_text("plan A, new, driven plan A; changed: tyres, brakes")
        gap = sets.get_by_role("textbox", name="a row: time between stops")
        gap.fill("long")
        gap.press("Enter")
        expect(sets.get_by_role("alert")).to_contain_text("long")
        gap.fill("30 s")
        gap.press("Enter")
        expect(page.get_by_role("region", name="Row of stops: plan A, new")).to_contain_text("Hottest by the model")
        page.get_by_role("button", name=re.compile("^Undo")).click()
        expect(page.get_by_role("region", name="Row of stops: plan A, new")).to_have_count(0)
        self.fits()
        self.axe()
        self.no_errors("422")


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def test_a_new_job_gets_its_first_stops_from_nothing_and_off_line(self) -> None:
        page = self.page
        new = page.request.post(f"{self.url}/api/jobs/new", data={"name": "estate", "layout": "car_front_rear"}).json()
        page.goto(f"{self.url}/jobs/{new['id']}/prove")
        expect(page.get_by_text(re.compile("^No stop yet"))).to_be_visible()
        page.get_by_role("button", name="Add the set").tap()
        expect(page.get_by_role("button", name="Keep this stop")).to_be_visible()
        for distance in ("48.2", "49 m"):
            page.get_by_role("textbox", name="distance", exact=True).fill(distance)
            page.get_by_role("button", name="Keep this stop").tap()
            expect(page.get_by_role("textbox", name="distance", exact=True)).to_have_value("")
        expect(page.get_by_text("2 stops count in 1 set")).to_be_visible()
        page.get_by_role("textbox", name="distance", exact=True).fill("far")
        page.get_by_role("button", name="Keep this stop").tap()
        expect(page.get_by_role("alert")).to_contain_text("far")
        page.context.set_offline(True)
        page.get_by_role("textbox", name="distance", exact=True).fill("47.5")
        page.get_by_role("button", name="Keep this stop").tap()
        expect(page.get_by_role("status", name="Not stored yet")).to_contain_text("1 change waits: a stop of as found")
        page.context.set_offline(False)
        expect(page.get_by_text("3 stops count in 1 set")).to_be_visible()
        self.fits()
        self.axe()
        self.no_errors("422", "ERR_INTERNET_DISCONNECTED")

    def test_the_first_drive_is_ticked_step_by_step_off_line_too(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        drive = page.get_by_role("region", name="First drive")
        expect(drive).to_contain_text("The stand test of this setup is not signed yet")
        walk = drive.get_by_role("checkbox", name=re.compile("^Walking pace"))
        page.context.set_offline(True)
        walk.press(" ")
        expect(walk).to_be_checked()
        expect(page.get_by_role("status", name="Not stored yet")).to_contain_text("1 change waits")
        page.context.set_offline(False)
        expect(drive).to_contain_text("1 of 8 done")
        walk.press(" ")
        expect(drive).to_contain_text("0 of 8 done")
        expect(walk).not_to_be_checked()
        self.no_errors("ERR_INTERNET_DISCONNECTED")


if __name__ == "__main__":
    unittest.main()

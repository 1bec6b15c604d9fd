"""Build with a phone at the vehicle: step by step, signed by holding, off line and over a reload; and the whole job on a laptop."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def done(self) -> None:
        self.page.get_by_role("button", name="Done", exact=True).tap()

    def test_steps_are_done_with_a_thumb_off_line_and_over_a_reload(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        expect(page.get_by_text("0 of 107 steps done")).to_be_visible()
        self.done()
        expect(page.get_by_text("1 of 107 steps done")).to_be_visible()
        expect(page.get_by_role("heading", name=re.compile("Note today"))).to_be_visible()
        page.context.set_offline(True)
        self.done()
        expect(page.get_by_role("status", name="Not stored yet")).to_contain_text("1 change waits")
        page.context.set_offline(False)
        expect(page.get_by_text("2 of 107 steps done")).to_be_visible()
        page.reload()
        expect(page.get_by_text("2 of 107 steps done")).to_be_visible()
        page.get_by_role("textbox", name="how it was, what was found").fill("lines labelled 1 2 3")
        page.get_by_role("button", name="Note it").tap()
        expect(page.get_by_role("figure")).to_contain_text("lines labelled 1 2 3")
        self.fits()
        self.axe()
        self.no_errors("ERR_INTERNET_DISCONNECTED")

    def test_bolts_go_into_numbered_bags_and_old_parts_are_told_apart(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        bag = page.get_by_role("textbox", name="bolt bag")
        bag.fill("2.5")
        page.get_by_role("button", name="Note it").tap()
        expect(page.get_by_role("alert")).to_contain_text("a whole number from 1 to 999 is wanted, “2.5” was given")
        bag.fill("7")
        page.get_by_role("button", name=re.compile("the old part")).tap()
        page.get_by_role("option", name="goes back", exact=True).tap()
        page.get_by_role("textbox", name="how it was, what was found").fill("hub bolts")
        page.get_by_role("button", name="Note it").tap()
        expect(page.get_by_role("figure")).to_contain_text("hub bolts; bolt bag 7, the old part goes back")
        expect(page.get_by_role("textbox", name="bolt bag")).to_have_attribute("placeholder", "next is 8")
        self.done()
        expect(page.get_by_text("1 of 107 steps done")).to_be_visible()
        bags = page.get_by_role("region", name="Bolt bags and old parts")
        expect(bags).to_contain_text("Bolt bag 7, the old part goes back: hub bolts")
        bags.get_by_role("button").tap()
        expect(page.get_by_role("figure")).to_contain_text("hub bolts")
        self.fits()
        self.axe()
        self.no_errors()

    def test_what_went_wrong_brings_its_steps_and_its_parts(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        page.get_by_role("button", name="open system, whole job: open").tap()
        page.get_by_role("button", name=re.compile("it went wrong")).tap()
        page.get_by_role("option", name="a flare nut will not turn").tap()
        expect(page.get_by_text(re.compile("^To the parts list: hard line to replace a seized one"))).to_be_visible()
        page.get_by_role("button", name="Put these steps before this one").tap()
        expect(page.get_by_text("0 of 110 steps done, 0 of 22 critical ones signed")).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("^Penetrating oil on"))).to_be_visible()
        parts = page.request.get(f"{self.url}/api/jobs/1").json()["document"]["parts_list"]
        self.assertIn({"part": "flare nut to match", "wanted": 2, "shop": "fittings"}, parts)
        # Another of the same kind does not double what is on the list, and both are undone by their steps.
        page.get_by_role("button", name="open system, whole job: open").tap()
        page.get_by_role("button", name=re.compile("it went wrong")).tap()
        page.get_by_role("option", name="a flare nut will not turn").tap()
        page.get_by_role("button", name="Put these steps before this one").tap()
        expect(page.get_by_text("0 of 113 steps done, 0 of 23 critical ones signed")).to_be_visible()
        self.fits()
        self.axe()
        self.no_errors()

    def test_a_step_of_ones_own_earlier_later_and_out_and_the_minutes_it_took(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        page.get_by_role("textbox", name="a step of your own before this one").fill("Borrow the second jack")
        page.get_by_role("button", name="Add it", exact=True).tap()
        expect(page.get_by_role("heading", name=re.compile("Borrow the second jack"))).to_be_visible()
        expect(page.get_by_text("step 1 of 108")).to_be_visible()
        expect(page.get_by_role("button", name="do it earlier")).to_be_disabled()
        minutes = page.get_by_role("textbox", name="minutes it took")
        minutes.fill("ten")
        expect(page.get_by_role("alert")).to_contain_text("Minutes: ten was given")
        minutes.fill("12,5")
        self.done()
        expect(page.get_by_role("region", name="Time and money")).to_contain_text("13 min noted in 1 of 1 steps done")
        expect(page.get_by_role("heading", name=re.compile("Lay out every part"))).to_be_visible()
        later = page.get_by_role("button", name="do it later")
        later.tap()
        expect(page.get_by_text("step 3 of 108")).to_be_visible()
        expect(page.get_by_role("heading", name=re.compile("Lay out every part"))).to_be_visible()
        page.get_by_role("button", name="Borrow the second jack, whole job: done").tap()
        expect(page.get_by_role("button", name="leave this step out")).to_have_count(0)
        self.fits()
        self.no_errors()

    def test_a_step_is_taken_back_with_a_reason(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        self.done()
        expect(page.get_by_text("1 of 107 steps done")).to_be_visible()
        page.get_by_role("button", name=re.compile("^parts check, whole job: done")).tap()
        page.get_by_role("button", name="It is not done: take it back").tap()
        page.get_by_role("textbox", name="why", exact=True).fill("a washer is missing")
        page.get_by_role("button", name="Take it back", exact=True).tap()
        expect(page.get_by_text("0 of 107 steps done")).to_be_visible()
        self.no_errors()


class OnALaptop(UiCase):
    def test_a_pit_in_the_bore_is_judged_by_the_cups_sweep(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        panel = page.get_by_role("region", name="Rebuilding the cylinder")
        expect(panel).to_contain_text(re.compile(r"sweeps \d+\.\d mm at the stop wanted, 30\.0 mm at most"))
        pit = panel.get_by_role("textbox", name=re.compile("^primary cup"))
        pit.fill("far")
        pit.press("Enter")
        expect(panel.get_by_role("alert")).to_contain_text("'far' was given")
        pit.fill("9 mm")
        pit.press("Enter")
        expect(panel).to_contain_text("In the cup's way at every hard stop")
        pit.fill("1 1/2 in")
        pit.press("Enter")
        expect(panel).to_contain_text("Beyond the cup's way by 8.1 mm")
        pit.fill("")
        pit.press("Enter")
        expect(panel.get_by_text("Beyond the cup's way")).to_have_count(0)
        self.axe()
        self.no_errors("Failed to load resource")

    def test_a_critical_step_is_signed_by_holding_once_all_before_it_is_done(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        page.get_by_role("button", name=re.compile("^wheel nuts, front, signed")).click()
        expect(page.get_by_text(re.compile("^First: "))).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("Hold to sign"))).to_be_disabled()
        # everything before it, as its records
        view = page.request.get(f"{self.url}/api/jobs/1/build").json()
        steps = [s for d in view["days"] for s in d["steps"]]
        own = next(s for s in steps if s["row"] == "wheel_nuts" and s["place"] == "front")
        for n, step in enumerate(s for s in steps if s["key"] in own["waits"]):
            body = {"setup": "plan A", "step": step["key"]}
            asked = {"key": f"before-{n:08d}", "kind": "signed", "body": body}
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/1/records", data=asked).status, 201)
        torque = page.get_by_role("textbox", name="maker’s torque")
        torque.fill("850")
        torque.press("Enter")
        page.get_by_role("textbox", name="where it stands").fill("wheel maker's sheet")
        page.keyboard.press("Enter")
        page.get_by_role("textbox", name="most your torque wrench shows").fill("110")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("more than your wrench shows")
        torque.fill("85 Nm")
        torque.press("Enter")
        page.get_by_role("textbox", name="who signs").fill("R. H.")
        hold = page.get_by_role("button", name=re.compile("Hold to sign: 85"))
        expect(hold).to_be_enabled()
        hold.click()  # a slip signs nothing
        expect(hold).to_be_enabled()
        hold.hover()
        page.mouse.down()
        expect(page.get_by_role("button", name=re.compile("^wheel nuts, front, signed for: done"))).to_be_visible()
        page.mouse.up()
        page.get_by_role("button", name=re.compile("^wheel nuts, front, signed for: done")).click()
        expect(page.get_by_text(re.compile("R. H.: 85 Nm, wheel maker's sheet"))).to_be_visible()
        self.no_errors()

    def test_the_order_of_the_groups_is_taken_and_undone(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        expect(page.get_by_role("img", name=re.compile("Half-done states"))).to_be_visible()
        page.get_by_role("button", name=re.compile("^Steps in this order")).click()
        expect(page.get_by_role("region", name="Steps: pedal")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Undo")).click()
        expect(page.get_by_role("region", name="Steps: all in one go")).to_be_visible()
        page.get_by_role("button", name="Add its steps").click()
        expect(page.get_by_text("lamp switch", exact=False).first).to_be_visible()
        self.no_errors()

    def test_every_vehicle_and_width_fits_and_axe_finds_nothing(self) -> None:
        page = self.page
        for name in ("motorcycle", "light-aircraft"):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{name}").status, 201)
        for job in (1, 2, 3):
            for width, height in ((1280, 800), (1366, 640), (820, 1180), PHONE):
                page.set_viewport_size({"width": width, "height": height})
                page.goto(f"{self.url}/jobs/{job}/build")
                expect(page.get_by_role("heading", name="What else is done")).to_be_visible()
                self.fits()
            self.axe()
        page.set_viewport_size({"width": 1280, "height": 800})
        page.emulate_media(color_scheme="dark")
        page.goto(f"{self.url}/jobs/1/build")
        expect(page.get_by_role("heading", name="What else is done")).to_be_visible()
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

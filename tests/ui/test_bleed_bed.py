"""Bleed and Bed with a phone at the vehicle and on a laptop: screws, holds, the stand test and its gate, the recipe and its passenger."""

import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase


class OnALaptop(UiCase):
    def test_the_air_left_in_is_found_and_a_run_without_it_is_signed(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/bleed")
        expect(page.get_by_text(re.compile("0.5\\d cm³ of air"))).to_be_visible()
        page.get_by_role("button", name="Another run, bled again").click()
        page.get_by_role("textbox", name="scale on the pad").fill("20")
        page.get_by_role("button", name="simulated gauges").click()
        expect(page.get_by_role("row", name=re.compile("simulated"))).to_be_visible()
        view = page.request.get(f"{self.url}/api/jobs/1/bleed").json()
        at = {round(p["force_n"], 3): p for p in view["stand"]["front"]}
        rear = {round(p["force_n"], 3): p for p in view["stand"]["rear"]}
        travel = {round(p["force_n"], 3): p for p in view["stand"]["travel"]}
        for n, force in enumerate(f for f in at if f > 5):
            page.get_by_role("textbox", name="scale on the pad").fill(f"{force} N")
            page.get_by_role("textbox", name="front gauge").fill(f"{at[force]['mid']:.1f} kPa")
            page.get_by_role("textbox", name="rear gauge").fill(f"{rear[force]['mid']:.1f} kPa")
            page.get_by_role("textbox", name="ruler", exact=True).fill(f"{travel[force]['mid']:.1f} mm")
            page.get_by_role("button", name="Keep this push").click()
            expect(page.get_by_role("textbox", name="scale on the pad")).to_have_value("")
            if n > 13:
                break
        expect(page.get_by_role("listitem").filter(has_text="Drive slowly")).to_be_visible()
        page.get_by_role("textbox", name="scale on the pad").fill("heavy")
        page.get_by_role("button", name="Keep this push").click()
        expect(page.get_by_role("alert")).to_contain_text("heavy")
        self.axe()
        self.no_errors("422")

    def test_every_vehicle_and_width_fits_and_axe_finds_nothing(self) -> None:
        page = self.page
        for name in ("motorcycle", "light-aircraft", "hill-climb"):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{name}").status, 201)
        for stage, ready in (("bleed", "Hold the pedal"), ("bed", "Passenger")):
            for job in (1, 2, 3, 4):
                for width, height in ((1280, 800), (1366, 640), (820, 1180), PHONE):
                    page.set_viewport_size({"width": width, "height": height})
                    page.goto(f"{self.url}/jobs/{job}/{stage}")
                    expect(page.get_by_role("heading", name=ready)).to_be_visible()
                    self.fits()
                self.axe()
            page.set_viewport_size({"width": 1280, "height": 800})
            page.emulate_media(color_scheme="dark")
            page.goto(f"{self.url}/jobs/1/{stage}")
            expect(page.get_by_role("heading", name=ready)).to_be_visible()
            self.axe()
            page.emulate_media(color_scheme="light")
        self.no_errors()

    def test_a_long_pedal_is_told_from_two_pushes_and_from_pumping(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/bleed")
        panel = page.get_by_role("region", name="A long pedal")
        for name, text in (
            ("scale, push 1", "1.5 kg"),
            ("ruler, push 1", "60"),
            ("scale, push 2", "hard"),
            ("ruler, push 2", "98 mm"),
        ):
            panel.get_by_role("textbox", name=name, exact=True).fill(text)
        panel.get_by_role("button", name="What do they tell?").click()
        expect(panel.get_by_role("alert")).to_contain_text("push 2: 'hard' was given")
        panel.get_by_role("textbox", name="scale, push 2", exact=True).fill("30")
        panel.get_by_role("button", name="What do they tell?").click()
        expect(panel.get_by_role("status")).to_contain_text("The parts say")
        pumped = panel.get_by_role("form", name="A pumped pedal")
        pumped.get_by_role("textbox", name="ruler, first push").fill("70")
        pumped.get_by_role("textbox", name="ruler, third quick push").fill("84")
        pumped.get_by_role("button", name="What does that tell?").click()
        expect(pumped.get_by_role("status")).to_contain_text("The pedal falls as you pump")
        self.axe()
        self.no_errors("Failed to load resource")


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def test_screws_are_bled_a_dry_reservoir_is_told_and_a_hold_is_kept(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/bleed")
        page.get_by_role("button", name="No bubbles: service rear right").tap()
        expect(page.get_by_text(re.compile("^1 of 4 screws without bubbles"))).to_be_visible()
        page.get_by_role("button", name="Ran dry: service rear left").tap()
        expect(page.get_by_role("alert")).to_contain_text("The reservoir ran dry")
        page.get_by_role("button", name="No bubbles: service rear left").tap()
        expect(page.get_by_text(re.compile("^2 of 4 screws without bubbles"))).to_be_visible()
        page.get_by_role("textbox", name="ruler after 5 s").fill("88")
        page.get_by_role("textbox", name="ruler then").fill("99")
        page.get_by_role("button", name="Keep this hold").tap()
        expect(page.get_by_text(re.compile("It loses, and where is not told yet"))).to_be_visible()
        self.fits()
        self.no_errors()

    def test_opened_joints_are_looked_at_twice_and_a_wet_one_stops_the_drive(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/bleed")
        watch = page.get_by_role("region", name="Leak watch")
        expect(watch.get_by_role("status")).to_contain_text("All dry after the hold")
        watch.get_by_role("button", name="Wet after the first drive: Cylinder to line, front", exact=False).tap()
        expect(watch.get_by_role("status")).to_contain_text("Wet: cylinder to line, front. Do not drive")
        page.context.set_offline(True)
        watch.get_by_role("button", name="Dry after the first drive: Cylinder to line, front", exact=False).tap()
        joint = watch.get_by_role("listitem").filter(has_text="Cylinder to line, front")
        expect(joint).to_contain_text("after the first drive dry")
        page.context.set_offline(False)
        expect(watch.get_by_role("status")).to_contain_text("look again: 4 of 5 to go")
        self.fits()
        self.axe()
        self.no_errors("ERR_INTERNET_DISCONNECTED")

    def recipe(self, count: int) -> None:
        """A recipe of one stage of so many slow-downs, typed for the brake as found."""
        page = self.page
        page.goto(f"{self.url}/jobs/1/bed?plan=as+found")
        expect(page.get_by_text(re.compile("^No recipe yet"))).to_be_visible()
        for name, text in (("slow-downs", str(count)), ("from", "60"), ("to", "20"), ("how hard", "0.3"), ("gap", "30")):
            page.get_by_role("textbox", name=name, exact=True).fill(text)
        page.get_by_role("button", name="Add a stage").tap()

    def test_a_recipe_is_typed_and_its_slow_downs_are_counted_by_a_passenger(self) -> None:
        page = self.page
        self.recipe(2)
        expect(page.get_by_text("Slow-down 1 of 2")).to_be_visible()
        page.get_by_role("button", name="It started now").tap()
        expect(page.get_by_text("Slow-down 2 of 2")).to_be_visible()
        expect(page.get_by_text(re.compile(r"In 0:\d\d|Due since"))).to_be_visible()
        page.get_by_role("button", name="take back 1").tap()
        expect(page.get_by_text("Slow-down 1 of 2")).to_be_visible()
        page.get_by_role("button", name="It started now").tap()
        expect(page.get_by_text("Slow-down 2 of 2")).to_be_visible()
        page.get_by_role("button", name="It started now").tap()
        expect(page.get_by_text("All 2 driven")).to_be_visible()
        self.fits()
        self.axe()
        self.no_errors()

    def test_off_line_every_slow_down_and_screw_is_counted_and_is_stored_later(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/bleed")
        screw = page.get_by_role("button", name="No bubbles: service rear right")
        expect(screw).to_be_visible()
        page.context.set_offline(True)
        screw.tap()
        expect(page.get_by_text(re.compile("^1 of 4 screws without bubbles"))).to_be_visible()
        page.get_by_role("button", name="Bleed again: service rear right").tap()
        expect(screw).to_be_visible()
        screw.tap()
        expect(page.get_by_text(re.compile("^1 of 4 screws without bubbles"))).to_be_visible()
        waits = page.get_by_role("status", name="Not stored yet")
        expect(waits).to_contain_text("3 changes wait")
        page.context.set_offline(False)
        expect(waits).to_have_count(0)
        expect(page.get_by_text(re.compile("^1 of 4 screws without bubbles"))).to_be_visible()
        self.recipe(3)
        start = page.get_by_role("button", name="It started now")
        count = page.get_by_text(re.compile(r"^Slow-down \d of 3$"))
        expect(count).to_have_text("Slow-down 1 of 3")
        page.context.set_offline(True)
        for n in (2, 3):
            start.tap()
            expect(count).to_have_text(f"Slow-down {n} of 3")
        page.get_by_role("button", name="take back 2").tap()
        expect(count).to_have_text("Slow-down 2 of 3")
        page.context.set_offline(False)
        expect(waits).to_have_count(0)
        page.reload()
        expect(count).to_have_text("Slow-down 2 of 3")
        self.no_errors("Failed to load resource")

    def test_a_double_tap_is_one(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        said = page.get_by_text(re.compile(r"^\d+ of \d+ steps done"))
        before = int(said.inner_text().split()[0])
        done = page.get_by_role("button", name="Done", exact=True)
        expect(done).to_be_enabled()
        done.dblclick(delay=30)
        expect(said).to_have_text(re.compile(rf"^{before + 1} of"))
        expect(done.or_(page.get_by_role("button", name=re.compile("^Hold to sign"))).first).to_be_enabled()
        expect(said).to_have_text(re.compile(rf"^{before + 1} of"))


if __name__ == "__main__":
    unittest.main()

"""Fit driven as a person drives it: the wrong joint, the small gap and the missing pieces, each mended on the screen."""

import re
import tempfile
import unittest
from pathlib import Path

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase


class OnALaptop(UiCase):
    def fit(self, job: int = 1, query: str = "") -> None:
        self.page.goto(f"{self.url}/jobs/{job}/fit{query}")
        expect(self.page.get_by_role("heading", name="Lines, joint by joint")).to_be_visible()

    def test_the_wrong_joint_is_shown_mended_and_undone(self) -> None:
        self.fit()
        page = self.page
        expect(page.get_by_role("heading", name="Joint 11")).to_be_visible()
        expect(page.get_by_text("it screws in, then weeps")).to_be_visible()
        page.get_by_role("button", name=re.compile("Another hose")).click()
        expect(page.get_by_text("Seals on its seat.")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Undo")).click()
        expect(page.get_by_text("it screws in, then weeps")).to_be_visible()
        page.get_by_role("button", name=re.compile("Put an adapter between")).click()
        expect(page.get_by_text("An adapter stands between")).to_be_visible()
        expect(page.get_by_role("cell", name=re.compile("^adapter 45° double flare"))).to_be_visible()
        self.no_errors()

    def test_the_missing_pieces_are_ticked_off_until_nothing_is_missing(self) -> None:
        self.fit()
        page = self.page
        expect(page.get_by_role("rowheader", name="New, 2 kinds missing")).to_be_visible()
        expect(page.get_by_role("rowheader", name="Used, all here")).to_be_visible()
        page.get_by_role("button", name="Ordered: plug 3/8-24").click()
        expect(page.get_by_text("missing, 1 ordered")).to_be_visible()
        for part in ("crush washer M10x1", "plug 3/8-24", "hose bracket"):
            page.get_by_role("button", name=f"Got it: {part}").click()
            expect(page.get_by_role("button", name=f"Got it: {part}")).to_have_count(0)
        expect(page.get_by_role("heading", name="Nothing is missing.")).to_be_visible()
        page.get_by_role("textbox", name="price of hose bracket").fill("two")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("a number such as 4.80")
        page.get_by_role("textbox", name="price of hose bracket").fill("1,80")
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="price of hose bracket")).to_have_value("1.80")
        page.get_by_role("textbox", name="one more thing for the list").fill("felt pen")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Still missing: felt pen (1).")).to_be_visible()
        page.get_by_role("textbox", name="work planned for").fill("2026-13-01")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert").first).to_contain_text("a day of the calendar")
        self.no_errors("422")

    def test_the_small_gap_is_mended_and_a_size_is_typed(self) -> None:
        self.fit()
        page = self.page
        expect(page.get_by_text("Body to barrel 1.8 mm")).to_be_visible()
        page.get_by_role("button", name=re.compile("Bracket holes")).click()
        expect(page.get_by_text("It goes together.")).to_be_visible()
        page.get_by_role("region", name="Wheel, cut through the brake").get_by_role("radio", name="Rear").click()
        for name, size in (
            ("rim diameter", "15 in"), ("rim width", "6 in"), ("wheel offset", "35"), ("spoke set back", "22"),
            ("caliper, outboard face", "-20"), ("caliper, inboard face", "60"), ("caliper, inner edge", "80"), ("caliper, outer edge", "175"),
        ):  # fmt: skip
            field = page.get_by_role("textbox", name=f"rear {name}", exact=True)
            field.fill(size)
            field.press("Enter")
            expect(field).to_have_value(re.compile(r"(mm|in)$"))
        expect(page.get_by_text("into each other")).to_be_visible()
        expect(page.get_by_role("img", name=re.compile("rear wheel, cut through"))).to_be_visible()
        self.no_errors()

    def test_what_is_in_the_hand_is_found_by_what_is_measured_of_it(self) -> None:
        self.fit()
        page = self.page
        page.get_by_role("button", name="Add a joint").click()
        expect(page.get_by_role("heading", name="Joint 14")).to_be_visible()
        page.get_by_role("button", name="What do I hold?").first.click()
        page.get_by_role("textbox", name="over the crests").fill("9.9")
        page.keyboard.press("Enter")
        expect(page.get_by_text(re.compile("To tell them apart"))).to_be_visible()
        page.get_by_role("textbox", name=re.compile("pitch in mm")).fill("1.0")
        page.get_by_role("button", name="What is it?").click()
        expect(page.get_by_role("listitem").filter(has_text="banjo, M10x1:")).to_be_visible()
        page.get_by_role("listitem").filter(has_text="banjo, M10x1:").get_by_role("button").click()
        expect(page.get_by_role("row", name=re.compile("^14 ")).or_(page.locator('[data-joint="own-1"]'))).not_to_have_count(0)
        expect(page.get_by_text(re.compile("The other end: what it is"))).to_be_visible()
        page.get_by_role("button", name="Take this joint off the map").click()
        expect(page.get_by_role("heading", name="Joint 14")).to_have_count(0)
        self.no_errors()

    def test_in_the_yard_a_part_is_kept_or_left(self) -> None:
        self.fit()
        page = self.page
        page.get_by_role("button", name="Work it out").click()
        expect(page.get_by_role("img", name=re.compile("master cylinder bore"))).to_be_visible()
        page.get_by_role("region", name="In the yard").get_by_role("textbox", name="pistons of one side").fill("60")
        page.keyboard.press("Enter")
        expect(page.get_by_text(re.compile("Leave it"))).to_be_visible()
        with page.expect_download() as saved:
            page.get_by_role("link", name="Card for the phone, one file").click()
        file = Path(self.enterContext(tempfile.TemporaryDirectory())) / "card.html"
        saved.value.save_as(file)
        card = self.new_page()
        card.goto(file.as_uri())
        card.locator("#size").fill("54")
        expect(card.locator("#out")).to_contain_text(re.compile("of 100 vehicles"))
        self.no_errors()

    def test_every_invented_vehicle_and_width_fits_and_axe_finds_nothing(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        for name in ("motorcycle", "hill-climb", "light-aircraft", "trials-car"):
            response = page.request.post(f"{self.url}/api/jobs/examples/{name}")
            self.assertEqual(response.status, 201)
        for job in range(1, 6):
            for width, height in ((1280, 800), (1366, 640), (820, 1180), PHONE):
                page.set_viewport_size({"width": width, "height": height})
                self.fit(job)
                self.fits()
            self.axe()
        page.set_viewport_size({"width": 1280, "height": 800})
        page.emulate_media(color_scheme="dark")
        self.fit()
        self.axe()
        self.no_errors()

    def test_a_table_of_parts_is_pasted_ranked_and_put_on_the_list(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/fit")
        panel = page.get_by_role("region", name="Donor parts")
        expect(panel.get_by_text("8 parts in the library")).to_be_visible()
        panel.get_by_role("button", name="Add parts to the library").click()
        table = panel.get_by_role("textbox", name=re.compile("^A table with a head"))
        table.fill("part,name,diameter,thickness\nrotor,pickup rear,big,10")
        panel.get_by_role("button", name="Look at it").click()
        expect(panel.get_by_role("alert")).to_contain_text("Line 2, column 3: diameter: 'big' was given")
        table.fill(
            "part\tname\tprice\tdiameter\tthickness\that offset\thub bore\tbolt circle\tholes\nrotor\tpickup rear\t12\t258\t10\t38\t60.1\t100\t4"
        )
        panel.get_by_role("button", name="Look at it").click()
        panel.get_by_role("button", name="Take 1 part in").click()
        expect(panel.get_by_text("1 part is new in the library")).to_be_visible()
        first = panel.get_by_role("list", name="Rotors of the library").get_by_role("listitem").first
        expect(first).to_contain_text("pickup rear: 12")
        expect(first).to_contain_text("Bolts on.")
        panel.get_by_role("button", name="Put pickup rear on the list").click()
        expect(page.get_by_role("region", name="Parts list")).to_contain_text("pickup rear")
        need = panel.get_by_role("textbox", name="rotor needed: diameter")
        need.fill("262")
        need.press("Enter")
        expect(first).to_contain_text("larger estate")
        thread = panel.get_by_role("textbox", name=re.compile("^caliper needed: mounting bolts(?! apart)"))
        thread.fill("M10x1.25")
        thread.press("Enter")
        expect(thread).to_have_value("M10x1.25")
        routes = page.get_by_role("group", name="Routes side by side")
        for name, text in (("tools cost", "75"), ("evenings", "6"), ("cuts that cannot be undone", "a bracket")):
            field = page.get_by_role("textbox", name=f"route: {name}")
            field.fill(text)
            field.press("Enter")
            expect(routes).to_contain_text(text)
        expect(routes.get_by_role("row", name=re.compile("^push"))).to_contain_text("406 N")
        self.axe()
        self.no_errors("Failed to load resource")

    def test_a_hard_line_is_added_bent_and_cut_from_the_coil(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/fit")
        panel = page.get_by_role("region", name="Hard lines to cut")
        expect(panel.get_by_text("rear left | 4.76 mm steel | cut 1048 mm")).to_be_visible()
        panel.get_by_role("button", name="Add a line").click()
        way = panel.get_by_role("textbox", name="line 3: way")
        way.fill("500, twist")
        way.press("Enter")
        expect(panel.get_by_role("alert")).to_contain_text("piece 2: 'twist' was given")
        way.fill("500, 90° r 20, 10 in")
        way.press("Enter")
        expect(panel.get_by_text(re.compile(r"^line 3 \| 4.76 mm steel \| cut 7\d\d mm"))).to_be_visible()
        expect(panel.get_by_text(re.compile("^Length 1: rear right, rear left, line 3"))).to_be_visible()
        panel.get_by_role("button", name="Leave out line 3").click()
        expect(panel.get_by_role("article")).to_have_count(2)
        self.axe()
        self.no_errors()


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def test_a_joint_is_mended_with_a_thumb(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/fit")
        page.get_by_role("button", name=re.compile("line to hose × 2")).last.tap()
        page.get_by_role("button", name=re.compile("Put an adapter between")).tap()
        expect(page.get_by_text("An adapter stands between")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Got it: adapter")).tap()
        expect(page.get_by_role("button", name=re.compile("^Got it: adapter"))).to_have_count(0)
        self.fits()
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

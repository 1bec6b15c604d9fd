"""Setups side by side: every row is the core's, what is alike is quiet, and who is left out is left out everywhere."""

import re
import unittest

from playwright.sync_api import Locator, Page, expect

from tests.ui.case import PHONE
from tests.ui.test_instruments import Asked


def columns(table: Locator) -> list[str]:
    """The heads of a table."""
    return [text.strip() for text in table.locator("thead th").all_inner_texts()]


class Compared(Asked):
    def side_by_side(self) -> Page:
        page = self.open()
        page.get_by_role("button", name="More about plan A").click()
        page.get_by_role("button", name="Side by side with the others").click()
        expect(page.get_by_role("table", name="Results")).to_be_visible()
        return page

    def test_every_result_and_every_entry_that_differs_is_there(self) -> None:
        page = self.side_by_side()
        told = self.ask("/jobs/1/compare?load=0&against=as%20found")
        for caption, rows in (("Results", told["results"]), ("Entries that differ", told["inputs"])):
            table = page.get_by_role("table", name=caption)
            self.assertEqual(columns(table)[1:], told["setups"])
            shown = [
                (row.locator("th").inner_text().split("\n")[0].strip(), row.get_by_role("cell").all_inner_texts())
                for row in table.locator("tbody tr").all()
            ]
            self.assertEqual(len(shown), len(rows), caption)
            for (label, values), own in zip(shown, rows, strict=True):
                self.assertTrue(label.startswith(own["label"]), (label, own["label"]))
                self.assertEqual(values, own["values"], label)
        for words in told["words"]:
            expect(page.get_by_text(words)).to_be_visible()
        self.axe()
        self.no_errors()

    def test_who_is_left_out_is_left_out_and_what_then_is_alike_goes(self) -> None:
        page = self.side_by_side()
        entries = page.get_by_role("table", name="Entries that differ").locator("tbody tr")
        every = entries.count()
        self.tick("as found", on=False)
        expect(page.get_by_role("columnheader", name="as found")).to_have_count(0)
        told = self.ask("/jobs/1/compare?load=0&against=as%20found")
        still = [r for r in told["inputs"] if len(set(r["values"][1:])) > 1]
        expect(entries).to_have_count(len(still))
        self.assertLess(len(still), every)
        page.get_by_role("button", name=re.compile("in words, against")).click()
        page.get_by_role("option", name="plan A").click()
        against = self.ask("/jobs/1/compare?load=0&against=plan%20A")
        expect(page.get_by_text(against["words"][-1])).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_role("table", name="Results")).to_have_count(0)
        expect(page.get_by_role("img", name="Force line")).to_be_visible()
        self.no_errors()

    def test_the_load_state_looked_at_is_the_one_compared(self) -> None:
        page = self.open()
        page.get_by_role("button", name=re.compile("Load state")).click()
        expect(page.get_by_text("1560 kg")).to_be_visible()
        page.get_by_role("button", name="More about plan A").click()
        page.get_by_role("button", name="Side by side with the others").click()
        told = self.ask("/jobs/1/compare?load=1&against=as%20found")
        row = page.get_by_role("row", name=re.compile("^push for the stop"))
        expect(row.get_by_role("cell").nth(1)).to_have_text(told["results"][0]["values"][1])
        light = self.ask("/jobs/1/compare?load=0&against=as%20found")
        self.assertNotEqual(told["results"][0], light["results"][0])


class Lines(Asked):
    def test_each_station_s_line_runs_from_the_cylinder_to_the_brake_with_its_fields(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/measure?part=lines.0")
        for name, pieces in (("Front", ("hard line", "hose")), ("Rear", ("hard line", "residual valve", "hose"))):
            row = page.get_by_role("group", name=f"{name}: from the cylinder to the brake")
            expect(row).to_be_visible()
            heads = [text.split("\n")[0] for text in row.get_by_role("heading", level=3).all_inner_texts()]
            self.assertEqual(heads, [f"{name}, {piece}" for piece in pieces])
            boxes = [box for svg in row.locator("div > svg").all() if (box := svg.bounding_box())]
            self.assertEqual([box["x"] for box in boxes], sorted(box["x"] for box in boxes))
        field = page.get_by_role("group", name=re.compile("^Rear")).get_by_role("textbox", name="length of one")
        field.fill("12 in")
        field.press("Enter")
        expect(page.get_by_text("304.8 mm")).to_be_visible()
        hose = self.ask("/jobs/1")["document"]["as_found"]["systems"][0]["stations"][1]["lines"]["hoses"][0]
        self.assertEqual(hose["length_mm"], "12 in")
        page.get_by_role("button", name="Take out: Rear, residual valve").click()
        expect(page.get_by_role("heading", name="Rear, residual valve")).to_have_count(0)
        self.axe()
        self.no_errors()


class OnAPhone(Asked):
    width, height = PHONE
    touch = True

    def test_it_is_compared_and_left_by_touch(self) -> None:
        page = self.open()
        page.get_by_role("button", name="More about plan A").tap()
        page.get_by_role("button", name="Side by side with the others").tap()
        expect(page.get_by_role("table", name="Results")).to_be_visible()
        self.fits()
        self.axe()
        page.get_by_role("button", name=re.compile("^Close")).first.tap()
        expect(page.get_by_role("table", name="Results")).to_have_count(0)
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

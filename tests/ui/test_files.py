"""What goes out of a job, the drawing as a picture, a copy that is lent and read without a server, and remarks that come back."""

import json
import re
import unittest
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase


class Files(UiCase):
    def saved(self, press: str, folder: str) -> Path:
        """What a press saves."""
        with self.page.expect_download() as told:
            self.page.get_by_role("button", name=press, exact=True).click()
        path = Path(folder) / told.value.suggested_filename
        told.value.save_as(path)
        return path

    def test_a_copy_is_lent_remarked_on_without_a_server_and_comes_back(self) -> None:
        page = self.open()
        page.keyboard.press("/")
        page.get_by_role("searchbox").or_(page.get_by_role("combobox")).first.fill("copy to lend")
        page.keyboard.press("Enter")
        expect(page).to_have_url(re.compile(r"/jobs/1/files$"))
        self.axe()
        with TemporaryDirectory() as folder:
            lent = self.saved("Save a copy to lend", folder)
            reader = self.new_page()
            reader.context.set_offline(True)
            reader.goto(lent.as_uri())
            expect(reader.locator("#force-line svg")).to_be_visible()
            expect(reader.locator("#force-line svg")).to_contain_text("plan A")
            expect(reader.get_by_role("button", name="Save my remarks")).to_be_disabled()
            reader.get_by_role("button", name=re.compile("^Remark on push for")).click()
            reader.get_by_role("textbox", name=re.compile("^Remark on push for")).fill("warm or cold?")
            reader.get_by_role("textbox", name="your name").fill("R. Holt")
            self.axe(reader)
            with reader.expect_download() as told:
                reader.get_by_role("button", name="Save my remarks").click()
            back = Path(folder) / "remarks.json"
            told.value.save_as(back)
            reader.context.set_offline(False)
            panel = page.get_by_role("region", name="Remarks that came back")
            files = page.locator("input[type=file]")
            for wrong, said in (("{", "cannot be read as JSON"), ("{}", "must be kobrix-remarks"),
                                (back.read_text().replace("plan A", "plan Q"), "which this job has not")):  # fmt: skip
                files.set_input_files({"name": "r.json", "mimeType": "application/json", "buffer": wrong.encode()})
                expect(panel.get_by_role("alert")).to_contain_text(said)
            for _ in range(2):  # read twice, it is kept once
                files.set_input_files(back)
                expect(panel.get_by_role("status")).to_contain_text("1 remark read")
            expect(panel.get_by_role("listitem")).to_have_count(1)
            expect(panel.get_by_role("listitem")).to_contain_text("warm or cold? (R. Holt")
            panel.get_by_role("button", name="Settled: warm or cold?").click()
            expect(panel.get_by_role("button", name="Not settled: warm or cold?")).to_be_visible()
            self.axe()
        self.no_errors()

    def test_the_force_line_is_a_picture_that_stands_by_itself(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/files?plan=plan+B")
        with TemporaryDirectory() as folder:
            svg = self.saved("Save as SVG", folder).read_text(encoding="utf-8")
            self.assertIn("plan B", svg)
            self.assertNotIn("class=", svg)
            self.assertNotIn("http", svg.replace("http://www.w3.org/", ""))
            png = self.saved("Save as PNG", folder).read_bytes()
        self.assertEqual(png[:8], b"\x89PNG\r\n\x1a\n")
        self.assertEqual(int.from_bytes(png[16:20], "big"), 2 * 1248)
        self.no_errors()

    def test_every_link_gives_its_file(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/files")
        expect(page.get_by_role("link", name="The whole record")).to_be_visible()
        links: list[Any] = page.locator("dl a").evaluate_all("all => all.map(a => a.getAttribute('href'))")
        self.assertEqual(len(links), 7)
        for link in links:
            self.assertEqual(page.request.get(f"{self.url}{link}").status, 200, link)
        job = json.loads(page.request.get(f"{self.url}{links[0]}").body())
        self.assertEqual(job["name"], "Merrow Skiff estate, electric conversion")
        self.no_errors()

    def test_every_vehicle_and_an_empty_job_on_a_laptop_and_a_phone(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        for name in ("motorcycle", "hill-climb", "light-aircraft", "trials-car"):
            self.assertEqual(page.request.post(f"{self.url}/api/jobs/examples/{name}").status, 201)
        page.request.post(f"{self.url}/api/jobs/new", data={"name": "a new car", "layout": "car_diagonal"})
        with TemporaryDirectory() as folder:
            for job in range(1, 7):
                page.goto(f"{self.url}/jobs/{job}/files")
                if job == 6:
                    expect(page.get_by_text(re.compile("^There is no line to draw yet"))).to_be_visible()
                else:
                    self.assertIn("<svg", self.saved("Save as SVG", folder).read_text(encoding="utf-8"))
                self.assertIn("force-line", self.saved("Save a copy to lend", folder).read_text(encoding="utf-8"))
                for width, height in ((1366, 640), PHONE):
                    page.set_viewport_size({"width": width, "height": height})
                    self.fits()
                page.set_viewport_size({"width": 1280, "height": 800})
        self.axe()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

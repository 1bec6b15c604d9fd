"""The wall of jobs: begun from every layout, saved as a file, read back, put away and brought back."""

import json
import re
import unittest
from pathlib import Path
from typing import Any

from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.fileformat import LARGEST_BYTES, files
from kobrix.fileformat.job import Job
from playwright.sync_api import expect

from tests.ui.case import PHONE, UiCase

LAYOUTS = ("Car or truck", "Car, diagonal", "Car, balance bar", "Motorcycle", "Light aircraft, nose wheel",
           "Light aircraft, tail wheel", "Trials car")  # fmt: skip


class Wall(UiCase):
    def test_every_layout_begins_and_asks_only_for_what_it_has(self) -> None:
        page = self.page
        for name in LAYOUTS:
            page.goto(f"{self.url}/jobs")
            page.get_by_role("textbox", name="name of the vehicle or the job").fill(f"new {name.lower()}")
            layout = page.get_by_role("radio", name=re.compile(f"^{re.escape(name)} ?[a-z]"))
            self.press_words_of(layout)
            expect(layout).to_be_checked()
            page.get_by_role("button", name="Begin, tape in hand").click()
            expect(page).to_have_url(re.compile(r"/jobs/\d+/measure"))
            expect(page.get_by_text("more for a push and a stop")).to_be_visible()
            number = int(re.findall(r"/jobs/(\d+)", page.url)[0])
            document = page.request.get(f"{self.url}/api/jobs/{number}").json()["document"]
            sheet = measure_sheet(files.check(Job, document), "as found")
            rail = page.get_by_role("navigation", name="What to measure").get_by_role("button")
            titles = [text.split("\n")[0] for text in rail.all_inner_texts()]
            self.assertEqual(titles[:-1], [s["title"] for s in sheet["sections"]], name)
            self.assertEqual("Booster" in " ".join(titles), name.startswith(("Car", "Trials")), name)
        self.axe()
        page.goto(f"{self.url}/jobs/{number}/size")
        expect(page.get_by_role("heading", name="to go")).to_be_visible()
        self.no_errors()

    def test_without_a_name_nothing_begins(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        begin = page.get_by_role("button", name="Begin, tape in hand")
        expect(begin).to_be_disabled()
        page.get_by_role("textbox", name="name of the vehicle or the job").fill("   ")
        expect(begin).to_be_disabled()
        page.get_by_role("textbox", name="name of the vehicle or the job").fill("x" * 200)
        expect(page.get_by_role("textbox", name="name of the vehicle or the job")).to_have_value("x" * 80)
        expect(begin).to_be_enabled()

    def test_a_job_saved_as_a_file_and_opened_again_is_the_same_job(self) -> None:
        page = self.open()
        page.get_by_role("textbox", name="Cylinder bore").fill("3/4")
        page.keyboard.press("Enter")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        page.goto(f"{self.url}/jobs")
        with page.expect_download() as saved:
            page.get_by_role("link", name=re.compile("^Save as a file: Merrow Skiff")).click()
        path = saved.value.path()
        self.assertTrue(saved.value.suggested_filename.endswith(".kobrix.json"), saved.value.suggested_filename)
        document = json.loads(Path(path).read_text(encoding="utf-8"))
        self.assertEqual(document["plans"][0]["systems"][0]["cylinder"]["bore_mm"], "3/4 in")
        file: Any = {"name": "a.kobrix.json", "mimeType": "application/json", "buffer": json.dumps(document).encode()}
        page.locator("input[type=file]").set_input_files(file)
        told = page.get_by_role("group", name="What is in the file")
        records, stops = len(document["records"]), sum(r["kind"] == "stop" for r in document["records"])
        expect(told).to_contain_text(f"a job of a car: as found, plan A, plan B; {records} records, {stops} stops among them.")
        expect(told).to_contain_text("A job of this name is on the wall already: it stays as it is, beside it.")
        self.axe()
        told.get_by_role("button", name="Leave it").click()
        self.assertEqual(len(page.request.get(f"{self.url}/api/jobs").json()), 1)
        self.open_file(file)
        expect(page).to_have_url(re.compile("/jobs/2/size"))
        first, second = (page.request.get(f"{self.url}/api/jobs/{n}").json()["document"] for n in (1, 2))
        self.assertEqual(first, second)
        self.no_errors()

    def test_what_is_put_away_comes_back(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        page.get_by_role("button", name=re.compile("^Remove")).click()
        expect(page.get_by_role("status")).to_contain_text("is kept for later")
        card = page.get_by_role("listitem", name=re.compile("^Merrow Skiff"))
        expect(card).to_have_count(0)
        self.axe()
        page.reload()  # it is kept there until it is wanted
        page.get_by_role("button", name=re.compile("^Bring back Merrow Skiff")).click()
        expect(card).to_be_visible()
        expect(page.get_by_role("region", name="Kept for later")).to_have_count(0)
        self.no_errors()

    def test_a_days_copy_is_put_back_and_an_open_page_hears_of_it(self) -> None:
        page, other = self.page, self.new_page()
        other.goto(f"{self.url}/jobs/1/size")
        expect(other.get_by_role("contentinfo").get_by_text("Merrow Skiff estate, electric conversion")).to_be_visible()
        edit = {"base": 0, "edits": [{"path": "/name", "value": "renamed since"}]}
        self.assertEqual(page.request.post(f"{self.url}/api/jobs/1/changes", data=edit).status, 200)
        expect(other.get_by_role("contentinfo").get_by_text("renamed since")).to_be_visible()
        page.goto(f"{self.url}/jobs")
        expect(page.get_by_role("listitem", name="renamed since")).to_contain_text("50 of 57")  # all stands where it stays
        panel = page.get_by_role("region", name="Backups")
        panel.get_by_role("button", name="Show the daily copies").click()
        expect(panel.get_by_role("button", name="Hide the daily copies")).to_be_visible()
        expect(panel.get_by_role("alert")).to_have_count(0)
        expect(panel.get_by_role("listitem")).to_have_count(1)
        self.axe()
        panel.get_by_role("button", name=re.compile("^Put it back")).click()
        panel.get_by_role("button", name=re.compile("^Yes, put this day back")).click()
        expect(other.get_by_role("contentinfo").get_by_text("Merrow Skiff estate, electric conversion")).to_be_visible()
        self.fits()
        self.no_errors()

    def test_a_card_shows_the_vehicle_its_push_and_what_is_worst(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        card = page.get_by_role("listitem", name=re.compile("^Merrow Skiff"))
        expect(card.get_by_role("img", name="341 N for 0.81 g, plan A")).to_be_visible()
        expect(card).to_contain_text("The front locks first on paper")
        expect(card).to_contain_text("50 of 57")
        self.axe()
        self.no_errors()

    def test_a_job_is_renamed_and_duplicated_by_keys(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        page.get_by_role("link", name=re.compile("^Open Merrow Skiff")).focus()
        page.keyboard.press("F2")
        page.keyboard.type("Blue estate")
        page.keyboard.press("Enter")
        card = page.get_by_role("listitem", name="Blue estate", exact=True)
        expect(card).to_be_visible()
        expect(card.get_by_role("button", name="Rename Blue estate")).to_be_focused()
        page.keyboard.press("Enter")
        page.keyboard.type("not kept")
        page.keyboard.press("Escape")
        expect(card.get_by_role("heading", name="Blue estate")).to_be_visible()
        card.get_by_role("button", name="Duplicate Blue estate").press("Enter")
        expect(page.get_by_role("listitem", name="Blue estate, copy")).to_be_visible()
        stored = page.request.get(f"{self.url}/api/jobs").json()
        self.assertEqual(sorted(j["name"] for j in stored), ["Blue estate", "Blue estate, copy"])
        page.goto(f"{self.url}/jobs/1/size")
        page.get_by_role("button", name="Undo").click()  # a rename is a step like any other
        expect(page).to_have_title(re.compile("^Merrow Skiff"))
        self.no_errors()

    def test_the_example_vehicles_open_as_copies(self) -> None:
        page = self.page
        for words in ("hill-climb", "motorcycle", "light aircraft", "trials car"):
            page.goto(f"{self.url}/jobs")
            page.get_by_role("button", name=re.compile(f"^Open a copy of .*{words}")).click()
            expect(page).to_have_url(re.compile(r"/jobs/\d+/size"))
            expect(page.get_by_role("img", name="Force line")).to_be_visible()
        self.assertEqual(len(page.request.get(f"{self.url}/api/jobs").json()), 5)
        self.no_errors()

    def test_nobody_is_sent_away_from_the_wall(self) -> None:
        page = self.page
        page.goto(f"{self.url}/")  # the only job opens at once
        expect(page).to_have_url(re.compile(r"/jobs/1/size"))
        page.get_by_role("link", name="Kobrix, all jobs").click()
        expect(page.get_by_role("heading", name="New job")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Remove")).click()
        expect(page.get_by_text("No job yet")).to_be_visible()
        page.get_by_role("textbox", name="name of the vehicle or the job").fill("my first")
        page.get_by_role("button", name="Begin, tape in hand").click()
        expect(page).to_have_url(re.compile(r"/jobs/2/measure"))
        expect(page.get_by_role("navigation", name="What to measure")).to_be_visible()
        self.no_errors()

    def test_files_that_are_none_are_said_and_change_nothing(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs")
        chooser = page.locator("input[type=file]")
        for name, body, words in (
            ("a.json", b"", "a.json: "), ("b.json", b"\xff\xfe\x00", "b.json: "), ("c.json", b'{"format": []}', "format"),
            ("d.json", b'{"format": "kobrix-job", "version": 9}', "version"), ("e.json", b"[" * 4000, "e.json: "),
            ("f.json", b" " * (LARGEST_BYTES + 1), f"At most {LARGEST_BYTES:,} bytes"),
        ):  # fmt: skip
            chooser.set_input_files({"name": name, "mimeType": "application/json", "buffer": body})
            expect(page.get_by_role("alert")).to_contain_text(words)
            expect(page.get_by_role("alert")).to_contain_text(name)
        self.assertEqual(len(page.request.get(f"{self.url}/api/jobs").json()), 1)
        self.axe()
        self.no_errors("Failed to load resource")


class OnAPhone(UiCase):
    width, height = PHONE
    touch = True

    def test_the_wall_fits_and_is_clean(self) -> None:
        self.page.goto(f"{self.url}/jobs")
        expect(self.page.get_by_role("heading", name="New job")).to_be_visible()
        self.fits()
        self.axe()
        layout = self.page.get_by_role("radio", name=re.compile("^Motorcycle"))
        self.press_words_of(layout)
        expect(layout).to_be_checked()


if __name__ == "__main__":
    unittest.main()

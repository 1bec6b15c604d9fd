"""A server that does not answer: what was entered waits, is seen to wait, outlives a reload, is sent, refused, taken back."""

import re
import unittest
from typing import Any

from playwright.sync_api import Dialog, Locator, Page, expect

from tests.demo_picture import picture
from tests.ui.case import PHONE, UiCase

EVERY = "**/api/**"


class Gone(UiCase):
    def gone(self, page: Page) -> None:
        page.route(EVERY, lambda route: route.abort())

    def back(self, page: Page) -> None:
        page.unroute(EVERY)

    def bore(self, page: Page, text: str) -> None:
        field = page.get_by_role("textbox", name="Cylinder bore")
        field.fill(text)
        field.press("Enter")

    def stored(self) -> str:
        document = self.page.request.get(f"{self.url}/api/jobs/1").json()["document"]
        return str(document["plans"][0]["systems"][0]["cylinder"]["bore_mm"])

    def waits_and_is_sent(self) -> None:
        """What is entered while nobody answers waits, and is sent when somebody does."""
        page = self.open()
        self.gone(page)
        self.bore(page, "3/4")
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("1 change waits: bore")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4")
        expect(page.get_by_role("img", name="Force line")).to_have_attribute(
            "aria-label", re.compile("341 newton")
        )  # the last good one
        self.bore(page, "0.70 in")  # said again at the same place, the newer one is kept
        expect(strip).to_contain_text("1 change waits: bore")
        pin = page.get_by_role("textbox", name="pin", exact=True)
        pin.fill("50 mm")
        pin.press("Enter")
        expect(strip).to_contain_text("2 changes wait: bore, Pivot to pin")
        self.axe()
        self.back(page)
        expect(strip).to_have_count(0)
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("0.70 in")
        expect(pin).to_have_value("50 mm")
        self.assertEqual(self.stored(), "0.70 in")
        for last in ("Pivot to pin", "bore"):  # the page follows what was sent
            page.get_by_role("button", name=f"Undo: {last}").click()
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("13/16 in")
        self.assertEqual(self.stored(), "13/16 in")
        self.no_errors("Failed to load resource")


class Away(Gone):
    def test_what_is_entered_waits_and_is_sent_when_somebody_answers(self) -> None:
        self.waits_and_is_sent()

    def test_it_outlives_a_reload_and_a_closed_page_is_asked_about(self) -> None:
        page = self.open()
        self.gone(page)
        self.bore(page, "3/4")
        expect(page.get_by_role("status", name="Not stored yet")).to_be_visible()
        asked: list[str] = []

        def agree(dialog: Dialog) -> None:
            asked.append(dialog.type)
            dialog.accept()

        page.on("dialog", agree)
        page.reload()
        self.assertEqual(asked, ["beforeunload"])
        expect(page.get_by_role("heading", name="This job cannot be shown")).to_be_visible()
        self.back(page)  # noticed by itself
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        expect(page.get_by_role("status", name="Not stored yet")).to_have_count(0)
        self.no_errors("Failed to load resource")

    def test_what_somebody_else_changed_meanwhile_is_told_and_nothing_is_overwritten(self) -> None:
        page = self.open()
        self.gone(page)
        self.bore(page, "3/4")
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_be_visible()
        path = "/plans/0/systems/0/cylinder/bore_mm"
        other = page.request.post(f"{self.url}/api/jobs/1/changes", data={"base": 0, "edits": [{"path": path, "text": "1 in"}]})
        self.assertEqual(other.status, 200)
        self.back(page)
        expect(strip).to_contain_text("Not stored: bore.")
        self.assertEqual(self.stored(), "1 in")
        strip.get_by_role("button", name="Drop: bore").click()
        expect(strip).to_have_count(0)
        self.no_errors("Failed to load resource")

    def test_what_waits_is_taken_back_by_undo(self) -> None:
        page = self.open()
        self.bore(page, "3/4")
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("3/4 in")
        self.gone(page)
        self.bore(page, "1 in")
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("1 change waits")
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("1 change waits")).to_have_count(0)
        self.back(page)
        self.assertEqual(self.stored(), "3/4 in")
        self.no_errors("Failed to load resource")

    def test_a_note_in_measure_waits_with_its_photograph(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/measure")
        page.get_by_role("button", name=re.compile("^Condition")).click()
        self.gone(page)
        page.locator("input[type=file]").set_input_files({"name": "pit.png", "mimeType": "image/png", "buffer": picture()})
        expect(page.get_by_role("img", name="pit.png")).to_be_visible()
        page.get_by_role("textbox", name="what").fill("a pit")
        page.get_by_role("button", name="Keep the note").click()
        expect(page.get_by_role("textbox", name="what")).to_have_value("")
        for more in ("a swollen hose", "a kinked pipe"):  # each is kept, none in another's place
            page.get_by_role("textbox", name="what").fill(more)
            page.get_by_role("button", name="Keep the note").click()
            expect(page.get_by_role("textbox", name="what")).to_have_value("")
        expect(page.get_by_role("status", name="Not stored yet")).to_contain_text("3 changes wait")
        self.back(page)
        expect(page.get_by_role("img", name="Pedal: pit.png")).to_have_attribute("src", re.compile("^/api/jobs/1/photos/"))
        expect(page.get_by_role("status", name="Not stored yet")).to_have_count(0)
        note, *others = page.request.get(f"{self.url}/api/jobs/1").json()["document"]["condition"]
        self.assertEqual((note["text"], len(note["photos"][0]["sha256"])), ("a pit", 64))
        self.assertEqual([other["text"] for other in others], ["a swollen hose", "a kinked pipe"])
        self.no_errors("Failed to load resource")

    def notes(self) -> list[str]:
        return [n["text"] for n in self.page.request.get(f"{self.url}/api/jobs/1").json()["document"]["condition"]]

    def with_notes(self, *texts: str) -> Locator:
        """The job with these notes on its condition, in Measure; the buttons that take them out."""
        rows = [{"about": text, "text": text, "level": "watch"} for text in texts]
        edits = [{"path": "/condition", "value": rows}]
        self.assertTrue(self.page.request.post(f"{self.url}/api/jobs/1/changes", data={"base": 0, "edits": edits}).ok)
        self.page.goto(f"{self.url}/jobs/1/measure")
        self.page.get_by_role("button", name=re.compile("^Condition")).click()
        return self.page.get_by_role("button", name=re.compile("^Take out the note"))

    def test_rows_taken_out_while_nobody_answers_are_those_that_were_pressed(self) -> None:
        out = self.with_notes("one", "two", "three", "four")
        expect(out).to_have_count(4)
        self.gone(self.page)
        for place in (0, 1, 1):  # the list stands as it was; one is pressed twice
            out.nth(place).click()
        strip = self.page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("3 changes wait")
        self.back(self.page)
        expect(strip).to_have_count(0)
        self.assertEqual(self.notes(), ["three", "four"])
        self.no_errors("Failed to load resource")

    def test_a_torque_typed_again_is_the_same_torque(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/build")
        page.get_by_role("button", name=re.compile("^wheel nuts, front, signed")).click()
        torque = page.get_by_role("textbox", name="maker’s torque")

        def typed(*texts: str) -> None:
            for text in texts:
                torque.fill(text)
                torque.press("Enter")

        def stored() -> list[str]:
            plan = page.request.get(f"{self.url}/api/jobs/1").json()["document"]["plans"][0]
            return [t["torque_nm"] for t in plan.get("build", {}).get("torques", [])]

        self.gone(page)
        typed("80 Nm", "85 Nm")
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("1 change waits")
        self.back(page)
        expect(strip).to_have_count(0)
        source = page.get_by_role("textbox", name="where it stands")
        expect(source).to_be_visible()  # the page follows what was sent
        self.assertEqual(stored(), ["85 Nm"])
        typed("")
        expect(source).to_have_count(0)
        held = self.hold("**/changes")
        typed("80 Nm", "90 Nm")
        self.let_go(held)
        expect(source).to_be_visible()
        self.assertTrue(self.comes(lambda: stored() == ["90 Nm"]), "both are kept, or the second is lost")
        self.no_errors("Failed to load resource")

    def test_a_row_pressed_twice_takes_no_other_one_out(self) -> None:
        out = self.with_notes("one", "two", "three", "four")
        answers: list[int] = []
        self.page.on("response", lambda answer: answers.append(answer.status) if answer.url.endswith("/changes") else None)
        held = self.hold("**/changes")
        out.nth(1).dblclick()
        self.let_go(held)
        self.assertTrue(self.comes(lambda: len(answers) == 2), answers)
        expect(out).to_have_count(3)
        self.assertEqual(answers, [200, 200])
        self.assertEqual(self.notes(), ["one", "three", "four"])
        self.no_errors()


HELD = """() => new Promise((done) => {
  const asked = indexedDB.open('keyval-store');
  asked.onsuccess = () => {
    const count = asked.result.transaction('keyval').objectStore('keyval').count();
    count.onsuccess = () => { done(count.result); asked.result.close(); };
  };
})"""


class Photographs(Gone):
    width, height = PHONE
    touch = True

    def photograph(self, name: str, content: bytes) -> None:
        file = {"name": name, "mimeType": "image/png", "buffer": content}
        self.page.get_by_label(re.compile("^Photograph for")).set_input_files(file)  # type: ignore[arg-type]

    def held(self, count: int) -> None:
        """So many photographs are held on the device, once it has come to rest."""
        self.page.wait_for_function(f"async (count) => (await ({HELD})()) === count", arg=count)

    def noted(self) -> list[Any]:
        """What was noted at a step and is stored."""
        records = self.page.request.get(f"{self.url}/api/jobs/1/records").json()
        return [record for record in records if record["kind"] == "seen"]

    def build(self) -> None:
        self.page.goto(f"{self.url}/jobs/1/build")
        expect(self.page.get_by_text("0 of 107 steps done")).to_be_visible()

    def drawn(self, address: str) -> None:
        """The one photograph of the step is drawn, from an address that begins so."""
        image = self.page.get_by_role("figure").get_by_role("img")
        expect(image).to_have_attribute("src", re.compile(f"^{address}"))
        expect(image).to_have_js_property("naturalWidth", 24)

    def test_one_taken_while_nobody_answers_waits_over_a_reload_and_is_sent(self) -> None:
        page = self.page
        self.build()
        self.gone(page)
        page.get_by_role("textbox", name="how it was, what was found").fill("front left as it was")
        self.photograph("a.png", picture())
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("1 change waits: how it was")
        expect(page.get_by_role("figure")).to_contain_text("front left as it was")
        self.drawn("blob:")
        self.held(1)
        page.on("dialog", lambda dialog: dialog.accept())
        page.reload()
        self.back(page)
        expect(page.get_by_role("figure")).to_contain_text("front left as it was")
        self.drawn("/api/jobs/1/photos/")
        expect(strip).to_have_count(0)
        (record,) = self.noted()
        self.assertRegex(record["body"]["sha256"], "^[0-9a-f]{64}$")
        self.held(0)
        self.no_errors("Failed to load resource")

    def test_one_that_is_refused_later_is_told_and_let_go(self) -> None:
        page = self.page
        self.build()
        self.gone(page)
        self.photograph("a.png", b"not a picture")
        strip = page.get_by_role("status", name="Not stored yet")
        expect(strip).to_contain_text("1 change waits")
        self.back(page)
        expect(strip).to_contain_text("JPEG, PNG or WebP")
        self.assertEqual(self.noted(), [])
        strip.get_by_role("button", name=re.compile("^Drop")).tap()
        expect(strip).to_have_count(0)
        self.held(0)
        self.no_errors("Failed to load resource")


class OnAPhone(Gone):
    width, height = PHONE
    touch = True

    def test_what_is_entered_waits_and_is_sent_when_somebody_answers(self) -> None:
        self.waits_and_is_sent()


if __name__ == "__main__":
    unittest.main()

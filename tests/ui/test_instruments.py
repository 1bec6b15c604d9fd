"""The instruments and the line against the core: what is written on the screen is what it answers."""

import json
import re
import unittest
import urllib.request
from typing import Any

from kobrix.demo import SETUPS
from playwright.sync_api import Locator, Page, expect

from tests.ui.case import PHONE, UiCase


class Asked(UiCase):
    def ask(self, path: str, body: Any = None) -> Any:
        """What the server answers to a question, as a document."""
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(f"{self.url}/api{path}", data, {"Content-Type": "application/json"})
        with urllib.request.urlopen(request) as answer:
            return json.load(answer)

    def add(self, name: str) -> int:
        """One of the invented vehicles as a job; its number."""
        document = json.loads(next(p for p in SETUPS if name in p.name).read_text(encoding="utf-8"))
        number: int = self.ask("/jobs", document)["id"]
        return number

    def shorten_the_foot_s(self, job: int, pin: Locator) -> None:
        """The pin of the motorcycle's foot pedal is moved, and nothing of the hand's with it."""
        pin.fill("40 mm")
        pin.press("Enter")
        expect(self.page.get_by_role("button", name="Undo")).to_be_enabled()
        expect(pin).to_have_value("40 mm")
        stored = self.ask(f"/jobs/{job}")["document"]["plans"][0]["systems"]
        self.assertEqual((stored[0]["control"]["pivot_to_pin_mm"], stored[1]["control"]["pivot_to_pin_mm"]), (24, "40 mm"))


def rows(table: Locator) -> list[list[str]]:
    """The cells of a table's rows."""
    return [row.get_by_role("cell").all_inner_texts() for row in table.get_by_role("row").all()[1:]]


class Tables(Asked):
    def choose(self, page: Page, name: str) -> Locator:
        """An instrument in the first slot, as a table."""
        first = page.get_by_role("button", name=re.compile("Instrument 1$"))
        if name not in first.inner_text():
            first.click()
            page.get_by_role("option", name=name).click()
        panel = page.get_by_role("region", name=name)
        button = panel.get_by_role("button", name="table", exact=True)
        expect(button.or_(panel.get_by_role("table")).first).to_be_visible()
        if button.count():
            button.click()
        return panel.get_by_role("table")

    def test_a_person_draws_his_own_limits_over_the_feel_and_takes_them_back(self) -> None:
        page = self.open()
        push = page.get_by_role("slider", name="Your own limit of the push")
        travel = page.get_by_role("slider", name="Your own limit of the travel")
        expect(push).to_have_attribute("aria-valuetext", "none")
        push.focus()
        page.keyboard.press("Shift+ArrowDown")  # 50 N below the 500 of the rule
        expect(push).to_have_attribute("aria-valuetext", "450 N")
        expect(page.get_by_text("yours 450 N")).to_be_visible()
        travel.focus()
        page.keyboard.press("ArrowLeft")
        expect(page.get_by_text("yours 149", exact=True)).to_be_visible()
        self.assertEqual(self.ask("/jobs/1/size")["own_limits"], {"effort_n": 450.0, "travel_mm": 149.0})
        page.reload()
        expect(travel).to_have_attribute("aria-valuetext", "149 mm")
        travel.focus()
        page.keyboard.press("ArrowRight")
        expect(travel).to_have_attribute("aria-valuetext", "none")
        expect(page.get_by_text(re.compile("^yours 149"))).to_have_count(0)
        self.axe()
        self.no_errors()

    def test_feel_is_the_stop_of_every_setup_and_every_bore(self) -> None:
        page = self.open()
        found = {row[0]: row[1:] for row in rows(self.choose(page, "Feel"))}
        view = self.ask("/jobs/1/size")
        for setup in view["setups"]:
            state = setup["solved"]["paths"][-1]["states"][0]
            travel = state["at_stop"]["systems"]["service"]["pedal_travel_mm"]
            name = setup["name"].removeprefix("plan ")
            self.assertEqual(found[name], [f"{state['at_stop']['pedal_force_n']:.0f}", f"{travel:.0f}"])
        path = view["setups"][1]["solved"]["paths"][-1]
        room = path["parts"]["pedal"]["available_mm"]
        for bore in path["bores"]:
            own = bore["states"][0]
            if own["travel_mm"] > room * 1.15:  # far past the floor: not drawn
                self.assertNotIn(bore["name"], found)
                continue
            self.assertEqual(found[bore["name"]], [f"{own['push_n']:.0f}", f"{own['travel_mm']:.0f}"])

    def test_the_bores_are_one_stop_of_the_tab_key_and_arrows_go_from_one_to_the_next(self) -> None:
        page = self.open()
        bores = page.get_by_role("toolbar", name="Standard bores").get_by_role("button")
        expect(bores.first).to_be_visible()
        self.assertGreater(bores.count(), 3)
        bores.first.focus()
        page.keyboard.press("ArrowRight")
        expect(bores.nth(1)).to_be_focused()
        page.keyboard.press("ArrowLeft")
        expect(bores.first).to_be_focused()
        page.keyboard.press("Tab")
        expect(page.locator("[role=toolbar][aria-label='Standard bores'] :focus")).to_have_count(0)
        page.keyboard.press("Shift+Tab")
        expect(page.locator("[role=toolbar][aria-label='Standard bores'] :focus")).to_have_count(1)
        self.axe()
        self.no_errors()

    def test_where_the_pedal_goes_adds_up_to_the_core_s_travel(self) -> None:
        page = self.open()
        cells = rows(self.choose(page, "Where the pedal goes"))
        wanted = self.ask("/jobs/1/size")["wanted_decel_g"]
        moment = self.ask("/jobs/1/moment", {"setup": "plan A", "load": 0, "decel_g": wanted})
        whole = moment["systems"]["service"]["pedal_travel_mm"]
        self.assertEqual(cells[-1], ["in all", f"{whole:.1f}"])
        self.assertAlmostEqual(sum(float(mm) for _, mm in cells[:-1]), whole, delta=0.5)

    def test_heat_is_the_series_that_was_asked(self) -> None:
        page = self.open()
        table = self.choose(page, "Heat")
        expect(table).to_be_visible()
        asked = {"setup": "plan A", "load": 0, "speed_from_kmh": "100 km/h", "speed_to_kmh": "20 km/h", "stops": 10,
                 "cooling_time_s": "30 s", "cooling_speed_kmh": "60 km/h", "ambient_c": "20"}  # fmt: skip
        heat = self.ask("/jobs/1/heat", asked)
        expect(table.get_by_role("row").last.get_by_role("cell").first).to_have_text("10")
        last = rows(table)[-1]
        self.assertEqual(last[2], f"{heat['front']['peaks_c'][-1]:.0f}")
        self.assertEqual(last[4], f"{heat['rear']['peaks_c'][-1]:.0f}")
        page.get_by_role("textbox", name="from").fill("60 mph")
        page.keyboard.press("Enter")
        faster = self.ask("/jobs/1/heat", {**asked, "speed_from_kmh": "60 mph"})
        expect(table.get_by_role("row").last).to_contain_text(f"{faster['front']['peaks_c'][-1]:.0f}")
        page.get_by_role("textbox", name="from").fill("quickly")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("speed from")
        self.no_errors("Failed to load resource")

    def test_an_instrument_takes_the_whole_strip_and_the_choice_is_kept(self) -> None:
        page = self.open()
        self.choose(page, "Adhesion used")
        page.get_by_role("region", name="Adhesion used").get_by_role("button", name="large").click()
        expect(page.get_by_role("region", name="Balance")).to_have_count(0)
        expect(page.get_by_role("region", name="Findings")).to_be_visible()
        page.reload()
        expect(page.get_by_role("region", name="Adhesion used")).to_be_visible()
        expect(page.get_by_role("region", name="Feel")).to_have_count(0)
        self.no_errors()


class Band(Asked):
    def gains(self, side: str) -> float:
        """How many times the brake of an end plan A gives for the push that as found needs, by the core."""
        view = self.ask("/jobs/1/size")
        wanted = view["wanted_decel_g"]
        own, was = (self.ask("/jobs/1/moment", {"setup": s, "load": 0, "decel_g": wanted}) for s in ("plan A", "as found"))
        force = {"front": ("front_brake_force_n",), "rear": ("rear_brake_force_n",),
                 "whole": ("front_brake_force_n", "rear_brake_force_n")}[side]  # fmt: skip
        per_push = [sum(m[f] for f in force) / m["pedal_force_n"] for m in (own, was)]
        return float(per_push[0] / per_push[1])

    def test_each_side_s_product_is_the_core_s(self) -> None:
        page = self.open()
        self.idle()
        for _ in range(3):
            button = page.get_by_role("button", name=re.compile("^What each change bought"))
            side = re.search(r"bought: (\w+) brake", button.get_attribute("aria-label") or "")
            assert side is not None
            expect(page.get_by_text(f"= {self.gains(side[1]):.2f} times the {side[1]} brake for the same push")).to_be_visible()
            button.click()
        self.no_errors()


class TwoLines(Asked):
    def test_a_motorcycle_s_levers_together_and_alone(self) -> None:
        job = self.add("motorcycle")
        page = self.open(f"/jobs/{job}/size")
        view = self.ask(f"/jobs/{job}/size")
        paths = view["setups"][1]["solved"]["paths"]
        self.assertEqual([p["name"] for p in paths], ["hand_alone", "foot_alone", "together"])
        line = page.get_by_role("img", name="Force line")
        for path in (paths[2], paths[0], paths[1]):
            page.get_by_role("radio", name=path["title"]).click()
            state = path["states"][0]
            expect(line).to_have_attribute(
                "aria-label", re.compile(f"{state['at_stop']['pedal_force_n']:.0f} newton at the foot")
            )
        page.get_by_role("radio", name="all together").click()
        moment = paths[2]["states"][0]["at_stop"]
        expect(line).to_contain_text(f"{moment['systems']['foot']['control_force_n']:.0f} N")
        expect(line).to_contain_text(f"{moment['systems']['hand']['rod_force_n']:.0f} N")
        page.get_by_role("radio", name="foot alone").click()
        pin = page.get_by_role("textbox", name="pin", exact=True)
        expect(pin).to_have_value("42 mm")
        self.shorten_the_foot_s(job, pin)
        self.axe()
        self.no_errors()

    def test_while_all_are_pressed_the_row_shows_the_parts_of_the_one_that_is_chosen(self) -> None:
        job = self.add("motorcycle")
        page = self.open(f"/jobs/{job}/size")
        whose = page.get_by_role("button", name=re.compile("Whose parts"))
        pin = page.get_by_role("textbox", name="pin", exact=True)
        expect(pin).to_have_value("24 mm")
        whose.focus()
        page.keyboard.press("Enter")
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(whose).to_contain_text("foot’s parts")
        expect(pin).to_have_value("42 mm")
        self.shorten_the_foot_s(job, pin)
        self.axe()
        self.no_errors()

    def test_a_mend_of_one_of_two_controls_is_tried_and_taken(self) -> None:
        job = self.add("motorcycle")
        page = self.open(f"/jobs/{job}/size")
        page.get_by_role("button", name="Try 14 mm").click()
        expect(page.get_by_text("Tried, not stored: 14 mm.")).to_be_visible()
        page.get_by_role("button", name="Take it").click()
        expect(page.get_by_text("Tried, not stored: 14 mm.")).to_have_count(0)
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        expect(page.get_by_role("textbox", name="Cylinder bore")).to_have_value("14 mm")
        stored = self.ask(f"/jobs/{job}")["document"]["plans"][0]["systems"]
        self.assertEqual([s["cylinder"]["bore_mm"] for s in stored], ["14 mm", "14 mm"])
        expect(page.get_by_role("button", name="Try 14 mm")).to_have_count(0)
        self.no_errors()

    def test_a_trials_car_s_lever_is_changed_where_it_stands(self) -> None:
        job = self.add("trials-car")
        page = self.open(f"/jobs/{job}/size")
        page.get_by_role("radio", name="right lever alone").click()
        expect(page.get_by_role("button", name="Lever: working")).to_be_visible()
        bore = page.get_by_role("textbox", name="Cylinder bore")
        bore.fill("11/16")
        bore.press("Enter")
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        expect(bore).to_have_value("11/16 in")
        seconds = self.ask(f"/jobs/{job}")["document"]["plans"][0]["systems"][0]["second_control"]
        self.assertEqual([s["cylinder"]["bore_mm"] for s in seconds], ["5/8 in", "11/16 in"])
        self.no_errors()

    def test_a_balance_bar_is_dragged_by_keys(self) -> None:
        job = self.add("hill-climb")
        page = self.open(f"/jobs/{job}/size")
        bar = page.get_by_role("slider", name="Bar, the front’s share")
        expect(bar).to_have_count(0)  # its share is given by its clevises: nothing to drag
        at = "/plans/0/systems/0/cylinder/bar"
        self.ask(f"/jobs/{job}/changes", {"base": 0, "edits": [{"path": at, "value": {"front_share": 0.5, "stop_mm": 9}}]})
        bar.press("ArrowUp")
        expect(bar).to_have_attribute("aria-valuenow", "0.51")
        page.keyboard.press("ArrowUp")
        page.keyboard.press("ArrowUp")
        expect(bar).to_have_attribute("aria-valuetext", "front 51.5 %")
        expect(page.get_by_role("textbox", name="front’s share of the bar")).to_have_value("0.515")
        self.assertEqual(self.ask(f"/jobs/{job}")["document"]["plans"][0]["systems"][0]["cylinder"]["bar"]["front_share"], 0.515)
        self.no_errors()

    def test_an_aircraft_from_nothing_has_the_same_on_both_sides_by_one_press(self) -> None:
        job = self.ask("/jobs/new", {"name": "taildragger", "layout": "aircraft_tail_wheel"})["id"]
        edits = [{"path": "/as_found/systems/0/control/pivot_to_pad_mm", "value": "120 mm"},
                 {"path": "/as_found/systems/0/cylinder/bore_mm", "value": "5/8 in"}]  # fmt: skip
        self.ask(f"/jobs/{job}/changes", {"base": 0, "edits": edits})
        page = self.page
        page.goto(f"{self.url}/jobs/{job}/measure?part=control.1")
        page.get_by_role("button", name="Make it the same as the left").click()
        expect(page.get_by_role("textbox", name="pivot to toe")).to_have_value("120 mm")
        right = self.ask(f"/jobs/{job}")["document"]["as_found"]["systems"][1]
        self.assertEqual((right["name"], right["cylinder"]["bore_mm"]), ("right", "5/8 in"))
        self.assertEqual(right["stations"][0]["name"], "right main")
        self.axe()
        self.no_errors()


class OnAPhone(Asked):
    width, height = PHONE
    touch = True

    def test_every_vehicle_is_looked_at_by_touch(self) -> None:
        for name in ("motorcycle", "light-aircraft", "trials-car", "hill-climb"):
            job = self.add(name)
            page = self.open(f"/jobs/{job}/size")
            for switch in page.get_by_role("radiogroup", name="What is pressed").get_by_role("radio").all():
                switch.tap()
                expect(page.get_by_role("img", name="Force line")).to_be_visible()
            self.fits()
        self.axe()
        self.no_errors()

    def test_each_control_stands_on_a_line_of_its_own_and_its_parts_are_changed_there(self) -> None:
        job = self.add("motorcycle")
        page = self.open(f"/jobs/{job}/size")
        at = self.ask(f"/jobs/{job}/size")["setups"][1]["solved"]["paths"][2]["states"][0]["at_stop"]["systems"]
        for control, link in (("hand", "Lever"), ("foot", "Pedal")):
            own = page.get_by_role("region", name=f"Pressed by {control}")
            blocks = own.get_by_role("listitem")
            expect(blocks.nth(0)).to_contain_text(f"{at[control]['control_force_n']:.0f} N")
            expect(blocks.nth(1)).to_contain_text(link)
            expect(blocks.nth(1)).to_contain_text(f"{at[control]['rod_force_n']:.0f} N")
        pin = page.get_by_role("region", name="Pressed by foot").get_by_role("textbox", name="pin", exact=True)
        self.shorten_the_foot_s(job, pin)
        self.fits()
        self.axe()
        self.no_errors()

    def test_a_plan_is_made_and_a_failure_looked_at_by_touch(self) -> None:
        page = self.open()
        page.get_by_role("button", name="More about plan A").tap()
        page.get_by_role("button", name="New plan from plan A").tap()
        expect(page.get_by_role("radio", name=re.compile("Plan C"))).to_be_checked()
        page.get_by_role("button", name="Findings", exact=True).tap()
        page.get_by_role("radio", name="front circuit lost").tap()
        expect(page.get_by_text("What if: front circuit lost")).to_be_attached()
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

"""Match in the real interface: from what may change to a plan, at a laptop and by touch."""

import json
import re
import urllib.request
from typing import Any

from kobrix.demo import SETUPS
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import search
from playwright.sync_api import APIResponse, Page, Route, expect

from tests.cases import demo_document, demo_job
from tests.ui.case import PATIENCE, PHONE, UiCase

OF_A = "/jobs/1/match?setup=plan%20A"
SEARCHED = re.compile("/api/jobs/1/match$")


class Matched(UiCase):
    def begin(self, path: str = OF_A) -> Page:
        """The page, once its search of pins and bores alone has ended."""
        self.page.goto(self.url + path)
        self.only_pins_and_bores()
        return self.page

    def only_pins_and_bores(self) -> None:
        expect(self.page.get_by_role("status")).to_be_visible()
        if self.touch:
            self.page.get_by_role("button", name="what may change, what must hold").tap()
        for group in ("Front brakes", "Rear brakes", "Rear valve"):
            self.tick(f"{group} may change", on=False)
        self.tried("250")

    def tried(self, count: str = r"\d[\d ]*") -> None:
        expect(self.page.get_by_role("status")).to_have_text(re.compile(f"All {count} setups tried"), timeout=3 * PATIENCE)

    def plans(self) -> list[dict[str, Any]]:
        """The plans that are stored."""
        with urllib.request.urlopen(f"{self.url}/api/jobs/1") as answer:
            found: list[dict[str, Any]] = json.load(answer)["document"]["plans"]
        return found


class OnALaptop(Matched):
    def test_from_what_may_change_to_a_plan(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/size")
        page.get_by_role("radio", name=re.compile("Plan A")).click()
        page.get_by_role("link", name="Match: search other parts from plan A").click()
        self.only_pins_and_bores()
        self.tick("Rear brakes may change")
        self.tried("1 250")
        self.tick("Rear valve may change")
        self.tried("23 750")
        rows = page.get_by_role("table").get_by_role("row")
        self.assertGreaterEqual(rows.count() - 1, 3)
        second = rows.nth(2)
        second.get_by_role("button", name="Show setup 2 on the line").focus()
        line = page.get_by_label("Force line of the setup looked at")
        push = second.get_by_role("cell").nth(5).inner_text()
        expect(line).to_contain_text("plan A 341 N")
        self.assertIn("nothing", page.get_by_role("region", name="Why the others fell").inner_text())
        made = second.get_by_role("cell").nth(1).inner_text()
        second.get_by_role("button", name="Take as C: setup 2").click()
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        plan = self.plans()[-1]
        self.assertEqual((len(self.plans()), plan["name"]), (3, "plan C"))
        self.assertEqual(plan["systems"][0]["cylinder"]["bore_mm"].replace(" ", ""), made.replace(" ", ""))
        self.assertTrue(push.strip().isdigit())
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_role("button", name="Undo")).to_be_disabled()
        self.assertEqual(len(self.plans()), 2)
        self.no_errors()

    def test_what_is_shown_is_what_the_core_finds(self) -> None:
        page = self.begin()
        asked = Search.model_validate({
            "setup": "plan A", "pins": {"least_mm": "36 mm", "most_mm": "60 mm", "step_mm": "1 mm"},
            "bores": {"sizes_mm": ["5/8 in", "17 mm", "11/16 in", "0.70 in", "3/4 in", "13/16 in", "7/8 in", "15/16 in", "24 mm", "1 in"]},
        })  # fmt: skip
        found = search(demo_job(), asked)
        told = [r for r in found["kept"] if r["reasons"]]
        rows = page.get_by_role("table").get_by_role("row").all()[1:]
        self.assertEqual(len(rows), len(told))
        for row, own in zip(rows, told, strict=True):
            cells = row.get_by_role("cell").all_inner_texts()
            self.assertEqual(cells[1:3], [own["words"]["cylinder"], own["words"]["pin"]])
            self.assertEqual([c.strip() for c in cells[5:7]], [f"{own['push_n']:.0f}", f"{own['travel_mm']:.0f}"])
            self.assertEqual(cells[8], f"{own['left_g']:.2f} g")
        for fall in found["fall"]:
            expect(page.get_by_role("button", name=re.compile(re.escape(fall["words"])))).to_contain_text(str(fall["count"]))

    def test_what_was_asked_last_is_searched_however_late_the_first_arrives(self) -> None:
        page, sent = self.begin(), list[Route]()

        def first_held(route: Route) -> None:
            if route.request.method == "POST":
                sent.append(route)
            if sent != [route]:
                route.continue_()

        page.route(SEARCHED, first_held)
        self.tick("Rear brakes may change")
        self.assertTrue(self.comes(lambda: sent), "the search was not asked for")
        self.tick("Front brakes may change")
        page.wait_for_timeout(600)  # longer than it rests before it asks: too short a wait lets a fault pass, no more
        self.assertEqual(len(sent), 1)
        sent[0].continue_()
        self.tried("15 000")
        self.assertEqual(len(sent), 2)
        self.no_errors()

    def test_a_look_at_the_search_before_does_not_hold_up_the_next(self) -> None:
        page, held = self.page, list[tuple[Route, APIResponse]]()

        def hold(route: Route) -> None:
            if route.request.method == "GET" and not held and (answer := route.fetch()).json()["state"] == "running":
                held.append((route, answer))
            elif route.request.method == "GET" and not held:
                route.fulfill(response=answer)
            else:
                route.continue_()

        page.route(SEARCHED, hold)
        page.goto(f"{self.url}{OF_A}")
        self.only_pins_and_bores()
        for route, answer in held:
            route.fulfill(response=answer)
        self.tick("Pin may change", on=False)
        self.tried("10")
        self.assertTrue(held)
        self.no_errors()

    def test_limits_are_typed_refused_in_words_and_let_out(self) -> None:
        page = self.begin()
        field = page.get_by_role("textbox", name="push below")
        field.fill("340 N")
        field.press("Enter")
        expect(page.get_by_role("button", name=re.compile("push above 340 N"))).to_be_visible()
        page.get_by_role("button", name=re.compile("^Let in .* with a push up to 374 N")).click()
        expect(page.get_by_role("button", name=re.compile("push above 374 N"))).to_be_visible()
        field.fill("9 tonnes")
        field.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("effort")
        expect(page.get_by_role("button", name=re.compile("push above 374 N"))).to_be_visible()
        field.fill("")
        field.press("Enter")
        expect(page.get_by_role("button", name=re.compile("push above 500 N"))).to_be_visible()
        expect(page.get_by_role("alert")).to_have_count(0)
        self.no_errors("422")

    def test_a_limit_is_moved_in_the_plot(self) -> None:
        page = self.begin()
        ring = page.get_by_role("slider", name="Limit of the push")
        ring.press("Shift+ArrowDown")
        expect(page.get_by_role("textbox", name="push below")).to_have_value("450 N")
        expect(page.get_by_role("button", name=re.compile("push above 450 N"))).to_be_visible()
        for _ in range(3):
            ring.press("ArrowUp")
        expect(page.get_by_role("button", name=re.compile("push above 465 N"))).to_be_visible()
        ring = page.get_by_role("slider", name="Limit of the travel")
        ring.press("ArrowRight")  # 85 % is a danger by itself
        box = ring.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + 13, box["y"] + 13)
        page.mouse.down()
        page.mouse.move(box["x"] - 47, box["y"] + 13, steps=6)
        page.mouse.up()
        expect(page.get_by_role("textbox", name="travel below")).to_have_value(re.compile("^7[0-9] %$"))
        expect(page.get_by_role("button", name=re.compile("travel above 7[0-9] %"))).to_be_visible()
        self.no_errors()

    def test_arrows_step_through_the_setups_kept(self) -> None:
        page = self.begin()
        page.get_by_role("button", name="Show setup 1 on the line").focus()
        page.keyboard.press("ArrowDown")
        expect(page.get_by_role("button", name="Show setup 2 on the line")).to_be_focused()
        expect(page.get_by_label("Force line of the setup looked at")).to_be_visible()
        page.keyboard.press("ArrowUp")
        expect(page.get_by_role("button", name="Show setup 1 on the line")).to_be_focused()

    def test_filters_sort_and_light(self) -> None:
        page = self.begin()
        table = page.get_by_role("table")
        page.get_by_text("only those worth telling apart").click()
        every = table.get_by_role("row").count()
        self.assertGreater(every, 15)
        page.get_by_role("button", name=re.compile("travel, mm")).click()
        texts = [r.get_by_role("cell").nth(6).inner_text() for r in table.get_by_role("row").all()[1:]]
        self.assertEqual(texts, sorted(texts, key=float))
        page.get_by_role("button", name=re.compile("cylinder$")).click()
        page.get_by_role("option", name="13/16 in").click()
        names = {r.get_by_role("cell").nth(1).inner_text() for r in table.get_by_role("row").all()[1:]}
        self.assertEqual(names, {"13/16 in"})
        bar = page.get_by_role("button", name=re.compile("travel above"))
        bar.click()
        expect(bar).to_have_attribute("aria-pressed", "true")
        page.get_by_role("button", name="table", exact=True).click()
        expect(page.get_by_role("table", name="Setups on the plot")).to_be_visible()
        self.axe()

    def test_keys_again_back_and_after_a_reload(self) -> None:
        page = self.begin()
        page.get_by_role("checkbox", name="Pin may change").focus()
        page.keyboard.press("Space")
        self.tried("10")
        page.reload()
        self.tried("10")
        page.keyboard.press("g")
        self.tried("10")
        page.keyboard.press("Escape")
        expect(page).to_have_url(re.compile("/jobs/1/size$"))
        self.no_errors()

    def test_a_part_is_put_on_the_shelf_and_tried(self) -> None:
        page = self.begin()
        self.tick("Rear brakes may change")
        self.tried("1 250")
        page.get_by_role("button", name=re.compile("^Rear brakes:")).click()
        page.get_by_role("button", name="Put a part on the shelf").click()
        form = page.get_by_role("group", name="A part for the shelf")
        form.get_by_role("textbox", name="what you call it").fill("scrapyard pair")
        form.get_by_role("button", name="Put it there").click()
        expect(form.get_by_role("alert")).to_contain_text("pistons_mm")
        form.get_by_role("textbox", name="pistons").fill("1 3/8 in")
        form.get_by_role("textbox", name="price").fill("40")
        form.get_by_role("button", name="Put it there").click()
        expect(form).to_have_count(0)
        expect(page.get_by_role("checkbox", name="scrapyard pair, 40")).to_be_checked()
        self.tried("1 500")
        self.no_errors("422")

    def added(self, document: Any) -> int:
        """The number of a job that was added."""
        request = urllib.request.Request(
            f"{self.url}/api/jobs", json.dumps(document).encode(), {"Content-Type": "application/json"}
        )
        with urllib.request.urlopen(request) as answer:
            return int(json.load(answer)["id"])

    def test_a_vehicle_that_cannot_be_searched_says_why(self) -> None:
        document = demo_document()
        document["as_found"]["systems"][0]["control"].pop("available_travel_mm")
        document["plans"] = []
        self.page.goto(f"{self.url}/jobs/{self.added(document)}/match")
        expect(self.page.get_by_role("status")).to_contain_text("Pedal: travel to the stop")
        self.axe()
        self.no_errors()

    def test_several_controls_are_searched_one_at_a_time(self) -> None:
        page = self.page
        job = self.added(json.loads(next(p for p in SETUPS if "motorcycle" in p.name).read_bytes()))
        page.goto(f"{self.url}/jobs/{job}/match")
        which = page.get_by_role("radiogroup", name="Control that is searched")
        expect(which.get_by_role("radio", name="hand")).to_be_checked()
        expect(page.get_by_role("checkbox", name="Rear brakes may change")).to_have_count(0)
        which.get_by_role("radio", name="foot").click()
        expect(page.get_by_role("heading", name="Match, from plan A, foot")).to_be_visible()
        expect(page.get_by_role("checkbox", name="Front brakes may change")).to_have_count(0)
        self.tried("210")
        self.axe()
        page.get_by_role("button", name=re.compile("^Take as B: setup ")).first.click()
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        with urllib.request.urlopen(f"{self.url}/api/jobs/{job}") as answer:
            a, b = (plan["systems"] for plan in json.load(answer)["document"]["plans"])
        self.assertEqual(a[0], b[0])
        self.assertNotEqual(a[1], b[1])
        self.no_errors()

    def test_nothing_breaks_a_rule_in_either_theme_and_nothing_sticks_out(self) -> None:
        page = self.begin()
        for name in ("Front brakes", "Rear valve"):
            self.tick(f"{name} may change")
            page.get_by_role("button", name=re.compile(f"^{name}:")).click()
        self.tried()
        for theme in ("light", "dark"):
            if theme == "dark":
                page.get_by_role("button", name="Dark drawing").click()
            for width in (1280, 900, 390):
                page.set_viewport_size({"width": width, "height": 800})
                expect(page.get_by_role("status")).to_be_visible()
                self.fits()
                self.axe()
        self.no_errors()


class ByTouch(Matched):
    width, height = PHONE
    touch = True

    def test_a_plan_is_found_and_taken(self) -> None:
        page = self.begin()
        page.get_by_text("Rear valve").tap()
        self.tick("Rear valve may change")
        self.tried(r"[\d ]*0")
        take = page.get_by_role("button", name=re.compile("^Take as plan C: setup ")).first
        take.tap()
        expect(page.get_by_role("button", name="Undo")).to_be_enabled()
        self.assertEqual(self.plans()[-1]["name"], "plan C")
        self.fits()
        self.axe()
        self.no_errors()

"""Every unit that figures are shown in, against the core's own figure and the units' definitions."""

import itertools
import json
import re
import unittest

from playwright.sync_api import expect

from tests.ui.case import PATIENCE
from tests.ui.test_instruments import Asked, rows

LBF, PSI, LBF_FT = 0.45359237 * 9.80665, 0.45359237 * 9.80665 / 0.0254**2, 0.45359237 * 9.80665 * 0.3048  # by definition
FORCES = {"N": 1.0, "lbf": LBF}
PRESSURES = {"MPa": 1e6, "bar": 1e5, "psi": PSI}


class Shown(Asked):
    def choose(self, force: str, pressure: str) -> None:
        self.page.evaluate(
            "([f, p]) => localStorage.setItem('kobrix-units', JSON.stringify({shownForce: f, shownPressure: p}))",
            [force, pressure],
        )

    def test_the_line_the_tables_and_the_search_are_in_the_unit_chosen(self) -> None:
        view = self.ask("/jobs/1/size")
        moment = self.ask("/jobs/1/moment", {"setup": "plan A", "load": 0, "decel_g": view["wanted_decel_g"]})
        own = moment["systems"]["service"]
        front = own["stations"]["front"]
        self.open()
        for force, pressure in itertools.product(FORCES, PRESSURES):
            with self.subTest(force=force, pressure=pressure):
                self.choose(force, pressure)
                page = self.open()
                line = page.get_by_role("img", name="Force line")
                kpa = front["pressure_in_kpa"] * 1e3 / PRESSURES[pressure]
                digits = {"MPa": 2, "bar": 1, "psi": 0}[pressure]
                expect(line).to_contain_text(f"{own['rod_force_n'] / FORCES[force]:.0f} {force}")
                expect(line).to_contain_text(f"{kpa:.{digits}f} {pressure}")
                turn = front["torque_per_wheel_nm"] / (1.0 if force == "N" else LBF_FT)
                expect(line).to_contain_text(f"{turn:.0f} {'N m' if force == 'N' else 'lbf ft'}")
                limit = view["force_limit_n"] / FORCES[force]
                expect(page.get_by_text(f"{limit:.0f} {force} limit").first).to_be_visible()
        self.axe()
        self.no_errors()

    def test_lengths_roads_speeds_and_temperatures_are_in_the_units_chosen_on_every_page(self) -> None:
        page = self.open()
        chosen = {"shownForce": "lbf", "shownPressure": "psi", "shownLength": "in", "shownRoad": "ft, mph", "shownHeat": "°F"}
        page.evaluate("chosen => localStorage.setItem('kobrix-units', JSON.stringify(chosen))", chosen)
        # What was typed, and names of parts, stay as they are: they are looked for on the pages that compute only.
        metric = re.compile(r"\d (?:mm|km/h|m|°C|N|kN|MPa|kPa)(?![\w/²³])")
        for path, ready in (
            ("prove", "Verdict"), ("bed", "Passenger"), ("build", "steps done"), ("questions", "Words used here"), ("match?setup=plan%20A", "setups tried"),
        ):  # fmt: skip
            page.goto(f"{self.url}/jobs/1/{path}")
            expect(page.get_by_text(ready).first).to_be_visible(timeout=3 * PATIENCE)
            self.idle()
            seen = page.locator("main").inner_text()
            self.assertEqual([m for m in metric.findall(seen) if not re.search(r"by 1 mm", seen)], [], path)
        prove, view = page.goto(f"{self.url}/jobs/1/prove"), self.ask("/jobs/1/prove")
        self.assertIsNotNone(prove)
        mean = view["sets"][0]["mean_m"] / 0.3048
        expect(page.get_by_text(re.compile(f"^{mean:.1f} ft"))).to_be_visible()
        expect(page.get_by_text(f"Stops from {view['nominal_kmh'] / 1.609344:.0f} mph")).to_be_visible()
        hottest = max(h["peak_c"] for h in self.ask("/jobs/1/bed")["heat"] if h["peak_c"] is not None)
        page.goto(f"{self.url}/jobs/1/bed")
        expect(page.get_by_text(re.compile(f"hottest {hottest * 1.8 + 32:.0f} °F"))).to_be_visible()
        travel = self.ask("/jobs/1/size")["setups"][1]["solved"]["paths"][0]["states"][0]["at_stop"]["systems"]["service"][
            "pedal_travel_mm"
        ]
        page = self.open()
        expect(page.get_by_role("region", name="Where the pedal goes")).to_contain_text(f"{travel / 25.4:.2f} of 5.91 in")
        line = page.get_by_role("img", name="Force line")
        expect(line).to_contain_text(re.compile(r"÷ \d+\.\d\d in"))
        found, bore = (
            s["solved"]["paths"][0]["parts"]["cylinder"]["area_cm2"] / 2.54**2 for s in self.ask("/jobs/1/size")["setups"][:2]
        )
        expect(line).to_contain_text(f"÷ {bore:.3f} in² ×")
        self.assertNotIn("cm²", line.text_content() or "")
        page.get_by_role("region", name="Where the pedal goes").get_by_role("button", name="large").click()
        expect(page.locator("em", has_text=re.compile("^in$"))).to_be_visible()
        mended = page.get_by_role("region", name="Findings").get_by_role("button", name=re.compile("^Try"))
        self.assertNotIn("in front", " ".join(mended.all_inner_texts()))
        page.goto(f"{self.url}/jobs/1/fit")
        page.get_by_role("button", name="Work it out").click()
        yard = page.locator("div", has=page.get_by_role("heading", name="In the yard")).last.locator("xpath=..")
        expect(yard).to_contain_text(re.compile(r"now \d\.\d+ in²"))
        self.assertEqual(re.findall(r"\d (?:mm|cm²|bar)", yard.inner_text()), [])
        page.goto(f"{self.url}/jobs/1/measure?part=cylinder.0")
        expect(page.get_by_label("What follows from these")).to_contain_text(f"{found:.3f} in²")
        self.no_errors()

    def test_a_unit_is_changed_on_the_page_and_everything_follows(self) -> None:
        page = self.page
        page.goto(f"{self.url}/jobs/1/prove")
        expect(page.get_by_text(re.compile("10.7 m shorter"))).to_be_visible()
        page.get_by_role("button", name=re.compile("^Units")).click()
        choice = page.get_by_role("radiogroup", name="Figures of road and speed")
        choice.get_by_role("radio", name="ft, mph").click()
        expect(page.get_by_text(re.compile("35.1 ft shorter"))).to_be_visible()
        expect(choice.get_by_role("radio", name="ft, mph")).to_be_focused()
        self.axe()
        self.no_errors()

    def test_a_table_says_its_unit_and_has_the_same_figures(self) -> None:
        self.open()
        self.choose("lbf", "bar")
        page = self.open()
        panel = page.get_by_role("region", name="Feel")
        panel.get_by_role("button", name="table", exact=True).click()
        table = panel.get_by_role("table")
        expect(table.get_by_role("columnheader", name="push, lbf")).to_be_visible()
        found = {row[0]: row[1] for row in rows(table)}
        for setup in self.ask("/jobs/1/size")["setups"]:
            push = setup["solved"]["paths"][-1]["states"][0]["at_stop"]["pedal_force_n"]
            self.assertEqual(found[setup["name"].removeprefix("plan ")], f"{push / LBF:.0f}")

    def test_the_push_is_typed_and_scrubbed_in_the_unit_chosen(self) -> None:
        self.open()
        self.choose("lbf", "psi")
        page = self.open()
        entry = page.get_by_role("textbox", name="Push")
        with page.expect_request(lambda r: r.url.endswith("/moment") and "pedal_force_n" in (r.post_data or "")) as asked:
            entry.fill("60")
            entry.press("Enter")
        self.assertAlmostEqual(json.loads(asked.value.post_data or "{}")["pedal_force_n"], 60 * LBF, places=3)
        expect(page.get_by_role("img", name="Force line")).to_have_attribute(
            "aria-label", re.compile("60 pound-force at the foot")
        )
        page.goto(f"{self.url}/jobs/1/match?setup=plan%20A")
        expect(page.get_by_role("status")).to_contain_text("setups tried", timeout=3 * PATIENCE)
        expect(page.get_by_role("button", name=re.compile("^Setup 1: .* pound-force"))).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("push, lbf"))).to_be_visible()
        ring = page.get_by_role("slider", name="Limit of the push")
        expect(ring).to_have_attribute("aria-valuetext", f"{500 / LBF:.0f} lbf")
        self.no_errors()

    def test_findings_and_why_setups_fell_are_in_the_unit_chosen(self) -> None:
        self.open()
        self.choose("lbf", "psi")
        newtons = re.compile(r"\d (kN|N(?! m)|MPa|kPa)\b")
        page = self.open()
        findings = page.get_by_role("region", name="Findings")
        expect(findings).to_contain_text(" lbf")
        closed = findings.get_by_role("button", expanded=False)
        while closed.count():
            closed.first.click()
        self.assertEqual(newtons.findall(findings.inner_text()), [])
        for path in ("match?setup=plan%20A", "build", ""):
            page.goto(f"{self.url}/jobs/1/{path}" if path else f"{self.url}/jobs")
            if path.startswith("match"):
                expect(page.get_by_role("status")).to_contain_text("setups tried", timeout=3 * PATIENCE)
            expect(page.locator("main")).to_contain_text(re.compile(r"\d lbf|\d psi"))
            self.assertEqual(newtons.findall(page.locator("main").inner_text()), [], path)
        self.no_errors()


if __name__ == "__main__":
    unittest.main()

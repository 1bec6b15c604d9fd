"""What is asked of a search and which of its setups are shown: the screen's reducer and filters, with the server's own shapes."""

import copy
import json
import unittest
from typing import Any

from kobrix.core.errors import KobrixError
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.match.choices import choices_of
from kobrix.stages.match.request import Search
from pydantic_core import to_json

from tests.cases import demo_document, demo_job
from tests.screen.case import ScreenCase

SEARCH = "stages/match/search.ts"
FILTER = "stages/match/filter.ts"
UNCERTAINTY = "stages/match/uncertainty.ts"


class Asked(ScreenCase):
    modules = (SEARCH,)

    def setUp(self) -> None:
        self.choices: Any = json.loads(to_json(choices_of(demo_job(), "plan A")))
        self.ask_now: dict[str, Any] = self.choices["ask"]

    def do(self, **action: Any) -> dict[str, Any]:
        """What is asked after an action; it is one that the server takes."""
        after: dict[str, Any] = self.ask(SEARCH, "searching", self.ask_now, action)
        files.check(Search, copy.deepcopy(after))
        return after

    def ticked(self, group: str) -> bool:
        found: bool = self.ask(SEARCH, "ticked", self.ask_now, group)
        return found

    def test_every_group_of_this_setup_is_ticked_and_unticked(self) -> None:
        groups = self.ask(SEARCH, "groupsOf", self.choices)
        self.assertNotIn("bar", groups, "one tandem cylinder has no bar")
        for group in groups:
            for _ in range(2):
                was = self.ticked(group)
                others = {k: v for k, v in self.ask_now.items() if k not in (group, "booster_gone")}
                self.ask_now = self.do(do="tick", group=group, choices=self.choices)
                self.assertEqual(self.ticked(group), not was, group)
                left = {k: v for k, v in self.ask_now.items() if k not in (group, "booster_gone")}
                self.assertEqual(left, others)

    def test_a_vehicle_with_a_bar_or_a_booster_has_those_groups(self) -> None:
        with_both = {**self.choices, "twin": True, "booster": "vacuum"}
        self.assertEqual(self.ask(SEARCH, "groupsOf", with_both), self.ask(SEARCH, "GROUPS"))

    def test_a_change_without_a_value_leaves_the_server_its_own(self) -> None:
        self.ask_now = self.do(do="set", group="pins", change={"least_mm": "40 mm", "most_mm": "60 mm", "step_mm": "2 mm"})
        after = self.do(do="set", group="pins", change={"step_mm": None})
        self.assertEqual(after["pins"], {"least_mm": "40 mm", "most_mm": "60 mm"})
        limits = self.do(do="limits", change={"effort_n": "450 N"})["limits"]
        self.assertEqual(limits["effort_n"], "450 N")

    def test_parts_of_one_axle_are_chosen_without_the_other(self) -> None:
        before = copy.deepcopy(self.ask_now)
        after = self.do(do="parts", axle="rear", kind="calipers", names=["own"])
        self.assertEqual(after["rear"]["calipers"], ["own"])
        self.assertEqual(after.get("front"), before.get("front"))

    def test_taking_another_ask_takes_it_whole(self) -> None:
        self.assertEqual(self.do(do="take", search={**self.ask_now, "booster_gone": True})["booster_gone"], True)

    def test_a_group_says_in_few_words_what_it_is_over(self) -> None:
        ask = {**self.ask_now, "pins": {"least_mm": 40, "most_mm": "60 mm", "step_mm": "1 mm"}, "bores": {"sizes_mm": ["3/4"]},
               "front": {"calipers": ["own", "a"], "rotors": ["own"], "pads": ["own"]},
               "valve": {"least_kpa": "2 MPa", "most_kpa": "4 MPa", "step_kpa": "0.2 MPa", "without": True}}  # fmt: skip
        for group, words in (
            ("pins", "40 to 60 mm, by 1 mm"), ("bores", "1 bore"), ("front", "2 calipers × 1 rotor × 1 pad"),
            ("valve", "none, or knee 2 MPa to 4 MPa"), ("booster", "with it and without")
        ):  # fmt: skip
            self.assertEqual(self.ask(SEARCH, "summary", ask, group), words)
        self.assertEqual(self.ask(SEARCH, "summary", {**ask, "rear": None}, "rear"), "")

    def test_what_stays_is_what_the_setup_has(self) -> None:
        self.assertEqual(self.ask(SEARCH, "asItStays", self.choices, "pins"), "48 mm")
        self.assertEqual(self.ask(SEARCH, "asItStays", self.choices, "booster"), "none")
        self.assertIn("38.1", self.ask(SEARCH, "asItStays", self.choices, "front"))
        self.assertEqual(self.ask(SEARCH, "asItStays", {**self.choices, "pin_mm": None}, "pins"), "not known")

    def test_the_server_refuses_what_no_screen_can_make(self) -> None:
        with self.assertRaises(KobrixError):
            files.check(Search, {**self.ask_now, "pins": {"least_mm": "40 psi", "most_mm": "60 mm", "step_mm": "1 mm"}})
        self.assertIsInstance(files.check(Job, demo_document()), Job)


def kept(**more: Any) -> dict[str, Any]:
    """A setup that was kept, as the screen has it."""
    row = {"push_n": 300.0, "travel_mm": 90.0, "grip_use": 0.9, "left_g": 0.3, "price": 100.0, "reasons": ["lightest"],
           "as_it_stands": False, "beaten": False, "words": {"cylinder": "3/4 in", "pin": "48 mm"}, "doubt": None}  # fmt: skip
    return {**row, **more}


class Shown(ScreenCase):
    modules = (FILTER, UNCERTAINTY)
    rows = (
        kept(push_n=300.0, price=None),
        kept(push_n=250.0, reasons=[], words={"cylinder": "7/8 in", "pin": "48 mm"}),
        kept(push_n=400.0, price=0.0, reasons=[], as_it_stands=True),
    )

    def pushes(self, **change: Any) -> list[float]:
        no = self.ask(FILTER, "NO_FILTER")
        return [row["push_n"] for row in self.ask(FILTER, "filtered", self.rows, {**no, **change})]

    def test_those_with_a_reason_and_the_one_there_is_are_shown_first(self) -> None:
        self.assertEqual(self.pushes(), [300.0, 400.0])
        self.assertEqual(self.pushes(reasoned=False), [300.0, 250.0, 400.0])

    def test_a_column_sorts_up_then_down_then_not(self) -> None:
        self.assertEqual(self.pushes(reasoned=False, by="push_n"), [250.0, 300.0, 400.0])
        self.assertEqual(self.pushes(reasoned=False, by="push_n", down=True), [400.0, 300.0, 250.0])
        self.assertEqual(self.pushes(reasoned=False, by="price"), [400.0, 250.0, 300.0], "an unknown price comes last")
        filter_ = self.ask(FILTER, "NO_FILTER")
        for expected in (("price", False), ("price", True), (None, False)):
            filter_ = self.ask(FILTER, "sortedBy", filter_, "price")
            self.assertEqual((filter_["by"], filter_["down"]), expected)

    def test_only_parts_that_differ_can_be_filtered_by(self) -> None:
        self.assertEqual(self.ask(FILTER, "partsOf", self.rows), [{"part": "cylinder", "words": ["3/4 in", "7/8 in"]}])
        self.assertEqual(self.pushes(reasoned=False, made={"cylinder": "7/8 in"}), [250.0])
        self.assertEqual(self.ask(FILTER, "partsOf", []), [])

    def test_reasons_price_and_doubt_in_words(self) -> None:
        self.assertEqual(
            self.ask(UNCERTAINTY, "reasonsOf", kept(reasons=["lightest", "cheapest", "shortest"])), "lightest; cheapest"
        )
        self.assertEqual(self.ask(UNCERTAINTY, "reasonsOf", kept(reasons=[])), "nothing beats it")
        self.assertEqual(
            self.ask(UNCERTAINTY, "reasonsOf", kept(beaten=True, reasons=["as it stands"])), "another beats it; as it stands"
        )
        self.assertEqual(
            [self.ask(UNCERTAINTY, "extraCost", kept(price=p)) for p in (None, 0.0, 129.6)], ["not known", "0", "+130"]
        )
        doubt = {"chances": {"effort": 0.004, "travel": 0.25, "rear_first": 0.5, "early_lock": 0.02, "sharing": 0.1},
                 "margin_g": {"p5": 0.012, "p95": 0.1}}  # fmt: skip
        told = self.ask(UNCERTAINTY, "chances", kept(doubt=doubt))
        words = "rear locks 0.01 to 0.10 g later; chance of 50 % rear first, 25 % too long, 10 % against the sharing rule"
        self.assertEqual(told, words)
        self.assertEqual(self.ask(UNCERTAINTY, "chances", kept()), "within every limit in all trials")


if __name__ == "__main__":
    unittest.main()

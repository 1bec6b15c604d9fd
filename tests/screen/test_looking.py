"""What a person looks at in Size: the reducer; and standard sizes stepped through."""

import itertools
import unittest
from typing import Any

from tests.cases import demo_job, size_of
from tests.screen.case import ScreenCase


class Reducer(ScreenCase):
    modules = ("stages/size/state.ts",)
    state: dict[str, Any] = {
        "setup": "plan A", "path": None, "load": 1, "asked": {"by": "push", "value": 300}, "match": "stop", "failure": "lost_front",
        "trying": None, "beneath": "instruments",
    }  # fmt: skip

    def after(self, **look: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("stages/size/state", "looking", self.state, look)
        return found

    def test_another_setup_is_looked_at_whole_and_at_the_same_push(self) -> None:
        self.assertEqual(
            self.after(type="setup", setup="plan B"), {**self.state, "setup": "plan B", "failure": None, "trying": None}
        )

    def test_another_path_or_load_is_looked_at_at_the_stop_wanted(self) -> None:
        stop = {"by": "decel", "value": 0.81}
        self.assertEqual(self.after(type="load", load=0, decel=0.81), {**self.state, "load": 0, "asked": stop})
        self.assertEqual(self.after(type="path", path="hand_alone", decel=0.81),
                         {**self.state, "path": "hand_alone", "failure": None, "asked": stop})  # fmt: skip

    def test_a_mend_is_tried_on_the_setup_it_was_asked_for(self) -> None:
        tried = {"name": "braided hoses", "setup": {"key": "plan A"}}
        self.assertEqual(self.after(type="try", trying=tried), {**self.state, "failure": None, "trying": tried})
        self.assertEqual(self.after(type="try", trying={**tried, "setup": {"key": "plan B"}}), self.state)
        self.assertEqual(self.after(type="leave"), {**self.state, "trying": None})

    def test_what_lies_beneath_the_line_is_one_thing(self) -> None:
        for beneath in ("comparison", {"link": 3}, "instruments"):
            self.assertEqual(self.after(type="beneath", beneath=beneath), {**self.state, "beneath": beneath})

    def test_nothing_below_no_push(self) -> None:
        self.assertEqual(self.after(type="push", value=-4)["asked"], {"by": "push", "value": 0})
        self.assertEqual(self.after(type="decel", value=-1)["asked"], {"by": "decel", "value": 0})

    def test_the_rest_changes_only_itself(self) -> None:
        self.assertEqual(self.after(type="match", match="push"), {**self.state, "match": "push"})
        self.assertEqual(self.after(type="failure", failure=None), {**self.state, "failure": None})


class Sizes(ScreenCase):
    modules = ("chain/place.ts",)

    def test_standard_bores_are_stepped_one_by_one_and_end(self) -> None:
        bores, now = size_of(demo_job())["standard_bores"], 0.0
        up = []
        while (found := self.ask("chain/place", "nextBore", bores, now, 1)) is not None:
            now = found["bore_mm"]
            up.append(now)
        self.assertEqual(up, sorted(up))
        self.assertTrue(all(b - a > 0.15 for a, b in itertools.pairwise(up)), "two names of one size are one step")
        down = [now]
        while (found := self.ask("chain/place", "nextBore", bores, down[-1], -1)) is not None:
            down.append(found["bore_mm"])
        self.assertEqual(next(round(b, 2) for b in reversed(down)), round(up[0], 2))
        self.assertLessEqual(abs(len(down) - len(up)), 1)
        between = self.ask("chain/place", "nextBore", bores, 20.9, 1)
        self.assertGreater(between["bore_mm"], 20.9 + 0.15)


if __name__ == "__main__":
    unittest.main()

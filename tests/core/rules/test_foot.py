"""What is said of a booster: spent on the way to the wanted stop, of no help at all, or strong enough to keep quiet of."""

import copy
import unittest
from typing import Any

from kobrix.evaluate.findings import findings
from kobrix.evaluate.solve import Answer
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import demo_job

AS_FOUND = demo_job().setup("as found").model_dump(mode="json", exclude_none=True)


class Boosters(unittest.TestCase):
    def said(self, vacuum: float, gain: float = 4.0, diaphragms: tuple[str, ...] = ("8 in",)) -> list[Any]:
        document = copy.deepcopy(AS_FOUND)
        document["systems"][0]["booster"] = {
            "kind": "vacuum",
            "diaphragms_mm": list(diaphragms),
            "vacuum_kpa": vacuum,
            "gain": gain,
        }
        return [found for found in findings(Answer(files.check(Setup, document)), None) if found["rule"] == "runout"]

    def test_without_vacuum_it_does_not_help_and_the_leg_is_told_its_push(self) -> None:
        (none,) = self.said(0.0)
        self.assertEqual((none["level"], none["kind"]), ("caution", "none"))
        self.assertTrue(none["sentence"].startswith("The booster does not help"))
        self.assertNotIn("spent", none["sentence"])

    def test_weak_it_is_spent_before_the_wanted_stop_and_more_vacuum_spends_it_later(self) -> None:
        weak, better = self.said(20.0), self.said(35.0)
        self.assertEqual([found["kind"] for found in (*weak, *better)], ["spent", "spent"])
        self.assertLess(weak[0]["limit"], better[0]["limit"])
        self.assertGreater(weak[0]["value"], weak[0]["limit"])

    def test_strong_enough_nothing_is_said(self) -> None:
        self.assertEqual(self.said(75.0, diaphragms=("9 in", "9 in")), [])


if __name__ == "__main__":
    unittest.main()

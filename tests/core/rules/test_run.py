"""What several controls have alike is said once, of the worst; whose it is reads as a mechanic says it."""

import math
import unittest

from kobrix.core.figures import Level
from kobrix.core.rules.limits import Judgement
from kobrix.core.rules.run import said_once
from kobrix.core.rules.words import listed


def found(system: str | None, rule: str, value: float, level: Level = "note", kind: str = "over") -> Judgement:
    return Judgement(
        f"{rule}_{system}",
        level,
        "It is so{of}: {value}.".replace("{value}", str(value)),
        "why",
        "source",
        value,
        1.0,
        "N",
        system,
        rule,
        kind,
    )


class SaidOnce(unittest.TestCase):
    def sentences(self, rule: str, names: list[str], controls: int) -> list[str]:
        return [one.sentence for one in said_once([found(name, rule, 5.0) for name in names], controls)]

    def test_what_holds_of_each_is_said_of_all_and_what_fails_of_one_at_a_time(self) -> None:
        for rule, names, controls, whose in (
            ("effort", ["left"], 2, ", left"),
            ("effort", ["left", "right"], 2, ", left and right"),
            ("effort", ["a", "b", "c"], 3, ", every control"),
            ("effort", ["a", "b", "c"], 4, ", a, b and c"),
            ("failure", ["left", "right"], 2, ", left or right"),
            ("failure", ["a", "b", "c"], 3, ", any control"),
            ("failure", ["a", "b", "c"], 4, ", a, b or c"),
            ("effort", ["foot"], 1, ""),
            ("failure", ["foot"], 1, ""),
        ):
            self.assertEqual(self.sentences(rule, names, controls), [f"It is so{whose}: 5.0."], (rule, names, controls))

    def test_the_worst_speaks_for_them(self) -> None:
        """More is worse of a push, less of what is left once something failed."""
        near = 5.0 * (1 + 1e-4)
        for rule, expected in (("effort", near), ("failure", 5.0)):
            told = said_once([found("left", rule, 5.0), found("right", rule, near)], 2)
            self.assertEqual([one.value for one in told], [expected])
            self.assertEqual(told[0].systems, ("left", "right"))

    def test_of_two_that_are_alike_to_rounding_the_first_speaks(self) -> None:
        for value, near in ((5.0, math.nextafter(5.0, 9.0)), (5.0, math.nextafter(5.0, 0.0)), (0.0, 0.0), (math.inf, math.inf)):
            for rule in ("effort", "failure"):
                (told,) = said_once([found("left", rule, value), found("right", rule, near)], 2)
                self.assertEqual(told.system, "left", (value, near, rule))

    def test_what_differs_in_level_kind_or_figure_stays_apart(self) -> None:
        for other in (
            found("right", "effort", 5.0, level="caution"),
            found("right", "effort", 5.0, kind="under"),
            found("right", "effort", 9.0),
        ):
            self.assertEqual(len(said_once([found("left", "effort", 5.0), other], 2)), 2)

    def test_what_is_of_the_whole_vehicle_is_nobody_s(self) -> None:
        told = said_once([found(None, "lock_order", 0.8), found(None, "rear_lift", 0.8)], 2)
        self.assertEqual([one.sentence for one in told], ["It is so: 0.8."] * 2)

    def test_names_in_one_breath(self) -> None:
        self.assertEqual([listed(["a"]), listed(["a", "b_c"]), listed(["a", "b", "c"], "or")], ["a", "a and b c", "a, b or c"])


if __name__ == "__main__":
    unittest.main()

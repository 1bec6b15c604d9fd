"""What Fit says of a joint, each reason in a mechanic's words: which end is named first, what is too big for what."""

import unittest
from typing import Any

from kobrix.stages.fit import words
from kobrix.stages.fit.lines import judged

JIC_LINE = {"family": "an_37", "role": "line", "thread": "3/8-24"}
JIC = {"family": "an_37", "role": "fitting", "thread": "3/8-24"}
INVERTED_LINE = {"family": "inverted_45_double", "role": "line", "thread": "3/8-24"}
INVERTED_PORT = {"family": "inverted_45_double", "role": "port", "thread": "3/8-24"}
JIC_PORT = {"family": "an_37", "role": "port", "thread": "3/8-24"}
BANJO = {"family": "banjo", "role": "bolt", "thread": "M10x1", "washers": 2}
BANJO_PORT = {"family": "banjo", "role": "port", "thread": "M10x1"}
BUBBLE = {"family": "bubble", "role": "line", "thread": "M10x1"}
TAPER = {"family": "npt", "role": "fitting", "thread": "1/8-27 NPT"}


class Sentences(unittest.TestCase):
    def said(self, a: dict[str, Any], b: dict[str, Any] | None) -> str:
        return words.sentence_of(judged(a, b), a, b, [])

    def test_each_reason_has_its_own(self) -> None:
        for a, b, expected in (
            (INVERTED_LINE, JIC_PORT, "Same thread, a 45° flare on a 37° cone: it screws in, then weeps."),
            (JIC_PORT, INVERTED_LINE, "Same thread, a 37° cone on a 45° flare: it screws in, then weeps."),
            (BANJO, {**INVERTED_PORT, "thread": "M10x1"}, "A flat face on a 45° cone: the washer has no seat. It screws in, then weeps."),
            (BUBBLE, BANJO_PORT, "A bubble on a flat face: the washer has no seat. It screws in, then weeps."),
            (INVERTED_LINE, JIC, "Both are male: they cannot be screwed together."),
            (INVERTED_PORT, JIC_LINE, "Both are female: they cannot be screwed together."),
            (TAPER, INVERTED_PORT, "A taper and a straight thread, 1/8-27 NPT in 3/8-24: it jams, then leaks."),
            ({**INVERTED_LINE, "thread": "7/16-24"}, INVERTED_PORT, "7/16-24 is too big for 3/8-24: it does not start."),
            (INVERTED_PORT, {**INVERTED_LINE, "thread": "7/16-24"}, "7/16-24 is too big for 3/8-24: it does not start."),
            (INVERTED_PORT, {**INVERTED_LINE, "thread": "5/16-24"}, "5/16-24 is too small for 3/8-24: it starts, then strips."),
            (BUBBLE, {"family": "bubble", "role": "port", "thread": "M10x1.25"},
             "Same size, other pitch (M10x1 in M10x1.25): it binds after a few turns. Do not force it."),
            ({**BANJO, "washers": 1}, BANJO_PORT, "New crush washers are missing: without them it weeps."),
            (INVERTED_PORT, None, "Open: 45° double flare, 3/8-24. It wants a plug or a cap."),
            ({**INVERTED_LINE, "material": "copper"}, INVERTED_PORT, "Pure copper and plastic tube are not for brakes: they crack or burst."),
            (BANJO, BANJO_PORT, "Seals on its washers: 2 new ones each."),
            (INVERTED_LINE, INVERTED_PORT, "Seals on its seat."),
            (TAPER, {**TAPER, "role": "port"}, "Seals on its taper; sealant where its maker asks."),
        ):  # fmt: skip
            self.assertEqual(self.said(a, b), expected)

    def test_what_is_not_known_is_asked_for_by_its_part(self) -> None:
        parts = {"a": "hard line", "b": "hose"}
        self.assertEqual(
            words.needed_words(["a.family", "a.role", "b.thread"], parts), ["hard line: what it is", "hose: its thread"]
        )
        self.assertEqual(words.needed_words(["b.family", "b.thread"], parts), ["hose: what it is and its thread"])
        self.assertEqual(words.sentence_of(judged({"family": "banjo"}, BANJO_PORT), {"family": "banjo"}, BANJO_PORT, ["hose: its thread"]),
                         "Not known yet. Hose: its thread.")  # fmt: skip

    def test_an_end_in_a_few_words(self) -> None:
        for end, expected in (
            (BUBBLE, "bubble flare, M10x1"),
            ({"family": "npt"}, "taper pipe thread"),
            ({"thread": "M10x1"}, "M10x1"),
            ({}, "not known"),
        ):
            self.assertEqual(words.said_of(end), expected)


if __name__ == "__main__":
    unittest.main()

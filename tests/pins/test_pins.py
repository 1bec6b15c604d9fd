"""What the server says of every pinned vehicle is what it said before: our own output, so that a change is seen and meant.

Whether it is right is for the tests beside this one, against other sources. Where a change is meant: `python -m tests.pins.answers`.
"""

import json
import unittest

from tests.pins.answers import PINS, everything, pinned


class AsBefore(unittest.TestCase):
    def test_every_answer_about_every_vehicle(self) -> None:
        before, seen = json.loads(PINS.read_text(encoding="utf-8")), dict[str, list[str]]()
        for name, asked, answer in everything():
            seen.setdefault(name, []).append(asked)
            self.assertEqual(pinned(answer), before.get(name, {}).get(asked), f"{name}: {asked} is another than before; if that is meant,"
                             " take it over with python -m tests.pins.answers")  # fmt: skip
        self.assertEqual(seen, {name: list(own) for name, own in before.items()})


if __name__ == "__main__":
    unittest.main()

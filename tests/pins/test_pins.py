"""What the server says of every pinned vehicle is what it said before: our own output, so that a change is seen and meant.

Whether it is right is for the tests beside this one, against other sources. Where a change is meant: `python -m tests.pins.answers`.
"""

import json
import unittest

from tests.pins.answers import PINS, answers, pinned
from tests.pins.vehicles import vehicles


class AsBefore(unittest.TestCase):
    def test_every_answer_about_every_vehicle(self) -> None:
        before = json.loads(PINS.read_text(encoding="utf-8"))
        documents = vehicles()
        self.assertEqual(sorted(before), sorted(documents))
        for name, document in documents.items():
            seen = set()
            for asked, answer in answers(name, document):
                seen.add(asked)
                self.assertEqual(pinned(answer), before[name].get(asked), f"{name}: {asked} is another than before; if that is meant,"
                                 " take it over with python -m tests.pins.answers")  # fmt: skip
            self.assertEqual(seen, set(before[name]), name)


if __name__ == "__main__":
    unittest.main()

"""What the tests of questions share: one question asked, and its answer or its error."""

import json
import unittest
from typing import Any

from kobrix.evaluate.ask.run import ask


class Questions(unittest.TestCase):
    def ask(self, question: str, **more: Any) -> dict[str, Any]:
        """The answer to one question; it must be one, and writable as JSON."""
        answer = self.asked(question, **more)
        self.assertNotIn("error", answer)
        json.dumps(answer, allow_nan=False)
        return answer

    def asked(self, question: str, **more: Any) -> dict[str, Any]:
        setups = more.pop("setups", {})
        file = {"format": "kobrix-questions", "version": 1, "setups": setups, "ask": [{"question": question, **more}]}
        return dict(ask(file)["answers"][0])

    def refused(self, place: str, question: str, **more: Any) -> str:
        """The reason for which a question is refused at a `place`."""
        answer = self.asked(question, **more)
        self.assertIn("error", answer)
        self.assertEqual(answer["error"]["place"], place)
        reason = str(answer["error"]["reason"])
        self.assertTrue(reason)
        return reason

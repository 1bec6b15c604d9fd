"""Every question of Fit, Build, Bleed and Prove against answers that were computed independently, to the last key."""

import json
import unittest
from typing import Any

from kobrix.evaluate.ask.run import ask

from tests.cases import EXAMPLES

NEAR = 2e-9  # of the value


def read(name: str) -> Any:
    """An example file."""
    return json.loads((EXAMPLES / f"{name}.json").read_text(encoding="utf-8"))


def differences(wanted: Any, got: Any, near: float, place: str = "") -> list[str]:
    """Places where an answer is not the wanted one: a key too many or too few, another word, a number too far off."""
    if isinstance(wanted, dict) and isinstance(got, dict):
        odd = [f"{place}.{key}: only one has it" for key in wanted.keys() ^ got.keys()]
        return odd + [d for key in wanted.keys() & got.keys() for d in differences(wanted[key], got[key], near, f"{place}.{key}")]
    if isinstance(wanted, list) and isinstance(got, list):
        if len(wanted) != len(got):
            return [f"{place}: {len(got)} and not {len(wanted)}"]
        return [d for n, (w, g) in enumerate(zip(wanted, got, strict=True)) for d in differences(w, g, near, f"{place}.{n}")]
    numbers = all(isinstance(v, int | float) and not isinstance(v, bool) for v in (wanted, got))
    alike = abs(wanted - got) <= near * max(1.0, abs(wanted)) if numbers else (type(wanted), wanted) == (type(got), got)
    return [] if alike else [f"{place}: {got!r} and not {wanted!r}"]


class Examples(unittest.TestCase):
    def check(self, of: str) -> None:
        asked, wanted = read(f"questions-{of}"), read(f"answers-{of}")["answers"]
        found: Any = ask(asked)["answers"]
        self.assertEqual(len(found), len(wanted))
        for question, want, got in zip(asked["ask"], wanted, found, strict=True):
            with self.subTest(question.get("question")):
                if "error" in want:  # its place is the contract, its words are ours
                    self.assertEqual(got["error"]["place"], want["error"]["place"])
                    self.assertTrue(got["error"]["reason"])
                else:
                    self.assertEqual(differences({"question": question["question"], **want}, got, NEAR), [])

    def test_fit_and_build(self) -> None:
        self.check("fit")

    def test_bleed_bed_and_prove(self) -> None:
        self.check("prove")

    def test_the_comparison_can_fail(self) -> None:
        self.assertEqual(differences({"a": [1.0]}, {"a": [1.0 + 1e-12]}, NEAR), [])
        for got in ({"a": [1.0 + 1e-6]}, {"a": [1.0, 2.0]}, {"b": [1.0]}, {"a": [True]}, {"a": ["1"]}):
            self.assertNotEqual(differences({"a": [1.0]}, got, NEAR), [])


if __name__ == "__main__":
    unittest.main()

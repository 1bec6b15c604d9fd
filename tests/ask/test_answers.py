"""Every answer is the record that its function says it is: the keys, whether each may be left out, the words, the numbers."""

import types
import typing
import unittest
from typing import Any, Literal, NotRequired, Union, get_args, get_origin, get_type_hints

from kobrix.core.fit.joints import JointAnswer
from kobrix.evaluate.ask.run import ANSWERS, ask
from kobrix.fileformat.asked import Asked

from tests.ask.test_examples import read


def faults(value: Any, kind: Any, place: str = "") -> list[str]:
    """Places where a `value` is not of the declared `kind`."""
    origin, parts = get_origin(kind), get_args(kind)
    if typing.is_typeddict(kind):
        return _of_record(value, kind, place)
    if origin in (Union, types.UnionType):
        tried = [faults(value, one, place) for one in parts]
        return [] if [] in tried else min(tried, key=len)
    if origin is Literal:
        return [] if value in parts else [f"{place}: {value!r} is none of {parts}"]
    if origin is list and isinstance(value, list):
        return [f for n, one in enumerate(value) for f in faults(one, parts[0], f"{place}.{n}")]
    if origin is dict and isinstance(value, dict):
        return [f for k, one in value.items() for f in (*faults(k, parts[0], place), *faults(one, parts[1], f"{place}.{k}"))]
    if kind is float:
        return [] if type(value) in (int, float) else [f"{place}: {value!r} is no number"]
    return [] if type(value) is (type(None) if kind is None else kind) else [f"{place}: {value!r} is no {kind}"]


def _of_record(value: Any, kind: Any, place: str) -> list[str]:
    if not isinstance(value, dict):
        return [f"{place}: {value!r} is no record"]
    hints = get_type_hints(kind, include_extras=True)
    found = [f"{place}.{key}: not declared" for key in value if key not in hints]
    for key, hint in hints.items():
        optional = get_origin(hint) is NotRequired or key in kind.__optional_keys__
        if key in value:
            found += faults(value[key], get_args(hint)[0] if get_origin(hint) is NotRequired else hint, f"{place}.{key}")
        elif not optional:
            found.append(f"{place}.{key}: missing")
    return found


class Answers(unittest.TestCase):
    def test_every_question_s_answer_is_declared(self) -> None:
        for name, answer in ANSWERS.items():
            kind = get_type_hints(answer)["return"]
            for one in get_args(kind) or (kind,):
                self.assertTrue(typing.is_typeddict(one), name)

    def test_the_answers_to_the_examples_are_what_is_declared(self) -> None:
        seen = set()
        for of in ("fit", "prove"):
            file = read(f"questions-{of}")
            for question, got in zip(file["ask"], ask(file)["answers"], strict=True):
                if "error" in got:
                    continue
                own = {key: value for key, value in got.items() if key != "question"}
                seen.add(question["question"])
                self.assertEqual(faults(own, get_type_hints(ANSWERS[question["question"]])["return"]), [], question["question"])
        self.assertEqual(seen, set(ANSWERS))

    def test_a_fault_is_found(self) -> None:
        good: Any = ANSWERS["joint_match"](
            Asked({"a": {"family": "inverted_45_double", "role": "line", "thread": "3/8-24"}, "b": None})
        )
        self.assertEqual(faults(good, JointAnswer), [])
        for wrong in (
            {**good, "seals": True}, {k: v for k, v in good.items() if k != "effect"}, {**good, "reason": "seals"},
            {**good, "washers_needed": "2"}, {**good, "mends": [{"mend": "plug"}]},
        ):  # fmt: skip
            self.assertNotEqual(faults(wrong, JointAnswer), [])


if __name__ == "__main__":
    unittest.main()

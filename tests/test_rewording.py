"""No state in prose: every sentence reworded at random, and what the server decides stands."""

import hashlib
import random
import unittest
from dataclasses import replace
from typing import Any
from unittest import mock

from kobrix.core.rules import run
from kobrix.core.rules.limits import Bench, Judgement
from kobrix.core.rules.words import failure_words, loss_words
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.common import StoredJob
from kobrix.stages.registry import STAGES
from kobrix.stages.size import paths, service

from tests.cases import demo_job, evaluate, every_layout

# What is read by people only. Words of a part are a table of such texts.
PROSE = frozenset((
    "loss",
    "sentence", "reason", "source", "label", "words", "first_lock_words", "title", "note", "how", "why", "allowed", "formula",
    "numbers", "standing", "other",
))  # fmt: skip


def reworded(text: str) -> str:
    """Other letters in place of those of a `text`, always the same for the same text and of the same length."""
    draw = random.Random(hashlib.sha256(text.encode()).digest())
    letters = "abcdefghijklmnopqrstuvwxyz"
    return "".join(
        draw.choice(letters)
        if c.islower()
        else draw.choice(letters.upper())
        if c.isupper()
        else draw.choice("123456789")
        if c.isdigit()
        else c
        for c in text
    )


def without_prose(value: Any) -> Any:
    """A document without what only people read."""
    if isinstance(value, dict):
        return {k: without_prose(v) for k, v in value.items() if k not in PROSE and not (k == "name" and "edits" in value)}
    return [without_prose(v) for v in value] if isinstance(value, list) else value


def _rule(rule: run.Rule) -> run.Rule:
    def other(bench: Bench) -> list[Judgement]:
        found = []
        for own in rule(bench):
            found.append(replace(own, sentence=reworded(own.sentence), reason=reworded(own.reason), source=reworded(own.source)))
        return found

    return other


def seen(job: Job) -> dict[str, Any]:
    """What is decided of a job: Size's page, how the stages stand, the result files."""
    service.forget()
    answer_of.cache_clear()
    view = service.size_view(job, 0)
    standing = [stage.standing(StoredJob(job, 0))["state"] for stage in STAGES if stage.standing is not None]
    results = [without_prose(evaluate(job.setup(name))) for name in job.names]
    return {"view": without_prose(view), "standing": standing, "results": results}


class Reworded(unittest.TestCase):
    def test_what_is_decided_stands_whatever_the_sentences_say(self) -> None:
        jobs = [demo_job(), *every_layout()]
        for job in jobs:
            plain = seen(job)

            def other(words: Any) -> Any:
                return lambda *about: reworded(words(*about))

            with (
                mock.patch.object(run, "RULES", tuple(map(_rule, run.RULES))),
                mock.patch.object(paths, "loss_words", other(loss_words)),
                mock.patch.object(service, "failure_words", other(failure_words)),
            ):
                changed = seen(job)
            with self.subTest(job=job.name):
                self.assertEqual(changed, plain)
        service.forget()
        answer_of.cache_clear()

    def test_the_sentences_really_are_others(self) -> None:
        answer = answer_of(ByContent(demo_job().setup("plan B")))
        self.assertIsNotNone(answer.solved)
        self.assertNotEqual(reworded("The rear locks first, 0.663 g."), "The rear locks first, 0.663 g.")
        service.forget()
        with mock.patch.object(run, "RULES", tuple(map(_rule, run.RULES))):
            view: Any = service.size_view(demo_job(), 0)
        service.forget()
        sentences = [f["sentence"] for s in view["setups"] for f in s["findings"]]
        self.assertFalse([s for s in sentences if "rear" in s.lower().split()])
        self.assertTrue(files)


if __name__ == "__main__":
    unittest.main()

"""What is pinned beside the vehicles: answers on vehicles with numbers changed at random, and the words in which an entry is refused."""

import copy
import json
import random
from collections.abc import Iterator
from typing import Any

from kobrix.core.errors import KobrixError
from kobrix.evaluate.findings import tried_findings
from kobrix.evaluate.questions import evaluate
from kobrix.evaluate.solve import ByContent
from kobrix.evaluate.uncertainty import bare
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions

from tests.evaluate.test_random_vehicles import ASKED, shaken, with_extras

WRONG: tuple[Any, ...] = (-1e9, 1e9, "nonsense", None)


def drawn(bases: list[dict[str, Any]], count: int, seed: int) -> Iterator[tuple[str, Any]]:
    """The result file and the findings of so many vehicles, or the words that refuse them."""
    chance = random.Random(seed)
    questions = Questions.model_validate({**ASKED, "trials": {"n": 40, "seed": 1}})
    for n in range(count):
        document = copy.deepcopy(chance.choice(bases))
        shaken(document, chance)
        with_extras(document, chance)
        try:
            setup = files.check(Setup, document)
            known = ByContent(setup)
            yield f"drawn {n}", [evaluate(setup, questions), tried_findings(known, None, None, bare(), None, 40)]
        except KobrixError as refused:
            yield f"drawn {n}", str(refused)


def _leaves(part: Any, path: tuple[Any, ...] = ()) -> Iterator[tuple[Any, ...]]:
    for key, value in part.items() if isinstance(part, dict) else enumerate(part):
        if isinstance(value, dict | list):
            yield from _leaves(value, (*path, key))
        else:
            yield (*path, key)


def refusals(documents: dict[str, dict[str, Any]]) -> Iterator[tuple[str, Any]]:
    """What is said of every entry of the documents when it is too small, too large, nonsense or nothing."""
    for name, document in documents.items():
        said = []
        shape = Job if document["format"] == "kobrix-job" else Setup
        text = json.dumps(document)
        for path in _leaves(document):
            for wrong in WRONG:
                broken = here = json.loads(text)
                for key in path[:-1]:
                    here = here[key]
                here[path[-1]] = wrong
                try:
                    files.check(shape, broken)
                    said.append([path, wrong, "taken"])
                except KobrixError as refused:
                    said.append([path, wrong, str(refused)])
        yield f"refused, {name}", said

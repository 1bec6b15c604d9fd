"""Every page of jobs whose vehicles are drawn at random: as found and a plan, with linkages, valves and brakes that hardly press."""

import copy
import json
import random
import unittest
from collections.abc import Callable
from datetime import date
from typing import Any

from kobrix.api.dossier import dossier_of
from kobrix.api.lend import lent_copy
from kobrix.api.often_asked import often_asked
from kobrix.core.errors import KobrixError
from kobrix.demo import SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.bed.service import bed_of
from kobrix.stages.bleed.service import bleed_of
from kobrix.stages.build.service import build_of
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.donors import routes_of
from kobrix.stages.fit.service import fit_of
from kobrix.stages.prove.service import prove_of
from kobrix.stages.size.compare import compare
from kobrix.stages.size.service import card, size_view, verdicts_view
from kobrix.store.records import Record

from tests.cases import demo_document, demo_job
from tests.evaluate.test_random_vehicles import shaken, with_extras

DAY = date(2026, 5, 7)
RECORDS = tuple(Record(n, r.key, r.kind, r.made_at, r.body) for n, r in enumerate(demo_job().records))


def drawn(bases: list[dict[str, Any]], chance: random.Random) -> Job:
    """A job of a vehicle as found and a plan, each with other numbers, and the stops of the demo. Raises BadFile."""
    found = copy.deepcopy(chance.choice(bases))
    plan = copy.deepcopy(found)
    for document in (found, plan):
        shaken(document, chance)
        with_extras(document, chance)
        for station in (s for system in document["systems"] for s in system["stations"] if chance.random() < 0.15):
            station["devices"] = [{"kind": "limiting", "setting_kpa": 300}]
    return files.check(Job, {
        "format": "kobrix-job", "version": 1, "name": "drawn", "vehicle": found["vehicle"], "proving": demo_document()["proving"],
        "as_found": {"name": "as found", "systems": found["systems"]}, "plans": [{"name": "plan A", "systems": plan["systems"]}],
    })  # fmt: skip


def pages(job: Job) -> dict[str, Callable[[], object]]:
    """All that is shown or printed of a job."""
    stored = StoredJob(job, 0, RECORDS)
    return {
        "size": lambda: size_view(job, 0), "verdicts": lambda: verdicts_view(job, 0), "card": lambda: card(job),
        "compare": lambda: compare(job, 0), "fit": lambda: fit_of(job, 0, "plan A", DAY), "build": lambda: build_of(stored, "plan A"),
        "bleed": lambda: bleed_of(stored, "plan A"), "bed": lambda: bed_of(stored, "plan A"), "prove": lambda: prove_of(stored),
        "dossier": lambda: dossier_of(stored, "plan A", DAY), "to lend": lambda: lent_copy(job, "plan A", DAY),
        "often asked": lambda: often_asked(job, "plan A"), "routes": lambda: routes_of(job),
    }  # fmt: skip


class Drawn(unittest.TestCase):
    def test_every_page_answers_or_says_why_not_and_no_number_is_endless(self) -> None:
        chance = random.Random(8)
        bases = [json.loads(p.read_text(encoding="utf-8")) for p in SETUPS]
        demo = demo_document()
        bases += [{"vehicle": demo["vehicle"], "systems": s["systems"]} for s in (demo["as_found"], *demo["plans"])]
        whole = 0
        for _ in range(8):
            try:
                job = drawn(bases, chance)
                size_view(job, 0)
            except KobrixError as refused:  # an entry that cannot be, such as more friction than shoes bear
                self.assertTrue(str(refused))
                continue
            for name, page in pages(job).items():
                with self.subTest(page=name):
                    json.dumps(page(), allow_nan=False, default=vars)
            whole += 1
        self.assertGreater(whole, 4)


if __name__ == "__main__":
    unittest.main()

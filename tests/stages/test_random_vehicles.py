"""Shipped vehicles with numbers changed at random, through every stage of the work: each page has its shape, or is refused in words."""

import json
import random
import unittest
from datetime import date
from math import isfinite
from typing import Any

from kobrix.api.dossier import dossier_of
from kobrix.core.errors import KobrixError
from kobrix.demo import SETUPS
from kobrix.exports.dossier import as_pdf
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.stages.bed.service import bed_of
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.bleed.service import bleed_of
from kobrix.stages.bleed.shapes import BleedView
from kobrix.stages.build.service import build_of
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import Standing, StoredJob
from kobrix.stages.fit.service import fit_of
from kobrix.stages.fit.shapes import FitView
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView
from kobrix.stages.registry import STAGES

from tests.cases import conforms
from tests.evaluate.test_random_vehicles import shaken, with_extras

TODAY = date(2026, 5, 7)


def vehicles(seed: int, each: int) -> list[Job]:
    """`each` jobs of every shipped vehicle, its numbers shaken in the vehicle as found and in its plan; what cannot be a file is left out."""
    draw, jobs = random.Random(seed), []
    for path in SETUPS:
        for _ in range(each):
            document = json.loads(path.read_bytes())
            shaken(document, draw)
            with_extras(document, draw)
            plan = json.loads(json.dumps(document))
            shaken(plan, draw)
            try:
                setup, other = (files.read_file(d) for d in (document, plan))
                assert isinstance(setup, Setup)
                assert isinstance(other, Setup)
                whole = files.as_job(setup).model_dump(exclude_unset=True)
                whole["plans"] = [{"name": "plan A", "systems": other.model_dump(exclude_unset=True)["systems"]}]
                jobs.append(files.check(Job, whole))
            except KobrixError:
                continue
    return jobs


def numbers(value: Any) -> list[float]:
    """Every number in an answer."""
    if isinstance(value, dict | list | tuple):
        return [n for v in (value.values() if isinstance(value, dict) else value) for n in numbers(v)]
    return [value] if isinstance(value, float) else []


class Work(unittest.TestCase):
    def setUp(self) -> None:
        self.jobs = vehicles(77, 4)
        self.assertGreater(len(self.jobs), 6)

    def every(self, shape: Any, view: Any) -> None:
        """Each setup of each vehicle has the page that `view` makes of it."""
        for job in self.jobs:
            for name in job.names:
                with self.subTest(job=job.name, setup=name):
                    told = view(StoredJob(job, 3), name)
                    conforms(shape, told)
                    self.assertTrue(all(map(isfinite, numbers(told))))

    def test_fit(self) -> None:
        self.every(FitView, lambda stored, name: fit_of(stored.job, 3, name, TODAY))

    def test_build(self) -> None:
        self.every(BuildView, build_of)

    def test_bleed(self) -> None:
        self.every(BleedView, bleed_of)

    def test_bed(self) -> None:
        self.every(BedView, bed_of)

    def test_prove(self) -> None:
        self.every(ProveView, lambda stored, _: prove_of(stored))

    def test_the_strip_tells_how_far_each_stage_is(self) -> None:
        for job in self.jobs:
            for stage in (s for s in STAGES if s.standing is not None):
                with self.subTest(job=job.name, stage=stage.title):
                    assert stage.standing is not None
                    conforms(Standing, stage.standing(StoredJob(job, 3)))

    def test_the_dossier_is_one_page(self) -> None:
        for job in self.jobs:
            with self.subTest(job=job.name):
                self.assertTrue(as_pdf(dossier_of(StoredJob(job, 3), "plan A", TODAY)).startswith(b"%PDF"))


if __name__ == "__main__":
    unittest.main()

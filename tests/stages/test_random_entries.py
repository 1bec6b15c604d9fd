"""Every page of the work with entries and records drawn at random, their least and most too, on every layout and invented vehicle."""

import json
import random
import types
import unittest
from collections import Counter
from datetime import date
from typing import Annotated, Any, Literal, Union, get_args, get_origin, get_type_hints

from kobrix.api.dossier import dossier_of
from kobrix.core.errors import KobrixError
from kobrix.fileformat import files
from kobrix.fileformat.base import Part
from kobrix.fileformat.bedding import Bedding
from kobrix.fileformat.bleeding import Bleeding
from kobrix.fileformat.building import Building
from kobrix.fileformat.fields import Quantity
from kobrix.fileformat.fit import Fitting
from kobrix.fileformat.job import Job
from kobrix.fileformat.proving import Proving, StopSet
from kobrix.fileformat.records import BODIES
from kobrix.fileformat.tables import table
from kobrix.stages.bed.service import bed_of
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.bleed.service import bleed_of
from kobrix.stages.bleed.shapes import BleedView
from kobrix.stages.build.service import build_of
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.service import fit_of
from kobrix.stages.fit.shapes import FitView
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView
from kobrix.store.records import Record

from tests.cases import conforms, every_layout

TODAY = date(2026, 5, 7)
SETS = ("one", "two", "three")
KINDS = [*(k for k in BODIES if k != "struck"), *["stop"] * 8, *["push"] * 4, "hold"]


class Drawn:
    """Entries of the file's own models at random, what they name taken from a job."""

    def __init__(self, chance: random.Random, job: Job) -> None:
        self.chance = chance
        steps = [s["key"] for day in build_of(StoredJob(job, 1), job.names[-1])["days"] for s in day["steps"]]
        stations = [s.name for system in job.as_found.systems for s in system.stations]
        fittings, build = table("fittings")["families"], table("build-steps")
        self.words: dict[str, list[str]] = {
            "setup": job.names, "system": [s.name for s in job.as_found.systems], "set": list(SETS), "step": steps, "before": steps,
            "pads": stations, "joints": [j["key"] for j in fit_of(job, 1, job.names[-1], TODAY)["joints"]],
            "family": [row["family"] for row in fittings], "role": [role for row in fittings for role in row["roles"]],
            "thread": [row["thread"] for family in fittings for row in family["threads"]], "kind": build["kinds"],
            "row": [row["id"] for row in build["rows"]], "plugged": ["front", "rear", "circuit", "circuit_1"],
        }  # fmt: skip
        self.words["pressed"] = self.words["system"]

    def number(self, own: Quantity) -> float:
        """The least, the most, or between: as small as a thousandth as often as large."""
        least, most = own.least, own.most
        if own.above:
            least += 1e-3 * (most - least)
        small = max(least, 1e-3)
        between = small * (most / small) ** self.chance.random()
        values: list[float] = [least, most, self.chance.uniform(least, most), *[between] * 3]
        return self.chance.choice(values)

    def valid(self, model: type[Part]) -> Any:
        """What a file takes of the `model`; None where forty draws were refused."""
        for _ in range(40):
            try:
                return files.check(model, self.part(model))
            except KobrixError:
                continue
        return None

    def part(self, model: type[Part]) -> dict[str, Any]:
        """A part by its fields, some left out."""
        hints = get_type_hints(model, include_extras=True)
        known = [n for n, f in model.model_fields.items() if f.is_required() or self.chance.random() < 0.5]
        return {n: value for n in known if (value := self.value(hints[n], n)) is not None}

    def value(self, kind: Any, key: str, limits: tuple[Any, ...] = ()) -> Any:
        """A value of a declared `kind`, under a `key`."""
        origin, parts = get_origin(kind), get_args(kind)
        if origin is Annotated:
            own = next((m for m in parts[1:] if isinstance(m, Quantity)), None)
            return self.value(parts[0], key, parts[1:]) if own is None else self.number(own)
        if origin in (Union, types.UnionType):
            return self.value(next(p for p in parts if p is not type(None)), key, limits)
        if origin is Literal:
            return self.chance.choice(parts)
        if origin is list:
            return [self.value(parts[0], key) for _ in range(self.chance.randint(2, 4))]
        if origin is tuple:
            return [self.value(p, key) for p in parts]
        if origin is dict:
            return {self.value(parts[0], key): self.value(parts[1], f"{key}'s") for _ in range(self.chance.randint(1, 3))}
        if isinstance(kind, type) and issubclass(kind, Part):
            return self.part(kind)
        if kind is bool:
            return self.chance.random() < 0.5
        if kind in (int, float):
            return self._plain(kind, limits)
        return self.chance.choice(self.words.get(key) or ["abcdefgh-0001", "a word"])

    def _plain(self, kind: type[int] | type[float], limits: tuple[Any, ...]) -> float:
        known = [m for field in limits for m in getattr(field, "metadata", [])]
        least = next((m.ge for m in known if hasattr(m, "ge")), 0)
        most = next((m.le for m in known if hasattr(m, "le")), least + 9)
        value = self.chance.choice([least, self.chance.uniform(least, most), self.chance.uniform(max(least, 0), min(most, 10))])
        return kind(value)


class Entries(unittest.TestCase):
    def with_work(self, job: Job, drawn: Drawn) -> StoredJob:
        """The job with entries of every stage in its last setup, sets of stops, and a dozen records."""
        document = job.model_dump(exclude_none=True)
        plan = document["plans"][-1] if document.get("plans") else document["as_found"]
        for name, model in (("fit", Fitting), ("build", Building), ("bleed", Bleeding), ("bed", Bedding)):
            plan[name] = drawn.valid(model).model_dump(exclude_none=True)
        document["proving"] = drawn.valid(Proving).model_dump(exclude_none=True, exclude={"sets"})
        document["proving"]["sets"] = [drawn.part(StopSet) | {"name": n} for n in SETS]
        records = []
        for n in range(12):
            kind = drawn.chance.choice(KINDS)
            body = drawn.valid(BODIES[kind])
            if body is not None:
                kept = body.model_dump(exclude_none=True, exclude_unset=True)
                records.append(
                    Record(n, f"key-{n:08d}", kind, "2026-05-01T10:00:00Z", kept, drawn.chance.choice([None, None, None, "why"]))
                )
        return StoredJob(files.check(Job, document), 3, tuple(records))

    def test_no_entry_and_no_record_shuts_a_page(self) -> None:
        chance, seen = random.Random(5), Counter[str]()
        for job in every_layout():
            try:
                drawn = Drawn(chance, job)
            except KobrixError:
                continue  # a vehicle that cannot be, refused in words elsewhere
            stored, name = self.with_work(job, drawn), job.names[-1]
            seen.update(r.kind for r in stored.records)
            for shape, view in (
                (FitView, lambda s=stored, n=name: fit_of(s.job, 3, n, TODAY)), (BuildView, lambda s=stored, n=name: build_of(s, n)),
                (BleedView, lambda s=stored, n=name: bleed_of(s, n)), (BedView, lambda s=stored, n=name: bed_of(s, n)),
                (ProveView, lambda s=stored: prove_of(s)),
            ):  # fmt: skip
                with self.subTest(job=job.name, page=shape.__name__):
                    told = view()
                    conforms(shape, told)
                    json.dumps(told, allow_nan=False)
            dossier_of(stored, name, TODAY)
        self.assertGreater(len(seen), 8)


if __name__ == "__main__":
    unittest.main()

"""What the machine takes for what the stages ask beside the force line: chances, and the pages of the work itself."""

import random
from collections.abc import Iterator
from datetime import date
from functools import partial

from kobrix.api.dossier import dossier_of
from kobrix.core.fit.donors import Donor, donor_rank
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.evaluate.uncertainty import said_of
from kobrix.evaluate.verdicts import tried
from kobrix.exports.dossier import as_pdf
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.tables import table
from kobrix.stages.bed.service import bed_of
from kobrix.stages.bleed.service import bleed_of
from kobrix.stages.build.service import build_of
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.service import fit_of
from kobrix.stages.fit.yard import yard_of
from kobrix.stages.prove.service import prove_of
from kobrix.store.records import Record

from tests.bench_lines import line, timed
from tests.cases import demo_job, every_layout


def vehicles() -> Iterator[Job]:
    """Every invented vehicle that is complete."""
    for job in every_layout():
        if answer_of(ByContent(job.setup(job.names[-1]))).solved is not None:
            yield job


def chances() -> None:
    """All chances of a setup and what would settle them, after its nominal line is there."""
    for job in vehicles():
        name = job.names[min(1, len(job.names) - 1)]
        known, found = ByContent(job.setup(name)), ByContent(job.setup(AS_FOUND))
        wanted = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names])
        entered = said_of(job, name)

        def once(
            known: object = known, found: object = found, wanted: float | None = wanted, entered: object = entered
        ) -> object:
            tried.cache_clear()
            return tried(known, found, wanted, entered)

        line(f"all chances: {job.name[:34]}, {name}", timed(once, 15), "wanted: 150 or less")


def pages() -> None:
    """The demo job's pages of the work, each as after a change."""
    job = demo_job()
    records = tuple(Record(n, r.key, r.kind, r.made_at, r.body) for n, r in enumerate(job.records))
    stored = StoredJob(job, 0, records)
    for title, work in (
        ("Fit", partial(fit_of, job, 0, "plan A", date(2026, 5, 7))), ("Build", partial(build_of, stored, "plan A")),
        ("Bleed", partial(bleed_of, stored, "plan A")), ("Bed", partial(bed_of, stored, "plan A")), ("Prove", partial(prove_of, stored)),
        ("a dossier as PDF", lambda: as_pdf(dossier_of(stored, "plan A", date(2026, 5, 7)))),
    ):  # fmt: skip
        line(f"{title}, its answer", timed(work, 20), "")
    counter = iter(range(10**6))
    line(
        "the yard's bands, limits moved each time",
        timed(lambda: yard_of(job, "plan A", {"effort_n": f"{400 + next(counter)} N"}), 4),
        "",
    )


def donors() -> None:
    """Ten thousand library parts ranked."""
    draw = random.Random(1)
    needs = {
        "diameter_mm": 280.0,
        "thickness_mm": 22.0,
        "hat_offset_mm": 26.6,
        "hub_bore_mm": 63.4,
        "holes": 4.0,
        "bolt_circle_mm": 108.0,
    }
    parts = [
        Donor(f"part {n}", {k: v + draw.gauss(0.0, 2.0) if k != "holes" else draw.choice((4.0, 5.0)) for k, v in needs.items()}, draw.uniform(10, 90))
        for n in range(10_000)
    ]  # fmt: skip
    rules = table("donor-rules")
    line(
        "10,000 library parts ranked", timed(lambda: donor_rank(rules, "rotor", dict(needs), {}, parts), 5), "wanted: 200 or less"
    )


def main() -> None:
    """All of them."""
    chances()
    pages()
    donors()

"""A copy of a setup to lend: gathered from Size and Measure."""

from datetime import date

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.api.figures import figures_of, moment_of
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.exports.lent import Entry, Figure, Lent, Said, Step, as_html
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.stages.common import ERRORS, Database, Route, stored_job
from kobrix.stages.size.service import verdicts_view, working_at

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["jobs"], responses=ERRORS)


def _called(step: str, setup: Setup) -> str:
    """A step of the working by what it is of: the control is left out where there is only one."""
    parts = step.split(".")
    named = parts[1:] if len(setup.systems) == 1 and parts[0] == setup.systems[0].name and len(parts) > 1 else parts
    return ", ".join(named).replace("_", " ")


def lent_copy(job: Job, name: str, today: date) -> Lent:
    """What is lent of the setup by `name`. Raises NotFound."""
    setup = job.setup(name)
    plan = moment_of(job, name)
    steps = [] if plan is None else working_at(setup, 0, plan["pedal_force_n"], None)
    judged = next((v for v in verdicts_view(job, 0)["setups"] if v["key"] == name), None)
    findings = [] if judged is None else judged["findings"]
    entries = [
        Entry(section["title"], e["label"], e["text"].replace("_", " "), e["state"].replace("_", " "))
        for section in measure_sheet(job, name)["sections"] for group in section["groups"] for e in group["entries"] if e["text"]
    ]  # fmt: skip
    return Lent(
        job.name, name, today.isoformat(), tuple(Figure(f.words, f.found, f.plan) for f in figures_of(job, name)),
        tuple(Step(_called(s["id"], setup), s["formula"], f"{s['numbers']} = {s['value']:.5g} {s['unit']}".strip(), s["source"]) for s in steps),
        tuple(
            Said(f["level"], f["sentence"], f["reason"], "" if f["chance"] is None else f"{100 * f['chance']:.0f} of 100 plausible vehicles")
            for f in findings
        ),
        tuple(entries),
    )  # fmt: skip


@router.get("/{job_id}/lend.html", response_class=Response)
def lend(job_id: int, path: Database, setup: str | None = None) -> Response:
    """A setup of a job as one file to read and to remark on, without a server."""
    job = stored_job(path, job_id).job
    name = setup if setup is not None else job.names[min(1, len(job.names) - 1)]
    html = as_html(lent_copy(job, name, date.today()))
    return Response(
        html, media_type="text/html; charset=utf-8", headers={"Content-Disposition": 'attachment; filename="to-lend.html"'}
    )

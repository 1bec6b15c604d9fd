"""A copy of a setup to lend: gathered from Size and Measure."""

from collections.abc import Mapping
from datetime import date

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.shapes import Moment
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.exports.lent import Entry, Figure, Lent, Said, Step, as_html
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.stages.common import ERRORS, Database, Route, stored_job
from kobrix.stages.size.service import moment_at, verdicts_view, working_at

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["jobs"], responses=ERRORS)


def _moment(job: Job, name: str, wanted: float | None) -> Moment | None:
    setup = job.setup(name)
    if wanted is None or answer_of(ByContent(setup)).solved is None:
        return None
    moment = moment_at(setup, 0, None, wanted)
    return moment if moment["decel_g"] > 0 else None


def _travel(moment: Moment) -> str:
    known = [t for s in moment["systems"].values() if (t := s.get("pedal_travel_mm")) is not None]
    return f"{max(known):.0f} mm" if known else "not known"


def _pressures(moment: Moment, axle_at: Mapping[str, str], axle: str) -> str:
    known = [
        own["pressure_kpa"]
        for system in moment["systems"].values()
        for name, own in system["stations"].items()
        if axle_at.get(name) == axle
    ]
    return f"{max(known) / 1000:.2f} MPa" if known else "none"


def _figures(job: Job, name: str, wanted: float | None) -> tuple[Figure, ...]:
    found, plan = _moment(job, AS_FOUND, wanted), _moment(job, name, wanted)
    if plan is None or wanted is None:
        return ()
    axle_at = {s.name: s.axle for system in job.setup(name).systems for s in system.stations}
    was_at = {s.name: s.axle for system in job.setup(AS_FOUND).systems for s in system.stations}

    def lock(setup: str) -> str:
        solved = answer_of(ByContent(job.setup(setup))).solved
        least = float("inf") if solved is None else float(solved.main.lock_decel.min())
        return "nothing locks" if least == float("inf") else f"{least:.2f} g"

    def share(moment: Moment) -> str:
        own = moment["front_brake_share"]
        return "not known" if own is None else f"{100 * own:.0f} %"

    unknown = "not known"
    return (
        Figure(f"push for {wanted:.2f} g", unknown if found is None else f"{found['pedal_force_n']:.0f} N", f"{plan['pedal_force_n']:.0f} N"),
        Figure("pedal travel there", unknown if found is None else _travel(found), _travel(plan)),
        *(
            Figure(f"line pressure {axle}, there", unknown if found is None else _pressures(found, was_at, axle), _pressures(plan, axle_at, axle))
            for axle in ("front", "rear") if axle in axle_at.values()
        ),
        Figure("front share of the brake force", unknown if found is None else share(found), share(plan)),
        Figure("first lock", lock(AS_FOUND), lock(name)),
    )  # fmt: skip


def _called(step: str, setup: Setup) -> str:
    """A step of the working by what it is of: the control is left out where there is only one."""
    parts = step.split(".")
    named = parts[1:] if len(setup.systems) == 1 and parts[0] == setup.systems[0].name and len(parts) > 1 else parts
    return ", ".join(named).replace("_", " ")


def lent_copy(job: Job, name: str, today: date) -> Lent:
    """What is lent of the setup by `name`. Raises NotFound."""
    setup = job.setup(name)
    wanted = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names])
    plan = _moment(job, name, wanted)
    steps = [] if plan is None else working_at(setup, 0, plan["pedal_force_n"], None)
    judged = next((v for v in verdicts_view(job, 0)["setups"] if v["key"] == name), None)
    findings = [] if judged is None else judged["findings"]
    entries = [
        Entry(section["title"], e["label"], e["text"].replace("_", " "), e["state"].replace("_", " "))
        for section in measure_sheet(job, name)["sections"] for group in section["groups"] for e in group["entries"] if e["text"]
    ]  # fmt: skip
    return Lent(
        job.name, name, today.isoformat(), _figures(job, name, wanted),
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

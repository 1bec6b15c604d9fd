"""Prove's door: the page, and the stops as a table."""

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.exports.tables import as_csv
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView

router = APIRouter(route_class=Route, prefix="/api", tags=["prove"], responses=ERRORS)


@router.get("/jobs/{job_id}/prove", response_model=ProveView)
def job_prove(job_id: int, path: Database) -> Response:
    """Prove of a job."""
    return as_json(prove_of(stored_job(path, job_id)))


@router.get("/jobs/{job_id}/stops.csv", response_class=Response)
def stops_csv(job_id: int, path: Database) -> Response:
    """Every stop of a job as CSV."""
    view = prove_of(stored_job(path, job_id))
    head = [
        "number",
        "set",
        "setup",
        "made at",
        "speed km/h",
        "distance m",
        "corrected m",
        "deceleration g",
        "locked",
        "push",
        "direction",
        "not counted",
    ]
    rows = [
        [s["number"], own["name"], own["setup"], s["made_at"], s["speed_kmh"], s["distance_m"], s["corrected_m"], s["decel_g"], s["locked"], s["push"], s["direction"], s["left_out"]]
        for own in view["sets"] for s in own["stops"]
    ]  # fmt: skip
    return Response(
        as_csv(head, rows),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="stops.csv"'},
    )

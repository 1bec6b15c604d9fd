"""Fit's door: the page, what is in the hand, and the parts list as a table."""

from datetime import date
from typing import Literal

from fastapi import APIRouter
from fastapi.responses import Response

from kobrix.core.errors import BadEntry, BadPlace
from kobrix.exports.drawings import as_dxf, as_pdf, as_svg
from kobrix.exports.tables import as_csv
from kobrix.exports.try_card import card_pdf
from kobrix.fileformat.library import COLUMNS, parts_of
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job
from kobrix.stages.fit.card import card_html
from kobrix.stages.fit.donors import donors_of, routes_of, sizes_of
from kobrix.stages.fit.service import caliper_card, chosen, fit_of, in_the_hand, plate_drawing, shown
from kobrix.stages.fit.shapes import FitView, HandIn, HandOut
from kobrix.stages.fit.shapes_elsewhere import DonorsView, LibraryIn, LibraryOut, RoutesView, YardIn, YardPart, YardView
from kobrix.stages.fit.yard import in_the_yard, yard_of
from kobrix.store import library
from kobrix.store.connection import open_db

router = APIRouter(route_class=Route, prefix="/api", tags=["fit"], responses=ERRORS)


@router.get("/jobs/{job_id}/fit", response_model=FitView)
def job_fit(job_id: int, path: Database, setup: str | None = None) -> Response:
    """Fit of one setup of a job; of its first plan where none is named."""
    return as_json(shown(stored_job(path, job_id), setup))


@router.get("/jobs/{job_id}/parts.csv", response_class=Response)
def parts_csv(job_id: int, path: Database, setup: str | None = None) -> Response:
    """The parts list of one setup as CSV."""
    job = stored_job(path, job_id).job
    view = fit_of(job, 0, chosen(job, setup), date.today())["parts"]
    head = ["part", "count", "here", "ordered", "missing", "price", "cost", "source", "shop"]
    rows = [
        [r["part"], r["count"], r["have"], r["ordered"], r["missing"], r["price"], r["cost"], r["source"], r["shop"]]
        for r in view["rows"]
    ]
    return Response(
        as_csv(head, rows),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="parts.csv"'},
    )


@router.post("/fitting", response_model=HandOut)
def fitting_in_the_hand(asked: HandIn) -> Response:
    """What a fitting in the hand may be, from what was measured of it."""
    try:
        return as_json(in_the_hand(asked))
    except BadPlace as refused:
        raise BadEntry(refused.place.rpartition(".")[2], "this", "a measured fitting", refused.reason) from None


@router.post("/jobs/{job_id}/yard", response_model=YardView)
def yard_bands(job_id: int, asked: YardIn, path: Database) -> Response:
    """What a part must be so that every limit holds."""
    return as_json(yard_of(stored_job(path, job_id).job, asked.setup, asked.limits))


@router.post("/jobs/{job_id}/yard/part", response_model=YardPart)
def yard_part(job_id: int, asked: YardIn, path: Database) -> Response:
    """What to do with the part in the hand."""
    return as_json(in_the_yard(stored_job(path, job_id).job, asked))


@router.get("/jobs/{job_id}/yard.html", response_class=Response)
def yard_card(job_id: int, path: Database, setup: str | None = None) -> Response:
    """The yard card as one file that needs no server."""
    job = stored_job(path, job_id).job
    html = card_html(job.name, yard_of(job, chosen(job, setup), {}))
    return Response(
        html, media_type="text/html; charset=utf-8", headers={"Content-Disposition": 'attachment; filename="yard-card.html"'}
    )


@router.get("/jobs/{job_id}/try-card/{axle}.pdf", response_class=Response)
def try_card(
    job_id: int, axle: Literal["front", "rear"], path: Database, setup: str | None = None, paper: Literal["A4", "Letter"] = "A4"
) -> Response:
    """The caliper's outline at full size, on a card to try inside a wheel."""
    job = stored_job(path, job_id).job
    content = card_pdf(caliper_card(job, chosen(job, setup), axle), paper)
    return Response(
        content, media_type="application/pdf", headers={"Content-Disposition": f'attachment; filename="caliper-{axle}.pdf"'}
    )


@router.get("/jobs/{job_id}/plates/{at}.{kind}", response_class=Response)
def plate_file(
    job_id: int,
    at: int,
    kind: Literal["dxf", "svg", "pdf"],
    path: Database,
    setup: str | None = None,
    paper: Literal["A4", "Letter"] = "A4",
) -> Response:
    """A plate at full size: for a cutter (DXF), as a drawing (SVG), or to be printed (PDF, on as many sheets as it takes)."""
    job = stored_job(path, job_id).job
    drawing = plate_drawing(job, chosen(job, setup), at)
    content: str | bytes = as_pdf(drawing, paper) if kind == "pdf" else as_dxf(drawing) if kind == "dxf" else as_svg(drawing)
    media = {"dxf": "image/vnd.dxf", "svg": "image/svg+xml", "pdf": "application/pdf"}[kind]
    return Response(content, media_type=media, headers={"Content-Disposition": f'attachment; filename="plate-{at + 1}.{kind}"'})


@router.get("/jobs/{job_id}/donors", response_model=DonorsView)
def job_donors(job_id: int, path: Database, axle: Literal["front", "rear"] = "rear", setup: str | None = None) -> Response:
    """The library ranked for what a setup needs at an axle."""
    job = stored_job(path, job_id).job
    with open_db(path) as db:
        parts = library.every(db)
    return as_json(donors_of(job, chosen(job, setup), axle, parts))


@router.get("/jobs/{job_id}/routes", response_model=RoutesView)
def job_routes(job_id: int, path: Database) -> Response:
    """Every setup of a job side by side, as a route."""
    return as_json(routes_of(stored_job(path, job_id).job))


@router.post("/library", response_model=LibraryOut)
def add_to_library(asked: LibraryIn, path: Database) -> Response:
    """Look at a table of parts, or take it in; one wrong cell and nothing is taken in."""
    parts = parts_of(asked.text)
    added = 0
    if asked.keep:
        with open_db(path) as db:
            added = library.add(db, parts)
    told: LibraryOut = {"parts": len(parts), "added": added, "first": [f"{p.name}: {sizes_of(p, p.part)}" for p in parts[:3]]}
    return as_json(told)


@router.get("/library.csv", response_class=Response)
def library_csv(path: Database) -> Response:
    """The library as a table that can be taken in again."""
    with open_db(path) as db:
        parts = [p for _, p in library.every(db)]
    rows = [[getattr(p, c, None) for c in COLUMNS] for p in parts]
    return Response(
        as_csv(COLUMNS, rows),
        media_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": 'attachment; filename="library.csv"'},
    )


@router.delete("/library/{part_id}", status_code=204, response_class=Response)
def remove_from_library(part_id: int, path: Database) -> Response:
    """Take a part out of the library."""
    with open_db(path) as db:
        library.remove(db, part_id)
    return Response(status_code=204)

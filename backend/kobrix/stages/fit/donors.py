"""Parts from elsewhere, ranked by how little must be made to fit them, and the plans side by side as routes."""

from functools import lru_cache
from typing import Any

from kobrix.core.errors import BadPlace, KobrixError
from kobrix.core.figures import Level
from kobrix.core.fit.donors import Make, Ranked
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.evaluate.rotor_heat import row_of_stops
from kobrix.evaluate.solve import Answer, ByContent, answer_of, at_stop, wanted_stop
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import Route
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.library import SIZES, Donors, LibraryPart, RotorNeeds
from kobrix.fileformat.stations import DiscBrake
from kobrix.stages.fit.service import fit_of
from kobrix.stages.fit.shapes_elsewhere import DonorField, DonorGroup, DonorRow, DonorsView, RoutesView, RouteView
from kobrix.stages.fit.yard import Yard, default_limits

SHOWN = 60  # parts of a kind on the page; the table as CSV has all
LABELS = {
    "diameter_mm": "diameter", "thickness_mm": "thickness", "hat_offset_mm": "hat offset", "hub_bore_mm": "hub bore", "bolt_circle_mm": "bolt circle",
    "holes": "holes", "greatest_diameter_mm": "largest that the wheel takes", "rotor_diameter_mm": "rotor it takes, diameter",
    "rotor_thickness_mm": "rotor it takes, thickness", "bolt_spacing_mm": "mounting bolts apart", "lateral_mm": "lugs to disc's middle",
    "side_area_cm2": "pistons of one side", "bolt_thread": "mounting bolts", "port_thread": "port",
}  # fmt: skip
_MAKE = {
    "bracket_move": "bracket moved {v} mm", "too_thick": "{v} mm too thick for the caliper", "too_thin": "{v} mm too thin", "hat_shim": "{v} mm shim under the hat",
    "caliper_shim": "caliper shimmed {v} mm", "hub_ring": "hub ring {v} mm", "bore_open": "hub bore opened {v} mm", "redrill": "drilled anew",
    "too_big": "{v} mm too big for the wheel", "pad_backing": "{v} mm of backing on the pads", "slot_too_narrow": "slot {v} mm too narrow",
    "adapter_plate": "adapter plate", "bracket_mill": "bracket milled {v} mm", "balance_changes": "balance changes", "bolt_change": "other bolts",
    "port_adapter": "port adapter",
}  # fmt: skip
_LEVEL: dict[str, Level] = {"impossible": "danger", "irreversible": "caution", "made": "note", "shim": "note", "note": "note"}


def _made(row: Make) -> str:
    value = row["value_mm"]
    return _MAKE[row["code"]].format(v="" if value is None else f"{abs(value):.1f}").replace("  ", " ")


def _known(job: Job, name: str, axle: str) -> dict[str, dict[str, Any]]:
    """What the setup itself says of its disc: needs that are filled in until a person types another."""
    brake = next(
        (
            s.brake
            for system in job.setup(name).systems
            for s in system.stations
            if s.axle == axle and isinstance(s.brake, DiscBrake)
        ),
        None,
    )
    if brake is None:
        return {"rotor": {}, "caliper": {}}
    size = {"diameter_mm": brake.rotor_diameter_mm, "thickness_mm": brake.rotor_thickness_mm}
    return {
        "rotor": {k: v for k, v in size.items() if v is not None},
        "caliper": {f"rotor_{k}": v for k, v in size.items() if v is not None},
    }


def _field(key: str, typed: Any, stood_in: Any) -> DonorField:
    unit = "cm²" if key.endswith("_cm2") else "mm" if key.endswith("_mm") else ""
    value = typed if typed is not None else stood_in
    text = "" if value is None else f"{value:g} {unit}".strip() if isinstance(value, int | float) else str(value)
    return {"key": key, "label": LABELS[key], "unit": unit, "text": text, "from_setup": typed is None and stood_in is not None}


def sizes_of(part: LibraryPart, kind: str) -> str:
    """The sizes of a part in words."""
    said = [(LABELS[k], getattr(part, k, None)) for k in SIZES[kind]]
    return ", ".join(
        f"{label} {value:g}" if isinstance(value, int | float) else f"{label} {value}"
        for label, value in said
        if value is not None
    )


def _group(kind: str, needs: Any, known: dict[str, Any], library: list[tuple[int, LibraryPart]]) -> DonorGroup:
    keys = [*SIZES[kind], *(["greatest_diameter_mm"] if kind == "rotor" else [])]
    fields = [_field(k, getattr(needs, k, None), known.get(k)) for k in keys]
    asked = {
        k: v for k in keys if (v := getattr(needs, k, None) if getattr(needs, k, None) is not None else known.get(k)) is not None
    }
    own = [(n, p) for n, p in library if p.part == kind]
    group: DonorGroup = {"part": kind, "fields": fields, "rows": [], "count": len(own), "usable": 0, "refused": ""}
    if not own or not any(k in asked for k in SIZES[kind]):
        return group
    rows = [
        {
            "name": str(n),
            **({"price": p.price} if p.price is not None else {}),
            **{k: v for k in SIZES[kind] if (v := getattr(p, k, None)) is not None},
        }
        for n, p in own
    ]
    try:
        told = ask_fit.donors(Asked({"part": kind, "needs": asked, "parts": rows}))
    except BadPlace as refused:
        return group | {"refused": refused.reason}
    by_number = {str(n): (n, p) for n, p in own}
    group["usable"] = sum(row["usable"] for row in told["ranked"])
    group["rows"] = [_row(*by_number[row["name"]], row, kind) for row in told["ranked"][:SHOWN]]
    return group


def _row(number: int, part: LibraryPart, told: Ranked, kind: str) -> DonorRow:
    kinds = {row["class"] for row in told["make"]}
    worst: Level = next((_LEVEL[k] for k in ("impossible", "irreversible", "made", "shim", "note") if k in kinds), "good")
    return {
        "id": number, "name": part.name, "source": part.source or "", "price": part.price, "level": "note" if worst == "good" and told["unknown"] else worst,
        "usable": told["usable"], "make": [_made(row) for row in told["make"]], "unknown": [LABELS[k] for k in told["unknown"]], "sizes": sizes_of(part, kind),
    }  # fmt: skip


def donors_of(job: Job, name: str, axle: str, library: list[tuple[int, LibraryPart]]) -> DonorsView:
    """The library ranked for what a setup needs at an `axle`. Raises NotFound."""
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    needs = (plan.fit.donors or {}).get(axle) if plan.fit is not None else None  # type: ignore[call-overload]
    own, known = needs or Donors(), _known(job, name, axle)
    return {
        "setup": name, "axle": axle, "axles": sorted({s.axle for system in job.setup(name).systems for s in system.stations}),
        "groups": [_group("rotor", own.rotor or RotorNeeds(), known["rotor"], library), _group("caliper", own.caliper, known["caliper"], library)],
        "library": len(library),
    }  # fmt: skip


@lru_cache(maxsize=64)
def _chance(known: ByContent[Job], name: str) -> float | None:
    """The chance that every limit of the yard card holds; None where a setup is not complete."""
    job = known.part
    if answer_of(ByContent(job.setup(name))).solved is None:
        return None
    try:
        yard = Yard(job, name, default_limits(job, name))
    except KobrixError:
        return None
    return yard.chance(yard.document)[0]


def routes_of(job: Job) -> RoutesView:
    """Every setup of a job as a route: what it costs, what is cut for good, and what it buys. Common practice."""
    answers = {name: answer_of(ByContent(job.setup(name))) for name in job.names}
    wanted = wanted_stop(list(answers.values()))
    bare = job.model_copy(update={"records": [], "traces": [], "proving": None, "parts_list": [], "planned": None})
    rows: list[RouteView] = []
    for name in job.names:
        plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
        own = (plan.fit.route if plan.fit is not None else None) or Route()
        fit = fit_of(job, 0, name)
        push, share = at_stop(answers[name], wanted)
        rows.append({
            "setup": name, "kind": own.kind or "", "parts_price": fit["parts"]["cost"], "unpriced": fit["parts"]["unpriced"], "tools": own.tools or "",
            "tools_price": own.tools_price, "whole_price": fit["parts"]["cost"] + (own.tools_price or 0.0), "cuts": own.cuts or "", "evenings": own.evenings,
            "joints": sum(j["count"] for j in fit["joints"] if j["opened"]), "doubts": fit["doubts"], "push_n": push, "travel_share": share,
            "lock_g": _lock(answers[name]), "heat_c": _heat(answers[name]), "parking": fit["parking"]["kept"], "chance": _chance(ByContent(bare), name),
        })  # fmt: skip
    return {"wanted_g": wanted, "routes": rows}


def _lock(answer: Answer) -> float | None:
    value = None if answer.solved is None else float(answer.solved.main.lock_decel.min())
    return None if value is None or value == float("inf") else value


def _heat(answer: Answer) -> float | None:
    """The hottest rotor [°C] of the row of stops; None where no rotor's mass and cooling area are known."""
    peaks = [max(own["peaks_c"]) for own in row_of_stops(answer).values() if own["peaks_c"] is not None]
    return max(peaks, default=None)

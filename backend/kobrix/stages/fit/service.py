"""What Fit shows of a setup: will it go together, and what is missing."""

from datetime import date
from functools import lru_cache

from kobrix.evaluate.ask import fit as ask_fit
from kobrix.evaluate.line_places import Placed
from kobrix.evaluate.plan_changes import changes_of
from kobrix.evaluate.solve import ByContent
from kobrix.exports.drawings import PlateDrawing
from kobrix.exports.try_card import TryCard
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import Fitting, Joint, Tubing
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.quantities import read
from kobrix.stages.common import Standing, StoredJob
from kobrix.stages.fit import lines, words
from kobrix.stages.fit.cutlist import cutlist_of
from kobrix.stages.fit.parking import parking_view
from kobrix.stages.fit.parts import parts_list
from kobrix.stages.fit.plates import drawing_of, plate_view
from kobrix.stages.fit.section import hose_view, old_of, sections_of, try_card_of
from kobrix.stages.fit.shapes import Axle, Candidate, FitView, HandIn, HandOut, JointView

_NO_JOINT = Joint()


def _fitting(job: Job, name: str) -> Fitting:
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    return plan.fit or Fitting()


def _joints(fitting: Fitting, placed: list[Placed], here: set[str]) -> list[JointView]:
    """Every place of the map, then what a person added; numbered in this order."""
    kept = fitting.joints or {}
    found = []
    for n, place in enumerate(placed, 1):
        joint = kept.get(place.key, _NO_JOINT)
        found.append(lines.joint_view(n, place.key, joint, place, lines.plug_of(joint) in here))
    on_map = {p.key for p in placed}
    for key, joint in kept.items():
        if key not in on_map:
            found.append(lines.joint_view(len(found) + 1, key, joint, None, lines.plug_of(joint) in here))
    return found


def fit_of(job: Job, revision: int, name: str, today: date | None = None) -> FitView:
    """Fit of the setup by `name`. Raises NotFound."""
    setup = job.setup(name)
    changes, fitting = changes_of(job, name), _fitting(job, name)
    branches, placed = lines.map_of(setup, changes)
    parts = parts_list(job, name, setup, changes, placed, today)
    here = {row["part"] for row in parts["rows"] if row["count"] and row["missing"] == 0}
    joints = _joints(fitting, placed, here)
    sections = sections_of(setup, fitting.sections or {})
    if name != AS_FOUND:
        before = _fitting(job, AS_FOUND).sections or {}
        for section in sections:
            section["old"] = old_of(job.setup(AS_FOUND), before, section["axle"])
    hoses = [hose_view(section["axle"], section["title"], (fitting.hoses or {}).get(section["axle"])) for section in sections]
    bad = [
        *(j["level"] for j in joints),
        *(s["level"] for s in sections),
        *(h["level"] for h in hoses),
        *(h["heat_level"] for h in hoses),
    ]
    return {
        "page": "fit", "revision": revision, "setup": name, "options": list(lines.options()), "branches": branches, "joints": joints,
        "notes": lines.notes_of(setup), "parts": parts, "sections": sections, "hoses": hoses,
        "plates": [plate_view(n, p) for n, p in enumerate(fitting.plates or [])],
        "parking": parking_view(setup, changes, fitting.parking), "cutlist": cutlist_of(setup, fitting.tubing or Tubing()),
        "doubts": sum(level in ("danger", "caution") for level in bad),
    }  # fmt: skip


def shown(stored: StoredJob, name: str | None) -> FitView:
    """What Fit's page shows: of the setup by `name`, of the first plan where none is named."""
    return fit_of(stored.job, stored.revision, chosen(stored.job, name), date.today())


def chosen(job: Job, name: str | None) -> str:
    """The setup asked for; the first plan, or the one as found where there is none yet."""
    return name if name is not None and name in job.names else job.names[min(1, len(job.names) - 1)]


@lru_cache(maxsize=32)
def _standing(known: ByContent[Job]) -> Standing:
    job = known.part
    view = fit_of(job, 0, chosen(job, None))
    begun = any(p.fit is not None for p in (job.as_found, *job.plans)) or bool(job.parts_list)
    if not begun:
        return {"state": "empty", "words": "empty"}
    danger = sum(j["level"] == "danger" for j in view["joints"]) + sum(s["level"] == "danger" for s in view["sections"])
    missing = view["parts"]["missing"]
    if danger:
        return {"state": "doubt", "words": f"{danger} {'does' if danger == 1 else 'do'} not fit"}
    if missing:
        return {"state": "begun", "words": f"{missing} missing"}
    unknown = sum(j["level"] == "note" for j in view["joints"])
    if unknown:
        return {"state": "begun", "words": f"{unknown} to look at"}
    return {"state": "ready", "words": "all here"}


def plate_drawing(job: Job, name: str, at: int) -> PlateDrawing:
    """The plate at a place of the setup by `name`, to be drawn. Raises NotFound."""
    return drawing_of(_fitting(job, name).plates or [], at)


def caliper_card(job: Job, name: str, axle: Axle) -> TryCard:
    """The caliper of an axle of the setup by `name`, as a card to try in its wheel. Raises NotFound."""
    return try_card_of(job.setup(name), _fitting(job, name).sections or {}, axle)


def standing(stored: StoredJob) -> Standing:
    """How far Fit is."""
    return _standing(ByContent(stored.job))


def in_the_hand(asked: HandIn) -> HandOut:
    """What a fitting may be from what was measured of it. Raises BadEntry, BadPlace."""
    measured: dict[str, object] = {
        "gender": asked.gender,
        "over_crest_mm": read(asked.over_crest, "over_crest_mm", asked.preferred).text,
    }
    for key, name in (("pitch", "pitch_mm"), ("tpi", "tpi")):
        text = getattr(asked, key).strip()
        if text:
            measured[name] = read(text, name).text if name == "pitch_mm" else text
    if asked.seen:
        measured["seen"] = asked.seen
    if asked.tapered is not None:
        measured["tapered"] = asked.tapered
    told = ask_fit.in_hand(Asked(measured))
    found: list[Candidate] = [
        {"option": f"{r['family']} {r['role']}", "thread": r["thread"],
         "words": f"{words.FAMILY[r['family']]}, {r['thread']}: {words.role_of(r['family'], r['role'])['is']}"}
        for r in told["candidates"]
    ]  # fmt: skip
    return {"candidates": found, "tell_apart": [words.APART[a] for a in told["tell_apart"]]}

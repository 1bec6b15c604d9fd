"""What people ask, answered with their own vehicle's figures: bore, pin, booster, caliper, valve, and whether it may be driven half done."""

from collections.abc import Callable, Iterable

from fastapi import APIRouter
from fastapi.responses import Response
from typing_extensions import TypedDict

from kobrix.core.constants import bore_name
from kobrix.core.errors import KobrixError
from kobrix.core.figures import Level
from kobrix.core.rules.limits import TRAVEL, Band, effort_band
from kobrix.evaluate import changes
from kobrix.evaluate.changes import Change
from kobrix.evaluate.solve import Answer, ByContent, answer_of, at_stop, wanted_stop
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import si, value_of
from kobrix.stages.build.order import order_of
from kobrix.stages.common import ERRORS, Database, Route, as_json, stored_job
from kobrix.stages.size.service import verdicts_view

router = APIRouter(route_class=Route, prefix="/api/jobs", tags=["questions"], responses=ERRORS)

NEAR = 3  # sizes to either side that are told
_BLIND = "How far the pedal goes is not known yet: measure its room, the cylinder's stroke and the lines before you buy."


class Compared(TypedDict):
    """One size of several: what it asks of the foot at the same stop; `now`: it is fitted."""

    name: str
    push_n: float | None
    travel_share: float | None
    now: bool


class Asked(TypedDict):
    """A question that people ask, with its answer; `stage`: where it is settled."""

    id: str
    question: str
    answer: str
    why: str
    level: Level | None
    rows: list[Compared]
    stage: str


class OftenAsked(TypedDict):
    """The questions of one setup; `decel_g`: the stop that everything is compared at, null where it is not known yet."""

    setup: str
    decel_g: float | None
    needs: int
    answers: list[Asked]


class _Vehicle:
    """A setup, and what its pushes are at the stop wanted for all."""

    def __init__(self, job: Job, name: str, wanted: float | None) -> None:
        self.job, self.name, self.setup, self.wanted = job, name, job.setup(name), wanted
        self.system = self.setup.systems[0].name if len(self.setup.systems) > 1 else None
        control = self.setup.systems[0].control
        force = None if control.force_limit_n is None else si(control.force_limit_n, "force_limit_n")
        self.band: Band = effort_band(control.kind, force, self.setup.vehicle.kind)
        self.now = at_stop(answer_of(ByContent(self.setup)), wanted, self.system)
        self.control = {
            "car_pedal": "pedal",
            "motorcycle_foot": "foot pedal",
            "hand_lever": "lever",
            "aircraft_pedal": "toe pedal",
        }[control.kind]

    def with_(self, change: Change) -> tuple[float | None, float | None]:
        """Push and share of the room with a change made."""
        try:
            setup = changes.with_edits(self.setup, change.edits)
        except (KobrixError, ValueError):
            return None, None
        return at_stop(Answer(setup), self.wanted, self.system)

    def rows(self, made: Iterable[Change], own: str, key: Callable[[Change], float], present: float) -> list[Compared]:
        """Sizes to either side of the present one, in order, that present one among them."""
        every = sorted(((key(c), c) for c in made), key=lambda row: row[0])
        below, above = [r for r in every if r[0] < present], [r for r in every if r[0] > present]
        near = [*below[-NEAR:], *above[:NEAR]]
        found: list[tuple[float, Compared]] = [
            (size, {"name": c.name, "push_n": told[0], "travel_share": told[1], "now": False})
            for size, c in near
            for told in (self.with_(c),)
        ]
        found.append((present, {"name": own, "push_n": self.now[0], "travel_share": self.now[1], "now": True}))
        return [row for _, row in sorted(found, key=lambda row: row[0])]

    @property
    def blind(self) -> bool:
        """Whether the pedal's travel is not known: then a size is judged by the push alone, and that is said."""
        return self.now[0] is not None and self.now[1] is None

    def fits(self, row: Compared) -> bool:
        """Whether a size asks no more than is comfortable, of foot and room."""
        push, share = row["push_n"], row["travel_share"]
        return push is not None and self.band.low <= push <= self.band.good and (share is None or share <= TRAVEL.caution)


def _said(push: float | None, share: float | None) -> str:
    if push is None:
        return "the stop is not reached"
    return f"{push:.0f} N" + ("" if share is None else f" and {100 * share:.0f} % of the room")


def _bore(own: _Vehicle) -> Asked | None:
    cylinder = own.setup.systems[0].cylinder
    # Of two controls in series the one that presses harder counts: a size of one alone answers nothing.
    if cylinder.kind == "twin" or cylinder.bore_mm is None or own.setup.systems[0].second_control is not None:
        return None
    bore = si(cylinder.bore_mm, "bore_mm")
    sizes = {c.name: c for c in changes.bores(own.setup, own.system)}
    name = bore_name(bore) or f"{bore * 1e3:.4g} mm"
    rows = own.rows(sizes.values(), name, lambda c: si(c.name, "bore_mm"), bore)
    good = [r["name"] for r in rows if own.fits(r)]
    best = (
        f"By the push alone {', '.join(good) or 'none near it'}. {_BLIND}"
        if own.blind
        else f"{' or '.join(good)} keeps both in the comfortable range."
        if good
        else "No standard bore near it keeps push and travel both in the comfortable range: move the pin too."
    )
    return {
        "id": "bore", "question": f"Which bore for this {own.control}?", "answer": best, "level": "good" if not own.blind and any(r["now"] and own.fits(r) for r in rows) else "note",
        "why": "A smaller bore gives more pressure for the same push, and takes more travel.", "rows": rows, "stage": "match",
    }  # fmt: skip


def _softer(bore: Asked | None) -> Asked | None:
    if bore is None:
        return None
    at = next(n for n, r in enumerate(bore["rows"]) if r["now"])
    if at + 1 >= len(bore["rows"]):
        return None
    now, larger = bore["rows"][at], bore["rows"][at + 1]
    if now["push_n"] is None or larger["push_n"] is None:
        return None
    more = larger["push_n"] / now["push_n"] - 1
    less = None if now["travel_share"] is None or larger["travel_share"] is None else now["travel_share"] - larger["travel_share"]
    shorter = "" if less is None else f" and uses {100 * less:.0f} % less of the room"
    return {
        "id": "softer", "question": "Will a bigger bore feel softer?", "level": None, "rows": [], "stage": "size",
        "answer": f"No: {larger['name']} asks {100 * more:.0f} % more push{shorter}. It feels harder and shorter.",
        "why": "Air, old hoses and big calipers make a pedal soft, not a big bore.",
    }  # fmt: skip


def _pin(own: _Vehicle) -> Asked | None:
    control = own.setup.systems[0].control
    alone = own.setup.systems[0].second_control is None
    if not alone or control.linkage is not None or control.pivot_to_pin_mm is None or control.pivot_to_pad_mm is None:
        return None
    pin, pad = value_of(control.pivot_to_pin_mm, "pivot_to_pin_mm"), value_of(control.pivot_to_pad_mm, "pivot_to_pad_mm")

    def size(change: Change) -> float:
        return value_of(str(change.edits[0]["value"]), "pivot_to_pin_mm")

    rows = own.rows(changes.pins(own.setup, own.system), f"pin at {pin:g} mm", size, pin)
    good = [r["name"] for r in rows if own.fits(r)]
    told = (
        f"Comfortable: {', '.join(good)}." if good else "No place near it keeps push and travel both comfortable: another bore."
    )
    if own.blind:
        told = f"By the push alone {', '.join(good) or 'no place near it'}. {_BLIND}"
    return {
        "id": "pin", "question": "How far do I move the pin?", "level": None, "rows": rows, "stage": "size",
        "answer": f"Now {pad / pin:.2f} to 1. {told}",
        "why": "The cylinder's mounting moves by as much as the pin, the same way, or the rod goes crooked. Mind the metal left between an old and a new hole.",
    }  # fmt: skip


def _booster(own: _Vehicle) -> Asked | None:
    system = own.setup.systems[0]
    if system.control.kind != "car_pedal":
        return None
    question = "Do I still need the booster?" if system.booster is not None else "Do I need a booster?"
    if system.booster is None:
        push = own.now[0]
        enough = push is not None and push <= own.band.good
        return {
            "id": "booster", "question": question, "level": "good" if enough else "caution", "rows": [], "stage": "size",
            "answer": f"{'No' if enough else 'Think about it'}: without one {'' if push is None else 'it takes '}{_said(*own.now)}.",
            "why": f"Comfortable is up to {own.band.good:.0f} N; {own.band.danger:.0f} N is the most a leg is asked for.",
        }  # fmt: skip
    document = own.setup.model_dump(exclude_none=True, exclude_unset=True)
    document["systems"][0].pop("booster")
    bare = at_stop(Answer(Setup.model_validate(document)), own.wanted)
    needed = bare[0] is None or bare[0] > own.band.caution
    return {
        "id": "booster", "question": question, "level": "caution" if needed else "good", "rows": [], "stage": "size",
        "answer": f"{'Yes' if needed else 'Not for this stop'}: with it {_said(*own.now)}, without it {_said(*bare)}.",
        "why": "A booster that fails must leave a pedal that still stops: that is tried in Size under What if.",
    }  # fmt: skip


def _caliper(own: _Vehicle) -> Asked | None:
    share = own.now[1]
    if share is None:
        return None
    too_big = share > TRAVEL.caution
    return {
        "id": "caliper", "question": "Are the calipers too big for my cylinder?", "level": "caution" if too_big else "good", "rows": [], "stage": "size",
        "answer": f"{'They take a lot of fluid for it' if too_big else 'No'}: at the same stop the {own.control} uses {100 * share:.0f} % of its room.",
        "why": f"More piston area takes more fluid: a longer {own.control} for less push. More than {100 * TRAVEL.caution:.0f} % leaves little for hot fluid and worn pads.",
    }  # fmt: skip


def _valve(own: _Vehicle) -> Asked | None:
    axles = {s.axle for system in own.setup.systems for s in system.stations}
    if len(axles) < 2 or own.setup.vehicle.kind in ("motorcycle", "aircraft"):
        return None
    told = next((v for v in verdicts_view(own.job, 0)["setups"] if v["key"] == own.name), None)
    order = None if told is None else next((f for f in told["findings"] if f["rule"] == "lock_order"), None)
    if order is None:
        return None
    mend = order["mends"][0] if order["mends"] else None
    answer = order["sentence"] + (f" {mend['words']}" if mend is not None else "")
    return {
        "id": "valve", "question": "Will the rear lock first, and where do I set the valve?", "level": order["level"], "rows": [], "stage": "size",
        "answer": answer, "why": "Set it lower than the figure, drive, note which axle locks, and let Prove say the next setting. A rear that locks first spins the vehicle.",
    }  # fmt: skip


def _half_done(own: _Vehicle) -> Asked | None:
    if own.name == AS_FOUND:
        return None
    order = order_of(own.job, own.name)
    if order is None or len(order["groups"]) < 2:
        return None
    half = [s for s in order["states"] if 0 < len(s["done"]) < len(order["groups"])]
    never = [s for s in half if not s["may_drive"]]
    words = "; ".join(f"{' and '.join(s['done'])} done: {', '.join(s['dangers'])}" for s in never[:3])
    return {
        "id": "half_done", "question": "May I drive it half done?", "level": "caution" if never else "note", "rows": [], "stage": "build",
        "answer": (f"Not with {words}. " if never else "No half-done state brings a new danger; slowly, to the alignment shop. ") + f"Best order: {', then '.join(order['best'])}.",
        "why": "One side done and the other not is never driven.",
    }  # fmt: skip


def often_asked(job: Job, name: str) -> OftenAsked:
    """The questions of the setup by `name` of a `job`. Raises NotFound."""
    answers = {n: answer_of(ByContent(job.setup(n))) for n in job.names}
    needs = len(answers[name].needs.get("decel", []))
    wanted = wanted_stop(list(answers.values()))
    view: OftenAsked = {"setup": name, "decel_g": wanted, "needs": needs, "answers": []}
    if needs or wanted is None:
        return view
    own = _Vehicle(job, name, wanted)
    bore = _bore(own)
    told = [_booster(own), bore, _softer(bore), _pin(own), _caliper(own), _valve(own), _half_done(own)]
    view["answers"] = [t for t in told if t is not None]
    return view


@router.get("/{job_id}/often-asked", response_model=OftenAsked)
def job_questions(job_id: int, path: Database, setup: str | None = None) -> Response:
    """What people ask, answered for one setup of a job; for its first plan where none is named."""
    job = stored_job(path, job_id).job
    name = setup if setup is not None and setup in job.names else job.names[min(1, len(job.names) - 1)]
    return as_json(often_asked(job, name))

"""Whether two ends of a brake line seal, what happens if they do not, and what mends it; what fitting is in the hand."""

from dataclasses import dataclass
from typing import Any, Literal, NotRequired, TypedDict

from kobrix.core.figures import EPS
from kobrix.core.fit.threads import TUBE_WITHIN, Thread, thread_of

Fittings = dict[str, Any]  # the table of fittings as shipped
EndName = Literal["a", "b"]
Reason = Literal[
    "not_known", "open_port", "material_refused", "same_gender", "taper_with_straight", "male_too_big", "male_too_small", "pitch_differs",
    "washer_has_no_seat", "seat_differs", "washers_missing", "match",
]  # fmt: skip
CREST_FLAT, CREST_DEPTH = 0.15, 1.0825  # mm, × pitch: male crests below nominal; the ISO 68 thread's depth, two sides


@dataclass(frozen=True)
class End:
    """One end of a joint as it is known; None for what is not."""

    family: str | None
    role: str | None
    thread: Thread | None
    typed: str = ""  # the thread as it was written
    tube_mm: float | None = None
    material: str | None = None
    washers: int = 0
    washers_used: bool = False
    sealant: bool = False
    on: str | None = None


@dataclass(frozen=True)
class Measured:
    """A fitting in the hand: across its crests and its pitch [mm], what its seat looks like."""

    gender: str
    over_crest: float
    pitch: float | None = None
    seen: str | None = None
    tapered: bool | None = None


class Reflare(TypedDict):
    """A mend: an `end` flared anew for another nut, with a sleeve where its family has one."""

    mend: Literal["reflare"]
    end: EndName
    family: str
    thread: str
    sleeve: bool


Adapter = TypedDict("Adapter", {"mend": Literal["adapter"], "from": str, "to": str})  # a mend: a piece between both, as typed


class Stopper(TypedDict):
    """A mend of an open port: what closes it."""

    mend: Literal["plug", "cap"]
    thread: str
    family: str | None


class NewWashers(TypedDict):
    """A mend: washers that are short, of a thread."""

    mend: Literal["washers"]
    count: int
    thread: str


class ByHand(TypedDict):
    """A mend that names no part."""

    mend: Literal["measure", "new_line", "other_hose"]


Mend = Reflare | Adapter | Stopper | NewWashers | ByHand


class JointAnswer(TypedDict):
    """joint_match: whether two ends seal, why or why not, what comes of it, what mends it, and how many washers it wants."""

    match: bool
    reason: Reason
    effect: str
    needs: NotRequired[list[str]]
    mends: list[Mend]
    cautions: list[str]
    washers_needed: int


class Candidate(TypedDict):
    """What a fitting in the hand may be."""

    family: str
    role: str
    thread: str


class HandAnswer(TypedDict):
    """joint_match of a fitting in the hand: what it may be, the likeliest first, and what to measure to tell them apart."""

    candidates: list[Candidate]
    tell_apart: list[str]


def family_of(fittings: Fittings, name: str) -> dict[str, Any]:
    """The row of the family name.

    `fittings` [table]; `name` [name].
    """
    return next(row for row in fittings["families"] if row["family"] == name)


def _role(fittings: Fittings, end: End) -> dict[str, str]:
    roles: dict[str, dict[str, str]] = family_of(fittings, end.family or "")["roles"]
    return roles[end.role or ""]


def _seals(fittings: Fittings, one: str, other: str) -> bool:
    return [one, other] in fittings["seals"] or [other, one] in fittings["seals"]


def _unknown(ends: dict[EndName, End | None]) -> list[str]:
    return [
        f"{name}.{what}"
        for name, end in ends.items()
        if end is not None
        for what in ("family", "role", "thread")
        if getattr(end, what) is None
    ]


def _reason(fittings: Fittings, male: End, female: End, needed: int) -> Reason:
    """The first of what keeps a `male` and a `female` end from sealing, `match` for nothing."""
    assert male.thread is not None
    assert female.thread is not None
    if male.thread.tapered != female.thread.tapered:
        return "taper_with_straight"
    apart = male.thread.diameter - female.thread.diameter
    if apart > 0.15 + EPS:
        return "male_too_big"
    if apart < -0.15 - EPS:
        return "male_too_small"
    if abs(male.thread.pitch - female.thread.pitch) > 0.01 + EPS:
        return "pitch_differs"
    noses = _role(fittings, male)["nose"], _role(fittings, female)["nose"]
    if not _seals(fittings, *noses):
        return "washer_has_no_seat" if "flat" in noses else "seat_differs"
    return "washers_missing" if max(male.washers, female.washers) < needed else "match"


def _reflare(fittings: Fittings, ends: dict[EndName, End]) -> Reflare | None:
    """A flare that would seal on the other end, for the first end that is a line's."""
    own = next((name for name, end in ends.items() if end.role == "line"), None)
    if own is None:
        return None
    line, other = ends[own], ends["b" if own == "a" else "a"]
    theirs = _role(fittings, other)
    for family in fittings["families"]:
        role = family["roles"].get("line")
        if role is None or role["gender"] == theirs["gender"] or not _seals(fittings, role["nose"], theirs["nose"]):
            continue
        for row in family["threads"]:
            thread = thread_of(row["thread"], fittings["npt_outer_mm"])
            if thread is None or other.thread is None or not thread.same(other.thread):
                continue
            fits = line.tube_mm is None or any(abs(t - line.tube_mm) <= TUBE_WITHIN + EPS for t in row["tubes_mm"])
            if fits:
                sleeve = family["family"] == "an_37"
                return {"mend": "reflare", "end": own, "family": family["family"], "thread": row["thread"], "sleeve": sleeve}
    return None


def _cautions(fittings: Fittings, ends: list[End]) -> list[str]:
    found = []
    if any(e.family == "inverted_45_double" and e.role == "line" and (e.material or "").startswith("stainless") for e in ends):
        found.append("stainless_double_flare")
    if any(e.sealant and _role(fittings, e)["nose"] != "taper" for e in ends):
        found.append("sealant_on_seat")
    if any(e.washers_used for e in ends):
        found.append("washers_used_again")
    for end in ends:
        if end.role != "line" or end.tube_mm is None or end.thread is None:
            continue
        rows = family_of(fittings, end.family or "")["threads"]
        named = [(thread_of(row["thread"], fittings["npt_outer_mm"]), row["tubes_mm"]) for row in rows]
        tubes = [t for thread, tubes in named if thread is not None and thread.same(end.thread) for t in tubes]
        if not any(abs(t - end.tube_mm) <= TUBE_WITHIN + EPS for t in tubes):
            found.append("nut_unusual_for_tube")
            break
    return found


def joint_match(fittings: Fittings, a: End | None, b: End | None) -> JointAnswer:
    """Whether a and b (None: open) seal: reason, effect, mends, cautions and new washers. At least one is an end.

    `fittings` [table]; `a` [record, None open]; `b` [record, None open].
    """
    ends: dict[EndName, End | None] = {"a": a, "b": b}
    needs = _unknown(ends)
    if needs:
        return {
            "match": False, "reason": "not_known", "effect": fittings["effects"]["not_known"], "needs": needs,
            "mends": [{"mend": "measure"}], "cautions": [], "washers_needed": 0,
        }  # fmt: skip
    known = {name: end for name, end in ends.items() if end is not None}
    genders = {name: _role(fittings, end)["gender"] for name, end in known.items()}
    males = [end for name, end in known.items() if genders[name] == "male"]
    needed = max((fittings["washers"].get(end.family, 0) for end in males), default=0)
    mends: list[Mend] = []
    reason: Reason
    if len(known) == 1:
        (name, end), reason = next(iter(known.items())), "open_port"
        mends = [{"mend": "plug" if genders[name] == "female" else "cap", "thread": end.typed, "family": end.family}]
    elif any(end.material in fittings["refused_materials"] for end in known.values()):
        reason, mends = "material_refused", [{"mend": "new_line"}]
    elif genders["a"] == genders["b"]:
        reason = "same_gender"
    else:
        male, female = (known["a"], known["b"]) if genders["a"] == "male" else (known["b"], known["a"])
        reason = _reason(fittings, male, female, needed)
    if reason == "washers_missing":
        short = needed - max(end.washers for end in known.values())
        mends = [{"mend": "washers", "count": short, "thread": males[0].typed}]
    elif reason != "match" and not mends:
        reflare = _reflare(fittings, known)
        names = [f"{end.family} {end.typed}" for end in known.values()]
        mends = [*([reflare] if reflare else []), {"mend": "adapter", "from": names[0], "to": names[1]}]
        if any(end.on == "hose" for end in known.values()):
            mends.append({"mend": "other_hose"})
    if reason == "match":
        how = {"flat": "washers", "taper": "thread", "o_ring": "ring"}
        effect = f"sealed_by_{how.get(_role(fittings, males[0])['nose'], 'seat')}"
    else:
        effect = fittings["effects"][reason]
    return {
        "match": reason == "match", "reason": reason, "effect": effect, "mends": mends,
        "cautions": _cautions(fittings, list(known.values())), "washers_needed": needed,
    }  # fmt: skip


def identify(fittings: Fittings, hand: Measured) -> HandAnswer:
    """What a fitting may be from what is measured, nearest first, and what to measure to tell them apart.

    `fittings` [table]; `hand` [record].
    """
    found: list[tuple[float, Candidate, Thread, str]] = []
    for family in fittings["families"]:
        for role, is_ in family["roles"].items():
            for row in family["threads"]:
                thread = thread_of(row["thread"], fittings["npt_outer_mm"])
                if thread is None or is_["gender"] != hand.gender:
                    continue
                base = thread.diameter - (CREST_DEPTH * thread.pitch if hand.gender == "female" else 0.0)
                low, high, usual = (-0.40, 0.10, -CREST_FLAT) if hand.gender == "male" else (-0.15, 0.40, 0.10)
                off = hand.over_crest - base
                fits = low - EPS <= off <= high + EPS
                fits &= hand.pitch is None or abs(thread.pitch - hand.pitch) <= 0.04 + EPS
                fits &= hand.seen is None or fittings["seen"][is_["nose"]] == hand.seen
                fits &= hand.tapered is None or thread.tapered == hand.tapered
                if fits:
                    name: Candidate = {"family": family["family"], "role": role, "thread": row["thread"]}
                    found.append((round(abs(off - usual), 9), name, thread, is_["nose"]))
    found.sort(key=lambda row: row[0])
    pitches, noses = [row[2].pitch for row in found], {row[3] for row in found}
    apart = []
    if hand.pitch is None and found and max(pitches) - min(pitches) > 0.04 + EPS:
        apart.append("pitch")
    if hand.seen is None and len({fittings["seen"][nose] for nose in noses}) > 1:
        apart.append("seat")
    if hand.tapered is None and len({row[2].tapered for row in found}) > 1:
        apart.append("taper")
    if any(n.endswith("_45") for n in noses) and any(n.endswith("_37") for n in noses):
        apart.append("angle")
    return {"candidates": [row[1] for row in found], "tell_apart": apart}

"""What Fit says of joints, in a mechanic's words. What is decided stands in the ids beside them."""

from typing import Any

from kobrix.core.fit.joints import JointAnswer
from kobrix.fileformat.tables import table

FAMILY = {
    "inverted_45_double": "45° double flare", "flare_45": "45° flare", "an_37": "37° flare", "bubble": "bubble flare",
    "convex_male": "convex nose", "banjo": "banjo", "straight_washer": "straight, one washer", "npt": "taper pipe thread",
    "orb": "O-ring boss",
}  # fmt: skip
_NOSE = {
    "flare_45": "a 45° flare", "cone_45": "a 45° cone", "flare_37": "a 37° flare", "cone_37": "a 37° cone", "bulb": "a bubble",
    "cup": "a hollow cone", "flat": "a flat face", "taper": "a taper", "o_ring": "an O-ring", "chamfer": "a chamfer",
}  # fmt: skip
_WHAT = {"family": "what it is", "role": "what it is", "thread": "its thread"}
_SEALED = {
    "sealed_by_washers": "Seals on its washers: {n} new ones each.", "sealed_by_thread": "Seals on its taper; sealant where its maker asks.",
    "sealed_by_ring": "Seals on its O-ring: a new one.", "sealed_by_seat": "Seals on its seat.",
}  # fmt: skip
CAUTION = {
    "stainless_double_flare": "A 45° double flare in stainless needs a proper tool; ready-made lines are safer.",
    "sealant_on_seat": "No sealant on a flare, a seat or a washer: it keeps them from closing.",
    "washers_used_again": "Crush washers are new every time.",
    "nut_unusual_for_tube": "This nut is unusual for this tube: measure both again.",
}  # fmt: skip
APART = {
    "pitch": "Lay a thread gauge on it: the pitch tells.", "seat": "Look at its nose or into its bottom: flare, cone, bubble or flat.",
    "taper": "Measure the thread at both its ends: a taper pipe thread is thinner at its nose.",
    "angle": "Hold a 45° and a 37° gauge to the cone; by eye they look alike.",
}  # fmt: skip
SEEN = {
    "flare": "a flared tube", "cone": "a cone", "bulb": "a bubble", "cup": "a hollow cone", "flat": "a flat face", "taper": "a taper",
    "ring": "an O-ring", "chamfer": "a chamfer",
}  # fmt: skip


def role_of(family: str, role: str) -> dict[str, str]:
    """The row of a family's role."""
    roles: dict[str, dict[str, str]] = next(r for r in table("fittings")["families"] if r["family"] == family)["roles"]
    return roles[role]


def said_of(end: dict[str, Any]) -> str:
    """An end in a few words: what it is, and its thread."""
    family, thread = end.get("family"), end.get("thread")
    known = [FAMILY[family] if family else "", str(thread) if thread else ""]
    return ", ".join(filter(None, known)) or "not known"


def needed_words(needs: list[str], parts: dict[str, str]) -> list[str]:
    """What is still to be known of a joint: "hard line: its thread"."""
    found: dict[str, list[str]] = {}
    for end, _, what in (n.partition(".") for n in needs):
        found.setdefault(parts[end], []).append(_WHAT[what])
    return [f"{part}: {' and '.join(dict.fromkeys(what))}" for part, what in found.items()]


def sentence_of(judged: JointAnswer, a: dict[str, Any] | None, b: dict[str, Any] | None, wanted: list[str]) -> str:
    """What a joint does, as judged."""
    reason = judged["reason"]
    if reason == "match":
        return _SEALED[judged["effect"]].format(n=judged["washers_needed"])
    if reason == "not_known":
        return f"Not known yet. {_cap('; '.join(wanted))}."
    one, two = a or {}, b or {}
    if reason == "open_port":
        return f"Open: {said_of(a or two)}. It wants a plug or a cap."
    if reason == "material_refused":
        return "Pure copper and plastic tube are not for brakes: they crack or burst."
    noses = [role_of(e["family"], e["role"]) for e in (one, two)]
    threads = f"{one.get('thread')} in {two.get('thread')}"
    male = one if noses[0]["gender"] == "male" else two
    other = two if male is one else one
    return {
        "same_gender": f"Both are {noses[0]['gender']}: they cannot be screwed together.",
        "taper_with_straight": f"A taper and a straight thread, {threads}: it jams, then leaks.",
        "male_too_big": f"{male.get('thread')} is too big for {other.get('thread')}: it does not start.",
        "male_too_small": f"{male.get('thread')} is too small for {other.get('thread')}: it starts, then strips.",
        "pitch_differs": f"Same size, other pitch ({threads}): it binds after a few turns. Do not force it.",
        "washer_has_no_seat": f"{_cap(_NOSE[noses[0]['nose']])} on {_NOSE[noses[1]['nose']]}: the washer has no seat. It screws in, then weeps.",
        "seat_differs": f"Same thread, {_NOSE[noses[0]['nose']]} on {_NOSE[noses[1]['nose']]}: it screws in, then weeps.",
        "washers_missing": "New crush washers are missing: without them it weeps.",
    }[reason]


def _cap(text: str) -> str:
    return text[:1].upper() + text[1:]

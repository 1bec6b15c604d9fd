"""The lines of a setup, joint by joint: begun from its circuits, stations, hoses and devices, completed by what was entered."""

from functools import lru_cache
from typing import Any

from kobrix.core.figures import Level
from kobrix.core.fit.joints import JointAnswer, Mend
from kobrix.core.fit.line_map import PartOfLine
from kobrix.core.fit.threads import thread_of
from kobrix.core.work.steps import Change
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.evaluate.line_places import DEVICE, Placed, Way, brake_words, ways_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import Joint, JointEnd
from kobrix.fileformat.models import Cylinder, Setup
from kobrix.fileformat.paths import Edit, set_at, take_away
from kobrix.fileformat.tables import table
from kobrix.stages.fit import words
from kobrix.stages.fit.shapes import BranchView, EndOption, JointEndView, JointMend, JointView, MapNote

_PORTS = ("port", "fitting")  # what a part that lines are screwed into may have
_ROLES: dict[PartOfLine, tuple[str, ...]] = {
    "line": ("line",), "hose": ("line", "fitting", "bolt", "port"), "switch": ("fitting",),
}  # fmt: skip
_BALANCING = ("proportioning", "limiting", "load_sensing", "deceleration_sensing")


@lru_cache(maxsize=1)
def options() -> tuple[EndOption, ...]:
    """Everything that an end can be."""
    return tuple(
        {
            "id": f"{row['family']} {role}", "family": row["family"], "role": role, "words": f"{row['name']}: {is_['is']}",
            "threads": [t["thread"] for t in row["threads"]],
        }
        for row in table("fittings")["families"]
        for role, is_ in row["roles"].items()
    )  # fmt: skip


def _options_for(part: PartOfLine) -> list[str]:
    roles = _ROLES.get(part, _PORTS)
    return [o["id"] for o in options() if o["role"] in roles]


def map_of(setup: Setup, changes: list[Change]) -> tuple[list[BranchView], list[Placed]]:
    """The ways from each cylinder to its brakes, and every place on them where something is joined."""
    ways = ways_of(setup, changes)
    return [_branch_view(way) for way in ways], [place for way in ways for place in way.placed]


def _cylinder_words(cylinder: Cylinder) -> str:
    bore = getattr(cylinder, "bore_mm", None)
    size = f"{bore} mm" if isinstance(bore, int | float) else str(bore or "")
    return f"{size} {cylinder.kind}".strip()


def _branch_view(way: Way) -> BranchView:
    own, lines = way.station, None if way.station is None else way.station.lines
    hard = [f"{m.material or 'hard line'}, {m.length_mm} mm".replace("_", "-").replace(" mm mm", " mm")
            for m in (lines.hard_lines if lines else []) if m.length_mm is not None]  # fmt: skip
    hoses = [f"{h.count} x {h.length_mm} mm, {h.kind or 'hose'}".replace(" mm mm", " mm")
             for h in (lines.hoses if lines else []) if h.length_mm is not None]  # fmt: skip
    return {
        "system": way.control, "station": way.name, "axle": None if own is None else own.axle, "cylinder": _cylinder_words(way.cylinder),
        "line": way.control if own is None else "; ".join(hard), "hose": "; ".join(hoses),
        "brake": "cylinder" if own is None else brake_words(own), "devices": [] if own is None else [DEVICE[d.kind] for d in own.devices],
        "joints": [place.key for place in way.placed],
    }  # fmt: skip


def notes_of(setup: Setup) -> list[MapNote]:
    """What to look at on the lines as a whole. Common practice."""
    found: list[MapNote] = []
    for station in (s for system in setup.systems for s in system.stations):
        kinds = [d.kind for d in station.devices]
        if station.axle == "front" and any(k in _BALANCING for k in kinds) and setup.vehicle.kind in ("car", "truck"):
            found.append(
                {
                    "level": "caution",
                    "words": f"A valve that holds pressure back stands in the line to {station.name}: it belongs in the rear line.",
                }
            )
        if station.axle == "rear" and "line_lock" in kinds and setup.vehicle.kind in ("car", "truck"):
            found.append(
                {
                    "level": "caution",
                    "words": "A line lock stands in the rear line: it belongs in the front line, or it is no line lock.",
                }
            )
        for kind in ("residual", "park_valve"):
            if kind in kinds:
                found.append(
                    {
                        "level": "note",
                        "words": f"The {DEVICE[kind]} to {station.name} has a direction: its arrow points to the wheels.",
                    }
                )
    found.append({"level": "note", "words": "Each hose end is held by a tab or a bracket; bleed screws stand on top; a line that hangs free gets a loop."})  # fmt: skip
    return found


def _question(end: JointEnd | None, place: Placed | None, part: PartOfLine, needed: int) -> dict[str, Any]:
    found: dict[str, Any] = {} if end is None else end.model_dump(exclude_none=True)
    if place is not None and part == "line":
        found.setdefault("tube_mm", place.tube_mm)
        found.setdefault("material", place.material)
    if part == "hose":
        found["on"] = "hose"
    if needed:
        found.setdefault("washers", needed)
    return {key: value for key, value in found.items() if value is not None}


def judged(a: dict[str, Any], b: dict[str, Any] | None) -> JointAnswer:
    """What two ends do to each other; an open one is `b` None."""
    return ask_fit.ends(Asked({"question": "joint_match", "a": a, "b": b}))


def _washers_of(end: JointEnd | None) -> int:
    """New washers stand on the list, so they are counted on, unless fewer were entered."""
    needed: dict[str, int] = table("fittings")["washers"]
    return 0 if end is None or end.family is None else needed.get(end.family, 0)


def _end_view(end: JointEnd | None, asked: dict[str, Any], part: PartOfLine, name: str) -> JointEndView:
    own = end or JointEnd()
    option = f"{own.family} {own.role}" if own.family and own.role else ""
    tube = asked.get("tube_mm")
    return {
        "part": part, "words": name, "option": option, "thread": own.thread or "", "said": words.said_of(asked),
        "family": words.FAMILY[own.family] if own.family else "",
        "tube_mm": "" if tube is None else f"{tube} mm" if isinstance(tube, int | float) else str(tube),
        "material": str(asked.get("material", "")), "washers": own.washers, "washers_used": bool(own.washers_used),
        "sealant": bool(own.sealant), "options": _options_for(part),
    }  # fmt: skip


def joint_view(number: int, key: str, joint: Joint, place: Placed | None, plug_here: bool) -> JointView:
    """One joint, judged. `place`: where it is on the map, None for one that a person added."""
    part_a: PartOfLine = "cylinder" if place is None else place.place.a
    part_b: PartOfLine = "line" if place is None else place.place.b
    names = {"a": "the one end", "b": "the other end"} if place is None else place.parts
    entered = [e.washers for e in (joint.a, joint.b) if e is not None and e.washers is not None]
    washers = 0 if entered else max(_washers_of(joint.a), _washers_of(joint.b))
    a, b = _question(joint.a, place, part_a, washers), _question(joint.b, place, part_b, washers)
    result = judged(a, None if joint.open else b)
    reason = result["reason"]
    wanted = words.needed_words(result.get("needs", []), names)
    cautions = [words.CAUTION[c] for c in result["cautions"]]
    path = f"fit.joints.{key}"
    mends = [m for r in result["mends"] if (m := _mend(r, path, joint, a, b)) is not None]
    adapter = bool(joint.adapter) and any(m["kind"] == "adapter" for m in mends)
    sentence = words.sentence_of(result, a, b, wanted)
    level: Level = (
        ("caution" if cautions else "good") if result["match"] or adapter
        else "note" if reason == "not_known"
        else ("good" if plug_here else "caution") if reason == "open_port"
        else "danger"
    )  # fmt: skip
    if adapter:
        sentence = f"An adapter stands between {words.said_of(a)} and {words.said_of(b)}: two joints, both looked at."
        mends = [{"kind": "no_adapter", "words": "Leave the adapter out", "edits": [take_away(f"{path}.adapter")]}]
    if reason == "open_port" and plug_here:
        sentence = f"Open: {words.said_of(a)}. The plug is here."
    return {
        "key": key, "number": number, "kind": "own" if place is None else place.place.kind, "path": path,
        "title": joint.name or ("no longer on the map" if place is None else place.title),
        "count": joint.count or (1 if place is None else place.place.count),
        "a": _end_view(joint.a, a, part_a, names["a"]), "b": _end_view(joint.b, b, part_b, names["b"]),
        "open": bool(joint.open), "adapter": adapter,
        "opened": joint.opened if joint.opened is not None else place is None or place.opened, "own": place is None,
        "match": result["match"] or adapter, "reason": "adapter" if adapter else reason, "level": level, "sentence": sentence,
        "needs": wanted, "mends": mends, "cautions": cautions, "washers_needed": result["washers_needed"],
        "note": joint.note or "",
    }  # fmt: skip


def _mate(other: dict[str, Any]) -> dict[str, str] | None:
    """What a hose would need to have at its end to seal on the `other` end: the first family in the table that does."""
    fittings = table("fittings")
    theirs, thread = words.role_of(other["family"], other["role"]), thread_of(other["thread"], fittings["npt_outer_mm"])
    for row in fittings["families"]:
        for role, is_ in row["roles"].items():
            pair = [is_["nose"], theirs["nose"]]
            if is_["gender"] == theirs["gender"] or not (pair in fittings["seals"] or pair[::-1] in fittings["seals"]):
                continue
            for known in row["threads"]:
                own = thread_of(known["thread"], fittings["npt_outer_mm"])
                if own is not None and thread is not None and own.same(thread):
                    return {"family": row["family"], "role": role, "thread": known["thread"]}
    return None


def _mend(mend: Mend, path: str, joint: Joint, a: dict[str, Any], b: dict[str, Any]) -> JointMend | None:
    """A mend in words, with the edits that are it; None where nothing would do it."""
    if mend["mend"] == "reflare":
        end, family, thread = mend["end"], mend["family"], mend["thread"]
        own: dict[str, Any] = ((joint.a if end == "a" else joint.b) or JointEnd()).model_dump(exclude_none=True)
        made = {**own, "family": family, "role": "line", "thread": thread}
        sleeve = " and a sleeve" if mend["sleeve"] else ""
        return {"kind": mend["mend"], "words": f"Flare the line anew: {words.FAMILY[family]}, {thread}, with a new nut{sleeve}",
                "edits": [set_at(f"{path}.{end}", made)]}  # fmt: skip
    if mend["mend"] == "adapter":
        return {"kind": mend["mend"], "words": f"Put an adapter between: {words.said_of(a)} to {words.said_of(b)}",
                "edits": [set_at(f"{path}.adapter", True)]}  # fmt: skip
    if mend["mend"] == "plug" or mend["mend"] == "cap":  # each narrows the record, a tuple of both does not
        return {"kind": mend["mend"], "words": f"A {mend['mend']} {mend['thread']} goes on the list", "edits": []}
    if mend["mend"] == "washers":
        ends: list[Edit] = [
            take_away(f"{path}.{e}.washers") for e, own in (("a", joint.a), ("b", joint.b)) if own and own.washers is not None
        ]
        return {"kind": mend["mend"], "words": f"{mend['count']} new washers {mend['thread']}", "edits": ends}
    if mend["mend"] == "other_hose":
        end = "a" if a.get("on") == "hose" else "b"
        mate = _mate(b if end == "a" else a)
        if mate is None:
            return None
        return {
            "kind": mend["mend"],
            "words": f"Another hose, its end {words.said_of(mate)}",
            "edits": [set_at(f"{path}.{end}", mate)],
        }
    if mend["mend"] == "new_line":
        end = "a" if a.get("material") in table("fittings")["refused_materials"] else "b"
        return {
            "kind": mend["mend"],
            "words": "A new line of copper-nickel or coated steel",
            "edits": [set_at(f"{path}.{end}.material", "copper_nickel")],
        }
    return {"kind": "measure", "words": "Measure it", "edits": []}


def plug_of(joint: Joint) -> str | None:
    """The plug that an open joint wants, by its name on the list; None where nothing is open, or its thread is not known."""
    end = joint.a
    if not joint.open or end is None or end.thread is None or end.family is None:
        return None
    thread = thread_of(end.thread, table("fittings")["npt_outer_mm"])
    return None if thread is None else f"plug {thread.text}"


def needs_of(joint: Joint, count: int, opened: bool) -> dict[str, Any] | None:
    """A joint as the question of what is missing has it: by the male end's family and thread; None where neither is known."""
    ends = [e for e in (joint.a, None if joint.open else joint.b) if e is not None and e.family and e.role and e.thread]
    males = [e for e in ends if words.role_of(str(e.family), str(e.role))["gender"] == "male"]
    found = next(iter([*males, *ends]), None)
    if found is None:
        return None
    return {"family": found.family, "thread": found.thread, "count": count, "opened": opened, "open": bool(joint.open)}


def made_for(joint: Joint, count: int) -> list[tuple[str, int]]:
    """What a joint asks for besides washers and plugs: its adapter."""
    a, b = joint.a, joint.b
    if not joint.adapter or a is None or b is None:
        return []
    ends = [words.said_of(e.model_dump(exclude_none=True)) for e in (a, b)]
    return [(f"adapter {ends[0]} to {ends[1]}"[:80], count)]

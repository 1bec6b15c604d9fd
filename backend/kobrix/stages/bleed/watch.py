"""Every joint that the work opened, looked at twice: after the pedal was held, and after the first drive."""

from typing import Literal

from kobrix.core.figures import Level
from kobrix.evaluate.line_places import ways_of
from kobrix.evaluate.plan_changes import changes_of
from kobrix.fileformat.fit import Fitting
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.stages.bleed.shapes import LookView, WatchedJoint, WatchView
from kobrix.store.records import Record

When = Literal["hold", "drive"]


def _look(records: list[Record], joint: str, when: When) -> LookView | None:
    own = [r for r in records if r.body["joint"] == joint and r.body["when"] == when]
    if not own:
        return None
    last = own[-1]
    return {"key": last.key, "at": last.made_at, "by": last.body.get("by", ""), "dry": last.body["dry"]}


def _joints(job: Job, name: str) -> list[tuple[str, str, str, int]]:
    """Key, title, where and count of what the plan opens: of the map, as a person corrected it, and of their own."""
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    joints = (plan.fit or Fitting()).joints or {}
    found, known = [], set()
    for way in ways_of(job.setup(name), changes_of(job, name)):
        for place in way.placed:
            known.add(place.key)
            own = joints.get(place.key)
            opened = place.opened if own is None or own.opened is None else own.opened
            if opened:
                count = place.place.count if own is None or own.count is None else own.count
                found.append((place.key, (own.name if own else None) or place.title, way.name, count))
    found += [
        (key, j.name or "a joint of your own", "", j.count or 1)
        for key, j in joints.items()
        if key not in known and j.opened is not False
    ]
    return found


def _said(joints: list[WatchedJoint], wet: list[str]) -> tuple[Level, str]:
    if not joints:
        return "note", "This setup opens no joint against the one as found. What was opened all the same: mark it in Fit's lines."
    if wet:
        return "danger", f"Wet: {', '.join(wet)}. Do not drive: mend it, bleed, hold the pedal, and look again."
    n = len(joints)
    held, driven = (sum(j[k] is not None for j in joints) for k in ("hold", "drive"))
    if held < n:
        return "caution", f"{n - held} of {n} opened joints not looked at yet since the pedal was held."
    if driven < n:
        return "note", f"All dry after the hold. After the first drive look again: {n - driven} of {n} to go."
    return "good", "Every opened joint was dry twice: after the hold, and after the first drive."


def watch_of(job: Job, name: str, records: tuple[Record, ...]) -> WatchView:
    """The opened joints of the setup by `name`, and the looks at each that stand."""
    looks = [r for r in records if r.kind == "looked" and r.struck is None and r.body.get("setup") == name]
    joints: list[WatchedJoint] = [
        {
            "joint": key,
            "title": title,
            "where": where,
            "count": count,
            "hold": _look(looks, key, "hold"),
            "drive": _look(looks, key, "drive"),
        }
        for key, title, where, count in _joints(job, name)
    ]
    # A joint that was wet after the hold and dry after a later look stands by its last look of that time.
    wet = [
        f"{j['title']}, {j['where']}".removesuffix(", ")
        for j in joints
        if any(look is not None and not look["dry"] for look in (j["hold"], j["drive"]))
    ]
    level, sentence = _said(joints, wet)
    return {
        "joints": joints, "dry_hold": sum(j["hold"] is not None and j["hold"]["dry"] for j in joints),
        "dry_drive": sum(j["drive"] is not None and j["drive"]["dry"] for j in joints), "wet": wet, "level": level, "sentence": sentence,
    }  # fmt: skip

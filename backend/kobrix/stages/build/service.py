"""What Build shows of a plan: days, groups and steps, what is done and what it waits for."""

import itertools

from kobrix.core.work.steps import Change, Sides, StepAnswer, arranged, build_steps, in_order
from kobrix.evaluate.plan_changes import ChangeGroup, groups_of
from kobrix.fileformat.building import Building
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.paths import pointer
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.tables import table
from kobrix.stages.build import words
from kobrix.stages.build.order import axle_words, order_of
from kobrix.stages.build.own_steps import of_day, sum_of, troubles, troubles_at, with_own
from kobrix.stages.build.rebuild import cups_of
from kobrix.stages.build.shapes import AlsoView, BuildView, DayView, Done, SeenView, WorkStep
from kobrix.stages.common import Standing, StoredJob
from kobrix.store.records import Record

_TORQUE = "torque"  # what a row asks to be written down


def chosen(job: Job, name: str | None) -> str:
    """The setup asked for; the first plan, or the one as found where there is none yet."""
    return name if name is not None and name in job.names else job.names[min(1, len(job.names) - 1)]


def _building(job: Job, name: str) -> Building:
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    return plan.build or Building()


def _sides(job: Job, name: str) -> Sides:
    """Sides of the wheels of each axle: left and right where there are two."""
    found: Sides = {}
    for axle in ("front", "rear"):
        stations = [s for system in job.setup(name).systems for s in system.stations if s.axle == axle]
        two = any(s.wheels == 2 for s in stations) or len({s.side for s in stations}) > 1
        found[axle] = ["left", "right"] if two else ["wheel"]
    return found


def _vehicle_kind(job: Job) -> str:
    return job.vehicle.kind if job.vehicle.kind in ("motorcycle", "aircraft") else "car"


def _days(groups: list[ChangeGroup], own: Building) -> list[list[ChangeGroup]]:
    """The groups of each day: as planned, those that no day names at the end; all in one go where nothing is planned."""
    by = {g.name: g for g in groups}
    if not own.days:
        return [groups] if groups else []
    days = [[by[n] for n in day if n in by] for day in own.days]
    named = {n for day in own.days for n in day}
    left = [g for g in groups if g.name not in named]
    return [d for d in [*days, left] if d]


class _Happened:
    """What the records say of a setup's steps."""

    def __init__(self, records: tuple[Record, ...], setup: str) -> None:
        own = [r for r in records if r.body.get("setup") == setup and r.struck is None]
        self.done = {r.body["step"]: r for r in own if r.kind == "signed"}
        self.seen: dict[str, list[SeenView]] = {}
        for r in own:
            if r.kind == "seen":
                self.seen.setdefault(r.body["step"], []).append(
                    {"key": r.key, "at": r.made_at, "words": r.body["words"], "sha256": r.body.get("sha256"),
                     "goes_back": r.body.get("goes_back"), "bag": r.body.get("bag")}
                )  # fmt: skip

    def of(self, key: str) -> Done | None:
        """That a step is done, None where it is not."""
        record = self.done.get(key)
        if record is None:
            return None
        torque = record.body.get("torque_nm")
        return {
            "key": record.key, "at": record.made_at, "by": record.body.get("by", ""), "source": record.body.get("source", ""),
            "torque": "" if torque is None else f"{torque:g} N m" if isinstance(torque, int | float) else str(torque),
            "note": record.body.get("note", ""),
        }  # fmt: skip


def _where(job: Job, place: str | None) -> str:
    if place is None:
        return "whole job"
    axle, _, side = place.partition("_")
    return " ".join(filter(None, [axle_words(job, axle), side if side != "wheel" else ""]))


def _step(job: Job, day: str, told: StepAnswer, own: Building, happened: _Happened) -> WorkStep:
    row = next(r for r in table("build-steps")["rows"] if r["id"] == told["row"])
    key = f"{day}/{told['id']}"
    asks = _TORQUE in row["record"]
    at = next((n for n, t in enumerate(own.torques or []) if t.row == told["row"]), None)
    torque = (own.torques or [])[at] if at is not None else None
    wait = next((n for n, w in enumerate(own.waits or []) if w.step == key), None)
    too_much = (
        torque is not None and own.wrench_most_nm is not None
        and value_of(torque.torque_nm, "torque_nm") > value_of(own.wrench_most_nm, "torque_nm")
    )  # fmt: skip
    return {
        "key": key, "row": told["row"], "where": _where(job, told["where"]), "place": told["where"] or "job", "phase": told["phase"],
        "phase_words": words.PHASE[told["phase"]], "text": row["text"], "short": words.short(told["row"]), "caution": row["caution"],
        "record": row["record"], "tools": row["tools"], "critical": told["critical"], "asks_torque": asks,
        "torque": "" if torque is None else f"{torque.torque_nm:g} N m" if isinstance(torque.torque_nm, int | float) else torque.torque_nm,
        "source": "" if torque is None else torque.source, "torque_at": at, "too_much": too_much,
        "before": [f"{day}/{b}" for b in told["before"]], "waits": [], "part": (own.waits or [])[wait].part if wait is not None else "",
        "part_at": wait, "earlier": False, "later": False, "own_at": None, "troubles": troubles_at(told["row"], row["tools"]), "done": happened.of(key), "seen": happened.seen.get(key, []),
    }  # fmt: skip


def _in_wanted_order(steps: list[WorkStep], wanted: list[str]) -> list[WorkStep]:
    """The steps as a person wants them, each told whether it may change places with its neighbours."""
    by = {s["key"]: s for s in steps}
    found = [by[key] for key in arranged([(s["key"], s["phase"], s["before"]) for s in steps], wanted)]
    for first, second in itertools.pairwise(found):
        first["later"] = second["earlier"] = first["phase"] == second["phase"] and first["key"] not in second["before"]
    return found


def _day_key(groups: list[ChangeGroup]) -> str:
    return "+".join(g.name for g in groups) or "also"


def _day(
    job: Job, name: str, groups: list[ChangeGroup], also: list[Change], own: Building, happened: _Happened, days: list[str]
) -> DayView:
    """A day of the work, of the `days` by their keys."""
    day = _day_key(groups)
    changes = in_order(table("build-steps"), [*(c for g in groups for c in g.changes), *also])
    told = build_steps(table("build-steps"), changes, _sides(job, name), parking=_vehicle_kind(job) == "car")
    steps = [_step(job, day, row, own, happened) for row in told["steps"]]
    steps = _in_wanted_order(with_own(steps, own, of_day(own, day, days), happened.of, happened.seen), own.order or [])
    done = {s["key"] for s in steps if s["done"] is not None}
    for step in steps:
        step["waits"] = [b for b in step["before"] if b not in done]
    # A phase begins when the one before it is done: what is left of it is waited for.
    for step in steps:
        step["waits"] += [
            s["key"] for s in steps if s["phase"] < step["phase"] and s["key"] not in done and s["key"] not in step["waits"]
        ]
    names = [axle_words(job, g.name) or g.name for g in groups]
    return {
        "key": day, "title": " and ".join(names) if len(names) < 3 else "all in one go", "groups": [g.name for g in groups], "steps": steps,
        "done": len(done), "tools": told["tools"],
    }  # fmt: skip


def _worked(
    job: Job, name: str, own: Building, groups: list[ChangeGroup], also: list[Change], happened: _Happened
) -> list[DayView]:
    """Every day of the work, what else is done on the first."""
    planned = _days(groups, own) or ([[]] if also or own.own else [])
    keys = [_day_key(day) for day in planned]
    return [_day(job, name, day, also if n == 0 else [], own, happened, keys) for n, day in enumerate(planned)]


def _open_since(days: list[DayView]) -> str | None:
    """When the hydraulic system was opened, None where it is closed."""
    for day in days:
        of = {s["row"]: s["done"] for s in day["steps"]}
        opened, closed = of.get("open_system"), of.get("close_system")
        if opened is not None and closed is None:
            return opened["at"]
    return None


def build_of(stored: StoredJob, name: str) -> BuildView:
    """Build of the setup by `name` of a stored job. Raises NotFound."""
    job, own = stored.job, _building(stored.job, name)
    groups, happened = groups_of(job, name), _Happened(stored.records, name)
    also = [Change(a.kind, a.axle) for a in own.also or []]
    days = _worked(job, name, own, groups, also, happened)
    steps = [s for d in days for s in d["steps"]]
    left = [s for s in steps if s["done"] is None]
    free = [s for s in left if not s["waits"] and not s["part"]]
    named: list[AlsoView] = [
        {"kind": c.kind, "words": words.change_words(c, axle_words(job, c.axle)), "at": n} for n, c in enumerate(also)
    ]
    return {
        "page": "build", "revision": stored.revision, "setup": name, "root": pointer(job.root(name)),
        "changes": [words.change_words(c, axle_words(job, c.axle)) for g in groups for c in g.changes], "days": days,
        "order": order_of(job, name), "also": named, "kinds": [{"kind": k, "words": words.CHANGE[k]} for k in table("build-steps")["kinds"]], "with_axle": table("build-steps")["with_axle"],
        "total": len(steps), "done": len(steps) - len(left), "critical": sum(s["critical"] for s in steps),
        "signed": sum(s["critical"] and s["done"] is not None for s in steps), "open_since": _open_since(days),
        "now": free[0]["key"] if free else None,
        "wrench": "" if own.wrench_most_nm is None else f"{own.wrench_most_nm:g} N m" if isinstance(own.wrench_most_nm, int | float) else own.wrench_most_nm,
        "cups": cups_of(job, name, own), "troubles": troubles(), "sum": sum_of(job, name, stored.records), "certified": job.vehicle.kind == "aircraft",
    }  # fmt: skip


def shown(stored: StoredJob, name: str | None) -> BuildView:
    """What Build's page shows."""
    return build_of(stored, chosen(stored.job, name))


def standing(stored: StoredJob) -> Standing:
    """How far Build is: of the first plan's steps, how many are done."""
    name = chosen(stored.job, None)
    if not any(r.kind == "signed" and r.body.get("setup") == name for r in stored.records):
        return {"state": "empty", "words": "empty"}
    own = _building(stored.job, name)
    happened = _Happened(stored.records, name)
    also = [Change(a.kind, a.axle) for a in own.also or []]
    days = _worked(stored.job, name, own, groups_of(stored.job, name), also, happened)
    total, done = sum(len(d["steps"]) for d in days), sum(d["done"] for d in days)
    if total and done == total:
        return {"state": "ready", "words": "all steps done"}
    return {"state": "doubt" if _open_since(days) else "begun", "words": f"{done} of {total}"}

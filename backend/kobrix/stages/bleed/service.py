"""What Bleed shows of a setup: screws in their order, holds, and the stand test, each by the question that the core answers."""

import math
from typing import Any

from kobrix.core.constants import assumed
from kobrix.core.errors import BadEntry, BadPlace
from kobrix.core.figures import Shown
from kobrix.core.prove.stand import Fitted
from kobrix.devices.gauges import reading
from kobrix.evaluate.ask import bleed as ask_bleed
from kobrix.evaluate.ask import prove as ask_prove
from kobrix.evaluate.ask import stand as ask_stand
from kobrix.evaluate.ask.stand import StandAnswer
from kobrix.evaluate.ask.subject import Subject
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.bleeding import Bleeding
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup, System
from kobrix.fileformat.paths import Edit, set_at
from kobrix.fileformat.quantities import read, value_of
from kobrix.stages.bleed import words
from kobrix.stages.bleed.bands import bands_of
from kobrix.stages.bleed.shapes import (
    BledView,
    BleedView,
    FittedView,
    HoldsView,
    HoldView,
    PushView,
    SchoolView,
    ScrewView,
    SimulateIn,
    SimulateOut,
    StandView,
    WarningView,
)
from kobrix.stages.bleed.watch import watch_of
from kobrix.stages.common import Standing, StoredJob
from kobrix.store.records import Record

CM3 = 1e6
MOST_PUSH = 450.0  # N, the stand test's plot where no push was harder
GATE = "stand_test"  # the step that is signed before the first drive


def chosen(job: Job, name: str | None) -> str:
    """The setup asked for; the first plan, or the one as found where there is none yet."""
    return name if name is not None and name in job.names else job.names[min(1, len(job.names) - 1)]


def _bleeding(job: Job, name: str) -> Bleeding:
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    return plan.bleed or Bleeding()


def _text(value: Any, unit: str) -> str:
    return "" if value is None else f"{value:g} {unit}" if isinstance(value, int | float) else str(value)


def _own(records: tuple[Record, ...], kind: str, setup: str) -> list[Record]:
    return [r for r in records if r.kind == kind and r.body.get("setup") == setup]


def _bled_view(record: Record) -> BledView:
    body = record.body
    return {
        "key": record.key, "at": record.made_at, "by": body.get("by", ""), "bubbles": body.get("bubbles"), "dry": bool(body.get("dry")),
        "volume": _text(body.get("volume_cm3"), "cm³"),
    }  # fmt: skip


def _branches(job: Job, name: str, index: int, own: Bleeding) -> list[dict[str, Any]]:
    """The wheels of a system as branches: what stands in each line and behind its pistons, halved from what the station holds."""
    system = job.setup(name).systems[index]
    answer = answer_of(ByContent(job.setup(name)))
    solved = {s.name: s for s in (answer.converted.systems or [])[index].stations} if answer.converted.systems else {}
    found = []
    for station in system.stations:
        sides = ["left", "right"] if station.wheels == 2 else [station.side or "left"]
        core = solved.get(station.name)
        held = None if core is None or core.lines is None else float(core.lines.fluid_volume) * CM3 / station.wheels
        behind = _behind(core) if core is not None else None
        for side in sides:
            label = f"{station.name} {side}" if station.wheels == 2 else station.name
            row: dict[str, Any] = {"name": label, "axle": station.axle, "side": side, "caliper_volume_cm3": behind or 0.0}
            if held is not None:
                row["line_volume_cm3"] = max(0.0, held - (behind or 0.0))
            if label in (own.two_screws or []):
                row["screws"] = 2
            found.append(row)
    return found


def _behind(station: Any) -> float:
    """What stands behind the pistons of one wheel [cm³], at the reach that the model assumes."""
    reach = float(assumed("fluid.piston_reach"))
    brake = station.brake
    area = 2.0 * float(brake.side_area) * brake.calipers if hasattr(brake, "side_area") else 2.0 * float(brake.cylinder_area)
    return area * reach * CM3


def _stroke(system: System, own: Bleeding) -> dict[str, Any]:
    if own.stroke_volume_cm3 is not None:
        return {"stroke_volume_cm3": own.stroke_volume_cm3}
    cylinder = system.cylinder
    if cylinder.kind == "twin" or cylinder.bore_mm is None or cylinder.stroke_mm is None:
        return {}
    share = {"stroke_share": 1.0} if cylinder.kind == "single" else {}
    return {"bore_mm": cylinder.bore_mm, "stroke_mm": cylinder.stroke_mm, **share}


def _school(job: Job, name: str, index: int, own: Bleeding, bled: dict[str, Record]) -> SchoolView:
    system = job.setup(name).systems[index]
    question: dict[str, Any] = {
        "branches": _branches(job, name, index, own), "school": own.school or "furthest_first", "fluid": system.fluid,
        **_stroke(system, own),
        **{k: v for k, v in own.model_dump(exclude_none=True).items() if k in ("fluid_in", "cylinder_side", "reservoir_cm3", "low_mark_cm3")},
    }  # fmt: skip
    if own.school == "list":
        question["list"] = [n for n in own.order or [] if n in {b["name"] for b in question["branches"]}]
    view: SchoolView = {
        "system": system.name, "screws": [], "total_cm3": None, "total_g": None, "strokes": None, "top_ups": None, "order_from": "",
        "warnings": [], "refused": "",
    }  # fmt: skip
    try:
        told = ask_prove.bleeding(Asked(question))
    except BadPlace as refused:
        view["refused"] = refused.reason
        return view
    for row in told["order"]:
        label = row["branch"] if row["screw"] == "only" else f"{row['branch']}, {row['screw']} screw"
        before = row["top_up_before_strokes"]
        after = row["top_up_after_cm3"]
        top = (
            f"fill up before stroke {', '.join(map(str, before))}"
            if before
            else f"fill up after {', '.join(f'{v:.0f}' for v in after)} cm³"
            if after
            else ""
        )
        record = bled.get(label)
        screw: ScrewView = {
            "name": label, "branch": row["branch"], "screw": row["screw"], "fluid_cm3": row["fluid_cm3"], "fluid_g": row["fluid_g"],
            "strokes": row["strokes"], "top_up": top, "bled": None if record is None else _bled_view(record),
        }  # fmt: skip
        view["screws"].append(screw)
    alone = len(question["branches"]) < 2  # one screw has no order
    warnings: list[WarningView] = [
        {"level": w["level"], "words": words.WARNING[w["id"]]}
        for w in told["warnings"]
        if not (alone and w["id"] == "order_from_seats")
    ]
    return {
        **view, "total_cm3": told["total_fluid_cm3"], "total_g": told["total_g"], "strokes": told["total_strokes"], "top_ups": told["top_ups"],
        "order_from": told["order_from"], "warnings": warnings,
    }  # fmt: skip


def _holds(job: Job, name: str, records: tuple[Record, ...]) -> HoldsView:
    """What the pedals that were held say together."""
    every = _own(records, "hold", name)
    counted = [r for r in every if r.struck is None]
    setup = job.setup(name).model_dump(exclude_none=True)
    solved = answer_of(ByContent(job.setup(name))).solved
    circuits = [c.name for c in solved.main.healthy.pulls[0].system.cylinder.chambers] if solved is not None else []
    rows: list[HoldView] = [
        {
            "key": r.key, "plugged": list(r.body.get("plugged", [])), "struck": r.struck, "kind": "", "loss_cm3": None, "loss_low_cm3": None, "loss_high_cm3": None,
            "readings": ", ".join(f"{_text(t, 's')} {_text(x, 'mm')}" for t, x in zip(r.body["times_s"], r.body["travels_mm"], strict=False)),
        }
        for r in every
    ]  # fmt: skip
    view: HoldsView = {"rows": rows, "circuits": circuits, "level": None, "sentence": ""}
    if not counted or solved is None:
        return view
    question = {
        "setup": setup,
        "holds": [
            {"plugged": [p for p in r.body.get("plugged", []) if p in circuits],
             "readings": [{"time_s": t, "travel_mm": x} for t, x in zip(r.body["times_s"], r.body["travels_mm"], strict=False)]}
            for r in counted
        ],
    }  # fmt: skip
    try:
        told = ask_bleed.holding(Asked(question))
    except BadPlace as refused:
        view["level"], view["sentence"] = "caution", refused.reason
        return view
    by = {r.key: row for r, row in zip(counted, told["holds"], strict=True)}
    for row in rows:
        own = by.get(row["key"])
        if own is not None:
            loss = own["loss_cm3_per_min"]
            row["kind"], row["loss_cm3"] = words.CLASS[own["class"]], loss["value"]
            row["loss_low_cm3"], row["loss_high_cm3"] = loss["low"], loss["high"]
    view["level"], view["sentence"] = told["level"], words.where_words(told["where"])
    return view


def _push_view(record: Record) -> PushView:
    body = record.body

    def known(key: str) -> float | None:
        return None if body.get(key) is None else value_of(body[key], key)

    return {
        "key": record.key, "run": body.get("run", 1), "force": _text(body["force"], "N"), "force_n": value_of(body["force"], "pedal_force_n"),
        "front": _text(body.get("front_kpa"), "kPa"), "front_kpa": known("front_kpa"), "rear": _text(body.get("rear_kpa"), "kPa"),
        "rear_kpa": known("rear_kpa"), "travel": _text(body.get("travel_mm"), "mm"), "travel_mm": known("travel_mm"),
        "simulated": bool(body.get("simulated")), "struck": record.struck,
    }  # fmt: skip


def _accept(job: Job, name: str, system: int, fitted: str, value: float, half: float) -> tuple[str, list[Edit]]:
    """What accepting a fitted figure sets in the plan, as a measured value with its ±, and in words; nothing where it sets nothing."""
    root = job.root(name)
    setup = job.setup(name)
    own = setup.systems[system]
    path, now, then = "", 0.0, 0.0
    if fitted == "ratio_efficiency" and own.cylinder.kind != "twin":
        control = own.control
        if control.pivot_to_pad_mm is None or control.pivot_to_pin_mm is None or control.linkage is not None:
            return "", []
        ratio = value_of(control.pivot_to_pad_mm, "pivot_to_pad_mm") / value_of(control.pivot_to_pin_mm, "pivot_to_pin_mm")
        core = (answer_of(ByContent(setup)).converted.systems or [])[system]
        share = ratio * float(core.cylinder.efficiency)
        path, now, then, half = "control.efficiency", float(core.control.efficiency), value / share, half / share
        if not 0.3 <= then <= 1.0:
            return "", []
    elif fitted in ("knee_kpa", "valve_slope"):
        for j, station in enumerate(own.stations):
            for k, device in enumerate(station.devices):
                if station.axle == "rear" and device.kind == "proportioning":
                    key = "knee_kpa" if fitted == "knee_kpa" else "slope"
                    path, then = f"stations.{j}.devices.{k}.{key}", value
                    typed = getattr(device, key)
                    now = value_of(typed, key) if typed is not None else 0.43
    if not path:
        return "", []
    full = f"{root}.systems.{system}.{path}"
    digits = 0 if fitted == "knee_kpa" else 3
    edits: list[Edit] = [
        set_at(full, round(then, digits)),
        {"op": "set", "path": f"/tolerances/{full}", "value": f"{max(half, 1e-3):.3f}"},
    ]
    label = path.rpartition(".")[2].removesuffix("_kpa").replace("_", " ")
    return f"{label}: {now:.{digits}f} becomes {then:.{digits}f}, measured", edits


def _estimate(told: StandAnswer, name: Fitted) -> Shown | None:
    """The estimate of a figure that the test compares with the plan."""
    front, valve = told["front"], told["valve"]
    match name:
        case "threshold_n":
            return None if front is None else front["threshold_n"]
        case "knee_kpa":
            return None if valve is None else valve["knee_kpa"]
        case "valve_slope":
            return None if valve is None else valve["slope"]
        case "gain":
            return told["gain"] or told["gain_if_ratio_as_planned"]
        case _:
            return told[name]


def _fitted(job: Job, name: str, system: int, told: StandAnswer) -> list[FittedView]:
    found: list[FittedView] = []
    for row in told["against_plan"]:
        said, unit = words.FITTED[row["name"]]
        own = _estimate(told, row["name"])
        assert own is not None  # it is compared because it is known
        half = (own["high"] - own["low"]) / 2
        accept, edits = _accept(job, name, system, row["name"], own["value"], half)
        found.append(
            {"name": row["name"], "words": said, "value": own["value"], "low": own["low"], "high": own["high"], "plan": row["plan"],
             "unit": unit, "off": row["off"] and row["outside"], "accept": accept, "edits": edits}
        )  # fmt: skip
    travel = told["travel"]
    if travel is not None and travel["verdict"] == "air" and travel["air_cm3"] is not None:
        own = travel["air_cm3"]
        found.append(
            {"name": "air_cm3", "words": "air in the lines", "value": own["value"], "low": own["low"], "high": own["high"], "plan": None,
             "unit": "cm³", "off": True, "accept": "", "edits": []}
        )  # fmt: skip
    return found


def _travel_sentence(told: StandAnswer) -> str:
    travel = told["travel"]
    if travel is None:
        return ""
    missing = max(travel["missing_mm"], default=0.0)
    if travel["verdict"] == "as_built":
        return "The pedal goes as far as the parts say."
    if (air := travel["air_cm3"]) is not None and travel["verdict"] == "air":
        return f"The pedal goes {missing:.0f} mm further than the parts say: {air['value']:.2f} cm³ of air (± {(air['high'] - air['low']) / 2:.2f}). Bleed again."
    if travel["verdict"] == "adjustment":
        return f"The pedal goes {missing:.0f} mm further than the parts say, alike at every push: clearance or free play."
    if travel["verdict"] == "hose_swell":
        return f"The pedal goes {missing:.0f} mm further, more with every push: a hose swells."
    return "The pedal is not as the parts say; air and clearance look alike above 50 N: push 10 to 15 N, three times."


def stand_of(stored: StoredJob, name: str, run: int | None = None) -> StandView:
    """The stand test of the setup by `name`: its last run where none is asked for."""
    job = stored.job
    setup = job.setup(name)
    every = _own(stored.records, "push", name)
    systems = [s.name for s in setup.systems]
    system = next((r.body["system"] for r in reversed(every) if r.body.get("system") in systems), systems[0])
    own = [r for r in every if r.body.get("system", systems[0]) == system]
    runs = sorted({r.body.get("run", 1) for r in own}) or [1]
    at = run if run is not None and run in runs else runs[-1]
    shown = [r for r in own if r.body.get("run", 1) == at]
    counted = [r for r in shown if r.struck is None and not r.body.get("simulated")]
    needs = answer_of(ByContent(setup)).needs.get("decel", [])
    pushes = sorted((_push_view(r) for r in shown), key=lambda p: p["force_n"])
    most = max([MOST_PUSH, *(p["force_n"] * 1.1 for p in pushes)])
    bands = bands_of(job, name, system, most) if not needs else None
    axles: set[str] = {s.axle for s in setup.systems[systems.index(system)].stations}
    gates = [r for r in _own(stored.records, "signed", name) if r.body["step"] == GATE and r.struck is None]
    view: StandView = {
        "system": system, "systems": systems, "run": at, "runs": runs, "pushes": pushes, "has_front": "front" in axles, "has_rear": "rear" in axles,
        "front": bands.front if bands else [], "rear": bands.rear if bands else [], "travel": bands.travel if bands else [], "verdict": None,
        "reasons": [], "fitted": [], "travel_sentence": "", "needs": len(needs), "refused": "",
        "signed": _bled_view(gates[-1]) if gates else None,
    }  # fmt: skip
    if needs or not counted:
        return view
    rows = [
        {
            "pedal_force_n": r.body["force"],
            **{k: r.body[k] for k in ("front_kpa", "rear_kpa", "travel_mm") if r.body.get(k) is not None},
        }
        for r in counted
    ]
    question = {
        **_alone(setup, system),
        "pushes": [r for r in rows if "front_kpa" in r or "rear_kpa" in r],
    }
    if not question["pushes"]:
        view["refused"] = "No gauge was read: one at least stands at a bleed screw."
        return view
    try:
        told = ask_stand.stood(Asked(question))
    except BadPlace as refused:
        view["refused"] = refused.reason
        return view
    reasons = [r for r in told["reasons"] if _asked_of(r, axles)]
    view["verdict"] = "drive_slowly" if not reasons else told["verdict"]
    view["reasons"] = [words.REASON.get(r, r.replace("_", " ")) for r in reasons]
    view["fitted"] = _fitted(job, name, systems.index(system), told)
    view["travel_sentence"] = _travel_sentence(told)
    return view


def _alone(setup: Setup, system: str) -> dict[str, Any]:
    """A question's setup with one control pressed alone."""
    solved = answer_of(ByContent(setup)).solved
    paths = {} if solved is None else solved.paths
    return {
        "setup": setup.model_dump(exclude_none=True),
        "system": system,
        **({"path": f"{system}_alone"} if f"{system}_alone" in paths else {}),
    }


def _asked_of(reason: str, axles: set[str]) -> bool:
    """Whether a reason is one for a control with those axles: a gauge that cannot be there is not missed."""
    return not (reason in ("front_not_read", "rear_not_read") and reason.partition("_")[0] not in axles)


def bleed_of(stored: StoredJob, name: str) -> BleedView:
    """Bleed of the setup by `name`. Raises NotFound."""
    job, own = stored.job, _bleeding(stored.job, name)
    setup = job.setup(name)
    bled = {r.body["screw"]: r for r in _own(stored.records, "bled", name) if r.struck is None}
    return {
        "page": "bleed", "revision": stored.revision, "setup": name,
        "schools": [_school(job, name, n, own, bled) for n in range(len(setup.systems))], "school": own.school or "furthest_first",
        "method": own.method or "", "fluid_in": own.fluid_in or "", "fluid": setup.systems[0].fluid, "reservoir": _text(own.reservoir_cm3, "cm³"),
        "low_mark": _text(own.low_mark_cm3, "cm³"), "stroke": _text(own.stroke_volume_cm3, "cm³"), "holds": _holds(job, name, stored.records),
        "stand": stand_of(stored, name), "watch": watch_of(job, name, stored.records), "certified": job.vehicle.kind == "aircraft",
    }  # fmt: skip


def shown(stored: StoredJob, name: str | None) -> BleedView:
    """What Bleed's page shows."""
    return bleed_of(stored, chosen(stored.job, name))


def standing(stored: StoredJob) -> Standing:
    """How far Bleed is: whether the stand test was signed, else what it says."""
    name = chosen(stored.job, None)
    kinds = ("bled", "hold", "push")
    if not any(r.kind in kinds and r.body.get("setup") == name for r in stored.records):
        return {"state": "empty", "words": "empty"}
    stand = stand_of(stored, name)
    if watch_of(stored.job, name, stored.records)["wet"]:
        return {"state": "doubt", "words": "a joint is wet"}
    if stand["signed"] is not None:
        return {"state": "ready", "words": "signed"}
    if stand["verdict"] == "do_not_drive":
        return {"state": "doubt", "words": "do not drive"}
    if stand["verdict"] == "look_again":
        return {"state": "doubt", "words": "look again"}
    return {"state": "begun", "words": "stand test" if stand["pushes"] else "begun"}


def simulated(job: Job, asked: SimulateIn) -> SimulateOut:
    """What simulated gauges show of a push. Raises BadEntry, NotFound."""
    setup = job.setup(asked.setup)
    force = read(asked.force, "pedal_force_n", asked.preferred)
    try:
        subject = Subject(Asked(_alone(setup, asked.system or setup.systems[0].name)))
        true: dict[str, float | None] = {}
        for axle in ("front", "rear"):
            station = subject.on_axle(axle)
            true[axle] = None if station is None else subject.pressure_at(force.value, station.name) / 1000
        travel = subject.travel_at(subject.path.healthy, force.value)
    except BadPlace as refused:
        raise BadEntry("simulated gauges", "this setup", "a setup with its lines known", refused.reason) from None
    told = reading(true["front"], true["rear"], travel if math.isfinite(travel) else None, asked.seed)
    return {"force": force.text, "front_kpa": told["front_kpa"], "rear_kpa": told["rear_kpa"], "travel_mm": told["travel_mm"]}

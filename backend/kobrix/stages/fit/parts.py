"""The parts list of a plan: what its changes and its joints ask for, less what is here."""

from datetime import date
from typing import Any

from kobrix.core.fit.missing import Wanted as Needed
from kobrix.core.work.steps import Change
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.evaluate.ask.steps import differs
from kobrix.evaluate.line_places import DEVICE, Placed
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup, System
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.shelf import ShelfPart
from kobrix.fileformat.stations import DiscBrake, DrumBrake, Station
from kobrix.stages.fit import lines
from kobrix.stages.fit.section import axle_words
from kobrix.stages.fit.shapes import ListRow, PartsListView

Wanted = dict[str, tuple[int, str]]  # part: how many, shop
CM3 = 1e6


def _mm(value: Any) -> str:
    return f"{value:g} mm" if isinstance(value, int | float) else str(value)


def _caliper(brake: DiscBrake, axle: str) -> str:
    pistons = " + ".join(_mm(p).removesuffix(" mm") for p in brake.pistons_mm or []) or "size not known"
    return f"{axle} caliper, {brake.caliper or 'disc'}, {pistons}"


def _rotor(brake: DiscBrake, axle: str) -> str:
    size = _mm(brake.rotor_diameter_mm) if brake.rotor_diameter_mm is not None else "size not known"
    thick = f" x {_mm(brake.rotor_thickness_mm).removesuffix(' mm')}" if brake.rotor_thickness_mm is not None else ""
    return f"{axle} rotor, {size.removesuffix(' mm')}{thick}{', vented' if brake.rotor_vented else ''}"


def _brake_parts(station: Station, axle: str, kinds: set[str]) -> Wanted:
    brake, found = station.brake, Wanted()
    if isinstance(brake, DrumBrake):
        if "wheel_cylinders" in kinds:
            found[f"{axle} wheel cylinder, {_mm(brake.wheel_cylinder_mm or 'size not known')}"] = (
                station.wheels,
                "others",
            )
        return found
    if kinds & {"calipers", "drum_to_disc"}:
        found[_caliper(brake, axle)] = (station.wheels * brake.calipers, "others")
    if kinds & {"rotors", "drum_to_disc"}:
        found[_rotor(brake, axle)] = (station.wheels * brake.rotors_per_wheel, "others")
    if kinds & {"calipers", "drum_to_disc", "pads"}:
        found[f"{axle} brake pads, set"] = (1, "others")
    return found


def _line_parts(station: Station, axle: str, kinds: set[str]) -> Wanted:
    found = Wanted()
    known = station.lines
    if "hoses" in kinds and known is not None:
        for hose in known.hoses:
            length = _mm(hose.length_mm) if hose.length_mm is not None else "length not known"
            found[f"{axle} hose, {length}, {hose.kind or 'kind not known'}"] = (hose.count, "fittings")
    if "hard_line" in kinds and known is not None:
        for line in known.hard_lines:
            length = _mm(line.length_mm) if line.length_mm is not None else "length not known"
            metal = (line.material or "").replace("_", "-")
            found[f"{axle} hard line, {length} in all, {metal}".rstrip(", ")] = (1, "fittings")
    return found


def _new_devices(found: Station | None, plan: Station) -> Wanted:
    had = [d.kind for d in found.devices] if found is not None else []
    return {
        f"{DEVICE[d.kind]}, to {plan.name}": (1, "fittings")
        for d in plan.devices
        if had.count(d.kind) < [x.kind for x in plan.devices].count(d.kind)
    }


def _cylinder(system: System) -> Wanted:
    cylinder = system.cylinder
    if cylinder.kind == "twin":
        return {f"{system.name} cylinder {end}, {_mm(own.bore_mm or 'bore not known')}": (1, "others")
                for end, own in (("front", cylinder.front), ("rear", cylinder.rear))}  # fmt: skip
    return {f"{system.name} master cylinder, {_mm(cylinder.bore_mm or 'bore not known')} {cylinder.kind}": (1, "others")}


def main_parts(found: Setup, plan: Setup, changes: list[Change]) -> Wanted:
    """The parts themselves that a plan puts in: cylinder, calipers, rotors, pads, hoses, lines, valves."""
    wanted = Wanted()
    before = {s.name: s for s in found.systems}
    for system in plan.systems:
        old = before.get(system.name)
        kinds = {c.kind for c in changes if c.axle is None}
        if "cylinder_changed" in kinds and (old is None or differs(old.cylinder.model_dump(), system.cylinder.model_dump())):
            wanted |= _cylinder(system)
        stations = {s.name: s for s in old.stations} if old is not None else {}
        for station in system.stations:
            own = {c.kind for c in changes if c.axle == station.axle}
            axle = axle_words(plan, station.axle)
            wanted |= (
                _brake_parts(station, axle, own)
                | _line_parts(station, axle, own)
                | _new_devices(stations.get(station.name), station)
            )
    return wanted


def _fluid(plan: Setup, changes: list[Change]) -> dict[str, Any] | None:
    """What the system holds, where its lines are known; nothing is bought where nothing is opened."""
    if not changes:
        return None
    systems = answer_of(ByContent(plan)).converted.systems
    held = [s.lines.fluid_volume for own in systems or [] for s in own.stations if s.lines is not None]
    if not held:
        return None
    reservoir = sum(value_of(v, "reservoir_cm3") for s in plan.systems for v in (s.cylinder.reservoir_cm3 or {}).values())
    return {"system_cm3": sum(float(v) for v in held) * CM3, "reservoir_cm3": reservoir, "grade": plan.systems[0].fluid}


def _shelved(job: Job, wanted: Wanted) -> dict[str, ShelfPart]:
    """Parts of the job's shelf that are one of the `wanted`, by its name."""
    found: dict[str, ShelfPart] = {}
    for part in job.shelf:
        if part.kind == "pad" or part.axle is None:
            continue
        if part.kind == "caliper":
            brake = DiscBrake(kind="disc", caliper=part.caliper, pistons_mm=part.pistons_mm)
            name = _caliper(brake, part.axle)
        else:
            name = _rotor(
                DiscBrake(kind="disc", rotor_diameter_mm=part.rotor_diameter_mm, rotor_thickness_mm=part.rotor_thickness_mm,
                          rotor_vented=part.rotor_vented), part.axle
            )  # fmt: skip
        if name in wanted and (name not in found or part.on_hand):
            found[name] = part
    return found


def parts_list(
    job: Job, name: str, plan: Setup, changes: list[Change], placed: list[Placed], today: date | None
) -> PartsListView:
    """Everything the setup by `name` needs, less what is here; `today` tells how many days are left where a day is planned."""
    fitting = next(
        (p.fit for p in (job.as_found, *job.plans) if p.name == name or (p is job.as_found and name == job.names[0])), None
    )
    joints = (fitting.joints if fitting is not None else None) or {}
    at = {p.key: p for p in placed}
    asked_joints, made = [], Wanted()
    for key, joint in joints.items():
        place = at.get(key)
        count = joint.count or (place.place.count if place is not None else 1)
        opened = joint.opened if joint.opened is not None else place is None or place.opened
        need = lines.needs_of(joint, count, opened)
        if need is not None:
            asked_joints.append(need)
        for part, number in lines.made_for(joint, count):
            made[part] = (made.get(part, (0, ""))[0] + number, "fittings")
    wanted = main_parts(job.setup(job.names[0]), plan, changes) | made
    listed = {row.part: (n, row) for n, row in enumerate(job.parts_list)}
    extra = [(row.part, row.wanted, row.shop or "others") for _, row in listed.values() if row.wanted]
    question: dict[str, Any] = {
        "question": "still_missing", "joints": asked_joints,
        "changes": [{"kind": c.kind, **({"axle": c.axle} if c.axle else {})} for c in changes],
        "sides": {axle: _sides(plan, axle) for axle in ("front", "rear")},
        "parts": [{"part": p, "count": n, "shop": s} for p, (n, s) in wanted.items()] + [{"part": p, "count": n, "shop": s} for p, n, s in extra],
        "shelf": [{"part": row.part, "count": row.have} for _, row in listed.values() if row.have],
    }  # fmt: skip
    shelved = _shelved(job, wanted)
    question["shelf"] += [{"part": p, "count": wanted[p][0]} for p, own in shelved.items() if own.on_hand and p not in listed]
    fluid = _fluid(plan, changes)
    if fluid is not None:
        question["fluid"] = fluid
    if job.planned is not None and today is not None:
        question |= {"today": today.isoformat(), "planned": job.planned}
    told = ask_fit.missing(Asked(question))
    missing = {row["part"]: row["count"] for row in told["missing"]}
    rows = [_row(row, missing, listed, shelved, wanted) for row in told["need"] if row["count"] > 0]
    needed = {row["part"] for row in rows}
    rows += [_spare(n, part) for n, part in listed.values() if part.part not in needed]
    order = {row["part"]: n for n, row in enumerate(told["missing"])}
    rows.sort(key=lambda r: (order.get(r["part"], len(order)),))
    costs = [row["cost"] for row in rows]
    return {
        "rows": rows, "sentence": told["sentence"], "missing": len(missing), "here": told["on_hand_kinds"],
        "cost": sum(c for c in costs if c is not None), "unpriced": costs.count(None), "planned": job.planned or "",
        "days_left": told.get("days_left"), "alarm": bool(told.get("alarm", False)),
    }  # fmt: skip


def _sides(plan: Setup, axle: str) -> list[str]:
    wheels = max((s.wheels for system in plan.systems for s in system.stations if s.axle == axle), default=2)
    return ["left", "right"] if wheels == 2 else ["only"]


def _row(
    row: Needed, missing: dict[str, float], listed: dict[str, Any], shelved: dict[str, ShelfPart], wanted: Wanted
) -> ListRow:
    part, count = row["part"], row["count"]
    n, own = listed.get(part, (None, None))
    shelf = shelved.get(part)
    here = own.have or 0.0 if own is not None else count if shelf is not None and shelf.on_hand else 0.0
    price = own.price if own is not None and own.price is not None else None
    # The shelf's price is for the axle, the list's for one.
    if price is None and shelf is not None and shelf.price is not None:
        price = shelf.price / max(1, wanted[part][0])
    return {
        "part": part, "count": count, "have": here, "ordered": own.ordered or 0.0 if own is not None else 0.0,
        "missing": missing.get(part, 0.0), "price": price, "cost": None if price is None else price * count,
        "source": (own.source or "") if own is not None else "", "shop": row["shop"], "at": n, "own": False, "shelf": shelf is not None,
    }  # fmt: skip


def _spare(n: int, own: Any) -> ListRow:
    """What stands on the job's list and is not asked for by this plan."""
    return {
        "part": own.part, "count": 0.0, "have": own.have or 0.0, "ordered": own.ordered or 0.0, "missing": 0.0, "price": own.price,
        "cost": 0.0, "source": own.source or "", "shop": own.shop or "others", "at": n, "own": True, "shelf": False,
    }  # fmt: skip

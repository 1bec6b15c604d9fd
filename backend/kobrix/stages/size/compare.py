"""Setups of a job side by side: every entry that differs, every result at one stop, and the difference in words."""

from typing import Any

from kobrix.core.physics import chain
from kobrix.core.physics.solved_setup import SolvedPath
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.results import MM, Places, first_lock
from kobrix.evaluate.solve import Answer, ByContent, answer_of, pick, wanted_stop
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.stages.size.shapes import ComparedInput, ComparedResult, Comparison

_LOCKS = {"front": "front", "rear": "rear", "both": "both", "rear_lift": "rear lifts", "none": "nothing"}


def _entries(job: Job, name: str) -> dict[str, tuple[str, str, str]]:
    """{path below the setup: (part, label, text)} of every entry that has its own or a usual value."""
    sheet = measure_sheet(job, name)
    found = {}
    for section in sheet["sections"]:
        for group in section["groups"]:
            part = f"{section['title']}, {group['title'].lower()}" if group["title"] else section["title"]
            for entry in group["entries"]:
                text = entry["text"] or ("" if entry["flag"] is None else "yes" if entry["flag"] else "no")
                if not text and entry["default"] is not None:
                    text = f"{entry['default']['text']} (assumed)"
                words = {c["value"]: c["label"] for c in entry["choices"]}
                below = entry["path"].removeprefix(f"{sheet['root']}.")
                key = below.removesuffix(".booster") if entry["key"] == "kind" else below
                found[key] = (part, entry["label"], words.get(text, text))
    return found


def _inputs(job: Job, names: list[str]) -> list[ComparedInput]:
    own = [_entries(job, name) for name in names]
    keys = dict.fromkeys(key for entries in own for key in entries)
    rows: list[ComparedInput] = []
    for key in keys:
        values = [entries[key][2] if key in entries else "" for entries in own]
        if len(set(values)) > 1:
            part, label, _ = next(entries[key] for entries in own if key in entries)
            rows.append({"part": part, "label": label, "values": [v or "none" for v in values]})
    return rows


def _figures(answer: Answer, wanted: float, load: int) -> dict[tuple[str, str], float | str | None]:
    """{(label, unit): figure} of one setup at the stop wanted in a load state."""
    solved_setup = answer.solved
    if solved_setup is None:
        return {}
    path: SolvedPath = solved_setup.main
    own_lock = pick(path.healthy.event.decel, load, 0)
    held = own_lock < wanted
    place, known = path.healthy.reach(min(wanted, own_lock))
    found: dict[tuple[str, str], float | str | None] = {}
    if pick(known, load, 0, 0):
        at = Places(path.healthy, place).moment_document(load, 0)
        push = at["pedal_force_n"]
        found["push for the stop", "N"] = f"{push:.0f}, at its first lock" if held else push
        for name, own in at["systems"].items():
            by = f", {name}" if len(at["systems"]) > 1 else ""
            found[f"rod force{by}", "N"] = own["rod_force_n"]
            found[f"pedal travel{by}", "mm"] = own.get("pedal_travel_mm")
            for station, s in own["stations"].items():
                found[f"line pressure, {station}", "MPa"] = s["pressure_kpa"] / 1e3
                found[f"clamp force, {station}", "kN"] = s["clamp_n"] / 1e3 if "clamp_n" in s else None
                found[f"torque a wheel, {station}", "N m"] = s["torque_per_wheel_nm"]
        found["front share of the braking", "%"] = None if at["front_brake_share"] is None else at["front_brake_share"] * 100.0
        found["adhesion used, front", ""] = at["adhesion_front"]
        found["adhesion used, rear", ""] = at["adhesion_rear"]
    else:
        found["push for the stop", "N"] = "never"
    lock = pick(path.healthy.event.decel, load, 0)
    found["locks first", ""] = _LOCKS[first_lock(path, load)]
    found["first lock", "g"] = lock if lock < 1e6 else None
    if lock < 1e6:
        number = chain.place_of([[[pick(path.healthy.event.place, load, 0)]]], path.healthy.road.decel.shape[-1] - 1)  # type: ignore[arg-type]
        found["push at first lock", "N"] = pick(path.healthy.push_at(number), load, 0, 0)
        found["grip used at first lock", "%"] = lock / pick(path.grip_limit, load) * 100.0
    if path.left is not None:
        for c, failing in enumerate(solved_setup.conditions):
            if failing.is_loss:
                words = " ".join(filter(None, [failing.system, failing.what or "booster"])).replace("_", " ")
                found[f"left with {words} lost", "g"] = pick(path.left.best, load, c)
    for pull in path.healthy.pulls:
        room = pull.system.control.available
        if room is not None:
            found["room for the pedal", "mm"] = float(room) * MM
    return found


def _text(value: float | str | None, unit: str) -> str:
    if value is None:
        return "none"
    if isinstance(value, str):
        return value
    digits = {"N": 0, "mm": 1, "MPa": 2, "kN": 2, "N m": 0, "%": 1, "g": 3, "": 3}[unit]
    return f"{value:.{digits}f}"


def _results(answers: list[Answer], wanted: float, load: int) -> list[ComparedResult]:
    own = [_figures(a, wanted, min(load, max(0, len(a.converted.load_names) - 1))) for a in answers]
    keys = dict.fromkeys(key for figures in own for key in figures)
    return [
        {"label": label, "unit": unit, "values": [_text(f.get((label, unit)), unit) for f in own],
         "differs": len({_text(f.get((label, unit)), unit) for f in own}) > 1}
        for label, unit in keys
    ]  # fmt: skip


def _words(name: str, own: dict[tuple[str, str], Any], base: dict[tuple[str, str], Any], against: str) -> str:
    said = []
    push, was = own.get(("push for the stop", "N")), base.get(("push for the stop", "N"))
    if isinstance(push, float) and isinstance(was, float):
        change = round((1.0 - push / was) * 100.0)
        said.append("the same push" if change == 0 else f"{abs(change)} % {'lighter' if change > 0 else 'heavier'}")
    travel, before = own.get(("pedal travel", "mm")), base.get(("pedal travel", "mm"))
    if travel is not None and before is not None:
        longer = round(travel - before)
        said.append("the same travel" if longer == 0 else f"{abs(longer)} mm {'longer' if longer > 0 else 'shorter'}")
    lock, then = own.get(("locks first", "")), base.get(("locks first", ""))
    if lock != then:
        said.append(f"{lock} locks first instead of {then}" if lock != "nothing" else "nothing locks")
    grip, used = own.get(("grip used at first lock", "%")), base.get(("grip used at first lock", "%"))
    if grip is not None and used is not None and abs(grip - used) >= 0.5:
        said.append(f"{abs(grip - used):.1f} % {'more' if grip > used else 'less'} of the grip used at first lock")
    return f"{name[:1].upper()}{name[1:]}: {', '.join(said)}, than {against}." if said else ""


def compare(job: Job, load: int, against: str = AS_FOUND, decel: float | None = None) -> Comparison:
    """All setups of a `job` side by side at a stop of `decel` [g] (left out: the one wanted of all) in a `load` state; in words `against` one of them."""
    names = job.names
    answers = [answer_of(ByContent(job.setup(name))) for name in names]
    stop = decel or wanted_stop(answers) or 0.5
    figures = [_figures(a, stop, load) for a in answers]
    base = figures[names.index(against)]
    words = [_words(n, f, base, against) for n, f in zip(names, figures, strict=True) if n != against and f and base]
    return {"setups": names, "decel_g": stop, "inputs": _inputs(job, names), "results": _results(answers, stop, load),
            "words": [w for w in words if w]}  # fmt: skip

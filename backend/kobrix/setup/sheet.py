"""The sheet of what a person measures on one setup of a job: every field that applies, as typed, in both units, with what
stands in for it and what it is for. Made from the models, so that a number stands in one place.
"""

import typing
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel

from kobrix.core.constants import ASSUMED, STAND_INS, Known
from kobrix.setup import measuring, model
from kobrix.setup.convert import convert
from kobrix.setup.derived import derived
from kobrix.setup.fields import Quantity, with_unit
from kobrix.setup.helpers import helpers_of
from kobrix.setup.job import AS_FOUND, Job
from kobrix.setup.measuring import Ask
from kobrix.setup.quantities import other_unit, read, si_factor, unit_of, value_of
from kobrix.setup.stations import DiscBrake, Hose, Lines, Station

Doc = dict[str, Any]


@dataclass
class _Page:
    """What all entries of a sheet ask: the job, the root of the setup in it, and what is missing for which answer."""

    job: Job
    root: str
    decel: list[str]
    travel: list[str]

    def needed(self, below: str) -> str | None:
        """What the entry at a path `below` the setup is still needed for."""
        if below in self.decel:
            return "decel"
        return "travel" if below in self.travel else None

    def full(self, below: str) -> str:
        """The path in the job of a path `below` the setup; the vehicle stands once, beside the setups."""
        return below if below.startswith("vehicle") else f"{self.root}.{below}"


def quantity_of(kind: type[BaseModel], name: str) -> Quantity | None:
    """The quantity that a dotted field `name` of a model `kind` holds, alone or in a list; None for words and flags."""
    head, _, rest = name.partition(".")
    info = kind.model_fields[head]
    if rest and not rest.isdigit():
        inner = next(a for a in (info.annotation, *typing.get_args(info.annotation)) if _is_model(a))
        return quantity_of(inner, rest)
    found = [m for m in info.metadata if isinstance(m, Quantity)]
    waiting: list[Any] = list(typing.get_args(info.annotation))
    while waiting and not found:
        part = waiting.pop(0)
        found = [m for m in getattr(part, "__metadata__", ()) if isinstance(m, Quantity)]
        waiting += typing.get_args(part)
    return found[0] if found else None


def _is_model(kind: Any) -> bool:
    return isinstance(kind, type) and issubclass(kind, BaseModel)


def entry_of(part: BaseModel | None, name: str) -> Any:
    """What stands in the dotted field `name` of a `part`; None where there is nothing."""
    here: Any = part
    for step in name.split("."):
        here = None if here is None else here[int(step)] if step.isdigit() else getattr(here, step)
    return here


def default_of(part: BaseModel, name: str, quantity: Quantity | None, fluid: str) -> Known | None:
    """The usual value that stands in for the field `name` of a `part` when it is left out; None when there is none."""
    if quantity is not None and quantity.assumed is not None:
        return ASSUMED[quantity.assumed]
    if name == "caliper_give_um_per_mpa" and isinstance(part, DiscBrake) and part.caliper is not None:
        return ASSUMED[f"disc.give_{part.caliper}"]
    if name == "coefficient_cm3_per_m_mpa" and isinstance(part, Hose) and part.kind is not None:
        return ASSUMED[f"hose.{part.kind}"]
    if name == "bulk_modulus_gpa":
        return ASSUMED["fluid.bulk_silicone" if fluid == "DOT 5" else "fluid.bulk"]
    return None


def _known(known: Known, name: str) -> Doc:
    size = si_factor(name)
    ends = [None if v is None else v / size for v in (known.least, known.most)]
    return {"value": known.value / size, "text": with_unit(known.value / size, name), "standing": known.standing,
            "source": known.source, "least": ends[0], "most": ends[1]}  # fmt: skip


def _words(typed: Any, name: str) -> str:
    if typed is None:
        return ""
    if isinstance(typed, list):
        texts = [t if isinstance(t, str) else with_unit(t, name) for t in typed]
        same = [(t, texts.count(t)) for t in dict.fromkeys(texts)]
        return " + ".join(f"{n} × {t}" if n > 1 else t for t, n in same)
    return typed if isinstance(typed, str) else with_unit(float(typed), name)


def _figures(doc: Doc, typed: Any, quantity: Quantity, path: str, page: _Page) -> None:
    name = quantity.name
    doc["unit"], doc["allowed"], doc["why"] = unit_of(name)[1], quantity.allowed, quantity.why
    doc["least"], doc["most"] = quantity.least, quantity.most
    if typed is None:
        return
    if isinstance(typed, list):
        sizes = [value_of(t, name) for t in typed]
        doc["values"] = sizes
        doc["other"] = other_unit(sizes[0], name, _symbol(typed[0], name)) if len(set(sizes)) == 1 else ""
        return
    value = value_of(typed, name)
    doc["value"], doc["other"] = value, other_unit(value, name, _symbol(typed, name))
    plus_minus = page.job.tolerances.get(path)
    if plus_minus is not None:
        width = value_of(plus_minus.lstrip("±+- "), name)
        doc["plus_minus"] = {"text": plus_minus.lstrip("±+- "), "value": width, "least": value - width, "most": value + width}


def _symbol(typed: Any, name: str) -> str:
    return read(typed, name).symbol if isinstance(typed, str) else unit_of(name)[1]


def _entry(ask: Ask, part: BaseModel, below: str, page: _Page, fluid: str) -> Doc:
    """One field of a `part` that stands at a path `below` the setup."""
    quantity = quantity_of(type(part), ask.field)
    typed = entry_of(part, ask.field)
    own = f"{below}.{ask.field}"
    path = page.full(own)
    name = quantity.name if quantity is not None else ask.field
    default = default_of(part, ask.field, quantity, fluid)
    said = path in page.job.assumed
    stand_in = STAND_INS[ask.stand_in] if ask.stand_in is not None else None
    doc: Doc = {
        "key": ask.field, "path": path, "label": ask.label, "how": ask.how, "kind": ask.kind, "more": ask.more, "guess": ask.guess,
        "text": _words(typed, name) if ask.kind != "flag" else "", "flag": typed if ask.kind == "flag" else None,
        "state": "assumed" if (typed is None and default is not None) or (typed is not None and said) else
                 "unknown" if typed is None else "measured",
        "value": None, "values": [], "other": "", "unit": "", "allowed": "", "why": "", "least": None, "most": None,
        "plus_minus": None, "needed": page.needed(own), "unsure": said,
        "default": None if default is None else _known(default, name),
        "stand_in": None if stand_in is None else _known(stand_in, name),
        "choices": [{"value": v, "label": w, "edits": [{"path": path, "value": v}]} for v, w in ask.choices],
    }  # fmt: skip
    if quantity is not None:
        _figures(doc, typed, quantity, path, page)
    return doc


def _kind(label: str, how: str, now: str, kinds: tuple[tuple[str, str], ...], path: str, make: Callable[[str], list[Doc]]) -> Doc:
    """A choice that changes what the whole part is."""
    return {
        "key": "kind", "path": path, "label": label, "how": how, "kind": "choice", "more": False, "guess": False,
        "text": now, "flag": None, "state": "measured", "value": None, "values": [], "other": "", "unit": "", "allowed": "",
        "why": "", "least": None, "most": None, "plus_minus": None, "needed": None, "unsure": False, "default": None,
        "stand_in": None, "choices": [{"value": v, "label": w, "edits": make(v)} for v, w in kinds],
    }  # fmt: skip


@dataclass
class _Section:
    key: str
    kind: str
    title: str
    note: str = ""
    groups: list[Doc] = field(default_factory=list)
    adds: list[Doc] = field(default_factory=list)
    derived: list[Doc] = field(default_factory=list)
    devices: Doc | None = None

    def group(self, title: str, entries: list[Doc], remove: list[Doc] | None = None) -> None:
        """Entries that belong together, under a `title`; `remove` are the edits that take them away."""
        self.groups.append({"title": title, "entries": entries, "remove": remove or []})

    def document(self) -> Doc:
        """The section with how much of it is measured."""
        asked = [e for g in self.groups for e in g["entries"] if not e["more"]]
        unsure = sum(1 for e in asked if e["unsure"])
        done = sum(1 for e in asked if e["state"] == "measured" or e["unsure"])
        needed = any(e["needed"] for e in asked)
        state = "empty" if done == 0 else "begun" if done < len(asked) else "doubt" if unsure else "ready"
        return {
            "key": self.key, "kind": self.kind, "title": self.title, "note": self.note, "groups": self.groups,
            "adds": self.adds, "devices": self.devices, "derived": self.derived, "helpers": helpers_of(self.kind),
            "done": done, "total": len(asked), "unsure": unsure, "needed": needed, "state": state if asked else "ready",
        }  # fmt: skip


def _dump(part: BaseModel) -> Doc:
    return part.model_dump(exclude_unset=True)


def _cylinder_as(kind: str, part: Any) -> Doc:
    """The cylinder as another `kind`, with what the two have in common kept."""
    kept = {k: v for k, v in _dump(part).items() if k in ("efficiency", "spring_n", "height_above_brakes_mm", "reservoir_cm3")}
    bored = part.front if part.kind == "twin" else part
    sizes = {k: v for k, v in (("bore_mm", bored.bore_mm), ("stroke_mm", bored.stroke_mm)) if v is not None}
    if kind == part.kind:
        return _dump(part)
    if kind == "twin":
        return {"kind": kind, "front": sizes, "rear": dict(sizes), "bar": {"front_share": 0.5}, **kept}
    return {"kind": kind, **sizes, **kept}


def _brake_as(kind: str, part: Any) -> Doc:
    if kind == part.kind:
        return _dump(part)
    friction = {} if part.friction is None else {"friction": _dump(part.friction)}
    return {"kind": kind, **friction}


_CONTROLS = {"car_pedal": "Pedal", "hand_lever": "Hand lever", "motorcycle_foot": "Foot lever", "aircraft_pedal": "Toe pedal"}


def _rod(part: model.Control, path: str) -> Doc:
    """The choice between a rod along the bore and a linkage; one that is put in begins with the rod in line with the bore."""

    def make(kind: str) -> list[Doc]:
        if kind == "straight":
            return [{"path": path}]
        pin = 60.0 if part.pivot_to_pin_mm is None else value_of(part.pivot_to_pin_mm, "pivot_to_pin_mm")
        start = {"rest_angle_deg": -90, "sense": 1, "bore_point_mm": [150, -pin], "bore_direction_deg": 0, "rod_mm": 150}
        return [{"path": path, "value": start if part.linkage is None else _dump(part.linkage)}]

    now = "straight" if part.linkage is None else "linkage"
    entry = _kind("pushrod", "An angle of more than a few degrees, or a bell crank.", now, measuring.RODS, path, make)
    return {**entry, "key": "linkage", "more": True}


def _control(page: _Page, part: model.Control, below: str, key: str, before: str) -> list[_Section]:
    """The section of a control, and that of its linkage."""
    title = before + _CONTROLS[part.kind]
    section = _Section(key, "control", title, "to scale, at rest; the dash-dot one stands on its stop")
    path = page.full(f"{below}.linkage")
    section.group("", [_entry(a, part, below, page, "") for a in measuring.control(part.kind)] + [_rod(part, path)])
    if part.linkage is None:
        return [section]
    linked = _Section(key.replace("control", "linkage"), "linkage", before + "Linkage", "from the side, to scale, at rest")
    turn = [{"path": f"{path}.sense", "value": int(v)} for v, _ in measuring.SENSES]
    sense = _kind("pressed, the pin turns", "Seen with the bore to the right.", str(part.linkage.sense), measuring.SENSES,
                  f"{path}.sense", lambda v: [e for e in turn if e["value"] == int(v)])  # fmt: skip
    entries = [_entry(a, part, below, page, "") for a in measuring.LINKAGE]
    linked.group("", [*entries, {**sense, "key": "linkage.sense"}])
    return [section, linked]


def _booster(page: _Page, system: model.System, i: int, before: str) -> _Section:
    below, part = f"systems.{i}.booster", system.booster
    path = page.full(below)

    def make(kind: str) -> list[Doc]:
        if kind == "none":
            return [{"path": path}]
        return [{"path": path, "value": {**(_dump(part) if part is not None else {}), "kind": kind}}]

    now = "none" if part is None else part.kind
    section = _Section(f"booster.{i}", "booster", before + "Booster", "what helps the foot, and where it runs out")
    entries = [_kind("booster", "Between pedal and cylinder.", now, measuring.BOOSTER_KINDS, path, make)]
    if part is not None:
        entries += [_entry(a, part, below, page, system.fluid) for a in measuring.BOOSTER[part.kind]]
    section.group("", entries)
    return section


def _cylinder(
    page: _Page, part: model.Cylinder, below: str, key: str, before: str, kinds: tuple[tuple[str, str], ...]
) -> _Section:
    """A cylinder, which may become another of `kinds`."""
    path = page.full(below)

    def make(kind: str) -> list[Doc]:
        return [{"path": path, "value": _cylinder_as(kind, part)}]

    section = _Section(key, "cylinder", before + "Cylinder", f"{dict(measuring.CYLINDER_KINDS)[part.kind]}, cut open, at rest")
    asks = measuring.CYLINDER[part.kind]
    if isinstance(part, model.TandemCylinder) and isinstance(part.circuits, list):
        asks = [a for a in asks if a.field != "circuits"]
    entries = (
        [_kind("cylinder", "One chamber, two in a row, or two side by side.", part.kind, kinds, path, make)] if kinds else []
    )
    section.group("", entries + [_entry(a, part, below, page, "") for a in asks])
    return section


def _brake(page: _Page, system: model.System, i: int, k: int, before: str) -> _Section:
    station = system.stations[k]
    below = f"systems.{i}.stations.{k}.brake"
    part, path = station.brake, page.full(below)

    def make(kind: str) -> list[Doc]:
        return [{"path": path, "value": _brake_as(kind, part)}]

    title = before + f"{station.axle.capitalize()} brake" + ("s" if station.wheels > 1 else "")
    section = _Section(
        f"brake.{i}.{k}", "brake", title, f"{station.wheels} wheel{'s' * (station.wheels > 1)}, {station.axle} axle"
    )
    entries = [_kind("brake", "", part.kind, measuring.BRAKE_KINDS, path, make)]
    section.group("", entries + [_entry(a, part, below, page, system.fluid) for a in measuring.BRAKE[part.kind]])
    return section


def _without(items: list[Any], index: int) -> list[Any]:
    return [_dump(item) for n, item in enumerate(items) if n != index]


def _lines_of(page: _Page, section: _Section, station: Station, below: str, fluid: str) -> None:
    """Hoses, hard lines and devices of one station."""
    lines = station.lines or Lines()
    name = station.name.capitalize()
    for n, hose in enumerate(lines.hoses):
        own = f"{below}.lines.hoses.{n}"
        gone = [{"path": page.full(f"{below}.lines.hoses"), "value": _without(lines.hoses, n)}]
        section.group(f"{name}, hose", [_entry(a, hose, own, page, fluid) for a in measuring.HOSE], gone)
    for n, pipe in enumerate(lines.hard_lines):
        own = f"{below}.lines.hard_lines.{n}"
        gone = [{"path": page.full(f"{below}.lines.hard_lines"), "value": _without(lines.hard_lines, n)}]
        section.group(f"{name}, hard line", [_entry(a, pipe, own, page, fluid) for a in measuring.HARD_LINE], gone)
    for n, device in enumerate(station.devices):
        own, asks = f"{below}.devices.{n}", measuring.DEVICE[device.kind]
        gone = [{"path": page.full(f"{below}.devices"), "value": _without(list(station.devices), n)}]
        title = f"{name}, {dict(measuring.DEVICE_KINDS)[device.kind]}"
        section.group(title, [_entry(a, device, own, page, fluid) for a in asks], gone)
    section.group(f"{name}, all its lines", [_entry(a, lines, f"{below}.lines", page, fluid) for a in measuring.LINES_MORE])
    have = {"hoses": [_dump(h) for h in lines.hoses], "hard_lines": [_dump(p) for p in lines.hard_lines]}
    for what, new, label in (
        ("hoses", {"kind": "rubber", "count": station.wheels}, "hose"),
        ("hard_lines", {"material": "steel"}, "hard line"),
    ):
        edit = {"path": page.full(f"{below}.lines.{what}"), "value": [*have[what], new]}
        section.adds.append({"label": f"{label}, {station.name}", "edits": [edit]})


def _lines(page: _Page, system: model.System, i: int, before: str) -> _Section:
    section = _Section(f"lines.{i}", "lines", before + "Lines, valves", "from the cylinder to the wheels, not to scale")
    path = page.full(f"systems.{i}.fluid")
    fluid = _entry(Ask("fluid", "fluid", "On the cap.", "choice", choices=measuring.FLUIDS), system, f"systems.{i}", page, "")
    fluid["path"] = path
    section.group("", [fluid])
    targets = []
    for k, station in enumerate(system.stations):
        below = f"systems.{i}.stations.{k}"
        _lines_of(page, section, station, below, system.fluid)
        devices = [_dump(d) for d in station.devices]
        targets.append({"label": station.name, "path": page.full(f"{below}.devices"), "have": devices})
    kinds = []
    for kind, label in measuring.DEVICE_KINDS:
        asks = [a for a in measuring.DEVICE[kind] if a.kind == "quantity"]
        kinds.append({
            "kind": kind, "label": label, "asks": [{"field": a.field, "label": a.label, "how": a.how} for a in asks],
        })  # fmt: skip
    section.devices = {"targets": targets, "kinds": kinds}
    return section


def _vehicle(page: _Page, setup: model.Setup) -> _Section:
    section = _Section("vehicle", "vehicle", "Vehicle", "to scale; weights on level ground")
    entries = [_entry(a, setup.vehicle, "vehicle", page, "") for a in measuring.VEHICLE]
    for i, system in enumerate(setup.systems):
        for k, station in enumerate(system.stations):
            own = f"systems.{i}.stations.{k}"
            for ask in (measuring.TYRE, measuring.RADIUS):
                entry = _entry(ask, station, own, page, system.fluid)
                entry["label"] = f"{station.axle} {entry['label']}"
                if ask is measuring.TYRE and station.rolling_radius_mm is not None:
                    entry["more"] = station.tyre is None
                entries.append(entry)
    states = setup.vehicle.load_states
    if len(states) == 1:
        entries += [_entry(a, states[0], "vehicle.load_states.0", page, "") for a in measuring.LOAD_STATE]
    section.group("", entries)
    for n, state in enumerate(states if len(states) > 1 else []):
        gone = [{"path": "vehicle.load_states", "value": _without(states, n)}]
        fields = [_entry(a, state, f"vehicle.load_states.{n}", page, "") for a in measuring.LOAD_STATE]
        section.group(state.name, fields, gone)
    new = {"name": next(n for n in ("loaded", *(f"loaded {k}" for k in range(2, 14))) if n not in {s.name for s in states})}
    edit = {"path": "vehicle.load_states", "value": [*map(_dump, states), new]}
    section.adds.append({"label": "another load", "edits": [edit]})
    return section


def _like(page: _Page, setup: model.Setup, i: int) -> list[Doc]:
    """The press that makes a control, its cylinder and its brakes the same as those of the control before it."""
    if i == 0 or setup.systems[i].control.kind != setup.systems[i - 1].control.kind:
        return []
    own, other = setup.systems[i], setup.systems[i - 1]
    edits = [{"path": page.full(f"systems.{i}.{part}"), "value": _dump(getattr(other, part))} for part in ("control", "cylinder")]
    for k, (mine, theirs) in enumerate(zip(own.stations, other.stations, strict=False)):
        value = {**_dump(theirs), "name": mine.name, "axle": mine.axle}
        edits.append({"path": page.full(f"systems.{i}.stations.{k}"), "value": value})
    return [{"label": f"the same as the {other.name}", "edits": edits}]


def root_of(job: Job, name: str) -> str:
    """Path in the job of the setup by `name`. Raises NotFound with the names there are."""
    job.setup(name)
    return "as_found" if name == AS_FOUND else f"plans.{[p.name for p in job.plans].index(name)}"


def measure_sheet(job: Job, name: str) -> Doc:
    """The sheet of the setup by `name` of a `job`: sections in the order of the work, progress, and what each answer needs."""
    setup = job.setup(name)
    converted = convert(setup)
    page = _Page(job, root_of(job, name), converted.gaps.decel, converted.gaps.travel)
    several = len(setup.systems) > 1 or any(s.seconds for s in setup.systems)
    sections: list[_Section] = []
    for i, system in enumerate(setup.systems):
        before = f"{system.name.capitalize()}: " if several else ""
        here = f"systems.{i}"
        sections += _control(page, system.control, f"{here}.control", f"control.{i}", before)
        next(s for s in reversed(sections) if s.kind == "control").adds = _like(page, setup, i)
        if system.control.kind == "car_pedal":
            sections.append(_booster(page, system, i, before))
        kinds = measuring.CYLINDER_KINDS if len({s.axle for s in system.stations}) > 1 else ()
        sections.append(_cylinder(page, system.cylinder, f"{here}.cylinder", f"cylinder.{i}", before, kinds))
        listed = isinstance(system.second_control, list)
        for n, (called, second) in enumerate(system.seconds):
            below = f"{here}.second_control" + (f".{n}" if listed else "")
            own = f"{called.capitalize()}: "
            sections += _control(page, second.control, f"{below}.control", f"control.{i}.second.{n}", own)
            sections.append(_cylinder(page, second.cylinder, f"{below}.cylinder", f"cylinder.{i}.second.{n}", own, ()))
        sections += [_brake(page, system, i, k, before) for k in range(len(system.stations))]
        sections.append(_lines(page, system, i, before))
    sections.append(_vehicle(page, setup))
    for section in sections:
        section.derived = derived(setup, section.key)
    docs = [s.document() for s in sections]
    words = {e["path"]: (s["key"], e["label"]) for s in docs for g in s["groups"] for e in g["entries"]}

    def missing(paths: list[str]) -> list[Doc]:
        found = []
        for below in dict.fromkeys(paths):
            path = page.full(below)
            key, label = words.get(path, ("", path.split(".")[-1].replace("_", " ")))
            if not key:
                key = next((s["key"] for s in docs if s["kind"] == "lines" and ".lines" in path), "vehicle")
            title = next((s["title"] for s in docs if s["key"] == key), "")
            found.append({"path": path, "section": key, "label": f"{title}: {label}"})
        return found

    return {
        "setup": name, "root": page.root, "kind": setup.vehicle.kind, "sections": docs,
        "done": sum(s["done"] for s in docs), "total": sum(s["total"] for s in docs),
        "needs": {"decel": missing(page.decel), "travel": missing([p for p in page.travel if p not in page.decel])},
        "condition": [n.model_dump() for n in job.condition],
    }  # fmt: skip


def measured(job: Job) -> Doc:
    """How much of a `job` as found is measured: {done, total}, and how much of it is in doubt: entries said not to be known,
    and notes on the condition of what is not fine."""
    sheet = measure_sheet(job, AS_FOUND)
    doubted = sum(s["unsure"] for s in sheet["sections"]) + sum(note.level != "fine" for note in job.condition)
    return {"done": sheet["done"], "total": sheet["total"], "doubted": doubted}

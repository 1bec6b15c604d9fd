"""The sheet of what a person measures on one setup of a job: every field that applies, as typed, in both units, with what
stands in for it and what it is for. Made from the models, so that a number stands in one place.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Literal

from pydantic import BaseModel

from kobrix.core.constants import STAND_INS, Known
from kobrix.evaluate.entries.derived import derived
from kobrix.evaluate.entries.helpers import helpers_of
from kobrix.evaluate.entries.shapes import (
    Addition,
    ControlKind,
    Derived,
    DeviceKind,
    Devices,
    DeviceTarget,
    Entry,
    Group,
    Measured,
    Missing,
    Note,
    Piece,
    Section,
    SectionKind,
    Sheet,
    Usual,
    UsualDoubt,
)
from kobrix.evaluate.to_core import convert
from kobrix.evaluate.uncertainty import usual_kind, usual_width
from kobrix.fileformat import field_catalog, models
from kobrix.fileformat import job as job_file
from kobrix.fileformat.field_catalog import Ask, default_of, entry_of, quantity_of
from kobrix.fileformat.fields import Quantity, number_text, with_unit
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.paths import Edit, JsonObject, insert_at, pointer, set_at, take_away
from kobrix.fileformat.quantities import other_unit, read, si_factor, unit_of, value_of
from kobrix.fileformat.stations import Lines, Station


@dataclass
class _Page:
    """What all entries of a sheet ask: the job, the root of the setup in it, and what is missing for which answer."""

    job: Job
    root: str
    decel: list[str]
    travel: list[str]

    def needed(self, below: str) -> Literal["decel", "travel"] | None:
        """What the entry at a path `below` the setup is still needed for."""
        if below in self.decel:
            return "decel"
        return "travel" if below in self.travel else None

    def full(self, below: str) -> str:
        """The path in the job of a path `below` the setup; the vehicle stands once, beside the setups."""
        return below if below.startswith("vehicle") else f"{self.root}.{below}"


def _known(known: Known, name: str) -> Usual:
    size = si_factor(name)
    ends = [None if v is None else v / size for v in (known.least, known.most)]
    text = f"{number_text(known.value * 100.0)} %" if name.endswith("_share") else with_unit(known.value / size, name)
    return {"value": known.value / size, "text": text, "standing": known.standing,
            "source": known.source, "least": ends[0], "most": ends[1]}  # fmt: skip


def _words(typed: Any, name: str) -> str:
    if typed is None:
        return ""
    if isinstance(typed, list):
        texts = [t if isinstance(t, str) else with_unit(t, name) for t in typed]
        same = [(t, texts.count(t)) for t in dict.fromkeys(texts)]
        return " + ".join(f"{n} × {t}" if n > 1 else t for t, n in same)
    return typed if isinstance(typed, str) else with_unit(float(typed), name)


def _figures(doc: Entry, typed: Any, quantity: Quantity, path: str, page: _Page) -> None:
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


def _entry(ask: Ask, part: BaseModel, below: str, page: _Page, fluid: str) -> Entry:
    """One field of a `part` that stands at a path `below` the setup."""
    quantity = quantity_of(type(part), ask.field)
    typed = entry_of(part, ask.field)
    own = f"{below}.{ask.field}"
    path = page.full(own)
    name = quantity.name if quantity is not None else ask.field
    default = default_of(part, ask.field, quantity, fluid)
    said = path in page.job.assumed
    stand_in = STAND_INS[ask.stand_in] if ask.stand_in is not None else None
    doc: Entry = {
        "key": ask.field, "path": path, "label": ask.label, "how": ask.how, "kind": ask.kind, "more": ask.more, "guess": ask.guess, "line": ask.line,
        "text": _words(typed, name) if ask.kind != "flag" else "", "flag": typed if ask.kind == "flag" else None,
        "state": "assumed" if (typed is None and default is not None) or (typed is not None and said) else
                 "unknown" if typed is None else "measured",
        "value": None, "values": [], "other": "", "unit": "", "allowed": "", "why": "", "least": None, "most": None,
        "plus_minus": None, "exact": path in page.job.exact, "usual_doubt": None, "needed": page.needed(own), "unsure": said,
        "default": None if default is None else _known(default, name),
        "stand_in": None if stand_in is None else _known(stand_in, name),
        "choices": [{"value": v, "label": w, "edits": [set_at(path, v)]} for v, w in ask.choices],
    }  # fmt: skip
    if quantity is not None:
        _figures(doc, typed, quantity, path, page)
        if doc["state"] == "measured" and doc["plus_minus"] is None and not doc["exact"]:
            doc["usual_doubt"] = _usual_doubt(typed, quantity, part, page)
    return doc


def _usual_doubt(typed: Any, quantity: Quantity, part: BaseModel, page: _Page) -> UsualDoubt | None:
    """How far an entry that was typed bare is usually off; None where it is taken as exact."""
    kind = usual_kind(quantity, part, page.job.vehicle.kind)
    if kind is None or isinstance(typed, list):
        return None
    width = usual_width(kind, value_of(typed, quantity.name), quantity.name, page.job)
    return {"text": f"± {with_unit(width, quantity.name)}", "value": width}


def _kind(
    label: str, how: str, now: str, kinds: tuple[tuple[str, str], ...], path: str, edits_for: Callable[[str], list[Edit]]
) -> Entry:
    """A choice that changes what the whole part is."""
    return {
        "key": "kind", "path": path, "label": label, "how": how, "kind": "choice", "more": False, "guess": False, "line": False,
        "text": now, "flag": None, "state": "measured", "value": None, "values": [], "other": "", "unit": "", "allowed": "",
        "why": "", "least": None, "most": None, "plus_minus": None, "exact": False, "usual_doubt": None, "needed": None, "unsure": False, "default": None,
        "stand_in": None, "choices": [{"value": v, "label": w, "edits": edits_for(v)} for v, w in kinds],
    }  # fmt: skip


@dataclass
class _Section:
    key: str
    kind: SectionKind
    title: str
    note: str = ""
    groups: list[Group] = field(default_factory=list)
    adds: list[Addition] = field(default_factory=list)
    derived: list[Derived] = field(default_factory=list)
    devices: Devices | None = None
    control: ControlKind | None = None
    axle: Literal["front", "rear"] | None = None

    def group(
        self, title: str, entries: list[Entry], remove: list[Edit] | None = None,
        station: str | None = None, piece: Piece | None = None,
    ) -> None:  # fmt: skip
        """Entries that belong together, under a `title`; `remove` are the edits that take them away."""
        self.groups.append({"title": title, "station": station, "piece": piece, "entries": entries, "remove": remove or []})

    def document(self) -> Section:
        """The section with how much of it is measured."""
        asked = [e for g in self.groups for e in g["entries"] if not e["more"]]
        unsure = sum(1 for e in asked if e["unsure"])
        done = sum(1 for e in asked if e["state"] == "measured" or e["unsure"])
        needed = any(e["needed"] for e in asked)
        state: Literal["empty", "begun", "doubt", "ready"] = (
            "empty" if done == 0 else "begun" if done < len(asked) else "doubt" if unsure else "ready"
        )
        return {
            "key": self.key, "kind": self.kind, "control": self.control, "axle": self.axle, "title": self.title, "note": self.note, "groups": self.groups,
            "adds": self.adds, "devices": self.devices, "derived": self.derived, "helpers": helpers_of(self.kind),
            "done": done, "total": len(asked), "unsure": unsure, "needed": needed, "state": state if asked else "ready",
        }  # fmt: skip


def _dump(part: BaseModel) -> JsonObject:
    return part.model_dump(exclude_unset=True)


def _cylinder_as(kind: str, part: Any) -> JsonObject:
    """The cylinder as another `kind`, with what the two have in common kept."""
    kept = {k: v for k, v in _dump(part).items() if k in ("efficiency", "spring_n", "height_above_brakes_mm", "reservoir_cm3")}
    bored = part.front if part.kind == "twin" else part
    sizes = {k: v for k, v in (("bore_mm", bored.bore_mm), ("stroke_mm", bored.stroke_mm)) if v is not None}
    if kind == part.kind:
        return _dump(part)
    if kind == "twin":
        return {"kind": kind, "front": sizes, "rear": dict(sizes), "bar": {"front_share": 0.5}, **kept}
    return {"kind": kind, **sizes, **kept}


def _brake_as(kind: str, part: Any) -> JsonObject:
    if kind == part.kind:
        return _dump(part)
    friction = {} if part.friction is None else {"friction": _dump(part.friction)}
    return {"kind": kind, **friction}


_CONTROLS = {"car_pedal": "Pedal", "hand_lever": "Hand lever", "motorcycle_foot": "Foot lever", "aircraft_pedal": "Toe pedal"}


def _rod(part: models.Control, path: str) -> Entry:
    """The choice between a rod along the bore and a linkage; one that is put in begins with the rod in line with the bore."""

    def edits_for(kind: str) -> list[Edit]:
        if kind == "straight":
            return [take_away(path)]
        pin = 60.0 if part.pivot_to_pin_mm is None else value_of(part.pivot_to_pin_mm, "pivot_to_pin_mm")
        start = {"rest_angle_deg": -90, "sense": 1, "bore_point_mm": [150, -pin], "bore_direction_deg": 0, "rod_mm": 150}
        return [set_at(path, start if part.linkage is None else _dump(part.linkage))]

    now = "straight" if part.linkage is None else "linkage"
    entry = _kind("pushrod", "An angle of more than a few degrees, or a bell crank.", now, field_catalog.RODS, path, edits_for)
    entry["key"], entry["more"] = "linkage", True
    return entry


def _control(page: _Page, part: models.Control, below: str, key: str, before: str) -> list[_Section]:
    """The section of a control, and that of its linkage."""
    title = before + _CONTROLS[part.kind]
    section = _Section(key, "control", title, "to scale, at rest; the dash-dot one stands on its stop", control=part.kind)
    path = page.full(f"{below}.linkage")
    section.group("", [_entry(a, part, below, page, "") for a in field_catalog.control(part.kind)] + [_rod(part, path)])
    if part.linkage is None:
        return [section]
    linked = _Section(key.replace("control", "linkage"), "linkage", before + "Linkage", "from the side, to scale, at rest")
    sense = _kind("pressed, the pin turns", "Seen with the bore to the right.", str(part.linkage.sense), field_catalog.SENSES,
                  f"{path}.sense", lambda v: [set_at(f"{path}.sense", int(v))])  # fmt: skip
    entries = [_entry(a, part, below, page, "") for a in field_catalog.LINKAGE]
    sense["key"] = "linkage.sense"
    linked.group("", [*entries, sense])
    return [section, linked]


def _booster(page: _Page, system: models.System, i: int, before: str) -> _Section:
    below, part = f"systems.{i}.booster", system.booster
    path = page.full(below)

    def edits_for(kind: str) -> list[Edit]:
        if kind == "none":
            return [take_away(path)]
        return [set_at(path, {**(_dump(part) if part is not None else {}), "kind": kind})]

    now = "none" if part is None else part.kind
    section = _Section(f"booster.{i}", "booster", before + "Booster", "what helps the foot, and where it runs out")
    entries = [_kind("booster", "Between pedal and cylinder.", now, field_catalog.BOOSTER_KINDS, path, edits_for)]
    if part is not None:
        entries += [_entry(a, part, below, page, system.fluid) for a in field_catalog.BOOSTER[part.kind]]
    section.group("", entries)
    return section


def _cylinder(
    page: _Page, part: models.Cylinder, below: str, key: str, before: str, kinds: tuple[tuple[str, str], ...]
) -> _Section:
    """A cylinder, which may become another of `kinds`."""
    path = page.full(below)

    def edits_for(kind: str) -> list[Edit]:
        return [set_at(path, _cylinder_as(kind, part))]

    section = _Section(
        key, "cylinder", before + "Cylinder", f"{dict(field_catalog.CYLINDER_KINDS)[part.kind]}, cut open, at rest"
    )
    asks = field_catalog.CYLINDER[part.kind]
    if isinstance(part, models.TandemCylinder) and isinstance(part.circuits, list):
        asks = [a for a in asks if a.field != "circuits"]
    entries = (
        [_kind("cylinder", "One chamber, two in a row, or two side by side.", part.kind, kinds, path, edits_for)] if kinds else []
    )
    section.group("", entries + [_entry(a, part, below, page, "") for a in asks])
    return section


def _brake(page: _Page, system: models.System, i: int, k: int, before: str) -> _Section:
    station = system.stations[k]
    below = f"systems.{i}.stations.{k}.brake"
    part, path = station.brake, page.full(below)

    def edits_for(kind: str) -> list[Edit]:
        return [set_at(path, _brake_as(kind, part))]

    title = before + f"{station.axle.capitalize()} brake" + ("s" if station.wheels > 1 else "")
    section = _Section(
        f"brake.{i}.{k}",
        "brake",
        title,
        f"{station.wheels} wheel{'s' * (station.wheels > 1)}, {station.axle} axle",
        axle=station.axle,
    )
    entries = [_kind("brake", "", part.kind, field_catalog.BRAKE_KINDS, path, edits_for)]
    section.group("", entries + [_entry(a, part, below, page, system.fluid) for a in field_catalog.BRAKE[part.kind]])
    return section


def _lines_of(page: _Page, section: _Section, station: Station, below: str, fluid: str) -> None:
    """Hoses, hard lines and devices of one station."""
    lines = station.lines or Lines()
    name = station.name.capitalize()
    for n, hose in enumerate(lines.hoses):
        own = f"{below}.lines.hoses.{n}"
        gone = [take_away(page.full(own))]
        section.group(
            f"{name}, hose", [_entry(a, hose, own, page, fluid) for a in field_catalog.HOSE], gone, station.name, "hose"
        )
    for n, pipe in enumerate(lines.hard_lines):
        own = f"{below}.lines.hard_lines.{n}"
        gone = [take_away(page.full(own))]
        section.group(
            f"{name}, hard line",
            [_entry(a, pipe, own, page, fluid) for a in field_catalog.HARD_LINE],
            gone,
            station.name,
            "hard_line",
        )
    for n, device in enumerate(station.devices):
        own, asks = f"{below}.devices.{n}", field_catalog.DEVICE[device.kind]
        gone = [take_away(page.full(own))]
        title = f"{name}, {dict(field_catalog.DEVICE_KINDS)[device.kind]}"
        section.group(title, [_entry(a, device, own, page, fluid) for a in asks], gone, station.name, "device")
    more = [_entry(a, lines, f"{below}.lines", page, fluid) for a in field_catalog.LINES_MORE]
    section.group(f"{name}, all its lines", more, None, station.name, "all")
    new = {"hoses": {"kind": "rubber", "count": station.wheels}, "hard_lines": {"material": "steel"}}
    for what, label in (("hoses", "hose"), ("hard_lines", "hard line")):
        path = page.full(f"{below}.lines.{what}")
        section.adds.append({"label": f"{label}, {station.name}", "edits": [insert_at(f"{path}.-", new[what])]})


def _lines(page: _Page, system: models.System, i: int, before: str) -> _Section:
    section = _Section(f"lines.{i}", "lines", before + "Lines, valves", "from the cylinder to the wheels, not to scale")
    path = page.full(f"systems.{i}.fluid")
    fluid = _entry(Ask("fluid", "fluid", "On the cap.", "choice", choices=field_catalog.FLUIDS), system, f"systems.{i}", page, "")
    fluid["path"] = path
    most = Ask(
        "fluid_most_c", "fluid's most", "The highest temperature its maker states; left out: its wet boiling point.", more=True
    )
    section.group("", [fluid, _entry(most, system, f"systems.{i}", page, system.fluid)])
    targets: list[DeviceTarget] = []
    for k, station in enumerate(system.stations):
        below = f"systems.{i}.stations.{k}"
        _lines_of(page, section, station, below, system.fluid)
        targets.append({"label": station.name, "path": pointer(page.full(f"{below}.devices"))})
    kinds: list[DeviceKind] = []
    for kind, label in field_catalog.DEVICE_KINDS:
        asks = [a for a in field_catalog.DEVICE[kind] if a.kind == "quantity"]
        kinds.append({
            "kind": kind, "label": label, "asks": [{"field": a.field, "label": a.label, "how": a.how} for a in asks],
        })  # fmt: skip
    section.devices = {"targets": targets, "kinds": kinds}
    return section


def _vehicle(page: _Page, setup: models.Setup) -> _Section:
    section = _Section("vehicle", "vehicle", "Vehicle", "to scale; weights on level ground")
    entries = [_entry(a, setup.vehicle, "vehicle", page, "") for a in field_catalog.VEHICLE]
    for i, system in enumerate(setup.systems):
        for k, station in enumerate(system.stations):
            own = f"systems.{i}.stations.{k}"
            for ask in (field_catalog.TYRE, field_catalog.RADIUS):
                entry = _entry(ask, station, own, page, system.fluid)
                entry["label"] = f"{station.axle} {entry['label']}"
                if ask is field_catalog.TYRE and station.rolling_radius_mm is not None:
                    entry["more"] = station.tyre is None
                entries.append(entry)
    states = setup.vehicle.load_states
    if len(states) == 1:
        entries += [_entry(a, states[0], "vehicle.load_states.0", page, "") for a in field_catalog.load_state(setup.vehicle.kind)]
    section.group("", entries)
    for n, state in enumerate(states if len(states) > 1 else []):
        gone = [take_away(f"vehicle.load_states.{n}")]
        fields = [_entry(a, state, f"vehicle.load_states.{n}", page, "") for a in field_catalog.load_state(setup.vehicle.kind)]
        section.group(state.name, fields, gone)
    new = {"name": next(n for n in ("loaded", *(f"loaded {k}" for k in range(2, 14))) if n not in {s.name for s in states})}
    section.adds.append({"label": "another load", "edits": [insert_at("vehicle.load_states.-", new)]})
    return section


def _like(page: _Page, setup: models.Setup, i: int) -> list[Addition]:
    """The press that makes a control, its cylinder and its brakes the same as those of the control before it."""
    if i == 0 or setup.systems[i].control.kind != setup.systems[i - 1].control.kind:
        return []
    own, other = setup.systems[i], setup.systems[i - 1]
    edits = [set_at(page.full(f"systems.{i}.{part}"), _dump(getattr(other, part))) for part in ("control", "cylinder")]
    for k, (mine, theirs) in enumerate(zip(own.stations, other.stations, strict=False)):
        value = {**_dump(theirs), "name": mine.name, "axle": mine.axle}
        edits.append(set_at(page.full(f"systems.{i}.stations.{k}"), value))
    return [{"label": f"the same as the {other.name}", "edits": edits}]


def _note(note: job_file.Note) -> Note:
    return {
        "about": note.about,
        "text": note.text,
        "level": note.level,
        "photos": [{"sha256": p.sha256, "name": p.name} for p in note.photos],
    }


def measure_sheet(job: Job, name: str) -> Sheet:
    """The sheet of the setup by `name` of a `job`: sections in the order of the work, progress, and what each answer needs."""
    setup = job.setup(name)
    converted = convert(setup)
    page = _Page(job, job.root(name), converted.gaps.decel, converted.gaps.travel)
    several = len(setup.systems) > 1 or any(s.seconds for s in setup.systems)
    sections: list[_Section] = []
    for i, system in enumerate(setup.systems):
        before = f"{system.name.capitalize()}: " if several else ""
        here = f"systems.{i}"
        sections += _control(page, system.control, f"{here}.control", f"control.{i}", before)
        next(s for s in reversed(sections) if s.kind == "control").adds = _like(page, setup, i)
        if system.control.kind == "car_pedal":
            sections.append(_booster(page, system, i, before))
        kinds = field_catalog.CYLINDER_KINDS if len({s.axle for s in system.stations}) > 1 else ()
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

    def missing(paths: list[str]) -> list[Missing]:
        found: list[Missing] = []
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
        "condition": [_note(n) for n in job.condition],
    }  # fmt: skip


def measured(job: Job) -> Measured:
    """How much of a `job` as found is measured: {done, total}, and how much of it is in doubt: entries said not to be known,
    and notes on the condition of what is not fine."""
    sheet = measure_sheet(job, AS_FOUND)
    doubted = sum(s["unsure"] for s in sheet["sections"]) + sum(note.level != "fine" for note in job.condition)
    return {"done": sheet["done"], "total": sheet["total"], "doubted": doubted}

"""Where the lines of a setup are joined: each way from a cylinder to its brakes, its joints, what they are called and which a plan opens."""

from dataclasses import dataclass

from kobrix.core.fit.line_map import Branch, JointPlace, Kind, PartOfLine, Sharing, opened_by, places_of, upstream_places
from kobrix.core.work.steps import Change
from kobrix.fileformat.models import Cylinder, Setup, SingleCylinder, System, TandemCylinder
from kobrix.fileformat.stations import DiscBrake, Station

DEVICE = {
    "metering": "metering valve", "proportioning": "proportioning valve", "limiting": "limiting valve", "regulator": "regulator",
    "load_sensing": "load sensing valve", "deceleration_sensing": "inertia valve", "residual": "residual valve",
    "line_lock": "line lock", "park_valve": "park valve", "switch": "pressure switch",
}  # fmt: skip
PART: dict[PartOfLine, str] = {
    "cylinder": "cylinder port", "line": "hard line", "valve": "valve port", "switch": "switch", "tee": "tee", "hose": "hose end",
    "brake": "brake port", "inlet": "inlet of the next cylinder",
}  # fmt: skip
_TITLE: dict[Kind, str] = {
    "port": "cylinder to {b}", "shared_in": "{a} to the tee of all brakes", "shared_out": "tee of all brakes to {b}", "valve_in": "into the {device}", "valve_out": "out of the {device}", "switch": "pressure switch",
    "tee_in": "{a} to tee", "tee_out": "tee to {b}", "hose_in": "line to hose", "hose_out": "hose to axle tee",
    "end_tee_out": "axle tee to line", "brake": "{a} to {brake}", "upstream_out": "out of the first cylinder",
    "upstream_in": "into the next cylinder",
}  # fmt: skip


@dataclass(frozen=True)
class Placed:
    """A place of the map in a setup: its `key` in the file, what its parts are called, and what is known of the tube there."""

    key: str
    place: JointPlace
    title: str
    parts: dict[str, str]
    opened: bool
    tube_mm: float | str | None = None
    material: str | None = None


@dataclass(frozen=True)
class Way:
    """From a `cylinder` of a control to the brakes of a `station`, or to the cylinder it feeds (`station` None), called `name`."""

    control: str
    name: str
    station: Station | None
    cylinder: Cylinder
    placed: tuple[Placed, ...]


def title_of(kind: Kind, a: PartOfLine, b: PartOfLine, brake: str, device: str) -> str:
    """What a place on the map is called."""
    names: dict[PartOfLine, str] = {"line": "line", "hose": "hose"}
    return _TITLE[kind].format(a=names.get(a, a), b=names.get(b, b), brake=brake, device=device)


def _lanes(system: System, station: Station) -> int:
    """How many ports of the cylinder feed a station: where circuits cross, each wheel has its own."""
    cylinder = system.cylinder
    if not isinstance(cylinder, TandemCylinder):
        return 1
    if isinstance(cylinder.circuits, list):
        return max(1, sum(any(f.station == station.name for f in c.feeds) for c in cylinder.circuits))
    return 2 if cylinder.circuits == "diagonal" and station.wheels == 2 else 1


def _sharing(system: System, station: Station) -> Sharing:
    """A single cylinder has one port, common practice: a tee behind it feeds all its stations. A tandem or a pair has one for each line."""
    if not isinstance(system.cylinder, SingleCylinder) or len(system.stations) < 2:
        return "alone"
    return "first" if station is system.stations[0] else "next"


def branch_of(system: System, station: Station) -> Branch:
    """What leads to the brakes of a `station`; where its lines are not known, what is usual: a hard line, and a hose for each brake."""
    calipers = station.brake.calipers if isinstance(station.brake, DiscBrake) else 1
    ends = station.wheels * calipers
    lines = station.lines
    known = lines is not None and (lines.hoses or lines.hard_lines)
    hoses = sum(h.count for h in lines.hoses) if lines is not None and known else station.wheels
    hard = bool(lines.hard_lines) if lines is not None and known else True
    return Branch(ends, hoses, hard, tuple(d.kind for d in station.devices), _lanes(system, station), _sharing(system, station))


def brake_words(station: Station) -> str:
    """What a station's lines end in."""
    return "caliper" if isinstance(station.brake, DiscBrake) else "wheel cylinder"


def _parts(place: JointPlace, brake: str, device: str) -> dict[str, str]:
    own = {**PART, "brake": brake, "valve": device or "valve", "switch": "pressure switch"}
    return {"a": own[place.a], "b": own[place.b]}


def ways_of(setup: Setup, changes: list[Change]) -> list[Way]:
    """Every way of a `setup` with its joints in the order in which fluid meets them; those that the `changes` open are marked."""
    ways: list[Way] = []
    everywhere = [c.kind for c in changes if c.axle is None]
    for i, system in enumerate(setup.systems):
        for j, station in enumerate(system.stations):
            opened = opened_by([*everywhere, *(c.kind for c in changes if c.axle == station.axle)])
            ways.append(Way(system.name, station.name, station, system.cylinder, _placed(f"{i}-{j}", system, station, opened)))
        for n, (name, second) in enumerate(system.seconds):
            opened = opened_by(everywhere)
            placed = tuple(
                Placed(f"{i}-s{n}-{p.key}", p, title_of(p.kind, p.a, p.b, "", ""), _parts(p, "", ""), p.kind in opened)
                for p in upstream_places()
            )
            ways.append(Way(name, system.name, None, second.cylinder, placed))
    return ways


def _placed(root: str, system: System, station: Station, opened: set[Kind]) -> tuple[Placed, ...]:
    brake, devices = brake_words(station), [DEVICE[d.kind] for d in station.devices]
    hard = station.lines.hard_lines[0] if station.lines is not None and station.lines.hard_lines else None
    tube, material = (None, None) if hard is None else (hard.outer_mm, hard.material)
    found = []
    for place in places_of(branch_of(system, station)):
        device = devices[place.device] if place.device is not None else ""
        title = title_of(place.kind, place.a, place.b, brake, device)
        found.append(
            Placed(f"{root}-{place.key}", place, title, _parts(place, brake, device), place.kind in opened, tube, material)
        )
    return tuple(found)

"""build_steps: the steps of a change of parts, from what is named or from two setups compared."""

from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.core.work.steps import AXLES, LEFT_RIGHT, Change, Sides, StepsAnswer, build_steps, in_order
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.tables import table

VALVES = ("metering", "proportioning", "limiting", "regulator", "load_sensing", "deceleration_sensing")
ON_ONE_SIDE = {"line_lock": "line_lock", "park_valve": "park_valve", "residual_valve": "residual", "pressure_switch": "switch"}


def read_changes(asked: Asked, key: str, least: int) -> list[Change]:
    """The changes listed at `key`, each of a known kind, with its axle where the kind has one."""
    steps = table("build-steps")
    found = []
    for row in asked.parts(key, least):
        kind = row.word("kind", steps["kinds"])
        found.append(Change(kind, row.word("axle", AXLES) if kind in steps["with_axle"] else None))
    return found


def read_sides(asked: Asked) -> Sides:
    """The sides of each axle that wheels are named by: left and right unless others are given."""
    if not asked.given("sides"):
        return LEFT_RIGHT
    part = asked.part("sides").known(AXLES)
    return {axle: part.texts(axle) if part.given(axle) else LEFT_RIGHT[axle] for axle in AXLES}


def differs(a: Any, b: Any, name: str = "") -> bool:
    """Whether two values of a setup differ: numbers by more than 1e-6 of the greater, with units read; a key on one side too."""
    if isinstance(a, dict) and isinstance(b, dict):
        return any(differs(a.get(k), b.get(k), k) for k in {*a, *b})
    if isinstance(a, list) and isinstance(b, list):
        return len(a) != len(b) or any(differs(x, y, name) for x, y in zip(a, b, strict=True))
    try:
        x, y = value_of(a, name), value_of(b, name)
    except (BadEntry, TypeError, ValueError, AttributeError):
        return bool(a != b)
    return abs(x - y) > 1e-6 * max(1.0, abs(x), abs(y))


def _differ(a: dict[str, Any], b: dict[str, Any], *keys: str) -> bool:
    return any(differs(a.get(key), b.get(key), key) for key in keys)


def _valves(station: dict[str, Any], kinds: tuple[str, ...]) -> list[Any]:
    return [d for d in station.get("devices") or [] if d.get("kind") in kinds]


def _of_system(found: dict[str, Any], plan: dict[str, Any]) -> list[Change]:
    changes = []
    if _differ(found.get("control") or {}, plan.get("control") or {}, "pivot_to_pin_mm"):
        changes.append(Change("pin_moved"))
    if _differ(found.get("cylinder") or {}, plan.get("cylinder") or {}, "kind", "bore_mm", "stroke_mm", "front", "rear"):
        changes.append(Change("cylinder_changed"))
    kinds = [(s.get("booster") or {}).get("kind", "none") for s in (found, plan)]
    if kinds[0] != kinds[1]:
        changes.append(Change({"none": "booster_out", "hydraulic": "hydraulic_booster"}.get(kinds[1], "booster_in")))
    return changes


def _of_station(found: dict[str, Any], plan: dict[str, Any], axle: str) -> list[Change]:
    was, will = found.get("brake") or {}, plan.get("brake") or {}
    kinds, changes = (was.get("kind"), will.get("kind")), []
    if kinds == ("disc", "disc"):
        calipers = _differ(was, will, "caliper", "pistons_mm", "calipers")
        if calipers:
            changes.append(Change("calipers", axle))
        if _differ(was, will, "rotor_diameter_mm", "rotor_thickness_mm", "rotor_vented"):
            changes.append(Change("rotors", axle))
        if not calipers and _differ(was, will, "friction", "pad_height_mm"):
            changes.append(Change("pads", axle))
    elif kinds == ("drum", "disc"):
        changes.append(Change("drum_to_disc", axle))
    elif kinds == ("drum", "drum") and _differ(was, will, "wheel_cylinder_mm"):
        changes.append(Change("wheel_cylinders", axle))
    lines = found.get("lines") or {}, plan.get("lines") or {}
    for key, kind in (("hoses", "hoses"), ("hard_lines", "hard_line")):
        if _differ(*lines, key):
            changes.append(Change(kind, axle))
    if differs(_valves(found, VALVES), _valves(plan, VALVES)):
        changes.append(Change("valve", axle))
    for kind, device in ON_ONE_SIDE.items():
        if bool(_valves(found, (device,))) != bool(_valves(plan, (device,))):
            changes.append(Change(kind))
    return changes


def derived(found: dict[str, Any], plan: dict[str, Any]) -> list[Change]:
    """What changes from one setup to the other, per system and station of one name."""
    changes: list[Change] = []
    plans = {s.get("name"): s for s in plan["systems"]}
    for system in found["systems"]:
        other = plans.get(system.get("name"))
        if other is None:
            continue
        changes += _of_system(system, other)
        stations = {s.get("name"): s for s in other.get("stations") or []}
        for station in system.get("stations") or []:
            if station.get("name") in stations:
                own = stations[station["name"]]
                changes += _of_station(station, own, own.get("axle") or station.get("axle"))
    return changes


def _systems(asked: Asked, key: str) -> dict[str, Any]:
    """The systems at `key`, each part of them of the shape that is compared."""
    part = asked.part(key)
    for system in part.parts("systems"):
        system.text("name")
        for name in ("control", "cylinder", "booster"):
            system.part_or_empty(name)
        for station in system.parts("stations", 0):
            station.text("name")
            station.word("axle", AXLES)
            station.part_or_empty("brake")
            station.part_or_empty("lines")
            station.parts("devices", 0)
    return part.value


def steps(asked: Asked) -> StepsAnswer:
    """build_steps: the steps in order, with what each waits for."""
    if asked.given("found") or asked.given("plan"):
        found = in_order(table("build-steps"), derived(_systems(asked, "found"), _systems(asked, "plan")))
        changes = [*found, *read_changes(asked, "also", 0)]
    else:
        changes = [*read_changes(asked, "changes", 1), *read_changes(asked, "also", 0)]
    kind = asked.word("vehicle_kind", ("car", "motorcycle", "aircraft"), "car")
    return build_steps(table("build-steps"), changes, read_sides(asked), parking=kind == "car")

"""A mend as edits of the file: what one press changes, dotted paths below the setup."""

import math
from dataclasses import dataclass
from typing import Any

from kobrix.core.constants import bore_name
from kobrix.core.judgements import Mend
from kobrix.setup.model import Setup, TwinCylinder
from kobrix.setup.stations import DiscBrake, DrumBrake, Station

Edit = dict[str, Any]


def _down(value: float, step: float) -> float:
    return round(math.floor(value / step + 1e-9) * step, 6)


def _devices(station: Station, drop: str) -> list[Any]:
    kept = [d for d in station.devices if d.kind != drop]
    return [d.model_dump(exclude_none=True, exclude_defaults=True) | {"kind": d.kind} for d in kept]


@dataclass(frozen=True)
class _Place:
    """A control of a setup: its `name`, its dotted `path`, its `bores` below it, and the `stations` that are its own to change."""

    name: str
    path: str
    bores: tuple[str, ...]
    stations: list[Station]


def _places(setup: Setup) -> list[_Place]:
    found = []
    for i, system in enumerate(setup.systems):
        own = f"systems.{i}"
        twin = isinstance(system.cylinder, TwinCylinder)
        bores = ("cylinder.front.bore_mm", "cylinder.rear.bore_mm") if twin else ("cylinder.bore_mm",)
        found.append(_Place(system.name, own, bores, system.stations))
        listed = isinstance(system.second_control, list)
        for n, (name, _) in enumerate(system.seconds):
            found.append(_Place(name, f"{own}.second_control" + (f".{n}" if listed else ""), ("cylinder.bore_mm",), []))
    return found


def edits_of(mend: Mend, setup: Setup, system: str | None) -> list[Edit]:
    """The edits {path, value} that carry out `mend` on the control named `system` of `setup`; none for one that is only shown."""
    place = next((p for p in _places(setup) if p.name == system), None)
    if place is None:
        return []
    path, stations, figures = f"{place.path}.stations", place.stations, mend.figures
    edits: list[Edit] = []
    if mend.kind in ("bore", "bore_and_pin"):
        bore = bore_name(figures["bore"]) or f"{figures['bore'] * 1e3:.4g} mm"
        edits = [{"path": f"{place.path}.{below}", "value": bore} for below in place.bores]
        if mend.kind == "bore_and_pin":
            edits.append({"path": f"{place.path}.control.pivot_to_pin_mm", "value": f"{figures['pin'] * 1e3:.4g} mm"})
    elif mend.kind == "braided":
        for i, station in enumerate(stations):
            for k, hose in enumerate(station.lines.hoses if station.lines else []):
                if hose.kind == "rubber":
                    edits.append({"path": f"{path}.{i}.lines.hoses.{k}.kind", "value": "braided"})
    elif mend.kind == "valve":
        valve = {"kind": "proportioning", "knee_kpa": _down(figures["knee"] / 1e3, 10.0), "slope": figures["slope"]}
        for i, station in enumerate(stations):
            if station.axle == "rear":
                edits.append({"path": f"{path}.{i}.devices", "value": [*_devices(station, "proportioning"), valve]})
    elif mend.kind == "remove_residual":
        for i, station in enumerate(stations):
            if isinstance(station.brake, DiscBrake) and any(d.kind == "residual" for d in station.devices):
                edits.append({"path": f"{path}.{i}.devices", "value": _devices(station, "residual")})
    elif mend.kind == "rear_area":
        for i, station in enumerate(stations):
            if station.axle != "rear":
                continue
            count = len(station.brake.pistons_mm or [0]) if isinstance(station.brake, DiscBrake) else 1
            each = _down(math.sqrt(4.0 * figures["area"] / (math.pi * count)) * 1e3, 0.1)
            if isinstance(station.brake, DrumBrake):
                edits.append({"path": f"{path}.{i}.brake.wheel_cylinder_mm", "value": f"{each:g} mm"})
            else:
                edits.append({"path": f"{path}.{i}.brake.pistons_mm", "value": [f"{each:g} mm"] * count})
    return edits

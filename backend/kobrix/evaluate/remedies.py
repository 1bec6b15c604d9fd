"""A mend as edits of the file: what one press changes, JSON Pointers below the setup."""

import math
from typing import Any

from kobrix.core.constants import bore_name
from kobrix.core.rules.limits import Mend
from kobrix.fileformat.models import Setup, TwinCylinder, controls_of
from kobrix.fileformat.paths import Edit, set_at
from kobrix.fileformat.stations import DiscBrake, DrumBrake, Station


def _down(value: float, step: float) -> float:
    return round(math.floor(value / step + 1e-9) * step, 6)


def _devices(station: Station, drop: str) -> list[Any]:
    kept = [d for d in station.devices if d.kind != drop]
    return [d.model_dump(exclude_none=True, exclude_defaults=True) | {"kind": d.kind} for d in kept]


def edits_of(mend: Mend, setup: Setup, system: str | None) -> list[Edit]:
    """The edits that carry out `mend` on the control named `system` of `setup`; none for one that is only shown."""
    place = next((c for c in controls_of(setup.systems) if c.name == system), None)
    if place is None:
        return []
    second = place.path != place.owner  # its brakes are its owner's to change
    path, stations, figures = f"{place.path}.stations", [] if second else place.system.stations, mend.figures
    twin = isinstance(place.system.cylinder, TwinCylinder) and not second
    bores = ("cylinder.front.bore_mm", "cylinder.rear.bore_mm") if twin else ("cylinder.bore_mm",)
    edits: list[Edit] = []
    if mend.kind in ("bore", "bore_and_pin"):
        bore = bore_name(figures["bore"]) or f"{figures['bore'] * 1e3:.4g} mm"
        edits = [set_at(f"{place.path}.{below}", bore) for below in bores]
        if mend.kind == "bore_and_pin":
            edits.append(set_at(f"{place.path}.control.pivot_to_pin_mm", f"{figures['pin'] * 1e3:.4g} mm"))
    elif mend.kind == "braided":
        for i, station in enumerate(stations):
            for k, hose in enumerate(station.lines.hoses if station.lines else []):
                if hose.kind == "rubber":
                    edits.append(set_at(f"{path}.{i}.lines.hoses.{k}.kind", "braided"))
    elif mend.kind == "valve":
        valve = {"kind": "proportioning", "knee_kpa": _down(figures["knee"] / 1e3, 10.0), "slope": figures["slope"]}
        for i, station in enumerate(stations):
            if station.axle == "rear":
                edits.append(set_at(f"{path}.{i}.devices", [*_devices(station, "proportioning"), valve]))
    elif mend.kind == "remove_residual":
        for i, station in enumerate(stations):
            if isinstance(station.brake, DiscBrake) and any(d.kind == "residual" for d in station.devices):
                edits.append(set_at(f"{path}.{i}.devices", _devices(station, "residual")))
    elif mend.kind == "rear_area":
        for i, station in enumerate(stations):
            if station.axle != "rear":
                continue
            count = len(station.brake.pistons_mm or [0]) if isinstance(station.brake, DiscBrake) else 1
            each = _down(math.sqrt(4.0 * figures["area"] / (math.pi * count)) * 1e3, 0.1)
            if isinstance(station.brake, DrumBrake):
                edits.append(set_at(f"{path}.{i}.brake.wheel_cylinder_mm", f"{each:g} mm"))
            else:
                edits.append(set_at(f"{path}.{i}.brake.pistons_mm", [f"{each:g} mm"] * count))
    return edits

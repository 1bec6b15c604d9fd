"""The questions that `--tolerance` and `--heat` ask when a file carries none of its own."""

from typing import Any

from kobrix.core.errors import BadFile
from kobrix.evaluate.rotor_heat import ROW
from kobrix.evaluate.solve import Answer, pick
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.stations import DiscBrake

_SHARES = {"friction": 0.08, "grip": 0.05, "cg_height_mm": 0.05, "front_share": 0.02}  # of the entry, half widths, our estimate


def usual_tolerance(setup: Setup, asked: dict[str, Any] | None) -> dict[str, Any]:
    """The file's own question on tolerance, or the usual doubts: pads, grip, height and weight share, at the design stop."""
    if asked is not None:
        return asked
    answer = Answer(setup)
    if answer.solved is None or not pick(answer.solved.main.design_known, 0):
        raise BadFile(
            ["--tolerance needs a setup whose design stop is known: " + ", ".join(answer.needs.get("decel", ["brakes"]))]
        )
    widths: dict[str, float] = {}
    for i, system in enumerate(setup.systems):
        for k, station in enumerate(system.stations):
            friction = station.brake.friction
            if friction is not None and friction.cold is not None:
                path = f"systems.{i}.stations.{k}.brake.friction.cold"
                widths[path] = _SHARES["friction"] * value_of(friction.cold, "friction")
    for i, state in enumerate(setup.vehicle.load_states):
        for name in ("cg_height_mm", "front_share"):
            typed = getattr(state, name)
            if typed is not None:
                widths[f"vehicle.load_states.{i}.{name}"] = _SHARES[name] * value_of(typed, name)
    for name in ("grip_front", "grip_rear"):
        widths[f"vehicle.{name}"] = _SHARES["grip"] * value_of(getattr(setup.vehicle, name), name)
    decel = round(pick(answer.solved.main.design_decel, 0), 3)
    return {"decel_g": decel, "samples": 2000, "seed": 1, "shape": "uniform", "plus_minus": widths}


def usual_heat(setup: Setup, asked: dict[str, Any] | None) -> dict[str, Any]:
    """The file's own question on heat, or ten stops from 100 km/h on the first front disc, half a minute apart."""
    if asked is not None:
        return asked
    stations = [s for system in setup.systems for s in system.stations if isinstance(s.brake, DiscBrake)]
    first = next((s for s in stations if s.axle == "front"), None) or next(iter(stations), None)
    if first is None:
        raise BadFile(["--heat needs a disc brake; this setup has none."])
    return {"station": first.name, **ROW}

"""Where the numbers of a step of the working come from: the fields of the file that it reads, dotted paths below the setup."""

from kobrix.core.physics.working import Step
from kobrix.fileformat import models
from kobrix.fileformat.stations import DiscBrake, Station

_FOOT = {
    "ratio": ("control.pivot_to_pad_mm", "control.pivot_to_pin_mm"),
    "rod": ("control.efficiency", "control.return_force_n"),
    "out": ("booster.gain", "booster.cut_in_n", "booster.jump_in_n", "booster.vacuum_kpa", "booster.nominal_diaphragms_mm"),
}
_DISC = {
    "clamp": ("brake.pistons_mm", "brake.efficiency", "brake.threshold_kpa"),
    "torque": ("brake.friction.cold", "brake.rotor_diameter_mm", "brake.pad_height_mm", "brake.edge_inset_mm", "brake.calipers"),
}
_DRUM = {"torque": ("brake.wheel_cylinder_mm", "brake.drum_diameter_mm", "brake.friction.cold", "brake.shoe_k", "brake.efficiency",
                    "brake.threshold_kpa")}  # fmt: skip
_CAUSES = {
    "clearance": ("brake.pistons_mm", "brake.clearance_mm"), "knock_back": ("brake.pistons_mm", "brake.knock_back_mm"),
    "caliper": ("brake.pistons_mm", "brake.caliper_give_um_per_mpa"), "pads": ("brake.pistons_mm", "brake.pad_give_um_per_mpa"),
    "shoes": ("brake.wheel_cylinder_mm", "brake.shoe_clearance_mm"), "drum": ("brake.give_cm3_per_mpa",),
    "hose": ("lines.hoses.0.length_mm", "lines.hoses.0.count", "lines.hoses.0.coefficient_cm3_per_m_mpa"),
    "hard_line": ("lines.hard_lines.0.length_mm", "lines.hard_lines.0.outer_mm", "lines.hard_lines.0.wall_mm"),
    "fluid": ("lines.fluid_volume_cm3", "lines.bulk_modulus_gpa"), "air": ("lines.air_cm3",),
}  # fmt: skip


def _cylinder(system: models.System) -> tuple[str, ...]:
    own = ("cylinder.efficiency", "cylinder.spring_n")
    bores = ("cylinder.front.bore_mm", "cylinder.rear.bore_mm", "cylinder.bar.front_share")
    return (*bores, *own) if system.cylinder.kind == "twin" else ("cylinder.bore_mm", *own)


def _lost(system: models.System) -> tuple[str, ...]:
    if system.cylinder.kind == "tandem":
        return "cylinder.lost_primary_mm", "cylinder.lost_secondary_mm"
    return ("cylinder.lost_mm",) if system.cylinder.kind == "single" else ("cylinder.front.lost_mm", "cylinder.rear.lost_mm")


def _of_road(step: Step) -> list[str]:
    if step.figure == "adhesion":
        return []
    fields = ("mass_kg",) if step.figure == "decel" else ("mass_kg", "front_share", "cg_height_mm")
    return [f"vehicle.load_states.0.{name}" for name in fields] + ([] if step.figure == "decel" else ["vehicle.wheelbase_mm"])


def _of_station(station: Station, step: Step, system: models.System) -> tuple[str, ...]:
    """Fields below the station (or, beginning with a dot, below the system) that a `step` of it reads."""
    if step.figure == "inlet":
        return tuple(f".{field}" for field in _cylinder(system))
    if step.figure == "force":
        return ("tyre",)
    if step.cause is not None:
        return _CAUSES.get(step.cause, ())
    return (_DISC if isinstance(station.brake, DiscBrake) else _DRUM).get(step.figure, ())


def provenance(setup: models.Setup, step: Step) -> list[str]:
    """Dotted paths below the `setup` of the fields that a `step` of the working reads."""
    if step.figure in ("decel", "load", "adhesion"):
        return _of_road(step)
    for i, system in enumerate(setup.systems):
        if step.system != system.name:
            continue
        here = f"systems.{i}"
        if step.figure in _FOOT:
            return [
                f"{here}.{name}" for name in _FOOT[step.figure] if system.booster is not None or not name.startswith("booster")
            ]
        if (step.where, step.cause) == ("control", "free_play"):
            return [f"{here}.control.free_play_mm"]
        if (step.where, step.cause) == ("cylinder", "port_closing"):
            return [f"{here}.{name}" for name in _lost(system)]
        for k, station in enumerate(system.stations):
            if station.name in (step.station, step.where):
                found = _of_station(station, step, system)
                return [f"{here}{name}" if name.startswith(".") else f"{here}.stations.{k}.{name}" for name in found]
    return []

"""The parking brake of a plan: kept or lost by its changes, the grade it holds, and what it stops alone."""

from typing import Any

from kobrix.core.errors import BadPlace
from kobrix.core.figures import Level
from kobrix.core.physics.disc import Disc
from kobrix.core.work.steps import Change
from kobrix.evaluate.ask import parking as ask_parking
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import ParkingShape
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.stations import DiscBrake, DrumBrake, Station
from kobrix.stages.fit.shapes import ParkingState, ParkingView

GRADE = 0.20  # FMVSS 135 S7.12, from memory


def _text(value: Any, unit: str = "") -> str:
    return "" if value is None else f"{value:g} {unit}".strip() if isinstance(value, int | float) else str(value)


def _kept(setup: Setup, changes: list[Change], axle: str) -> str:
    """What the plan's changes do to the parking brake. Common practice: a drum's lever goes with its drum."""
    if setup.vehicle.kind in ("motorcycle", "aircraft"):
        return "Not asked for here."
    if any(c.kind == "drum_to_disc" and c.axle == axle for c in changes):
        return "Lost with the drums: the new calipers need a lever of their own, or a drum inside the disc; cables, fork and lever pull change."
    if any(c.kind in ("calipers", "wheel_cylinders") and c.axle == axle for c in changes):
        return "Look at its lever and cables: the brakes it works on are changed."
    return "The plan leaves it as it is."


def _station(setup: Setup, axle: str) -> Station | None:
    return next((s for system in setup.systems for s in system.stations if s.axle == axle), None)


def _radius(setup: Setup, station: Station) -> float | None:
    """Effective radius of a disc as the model has it [mm]."""
    systems: Any = answer_of(ByContent(setup)).converted.systems or []
    found = next((s for system in systems for s in system.stations if s.name == station.name), None)
    return float(found.brake.effective_radius) * 1000 if found is not None and isinstance(found.brake, Disc) else None


def _needs(own: ParkingShape, actuator: dict[str, Any]) -> list[str]:
    found = []
    if own.actuator != "clamp" and own.control_ratio is None:
        found.append("the lever's ratio: how far the hand goes for a millimetre of cable")
    if own.actuator != "clamp" and own.actuator_ratio is None:
        found.append("the ratio of the lever at the wheel")
    if own.actuator == "clamp" and own.clamp_n is None:
        found.append("the clamp, from its maker")
    if own.actuator == "shoes":
        found += [
            w
            for k, w in (
                ("drum_diameter_mm", "the drum's diameter"),
                ("shoes", "how its shoes stand"),
                ("friction", "its lining's friction"),
            )
            if k not in actuator
        ]
    else:
        found += [
            w
            for k, w in (("friction", "the pads' friction"), ("effective_radius_mm", "the radius that the pads work at"))
            if k not in actuator
        ]
    return found


def _actuator(setup: Setup, station: Station | None, own: ParkingShape) -> dict[str, Any]:
    found: dict[str, Any] = {"kind": own.actuator}
    if own.actuator_ratio is not None:
        found["lever_ratio"] = own.actuator_ratio
    if own.clamp_n is not None and own.actuator == "clamp":
        found["clamp_n"] = own.clamp_n
    brake = station.brake if station is not None else None
    friction = own.friction or (brake.friction.cold if brake is not None and brake.friction is not None else None)
    if friction is not None:
        found["friction"] = friction
    if own.actuator == "shoes":
        drum = brake if isinstance(brake, DrumBrake) else None
        for key, value in (
            ("drum_diameter_mm", own.drum_diameter_mm or (drum.drum_diameter_mm if drum else None)),
            ("shoes", own.shoes or (drum.shoes if drum else None)),
        ):
            if value is not None:
                found[key] = value
    elif own.effective_radius_mm is not None:
        found["effective_radius_mm"] = own.effective_radius_mm
    elif isinstance(brake, DiscBrake) and station is not None:
        radius = _radius(setup, station)
        if radius is not None:
            found["effective_radius_mm"] = radius
    return found


def parking_view(setup: Setup, changes: list[Change], own: ParkingShape | None) -> ParkingView:
    """The parking brake as it stands."""
    shape = own or ParkingShape()
    axle = shape.axle or "rear"
    station = _station(setup, axle)
    view: ParkingView = {
        "path": "fit.parking", "kept": _kept(setup, changes, axle), "control": shape.control or "hand", "control_ratio": _text(shape.control_ratio),
        "actuator": shape.actuator or "", "actuator_ratio": _text(shape.actuator_ratio), "clamp": _text(shape.clamp_n, "N"),
        "drum": _text(shape.drum_diameter_mm, "mm"), "shoes": shape.shoes or "", "friction": _text(shape.friction), "radius": _text(shape.effective_radius_mm, "mm"),
        "grade": _text(shape.grade) or f"{GRADE * 100:.0f} %", "needs": [], "refused": "", "cable_n": None, "states": [], "level": None, "sentence": "",
    }  # fmt: skip
    if shape.actuator is None:
        return view
    actuator = _actuator(setup, station, shape)
    view["needs"] = _needs(shape, actuator)
    if view["needs"]:
        return view
    states: list[ParkingState] = []
    try:
        for load in setup.vehicle.load_states:
            question = {
                "axle": axle, "actuator": actuator, "grade": shape.grade if shape.grade is not None else GRADE,
                "vehicle": {
                    **load.model_dump(exclude_none=True, include={"mass_kg", "front_share", "cg_height_mm"}), "wheelbase_mm": setup.vehicle.wheelbase_mm,
                    "grip": setup.vehicle.grip_front if axle == "front" else setup.vehicle.grip_rear,
                },
                **({"tyre": station.tyre} if station is not None and station.tyre else {}),
                **({"rolling_radius_mm": station.rolling_radius_mm} if station is not None and station.rolling_radius_mm is not None else {}),
            }  # fmt: skip
            if shape.actuator != "clamp":
                question["control"] = {"kind": shape.control or "hand", "lever_ratio": shape.control_ratio}
            told = ask_parking.parking(Asked(question))
            view["cable_n"] = told.get("cable_force_n")
            states.append(
                {"load": load.name, "grade_up": told["holds_nose_up"], "grade_down": told["holds_nose_down"], "pull_n": told["pull_needed_n"],
                 "alone_g": told["decel_alone_g"], "locks": told["locks"], "level": told["level"]}
            )  # fmt: skip
    except BadPlace as refused:
        view["refused"] = f"{refused.place.rpartition('.')[2].replace('_', ' ')}: {refused.reason}"
        return view
    view["states"] = states
    worst: Level = "danger" if any(s["level"] == "danger" for s in states) else "good"
    view["level"] = worst if states else None
    grade = 100 * (value_of(shape.grade, "grade") if shape.grade is not None else GRADE)
    view["sentence"] = (
        f"It holds {grade:.0f} % within what a hand or foot gives."
        if worst == "good"
        else f"It does not hold {grade:.0f} % within what a hand or foot gives, or the tyres slide there."
    )
    return view

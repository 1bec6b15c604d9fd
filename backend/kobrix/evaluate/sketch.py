"""What a vehicle is drawn from on a wall of jobs: its kind and the sizes that are known."""

from typing_extensions import TypedDict

from kobrix.core.physics.vehicle import VehicleKind
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.quantities import Typed, value_of


class Sketch(TypedDict):
    """The sizes of a vehicle that a small drawing shows, None where not known; `tail`: its third wheel is under the tail."""

    kind: VehicleKind
    tail: bool
    wheelbase_mm: float | None
    front_share: float | None
    cg_height_mm: float | None


def _known(typed: Typed | None, name: str) -> float | None:
    return None if typed is None else value_of(typed, name)


def sketch(job: Job) -> Sketch:
    """What the vehicle of a `job` as found is drawn from."""
    vehicle = job.setup(AS_FOUND).vehicle
    load = next(iter(vehicle.load_states), None)
    axles = {station.axle for system in job.as_found.systems for station in system.stations}
    return {
        "kind": vehicle.kind, "tail": vehicle.kind == "aircraft" and axles == {"front"},
        "wheelbase_mm": _known(vehicle.wheelbase_mm, "wheelbase_mm"), "front_share": None if load is None else _known(load.front_share, "front_share"),
        "cg_height_mm": None if load is None else _known(load.cg_height_mm, "cg_height_mm"),
    }  # fmt: skip

"""An empty job: what a vehicle of each kind has, with nothing measured yet."""

from typing import Any, Literal

from kobrix.fileformat.files import VERSION, check
from kobrix.fileformat.job import AS_FOUND, Job

_Part = dict[str, Any]  # a part of the file as it stands there
Layout = Literal[
    "car_front_rear", "car_diagonal", "car_twin", "motorcycle", "aircraft_nose_wheel", "aircraft_tail_wheel", "trials_car"
]


def _station(name: str, axle: str, wheels: int) -> _Part:
    hoses = [{"kind": "rubber", "count": wheels}]
    return {"name": name, "axle": axle, "wheels": wheels, "brake": {"kind": "disc"}, "devices": [],
            "lines": {"hoses": hoses, "hard_lines": [{"material": "steel"}]}}  # fmt: skip


def _system(name: str, control: str, cylinder: _Part, stations: list[_Part]) -> _Part:
    return {"name": name, "control": {"kind": control}, "cylinder": cylinder, "stations": stations}


def _car(cylinder: _Part) -> list[_Part]:
    return [_system("service", "car_pedal", cylinder, [_station("front", "front", 2), _station("rear", "rear", 2)])]


def _levers(feeds: str) -> list[_Part]:
    """Left and right levers of a trials car, each to one wheel of an axle."""
    return [
        {"name": f"{side} lever", "control": {"kind": "hand_lever"}, "cylinder": {"kind": "single"},
         "feeds": [{"station": feeds, "wheels": 1}]}
        for side in ("left", "right")
    ]  # fmt: skip


def _systems(layout: Layout) -> list[_Part]:
    if layout == "car_front_rear":
        return _car({"kind": "tandem", "circuits": "front_rear"})
    if layout == "car_diagonal":
        return _car({"kind": "tandem", "circuits": "diagonal"})
    if layout == "car_twin":
        return _car({"kind": "twin", "front": {}, "rear": {}, "bar": {"front_share": 0.5}})
    if layout == "motorcycle":
        return [
            _system("hand", "hand_lever", {"kind": "single"}, [_station("front", "front", 1)]),
            _system("foot", "motorcycle_foot", {"kind": "single"}, [_station("rear", "rear", 1)]),
        ]
    if layout == "trials_car":
        [service] = _car({"kind": "tandem", "circuits": "front_rear"})
        return [{**service, "second_control": _levers("rear")}]
    axle = "rear" if layout == "aircraft_nose_wheel" else "front"
    return [
        _system(side, "aircraft_pedal", {"kind": "single"}, [_station(f"{side} main", axle, 1)]) for side in ("left", "right")
    ]


def new_job(name: str, layout: Layout) -> Job:
    """An empty job by `name` for a vehicle of a `layout`: nothing is measured, nothing assumed. Raises BadFile."""
    kind = "motorcycle" if layout == "motorcycle" else "aircraft" if layout.startswith("aircraft") else "car"
    vehicle: _Part = {"kind": kind, "load_states": [{"name": "as driven" if kind != "aircraft" else "landing"}]}
    if kind == "aircraft":
        third = "front" if layout == "aircraft_nose_wheel" else "rear"
        vehicle["wheels"] = {third: 1, "rear" if third == "front" else "front": 2}
    document = {"format": "kobrix-job", "version": VERSION, "name": name, "vehicle": vehicle,
                "as_found": {"name": AS_FOUND, "systems": _systems(layout)}, "plans": []}  # fmt: skip
    return check(Job, document)

"""Vehicles whose answers are pinned: the invented ones that ship, and what they have not: a trailer, a dead booster, diagonal circuits,
a tail wheel, duo-servo drums, and every kind of valve."""

import copy
import random
import re
from typing import Any

from kobrix.core.errors import KobrixError
from kobrix.demo import JOBS, SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.job import Job

_SIZE = re.compile(r"^(-?\d+(?:\.\d+)?)( ?[a-z°/]*)$")


def shipped() -> dict[str, Any]:
    """The files of the vehicles that ship, by their names."""
    return {file.name.split(".")[0]: files.parse_json(file.read_bytes()) for file in (*JOBS, *SETUPS)}


def setup_of(document: dict[str, Any], own: dict[str, Any]) -> dict[str, Any]:
    """One setup of a job as a file of its own."""
    vehicle = {**document["vehicle"], **own.get("vehicle", {})}
    systems = copy.deepcopy(own["systems"])
    return {"format": "kobrix-setup", "version": 1, "name": own["name"], "vehicle": copy.deepcopy(vehicle), "systems": systems}


def with_a_plan(setup: dict[str, Any]) -> dict[str, Any]:
    """A job of the setup as found, and of a plan with other tyres in front, pads, a longer arm and harder hoses."""
    other = copy.deepcopy(setup["systems"])
    for system in other:
        system["control"]["pivot_to_pad_mm"] = "13 in" if system["control"]["kind"] == "car_pedal" else "150 mm"
        for station in system["stations"]:
            if station["axle"] == "front":
                station["tyre"] = "195/65R15"
            if "friction" in station["brake"]:
                station["brake"]["friction"]["cold"] = 0.42
            for hose in station.get("lines", {}).get("hoses", []):
                hose["kind"] = "braided"
    return {
        "format": "kobrix-job", "version": 1, "name": setup["name"], "vehicle": setup["vehicle"],
        "as_found": {"name": "as found", "systems": setup["systems"]}, "plans": [{"name": "plan A", "systems": other}],
    }  # fmt: skip


def stirred(demo: dict[str, Any], seed: int) -> dict[str, Any]:
    """The demo job with the sizes of its work changed at random, each where the file still takes it: plates, hoses, recipes, records."""
    chance, document = random.Random(seed), copy.deepcopy(demo)

    def stir(part: Any) -> None:
        for key, value in list(part.items() if isinstance(part, dict) else enumerate(part)):
            if isinstance(value, dict | list):
                stir(value)
                continue
            text = _SIZE.match(value) if isinstance(value, str) else None
            if chance.random() > 0.25 or isinstance(value, bool) or not (text or isinstance(value, int | float)):
                continue
            factor = chance.choice((0.7, 0.85, 1.2, 1.6))
            made: Any = (
                f"{float(text[1]) * factor:.4g}{text[2]}"
                if text
                else round(value * factor, 4)
                if isinstance(value, float)
                else value + 1
            )
            part[key] = made
            try:
                files.check(Job, document)
            except KobrixError:
                part[key] = value

    for plan in document["plans"]:
        for key in ("fit", "bed", "build"):
            stir(plan.get(key, {}))
    for key in ("parts_list", "proving", "records"):
        stir(document.get(key, []))
    document["name"] = f"stirred {seed}"
    return document


def vehicles() -> dict[str, Any]:
    """Files of every vehicle by a short name."""
    own: dict[str, Any] = {}
    found = shipped()
    demo, plane = found["merrow-skiff"], found["light-aircraft"]

    def plan() -> tuple[dict[str, Any], dict[str, Any], dict[str, Any]]:
        setup = setup_of(demo, demo["plans"][0])
        front, rear = setup["systems"][0]["stations"]
        return setup, front, rear

    setup, _, rear = plan()
    rear["devices"] = []
    setup["vehicle"].update(
        kind="truck", wheelbase_mm=3300,
        load_states=[
            {"name": "empty", "mass_kg": 1900, "front_share": 0.56, "cg_height_mm": 640},
            {"name": "with trailer", "mass_kg": 2200, "front_share": 0.5, "cg_height_mm": 680, "trailer": {
                "mass_kg": 1500, "braked_share": 0.6, "nose_kg": 90, "hitch_behind_axle_mm": 1100, "hitch_height_mm": 480}},
        ],
    )  # fmt: skip
    own["truck with trailer"] = setup

    setup = setup_of(demo, demo["as_found"])
    setup["systems"][0]["booster"] = {"kind": "vacuum", "diaphragms_mm": ["8 in"], "vacuum_kpa": 0.0, "gain": 4.0}
    setup["systems"][0]["stations"][1]["brake"]["shoes"] = "duo_servo"
    own["dead booster, duo-servo drums"] = setup

    setup, front, rear = plan()
    setup["systems"][0]["cylinder"].update(circuits="diagonal", height_above_brakes_mm=-250)
    setup["systems"][0]["booster"] = {"kind": "hydraulic", "pump_pressure_kpa": 9000, "piston_area_cm2": 4.0, "gain": 3.0, "cut_in_n": 60,
                                      "accumulator": {"volume_cm3": 400, "precharge_kpa": 5000, "full_kpa": 12000, "least_kpa": 7000,
                                                      "per_stop_cm3": 60}}  # fmt: skip
    setup["vehicle"]["track_mm"] = 1320
    rear["devices"] = [
        {"kind": "load_sensing", "knee_kpa": 2400, "coefficient_kpa_per_n": 0.4, "reference_rear_load_n": 5800, "slope": 0.35}
    ]
    front["devices"] = [{"kind": "switch", "pressure_kpa": 900}]
    own["diagonal, load sensing"] = setup

    setup, front, rear = plan()
    rear["devices"] = [{"kind": "deceleration_sensing", "decel_g": 0.4, "slope": 0.3}]
    front["devices"] = [{"kind": "metering", "hold_kpa": 800, "blend_kpa": 4000}, {"kind": "residual", "pressure_kpa": 69}]
    setup["systems"][0]["control"]["linkage"] = {"rest_angle_deg": -90, "sense": 1, "bore_point_mm": [0, -44], "bore_direction_deg": 0,
                                                 "rod_mm": 120}  # fmt: skip
    setup["systems"][0]["control"].update(rod_retained=False, mount_stiffness_n_per_mm=4000)
    own["linkage, deceleration sensing"] = setup

    setup, front, rear = plan()
    rear["brake"], rear["devices"] = (
        copy.deepcopy(front["brake"]),
        [{"kind": "limiting", "setting_kpa": 3000}, {"kind": "line_lock"}],
    )
    rear["lines"]["hoses"] = [{"kind": "rubber", "length_mm": 900, "count": 2, "age_years": 14}]
    front["brake"].update(rotor_thickness_mm=9.0, rotor_least_thickness_mm=10.0)
    own["four same calipers"] = setup

    setup = copy.deepcopy(plane)
    setup["vehicle"].update(wheelbase_mm=4600, wheels={"front": 2, "rear": 1})
    setup["vehicle"]["load_states"] = [{"name": "two aboard", "mass_kg": 620, "front_share": 0.88, "cg_height_mm": 1050}]
    for system in setup["systems"]:
        for station in system["stations"]:
            station["axle"] = "front"
    own["tail wheel"] = setup
    stirs = {f"stirred {seed}": stirred(demo, seed) for seed in (1, 2)}
    return {**found, **stirs, **{name: with_a_plan(made) for name, made in own.items()}}

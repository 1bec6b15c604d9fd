"""What the stops and gauges of a setup teach the model: friction, efficiency and grip with their intervals, taken over by hand only."""

from functools import lru_cache
from typing import Any

from pydantic_core import from_json, to_json

from kobrix.core.errors import BadPlace
from kobrix.evaluate.ask import calibrate as ask_calibrate
from kobrix.evaluate.ask.calibrate import CalibrateAnswer
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.paths import Edit, set_at
from kobrix.stages.prove.shapes import CalibrationView, FactorView
from kobrix.store.records import Record

_WORDS = {"friction": "pad friction", "efficiency": "the pedal's efficiency", "grip": "tyre grip"}
LEAST = 3  # readings below which nothing is taught, our estimate


def _stops(rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Stops as the question wants them: those whose push is known, or in which a wheel locked."""
    found: list[dict[str, Any]] = []
    for row in rows:
        locked = row.get("locked", "none") != "none"
        if row.get("struck") or not (locked or "push_n" in row):
            continue
        found.append({k: v for k, v in row.items() if k in ("speed_kmh", "distance_m", "push_n", "locked")})
    return found


def _gauges(records: tuple[Record, ...], setup: str) -> list[dict[str, Any]]:
    own = [
        r
        for r in records
        if r.kind == "push" and r.body.get("setup") == setup and r.struck is None and not r.body.get("simulated")
    ]
    last = max((r.body.get("run", 1) for r in own), default=1)
    return [
        {"pedal_force_n": r.body["force"], **{k: r.body[k] for k in ("front_kpa", "rear_kpa") if k in r.body}}
        for r in own if r.body.get("run", 1) == last and ("front_kpa" in r.body or "rear_kpa" in r.body)
    ]  # fmt: skip


def _accepted(job: Job, name: str, told: CalibrateAnswer) -> tuple[str, list[Edit]]:
    """What taking over what was taught sets in the setup, as measured values with their ±, and in words."""
    root, setup = job.root(name), job.setup(name)
    factors = told["factors"]
    edits: list[Edit] = []
    said: list[str] = []

    def put(path: str, value: float, half: float, digits: int = 3) -> None:
        edits.append(set_at(path, round(value, digits)))
        edits.append({"op": "set", "path": f"/tolerances/{path}", "value": f"{max(half, 10.0**-digits):.{digits}f}"})

    share = {kind: (factor["high"] - factor["low"]) / 2 / factor["value"] for kind, factor in factors.items()}
    if factors["friction"]["told"] and told["friction"]:
        for i, system in enumerate(setup.systems):
            for j, station in enumerate(system.stations):
                value = told["friction"].get(station.name)
                if value is not None:
                    put(f"{root}.systems.{i}.stations.{j}.brake.friction.cold", value, value * share["friction"])
        said.append("friction " + ", ".join(f"{k} {v:.3f}" for k, v in told["friction"].items()))
    if factors["efficiency"]["told"]:
        core = (answer_of(ByContent(setup)).converted.systems or [])[0]
        value = float(core.control.efficiency) * factors["efficiency"]["value"]
        if 0.3 <= value <= 1.0:
            put(f"{root}.systems.0.control.efficiency", value, value * share["efficiency"])
            said.append(f"efficiency {value:.3f}")
    if factors["grip"]["told"]:
        for axle, value in (("front", told["grip"]["front"]), ("rear", told["grip"]["rear"])):
            if name == AS_FOUND:
                put(f"vehicle.grip_{axle}", value, value * share["grip"])
            else:
                edits.append(set_at(f"{root}.vehicle.grip_{axle}", round(value, 3)))
        said.append(f"grip {told['grip']['front']:.3f}")
    return "; ".join(said), edits


@lru_cache(maxsize=64)
def _taught(question: bytes) -> CalibrateAnswer:
    """The answer to a `question` of what stops teach, as JSON: a page is read more often than stops are driven. Raises BadPlace."""
    return ask_calibrate.calibrated(Asked(from_json(question)))


def calibration_of(
    job: Job, setup: str, of: str, rows: list[dict[str, Any]], records: tuple[Record, ...], pressed: str | None = None
) -> CalibrationView | None:
    """What the stops `rows` of the set `of`, made with all controls or the one `pressed`, and the last stand test, teach of a `setup`;
    None where there is too little to learn from."""
    stops, gauges = _stops(rows), _gauges(records, setup)
    if setup not in job.names or not stops or len(stops) + len(gauges) < LEAST:
        return None
    question = {"setup": job.setup(setup).model_dump(exclude_none=True), "stops": stops, "gauges": gauges}
    if pressed is not None and len(job.setup(setup).systems) > 1:
        question["path"] = f"{pressed}_alone"
    try:
        told = _taught(to_json(question))
    except BadPlace:
        return None
    factors: list[FactorView] = [
        {"name": k, "words": _WORDS[k], "value": f["value"], "low": f["low"], "high": f["high"], "told": f["told"]}
        for k, f in told["factors"].items()
    ]
    accept, edits = _accepted(job, setup, told)
    return {
        "setup": setup, "of": of, "readings": told["readings"], "fits": told["fits"], "factors": factors, "lag_s": told["lag_s"]["value"],
        "rms_before_g": told["rms_before_g"], "rms_after_g": told["rms_after_g"], "accept": accept, "edits": edits,
    }  # fmt: skip

"""What Bed shows of a setup: the maker's recipe put through the heat of its rotors, and the slow-downs that were driven."""

from typing import Any

from kobrix.core.errors import BadPlace
from kobrix.devices.thermometer import reading
from kobrix.evaluate.ask import bed as ask_bed
from kobrix.evaluate.ask.bed import DiscBedded, RecipeAnswer
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.bedding import Bedding, PadLimits
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.quantities import value_of
from kobrix.stages.bed.shapes import BedCaution, BedView, RecipeStage, RotorAt, SlowDown, StationHeat
from kobrix.stages.common import Standing, StoredJob
from kobrix.store.records import Record

_CAUTION = {
    "full_stop": "The recipe stops fully: pads print themselves on a hot rotor. Roll on.",
    "above_most": "{s}: hotter than its pads bear. Longer gaps, or softer.", "above_window": "{s}: above what its maker wants. A longer gap.",
    "below_window": "{s}: does not get as warm as its maker wants. Shorter gaps, or a few more.",
    "fluid_hot": "The fluid comes near its wet boiling point.", "no_room": "The road ends before the recipe does.",
}  # fmt: skip


def chosen(job: Job, name: str | None) -> str:
    """The setup asked for; the first plan, or the one as found where there is none yet."""
    return name if name is not None and name in job.names else job.names[min(1, len(job.names) - 1)]


def _bedding(job: Job, name: str) -> Bedding:
    plan = job.as_found if name == AS_FOUND else next(p for p in job.plans if p.name == name)
    return plan.bed or Bedding()


def _text(value: Any, unit: str) -> str:
    return "" if value is None else f"{value:g} {unit}" if isinstance(value, int | float) else str(value)


def _stages(own: Bedding) -> list[RecipeStage]:
    return [
        {
            "at": n, "from_kmh": _text(s.from_kmh, "km/h"), "to_kmh": _text(s.to_kmh, "km/h"), "count": s.count, "decel_g": _text(s.decel_g, "g"),
            "gap_s": _text(s.gap_s, "s"), "gap_m": _text(s.gap_m, "m"), "cool_s": _text(s.cool_s, "s"), "cool_kmh": _text(s.cool_kmh, "km/h"),
        }
        for n, s in enumerate(own.stages or [])
    ]  # fmt: skip


def _question(job: Job, name: str, own: Bedding) -> dict[str, Any]:
    typed = own.model_dump(exclude_none=True)
    stations = [s.name for system in job.setup(name).systems for s in system.stations]
    return {
        "setup": job.setup(name).model_dump(exclude_none=True), "stages": typed.get("stages", []),
        **{k: typed[k] for k in ("ambient_c", "road_m", "cool_to_c") if k in typed},
        "pads": {k: v for k, v in typed.get("pads", {}).items() if k in stations},
    }  # fmt: skip


def _driven(records: tuple[Record, ...], name: str) -> dict[int, Record]:
    own = [
        r
        for r in records
        if r.kind == "bedded" and r.body.get("setup") == name and r.struck is None and not r.body.get("simulated")
    ]
    return {r.body["number"]: r for r in own}


def _slow_downs(told: RecipeAnswer, own: Bedding, driven: dict[int, Record], road: float | None) -> list[SlowDown]:
    found: list[SlowDown] = []
    for n, row in enumerate(told["slow_downs"], 1):
        stage = (own.stages or [])[row["stage"]]
        record = driven.get(n)
        rotors: dict[str, RotorAt | None] = {
            name: None
            if heat is None
            else {"start_c": heat["start_c"], "peak_c": heat["peak_c"], "simulated_c": reading(heat["peak_c"], n)}
            for name, heat in row["stations"].items()
        }
        found.append(
            {
                "number": n, "stage": row["stage"], "starts_at_s": row["starts_at_s"], "ends_at_m": row["ends_at_m"],
                "from_kmh": value_of(stage.from_kmh, "from_kmh"), "to_kmh": value_of(stage.to_kmh, "to_kmh"),
                "decel_g": value_of(stage.decel_g, "decel_g"), "rotors": rotors, "fits": road is None or row["ends_at_m"] <= road + 1e-9,
                "driven": None if record is None else record.made_at, "key": None if record is None else record.key,
            }
        )  # fmt: skip
    return found


def _heat(name: str, told: DiscBedded | None, limits: PadLimits | None) -> StationHeat:
    own = limits or PadLimits()
    return {
        "name": name, "known": told is not None, "peak_c": told and told["peak_c"], "after_last_c": told and told["after_last_c"],
        "after_cooling_c": told and told["after_cooling_c"], "cool_to_s": told and told["cool_to_s"], "window_low": _text(own.window_low_c, "°C"),
        "window_high": _text(own.window_high_c, "°C"), "most": _text(own.most_c, "°C"),
    }  # fmt: skip


def bed_of(stored: StoredJob, name: str) -> BedView:
    """Bed of the setup by `name`. Raises NotFound."""
    job, own = stored.job, _bedding(stored.job, name)
    setup = job.setup(name)
    names = [s.name for system in setup.systems for s in system.stations]
    needs = answer_of(ByContent(setup)).needs.get("decel", [])
    driven = _driven(stored.records, name)
    pads = own.pads or {}
    view: BedView = {
        "page": "bed", "revision": stored.revision, "setup": name, "source": own.source or "", "ambient": _text(own.ambient_c, "°C"),
        "road": _text(own.road_m, "m"), "cool_to": _text(own.cool_to_c, "°C"), "stages": _stages(own), "slow_downs": [],
        "heat": [_heat(n, None, pads.get(n)) for n in names], "cautions": [], "needed_m": None, "whole_s": None, "whole_m": None, "fits": None,
        "refused": "", "needs": len(needs), "driven": len(driven), "certified": job.vehicle.kind == "aircraft",
    }  # fmt: skip
    if needs or not own.stages:
        return view
    try:
        told = ask_bed.recipe(Asked(_question(job, name, own)))
    except BadPlace as refused:
        view["refused"] = refused.reason
        return view
    road = None if own.road_m is None else value_of(own.road_m, "road_m")
    view["slow_downs"] = _slow_downs(told, own, driven, road)
    view["heat"] = [_heat(n, told["stations"].get(n), pads.get(n)) for n in names]
    cautions: list[BedCaution] = [
        {"id": c["id"], "level": c["level"], "words": _CAUTION[c["id"]].format(s=str(c["station"]).capitalize())}
        for c in told["cautions"]
    ]
    view["cautions"] = cautions
    view["needed_m"], view["whole_s"], view["whole_m"] = told["needed_m"], told["whole_s"], told["whole_m"]
    view["fits"] = told["slow_downs_that_fit"]
    return view


def shown(stored: StoredJob, name: str | None) -> BedView:
    """What Bed's page shows."""
    return bed_of(stored, chosen(stored.job, name))


def standing(stored: StoredJob) -> Standing:
    """How far Bed is: how many slow-downs of the first plan's recipe are driven."""
    name = chosen(stored.job, None)
    own = _bedding(stored.job, name)
    total = sum(s.count for s in own.stages or [])
    driven = len(_driven(stored.records, name))
    if total == 0 and driven == 0:
        return {"state": "empty", "words": "empty"}
    if total and driven >= total:
        return {"state": "ready", "words": "bedded"}
    return {"state": "begun", "words": f"{driven} of {total}"}

"""Whether the vehicle pulls to a side under braking: from how far it turned in stops with the wheel held straight."""

from typing import Any

from kobrix.core.errors import BadPlace
from kobrix.core.figures import Level
from kobrix.evaluate.ask import prove as ask_prove
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.proving import Proving
from kobrix.stages.prove.shapes import PullView
from kobrix.store.records import Record

_LEVEL: dict[str, Level] = {"even": "good", "cannot_tell": "note", "uneven": "caution", "pulls": "danger"}
_WANTED = {
    "track_mm": "the track",
    "mass_kg": "the mass",
    "front_share": "the front share",
    "wheelbase_mm": "the wheelbase",
    "radius_of_gyration_mm": "the radius of gyration",
}
_READ = ("speed_kmh", "distance_m", "brake_on_mark_m", "rest_mark_m", "time_s", "direction", "heading_deg", "offset_m")


def _body(job: Job, setup: str, proving: Proving) -> tuple[dict[str, Any], list[str]]:
    """What turns, as the question has it, and what of it is not known."""
    vehicle = job.setup(setup).vehicle
    load = vehicle.load_states[0] if vehicle.load_states else None
    castering = vehicle.kind in ("aircraft", "motorcycle")
    body: dict[str, Any] = {
        "kind": "castering" if castering else "car",
        "track_mm": vehicle.track_mm,
        "mass_kg": None if load is None else load.mass_kg,
    }
    if castering:
        body["radius_of_gyration_mm"] = proving.radius_of_gyration_mm
    else:
        body |= {"wheelbase_mm": vehicle.wheelbase_mm, "front_share": None if load is None else load.front_share}
    return body, [words for key, words in _WANTED.items() if key in body and body[key] is None]


def pull_of(job: Job, setup: str, proving: Proving, records: list[Record]) -> PullView | None:
    """What the stops of a set that note a turn say; None where none does."""
    own = [
        r
        for r in records
        if r.struck is None
        and not r.body.get("simulated")
        and (r.body.get("heading_deg") is not None or r.body.get("offset_m") is not None)
    ]
    if not own:
        return None
    body, missing = _body(job, setup, proving)
    view: PullView = {
        "set": own[0].body["set"],
        "n": len(own),
        "verdict": "",
        "level": "note",
        "sentence": "",
        "percent": None,
        "low": None,
        "high": None,
    }
    if missing:
        return view | {"sentence": f"{len(own)} stops note a turn. It needs {', '.join(missing)} to say what that means."}
    stops = [{k: r.body[k] for k in _READ if r.body.get(k) is not None} for r in own]
    try:
        told = ask_prove.turned(Asked({**body, "stops": stops}))
    except BadPlace as refused:
        return view | {"level": "caution", "sentence": f"{refused.place}: {refused.reason}"}
    vehicle, verdict = told["vehicle"], told["verdict"]
    side, share = told["side"] or ("left" if vehicle["value"] > 0 else "right"), abs(100 * vehicle["value"])
    least = " at least" if told["least"] else ""
    said = {
        "even": "It brakes evenly left and right, within a tenth.",
        "cannot_tell": f"Which side brakes more cannot be told yet: {share:.0f} % to the {side} so far. Four stops, both ways on one road, tell.",
        "uneven": f"The {side} brakes {share:.0f} % more{least}: look for a sticking piston, a hose, oil on a pad. Inspections allow 25 to 30 % (from memory).",
        "pulls": f"It pulls to the {side}: {share:.0f} % more braking there{least}. Find out why before it is driven on.",
    }[verdict]
    if told["road"] is not None:
        said += f" The road itself makes {abs(100 * told['road']):.0f} %."
    view["verdict"], view["level"], view["sentence"] = verdict, _LEVEL[verdict], said
    view["percent"] = 100.0 * vehicle["value"]
    view["low"], view["high"] = (None if end is None else 100.0 * end for end in (vehicle["low"], vehicle["high"]))
    return view

"""Stops out of a recording: what is in the file, which stops it has, and those that are kept."""

import hashlib
from collections.abc import Mapping
from typing import Any

import numpy as np
from numpy.typing import NDArray

from kobrix.core.constants import KMH, G
from kobrix.core.errors import BadEntry
from kobrix.core.prove.stops import Conditions, Reason, Trace, TraceAnswer, stop_trace
from kobrix.devices import meter
from kobrix.fileformat.records import FiledTrace
from kobrix.recordings.columns import NONE, UNITS, Recording, by_hand
from kobrix.recordings.read import FoundStop, Series, found_stops, read, series
from kobrix.stages.common import StoredJob
from kobrix.stages.prove.predicted import predicted
from kobrix.stages.prove.service import Sets, push_of
from kobrix.stages.prove.shapes import RecordedStop, RecordingColumn, RecordingView, RoleView

TRIGGER_SHARE = 0.9  # of the nominal speed: a stop from below it cannot be corrected to it
_CURVE, _SHOWN_ROWS = 40, 3
_REASON: dict[Reason, str] = {
    "braking_from_the_first_sample": "it brakes from its first sample on: where it began is not seen", "no_onset": "where braking began is not seen",
    "never_at_rest": "it does not come to rest", "never_through_trigger": "it does not fall through the speed",
}  # fmt: skip
_ROLE = {
    NONE: "not used", "time": "time", "speed": "speed", "distance": "distance", "deceleration": "deceleration",
    "acceleration": "acceleration, braking below 0", "front_pressure": "front pressure", "rear_pressure": "rear pressure",
    "front_temperature": "front rotor", "rear_temperature": "rear rotor",
}  # fmt: skip
_FILED = {"front_pressure": ("front_kpa", 1e-3), "rear_pressure": ("rear_kpa", 1e-3), "front_temperature": ("front_c", 1.0),
          "rear_temperature": ("rear_c", 1.0)}  # fmt: skip


def _figures(trace: Trace, nominal: float) -> TraceAnswer:
    return stop_trace(trace, TRIGGER_SHARE * nominal * KMH, None, Conditions(nominal * KMH))


def _curve(trace: Trace, told: TraceAnswer) -> list[tuple[float, float]]:
    """Way [m] and speed [km/h] from the onset to rest, at some places for drawing."""
    if told["onset_s"] is None or told["end_s"] is None:
        return []
    t = np.linspace(told["onset_s"], told["end_s"], _CURVE)
    start = trace.way_at(float(t[0]))
    return [(round(trace.way_at(float(at)) - start, 2), round(trace.speed_at(float(at)) / KMH, 2)) for at in t]


def _seen(n: int, found: FoundStop, own: Series, nominal: float) -> RecordedStop:
    told = _figures(found.trace, nominal)
    curve = _curve(found.trace, told)
    part = slice(found.first, found.last)
    most = {role: float(np.nanmax(values[part])) for role, values in own.more.items() if np.isfinite(values[part]).any()}
    return {
        "number": n, "at_s": found.at, "speed_kmh": told["onset_speed_kmh"], "distance_m": told["distance_m"], "time_s": told["time_s"],
        "nominal_m": told["nominal_m"], "mfdd_g": told["mfdd_g"], "lag_s": told["lag_s"], "questioned": bool(told["questioned"]),
        "reason": "" if told["reason"] is None else _REASON[told["reason"]], "speed_off": told["nominal_reason"] == "speed_off",
        "front_kpa": most["front_pressure"] * 1e-3 if "front_pressure" in most else None,
        "rear_kpa": most["rear_pressure"] * 1e-3 if "rear_pressure" in most else None,
        "samples": found.last - found.first, "curve_m": [m for m, _ in curve], "curve_kmh": [kmh for _, kmh in curve],
    }  # fmt: skip


def _columns(recording: Recording) -> list[RecordingColumn]:
    rows = recording.values[:_SHOWN_ROWS]
    return [
        {
            "head": c.head,
            "role": c.role,
            "unit": c.unit,
            "guessed": c.guessed,
            "first": [f"{v:g}" if np.isfinite(v) else "" for v in rows[:, n]],
        }
        for n, c in enumerate(recording.columns)
    ]


def roles() -> list[RoleView]:
    """What a column may be of, with its units."""
    return [{"role": role, "words": words, "units": list(UNITS.get(role, {}))} for role, words in _ROLE.items()]


def looked_at(
    content: bytes, said: Mapping[int, tuple[str, str]], nominal: float
) -> tuple[RecordingView, Series | None, list[FoundStop]]:
    """What is in a recording and which stops from `nominal` [km/h] it has. Raises BadFile, BadEntry."""
    recording = by_hand(read(content), said)
    view: RecordingView = {
        "kind": recording.kind, "rows": recording.values.shape[0], "dropped": recording.dropped, "columns": _columns(recording),
        "roles": roles(), "stops": [], "needs": "", "trigger_kmh": TRIGGER_SHARE * nominal, "seconds": None, "fastest_kmh": None,
    }  # fmt: skip
    try:
        own = series(recording)
    except BadEntry as wanted:
        view["needs"] = str(wanted)
        return view, None, []
    found = found_stops(own, TRIGGER_SHARE * nominal * KMH)
    view["seconds"], view["fastest_kmh"] = float(own.t[-1] - own.t[0]), float(own.v.max()) / KMH
    view["stops"] = [_seen(n, stop, own, nominal) for n, stop in enumerate(found)]
    return view, own, found


def _list(values: NDArray[np.float64], factor: float, digits: int) -> list[float]:
    return [round(float(v) * factor, digits) for v in values]


def _filed(key: str, source: str, found: FoundStop, own: Series) -> FiledTrace:
    trace, part = found.trace, slice(found.first, found.last)
    more = {
        name: _list(own.more[role][part], factor, 1)
        for role, (name, factor) in _FILED.items()
        if role in own.more and np.isfinite(own.more[role][part]).all()
    }
    if trace.s is not None:
        more["distance_m"] = _list(trace.s, 1.0, 3)
    if trace.a is not None:
        more["decel_m_per_s2"] = _list(trace.a, 1.0, 4)
    return FiledTrace.model_validate(
        {
            "key": key,
            "source": source[:80] or "a recording",
            "t_s": _list(trace.t, 1.0, 4),
            "speed_kmh": _list(trace.v, 1 / KMH, 4),
            **more,
        }
    )


def _body(key: str, set_: str, trace: Trace, nominal: float, simulated: bool) -> dict[str, Any]:
    """A stop's record by its trace. Raises BadEntry where its distance is not known."""
    told = _figures(trace, nominal)
    distance, speed, time = told["distance_m"], told["onset_speed_kmh"], told["time_s"]
    if distance is None or speed is None or time is None:
        why = "no distance" if told["reason"] is None else _REASON[told["reason"]]
        raise BadEntry("stop", why, "a stop with its beginning and its rest", "leave it out")
    body: dict[str, Any] = {
        "set": set_, "speed_kmh": round(speed, 3), "distance_m": round(distance, 3), "time_s": round(time, 3),
        "trace": key, "curve": _curve(trace, told),
    }  # fmt: skip
    for name, value in (("mfdd_g", told["mfdd_g"]), ("lag_s", told["lag_s"])):
        if value is not None:
            body[name] = round(value, 4)
    return body | ({"simulated": True} if simulated else {})


def kept(
    content: bytes, said: Mapping[int, tuple[str, str]], nominal: float, wanted: list[int], set_: str, source: str
) -> list[tuple[FiledTrace, dict[str, Any]]]:
    """The `wanted` stops of a recording, each with its samples and its record; the same file gives the same keys. Raises BadFile, BadEntry."""
    _, own, found = looked_at(content, said, nominal)
    digest = hashlib.sha256(content).hexdigest()
    stops = []
    for n in wanted:
        if own is None or not 0 <= n < len(found):
            raise BadEntry("stop", str(n + 1), f"1 to {len(found)}" if found else "none: the file has no stop from such a speed")
        key = f"{digest[:32]}-{n}-{hashlib.sha256(set_.encode()).hexdigest()[:8]}"
        body = _body(key, set_, found[n].trace, nominal, simulated=False)
        temperatures = {axle: own.more.get(f"{axle}_temperature") for axle in ("front", "rear")}
        body |= {
            f"rotor_{axle}_c": round(float(values[found[n].first]), 1)
            for axle, values in temperatures.items()
            if values is not None and np.isfinite(values[found[n].first])
        }
        stops.append((_filed(key, source, found[n], own), body))
    return stops


def simulated(stored: StoredJob, set_: str) -> tuple[FiledTrace, dict[str, Any]]:
    """A stop of the simulated meter for a set: what the model sees, with the noise of a receiver; marked, never counted. Raises BadEntry."""
    sets = Sets(stored)
    own = next((s for s in sets.sets if s.name == set_), None)
    if own is None:
        raise BadEntry("set", repr(set_[:40]), ", ".join(repr(s.name) for s in sets.sets) or "none: add a set first")
    seen = predicted(stored.job, own.setup, push_of(sets.stops[set_]), sets.most(own), sets.nominal, own.pressed)
    if seen is None:
        raise BadEntry("set", repr(set_[:40]), "a setup whose stops can be predicted", "its measures are not complete")
    number = sum(1 for r in sets.stops[set_] if r.body.get("simulated")) + 1
    v = sets.nominal * KMH
    t, speeds = meter.stop(v, min(v**2 / (2 * seen["mid_m"]) * 1.06, 1.5 * G), number)
    key = f"simulated-{hashlib.sha256(f'{set_}-{number}'.encode()).hexdigest()[:24]}"
    found = FoundStop(0.0, Trace(t, speeds), 0, t.size)
    return _filed(key, "simulated meter", found, Series(t, speeds, None, None, {})), _body(
        key, set_, found.trace, sets.nominal, simulated=True
    )

"""How the figures of a stop came about: each formula with this stop's numbers in it, and where it comes from."""

import math
from typing import Any

from kobrix.core.constants import KMH, G
from kobrix.core.prove.stops import TypedAnswer
from kobrix.fileformat.quantities import value_of
from kobrix.stages.prove.shapes import StopStep

_LEVEL, _NOMINAL = "d·a/(a − g·sin(atan q)), a = v²/2d", "d·(V/v)²"


def _step(what: str, formula: str, numbers: str, source: str) -> StopStep:
    return {"what": what, "formula": formula, "numbers": numbers, "source": source}


def working_of(body: dict[str, Any], told: TypedAnswer, way: float | None, nominal_kmh: float) -> list[StopStep]:
    """The working of a stop: its record's `body`, the figures `told` of it, its `way` [m], the speed [km/h] that stops are compared at."""
    speed = value_of(body["speed_kmh"], "speed_kmh") * KMH
    time = None if body.get("time_s") is None else value_of(body["time_s"], "time_s")
    found: list[StopStep] = []
    if body.get("brake_on_mark_m") is not None and body.get("distance_m") is None and way is not None:
        marks = [value_of(body[k], k) for k in ("brake_on_mark_m", "rest_mark_m")]
        found.append(
            _step(
                "distance", "rest mark − brake-on mark", f"|{marks[1]:g} − {marks[0]:g}| = {way:.1f} m", "two marks on the ground"
            )
        )
    if way is not None:
        decel = told["decel_by_distance_g"] or 0.0
        found.append(_step("mean deceleration", "v²/(2·d·g)", f"{speed:.2f}²/(2·{way:.1f}·{G:.3f}) = {decel:.3f} g", "mechanics"))
    if way is None and time is not None:
        decel = told["decel_by_time_g"] or 0.0
        found.append(_step("mean deceleration", "v/(t·g)", f"{speed:.2f}/({time:g}·{G:.3f}) = {decel:.3f} g", "mechanics"))
    level, grade = told["level_m"], body.get("grade")
    if level is not None and grade is not None and way is not None:
        q, a = value_of(grade, "grade"), speed**2 / (2 * way)
        lifted = G * math.sin(math.atan(q))
        found.append(
            _step(
                "on the level",
                _LEVEL,
                f"{way:.1f}·{a:.2f}/({a:.2f} − {lifted:+.2f}) = {level:.1f} m",
                "mechanics; uphill is positive",
            )
        )
    if told["nominal_m"] is not None:
        start = f"{(level or 0.0):.1f}·({nominal_kmh:g}/{speed / KMH:.1f})²"
        found.append(_step(f"from {nominal_kmh:g} km/h", _NOMINAL, f"{start} = {told['nominal_m']:.1f} m", "within 10 % of the speed: SAE J299, from memory"))  # fmt: skip
    elif told["nominal_reason"] == "speed_off":
        found.append(
            _step(
                f"from {nominal_kmh:g} km/h", _NOMINAL, f"none: {speed / KMH:.1f} is more than 10 % off", "SAE J299, from memory"
            )
        )
    if time is not None and way is not None and told["lag_s"] is not None and "trace" not in body:
        found.append(
            _step(
                "time to build up",
                "2·d/v − t",
                f"2·{way:.1f}/{speed:.2f} − {time:g} = {told['lag_s']:.2f} s",
                "steady braking after it",
            )
        )
    if body.get("lag_s") is not None:
        found.append(
            _step("time to build up", "(d − v²/(2·MFDD))/v", f"{body['lag_s']:.2f} s", "of the recording, from its onset")
        )
    if body.get("mfdd_g") is not None:
        found.append(
            _step(
                "MFDD", "(0.8² − 0.1²)·v²/(2·(d₀.₁ − d₀.₈))", f"{body['mfdd_g']:.3f} g", "of the recording; UN R13, from memory"
            )
        )
    if told["steady_gap"] is not None and told["check_speed_kmh"] is not None:
        gap = 100 * told["steady_gap"]
        found.append(_step("held against itself", "2·d/(t + lag) against v", f"{told['check_speed_kmh']:.1f} km/h, {gap:+.1f} %", "over 3 %: a speed, a distance or a time is wrong (our estimate)"))  # fmt: skip
    return found

"""A row of stops driven one after another: the rotors by the heat model beside what was read, and whether the brakes faded."""

import math

import numpy as np

from kobrix.core.errors import BadPlace
from kobrix.core.figures import Level
from kobrix.core.prove.estimates import line
from kobrix.evaluate.ask import bed as ask_bed
from kobrix.evaluate.ask import prove as ask_prove
from kobrix.evaluate.ask.subject import Subject
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.proving import StopSet
from kobrix.fileformat.quantities import value_of
from kobrix.stages.prove.shapes import RowStop, RowView
from kobrix.store.records import Record

BITE_DOUBT = 0.05  # standard deviation of one stop's bite: what a careful stop scatters and a push felt is off, our estimate
FADE = 0.25  # lost over the row: danger, our estimate
LEAST = 3  # stops with a push that a trend is read from
_READ = ("speed_kmh", "distance_m", "brake_on_mark_m", "rest_mark_m", "time_s", "grade")


def _decel(record: Record) -> float | None:
    """Deceleration [g] of a stop as on a level road; None where it was not measured."""
    try:
        told = ask_prove.typed(Asked({k: record.body[k] for k in _READ if k in record.body}))
    except BadPlace:
        return None
    level, speed = told["level_m"], told["decel_by_distance_g"]
    if level and speed and (way := ask_prove.way_of(Asked(record.body))):
        return speed * way / level
    return speed or told["decel_by_time_g"]


def _bites(subject: Subject, stops: list[tuple[Record, float]]) -> list[float | None]:
    """Deceleration over what the push gives cold by the model, of the stops in which nothing locked; the first of them is 1."""
    found: list[float | None] = []
    for record, decel in stops:
        push = record.body.get("push_n")
        free = record.body.get("locked", "none") == "none"
        cold = subject.decel_at(subject.path.healthy, value_of(push, "push_n")) if push is not None and free else 0.0
        found.append(decel / cold if cold > 0.0 else None)
    first = next((b for b in found if b is not None), 1.0)
    return [None if b is None else b / first for b in found]


def _trend(bites: list[float | None]) -> tuple[float, float, float] | None:
    """What was lost from the first to the last stop [1], with its interval; None of fewer than three."""
    known = [(n, math.log(b)) for n, b in enumerate(bites) if b]
    if len(known) < LEAST:
        return None
    x, y = (np.array(v, dtype=np.float64) for v in zip(*known, strict=True))
    fit = line(x, y, BITE_DOUBT)
    if fit is None:
        return None
    span = float(x[-1] - x[0])
    half = fit.k * math.sqrt(float(fit.cov[1, 1]))
    slope = float(fit.values[1])
    low, mid, high = (math.expm1(s * span) for s in (slope - half, slope, slope + half))
    return mid, low, high


def _said(trend: tuple[float, float, float] | None, hottest: str) -> tuple[Level, str]:
    if trend is None:
        return (
            "note",
            f"{hottest}Whether the brakes fade cannot be told: three stops with their push, and nothing locked, are needed.",
        )
    mid, low, high = (round(100 * t) for t in trend)
    if trend[1] <= 0.0 <= trend[2]:
        return (
            "good",
            f"{hottest}No fade to be seen: the same push gives between {_per(low)} and {_per(high)} braking at the last stop.",
        )
    if trend[0] > 0.0:
        return (
            "good",
            f"{hottest}They bite harder as they warm: the same push gives {mid} % more braking at the last stop, {low} to {high}.",
        )
    level: Level = "danger" if trend[0] <= -FADE else "caution"
    tail = "Let them cool; other pads, a heavier rotor or air to it mend it."
    return (
        level,
        f"{hottest}The brakes fade: the same push gives {-mid} % less braking at the last stop, {-high} to {-low}. {tail}",
    )


def _per(per: int) -> str:
    return f"{abs(per)} % {'more' if per >= 0 else 'less'}"


def _empty(own: StopSet, needs: str) -> RowView:
    return {
        "set": own.name, "stops": [], "stations": [], "whole_s": 0.0, "change": None, "low": None, "high": None, "level": "note",
        "sentence": "", "needs": needs,
    }  # fmt: skip


def _read(record: Record, axle: str) -> float | None:
    typed = record.body.get(f"rotor_{axle}_c")
    return None if typed is None else value_of(typed, f"rotor_{axle}_c")


def row_of(job: Job, own: StopSet, records: list[tuple[int, Record]]) -> RowView:
    """A row of the stops in `records` (their numbers on the page), in the order they were driven.

    `job`; `own`: the set with its gap [s]. Temperatures are bed_recipe's, each stop from its own speed to rest at its own deceleration.
    """
    stops = [(n, r, d) for n, r in records if (d := _decel(r)) is not None]
    if not stops:
        return _empty(own, "No stop of it has a distance or a time yet.")
    question = {
        "setup": job.setup(own.setup).model_dump(exclude_none=True),
        "stages": [
            {"from_kmh": r.body["speed_kmh"], "to_kmh": 0, "count": 1, "decel_g": d, "gap_s": own.row_gap_s}
            for _, r, d in stops
        ],
    }  # fmt: skip
    try:
        told = ask_bed.recipe(Asked(question))
        bites = _bites(Subject(Asked(question)), [(r, d) for _, r, d in stops])
    except BadPlace as refused:
        return _empty(own, f"The heat of the row is not known: {refused.reason}")
    axles = {s.name: s.axle for system in job.setup(own.setup).systems for s in system.stations}
    known = {name: heat["peak_c"] for name, heat in told["stations"].items() if heat is not None}
    rows: list[RowStop] = [
        {
            "number": n, "starts_at_s": row["starts_at_s"], "from_kmh": value_of(r.body["speed_kmh"], "speed_kmh"), "bite": bite,
            "rotors": {
                name: None if heat is None else {"start_c": heat["start_c"], "peak_c": heat["peak_c"], "read_c": _read(r, axles[name])}
                for name, heat in row["stations"].items()
            },
        }
        for (n, r, _), row, bite in zip(stops, told["slow_downs"], bites, strict=True)
    ]  # fmt: skip
    hottest = ", ".join(f"{name} {peak:.0f} °C" for name, peak in known.items())
    trend = _trend(bites)
    level, sentence = _said(trend, f"Hottest by the model: {hottest}. " if known else "")
    change, low, high = trend if trend is not None else (None, None, None)
    return {
        "set": own.name, "stops": rows, "stations": list(known), "whole_s": told["whole_s"], "change": change, "low": low, "high": high,
        "level": level, "sentence": sentence,
        "needs": "" if known else "The mass and the cooling area of a rotor are not known: with them, in Measure, its heat is followed.",
    }  # fmt: skip

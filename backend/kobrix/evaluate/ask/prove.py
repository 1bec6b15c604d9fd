"""The questions of Bleed and Prove that need no setup: read from the open format, answered by the core."""

import math
from collections import Counter

import numpy as np

from kobrix.core.constants import KMH, G
from kobrix.core.figures import Warned
from kobrix.core.prove.bleeding import (
    DENSITY,
    USUAL_DENSITY,
    BleedAnswer,
    Branch,
    Reservoir,
    Trunk,
    bleed_order,
    fluid_warnings,
    line_volume,
    order_of,
)  # fmt: skip
from kobrix.core.prove.compare import CompareAnswer, Stop, StopSet, pair_figures, set_figures, told
from kobrix.core.prove.pulling import Body, PullAnswer, Turned, pull
from kobrix.core.prove.stops import Conditions, Trace, TraceAnswer, TypedAnswer, stop_trace, stop_typed
from kobrix.core.prove.valve_setting import Adjuster, SettingAnswer, valve_next
from kobrix.fileformat.asked import Asked

SCHOOLS = ("furthest_first", "nearest_first", "list", "diagonal")
LOCKED = ("none", "front", "rear", "both")


def stroke_of(asked: Asked) -> float | None:
    """What one push moves [cm³]: typed, or by the bore and a share of the stroke; None where neither is known."""
    if asked.given("stroke_volume_cm3"):
        return asked.number("stroke_volume_cm3")
    if not (asked.given("bore_mm") or asked.given("stroke_mm")):
        return None
    bore, stroke = asked.number("bore_mm"), asked.number("stroke_mm")
    return math.pi / 4 * bore**2 * stroke * asked.default("stroke_share", 0.5) / 1000


def _branches(asked: Asked, trunks: dict[str, Trunk]) -> list[Branch]:
    found = []
    for row in asked.parts("branches"):
        length, bore = row.maybe("line_length_mm", "zero"), row.default("line_bore_mm", 3.2)
        line = row.maybe("line_volume_cm3", "zero")
        if line is None and length is not None:
            line = line_volume(length, bore)
        screws = row.count("screws", 1, 1)
        if screws > 2:
            raise row.bad("screws", f"{screws} was given; allowed are 1 and 2.")
        trunk = row.word("trunk", trunks) if row.given("trunk") else None
        found.append(
            Branch(row.text("name"), row.word("axle", ("front", "rear")), row.word("side", ("left", "right")),
                   row.number("caliper_volume_cm3", "zero"), length, line, screws,
                   row.word("first_screw", ("inner", "outer"), "inner") == "outer", trunk)
        )  # fmt: skip
    return found


def bleeding(asked: Asked) -> BleedAnswer:
    """bleed_order: the order of the screws, what each takes, when to fill up."""
    trunks = {}
    group = asked.part_or_empty("trunks")
    for name in group.value:
        part = group.part(name)
        length = part.number("length_mm", "zero")
        trunks[name] = Trunk(length, line_volume(length, part.default("bore_mm", 3.2)))
    branches = _branches(asked, trunks)
    school = asked.word("school", SCHOOLS, "furthest_first")
    names, listed = [b.name for b in branches], []
    if school == "list":
        listed = asked.texts("list")
        for k, name in enumerate(listed):
            if name not in names or name in listed[:k]:
                raise asked.bad(f"list.{k}", f"{name!r} was given; allowed is each branch once: {', '.join(names)}.")
        if Counter(listed) != Counter(names):
            raise asked.bad("list", "it leaves out a branch.")
    stroke, full, low = stroke_of(asked), asked.maybe("reservoir_cm3"), asked.default("low_mark_cm3", 0.0)
    if (full is not None and (stroke or 0.0) > full - low + 1e-9 * (stroke is not None)) or (full is not None and full <= low):
        raise asked.bad("reservoir_cm3", "one push takes more than it holds above the low mark.")
    fluid = asked.text("fluid", "DOT 4")
    fluid_in = asked.text("fluid_in") if asked.given("fluid_in") else None
    density = asked.default("density_g_per_cm3", DENSITY.get(fluid, USUAL_DENSITY))
    order = order_of(branches, trunks, school, asked.word("cylinder_side", ("left", "right"), "left"), listed)
    out = bleed_order(branches, trunks, order, asked.default("flush_factor", 2.0), Reservoir(stroke, full, low), density)
    missing = any(b.length is None for b in branches)
    seats: list[Warned] = [{"id": "order_from_seats", "level": "note"}] if missing and school != "list" else []
    return {
        **out, "order_from": "list" if school == "list" else "seats" if missing else "lengths",
        "warnings": [*fluid_warnings(fluid, fluid_in), *seats],
    }  # fmt: skip


def _conditions(asked: Asked) -> Conditions:
    nominal = asked.maybe("nominal_kmh")
    return Conditions(
        None if nominal is None else nominal * KMH, asked.default("grade", 0.0, "any"), asked.maybe("headwind_m_per_s", "any")
    )


def trace(asked: Asked) -> TraceAnswer:
    """stop_trace: one recorded stop."""
    samples = asked.part("samples")
    t = samples.numbers("t_s", 3, "any")
    for k in range(1, len(t)):
        if t[k] <= t[k - 1]:
            raise samples.bad(f"t_s.{k}", "times must rise.")
    columns = {}
    for name, sign in (("speed_kmh", "zero"), ("distance_m", "any"), ("decel_m_per_s2", "any")):
        if name != "speed_kmh" and not samples.given(name):
            continue
        values = samples.numbers(name, 0, "zero" if sign == "zero" else "any") if samples.given(name) else samples.numbers(name)
        if len(values) != len(t):
            raise samples.bad(name, f"it has {len(values)} readings, the times {len(t)}.")
        columns[name] = np.array(values)
    trigger = asked.number("nominal_kmh" if not asked.given("trigger_kmh") and asked.given("nominal_kmh") else "trigger_kmh")
    return stop_trace(
        Trace(np.array(t), columns["speed_kmh"] * KMH, columns.get("distance_m"), columns.get("decel_m_per_s2"),
              asked.default("onset_window_s", 0.3), asked.default("onset_decel_m_per_s2", 1.0), asked.default("end_kmh", 1.0) * KMH),
        trigger * KMH, asked.maybe("onset_s", "any"), _conditions(asked),
    )  # fmt: skip


def way_of(asked: Asked) -> float | None:
    """Way [m] of a stop: typed, or between two marks; None where neither is known."""
    if asked.given("distance_m"):
        return asked.number("distance_m")
    if not (asked.given("brake_on_mark_m") and asked.given("rest_mark_m")):
        return None
    way = abs(asked.number("rest_mark_m", "any") - asked.number("brake_on_mark_m", "any"))
    if way <= 0:
        raise asked.bad("rest_mark_m", "both marks are at the same place.")
    return way


def typed(asked: Asked) -> TypedAnswer:
    """stop_typed: one stop of three typed numbers."""
    lag = asked.default("expected_lag_s", 0.0)
    return stop_typed(asked.number("speed_kmh") * KMH, way_of(asked), asked.maybe("time_s"), lag, _conditions(asked))


def _word(asked: Asked, key: str, words: tuple[str, ...]) -> str | None:
    return asked.word(key, words) if asked.given(key) else None


def compare(asked: Asked) -> CompareAnswer:
    """stops_compare: sets of stops, and pairs of them."""
    nominal = asked.number("nominal_kmh")
    sets = []
    for part in asked.parts("sets"):
        stops = [
            Stop(row.number("distance_m"), row.default("speed_kmh", nominal) * KMH, _word(row, "direction", ("out", "back")),
                 _word(row, "locked", LOCKED), row.maybe("push_n"), row.maybe("mfdd_g"), row.flag("struck"))
            for row in part.parts("stops")
        ]  # fmt: skip
        sets.append(StopSet(part.text("name"), stops, part.texts("changed", 0), part.maybe("predicted_lock_g")))
    names = [s.name for s in sets]
    for k, name in enumerate(names):
        if name in names[:k]:
            raise asked.bad(f"sets.{k}.name", f"{name!r} is the name of another set too.")
    pairs = [(k, k + 1) for k in range(len(sets) - 1)]
    if asked.given("pairs"):
        pairs = []
        for k, row in enumerate(asked.rows("pairs", 0)):
            if not isinstance(row, list) or len(row) != 2:
                raise asked.bad(f"pairs.{k}", "a pair is two names of sets.")
            for n, name in enumerate(row):
                if name not in names:
                    raise asked.bad(f"pairs.{k}.{n}", f"{name!r} was given; known are {', '.join(names)}.")
            pairs.append((names.index(row[0]), names.index(row[1])))
    limit, wanted = asked.default("force_limit_n", 500.0), asked.maybe("wanted_m")
    known = [told(own, nominal * KMH) for own in sets]
    return {
        "sets": [set_figures(one, left, limit) for one, left in known],
        "pairs": [pair_figures(known[a][0], known[b][0], sets[a + 1 : b + 1], wanted) for a, b in pairs],
    }


def setting(asked: Asked) -> SettingAnswer:
    """valve_next: the next setting of an adjustable valve or balance bar."""
    least, most = asked.number("least", "any"), asked.number("most", "any")
    if most <= least:
        raise asked.bad("most", "it is not above the least.")
    now = asked.number("now", "any")
    if not least - 1e-9 <= now <= most + 1e-9:
        raise asked.bad("now", f"{now:g} was given; allowed is {least:g} to {most:g}.")
    sign = 1 if asked.word("more_is", ("rear", "front"), "rear") == "rear" else -1
    log = [(row.number("setting", "any"), row.word("locked", LOCKED)) for row in asked.parts("log", 0)]
    predicted, knee = None, None
    if asked.given("predicted"):
        part = asked.part("predicted")
        predicted = (part.number("setting", "any"), part.number("sd"))
    if asked.given("knee_kpa_at_least") and asked.given("knee_kpa_per_setting"):
        knee = (asked.number("knee_kpa_at_least", "any"), asked.number("knee_kpa_per_setting", "any"))
    return valve_next(
        Adjuster(least, most, now, sign, asked.default("spread", 0.05 * (most - least)), asked.default("wanted_chance", 0.05),
                 asked.default("most_step", 0.25 * (most - least))),
        log, predicted, knee,
    )  # fmt: skip


def turned(asked: Asked) -> PullAnswer:
    """pull: how unevenly a vehicle brakes left and right."""
    castering = asked.word("kind", ("car", "castering"), "car") == "castering"
    mass, track = asked.number("mass_kg"), asked.number("track_mm") / 1000
    arm = asked.number("tail_arm_mm") / 1000 if asked.given("tail_arm_mm") else None
    if castering:
        body = Body(mass, track, True, gyration=asked.number("radius_of_gyration_mm") / 1000, arm=arm)
    else:
        share = asked.number("front_share")
        if share >= 1:
            raise asked.bad("front_share", f"{share:g} was given; allowed is between 0 and 1.")
        stiffness = asked.default("cornering_stiffness_per_rad", 12.0)
        body = Body(mass, track, False, asked.number("wheelbase_mm") / 1000, share, stiffness, arm=arm)
    stops = []
    for row in asked.parts("stops"):
        speed, time, way = row.maybe("speed_kmh"), row.maybe("time_s"), way_of(row)
        speed = None if speed is None else speed * KMH
        if time is None:
            time = 2 * (way if way is not None else row.number("distance_m")) / (speed or row.number("speed_kmh") * KMH)
        if way is None:
            way = (speed or row.number("speed_kmh") * KMH) * time / 2
        decel = row.maybe("decel_g")
        heading, rate, offset = row.maybe("heading_deg", "any"), row.maybe("rate_deg_per_s", "any"), row.maybe("offset_m", "any")
        if heading is None and rate is None and offset is None:
            raise row.bad("heading_deg", "it is missing.")
        stops.append(
            Turned(time, way, decel if decel is not None else 2 * way / (time**2 * G), _word(row, "direction", ("out", "back")),
                   None if heading is None else math.radians(heading), None if rate is None else math.radians(rate), offset)
        )  # fmt: skip
    return pull(body, stops)

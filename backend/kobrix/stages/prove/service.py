"""What Prove shows of a job: its stops by sets, against the prediction and against each other."""

import itertools
import math
from typing import Any

from kobrix.core.errors import BadPlace
from kobrix.core.figures import Level
from kobrix.core.prove.compare import CompareAnswer, PairAnswer, SetAnswer, doubt_of_difference, stops_each
from kobrix.core.prove.stops import TypedAnswer
from kobrix.core.rules.limits import force_limit
from kobrix.evaluate.ask import prove as ask_prove
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import controls_of
from kobrix.fileformat.proving import Proving, StopSet
from kobrix.fileformat.quantities import value_of
from kobrix.stages.common import Standing, StoredJob
from kobrix.stages.prove import words
from kobrix.stages.prove.calibration import calibration_of
from kobrix.stages.prove.first_drive import first_drive_of
from kobrix.stages.prove.predicted import controls_named, predicted
from kobrix.stages.prove.pull import pull_of
from kobrix.stages.prove.row import row_of
from kobrix.stages.prove.shapes import (
    CalibrationView,
    DayPlan,
    PairView,
    Predicted,
    ProveView,
    PullView,
    RowView,
    StopSetView,
    StopView,
    ValveView,
)
from kobrix.stages.prove.stop_line import line_of
from kobrix.stages.prove.working import working_of
from kobrix.store.records import Record

NOMINAL_KMH, FORCE_LIMIT_N = 80.0, 500.0
USUAL_SCATTER, USUAL_STOPS = 0.035, 5  # of the distance, one standard deviation of careful stops, our estimate; stops in a set
_AROUND = ("feel", "surface", "load", "tyres", "note")


def _text(value: Any, unit: str, recorded: bool = False) -> str:
    """An entry as it was typed; what a recording told to a tenth."""
    if isinstance(value, int | float):
        return f"{value:.1f} {unit}" if recorded else f"{value:g} {unit}"
    return "" if value is None else str(value)


def _way(body: dict[str, Any]) -> float | None:
    try:
        return ask_prove.way_of(Asked(body))
    except BadPlace:
        return None


def _left_out(record: Record, way: float | None) -> str:
    if record.struck is not None:
        return "struck"
    if record.body.get("simulated"):
        return "simulated"
    return "no_distance" if way is None else ""


def _stop_view(number: int, record: Record, nominal: float) -> StopView:
    """One stop, and what follows from it."""
    body, recorded = record.body, "trace" in record.body
    question = {"question": "stop_typed", "nominal_kmh": nominal, **{k: v for k, v in body.items() if k in (
        "speed_kmh", "distance_m", "brake_on_mark_m", "rest_mark_m", "time_s", "grade", "headwind_m_per_s")}}  # fmt: skip
    if body.get("lag_s") is not None:  # a recording tells its own
        question["expected_lag_s"] = max(body["lag_s"], 0.0)
    told: TypedAnswer | None = None
    refused = ""
    try:
        told = ask_prove.typed(Asked(question))
    except BadPlace as error:
        refused = error.reason
    way = _way(body)
    left = _left_out(record, way)
    around = [str(body[k]) for k in _AROUND if body.get(k)]
    around += [f"valve {body['valve']:g}"] if body.get("valve") is not None else []
    around += [
        f"{axle} rotor {_text(body[f'rotor_{axle}_c'], '°C')}"
        for axle in ("front", "rear")
        if body.get(f"rotor_{axle}_c") is not None
    ]
    return {
        "key": record.key, "made_at": record.made_at, "number": number, "speed": _text(body["speed_kmh"], "km/h", recorded),
        "distance": _text(body.get("distance_m"), "m", recorded) if body.get("distance_m") is not None else "" if way is None else f"{way:.1f} m",
        "time": _text(body.get("time_s"), "s", recorded), "speed_kmh": value_of(body["speed_kmh"], "speed_kmh"), "distance_m": way,
        "corrected_m": told and told["nominal_m"], "decel_g": told and (told["decel_by_distance_g"] or told["decel_by_time_g"]),
        "lag_s": told and told["lag_s"], "direction": body.get("direction"), "locked": body.get("locked"),
        "push": _text(body.get("push_n"), "N") or ("as hard as I could" if body.get("as_hard") else ""), "around": ", ".join(around),
        "left_out": words.LEFT_OUT[left] if left else refused, "struck": record.struck, "simulated": bool(body.get("simulated")),
        "questioned": told is not None and bool(told["questioned"]), "windy": told is not None and bool(told["windy"]), "mfdd_g": body.get("mfdd_g"),
        "trace": body.get("trace"), "line": line_of(body, way, told and told["nominal_m"], nominal),
        "working": [] if told is None else working_of(body, told, way, nominal),
    }  # fmt: skip


def _asked_stop(record: Record) -> dict[str, Any] | None:
    """A stop as stops_compare asks for it: the distance as on a level road; None where it cannot count."""
    body, way = record.body, _way(record.body)
    if way is None or record.body.get("simulated"):
        return None
    row: dict[str, Any] = {"distance_m": way, "speed_kmh": body["speed_kmh"], "struck": record.struck is not None}
    if body.get("grade") is not None:
        keys = ("speed_kmh", "distance_m", "brake_on_mark_m", "rest_mark_m", "time_s", "grade")
        told = ask_prove.typed(Asked({k: body[k] for k in keys if k in body}))
        if told["level_m"] is None:
            return None
        row["distance_m"] = told["level_m"]
    for key in ("direction", "locked"):
        if body.get(key) is not None:
            row[key] = body[key]
    for key in ("push_n", "mfdd_g"):  # nothing pushed, or a deceleration of nothing, tells no more than what is left out
        if body.get(key) is not None and value_of(body[key], key) > 0:
            row[key] = body[key]
    return row


def push_of(records: list[Record]) -> float | None:
    """The mean push [N] of the stops that say one and count; None where none does."""
    noted = [value_of(r.body["push_n"], "push_n") for r in records if r.body.get("push_n") is not None and r.struck is None]
    known = [push for push in noted if push > 0]
    return sum(known) / len(known) if known else None


class Sets:
    """The sets of a job with their stops: those that are planned, then any that stops name and no plan knows any more."""

    def __init__(self, stored: StoredJob) -> None:
        self.job, self.proving = stored.job, stored.job.proving or Proving()
        stops = [r for r in stored.records if r.kind == "stop"]
        planned = list(self.proving.sets or [])
        known = {s.name for s in planned}
        self.orphans = [n for n in dict.fromkeys(r.body["set"] for r in stops) if n not in known]
        self.sets = planned + [StopSet(name=n, setup=self.job.names[0]) for n in self.orphans]
        self.stops = {s.name: [r for r in stops if r.body["set"] == s.name] for s in self.sets}
        self.numbers = {r.key: n for n, r in enumerate(stops, 1)}
        self.nominal = NOMINAL_KMH if self.proving.nominal_kmh is None else value_of(self.proving.nominal_kmh, "nominal_kmh")
        self.limit = (
            FORCE_LIMIT_N if self.proving.force_limit_n is None else value_of(self.proving.force_limit_n, "force_limit_n")
        )

    def most(self, own: StopSet) -> float:
        """The most push [N] on what is pressed in a set: as stated, else what is asked of a hand or a foot where one control is named."""
        if own.pressed is None or self.proving.force_limit_n is not None or own.setup not in self.job.names:
            return self.limit
        setup = self.job.setup(own.setup)
        kinds = {control.name: control.control.kind for control in controls_of(setup.systems)}
        return force_limit(kinds[own.pressed], setup.vehicle.kind) if own.pressed in kinds else self.limit

    def question(self, seen: dict[str, Predicted | None]) -> tuple[dict[str, Any], list[str]]:
        """stops_compare of the sets that have a stop, and their names."""
        asked, names = [], []
        for own in self.sets:
            rows = [row for r in self.stops[own.name] if (row := _asked_stop(r)) is not None]
            if rows:
                lock = seen[own.name]
                asked.append(
                    {
                        "name": own.name,
                        "changed": list(own.changed),
                        "stops": rows,
                        **({} if lock is None or lock["lock_g"] is None else {"predicted_lock_g": lock["lock_g"]}),
                    }
                )
                names.append(own.name)
        hot = {own.name for own in self.sets if own.row_gap_s is not None}  # stops of hot brakes: not held against others
        apart = [name for name in names if name not in hot]
        pairs = [[a, b] for a, b in itertools.pairwise(apart)]
        if len(apart) > 2:
            pairs.append([apart[0], apart[-1]])
        question: dict[str, Any] = {
            "question": "stops_compare",
            "nominal_kmh": self.nominal,
            "sets": asked,
            "pairs": pairs,
            "force_limit_n": self.limit,
        }
        if self.proving.wanted_m is not None:
            question["wanted_m"] = self.proving.wanted_m
        return question, names


def _set_view(sets: Sets, at: int, own: StopSet, row: SetAnswer | None, seen: Predicted | None) -> StopSetView:
    stops = [_stop_view(sets.numbers[r.key], r, sets.nominal) for r in sets.stops[own.name]]
    if row is not None:
        counted = [s for s, r in zip(stops, sets.stops[own.name], strict=True) if _asked_stop(r) is not None]
        for left in row["left_out"]:
            counted[left["stop"]]["left_out"] = words.LEFT_OUT[left["why"]]
    return {
        "name": own.name, "setup": own.setup, "changed": list(own.changed), "at": at, "n": row["n"] if row else 0,
        "mean_m": row and row["mean_m"], "low_m": row and row["low_m"], "high_m": row and row["high_m"], "sd_m": row and row["sd_m"],
        "best_m": row and row["best_m"], "best_expected_m": row and row["best_expected_m"], "both_ways": row is not None and row["both_ways"],
        "predicted": seen, "limited": row["limited_by"] if row else "cannot_tell",
        "limited_words": words.limited_words(row) if row and row["n"] else "", "stops": stops,
        "orphan": own.name in sets.orphans, "row_gap": _text(own.row_gap_s, "s"), "pressed": own.pressed or "",
    }  # fmt: skip


def _pair_view(row: PairAnswer) -> PairView:
    said, more = words.pair_words(row)
    return {
        "first": row["from"], "second": row["to"], "verdict": row["verdict"], "level": words.LEVEL[row["verdict"]], "sentence": said,
        "more": more, "shorter_m": row["shorter_m"], "low_m": row["low_m"], "high_m": row["high_m"], "stops_each": row["stops_each"],
        "best_claim_m": row["best_claim_m"], "cause": row["cause"],
    }  # fmt: skip


def _plan(sets: Sets, rows: list[SetAnswer], seen: dict[str, Predicted | None]) -> DayPlan:
    """What five stops in each set would show, and how many would show the gain that is looked for."""
    hot = {own.name for own in sets.sets if own.row_gap_s is not None}
    known = [(r["sd_m"], r["dof"]) for r in rows if r["sd_m"] and r["dof"] and r["name"] not in hot]
    mids = [p["mid_m"] for own in sets.sets if (p := seen[own.name]) is not None]
    if known:
        scatter = math.sqrt(sum(sd**2 * dof for sd, dof in known) / sum(dof for _, dof in known))
    else:
        scatter = USUAL_SCATTER * (mids[0] if mids else 40.0)
    typed = sets.proving.wanted_m
    gain = abs(mids[0] - mids[-1]) if len(mids) > 1 else None
    wanted = value_of(typed, "wanted_m") if typed is not None else gain if gain else None
    half = doubt_of_difference(scatter, USUAL_STOPS)
    each = stops_each(wanted / scatter) if wanted else None
    source = "your own stops" if known else f"{100 * USUAL_SCATTER:.1f} % of the way, usual of careful stops"
    said = f"Stops scatter by {scatter:.1f} m ({source}). Five stops each way leave ± {half:.1f} m of doubt in a difference."
    if wanted:
        enough = (
            "no number that anybody drives tells"
            if each is None or each > 200
            else f"{each} stops each tell"
            if each > 2
            else "two stops each would already tell"
        )
        said += f" The gain to look for is {wanted:.1f} m: {enough}."
    return {
        "scatter_m": scatter, "scatter_known": bool(known), "doubt_m": half, "wanted_m": wanted,
        "wanted_from": "typed" if typed is not None else "predicted" if gain else "none", "stops_each": each, "sentence": said,
    }  # fmt: skip


def _read_off(setting: float) -> float:
    """A setting as a knob or a gauge can be read: three figures, whole above a hundred."""
    return float(round(setting)) if abs(setting) >= 100 else float(f"{setting:.3g}")


def _valve(sets: Sets) -> ValveView | None:
    """The next setting of the adjuster, from the stops that say where it stood and what locked."""
    own = sets.proving.adjuster
    if own is None:
        return None
    log = [
        {"setting": r.body["valve"], "locked": r.body["locked"]}
        for rows in sets.stops.values() for r in rows
        if r.struck is None and not r.body.get("simulated") and r.body.get("valve") is not None and r.body.get("locked")
    ]  # fmt: skip
    question = {"question": "valve_next", **own.model_dump(exclude_none=True, exclude={"unit"}), "log": log}
    try:
        told = ask_prove.setting(Asked(question))
    except BadPlace as refused:
        return {
            "least": own.least, "most": own.most, "now": own.now, "unit": own.unit, "chance_now": None, "level": "caution", "next": None,
            "next_chance": None, "low": own.least, "high": own.most, "notes": 0, "sentence": refused.reason,
        }  # fmt: skip
    chance, turn = told["rear_first_chance_now"], told["turn_over"]
    said = f"At {own.now:g} {own.unit} the rear is first in {round(100 * chance)} of 100."
    following, then = None if told["next"] is None else _read_off(told["next"]), told["next_chance"]
    if following is None or then is None:
        end = own.most if own.more_is == "front" else own.least
        far = (
            "It goes no further forward"
            if abs(own.now - end) < 1e-9
            else f"Even at {end:g} {own.unit} the rear would be first too often"
        )
        said += (
            f" {far}: no setting is safe enough. Look in Size for what mends it: other rear brakes, other pads, another valve."
        )
    elif told["reason"] == "one_step_at_a_time":
        said += f" Next, one step only: {following:g}."
    else:
        said += f" Next: {following:g}, rear first in {round(100 * then)} of 100."
    if told["lock_notes"] == 0:
        said += " No stop has said yet which axle locked: that is only what the range allows."
    return {
        "least": own.least, "most": own.most, "now": own.now, "unit": own.unit, "chance_now": chance, "level": told["level"],
        "next": following, "next_chance": then, "low": turn["low"], "high": turn["high"], "notes": told["lock_notes"],
        "sentence": said,
    }  # fmt: skip


def _pull(sets: Sets) -> PullView | None:
    """Of the last set that notes how far a stop turned."""
    for own in reversed(sets.sets):
        setup = own.setup if own.setup in sets.job.names else sets.job.names[0]
        told = pull_of(sets.job, setup, sets.proving, sets.stops[own.name])
        if told is not None:
            return told
    return None


def _rows(sets: Sets) -> list[RowView]:
    """The sets whose stops were driven one after another."""
    found = []
    for own in sets.sets:
        if own.row_gap_s is not None and own.setup in sets.job.names:
            stops = [(sets.numbers[r.key], r) for r in sets.stops[own.name] if r.struck is None and not r.body.get("simulated")]
            if stops:
                found.append(row_of(sets.job, own, stops))
    return found


def _headline(pairs: list[PairView], rows: list[SetAnswer]) -> tuple[str, Level | None]:
    if not rows:
        return "No stop yet. Four stops as found, before you take it apart, are worth more than forty after.", None
    if not pairs:
        return f"{rows[0]['n']} {'stop' if rows[0]['n'] == 1 else 'stops'} of one set: drive another set to compare.", "note"
    last = pairs[-1]
    return last["sentence"], last["level"]


def _calibrations(sets: Sets, stored: StoredJob) -> list[CalibrationView]:
    """What the last set of each setup teaches."""
    last = {
        own.setup: own for own in sets.sets if sets.stops[own.name] and own.name not in sets.orphans and own.row_gap_s is None
    }
    found = []
    for setup, own in last.items():
        rows = [row for r in sets.stops[own.name] if (row := _asked_stop(r)) is not None]
        taught = calibration_of(stored.job, setup, own.name, rows, stored.records, own.pressed)
        if taught is not None:
            found.append(taught)
    return found


def prove_of(stored: StoredJob) -> ProveView:
    """Prove of a stored job."""
    sets = Sets(stored)
    job: Job = stored.job
    seen = {
        own.name: predicted(job, own.setup, push_of(sets.stops[own.name]), sets.most(own), sets.nominal, own.pressed)
        for own in sets.sets
    }
    question, names = sets.question(seen)
    told: CompareAnswer = ask_prove.compare(Asked(question)) if names else {"sets": [], "pairs": []}
    rows = {row["name"]: row for row in told["sets"]}
    views = [_set_view(sets, n, own, rows.get(own.name), seen[own.name]) for n, own in enumerate(sets.sets)]
    pairs = [_pair_view(row) for row in told["pairs"]]
    headline, level = _headline(pairs, told["sets"])
    ways = [s["corrected_m"] or s["distance_m"] or 0.0 for v in views for s in v["stops"]]
    ways += [p["high_m"] for v in views if (p := v["predicted"]) is not None]
    aircraft = job.vehicle.kind == "aircraft"
    return {
        "page": "prove", "revision": stored.revision, "nominal": _text(sets.proving.nominal_kmh or sets.nominal, "km/h"),
        "nominal_kmh": sets.nominal, "wanted": _text(sets.proving.wanted_m, "m"), "sets": views, "pairs": pairs, "headline": headline,
        "headline_level": level, "plan": _plan(sets, told["sets"], seen), "valve": _valve(sets), "rows": _rows(sets),
        "first_drive": first_drive_of(job, job.names[min(1, len(job.names) - 1)], stored.records), "pull": _pull(sets),
        "gyration": _text(sets.proving.radius_of_gyration_mm, "mm"), "castering": job.vehicle.kind in ("aircraft", "motorcycle"), "calibrations": _calibrations(sets, stored), "longest_m": max(ways, default=60.0),
        "setups": job.names, "controls": {name: several for name in job.names if len(several := controls_named(job.setup(name))) > 1}, "cautions": words.AIRCRAFT if aircraft else words.CAUTIONS,
    }  # fmt: skip


def stops_table(view: ProveView) -> tuple[tuple[str, ...], list[tuple[object, ...]]]:
    """Every stop of a `view` as a table: the names of its columns, and its rows."""
    head = (
        "number", "set", "setup", "made at", "speed km/h", "distance m", "corrected m", "deceleration g", "MFDD g", "locked", "push", "direction",
        "not counted",
    )  # fmt: skip
    rows: list[tuple[object, ...]] = [
        (s["number"], own["name"], own["setup"], s["made_at"], s["speed_kmh"], s["distance_m"], s["corrected_m"], s["decel_g"], s["mfdd_g"], s["locked"],
         s["push"], s["direction"], s["left_out"])
        for own in view["sets"] for s in own["stops"]
    ]  # fmt: skip
    return head, rows


def shown(stored: StoredJob, name: str | None) -> ProveView:
    """What Prove's page shows: all sets."""
    del name
    return prove_of(stored)


def standing(stored: StoredJob) -> Standing:
    """How far Prove is: how many stops count."""
    stops = [r for r in stored.records if r.kind == "stop" and r.struck is None and not r.body.get("simulated")]
    if not stops:
        return {"state": "empty", "words": "empty"}
    sets = {r.body["set"] for r in stops}
    return {"state": "ready" if len(sets) > 1 else "begun", "words": f"{len(stops)} {'stop' if len(stops) == 1 else 'stops'}"}

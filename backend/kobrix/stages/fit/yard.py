"""The yard card: what a part must be so that every limit still holds, as a chance, and what to do with the one in the hand.

Each value is tried on the plausible vehicles of the job's own doubts: keep where all limits hold in 90 of 100, keep with a valve where
one brings it there, else leave (the shares are our estimate).
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from kobrix.core.constants import STANDARD_BORES, G
from kobrix.core.errors import BadEntry, BadFile
from kobrix.core.numerics.arrays import Mask
from kobrix.core.physics.chain import first_reach
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules import limits as rule_limits
from kobrix.evaluate.as_found import AsFound, as_found_trials, by_trial, least_left
from kobrix.evaluate.ask.acceptance import VALVE_SLOPE, Verdict, changed, now_of, station_of
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.evaluate.uncertainty import SEED, UncertainEntry, said_of, uncertain_entries
from kobrix.evaluate.verdicts import batch_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import read, split_list, value_of
from kobrix.stages.fit.shapes_elsewhere import BrokenShare, HandPart, YardBand, YardIn, YardLimit, YardPart, YardPoint, YardView

TRIALS = 200
KEEP = 0.90  # of plausible vehicles in which every limit holds, our estimate
POINTS = 17
NO_WORSE = 0.98  # of what a lost circuit leaves as found, our estimate
KNEES = (1000.0, 1700.0, 2500.0, 3500.0, 5000.0, 7000.0)  # kPa, an adjustable valve's reach: our estimate
LOCK_MARGIN = 0.03  # of the front's own lock, our estimate
_REACH = {"side_area_cm2": (0.45, 2.0), "rotor_diameter_mm": (0.8, 1.25), "friction_factor": (0.7, 1.4)}
_LABEL = {
    "side_area_cm2": ("pistons of one side, {s}", "cm²"), "rotor_diameter_mm": ("rotor diameter, {s}", "mm"),
    "friction_factor": ("pad friction, {s}", "of what it is now"), "bore_mm": ("master cylinder bore", "mm"),
}  # fmt: skip
_LIMITS = {
    "decel_g": "the stop that is wanted", "effort_n": "push at most", "travel_share": "of the pedal's room at most",
    "lock_margin": "rear locks later by at least", "lost_circuit_decel_g": "with a circuit lost at least",
}  # fmt: skip
_BROKEN = {
    "no_stop": "never stops so hard", "effort": "too hard a push", "travel": "too long a pedal", "lock_order": "the rear too near to locking first",
    "lost_circuit": "too little with a circuit lost",
}  # fmt: skip


@dataclass(frozen=True)
class Limits:
    """What must hold: the stop [g], the push [N], the share of the pedal's room, the margin of the locks, the stop with a circuit lost [g]."""

    decel_g: float
    effort_n: float
    travel_share: float
    lock_margin: float
    lost_circuit_decel_g: float
    lost_typed: bool = False


def broken_in(batch: SolvedSetup, limits: Limits, trials: int, as_found: AsFound | None) -> dict[str, Mask]:
    """Which trials break each limit {limit: (N,)}, worst over load states; a limit that does not apply is not among them.

    `batch` [record]; `limits` [record]; `trials` [1]; `as_found` [record]: a lost circuit may leave as little as it did there, where
    no limit was typed.
    """
    healthy = batch.main.healthy
    road = healthy.road
    place, known = first_reach(road.decel, limits.decel_g)
    reached = by_trial(np.asarray(known)[..., 0, 0], trials).min(axis=1) > 0.0
    push = by_trial(healthy.push_at(place)[..., 0, 0], trials).max(axis=1)
    found: dict[str, Mask] = {"no_stop": ~reached, "effort": reached & (push > limits.effort_n)}
    for pull in healthy.pulls:
        room = pull.system.control.available
        if room is None or pull.pedal.travel is None:
            continue
        pads = by_trial(np.asarray(pull.pedal.pad_at(pull.place(place)))[..., 0, 0], trials).max(axis=1)
        width = by_trial(np.asarray(room, dtype=np.float64).reshape(-1, 1), trials)[:, 0]
        found["travel"] = found.get("travel", np.zeros(trials, dtype=bool)) | (reached & (pads > limits.travel_share * width))
    front, rear = (by_trial(road.locks[axle][..., 0], trials) for axle in ("front", "rear"))
    if bool(np.any(road.front > 0.0)) and bool(np.any(road.rear > 0.0)):
        ratio = np.where(
            np.isinf(rear), np.inf, np.divide(rear, front, out=np.zeros_like(rear), where=np.isfinite(front) & np.isfinite(rear))
        )
        found["lock_order"] = ratio.min(axis=1) < 1.0 + limits.lock_margin
    left = least_left(batch, trials)
    if left is not None:
        asked = np.full(trials, limits.lost_circuit_decel_g)
        if not limits.lost_typed and as_found is not None and as_found.left is not None:
            asked = np.minimum(asked, as_found.left * NO_WORSE)
        found["lost_circuit"] = left < asked
    return found


class Yard:
    """The setup by `name` of a `job`, and how its limits stand with a part changed."""

    def __init__(self, job: Job, name: str, limits: Limits) -> None:
        self.setup, self.limits = job.setup(name), limits
        self.document: dict[str, Any] = self.setup.model_dump(exclude_none=True)
        self.entered = said_of(job, name)
        self.as_found = as_found_trials(job, TRIALS, SEED)
        rears = [s.name for system in self.setup.systems for s in system.stations if s.axle == "rear"]
        self.rear = rears[0] if len(rears) == 1 and len(self.setup.systems) == 1 else None

    def broken(self, document: dict[str, Any]) -> dict[str, Mask] | None:
        """The limits that a changed `document` breaks, by trial; None where it is no complete setup."""
        try:
            setup = files.check(Setup, document)
        except BadFile:
            return None
        entries: list[UncertainEntry] = [e for e in uncertain_entries(setup, self.entered) if e.standing != "exact"]
        batch = batch_of(setup, entries, TRIALS, SEED)
        return None if batch is None else broken_in(batch, self.limits, TRIALS, self.as_found)

    def chance(self, document: dict[str, Any]) -> tuple[float, dict[str, float]]:
        """The chance that all limits hold, and of breaking each."""
        found = self.broken(document)
        if found is None:
            return 0.0, {}
        return 1.0 - float(np.mean(np.any(list(found.values()), axis=0))), {k: float(np.mean(m)) for k, m in found.items()}

    def valve(self, document: dict[str, Any]) -> tuple[float, float] | None:
        """The best chance that a proportioning valve to the rear brings, and its knee [kPa]; None where none can be fitted."""
        if self.rear is None:
            return None
        best = (0.0, 0.0)
        for knee in KNEES:
            own = _with_valve(document, self.rear, knee)
            chance = self.chance(own)[0]
            if chance > best[0] + 1e-12:
                best = (chance, knee)
        return best if best[0] > 0.0 else None

    def point(self, value: float, document: dict[str, Any]) -> YardPoint:
        """One value of a dimension: its chance, and with a valve where the order of the locks is what fails."""
        found = self.broken(document) or {}
        masks = list(found.values())
        chance = 1.0 - float(np.mean(np.any(masks, axis=0))) if masks else 0.0
        others = [mask for key, mask in found.items() if key != "lock_order"]
        # A valve to the rear helps where the order of the locks is what fails, and nothing else does.
        helps = chance < KEEP and "lock_order" in found and 1.0 - float(np.mean(np.any(others, axis=0))) >= KEEP
        valve = self.valve(document) if helps else None
        shares = {key: float(np.mean(mask)) for key, mask in found.items()}
        worst = max(shares, key=lambda k: shares[k], default=None) if chance < KEEP else None
        return {
            "value": value, "chance": chance, "valve_chance": None if valve is None else valve[0],
            "knee_kpa": None if valve is None else valve[1], "worst": "" if worst is None else _BROKEN[worst],
        }  # fmt: skip


def _with_valve(document: dict[str, Any], station: str, knee: float) -> dict[str, Any]:
    systems = []
    for system in document["systems"]:
        stations = []
        for own in system["stations"]:
            if own["name"] == station:
                kept = [d for d in own.get("devices") or [] if d["kind"] != "proportioning"]
                own = {**own, "devices": [*kept, {"kind": "proportioning", "knee_kpa": knee, "slope": VALVE_SLOPE}]}
            stations.append(own)
        systems.append({**system, "stations": stations})
    return {**document, "systems": systems}


def default_limits(job: Job, name: str) -> Limits:
    """The limits of a job where none are typed: its own design stop, and the bands that Size judges by."""
    answers = [answer_of(ByContent(job.setup(n))) for n in job.names]
    setup = job.setup(name)
    control = setup.systems[0].control.kind
    kind = "truck_pedal" if setup.vehicle.kind == "truck" and control == "car_pedal" else control
    return Limits(wanted_stop(answers) or 0.6, rule_limits.EFFORT[kind].danger, rule_limits.TRAVEL.danger, LOCK_MARGIN, 2.44 / G)


def limits_of(job: Job, name: str, typed: dict[str, str]) -> Limits:
    """The limits as typed, the default where nothing was. Raises BadEntry."""
    known = default_limits(job, name)
    values = {}
    for key, label in _LIMITS.items():
        text = typed.get(key, "").strip()
        value = read(text, key).value if text else getattr(known, key)
        if not 0.0 <= value <= (5000.0 if key == "effort_n" else 3.0):
            raise BadEntry(label, repr(text), "a figure above 0 that a vehicle can have")
        values[key] = value
    unknown = sorted(set(typed) - set(_LIMITS))
    if unknown:
        raise BadEntry("limits", repr(unknown[0]), ", ".join(_LIMITS))
    return Limits(**values, lost_typed=bool(typed.get("lost_circuit_decel_g", "").strip()))


def _shown_limit(key: str, limits: Limits) -> YardLimit:
    value = getattr(limits, key)
    shown = {"effort_n": f"{value:.0f} N", "travel_share": f"{value * 100:.0f} %", "lock_margin": f"{value * 100:.0f} %"}
    words = _LIMITS[key]
    if key == "lost_circuit_decel_g" and not limits.lost_typed:
        words += ", or as much as found"
    return {"key": key, "words": words, "text": shown.get(key, f"{value:.2f} g")}


def _dimensions(setup: Setup) -> list[tuple[str, str | None]]:
    found: list[tuple[str, str | None]] = []
    for station in (s for system in setup.systems for s in system.stations):
        brake = station.brake
        if brake.kind != "disc":
            continue
        for what, known in (
            ("side_area_cm2", brake.pistons_mm),
            ("rotor_diameter_mm", brake.rotor_diameter_mm),
            ("friction_factor", brake.friction),
        ):
            if known is not None:
                found.append((what, station.name))
    cylinder = setup.systems[0].cylinder
    if len(setup.systems) == 1 and getattr(cylinder, "bore_mm", None) is not None:
        found.append(("bore_mm", None))
    return found


def _values(what: str, now: float) -> list[float]:
    if what == "bore_mm":
        return [bore * 1e3 for _, bore in STANDARD_BORES if 0.6 * now <= bore * 1e3 <= 1.6 * now]
    low, high = (now * share for share in _REACH[what])
    return [low + (high - low) * k / (POINTS - 1) for k in range(POINTS)]


def band_of(points: list[YardPoint], key: str) -> list[float] | None:
    """From where to where a part is kept: the run of values nearest the most likely one, its ends straight between two tried values.

    `points` [records]; `key` [chance or valve_chance].
    """

    def chance(point: YardPoint) -> float:
        return max(point["chance"], point["valve_chance"] or 0.0) if key == "valve_chance" else point["chance"]

    good = [k for k, p in enumerate(points) if chance(p) >= KEEP]
    if not good:
        return None
    top = max(good, key=lambda k: chance(points[k]))
    ends = []
    for step in (-1, 1):
        k = top
        while 0 <= k + step < len(points) and chance(points[k + step]) >= KEEP:
            k += step
        here, there = points[k], points[k + step] if 0 <= k + step < len(points) else None
        if there is None:
            ends.append(here["value"])
        else:
            share = (chance(here) - KEEP) / max(1e-12, chance(here) - chance(there))
            ends.append(here["value"] + share * (there["value"] - here["value"]))
    return ends


@lru_cache(maxsize=24)
def _bands(known: ByContent[Job], name: str, limits: Limits) -> YardView:
    job = known.part
    yard = Yard(job, name, limits)
    needs = answer_of(ByContent(yard.setup)).needs.get("decel", [])
    view: YardView = {
        "setup": name, "limits": [_shown_limit(key, limits) for key in _LIMITS], "keep_share": KEEP, "trials": TRIALS, "bands": [],
        "chance_now": None, "needs": len(needs), "stations": [s.name for system in yard.setup.systems for s in system.stations if s.brake.kind == "disc"],
    }  # fmt: skip
    if needs:
        return view
    view["chance_now"] = yard.chance(yard.document)[0]
    for what, station in _dimensions(yard.setup):
        now = now_of(yard.document, what, station)
        points = [yard.point(v, changed(yard.document, what, station, v)) for v in _values(what, now)]
        label, unit = _LABEL[what]
        band: YardBand = {
            "what": what, "station": station, "label": label.format(s=station), "unit": unit, "now": now, "points": points,
            "keep": band_of(points, "chance"), "with_valve": band_of(points, "valve_chance"),
        }  # fmt: skip
        view["bands"].append(band)
    return view


def yard_of(job: Job, name: str, typed: dict[str, str]) -> YardView:
    """The bands of the setup by `name` at the limits as typed. Raises BadEntry, NotFound."""
    return _bands(ByContent(job), name, limits_of(job, name, typed))


def _set(document: dict[str, Any], part: HandPart) -> dict[str, Any]:
    station = station_of(document, part.station)
    if station is None or station["brake"]["kind"] != "disc":
        raise BadEntry("station", repr(part.station), "a station with discs")
    own = document
    if part.pistons.strip():
        pistons = [value_of(p, "pistons_mm") for p in split_list(part.pistons, "pistons_mm", part.preferred)]
        own = changed(own, "side_area_cm2", part.station, sum(math.pi / 4 * d**2 for d in pistons) / 100)
    if part.rotor.strip():
        own = changed(own, "rotor_diameter_mm", part.station, read(part.rotor, "rotor_diameter_mm", part.preferred).value)
    if part.friction.strip():
        cold = value_of(station["brake"]["friction"]["cold"], "friction")
        own = changed(own, "friction_factor", part.station, read(part.friction, "friction").value / cold)
    return own


def in_the_yard(job: Job, asked: YardIn) -> YardPart:
    """What to do with a part in the hand. Raises BadEntry, NotFound."""
    if asked.part is None:
        raise BadEntry("part", "nothing", "the pistons, the rotor or the friction of a part")
    yard = Yard(job, asked.setup, limits_of(job, asked.setup, asked.limits))
    needs = answer_of(ByContent(yard.setup)).needs.get("decel", [])
    if needs:
        raise BadEntry(
            "setup",
            f"{asked.setup}, with {len(needs)} of its entries missing",
            "a complete one",
            "nothing can be said of a part before",
        )
    document = _set(yard.document, asked.part)
    point = yard.point(0.0, document)
    shares = yard.chance(document)[1]
    valve = point["valve_chance"]
    verdict: Verdict = (
        "keep" if point["chance"] >= KEEP else "keep_with_valve" if valve is not None and valve >= KEEP else "leave"
    )
    broken: list[BrokenShare] = [
        {"words": _BROKEN[k], "chance": v} for k, v in sorted(shares.items(), key=lambda i: -i[1]) if v > 0.005
    ]
    return {"verdict": verdict, "chance": point["chance"], "valve_chance": valve, "knee_kpa": point["knee_kpa"], "broken": broken}

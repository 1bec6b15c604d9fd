"""The rules asked of a setup: nominally at once, and with the chance of every verdict once its trials have run."""

from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np

from kobrix.core.numerics.arrays import Mask
from kobrix.core.numerics.settling import settles, thirds
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import SolvedSetup, solve
from kobrix.core.rules.chances import broken
from kobrix.core.rules.limits import CHANCE_GOOD, Bench, Judgement, RotorPeak, percent
from kobrix.core.rules.run import judge
from kobrix.evaluate.changes import with_edits, without_devices
from kobrix.evaluate.rotor_heat import row_of_stops
from kobrix.evaluate.shapes import Settle
from kobrix.evaluate.solve import Answer, ByContent, answer_of, as_asked, control_paths_of, facts_of, failures_of, rooms_of
from kobrix.evaluate.to_core import convert
from kobrix.evaluate.uncertainty import SEED, TRIALS, Entered, UncertainEntry, drawn_within, luck, made_of, uncertain_entries
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import HEALTH, NONE

# What measures which entries, and the minutes it takes: our estimate. By the last names of their paths.
ACTS: dict[str, tuple[int, frozenset[str]]] = {
    "tape": (2, frozenset({
        "wheelbase_mm", "pivot_to_pad_mm", "pivot_to_pin_mm", "available_travel_mm", "free_play_mm", "rotor_diameter_mm", "pad_height_mm",
        "edge_inset_mm", "length_mm", "rolling_radius_mm", "stroke_mm",
    })),
    "pedal_scale": (5, frozenset({"control.efficiency", "return_force_n", "spring_n"})),
    "weigh": (10, frozenset({"mass_kg", "front_share"})),
    "feeler": (10, frozenset({"clearance_mm", "shoe_clearance_mm", "knock_back_mm"})),
    "stand": (20, frozenset({
        "gain", "cylinder.efficiency", "booster.efficiency", "vacuum_kpa", "knee_kpa", "setting_kpa", "bar.front_share", "slope",
    })),
    "lift_axle": (25, frozenset({"cg_height_mm"})),
}  # fmt: skip
BY_STOPS = frozenset({"friction", "c_star", "grip_front", "grip_rear"})  # nothing but stops settles these
_MOST_ACTS = 3
_SETTLED = 0.02, 0.98


@dataclass(frozen=True, eq=False)
class Tried:
    """A setup judged with its trials: its `judgements`, what would `settle` each {id: acts}, whether stops alone settle most of it
    `by_stops` {id: [1]}, the `entries` that were drawn and the `trials` [1]."""

    judgements: list[Judgement]
    settle: dict[str, list[Settle]]
    by_stops: dict[str, float]
    entries: list[UncertainEntry]
    trials: int
    seed: int
    masks: dict[str, Mask] = field(default_factory=dict)


def bench_of(
    answer: Answer, found: Answer | None, wanted: float | None, chances: dict[str, float] | None = None, heats: bool = True
) -> Bench | None:
    """What the rules look at; None where the setup is not complete. Without `heats` nothing on heat is looked at."""
    if answer.solved is None:
        return None
    theirs = None if found is None else found.solved
    return Bench(
        answer.solved, answer.converted.load_names, facts_of(answer), theirs, wanted, chances, _heats(answer) if heats else {},
        _heats(found) if heats and found is not None else {},
    )  # fmt: skip


@lru_cache(maxsize=96)
def _heats(answer: Answer) -> dict[str, RotorPeak]:
    """What every rotor reaches in the row of stops, of those whose mass and area are known."""
    found = {}
    for name, heat in row_of_stops(answer).items():
        peaks = heat.get("peaks_c")
        if peaks:
            found[name] = RotorPeak(max(peaks), max(peaks) - heat["air_c"], heat["fluid_estimate_c"])
    return found


@lru_cache(maxsize=512)
def nominal(answer: Answer, found: Answer | None, wanted: float | None, heats: bool = True) -> list[Judgement]:
    """All judgements on an answer, none tried yet; those on heat only with `heats`."""
    bench = bench_of(answer, found, wanted, None, heats)
    return [] if bench is None else judge(bench)


def batch_of(
    setup: Setup, entries: list[UncertainEntry], trials: int, seed: int, losses: bool = True, pressed: str | None = None
) -> SolvedSetup | None:
    """The trials of a `setup` solved, all controls together or the one that is `pressed`, with what may be lost; None where it is not
    complete."""
    return _solved(made_of(setup, entries, drawn_within(entries, trials, seed)), losses, pressed, whole=True)


def _solved(setup: Setup, losses: bool, pressed: str | None, whole: bool) -> SolvedSetup | None:
    """One way of a `setup` solved, numbers or trials."""
    converted = convert(setup)
    systems, load = converted.systems, converted.load
    if load is None:
        return None
    failures = [f for f in failures_of(systems, []) if f is HEALTH or (losses and f.kind in ("circuit", "upstream", "booster"))]
    ways = control_paths_of(setup, NONE)
    path = next(reversed(ways)) if pressed is None or len(ways) == 1 else f"{pressed}_alone"
    asked = as_asked(systems, failures, converted, rooms_of(setup, systems, NONE))
    return solve(systems, load, converted.wheels, {path: ways[path]}, asked, whole)


def chances_of(
    setup: Setup, bench: Bench, entered: Entered, trials: int, seed: int
) -> tuple[dict[str, Mask], list[UncertainEntry]]:
    """Which trials of a `setup` break each limit {judgement: (N,)}, and the entries that were drawn."""
    entries = [e for e in uncertain_entries(setup, entered) if e.standing != "exact"]
    batch = batch_of(setup, entries, trials, seed)
    if batch is None:
        return {}, entries
    return broken(bench, batch, trials), entries


@lru_cache(maxsize=160)
def tried(
    known: ByContent[Setup],
    as_found: ByContent[Setup] | None,
    wanted: float | None,
    entered: Entered,
    trials: int = TRIALS,
    seed: int = SEED,
) -> Tried | None:
    """A setup judged with the chance of every verdict, against the one `as_found`; None where it is not complete.

    The study of fewer trials is the first part of one of more: reproducible by `seed`.
    """
    answer, found = answer_of(known), None if as_found is None else answer_of(as_found)
    bench = bench_of(answer, found, wanted)
    if bench is None:
        return None
    masks, entries = chances_of(known.part, bench, entered, trials, seed)
    chances = {id_: float(np.mean(mask)) for id_, mask in masks.items()}
    full = bench_of(answer, found, wanted, chances)
    assert full is not None
    judged = judge(full)
    if any(j.id == "lock_order" and j.level == "good" for j in judged):
        judged += _valve_not_needed(known.part, entered, trials, seed)
    settle, stops, luck_of = {}, {}, _Luck(entries, trials, seed)
    for one in judged:
        if one.chance is not None and one.id in masks and _SETTLED[0] <= one.chance <= _SETTLED[1]:
            settle[one.id], stops[one.id] = luck_of.settling(masks[one.id])
    return Tried(judged, settle, stops, entries, trials, seed, masks)


def rear_first_chance(setup: Setup, entered: Entered, trials: int, seed: int = SEED) -> float:
    """The chance that the rear locks first at some grip, of a setup with its doubts."""
    entries = [e for e in uncertain_entries(setup, entered) if e.standing != "exact"]
    batch = batch_of(setup, entries, trials, seed, losses=False)
    assert batch is not None
    road, event = batch.main.healthy.road, batch.main.healthy.event
    some = rear_first_grips(road, batch.wheels)[0][..., 0] | event.lift[..., 0]
    return float(np.mean(np.any(np.broadcast_to(some, (trials, some.shape[-1])), axis=-1)))


def order_kept(setup: Setup) -> bool:
    """Whether nominally the front is first at every grip and both clauses on sharing hold, in every load state."""
    solved = nothing_lost(setup)
    road = solved.main.healthy.road
    above, kept = distribution_kept(road) if setup.vehicle.kind == "car" else (np.array(True), np.array(True))
    return bool(np.all(above) and np.all(kept)) and not bool(np.any(rear_first_grips(road, solved.wheels)[0]))


def nothing_lost(setup: Setup) -> SolvedSetup:
    """A complete `setup` nominally, all its controls together and nothing failing: what the road asks of one that is looked at once."""
    solved = _solved(setup, losses=False, pressed=None, whole=False)
    assert solved is not None
    return solved


def _valve_not_needed(setup: Setup, entered: Entered, trials: int, seed: int) -> list[Judgement]:
    """The note that a rear proportioning valve is not needed: without it the rear is first in next to no trial."""
    change = without_devices(setup, "proportioning")
    if change is None:
        return []
    bare = with_edits(setup, change.edits)
    if not order_kept(bare):
        return []
    chance = rear_first_chance(bare, entered, trials, seed)
    if chance > CHANCE_GOOD:
        return []
    text = (
        "The rear valve is not needed.",
        f"Without it the front still locks first at every grip and in every load state; the rear in {percent(chance)} of plausible vehicles.",
    )
    return [Judgement("valve_not_needed", "note", *text, "the whole chain, without the valve", links=("valves",), chance=chance)]


class _Luck:
    """The draws of a study of `entries`: what each listed act measures, and how much of a verdict's doubt goes with it."""

    def __init__(self, entries: list[UncertainEntry], trials: int, seed: int) -> None:
        open_ = [e for e in entries if e.standing != "plus_minus"]
        self.keys = list(dict.fromkeys(e.key for e in open_))
        self.own = np.array([luck(key, max(trials, TRIALS), seed)[:trials] for key in self.keys]).reshape(len(self.keys), trials)
        self.least = 20.0 / trials
        self.by_stops = {e.key for e in open_ if e.name in BY_STOPS or e.path.rpartition(".")[2] in BY_STOPS}
        self.measured: dict[str, dict[str, list[str]]] = {act: {} for act in ACTS}
        for entry in open_:
            for act, (_, names) in ACTS.items():
                if any(entry.path == name or entry.path.endswith(f".{name}") for name in names):
                    self.measured[act].setdefault(entry.key, []).append(entry.path)

    def settling(self, mask: Mask) -> tuple[list[Settle], float]:
        """What would settle a verdict, by how much of its doubt goes for each minute; and the share of its doubt that pads and grip
        make, settled by stops alone."""
        gone = dict(zip(self.keys, settles(self.own, mask).tolist(), strict=True))
        found: list[Settle] = []
        for act, by_key in self.measured.items():
            own = {key: gone[key] for key in by_key if gone[key] > self.least}
            if not own:
                continue
            order = sorted(own, key=lambda key: -own[key])
            ends = thirds(self.own[self.keys.index(order[0])], mask)
            low, high = sorted((float(ends[0]), float(ends[-1])))
            found.append({
                "act": act, "minutes": ACTS[act][0], "paths": [p for key in order for p in by_key[key]],
                "settles": min(1.0, sum(own.values())), "low": low, "high": high,
            })  # fmt: skip
        found.sort(key=lambda s: -s["settles"] / s["minutes"])
        return found[:_MOST_ACTS], min(1.0, sum(gone[key] for key in self.by_stops))

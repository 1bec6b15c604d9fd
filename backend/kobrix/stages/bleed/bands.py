"""What the model sees at the gauges and the ruler over a range of pushes: P5, P50 and P95 of plausible vehicles."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from kobrix.core.numerics.arrays import Floats, lookup
from kobrix.core.physics.paths import Pull, Solved
from kobrix.evaluate.as_found import by_trial
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.evaluate.uncertainty import SEED, said_of, uncertain_entries
from kobrix.evaluate.verdicts import batch_of
from kobrix.fileformat.job import Job
from kobrix.stages.bleed.shapes import BandPoint

TRIALS = 200
STEPS = 17


@dataclass(frozen=True)
class Bands:
    """The bands at the front gauge, the rear gauge [kPa] and the ruler [mm]; empty where there is nothing to read."""

    front: list[BandPoint]
    rear: list[BandPoint]
    travel: list[BandPoint]


def _pull(solved: Solved, system: str) -> Pull:
    return next(p for p in solved.pulls if p.system.name == system)


def _spread(forces: list[float], values: list[Floats]) -> list[BandPoint]:
    found: list[BandPoint] = []
    for force, column in zip(forces, values, strict=True):
        low, mid, high = (float(v) for v in np.percentile(column, (5, 50, 95)))
        if np.isfinite([low, mid, high]).all():
            found.append({"force_n": force, "low": low, "mid": mid, "high": high})
    return found


@lru_cache(maxsize=24)
def _bands(known: ByContent[Job], name: str, system: str, most: float) -> Bands:
    job = known.part
    setup = job.setup(name)
    entries = [e for e in uncertain_entries(setup, said_of(job, name)) if e.standing != "exact"]
    batch = batch_of(setup, entries, TRIALS, SEED, losses=False) if answer_of(ByContent(setup)).solved is not None else None
    if batch is None:
        return Bands([], [], [])
    healthy = batch.main.healthy
    pull = _pull(healthy, system)
    forces = [most * (k / (STEPS - 1)) ** 2 for k in range(STEPS)]  # closer where the pedal takes up its play
    columns: dict[str, list[Floats]] = {"front": [], "rear": [], "travel": []}
    for force in forces:
        # Each control is pressed alone: its own place on its own line.
        place = pull.pedal.place_at(force)
        for axle in ("front", "rear"):
            branch = next((n for n, b in enumerate(pull.pedal.line.branches) if b.station.axle == axle), None)
            if branch is not None:
                own = lookup(pull.pedal.line.outlet[branch], place.knot, place.fraction)
                columns[axle].append(by_trial(np.asarray(own)[..., 0, 0], TRIALS)[:, 0] / 1000)
        if pull.pedal.travel is not None:
            columns["travel"].append(by_trial(np.asarray(pull.pedal.pad_at(place))[..., 0, 0], TRIALS)[:, 0] * 1000)
    return Bands(*(_spread(forces, columns[key]) if columns[key] else [] for key in ("front", "rear", "travel")))


def bands_of(job: Job, name: str, system: str, most: float) -> Bands:
    """The bands of one control of the setup by `name` up to a push of `most` [N]."""
    bare = job.model_copy(update={"records": [], "proving": None, "parts_list": []})
    return _bands(ByContent(bare), name, system, most)

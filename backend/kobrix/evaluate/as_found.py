"""The vehicle as found in the same trials as its plans: what an upgrade may not do worse than."""

from dataclasses import dataclass

import numpy as np

from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.lost import stops_left
from kobrix.evaluate.solve import Answer
from kobrix.evaluate.uncertainty import said_of, uncertain_entries
from kobrix.evaluate.verdicts import batch_of
from kobrix.fileformat.job import AS_FOUND, Job


@dataclass(frozen=True)
class AsFound:
    """What the vehicle as found does in the same trials (N,): its first `lock` [g], and what a lost circuit `left` [g]; None unknown."""

    lock: Floats
    left: Floats | None


def by_trial(values: object, trials: int) -> Floats:
    """Figures (N or 1, L or 1) as (N, L)."""
    array = np.asarray(values, dtype=np.float64)
    array = array.reshape((1,) * (2 - array.ndim) + array.shape)
    return np.broadcast_to(array, (trials, array.shape[-1]))


def least_left(batch: SolvedSetup, trials: int) -> Floats | None:
    """What the worst lost circuit leaves in each trial [g], None where one circuit is all there is or nothing is known of it."""
    left = batch.main.left
    circuits = [c for c, f in enumerate(batch.conditions) if f.is_loss]
    if left is None or not circuits or all(len(s.cylinder.chambers) < 2 for s in batch.systems):
        return None
    several = len(batch.systems) > 1
    return np.asarray(np.min([by_trial(stops_left(left, c, several), trials).min(axis=1) for c in circuits], axis=0))


def as_found_trials(job: Job, trials: int, seed: int) -> AsFound | None:
    """The vehicle of a `job` as found, in so many `trials` of a `seed`; None where it is not complete."""
    setup = job.setup(AS_FOUND)
    entries = [e for e in uncertain_entries(setup, said_of(job, AS_FOUND)) if e.standing != "exact"]
    batch = batch_of(setup, entries, trials, seed) if Answer(setup).solved is not None else None
    if batch is None:
        return None
    return AsFound(by_trial(batch.main.healthy.event.decel[..., 0], trials).min(axis=1), least_left(batch, trials))

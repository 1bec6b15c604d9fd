"""Where the model sees the stops of a setup: over plausible vehicles, at the push that was felt."""

from functools import lru_cache

import numpy as np

from kobrix.core.constants import KMH, G
from kobrix.core.physics.stopping_distance import distance
from kobrix.evaluate.as_found import by_trial
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.evaluate.uncertainty import SEED, said_of, uncertain_entries
from kobrix.evaluate.verdicts import batch_of
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup, controls_of
from kobrix.stages.prove.shapes import Predicted

TRIALS = 200


def controls_named(setup: Setup) -> list[str]:
    """The names of what is pressed in a `setup`: pedals, levers, those of a second control."""
    return [control.name for control in controls_of(setup.systems)]


@lru_cache(maxsize=48)
def _predicted(
    known: ByContent[Job], name: str, push: float, assumed: bool, nominal: float, pressed: str | None
) -> Predicted | None:
    job = known.part
    setup = job.setup(name)
    if answer_of(ByContent(setup)).solved is None:
        return None
    entries = [e for e in uncertain_entries(setup, said_of(job, name)) if e.standing != "exact"]
    batch = batch_of(setup, entries, TRIALS, SEED, losses=False, pressed=pressed)
    if batch is None:
        return None
    healthy = batch.main.healthy
    lock = by_trial(healthy.event.decel[..., 0], TRIALS)[:, 0]
    given = by_trial(np.asarray(healthy.at(healthy.place_at(push)).decel)[..., 0, 0], TRIALS)[:, 0]
    decel = np.minimum(given, lock)
    moving = decel > 1e-3
    if not moving.all():
        return None
    low, mid, high = (float(v) for v in np.percentile(np.asarray(distance(nominal * KMH, decel * G)), (5, 50, 95)))
    locks = float(np.median(lock))
    return {
        "low_m": low, "mid_m": mid, "high_m": high, "push_n": push, "assumed": assumed, "lock_g": locks if np.isfinite(locks) else None,
    }  # fmt: skip


def predicted(
    job: Job, name: str, push: float | None, limit: float, nominal: float, pressed: str | None = None
) -> Predicted | None:
    """Stops of the setup by `name` from `nominal` [km/h] at a `push` [N] on all controls or on the one `pressed`, the `limit` [N] where
    none was read; None where the setup is not complete, or has no such control."""
    if name not in job.names or (pressed is not None and pressed not in controls_named(job.setup(name))):
        return None
    bare = job.model_copy(update={"records": [], "proving": None, "parts_list": []})  # what no figure hangs on
    return _predicted(ByContent(bare), name, push if push is not None else limit, push is None, nominal, pressed)

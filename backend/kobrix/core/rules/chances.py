"""In which of many plausible vehicles each limit is broken: the same rules asked of a batch of trials at once."""

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask
from kobrix.core.physics.chain import first_reach
from kobrix.core.physics.sharing import distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.braking import both_axles, hand_and_foot, tail_wheel
from kobrix.core.rules.limits import TRAVEL, Bench, effort_band
from kobrix.core.rules.lost import least_asked, stops_left


def _over_loads(values: Floats | Mask, trials: int) -> Floats:
    """Figures (N or 1, L or 1) of any leading shape as (N, L)."""
    array = np.asarray(values, dtype=np.float64)
    array = array.reshape((1,) * (2 - array.ndim) + array.shape)
    return np.broadcast_to(array, (trials, array.shape[-1]))


def _any(mask: Mask | Floats, trials: int) -> Mask:
    return np.asarray(_over_loads(mask, trials).max(axis=-1) > 0.0)


def broken(bench: Bench, batch: SolvedSetup, trials: int) -> dict[str, Mask]:
    """Which of so many `trials` [1] break each limit {judgement: [yes or no] (N,)}: of the nominal `bench` [record] its trials, `batch`
    [record] with all controls together.

    A trial without the figure breaks it; effort and travel are read on its own chain at the nominal design stop, locked or not. Source: model.
    """
    found: dict[str, Mask] = {}
    path, kind = batch.main, bench.facts.kind
    road, event = path.healthy.road, path.healthy.event
    free = kind == "motorcycle" and not bench.facts.ratio_stated and hand_and_foot(bench.solved) is not None
    if both_axles(bench.solved):
        if not free:
            some = rear_first_grips(road, batch.wheels)[0][..., 0] | event.lift[..., 0]
            found["lock_order"] = _any(some, trials)
        if kind == "car":
            bare = np.array([not own for own in bench.facts.trailers] or [True])
            above, kept = (v[..., 0] for v in distribution_kept(road))
            found["distribution_rear"], found["distribution_use"] = _any(~above & bare, trials), _any(~kept & bare, trials)
    if tail_wheel(bench):
        found["nose_over"] = _any(event.lift[..., 0], trials)
    found |= _at_the_foot(bench, batch, trials)
    need = least_asked(kind)
    if path.left is not None and need is not None:
        for c, failing in enumerate(batch.conditions):
            if failing.is_loss:
                found[failing.name] = _any(stops_left(path.left, c, len(batch.systems) > 1) < need, trials)
    return found


def _at_the_foot(bench: Bench, batch: SolvedSetup, trials: int) -> dict[str, Mask]:
    found: dict[str, Mask] = {}
    nominal, healthy = bench.solved.main, batch.main.healthy
    known = nominal.design_known
    if not np.any(known):
        return found
    place, reached = first_reach(healthy.road.decel, nominal.design_decel[:, None, None])
    given = _over_loads(np.asarray(reached)[..., 0, 0], trials) > 0.0
    path_push = _over_loads(healthy.push_at(place)[..., 0, 0], trials)
    for pull in healthy.pulls:
        name = pull.system.name
        band = effort_band(pull.system.control.kind, bench.facts.force_limits.get(name), bench.facts.kind)
        fine = given & (path_push * pull.ratio <= band.danger)
        found[f"effort{bench.tag(name)}"] = _any(~fine & known, trials)
        room = pull.system.control.available
        if pull.pedal.travel is None or room is None:
            continue
        pad = _over_loads(np.asarray(pull.pedal.pad_at(pull.place(place)))[..., 0, 0], trials)
        width = _over_loads(np.asarray(room, dtype=np.float64).reshape(-1, 1), trials)
        fine = given & (pad <= TRAVEL.danger * width)
        found[f"travel{bench.tag(name)}"] = _any(~fine & known, trials)
    return found

"""Which doubt matters most: every assumed or toleranced entry of a setup moved through its range on the same chain.

The ranking is the tolerance study's (seeded trials, Spearman); beside it, what each entry does on its own from one end of
its range to the other. One solution answers all trials at once.
"""

from typing import Any

import numpy as np

from kobrix.core.errors import Impossible
from kobrix.core.numerics import sensitivity, uncertainty
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.paths import solve_path
from kobrix.core.physics.solved_setup import settle, settle_decel
from kobrix.evaluate.shapes import Percentiles, SensitiveEntry, Sensitivity
from kobrix.evaluate.solve import Answer, control_paths_of
from kobrix.evaluate.to_core import convert
from kobrix.evaluate.uncertainty import SEED, TRIALS, drawn_within, made_of, said_of, uncertain_entries
from kobrix.fileformat.job import Job
from kobrix.fileformat.questions import Questions


def _figures(setup: Any, decel: float) -> tuple[Floats, Floats | None]:
    """Effort [N] and travel [m] (N, L) for a stop of `decel` [g] of a setup whose entries are trials (N, 1, 1, 1)."""
    converted = convert(setup)
    assert converted.load is not None
    ways = control_paths_of(setup, Questions())
    path = next(reversed(ways))
    systems = [(settle(s, converted.load), ways[path][s.name]) for s in converted.systems if s.name in ways[path]]
    own = settle_decel(systems, converted.load, converted.wheels)
    solved = solve_path(path, [(s, r) for s, (_, r) in zip(own, systems, strict=True)], converted.load, converted.wheels)
    place, known = solved.reach(decel)
    push = np.where(known, solved.push_at(place), np.nan)
    pull = solved.pulls[0]
    pads = None if pull.pedal.travel is None else np.where(known, pull.pedal.pad_at(pull.place(place)), np.nan)

    def flat(values: Floats | None) -> Any:
        if values is None:
            return None
        return values.reshape(-1, *values.shape[-3:])[:, :, 0, 0]

    return flat(push), flat(pads)


def _ranks(drawn: Floats, figures: Floats) -> Floats:
    fine = np.isfinite(figures)
    return sensitivity.ranks(drawn[fine], figures[fine]) if fine.sum() > 2 else np.zeros(drawn.shape[1])


def sensitivity_of(job: Job, name: str) -> Sensitivity:
    """What moves the push and the travel most, at the stop the setup is judged at, in its first load state.

    Raises Impossible when the setup is not complete enough for a push.
    """
    setup = job.setup(name)
    answer = Answer(setup)
    if answer.solved is None or not bool(answer.solved.main.design_known[0]):
        raise Impossible("what matters most", "the setup does not give a stop yet")
    decel = float(answer.solved.main.design_decel[0])
    found = [d for d in uncertain_entries(setup, said_of(job, name)) if d.standing != "exact"]
    doc: Sensitivity = {"decel_g": decel, "push_n": None, "travel_mm": None, "entries": [], "trials": TRIALS}
    if not found:
        return doc
    least, most = np.array([d.least for d in found]), np.array([d.most for d in found])
    value = np.array([d.value for d in found])
    trials = drawn_within(found, TRIALS, SEED)
    alone = np.tile(value, (2 * len(found), 1))
    for n in range(len(found)):
        alone[2 * n, n], alone[2 * n + 1, n] = least[n], most[n]
    columns = np.concatenate([value[None], alone, trials])
    push, pads = _figures(made_of(setup, found, columns), decel)
    rows, ends = push[1 + 2 * len(found) :, 0], push[1 : 1 + 2 * len(found), 0].reshape(-1, 2)
    doc["push_n"] = _spread(rows)
    far = None
    if pads is not None:
        far = pads[1 + 2 * len(found) :, 0] * 1e3
        doc["travel_mm"] = _spread(far)
        runs = pads[1 : 1 + 2 * len(found), 0].reshape(-1, 2) * 1e3
    push_ranks = _ranks(trials, rows)
    travel_ranks = None if far is None else _ranks(trials, far)
    for n, doubt in enumerate(found):
        own: SensitiveEntry = {
            "path": doubt.path, "standing": doubt.standing, "value": doubt.value, "least": doubt.least, "most": doubt.most,
            "push_rank": float(push_ranks[n]), "push_n": _pair(ends[n]), "travel_rank": 0.0, "travel_mm": None,
        }  # fmt: skip
        if travel_ranks is not None:
            own["travel_rank"], own["travel_mm"] = float(travel_ranks[n]), _pair(runs[n])
        doc["entries"].append(own)
    doc["entries"].sort(key=lambda e: -max(abs(e["push_rank"]), abs(e["travel_rank"])))
    return doc


def _pair(values: Floats) -> list[float] | None:
    return [float(v) for v in values] if np.isfinite(values).all() else None


def _spread(figures: Floats) -> Percentiles | None:
    fine = figures[np.isfinite(figures)]
    if fine.size < TRIALS // 2:
        return None
    known = uncertainty.spread(fine)
    return {"p5": known.p5, "p50": known.p50, "p95": known.p95}

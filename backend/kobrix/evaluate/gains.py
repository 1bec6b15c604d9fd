"""What each change of a setup bought against another one, in the names of the result file."""

from collections.abc import Callable

import numpy as np

from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.gains import Gains, link_gains
from kobrix.evaluate.shapes import Bought, GainsResult, PathGains, SideGains
from kobrix.evaluate.solve import Answer, pick


def _bought(gains: Gains, figure: Callable[[Floats], float]) -> Bought | None:
    links = {name: figure(values) for name, values in gains.links.items()}
    if not all(np.isfinite(v) for v in links.values()):
        return None
    return {"links": {str(name): value for name, value in links.items()}, "product": figure(gains.product)}


def gains_document(answer: Answer, before: Answer, decel: float) -> GainsResult | None:
    """What the changes from `before` to `answer` bought at a stop of `decel` [g]; None where they cannot be compared."""
    mine, theirs = answer.solved, before.solved
    if mine is None or theirs is None or answer.converted.load_names != before.converted.load_names:
        return None
    doc: GainsResult = {"decel_g": decel, "load_states": {}}
    for load, name in enumerate(answer.converted.load_names):
        paths: dict[str, PathGains] = {}
        for path in mine.paths:
            if path not in theirs.paths:
                continue
            own, other = mine.paths[path].healthy, theirs.paths[path].healthy
            place, known = own.reach(decel)
            if not pick(known, load, 0, 0):
                continue
            at: dict[str, SideGains] = {}
            for match, by_side in link_gains(own, other, place).items():
                found = {
                    side: _bought(g, lambda v, load=load: float(pick(v, load, 0, 0)))  # type: ignore[misc]
                    for side, g in by_side.items()
                }
                at[match] = {side: b for side, b in found.items() if b is not None}
            paths[path] = {"same_stop": at["stop"], "same_push": at["push"]}
        doc["load_states"][name] = {"paths": paths}
    return doc

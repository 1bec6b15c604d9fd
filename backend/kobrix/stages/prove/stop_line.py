"""A stop as a line over the ground, from where braking began to rest."""

from typing import Any

import numpy as np

from kobrix.core.constants import KMH, G
from kobrix.core.prove.stops import along, steady
from kobrix.fileformat.quantities import value_of
from kobrix.stages.prove.shapes import StopLine

_PLACES = 25  # of a line that was not recorded


def line_of(body: dict[str, Any], way: float | None, corrected: float | None, nominal: float) -> StopLine:
    """A stop over the ground: as it was recorded, as if it braked steadily where only its ends are known; put to the nominal speed with it."""
    if way is None or way <= 0:
        return {"way_m": [], "speed_kmh": [], "time_s": [], "decel_g": [], "steady": True}
    own = value_of(body["speed_kmh"], "speed_kmh")
    far, fast = (way, own) if corrected is None else (corrected, nominal)
    kept = np.array(body.get("curve") or [], dtype=float)
    if recorded := bool(len(kept) > 1 and kept[-1, 0] > 0 and kept[0, 1] > 0):
        ways, speeds = kept[:, 0] / kept[-1, 0] * far, kept[:, 1] / kept[0, 1] * fast * KMH
    else:
        ways, speeds = steady(far, fast * KMH, _PLACES)
    time, decel = along(ways, speeds)
    return {
        "way_m": [round(float(m), 2) for m in ways], "speed_kmh": [round(float(v) / KMH, 2) for v in speeds],
        "time_s": [round(float(t), 3) for t in time], "decel_g": [round(float(a) / G, 3) for a in decel], "steady": not recorded,
    }  # fmt: skip

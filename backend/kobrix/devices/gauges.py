"""Simulated pressure gauges and ruler: what a setup would show with the noise of real ones, the same for the same seed.

They stand in for outside devices; what they read is marked as simulated and never counted.
"""

import numpy as np

GAUGE_KPA, RULER_MM = 60.0, 0.6  # one standard deviation of a reading, our estimate


def reading(front_kpa: float | None, rear_kpa: float | None, travel_mm: float | None, seed: int) -> dict[str, float | None]:
    """What simulated gauges and a ruler show of true pressures [kPa] and a true travel [mm], rounded as they are read.

    `front_kpa` [kPa]; `rear_kpa` [kPa]; `travel_mm` [mm]; `seed` [1]. None where nothing is there.
    """
    noise = np.random.default_rng(seed).normal(size=3)

    def shown(value: float | None, spread: float, step: float, n: int) -> float | None:
        return None if value is None else max(0.0, round((value + spread * float(noise[n])) / step) * step)

    return {
        "front_kpa": shown(front_kpa, GAUGE_KPA, 10.0, 0), "rear_kpa": shown(rear_kpa, GAUGE_KPA, 10.0, 1),
        "travel_mm": shown(travel_mm, RULER_MM, 0.5, 2),
    }  # fmt: skip

"""A simulated rotor thermometer: what a setup's rotor would show with the noise of a real one, the same for the same seed.

It stands in for an outside device; what it reads is marked as simulated and never counted.
"""

import numpy as np

SPREAD_C = 8.0  # one standard deviation of a reading, our estimate


def reading(true_c: float, seed: int) -> float:
    """What a simulated thermometer shows of a true temperature [°C], to a whole degree.

    `true_c` [°C]; `seed` [1].

    >>> reading(200.0, 1) == reading(200.0, 1)
    True
    """
    return float(round(true_c + SPREAD_C * float(np.random.default_rng(seed).normal())))

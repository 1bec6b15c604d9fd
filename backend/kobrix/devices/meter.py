"""A simulated meter: the speed of a stop ten times a second with the noise of a real receiver, the same for the same seed.

It stands in for an outside device; what it reads is marked as simulated and never counted.
"""

import numpy as np
from numpy.typing import NDArray

RATE_HZ, SPREAD_M_PER_S = 10.0, 0.05  # of the shipped stand-in, our estimate
_BEFORE_S, _AFTER_S, _BUILD_UP_S = 2.0, 1.0, 0.3


def stop(speed: float, decel: float, seed: int) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Times [s] and speeds [m/s] of a stop from `speed` [m/s] that settles at `decel` [m/s²] after a build-up.

    `seed` [1].

    >>> bool((stop(22.0, 7.0, 1)[1] == stop(22.0, 7.0, 1)[1]).all())
    True
    """
    whole = _BEFORE_S + _BUILD_UP_S + speed / decel + _AFTER_S
    t = np.arange(0.0, whole + 1.0 / RATE_HZ, 1.0 / RATE_HZ)
    own = np.maximum(t - _BEFORE_S, 0.0)
    rise = np.minimum(own, _BUILD_UP_S)
    lost = decel * rise**2 / (2 * _BUILD_UP_S) + decel * np.maximum(own - _BUILD_UP_S, 0.0)
    noise = np.random.default_rng(seed).normal(size=t.size) * SPREAD_M_PER_S
    moving = speed - lost > 0
    return t, np.where(moving, np.maximum(speed - lost + noise, 0.0), 0.0)

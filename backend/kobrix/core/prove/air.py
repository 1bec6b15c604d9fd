"""What too much travel comes from: air, a clearance, or a hose that swells, from a few pushes."""

from dataclasses import dataclass

import numpy as np

from kobrix.core.figures import Figures
from kobrix.core.numerics.arrays import Floats
from kobrix.core.prove.estimates import Fit, chi2, least_squares, shown

CAUSES = ("air", "offset", "swell")
NAMES = {"air": "air", "offset": "adjustment", "swell": "hose_swell"}
KEYS = {"air": "air_cm3", "offset": "offset_mm", "swell": "swell_cm3_per_mpa"}
APART = 0.05  # least singular value of columns of length 1: our estimate


@dataclass(frozen=True)
class Pushes:
    """Pushes (n): measured and predicted travel [mm], which were made with nothing `open` [yes or no] clamped, and what a cubic
    centimetre of air in each station (n, stations) and a swelling hose (n) would add [mm]; `main` the station asked of."""

    measured: Floats
    predicted: Floats
    free: Floats
    air: Floats
    swell: Floats
    stations: list[str]
    main: int
    sigma: float


def told(pushes: Pushes) -> Figures:
    """What explains the travel that is too much, by the names of the open format.

    `pushes` [record].
    """
    missing = pushes.measured - pushes.predicted
    free = pushes.free.astype(bool)
    y, n = missing[free], int(free.sum())
    out: Figures = {
        "predicted_travel_mm": [float(v) for v in pushes.predicted], "missing_mm": [float(v) for v in missing],
        "air_cm3": None, "offset_mm": None, "swell_cm3_per_mpa": None, "misfit": None, "with_offset": None, "candidates": [],
        "verdict": "cannot_tell", "reason": "too_few_open_pushes",
    }  # fmt: skip
    if n >= 2:
        air = pushes.air[free, pushes.main]
        columns = {"air": air, "offset": np.ones(n), "swell": pushes.swell[free]}
        fits = {name: least_squares(column[:, None], y, pushes.sigma) for name, column in columns.items()}
        none = float(np.sum((y / pushes.sigma) ** 2))
        both = None
        if float(air.max() - air.min()) >= 1e-6 * float(air.max()):
            both = least_squares(np.column_stack([air, columns["offset"]]), y, pushes.sigma)
        out |= {KEYS[name]: shown(fit.one(0)) if fit else None for name, fit in fits.items()}
        out["misfit"] = {"none": none} | {name: fit.misfit if fit else None for name, fit in fits.items()}
        out["with_offset"] = None if both is None else {"air_cm3": shown(both.one(0)), "offset_mm": shown(both.one(1))}
        out |= _verdict({name: fit for name, fit in fits.items() if fit is not None}, none, n)
    apart = _separable(pushes.air)
    out["separable"] = apart
    out["air_by_station_cm3"] = None
    if apart:
        each = least_squares(pushes.air, missing, pushes.sigma)
        if each is not None:
            out["air_by_station_cm3"] = {name: shown(each.one(k)) for k, name in enumerate(pushes.stations)}
    return out


def _verdict(fits: dict[str, Fit], none: float, n: int) -> Figures:
    """The first that holds: as built, or the causes that fit; and why it cannot tell."""
    good = [c for c in CAUSES if c in fits and fits[c].values[0] > 0 and fits[c].misfit <= chi2(0.95, n - 1)]
    good.sort(key=lambda c: fits[c].misfit)
    out: Figures = {"candidates": good, "verdict": "cannot_tell", "reason": None}
    if none <= chi2(0.95, n):
        return out | {"verdict": "as_built"}
    if not good:
        below = all(fit.values[0] <= 0 for fit in fits.values())
        return out | {"reason": "below_prediction" if below else "no_single_cause"}
    if len(good) == 1 or fits[good[1]].misfit - fits[good[0]].misfit >= chi2(0.95, 1):
        return out | {"verdict": NAMES[good[0]]}
    return out | {"reason": "several_causes_fit"}


def _separable(air: Floats) -> bool:
    """Whether the stations' air can be told apart from those pushes."""
    n, stations = air.shape
    lengths = np.linalg.norm(air, axis=0)
    if stations < 2 or n < stations or (lengths == 0).any():
        return False
    return bool(np.linalg.svd(air / lengths, compute_uv=False).min() >= APART)

"""What too much travel comes from: air, a clearance, or a hose that swells, from a few pushes."""

from dataclasses import dataclass
from typing import Literal, TypedDict

import numpy as np

from kobrix.core.figures import Shown
from kobrix.core.numerics.arrays import Floats
from kobrix.core.prove.estimates import Fit, chi2, least_squares, shown

Cause = Literal["air", "offset", "swell"]
Verdict = Literal["as_built", "air", "adjustment", "hose_swell", "cannot_tell"]
Reason = Literal["too_few_open_pushes", "below_prediction", "no_single_cause", "several_causes_fit"]
CAUSES: tuple[Cause, ...] = ("air", "offset", "swell")
NAMES: dict[Cause, Verdict] = {"air": "air", "offset": "adjustment", "swell": "hose_swell"}
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


class Misfit(TypedDict):
    """How badly nothing, and each cause alone, explains the pushes: Q of the readings, None where a cause was not fitted."""

    none: float
    air: float | None
    offset: float | None
    swell: float | None


class AirAndOffset(TypedDict):
    """Air and a clearance fitted together."""

    air_cm3: Shown
    offset_mm: Shown


class AirAnswer(TypedDict):
    """air_from_pushes: travel [mm] that is predicted and too much, what each cause alone would have to be, and which of them it is."""

    predicted_travel_mm: list[float]
    missing_mm: list[float]
    air_cm3: Shown | None
    offset_mm: Shown | None
    swell_cm3_per_mpa: Shown | None
    misfit: Misfit | None
    with_offset: AirAndOffset | None
    candidates: list[Cause]
    verdict: Verdict
    reason: Reason | None
    separable: bool
    air_by_station_cm3: dict[str, Shown] | None


def told(pushes: Pushes) -> AirAnswer:
    """What explains the travel that is too much, by the names of the open format.

    `pushes` [record].
    """
    missing = pushes.measured - pushes.predicted
    free = pushes.free.astype(bool)
    y, n = missing[free], int(free.sum())
    apart = _separable(pushes.air)
    out: AirAnswer = {
        "predicted_travel_mm": [float(v) for v in pushes.predicted], "missing_mm": [float(v) for v in missing],
        "air_cm3": None, "offset_mm": None, "swell_cm3_per_mpa": None, "misfit": None, "with_offset": None, "candidates": [],
        "verdict": "cannot_tell", "reason": "too_few_open_pushes", "separable": apart, "air_by_station_cm3": None,
    }  # fmt: skip
    if n >= 2:
        air = pushes.air[free, pushes.main]
        columns: dict[Cause, Floats] = {"air": air, "offset": np.ones(n), "swell": pushes.swell[free]}
        fits = {name: least_squares(column[:, None], y, pushes.sigma) for name, column in columns.items()}
        alone = {name: None if fit is None else fit.one(0) for name, fit in fits.items()}
        misfit = {name: None if fit is None else fit.misfit for name, fit in fits.items()}
        none = float(np.sum((y / pushes.sigma) ** 2))
        both = None
        if float(air.max() - air.min()) >= 1e-6 * float(air.max()):
            both = least_squares(np.column_stack([air, columns["offset"]]), y, pushes.sigma)
        out["air_cm3"], out["offset_mm"] = shown(alone["air"]), shown(alone["offset"])
        out["swell_cm3_per_mpa"] = shown(alone["swell"])
        out["misfit"] = {"none": none, "air": misfit["air"], "offset": misfit["offset"], "swell": misfit["swell"]}
        out["with_offset"] = None if both is None else {"air_cm3": both.one(0).figures(), "offset_mm": both.one(1).figures()}
        known = {name: fit for name, fit in fits.items() if fit is not None}
        out["candidates"] = _candidates(known, n)
        out["verdict"], out["reason"] = _verdict(known, out["candidates"], none, n)
    if apart:
        each = least_squares(pushes.air, missing, pushes.sigma)
        if each is not None:
            out["air_by_station_cm3"] = {name: each.one(k).figures() for k, name in enumerate(pushes.stations)}
    return out


def _candidates(fits: dict[Cause, Fit], n: int) -> list[Cause]:
    """The causes that explain the pushes by themselves, the best first."""
    good = [c for c in CAUSES if c in fits and fits[c].values[0] > 0 and fits[c].misfit <= chi2(0.95, n - 1)]
    return sorted(good, key=lambda c: fits[c].misfit)


def _verdict(fits: dict[Cause, Fit], good: list[Cause], none: float, n: int) -> tuple[Verdict, Reason | None]:
    """The first that holds: as built, or the one cause that fits; and why it cannot tell."""
    if none <= chi2(0.95, n):
        return "as_built", None
    if not good:
        below = all(fit.values[0] <= 0 for fit in fits.values())
        return "cannot_tell", "below_prediction" if below else "no_single_cause"
    if len(good) == 1 or fits[good[1]].misfit - fits[good[0]].misfit >= chi2(0.95, 1):
        return NAMES[good[0]], None
    return "cannot_tell", "several_causes_fit"


def _separable(air: Floats) -> bool:
    """Whether the stations' air can be told apart from those pushes."""
    n, stations = air.shape
    lengths = np.linalg.norm(air, axis=0)
    if stations < 2 or n < stations or (lengths == 0).any():
        return False
    return bool(np.linalg.svd(air / lengths, compute_uv=False).min() >= APART)

"""calibrate: friction, efficiency and grip learned from stops and gauges; accepted by hand only."""

import math
from dataclasses import dataclass, replace
from typing import TypedDict

import numpy as np

from kobrix.core.constants import KMH, G, assumed
from kobrix.core.figures import Shown
from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.physics import drum
from kobrix.core.physics.chain import Place, Station, System
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.paths import Solved, solve_path
from kobrix.core.prove.calibration import FACTORS, TOLD, FactorName, Learned, lag, learn
from kobrix.core.prove.estimates import chi2
from kobrix.evaluate.ask.subject import Subject, push_of
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.stations import DiscBrake, DrumBrake

DOUBTS = {"friction": 0.08, "efficiency": 0.05, "grip": 0.05}  # our estimate


@dataclass(frozen=True)
class Reading:
    """A reading of the model: a stop at a push [N] or at lock (g), or a gauge [kPa] at a station; its value and doubt."""

    kind: str
    value: float
    sigma: float
    push: float = 0.0
    station: str = ""


def _stops(asked: Asked, lag0: float, sigma: float) -> tuple[list[Reading], list[float]]:
    """The stops' readings, and the lags that their distances tell."""
    found, lags = [], []
    for row in asked.parts("stops", 0):
        locked = row.word("locked", ("none", "front", "rear", "both"), "none") != "none"
        typed, speed, way = row.maybe("decel_g"), row.maybe("speed_kmh"), row.maybe("distance_m")
        decel = typed
        if decel is None:
            v, d = row.number("speed_kmh") * KMH, row.number("distance_m") if speed is not None else 0.0
            braked = d - v * lag0
            if braked <= 0:
                raise row.bad("distance_m", "it is shorter than the lag alone.")
            decel = v**2 / (2 * G * braked)
        elif speed is not None and way is not None:
            v = speed * KMH
            lags.append((way - v**2 / (2 * decel * G)) / v)
        found.append(Reading("lock", decel, sigma) if locked else Reading("stop", decel, sigma, push_of(row, "push_n")))
    return found, lags


def _gauges(asked: Asked, subject: Subject, sigma: float) -> list[Reading]:
    found = []
    for row in asked.parts("gauges", 0):
        push = push_of(row)
        if not (row.given("front_kpa") or row.given("rear_kpa")):
            raise row.bad("front_kpa", "it is missing.")
        for axle in ("front", "rear"):
            value = row.maybe(f"{axle}_kpa", "zero")
            if value is None:
                continue
            station = subject.on_axle(axle)
            if station is None:
                raise row.bad(f"{axle}_kpa", f"the control has no {axle} brakes.")
            found.append(Reading("gauge", value, sigma, push, station.name))
    return found


class Model:
    """The subject with factors on friction, efficiency and grip."""

    def __init__(self, subject: Subject, readings: list[Reading]) -> None:
        self.subject, self.readings = subject, readings
        self.parts = {s.name: s.brake for system in subject.setup.systems for s in system.stations}

    def _rub(self, station: Station, factor: float) -> Station:
        brake, part = station.brake, self.parts[station.name]
        if isinstance(brake, Disc):
            return replace(station, brake=replace(brake, friction=brake.friction * factor))
        shoe: Number = brake.shoe_factor * factor
        if isinstance(part, DrumBrake) and part.c_star is None and part.shoes is not None and part.friction is not None:
            cold = si(part.friction.cold or 0.0, "friction")
            k = assumed("drum.shoe_k") if part.shoe_k is None else si(part.shoe_k, "shoe_k")
            shoe = drum.shoe_factor(part.shoes, min(cold * factor, 0.999 * k), k)
        return replace(station, brake=replace(brake, shoe_factor=shoe))

    def solved(self, factors: Floats) -> Solved:
        """The path solved with those factors."""
        friction, efficiency, grip = (float(v) for v in factors)

        def changed(system: System) -> System:
            control = replace(system.control, efficiency=system.control.efficiency * efficiency)
            return replace(system, control=control, stations=tuple(self._rub(s, friction) for s in system.stations))

        pulls = [(changed(p.system), p.ratio) for p in self.subject.path.healthy.pulls]
        load = self.subject.solved.load
        gripped = replace(load, grip_front=load.grip_front * grip, grip_rear=load.grip_rear * grip)
        return solve_path(self.subject.path_name, pulls, gripped, self.subject.solved.wheels)

    def __call__(self, factors: Floats) -> Floats:
        solved, subject = self.solved(factors), self.subject
        places = solved.place_at(
            np.array([reading.push for reading in self.readings])
        )  # all at once: a linkage is looked through for each call
        decels, found = solved.at(places).decel, []
        for n, reading in enumerate(self.readings):
            if reading.kind == "lock":
                found.append(subject.one(solved.event.decel))
            elif reading.kind == "stop":
                found.append(subject.one(decels[..., n : n + 1]))
            else:
                place = Place(places.knot[..., n : n + 1], places.fraction[..., n : n + 1])
                found.append(subject.pressure(solved, place, reading.station) / 1000)
        return np.array(found)


class Factor(Shown):
    """A factor with its interval: the share of its doubt that the readings took, and whether they told it at all."""

    learned: float
    told: bool


class StopRead(TypedDict):
    """A stop [g]: as read, by the model as it was, and as learned."""

    decel_g: float
    before_g: float
    after_g: float


class GaugeRead(TypedDict):
    """A gauge [kPa]: as read, by the model as it was, and as learned."""

    kpa: float
    before_kpa: float
    after_kpa: float


class Grip(TypedDict):
    """Each axle's grip."""

    front: float
    rear: float


class CalibrateAnswer(TypedDict):
    """calibrate: the factors, how well they fit, each reading before and after, and the friction and grip that they make."""

    factors: dict[FactorName, Factor]
    correlation_friction_efficiency: float
    lag_s: Shown
    misfit: float
    readings: int
    fits: bool
    stops: list[StopRead]
    gauges: list[GaugeRead]
    rms_before_g: float | None
    rms_after_g: float | None
    friction: dict[str, float]
    grip: Grip


def _factors(learned: Learned, priors: Floats) -> dict[FactorName, Factor]:
    out: dict[FactorName, Factor] = {}
    for k, name in enumerate(FACTORS):
        own = learned.one(k)
        share = 1 - (own.se / float(priors[k])) ** 2
        out[name] = {**own.figures(), "learned": share, "told": share >= TOLD - 1e-9}
    return out


def _cold(asked: Subject, factor: float) -> dict[str, float]:
    """Friction of every station that has µ, times a factor."""
    found = {}
    for system in asked.setup.systems:
        for part in system.stations:
            brake = part.brake
            given = isinstance(brake, DrumBrake) and brake.c_star is not None
            if (
                isinstance(brake, (DiscBrake, DrumBrake))
                and not given
                and brake.friction is not None
                and brake.friction.cold is not None
            ):
                found[part.name] = value_of(brake.friction.cold, "friction") * factor
    return found


def calibrated(asked: Asked) -> CalibrateAnswer:
    """calibrate: factors with their intervals, each reading before and after."""
    subject = Subject(asked)
    lag0 = asked.default("lag_s", 0.15, "zero")
    stops, lags = _stops(asked, lag0, asked.default("decel_doubt_g", 0.02))
    gauges = _gauges(asked, subject, asked.default("gauge_doubt_kpa", 100.0))
    readings = [*stops, *gauges]
    if not readings:
        raise asked.bad("stops", "one stop or gauge at least is needed.")
    model = Model(subject, readings)
    for k, reading in enumerate(stops):
        if reading.kind == "lock" and not math.isfinite(subject.one(subject.path.healthy.event.decel)):
            raise asked.bad(f"stops.{k}.locked", "the model never locks a wheel.")
    priors = np.array([asked.default(f"{name}_doubt", DOUBTS[name]) for name in FACTORS])
    learned = learn(model, np.array([r.value for r in readings]), np.array([r.sigma for r in readings]), priors)
    n = len(stops)
    before, after = (values[:n] - np.array([r.value for r in stops]) for values in (learned.before, learned.after))
    lagged = lag((lag0, asked.default("lag_doubt_s", 0.10)), lags, asked.default("lag_reading_doubt_s", 0.05))
    grip = float(learned.factors[2])
    load = subject.solved.load
    return {
        "factors": _factors(learned, priors),
        "correlation_friction_efficiency": float(learned.cov[0, 1] / math.sqrt(learned.cov[0, 0] * learned.cov[1, 1])),
        "lag_s": lagged.figures(), "misfit": learned.misfit, "readings": len(readings),
        "fits": learned.misfit <= chi2(0.99, len(readings)),
        "stops": [
            {"decel_g": r.value, "before_g": float(b), "after_g": float(a)}
            for r, b, a in zip(stops, learned.before[:n], learned.after[:n], strict=True)
        ],
        "gauges": [
            {"kpa": r.value, "before_kpa": float(b), "after_kpa": float(a)}
            for r, b, a in zip(gauges, learned.before[n:], learned.after[n:], strict=True)
        ],
        "rms_before_g": _rms(before), "rms_after_g": _rms(after), "friction": _cold(subject, float(learned.factors[0])),
        "grip": {"front": subject.one(load.grip_front) * grip, "rear": subject.one(load.grip_rear) * grip},
    }  # fmt: skip


def _rms(values: Floats) -> float | None:
    return float(np.sqrt(np.mean(values**2))) if len(values) else None

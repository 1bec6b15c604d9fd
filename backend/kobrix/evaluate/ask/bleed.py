"""The questions of Bleed that are asked of a setup: air from pushes, a pedal pumped, a pedal held."""

import math
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from kobrix.core.constants import assumed
from kobrix.core.figures import Level
from kobrix.core.physics import lines
from kobrix.core.physics.chain import Place, Station, System
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.paths import Solved
from kobrix.core.prove.air import AirAnswer, Pushes, told
from kobrix.core.prove.bleeding import Held, Hold, HoldAnswer, Loss, PumpedAnswer, class_of, loss_of, pumped, where_lost
from kobrix.core.prove.estimates import Z_975
from kobrix.evaluate.ask.subject import Subject, push_of, words_of
from kobrix.fileformat.asked import Asked

CM3 = 1e-6


def sealed(system: System, names: list[str]) -> System:
    """The `system` with the stations of those `names` plugged at their ports: they take no volume."""

    def plug(station: Station) -> Station:
        if station.name not in names or station.lines is None:
            return station
        brake = station.brake
        if isinstance(brake, Disc):
            shut: Disc = replace(brake, clearance=0.0, knock_back=0.0, caliper_give=0.0, pad_give=0.0)
            closed = replace(station, brake=shut)
        else:
            closed = replace(station, brake=replace(brake, clearance=0.0, give=0.0))
        bare = replace(station.lines, hose_give=0.0, braided_give=0.0, pipe_give=0.0, fluid_volume=0.0, air=0.0)
        return replace(closed, lines=bare)

    return replace(system, stations=tuple(map(plug, system.stations)))


def swollen(system: System, name: str) -> System:
    """The `system` with one more hose at a station: 1 m of 1 cm³/(m·MPa), its fluid counted."""

    def add(station: Station) -> Station:
        if station.name != name or station.lines is None:
            return station
        more = lines.hose_give(1e-12, 1.0, 1)
        fluid = station.lines.fluid_volume + lines.bore_volume(assumed("hose.bore"), 1.0)
        return replace(station, lines=replace(station.lines, hose_give=station.lines.hose_give + more, fluid_volume=fluid))

    return replace(system, stations=tuple(map(add, system.stations)))


class Travels:
    """Travel [mm] of a subject at pushes, as built and with air, a plug or a hose more; each solved once."""

    def __init__(self, subject: Subject, find: Callable[[Solved, float], Place]) -> None:
        self.subject, self.find = subject, find
        self.solved: dict[tuple[frozenset[str], str | None, bool], Solved] = {}

    def at(self, push: float, clamped: list[str], air: str | None = None, hose: str | None = None) -> float:
        """Travel at a `push` with stations `clamped`, a cubic centimetre more of `air` in one, or a `hose` more at one."""
        key = (frozenset(clamped), air or hose, hose is not None)
        if key not in self.solved:
            system = sealed(self.subject.system, clamped)
            if hose is not None:
                system = swollen(system, hose)
            held = None
            if air is not None:
                own = system.station(air).lines
                held = {air: (own.air if own is not None else 0.0) + CM3}
            self.solved[key] = self.subject.again(system, held)
        solved = self.solved[key]
        return self.subject.travel(solved, self.find(solved, push))


def explained(subject: Subject, asked: Asked, rows: list[Asked], forces: list[float], travels: list[float], sigma: float,
              find: Callable[[Solved, float], Place]) -> AirAnswer:  # fmt: skip
    """What explains the travel of those pushes: `forces` and `travels` [mm], the push of each found by `find`."""
    stations = [s.name for s in subject.system.stations]
    main = subject.station().name
    clamps = [words_of(row, "clamped", stations) for row in rows]
    seek = Travels(subject, find)
    for row, force in zip(rows, forces, strict=True):
        healthy = subject.path.healthy
        if subject.pressure(healthy, find(healthy, force), main) <= 0:
            raise asked.bad(row.place, f"the {main} brakes have no pressure at that push.")
    base = np.array([seek.at(f, c) for f, c in zip(forces, clamps, strict=True)])
    air = np.array([
        [0.0 if s in c else seek.at(f, c, air=s) - b for s in stations] for f, c, b in zip(forces, clamps, base, strict=True)
    ])  # fmt: skip
    swell = np.array([0.0 if c else seek.at(f, c, hose=main) - b for f, c, b in zip(forces, clamps, base, strict=True)])
    free = np.array([not c for c in clamps])
    for row, *own in zip(rows, base, air, swell, strict=True):
        if not all(np.isfinite(figures).all() for figures in own):
            raise asked.bad(row.place, "the linkage passes its dead point before that push.")
    return told(Pushes(np.array(travels), base, free, air, swell, stations, stations.index(main), sigma))


def air(asked: Asked) -> AirAnswer:
    """air_from_pushes: what makes the pedal go further than the parts say."""
    subject = Subject(asked)
    rows = asked.parts("pushes", 2)
    forces = [push_of(row) for row in rows]
    travels = [row.number("travel_mm", "zero") for row in rows]
    sigma = asked.default("travel_doubt_mm", 1.0)
    return explained(subject, asked, rows, forces, travels, sigma, lambda solved, push: solved.place_at(push))


def _cylinder(asked: Asked) -> tuple[float, float, Subject | None]:
    """Bore's area [mm²] and pedal ratio: typed, or of the setup at rest."""
    subject = Subject(asked) if asked.given("setup") else None
    if asked.given("bore_mm") or subject is None:
        return math.pi / 4 * asked.number("bore_mm") ** 2, asked.number("ratio"), subject
    return subject.area, asked.number("ratio") if asked.given("ratio") else subject.ratio, subject


def pumping(asked: Asked) -> PumpedAnswer:
    """pumped: what a pedal that comes up by pumping tells."""
    first, third = asked.number("first_travel_mm", "zero"), asked.number("third_travel_mm", "zero")
    limit = Z_975 * math.sqrt(2) * asked.default("travel_doubt_mm", 1.0)
    area, ratio, subject = _cylinder(asked)
    slack = extra = None
    if subject is not None:
        stations = [subject.station()] if asked.given("station") else list(subject.system.stations)
        slack = sum(
            s.wheels * 2 * float(s.brake.side_area) * s.brake.calipers if isinstance(s.brake, Disc)
            else s.wheels * 2 * float(s.brake.cylinder_area)
            for s in stations
        ) * 1e6  # fmt: skip
        typed = asked.given("pedal_force_n") or asked.given("scale_kg")
        if typed and asked.given("hard_force_n") and asked.given("hard_travel_mm"):
            push, hard = push_of(asked), asked.number("hard_force_n")
            if hard <= push:
                raise asked.bad("hard_force_n", "it is not above the usual push.")
            solved = subject.path.healthy
            planned = subject.travel_at(solved, hard) - subject.travel_at(solved, push)
            extra = asked.number("hard_travel_mm", "zero") - third - planned
    return pumped(first - third, limit, area, ratio, slack, extra, asked.flag("after_drive"))


def holding(asked: Asked) -> HoldAnswer:
    """leak_hold: whether a held pedal sinks, and where the fluid goes."""
    area, ratio, subject = _cylinder(asked)
    circuits = [c.name for c in subject.system.cylinder.chambers] if subject is not None else ["front", "rear"]
    if subject is None and asked.given("circuits"):
        circuits = asked.texts("circuits")
    tight, leak = asked.default("tight_cm3_per_min", 0.06), asked.default("leak_cm3_per_min", 0.5)
    settle, doubt = asked.default("settle_s", 5.0, "zero"), asked.default("travel_doubt_mm", 0.5)
    rows: list[Held] = []
    classes: dict[frozenset[str], Loss] = {}
    for part in asked.parts("holds"):
        plugged = sorted(set(words_of(part, "plugged", circuits)))
        readings = [(r.number("time_s", "zero"), r.number("travel_mm", "zero")) for r in part.parts("readings")]
        for k in range(1, len(readings)):
            if readings[k][0] <= readings[k - 1][0]:
                raise part.bad(f"readings.{k}.time_s", "times must rise.")
        kept = [r for r in readings if r[0] >= settle - 1e-9]
        if len(kept) < 2:
            raise part.bad("readings", f"{len(kept)} stand after {settle:g} s; two are needed.")
        sink, loss = loss_of(Hold(frozenset(plugged), [t for t, _ in kept], [x for _, x in kept]), doubt, area, ratio)
        kind = class_of(loss, tight, leak)
        classes.setdefault(frozenset(plugged), kind)
        rows.append({"plugged": plugged, "sink_mm_per_min": sink.figures(), "loss_cm3_per_min": loss.figures(), "class": kind})
    whole = classes.get(frozenset())
    level: Level = "good" if whole == "tight" else "danger" if whole in ("seep", "leak") else "caution"
    return {"holds": rows, "where": where_lost(classes, circuits), "level": level}

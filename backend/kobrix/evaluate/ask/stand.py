"""stand_test: the gate before the first drive."""

import math
from dataclasses import dataclass
from typing import Literal, NotRequired, TypedDict

import numpy as np

from kobrix.core.figures import EPS, Shown
from kobrix.core.physics import valves
from kobrix.core.physics.booster import runout_force
from kobrix.core.physics.chain import Place, Station
from kobrix.core.physics.paths import Solved
from kobrix.core.prove.air import AirAnswer
from kobrix.core.prove.estimates import Estimate, shown
from kobrix.core.prove.stand import (
    FLOOR,
    LOW_PRESSURE,
    Compared,
    Knee,
    KneeReason,
    Line,
    LineAnswer,
    Read,
    ValveAnswer,
    against,
    broken,
    cut_in,
    knee_of,
    product,
    straight,
    valve_figures,
)  # fmt: skip
from kobrix.evaluate.ask.bleed import explained
from kobrix.evaluate.ask.subject import Subject, push_of
from kobrix.fileformat.asked import Asked

KPA = 1000.0


class StandAnswer(TypedDict):
    """stand_test: what the gauges and the ruler say, each figure with its interval (None: not told), against the plan's, and whether to
    drive."""

    front: LineAnswer | None
    rear_line: LineAnswer | None
    ratio_efficiency: Shown | None
    gain: Shown | None
    gain_if_ratio_as_planned: Shown | None
    run_out_n: Shown | None
    cut_in_between_n: list[float] | None
    jump_in_kpa: Shown | None
    valve: ValveAnswer | None
    valve_reason: KneeReason | None
    valve_seen_to_kpa: NotRequired[float]
    bar_front_share: Shown | None
    travel: AirAnswer | None
    against_plan: list[Compared]
    verdict: Literal["do_not_drive", "look_again", "drive_slowly"]
    reasons: list[str]


@dataclass(frozen=True)
class Push:
    """One push: where it stands, its force [N], and what was read [kPa, mm]."""

    row: Asked
    force: float
    front: float | None
    rear: float | None
    travel: float | None


class Stand:
    """The readings of a stand test and the plan they are held against."""

    def __init__(self, asked: Asked) -> None:
        self.asked, self.subject = asked, Subject(asked)
        self.sigma_g, self.sigma_f = asked.default("gauge_doubt_kpa", 100.0), asked.default("force_doubt_n", 5.0, "zero")
        found = []
        for row in asked.parts("pushes"):
            front, rear = row.maybe("front_kpa", "zero"), row.maybe("rear_kpa", "zero")
            if front is None and rear is None:
                raise row.bad("front_kpa", "it is missing: one gauge at least is read.")
            found.append(Push(row, push_of(row), front, rear, row.maybe("travel_mm", "zero")))
        self.pushes = sorted(found, key=lambda p: p.force)
        self.booster = self.subject.system.booster
        self.front, self.rear = self.subject.on_axle("front"), self.subject.on_axle("rear")

    @property
    def pressing(self) -> float:
        """Above this reading [kPa] a gauge presses."""
        return 2 * self.sigma_g

    def read(self, axle: str) -> list[tuple[float, float]]:
        """Pushes [N] and readings [kPa] of an axle's gauge."""
        return [(p.force, v) for p in self.pushes if (v := getattr(p, axle)) is not None]

    def plan(self, station: Station | None, force: float) -> float:
        """The plan's pressure [kPa] of a station at a push [N]."""
        return 0.0 if station is None else self.subject.pressure_at(force, station.name) / KPA

    def line(self, axle: str) -> Line | None:
        """The axle's line on its pressing readings; None where a valve stands before it, or too few press."""
        station = self.front if axle == "front" else self.rear
        if station is None or any(valves.changes_pressure(d) for d in station.devices):
            return None
        rows = [(f, p) for f, p in self.read(axle) if p > self.pressing]
        hardest = self.pushes[-1].force
        sigma = math.hypot(self.sigma_g, self.plan(station, hardest) / hardest * self.sigma_f)
        read = Read(np.array([f for f, _ in rows]), np.array([p for _, p in rows]), sigma)
        one = straight(read)
        return one if one is None or self.booster is None else broken(read, one)

    def knee(self) -> Knee | None:
        """What both gauges say of a rear valve; None where that is not asked."""
        if self.subject.twin or (self.front is not None and any(valves.changes_pressure(d) for d in self.front.devices)):
            return None
        pairs = sorted(
            (p.front, p.rear) for p in self.pushes if p.front is not None and p.rear is not None and p.front > self.pressing
        )
        front, rear = (np.array([pair[k] for pair in pairs]) for k in (0, 1))
        return knee_of(front, rear, math.sqrt(2) * self.sigma_g)

    def rear_valve(self) -> tuple[float | None, float | None, bool]:
        """Knee [kPa] and slope of the plan's only rear valve, None where they are not told, and whether it has any."""
        own = [d for d in (self.rear.devices if self.rear else ()) if valves.changes_pressure(d)]
        if len(own) == 1 and isinstance(own[0], valves.Proportioning):
            return self.subject.one(own[0].knee) / KPA, self.subject.one(own[0].slope), True
        if len(own) == 1 and isinstance(own[0], valves.Limiting):
            return self.subject.one(own[0].setting) / KPA, 0.0, True
        return None, None, bool(own)

    def travel(self, area: float) -> AirAnswer | None:
        """What explains the travel that was read, its forces taken from the front gauge; None with fewer than two."""
        rows = [p for p in self.pushes if p.travel is not None and p.front is not None and p.front > self.pressing]
        if len(rows) < 2:
            return None
        cylinder = self.subject.system.cylinder
        chamber = cylinder.chambers[0]
        spring, efficiency = self.subject.one(cylinder.spring), self.subject.one(cylinder.efficiency)
        share = self.subject.one(chamber.force_share) if self.subject.twin else 1.0

        def find(solved: Solved, force: float) -> Place:
            """Where the cylinder is pressed with a force [N]."""
            pull = self.subject.own_pull(solved)
            out = pull.pedal.line.out
            table = out.reshape(-1, out.shape[-1])
            table = table[min(self.subject.load, len(table) - 1)]
            knot = int(np.clip(np.searchsorted(table, force, side="left") - 1, 0, len(table) - 2))
            step = table[knot + 1] - table[knot]
            number = knot + ((force - table[knot]) / step if step > 0 else 0.0)
            on_path = pull.number_on_path(np.array([[number]]))
            flat = np.array([float(on_path.reshape(-1)[0])])
            base = np.minimum(np.maximum(np.ceil(flat).astype(np.int64) - 1, 0), solved.road.decel.shape[-1] - 2)
            return Place(base, flat - base)

        forces = [(p.front * KPA * area / 1e6 + spring) / (efficiency * share) for p in rows if p.front is not None]
        travels = [p.travel for p in rows if p.travel is not None]
        sigma = self.asked.default("travel_doubt_mm", 1.0)
        return explained(self.subject, self.asked, [p.row for p in rows], forces, travels, sigma, find)


def _do_not_drive(stand: Stand, travels: list[float]) -> list[str]:
    found = []
    axle = "front" if stand.read("front") else "rear"
    if sum(1 for _, p in stand.read(axle) if p > stand.pressing) < 3:
        found.append("too_few_pushes")
    for name, station in (("front", stand.front), ("rear", stand.rear)):
        rows = stand.read(name)
        if rows and rows[-1][1] <= stand.pressing and stand.plan(station, rows[-1][0]) > stand.pressing:
            found.append(f"{name}_dead")
    front = stand.read("front")
    if front and front[-1][1] < LOW_PRESSURE * stand.plan(stand.front, front[-1][0]) - EPS:
        found.append("pressure_low")
    room = stand.subject.answer.rooms[stand.subject.system_name].available
    if room is not None and any(t > FLOOR * float(np.max(room)) * 1000 + EPS for t in travels):
        found.append("floor_near")
    return found


def stood(asked: Asked) -> StandAnswer:
    """stand_test: fitted figures against the plan's, and whether to drive."""
    stand = Stand(asked)
    subject, system = stand.subject, stand.subject.system
    cylinder, control, help_ = system.cylinder, system.control, stand.booster
    front, rear = stand.line("front"), stand.line("rear") if subject.twin else None
    areas = [subject.one(c.area) * 1e6 for c in cylinder.chambers]
    spring, eta = subject.one(cylinder.spring), subject.one(cylinder.efficiency)
    push_per_rod = subject.ratio * subject.one(control.efficiency)
    run_out_plan = None
    gain_plan = None
    if help_ is not None:
        rod, ever = runout_force(help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        gain_plan = subject.one(help_.gain)
        if bool(np.asarray(ever).reshape(-1)[0]) and math.isfinite(subject.one(rod)):
            run_out_plan = (subject.one(rod) + subject.one(control.return_force)) / push_per_rod
    efficiency = gain_if = share = None
    if subject.twin:
        if front is not None and rear is not None:
            total, share = product(front.slope, rear.slope, areas[0] / 1000, areas[1] / 1000)
            efficiency = total if help_ is None else None
    elif front is not None:
        area = areas[0] / 1000  # kPa·mm² to N
        forces = [f for f, p in stand.read("front") if p > stand.pressing]
        if help_ is None:
            efficiency = front.slope.times(area)
        elif front.second is not None:
            efficiency = front.second.times(area)
        elif run_out_plan is not None and min(forces) >= run_out_plan - EPS:
            efficiency = front.slope.times(area)
        elif run_out_plan is None or max(forces) <= run_out_plan + EPS:
            gain_if = front.slope.times(area / (push_per_rod * eta))
    between = cut_in([p.force for p in stand.pushes], [p.front for p in stand.pushes], stand.pressing)
    jump = None
    if help_ is not None and between is not None and front is not None:
        jump = _line_at(front, sum(between) / 2)
    knee = stand.knee()
    travel = stand.travel(areas[0])
    beta = subject.one(cylinder.chambers[0].force_share) if subject.twin else 1.0
    threshold_plan = (spring / (eta * beta) + subject.one(control.return_force)) / push_per_rod
    plan_knee, plan_slope, has_valve = stand.rear_valve()
    rows = [
        against("ratio_efficiency", efficiency, push_per_rod * eta),
        against("threshold_n", front.threshold if front and help_ is None else None, threshold_plan),
        against("gain", (front.gain if front else None) or gain_if, gain_plan),
        against("run_out_n", front.run_out if front else None, run_out_plan),
        against("knee_kpa", knee.knee if knee else None, plan_knee),
        against("valve_slope", knee.slope if knee else None, plan_slope),
        against("bar_front_share", share, subject.one(cylinder.chambers[0].force_share) if subject.twin else None),
    ]
    compared = [row for row in rows if row is not None]
    stop = _do_not_drive(stand, [p.travel for p in stand.pushes if p.travel is not None])
    look = [f"{row['name']}_off" for row in compared if row["outside"] and row["off"]]
    if knee is not None:
        if knee.reason == "no_knee_seen" and plan_knee is not None and (knee.seen or 0.0) > 1.1 * plan_knee + EPS:
            look.append("knee_missing")
        if knee.knee is not None and not has_valve:
            look.append("knee_unplanned")
        if knee.reason == "rear_differs":
            look.append("rear_differs")
    look += [f"{axle}_not_read" for axle in ("front", "rear") if not stand.read(axle)]
    if not any(p.travel is not None for p in stand.pushes):
        look.append("travel_not_read")
    elif travel is not None and travel["verdict"] != "as_built":
        look.append(f"travel_{travel['verdict']}")
    out: StandAnswer = {
        "front": None if front is None else front.figures(), "rear_line": None if rear is None else rear.figures(),
        "ratio_efficiency": shown(efficiency), "gain": shown(front.gain if front else None), "gain_if_ratio_as_planned": shown(gain_if),
        "run_out_n": shown(front.run_out if front else None), "cut_in_between_n": between, "jump_in_kpa": shown(jump),
        "valve": None if knee is None else valve_figures(knee), "valve_reason": None if knee is None else knee.reason,
        "bar_front_share": shown(share), "travel": travel, "against_plan": compared,
        "verdict": "do_not_drive" if stop else "look_again" if look else "drive_slowly", "reasons": [*stop, *look],
    }  # fmt: skip
    if knee is not None and knee.seen is not None:
        out["valve_seen_to_kpa"] = knee.seen
    return out


def _line_at(line: Line, force: float) -> Estimate:
    """The first line's pressure [kPa] at a push [N]."""
    c, m = (float(v) for v in line.at.values[:2])
    slopes = [1.0, force] + [0.0] * (len(line.at.values) - 2)
    return line.at.derived(c + m * force, slopes)

"""How a figure came about: the formula, the same with this setup's numbers in it, the unit and the source, made on demand.

Nothing here is computed a second time: each step states the numbers that the chain itself used and the value it found.
"""

from dataclasses import dataclass
from typing import Literal

from kobrix.core.constants import G
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics import valves
from kobrix.core.physics.chain import Place, figure_at, one_of
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.paths import Pull, Solved
from kobrix.core.physics.vehicle import AXLES, Axle, axle_load

_MM, _MPA, _CM2 = 1e3, 1e-6, 1e4


Figure = Literal[
    "push", "ratio", "rod", "out", "inlet", "outlet", "clamp", "torque", "force", "decel", "load", "adhesion", "travel", "cause"
]


@dataclass(frozen=True)
class Step:
    """One step: its `id`, the `figure` it works out, the `formula`, the formula with `numbers`, the `value` in `unit`, the
    `source`, the steps it `uses`; and whose figure it is: a `system` [name], a `station` [name], an `axle`, or of a `cause`
    of travel where it lies (`where`: a station's name, cylinder or control)."""

    id: str
    figure: Figure
    formula: str
    numbers: str
    value: float
    unit: str
    source: str
    uses: tuple[str, ...] = ()
    system: str | None = None
    station: str | None = None
    axle: Axle | None = None
    where: str | None = None
    cause: str | None = None


def _n(value: float) -> str:
    return f"{value:.5g}"


def _foot(pull: Pull, place: Place, load: int, push: float) -> list[Step]:
    control, help_, line = pull.system.control, pull.system.booster, pull.pedal.line
    a, b = (one_of(v, load) * _MM for v in (control.pivot_to_pad, control.pivot_to_pin))
    ratio = one_of(pull.pedal.ratio_at(place), load)
    rod, out = figure_at(line.rod, place, load), figure_at(line.out, place, load)
    eta, back = one_of(control.efficiency, load), one_of(control.return_force, load)
    own = pull.system.name
    steps = [
        Step(f"{own}.ratio", "ratio", "i = a/b", f"{_n(a)}/{_n(b)}", ratio, "1", "lever law", system=own)
        if control.linkage is None
        else Step(f"{own}.ratio", "ratio", "i(x) = a/|dx/dθ|", f"a {_n(a)} mm, linkage at this stroke", ratio, "1", "slider-crank", system=own),
        Step(
            f"{own}.rod", "rod", "F_rod = max(0, i·F·η_c − F_return)", f"{_n(ratio)}·{_n(push)}·{_n(eta)} − {_n(back)}", rod, "N",
            "lever law", (f"{own}.ratio",), system=own,
        ),
    ]  # fmt: skip
    if help_ is None:
        steps.append(Step(f"{own}.out", "out", "F_out = F_rod", _n(rod), out, "N", "no booster", (f"{own}.rod",), own))
    else:
        gain, cut, jump, most = (one_of(v, load) for v in (help_.gain, help_.cut_in, help_.jump_in, help_.limit))
        text = (
            f"{_n(rod)} + min({_n(jump)} + {_n(gain - 1)}·({_n(rod)} − {_n(cut)}), {_n(most)})"
            if out > 0.0
            else f"{_n(rod)} ≤ {_n(cut)}"
        )
        formula = "F_out = F + min(F_jump + (G − 1)(F − F_cut), F_limit), 0 up to F_cut"
        steps.append(Step(f"{own}.out", "out", formula, text, out, "N", "assist curve, common practice", (f"{own}.rod",), own))
    return steps


def _brakes(pull: Pull, place: Place, load: int) -> list[Step]:
    system, line, own = pull.system, pull.pedal.line, pull.system.name
    steps: list[Step] = []
    out = figure_at(line.out, place, load)
    for i, branch in enumerate(line.branches):
        chamber = next(c for c in system.cylinder.chambers if c.name == branch.circuit)
        station, key = branch.station, f"{own}.{branch.station.name}"
        inlet, outlet, torque = (figure_at(v[i], place, load) for v in (line.inlet, line.outlet, line.torque))
        area = one_of(cylinders.bore_area(chamber.bore), load)
        share = one_of(chamber.force_share, load)
        eta, spring = one_of(system.cylinder.efficiency, load), one_of(system.cylinder.spring, load)
        force = f"{_n(share)}·{_n(out)}" if share != 1.0 else _n(out)
        steps.append(Step(
            f"{key}.inlet", "inlet", "p = max(0, F·η_m − F_spring)/A", f"({force}·{_n(eta)} − {_n(spring)})/{_n(area * _CM2)} cm²",
            inlet * _MPA, "MPa", "statics", (f"{own}.out",), own, station.name,
        ))  # fmt: skip
        if any(valves.changes_pressure(d) for d in station.devices):
            names = ", ".join(type(d).__name__.lower() for d in station.devices if valves.changes_pressure(d))
            steps.append(Step(
                f"{key}.outlet", "outlet", "p_out from p_in, device by device", f"{names} at {_n(inlet * _MPA)} MPa", outlet * _MPA, "MPa",
                "the devices' curves", (f"{key}.inlet",), own, station.name,
            ))  # fmt: skip
        before = steps[-1].id
        brake = station.brake
        p0 = one_of(brake.threshold, load) * _MPA
        pressed = max(0.0, outlet * _MPA - p0)
        if isinstance(brake, Disc):
            side, mu, radius = (one_of(v, load) for v in (brake.side_area, brake.friction, brake.effective_radius))
            k = one_of(brake.efficiency, load)
            clamp = k * side * pressed / _MPA
            steps.append(Step(
                f"{key}.clamp", "clamp", "N = η_k·A_side·max(0, p − p₀)", f"{_n(k)}·{_n(side * _CM2)} cm²·{_n(pressed)} MPa", clamp, "N",
                "statics: one side's pistons", (before,), own, station.name,
            ))  # fmt: skip
            steps.append(Step(
                f"{key}.torque", "torque", "T = 2·μ·N·r_e·n", f"2·{_n(mu)}·{_n(clamp)}·{_n(radius * _MM)} mm·{brake.calipers}", torque, "N m",
                "Coulomb", (f"{key}.clamp",), own, station.name,
            ))  # fmt: skip
        else:
            area_w, factor, radius = (one_of(v, load) for v in (brake.cylinder_area, brake.shoe_factor, brake.radius))
            text = f"{_n(one_of(brake.efficiency, load))}·{_n(area_w * _CM2)} cm²·{_n(pressed)} MPa·{_n(factor)}·{_n(radius * _MM)} mm"
            steps.append(
                Step(
                    f"{key}.torque",
                    "torque",
                    "T = η_w·A_w·max(0, p − p₀)·C*·r",
                    text,
                    torque,
                    "N m",
                    "definition of C*",
                    (before,),
                    own,
                    station.name,
                )
            )
        rolling = one_of(station.rolling_radius, load)
        steps.append(Step(
            f"{key}.force", "force", "B = wheels·T/R", f"{branch.wheels}·{_n(torque)}/{_n(rolling * _MM)} mm", figure_at(line.force[i], place, load),
            "N", "moments about the hub", (f"{key}.torque",), own, station.name,
        ))  # fmt: skip
    return steps


def _road(solved: Solved, place: Place, load: int, uses: tuple[str, ...]) -> list[Step]:
    state, at = solved.road.load, solved.at(place)
    front, rear, z = (one_of(v, load) for v in (at.front, at.rear, at.decel))
    mass, psi, chi = (one_of(v, load) for v in (state.mass, state.front_share, state.chi))
    steps = [Step("decel", "decel", "z = ΣB/(m·g)", f"({_n(front)} + {_n(rear)})/({_n(mass)}·{G:.5f})", z, "g", "Newton", uses)]
    for axle, use in zip(AXLES, (at.use_front, at.use_rear), strict=True):
        carried = one_of(axle_load(state, axle, z), load)
        share = "ψ + zχ" if axle == "front" else "1 − ψ − zχ"
        numbers = f"{_n(psi)} + {_n(z)}·{_n(chi)}" if axle == "front" else f"1 − {_n(psi)} − {_n(z)}·{_n(chi)}"
        steps.append(
            Step(
                f"load.{axle}",
                "load",
                f"W = m·g·({share})",
                f"{_n(mass * G)}·({numbers})",
                carried,
                "N",
                "moments",
                ("decel",),
                axle=axle,
            )
        )
        force = front if axle == "front" else rear
        steps.append(Step(
            f"adhesion.{axle}", "adhesion", "f = B/(W·n_braked/n)", f"{_n(force)}/{_n(carried)}", one_of(use, load), "1", "UN R13-H, from memory",
            (f"load.{axle}",), axle=axle,
        ))  # fmt: skip
    return steps


def _travel(pull: Pull, place: Place, load: int) -> list[Step]:
    pedal, own = pull.pedal, pull.system.name
    if pedal.travel is None:
        return []
    ratio = one_of(pedal.ratio_at(place), load)
    causes = {key: one_of(v, load) for key, v in pedal.causes_at(place).items()}
    parts = [
        Step(
            f"{own}.travel.{where}.{cause}", "cause", "stroke·i" if where != "control" else "at the pad",
            f"{_n(value / ratio * _MM)} mm·{_n(ratio)}" if where != "control" else f"{_n(value * _MM)} mm", value * _MM, "mm",
            "continuity of the fluid" if where != "control" else "lever law", system=own, where=where, cause=cause,
        )
        for (where, cause), value in causes.items() if value > 0.0
    ]  # fmt: skip
    whole = one_of(pedal.pad_at(place), load) * _MM
    text = " + ".join(_n(p.value) for p in parts)
    total = Step(
        f"{own}.travel",
        "travel",
        "the sum of its causes",
        text,
        whole,
        "mm",
        "continuity of the fluid",
        tuple(p.id for p in parts),
        own,
    )
    return [*parts, total]


def working(solved: Solved, place: Place, load: int) -> list[Step]:
    """Every step [record] from foot to road on a `solved` [record] path at one `place` [record] in a `load` state [1].

    Source: each step's own.
    """
    push = one_of(solved.push_at(place), load)
    steps = [Step("push", "push", "F", _n(push), push, "N", "asked")]
    for pull in solved.pulls:
        own = pull.place(place)
        force = push * pull.ratio
        steps += [*_foot(pull, own, load, force), *_brakes(pull, own, load), *_travel(pull, own, load)]
    forces = tuple(s.id for s in steps if s.figure == "force")
    return [*steps, *_road(solved, place, load, forces)]

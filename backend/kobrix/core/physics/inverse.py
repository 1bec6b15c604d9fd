"""What a part would have to be for a wanted figure: solved on the knots of the chain where it is straight.

On the chain from the cylinder on, pressure, torque and brake force do not know the bore, the ratio or the bar; so the
pressures that a stop asks for stand fast, and the part follows from them in closed form. A linkage's ratio follows the
stroke: there the bore is found by a root finder, and no constant ratio is an answer.
"""

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from kobrix.core.constants import assumed
from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import cylinder as cylinders
from kobrix.core.physics.chain import Place, System, figure_at, first_reach
from kobrix.core.physics.control import pedal_force_for_rod, pin_for_ratio, rod_force
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.paths import Pull, Solved, solve_path
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.valves import Proportioning
from kobrix.core.physics.variants import attempt, with_knee
from kobrix.core.physics.vehicle import Axle

_GRID, _ROUNDS = 64, 8  # a knee is narrowed 64 times, eight times over: to the last digit
_BORES = 40  # sizes looked at before a root finder takes over
_HIGHEST = 40e6  # Pa: no valve is set above


def _root(missing: Callable[[float], float], low: float, high: float, close: float) -> float:
    """Where `missing` is 0 between `low` and `high`, to `close`."""
    from scipy.optimize import brentq  # loaded when a question asks for it: it would double the time of a start

    return float(brentq(missing, low, high, xtol=close, rtol=1e-13))


def _only(solved: Solved) -> Pull:
    if len(solved.pulls) != 1:
        raise Impossible("this question", "it is asked of one control at a time: name the path of one")
    return solved.pulls[0]


def _at(solved: Solved, load: int, decel: float) -> Place:
    """The place of a deceleration in one load state."""
    place, known = first_reach(solved.road.decel[load], decel)
    if not known.all():
        most = float(np.max(solved.road.decel[load]))
        raise Impossible(f"a stop of {decel:g} g", f"the brakes give at most {most:.2f} g")
    return Place(place.knot.reshape(1), place.fraction.reshape(1))


def bore_for_effort(solved: Solved, wheels: dict[Axle, int], load: int, decel: float, effort: float) -> float:
    """Bore [m] with which a push of `effort` [N] gives `decel` [g] on a `solved` [record] path in a `load` state [1].

    `wheels` {axle: [1]}. Of a twin cylinder both bores, in their proportion, as the front's bore. Raises Impossible. Source: the chain.
    """
    pull = _only(solved)
    system, line = pull.system, pull.pedal.line
    control, help_, cylinder = system.control, system.booster, system.cylinder
    if control.linkage is not None or cylinder.kind == "twin":
        return _bore_by_search(solved, system, wheels, load, decel, effort)
    pressure = figure_at(line.inlet[0], _at(solved, load, decel), load)
    rod = float(rod_force(effort * pull.ratio, control.ratio, control.efficiency, control.return_force))
    out = rod if help_ is None else float(boosting.boosted(rod, help_.gain, help_.cut_in, help_.jump_in, help_.limit))
    pressing = out * float(cylinder.efficiency) - float(cylinder.spring)
    if pressing <= 0.0 or pressure <= 0.0:
        raise Impossible("the bore", f"a push of {effort:g} N does not press the cylinder")
    return float(cylinders.bore_for_area(pressing / pressure))


def _bore_by_search(solved: Solved, system: System, wheels: dict[Axle, int], load: int, decel: float, effort: float) -> float:
    first = system.cylinder.chambers[0]

    def missing(scale: float) -> float:
        chambers = tuple(replace(c, bore=c.bore * scale) for c in system.cylinder.chambers)
        changed = replace(system, cylinder=replace(system.cylinder, chambers=chambers))
        again = solve_path(solved.name, [(changed, solved.pulls[0].ratio)], solved.road.load, wheels)
        place, known = again.reach(decel)
        push, ok = (np.broadcast_to(v, known.shape).reshape(-1) for v in (again.push_at(place), known))
        at = min(load, push.size - 1)
        return float(push[at]) - effort if ok[at] else float("nan")

    scales = np.geomspace(0.2, 5.0, _BORES)
    gaps = np.array([missing(float(s)) for s in scales])
    crossed = np.flatnonzero((gaps[:-1] <= 0.0) & (gaps[1:] >= 0.0))
    if crossed.size == 0:
        raise Impossible("the bore", f"no bore from a fifth to five times today's gives {decel:g} g at {effort:g} N")
    low, high = (float(s) for s in scales[crossed[0] : crossed[0] + 2])
    return float(first.bore) * _root(missing, low, high, 1e-13)


def ratio_for_effort(solved: Solved, load: int, decel: float, effort: float) -> tuple[float, float]:
    """Pedal ratio [1], and the pivot to pin [m] it needs, with which `effort` [N] gives `decel` [g].

    On a `solved` [record] path in a `load` state [1]. Raises Impossible. Source: the chain, lever law.
    """
    pull = _only(solved)
    control = pull.system.control
    if control.linkage is not None:
        raise Impossible("one pedal ratio", "with a linkage the ratio follows the stroke; move the pin and look again")
    rod = figure_at(pull.pedal.line.rod, _at(solved, load, decel), load)
    ratio = float(pedal_force_for_rod(rod, 1.0, control.efficiency, control.return_force)) / (effort * pull.ratio)
    return ratio, float(pin_for_ratio(control.pivot_to_pad, ratio))


def _forces_for_share(solved: Solved, load: int, decel: float, front_share: float) -> tuple[float, float]:
    """Tyre forces [N] of front and rear that give a deceleration at a share."""
    state = solved.road.load
    weight, spin = (np.asarray(v).reshape(-1) for v in (state.weight, 1.0 + np.asarray(state.rotating)))
    whole = decel * float(weight[min(load, weight.size - 1)]) * float(spin[min(load, spin.size - 1)])
    return front_share * whole, (1.0 - front_share) * whole


def _inlet_for(axle_force: Floats, load: int, wanted: float, what: str) -> Place:
    force = axle_force.reshape(-1, axle_force.shape[-1])
    place, known = first_reach(force[min(load, force.shape[0] - 1)], wanted)
    if not known.all():
        raise Impossible(what, f"those brakes never give {wanted:.0f} N")
    return place


def rear_scale_for_share(solved: Solved, load: int, decel: float, front_share: float) -> float:
    """What the rear brake force must be multiplied with [1] for a `front_share` [1] at `decel` [g].

    On a `solved` [record] path in a `load` state [1]: piston area and effective radius are both proportional to it. Raises
    Impossible. Source: the chain: the front's force fixes the pressure, the pressure the rear's force.
    """
    pull = _only(solved)
    line = pull.pedal.line
    front, rear = _forces_for_share(solved, load, decel, front_share)
    place = _inlet_for(line.axle_force("front"), load, front, "the front's share")
    own = figure_at(line.axle_force("rear"), place, load)
    if own <= 0.0:
        raise Impossible("the rear's share", "the rear brakes give nothing at that pressure")
    return rear / own


def rotor_for_scale(brake: Disc, rotor: float, pad_height: float, inset: float, scale: float, rule: str) -> float:
    """Rotor diameter [m] with an effective radius `scale` [1] times that of `brake` [record].

    `rotor` [m] today's; `pad_height` [m]; `inset` [m]; `rule` [name]. Source: disc.
    """
    wanted = float(brake.effective_radius) * scale
    if rule == "uniform_wear":
        return 2.0 * (wanted + pad_height / 2.0 + inset)

    def missing(diameter: float) -> float:
        outer = diameter / 2.0 - inset
        inner = outer - pad_height
        return 2.0 / 3.0 * (outer**2 + outer * inner + inner**2) / (outer + inner) - wanted

    least = 2.0 * (pad_height + inset)
    if missing(least) > 0.0:
        raise Impossible("the rotor", f"the pad's height leaves no rotor with a radius of {wanted * 1e3:.1f} mm")
    return _root(missing, least, 10.0 * rotor, 1e-14)


def bar_for_share(solved: Solved, load: int, decel: float, front_share: float) -> float:
    """Share [1] of the force that a balance bar must give the front for a `front_share` [1] of the braking at `decel` [g].

    On a `solved` [record] path in a `load` state [1]. Raises Impossible. Source: statics of the bar.
    """
    pull = _only(solved)
    cylinder, line = pull.system.cylinder, pull.pedal.line
    if cylinder.kind != "twin":
        raise Impossible("the balance bar", "this setup has no bar: its cylinder is not a twin")
    asked = dict(zip(("front", "rear"), _forces_for_share(solved, load, decel, front_share), strict=True))
    pushes = []
    for chamber in cylinder.chambers:
        branch = next(i for i, b in enumerate(line.branches) if b.circuit == chamber.name)
        axle = line.branches[branch].station.axle
        place = _inlet_for(line.axle_force(axle), load, asked[axle], f"the {axle}'s share")
        pressure = figure_at(line.inlet[branch], place, load)
        pushes.append(float(cylinders.force_for_pressure(pressure, chamber.area, cylinder.efficiency, cylinder.spring)))
    return pushes[0] / sum(pushes)


def _margins(setup: SolvedSetup, system: System, slope: float, knees: Floats, margin: float) -> Floats:
    """Least over load states of rear lock z − (1 + margin)·front lock z, for each knee (N,)."""
    road = attempt(setup, with_knee(system, knees[:, None, None, None], slope)).solved.road
    shape = (knees.size, *road.decel.shape[-3:-2])
    rear, front = (np.broadcast_to(road.locks[a][..., 0], shape) for a in ("rear", "front"))
    some_r, some_f = np.isfinite(rear), np.isfinite(front)
    gap = np.where(some_r, rear, 0.0) - (1.0 + margin) * np.where(some_f, front, 0.0)
    return np.asarray(np.where(some_r, np.where(some_f, gap, -np.inf), np.inf).min(axis=-1))


def knee_for_lock_order(setup: SolvedSetup, system: System, margin: float) -> tuple[float | None, str | None]:
    """Greatest knee [Pa] at which every load state of `setup` [record] has rear lock z ≥ (1 + `margin` [1])·front lock z.

    With the valve of the rear lines of `system` [record], its slope kept, else the usual slope. None with a reason:
    `not_needed` where no valve is, `none_low_enough` where even a knee at 0 is too high. A lock that never happens counts as
    infinite. Source: narrowed on exact locks until the digits end.
    """
    old = [d for s in system.stations if s.axle == "rear" for d in s.devices if isinstance(d, Proportioning)]
    slope = float(np.max(old[0].slope)) if old else assumed("valve.slope")
    ends = _margins(setup, system, slope, np.array([0.0, 1e12]), margin)
    if ends[1] >= 0.0:
        return None, "not_needed"
    if ends[0] < 0.0:
        return None, "none_low_enough"
    low, high = 0.0, _HIGHEST
    for _ in range(_ROUNDS):
        knees = np.linspace(low, high, _GRID + 1)
        fine = _margins(setup, system, slope, knees, margin) >= 0.0
        last = int(np.flatnonzero(fine)[-1])
        if last == _GRID:
            break
        low, high = float(knees[last]), float(knees[last + 1])
    return low, None

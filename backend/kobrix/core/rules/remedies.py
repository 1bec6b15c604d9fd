"""What would mend a finding, tried on the whole chain before it is offered: every figure shown is solved, none canned.

A mend that touches the balance is judged at every grip from 0.15 up and in every load state: a valve that only works
on a dry road is not offered as the cure.
"""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from kobrix.core.constants import SAME_SIZE, STANDARD_BORES
from kobrix.core.numerics.arrays import lookup
from kobrix.core.physics.chain import System, place_of
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.paths import Solved
from kobrix.core.physics.sharing import LOW_GRIP, distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.variants import attempt, braided, with_bore, with_knee, with_rear_area
from kobrix.core.rules import limits
from kobrix.core.rules.limits import Bench, Judgement, Level, Mend

_KNEES, _AREAS = 48, 45  # how finely knees and rear areas are tried


def _better(new: Level, old: Level) -> bool:
    return limits.LEVELS.index(new) > limits.LEVELS.index(old)


def _effort(bench: Bench, system: System, push: float) -> Level:
    return limits.effort_level(system.control.kind, push, bench.facts.force_limits.get(system.name)) or "note"


def shares_brakes(setup: SolvedSetup, system: System) -> bool:
    """Whether another control pressed with a `system` [record] of `setup` [record] presses one of its brakes [yes or no]."""
    own = {station.name for station in system.stations}
    others = (p.system for p in setup.main.healthy.pulls if p.system.name != system.name)
    return any(station.name in own for other in others for station in other.stations)


def other_bores(setup: SolvedSetup, system: System) -> Iterator[tuple[str, float, float, float]]:
    """Every other standard bore in a `system` [record] of `setup` [record]: name, bore [m], push [N], pad travel [m], nearest
    first.

    All are solved at once, but one by one as they are asked for where another control presses the same brakes. None for
    twin cylinders of two sizes: one bore for both would share the braking anew.
    """
    bore = float(system.cylinder.chambers[0].bore)
    if any(abs(float(c.bore) - bore) > SAME_SIZE for c in system.cylinder.chambers):
        return
    others = [(name, size) for name, size in STANDARD_BORES if abs(size - bore) > SAME_SIZE]
    others.sort(key=lambda item: abs(item[1] - bore))
    for group in [[o] for o in others] if shares_brakes(setup, system) else [others]:
        sizes = np.array([size for _, size in group])
        trial = attempt(setup, with_bore(system, sizes[:, None, None, None] if len(group) > 1 else sizes[0]))
        pushes = np.broadcast_to(trial.push, sizes.shape)
        pads = np.broadcast_to(trial.pad if trial.pad is not None else np.inf, sizes.shape)
        for (name, size), push, pad in zip(group, pushes, pads, strict=True):
            yield name, size, float(push), float(pad)


def for_effort(bench: Bench, found: Judgement, system: System) -> Judgement:
    """The `found` [Judgement] on effort in a `system` [record] of `bench` [record] with the nearest standard bore that mends
    it, if one does."""
    room = system.control.available
    if room is None or any(s.lines is None for s in system.stations):
        return found
    for name, size, push, pad in other_bores(bench.solved, system):
        share = pad / float(room)
        if _better(_effort(bench, system, push), found.level) and limits.travel_level(share) in ("good", "note"):
            reason = f"A bore of {name} would make it {push:.0f} N with {pad * 1e3:.0f} mm of travel, {share * 100:.0f} %."
            return replace(found, reason=reason, mend=Mend("bore", f"Try {name}", name, {"bore": size}))
    return found


def for_travel(bench: Bench, found: Judgement, system: System) -> Judgement:
    """The `found` [Judgement] on travel in a `system` [record] of `bench` [record] with braided hoses, or another bore, where
    that mends it."""
    setup, room = bench.solved, system.control.available
    if room is None:
        return found
    trial = None if shares_brakes(setup, system) else attempt(setup, braided(system))
    if trial is not None and trial.pad is not None:
        share = float(trial.pad) / float(room)
        if _better(limits.travel_level(share), found.level):
            reason = f"Braided hoses would make it {float(trial.pad) * 1e3:.0f} mm, {share * 100:.0f} %."
            return replace(found, reason=reason, mend=Mend("braided", "Try braided", "braided hoses"))
    for name, size, push, pad in other_bores(setup, system):
        share = pad / float(room)
        if _better(limits.travel_level(share), found.level) and _effort(bench, system, push) in ("good", "note"):
            reason = f"A bore of {name} would make it {pad * 1e3:.0f} mm, {share * 100:.0f} %, at {push:.0f} N."
            return replace(found, reason=reason, mend=Mend("bore", f"Try {name}", name, {"bore": size}))
    return found


SAME_PUSH = 0.03  # of the push: closer than this a foot feels no difference, our estimate


def without_drilling(bench: Bench, found: Judgement, system: System) -> Judgement:
    """The `found` [Judgement] on a moved pin of `system` [record] of `bench` [record] with the bore that gives the same pedal
    with the pin where it was found, if one that is sold does."""
    setup = bench.solved
    before = next((s for s in (bench.found.systems if bench.found else ()) if s.name == system.name), None)
    room = system.control.available
    if before is None or room is None or system.cylinder.kind == "twin":
        return found
    own = attempt(setup, system)
    kept = replace(system, control=replace(system.control, pivot_to_pin=before.control.pivot_to_pin))
    for name, size, push, pad in other_bores(setup, kept):
        share = pad / float(room)
        if abs(push / float(own.push) - 1.0) <= SAME_PUSH and limits.travel_level(share) != "danger":
            reason = f"The same pedal without drilling: a bore of {name} with the pin where it was, {push:.0f} N and {pad * 1e3:.0f} mm."
            figures = {"bore": size, "pin": float(before.control.pivot_to_pin)}
            return replace(
                found,
                reason=f"{found.reason} {reason}",
                mend=Mend("bore_and_pin", f"Try {name}, pin kept", f"{name}, pin kept", figures),
            )
    return found


def _stays_in_line(setup: SolvedSetup, solved: Solved) -> np.ndarray[tuple[int, ...], np.dtype[np.bool_]]:
    """Whether no grip from 0.15 up, in any load state, locks the rear first, and both sharing clauses hold (N,)."""
    some, _, _ = rear_first_grips(solved.road, setup.wheels)
    above, kept = distribution_kept(solved.road)
    return np.asarray(np.all(~some & above & kept, axis=(-1, -2)))


def for_lock_order(bench: Bench, found: Judgement, system: System) -> Judgement:
    """The `found` [Judgement] on lock order of `bench` [record] with a valve in the rear lines of `system` [record] that
    cures it at every grip, or smaller rear pistons where no valve can."""
    setup, path = bench.solved, bench.solved.main
    event = path.healthy.event
    number = np.where(np.isfinite(event.place), event.place, 0.0)[..., None]
    pull = next(p for p in path.healthy.pulls if p.system.name == system.name)
    at = pull.place(place_of(number, path.healthy.road.decel.shape[-1] - 1))
    inlet = float(np.max(lookup(pull.pedal.line.inlet, at.knot, at.fraction)))
    slopes = np.array(limits.SLOPES)
    lowest = attempt(setup, with_knee(system, limits.LEAST_KNEE, slopes[:, None, None, None]))
    for slope in slopes[_stays_in_line(setup, lowest.solved)][:1]:
        knees = np.linspace(limits.LEAST_KNEE, max(inlet, 2.0 * limits.LEAST_KNEE), _KNEES)
        trial = attempt(setup, with_knee(system, knees[:, None, None, None], float(slope)))
        knee = float(knees[np.flatnonzero(_stays_in_line(setup, trial.solved))[-1]])
        psi = f"{knee / limits.PSI:.0f} psi"
        reason = f"A valve with its knee at {knee / 1e6:.2f} MPa ({psi}), slope {slope:g}, keeps the front first at every grip."
        return replace(
            found,
            reason=reason,
            mend=Mend("valve", f"Put in a valve: {psi}", f"a valve: {psi}", {"knee": knee, "slope": float(slope)}),
        )
    scales = np.linspace(1.0, 0.1, _AREAS + 1)[1:]
    trial = attempt(setup, with_rear_area(system, scales[:, None, None, None]))
    fine = _stays_in_line(setup, trial.solved)
    if not np.any(fine):
        return replace(found, reason="No valve and no smaller rear piston alone can cure it: the rear brake is far too strong.")
    scale = float(scales[np.flatnonzero(fine)[0]])
    rear = next(s for s in system.stations if s.axle == "rear")
    area = float(rear.brake.side_area if isinstance(rear.brake, Disc) else rear.brake.cylinder_area)
    side = "a side" if isinstance(rear.brake, Disc) else "in the wheel cylinder"
    reason = (
        f"No valve keeps the front first at every grip from {LOW_GRIP}: the rear pistons are too big. "
        f"At most {area * scale * 1e4:.1f} cm² {side}, now {area * 1e4:.1f}."
    )
    return replace(
        found, reason=reason, mend=Mend("rear_area", "Try smaller rear pistons", "smaller rear pistons", {"area": area * scale})
    )


_WAYS = {"effort": for_effort, "travel": for_travel, "lock_order": for_lock_order, "pin_move": without_drilling}


def _sharing(setup: SolvedSetup) -> System | None:
    """The control that shares its pressure between both axles, where no other one brakes the rear."""
    systems = [pull.system for pull in setup.main.healthy.pulls]
    rear = [s for s in systems if any(station.axle == "rear" for station in s.stations)]
    if len(rear) != 1:
        return None
    return rear[0] if len(systems) == 1 or any(s.axle == "front" for s in rear[0].stations) else None


def offer(bench: Bench, found: list[Judgement]) -> list[Judgement]:
    """`found` [list of Judgement] on `bench` [record], each with the mend that was tried and works, where there is one.

    A mend changes one control; what hangs on how hard each of several is pressed has none.
    """
    systems = {pull.system.name: pull.system for pull in bench.solved.main.healthy.pulls}
    offered = []
    for judgement in found:
        rule = judgement.rule
        system = _sharing(bench.solved) if rule == "lock_order" else systems.get(judgement.system or "")
        way = _WAYS.get(rule)
        bad = judgement.level in ("caution", "danger") or (rule in ("effort", "pin_move") and judgement.level == "note")
        if way is not None and bad and system is not None:
            judgement = replace(way(bench, judgement, system), system=system.name)
        offered.append(judgement)
    return offered

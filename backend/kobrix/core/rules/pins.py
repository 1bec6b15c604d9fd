"""Where the pushrod's pin may sit on the pedal: far enough out for the room, near enough in for the foot."""

import numpy as np

from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import lookup
from kobrix.core.physics.chain import System, whole_stroke
from kobrix.core.physics.control import pedal_force_for_rod, pin_for_ratio
from kobrix.core.physics.pedal import pin_window
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.foot import effort, travel
from kobrix.core.rules.limits import PIN_MOVED, PIN_SLACK, Bench, Judgement, effort_band


def pin_places(
    setup: SolvedSetup, system: System, limit: float | None = None, vehicle: str = "car"
) -> tuple[float, float] | None:
    """Least and greatest distance [m] from the pivot of the pin of a `system` [record] of `setup` [record].

    The least lets the whole stroke fit the room, the greatest keeps the effort at the design stop within the good band;
    `limit` [N] stated for a control without a published one; `vehicle` [name]. None where something is not known. Source: model, pin window.
    """
    control, stroke, band = system.control, whole_stroke(system), effort_band(system.control.kind, limit, vehicle)
    path = setup.main
    pull = next((p for p in path.healthy.pulls if p.system.name == system.name), None)
    if control.linkage is not None or stroke is None or control.available is None or pull is None:
        return None
    if not np.all(path.design_known):
        return None
    place = pull.place(path.design)
    rod = float(np.max(lookup(pull.pedal.line.rod, place.knot, place.fraction)))
    ratio = float(pedal_force_for_rod(rod, 1.0, control.efficiency, control.return_force)) / band.good
    if ratio <= 0.0:
        return None  # this control does nothing at the design stop
    lost = 0.0 if system.booster is None else system.booster.lost_travel
    least = float(pin_window(control.pivot_to_pad, stroke, lost, control.available, control.free_play))
    return least, float(pin_for_ratio(control.pivot_to_pad, ratio))


def pin_room(bench: Bench) -> list[Judgement]:
    """Where the pins of `bench` [record] may sit, of the controls whose pin was moved or whose push or travel is not good."""
    out = []
    asking = {j.system for j in (*effort(bench), *travel(bench)) if j.level != "good" and j.kind != "good"}
    before = {s.name: s for s in (bench.found.systems if bench.found is not None else ())}
    for system in bench.solved.systems:
        moved = (
            system.name in before
            and abs(float(before[system.name].control.pivot_to_pin) - float(system.control.pivot_to_pin)) >= PIN_MOVED
        )
        window = pin_places(bench.solved, system, bench.facts.force_limits.get(system.name), bench.facts.kind)
        if window is None or not (moved or system.name in asking):
            continue
        least, greatest = window
        pin = float(system.control.pivot_to_pin)
        ends = f"{least * 1e3:.0f} mm for the whole stroke to fit the room, {greatest * 1e3:.0f} mm for a good effort"
        level: Level = "note"
        if least > greatest + PIN_SLACK:
            kind = "empty"
            text = (
                "No place for the pin suits both the room and the push{of}.",
                f"At least {ends} at most: another bore changes both.",
            )
        elif least - PIN_SLACK <= pin <= greatest + PIN_SLACK:
            level, kind = "good", "inside"
            text = f"The pin at {pin * 1e3:.0f} mm lies in its window{{of}}.", f"From {ends}."
        else:
            kind = "outside"
            text = (
                f"The pin may sit {least * 1e3:.0f} to {greatest * 1e3:.0f} mm from the pivot{{of}}; it is at {pin * 1e3:.0f} mm.",
                f"From {ends}.",
            )
        out.append(Judgement(f"pin_window{bench.tag(system.name)}", level, *text, "model: room and effort", pin, greatest, "m", system.name,
                             "pin_window", kind, links=("pedal",)))  # fmt: skip
    return out

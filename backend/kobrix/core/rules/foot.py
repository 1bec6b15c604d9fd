"""Rules about the foot: the push, the travel, the booster's end, and when the brake lamps light."""

import numpy as np

from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics import booster as boosting
from kobrix.core.physics import valves
from kobrix.core.physics.chain import first_reach, place_of
from kobrix.core.physics.paths import Pull
from kobrix.core.rules.braking import tail_wheel
from kobrix.core.rules.limits import (
    CHANCE_CAUTION,
    CHANCE_NOTE,
    SWITCH_FORCE,
    TRAVEL,
    Bench,
    Judgement,
    effort_band,
    percent,
    travel_level,
    worse_of,
)

NO_HELP = 0.5  # N of push: a booster that is spent sooner never helps


def _doubted(level: Level, chance: float | None) -> Level:
    """A nominal `level` with the `chance` of breaking its danger limit."""
    if chance is None or chance <= CHANCE_NOTE:
        return level
    return worse_of(level, "caution" if chance > CHANCE_CAUTION else "note")


def effort(bench: Bench) -> list[Judgement]:
    """Push at the design stop on each control of `bench` [record], the heaviest over the load states."""
    return [_effort(bench, pull) for pull in bench.solved.main.healthy.pulls]


def _effort(bench: Bench, pull: Pull) -> Judgement:
    path, control, name = bench.solved.main, pull.system.control, pull.system.name
    id_ = f"effort{bench.tag(name)}"
    band = effort_band(control.kind, bench.facts.force_limits.get(name), bench.facts.kind)
    chance = bench.chance(id_)
    links = ("foot", "pedal", "booster", "cylinder")
    if not np.any(path.design_known) and tail_wheel(bench):
        text = (
            "The brakes are held below what the tyres bear{of}.",
            "So the tail stays down; prove by test that they stop and hold it.",
        )
        return Judgement(id_, "note", *text, "the chain", None, None, "N", name, "effort", "held", links=links, tried=bench.tried)
    if not np.any(path.design_known):
        text = "The brakes never give a hard stop.", "No push reaches 0.9 of the grip."
        return Judgement(
            id_, "danger", *text, band.source, None, band.danger, "N", name, "effort", "no_stop", links=links, tried=bench.tried
        )
    pushes = np.broadcast_to(path.healthy.push_at(path.design)[:, 0, 0], path.design_known.shape) * pull.ratio
    worst = int(np.argmax(np.where(path.design_known, pushes, -np.inf)))
    force = float(pushes[worst])
    level = _doubted(band.level(force), chance)
    good = f"{band.low:.0f} to {band.good:.0f} N"
    head = f"Effort {force:.0f} N for {path.design_decel[worst]:.2f} g{{of}}{bench.in_state(worst)}"
    odds = (
        ""
        if chance is None or chance <= CHANCE_NOTE
        else f" Over {band.danger:.0f} N in {percent(chance)} of plausible vehicles."
    )
    kind, limit = "good", band.good
    if band.level(force) == "good":
        sentence, reason = f"{head}, inside {good}.", f"Comfortable for a hard stop.{odds}"
    elif force < band.low:
        kind, limit = "light", band.low
        sentence, reason = f"{head}: below {band.low:.0f} N.", "So light a control is hard to meter."
    else:
        kind = "heavy"
        limit = {"danger": band.danger, "caution": band.caution}.get(band.level(force), band.good)
        sentence = f"{head}: over {limit:.0f} N."
        reason = f"Good is {good}; a smaller bore, the pin nearer the pivot or larger pistons lighten it.{odds}"
    return Judgement(id_, level, sentence, reason, band.source, force, limit, "N", name, "effort", kind, links=links, chance=chance,
                     chance_limit=band.danger, tried=bench.tried)  # fmt: skip


def travel(bench: Bench) -> list[Judgement]:
    """Share of each control's room used at the design stop, the largest over the load states of `bench` [record]."""
    path, out = bench.solved.main, []
    for pull in path.healthy.pulls:
        room, name = pull.system.control.available, pull.system.name
        if pull.pedal.travel is None or room is None or not np.any(path.design_known):
            continue
        id_ = f"travel{bench.tag(name)}"
        chance = bench.chance(id_)
        pad = np.broadcast_to(pull.pedal.pad_at(pull.place(path.design))[..., 0, 0], path.design_known.shape)
        worst = int(np.argmax(np.where(path.design_known, pad, 0.0)))
        share, available = float(pad[worst]) / float(room), float(room)
        own = travel_level(share)
        level = _doubted(own, chance)
        odds = (
            ""
            if chance is None or chance <= CHANCE_NOTE
            else f" Over {TRAVEL.danger * 100:.0f} % in {percent(chance)} of plausible vehicles."
        )
        head = f"Travel {pad[worst] * 1e3:.0f} of {available * 1e3:.0f} mm, {share * 100:.0f} %{{of}}{bench.in_state(worst)}"
        if own == "good":
            sentence, reason, limit = f"{head}.", f"Room is left for worn pads, heat and air.{odds}", TRAVEL.good
        else:
            limit = {"note": TRAVEL.good, "caution": TRAVEL.caution, "danger": TRAVEL.danger}[own]
            sentence = f"{head}: over {limit * 100:.0f} %."
            reason = f"Worn pads, heat and air take more: little is left to the floor.{odds}"
        out.append(Judgement(id_, level, sentence, reason, TRAVEL.source, share, limit, "1", name, "travel", "good" if own == "good" else "long",
                             links=("pedal", "cylinder", "brakes"), chance=chance, chance_limit=TRAVEL.danger, tried=bench.tried))  # fmt: skip
    return out


def stop_asked(bench: Bench) -> tuple[Floats, Floats]:
    """The stop [g] (L,) at which `bench` [record] is asked about the push, the wanted one or where none is the first lock, and the push [N]
    there; inf where it is never reached. Source: model."""
    path = bench.solved.main
    healthy = path.healthy
    lock, place = healthy.event.decel[:, 0], np.where(np.isfinite(healthy.event.place[:, 0]), healthy.event.place[:, 0], 0.0)
    at = healthy.push_at(place_of(place[:, None, None], healthy.road.decel.shape[-1] - 1))
    push = np.where(np.isfinite(lock), np.broadcast_to(at[:, 0, 0], lock.shape), np.inf)
    if bench.wanted is None:
        return lock, push
    reached, known = healthy.reach(bench.wanted)
    own = np.broadcast_to(healthy.push_at(reached)[:, 0, 0], lock.shape)
    within = np.broadcast_to(known[:, 0, 0], lock.shape) & (bench.wanted <= lock)
    return np.where(within, bench.wanted, lock), np.where(within, own, push)


def runout(bench: Bench) -> list[Judgement]:
    """Boosters of `bench` [record] that are spent before the stop that is wanted: beyond, the leg alone."""
    decel, push = stop_asked(bench)
    out = []
    for pull in bench.solved.main.healthy.pulls:
        help_ = pull.system.booster
        if help_ is None:
            continue
        rod, ever = boosting.runout_force(help_.gain, help_.cut_in, help_.jump_in, help_.limit)
        if not bool(np.all(ever)):
            continue
        place, _ = first_reach(pull.pedal.line.rod, rod)
        spent = float(np.max(np.asarray(pull.pedal.push_at(place))))
        own = push * pull.ratio
        worst = int(np.argmax(np.where(np.isfinite(own), own, -np.inf)))
        if not np.isfinite(own[worst]) or own[worst] <= spent:
            continue
        asks = f"{float(decel[worst]):.2f} g asks {own[worst]:.0f} N{bench.in_state(worst)}."
        if spent < NO_HELP:
            head = f"The booster does not help{{of}}: {asks}"
            reason = "It has no vacuum or pressure to work with: find out why, or give it a source of its own; else the leg works alone."
        else:
            head = f"The booster is spent at {spent:.0f} N{{of}}; {asks}"
            reason = "Beyond it the leg works alone; a larger or second diaphragm, or another kind, helps further."
        out.append(Judgement(f"runout{bench.tag(pull.system.name)}", "caution", head, reason, "the chain", float(own[worst]), spent, "N",
                             pull.system.name, "runout", "none" if spent < NO_HELP else "spent", links=("booster",)))  # fmt: skip
    return out


def brake_switch(bench: Bench) -> list[Judgement]:
    """Brake lamps of `bench` [record] that light late."""
    out: list[Judgement] = []
    for pull in bench.solved.main.healthy.pulls:
        line = pull.pedal.line
        pushes = []
        for n, branch in enumerate(line.branches):
            for order, device in enumerate(branch.station.devices):
                if isinstance(device, valves.Passive) and device.kind == "switch" and device.pressure is not None:
                    where = np.asarray(valves.outlet(branch.station.devices[:order], line.inlet[n]))
                    place, ever = first_reach(where, device.pressure)
                    pushes.append(float(np.max(np.asarray(pull.pedal.push_at(place)))) if bool(np.all(ever)) else float("inf"))
        if not pushes or min(pushes) <= SWITCH_FORCE:
            continue
        push = min(pushes)
        lights = np.isfinite(push)
        head = f"The brake lamps light only at {push:.0f} N{{of}}." if lights else "The brake lamps never light{of}."
        reason = "Whoever follows sees nothing of a lighter push; a switch of lower pressure, or one at the pedal, is earlier."
        out.append(Judgement(f"brake_switch{bench.tag(pull.system.name)}", "note", head, reason, "our estimate", push if lights else None,
                             SWITCH_FORCE, "N", pull.system.name, "brake_switch", links=("valves",)))  # fmt: skip
    return out

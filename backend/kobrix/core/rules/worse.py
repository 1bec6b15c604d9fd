"""An upgrade that is a downgrade: what a plan loses against the vehicle as found, and why."""

import numpy as np

from kobrix.core.figures import Level
from kobrix.core.physics.chain import first_reach
from kobrix.core.physics.paths import Pull
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.rules.limits import TRAVEL, WORSE_CAUTION, WORSE_NOTE, Bench, Judgement, effort_band
from kobrix.core.rules.lost import stops_left

_SOURCE = "against as found, the worst load state"


def _level(loss: float, most: Level = "caution") -> Level | None:
    if loss > WORSE_CAUTION and most == "caution":
        return "caution"
    return "note" if loss > WORSE_NOTE else None


def _without_lock(setup: SolvedSetup) -> float:
    """The hardest stop without a lock [g], the least over load states."""
    lock, limit = setup.main.lock_decel, setup.main.grip_limit
    return float(np.min(np.where(np.isfinite(lock), lock, limit)))


def _share(setup: SolvedSetup) -> float:
    """The front's share of the braking at the design stop, first load state."""
    at = setup.main.healthy.at(setup.main.design)
    front, rear = (float(np.asarray(v).reshape(-1)[0]) for v in (at.front, at.rear))
    return front / (front + rear) if front + rear > 0.0 else 0.0


def _cause(bench: Bench, found: SolvedSetup) -> str:
    """The largest change in words: where the balance went."""
    moved = _share(bench.solved) - _share(found)
    if abs(moved) < 0.01:
        return "The tyres or the weight changed, not the balance."
    return f"The balance went {'forward' if moved > 0.0 else 'rearward'}: {_share(found) * 100:.0f} % front as found, now {_share(bench.solved) * 100:.0f} %."


def downgrade(bench: Bench) -> list[Judgement]:
    """What the setup of `bench` [record] does worse than the vehicle as found: stop, what is left, heat, effort, travel."""
    found = bench.found
    if found is None:
        return []
    out = []
    now, then = _without_lock(bench.solved), _without_lock(found)
    level = _level(1.0 - now / then) if then > 0.0 else None
    if level is not None:
        head = f"The hardest stop before a wheel locks is {now:.2f} g; as found it was {then:.2f}."
        out.append(
            Judgement("worse_stop", level, head, _cause(bench, found), _SOURCE, now, then, "g", kind="stop", links=("tyres",))
        )
    out += _less_left(bench, found)
    for station, own in bench.heats.items():
        before = bench.found_heats.get(station)
        if before is None or (level := _level(own.rise / before.rise - 1.0)) is None:
            continue
        head = f"The {station} rotor gets {own.rise:.0f} K above the air in the row of stops; as found {before.rise:.0f}."
        reason = "It is lighter, cools less, or does more of the braking."
        out.append(
            Judgement(
                f"worse_heat_{station}",
                level,
                head,
                reason,
                _SOURCE,
                own.rise,
                before.rise,
                "K",
                rule="worse_heat",
                links=("rotors",),
            )
        )
    return out + _harder(bench, found)


def _less_left(bench: Bench, found: SolvedSetup) -> list[Judgement]:
    """The least that a lost circuit leaves."""

    def least(setup: SolvedSetup) -> float | None:
        left = setup.main.left
        lost = [c for c, f in enumerate(setup.conditions) if f.kind == "circuit"]
        if left is None or not lost:
            return None
        return min(float(np.min(stops_left(left, c, len(setup.systems) > 1))) for c in lost)

    now, then = least(bench.solved), least(found)
    if now is None or then is None or then <= 0.0 or (level := _level(1.0 - now / then)) is None:
        return []
    head = f"With a circuit lost {now:.2f} g is left at worst; as found it was {then:.2f}."
    return [Judgement("worse_left", level, head, _cause(bench, found), _SOURCE, now, then, "g", kind="left", links=("cylinder",))]


def _harder(bench: Bench, found: SolvedSetup) -> list[Judgement]:
    """Effort and travel at one stop for both, outside the good band and over 5 % worse."""
    stops = [s for s in (bench.wanted, _without_lock(bench.solved), _without_lock(found)) if s is not None]
    stop, out = min(stops), []
    pulls = {p.system.name: p for p in found.main.healthy.pulls}
    for pull in bench.solved.main.healthy.pulls:
        before = pulls.get(pull.system.name)
        if before is None:
            continue
        mine, theirs = _at(bench.solved, pull, stop), _at(found, before, stop)
        if mine is None or theirs is None:
            continue
        band = effort_band(pull.system.control.kind, bench.facts.force_limits.get(pull.system.name), bench.facts.kind)
        if mine[0] > theirs[0] * (1.0 + WORSE_CAUTION) and mine[0] > band.good:
            head = f"{mine[0]:.0f} N for {stop:.2f} g{{of}}; as found {theirs[0]:.0f}."
            out.append(Judgement(f"worse_effort{bench.tag(pull.system.name)}", "note", head, "The pedal got heavier.", _SOURCE, mine[0], theirs[0], "N",
                                 pull.system.name, "worse_effort", links=("foot",)))  # fmt: skip
        if mine[1] is None or theirs[1] is None:
            continue
        if mine[1] > theirs[1] * (1.0 + WORSE_CAUTION) and mine[1] > TRAVEL.good:
            head = f"The pedal takes {mine[1] * 100:.0f} % of its room for {stop:.2f} g{{of}}; as found {theirs[1] * 100:.0f} %."
            out.append(Judgement(f"worse_travel{bench.tag(pull.system.name)}", "note", head, "Bigger pistons or a smaller bore take more stroke.", _SOURCE,
                                 mine[1], theirs[1], "1", pull.system.name, "worse_travel", links=("pedal",)))  # fmt: skip
    return out


def _at(setup: SolvedSetup, pull: Pull, stop: float) -> tuple[float, float | None] | None:
    """Push [N] and share of the room at a stop, the largest over load states."""
    place, known = first_reach(setup.main.healthy.road.decel, stop)
    if not known.all():
        return None
    push = float(np.max(setup.main.healthy.push_at(place))) * pull.ratio
    room = pull.system.control.available
    if pull.pedal.travel is None or room is None:
        return push, None
    return push, float(np.max(pull.pedal.pad_at(pull.place(place)))) / float(room)

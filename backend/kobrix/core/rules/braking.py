"""Rules about the stop: effort, travel, lock order, sharing, what failures leave, and when the tyres are the limit."""

from dataclasses import replace

import numpy as np

from kobrix.core.constants import PUBLISHED, G
from kobrix.core.physics.chain import Station
from kobrix.core.physics.failures import LIMITS, Failing
from kobrix.core.physics.paths import Pull, solve_path
from kobrix.core.physics.sharing import LOW_GRIP, distribution_kept, rear_first_grips
from kobrix.core.physics.valves import Proportioning
from kobrix.core.rules.limits import TRAVEL, Bench, Judgement, Level, Mend, effort_band, travel_level


def effort(bench: Bench) -> list[Judgement]:
    """Push at the design stop on each control of `bench` [record], the heaviest over the load states."""
    pulls = bench.solved.main.healthy.pulls
    return [replace(found, system=pull.system.name) for pull in pulls for found in _effort(bench, pull)]


def _effort(bench: Bench, pull: Pull) -> list[Judgement]:
    path, control, tag = bench.solved.main, pull.system.control, bench.tag(pull.system.name)
    band = effort_band(control.kind, bench.facts.force_limits.get(pull.system.name))
    if band is None:
        return []
    if not np.any(path.design_known):
        text = "The brakes never give a hard stop.", "No push reaches 0.9 of the grip."
        return [Judgement(f"effort{tag}", "danger", *text, band.source, rule="effort")]
    pushes = np.broadcast_to(path.healthy.push_at(path.design)[:, 0, 0], path.design_known.shape) * pull.ratio
    worst = int(np.argmax(np.where(path.design_known, pushes, -np.inf)))
    force = float(pushes[worst])
    level = band.level(force)
    good = f"{band.low:.0f} to {band.good:.0f} N"
    head = f"Effort {force:.0f} N for {path.design_decel[worst]:.2f} g{bench.of(pull.system.name)}{bench.in_state(worst)}"
    if level == "good":
        text = f"{head}, inside {good}.", "Comfortable for a hard stop."
        return [Judgement(f"effort{tag}", level, *text, band.source, force, band.good, rule="effort")]
    if force < band.low:
        text = f"{head}: below {band.low:.0f} N.", "So light a control is hard to meter."
        return [Judgement(f"effort{tag}", level, *text, band.source, force, band.low, rule="effort")]
    limit = band.danger if level == "danger" else band.caution if level == "caution" else band.good
    reason = f"Good is {good}; a smaller bore, the pin nearer the pivot or larger pistons lighten it."
    return [Judgement(f"effort{tag}", level, f"{head}: over {limit:.0f} N.", reason, band.source, force, limit, rule="effort")]


def travel(bench: Bench) -> list[Judgement]:
    """Share of each control's room used at the design stop, the largest over the load states of `bench` [record]."""
    path, out = bench.solved.main, []
    for pull in path.healthy.pulls:
        room, tag = pull.system.control.available, bench.tag(pull.system.name)
        if pull.pedal.travel is None or room is None or not np.any(path.design_known):
            continue
        pad = np.broadcast_to(pull.pedal.pad_at(pull.place(path.design))[..., 0, 0], path.design_known.shape)
        worst = int(np.argmax(np.where(path.design_known, pad, 0.0)))
        share, available = float(pad[worst]) / float(room), float(room)
        level = travel_level(share)
        where = bench.of(pull.system.name) + bench.in_state(worst)
        head = f"Travel {pad[worst] * 1e3:.0f} of {available * 1e3:.0f} mm, {share * 100:.0f} %{where}"
        if level == "good":
            text = f"{head}.", "Room is left for worn pads, heat and air."
            out.append(
                Judgement(f"travel{tag}", level, *text, TRAVEL.source, share, TRAVEL.good, system=pull.system.name, rule="travel")
            )
            continue
        limit = {"note": TRAVEL.good, "caution": TRAVEL.caution, "danger": TRAVEL.danger}[level]
        text = f"{head}: over {limit * 100:.0f} %.", "Worn pads, heat and air take more: little is left to the floor."
        out.append(Judgement(f"travel{tag}", level, *text, TRAVEL.source, share, limit, system=pull.system.name, rule="travel"))
    return out


def lock_order(bench: Bench) -> list[Judgement]:
    """Which end locks first, at every grip from 0.15 up and in every load state of `bench` [record]."""
    setup = bench.solved
    road, event = setup.main.healthy.road, setup.main.healthy.event
    source = "UN R13-H, from memory: the front first, so that the vehicle stays in line"
    grip = float(np.max(np.maximum(setup.load.grip_front, setup.load.grip_rear)))
    vehicle = {"motorcycle": "motorcycle", "aircraft": "aircraft"}.get(bench.facts.kind, "car")
    if not np.any(road.rear > 0.0) or not np.any(road.front > 0.0):
        return _one_axle(bench, source)
    some, low, high = (v[..., 0] for v in rear_first_grips(road, setup.wheels))
    if np.any(some):
        rear = event.rear[:, 0] & ~event.front[:, 0]
        if np.any(rear):
            worst = int(np.argmin(np.where(rear, event.decel[:, 0], np.inf)))
            z = float(event.decel[worst, 0])
            text = (
                f"The rear locks first, {z:.3f} g{bench.in_state(worst)}.",
                f"Below the grip of {grip:.2f}, and that can spin the {vehicle}.",
            )
            return [Judgement("lock_order", "danger", *text, source, z, grip, kind="rear_first")]
        worst = int(np.argmax(np.where(some, high, 0.0)))
        span = f"grip {low[worst]:.2f} to {high[worst]:.2f}{bench.in_state(worst)}"
        text = f"On a slippery road the rear locks first ({span}).", f"That can spin the {vehicle} where it is hardest to catch."
        return [Judgement("lock_order", "danger", *text, source, float(low[worst]), grip, kind="rear_first_slippery")]
    lift = event.lift[:, 0]
    if np.any(lift):
        worst = int(np.argmax(lift))
        z = float(event.decel[worst, 0])
        text = (
            f"The rear lifts at {z:.2f} g before any wheel locks{bench.in_state(worst)}.",
            "Nothing holds the vehicle down behind; a longer or lower vehicle lifts later.",
        )
        level: Level = "caution" if bench.facts.kind == "motorcycle" else "danger"
        return [Judgement("lock_order", level, *text, "moments about the front contact", z, kind="rear_lifts")]
    first = event.front[:, 0]
    if not np.any(first):
        return [Judgement("lock_order", "note", "No wheel locks at any push.", "The brakes are weaker than the tyres.", source)]
    z = float(np.min(np.where(first, event.decel[:, 0], np.inf)))
    reason = f"In every load state and at every grip from {LOW_GRIP} up."
    return [Judgement("lock_order", "good", f"The front locks first, {z:.3f} g.", reason, source, z, grip)]


def _one_axle(bench: Bench, source: str) -> list[Judgement]:
    event = bench.solved.main.healthy.event
    z = float(np.min(event.decel[:, 0]))
    if not np.isfinite(z):
        return [Judgement("lock_order", "note", "No wheel locks at any push.", "The brakes are weaker than the tyres.", source)]
    what = "The rear lifts" if bool(np.any(event.lift)) else "The braked wheels lock"
    return [Judgement("lock_order", "note", f"{what} at {z:.3f} g.", "Only one axle brakes: there is no order.", source, z)]


def distribution(bench: Bench) -> list[Judgement]:
    """The two clauses on sharing for cars, in every load state of `bench` [record]."""
    road = bench.solved.main.healthy.road
    if bench.facts.kind != "car" or not np.any(road.rear > 0.0) or not np.any(road.front > 0.0):
        return []
    above, kept = (v[..., 0] for v in distribution_kept(road))
    source = "UN R13-H, from memory"
    out = []
    if not np.all(above):
        text = "The rear uses more grip than the front between 0.15 and 0.80 g.", "The sharing rule for cars forbids it."
        out.append(Judgement("distribution_rear", "caution", *text, source))
    if not np.all(kept):
        text = (
            f"One axle's grip is used too early{bench.in_state(int(np.argmin(kept)))}.",
            "The rule wants z ≥ 0.1 + 0.7(k − 0.2): the other axle could help more. Rules of thumb such as 70/30 do not see it.",
        )
        out.append(Judgement("distribution_use", "caution", *text, source))
    return out


def _what_fails(failing: Failing) -> str:
    """A failure in words."""
    what = (failing.what or "").replace("_", " ")
    words = {
        "hot": "Hot pads", "wet": "Wet pads, on the stated grip", "booster": "booster lost",
        "circuit": "the only circuit lost" if failing.what == "circuit" else f"{what} circuit lost",
        "valves_shut": f"{what} valves shut", "valves_open": f"{what} valves open",
    }.get(failing.kind, failing.name.replace("_", " "))  # fmt: skip
    words = f"{failing.system.replace('_', ' ')}: {words}" if failing.is_loss and failing.system else words
    return words[0].upper() + words[1:]


def failures(bench: Bench) -> list[Judgement]:
    """What each lost circuit or booster leaves, the worst over the load states of `bench` [record]."""
    left = bench.solved.main.left
    if left is None:
        return []
    need = PUBLISHED["secondary_decel"].value / G
    source = "UN R13-H secondary braking, from memory"
    out = []
    for c, failing in enumerate(bench.solved.conditions):
        gone = [LIMITS[i] in ("contact", "all_lost") for i in left.limited[:, c]]
        stops = np.where(gone, 0.0, left.best[:, c]) if len(bench.solved.systems) == 1 else left.best[:, c]
        worst = int(np.argmin(stops))
        limit, z, force = LIMITS[left.limited[worst, c]], float(stops[worst]), float(left.push[worst, c])
        ends = {
            "travel": f"the floor at {force:.0f} N, {z:.2f} g",
            "chamber": f"a chamber spent at {force:.0f} N, {z:.2f} g",
            "contact": "the floor before a brake is touched",
            "all_lost": "no brakes left",
            "force": f"{z:.2f} g at {force:.0f} N",
        }[limit]
        level: Level = "danger" if z < need else "caution" if limit in ("travel", "chamber") else "good"
        if failing.kind == "healthy" or (level == "good" and not failing.is_loss):
            continue  # heat, water and stuck valves are told where they leave too little
        head, asked = f"{_what_fails(failing)}: {ends}{bench.in_state(worst)}.", f"The least asked is {need:.2f} g."
        if bench.facts.kind != "car":
            out.append(
                Judgement(
                    failing.name,
                    "note",
                    head,
                    f"{asked} That is a rule for cars.",
                    source,
                    z,
                    need,
                    rule="failure",
                    kind=failing.kind,
                )
            )
        else:
            mend = None if level == "good" else Mend("show", "Show it", "")
            out.append(Judgement(failing.name, level, head, asked, source, z, need, mend, rule="failure", kind=failing.kind))
    return out


def valve_not_needed(bench: Bench) -> list[Judgement]:
    """A rear valve of `bench` [record] without which the front would lock first all the same."""
    setup = bench.solved
    pulls = setup.main.healthy.pulls
    valved = [
        s for p in pulls for s in p.system.stations if s.axle == "rear" and any(isinstance(d, Proportioning) for d in s.devices)
    ]
    if not valved:
        return []

    def bare(station: Station) -> Station:
        return replace(station, devices=tuple(d for d in station.devices if not isinstance(d, Proportioning)))

    systems = [(replace(p.system, stations=tuple(map(bare, p.system.stations))), p.ratio) for p in pulls]
    road = solve_path("without", systems, setup.load, setup.wheels, whole=True).road
    some, _, _ = rear_first_grips(road, setup.wheels)
    above, kept = distribution_kept(road)
    if np.any(some) or not np.all(above & kept):
        return []
    text = (
        "The rear valve is not needed.",
        "Without it the front still locks first at every grip and in every load state, and the rear would help more.",
    )
    return [Judgement("valve_not_needed", "note", *text, "the whole chain, without the valve")]


def tyres_limit(bench: Bench) -> list[Judgement]:
    """Brakes of `bench` [record] that already use nearly all of the grip: bigger ones do not stop shorter."""
    lock, limit = bench.solved.main.lock_decel, bench.solved.main.grip_limit
    share = float(np.min(np.where(np.isfinite(lock), lock / limit, 0.0)))
    if share < 0.95:
        return []
    text = (
        f"{share * 100:.0f} % of the grip is used at first lock.",
        "Tyres are the limit: bigger brakes change feel and heat, not distance.",
    )
    return [Judgement("tyres_limit", "good", *text, "model", share, 0.95)]

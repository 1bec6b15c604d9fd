"""Rules about the road: which end locks first, nose-over, sharing, and when the tyres are the limit."""

import numpy as np

from kobrix.core.figures import Level
from kobrix.core.numerics.arrays import Floats
from kobrix.core.physics.chain import first_reach, place_of
from kobrix.core.physics.paths import Pull
from kobrix.core.physics.sharing import LOW_GRIP, distribution_kept, rear_first_grips
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.core.physics.vehicle import AXLES, axle_load, one_state, rear_lift_decel, road_share
from kobrix.core.rules.limits import Bench, Judgement, by_chance, percent, worse_of

_SOURCE = "UN R13-H, from memory: the front first, so that the vehicle stays in line"
_WEAK = "No wheel locks at any push.", "The brakes are weaker than the tyres."


def both_axles(setup: SolvedSetup) -> bool:
    """Whether front and rear of a `setup` [record] brake when all its controls are pressed. Source: the chain."""
    road = setup.main.healthy.road
    return bool(np.any(road.rear > 0.0) and np.any(road.front > 0.0))


def tail_wheel(bench: Bench) -> bool:
    """Whether the vehicle of `bench` [record] is an aircraft braked in front of its centre of gravity only. Source: common practice."""
    road = bench.solved.main.healthy.road
    return bench.facts.kind == "aircraft" and bool(np.any(road.front > 0.0)) and not np.any(road.rear > 0.0)


def _of_ends(bench: Bench) -> tuple[str, str]:
    """What the front and the rear wheels are called."""
    return ("nose", "mains") if bench.facts.kind == "aircraft" else ("front", "rear")


def lock_order(bench: Bench) -> list[Judgement]:
    """Which end locks first, at every grip from 0.15 up and in every load state of `bench` [record], all controls together."""
    if not both_axles(bench.solved):
        return _one_axle(bench)
    if bench.facts.kind == "motorcycle" and not bench.facts.ratio_stated:
        shares = hand_and_foot(bench.solved)
        if shares is not None:
            return [_motorcycle(bench, *shares), *_lifts_first(bench)]
    found = _ordered(bench)
    return [found] if found.kind == "rear_lifts" else [found, *_lifts_first(bench)]


def _ordered(bench: Bench) -> Judgement:
    setup = bench.solved
    road, event = setup.main.healthy.road, setup.main.healthy.event
    front_word, rear_word = _of_ends(bench)
    grip = float(np.max(np.maximum(setup.load.grip_front, setup.load.grip_rear)))
    some, low, high = (v[..., 0] for v in rear_first_grips(road, setup.wheels))
    chance = bench.chance("lock_order")
    most: Level = "caution" if bench.facts.kind == "motorcycle" else "danger"
    links = ("valves", "brakes", "tyres")
    rear, lift = event.rear[:, 0] & ~event.front[:, 0], event.lift[:, 0]
    odds = "" if chance is None else f"In {percent(chance)} of plausible vehicles the {rear_word} is first. "
    if np.any(some):
        level: Level = most if chance is None else worse_of(by_chance(chance, most), "caution")
        if np.any(rear):
            worst = int(np.argmin(np.where(rear, event.decel[:, 0], np.inf)))
            z, kind = float(event.decel[worst, 0]), "rear_first"
            head = f"The {rear_word} locks first, {z:.3f} g{bench.in_state(worst)}."
        else:
            worst = int(np.argmax(np.where(some, high, 0.0)))
            z, kind = float(low[worst]), "rear_first_slippery"
            head = f"On a slippery road the {rear_word} locks first (grip {low[worst]:.2f} to {high[worst]:.2f}{bench.in_state(worst)})."
        reason = f"{odds}A {rear_word} that slides can spin the {bench.facts.kind}."
        return Judgement(
            "lock_order", level, head, reason, _SOURCE, z, grip, "g", kind=kind, links=links, chance=chance, tried=bench.tried
        )
    if np.any(lift):
        return _lifted(bench, chance)
    if not np.any(event.front[:, 0]):
        return Judgement("lock_order", "note", *_WEAK, _SOURCE, kind="no_lock", chance=chance, tried=bench.tried)
    z = float(np.min(np.where(event.front[:, 0], event.decel[:, 0], np.inf)))
    level = "note" if chance is None else by_chance(chance, most)
    head = f"The {front_word} locks first, {z:.3f} g."
    if level != "good" and chance is not None:
        head = f"The {front_word} locks first on paper, {z:.3f} g; the {rear_word} in {percent(chance)} of plausible vehicles."
    reason = (
        f"In every load state and at every grip from {LOW_GRIP} up."
        if level == "good"
        else "What nobody has measured decides it."
    )
    reason = f"{reason} {odds}".strip() if level == "good" else reason
    return Judgement(
        "lock_order",
        level,
        head,
        reason,
        _SOURCE,
        z,
        grip,
        "g",
        kind="front_first",
        links=links,
        chance=chance,
        tried=bench.tried,
    )


def _lifted(bench: Bench, chance: float | None) -> Judgement:
    """The rear lifts before any wheel locks."""
    setup = bench.solved
    event = setup.main.healthy.event
    worst = int(np.argmin(np.where(event.lift[:, 0], event.decel[:, 0], np.inf)))
    z, push = float(event.decel[worst, 0]), _push_at_event(setup, worst)
    head = f"The rear lifts at {z:.2f} g and {push:.0f} N, before any wheel locks{bench.in_state(worst)}."
    level: Level = "danger" if bench.facts.kind in ("car", "truck") else "caution"
    reason = "Nothing holds the vehicle down behind; a longer or lower one lifts later."
    return Judgement("lock_order", level, head, reason, "moments about the front contact", z, None, "g", kind="rear_lifts",
                     links=("tyres",), chance=chance, tried=bench.tried)  # fmt: skip


def _push_at_event(setup: SolvedSetup, load: int) -> float:
    event = setup.main.healthy.event
    number = np.where(np.isfinite(event.place), event.place, 0.0)[..., None]
    place = place_of(number, setup.main.healthy.road.decel.shape[-1] - 1)
    pushes = np.broadcast_to(setup.main.healthy.push_at(place)[:, 0, 0], event.decel[:, 0].shape)
    return float(pushes[load])


def _lifts_first(bench: Bench) -> list[Judgement]:
    """A motorcycle whose rear lifts before a wheel locks, told beside its lock order."""
    lift = bench.solved.main.healthy.event.lift[:, 0]
    if bench.facts.kind != "motorcycle" or not np.any(lift):
        return []
    found = _lifted(bench, None)
    return [Judgement("rear_lift", found.level, found.sentence, found.reason, found.source, found.value, None, "g", kind="rear_lifts",
                      links=found.links)]  # fmt: skip


def hand_and_foot(setup: SolvedSetup) -> tuple[Pull, Pull] | None:
    """The control that brakes the front alone and the one that brakes the rear alone, of a motorcycle `setup` [record].

    None where there are no such two. Source: the chain.
    """
    pulls = setup.main.healthy.pulls
    ends = [{s.axle for s in p.system.stations} for p in pulls]
    front = [p for p, own in zip(pulls, ends, strict=True) if own == {"front"}]
    rear = [p for p, own in zip(pulls, ends, strict=True) if own == {"rear"}]
    return (front[0], rear[0]) if len(front) == 1 and len(rear) == 1 and len(pulls) == 2 else None


def slide_ratio(setup: SolvedSetup, hand: Pull, foot: Pull) -> tuple[float, int] | None:
    """The foot's push over the hand's [1] at which both wheels of `setup` [record] slide at once, least over load states, and that state.

    `hand` [record], `foot` [record]: the pushes that give µ·W at the grip limit. None where rear lift is the limit. Source: model.
    """
    found: list[tuple[float, int]] = []
    for load in range(setup.main.grip_limit.size):
        one, limit = one_state(setup.load, load), float(setup.main.grip_limit[load])
        if limit >= float(rear_lift_decel(one)) * (1.0 - 1e-9):
            continue
        pushes = []
        for pull, axle in zip((hand, foot), AXLES, strict=True):
            wanted = float(one.grip(axle)) * float(axle_load(one, axle, limit)) * float(road_share(one))
            force = pull.pedal.line.axle_force(axle)
            pushes.append(_push_for(pull, force[min(load, force.shape[0] - 1), 0], wanted))
        if all(np.isfinite(p) for p in pushes):
            found.append((pushes[1] / pushes[0], load))
    return min(found) if found else None


def _push_for(pull: Pull, force: Floats, wanted: float) -> float:
    """Push [N] of one control alone at which its wheels give a `wanted` [N]; inf where they never do."""
    place, known = first_reach(force, wanted)
    if not known.all():
        return float("inf")
    return float(np.asarray(pull.pedal.push_at(place)).reshape(-1)[0])


def _motorcycle(bench: Bench, hand: Pull, foot: Pull) -> Judgement:
    """A motorcycle's order hangs on how hard each control is pressed: a note of the share at which both slide at once."""
    found = slide_ratio(bench.solved, hand, foot)
    if found is None:
        text = "The rear lifts before both wheels could slide.", "How hard the foot presses does not decide what happens first."
        return Judgement("lock_order", "note", *text, "the chain", kind="lift_is_the_limit")
    share, load = found
    head = f"The rear slides first when the foot pushes more than {share:.2f} of the hand{bench.in_state(load)}."
    reason = "How hard each is pressed is the rider's to say; state it and the order is judged."
    return Judgement("lock_order", "note", head, reason, "the chain: both wheels at their grip at once", share, None, "1", kind="hand_and_foot",
                     links=("pedal", "tyres"))  # fmt: skip


def _one_axle(bench: Bench) -> list[Judgement]:
    event = bench.solved.main.healthy.event
    if tail_wheel(bench):
        return [_nose_over(bench)]
    z = float(np.min(event.decel[:, 0]))
    source = "the chain"
    if not np.isfinite(z):
        return [Judgement("lock_order", "note", *_WEAK, source, kind="no_lock")]
    what = "The rear lifts" if bool(np.any(event.lift)) else "The braked wheels lock"
    return [
        Judgement(
            "lock_order",
            "note",
            f"{what} at {z:.3f} g.",
            "Only one axle brakes: there is no order.",
            source,
            z,
            None,
            "g",
            kind="one_axle",
        )
    ]


def _nose_over(bench: Bench) -> Judgement:
    """A tail-dragger goes over its nose where its tail lifts: before its tyres slip, or not."""
    setup = bench.solved
    event = setup.main.healthy.event
    chance = bench.chance("nose_over")
    lifts = [float(rear_lift_decel(one_state(setup.load, n))) for n in range(event.decel.shape[0])]
    worst = int(np.argmin(lifts))
    z, limit = lifts[worst], float(setup.main.grip_limit[worst])
    source = "moments about the main wheels; no lift, fuselage as it stands"
    more = "" if chance is None else f" It does in {percent(chance)} of plausible aircraft."
    if bool(np.any(event.lift)):
        over = int(np.argmin(np.where(event.lift[:, 0], event.decel[:, 0], np.inf)))
        push = _push_at_event(setup, over) * max(p.ratio for p in setup.main.healthy.pulls)
        head = f"The nose goes over at {float(event.decel[over, 0]):.2f} g, {push:.0f} N on each toe, before a tyre slips{bench.in_state(over)}."
        return Judgement("nose_over", "danger", head, f"The brakes can stand the aircraft on its nose.{more}", source, z, limit, "g",
                         kind="nose_over", links=("valves", "brakes"), chance=chance, tried=bench.tried)  # fmt: skip
    level: Level = "note" if chance is None else by_chance(chance)
    first = (
        "The tyres slip before the nose goes over, which is"
        if np.any(event.front)
        else "No push puts the nose over, which would be"
    )
    head = f"{first} at {z:.2f} g{bench.in_state(worst)}."
    return Judgement("nose_over", level, head, f"On this grip.{more}", source, z, limit, "g", kind="slips_first", links=("tyres",),
                     chance=chance, tried=bench.tried)  # fmt: skip


def distribution(bench: Bench) -> list[Judgement]:
    """The two clauses on sharing for cars, in every load state of `bench` [record] without a trailer."""
    road = bench.solved.main.healthy.road
    source = "UN R13-H, from memory"
    if bench.facts.kind == "truck":
        text = (
            "The law's own sharing rules for heavy vehicles are not worked out here.",
            "Lock order, what is left, effort and travel are.",
        )
        return [Judgement("truck_clauses", "note", *text, "UN R13, from memory")]
    bare = np.array([not own for own in bench.facts.trailers] or [True] * road.decel.shape[0])
    if bench.facts.kind != "car" or not both_axles(bench.solved) or not np.any(bare):
        return []
    above, kept = (v[..., 0] for v in distribution_kept(road))
    out = []
    for name, fine, words in (
        ("distribution_rear", above, "The rear uses more grip than the front somewhere between 0.15 and 0.80 g"),
        ("distribution_use", kept, "One axle's grip is used up too early"),
    ):
        failed, chance = ~fine & bare, bench.chance(name)
        why = (
            "The sharing rule for cars forbids it." if name == "distribution_rear"
            else "The rule for cars wants z ≥ 0.1 + 0.7(k − 0.2): the other axle could help more. Rules of thumb such as 70/30 do not see it."
        )  # fmt: skip
        if np.any(failed):
            head = f"{words}{bench.in_state(int(np.argmax(failed)))}."
            out.append(
                Judgement(
                    name,
                    "caution",
                    head,
                    why,
                    source,
                    kind="broken",
                    links=("valves", "brakes"),
                    chance=chance,
                    tried=bench.tried,
                )
            )
        elif chance is not None and chance > 0.30:
            head = f"{words} in {percent(chance)} of plausible cars; not on paper."
            out.append(Judgement(name, "note", head, why, source, kind="doubtful", links=("valves", "brakes"), chance=chance))
    return out


def trailers(bench: Bench) -> list[Judgement]:
    """What is not judged of a trailer in `bench` [record], said once."""
    if not any(bench.facts.trailers):
        return []
    text = (
        "Sway and jackknife of the trailer are not judged.",
        "Nor what may be towed: that is the law's and the makers' business.",
    )
    return [Judgement("trailer", "note", *text, "model")]


def tyres_limit(bench: Bench) -> list[Judgement]:
    """Brakes of `bench` [record] that already use nearly all of the grip: bigger ones do not stop shorter."""
    if tail_wheel(bench):
        return []
    lock, limit = bench.solved.main.lock_decel, bench.solved.main.grip_limit
    share = float(np.min(np.where(np.isfinite(lock), lock / limit, 0.0)))
    if share < 0.95:
        return []
    text = (
        f"{share * 100:.0f} % of the grip is used at first lock.",
        "Tyres are the limit: bigger brakes change feel and heat, not distance.",
    )
    return [Judgement("tyres_limit", "good", *text, "model", share, 0.95, "1", links=("tyres",))]

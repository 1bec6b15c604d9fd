"""Words for what fails and for whose it is: what a mechanic calls a circuit, a control, a load state."""

from collections.abc import Sequence

from kobrix.core.physics.chain import System
from kobrix.core.physics.cylinder import Chamber
from kobrix.core.physics.failures import Failing


def plain(name: str) -> str:
    """A `name` [text] as it is said: without underscores. Source: the person's own word."""
    return name.replace("_", " ")


def crosses(system: System, chamber: Chamber) -> bool:
    """Whether a `chamber` [record] of a `system` [record] feeds wheels of both axles and leaves others of each to another one: a
    diagonal split. Source: common practice."""
    axles = {system.station(f.station).axle for f in chamber.feeds}
    return len(axles) == 2 and all(f.wheels < system.station(f.station).wheels for f in chamber.feeds)


def circuit_words(system: System | None, circuit: str) -> str:
    """What a `circuit` [name] of a `system` [record] is called: "front circuit", "the only circuit", "first diagonal circuit".

    Source: common practice.
    """
    if system is None:
        return f"{plain(circuit)} circuit"
    chambers = system.cylinder.chambers
    if len(chambers) == 1:
        return "the only circuit"
    own = next((c for c in chambers if c.name == circuit), None)
    if own is not None and crosses(system, own):
        return f"{'first' if own is chambers[0] else 'second'} diagonal circuit"
    return f"{plain(circuit)} circuit"


def failure_words(failing: Failing, systems: Sequence[System], air: float | None = None) -> str:
    """Words for a `failing` [record] of `systems` [records]: "front circuit lost"; `air` [cm³] of one with air in it. Source: common practice."""
    own = next((s for s in systems if s.name == failing.system), systems[0] if len(systems) == 1 else None)
    what = plain(failing.what or "")
    words = {
        "circuit": f"{circuit_words(own, failing.what or '')} lost", "upstream": "leak before the second control",
        "booster": "booster lost", "hot": "hot pads", "wet": "wet pads", "valves_shut": f"{what} valves shut",
        "valves_open": f"{what} valves open", "air": f"{air or 0.0:g} cm³ of air, {what}",
    }.get(failing.kind, plain(failing.name))  # fmt: skip
    return f"{plain(failing.system)}: {words}" if failing.is_loss and failing.system else words


def loss_words(failing: Failing, systems: Sequence[System]) -> str:
    """Short words for a loss of one control, a `failing` [record] of `systems` [records], its name left out. Source: common practice."""
    if failing.kind == "upstream":
        return "leak upstream"
    own = next((s for s in systems if s.name == failing.system), systems[0] if len(systems) == 1 else None)
    if failing.kind == "circuit" and own is not None and len(own.cylinder.chambers) > 1:
        return f"{circuit_words(own, failing.what or '')} lost"
    return "booster lost" if failing.kind == "booster" else "circuit lost"


def listed(names: Sequence[str], last: str = "and") -> str:
    """Several `names` [texts] in one breath, `last` [word] before the last: "left", "left and right", "a, b or c". Source: English."""
    said = [plain(n) for n in names]
    return said[0] if len(said) == 1 else f"{', '.join(said[:-1])} {last} {said[-1]}"


def a_capital(text: str) -> str:
    """A `text` [words] with a capital first letter. Source: English."""
    return text[:1].upper() + text[1:]

"""What Prove says of stops, in words: what they can show, and what they cannot."""

from typing import Any

from kobrix.stages.prove.shapes import Level

CHANGED = {
    "tyres": "the tyres", "brakes": "the brakes", "bedding": "the bedding", "valve": "the valve", "load": "the load", "road": "the road",
    "several": "several changes at once",
}  # fmt: skip
LEFT_OUT = {
    "struck": "struck out", "speed_off": "more than 10 % off the speed: not counted", "simulated": "simulated: never counted",
    "no_distance": "no distance was read: not counted", "refused": "not counted",
}  # fmt: skip
_LIMITED = {
    "locked": "wheels locked in {share} of 100: the tyres set these stops, more brake does not shorten them",
    "at_predicted_lock": "as hard as the tyres hold by the model: the tyres set these stops",
    "push_at_limit": "nothing locked at a push near the most that is asked of a foot: the brakes set these stops",
    "room_to_press": "nothing locked and there was room to press harder: the foot set these stops",
}  # fmt: skip


def limited_words(row: dict[str, Any]) -> str:
    """What set the stops of a set."""
    why = row["limited_why"]
    if why is None:
        return "whether tyres, brakes or foot set these stops cannot be told: note the push, and what locked"
    return _LIMITED[why].format(share=round(100 * (row["locked_share"] or 0.0)))


def pair_words(row: dict[str, Any]) -> tuple[str, str]:
    """What two sets say of each other, and what would say more."""
    first, second, verdict = row["from"], row["to"], row["verdict"]
    if verdict == "too_few":
        return f"{_cap(second)} against {first}: two stops of each at least are needed.", ""
    shorter = row["shorter_m"]
    way = "shorter" if shorter >= 0 else "longer"
    if verdict == "no_scatter":
        return f"{_cap(second)}: {abs(shorter):.1f} m {way} than {first}; without any scatter nothing more can be said.", ""
    half = (row["high_m"] - row["low_m"]) / 2
    if verdict == "inside_scatter":
        said = (
            f"{_cap(second)} against {first}: {abs(shorter):.1f} m {way}, give or take {half:.1f} m. That is inside the scatter."
        )
        return said, _more(row)
    strong = "That is far outside the scatter." if verdict == "far_outside_scatter" else "Likely real."
    said = f"{_cap(second)}: {abs(shorter):.1f} m {way} than {first}, give or take {half:.1f} m. {strong}"
    cause = row["cause"]
    if cause is not None:
        said += f" It was {CHANGED.get(cause, cause)}."
    best = row["best_claim_m"]
    claim = "" if best is None else f"The best stop of each alone would have claimed {best:.1f} m."
    return said, claim


def _cap(text: str) -> str:
    return text[:1].upper() + text[1:]


def _more(row: dict[str, Any]) -> str:
    each = row["stops_each"]
    if each is None or each > 200:
        return "No number of stops that anybody drives would tell: it is not worth it."
    more = max(row["more_from"], row["more_to"])
    return (
        f"About {each} stops of each would tell: {row['more_from']} more of {row['from']}, {row['more_to']} more of {row['to']}."
        if more
        else ""
    )


LEVEL: dict[str, Level] = {
    "too_few": "note",
    "no_scatter": "caution",
    "far_outside_scatter": "good",
    "likely_real": "good",
    "inside_scatter": "note",
}
CAUTIONS = [
    "First drive: walking pace, in a safe place, then harder step by step; look at every opened joint again after it.",
    "Stops where nobody is behind or ahead; somebody watches the road. Hot rotors burn, hot brakes fade: let them cool between stops.",
    "A rear wheel that locks first spins the vehicle. Stop there, and set the valve lower.",
]  # fmt: skip
AIRCRAFT = [
    "Only by certified persons, on a closed surface, with the maker's limits for brake energy.",
    "From a speed that leaves half the runway; brake-on and rest are marked by somebody beside it. Hot wheels: keep clear.",
]  # fmt: skip

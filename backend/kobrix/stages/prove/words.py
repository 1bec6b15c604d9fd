"""What Prove says of stops, in words: what they can show, and what they cannot."""

from kobrix.core.figures import Level
from kobrix.core.prove.compare import PairAnswer, SetAnswer

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


def limited_words(row: SetAnswer) -> str:
    """What set the stops of a set."""
    why = row["limited_why"]
    if why is None:
        return "whether tyres, brakes or foot set these stops cannot be told: note the push, and what locked"
    return _LIMITED[why].format(share=round(100 * (row["locked_share"] or 0.0)))


def pair_words(row: PairAnswer) -> tuple[str, str]:
    """What two sets say of each other, and what would say more."""
    first, second, verdict = row["from"], row["to"], row["verdict"]
    shorter, low, high = row["shorter_m"], row["low_m"], row["high_m"]
    if shorter is None:
        return f"{_cap(second)} against {first}: two stops of each at least are needed.", ""
    way = "shorter" if shorter >= 0 else "longer"
    if low is None or high is None:
        return f"{_cap(second)}: {abs(shorter):.1f} m {way} than {first}; without any scatter nothing more can be said.", ""
    half = (high - low) / 2
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


def _more(row: PairAnswer) -> str:
    each, here, there = row["stops_each"], row["more_from"], row["more_to"]
    if each is None or here is None or there is None or each > 200:
        return "No number of stops that anybody drives would tell: it is not worth it."
    return (
        f"About {each} stops of each would tell: {here} more of {row['from']}, {there} more of {row['to']}."
        if max(here, there)
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

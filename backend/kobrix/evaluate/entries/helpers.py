"""Helpers of the sheet: something a person can take with scales, tape or eyes, made into the entries it stands for."""

from collections.abc import Callable
from dataclasses import dataclass

from kobrix.core.constants import J866
from kobrix.core.errors import BadEntry, Impossible, NotFound
from kobrix.core.physics.vehicle import height_by_lifting
from kobrix.evaluate.entries.shapes import Helper, HelperAnswer, HelperEntry
from kobrix.fileformat.fields import number_text
from kobrix.fileformat.quantities import label_of, read, si_factor


@dataclass(frozen=True)
class _Known:
    """One helper of the sections of a `kind`: its `title`, `how` it is done, what it asks {field: (label, text when left out)}."""

    kind: str
    title: str
    how: str
    asks: dict[str, tuple[str, str | None]]
    work: Callable[[dict[str, float]], HelperAnswer]


def _entry(key: str, value: float, unit: str) -> HelperEntry:
    return {"key": key, "text": f"{number_text(value)} {unit}".strip()}


def _corners(at: dict[str, float]) -> HelperAnswer:
    front, rear = at["left_front_kg"] + at["right_front_kg"], at["left_rear_kg"] + at["right_rear_kg"]
    mass = front + rear
    share = round(front / mass, 4)
    left = (at["left_front_kg"] + at["left_rear_kg"]) / mass
    return {
        "entries": [_entry("mass_kg", round(mass, 1), "kg"), _entry("front_share", share, "")],
        "plus_minus": {},
        "sentence": f"{mass:.0f} kg in all, {share:.1%} on the front wheels; {left:.1%} on the left.".replace("%", " %"),
    }


def _lift(at: dict[str, float]) -> HelperAnswer:
    """Source: moments about the axle that stays on the ground, model."""
    total, gain = at["whole_mass_kg"], at["gain_kg"]
    if not 0.0 < at["lift_mm"] < at["wheelbase_mm"] or total <= 0.0:
        raise Impossible("the height of the centre of gravity", "it needs a mass, and a lift between nothing and the wheelbase")
    height = float(height_by_lifting(at["wheelbase_mm"], total, gain, at["lift_mm"], at["wheel_centre_mm"]))
    if not 0.05 <= height <= 3.0:
        raise Impossible(
            "the height of the centre of gravity", f"these give {height * 1e3:.0f} mm: look at the gain and the lift again"
        )
    return {
        "entries": [_entry("cg_height_mm", round(height * 1e3), "mm")],
        "plus_minus": {},
        "sentence": f"{height * 1e3:.0f} mm above the ground. A kilogram more on the scales would make it "
        f"{(float(height_by_lifting(at['wheelbase_mm'], total, gain + 1.0, at['lift_mm'], at['wheel_centre_mm'])) - height) * 1e3:.0f} mm"
        " higher: lift as high as is safe.",
    }  # fmt: skip


def _positions(at: dict[str, float]) -> HelperAnswer:
    """Three readings of the pad against the floor or a fixed mark."""
    free, room = at["at_rest_mm"] - at["rod_moves_mm"], at["at_rest_mm"] - at["at_stop_mm"]
    if not 0.0 <= free < room:
        raise Impossible("free play and travel", "the readings must fall from rest to where the rod moves, and on to the stop")
    return {
        "entries": [
            _entry("free_play_mm", round(free * 1e3, 1), "mm"),
            _entry("available_travel_mm", round(room * 1e3, 1), "mm"),
        ],
        "plus_minus": {},
        "sentence": f"Free play {free * 1e3:.1f} mm, {room * 1e3:.1f} mm of travel to the stop.",
    }


HELPERS: dict[str, _Known] = {
    "corner_weights": _Known(
        "vehicle", "From four scales", "A scale under each wheel, on level ground, driver in: mass, and share on the front.",
        {"left_front_kg": ("left front", None), "right_front_kg": ("right front", None), "left_rear_kg": ("left rear", None),
         "right_rear_kg": ("right rear", None)},
        _corners,
    ),
    "lifted_axle": _Known(
        "vehicle", "Height by lifting one axle",
        "Scales under the axle that stays down, springs blocked, brakes off, wheels chocked on the scales' side only. "
        "Lift the other axle at its hubs, on stands on hard ground; nobody under it.",
        {"whole_mass_kg": ("whole mass", None), "wheelbase_mm": ("wheelbase", None), "lift_mm": ("wheels lifted by", None),
         "gain_kg": ("more on the scales", None), "wheel_centre_mm": ("wheel centres above the ground", None)},
        _lift,
    ),
    "pedal_positions": _Known(
        "control", "From three readings of the pad", "Tape from the pad to the floor or any fixed mark: free play and travel.",
        {"at_rest_mm": ("at rest", None), "rod_moves_mm": ("where the rod begins to move", None), "at_stop_mm": ("at the stop", "0 mm")},
        _positions,
    ),
}  # fmt: skip


def pad_letter(letters: str) -> HelperAnswer:
    """Friction by the two edge letters of a pad: the first cold, the second hot, each the middle of its range.

    Raises BadEntry. Source: SAE J866, from memory.
    """
    pair = letters.strip().upper()
    if len(pair) != 2 or any(letter not in J866 for letter in pair):
        raise BadEntry("edge letters", repr(letters[:20]), f"two letters of {', '.join(J866)}, such as FF or GG")
    ends = [J866[letter] for letter in pair]
    middle = [round((low + high) / 2.0, 3) for low, high in ends]
    wide = [(high - low) / 2.0 for low, high in ends]
    return {
        "entries": [_entry("friction.cold", middle[0], ""), _entry("friction.hot", middle[1], "")],
        "plus_minus": {"friction.cold": number_text(round(wide[0], 3)), "friction.hot": number_text(round(wide[1], 3))},
        "sentence": f"{pair}: {ends[0][0]:g} to {ends[0][1]:g} cold, {ends[1][0]:g} to {ends[1][1]:g} hot (SAE J866, from memory). "
        "The letters are a wide bracket: the pad's maker knows better.",
    }  # fmt: skip


def help_with(name: str, given: dict[str, str], preferred: dict[str, str] | None = None) -> HelperAnswer:
    """What the helper by `name` makes of the texts `given` {field: as typed}: entries to fill, and a sentence.

    Raises NotFound, BadEntry for a text that cannot be read, Impossible where the readings contradict each other.
    """
    if name == "pad_letters":
        return pad_letter(given.get("letters", ""))
    if name not in HELPERS:
        raise NotFound("helper", name, ", ".join([*HELPERS, "pad_letters"]))
    helper, at = HELPERS[name], {}
    for key, (label, left_out) in helper.asks.items():
        text = given.get(key, "").strip() or left_out
        if text is None:
            raise BadEntry(label, "nothing", f"a {label_of(key).split()[-1]} as you read it")
        own = (preferred or {}).get("mass" if key.endswith("_kg") else "length")
        value = read(text, key, own).value
        if value < 0.0:
            raise BadEntry(label, repr(text), "0 or more")
        at[key] = value if key.endswith("_kg") else value * si_factor(key)
    if name == "corner_weights" and sum(at.values()) <= 0.0:
        raise BadEntry("corner weights", "0 kg in all", "the weight on each scale")
    return helper.work(at)


def helpers_of(kind: str) -> list[Helper]:
    """The helpers of the sections of a `kind`, as a screen asks them."""
    found: list[Helper] = [
        {"name": name, "title": h.title, "how": h.how, "asks": [{"field": f, "label": label} for f, (label, _) in h.asks.items()]}
        for name, h in HELPERS.items() if h.kind == kind
    ]  # fmt: skip
    if kind == "brake":
        how = "Two letters such as FF or GE: the first cold, the second hot."
        found.append({"name": "pad_letters", "title": "From the letters on the pad's edge", "how": how,
                      "asks": [{"field": "letters", "label": "letters"}]})  # fmt: skip
    return found

"""Build's words: changes, phases and what stands against driving a half-done vehicle."""

from kobrix.core.work.steps import Change

CHANGE = {
    "pin_moved": "pushrod pin moved", "cylinder_changed": "master cylinder changed", "booster_out": "booster out",
    "booster_in": "booster in", "hydraulic_booster": "hydraulic booster", "calipers": "calipers", "drum_to_disc": "drums to discs",
    "wheel_cylinders": "wheel cylinders", "rotors": "rotors", "hoses": "hoses", "hard_line": "hard lines", "valve": "valve",
    "line_lock": "line lock", "park_valve": "park valve", "residual_valve": "residual valve", "pressure_switch": "pressure switch",
    "hand_cylinder_rebuild": "hand cylinder rebuilt", "aircraft_cylinders": "aircraft cylinders", "switch": "lamp switch",
    "pads": "pads", "parking_brake": "parking brake", "knuckle_out": "knuckle out",
}  # fmt: skip
PHASE = {
    1: "Prepare", 2: "Lift", 3: "Strip, system closed", 4: "Make and try, system closed", 5: "Open", 6: "With the system open",
    7: "Close", 8: "Finish", 9: "Down and out",
}  # fmt: skip
_DANGER = {
    "no_stop": "does not stop so hard", "effort": "too hard a push", "travel": "pedal near the floor", "rear_first": "rear locks first",
    "rear_lift": "rear lifts", "incomplete": "half of what goes together",
}  # fmt: skip


def change_words(change: Change, axle: str | None) -> str:
    """A change in words."""
    said = CHANGE[change.kind]
    return f"{axle} {said}" if axle else said


def danger_words(danger: str) -> str:
    """What stands against driving so."""
    if danger.startswith("lost_"):
        return f"too little with the {danger.removeprefix('lost_').replace('_', ' ')} circuit lost"
    return _DANGER.get(danger, danger.replace("_", " "))


def short(row: str) -> str:
    """A step in a word or two, for where there is little room."""
    return row.replace("_", " ")

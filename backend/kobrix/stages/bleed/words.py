"""Bleed's words: what stands against driving, where fluid is lost, and what to look at."""

REASON = {
    "too_few_pushes": "fewer than three pushes press: push harder, or a gauge is shut",
    "front_dead": "the front circuit gives nothing", "rear_dead": "the rear circuit gives nothing",
    "pressure_low": "far less pressure than planned", "floor_near": "the pedal comes near the floor",
    "ratio_efficiency_off": "ratio times efficiency is not the plan's: look at the pin's place, and whether pedal and rod run free",
    "threshold_n_off": "it begins to press at another push than planned: look at springs and free play",
    "gain_off": "the booster helps otherwise than planned", "run_out_n_off": "the booster runs out at another push than planned",
    "knee_kpa_off": "the valve's knee is not where it is planned", "valve_slope_off": "above the knee the valve passes another share than planned",
    "bar_front_share_off": "the balance bar stands otherwise than planned",
    "knee_missing": "the planned valve shows no knee", "knee_unplanned": "there is a knee, and no valve in the plan",
    "rear_differs": "the rear does not follow the front: a valve, or a gauge", "front_not_read": "no front gauge was read",
    "rear_not_read": "no rear gauge was read", "travel_not_read": "the pedal's travel was not read",
    "travel_air": "the pedal is longer than planned: air", "travel_adjustment": "the pedal is longer than planned: clearance or free play",
    "travel_hose_swell": "the pedal is longer than planned: a hose swells",
    "travel_cannot_tell": "the pedal is not as planned, and why cannot be told yet: push lightly, 10 to 15 N, three times",
}  # fmt: skip
WHERE = {
    "none": "Nothing is lost.", "cylinder": "Fluid passes the seals inside the cylinder.", "cannot_tell": "It cannot be told yet: hold it longer, and read more often.",
    "beyond_each": "Each circuit loses by itself: look at every joint.", "not_located": "It loses, and where is not told yet: plug one circuit after the other at the cylinder.",
}  # fmt: skip
CLASS = {"tight": "tight", "seep": "seeps", "leak": "leaks", "cannot_tell": "cannot be told"}
WARNING = {
    "fluid_in_unknown": "What fluid is in is not known: flush it all.", "silicone_mixed": "Silicone fluid (DOT 5) and the other kinds never mix: every seal, hose and pipe is cleaned or new.",
    "grade_mixed": "Another grade is in: flush until the new one comes.", "order_from_seats": "Lengths of the single lines are not known: the order is by where the wheels are.",
}  # fmt: skip
FITTED: dict[str, tuple[str, str]] = {
    "ratio_efficiency": ("ratio times efficiency", ""), "threshold_n": ("begins to press at", "N"), "gain": ("booster's gain", ""),
    "run_out_n": ("booster runs out at", "N"), "knee_kpa": ("valve's knee", "kPa"), "valve_slope": ("passed above the knee", ""),
    "bar_front_share": ("bar's front share", ""),
}  # fmt: skip


def where_words(where: str) -> str:
    """Where fluid is lost."""
    if where in WHERE:
        return WHERE[where]
    return f"It is lost in the {where.removeprefix('beyond_').replace('_', ' ')} circuit, beyond the cylinder."

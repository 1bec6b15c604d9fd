"""The wheel of one axle cut through the brake, and the hose beside it: what was measured, and whether it goes together."""

from typing import Any, get_args

from kobrix.core.errors import BadPlace, NotFound
from kobrix.core.figures import Level
from kobrix.core.fit.clearance import Clearance, ClearanceAnswer, GapName, outline_of
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.exports.try_card import TryCard
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import HoseStrings, WheelSection
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import set_at
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.stations import DiscBrake, Station
from kobrix.stages.fit.shapes import Axle, GapView, HoseView, OldBrake, SectionField, SectionGroup, SectionMend, SectionView

_FIELDS: tuple[tuple[SectionGroup, str, str, str, bool], ...] = (
    ("wheel", "rim_diameter_mm", "rim diameter", "as stamped on the rim, such as 15 in", True),
    ("wheel", "width_mm", "rim width", "as stamped, such as 6 in", True),
    ("wheel", "offset_mm", "wheel offset", "from the rim's middle to its face, outboard is less", True),
    ("wheel", "spoke_back_mm", "spoke set back", "a straightedge over the face: how far behind it the spoke's back lies", True),
    ("wheel", "barrel_inner_radius_mm", "barrel inside, radius", "half the bore of the barrel where the caliper stands", False),
    ("wheel", "spacer_mm", "wheel spacer", "between hat and wheel; none where left out", False),
    ("rotor", "hat_thickness_mm", "rotor hat, thickness", "the metal between hub and wheel", False),
    ("rotor", "hat_offset_mm", "disc's middle from the flange", "hub flange to the middle of the disc, inboard", False),
    ("caliper", "x_from_mm", "caliper, outboard face", "from the hub flange; outboard is below 0", True),
    ("caliper", "x_to_mm", "caliper, inboard face", "from the hub flange, inboard", True),
    ("caliper", "r_from_mm", "caliper, inner edge", "from the axle's middle", True),
    ("caliper", "r_to_mm", "caliper, outer edge", "from the axle's middle, at the caliper's middle", True),
    ("caliper", "half_length_mm", "half its length", "along the rim: its corners stand further out", False),
    ("caliper", "bridge_radius_mm", "bridge inside", "from the axle to the bridge above the disc", False),
    ("caliper", "slot_centre_mm", "slot's middle from the flange", "the middle of the gap that the disc runs in", False),
    ("caliper", "slot_width_mm", "slot width", "between the caliper's halves", False),
    ("caliper", "pad_outer_radius_mm", "pad's outer edge", "from the axle to the outer edge of the lining", False),
    ("caliper", "shims_mm", "shims at the bracket", "they move the caliper inboard", False),
    ("caliper", "radial_move_mm", "bracket moved out", "away from the axle; below 0: nearer", False),
    ("stud", "length_mm", "stud length", "from the hub flange", False),
    ("stud", "diameter_mm", "stud diameter", "such as 12", False),
    ("stud", "pitch_mm", "stud pitch", "such as 1.5", False),
    ("stud", "seat_mm", "wheel's metal under the nut", "", False),
    ("stud", "nut_thread_mm", "thread in the nut", "left out: as long as the stud", False),
    ("doubts", "radial_mm", "± across the axle", "how far each radius may be off", False),
    ("doubts", "axial_mm", "± along the axle", "how far each length along the axle may be off", False),
)
_GAPS: dict[GapName, str] = {
    "barrel": "body to barrel", "spoke": "body to spoke", "weights": "body to weights", "bridge": "rotor to bridge",
    "sides": "rotor to the slot's sides",
}  # fmt: skip
_STUD = ("length_mm", "diameter_mm", "pitch_mm", "seat_mm")
_DOUBTS = {
    "radial_mm": ("envelope_r_mm", "wheel_r_mm"), "axial_mm": ("envelope_x_mm", "wheel_x_mm"),
}  # fmt: skip


def _typed(section: WheelSection | None) -> dict[str, dict[str, Any]]:
    return {} if section is None else section.model_dump(exclude_none=True)


def _question(typed: dict[str, dict[str, Any]], station: Station) -> dict[str, Any]:
    brake = station.brake
    caliper = dict(typed.get("caliper", {}))
    shims, move = caliper.pop("shims_mm", 0), caliper.pop("radial_move_mm", 0)
    wheel = {k: v for k, v in typed.get("wheel", {}).items() if k != "spacer_mm"}
    box = {k: caliper.pop(k) for k in ("x_from_mm", "x_to_mm", "r_from_mm", "r_to_mm", "half_length_mm") if k in caliper}
    stack = {
        "spacer_mm": typed.get("wheel", {}).get("spacer_mm", 0),
        "hat_thickness_mm": typed.get("rotor", {}).get("hat_thickness_mm", 0),
    }
    rotor = {k: v for k, v in typed.get("rotor", {}).items() if k == "hat_offset_mm"}
    if isinstance(brake, DiscBrake):
        known = {"diameter_mm": brake.rotor_diameter_mm, "thickness_mm": brake.rotor_thickness_mm}
        rotor |= {k: v for k, v in known.items() if v is not None}
        if brake.pad_height_mm is not None and "pad_outer_radius_mm" in caliper:
            caliper["pad_height_mm"] = brake.pad_height_mm
    # What needs a size of the rotor that is not known is left out, not guessed.
    if "diameter_mm" not in rotor:
        caliper.pop("bridge_radius_mm", None)
        caliper.pop("pad_height_mm", None)
    if "thickness_mm" not in rotor or "slot_centre_mm" not in caliper:
        caliper.pop("slot_width_mm", None)
    if "hat_offset_mm" not in rotor:
        caliper.pop("slot_centre_mm", None)
        caliper.pop("slot_width_mm", None)
    asked: dict[str, Any] = {
        "question": "wheel_clearance", "wheel": wheel, "stack": stack, "caliper": {**caliper, "box": box}, "rotor": rotor,
        "shims_mm": shims, "radial_move_mm": move,
        "plus_minus": {name: v for key, v in typed.get("doubts", {}).items() for name in _DOUBTS[key]},
    }  # fmt: skip
    stud = typed.get("stud", {})
    if all(k in stud for k in _STUD):
        asked["stud"] = stud
    return asked


def _fields(axle: Axle, typed: dict[str, dict[str, Any]]) -> list[SectionField]:
    found: list[SectionField] = []
    letters = iter("ABCDEFGHIJ")
    for group, key, label, how, wanted in _FIELDS:
        value = typed.get(group, {}).get(key)
        found.append(
            {"key": key, "letter": next(letters) if wanted else "", "group": group, "path": f"fit.sections.{axle}.{group}.{key}", "label": label,
             "text": "" if value is None else f"{value} mm" if isinstance(value, int | float) else str(value), "how": how,
             "wanted": wanted, "value_mm": None if value is None else value_of(value, key)}
        )  # fmt: skip
    return found


def _gaps(told: ClearanceAnswer) -> list[GapView]:
    found: list[GapView] = []
    for name, said in _GAPS.items():
        if name in told:
            row = told[name]
            at = row.get("at")
            found.append(
                {"name": name, "words": said, "gap_mm": row["gap_mm"], "p5_mm": row["p5_mm"], "limit_mm": row["limit_mm"],
                 "level": row["level"], "at": None if at is None else [at["x_mm"], at["r_mm"]]}
            )  # fmt: skip
    return found


def _sentence(gaps: list[GapView], least: str | None, level: Level) -> str:
    if least is None:
        return ""
    row = next(g for g in gaps if g["name"] == least)
    here = f"{row['words'].capitalize()} {row['gap_mm']:.1f} mm"
    if row["gap_mm"] < 0:
        return f"{row['words'].capitalize()}: {-row['gap_mm']:.1f} mm into each other. It does not go together."
    if level == "good":
        return f"{here}, {row['limit_mm']:g} mm wanted. It goes together."
    doubt = f", {row['p5_mm']:.1f} mm in one of twenty" if abs(row["p5_mm"] - row["gap_mm"]) > 0.05 else ""
    return f"{here}{doubt}; {row['limit_mm']:g} mm wanted."


def _moved(question: dict[str, Any], move: float, spacer: float) -> ClearanceAnswer:
    stack = {**question["stack"], "spacer_mm": value_of(question["stack"]["spacer_mm"], "spacer_mm") + spacer}
    total = value_of(question["radial_move_mm"], "radial_move_mm") + move
    return ask_fit.clearance(Asked({**question, "stack": stack, "radial_move_mm": total}))


def _mends(axle: Axle, question: dict[str, Any], told: ClearanceAnswer) -> list[SectionMend]:
    """The least move of the bracket, and the thinnest spacer, that bring every gap to what is wanted: by its P5, or as measured where
    the doubt leaves none."""
    found: list[SectionMend] = []
    for kind, path, sure, measured in (
        ("move", "caliper.radial_move_mm", told["extra_move_p5_mm"], told["extra_move_mm"]),
        ("spacer", "wheel.spacer_mm", told["extra_spacer_p5_mm"], told["extra_spacer_mm"]),
    ):
        step = sure or measured
        if not step:
            continue
        after = _moved(question, step, 0.0) if kind == "move" else _moved(question, 0.0, step)
        gaps = ", ".join(f"{g['words']} {g['gap_mm']:.1f} mm" for g in _gaps(after) if g["name"] in ("barrel", "spoke", "bridge"))
        doubt = "" if sure else " as measured; the doubt stays, so measure again"
        if kind == "move":
            said = f"Bracket holes {abs(step):.1f} mm {'further out' if step > 0 else 'nearer the hub'}: {gaps}{doubt}."
            if "push_factor" in after:
                change = (after["push_factor"] / told["push_factor"] - 1.0) * 100.0
                said += f" Radius {after['effective_radius_mm']:.1f} mm, the push {abs(change):.1f} % {'heavier' if change > 0 else 'lighter'}."
            now = value_of(question["radial_move_mm"], "radial_move_mm")
        else:
            said = f"A wheel spacer, {step:.1f} mm more: {gaps}{doubt}."
            stud = after.get("stud")
            if stud is not None:
                said += f" {stud['turns']:.1f} turns of thread are left, {stud['turns_needed']:.1f} wanted."
            now = value_of(question["stack"]["spacer_mm"], "spacer_mm")
        found.append({"words": said, "edits": [set_at(f"fit.sections.{axle}.{path}", round(now + step, 3))]})
    return found


def _value(typed: dict[str, dict[str, Any]], group: str, key: str) -> float:
    value = typed.get(group, {}).get(key)
    return 0.0 if value is None else value_of(value, key)


def section_view(station: Station, title: str, section: WheelSection | None) -> SectionView:
    """The section of one axle: its sizes, and where all that a gap hangs on is known the gaps."""
    axle, typed = station.axle, _typed(section)
    fields = _fields(axle, typed)
    brake = station.brake
    disc = isinstance(brake, DiscBrake)
    view: SectionView = {
        "axle": axle, "title": title, "disc": disc, "fields": fields,
        "needs": [f["label"] for f in fields if f["wanted"] and not f["text"]], "refused": "", "gaps": [], "least": None, "level": None,
        "sentence": "", "mends": [], "stud": None, "profile": [], "outline": [], "rotor_radius_mm": None, "rotor_thickness_mm": None,
        "hat_offset_mm": None, "pad": None, "shim_needed_mm": None, "effective_radius_mm": None,
        "old": None,
    }  # fmt: skip
    if isinstance(brake, DiscBrake):
        view["rotor_radius_mm"] = (
            None if brake.rotor_diameter_mm is None else value_of(brake.rotor_diameter_mm, "rotor_diameter_mm") / 2
        )
        view["rotor_thickness_mm"] = (
            None if brake.rotor_thickness_mm is None else value_of(brake.rotor_thickness_mm, "rotor_thickness_mm")
        )
        offset = typed.get("rotor", {}).get("hat_offset_mm")
        view["hat_offset_mm"] = None if offset is None else value_of(offset, "hat_offset_mm")
        outer = typed.get("caliper", {}).get("pad_outer_radius_mm")
        if outer is not None and brake.pad_height_mm is not None:
            edge = value_of(outer, "pad_outer_radius_mm") + _value(typed, "caliper", "radial_move_mm")
            view["pad"] = [edge - value_of(brake.pad_height_mm, "pad_height_mm"), edge]
    if view["needs"]:
        return view
    question = _question(typed, station)
    try:
        told = ask_fit.clearance(Asked(question))
        asked = ask_fit.clearance_asked(Asked(question))
    except BadPlace as refused:
        name = refused.place.rpartition(".")[2]
        label = next((f["label"] for f in fields if f["key"] == name), name)
        view["refused"] = f"{label.capitalize()}: {refused.reason}"
        return view
    view["gaps"], view["least"], view["level"] = _gaps(told), told["least"], told["level"]
    view["sentence"] = _sentence(view["gaps"], view["least"], told["level"])
    view["mends"] = _mends(axle, question, told) if told["level"] != "good" else []
    view["stud"] = told.get("stud")
    view["shim_needed_mm"], view["effective_radius_mm"] = told.get("shim_needed_mm"), told.get("effective_radius_mm")
    view["profile"], view["outline"] = _drawn(asked)
    return view


def _drawn(asked: Clearance) -> tuple[list[list[float]], list[list[float]]]:
    face = -(asked.hat + asked.spacer)
    return [[x + face, r] for x, r in asked.profile], [[x, r] for x, r in outline_of(asked)]


def old_of(found: Setup, sections: dict[Axle, WheelSection], axle: Axle) -> OldBrake | None:
    """The brake of an `axle` as found, as far as it is known; None where there is none."""
    station = next((s for system in found.systems for s in system.stations if s.axle == axle), None)
    if station is None:
        return None
    own, brake = section_view(station, "", sections.get(axle)), station.brake
    if isinstance(brake, DiscBrake):
        radius, thick = own["rotor_radius_mm"], own["rotor_thickness_mm"]
        words_ = "" if radius is None else f"rotor {2 * radius:g} mm"
    else:
        radius = None if brake.drum_diameter_mm is None else value_of(brake.drum_diameter_mm, "drum_diameter_mm") / 2
        thick, words_ = None, "" if radius is None else f"drum {2 * radius:g} mm"
    if not words_ and not own["outline"]:
        return None
    return {
        "words": words_, "radius_mm": radius, "thickness_mm": thick, "hat_offset_mm": own["hat_offset_mm"], "outline": own["outline"],
    }  # fmt: skip


def try_card_of(setup: Setup, sections: dict[Axle, WheelSection], axle: Axle) -> TryCard:
    """The caliper of an `axle` as a card to try inside its wheel. Raises NotFound where its outline is not measured yet."""
    station = next((s for system in setup.systems for s in system.stations if s.axle == axle), None)
    typed = _typed(sections.get(axle))
    wanted = [
        label for group, key, label, _, need in _FIELDS if need and group == "caliper" and key not in typed.get("caliper", {})
    ]
    if station is None or wanted:
        raise NotFound("outline of the caliper", axle, f"still to measure: {', '.join(wanted) or 'a brake there'}")
    # The wheel plays no part in the caliper's own outline: any rim stands in where it is not measured.
    wheel = {"rim_diameter_mm": 2000, "width_mm": 1000, "offset_mm": 0, "spoke_back_mm": 0, **typed.get("wheel", {})}
    question = _question({**typed, "wheel": wheel, "stud": {}}, station)
    try:
        asked = ask_fit.clearance_asked(Asked(question))
    except BadPlace as refused:
        raise NotFound("outline of the caliper", axle, refused.reason) from None
    face = -(asked.hat + asked.spacer)
    outline = tuple((r, x - face) for x, r in outline_of(asked))
    return TryCard(
        f"Caliper, {axle_words(setup, axle)}: a card to try in the wheel",
        outline,
        max(asked.limits["barrel_mm"], asked.limits["spoke_mm"]),
    )


def axle_words(setup: Setup, axle: str) -> str:
    """What an axle is called on this vehicle: an aircraft brakes its main wheels."""
    return "main" if setup.vehicle.kind == "aircraft" else axle


def sections_of(setup: Setup, sections: dict[Axle, WheelSection]) -> list[SectionView]:
    """A section for each axle that has a brake; the first station stands for its axle."""
    found: dict[str, SectionView] = {}
    for station in (s for system in setup.systems for s in system.stations):
        if station.axle not in found:
            found[station.axle] = section_view(station, axle_words(setup, station.axle), sections.get(station.axle))
    return [found[axle] for axle in get_args(Axle) if axle in found]


HEAT = 100.0  # mm between a hose and an exhaust, a hand's breadth: common practice


def _heat(typed: dict[str, Any]) -> tuple[Level | None, str]:
    """What is said of how near a hose comes to what gets hot."""
    if "heat_mm" not in typed:
        return None, ""
    near = value_of(typed["heat_mm"], "heat_mm")
    if near < HEAT - 1e-9:
        return (
            "caution",
            f"{near:.0f} mm from the exhaust or another hot part: a hand's breadth, {HEAT:.0f} mm, or a shield between (common practice).",
        )
    return "good", f"{near:.0f} mm from the exhaust or another hot part."


_VERDICT: dict[str, tuple[Level, str]] = {
    "fits": ("good", "It reaches, and does not kink."),
    "too_short": ("danger", "Too short: it pulls tight at full droop or lock, and tears off."),
    "kinks": ("danger", "It kinks when the wheel is up."),
    "too_long": ("caution", "Too long: it hangs out and rubs. Too long is wrong too."),
}


def hose_view(axle: Axle, title: str, strings: HoseStrings | None) -> HoseView:
    """The length of a hose from three strings, where all three are known."""
    typed = {} if strings is None else strings.model_dump(exclude_none=True)

    def text(key: str) -> str:
        value = typed.get(key)
        return "" if value is None else f"{value} mm" if isinstance(value, int | float) else str(value)

    heat_level, heat_sentence = _heat(typed)
    view: HoseView = {
        "heat": text("heat_mm"), "heat_level": heat_level, "heat_sentence": heat_sentence,
        "axle": axle, "title": title, "path": f"fit.hoses.{axle}", "droop": text("droop_mm"), "bump": text("bump_mm"), "lock": text("lock_mm"),
        "ends": text("ends_mm"), "hose": text("hose_mm"), "least_mm": None, "greatest_mm": None, "verdict": "", "level": None,
        "sentence": "",
    }  # fmt: skip
    if not all(k in typed for k in ("droop_mm", "bump_mm", "lock_mm")):
        return view
    half = value_of(typed.get("ends_mm", 0), "ends_mm") / 2
    question = {
        "question": "hose_reach",
        **{k: v for k, v in typed.items() if k not in ("ends_mm", "heat_mm")},
        "ends_mm": [half, half],
    }
    try:
        told = ask_fit.hose(Asked(question))
    except BadPlace as refused:
        view["sentence"] = refused.reason
        return view
    view["least_mm"], view["greatest_mm"] = told["least_mm"], told["greatest_mm"]
    if not told["possible"]:
        view["level"], view["sentence"] = (
            "danger",
            "No one hose does both: the way at full droop and at full bump differ too much. Move an end.",
        )
    if "verdict" in told:
        view["verdict"] = told["verdict"]
        level, said = _VERDICT[told["verdict"]]
        view["level"], view["sentence"] = level, said
    return view

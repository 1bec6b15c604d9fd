"""What a pedal tells with a bathroom scale and a ruler: air from two pushes or more, and a pedal that comes up by pumping."""

from typing import Any

from kobrix.core.errors import BadEntry, BadPlace
from kobrix.core.figures import Level, Shown
from kobrix.evaluate.ask import bleed as ask_bleed
from kobrix.evaluate.ask.subject import Subject
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.quantities import read
from kobrix.stages.bleed.shapes import PumpedIn, PushesIn, ToldView

_PUSHED: dict[str, tuple[Level, str]] = {
    "as_built": ("good", "The pedal goes as far as its parts say. No more air than the setup states."),
    "air": ("caution", "Air: {air} in the {station} brakes explains it best. Bleed again, the screw on top."),
    "adjustment": ("caution", "A clearance or free play: the pedal begins {offset} further. Adjust shoes, rod or pads before you bleed again."),
    "hose_swell": ("caution", "A hose that swells: the pedal gives {swell} more the harder it is pushed. Look at the old hoses."),
    "cannot_tell": ("note", "It cannot be told yet."),
}  # fmt: skip
_WHY = {
    "below_prediction": "The pedal is shorter than its parts say: measure its travel and the pin's place again.",
    "no_single_cause": "No one cause explains all pushes: two at once, or a reading is off.",
    "several_causes_fit": "Several causes fit: at 50 N and up air looks like clearance. A push of 1 to 1.5 kg, three times, tells.",
    "too_few_open_pushes": "Two pushes with nothing clamped are needed.",
}  # fmt: skip
_PUMPED: dict[str, tuple[Level, str]] = {
    "falls": ("danger", "The pedal falls as you pump: fluid passes the seals, or leaks. Do not drive; hold the pedal and find out where."),
    "no_change": ("good", "The pedal does not come up by pumping."),
    "air_or_clearance": ("caution", "It comes up: air, or too much clearance. A hard push told beside the third one tells the two apart."),
    "air": ("caution", "It comes up, and gives more under a hard push than planned: air."),
    "knock_back": ("caution", "It comes up after the drive, and is hard then: the pads were knocked back. Look at wheel bearings and the rotor's run-out."),
    "clearance": ("caution", "It comes up, and is hard then: clearance. Adjust the shoes, or bring the pads up to the rotor."),
}  # fmt: skip


def _kept(text: str, name: str, label: str, preferred: str | None = None) -> float:
    try:
        return read(text, name, preferred).value
    except BadEntry as refused:
        raise BadEntry(label, refused.given, refused.allowed, refused.reason) from None


def _force(text: str, label: str) -> float:
    """A push as a bathroom scale shows it, or with a unit of force [N]."""
    kept = text.strip()
    mass = kept.removesuffix("kg").strip()
    return _kept(f"{mass} kgf" if mass.replace(".", "", 1).replace(",", "", 1).isdigit() else kept, "pedal_force_n", label)


def _known(job: Job, setup: str, system: str | None) -> dict[str, Any]:
    own: dict[str, Any] = {"setup": job.setup(setup).model_dump(exclude_none=True)}
    return own | ({"system": system} if system else {})


def _between(estimate: Shown | None, unit: str, digits: int) -> str:
    if estimate is None:
        return "some"
    return f"{estimate['value']:.{digits}f} {unit} ({estimate['low']:.{digits}f} to {estimate['high']:.{digits}f})"


def pushed(job: Job, asked: PushesIn) -> ToldView:
    """Why the pedal goes further than the parts say. Raises BadEntry, NotFound."""
    rows = [
        {"pedal_force_n": _force(p.force, f"push {n}"), "travel_mm": _kept(p.travel, "travel_mm", f"travel {n}")}
        for n, p in enumerate(asked.pushes, 1)
    ]
    try:
        told = ask_bleed.air(Asked({**_known(job, asked.setup, asked.system), "pushes": rows}))
    except BadPlace as refused:
        raise BadEntry(
            refused.place.replace(".", " "), "this", "pushes that this setup can answer", refused.reason.rstrip(".")
        ) from None
    level, sentence = _PUSHED[told["verdict"]]
    station = Subject(Asked(_known(job, asked.setup, asked.system))).station().name
    said = sentence.format(
        air=_between(told["air_cm3"], "cm³", 2), offset=_between(told["offset_mm"], "mm", 1), swell=_between(told["swell_cm3_per_mpa"], "cm³/MPa", 2), station=station,
    )  # fmt: skip
    more = "" if told["reason"] is None else _WHY[told["reason"]]
    predicted = [f"{t:.1f} mm" for t in told["predicted_travel_mm"]]
    return {
        "verdict": told["verdict"],
        "level": level,
        "sentence": said,
        "more": more,
        "figures": f"The parts say {', '.join(predicted)}.",
    }


def pumping(job: Job, asked: PumpedIn) -> ToldView:
    """What a pedal that comes up by pumping tells. Raises BadEntry, NotFound."""
    question: dict[str, Any] = {
        **_known(job, asked.setup, asked.system), "first_travel_mm": _kept(asked.first, "travel_mm", "first push"),
        "third_travel_mm": _kept(asked.third, "travel_mm", "third push"), "after_drive": asked.after_drive,
    }  # fmt: skip
    if asked.force.strip():
        question["pedal_force_n"] = _force(asked.force, "push")
    if asked.hard_force.strip() and asked.hard_travel.strip():
        question |= {
            "hard_force_n": _force(asked.hard_force, "hard push"),
            "hard_travel_mm": _kept(asked.hard_travel, "travel_mm", "hard push"),
        }
    try:
        told = ask_bleed.pumping(Asked(question))
    except BadPlace as refused:
        raise BadEntry(
            refused.place.replace("_", " "), "this", "readings that this setup can answer", refused.reason.rstrip(".")
        ) from None
    level, sentence = _PUMPED[told["verdict"]]
    figures = []
    if told["taken_up_cm3"] is not None:
        figures.append(f"Pumping takes up {told['taken_up_cm3']:.2f} cm³")
    if told["gap_mm_per_pad"] is not None:
        figures.append(f"as much as {told['gap_mm_per_pad']:.2f} mm at every pad")
    if told["extra_give_mm"] is not None:
        figures.append(f"under the hard push it gives {told['extra_give_mm']:.1f} mm more than planned")
    return {
        "verdict": told["verdict"],
        "level": level,
        "sentence": sentence,
        "more": "",
        "figures": f"{', '.join(figures)}." if figures else "",
    }

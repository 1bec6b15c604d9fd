"""`kobrix ask`: a file of questions, each answered by the core; a bad one is named by its place, the others still come."""

from collections.abc import Callable, Mapping
from typing import Any, TypedDict

from kobrix.core.errors import BadFile, BadPlace
from kobrix.evaluate.ask import acceptance, bed, bleed, calibrate, fit, half_done, parking, prove, stand, steps
from kobrix.fileformat.asked import Asked

FORMAT, VERSION = "kobrix-questions", 1
ANSWERS: dict[str, Callable[[Asked], Mapping[str, object]]] = {
    "wheel_clearance": fit.clearance, "joint_match": fit.joint, "line_length": fit.lines, "hose_reach": fit.hose,
    "plate": fit.adapter, "donor_rank": fit.donors, "still_missing": fit.missing, "build_steps": steps.steps, "bleed_order": prove.bleeding,
    "stop_trace": prove.trace, "stop_typed": prove.typed, "stops_compare": prove.compare, "valve_next": prove.setting,
    "pull": prove.turned, "air_from_pushes": bleed.air, "pumped": bleed.pumping, "leak_hold": bleed.holding,
    "acceptance": acceptance.accepted, "parking_brake": parking.parking, "half_done": half_done.half, "bed_recipe": bed.recipe,
    "stand_test": stand.stood, "calibrate": calibrate.calibrated,
}  # fmt: skip


class Answers(TypedDict):
    """A file of answers: each a record of its question's own kind, or what is bad and where."""

    answers: list[Mapping[str, object]]


def _answer(question: Any, setups: dict[str, Any]) -> Mapping[str, object]:
    name: Any = None
    try:
        asked = Asked(question)
        name = asked.word("question", ANSWERS)
        if isinstance(asked.value.get("setup"), str):
            known = asked.value["setup"]
            if known not in setups:
                raise asked.bad("setup", f"{known!r} was given; known are {', '.join(setups) or 'none'}.")
            asked = Asked({**asked.value, "setup": setups[known]})
        return {"question": name, **ANSWERS[name](asked)}
    except BadPlace as error:
        return {"question": name, "error": {"place": error.place, "reason": error.reason}}


def ask(document: Any) -> Answers:
    """Answers to a `document` of questions, in its order. Raises BadFile where it is none."""
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise BadFile([f"This is not a file of questions: its format must be {FORMAT!r}."])
    if document.get("version") != VERSION:
        raise BadFile([f"Questions of version {document.get('version')!r} are not known; known is {VERSION}."])
    asked, setups = document.get("ask"), document.get("setups") or {}
    if not isinstance(asked, list) or not isinstance(setups, dict):
        raise BadFile(["A file of questions has a list `ask`, and may have named `setups`."])
    return {"answers": [_answer(question, setups) for question in asked]}

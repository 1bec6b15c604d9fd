"""What a search on a setup may be made of: what is fitted, the job's shelf, the common sizes, and a first ask."""

from typing import Any

from kobrix.core.constants import STANDARD_BORES, bore_name
from kobrix.core.errors import KobrixError
from kobrix.core.rules.limits import TRAVEL
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.fileformat.fields import number_text
from kobrix.fileformat.job import Job
from kobrix.fileformat.quantities import si, value_of
from kobrix.stages.match.alone import alone, controls_to_search
from kobrix.stages.match.parts import brake_words, common_parts
from kobrix.stages.match.request import Search, default_search
from kobrix.stages.match.shapes import MatchChoices
from kobrix.stages.match.space import bounds_of, rim_mm, space_of


def choices_of(whole: Job, name: str, control: str | None = None) -> MatchChoices:
    """Everything a person may choose of for a search from the setup by `name` of the `whole` job, of several controls one by name or
    the first; the `reason` where there can be none. Raises NotFound.
    """
    controls = controls_to_search(whole.setup(name))
    own_control = alone(whole, name, control)
    job = own_control.job
    setup = job.setup(name)
    document = setup.model_dump(exclude_none=True, exclude_unset=True)
    own = setup.systems[0]
    cylinder = own.cylinder
    decel = wanted_stop([answer_of(ByContent(job.setup(n))) for n in job.names]) or 0.0
    bores = [cylinder.front.bore_mm, cylinder.rear.bore_mm] if cylinder.kind == "twin" else [cylinder.bore_mm]
    rims = {s.axle: rim for s in own.stations if (rim := rim_mm(s)) is not None}
    ask, reason = default_search(setup, name, job.shelf).model_copy(update={"control": own_control.name}), None
    limit = 0.0
    try:
        space_of(job, Search(setup=name), decel)
        limit = bounds_of(setup, Search(setup=name), decel)[1].danger
    except KobrixError as error:
        reason = str(error)
    pin = own.control.pivot_to_pin_mm
    return {
        "ask": ask, "controls": controls,
        "own": [
            {"axle": s.axle, "words": brake_words(document["systems"][0]["stations"][k]["brake"]), "drum": s.brake.kind == "drum"}
            for k, s in enumerate(own.stations)
        ],
        "twin": cylinder.kind == "twin", "linkage": own.control.linkage is not None, "booster": None if own.booster is None else own.booster.kind,
        "pin_mm": None if pin is None else value_of(pin, "pivot_to_pin_mm"),
        "bore": " and ".join(_bore(b) for b in bores),
        "valve": any(d.kind == "proportioning" for s in own.stations for d in s.devices),
        "shelf": job.shelf, "common": list(common_parts()),
        "standard_bores": [bore for bore, _ in STANDARD_BORES], "effort_limit_n": limit, "travel_limit_share": TRAVEL.danger, "decel_g": decel, "rims_mm": {str(axle): rim for axle, rim in rims.items()},
        "car": setup.vehicle.kind == "car", "reason": reason,
    }  # fmt: skip


def _bore(typed: Any) -> str:
    if typed is None:
        return "not known"
    return bore_name(si(typed, "bore_mm")) or (typed if isinstance(typed, str) else f"{number_text(typed)} mm")

"""The figures of a setup that go on paper: at the stop that is wanted, beside those of the vehicle as found, in words."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from kobrix.evaluate.shapes import Moment
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.stages.size.service import moment_at

UNKNOWN = "not known"
Kind = Literal["push", "travel", "pressure", "share", "lock"]


@dataclass(frozen=True)
class PaperFigure:
    """A figure in words, as found and in the setup."""

    kind: Kind
    words: str
    found: str
    plan: str


def _wanted(job: Job) -> float | None:
    return wanted_stop([answer_of(ByContent(job.setup(name))) for name in job.names])


def moment_of(job: Job, name: str) -> Moment | None:
    """The setup by `name` at the stop that the job wants; None where it is not known, or never reached."""
    wanted, setup = _wanted(job), job.setup(name)
    if wanted is None or answer_of(ByContent(setup)).solved is None:
        return None
    moment = moment_at(setup, 0, None, wanted)
    return moment if moment["decel_g"] > 0 else None


def _travel(moment: Moment) -> str:
    known = [t for s in moment["systems"].values() if (t := s.get("pedal_travel_mm")) is not None]
    return f"{max(known):.0f} mm" if known else UNKNOWN


def _share(moment: Moment) -> str:
    own = moment["front_brake_share"]
    return UNKNOWN if own is None else f"{100 * own:.0f} %"


def _pressure(job: Job, name: str, axle: str) -> Callable[[Moment], str]:
    own = {s.name for system in job.setup(name).systems for s in system.stations if s.axle == axle}

    def told(moment: Moment) -> str:
        known = [s["pressure_kpa"] for system in moment["systems"].values() for n, s in system["stations"].items() if n in own]
        return f"{max(known) / 1000:.2f} MPa" if known else "none"

    return told


def _lock(job: Job, name: str) -> str:
    solved = answer_of(ByContent(job.setup(name))).solved
    least = float("inf") if solved is None else float(solved.main.lock_decel.min())
    return "nothing locks" if least == float("inf") else f"{least:.2f} g"


def figures_of(job: Job, name: str) -> tuple[PaperFigure, ...]:
    """The figures of the setup by `name`; none where it cannot be solved yet. Raises NotFound."""
    found, plan, wanted = moment_of(job, AS_FOUND), moment_of(job, name), _wanted(job)
    if plan is None or wanted is None:
        return ()

    def row(kind: Kind, words: str, key: Callable[[Moment], str], was: Callable[[Moment], str] | None = None) -> PaperFigure:
        return PaperFigure(kind, words, UNKNOWN if found is None else (was or key)(found), key(plan))

    axles = {s.axle for system in job.setup(name).systems for s in system.stations}
    return (
        row("push", f"push for {wanted:.2f} g", lambda m: f"{m['pedal_force_n']:.0f} N"),
        row("travel", "pedal travel there", _travel),
        *(row("pressure", f"line pressure {axle}, there", _pressure(job, name, axle), _pressure(job, AS_FOUND, axle))
          for axle in ("front", "rear") if axle in axles),
        row("share", "front share of the brake force", _share),
        PaperFigure("lock", "first lock", _lock(job, AS_FOUND), _lock(job, name)),
    )  # fmt: skip

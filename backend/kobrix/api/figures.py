"""The figures of a setup that go on paper: at the stop that is wanted, beside those of the vehicle as found, in words."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from kobrix.evaluate.shapes import Moment
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.stages.size.service import push_at

UNKNOWN = "not known"
NEVER = "no push gives it"
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
    return push_at(answer_of(ByContent(job.setup(name))), _wanted(job))


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
    known, was_known = (answer_of(ByContent(job.setup(own))).solved is not None for own in (name, AS_FOUND))
    found, plan, wanted = moment_of(job, AS_FOUND), moment_of(job, name), _wanted(job)
    if not known or wanted is None:
        return ()

    def row(kind: Kind, words: str, key: Callable[[Moment], str], was: Callable[[Moment], str] | None = None) -> PaperFigure:
        never = NEVER if kind == "push" else UNKNOWN
        before = (never if was_known else UNKNOWN) if found is None else (was or key)(found)
        return PaperFigure(kind, words, before, never if plan is None else key(plan))

    axles = {s.axle for system in job.setup(name).systems for s in system.stations}
    return (
        row("push", f"push for {wanted:.2f} g", lambda m: f"{m['pedal_force_n']:.0f} N"),
        row("travel", "pedal travel there", _travel),
        *(row("pressure", f"line pressure {axle}, there", _pressure(job, name, axle), _pressure(job, AS_FOUND, axle))
          for axle in ("front", "rear") if axle in axles),
        row("share", "front share of the brake force", _share),
        PaperFigure("lock", "first lock", _lock(job, AS_FOUND), _lock(job, name)),
    )  # fmt: skip

"""Rebuilding a cylinder: where its cups sweep in this setup, and whether a pit lies in their way."""

from kobrix.core.figures import Level
from kobrix.core.physics.solved_setup import SolvedSetup
from kobrix.evaluate.solve import ByContent, answer_of, wanted_stop
from kobrix.fileformat.building import Building
from kobrix.fileformat.job import Job
from kobrix.fileformat.quantities import value_of
from kobrix.stages.build.shapes import CupView

NEAR_MM = 1.0  # how near a pit may lie and count as in the way: our estimate


def _cups(solved: SolvedSetup, decel: float | None) -> list[tuple[str, float | None, float]]:
    """Each cup by its name: how far it moves at a stop of `decel` [g], None where that is not reached or known, and at most [mm]."""
    found: list[tuple[str, float | None, float]] = []
    healthy = solved.main.healthy
    place, reached = healthy.reach(0.0 if decel is None else decel)
    several = len(solved.systems) > 1
    for pull in healthy.pulls:
        cylinder, travel = pull.system.cylinder, pull.pedal.travel
        chambers = [(c, None if c.stroke is None else float(c.stroke)) for c in cylinder.chambers]
        own: list[float | None] = []
        for chamber, _ in chambers:
            known = travel is not None and decel is not None and bool(reached.all())
            moved = float(travel.chambers[chamber.name].at(pull.place(place)).max()) if known and travel is not None else None
            own.append(None if moved is None else 1e3 * (moved + float(chamber.lost) * (moved > 0)))
        before = f"{pull.system.name}, " if several else ""
        for n, (chamber, stroke) in enumerate(chambers):
            if stroke is None:
                continue
            if cylinder.kind == "tandem" and n == 0:  # the primary's piston pushes the other's along
                whole = [s for _, s in chambers if s is not None]
                at = None if any(o is None for o in own) else sum(o for o in own if o is not None)
                found.append((f"{before}primary cup", at, 1e3 * sum(whole)))
            else:
                name = (
                    "secondary cup" if cylinder.kind == "tandem" else f"{chamber.name} cup" if cylinder.kind == "twin" else "cup"
                )
                found.append((f"{before}{name}", own[n], 1e3 * stroke))
    return found


def _verdict(pit: float | None, at_stop: float | None, most: float) -> tuple[Level | None, str]:
    if pit is None:
        return None, ""
    if at_stop is not None and pit <= at_stop + NEAR_MM:
        return (
            "danger",
            "In the cup's way at every hard stop: it wears and passes fluid. A sleeve or another cylinder; its maker says what may be honed.",
        )
    if pit <= most + NEAR_MM:
        return "danger", "In the cup's way when a circuit is lost or the pedal goes far: then the last brakes are gone too."
    return "good", f"Beyond the cup's way by {pit - most:.1f} mm: no seal ever stands there."


def cups_of(job: Job, name: str, own: Building) -> list[CupView]:
    """The cups of the cylinders of the setup by `name`, with the pits that were found. Common practice; the sweep is the model's."""
    answers = {n: answer_of(ByContent(job.setup(n))) for n in job.names}
    solved = answers[name].solved
    if solved is None:
        return []
    views: list[CupView] = []
    for cup, at_stop, most in _cups(solved, wanted_stop(list(answers.values()))):
        typed = (own.pits or {}).get(cup)
        level, sentence = _verdict(None if typed is None else value_of(typed, "pit_mm"), at_stop, most)
        text = "" if typed is None else f"{typed:g} mm" if isinstance(typed, int | float) else typed
        views.append({"name": cup, "at_stop_mm": at_stop, "most_mm": most, "pit": text, "level": level, "sentence": sentence})
    return views

"""The stages of the job in their order. A stage is one folder, and one line here."""

from dataclasses import dataclass

from kobrix.stages.common import Stage
from kobrix.stages.fit.stage import FIT
from kobrix.stages.match.stage import MATCH
from kobrix.stages.measure.stage import MEASURE
from kobrix.stages.size.stage import SIZE

STAGES: tuple[Stage, ...] = (MEASURE, SIZE, MATCH, FIT)


@dataclass(frozen=True)
class Later:
    """A stage that is not built yet."""

    title: str


LATER: tuple[Later, ...] = tuple(map(Later, ("Build", "Bleed", "Bed", "Prove")))


def stage_by_path(path: str) -> Stage | None:
    """The stage whose page is at `path`, None when there is none."""
    return next((stage for stage in STAGES if stage.path == path), None)

"""The stages of the job in their order. A stage is one folder, and one line here."""

from kobrix.stages.bed.stage import BED
from kobrix.stages.bleed.stage import BLEED
from kobrix.stages.build.stage import BUILD
from kobrix.stages.common import Stage
from kobrix.stages.fit.stage import FIT
from kobrix.stages.match.stage import MATCH
from kobrix.stages.measure.stage import MEASURE
from kobrix.stages.prove.stage import PROVE
from kobrix.stages.size.stage import SIZE

STAGES: tuple[Stage, ...] = (MEASURE, SIZE, MATCH, FIT, BUILD, BLEED, BED, PROVE)


# The work in its order; a stage that is not built yet is only named.
ORDER = ("Measure", "Size", "Fit", "Build", "Bleed", "Bed", "Prove")


def stage_by_path(path: str) -> Stage | None:
    """The stage whose page is at `path`, None when there is none."""
    return next((stage for stage in STAGES if stage.path == path), None)


def in_order() -> list[tuple[str, Stage | None]]:
    """The stages of the strip in the order of the work, None for one that is not built yet."""
    built = {stage.title: stage for stage in STAGES if stage.standing is not None}
    return [(title, built.get(title)) for title in ORDER]

"""Measure: the sheet of one setup, and how much of the job is measured."""

from kobrix.evaluate.entries.shapes import Sheet
from kobrix.evaluate.entries.sheet import measure_sheet, measured
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.stages.common import Progress, Standing, StoredJob
from kobrix.stages.measure.shapes import MeasureView


def sheet_of(job: Job, revision: int, setup: str) -> MeasureView:
    """The sheet of the `setup` by name, as of a `revision` of the job. Raises NotFound."""
    sheet: Sheet = measure_sheet(job, setup)
    return {**sheet, "page": "measure", "revision": revision}


def standing(stored: StoredJob) -> Standing:
    """How far Measure is: what is measured as found, and whether it is in doubt."""
    at = measured(stored.job)
    done, total, doubted = at["done"], at["total"], at["doubted"]
    state: Progress = "empty" if done == 0 else "begun" if done < total else "doubt" if doubted > 0 else "ready"
    words = {"empty": "empty", "begun": f"{done} of {total}", "doubt": f"{doubted} unsure", "ready": "ready"}
    return {"state": state, "words": words[state]}


def shown(stored: StoredJob, setup: str | None) -> MeasureView:
    """What Measure shows of a setup after a change."""
    return sheet_of(stored.job, stored.revision, setup if setup in stored.job.names else AS_FOUND)

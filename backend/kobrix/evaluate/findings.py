"""What the rules of practice say of a setup, danger first: in words, with chances, what would settle them and what would mend them."""

import math

from kobrix.core.figures import Level
from kobrix.core.rules.limits import LEVELS, Judgement
from kobrix.evaluate.mends import mends_of
from kobrix.evaluate.shapes import DoubtedEntry, Finding
from kobrix.evaluate.solve import Answer, ByContent
from kobrix.evaluate.uncertainty import SEED, TRIALS, Entered, bare, uncertain_entries
from kobrix.evaluate.verdicts import Tried, nominal, tried
from kobrix.fileformat.models import Setup
from kobrix.fileformat.shelf import ShelfPart


def finding_of(one: Judgement, was: dict[str, Level] | None, studied: Tried | None) -> Finding:
    """A judgement in words; `was`: the levels as found, None for the vehicle as found itself."""
    error = None
    if one.chance is not None and studied is not None:
        error = math.sqrt(one.chance * (1.0 - one.chance) / studied.trials)
    before = None if was is None else was.get(one.id)
    return {
        "id": one.id, "rule": one.rule, "kind": one.kind, "level": one.level, "sentence": one.sentence, "reason": one.reason,
        "source": one.source, "value": one.value, "limit": one.limit, "unit": one.unit, "links": list(one.links), "chance": one.chance,
        "chance_limit": one.chance_limit, "sampling_error": error,
        "was_so": None if was is None else before is not None and LEVELS.index(before) <= LEVELS.index(one.level),
        "settle": [] if studied is None else studied.settle.get(one.id, []),
        "by_stops": 0.0 if studied is None else studied.by_stops.get(one.id, 0.0),
        "mends": [], "state": "tried" if one.tried else "nominal",
    }  # fmt: skip


def nominal_findings(answer: Answer, found: Answer | None, wanted: float | None = None) -> list[Finding]:
    """Judgements on an answer before its trials have run; those that wait for them are marked nominal."""
    was = None if found is None else {j.id: j.level for j in nominal(found, None, wanted)}
    return [finding_of(one, was, None) for one in nominal(answer, found, wanted)]


def tried_findings(
    known: ByContent[Setup],
    as_found: ByContent[Setup] | None,
    wanted: float | None,
    entered: Entered,
    before: Entered | None = None,
    trials: int = TRIALS,
    seed: int = SEED,
) -> list[Finding]:
    """Judgements on a setup with their chances and what would settle them, danger first; against the one `as_found`, whose entries are
    known as `before` says."""
    studied = tried(known, as_found, wanted, entered, trials, seed)
    if studied is None:
        return []
    was = None
    if as_found is not None:
        then = tried(as_found, None, wanted, before or entered, trials, seed)
        was = {} if then is None else {j.id: j.level for j in then.judgements}
    return [finding_of(one, was, studied) for one in studied.judgements]


def with_mends(
    found: list[Finding],
    known: ByContent[Setup],
    as_found: ByContent[Setup] | None,
    wanted: float | None,
    entered: Entered,
    shelf: tuple[ByContent[ShelfPart], ...] = (),
) -> list[Finding]:
    """`found` with the mends that were tried and keep what they promise."""
    mends = mends_of(known, as_found, wanted, entered, shelf)
    return [{**one, "mends": mends.get(one["id"], [])} for one in found]


def doubts_document(setup: Setup, entered: Entered) -> list[DoubtedEntry]:
    """Every entry of a `setup` that was drawn, and those that a person says are exact."""
    return [
        {"path": e.path, "standing": e.standing, "least": e.least, "most": e.most}
        for e in uncertain_entries(setup, entered)
    ]  # fmt: skip


def findings(
    answer: Answer, found: Answer | None = None, entered: Entered | None = None, trials: int = TRIALS, seed: int = SEED
) -> list[Finding]:
    """Judgements on an answer, tried, with their mends: what a file or the command line is told."""
    if answer.solved is None:
        return []
    known = ByContent(answer.setup)
    then = None if found is None else ByContent(found.setup)
    said = entered or bare()
    told = tried_findings(known, then, None, said, None, trials, seed)
    return with_mends(told, known, then, None, said)

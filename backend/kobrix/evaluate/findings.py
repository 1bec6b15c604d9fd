"""What the rules of practice say of a solved setup, danger first, each with what would mend it as edits of the file."""

from functools import lru_cache

from kobrix.core.rules import limits, remedies
from kobrix.core.rules.limits import Judgement, Level
from kobrix.core.rules.run import judge
from kobrix.evaluate.remedies import edits_of
from kobrix.evaluate.shapes import Finding
from kobrix.evaluate.solve import Answer, facts_of


def _bench(answer: Answer, found: Answer | None) -> limits.Bench | None:
    if answer.solved is None:
        return None
    return limits.Bench(answer.solved, answer.converted.load_names, facts_of(answer), found.solved if found is not None else None)


@lru_cache(maxsize=96)
def _judged(answer: Answer, found: Answer | None) -> list[Judgement]:
    bench = _bench(answer, found)
    return [] if bench is None else judge(bench)


def worst_level(answer: Answer, found: Answer | None = None) -> Level | None:
    """The level of the worst judgement on an `answer`; None where nothing can be judged."""
    judged = _judged(answer, found)
    return judged[0].level if judged else None


def findings(answer: Answer, found: Answer | None = None) -> list[Finding]:
    """Judgements on an answer, danger first, with their mends as edits; `found` is the setup as found, to compare with."""
    bench = _bench(answer, found)
    if bench is None:
        return []
    docs: list[Finding] = []
    for item in remedies.offer(bench, _judged(answer, found)):
        mend = item.mend
        docs.append({
            "id": item.id, "rule": item.rule, "kind": item.kind, "level": item.level, "sentence": item.sentence,
            "reason": item.reason, "source": item.source, "value": item.value, "limit": item.limit,
            "mend": None if mend is None else {
                "kind": mend.kind, "label": mend.label, "name": mend.name, "edits": edits_of(mend, answer.setup, item.system),
            },
        })  # fmt: skip
    return docs

"""What the questions share: the load state, path and station they name, and a reason where there is no answer."""

from collections.abc import Callable
from typing import Any, TypeVar, cast

from kobrix.core.errors import BadEntry, Impossible
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup
from kobrix.evaluate.solve import Answer
from kobrix.fileformat.questions import OfOne
from kobrix.fileformat.stations import Station


def where(answer: Answer, solved_setup: SolvedSetup, asked: OfOne) -> tuple[int, SolvedPath]:
    """Load state and control path of a question. Raises BadEntry with the names there are."""
    names, load = answer.converted.load_names, 0
    if asked.load_state is not None:
        if asked.load_state not in names:
            raise BadEntry("load_state", repr(asked.load_state), " or ".join(map(repr, names)))
        load = names.index(asked.load_state)
    if asked.path is None:
        return load, solved_setup.main
    if asked.path not in solved_setup.paths:
        raise BadEntry("path", repr(asked.path), " or ".join(map(repr, solved_setup.paths)))
    return load, solved_setup.paths[asked.path]


def station_named(answer: Answer, name: str) -> Station:
    """The station of that name. Raises BadEntry with the names there are."""
    stations = [s for system in answer.setup.systems for s in system.stations]
    found = next((s for s in stations if s.name == name), None)
    if found is None:
        raise BadEntry("station", repr(name), " or ".join(repr(s.name) for s in stations))
    return found


Answered = TypeVar("Answered")


def or_reason(names: tuple[str, ...], work: Callable[[], Answered]) -> Answered:
    """The answer, or null for each of `names` with the reason."""
    try:
        return work()
    except Impossible as refused:
        nothing: Any = {**dict.fromkeys(names), "reason": f"{refused}"}
        return cast(Answered, nothing)

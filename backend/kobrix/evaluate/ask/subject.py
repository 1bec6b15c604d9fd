"""The setup that a question is asked of: read, changed and solved, with what fails named by its place."""

import copy
from collections.abc import Iterable
from functools import cached_property
from typing import Any

import numpy as np
from pydantic import ValidationError

from kobrix.core.constants import G
from kobrix.core.errors import BadEntry, BadPlace, Impossible
from kobrix.core.numerics.arrays import Number, lookup
from kobrix.core.physics.chain import Place, Station, System
from kobrix.core.physics.failures import LIMITS
from kobrix.core.physics.paths import Pull, Solved, solve_path
from kobrix.core.physics.solved_setup import SolvedPath, SolvedSetup
from kobrix.evaluate.solve import Answer
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.models import Setup

Document = dict[str, Any]


def read_setup(document: Any, place: str) -> Setup:
    """The setup of a `document`; BadPlace at its own dotted path below `place` where it is none."""
    if not isinstance(document, dict):
        raise BadPlace(place, "a setup is wanted here.")
    try:
        return Setup.model_validate(
            {"format": "kobrix-setup", "version": 1} | {k: v for k, v in document.items() if k != "questions"}
        )
    except ValidationError as error:
        first = error.errors(include_url=False, include_context=False)[0]
        parts = _real(document, [str(p) for p in first["loc"]])
        raise BadPlace(".".join([place, *parts]), first["msg"]) from None


def _real(document: Any, parts: list[str]) -> list[str]:
    """The `parts` of an error's place that stand in the document: the names of alternatives among them are left out."""
    found: list[str] = []
    for n, part in enumerate(parts):
        last = n == len(parts) - 1
        if isinstance(document, list) and part.isdecimal() and int(part) < len(document):
            document = document[int(part)]
        elif isinstance(document, dict) and part in document:
            document = document[part]
        elif not (isinstance(document, dict) and last):
            continue
        found.append(part)
    return found


def set_in(document: Document, path: str, value: Any) -> None:
    """Put `value` at a dotted `path` of a `document`, None takes it away. Raises KeyError where the way is not there."""
    *way, name = path.split(".")
    here: Any = document
    for part in way:
        if isinstance(here, list):
            if not part.isdecimal() or int(part) >= len(here):
                raise KeyError(path)
            here = here[int(part)]
        elif isinstance(here, dict):
            here = here.setdefault(part, {}) if value is not None else here.get(part, {})
        else:
            raise KeyError(path)
    if isinstance(here, list):
        if not name.isdecimal() or int(name) >= len(here):
            raise KeyError(path)
        if value is None:
            del here[int(name)]
        else:
            here[int(name)] = value
    elif isinstance(here, dict):
        if value is None:
            here.pop(name, None)
        else:
            here[name] = value
    else:
        raise KeyError(path)


def solved_of(setup: Setup, place: str) -> tuple[Answer, SolvedSetup]:
    """A setup solved; BadPlace at what is missing in it."""
    try:
        answer = Answer(setup)
    except (BadEntry, Impossible) as error:
        raise BadPlace(place, str(error)) from None
    if answer.solved is None:
        missing = (answer.needs.get("decel") or answer.needs.get("travel") or ["systems"])[0]
        raise BadPlace(f"{place}.{missing}", "it is missing.")
    return answer, answer.solved


def circuits_lost(path: SolvedPath, solved: SolvedSetup) -> list[tuple[str, float]]:
    """Every circuit that can be lost on a `path`, and the least deceleration [g] over load states without it; none where it is not known."""
    found: list[tuple[str, float]] = []
    for c, failing in enumerate(solved.conditions):
        if path.left is None or failing.kind != "circuit" or not failing.befalls(path.failed):
            continue
        nothing = path.left.limited[..., c] == LIMITS.index("all_lost")
        found.append((str(failing.what), float(np.min(np.where(nothing, 0.0, path.left.best[..., c])))))
    return found


class Subject:
    """A solved setup with the path, load state, system and station that a question names; the usual ones where it names none."""

    def __init__(self, asked: Asked) -> None:
        self.asked = asked
        self.document: Document = copy.deepcopy(asked.raw("setup"))
        self.setup = read_setup(self.document, asked.at("setup"))
        self.answer, self.solved = solved_of(self.setup, asked.at("setup"))
        paths = list(self.solved.paths)
        self.path_name = asked.word("path", paths, paths[-1])
        names = list(self.answer.converted.load_names)
        self.load = names.index(asked.word("load_state", names, names[0]))
        systems = [p.system.name for p in self.path.healthy.pulls]
        self.system_name = asked.word("system", systems, systems[0])

    @property
    def path(self) -> SolvedPath:
        """The control path that is asked of."""
        return self.solved.paths[self.path_name]

    @cached_property
    def pull(self) -> Pull:
        """The control that is asked of, on that path."""
        return next(p for p in self.path.healthy.pulls if p.system.name == self.system_name)

    @property
    def system(self) -> System:
        """Its system, with its valves settled."""
        return self.pull.system

    @property
    def twin(self) -> bool:
        """Whether it presses two cylinders through a bar."""
        return self.system.cylinder.kind == "twin"

    def station(self, key: str = "station") -> Station:
        """The station named at `key`, the system's first where none is."""
        names = [s.name for s in self.system.stations]
        return self.system.station(self.asked.word(key, names, names[0]))

    def on_axle(self, axle: str) -> Station | None:
        """The system's first station on an `axle`."""
        return next((s for s in self.system.stations if s.axle == axle), None)

    def fluid(self) -> str:
        """The fluid in the system."""
        return next(s.fluid for s in self.setup.systems if s.name == self.system_name)

    def again(self, system: System, air: dict[str, Number] | None = None) -> Solved:
        """The path solved with another `system` in place of the one of its name; `air` {station: [m³]} in place of the lines' own."""
        pulls = [(system if p.system.name == system.name else p.system, p.ratio) for p in self.path.healthy.pulls]
        held = None if air is None else {system.name: air}
        return solve_path(self.path_name, pulls, self.solved.load, self.solved.wheels, air=held)

    def one(self, values: Any) -> float:
        """The figure of the load state that is asked of."""
        array = np.asarray(values, dtype=np.float64)
        if array.ndim > 1 and array.shape[0] > 1:
            array = array[self.load]
        return float(array.reshape(-1)[0])

    def own_pull(self, solved: Solved) -> Pull:
        """The control that is asked of, on a path solved again."""
        return next(p for p in solved.pulls if p.system.name == self.system_name)

    def travel(self, solved: Solved, place: Place) -> float:
        """Pad travel [mm] of the control at a `place` of the path."""
        pull = self.own_pull(solved)
        if pull.pedal.travel is None:
            raise BadPlace(self.asked.at("setup"), "its lines are not known: there is no travel.")
        return self.one(pull.pedal.pad_at(pull.place(place))) * 1000

    def travel_at(self, solved: Solved, push: float) -> float:
        """Pad travel [mm] of the control at a `push` [N] on the path."""
        return self.travel(solved, solved.place_at(push))

    def pressure(self, solved: Solved, place: Place, station: str) -> float:
        """Pressure [Pa] behind the valves of a `station` at a `place` of the path."""
        pull = self.own_pull(solved)
        own = pull.place(place)
        branch = next(n for n, b in enumerate(pull.pedal.line.branches) if b.station.name == station)
        return self.one(lookup(pull.pedal.line.outlet[branch], own.knot, own.fraction))

    def pressure_at(self, push: float, station: str) -> float:
        """Pressure [Pa] of a `station` at a `push` [N] on the healthy path."""
        return self.pressure(self.path.healthy, self.path.healthy.place_at(push), station)

    def decel_at(self, solved: Solved, push: float) -> float:
        """Deceleration [g] that the brakes give at a `push` [N], nothing sliding."""
        return self.one(solved.at(solved.place_at(push)).decel)

    @property
    def area(self) -> float:
        """Area [mm²] of the cylinder's bore. BadPlace of a twin."""
        if self.twin:
            raise self.asked.bad("setup", "it has two cylinders: give bore_mm and ratio.")
        return self.one(self.system.cylinder.chambers[0].area) * 1e6

    @property
    def ratio(self) -> float:
        """Pedal ratio [1] at rest."""
        start = Place(np.zeros((1,), dtype=np.int64), np.zeros(1))
        return self.one(self.pull.pedal.ratio_at(start))


def push_of(asked: Asked, key: str = "pedal_force_n") -> float:
    """A push [N]: typed, or by a bathroom scale under the foot."""
    if not asked.given(key) and asked.given("scale_kg"):
        return asked.number("scale_kg") * G
    return asked.number(key)


def words_of(asked: Asked, key: str, known: Iterable[str]) -> list[str]:
    """The words listed at `key`, each one of the `known`."""
    names = list(known)
    found = asked.texts(key, 0)
    for k, word in enumerate(found):
        if word not in names:
            raise asked.bad(f"{key}.{k}", f"{word!r} was given; allowed are {', '.join(names)}.")
    return found

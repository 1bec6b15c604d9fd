"""A vehicle of several controls, one at a time: the job with only the control that is searched, and the way back to the whole."""

import re
from dataclasses import dataclass
from typing import Any

from kobrix.core.errors import NotFound
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit

_PATH = re.compile(r"^(as_found|plans\.\d+)\.systems\.(\d+)\.(.+)$")


def controls_to_search(setup: Setup) -> list[str]:
    """Names of the controls of a `setup` that can be searched, one at a time; none where there is one with all the brakes."""
    several = len(setup.systems) > 1 or any(s.seconds for s in setup.systems)
    return [s.name for s in setup.systems] if several else []


@dataclass(frozen=True)
class Alone:
    """A `job` whose setups have only the control by `name`, as one pulls it and no other; None: there is one control anyway.

    `index` is its place among the systems of the setup that is searched, `roots` that of each setup by the root of its paths.
    """

    job: Job
    name: str | None
    index: int
    roots: dict[str, int]

    def edits(self, own: list[Edit]) -> list[Edit]:
        """Edits below the setup of the control alone as edits below the whole setup."""
        if self.name is None or self.index == 0:
            return own
        there = f"/systems/{self.index}/"
        return [{**edit, "path": edit["path"].replace("/systems/0/", there, 1)} for edit in own]

    def path(self, own: str) -> str:
        """A dotted path in the job of the control alone as one in the whole job."""
        found = _PATH.match(own)
        if self.name is None or found is None:
            return own
        root, _, below = found.groups()
        return f"{root}.systems.{self.roots.get(root, 0)}.{below}"


def alone(job: Job, setup: str, control: str | None) -> Alone:
    """The `control` by name of a `job` on its own, the first where none is named; searched is the setup by name.

    Setups that do not have it keep what they have. Raises NotFound with the names there are.
    """
    names = controls_to_search(job.setup(setup))
    if not names:
        return Alone(job, None, 0, {})
    name = names[0] if control is None else control
    if name not in names:
        raise NotFound("control", name, ", ".join(names))
    document: dict[str, Any] = job.model_dump(mode="json", exclude_unset=True)
    roots: dict[str, int] = {}
    for root, part in (("as_found", document["as_found"]), *((f"plans.{n}", p) for n, p in enumerate(document.get("plans", [])))):
        for i, system in enumerate(part["systems"]):
            if system["name"] == name:
                roots[root] = i
                part["systems"] = [{key: value for key, value in system.items() if key != "second_control"}]
                break

    def home(path: str) -> str | None:
        found = _PATH.match(path)
        if found is None or found[1] not in roots:
            return path
        return f"{found[1]}.systems.0.{found[3]}" if int(found[2]) == roots[found[1]] else None

    for key in ("assumed", "exact"):
        if key in document:
            document[key] = [own for path in document[key] if (own := home(path)) is not None]
    if "tolerances" in document:
        document["tolerances"] = {own: text for path, text in document["tolerances"].items() if (own := home(path)) is not None}
    return Alone(files.check(Job, document), name, roots[job.root(setup)], roots)

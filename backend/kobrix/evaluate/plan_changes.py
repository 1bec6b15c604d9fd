"""What a plan changes against the vehicle as found: kinds of changes by axle, and the groups that are done together."""

from dataclasses import dataclass, field
from typing import Any

from kobrix.core.work.steps import AXLES, Change, in_order
from kobrix.evaluate.ask.steps import derived, differs
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.tables import table

_PEDAL = ("pin_moved",)
_CYLINDER = ("cylinder_changed", "booster_out", "booster_in", "hydraulic_booster")


def changes_of(job: Job, name: str) -> list[Change]:
    """What the setup by `name` changes against the one as found, in the order of the table. Raises NotFound."""
    if name == AS_FOUND:
        return []
    found, plan = job.setup(AS_FOUND), job.setup(name)
    told = [{"systems": [s.model_dump(exclude_none=True) for s in setup.systems]} for setup in (found, plan)]
    return in_order(table("build-steps"), derived(*told))


@dataclass(frozen=True)
class ChangeGroup:
    """What is done together: its `name`, its `changes`, the dotted paths of the setup that it `sets`, whether it `opens` the fluid."""

    name: str
    changes: tuple[Change, ...]
    opens: bool
    sets: dict[str, Any] = field(default_factory=dict)


def _opens(changes: list[Change]) -> bool:
    kinds = table("build-steps")["sets"]["open"]
    return any(c.kind in kinds for c in changes)


def groups_of(job: Job, name: str) -> list[ChangeGroup]:
    """The groups of a plan in their usual order: pedal, cylinder and booster, each axle; and the others that its parts ask for.

    What each sets in the setup as found makes the half-done states; where the systems of both are not the same, nothing is set.
    """
    changes = changes_of(job, name)
    if not changes:
        return []
    found, plan = job.setup(AS_FOUND), job.setup(name)
    same = [s.name for s in found.systems] == [s.name for s in plan.systems] and all(
        [a.name for a in x.stations] == [b.name for b in y.stations] for x, y in zip(found.systems, plan.systems, strict=True)
    )
    rows: list[tuple[str, list[Change]]] = [
        ("pedal", [c for c in changes if c.kind in _PEDAL]),
        ("cylinder", [c for c in changes if c.kind in _CYLINDER]),
        *((axle, [c for c in changes if c.axle == axle]) for axle in AXLES),
    ]  # fmt: skip
    known = [c for _, own in rows for c in own]
    rows.append(("other", [c for c in changes if c not in known]))
    made = []
    for group, own in rows:
        if own:
            sets = _sets(found, plan, group) if same else {}
            made.append(ChangeGroup(group, tuple(own), _opens(own), sets))
    return made


def _sets(found: Any, plan: Any, group: str) -> dict[str, Any]:
    """Dotted paths of the setup as found that a group sets, and what to: whole parts, so that each state is a setup."""
    sets: dict[str, Any] = {}
    for i, (old, new) in enumerate(zip(found.systems, plan.systems, strict=True)):
        if group == "pedal":
            pairs = [("control", old.control, new.control)]
        elif group == "cylinder":
            pairs = [
                ("cylinder", old.cylinder, new.cylinder),
                ("booster", old.booster, new.booster),
                ("fluid", old.fluid, new.fluid),
            ]
        else:
            pairs = [
                (f"stations.{j}", a, b)
                for j, (a, b) in enumerate(zip(old.stations, new.stations, strict=True))
                if a.axle == group or (group == "other" and a.axle == b.axle)
            ]
        for key, a, b in pairs:
            before, after = (p.model_dump(exclude_none=True) if hasattr(p, "model_dump") else p for p in (a, b))
            if differs(before, after):
                sets[f"systems.{i}.{key}"] = after
    return sets

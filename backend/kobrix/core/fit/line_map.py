"""Where the lines of a brake system are joined: from a cylinder's port through valves, tees and hoses to each brake."""

from dataclasses import dataclass
from typing import Literal

PartOfLine = Literal["cylinder", "line", "valve", "switch", "tee", "hose", "brake", "inlet"]
Sharing = Literal["alone", "first", "next"]
Kind = Literal[
    "port", "shared_in", "shared_out", "valve_in", "valve_out", "switch", "tee_in", "tee_out", "hose_in", "hose_out", "end_tee_out", "brake", "upstream_out",
    "upstream_in",
]  # fmt: skip
# Kinds of places that a change of parts opens. Common practice: what is unscrewed to swap the part.
_OPENS: dict[str, tuple[Kind, ...]] = {
    "cylinder_changed": ("port",), "booster_out": ("port",), "booster_in": ("port",), "hydraulic_booster": ("port",),
    "hand_cylinder_rebuild": ("port",), "aircraft_cylinders": ("port", "upstream_out", "upstream_in"),
    "calipers": ("brake",), "drum_to_disc": ("brake",), "wheel_cylinders": ("brake",),
    "hoses": ("hose_in", "hose_out", "brake"),
    "hard_line": ("port", "shared_in", "shared_out", "valve_in", "valve_out", "tee_in", "tee_out", "hose_in", "end_tee_out"),
    "valve": ("valve_in", "valve_out"), "line_lock": ("valve_in", "valve_out"), "park_valve": ("valve_in", "valve_out"),
    "residual_valve": ("valve_in", "valve_out"), "pressure_switch": ("switch",),
}  # fmt: skip


@dataclass(frozen=True)
class Branch:
    """What leads to the brakes of one station: `ends` calipers or wheel cylinders, `hoses` of all of them, whether there are hard
    lines, its `devices` by kind in their order, and `lanes`: how many ports of the cylinder feed it (two where circuits cross).
    `sharing`: it has the port alone, or is the first or a next one of the stations that hang on one port through a tee."""

    ends: int
    hoses: int
    hard: bool
    devices: tuple[str, ...] = ()
    lanes: int = 1
    sharing: Sharing = "alone"


@dataclass(frozen=True)
class JointPlace:
    """A place where two parts are joined, `a` on the cylinder's side, and how many of it there are; `device` is the place of the
    valve among the branch's devices."""

    key: str
    kind: Kind
    a: PartOfLine
    b: PartOfLine
    count: int
    device: int | None = None


def places_of(branch: Branch) -> list[JointPlace]:
    """The joints of a branch in the order in which fluid meets them. Common practice: one tee splits a line to both sides.

    `branch` [record].

    >>> [(p.kind, p.count) for p in places_of(Branch(ends=2, hoses=2, hard=True))]
    [('port', 1), ('tee_in', 1), ('tee_out', 2), ('hose_in', 2), ('brake', 2)]
    >>> [p.kind for p in places_of(Branch(ends=1, hoses=0, hard=True, sharing="next"))]
    ['shared_out', 'brake']
    """
    lanes = max(1, min(branch.lanes, branch.ends))
    ends, hoses = branch.ends // lanes, branch.hoses // lanes
    here: PartOfLine = "line" if branch.hard or not branch.hoses else "hose"
    found = [] if branch.sharing == "next" else [JointPlace("port", "port", "cylinder", here, lanes)]
    if branch.sharing == "first":
        found.append(JointPlace("shared-in", "shared_in", here, "tee", 1))
    if branch.sharing != "alone":
        found.append(JointPlace("shared-out", "shared_out", "tee", here, 1))
    for n, device in enumerate(branch.devices):
        if device == "switch":
            found.append(JointPlace(f"device{n}", "switch", here, "switch", lanes, n))
            continue
        found.append(JointPlace(f"device{n}-in", "valve_in", here, "valve", lanes, n))
        found.append(JointPlace(f"device{n}-out", "valve_out", "valve", here, lanes, n))

    def add(kind: Kind, a: PartOfLine, b: PartOfLine, count: int) -> None:
        found.append(JointPlace(kind.replace("_", "-"), kind, a, b, count * lanes))

    if not hoses or not branch.hard:
        # Lines alone, or hoses alone from the cylinder on: two hoses share its port on one double banjo bolt.
        if ends > max(1, hoses):
            add("tee_in", here, "tee", 1)
            add("tee_out", "tee", here, ends)
        add("brake", here, "brake", ends)
        return found
    split = min(hoses, ends)
    if split > 1:
        add("tee_in", "line", "tee", 1)
        add("tee_out", "tee", "line", split)
    add("hose_in", "line", "hose", split)
    if ends > split:
        add("hose_out", "hose", "tee", split)
        add("end_tee_out", "tee", "line", ends)
        add("brake", "line", "brake", ends)
    else:
        add("brake", "hose", "brake", ends)
    return found


def upstream_places() -> list[JointPlace]:
    """The joints between a second cylinder in series and the one that it feeds."""
    return [
        JointPlace("out", "upstream_out", "cylinder", "line", 1),
        JointPlace("in", "upstream_in", "line", "inlet", 1),
    ]


def opened_by(changes: list[str]) -> set[Kind]:
    """Kinds of places that are opened by these kinds of `changes`.

    `changes` [kinds].

    >>> sorted(opened_by(["hoses", "pads"]))
    ['brake', 'hose_in', 'hose_out']
    """
    return {kind for change in changes for kind in _OPENS.get(change, ())}

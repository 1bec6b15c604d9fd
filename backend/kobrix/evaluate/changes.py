"""Changes that may mend a finding, each as the edits of the file that it makes: what can be bought, bent or set, least change first."""

import copy
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from kobrix.core.constants import SAME_SIZE, STANDARD_BORES
from kobrix.core.physics.disc import side_area
from kobrix.core.rules.limits import PSI
from kobrix.fileformat.models import Handled, Setup, SingleCylinder, TandemCylinder, TwinCylinder, controls_of
from kobrix.fileformat.paths import Edit, set_at
from kobrix.fileformat.quantities import si
from kobrix.fileformat.shelf import ShelfPart
from kobrix.fileformat.stations import DiscBrake, DrumBrake, Station

# Piston and wheel cylinder sizes that are common: common practice.
PISTONS = (28.6, 30.2, 31.8, 33.0, 34.0, 36.0, 38.1, 40.0, 41.3, 43.0, 45.0, 48.0, 51.0, 54.0, 57.0, 60.0)
WHEEL_CYLINDERS = (14.3, 15.9, 17.5, 19.05, 20.6, 22.2, 23.8, 25.4)
PADS = (0.30, 0.35, 0.40, 0.45)  # a usual pad in the middle and at the ends of its letters
_NEAREST = 5  # sizes to either side that are looked at
_RATIOS = (3.5, 4.0, 4.5, 5.0, 5.5, 6.0, 6.5, 7.0)


@dataclass(frozen=True)
class Change:
    """One change: its `kind`, a `label` to press, the `name` of what is then looked at, its `edits` below the setup, and how much of a
    `change` it is [1], least first; the `family` of parts of which only one is ever offered in one mend; `edge` [Pa] of a valve."""

    kind: str
    label: str
    name: str
    edits: tuple[Edit, ...]
    change: float
    family: str
    edge: float | None = None


def _as_a_name(words: str) -> str:
    """Words in which a size in mm is what a part is sold as: written with a space that does not break, it is put in no other unit."""
    return words.replace(" mm", "\u00a0mm")


def with_edits(setup: Setup, edits: tuple[Edit, ...]) -> Setup:
    """The `setup` as it is with `edits` made in it. Raises a validation error where they do not fit it."""
    document = copy.deepcopy(setup.model_dump(exclude_none=True, exclude_unset=True))
    for edit in edits:
        here: Any = document
        steps = edit["path"].split("/")[1:]
        for step in steps[:-1]:
            here = here[int(step)] if isinstance(here, list) else here.setdefault(step, {})
        if isinstance(here, list):
            here[int(steps[-1])] = edit["value"]
        else:
            here[steps[-1]] = edit["value"]
    return Setup.model_validate(document)


def both(first: Change, second: Change) -> Change:
    """Two changes as one."""
    return Change(
        f"{first.kind}+{second.kind}", f"{first.label}, {second.name}", f"{first.name}, {second.name}", (*first.edits, *second.edits),
        first.change + second.change + 1.0, f"{first.family}+{second.family}", first.edge or second.edge,
    )  # fmt: skip


def _place(setup: Setup, system: str | None) -> Handled | None:
    """The control by name, of one only where no name is given."""
    places = controls_of(setup.systems)
    if system is None:
        return places[0] if len(setup.systems) == 1 else None
    return next((c for c in places if c.name == system), None)


def _cylinder(place: Handled) -> Any:
    """The cylinder that a control presses: its system's own, or a second control's."""
    if place.path == place.owner:
        return place.system.cylinder
    return next(second.cylinder for name, second in place.system.seconds if name == place.name)


def bores(setup: Setup, system: str | None) -> Iterator[Change]:
    """Other standard bores for a control, nearest first; of twin cylinders each on its own."""
    place = _place(setup, system)
    if place is None:
        return
    cylinder = _cylinder(place)
    own: list[tuple[str, Any]] = []
    if isinstance(cylinder, SingleCylinder | TandemCylinder):
        own = [("", cylinder)]
    elif isinstance(cylinder, TwinCylinder):
        own = [("front", cylinder.front), ("rear", cylinder.rear)]
    for which, part in own:
        if part.bore_mm is None:
            continue
        bore = si(part.bore_mm, "bore_mm")
        others = sorted((s for s in STANDARD_BORES if abs(s[1] - bore) > SAME_SIZE), key=lambda s: abs(s[1] - bore))
        for name, size in others[: 2 * _NEAREST]:
            step = 10.0 * abs(math.log(size / bore))
            path = f"{place.path}.cylinder.{which}.bore_mm" if which else f"{place.path}.cylinder.bore_mm"
            words = _as_a_name(f"{name} {which}".strip())
            yield Change(
                f"bore_{which}" if which else "bore", f"Try {words}", words, (set_at(path, name),), 1.0 + step, "cylinder"
            )


def pins(setup: Setup, system: str | None) -> Iterator[Change]:
    """The pushrod's pin nearer or further, whole millimetres, of a straight rod."""
    place = _place(setup, system)
    if (
        place is None
        or place.control.linkage is not None
        or place.control.pivot_to_pad_mm is None
        or place.control.pivot_to_pin_mm is None
    ):
        return
    pad, pin = si(place.control.pivot_to_pad_mm, "pivot_to_pad_mm"), si(place.control.pivot_to_pin_mm, "pivot_to_pin_mm")
    for ratio in _RATIOS:
        size = round(pad / ratio * 1e3)
        if abs(size / 1e3 - pin) < 0.002 or not 3 <= size < pad * 1e3:
            continue
        edit = set_at(f"{place.path}.control.pivot_to_pin_mm", f"{size} mm")
        yield Change(
            "pin", f"Try the pin at {size} mm", f"pin at {size} mm", (edit,), 2.0 + 10.0 * abs(math.log(size / 1e3 / pin)), "pin"
        )


def _stations(setup: Setup, axle: str | None = None, system: str | None = None) -> list[tuple[str, Station]]:
    return [
        (f"systems.{i}.stations.{k}", station)
        for i, own in enumerate(setup.systems) if system is None or own.name == system or any(n == system for n, _ in own.seconds)
        for k, station in enumerate(own.stations) if axle is None or station.axle == axle
    ]  # fmt: skip


def hoses(setup: Setup, system: str | None) -> Iterator[Change]:
    """Braided hoses in place of rubber ones, all of a control's."""
    edits = []
    for path, station in _stations(setup, None, system):
        for n, hose in enumerate(station.lines.hoses if station.lines else []):
            if hose.kind == "rubber" and hose.coefficient_cm3_per_m_mpa is None:
                edits.append(set_at(f"{path}.lines.hoses.{n}.kind", "braided"))
    if edits:
        yield Change("braided", "Try braided", "braided hoses", tuple(edits), 0.5, "hoses")


def pistons(setup: Setup, axle: str, shelf: tuple[ShelfPart, ...] = ()) -> Iterator[Change]:
    """Other pistons at every brake of an `axle`: what lies on the shelf first, then common sizes, nearest first."""
    places = _stations(setup, axle)
    if not places or len({(type(s.brake), str(_sizes(s.brake))) for _, s in places}) != 1:
        return
    brake = places[0][1].brake
    for part in shelf:
        if isinstance(brake, DiscBrake) and part.kind == "caliper" and part.axle in (None, axle):
            edits = tuple(set_at(f"{path}.brake.{name}", value) for path, _ in places for name, value in part.fields.items())
            yield Change("caliper", f"Try {part.name}", part.name, edits, 0.5, f"{axle} pistons")
    sizes = _sizes(brake)
    if not sizes:
        return
    if isinstance(brake, DrumBrake):
        now = sizes[0] * 1e3
        for size in sorted(WHEEL_CYLINDERS, key=lambda s: abs(s - now)):
            if abs(size - now) > 0.2:
                edits = tuple(set_at(f"{path}.brake.wheel_cylinder_mm", f"{size:g} mm") for path, _ in places)
                words = _as_a_name(f"{size:g} mm {axle} wheel cylinders")
                yield Change("pistons", f"Try {words}", words, edits, 1.0 + 10.0 * abs(math.log(size / now)), f"{axle} pistons")  # fmt: skip
        return
    now = math.sqrt(4.0 * float(side_area([*sizes])) / math.pi / len(sizes)) * 1e3
    for size in sorted(PISTONS, key=lambda s: abs(s - now)):
        if abs(size - now) > 0.2:
            edits = tuple(set_at(f"{path}.brake.pistons_mm", [f"{size:g} mm"] * len(sizes)) for path, _ in places)
            words = _as_a_name(f"{axle} pistons of {size:g} mm")
            yield Change("pistons", f"Try {words}", words, edits, 1.0 + 20.0 * abs(math.log(size / now)), f"{axle} pistons")


def _sizes(brake: DiscBrake | DrumBrake) -> list[float]:
    if isinstance(brake, DrumBrake):
        return [] if brake.wheel_cylinder_mm is None else [si(brake.wheel_cylinder_mm, "wheel_cylinder_mm")]
    return [si(d, "pistons_mm") for d in brake.pistons_mm or []]


def pads(setup: Setup, axle: str) -> Iterator[Change]:
    """Pads or linings of more or less friction at an `axle`."""
    places = [
        (path, s) for path, s in _stations(setup, axle) if s.brake.friction is not None and s.brake.friction.cold is not None
    ]
    if not places or len(places) != len(_stations(setup, axle)):
        return
    now = max(
        si(s.brake.friction.cold, "friction")
        for _, s in places
        if s.brake.friction is not None and s.brake.friction.cold is not None
    )
    for mu in PADS:
        if abs(mu - now) >= 0.02:
            words = f"{axle} pads of {mu:.2f}"
            edits = tuple(set_at(f"{path}.brake.friction.cold", mu) for path, _ in places)
            yield Change("pads", f"Try {words}", words, edits, 1.5 + 10.0 * abs(math.log(mu / now)), f"{axle} pads")


def bars(setup: Setup) -> Iterator[Change]:
    """A balance bar set otherwise, in steps of two per cent; by its clevises, in tenths of a millimetre, where these were entered."""
    for i, system in enumerate(setup.systems):
        if not isinstance(system.cylinder, TwinCylinder):
            continue
        bar, path = system.cylinder.bar, f"systems.{i}.cylinder.bar"
        clevises = (bar.pivot_to_front_clevis_mm, bar.pivot_to_rear_clevis_mm)
        if bar.front_share is not None:
            now, span = si(bar.front_share, "front_share"), None
        else:
            front, rear = (1e3 * si(c, "clevis_mm") for c in clevises if c is not None)
            now, span = rear / (front + rear), front + rear
        for step in range(-30, 31):
            share = round(now + 0.02 * step, 3)
            if step == 0 or not 0.2 <= share <= 0.8:
                continue
            words = name = f"bar at {100 * share:.0f} % front"
            if span is None:
                edits: tuple[Edit, ...] = (set_at(f"{path}.front_share", share),)
            else:
                to_rear = round(share * span, 1)
                words += f": {span - to_rear:.1f} mm to the front clevis, {to_rear:.1f} mm to the rear"
                edits = (
                    set_at(f"{path}.pivot_to_front_clevis_mm", f"{span - to_rear:.1f} mm"),
                    set_at(f"{path}.pivot_to_rear_clevis_mm", f"{to_rear:.1f} mm"),
                )
            yield Change("bar", f"Try the {name}", words, edits, 0.2 * abs(step), "bar")


def splits(setup: Setup) -> Iterator[Change]:
    """A diagonal split in place of front and rear."""
    for i, system in enumerate(setup.systems):
        cylinder, wheels = system.cylinder, [s.wheels for s in system.stations]
        if (
            isinstance(cylinder, TandemCylinder)
            and cylinder.circuits == "front_rear"
            and wheels == [2, 2]
            and cylinder.primary_feeds is None
        ):
            edit = set_at(f"systems.{i}.cylinder.circuits", "diagonal")
            yield Change("diagonal", "Try a diagonal split", "diagonal split", (edit,), 6.0, "split")


def _listed(station: Station, drop: tuple[str, ...] = ()) -> list[dict[str, Any]]:
    kept = [d for d in station.devices if d.kind not in drop]
    return [d.model_dump(exclude_none=True, exclude_unset=True) | {"kind": d.kind} for d in kept]


def without_devices(setup: Setup, kind: str, station: str | None = None) -> Change | None:
    """The devices of a `kind` taken out, of one `station` or of all; of proportioning valves in series one stays."""
    edits = []
    for path, own in _stations(setup):
        if (station is None or own.name == station) and any(d.kind == kind for d in own.devices):
            edits.append(set_at(f"{path}.devices", _listed(own, (kind,))))
    words = {"residual": "residual valve out", "line_lock": "line lock out", "proportioning": "valve out"}.get(
        kind, f"{kind} out"
    )
    return Change(f"remove_{kind}", "Take it out", words, tuple(edits), 0.3, "valve") if edits else None


def one_of_two_valves(setup: Setup, station: str) -> Change | None:
    """The second of two proportioning valves in a `station`'s line taken out."""
    for path, own in _stations(setup):
        if own.name == station and sum(d.kind == "proportioning" for d in own.devices) > 1:
            last = max(i for i, d in enumerate(own.devices) if d.kind == "proportioning")
            kept = [d for i, d in enumerate(_listed(own)) if i != last]
            return Change(
                "remove_proportioning", "Take one out", "one valve out", (set_at(f"{path}.devices", kept),), 0.3, "valve"
            )
    return None


def valve(setup: Setup, knee: float, slope: float, bypass: bool = False, edge: float | None = None) -> Change:
    """One adjustable proportioning valve in the rear lines, its `knee` [Pa] and `slope` [1]."""
    psi = f"{knee / PSI:.0f} psi"
    own: dict[str, Any] = {"kind": "proportioning", "knee_kpa": psi, "slope": slope, "adjustable": True}
    if bypass:
        own["bypass"] = True
    edits = tuple(
        set_at(f"{path}.devices", [*_listed(station, ("proportioning",)), own]) for path, station in _stations(setup, "rear")
    )
    words = f"a valve: {psi}" + (" with bypass" if bypass else "")
    return Change("valve_bypass" if bypass else "valve", f"Try {words}", words, edits, 1.2 if bypass else 1.0, "valve", edge)


def regulator(setup: Setup, setting: float) -> Change:
    """A pressure regulator in every line, its `setting` [Pa]."""
    psi = f"{setting / PSI:.0f} psi"
    edits = tuple(
        set_at(f"{path}.devices", [*_listed(station, ("regulator", "limiting")), {"kind": "regulator", "setting_kpa": psi, "adjustable": True}])
        for path, station in _stations(setup)
    )  # fmt: skip
    return Change("regulator", f"Try a regulator: {psi}", f"a regulator: {psi}", edits, 1.0, "valve")


def boosters(setup: Setup, system: str | None) -> Iterator[Change]:
    """A larger vacuum booster, or one with a second diaphragm."""
    place = _place(setup, system)
    if place is None or place.path != place.owner or place.system.booster is None or place.system.booster.kind != "vacuum":
        return
    shells = place.system.booster.nominal_diaphragms_mm
    if not shells or place.system.booster.diaphragms_mm is not None or place.system.booster.limit_n is not None:
        return
    path, largest = f"{place.path}.booster.nominal_diaphragms_mm", max(si(d, "nominal_diaphragms_mm") for d in shells)
    for inches in (8, 9, 10, 11):
        if inches * 0.0254 > largest + 0.002 and len(shells) == 1:
            yield Change(
                "booster",
                f"Try a {inches} in booster",
                f"{inches} in booster",
                (set_at(path, [f"{inches} in"]),),
                float(inches),
                "booster",
            )
    if len(shells) == 1:
        yield Change("booster", "Try a second diaphragm", "second diaphragm", (set_at(path, [*shells, *shells]),), 6.0, "booster")


def pin_kept(setup: Setup, before: Setup, system: str | None) -> Iterator[Change]:
    """The pin where it was as found, and another bore in place of the drilling."""
    place, then = _place(setup, system), _place(before, system)
    if place is None or then is None or then.control.pivot_to_pin_mm is None:
        return
    back = set_at(f"{place.path}.control.pivot_to_pin_mm", then.control.pivot_to_pin_mm)
    for bore in bores(setup, system):
        name = bore.name
        yield Change("bore_and_pin", f"Try {name}, pin kept", f"{name}, pin kept", (*bore.edits, back), bore.change, "cylinder")

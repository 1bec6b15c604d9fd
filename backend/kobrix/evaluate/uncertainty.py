"""What a setup does not know for certain: the standing of every entry, its range, and seeded draws of all of them at once.

Four standings: assumed (its own least, usual and most), with a ±, typed bare (the usual doubt of its kind) and exact. An entry's
draw depends on its key alone, so that as found and the plans share what they have in common, and a study of 120 trials is the
first part of that of 400.
"""

import typing
import zlib
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from pydantic import BaseModel

from kobrix.core.constants import ASSUMED, STAND_INS, USUAL_DOUBTS, Known
from kobrix.core.numerics.arrays import Floats
from kobrix.core.numerics.uncertainty import three_point
from kobrix.core.physics import tyres
from kobrix.evaluate.shapes import Standing
from kobrix.fileformat import field_catalog, models, stations
from kobrix.fileformat.fields import Quantity
from kobrix.fileformat.job import Job
from kobrix.fileformat.quantities import si_factor, value_of

TRIALS, FEWER, SEED = 400, 120, 1
_STAND_INS: dict[tuple[type[BaseModel], str], str] = {
    (models.Vehicle, "grip_front"): "grip", (models.Vehicle, "grip_rear"): "grip", (stations.Friction, "cold"): "friction",
    (models.LoadState, "front_share"): "front_share", (models.LoadState, "cg_height_mm"): "cg_height",
    (models.Bored, "stroke_mm"): "stroke", (stations.DiscBrake, "pad_height_mm"): "pad_height",
}  # fmt: skip
_SHARED = {"mass_kg": "mass", "front_share": "front_share", "cg_height_mm": "cg_height"}  # one key for all load states


@dataclass(frozen=True)
class UncertainEntry:
    """An entry that may be otherwise: its `path` below the setup, the `key` of its draws, a `label`, `name` of its unit, its
    `value` and range in that unit, its `standing` and the kind of its usual doubt."""

    path: str
    key: str
    label: str
    name: str
    value: float
    least: float
    most: float
    standing: Standing
    kind: str

    @property
    def assumed(self) -> bool:
        """Whether it was not entered but assumed."""
        return self.standing == "assumed"


@dataclass(frozen=True)
class Entered:
    """What a job says of the entries of one setup below its `root`: `assumed`, `exact` {full path}, `tolerances` {full path: ±};
    `usual` {kind: width in the unit of USUAL_DOUBTS}, None where what is typed bare is exact."""

    root: str
    assumed: frozenset[str]
    exact: frozenset[str]
    tolerances: tuple[tuple[str, str], ...]
    usual: tuple[tuple[str, float], ...] | None


def said_of(job: Job, name: str, usual_doubts: bool = True) -> Entered:
    """What a `job` says of the entries of its setup by `name`; without `usual_doubts` what is typed bare is exact. Raises NotFound."""
    usual = {key: doubt.width for key, doubt in USUAL_DOUBTS.items()} | job.usual_widths()
    return Entered(
        job.root(name),
        frozenset(job.assumed),
        frozenset(job.exact),
        tuple(job.tolerances.items()),
        tuple(usual.items()) if usual_doubts else None,
    )


def bare(usual_doubts: bool = True) -> Entered:
    """What is known of a setup without a job: everything typed is typed bare."""
    usual = tuple((key, doubt.width) for key, doubt in USUAL_DOUBTS.items()) if usual_doubts else None
    return Entered("", frozenset(), frozenset(), (), usual)


@dataclass(frozen=True)
class _Entry:
    """One quantity field of a part: its dotted `path` and `key`, the `part` it stands in, whose it is, and what its numbers are."""

    path: str
    key: str
    part: BaseModel
    field: str
    quantity: Quantity
    typed: Any
    whose: str


def _entries(part: BaseModel, path: str, key: str, whose: str) -> Iterator[_Entry]:
    for field in type(part).model_fields:
        value, below, own = getattr(part, field), f"{path}.{field}", f"{key}.{field}"
        if isinstance(value, BaseModel):
            yield from _entries(value, below, own, whose)
        elif isinstance(value, list) and value and isinstance(value[0], BaseModel):
            for n, item in enumerate(value):
                name = getattr(item, "name", None)
                yield from _entries(item, f"{below}.{n}", f"{own}.{name or n}", name or whose)
        elif isinstance(value, list):
            quantity = _quantity(type(part), field)
            for n, item in enumerate(value if quantity is not None else []):
                assert quantity is not None
                place = f"{below}.{n}".removeprefix("."), f"{own}.{n}".removeprefix(".")
                yield _Entry(*place, part, field, quantity, item, whose)
        elif not isinstance(value, dict | bool):
            quantity = _quantity(type(part), field)
            if quantity is not None:
                yield _Entry(below.removeprefix("."), own.removeprefix("."), part, field, quantity, value, whose)


@lru_cache(maxsize=1024)
def _quantity(kind: type[BaseModel], field: str) -> Quantity | None:
    args = typing.get_args(kind.model_fields[field].annotation)
    if any(typing.get_origin(a) is dict for a in args):
        return None
    return field_catalog.quantity_of(kind, field)


@lru_cache(maxsize=1)
def _labels() -> dict[str, str]:
    """Words for a field, by its last name."""
    groups = [
        *(field_catalog.control(k) for k in ("car_pedal", "aircraft_pedal")), *field_catalog.BOOSTER.values(),
        *field_catalog.CYLINDER.values(), *field_catalog.BRAKE.values(), field_catalog.HOSE, field_catalog.HARD_LINE,
        field_catalog.LINES_MORE, *field_catalog.DEVICE.values(), field_catalog.VEHICLE, field_catalog.LOAD_STATE,
        [field_catalog.TYRE, field_catalog.RADIUS],
    ]  # fmt: skip
    return {a.field.rpartition("friction.")[2]: a.label for asks in reversed(groups) for a in asks}


def _default(entry: _Entry, fluid: str, residual: bool) -> Known | None:
    """What is assumed for a field that was left out, None where nothing is."""
    part, field = entry.part, entry.field
    if isinstance(part, models.TandemCylinder) and (
        field == "lost_mm" or (field.startswith("lost_") and part.lost_mm is not None)
    ):
        return None  # each port has its own; what is said of both holds for each
    if field == "shoe_k" and isinstance(part, stations.DrumBrake) and part.c_star is not None:
        return None
    if field == "shoe_clearance_mm" and residual:
        return ASSUMED["drum.shoe_clearance_residual"]
    return field_catalog.default_of(part, field, entry.quantity, fluid)


def usual_kind(quantity: Quantity, part: BaseModel, vehicle: str) -> str | None:
    """The kind of usual doubt of a `quantity` in a `part` of a `vehicle` [name]; None where it has none."""
    doubt = quantity.doubt
    if doubt == "valve":
        return "valve_adjustable" if getattr(part, "adjustable", False) else "valve_fixed"
    return "front_share_aircraft" if doubt == "front_share" and vehicle == "aircraft" else doubt


def usual_width(kind: str, value: float, name: str, job: Job) -> float:
    """Half the usual doubt of a `kind` of an entry `value` in the unit of its `name`, as a `job` has it."""
    width, doubt = {k: d.width for k, d in USUAL_DOUBTS.items()} | job.usual_widths(), USUAL_DOUBTS[kind]
    return width[kind] * value if doubt.of_entry else width[kind] / si_factor(name)


def _key(entry: _Entry, axle: str, cold: float | None) -> str:
    """What the draws of an entry hang on: what is one thing on the vehicle is drawn once."""
    if isinstance(entry.part, models.LoadState) and entry.field in _SHARED:
        return f"vehicle.load_states.{_SHARED[entry.field]}"
    if entry.field in ("grip_front", "grip_rear"):
        return "vehicle.grip"  # the road's
    if entry.quantity.name in ("friction", "c_star") and cold is not None:
        return f"{entry.quantity.name}.{axle}.{cold:.6g}"  # left and right alike, hot and wet as cold; other pads, other luck
    return entry.key


def uncertain_entries(setup: models.Setup, known: Entered) -> list[UncertainEntry]:
    """Every entry of a `setup` that may be otherwise, with what is `known` of how it was entered."""
    found: list[UncertainEntry] = []
    tolerances = dict(known.tolerances)
    usual = None if known.usual is None else dict(known.usual)
    for below, key, part, whose, fluid, station in _parts(setup):
        axle = "" if station is None else station.axle
        residual = station is not None and any(d.kind == "residual" for d in station.devices)
        cold = None if station is None else _cold(station)
        for entry in _entries(part, below, key, whose):
            full = entry.path if entry.path.startswith("vehicle") or not known.root else f"{known.root}.{entry.path}"
            one = _standing(entry, full, known, tolerances, usual, setup.vehicle.kind, fluid, residual)
            if one is not None:
                value, least, most, standing, kind = one
                if value == 0.0 and standing == "assumed":
                    continue  # what is left out altogether stays out: it has no usual value to lie about
                label = f"{entry.whose}: {_labels().get(entry.field, entry.field.replace('_', ' '))}"
                found.append(UncertainEntry(
                    entry.path, _key(entry, axle, cold), label, entry.quantity.name, value, least, most, standing, kind
                ))  # fmt: skip
        if station is not None and station.rolling_radius_mm is None and station.tyre is not None and usual is not None:
            path, full = f"{below}.rolling_radius_mm".removeprefix("."), f"{known.root}{below}.tyre".removeprefix(".")
            radius = float(tyres.from_code(station.tyre).rolling_radius) * 1e3
            if full not in known.exact:
                width = usual["rolling_radius"] * radius
                found.append(UncertainEntry(
                    path, f"{key}.rolling_radius_mm".removeprefix("."), f"{station.name}: tyre's rolling radius", "rolling_radius_mm",
                    radius, radius - width, radius + width, "usual", "rolling_radius",
                ))  # fmt: skip
    return found


def _parts(setup: models.Setup) -> Iterator[tuple[str, str, BaseModel, str, str, stations.Station | None]]:
    """Every part below which entries stand, by path, key, whose it is, fluid, and the station it belongs to."""
    for i, system in enumerate(setup.systems):
        here, key = f".systems.{i}", f".systems.{system.name}"
        for k, station in enumerate(system.stations):
            yield f"{here}.stations.{k}", f"{key}.stations.{station.name}", station, station.name, system.fluid, station
        yield here, key, system.model_copy(update={"stations": []}), system.name, system.fluid, None
    yield ".vehicle", ".vehicle", setup.vehicle, "vehicle", "", None


def _cold(station: stations.Station) -> float | None:
    """The cold friction, or C*, that is entered at a station; None where there is none."""
    brake = station.brake
    if isinstance(brake, stations.DrumBrake) and brake.c_star is not None:
        typed = brake.c_star.cold if isinstance(brake.c_star, stations.ShoeFactor) else brake.c_star
        return None if typed is None else float(value_of(typed, "c_star"))
    if brake.friction is None or brake.friction.cold is None:
        return None
    return float(value_of(brake.friction.cold, "friction"))


def _standing(
    entry: _Entry, full: str, known: Entered, tolerances: dict[str, str], usual: dict[str, float] | None, vehicle: str, fluid: str,
    residual: bool,
) -> tuple[float, float, float, Standing, str] | None:  # fmt: skip
    """Value, range, standing and kind of an entry; None for one that is exact and was not said to be."""
    quantity, size = entry.quantity, si_factor(entry.quantity.name)
    kind = usual_kind(quantity, entry.part, vehicle)
    if entry.typed is None:
        default = _default(entry, fluid, residual)
        if default is None or default.least is None or default.most is None:
            return None
        return default.value / size, default.least / size, default.most / size, "assumed", kind or ""
    value = value_of(entry.typed, quantity.name)
    if full in known.assumed:
        stand_in = next((STAND_INS[k] for (part, field), k in _STAND_INS.items()
                         if isinstance(entry.part, part) and field == entry.field), None)  # fmt: skip
        if stand_in is not None:
            assert stand_in.least is not None and stand_in.most is not None
            return value, min(value, stand_in.least / size), max(value, stand_in.most / size), "assumed", kind or ""
    if full in tolerances:
        width = value_of(tolerances[full].lstrip("±+- "), quantity.name)
        return value, max(quantity.least, value - width), min(quantity.most, value + width), "plus_minus", kind or ""
    if full in known.exact:
        return value, value, value, "exact", kind or ""
    if kind is None or usual is None:
        return None
    doubt = USUAL_DOUBTS[kind]
    width = usual[kind] * value if doubt.of_entry else usual[kind] / size
    return value, max(quantity.least, value - width), min(quantity.most, value + width), "usual", kind


@lru_cache(maxsize=1024)
def luck(key: str, n: int, seed: int) -> Floats:
    """`n` even numbers between 0 and 1 for the entry of a `key`, the same for the same key and `seed`."""
    return np.random.Generator(np.random.PCG64([seed, zlib.crc32(key.encode())])).random(n)


@lru_cache(maxsize=1024)
def _at(found: UncertainEntry, n: int, seed: int) -> Floats:
    """The drawn values of an entry: what is assumed by a beta of three points, anything else evenly within its range."""
    own, span = luck(found.key, n, seed), found.most - found.least
    if found.standing != "assumed" or span <= 0.0:
        return found.least + span * own
    return three_point(found.least, found.value, found.most, own)


def drawn_within(found: list[UncertainEntry], trials: int, seed: int) -> Floats:
    """Trials (N, doubts) of every uncertain entry: what has a ± or a usual doubt even within it; what is assumed most often near its
    usual value and never outside its range (a beta of three points, common practice where only least, usual and most are known)."""
    if not found:
        return np.zeros((trials, 0))
    return np.stack([_at(entry, max(trials, TRIALS), seed)[:trials] for entry in found], axis=1)


def made_of(setup: models.Setup, found: list[UncertainEntry], columns: Floats) -> Any:
    """The setup with every doubted entry a column (N, 1, 1, 1) of trials."""
    tree: dict[str, Any] = {}
    for n, doubt in enumerate(found):
        here, steps = tree, doubt.path.split(".")
        for step in steps[:-1]:
            here = here.setdefault(step, {})
        here[steps[-1]] = columns[:, n].reshape(-1, 1, 1, 1)
    return _changed(setup, tree)


def _changed(part: Any, tree: dict[str, Any]) -> Any:
    """A copy of a model `part` with what stands in a `tree` of its entries; what is drawn is not validated again."""
    if isinstance(part, list):
        return [(_changed(p, tree[str(i)]) if isinstance(tree[str(i)], dict) else tree[str(i)]) if str(i) in tree else p
                for i, p in enumerate(part)]  # fmt: skip
    made = {k: _changed(getattr(part, k), v) if isinstance(v, dict) else v for k, v in tree.items()}
    return part.model_copy(update=made)

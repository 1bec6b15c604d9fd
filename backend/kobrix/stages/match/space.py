"""A search's choices as blocks of whole parts for the core, and one combination again as edits of the file and words."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from pydantic import ValidationError

from kobrix.core.constants import SAME_SIZE, assumed, bore_name
from kobrix.core.errors import BadEntry, Impossible
from kobrix.core.physics import chain, valves
from kobrix.core.physics.cylinder import Cylinder
from kobrix.core.physics.solved_setup import settle
from kobrix.core.physics.tyres import from_code
from kobrix.core.physics.vehicle import Axle, Load
from kobrix.core.rules.limits import TRAVEL, Band, effort_band
from kobrix.core.rules.lost import least_asked, stops_left
from kobrix.core.search.batching import structure_of
from kobrix.core.search.engine import Block, Bounds
from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.solve import Answer, rooms_of
from kobrix.evaluate.to_core import convert, station_of
from kobrix.fileformat.fields import number_text
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit, set_at, take_away
from kobrix.fileformat.quantities import si, value_of
from kobrix.fileformat.questions import Questions
from kobrix.fileformat.shelf import ShelfPart
from kobrix.fileformat.stations import DiscBrake, Station
from kobrix.stages.match.alone import controls_to_search
from kobrix.stages.match.parts import PartOfFile, brake_of, brake_words, named, price_of
from kobrix.stages.match.request import Brakes, Search, Valves

_SLOPE = "valve.slope"
NO_WORSE = 0.005  # of the figure as found: so much less is no worse
_PATH = "systems.0.stations"


@dataclass(frozen=True)
class Choice:
    """One thing chosen: `words` for it, the `edits` below the setup that make it, and its `price`."""

    words: str
    edits: tuple[Edit, ...]
    price: float


@dataclass(frozen=True)
class Option:
    """One choice for a station: what it is, the core's `station` [record], its `make`, and whether the rotor `fits` the wheel."""

    choice: Choice
    station: chain.Station
    make: Any
    fits: bool


@dataclass(frozen=True)
class Spread:
    """A block of the core with the choices behind its numbers: `cylinders`, `boosters`, `pins`, and one list a station."""

    block: Block
    cylinders: tuple[Choice, ...]
    boosters: tuple[Choice, ...]
    pins: tuple[Choice, ...]
    stations: tuple[tuple[Choice, ...], ...]

    def chosen(self, before: int, behind: int) -> dict[str, Choice]:
        """What the combination of the numbers `before` and `behind` the push is made of."""
        c, h, i = (int(n) for n in np.unravel_index(before, self.block.before))
        places = [int(n) for n in np.unravel_index(behind, self.block.behind)]
        c = places[len(self.stations)] if self.block.twin else c
        names = [s.name for s in self.block.system.stations]
        own = {name: choices[at] for name, choices, at in zip(names, self.stations, places, strict=False)}
        return {"cylinder": self.cylinders[c], "booster": self.boosters[h], "pin": self.pins[i], **own}

    def unchanged(self) -> tuple[int, int] | None:
        """The numbers before and behind the push of the setup as it stands, None where a part of it is not tried."""
        lists = [*self.stations, *((self.cylinders,) if self.block.twin else ())]
        front = [self.cylinders[:1] if self.block.twin else self.cylinders, self.boosters, self.pins]
        own = [[n for n, c in enumerate(choices) if not c.edits] for choices in (*front, *lists)]
        if self.block.twin:
            own[0] = [0]
        if not all(own):
            return None
        places = [n[0] for n in own]
        return int(np.ravel_multi_index(places[:3], self.block.before)), int(np.ravel_multi_index(places[3:], self.block.behind))

    def valved(self, behind: int) -> bool:
        """Whether the combination of the number `behind` the push has a proportioning valve."""
        places = np.unravel_index(behind, self.block.behind)
        options = [own[int(at)] for own, at in zip(self.block.options, places, strict=False)]
        return any(isinstance(d, valves.Proportioning) for station in options for d in station.devices)


@dataclass(frozen=True)
class Space:
    """Everything a search needs: the `spreads`, `load` [record], `wheels`, `bounds` [record], the effort `band`, the `room`
    [m]; how many pairings of parts `unfit` do not go together."""

    spreads: tuple[Spread, ...]
    load: Load
    wheels: dict[Axle, int]
    bounds: Bounds
    band: Band
    room: float
    unfit: int

    @property
    def count(self) -> int:
        """How many combinations there are."""
        return sum(s.block.count for s in self.spreads)


def _document(setup: Setup) -> PartOfFile:
    return setup.model_dump(exclude_none=True, exclude_unset=True)


def _with(document: PartOfFile, edits: Sequence[Edit]) -> PartOfFile:
    """The setup's `document` with `edits` in it; what is changed is copied, the rest shared."""
    whole = document
    for edit in edits:
        whole = _put(whole, edit["path"].split("/")[1:], edit.get("value"), gone=edit["op"] == "remove")
    return whole


def _put(part: Any, path: list[str], value: Any, gone: bool) -> Any:
    if not path:
        return value
    if isinstance(part, list):
        at = int(path[0])
        return [_put(p, path[1:], value, gone) if n == at else p for n, p in enumerate(part)]
    if gone and len(path) == 1:
        return {k: v for k, v in part.items() if k != path[0]}
    return {**part, path[0]: _put(part.get(path[0], {}), path[1:], value, gone)}


def edited(setup: Setup, edits: Sequence[Edit]) -> Setup:
    """A `setup` with `edits` below it."""
    return Setup.model_validate(_with(_document(setup), edits))


def _converted(setup: Setup, edits: Sequence[Edit]) -> chain.System:
    return convert(edited(setup, edits)).systems[0]


def _pins(setup: Setup, ask: Search) -> tuple[list[Choice], list[float]]:
    own = value_of(setup.systems[0].control.pivot_to_pin_mm or 0.0, "pivot_to_pin_mm")
    if ask.pins is None:
        return [Choice(f"{number_text(own)} mm", (), 0.0)], [own * 1e-3]
    arm = value_of(setup.systems[0].control.pivot_to_pad_mm or 0.0, "pivot_to_pad_mm")
    if value_of(ask.pins.most_mm, "pivot_to_pin_mm") >= arm:
        raise BadEntry(
            "pin places", f"up to {ask.pins.most_mm}", f"below {number_text(arm)} mm", "the pin stands between pivot and pad"
        )
    choices, places = [], []
    for mm in ask.pins.values():
        same = abs(mm - own) < 1e-6
        text = f"{number_text(mm)} mm"
        choices.append(Choice(text, () if same else (set_at("systems.0.control.pivot_to_pin_mm", text),), 0.0))
        places.append((own if same else mm) * 1e-3)
    return choices, places


def _sizes(ask: Search, own: float | None) -> list[tuple[str, float, bool]]:
    """(text, bore [m], whether it is the one fitted) of each bore, sizes that are one size once."""
    found: list[tuple[str, float, bool]] = []
    assert ask.bores is not None
    for typed in ask.bores.sizes_mm:
        bore = si(typed, "bore_mm")
        if any(abs(bore - other) <= SAME_SIZE for _, other, _ in found):
            continue
        mine = own is not None and abs(bore - own) <= SAME_SIZE
        text = typed if isinstance(typed, str) else f"{number_text(typed)} mm"
        found.append((text, own if mine and own is not None else bore, mine))
    return found


def _cylinders(setup: Setup, ask: Search) -> list[Choice]:
    part = setup.systems[0].cylinder
    price = ask.bores.price if ask.bores is not None else None
    each = float("nan") if price is None else price
    if part.kind == "twin":
        fitted = [si(b.bore_mm or 0.0, "bore_mm") for b in (part.front, part.rear)]
        bar = _bars(ask)
        if ask.bores is None:
            sizes = [[(bore_name(b) or f"{b * 1e3:.4g} mm", b, True)] for b in fitted]
        else:
            sizes = [_sizes(ask, b) for b in fitted]
        choices = []
        for front in sizes[0]:
            for rear in sizes[1]:
                for share in bar:
                    edits = [
                        set_at(f"systems.0.cylinder.{end}.bore_mm", text)
                        for end, (text, _, mine) in (("front", front), ("rear", rear))
                        if not mine
                    ]
                    words = f"{front[0]} and {rear[0]}{share.words}"
                    choices.append(
                        Choice(words, (*edits, *share.edits), sum(0.0 if mine else each for _, _, mine in (front, rear)))
                    )
        return choices
    own = None if part.bore_mm is None else si(part.bore_mm, "bore_mm")
    if ask.bores is None:
        return [Choice(bore_name(own or 0.0) or f"{(own or 0.0) * 1e3:.4g} mm", (), 0.0)]
    return [
        Choice(text, () if mine else (set_at("systems.0.cylinder.bore_mm", text),), 0.0 if mine else each)
        for text, _, mine in _sizes(ask, own)
    ]  # fmt: skip


def _bars(ask: Search) -> list[Choice]:
    if ask.bar is None:
        return [Choice("", (), 0.0)]
    return [
        Choice(f", bar {share:.0%} front", (set_at("systems.0.cylinder.bar", {"front_share": share}),), 0.0) for share in ask.bar.values()
    ]  # fmt: skip


def _pairs(
    own: PartOfFile, asked: Brakes | None, axle: str, shelf: list[ShelfPart]
) -> tuple[list[tuple[PartOfFile, float]], int]:
    """Brakes made of the parts asked for with what they cost, and how many pairings do not go together."""
    if asked is None:
        return [(own, 0.0)], 0
    found: list[tuple[PartOfFile, float]] = []
    unfit = 0
    for caliper in asked.calipers:
        for rotor in asked.rotors:
            for pad in asked.pads:
                parts = named(shelf, "caliper", caliper, axle), named(shelf, "rotor", rotor, axle), named(shelf, "pad", pad, axle)
                if own["kind"] == "drum" and any(p is None for p in parts) and any(p is not None for p in parts):
                    unfit += 1  # nothing of a drum fits a disc brake
                    continue
                brake = brake_of(own, *parts)
                try:
                    if brake["kind"] == "disc":
                        DiscBrake.model_validate(brake)
                except ValidationError:
                    unfit += 1  # a pad too high for the rotor
                    continue
                found.append((brake, sum(map(price_of, parts))))
    if not found:
        raise BadEntry(f"{axle} brakes", "no pairing that goes together", "a caliper, a rotor and pads that do",
                       "a drum is replaced by all three; the pad must fit the rotor")  # fmt: skip
    return found, unfit


def rim_mm(station: Any) -> float | None:
    """Inside of the wheel that no rotor can pass: the rim's own diameter, by the tyre's size."""
    if station.tyre is None:
        return None
    return float(from_code(station.tyre).rim) * 1e3


def _stations(
    setup: Setup, ask: Search, shelf: list[ShelfPart], base: chain.System, load: Load
) -> tuple[list[list[Option]], int]:
    """For each station its choices, with the core's record and whether the rotor goes into the wheel."""
    lists, unfit = [], 0
    own_system = setup.systems[0]
    for k, station in enumerate(own_system.stations):
        document = _document(setup)["systems"][0]["stations"][k]
        asked = ask.front if station.axle == "front" else ask.rear
        pairs, none = _pairs(document["brake"], asked, station.axle, shelf)
        unfit += none
        largest = ask.limits.largest_rotor_front_mm if station.axle == "front" else ask.limits.largest_rotor_rear_mm
        limit = rim_mm(station) if largest is None else value_of(largest, "rotor_diameter_mm")
        settings = _settings(document.get("devices", []), ask.valve if station.axle == "rear" else None)
        own: list[Option] = []
        for brake, price in pairs:
            edits = () if brake is document["brake"] else (set_at(f"{_PATH}.{k}.brake", brake),)
            part = station if not edits else Station.model_validate({**document, "brake": brake})
            record = settle(replace(base, stations=(station_of(part, own_system.fluid),)), load).stations[0]
            bare = replace(record, devices=tuple(d for d in record.devices if not isinstance(d, valves.Proportioning)))
            rotor = brake.get("rotor_diameter_mm")
            fits = not edits or limit is None or rotor is None or value_of(rotor, "rotor_diameter_mm") < limit
            words = brake_words(brake)
            makes = {id(station): structure_of(station) for station in (record, bare)}  # all with a valve are of one make
            valved = structure_of(replace(bare, devices=(*bare.devices, valves.Proportioning(1.0, 1.0))))
            for setting in settings:
                if setting.device is not None:
                    made, kind = replace(bare, devices=(*bare.devices, setting.device)), valved
                else:
                    made = record if setting.devices is None else bare
                    kind = makes[id(made)]
                more = () if setting.devices is None else (set_at(f"{_PATH}.{k}.devices", setting.devices),)
                told = f"{words}, {setting.words}" if setting.words else words
                own.append(Option(Choice(told, (*edits, *more), price + setting.price), made, kind, fits))
        lists.append(own)
    return lists, unfit


@dataclass(frozen=True)
class _Setting:
    """A valve in the rear line: `words`, the `devices` of the file, None where they stay as they are, its `price`, and the
    core's `device`, None for no valve or the one that is fitted."""

    words: str
    devices: list[PartOfFile] | None
    price: float
    device: valves.Proportioning | None


def _settings(devices: list[PartOfFile], valve: Valves | None) -> list[_Setting]:
    """What stands in a station's line now, none, and a valve at each knee asked for."""
    fitted = next((d for d in devices if d["kind"] == "proportioning"), None)
    found = [_Setting("" if fitted is None or valve is None else "valve as set", None, 0.0, None)]
    if valve is None:
        return found
    others = [d for d in devices if d["kind"] != "proportioning"]
    if fitted is not None and valve.without:
        found.append(_Setting("no valve", others, 0.0, None))
    if fitted is None and not valve.without:
        found.clear()
    slope = assumed(_SLOPE) if valve.slope is None else si(valve.slope, "slope")
    price = 0.0 if fitted is not None else float("nan") if valve.price is None else valve.price
    for kpa in valve.values():
        knee = {"kind": "proportioning", "knee_kpa": kpa, "slope": slope if valve.slope is None else valve.slope}
        found.append(_Setting(f"knee {kpa / 1e3:.2f} MPa", [*others, knee], price, valves.Proportioning(kpa * 1e3, slope)))
    return found


def _boosters(setup: Setup, ask: Search) -> list[Choice]:
    own = setup.systems[0].booster
    choices = [Choice("none" if own is None else own.kind, (), 0.0)]
    if ask.booster_gone and own is not None:
        choices.append(Choice("none", (take_away("systems.0.booster"),), 0.0))
    return choices


MARGIN = 0.03  # g: how much later the rear locks nominally; in the trials 0


def bounds_of(setup: Setup, ask: Search, decel: float, found: Answer | None = None) -> tuple[Bounds, Band]:
    """The limits of a search, what is left out at its default, and the comfort of the push.

    Limits start from what the vehicle does as `found`: no earlier lock, no less left with a circuit lost than the law asks or it has.
    """
    control = setup.systems[0].control
    force = None if control.force_limit_n is None else si(control.force_limit_n, "force_limit_n")
    band = effort_band(control.kind, force, setup.vehicle.kind)
    limits, car = ask.limits, setup.vehicle.kind == "car"
    effort = band.danger if limits.effort_n is None else min(band.danger, si(limits.effort_n, "effort_n"))
    share = TRAVEL.danger if limits.travel_share is None else si(limits.travel_share, "travel_share")
    solved = None if found is None else found.solved
    as_found = limits.first_lock_g is None and solved is not None
    lock = decel if limits.first_lock_g is None else si(limits.first_lock_g, "decel_g")
    if as_found and solved is not None and np.all(np.isfinite(solved.main.lock_decel)):
        lock = float(np.min(solved.main.lock_decel)) * (1.0 - NO_WORSE)
    left = least_asked(setup.vehicle.kind)
    if left is not None and solved is not None and solved.main.left is not None:
        lost = [c for c, f in enumerate(solved.conditions) if f.is_loss]
        if lost:
            several = len(solved.systems) > 1
            left = min(left, *(float(np.min(stops_left(solved.main.left, c, several))) * (1.0 - NO_WORSE) for c in lost))
    room = next(iter(rooms_of(setup, convert(setup).systems, Questions()).values()))
    sharing = limits.sharing and car
    return Bounds(decel, effort, share, lock, sharing, car, left, room.force, limits.price, as_found, MARGIN), band


def space_of(job: Job, ask: Search, decel: float, found: Answer | None = None) -> Space:
    """The `ask` on a setup of a `job` at one stop of `decel` [g]. Raises BadEntry, Impossible and NotFound in words."""
    setup = job.setup(ask.setup)
    if controls_to_search(setup):
        raise Impossible("a search", "this vehicle has several controls: they are searched one at a time")
    own = setup.systems[0]
    if own.control.linkage is not None and ask.pins is not None:
        raise BadEntry("pin places", "places to try", "the pin where it is",
                       "this pedal has a linkage: pin, rod and cylinder move together; enter another linkage in Measure")  # fmt: skip
    converted = convert(setup)
    needs = [*converted.gaps.decel, *converted.gaps.travel]
    if own.control.available_travel_mm is None:
        needs.append("systems.0.control.available_travel_mm")
    if needs or converted.load is None:
        sheet = measure_sheet(job, ask.setup)["needs"]
        told = {m["path"].removeprefix(f"{job.root(ask.setup)}."): m["label"] for m in (*sheet["decel"], *sheet["travel"])}
        labels = [told.get(path, path) for path in dict.fromkeys(needs)]
        more = f" and {len(labels) - 6} more" if len(labels) > 6 else ""
        raise Impossible("a search", "it still needs " + "; ".join(labels[:6]) + more)
    twin = own.cylinder.kind == "twin"
    if ask.bar is not None and not twin:
        raise BadEntry("bar", "settings of a balance bar", "a setup with two cylinders on a bar", "this one has none")
    ask.check_size(twin)
    bounds, band = bounds_of(setup, ask, decel, found)
    cylinder_choices, booster_choices = _cylinders(setup, ask), _boosters(setup, ask)
    pin_choices, pins = _pins(setup, ask)
    records: list[Cylinder] = [_converted(setup, c.edits).cylinder for c in cylinder_choices]
    boosters = [_converted(setup, c.edits).booster for c in booster_choices]
    lists, unfit = _stations(setup, ask, job.shelf, converted.systems[0], converted.load)
    base = converted.systems[0]
    spreads = []
    for parts in _by_make(lists):
        block = Block(
            base, tuple(records), tuple(boosters), np.array(pins), tuple(tuple(o.station for o in own_) for own_ in parts),
            np.array([c.price for c in cylinder_choices]), np.array([c.price for c in booster_choices]),
            tuple(np.array([o.choice.price for o in own_]) for own_ in parts), tuple(np.array([o.fits for o in own_]) for own_ in parts),
        )  # fmt: skip
        stations = tuple(tuple(o.choice for o in own_) for own_ in parts)
        spreads.append(Spread(block, tuple(cylinder_choices), tuple(booster_choices), tuple(pin_choices), stations))
    room = float(value_of(own.control.available_travel_mm or 0.0, "available_travel_mm")) * 1e-3
    return Space(tuple(spreads), converted.load, converted.wheels, bounds, band, room, unfit)


def _by_make(lists: list[list[Option]]) -> list[list[list[Option]]]:
    """The stations' choices in blocks, each of one make at every station."""
    blocks: list[list[list[Option]]] = [[]]
    for choices in lists:
        makes: dict[Any, list[Option]] = {}
        for choice in choices:
            makes.setdefault(choice.make, []).append(choice)
        blocks = [[*before, own] for before in blocks for own in makes.values()]
    return blocks

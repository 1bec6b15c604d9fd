"""What is asked of a search: what may change and over what, what must hold, and what is wanted."""

from collections.abc import Sequence
from typing import Annotated, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.constants import STANDARD_BORES
from kobrix.core.errors import BadEntry
from kobrix.core.rules.limits import TRAVEL
from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import Typed, label_of, value_of
from kobrix.fileformat.shelf import OWN, ShelfPart
from kobrix.fileformat.stations import DiscBrake

_CALIPERS = 4  # of the shelf, ticked at first
MOST = 5_000_000  # combinations that are tried at once
Price = Annotated[float | None, Field(ge=0, le=1_000_000)]


class Range(Sparse):
    """From `least` to `most` in steps: checked by whoever extends it."""

    def _names(self) -> tuple[str, str, str]:
        names = [n for n in type(self).model_fields if n.startswith(("least_", "most_", "step_"))]
        return tuple(sorted(names, key=lambda n: ("least_", "most_", "step_").index(n.split("_")[0] + "_")))  # type: ignore[return-value]

    @model_validator(mode="after")
    def _check(self) -> Self:
        least, most, _ = self._names()
        if value_of(getattr(self, most), most) < value_of(getattr(self, least), least):
            sentence = str(
                BadEntry(label_of(most), repr(getattr(self, most)), f"{getattr(self, least)} or more", "it is the end of a range")
            )
            raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": most})
        return self

    @property
    def size(self) -> int:
        """How many values there are."""
        least, most, step = (value_of(getattr(self, n), n) for n in self._names())
        return int((most - least) / step + 1e-9) + 1

    def values(self) -> list[float]:
        """The values in the unit of the fields' names."""
        least, _, step = (value_of(getattr(self, n), n) for n in self._names())
        return [round(least + n * step, 9) for n in range(self.size)]


class Pins(Range):
    """Where the pushrod's pin may stand, from the pivot: as far as space and metal allow."""

    least_mm: Annotated[Typed, q("pivot_to_pin_mm", 5, 600)]
    most_mm: Annotated[Typed, q("pivot_to_pin_mm", 5, 600)]
    step_mm: Annotated[Typed, q("step_mm", 0.01, 100)] = "1 mm"


class Bores(Sparse):
    """Cylinders that could be bought, by bore; `price` of one, when known. Of two on a bar, each may have any."""

    sizes_mm: list[Annotated[Typed, q("bore_mm", 5, 80)]] = Field(min_length=1, max_length=40)
    price: Price = None


class Brakes(Sparse):
    """Parts of one axle by name, "own" for what is fitted now: every caliper with every rotor and every pad."""

    calipers: list[Name] = Field(["own"], min_length=1, max_length=200)
    rotors: list[Name] = Field(["own"], min_length=1, max_length=200)
    pads: list[Name] = Field(["own"], min_length=1, max_length=40)

    @property
    def size(self) -> int:
        """How many pairings are asked for."""
        return len(self.calipers) * len(self.rotors) * len(self.pads)


class Valves(Range):
    """A proportioning valve in the rear line set to one of many knees, and `without` one; `price` of one, when known."""

    least_kpa: Annotated[Typed, q("knee_kpa", 100, 20000)]
    most_kpa: Annotated[Typed, q("knee_kpa", 100, 20000)]
    step_kpa: Annotated[Typed, q("step_kpa", 1, 10000)] = 200.0
    slope: Annotated[Typed | None, q("slope", 0, 1, "above 1 it would add pressure", "valve.slope")] = None
    without: bool = True
    price: Price = None


class Bar(Range):
    """The front's share of a balance bar."""

    least_share: Annotated[Typed, q("front_share", 0.05, 0.95)]
    most_share: Annotated[Typed, q("front_share", 0.05, 0.95)]
    step_share: Annotated[Typed, q("front_share", 0.001, 0.5)] = 0.02


class MustHold(Sparse):
    """Limits beside the dangers, which always hold; what is left out has its default."""

    effort_n: Annotated[Typed | None, q("effort_n", 20, 500, "above it the push itself is a danger")] = None
    travel_share: Annotated[
        Typed | None, q("travel_share", 0.1, TRAVEL.danger, f"above {TRAVEL.danger:.0%} the travel itself is a danger")
    ] = None
    first_lock_g: Annotated[Typed | None, q("decel_g", 0, 2)] = None
    sharing: bool = True
    largest_rotor_front_mm: Annotated[Typed | None, q("rotor_diameter_mm", 80, 700)] = None
    largest_rotor_rear_mm: Annotated[Typed | None, q("rotor_diameter_mm", 80, 700)] = None
    price: Price = None


class Wanted(Sparse):
    """A push and a travel that would be liked best, and how much each counts; left out, the trade-off itself is shown."""

    effort_n: Annotated[Typed | None, q("effort_n", 20, 500)] = None
    travel_mm: Annotated[Typed | None, q("travel_mm", 5, 500)] = None
    effort_weight: Annotated[float, Field(ge=0, le=100)] = 1.0
    travel_weight: Annotated[float, Field(ge=0, le=100)] = 1.0


class Search(Sparse):
    """A search: the `setup` it starts from, what may change (left out: it stays), `limits`, and what is `wanted`."""

    setup: Name = "as found"
    control: Name | None = None
    """Of several controls the one that is searched, alone; left out, the first."""
    pins: Pins | None = None
    bores: Bores | None = None
    front: Brakes | None = None
    rear: Brakes | None = None
    valve: Valves | None = None
    bar: Bar | None = None
    booster_gone: bool = False
    """Try it without the booster too."""
    limits: MustHold = MustHold()
    wanted: Wanted = Wanted()
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1

    def sizes(self, twin: bool) -> dict[str, int]:
        """How many choices there are of each thing that may change; on a bar each of the two cylinders has its own bore."""
        bores = len(self.bores.sizes_mm) if self.bores is not None else 1
        found = {
            "pin places": self.pins.size if self.pins is not None else 1,
            "bores": bores**2 if twin else bores,
            "front brakes": self.front.size if self.front is not None else 1,
            "rear brakes": self.rear.size if self.rear is not None else 1,
            "valves": self.valve.size + self.valve.without if self.valve is not None else 1,
            "bar settings": self.bar.size if self.bar is not None else 1,
            "boosters": 2 if self.booster_gone else 1,
        }
        return {name: n for name, n in found.items() if n > 1}

    def check_size(self, twin: bool) -> int:
        """How many combinations are asked for. Raises BadEntry for more than can be tried, with what would make it fewer."""
        sizes = self.sizes(twin)
        count = 1
        for n in sizes.values():
            count *= n
        if count <= MOST:
            return count
        name, n = max(sizes.items(), key=lambda item: item[1])
        fits = max(1, n * MOST // count)
        words = " × ".join(f"{n:,} {what}" for what, n in sizes.items())
        fewer = f"{fits:,} {name} instead of {n:,} would make {count // n * fits:,}"
        if count // n * fits > MOST:
            fewer = f"even one of the {n:,} {name} leaves {count // n:,}: choose fewer of the others too"
        raise BadEntry("search", f"{count:,} combinations ({words})", f"at most {MOST:,}", fewer)


def default_search(setup: Setup, name: str, shelf: Sequence[ShelfPart] = ()) -> Search:
    """What a person may want to look at first: standard bores near the present one, the pin to either side of where it is, the calipers
    on the shelf, and a valve in the rear line."""
    control = setup.systems[0].control
    pins = None
    if control.pivot_to_pin_mm is not None and control.linkage is None:
        most = value_of(control.pivot_to_pin_mm, "pivot_to_pin_mm")
        pins = Pins(least_mm=f"{round(0.75 * most)} mm", most_mm=f"{round(1.25 * most)} mm", step_mm="1 mm")
    bores = [bore for bore, size in STANDARD_BORES if 0.0158 <= size <= 0.0255]
    own = setup.systems[0]
    brakes: dict[str, Brakes] = {}
    for axle in ("front", "rear"):
        fitted = [s.brake for s in own.stations if s.axle == axle]
        names = [p.name for p in shelf if p.kind == "caliper" and p.axle in (None, axle)][:_CALIPERS]
        if names and fitted and all(isinstance(b, DiscBrake) for b in fitted):
            brakes[axle] = Brakes(calipers=[OWN, *names])
    both = {s.axle for s in own.stations} == {"front", "rear"}
    valve = Valves(least_kpa="200 psi", most_kpa="900 psi", step_kpa="100 psi") if both else None
    return Search(
        setup=name, pins=pins, bores=Bores(sizes_mm=list(bores)), valve=valve, front=brakes.get("front"), rear=brakes.get("rear")
    )

"""The job file: a vehicle, its brakes as found, and any number of plans."""

from datetime import date
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.constants import USUAL_DOUBTS
from kobrix.core.errors import BadEntry, NotFound
from kobrix.fileformat.base import Name, Part, Sparse, q, unique
from kobrix.fileformat.bedding import Bedding
from kobrix.fileformat.bleeding import Bleeding
from kobrix.fileformat.building import Building
from kobrix.fileformat.fit import Fitting, ListedPart
from kobrix.fileformat.models import Setup, System, Vehicle, unique_controls
from kobrix.fileformat.proving import Proving
from kobrix.fileformat.quantities import Typed, label_of, si, value_of
from kobrix.fileformat.records import FiledRecord, FiledTrace
from kobrix.fileformat.shelf import ShelfPart

AS_FOUND = "as found"
_UNITS = {"1": "share", "m": "width_mm", "Pa": "width_kpa", "g": "width_g"}  # a name whose unit a usual doubt is read in


class Plan(Part):
    """A way the brakes may be: its systems, and what it changes on the vehicle (tyres' grip, mass)."""

    name: Name
    systems: list[System] = Field(min_length=1, max_length=4)
    vehicle: dict[str, Any] = {}
    note: str = Field("", max_length=400)
    fit: Fitting | None = None
    build: Building | None = None
    bleed: Bleeding | None = None
    bed: Bedding | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique_controls(self.systems)
        return self


class Photo(Part):
    """A photograph by the hash of its content; the file itself is kept beside the job."""

    sha256: str = Field(pattern=r"^[0-9a-f]{64}$")
    name: str = Field("", max_length=120)


class Note(Part):
    """What was seen on a part: pitting, a swollen hose, a date; with photographs."""

    about: Name
    text: str = Field("", max_length=2000)
    level: Literal["fine", "watch", "renew"] = "watch"
    photos: list[Photo] = Field(default=[], max_length=12)


class OwnLimits(Sparse):
    """Lines that a person draws for himself over the feel of the pedal: a push and a travel he would not go beyond. Nothing is judged by them."""

    effort_n: Annotated[Typed | None, q("effort_n", 1, 3000)] = None
    travel_mm: Annotated[Typed | None, q("travel_mm", 1, 500)] = None


class Job(Part):
    """A whole job: the open file format `kobrix-job`, version 1."""

    format: Literal["kobrix-job"]
    version: Literal[1]
    name: Name
    vehicle: Vehicle
    as_found: Plan
    plans: list[Plan] = Field(default=[], max_length=40)
    tolerances: dict[str, str] = {}
    assumed: list[str] = []
    exact: list[str] = []
    usual_doubts: dict[str, str] = {}
    shelf: list[ShelfPart] = Field(default=[], max_length=400)
    condition: list[Note] = Field(default=[], max_length=100)
    parts_list: list[ListedPart] = Field(default=[], max_length=400)
    planned: str | None = Field(None, max_length=40)
    proving: Proving | None = None
    own_limits: OwnLimits | None = None
    records: list[FiledRecord] = Field(default=[], max_length=5000)
    traces: list[FiledTrace] = Field(default=[], max_length=400)

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique([AS_FOUND, *(p.name for p in self.plans)], "plans", "plan")
        unique([p.name for p in self.shelf], "shelf", "part")
        unique([p.part for p in self.parts_list], "parts list", "part")
        for path, text in self.tolerances.items():
            self._check_tolerance(path, text)
        self._check_standings()
        self._check_day()
        self.usual_widths()
        for plan in (self.as_found, *self.plans):
            if plan.vehicle:
                self.setup_of(plan)
        return self

    def _check_day(self) -> None:
        try:
            date.fromisoformat(self.planned or "2000-01-01")
        except ValueError:
            refused = BadEntry("work planned for", repr(self.planned), "a day of the calendar such as 2026-05-09")
            raise PydanticCustomError("relation", "{sentence}", {"sentence": str(refused), "field": "planned"}) from None

    def _check_tolerance(self, path: str, text: str) -> None:
        name = next((n for n in reversed(path.split(".")) if not n.isdigit()), path)
        try:
            if not value_of(text.lstrip("±+- "), name) > 0.0:
                raise BadEntry(
                    label_of(name), f"± {text!r}", "a ± above 0, such as ± 1/16 in", "it is how far the entry may be off"
                )
        except BadEntry as refused:
            raise PydanticCustomError("relation", "{sentence}", {"sentence": str(refused), "field": "tolerances"}) from None

    def _check_standings(self) -> None:
        twice = sorted(set(self.exact) & {*self.assumed, *self.tolerances})  # of what is both assumed and ±, assumed leads
        if twice:
            refused = BadEntry(label_of(twice[0].rpartition(".")[2]), "exact, and assumed or with a ±", "one of them")
            raise PydanticCustomError("relation", "{sentence}", {"sentence": str(refused), "field": "exact"})

    def usual_widths(self) -> dict[str, float]:
        """The usual doubts that this job changes {kind: half width in the unit of the table}. Raises where one cannot be read."""
        found = {}
        for key, text in self.usual_doubts.items():
            known = USUAL_DOUBTS.get(key)
            try:
                if known is None:
                    raise BadEntry("usual doubt", repr(key), "one of " + ", ".join(USUAL_DOUBTS))
                width = si(text.lstrip("±+- "), _UNITS["1" if known.of_entry else known.unit])
                if not width >= 0.0:
                    raise BadEntry("usual doubt", f"± {text!r}", "a half width from 0 up, such as ± 8 %")
            except BadEntry as refused:
                raise PydanticCustomError("relation", "{sentence}", {"sentence": str(refused), "field": "usual_doubts"}) from None
            found[key] = width
        return found

    def setup_of(self, plan: Plan) -> Setup:
        """The setup of a `plan`: the job's vehicle with the plan's overrides, and the plan's systems."""
        vehicle = Vehicle.model_validate({**self.vehicle.model_dump(exclude_none=True), **plan.vehicle})
        return Setup(format="kobrix-setup", version=1, name=f"{self.name}, {plan.name}", vehicle=vehicle, systems=plan.systems)

    @property
    def names(self) -> list[str]:
        """Names of the setups: as found, then the plans."""
        return [AS_FOUND, *(p.name for p in self.plans)]

    def setup(self, name: str) -> Setup:
        """The setup by `name`: "as found", whatever a file calls it, or a plan's. Raises NotFound with the names there are."""
        for plan in (self.as_found, *self.plans):
            if name == (AS_FOUND if plan is self.as_found else plan.name):
                return self.setup_of(plan)
        raise NotFound("setup", name, ", ".join(self.names))

    def root(self, name: str) -> str:
        """Dotted path in the job of the setup by `name`. Raises NotFound with the names there are."""
        self.setup(name)
        return "as_found" if name == AS_FOUND else f"plans.{self.names.index(name) - 1}"

"""Parts a setup may be made of: the job's own shelf, and the common sizes that ship with the app, without prices."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.paths import JsonObject
from kobrix.fileformat.quantities import Typed
from kobrix.fileformat.stations import Friction

PartKind = Literal["caliper", "rotor", "pad"]
OWN = "own"  # what the setup has now
_NEEDS: dict[str, tuple[str, ...]] = {
    "caliper": ("caliper", "pistons_mm"), "rotor": ("rotor_diameter_mm",), "pad": ("friction",),
}  # fmt: skip


class ShelfPart(Sparse):
    """A part that could be fitted: a caliper, a rotor or pads for one wheel's brake; its price, if known, is for the axle."""

    name: Name
    kind: PartKind
    axle: Literal["front", "rear"] | None = None
    price: Annotated[float | None, Field(ge=0, le=1_000_000)] = None
    on_hand: bool = False
    caliper: Literal["fixed", "floating"] | None = None
    pistons_mm: list[Annotated[Typed, q("pistons_mm", 5, 150)]] | None = Field(None, min_length=1, max_length=12)
    pad_height_mm: Annotated[Typed | None, q("pad_height_mm", 5, 200)] = None
    rotor_diameter_mm: Annotated[Typed | None, q("rotor_diameter_mm", 80, 600)] = None
    rotor_thickness_mm: Annotated[Typed | None, q("rotor_thickness_mm", 2, 80)] = None
    rotor_vented: bool | None = None
    rotor_mass_kg: Annotated[Typed | None, q("rotor_mass_kg", 0.1, 60)] = None
    rotor_cooling_area_cm2: Annotated[Typed | None, q("rotor_cooling_area_cm2", 10, 30000)] = None
    friction: Friction | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        missing = [name for name in _NEEDS[self.kind] if getattr(self, name) is None]
        if self.name == OWN or missing:
            given, allowed = (
                (f"{self.name!r}", "any other name") if self.name == OWN else (f"no {missing[0]}", f"a {self.kind} with it")
            )
            sentence = str(BadEntry("shelf", given, allowed, "a part is known by its name and its sizes"))
            raise PydanticCustomError(
                "relation", "{sentence}", {"sentence": sentence, "field": missing[0] if missing else "name"}
            )
        return self

    @property
    def fields(self) -> JsonObject:
        """What the part brings to a disc brake, as the file has it."""
        outside = {"name", "kind", "axle", "price", "on_hand"}
        return self.model_dump(exclude_none=True, exclude_unset=True, exclude=outside)

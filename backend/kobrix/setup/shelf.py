"""Parts a setup may be made of: the job's own shelf, and the common sizes that ship with the app, without prices."""

from functools import lru_cache
from importlib import resources
from typing import Annotated, Any, Literal, Self

from pydantic import Field, TypeAdapter, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry, NotFound
from kobrix.setup.base import Name, Part, q
from kobrix.setup.quantities import Typed
from kobrix.setup.stations import DiscBrake, Friction

Doc = dict[str, Any]
PartKind = Literal["caliper", "rotor", "pad"]
OWN = "own"  # what the setup has now
_NEEDS: dict[str, tuple[str, ...]] = {
    "caliper": ("caliper", "pistons_mm"), "rotor": ("rotor_diameter_mm",), "pad": ("friction",),
}  # fmt: skip
_CALIPER = {"caliper", "pistons_mm", "calipers", "pad_height_mm", "efficiency", "threshold_kpa", "clearance_mm", "knock_back_mm",
            "caliper_give_um_per_mpa", "caliper_volume_cm3_per_mpa"}  # fmt: skip
_PAD = {"friction", "pad_give_um_per_mpa", "pad_wear_mm"}


class ShelfPart(Part):
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
    def fields(self) -> Doc:
        """What the part brings to a disc brake, as the file has it."""
        outside = {"name", "kind", "axle", "price", "on_hand"}
        return self.model_dump(exclude_none=True, exclude_unset=True, exclude=outside)


@lru_cache(maxsize=1)
def common_parts() -> tuple[ShelfPart, ...]:
    """The common sizes that ship with the app: by class and size, of no maker, at no price."""
    text = (resources.files("kobrix.setup") / "parts.json").read_text(encoding="utf-8")
    return tuple(TypeAdapter(list[ShelfPart]).validate_json(text))


def named(parts: list[ShelfPart], kind: PartKind, name: str, axle: str) -> ShelfPart | None:
    """The part by `name` of a `kind` that may be fitted at an `axle`; None for what the setup has. Raises NotFound."""
    if name == OWN:
        return None
    own = [p for p in (*parts, *common_parts()) if p.kind == kind and p.axle in (None, axle)]
    found = next((p for p in own if p.name == name), None)
    if found is None:
        raise NotFound(f"{axle} {kind}", name, ", ".join([OWN, *(p.name for p in own)][:40]))
    return found


def price_of(part: ShelfPart | None) -> float:
    """What a part costs: nothing when it is fitted or on hand already, NaN when no one has said."""
    if part is None or part.on_hand:
        return 0.0
    return float("nan") if part.price is None else part.price


def brake_of(own: Doc, caliper: ShelfPart | None, rotor: ShelfPart | None, pad: ShelfPart | None) -> Doc:
    """A disc brake made of parts, None for the setup's `own`; a drum is left whole or replaced whole."""
    if caliper is rotor is pad is None:
        return own
    brake = own if own["kind"] == "disc" else {"kind": "disc"}
    for part, drops in ((caliper, _CALIPER), (pad, _PAD)):
        if part is not None:
            brake = {k: v for k, v in brake.items() if k not in drops} | part.fields
    if rotor is not None:
        brake = {k: v for k, v in brake.items() if not k.startswith("rotor_")} | rotor.fields
    return brake


def brake_words(brake: Doc) -> str:
    """A brake in few words: pistons on a rotor, or the drum."""
    if brake["kind"] == "drum":
        return f"drum {brake.get('drum_diameter_mm', '')}".strip()
    part = DiscBrake.model_validate(brake)
    sizes = [_bare(p) for p in part.pistons_mm or []]
    sides = 2 if part.caliper == "fixed" else 1
    pistons = " + ".join(f"{sizes.count(s) * sides * part.calipers} × {s}" for s in dict.fromkeys(sizes))
    return f"{pistons} on {_bare(part.rotor_diameter_mm)}"


def _bare(typed: Typed | None) -> str:
    if typed is None:
        return "?"
    return typed.removesuffix(" mm") if isinstance(typed, str) else f"{typed:g}"

"""The parts of a search: those on the job's shelf and the common sizes by name, and a brake made of them."""

from functools import lru_cache
from importlib import resources
from typing import Any

from pydantic import TypeAdapter

from kobrix.core.errors import NotFound
from kobrix.fileformat.quantities import Typed
from kobrix.fileformat.shelf import OWN, PartKind, ShelfPart
from kobrix.fileformat.stations import DiscBrake

PartOfFile = dict[str, Any]  # a part of the file as it stands there
_CALIPER = {"caliper", "pistons_mm", "calipers", "pad_height_mm", "efficiency", "threshold_kpa", "clearance_mm", "knock_back_mm",
            "caliper_give_um_per_mpa", "caliper_volume_cm3_per_mpa"}  # fmt: skip
_PAD = {"friction", "pad_give_um_per_mpa", "pad_wear_mm"}


@lru_cache(maxsize=1)
def common_parts() -> tuple[ShelfPart, ...]:
    """The common sizes that ship with the app: by class and size, of no maker, at no price."""
    text = (resources.files("kobrix.stages.match") / "parts.json").read_text(encoding="utf-8")
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


def brake_of(own: PartOfFile, caliper: ShelfPart | None, rotor: ShelfPart | None, pad: ShelfPart | None) -> PartOfFile:
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


def brake_words(brake: PartOfFile) -> str:
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

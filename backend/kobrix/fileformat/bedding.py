"""How the pads of a plan are bedded: the recipe from the pad's maker, the road there is, what the pads bear."""

from typing import Annotated

from pydantic import Field

from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.quantities import Typed


class BedStage(Sparse):
    """Slow-downs of one kind: from a speed to another, how many, how hard, the gap between, and the cooling after the last."""

    from_kmh: Annotated[Typed, q("from_kmh", 5, 300)]
    to_kmh: Annotated[Typed, q("to_kmh", 0, 300)]
    count: Annotated[int, Field(ge=1, le=60)]
    decel_g: Annotated[Typed, q("decel_g", 0.05, 1.5)]
    gap_s: Annotated[Typed | None, q("gap_s", 0, 3600)] = None
    gap_m: Annotated[Typed | None, q("gap_m", 0, 20000)] = None
    cool_s: Annotated[Typed | None, q("cool_s", 0, 7200)] = None
    cool_kmh: Annotated[Typed | None, q("cool_kmh", 1, 200)] = None


class PadLimits(Sparse):
    """What the pads of a station want and bear, as their maker states it."""

    window_low_c: Annotated[Typed | None, q("window_low_c", 20, 1200)] = None
    window_high_c: Annotated[Typed | None, q("window_high_c", 20, 1200)] = None
    most_c: Annotated[Typed | None, q("most_c", 20, 1500)] = None


class Bedding(Sparse):
    """The recipe, from whom it is, and where it is driven."""

    source: Annotated[str | None, Field(max_length=120)] = None
    stages: list[BedStage] | None = Field(None, max_length=12)
    ambient_c: Annotated[Typed | None, q("ambient_c", -40, 60)] = None
    road_m: Annotated[Typed | None, q("road_m", 50, 200000)] = None
    cool_to_c: Annotated[Typed | None, q("cool_to_c", 0, 500)] = None
    pads: dict[Name, PadLimits] | None = None

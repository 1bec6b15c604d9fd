"""How a plan is bled: the order of the screws, the method, the fluid that is in."""

from typing import Annotated, Literal

from pydantic import Field

from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.quantities import Typed


class Bleeding(Sparse):
    """The order of the screws and how it is done; `order`: the maker's own; `stroke_volume_cm3`: what one push moves, where measured."""

    school: Literal["furthest_first", "nearest_first", "diagonal", "list"] | None = None
    order: list[Name] | None = Field(None, max_length=16)
    method: Literal["pressure", "two_people", "gravity", "vacuum"] | None = None
    fluid_in: Annotated[str | None, Field(max_length=20)] = None
    cylinder_side: Literal["left", "right"] | None = None
    two_screws: list[Name] | None = Field(None, max_length=16)
    reservoir_cm3: Annotated[Typed | None, q("reservoir_cm3", 5, 5000)] = None
    low_mark_cm3: Annotated[Typed | None, q("low_mark_cm3", 0, 5000)] = None
    stroke_volume_cm3: Annotated[Typed | None, q("stroke_volume_cm3", 0.1, 200)] = None

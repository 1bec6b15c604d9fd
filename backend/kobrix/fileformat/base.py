"""What every part of the file is made of."""

import os
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, SerializerFunctionWrapHandler, model_serializer
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.fileformat import DESCRIBED
from kobrix.fileformat.fields import Quantity, with_unit
from kobrix.fileformat.quantities import label_of, value_of

Name = Annotated[str, Field(min_length=1, max_length=80)]


def q(
    name: str, least: float, most: float, why: str = "", assumed: str | None = None, above: bool = False, doubt: str | None = None
) -> Quantity:
    return Quantity(name, least, most, why, assumed, above, doubt)


class Part(BaseModel):
    """Base of every part of the file: unknown names are refused, entries stay as typed."""

    model_config = ConfigDict(extra="forbid", use_attribute_docstrings=DESCRIBED in os.environ)

    def below(self, small: str, large: str, why: str, share: float = 1.0) -> None:
        """Refuse a `small` field that is not below `share` of the `large` one, when both are given."""
        a, b = getattr(self, small), getattr(self, large)
        if a is None or b is None or value_of(a, small) < value_of(b, large) * share:
            return
        limit = with_unit(value_of(b, large) * share, large)
        sentence = str(BadEntry(label_of(small), f"{a!r}" if isinstance(a, str) else with_unit(a, small),
                                f"below {limit} ({label_of(large)})", why))  # fmt: skip
        raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": small})


class Sparse(Part):
    """A part that is written as a file has it: without what was left out."""

    @model_serializer(mode="wrap")
    def _written(self, write: SerializerFunctionWrapHandler):  # type: ignore[no-untyped-def]  # typed, its schema would be lost
        return {name: value for name, value in write(self).items() if value is not None}


def unique(names: list[str], field: str, what: str) -> None:
    twice = sorted({n for n in names if names.count(n) > 1})
    if twice:
        sentence = str(BadEntry(field, f"{twice[0]!r} twice", f"a name of its own for each {what}"))
        raise PydanticCustomError("relation", "{sentence}", {"sentence": sentence, "field": field})

"""A field of the file: its unit (from its name), the range it may have and why, and what stands in when it is left out.

One `Quantity` per field is the only place of these numbers: validation, the JSON Schema and the screen read it.
"""

from dataclasses import dataclass
from typing import Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler
from pydantic.json_schema import JsonSchemaValue
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from kobrix.core.constants import ASSUMED
from kobrix.core.errors import BadEntry
from kobrix.fileformat.quantities import Typed, label_of, read, unit_of, value_of


def number_text(value: float) -> str:
    """A number as people read it: up to six figures, no exponent below a million."""
    return f"{value:.6g}" if abs(value) < 1e15 else f"{value:.3g}"


def with_unit(value: float, name: str) -> str:
    """`value` with the unit that ends the field `name`."""
    symbol = unit_of(name)[1]
    return f"{number_text(value)} {symbol}".strip()


@dataclass(frozen=True)
class Quantity:
    """A quantity field: `name`, allowed range in its own unit, why, and the key of its default (`assumed`)."""

    name: str
    least: float
    most: float
    why: str = ""
    assumed: str | None = None
    above: bool = False  # the least value itself is not allowed
    doubt: str | None = None  # the key of its usual doubt

    @property
    def allowed(self) -> str:
        """The range in words."""
        first = f"above {with_unit(self.least, self.name)}" if self.above else f"from {with_unit(self.least, self.name)}"
        return f"{first} to {with_unit(self.most, self.name)}"

    def check(self, typed: Any) -> Typed:
        """`typed`, when it can be read and lies in the range. Raises BadEntry."""
        if isinstance(typed, bool) or not isinstance(typed, int | float | str):
            raise BadEntry(label_of(self.name), f"{typed!r:.40}", f"a number or a text such as {self.allowed}")
        value = value_of(typed, self.name)
        if not self.least <= value <= self.most or (self.above and value == self.least):
            given = repr(typed) if isinstance(typed, str) else with_unit(typed, self.name)
            if isinstance(typed, str) and read(typed, self.name).symbol != unit_of(self.name)[1]:
                given += f" ({with_unit(value, self.name)})"
            raise BadEntry(label_of(self.name), given, self.allowed, self.why)
        return typed

    def _validate(self, typed: Any) -> Typed:
        try:
            return self.check(typed)
        except BadEntry as refused:
            raise PydanticCustomError("entry", "{sentence}", {"sentence": str(refused)}) from None

    def __get_pydantic_core_schema__(self, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        return core_schema.no_info_plain_validator_function(self._validate)

    def __get_pydantic_json_schema__(self, schema: CoreSchema, handler: GetJsonSchemaHandler) -> JsonSchemaValue:
        symbol = unit_of(self.name)[1]
        text = f"{label_of(self.name).capitalize()} [{symbol or '1'}], {self.allowed}."
        if self.why:
            text += f" {self.why.capitalize()}."
        number: dict[str, Any] = {"type": "number", "maximum": self.most}
        number["exclusiveMinimum" if self.above else "minimum"] = self.least
        if self.assumed is not None:
            known = ASSUMED[self.assumed]
            text += f" Assumed when left out: {number_text(known.value)} {known.unit} ({known.standing}: {known.source})."
        words = {"type": "string", "description": "with its own unit, such as '15/16 in'"}
        return {"anyOf": [number, words], "description": text}

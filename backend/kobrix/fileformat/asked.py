"""Reading a question: every value by its dotted place, so that what is missing or wrong is named where it stands."""

import math
from collections.abc import Iterable
from typing import Any, Literal

from kobrix.core.errors import BadEntry, BadPlace
from kobrix.fileformat.quantities import value_of

Sign = Literal["above", "zero", "any"]  # above 0; 0 or above; any
LARGEST = 1e9  # in the unit of its name: beyond it no figure is a measured one
ALLOWED: dict[Sign, str] = {"above": "above 0", "zero": "0 or above", "any": "any number"}


class Asked:
    """A part of a question: its `value`, and the dotted `place` where it stands."""

    def __init__(self, value: Any, place: str = "") -> None:
        if not isinstance(value, dict):
            raise BadPlace(place, "a group of named values is wanted here.")
        self.value: dict[str, Any] = value
        self.place = place

    def at(self, key: object) -> str:
        """Dotted place of a `key` in this part."""
        return f"{self.place}.{key}" if self.place else str(key)

    def bad(self, key: object, reason: str) -> BadPlace:
        """The error that names `key` as wrong, for the `reason`."""
        return BadPlace(self.at(key), reason)

    def given(self, key: str) -> bool:
        """Whether `key` has a value: a null is none."""
        return self.value.get(key) is not None

    def raw(self, key: str) -> Any:
        """What was written at `key`. Raises BadPlace where nothing is."""
        if not self.given(key):
            raise self.bad(key, "it is missing.")
        return self.value[key]

    def _read(self, typed: Any, name: str, place: str, sign: Sign) -> float:
        if isinstance(typed, bool) or not isinstance(typed, (int, float, str)):
            raise BadPlace(place, "a number is wanted here.")
        try:
            value = value_of(typed, name)
        except BadEntry as error:
            raise BadPlace(place, str(error)) from None
        if abs(value) > LARGEST:
            raise BadPlace(place, f"{typed} was given; nothing here is larger than {LARGEST:g}.")
        if not math.isfinite(value) or (sign == "above" and value <= 0) or (sign == "zero" and value < 0):
            raise BadPlace(place, f"{typed} was given; allowed is {ALLOWED[sign]}.")
        return value

    def number(self, key: str, sign: Sign = "above") -> float:
        """The number at `key` in the unit of its name. Raises BadPlace: missing, unreadable, or not of that `sign`."""
        return self._read(self.raw(key), key, self.at(key), sign)

    def maybe(self, key: str, sign: Sign = "above") -> float | None:
        """The number at `key`, None where none was given."""
        return self.number(key, sign) if self.given(key) else None

    def default(self, key: str, value: float, sign: Sign = "above") -> float:
        """The number at `key`, else `value`; where that is 0, 0 may be given."""
        return self.number(key, "zero" if sign == "above" and value == 0 else sign) if self.given(key) else value

    def count(self, key: str, value: int | None = None, least: int = 0) -> int:
        """The whole number at `key`, else `value`; at least `least`."""
        if value is not None and not self.given(key):
            return value
        number = self.number(key, "any")
        if number != int(number) or number < least:
            raise self.bad(key, f"{self.raw(key)} was given; allowed are whole numbers from {least}.")
        return int(number)

    def flag(self, key: str, value: bool = False) -> bool:
        """Yes or no at `key`, else `value`."""
        if not self.given(key):
            return value
        if not isinstance(self.value[key], bool):
            raise self.bad(key, "true or false is wanted here.")
        return bool(self.value[key])

    def text(self, key: str, value: str | None = None) -> str:
        """The words at `key`, else `value`."""
        if value is not None and not self.given(key):
            return value
        words = self.raw(key)
        if not isinstance(words, str):
            raise self.bad(key, "words are wanted here.")
        return words

    def word(self, key: str, words: Iterable[str], value: str | None = None) -> str:
        """One of the `words` at `key`, else `value`."""
        found, known = self.text(key, value), list(words)
        if found not in known:
            raise self.bad(key, f"{found!r} was given; allowed are {', '.join(known)}.")
        return found

    def known(self, words: Iterable[str]) -> "Asked":
        """This part, refused at a key that is none of the `words`."""
        known = list(words)
        for key in self.value:
            if key not in known:
                raise self.bad(key, f"it is not known here; allowed are {', '.join(known)}.")
        return self

    def part(self, key: str) -> "Asked":
        """The group at `key`."""
        return Asked(self.raw(key), self.at(key))

    def part_or_empty(self, key: str) -> "Asked":
        """The group at `key`, an empty one where none was given."""
        return Asked(self.value[key] if self.given(key) else {}, self.at(key))

    def rows(self, key: str, least: int = 1) -> list[Any]:
        """The list at `key`, of at least so many; an absent one is empty where none is needed."""
        if least == 0 and not self.given(key):
            return []
        rows = self.raw(key)
        if not isinstance(rows, list):
            raise self.bad(key, "a list is wanted here.")
        if len(rows) < least:
            raise self.bad(key, f"{len(rows)} were given; at least {least} are needed.")
        return rows

    def parts(self, key: str, least: int = 1) -> list["Asked"]:
        """The groups of the list at `key`."""
        return [Asked(row, f"{self.at(key)}.{k}") for k, row in enumerate(self.rows(key, least))]

    def numbers(self, key: str, least: int = 1, sign: Sign = "above") -> list[float]:
        """The numbers of the list at `key`, in the unit of its name."""
        return [self._read(row, key, f"{self.at(key)}.{k}", sign) for k, row in enumerate(self.rows(key, least))]

    def pair(self, key: str, value: tuple[float, float], sign: Sign = "any") -> tuple[float, float]:
        """The two numbers at `key`, else `value`."""
        if not self.given(key):
            return value
        two = self.numbers(key, 2, sign)
        if len(two) != 2:
            raise self.bad(key, f"{len(two)} numbers were given; two are wanted.")
        return two[0], two[1]

    def points(self, key: str, size: int, least: int) -> list[list[float]]:
        """The points of the list at `key`, each of `size` numbers in the unit of its name."""
        found = []
        for k, row in enumerate(self.rows(key, least)):
            if not isinstance(row, list) or len(row) != size:
                raise self.bad(f"{key}.{k}", f"a point is {size} numbers.")
            found.append([self._read(value, key, f"{self.at(key)}.{k}.{n}", "any") for n, value in enumerate(row)])
        return found

    def texts(self, key: str, least: int = 1) -> list[str]:
        """The words of the list at `key`."""
        rows = self.rows(key, least)
        for k, row in enumerate(rows):
            if not isinstance(row, str):
                raise self.bad(f"{key}.{k}", "words are wanted here.")
        return rows

"""What answers to questions share: levels, a figure with its doubt, and how near is at a limit. Keys are the open format's."""

from typing import Literal, TypedDict

Level = Literal["good", "note", "caution", "danger"]
EPS = 1e-9  # in every comparison with a limit
LEVELS: tuple[Level, ...] = ("good", "note", "caution", "danger")


class Shown(TypedDict):
    """A figure, its standard error, and the ends of its 95 % interval [the figure's unit]."""

    value: float
    se: float
    low: float
    high: float


class Warned(TypedDict):
    """Something to heed, by its id."""

    id: str
    level: Level


def worst(levels: list[Level]) -> Level:
    """The worst of levels, good for none.

    `levels` [names].
    """
    return max(levels, key=LEVELS.index, default="good")

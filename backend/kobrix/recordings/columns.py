"""Columns of a recording: what each is of and in which unit, guessed from its head and put right by a person."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from kobrix.core.constants import INCH, KMH, POUND, G
from kobrix.core.errors import BadEntry

Floats = NDArray[np.float64]
_FOOT, _PSI = 12 * INCH, POUND * G / INCH**2
# What a column may be of, and its units: the factor to SI; temperatures in °C.
UNITS: dict[str, dict[str, float]] = {
    "time": {"s": 1.0, "ms": 1e-3, "min": 60.0},
    "speed": {"km/h": KMH, "m/s": 1.0, "mph": 5280 * _FOOT / 3600, "kn": 1852 / 3600, "ft/s": _FOOT},
    "distance": {"m": 1.0, "ft": _FOOT, "km": 1000.0},
    "deceleration": {"g": G, "m/s²": 1.0},
    "acceleration": {"g": -G, "m/s²": -1.0},
    "front_pressure": {"bar": 1e5, "kPa": 1e3, "MPa": 1e6, "psi": _PSI},
    "rear_pressure": {"bar": 1e5, "kPa": 1e3, "MPa": 1e6, "psi": _PSI},
    "front_temperature": {"°C": 1.0, "°F": 1.0},
    "rear_temperature": {"°C": 1.0, "°F": 1.0},
}
NONE = "none"
_ROLE = (
    ("front_pressure", r"front.*(press|brake)|press.*front"), ("rear_pressure", r"rear.*(press|brake)|press.*rear"),
    ("front_temperature", r"front.*(temp|rotor|disc)|temp.*front"), ("rear_temperature", r"rear.*(temp|rotor|disc)|temp.*rear"),
    ("deceleration", r"\bdecel"), ("acceleration", r"\b(accel|long\w* (acc|g)|ax\b|acc\b)"),
    ("time", r"\b(time|t|elapsed|seconds?|timestamp)\b|time"), ("speed", r"\b(speed|velocity|v|kmh|km/h|mph)\b|speed"),
    ("distance", r"\b(dist\w*|way|odo\w*)\b|distance"),
)  # fmt: skip
_UNIT = {
    "km/h": r"km ?/ ?h|kmh|kph|kmph", "m/s²": r"m/s\^?2|m/s²|m/s/s|mps2", "m/s": r"m/s|mps|m per s", "mph": r"mph", "kn": r"kn|knots?|kt",
    "ft/s": r"ft/s|fps", "ms": r"ms|msec|millis\w*", "min": r"min\w*", "s": r"s|sec\w*", "km": r"km", "m": r"m|met\w*", "ft": r"ft|feet",
    "g": r"g", "bar": r"bar", "kPa": r"kpa", "MPa": r"mpa", "psi": r"psi", "°C": r"°?c|deg c|celsius", "°F": r"°?f|deg f|fahrenheit",
}  # fmt: skip


@dataclass(frozen=True)
class Column:
    """A column: its `head` as written, what it is of (`role`, NONE for what is not used) and its `unit`; `guessed`: the head names no unit."""

    head: str
    role: str = NONE
    unit: str = ""
    guessed: bool = False


@dataclass(frozen=True)
class Recording:
    """A recording: its `kind` ("csv", "gpx", "nmea"), its `columns` and their `values`, one row for each; `dropped` lines that say nothing."""

    kind: str
    columns: tuple[Column, ...]
    values: Floats
    dropped: int = 0


def _unit_in(text: str, units: Mapping[str, float]) -> str | None:
    words = text.lower().replace("_", " ")
    inside = re.findall(r"[\[(]([^\])]*)[\])]", words)
    last = words.split()[-1:] if len(words.split()) > 1 else []
    for part in [*inside, *last, words]:
        for unit, pattern in _UNIT.items():
            if unit in units and re.fullmatch(rf"\s*({pattern})\s*", part):
                return unit
    return None


def guessed(head: str) -> Column:
    """A column by its head.

    >>> guessed("Speed (mph)")
    Column(head='Speed (mph)', role='speed', unit='mph', guessed=False)
    >>> guessed("t").role
    'time'
    """
    words = re.sub(r"[\[(][^\])]*[\])]", " ", head).lower().replace("_", " ").strip()
    role = next((role for role, pattern in _ROLE if re.search(pattern, words)), NONE)
    if role == NONE:
        return Column(head)
    unit = _unit_in(head, UNITS[role])
    return Column(head, role, unit if unit is not None else next(iter(UNITS[role])), unit is None)


def by_hand(recording: Recording, roles: Mapping[int, tuple[str, str]]) -> Recording:
    """The recording with what a person says of some columns: number of the column to (role, unit). Raises BadEntry."""
    columns = list(recording.columns)
    for at, (role, unit) in roles.items():
        if not 0 <= at < len(columns):
            raise BadEntry("column", str(at), f"0 to {len(columns) - 1}")
        if role != NONE and (role not in UNITS or unit not in UNITS[role]):
            raise BadEntry(
                f"column {columns[at].head!r}", f"{role} in {unit}", "; ".join(f"{r} in {', '.join(u)}" for r, u in UNITS.items())
            )
        columns[at] = Column(columns[at].head, role, "" if role == NONE else unit)
    return replace(recording, columns=tuple(columns))


def column(recording: Recording, role: str) -> Floats | None:
    """The first column of a `role` in SI, temperatures in °C; None where there is none."""
    for at, own in enumerate(recording.columns):
        if own.role == role:
            values = recording.values[:, at]
            return (values - 32.0) / 1.8 if own.unit == "°F" else values * UNITS[role][own.unit]
    return None

"""Tyres: what a size code says, and the radius it rolls on."""

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from kobrix.core.constants import INCH, PUBLISHED, assumed
from kobrix.core.errors import BadEntry

_METRIC = re.compile(
    r"(?:P|LT|ST|T)?(?P<width>\d{2,3}(?:\.\d+)?)(?:/(?P<aspect>\d{2,3}(?:\.\d+)?))?"
    r"(?P<build>[A-Z]{0,2}R|[A-Z]?[DB]|-)(?P<rim>\d{1,2}(?:\.\d+)?)"
)
_FLOTATION = re.compile(
    r"(?:LT)?(?P<diameter>\d{2}(?:\.\d+)?)X(?P<width>\d{1,2}(?:\.\d+)?)(?P<build>Z?R|D|B|-)(?P<rim>\d{1,2}(?:\.\d+)?)"
)
_INCH = re.compile(r"(?P<width>\d{1,2}\.\d{1,2})(?P<build>[SHV]?R|D|B|-)(?P<rim>\d{1,2}(?:\.\d+)?)")
# A motorcycle's letters stand for a width in mm: MT90-16 is 130/90-16. Common practice, from memory.
_LETTERS = {"MH": 80, "MJ": 90, "MM": 100, "MN": 110, "MP": 120, "MT": 130, "MU": 140, "MV": 150}
_LETTERED = re.compile(r"(?P<letters>M[A-Z])(?P<aspect>\d{2})(?P<build>R|B|-)(?P<rim>\d{2})")
# An aircraft's small sizes: 500x5, 600-6 and 5.00x5 are 5.00-5 and 6.00-6.
_HUNDREDTHS = re.compile(r"(?P<width>[3-9]\d{2}|1[0-2]\d{2})[X-](?P<rim>\d{1,2})(?!\d|\.)")
_TIMES = re.compile(r"(?P<width>\d{1,2}\.\d{1,2})X(?P<rim>\d{1,2})(?!\d|\.)")
_ALLOWED = "a size such as 185/65R15, 31x10.50R15, 155R13, 5.60-15, MT90-16 or 5.00-5"


def _spelled(text: str) -> str:
    """A size in letters or hundredths of an inch as the metric or inch size that it is; others as they stand."""
    found = _LETTERED.match(text)
    if found is not None and found["letters"] in _LETTERS:
        return f"{_LETTERS[found['letters']]}/{found['aspect']}{found['build']}{found['rim']}"
    found = _HUNDREDTHS.match(text)
    if found is not None:
        return f"{int(found['width']) / 100:.2f}-{found['rim']}"
    found = _TIMES.match(text)
    return f"{found['width']}-{found['rim']}" if found is not None else text


@dataclass(frozen=True)
class Tyre:
    """A tyre size: `diameter` [m] outside, `rolling_radius` [m], `rim` [m] diameter, `build`, `estimated` aspect."""

    diameter: float
    rolling_radius: float
    rim: float
    build: Literal["radial", "cross-ply"]
    estimated: bool


def _section_height(code: str, width: str, aspect: str | None) -> tuple[float, bool]:
    """Section height [m] from the width as written and the aspect, and whether the aspect is our estimate."""
    size = float(width)
    if aspect is not None:
        return size / 1000.0 * float(aspect) / 100.0, False
    if size >= 100.0:
        return size / 1000.0 * assumed("tyre.aspect_metric"), True
    if size < 30.0:
        return size * INCH * assumed("tyre.aspect_inch"), True
    raise BadEntry("tyre", f"{code!r}", _ALLOWED, f"a width of {size:g} is neither millimetres nor inches")


@lru_cache(maxsize=512)
def from_code(code: str) -> Tyre:
    """Tyre [record] of a size `code` [text]: metric, flotation, aspect-less or cross-ply.

    D = 25.4·rim + 2·width·aspect; rolling radius 3.05·D/2π radial, 2.99·D/2π cross-ply. Prefixes, speed letters and
    what follows the rim are ignored. Raises BadEntry. Source: ETRTO, from memory.

    >>> round(from_code("205/55R16").rolling_radius * 1000, 1)
    306.7
    """
    text = _spelled(re.sub(r"\s+", "", code.upper().replace("×", "X")))
    found = _FLOTATION.match(text)
    estimated = False
    if found is not None:
        diameter = float(found["diameter"]) * INCH
    else:
        found = _METRIC.match(text) or _INCH.match(text)
        if found is None:
            raise BadEntry("tyre", f"{code!r}", _ALLOWED)
        height, estimated = _section_height(code, found["width"], found.groupdict().get("aspect"))
        diameter = float(found["rim"]) * INCH + 2.0 * height
    rim = float(found["rim"])
    if not 4.0 <= rim <= 30.0 or diameter <= rim * INCH:
        raise BadEntry("tyre", f"{code!r}", _ALLOWED, "the rim must be 4 to 30 in and smaller than the tyre")
    radial = found["build"].endswith("R")
    factor = PUBLISHED["rolling_radial" if radial else "rolling_crossply"].value
    build: Literal["radial", "cross-ply"] = "radial" if radial else "cross-ply"
    return Tyre(diameter, factor * diameter / (2.0 * np.pi), rim * INCH, build, estimated)

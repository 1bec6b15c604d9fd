"""Quantities as people type them: `7/8`, `2 1/4 in`, `20.6mm`, `1,310 kg`, `900 psi`, `58.5 %`.

A name's last part is its unit (`bore_mm`); a number is in that unit, a text may carry a unit of its own. A bare
fraction in a length is inches. What is stored is what was typed, with the unit it was read in.
"""

import math
import re
from dataclasses import dataclass
from functools import lru_cache

from kobrix.core.constants import ATMOSPHERE, INCH, POUND, G
from kobrix.core.errors import BadEntry

_LBF = POUND * G
_PSI = _LBF / INCH**2
_INHG = 3386.389  # conventional inch of mercury, published

# dimension -> {symbol: size in SI}
_DIMENSIONS: dict[str, dict[str, float]] = {
    "length": {
        "mm": 1e-3, "cm": 1e-2, "m": 1.0, "in": INCH, '"': INCH, "inch": INCH, "inches": INCH,
        "ft": 12 * INCH, "'": 12 * INCH, "km": 1e3, "µm": 1e-6, "um": 1e-6, "thou": INCH / 1000,
    },
    "mass": {"kg": 1.0, "g": 1e-3, "lb": POUND, "lbs": POUND, "t": 1000.0},
    "force": {"N": 1.0, "kN": 1e3, "lbf": _LBF, "lb": _LBF, "lbs": _LBF, "kgf": G},
    "pressure": {
        "kPa": 1e3, "MPa": 1e6, "Pa": 1.0, "bar": 1e5, "psi": _PSI, "inHg": _INHG, "mmHg": _INHG / 25.4,
        "atm": ATMOSPHERE, "GPa": 1e9,
    },
    "volume": {"cm3": 1e-6, "cm³": 1e-6, "cc": 1e-6, "ml": 1e-6, "l": 1e-3, "in3": INCH**3, "in³": INCH**3},
    "area": {"cm2": 1e-4, "cm²": 1e-4, "mm2": 1e-6, "mm²": 1e-6, "in2": INCH**2, "in²": INCH**2, "sq in": INCH**2},
    "angle": {"deg": math.pi / 180, "°": math.pi / 180},
    "speed": {"kmh": 1 / 3.6, "km/h": 1 / 3.6, "mph": 1609.344 / 3600, "m/s": 1.0, "kn": 1852 / 3600},
    "deceleration": {"g": 1.0, "m/s²": 1 / G, "m/s2": 1 / G},
    "stiffness": {"N/mm": 1e3, "kN/mm": 1e6, "lbf/in": _LBF / INCH},
    "give": {"µm/MPa": 1e-12, "um/MPa": 1e-12},
    "volume give": {"cm3/MPa": 1e-12, "cm³/MPa": 1e-12},
    "hose give": {"cm3/(m MPa)": 1e-12, "cm³/(m·MPa)": 1e-12, "cm3/m/MPa": 1e-12},
    "pressure per load": {"kPa/N": 1e3},
    "time": {"s": 1.0, "min": 60.0},
    "turning": {"deg/s": math.pi / 180, "°/s": math.pi / 180},
    "torque": {"Nm": 1.0, "N m": 1.0, "N·m": 1.0, "ft lb": _LBF * 12 * INCH, "ft-lb": _LBF * 12 * INCH},
    "temperature": {"°C": 1.0, "C": 1.0, "°F": 5 / 9, "F": 5 / 9},
    "age": {"years": 1.0, "year": 1.0, "yr": 1.0},
    "ratio": {"": 1.0, "%": 0.01},
}  # fmt: skip
_ZERO_AT = {"°F": 32.0, "F": 32.0}  # of a temperature, at 0 °C
# the unit that ends a name -> (dimension, symbol)
_SUFFIXES: dict[str, tuple[str, str]] = {
    "mm": ("length", "mm"), "m": ("length", "m"), "kg": ("mass", "kg"), "n": ("force", "N"), "kpa": ("pressure", "kPa"),
    "cm3": ("volume", "cm³"), "cm2": ("area", "cm²"), "deg": ("angle", "deg"), "kmh": ("speed", "km/h"),
    "g": ("deceleration", "g"), "n_per_mm": ("stiffness", "N/mm"), "um_per_mpa": ("give", "µm/MPa"),
    "cm3_per_mpa": ("volume give", "cm³/MPa"), "cm3_per_m_mpa": ("hose give", "cm³/(m·MPa)"),
    "kpa_per_n": ("pressure per load", "kPa/N"), "s": ("time", "s"), "nm": ("torque", "N m"), "gpa": ("pressure", "GPa"),
    "m_per_s": ("speed", "m/s"), "m_per_s2": ("deceleration", "m/s²"), "deg_per_s": ("turning", "deg/s"),
    "years": ("age", "years"), "c": ("temperature", "°C"), "": ("ratio", ""),
}  # fmt: skip
_EXAMPLES = {
    "length": "7/8 in or 22.2 mm", "mass": "1,310 kg or 2,890 lb", "force": "340 N or 76 lbf",
    "pressure": "900 psi or 6.2 MPa", "volume": "2.5 cm3", "area": "22.8 cm2", "angle": "3 deg", "speed": "100 km/h or 60 mph",
    "deceleration": "0.8 g", "ratio": "0.38 or 38 %", "time": "0.3 s",
}  # fmt: skip
_SIGNS = str.maketrans({"−": "-", "–": "-", "×": "x", "”": '"', "“": '"', "″": '"', "’": "'", "′": "'", "⁄": "/", "\u00a0": " "})
_FRACTIONS = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_NUMBER = r"(?:\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:\.\d*)?(?:[eE][+-]?\d+)?|\.\d+)"
_QUANTITY = re.compile(
    rf"(?P<sign>[+-]?)\s*(?:(?:(?P<whole>\d+)(?:\s+|\s*-\s*))?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)|(?P<number>{_NUMBER}))"
    r"\s*(?P<unit>.*)$"
)
_FEET = re.compile(r"(?P<feet>\d+)\s*(?:'|ft)\s*(?P<inches>.+?)\s*(?:\"|in|inches)$")
_LARGEST = 10**300
Typed = float | int | str


@dataclass(frozen=True)
class Reading:
    """A typed quantity as read: `value` in the name's unit, `symbol` of the unit it was read in, and the text to keep."""

    value: float
    symbol: str
    text: str


@lru_cache(maxsize=512)
def unit_of(name: str) -> tuple[str, str]:
    """Dimension and symbol of the unit that ends a field `name`; a ratio where it ends in none."""
    parts = name.split("_")
    for start in range(1, len(parts)):
        found = _SUFFIXES.get("_".join(parts[start:]))
        if found is not None:
            return found
    return _SUFFIXES[""]


def label_of(name: str) -> str:
    """Words for a field `name`: `pivot_to_pad_mm` is "pivot to pad"."""
    parts = name.split("_")
    for start in range(1, len(parts)):
        if "_".join(parts[start:]) in _SUFFIXES:
            return " ".join(parts[:start])
    return " ".join(parts)


@lru_cache(maxsize=512)
def si_factor(name: str) -> float:
    """Size in SI of the unit that ends a field `name`."""
    dimension, symbol = unit_of(name)
    return _DIMENSIONS[dimension][symbol]


def _unit(text: str, dimension: str) -> tuple[str, float] | None:
    symbols = _DIMENSIONS[dimension]
    tidy = " ".join(text.replace(".", "").split()) if dimension != "ratio" else text.strip()
    for symbol, size in symbols.items():
        if symbol == tidy:
            return symbol, size
    for symbol, size in symbols.items():
        if symbol.lower() == tidy.lower() and len(tidy) > 1:
            return symbol, size
    return None


def _refuse(name: str, text: str, reason: str) -> BadEntry:
    dimension, symbol = unit_of(name)
    example = _EXAMPLES.get(dimension, f"a number in {symbol}")
    article = "an" if dimension[0] in "aeiou" else "a"
    return BadEntry(label_of(name), f"{text!r}", f"{article} {dimension} such as {example}", reason)


def _number(match: re.Match[str], name: str, text: str) -> float:
    if match["top"] is not None:
        bottom = int(match["bottom"])
        if bottom == 0:
            raise _refuse(name, text, "a fraction cannot have 0 below the line")
        value = int(match["whole"] or 0) + int(match["top"]) / bottom
    else:
        value = float(match["number"].replace(",", ""))
    return -value if match["sign"] == "-" else value


def _share(match: re.Match[str], value: float) -> float:
    """A bare share: `52/48` is what each end bears of a hundred, a number above 1 is per cent."""
    if match["top"] is not None and match["whole"] is None and int(match["top"]) + int(match["bottom"]) == 100:
        return int(match["top"]) / 100.0
    return value / 100.0 if 1.0 < value <= 100.0 else value


def _shown(text: str) -> str:
    return text if len(text) <= 40 else text[:37] + "..."


@lru_cache(maxsize=4096)
def read(text: str, name: str, preferred: str | None = None) -> Reading:
    """Read a typed `text` for the field `name`; a bare number is in `preferred`, else in the name's own unit.

    Raises BadEntry with a sentence: not a number, another kind of unit, or a comma that can be read in two ways.
    """
    kept = text.strip()
    tidy = kept.translate(_SIGNS)
    for sign, plain in _FRACTIONS.items():
        tidy = re.sub(rf"(?<=\d){sign}", f" {plain}", tidy).replace(sign, plain)
    dimension, own = unit_of(name)
    size = _DIMENSIONS[dimension]
    feet = _FEET.match(tidy) if dimension == "length" else None
    if feet is not None:
        inches = read(feet["inches"] + " in", name)
        return Reading(inches.value + int(feet["feet"]) * 12 * INCH / size[own], "ft", kept)
    match = _QUANTITY.match(tidy)
    if match is None:
        raise _refuse(name, _shown(kept), "no number can be read in it" if kept else "nothing was entered")
    rest = match["unit"].strip()
    comma = re.match(r",(\d+)", rest)
    if comma is not None:
        before = match["number"] or ""
        both = f"it can be read as {before}.{comma[1]} or as {before}{comma[1]}: write one of them"
        raise _refuse(name, _shown(kept), both)
    value = _number(match, name, _shown(kept))
    if not rest and name.endswith("_share"):
        share = _share(match, value)
        return Reading(share, own, f"{kept} %" if share != value and match["top"] is None else kept)
    if not rest:
        symbol = "in" if dimension == "length" and match["top"] is not None else (preferred or own)
        if symbol not in size:
            symbol = own
        text_kept = f"{kept} {symbol}".strip() if dimension != "ratio" else kept
        return Reading(_in_own(value, symbol, size[symbol], size[own], dimension), symbol, text_kept)
    unit = _unit(rest, dimension)
    if unit is None:
        others = [kind for kind in _DIMENSIONS if kind != dimension and _unit(rest, kind) is not None]
        what = f"{rest!r} is the unit of a {others[0]}" if others else f"{_shown(rest)!r} is not a unit known here"
        raise _refuse(name, _shown(kept), what)
    return Reading(_in_own(value, unit[0], unit[1], size[own], dimension), unit[0], kept)


def _in_own(value: float, symbol: str, size: float, own: float, dimension: str) -> float:
    """A value in the unit of its field: a temperature's zero is not everybody's."""
    return (value - (_ZERO_AT.get(symbol, 0.0) if dimension == "temperature" else 0.0)) * size / own


def value_of(typed: Typed, name: str) -> float:
    """Value of a `typed` entry in the unit of its field `name`; trials drawn around one pass as they are. Raises BadEntry."""
    kind = type(typed)
    if (kind is float and math.isfinite(typed)) or (kind is int and abs(typed) <= _LARGEST):  # type: ignore[arg-type]
        return float(typed)
    if hasattr(typed, "dtype"):
        return typed  # type: ignore[return-value]
    if isinstance(typed, str):
        return read(typed, name).value
    huge = isinstance(typed, int) and not isinstance(typed, bool) and abs(typed) > _LARGEST
    if isinstance(typed, bool) or huge or not math.isfinite(typed):
        raise _refuse(name, str(typed)[:40], "it is not a number that can be measured")
    return float(typed)


def si(typed: Typed, name: str) -> float:
    """Value of a `typed` entry in SI [by its field `name`]. Raises BadEntry."""
    return value_of(typed, name) * si_factor(name)


def split_list(text: str, name: str, preferred: str | None = None) -> list[str]:
    """Several sizes as typed, `2 x 38.1`, `38.1 + 34.9 mm` or `38.1, 34.9`: one entry each, for a list field `name`.

    Raises BadEntry as `read` does, and for a count outside 1 to 12.
    """
    tidy = text.translate(_SIGNS).strip()
    parts = [p for p in re.split(r"\s*[+;]\s*|\s*,\s+|\s+and\s+", tidy) if p]
    if not parts:
        raise _refuse(name, _shown(text), "nothing was entered")
    sizes: list[str] = []
    for part in parts:
        many = re.match(r"(\d+)\s*(?:x|X|\*|of)\s*(.+)$", part)
        count, size = (int(many[1]), many[2]) if many else (1, part)
        if not 1 <= count <= 12:
            raise BadEntry(label_of(name), f"{count} pieces", "from 1 to 12 of one size")
        sizes += [read(size, name, preferred).text] * count
    if len(sizes) > 12:
        raise BadEntry(label_of(name), f"{len(sizes)} pieces", "at most 12 in all")
    return sizes


_OTHER = {"mass": ("kg", "lb"), "force": ("N", "lbf"), "area": ("cm²", "in²"), "volume": ("cm³", "in³"), "stiffness": ("N/mm", "lbf/in"),
          "speed": ("km/h", "mph"), "torque": ("N m", "ft lb")}  # fmt: skip
_FINE, _COARSE, _CLOSE, _NEAR = 32, 16, 0.3, 0.015  # parts of an inch below 25 mm and above; how far off one may be: mm, share


def inch_fraction(mm: float) -> str:
    """A length in `mm` as the nearest fraction of an inch that people read off a tape, or decimal where none is near."""
    parts = _FINE if mm < 25.0 else _COARSE
    whole = round(mm / 25.4 * parts)
    if whole == 0 or abs(whole / parts * 25.4 - mm) > min(_CLOSE, _NEAR * mm):
        return f"{mm / 25.4:.2f} in" if mm < 2540 else f"{mm / 25.4:.1f} in"
    inches, rest = divmod(whole, parts)
    if rest == 0:
        return f"{inches} in"
    common = math.gcd(rest, parts)
    return f"{f'{inches} ' if inches else ''}{rest // common}/{parts // common} in"


def other_unit(value: float, name: str, symbol: str) -> str:
    """`value` of the field `name` in the other unit than `symbol`, in which it was read: inches beside millimetres."""
    dimension, own = unit_of(name)
    sizes = _DIMENSIONS[dimension]
    if dimension == "length":
        mm = value * sizes[own] * 1e3
        return inch_fraction(mm) if symbol in ("mm", "cm", "m", "µm", "um") else f"{mm:.4g} mm" if mm < 1e4 else f"{mm:.0f} mm"
    if dimension == "pressure" and own == "kPa":
        pascals = value * 1e3
        if symbol in ("psi", "inHg"):
            return f"{pascals / 1e6:.3g} MPa" if pascals >= 1e6 else f"{pascals / 1e3:.3g} kPa"
        return f"{pascals / _PSI:.0f} psi" if pascals / _PSI >= 10 else f"{pascals / _PSI:.1f} psi"
    if dimension == "temperature":
        return f"{value:.4g} °C" if symbol in _ZERO_AT else f"{value * 1.8 + 32.0:.4g} °F"
    pair = _OTHER.get(dimension)
    if pair is None:
        return f"{value * sizes[own] / sizes[symbol]:.4g} {symbol}" if symbol != own and symbol != "%" else ""
    to = pair[1] if symbol != pair[1] and sizes[symbol] != sizes[pair[1]] else pair[0]
    size = 1.0 if to == symbol else sizes[own] / sizes[to]
    return f"{value * size:.4g} {to}" if to != symbol else ""

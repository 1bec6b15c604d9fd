"""The way of a hard line as a person says it: straights and bends in their order, `300, 90° r 20, 1 ft`."""

import re
from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.fileformat.quantities import read

_BEND = re.compile(r"^(\d+(?:\.\d+)?)\s*(?:°|deg(?:rees)?)\s*(?:,?\s*(?:radius|r)\s*(.+))?$", re.IGNORECASE)
_BETWEEN = re.compile(r"[;\n]+|,\s+|\s+/\s+|,(?=\s*\d+(?:\.\d+)?\s*(?:°|deg))|(?<=°),|(?<=deg),")
MOST, USUAL_RADIUS = 60, 3.0  # parts of a way; radius of a bend in tube diameters where none is said, common practice


def way_parts(text: str, outer_mm: float, preferred: str | None = None) -> list[dict[str, Any]]:
    """The parts of a way as the question `line_length` has them. Raises BadEntry with the piece that cannot be read.

    `outer_mm` [mm] of the tube: a bend without a radius has three of it, or the next larger whole mm.

    >>> way_parts("300, 90° r 20, 1 ft", 4.76)
    [{'straight_mm': 300.0}, {'bend_deg': 90.0, 'radius_mm': 20.0}, {'straight_mm': 304.8}]
    """
    pieces = [p.strip() for p in _BETWEEN.split(text) if p.strip()]
    if not 0 < len(pieces) <= MOST:
        raise BadEntry("way", f"{len(pieces)} pieces", f"1 to {MOST} straights and bends", "as 300, 90° r 20, 450")
    found: list[dict[str, Any]] = []
    for n, piece in enumerate(pieces, 1):
        bend = _BEND.match(piece)
        try:
            if bend is None:
                length = read(piece, "straight_mm", preferred).value
                if not 0 <= length <= 20_000:
                    raise BadEntry("straight", f"{length:g} mm", "0 to 20,000 mm")
                found.append({"straight_mm": length})
                continue
            angle = float(bend[1])
            radius = (
                float(-(-outer_mm * USUAL_RADIUS // 1))
                if bend[2] is None
                else read(bend[2].strip(), "radius_mm", preferred).value
            )
            if not 0 < angle <= 360 or not 0 < radius <= 5000:
                raise BadEntry("bend", f"{angle:g}° at radius {radius:g} mm", "more than 0 and up to 360°, radius up to 5,000 mm")
            found.append({"bend_deg": angle, "radius_mm": radius})
        except BadEntry as refused:
            raise BadEntry(
                f"way, piece {n}",
                repr(piece[:30]),
                "a straight such as 300, or a bend such as 90° r 20",
                refused.reason or f"allowed is {refused.allowed}",
            ) from None
    return found

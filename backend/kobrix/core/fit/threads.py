"""Threads as people write them: `3/8-24`, `M10x1`, `1/8-27 NPT`."""

import re
from dataclasses import dataclass

from kobrix.core.constants import INCH

TUBE_WITHIN = 0.1  # mm between two outer diameters that are one tube: our estimate
_INCH_MM = 1000 * INCH
_METRIC = re.compile(r"M\s*(\d+(?:\.\d+)?)\s*[x×]\s*(\d+(?:\.\d+)?)$", re.IGNORECASE)
_INCH = re.compile(r"(?:(\d+)\s+)?(\d+)(?:\s*/\s*(\d+))?\s*-\s*(\d+(?:\.\d+)?)\s*(NPT)?$", re.IGNORECASE)


@dataclass(frozen=True)
class Thread:
    """A thread: outer `diameter` and `pitch` [mm], whether it is a taper pipe thread, and its one spelling."""

    diameter: float
    pitch: float
    tapered: bool
    text: str

    def same(self, other: "Thread") -> bool:
        """Whether it is the `other`, by what a gauge can tell (0.15 mm over the crests, 0.01 mm of pitch: our estimate)."""
        alike = self.tapered == other.tapered and abs(self.diameter - other.diameter) <= 0.15 + 1e-9
        return alike and abs(self.pitch - other.pitch) <= 0.01 + 1e-9


def thread_of(text: str, npt_outer_mm: dict[str, float]) -> Thread | None:
    """The thread that `text` names, None where it names none that is known; NPT diameters [mm] come from a table.

    `npt_outer_mm` {size: [mm]}.
    """
    tidy = text.strip()
    metric = _METRIC.match(tidy)
    if metric is not None:
        diameter, pitch = float(metric[1]), float(metric[2])
        return Thread(diameter, pitch, False, f"M{diameter:g}x{pitch:g}") if diameter > 0 and pitch > 0 else None
    inch = _INCH.match(tidy)
    if inch is None or (inch[3] is not None and int(inch[3]) == 0) or float(inch[4]) == 0:
        return None
    fraction = f"{inch[2]}/{inch[3]}" if inch[3] is not None else inch[2]
    size = f"{inch[1]} {fraction}" if inch[1] is not None else fraction
    value = int(inch[1] or 0) + int(inch[2]) / int(inch[3] or 1)
    pitch = _INCH_MM / float(inch[4])
    if inch[5] is not None:
        outer = npt_outer_mm.get(size)
        return Thread(outer, pitch, True, f"{size}-{float(inch[4]):g} NPT") if outer is not None else None
    return Thread(value * _INCH_MM, pitch, False, f"{size}-{float(inch[4]):g}") if value > 0 else None

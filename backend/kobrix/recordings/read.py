"""A recording read by what it begins with, and its stops found."""

from dataclasses import dataclass

import numpy as np

from kobrix.core.constants import KMH
from kobrix.core.errors import BadEntry, BadFile
from kobrix.core.prove.stops import Trace, stops_in
from kobrix.recordings.columns import Floats, Recording, column
from kobrix.recordings.table import read_csv

MOST_STOPS, MOST_SAMPLES = 40, 20_000


def read(content: bytes) -> Recording:
    """A recording by its content. Raises BadFile and BadEntry in words."""
    if not content.strip():
        raise BadFile(["The file is empty."])
    start = content[:400].lstrip(b"\xef\xbb\xbf \r\n\t")
    if start.startswith(b"<") or b"<gpx" in start:
        from kobrix.recordings.tracks import read_gpx  # loaded with the first such file, not at each start

        return read_gpx(content)
    if start.startswith(b"$") and b"," in start:
        from kobrix.recordings.tracks import read_nmea

        return read_nmea(content)
    return read_csv(content)


@dataclass(frozen=True)
class Series:
    """A recording as a stop is made of it: `t` [s] rising, `v` [m/s], and where they are there `s` [m], `a` [m/s²] slowing down, and
    `more` of pressures [Pa] and temperatures [°C]."""

    t: Floats
    v: Floats
    s: Floats | None
    a: Floats | None
    more: dict[str, Floats]


def series(recording: Recording) -> Series:
    """Time and speed of a `recording`, rows without either left out. Raises BadEntry where one is not there or times do not rise."""
    t, v = column(recording, "time"), column(recording, "speed")
    for name, values in (("time", t), ("speed", v)):
        if values is None:
            heads = ", ".join(repr(c.head) for c in recording.columns[:12])
            raise BadEntry("columns", heads, f"one of {name} among them", "say which column it is")
    assert t is not None and v is not None
    known = np.isfinite(t) & np.isfinite(v)
    s, down, up = (column(recording, role) for role in ("distance", "deceleration", "acceleration"))
    a = down if down is not None else up
    t, v = t[known], v[known]
    back = np.flatnonzero(np.diff(t) <= 0)
    if back.size:
        rise = np.concatenate([[True], t[1:] > np.maximum.accumulate(t)[:-1]])
        if np.count_nonzero(~rise) > 0.02 * t.size:
            at = int(back[0]) + 1
            raise BadEntry("time", f"{t[at]:g} s after {t[at - 1]:g} s", "times that rise", f"row {at + 1} of the recording")
        keep = np.flatnonzero(known)[rise]
    else:
        keep = np.flatnonzero(known)
    if keep.size < 3:
        raise BadEntry("recording", f"{keep.size} rows with time and speed", "three or more")
    whole = {
        role: values
        for role in ("front_pressure", "rear_pressure", "front_temperature", "rear_temperature")
        if (values := column(recording, role)) is not None
    }
    times, speeds = column(recording, "time"), column(recording, "speed")
    assert times is not None and speeds is not None
    return Series(
        times[keep],
        np.maximum(speeds[keep], 0.0),
        _whole(s, keep),
        _whole(a, keep),
        {role: values[keep] for role, values in whole.items()},
    )


def _whole(values: Floats | None, keep: np.ndarray[tuple[int], np.dtype[np.int64]]) -> Floats | None:
    """A column at the rows that are kept; None where it has gaps there."""
    return None if values is None or not np.isfinite(values[keep]).all() else values[keep]


@dataclass(frozen=True)
class FoundStop:
    """A stop in a recording: when it begins [s], its own samples and their places `first` to `last`."""

    at: float
    trace: Trace
    first: int
    last: int


def found_stops(own: Series, trigger: float) -> list[FoundStop]:
    """The stops of a series from at least a `trigger` [m/s] to rest, each with its own samples from zero."""
    found = []
    for first, last in stops_in(own.t, own.v, trigger, 1.0 * KMH)[:MOST_STOPS]:
        if last - first > MOST_SAMPLES:
            continue
        part = slice(first, last)
        s = None if own.s is None else own.s[part] - own.s[first]
        a = None if own.a is None else own.a[part]
        found.append(FoundStop(float(own.t[first]), Trace(own.t[part] - own.t[first], own.v[part], s, a), first, last))
    return found

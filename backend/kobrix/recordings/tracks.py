"""Tracks of a satellite receiver: GPX by gpxpy, NMEA 0183 by pynmea2."""

import itertools

import gpxpy
import gpxpy.gpx
import numpy as np
import pynmea2

from kobrix.core.errors import BadFile
from kobrix.recordings.columns import Column, Recording
from kobrix.recordings.table import decoded

_COLUMNS = (Column("time", "time", "s"), Column("speed", "speed", "m/s"))
_DAY = 86400.0


def read_gpx(content: bytes) -> Recording:
    """The points of a GPX file that have a time: speed as recorded, else from point to point. Raises BadFile."""
    text = decoded(content)
    if "<!DOCTYPE" in text or "<!ENTITY" in text:
        raise BadFile(["This GPX file declares entities: such files are not read."])
    try:
        gpx = gpxpy.parse(text)
    except Exception as error:  # the library passes on what its XML reader says
        raise BadFile([f"This is no GPX file that can be read: {str(error)[:120]}."]) from None
    points = [p for track in gpx.tracks for segment in track.segments for p in segment.points if p.time is not None]
    if len(points) < 3:
        raise BadFile([f"{len(points)} points with a time were found; three or more are needed."])
    start = points[0].time
    assert start is not None
    t = np.array([(p.time - start).total_seconds() for p in points if p.time is not None])
    speeds = [_recorded(p) for p in points]
    if all(v is not None for v in speeds):
        v = np.array(speeds, dtype=np.float64)
    else:
        way = np.array([0.0, *(b.distance_2d(a) or 0.0 for a, b in itertools.pairwise(points))])
        gap = np.diff(t, prepend=t[0] - 1.0)
        v = np.where(gap > 0, way / np.where(gap > 0, gap, 1.0), 0.0)
    return Recording("gpx", _COLUMNS, np.stack([t, v], axis=1))


def _recorded(point: gpxpy.gpx.GPXTrackPoint) -> float | None:
    """Speed [m/s] that a point carries, its own or in an extension."""
    if point.speed is not None:
        return float(point.speed)
    for extension in point.extensions:
        for node in (extension, *extension.iter()):
            if str(node.tag).rpartition("}")[2].lower() == "speed" and node.text:
                try:
                    return float(node.text)
                except ValueError:
                    return None
    return None


def read_nmea(content: bytes) -> Recording:
    """The RMC sentences of a receiver's log: time of day and speed over ground; what has a wrong checksum is dropped. Raises BadFile."""
    rows: list[tuple[float, float]] = []
    dropped, day = 0, 0.0
    for line in decoded(content).splitlines():
        if not line.startswith("$"):
            continue
        try:
            said = pynmea2.parse(line.strip(), check=True)
            if said.sentence_type != "RMC" or said.status != "A":
                continue
            at, knots = said.timestamp, float(said.spd_over_grnd)
            seconds = at.hour * 3600.0 + at.minute * 60.0 + at.second + at.microsecond * 1e-6
        except (pynmea2.ParseError, ValueError, TypeError, AttributeError):
            dropped += 1
            continue
        if rows and seconds + day < rows[-1][0] - _DAY / 2:
            day += _DAY  # over midnight
        rows.append((seconds + day, knots * 1852 / 3600))
    if len(rows) < 3:
        raise BadFile([f"{len(rows)} sentences with time and speed (RMC, status A) were found; three or more are needed."])
    return Recording("nmea", _COLUMNS, np.array(rows), dropped)

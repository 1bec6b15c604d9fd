"""Recordings as loggers write them, and as nobody should: columns matched by name and unit, errors by line, stops found."""

import random
import unittest
from datetime import datetime, timedelta

import gpxpy
import gpxpy.gpx
import numpy as np
import pynmea2
from kobrix.core.constants import KMH
from kobrix.core.errors import BadEntry, BadFile, KobrixError
from kobrix.core.prove.stops import stops_in
from kobrix.devices import meter
from kobrix.recordings.columns import Recording, by_hand, column, guessed
from kobrix.recordings.read import found_stops, read, series


def drive(stops: int = 3, speed: float = 82.0 * KMH, rate: float = 10.0) -> tuple[list[float], list[float]]:
    """Times and speeds of a drive with so many stops, a run-up before each."""
    t: list[float] = []
    v: list[float] = []
    for n in range(stops):
        start = t[-1] + 1 / rate if t else 0.0
        up = np.arange(0.0, 12.0, 1 / rate)
        t += [float(x) for x in start + up]
        v += [float(x) for x in speed * up / 12.0]
        own, speeds = meter.stop(speed, 7.0, n)
        t += [float(x) for x in t[-1] + 1 / rate + own]
        v += [float(x) for x in speeds]
    return t, v


def written(rows: list[list[str]], mark: str, end: str, head: list[list[str]]) -> str:
    return end.join(mark.join(row) for row in [*head, *rows]) + end


class Heads(unittest.TestCase):
    def test_a_column_is_known_by_its_head_and_unit(self) -> None:
        for head, role, unit, no_unit in (
            ("Time (s)", "time", "s", False), ("t", "time", "s", True), ("elapsed_ms", "time", "ms", False), ("GPS Speed [mph]", "speed", "mph", False),
            ("speed km/h", "speed", "km/h", False), ("Velocity (m/s)", "speed", "m/s", False), ("speed (kn)", "speed", "kn", False),
            ("Distance (ft)", "distance", "ft", False), ("Deceleration [g]", "deceleration", "g", False), ("Longitudinal accel (m/s^2)", "acceleration", "m/s²", False),
            ("Front brake pressure (bar)", "front_pressure", "bar", False), ("brake press rear psi", "rear_pressure", "psi", False),
            ("rotor temp front (°F)", "front_temperature", "°F", False), ("Satellites", "none", "", False), ("heading", "none", "", False),
        ):  # fmt: skip
            found = guessed(head)
            self.assertEqual((found.role, found.unit, found.guessed), (role, unit, no_unit), head)

    def test_units_are_those_of_the_field(self) -> None:
        own = Recording(
            "csv",
            tuple(guessed(h) for h in ("t (ms)", "v (kn)", "accel (g)", "front temp (°F)")),
            np.array([[1500.0, 36.0, -0.5, 212.0]]),
        )
        for role, expected in (("time", 1.5), ("speed", 18.52), ("acceleration", 0.5 * 9.80665), ("front_temperature", 100.0)):
            values = column(own, role)
            assert values is not None
            self.assertAlmostEqual(float(values[0]), expected, places=9, msg=role)


class Tables(unittest.TestCase):
    def test_every_way_of_writing_the_same_table_is_read_the_same(self) -> None:
        t, v = drive()
        expected = None
        for mark, comma, end, mode, units in (
            (",", False, "\n", "utf-8", True), (";", True, "\r\n", "utf-8-sig", False), ("\t", False, "\r", "utf-16", True), (";", False, "\n", "latin-1", True)
        ):  # fmt: skip
            rows = [[f"{a:.3f}", f"{b / KMH:.3f}", "11"] for a, b in zip(t, v, strict=True)]
            rows = [[c.replace(".", ",") for c in row] for row in rows] if comma else rows
            head = (
                [["time (s)", "speed (km/h)", "sats"]] if units else [["logger 3"], ["Time", "Speed", "Sats"], ["s", "km/h", "-"]]
            )
            text = written(rows, mark, end, head)
            own = series(read(text.encode(mode)))
            found = found_stops(own, 72 * KMH)
            self.assertEqual(len(found), 3, (mark, mode))
            expected = own if expected is None else expected
            np.testing.assert_allclose(own.v, expected.v)
            np.testing.assert_allclose(own.t, expected.t)

    def test_clock_times_gaps_and_a_quoted_head_are_read(self) -> None:
        rows = ['"Time","Speed (km/h)"']
        for n in range(40):
            rows.append(f"2026-05-01T10:{n // 10:02d}:{6 * (n % 10):02d}.5Z,{'' if n == 7 else 80 - 2 * n}")
        own = series(read("\n".join(rows).encode()))
        self.assertEqual(own.t.size, 39)
        self.assertAlmostEqual(float(own.t[-1] - own.t[0]), 39 * 6.0)

    def test_what_is_no_number_is_told_by_line_and_column_and_nothing_is_read(self) -> None:
        with self.assertRaises(BadFile) as caught:
            read(b"t,v\n0,80\n0.1,=cmd|' /C calc'!A0\n0.2,79,5\n0.3,seventy\n")
        told = caught.exception.problems
        self.assertIn("Line 3, column 2 (v): \"=cmd|' /C calc'!A0\" was given; allowed is a number.", told)
        self.assertIn("Line 4 has 3 columns; the first line of numbers has 2.", told)
        self.assertIn("Line 5, column 2 (v): 'seventy' was given; allowed is a number.", told)
        with self.assertRaises(BadFile) as many:
            read(b"t,v\n0,80\n" + b"x,y\n" * 5000)
        self.assertLess(len(many.exception.problems), 20)

    def test_hostile_files_are_refused_in_words(self) -> None:
        t, _ = drive(1)
        for content in (
            b"", b"   \n\n", b"\0\1\2\3" * 500, b"PK\3\4" + bytes(range(256)) * 20, b"a,b\nc,d\n", (",".join("x" * 10_000) + "\n" + ",".join("1" * 10_000)).encode(),
            b"<gpx><trk>", b"<!DOCTYPE x [<!ENTITY a 'b'>]><gpx/>", b"$GPRMC,nonsense", "time;speed\n1;2".encode("utf-16"), b"t,v\n" + b"1e999,5\n" * 5,
            "\n".join(f"{a},5" for a in t).encode(),
        ):  # fmt: skip
            with self.subTest(content=content[:30]), self.assertRaises(KobrixError) as caught:
                series(read(content))
            self.assertGreater(len(str(caught.exception)), 15)
        random_bytes = random.Random(3)
        for _ in range(300):
            content = bytes(random_bytes.randrange(256) for _ in range(random_bytes.randrange(400)))
            try:
                series(read(content))
            except KobrixError:
                continue

    def test_a_person_says_what_a_column_is(self) -> None:
        own = read(b"a,b\n0,50\n0.1,49\n0.2,48\n0.3,47\n")
        with self.assertRaisesRegex(BadEntry, "one of time"):
            series(own)
        told = series(by_hand(own, {0: ("time", "s"), 1: ("speed", "mph")}))
        self.assertAlmostEqual(float(told.v[0]), 50 * 0.44704)
        for roles in ({5: ("time", "s")}, {0: ("time", "km/h")}, {0: ("colour", "s")}):
            with self.assertRaises(BadEntry):
                by_hand(own, roles)

    def test_times_that_fall_back_are_dropped_or_refused(self) -> None:
        rows = [(n * 0.1, 80.0 - 0.01 * n) for n in range(200)]
        rows.insert(100, (3.0, 80.0))
        own = series(read("\n".join(["t,v", *(f"{a:.2f},{b:.2f}" for a, b in rows)]).encode()))
        self.assertEqual(own.t.size, 200)
        with self.assertRaisesRegex(BadEntry, "times that rise"):
            series(read("\n".join(["t,v", *(f"{a:.2f},{b:.2f}" for a, b in reversed(rows))]).encode()))


class Tracks(unittest.TestCase):
    def test_gpx_with_and_without_speeds(self) -> None:
        t, v = drive(2, rate=5.0)
        start = datetime(2026, 5, 1, 10, 0, 0)
        for with_speed in (True, False):
            gpx, way, last = gpxpy.gpx.GPX(), 0.0, 0.0
            track = gpxpy.gpx.GPXTrack()
            segment = gpxpy.gpx.GPXTrackSegment()
            gpx.tracks.append(track)
            track.segments.append(segment)
            for at, speed in zip(t, v, strict=True):
                way += speed * (at - last)
                last = at
                point = gpxpy.gpx.GPXTrackPoint(47.0 + way / 111_194.9, 8.0, time=start + timedelta(seconds=at))
                if with_speed:
                    point.speed = speed
                segment.points.append(point)
            version = "1.0" if with_speed else "1.1"  # speed stands in the older one
            own = series(read(gpx.to_xml(version=version).encode()))
            found = found_stops(own, 72 * KMH)
            self.assertEqual(len(found), 2, with_speed)
            self.assertAlmostEqual(float(own.v.max()), max(v), delta=0.4)

    def test_nmea_over_midnight_with_a_broken_line(self) -> None:
        t, v = drive(1, rate=5.0)
        start = datetime(2026, 5, 1, 23, 59, 50)
        lines = []
        for at, speed in zip(t, v, strict=True):
            now = start + timedelta(seconds=at)
            clock = f"{now:%H%M%S}.{now.microsecond // 10000:02d}"
            lines.append(
                str(
                    pynmea2.RMC(
                        "GP",
                        "RMC",
                        (clock, "A", "4700.00", "N", "00800.00", "E", f"{speed / KMH / 1.852:.3f}", "0", f"{now:%d%m%y}", "", ""),
                    )
                )
            )
        lines[5] = lines[5][:-2] + "00"
        recording = read("\r\n".join(["$GPGGA,x*00", *lines]).encode())
        self.assertGreaterEqual(recording.dropped, 1)
        own = series(recording)
        self.assertAlmostEqual(float(own.t[-1] - own.t[0]), t[-1] - t[0], delta=0.05)
        self.assertEqual(len(found_stops(own, 72 * KMH)), 1)


class Stops(unittest.TestCase):
    def test_each_stop_has_its_own_samples_and_a_slow_down_is_none(self) -> None:
        t = np.arange(0.0, 60.0, 0.1)
        v = np.full(t.size, 25.0)
        v[100:150] = np.linspace(25, 12, 50)  # slows and goes on
        v[150:200] = np.linspace(12, 25, 50)
        v[300:330] = np.linspace(25, 0, 30)
        v[330:400] = 0.0
        v[400:450] = np.linspace(0, 15, 50)  # too slow for the trigger
        v[450:470] = np.linspace(15, 0, 20)
        v[470:] = 0.0
        found = stops_in(t, v, 20.0, 0.3)
        self.assertEqual(len(found), 1)
        first, last = found[0]
        self.assertTrue(24.0 < t[first] < 30.0 and t[last - 1] > 33.0)

    def test_the_distance_of_a_stop_is_that_of_its_integral(self) -> None:
        for decel, speed in ((7.0, 23.0), (4.0, 24.0), (9.0, 22.5)):
            t, v = meter.stop(speed, decel, 5)
            (found,) = found_stops(
                series(Recording("csv", tuple(guessed(h) for h in ("t (s)", "v (m/s)")), np.stack([t, v], axis=1))), 20.0
            )
            way = found.trace.way_at(float(found.trace.t[-1])) - found.trace.way_at(2.0)
            built_up = speed * 0.3 / 2 + speed**2 / (2 * decel) - decel * 0.3**2 / 24  # the model's stop with what it leaves out
            self.assertAlmostEqual(way, built_up, delta=0.2)


if __name__ == "__main__":
    unittest.main()

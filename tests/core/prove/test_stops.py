"""One stop: a recorded one built from a known course, three typed numbers, and what corrects them; closed forms as the measure."""

import math
import unittest
from typing import Any

import numpy as np
from kobrix.core.constants import KMH, G
from kobrix.core.prove import stops
from kobrix.core.prove.stops import Conditions, Trace, stops_in

# Figures by name, of any kind.
corrected: Any = stops.corrected
stop_trace: Any = stops.stop_trace
stop_typed: Any = stops.stop_typed


def course(v0: float, lag: float, ramp: float, decel: float, before: float = 1.0, step: float = 0.002) -> tuple[Any, Any]:
    """Times and speeds of a stop at v0 [m/s]: steady for `before` and the lag, a straight rise over the ramp, then steady to rest."""
    t = np.arange(0.0, before + lag + ramp + v0 / decel + 2.0, step)
    since = t - before - lag
    rise = np.clip(since, 0.0, ramp)
    v = v0 - decel * rise**2 / (2 * ramp) - decel * np.maximum(0.0, since - ramp)
    return t, np.maximum(0.0, v)


class Recorded(unittest.TestCase):
    V0, DECEL = 100 * KMH, 8.0

    def stop(self, **changes: Any) -> dict[str, Any]:
        t, v = course(self.V0, 0.3, 0.4, self.DECEL)
        found: dict[str, Any] = stop_trace(Trace(t, v, **changes), 98 * KMH, None, Conditions(nominal=self.V0))
        return found

    def test_a_known_course_gives_its_own_figures(self) -> None:
        """The worked case: 0.4 s ramp and 8 m/s² from 100 km/h, by its closed form."""
        found = self.stop()
        self.assertIsNone(found["reason"])
        self.assertAlmostEqual(found["mfdd_m_per_s2"], 8.0, delta=0.01)
        self.assertAlmostEqual(found["mfdd_g"], found["mfdd_m_per_s2"] / G)
        # 1 m/s² on the ramp is 0.05 s after its beginning; the slope's window makes it a little earlier
        self.assertAlmostEqual(found["onset_s"], 1.35, delta=0.05)
        whole = self.V0 * 0.4 - 8.0 * 0.4**2 / 6 + (self.V0 - 1.6) ** 2 / 16
        self.assertAlmostEqual(found["distance_m"], whole - self.V0 * (found["onset_s"] - 1.3), delta=0.02)
        self.assertAlmostEqual(found["lag_s"], 0.2 - (found["onset_s"] - 1.3), delta=0.01)
        self.assertAlmostEqual(found["end_s"], 1.3 + 0.4 + (self.V0 - 1.6) / 8, delta=0.05)
        self.assertFalse(found["questioned"])

    def test_the_onset_may_be_marked_instead(self) -> None:
        t, v = course(self.V0, 0.3, 0.4, self.DECEL)
        found = stop_trace(Trace(t, v), 98 * KMH, 1.0, Conditions())
        self.assertEqual((found["onset_s"], found["reason"]), (1.0, None))
        self.assertAlmostEqual(found["lag_s"], 0.3 + 0.2, delta=0.01)
        self.assertAlmostEqual(found["onset_speed_kmh"], 100.0)

    def test_a_recorded_way_and_deceleration_lead(self) -> None:
        t, v = course(self.V0, 0.3, 0.4, self.DECEL)
        way = Trace(t, v).way
        plain = stop_trace(Trace(t, v), 98 * KMH, None, Conditions())
        scaled = stop_trace(Trace(t, v, s=1.02 * way), 98 * KMH, None, Conditions())
        self.assertAlmostEqual(scaled["distance_m"] / plain["distance_m"], 1.02, places=4)
        self.assertAlmostEqual(scaled["mfdd_m_per_s2"] * 1.02, plain["mfdd_m_per_s2"], places=3)
        told = np.where(t < 2.0, 0.0, 5.0)
        self.assertAlmostEqual(stop_trace(Trace(t, v, a=told), 98 * KMH, None, Conditions())["onset_s"], 2.0, delta=0.003)

    def test_what_a_recording_cannot_tell_is_its_reason(self) -> None:
        t, v = course(self.V0, 0.3, 0.4, self.DECEL)
        moving = v > 20
        for cut, trigger, reason in (
            ((t, v), 120 * KMH, "never_through_trigger"),
            ((t[moving], v[moving]), 98 * KMH, "never_at_rest"),
            ((t[t > 2.0], v[t > 2.0]), 80 * KMH, "braking_from_the_first_sample"),
            ((np.linspace(0, 100, 400), np.linspace(self.V0, 0, 400)), 80 * KMH, "no_onset"),  # 0.28 m/s²: coasting
        ):
            self.assertEqual(stop_trace(Trace(*cut), trigger, None, Conditions())["reason"], reason)

    def test_without_an_onset_mfdd_takes_the_trigger(self) -> None:
        t = np.linspace(0, 100, 4001)
        found = stop_trace(Trace(t, self.V0 - self.V0 / 100 * t), 80 * KMH, None, Conditions())
        self.assertIsNone(found["distance_m"])
        self.assertAlmostEqual(found["mfdd_m_per_s2"], self.V0 / 100, places=6)
        self.assertAlmostEqual(found["trigger_time_s"], (80 - 1) / 100 * 100, places=3)

    def test_two_stops_of_a_drive_each_have_their_samples(self) -> None:
        t, v = course(30.0, 0.2, 0.3, 7.0, before=8.0, step=0.05)
        gap = np.arange(1, 401) * 0.05
        times = np.concatenate([t, t[-1] + gap, t[-1] + gap[-1] + 0.05 + t])
        speeds = np.concatenate([v, np.linspace(0.0, 30.0, 400), v])
        found = stops_in(times, speeds, 25.0, 1.0 * KMH)
        self.assertEqual(len(found), 2)
        for first, last in found:
            own_t, own_v = times[first:last], speeds[first:last]
            self.assertGreaterEqual(own_v[0], 25.0)
            self.assertLess(own_v[-1], 1.0 * KMH)
            crossed = own_t[np.flatnonzero((own_v[:-1] >= 25.0) & (own_v[1:] < 25.0))[-1]]
            self.assertAlmostEqual(crossed - own_t[0], 5.0, delta=0.051)
        self.assertEqual(stops_in(times, speeds, 31.0, 1.0 * KMH), [])
        self.assertEqual(stops_in(t[v > 5], v[v > 5], 25.0, 1.0 * KMH), [])

    def test_speed_between_samples_is_straight_and_its_way_a_trapezoid(self) -> None:
        trace = Trace(np.array([0.0, 1.0, 3.0]), np.array([10.0, 8.0, 0.0]))
        self.assertEqual(trace.speed_at(2.0), 4.0)
        np.testing.assert_allclose(trace.way, [0.0, 9.0, 17.0])
        self.assertAlmostEqual(trace.way_at(2.0), 9.0 + 6.0)
        self.assertEqual(trace.crossing(4.0), (1, 2.0))
        self.assertIsNone(trace.crossing(11.0))
        self.assertIsNone(trace.crossing(9.0, first_from=1))


class Typed(unittest.TestCase):
    def test_a_steady_stop_has_one_deceleration_whichever_way(self) -> None:
        speed, decel = 25.0, 7.0
        found = stop_typed(speed, speed**2 / (2 * decel), speed / decel, 0.0, Conditions())
        for key in ("decel_by_distance_g", "decel_by_time_g", "decel_g"):
            self.assertAlmostEqual(found[key], decel / G)
        self.assertAlmostEqual(found["lag_s"], 0.0)
        self.assertAlmostEqual(found["steady_gap"], 0.0)

    def test_a_lag_is_told_from_distance_and_time_together(self) -> None:
        speed, decel, lag = 25.0, 7.0, 0.4
        found = stop_typed(speed, speed * lag + speed**2 / (2 * decel), lag + speed / decel, lag, Conditions())
        self.assertAlmostEqual(found["lag_s"], lag)
        self.assertAlmostEqual(found["decel_g"], decel / G)
        self.assertAlmostEqual(found["steady_gap"], 0.0)

    def test_what_was_not_typed_stays_unknown(self) -> None:
        alone = stop_typed(25.0, None, None, 0.0, Conditions())
        self.assertEqual({alone[k] for k in ("decel_by_distance_g", "decel_by_time_g", "lag_s", "decel_g", "level_m")}, {None})
        no_time = stop_typed(25.0, 44.0, None, 0.0, Conditions())
        self.assertIsNone(no_time["check_speed_kmh"])
        impossible = stop_typed(25.0, 100.0, 3.0, 0.0, Conditions())  # further than without braking
        self.assertIsNone(impossible["decel_g"])
        self.assertTrue(impossible["questioned"])

    def test_two_stops_to_question(self) -> None:
        """60 mph typed; 3.3 s with 139.2 or 156.7 ft tell of 57.5 and 64.7 mph (common practice, as the checks have it)."""
        mph, foot = 0.44704, 0.3048
        for feet, tells in ((139.2, 57.5), (156.7, 64.7)):
            found = stop_typed(60 * mph, feet * foot, 3.3, 0.0, Conditions())
            self.assertAlmostEqual(found["check_speed_kmh"] * KMH / mph, tells, delta=0.06)  # 64.75 printed as 64.7
            self.assertTrue(found["questioned"])


class Corrections(unittest.TestCase):
    def test_uphill_a_stop_would_be_longer_on_the_level(self) -> None:
        way, speed = 40.0, 25.0
        decel = speed**2 / (2 * way)
        for grade in (-0.05, 0.0, 0.05):
            found = corrected(way, speed, None, None, Conditions(grade=grade))
            pure = decel - G * math.sin(math.atan(grade))
            self.assertAlmostEqual(found["level_m"], speed**2 / (2 * pure))
        steep = corrected(400.0, speed, None, None, Conditions(nominal=25.0, grade=0.2))
        self.assertEqual((steep["level_m"], steep["nominal_m"], steep["nominal_reason"]), (None, None, "grade"))

    def test_a_tenth_of_the_speed_is_the_edge(self) -> None:
        for share, reason in ((1.1, None), (1.1001, "speed_off"), (0.9, None), (0.8999, "speed_off")):
            found = corrected(40.0, share * 25.0, None, None, Conditions(nominal=25.0))
            self.assertEqual(found["nominal_reason"], reason)
            if reason is None:
                self.assertAlmostEqual(found["nominal_m"], 40.0 / share**2)
        self.assertIsNone(corrected(40.0, 25.0, None, None, Conditions())["nominal_m"])

    def test_three_per_cent_of_the_speed_is_the_edge_of_a_question(self) -> None:
        for share, questioned in ((1.03, False), (1.0301, True), (0.97, False), (0.9699, True)):
            time = 2 * 40.0 / (share * 25.0)
            self.assertEqual(corrected(40.0, 25.0, time, 0.0, Conditions())["questioned"], questioned, share)

    def test_wind_is_told_and_never_corrected(self) -> None:
        plain = corrected(40.0, 25.0, 3.0, 0.1, Conditions())
        for wind, windy in ((None, None), (0.0, False), (5.0, False), (5.1, True), (-5.1, True)):
            found = corrected(40.0, 25.0, 3.0, 0.1, Conditions(headwind=wind))
            self.assertEqual(found, plain | {"windy": windy})

    def test_nothing_is_made_of_nothing(self) -> None:
        for way, speed in ((None, 25.0), (40.0, None), (0.0, 25.0), (40.0, 0.0)):
            found = corrected(way, speed, 3.0, 0.1, Conditions(nominal=25.0))
            self.assertEqual({v for k, v in found.items() if k != "windy"}, {None})


if __name__ == "__main__":
    unittest.main()

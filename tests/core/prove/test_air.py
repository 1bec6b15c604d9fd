"""Too much travel explained: each cause alone is found again, several that fit are not told apart, and where no cause is one."""

import unittest
from typing import Any

import numpy as np
from kobrix.core.prove import air
from kobrix.core.prove.air import Pushes

told: Any = air.told  # figures by name, of any kind

PREDICTED = np.array([20.0, 35.0, 55.0, 80.0])
AIR = np.array([9.0, 6.0, 3.5, 2.5])  # mm of a cubic centimetre of air: much at a light push
SWELL = np.array([1.0, 2.5, 5.0, 8.0])  # mm of a cm³/MPa: much at a hard one


def pushes(measured: Any, sigma: float = 1.0, free: Any = None, columns: Any = None) -> Pushes:
    rows = len(np.asarray(measured))
    return Pushes(np.asarray(measured, dtype=float), PREDICTED[:rows], np.ones(rows) if free is None else np.asarray(free),
                  AIR[:rows, None] if columns is None else columns, SWELL[:rows], ["front", "rear"][: 1 if columns is None else 2], 0, sigma)  # fmt: skip


class OneCause(unittest.TestCase):
    def test_each_is_found_again_with_what_it_is(self) -> None:
        for column, key, verdict in (
            (AIR, "air_cm3", "air"),
            (np.ones(4), "offset_mm", "adjustment"),
            (SWELL, "swell_cm3_per_mpa", "hose_swell"),
        ):
            found = told(pushes(PREDICTED + 3.0 * column))
            self.assertEqual((found["verdict"], found["reason"]), (verdict, None))
            self.assertAlmostEqual(found[key]["value"], 3.0)
            self.assertAlmostEqual(found["misfit"][{"adjustment": "offset", "hose_swell": "swell"}.get(verdict, verdict)], 0.0)
            np.testing.assert_allclose(found["missing_mm"], 3.0 * column)

    def test_its_doubt_is_that_of_its_column(self) -> None:
        found = told(pushes(PREDICTED + 3.0 * AIR, sigma=0.5))
        self.assertAlmostEqual(found["air_cm3"]["se"], 0.5 / float(np.linalg.norm(AIR)))

    def test_as_built_where_nothing_is_missing(self) -> None:
        found = told(pushes(PREDICTED + np.array([0.5, -0.5, 0.5, -0.5])))
        self.assertEqual(found["verdict"], "as_built")

    def test_less_travel_than_foretold_is_no_cause(self) -> None:
        found = told(pushes(PREDICTED - 6.0))
        self.assertEqual((found["verdict"], found["reason"], found["candidates"]), ("cannot_tell", "below_prediction", []))

    def test_what_no_single_cause_makes(self) -> None:
        found = told(pushes(PREDICTED + np.array([12.0, 0.0, 12.0, 0.0])))
        self.assertEqual((found["verdict"], found["reason"]), ("cannot_tell", "no_single_cause"))

    def test_two_that_fit_are_named_the_better_first(self) -> None:
        found = told(pushes(PREDICTED[:2] + 4.0, sigma=1.5))
        self.assertEqual((found["verdict"], found["reason"]), ("cannot_tell", "several_causes_fit"))
        misfits = [found["misfit"][name] for name in found["candidates"]]
        self.assertEqual(misfits, sorted(misfits))
        self.assertGreaterEqual(len(misfits), 2)

    def test_air_and_an_offset_together(self) -> None:
        found = told(pushes(PREDICTED + 2.0 * AIR + 5.0))["with_offset"]
        self.assertAlmostEqual(found["air_cm3"]["value"], 2.0)
        self.assertAlmostEqual(found["offset_mm"]["value"], 5.0)
        level = Pushes(PREDICTED + 5.0, PREDICTED, np.ones(4), np.full((4, 1), 3.0), SWELL, ["front"], 0, 1.0)
        self.assertIsNone(told(level)["with_offset"])  # a column that does not change is no other than the offset


class Clamped(unittest.TestCase):
    def test_only_open_pushes_are_fitted_and_one_is_too_few(self) -> None:
        measured = PREDICTED + 3.0 * AIR
        measured[3] += 40.0  # with a hose clamped: not this question's
        found = told(pushes(measured, free=[True, True, True, False]))
        self.assertEqual(found["verdict"], "air")
        one = told(pushes(measured, free=[True, False, False, False]))
        self.assertEqual((one["verdict"], one["reason"], one["candidates"]), ("cannot_tell", "too_few_open_pushes", []))
        self.assertEqual((one["air_cm3"], one["misfit"]), (None, None))

    def test_each_station_s_air_where_clamps_tell_them_apart(self) -> None:
        columns = np.column_stack([AIR, AIR * np.array([1.0, 0.0, 1.0, 0.0])])
        found = told(pushes(PREDICTED + columns @ np.array([0.5, 1.5]), free=[True, False, True, False], columns=columns))
        self.assertTrue(found["separable"])
        self.assertAlmostEqual(found["air_by_station_cm3"]["front"]["value"], 0.5)
        self.assertAlmostEqual(found["air_by_station_cm3"]["rear"]["value"], 1.5)

    def test_where_they_cannot_be_told_apart(self) -> None:
        for columns in (
            np.column_stack([AIR, 2 * AIR]),  # the same at every push
            np.column_stack([AIR, 2 * AIR + np.array([0.01, 0, 0, 0])]),  # nearly
            np.column_stack([AIR, np.zeros(4)]),  # nothing of the one
            np.column_stack([AIR, AIR * np.array([1.0, 0.0, 1.0, 0.0])])[:1],  # one push of two stations
        ):
            found = told(pushes(PREDICTED[: len(columns)] + 5.0, columns=columns))
            self.assertEqual((found["separable"], found["air_by_station_cm3"]), (False, None))


if __name__ == "__main__":
    unittest.main()

"""Small pieces of Fit, each by its own figure or word."""

import unittest

from kobrix.fileformat.fit import Joint, JointEnd, PlateShape
from kobrix.stages.fit.lines import plug_of
from kobrix.stages.fit.plates import plate_view


class Pieces(unittest.TestCase):
    def test_an_open_joint_wants_a_plug_of_its_thread_and_another_none(self) -> None:
        port = JointEnd(family="inverted_45_double", role="port", thread="3/8 - 24")
        self.assertEqual(plug_of(Joint(open=True, a=port)), "plug 3/8-24")
        for joint in (
            Joint(a=port),
            Joint(open=True),
            Joint(open=True, a=JointEnd(thread="3/8-24")),
            Joint(open=True, a=JointEnd(family="banjo")),
        ):
            self.assertIsNone(plug_of(joint))

    def test_a_plate_shows_the_pattern_it_has_and_asks_for_the_one_it_lacks(self) -> None:
        plate = PlateShape.model_validate({"name": "bracket", "new": {"kind": "pair", "spacing_mm": 82, "hole_mm": 8.5}})
        view = plate_view(0, plate)
        self.assertEqual(view["new"]["spacing_mm"], "82 mm")
        self.assertEqual(view["old"], {"kind": ""})

    def test_a_plate_is_said_with_its_size_or_with_what_is_too_near(self) -> None:
        old = {"kind": "rectangle", "width_mm": 80, "height_mm": 60, "hole_mm": 8.5}
        pair = {"kind": "pair", "spacing_mm": 30, "hole_mm": 8.5}
        fine = plate_view(0, PlateShape.model_validate({"name": "plate", "old": old, "new": pair, "shift_x_mm": 60}))
        # holes at −40 … 75 and ±30, each with 1.5 of its 8.5 mm to the edge, out to whole mm: −53 … 88 and ±43
        self.assertEqual(fine["sentence"], "141 x 86 mm; every hole has its edge and its web.")
        near = plate_view(
            0, PlateShape.model_validate({"name": "plate", "old": old, "new": {**pair, "spacing_mm": 70}, "shift_y_mm": 30})
        )
        self.assertIn("are left", near["sentence"])


if __name__ == "__main__":
    unittest.main()

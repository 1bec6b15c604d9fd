"""The cut list: ways as people say them, lengths worked out another way, what is hard to bend, how it lies in the coil."""

import math
import random
import unittest

from kobrix.core.errors import BadEntry
from kobrix.fileformat import files
from kobrix.fileformat.fit import Tubing
from kobrix.fileformat.job import Job
from kobrix.fileformat.tube_ways import way_parts
from kobrix.stages.fit.cutlist import cutlist_of
from kobrix.stages.fit.shapes import CutListView

from tests.cases import conforms, demo_document, demo_job


class Ways(unittest.TestCase):
    def test_a_way_is_read_however_it_is_written(self) -> None:
        expected = [{"straight_mm": 300.0}, {"bend_deg": 90.0, "radius_mm": 20.0}, {"straight_mm": 450.0}]
        for text in (
            "300, 90° r 20, 450",
            "300;90 deg r20;450",
            "300 / 90° radius 20 mm / 45 cm",
            "300,90° r 20, 450",
            "300 mm\n90° r 2 cm\n450",
        ):
            self.assertEqual(way_parts(text, 4.76), expected, text)
        self.assertEqual(way_parts("90°", 4.76), [{"bend_deg": 90.0, "radius_mm": 15.0}])  # three diameters, up to the whole mm

    def test_what_cannot_be_read_is_named_by_its_piece(self) -> None:
        for text, piece in (
            ("300, twist, 20", "piece 2"),
            ("300,450", "piece 1"),
            ("90° r fat", "piece 1"),
            ("1, 2, 720° r 3", "piece 3"),
            ("-4", "piece 1"),
        ):
            with self.assertRaisesRegex(BadEntry, piece):
                way_parts(text, 4.76)
        for text in ("", ";;", ", ".join(["5"] * 61)):
            with self.assertRaises(BadEntry):
                way_parts(text, 4.76)

    def test_each_limit_on_both_sides(self) -> None:
        for good, bad in (("20000", "20000.1"), ("0", "-0.1"), ("360° r 20", "360.5° r 20"), ("90° r 5000", "90° r 5000.5"), ("1° r 0.1", "0° r 20"),
                          ("90° r 1", "90° r 0")):  # fmt: skip
            self.assertEqual(len(way_parts(good, 4.76)), 1, good)
            with self.assertRaises(BadEntry, msg=bad):
                way_parts(bad, 4.76)


class Lists(unittest.TestCase):
    def test_random_ways_have_the_length_of_their_pieces(self) -> None:
        draw, setup = random.Random(4), demo_job().setup("plan A")
        for _ in range(100):
            length, pieces = 0.0, []
            for _ in range(draw.randrange(1, 9)):
                if draw.random() < 0.5:
                    straight = draw.uniform(1, 900)
                    pieces.append(f"{straight:.3f}")
                    length += round(straight, 3)
                else:
                    angle, radius = draw.uniform(1, 180), draw.uniform(5, 60)
                    pieces.append(f"{angle:.3f}° r {radius:.3f}")
                    length += math.pi * round(angle, 3) / 180 * round(radius, 3)
            view = cutlist_of(setup, Tubing.model_validate({"tubes": [{"name": "a", "way": ", ".join(pieces)}]}))
            conforms(CutListView, view)
            self.assertAlmostEqual(view["tubes"][0]["developed_mm"] or 0.0, length, places=6)

    def test_the_demo_says_what_is_hard_to_bend_and_where_it_lies(self) -> None:
        job = demo_job()
        own = job.plans[0].fit
        assert own is not None and own.tubing is not None
        view = cutlist_of(job.setup("plan A"), own.tubing)
        left, right = view["tubes"]
        self.assertEqual(left["notes"], [])
        self.assertRegex(left["tag"], r"^rear left \| 4\.7\d? mm steel \| cut \d+ mm \| 45° double flare to 45° double flare$")
        self.assertEqual(
            right["notes"],
            [
                "Bend 2 is tighter than three tube diameters: it kinks without a former.",
                "The end is flared and has less than 25 mm straight before it: no room for the tool.",
            ],
        )
        self.assertEqual(view["pieces"][0]["lines"], ["rear right", "rear left"])
        self.assertAlmostEqual(view["pieces"][0]["left_mm"], 7500 - sum(t["cut_mm"] or 0.0 for t in view["tubes"]) - 2.0)

    def test_one_that_cannot_be_read_leaves_the_others(self) -> None:
        document = demo_document()
        document["plans"][0]["fit"]["tubing"]["tubes"][0]["way"] = "300, twist"
        job = files.check(Job, document)
        own = job.plans[0].fit
        assert own is not None and own.tubing is not None
        view = cutlist_of(job.setup("plan A"), own.tubing)
        self.assertIn("piece 2: 'twist' was given", view["tubes"][0]["refused"])
        self.assertEqual(view["tubes"][0]["tag"], "")
        self.assertIn("rear right", view["tubes"][1]["tag"])
        self.assertEqual(cutlist_of(job.setup("plan A"), Tubing())["tubes"], [])


if __name__ == "__main__":
    unittest.main()

"""The pin's window, what is said of it, and the same pedal without drilling."""

import unittest
from typing import Any

from kobrix.core.rules.limits import EFFORT, TRAVEL
from kobrix.evaluate.mends import SAME_PUSH
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.size.service import mends_view, moment_at

from tests.cases import demo_document, evaluate, size_of

A, STROKE, ROOM, FREE = 292.0, 30.0, 150.0, 5.0  # mm, of the demo's pedal and cylinder


def with_pin(pin: str, plan: int = 0, **cylinder: Any) -> Job:
    """The demo job with another pin, and perhaps another cylinder, in one of its plans."""
    document = demo_document()
    system = document["plans"][plan]["systems"][0]
    system["control"]["pivot_to_pin_mm"] = pin
    system["cylinder"].update(cylinder)
    return files.check(Job, document)


def finding(job: Job, setup: int, start: str) -> dict[str, Any]:
    """The finding of a setup whose id begins with those letters."""
    found: dict[str, Any] = next(f for f in size_of(job)["setups"][setup]["findings"] if f["id"].startswith(start))
    return found


class Window(unittest.TestCase):
    def test_its_ends_are_the_model_s_own(self) -> None:
        setup = with_pin("48 mm").setup("plan A")
        window = evaluate(setup)["systems"]["service"]["pin_window"]
        self.assertAlmostEqual(window["least_mm"], A * STROKE / (ROOM - FREE), places=9)  # b = a·stroke/(room − free play)
        # With the pin at the greatest distance the design stop of the heaviest load asks just for the good band's end.
        at = evaluate(with_pin(f"{window['greatest_mm']!r} mm").setup("plan A"))
        pushes = [s["paths"]["service"]["design_stop"]["pedal_force_n"] for s in at["load_states"].values()]
        self.assertAlmostEqual(max(pushes), EFFORT["car_pedal"].good, places=6)
        self.assertEqual(window["empty"], window["least_mm"] > window["greatest_mm"])

    def test_an_empty_window_is_said_with_both_its_ends(self) -> None:
        said = finding(with_pin("48 mm"), 1, "pin_window")
        self.assertEqual(said["level"], "note")
        self.assertIn("No place for the pin", said["sentence"])
        self.assertIn("60 mm", said["reason"])

    def test_a_short_stroke_and_a_small_bore_open_it(self) -> None:
        job = with_pin("40 mm", bore_mm="3/4 in", stroke_mm=15)
        window = evaluate(job.setup("plan A"))["systems"]["service"]["pin_window"]
        self.assertFalse(window["empty"])
        inside = f"{(window['least_mm'] + window['greatest_mm']) / 2:.2f} mm"
        well = finding(with_pin(inside, bore_mm="3/4 in", stroke_mm=15), 1, "pin_window")
        self.assertEqual(well["level"], "good")
        self.assertIn(f"The pin at {float(inside.removesuffix(' mm')):.0f} mm lies in its window", well["sentence"])
        self.assertIn(
            f"From {window['least_mm']:.0f} mm for the whole stroke to fit the room, {window['greatest_mm']:.0f} mm",
            well["reason"],
        )
        far = f"{window['greatest_mm'] + 4:.2f} mm"
        outside = finding(with_pin(far, bore_mm="3/4 in", stroke_mm=15), 1, "pin_window")
        self.assertEqual(outside["level"], "note")
        said = f"The pin may sit {window['least_mm']:.0f} to {window['greatest_mm']:.0f} mm from the pivot; it is at {window['greatest_mm'] + 4:.0f} mm."
        self.assertEqual(outside["sentence"], said)


class WithoutDrilling(unittest.TestCase):
    def test_the_bore_offered_gives_the_same_pedal_with_the_pin_where_it_was(self) -> None:
        job = with_pin("55 mm")
        mend = mends_view(job, 1, "plan A")["mends"]["pin_move"][0]
        self.assertEqual(mend["kind"], "bore_and_pin")
        edits = {e["path"]: e.get("value") for e in mend["edits"]}
        self.assertEqual(edits["/systems/0/control/pivot_to_pin_mm"], "64 mm")
        bore = edits["/systems/0/cylinder/bore_mm"]
        mended, own = with_pin("64 mm", bore_mm=bore), job
        for load in (0, 1):
            new = moment_at(mended.setup("plan A"), load, None, 0.7)
            old = moment_at(own.setup("plan A"), load, None, 0.7)
            self.assertAlmostEqual(new["pedal_force_n"] / old["pedal_force_n"], 1.0, delta=SAME_PUSH)
            self.assertLess(new["systems"]["service"]["pedal_travel_mm"], TRAVEL.danger * ROOM)

    def test_none_is_offered_where_no_bore_that_is_sold_does_it(self) -> None:
        job = with_pin("60 mm", bore_mm="1 1/4 in")  # the bore it would take is not sold
        self.assertNotIn("pin_move", mends_view(job, 1, "plan A")["mends"])
        self.assertIn("4 mm", finding(job, 1, "pin_move")["sentence"])

    def test_a_pin_that_was_not_moved_asks_for_nothing(self) -> None:
        ids = [f["id"] for f in size_of(with_pin("64 mm"))["setups"][1]["findings"]]
        self.assertNotIn("pin_move", ids)

    def test_half_a_millimetre_is_a_move_and_less_is_how_it_was_measured(self) -> None:
        for pin, moved in (("63.6 mm", False), ("64.4 mm", False), ("63.4 mm", True), ("64.6 mm", True)):
            ids = [f["id"] for f in size_of(with_pin(pin))["setups"][1]["findings"]]
            self.assertEqual("pin_move" in ids, moved, pin)


if __name__ == "__main__":
    unittest.main()

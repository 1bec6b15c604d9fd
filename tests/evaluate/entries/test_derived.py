"""What follows at once from the entries, against the formula written out by hand."""

import math
import re
import unittest
from typing import Any

from kobrix.demo import SETUPS
from kobrix.evaluate.entries.derived import TRIAL, derived
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import demo_document, demo_job

LINKAGE = {"rest_angle_deg": -80, "bore_point_mm": [150, -55], "bore_direction_deg": 10, "rod_mm": 160}


def lines(setup: Setup, key: str) -> dict[str, str]:
    """Words of the derived lines of a section, by their label."""
    return {line["label"]: line["text"] for line in derived(setup, key)}


def figure(text: str) -> float:
    """The first number of a text."""
    found = re.search(r"-?\d+(\.\d+)?", text)
    assert found is not None, text
    return float(found[0])


def setup_of(**changes: Any) -> Setup:
    """Plan A with entries of its first system changed, path parts joined by two underscores."""
    document = demo_document()["plans"][0]["systems"][0]
    for path, value in changes.items():
        here: Any = document
        *steps, last = path.split("__")
        for step in steps:
            here = here[int(step)] if step.isdigit() else here[step]
        here[last] = value
    vehicle = demo_document()["vehicle"]
    return files.check(Setup, {"format": "kobrix-setup", "version": 1, "name": "x", "vehicle": vehicle, "systems": [document]})


class Derived(unittest.TestCase):
    def test_ratio_and_areas(self) -> None:
        setup = demo_job().setup("plan A")
        self.assertEqual(figure(lines(setup, "control.0")["ratio from these"]), round(292 / 48, 2))
        bore = 25.4 * 13 / 16
        self.assertAlmostEqual(figure(lines(setup, "cylinder.0")["piston area"]), math.pi * bore**2 / 400, places=2)
        front = lines(setup, "brake.0.0")
        self.assertAlmostEqual(figure(front["piston area, one side"]), 2 * math.pi * 38.1**2 / 400, places=2)
        self.assertAlmostEqual(figure(front["effective radius"]), (140 - 1.5) - 44 / 2, places=1)

    def test_a_drum_s_shoes(self) -> None:
        found = lines(demo_job().setup("as found"), "brake.0.1")
        mu, k = 0.38, 0.8
        self.assertAlmostEqual(figure(found["shoe factor C*"]), 4 * mu * k**2 / (k**2 - mu**2), places=2)
        self.assertAlmostEqual(figure(found["wheel cylinder area"]), math.pi * 19.05**2 / 400, places=2)

    def test_hoses_grow_by_kind_length_and_number_under_the_legal_ceiling(self) -> None:
        rubber = lines(setup_of(), "lines.0")["front hoses grow, at 7 MPa"]
        hoses = demo_document()["plans"][0]["systems"][0]["stations"][0]["lines"]["hoses"]
        length = sum(h["length_mm"] * h["count"] for h in hoses) / 1000
        self.assertAlmostEqual(figure(rubber), 0.12 * length * TRIAL / 1e6, places=2)
        braided = lines(setup_of(stations__0__lines__hoses__0__kind="braided"), "lines.0")["front hoses grow, at 7 MPa"]
        self.assertAlmostEqual(figure(braided) / figure(rubber), 1 / 3, delta=0.02)
        [note] = [line["note"] for line in derived(setup_of(), "lines.0") if line["label"].startswith("front")]
        per_metre = 0.79 / 0.3048 / (1500 * 6.894757e-3)  # FMVSS 106 table I, from memory: cm³ a foot at 1500 psi
        self.assertAlmostEqual(figure(note), per_metre * length * TRIAL / 1e6, delta=0.02)

    def test_axles_and_tyres(self) -> None:
        found = lines(demo_job().setup("as found"), "vehicle")
        self.assertEqual(found["axles, driver and charger"], f"{1310 * 0.49:.0f} and {1310 * 0.51:.0f} kg")
        diameter = 25.4 * 15 + 2 * 185 * 0.60  # ETRTO, from memory
        self.assertIn(f"{diameter:.0f} mm across", found["185/60R15"])
        self.assertIn(f"{3.05 * diameter / (2 * math.pi):.1f} mm", found["185/60R15"])

    def test_every_section_of_every_vehicle_has_its_lines_and_an_empty_part_none(self) -> None:
        for path in SETUPS:
            setup = files.read_file(files.parse_json(path.read_bytes()))
            assert isinstance(setup, Setup)
            for i, system in enumerate(setup.systems):
                self.assertTrue(derived(setup, f"control.{i}"), path.name)
                self.assertTrue(derived(setup, f"cylinder.{i}"), path.name)
                for n, _ in enumerate(system.seconds):
                    self.assertTrue(derived(setup, f"cylinder.{i}.second.{n}"), path.name)
        bare = setup_of(control={"kind": "car_pedal"}, stations__0__brake={"kind": "disc"})
        self.assertEqual(derived(bare, "control.0"), [])
        self.assertEqual(derived(bare, "brake.0.0"), [])

    def test_a_vacuum_booster_s_shell_is_said_to_be_our_estimate(self) -> None:
        setup = setup_of(booster={"kind": "vacuum", "gain": 4, "nominal_diaphragms_mm": ["8 in"]})
        [line] = derived(setup, "booster.0")
        self.assertIn("our estimate", line["note"])
        stated = setup_of(booster={"kind": "vacuum", "gain": 4, "diaphragms_mm": ["180 mm"]})
        self.assertEqual(derived(stated, "booster.0"), [])


class Linkage(unittest.TestCase):
    def test_the_ratio_is_the_pad_s_way_over_the_piston_s_drawn_by_hand(self) -> None:
        def socket(turn: float) -> float:
            """Where the rod's ball is along the bore with the pin turned by `turn` [rad], in mm."""
            angle, slope = math.radians(-80) + turn, math.radians(10)
            x, y = 48 * math.cos(angle) - 150, 48 * math.sin(angle) + 55
            along, across = x * math.cos(slope) + y * math.sin(slope), y * math.cos(slope) - x * math.sin(slope)
            return along + math.sqrt(160**2 - across**2)

        found = lines(setup_of(control__linkage=LINKAGE), "linkage.0")
        self.assertEqual(found, lines(setup_of(control__linkage=LINKAGE), "control.0"))
        step = 1e-5
        ratio = 292 * 2 * step / (socket(step) - socket(-step))
        self.assertAlmostEqual(figure(found["ratio at rest"]), ratio, delta=0.005)
        turn = next(k * 1e-4 for k in range(1, 20000) if socket(k * 1e-4) - socket(0) >= 20)
        ratio = 292 * 2 * step / (socket(turn + step) - socket(turn - step))
        self.assertAlmostEqual(figure(found["ratio 20 mm in"]), ratio, delta=0.01)

    def test_a_rod_that_does_not_reach_says_so(self) -> None:
        (line,) = derived(setup_of(control__linkage={**LINKAGE, "rod_mm": 12}), "linkage.0")
        self.assertIn("does not reach", line["note"])


if __name__ == "__main__":
    unittest.main()

"""From the file to the core's records: units, defaults, circuits, and the same answer whatever the units."""

import copy
import json
import unittest
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st
from kobrix.core.constants import assumed
from kobrix.core.errors import BadEntry, BadFile
from kobrix.core.physics import drum, valves
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.drum import Drum
from kobrix.evaluate.to_core import Converted, convert
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions

from tests.cases import evaluate, example_document
from tests.evaluate.test_results import differences

UNITS = {"mm": [("in", 25.4), ("cm", 10.0), ("m", 1000.0)], "kg": [("lb", 0.45359237), ("t", 1000.0)], "n": [("lbf", 4.4482216152605)],
         "kpa": [("psi", 6.894757293168), ("bar", 100.0), ("MPa", 1000.0)], "cm3": [("in3", 16.387064), ("ml", 1.0)]}  # fmt: skip


def document(**paths: Any) -> dict[str, Any]:
    """The example with dotted fields set (two underscores for a dot), None to leave out."""
    own = copy.deepcopy(example_document())
    for path, value in paths.items():
        *way, last = path.split("__")
        part: Any = own
        for name in way:
            part = part[int(name)] if isinstance(part, list) else part[name]
        if value is None:
            del part[last]
        else:
            part[last] = value
    return own


def converted(**paths: Any) -> Converted:
    """That, converted."""
    return convert(files.check(Setup, document(**paths)))


def retyped(part: Any, draw: Any, name: str = "") -> Any:
    """Every plain quantity written in another unit."""
    if isinstance(part, dict):
        return {k: retyped(v, draw, k) for k, v in part.items()}
    if isinstance(part, list):
        return [retyped(v, draw, name) for v in part]
    unit = name.rsplit("_", 1)[-1]
    if isinstance(part, int | float) and not isinstance(part, bool) and unit in UNITS and "per" not in name and part > 0:
        symbol, size = draw(st.sampled_from(UNITS[unit]))
        return f"{part / size!r} {symbol}"
    return part


class AnyUnits(unittest.TestCase):
    @settings(max_examples=12, deadline=None)
    @given(st.data())
    def test_another_unit_changes_nothing(self, data: Any) -> None:
        setup = files.check(Setup, retyped(example_document(), data.draw))
        plain = evaluate(files.check(Setup, example_document()))
        found = evaluate(setup)
        for part in ("systems", "load_states"):
            self.assertEqual(differences(json.loads(json.dumps(plain[part])), found[part]), [])


class Defaults(unittest.TestCase):
    def test_what_is_left_out_is_the_tables(self) -> None:
        own = converted(systems__0__control__efficiency=None, systems__0__cylinder__efficiency=None,
                        systems__0__stations__0__brake__clearance_mm=None).systems[0]  # fmt: skip
        self.assertEqual(own.control.efficiency, assumed("control.efficiency"))
        self.assertEqual(own.cylinder.efficiency, assumed("cylinder.efficiency"))
        brake = own.stations[0].brake
        assert isinstance(brake, Disc)
        self.assertEqual(brake.clearance, assumed("disc.clearance"))

    def test_a_residual_valve_narrows_the_shoes_gap_and_not_the_pads(self) -> None:
        shoes = {
            "kind": "drum",
            "wheel_cylinder_mm": 19,
            "drum_diameter_mm": 203,
            "shoes": "leading_trailing",
            "friction": {"cold": 0.36},
        }
        held = [{"kind": "residual", "pressure_kpa": "10 psi"}]
        for devices, key in (([], "drum.shoe_clearance"), (held, "drum.shoe_clearance_residual")):
            brake = (
                converted(systems__0__stations__1__brake=shoes, systems__0__stations__1__devices=devices)
                .systems[0]
                .stations[1]
                .brake
            )
            assert isinstance(brake, Drum)
            self.assertEqual(brake.clearance, assumed(key))
        front = converted(systems__0__stations__0__devices=held).systems[0].stations[0].brake
        assert isinstance(front, Disc)
        self.assertEqual(front.clearance, 0.00012)

    def test_silicone_is_softer(self) -> None:
        bulks = [converted(systems__0__fluid=f).systems[0].stations[0].lines for f in ("DOT 4", "DOT 5", "DOT 5.1")]
        self.assertEqual([b.bulk if b else None for b in bulks], [1.8e9, 1.0e9, 1.8e9])

    def test_fluid_that_is_not_stated_is_what_the_lines_and_pistons_hold(self) -> None:
        own = converted(systems__0__stations__1__lines__fluid_volume_cm3=None).systems[0].stations[1]
        assert own.lines is not None
        hoses = np.pi * 0.0032**2 / 4 * 0.310 * 2
        pipe = np.pi * (0.00476 - 2 * 0.00071) ** 2 / 4 * 4.6
        pistons = 2 * 2 * np.pi * 0.035**2 / 4 * 0.012
        self.assertAlmostEqual(float(own.lines.fluid_volume), hoses + pipe + pistons, places=12)


class Circuits(unittest.TestCase):
    def test_diagonal_gives_each_circuit_half_of_both(self) -> None:
        chambers = (
            converted(systems__0__cylinder__circuits="diagonal", systems__0__cylinder__primary_feeds=None)
            .systems[0]
            .cylinder.chambers
        )
        self.assertEqual([c.name for c in chambers], ["circuit_1", "circuit_2"])
        for chamber in chambers:
            self.assertEqual([(f.station, f.wheels) for f in chamber.feeds], [("front", 1), ("rear", 1)])

    def test_either_diagonal_lost_leaves_half_of_both_axles(self) -> None:
        setup = files.check(Setup, document(systems__0__cylinder__circuits="diagonal", systems__0__cylinder__primary_feeds=None))
        path = evaluate(setup)["load_states"]["driver only"]["paths"]["service"]
        whole = path["failures"]["hot"]
        for name in ("lost_circuit_1", "lost_circuit_2"):
            self.assertIn(name, path["failures"])
            self.assertLess(path["failures"][name]["best_grip_decel_g"], whole["best_grip_decel_g"])

    def test_the_primary_feeds_what_it_is_told_to(self) -> None:
        for first in ("front", "rear"):
            chambers = converted(systems__0__cylinder__primary_feeds=first).systems[0].cylinder.chambers
            self.assertEqual(chambers[0].name, first)
            self.assertAlmostEqual(float(chambers[0].stroke or 0), 0.035 * 0.52)
            self.assertAlmostEqual(float(chambers[1].lost), 0.0011)

    def test_a_bar_by_its_clevises(self) -> None:
        bar = {"pivot_to_front_clevis_mm": 28, "pivot_to_rear_clevis_mm": 36}
        half = {"bore_mm": 19, "stroke_mm": 28}
        twin = {"kind": "twin", "front": half, "rear": half, "bar": bar}
        chambers = converted(systems__0__cylinder=twin).systems[0].cylinder.chambers
        self.assertAlmostEqual(float(chambers[0].force_share), 36 / 64)
        self.assertAlmostEqual(float(chambers[1].travel_share), 28 / 64)
        with self.assertRaisesRegex(BadFile, "front's share, or the distances"):
            converted(systems__0__cylinder={**twin, "bar": {"front_share": 0.5, **bar}})
        with self.assertRaisesRegex(BadEntry, "front and rear brakes"):
            rear = {**example_document()["systems"][0]["stations"][0], "axle": "rear"}
            converted(systems__0__cylinder=twin, systems__0__stations=[rear])


class Brakes(unittest.TestCase):
    def test_a_given_shoe_factor_may_have_its_states(self) -> None:
        shoes = {"kind": "drum", "wheel_cylinder_mm": 19, "drum_diameter_mm": 203, "c_star": {"cold": 2.1, "hot": 1.6}}
        own = converted(systems__0__stations__1__brake=shoes)
        self.assertEqual([own.friction[s]["service"]["rear"] for s in ("cold", "hot", "wet")], [2.1, 1.6, 2.1])
        self.assertEqual(own.fallback["wet"], {"service": ["rear"]})
        brake = own.systems[0].stations[1].brake
        assert isinstance(brake, Drum)
        self.assertIsNone(brake.sensitivity)

    def test_a_lining_that_locks_itself_is_refused(self) -> None:
        shoes = {
            "kind": "drum",
            "wheel_cylinder_mm": 19,
            "drum_diameter_mm": 203,
            "shoes": "duo_servo",
            "friction": {"cold": 0.85},
        }
        with self.assertRaisesRegex(BadEntry, "locks itself"):
            converted(systems__0__stations__1__brake=shoes)
        self.assertAlmostEqual(float(drum.shoe_factor("duo_servo", 0.36, 0.8)), 4 * 0.36 * 0.64 / 0.44**2)

    def test_own_caliper_volume_stands_in_place_of_the_give(self) -> None:
        brake = converted(systems__0__stations__0__brake__caliper_volume_cm3_per_mpa=0.05).systems[0].stations[0].brake
        assert isinstance(brake, Disc)
        self.assertAlmostEqual(float(brake.caliper_give), 0.05e-12)

    def test_load_and_deceleration_sensing_valves_are_read(self) -> None:
        devices = [{"kind": "load_sensing", "knee_kpa": 2000, "coefficient_kpa_per_n": 0.5, "reference_rear_load_n": 4000, "slope": 0.3},
                   {"kind": "deceleration_sensing", "decel_g": "0.45 g", "slope": 0.35}]  # fmt: skip
        load, decel = converted(systems__0__stations__1__devices=devices).systems[0].stations[1].devices
        assert isinstance(load, valves.LoadSensing) and isinstance(decel, valves.DecelSensing)
        self.assertEqual((load.coefficient, load.reference, decel.decel), (500.0, 4000.0, 0.45))

    def test_load_sensing_answers_differ_by_load(self) -> None:
        devices = [
            {"kind": "load_sensing", "knee_kpa": 2000, "coefficient_kpa_per_n": 0.5, "reference_rear_load_n": 4000, "slope": 0.3}
        ]
        setup = files.check(Setup, document(systems__0__stations__1__devices=devices))
        states = evaluate(setup, files.check(Questions, {"pedal_forces_n": [150]}))["load_states"]
        knees = [
            s["paths"]["service"]["at_pedal_force"][0]["systems"]["service"]["stations"]["rear"]["knee_kpa"]
            for s in states.values()
        ]
        loads = [s["rear_axle_load_n"] for s in states.values()]
        for knee, load in zip(knees, loads, strict=True):
            self.assertAlmostEqual(knee, 2000 + 0.5 * (load - 4000), places=6)


class SecondControls(unittest.TestCase):
    def test_a_lever_is_a_control_of_its_own_on_the_same_wheels(self) -> None:
        lever = {"name": "lever", "control": {"kind": "hand_lever", "pivot_to_pad_mm": 280, "pivot_to_pin_mm": 52, "available_travel_mm": 140},
                 "cylinder": {"kind": "single", "bore_mm": "5/8 in", "stroke_mm": 25}, "feeds": [{"station": "rear", "wheels": 1}]}  # fmt: skip
        setup = files.check(Setup, document(systems__0__second_control=lever))
        own = convert(setup)
        self.assertEqual([s.name for s in own.systems], ["service", "lever"])
        self.assertEqual(own.systems[1].stations[0].owner, "service")
        self.assertEqual(own.wheels, {"front": 2, "rear": 2})
        paths = evaluate(setup)["load_states"]["driver only"]["paths"]
        self.assertEqual(list(paths), ["service_alone", "lever_alone", "together"])
        with self.assertRaisesRegex(BadFile, "'middle'"):
            files.check(Setup, document(systems__0__second_control={**lever, "feeds": [{"station": "middle", "wheels": 1}]}))


if __name__ == "__main__":
    unittest.main()

"""What the chain once got wrong: several controls in one batch, past rear lift, leaks, a switch before valves, trailers, linkages."""

import copy
import json
import math
import random
import unittest
from dataclasses import replace
from typing import Any

import numpy as np
from kobrix.core.physics import linkage, vehicle
from kobrix.core.physics.linkage import Linkage
from kobrix.core.physics.paths import circuits_pressed, solve_path
from kobrix.core.physics.road import first_event
from kobrix.demo import SETUPS
from kobrix.evaluate.questions import changed
from kobrix.evaluate.solve import Answer
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions

from tests.cases import evaluate, example_document, plain_load, plain_system, solved

G = 9.80665


def documents() -> dict[str, Any]:
    """Every shipped vehicle by the name of its file."""
    return {p.stem: json.loads(p.read_text(encoding="utf-8")) for p in SETUPS}


def car() -> dict[str, Any]:
    """The example car."""
    document = example_document()
    document.pop("questions", None)
    return document


def of_kind(kind: str) -> dict[str, Any]:
    """A shipped vehicle of a `kind`, or with `several` controls."""
    for document in documents().values():
        seconds = any(s.get("second_control") for s in document["systems"])
        if (kind == "seconds" and seconds) or document["vehicle"].get("kind", "car") == kind:
            return copy.deepcopy(dict(document))
    raise AssertionError(kind)


class Batches(unittest.TestCase):
    def test_several_controls_in_one_batch_are_each_alone(self) -> None:
        draw, tried = random.Random(3), 0
        for name, document in documents().items():
            setup = files.check(Setup, document)
            if len(Answer(setup).converted.systems) < 2:
                continue
            path, values = "systems.0.stations.0.brake.friction.cold", [draw.uniform(0.25, 0.5) for _ in range(5)]
            if setup.systems[0].stations[0].brake.friction is None:
                continue
            many = Answer(changed(setup, path.split("."), np.array(values).reshape(-1, 1, 1, 1))).solved
            assert many is not None
            for n, value in enumerate(values):
                alone = Answer(changed(setup, path.split("."), value)).solved
                assert alone is not None
                for way in alone.paths:
                    one, all_ = alone.paths[way], many.paths[way]
                    pushes = np.array([draw.uniform(5.0, 400.0) for _ in range(4)])
                    for figure in ("front", "rear", "decel", "grip_decel"):
                        a = getattr(one.healthy.at(one.healthy.place_at(pushes)), figure)
                        b = getattr(all_.healthy.at(all_.healthy.place_at(pushes)), figure)
                        b = b[n if b.ndim > 3 and b.shape[0] > 1 else 0] if b.ndim > 3 else b
                        np.testing.assert_allclose(b, np.broadcast_to(a, b.shape), rtol=1e-9, err_msg=f"{name} {way} {figure}")
                        tried += 4
                    if one.left is not None and all_.left is not None:
                        best = all_.left.best
                        best = best[n if best.shape[0] > 1 else 0] if best.ndim > 2 else best
                        np.testing.assert_allclose(best, one.left.best, rtol=1e-9, atol=1e-12, err_msg=f"{name} {way} best")
        self.assertGreater(tried, 200)


class PastRearLift(unittest.TestCase):
    LOAD = plain_load(mass=250.0, share=0.5, chi=0.5, grip=1.4)  # lifts at 1 g

    def test_the_front_never_bears_more_than_there_is(self) -> None:
        for z in (0.4, 1.0, 1.7):
            own = float(vehicle.axle_load(self.LOAD, "front", z)[0, 0, 0])
            self.assertAlmostEqual(own, 250.0 * G * min(0.5 + z * 0.5, 1.0), places=9)

    def test_at_lift_everything_stays(self) -> None:
        path = solved(plain_system(), self.LOAD)
        event, road = path.event, path.road
        lift = float(vehicle.rear_lift_decel(self.LOAD)[0, 0, 0])
        self.assertAlmostEqual(lift, 1.0, places=12)
        self.assertTrue(bool(event.rear[0, 0]))  # the rear is nearly free of load before it lifts
        self.assertFalse(np.isfinite(road.locks["front"][0, 0]))  # its own lock lies beyond
        far = path.at(path.place_at(np.array([100.0, 2000.0])))
        self.assertTrue(bool(far.rear_lifts[0, 0, 1]))
        self.assertAlmostEqual(float(far.grip_decel[0, 0, 1]), lift, places=12)
        self.assertFalse(bool(far.front_locked[0, 0, 1]))
        self.assertEqual(float(far.load_rear[0, 0, 1]), 0.0)

    def test_the_file_says_null(self) -> None:
        document = of_kind("motorcycle")
        document["vehicle"]["load_states"] = [dict(document["vehicle"]["load_states"][0], cg_height_mm=900)]
        document["vehicle"]["grip_front"] = document["vehicle"]["grip_rear"] = 1.6
        result = evaluate(files.check(Setup, document), files.check(Questions, {"pedal_forces_n": [2000]}))
        state = next(iter(result["load_states"].values()))
        row = state["paths"]["together"]["at_pedal_force"][0]
        self.assertGreater(row["decel_g"], state["rear_lift_decel_g"])
        self.assertIsNone(row["adhesion_rear"])
        self.assertTrue(row["rear_lifts"])
        self.assertAlmostEqual(row["grip_decel_g"], state["rear_lift_decel_g"], places=9)
        for path in state["paths"].values():
            for axle in ("front", "rear"):
                own = path[f"{axle}_lock_decel_g"]
                self.assertTrue(own is None or own <= state["rear_lift_decel_g"] * (1 + 1e-9))
            for left in path.get("failures", {}).values():
                self.assertLessEqual(left["best_grip_decel_g"], state["rear_lift_decel_g"] * (1 + 1e-9))


class Leaks(unittest.TestCase):
    def test_what_hangs_downstream_goes_with_it(self) -> None:
        document = of_kind("seconds")
        answer = Answer(files.check(Setup, document))
        systems, solved_setup = answer.converted.systems, answer.solved
        assert solved_setup is not None
        pressed = circuits_pressed(systems)
        for second, circuits in pressed.items():
            takes = {c.name: c.controls for c in solved_setup.conditions}
            owner = next(x.owner for s in systems if s.name == second for x in s.stations)
            self.assertEqual(takes[f"{second}_lost_circuit"], {second, owner})
            self.assertEqual(takes[f"{owner}_lost_upstream"], {owner})
            for circuit in circuits:
                self.assertIn(second, takes[f"{owner}_lost_{circuit}"] or ())
        together = solved_setup.paths["together"]
        assert together.left is not None
        names = [c.name for c in solved_setup.conditions]
        best = together.left.best[0]
        upstream, down = best[names.index(f"{owner}_lost_upstream")], best[names.index(f"{second}_lost_circuit")]
        self.assertGreater(float(upstream), 0.0)  # the second control still presses
        self.assertLess(float(down), float(upstream))

    def test_a_failure_stands_on_the_paths_it_takes_from(self) -> None:
        document = of_kind("motorcycle")
        paths = next(iter(evaluate(files.check(Setup, document))["load_states"].values()))["paths"]
        hand, foot = (s["name"] for s in document["systems"][:2])
        for name, own in ((hand, paths[f"{foot}_alone"]), (foot, paths[f"{hand}_alone"])):
            self.assertFalse([f for f in own["failures"] if f.startswith(f"{name}_lost")])
        both = [f for f in paths["together"]["failures"] if "_lost_" in f]
        self.assertGreaterEqual(len(both), 2)

    def test_all_lost_goes_to_the_floor(self) -> None:
        document = of_kind("motorcycle")
        hand = document["systems"][0]
        self.assertEqual(hand["cylinder"]["kind"], "single")
        own = next(iter(evaluate(files.check(Setup, document))["load_states"].values()))["paths"][f"{hand['name']}_alone"]
        left = own["failures"][f"{hand['name']}_lost_circuit"]
        self.assertEqual((left["limited_by"], left["pedal_force_n"], left["decel_g"]), ("all_lost", 0.0, 0.0))
        self.assertIsNone(left["systems"][hand["name"]]["pedal_travel_mm"])


class Sides(unittest.TestCase):
    def setup_of(self, **more: Any) -> dict[str, Any]:
        document = car()
        document["vehicle"].pop("track_mm", None)
        document["systems"][0]["cylinder"].update({"circuits": "diagonal"})
        document["systems"][0]["cylinder"].pop("primary_feeds", None)
        document["vehicle"].update(more)
        return dict(document)

    def test_a_diagonal_car_turns_with_a_circuit_lost(self) -> None:
        document = self.setup_of(track_mm=1400)
        state = next(iter(evaluate(files.check(Setup, document))["load_states"].values()))
        path = next(iter(state["paths"].values()))
        one, two = (path["failures"][f"lost_circuit_{n}"] for n in (1, 2))
        self.assertAlmostEqual(one["yaw_moment_nm"], two["yaw_moment_nm"], places=6)
        row = evaluate(files.check(Setup, document), files.check(Questions, {"pedal_forces_n": [one["pedal_force_n"]]}))
        at = next(iter(next(iter(row["load_states"].values()))["paths"].values()))["at_pedal_force"][0]
        turned = abs(at["front_brake_force_n"] - at["rear_brake_force_n"]) / 2 * 0.7  # one wheel of each, right and left
        self.assertAlmostEqual(one["yaw_moment_nm"], turned, delta=1e-6 * turned)
        self.assertNotIn("pulls", one)  # nothing says which circuit is which side's

    def test_a_split_from_front_to_rear_does_not_turn(self) -> None:
        document = self.setup_of(track_mm=1400)
        document["systems"][0]["cylinder"]["circuits"] = "front_rear"
        path = next(iter(next(iter(evaluate(files.check(Setup, document))["load_states"].values()))["paths"].values()))
        self.assertEqual(path["failures"]["lost_front"]["yaw_moment_nm"], 0.0)
        without = self.setup_of()
        path = next(iter(next(iter(evaluate(files.check(Setup, without))["load_states"].values()))["paths"].values()))
        self.assertNotIn("yaw_moment_nm", path["failures"]["lost_circuit_1"])

    def test_an_aircraft_pulls_to_the_side_that_still_brakes(self) -> None:
        document = of_kind("aircraft")
        path = next(iter(evaluate(files.check(Setup, document))["load_states"].values()))["paths"]["together"]
        self.assertEqual(path["failures"]["left_lost_circuit"]["pulls"], "right")
        self.assertEqual(path["failures"]["right of the second pilot_lost_circuit"]["pulls"], "left")
        self.assertNotIn("pulls", path["failures"]["left_lost_upstream"])  # the second pilot still presses both

    def test_a_trials_car_pulls_to_its_other_lever_though_its_front_wheels_tell_no_side(self) -> None:
        path = next(iter(evaluate(files.check(Setup, documents()["trials-car.kobrix"]))["load_states"].values()))["paths"][
            "together"
        ]
        for lost, still in (("left", "right"), ("right", "left")):
            self.assertEqual(path["failures"][f"{lost} lever_lost_circuit"]["pulls"], still)


class SwitchesAndWheels(unittest.TestCase):
    def test_a_switch_feels_the_pressure_where_it_sits(self) -> None:
        document = car()
        rear = next(s for s in document["systems"][0]["stations"] if s["axle"] == "rear")
        switch = {"kind": "switch", "pressure_kpa": 900}
        valve = {"kind": "proportioning", "knee_kpa": 300, "slope": 0.3}
        pushes = []
        for devices in ([switch], [switch, valve], [valve, switch]):
            rear["devices"] = devices
            system = next(iter(evaluate(files.check(Setup, document))["systems"].values()))
            pushes.append(system["stations"][rear["name"]]["switch_pedal_force_n"])
        self.assertAlmostEqual(pushes[0], pushes[1], places=9)
        self.assertGreater(pushes[2], 1.5 * pushes[0])

    def test_the_brakes_own_force_knows_no_rotating_share(self) -> None:
        document = car()
        rows = []
        for share in (0.0, 0.08):
            document["vehicle"]["rotating_share"] = share
            state = next(
                iter(
                    evaluate(files.check(Setup, document), files.check(Questions, {"pedal_forces_n": [150]}))[
                        "load_states"
                    ].values()
                )
            )
            rows.append(next(iter(state["paths"].values()))["at_pedal_force"][0])
        self.assertAlmostEqual(rows[0]["front_brake_force_n"], rows[1]["front_brake_force_n"], places=6)
        self.assertAlmostEqual(rows[0]["decel_g"], rows[1]["decel_g"] * 1.08, places=9)


class Ends(unittest.TestCase):
    def test_a_push_beyond_the_floor_says_so(self) -> None:
        document = car()
        name = document["systems"][0]["name"]
        document["systems"][0]["control"]["available_travel_mm"] = 45
        asked = files.check(Questions, {"pedal_forces_n": [5, 3000]})
        rows = next(iter(next(iter(evaluate(files.check(Setup, document), asked)["load_states"].values()))["paths"].values()))[
            "at_pedal_force"
        ]
        self.assertNotIn("beyond", rows[0])
        end = rows[1]["beyond"]
        self.assertEqual((end["kind"], end["system"]), ("floor", name))
        asked = files.check(Questions, {"pedal_forces_n": [end["pedal_force_n"] * (1 - 1e-9)]})
        at = next(iter(next(iter(evaluate(files.check(Setup, document), asked)["load_states"].values()))["paths"].values()))[
            "at_pedal_force"
        ]
        self.assertLessEqual(at[0]["systems"][name]["pedal_travel_mm"], 45.0 + 1e-6)

    def test_a_linkage_past_its_stroke_answers_null(self) -> None:
        document = car()
        system = document["systems"][0]
        system["control"].update({"pivot_to_pad_mm": 290, "pivot_to_pin_mm": 50, "linkage": {
            "rest_angle_deg": -100, "bore_direction_deg": 0, "rod_mm": 150, "bore_point_mm": [150, -50], "sense": 1}})  # fmt: skip
        system["cylinder"]["stroke_mm"] = 9.0
        asked = files.check(Questions, {"pedal_forces_n": [20, 4000]})
        rows = next(iter(next(iter(evaluate(files.check(Setup, document), asked)["load_states"].values()))["paths"].values()))[
            "at_pedal_force"
        ]
        self.assertIsNone(rows[1]["decel_g"])
        self.assertEqual(set(rows[1]), {"pedal_force_n", "decel_g", "reason"})
        self.assertEqual(rows[1]["pedal_force_n"], 4000.0)

    def test_the_largest_rod_angle_is_exact(self) -> None:
        draw = random.Random(5)
        for _ in range(40):
            link = Linkage(draw.uniform(0.04, 0.08), math.radians(draw.uniform(-115, -80)), 1.0, (0.15, draw.uniform(-0.08, -0.03)),
                           math.radians(draw.uniform(-8, 8)), draw.uniform(0.12, 0.25))  # fmt: skip
            stroke = draw.uniform(0.01, 0.03)
            looked = float(np.nanmax(linkage.rod_angle(link, np.linspace(0.0, stroke, 200001))))
            if not np.isfinite(linkage.angle_at(link, stroke)):
                continue
            self.assertAlmostEqual(float(linkage.largest_rod_angle(link, stroke)), looked, places=8)


class Trailers(unittest.TestCase):
    def test_loads_and_stops_from_moments(self) -> None:
        m, psi, chi, base = 1600.0, 0.52, 0.24, 2.6
        mt, k, nose, e, hh, ht, d = 900.0, 0.4, 75.0, 1.05, 0.42, 0.9, 3.4
        rise = mt / m * (ht - (1 - k) * hh) / d
        own = vehicle.Trailer((1 - k) * mt / m, nose / m, rise, e / base, hh / base)
        column = np.ones((1, 1, 1))
        load = vehicle.Load(m * column, psi * column, chi * column, 0.9, 0.9, 0.8, 0.05, own)
        for z in (0.0, 0.3, 0.7):
            pull = (1 - k) * mt * G * z
            hitch = nose * G + z * mt * G * (ht - (1 - k) * hh) / d
            front: float = m * G * (psi + z * chi) - hitch * e / base + pull * hh / base
            rear: float = m * G * (1 - psi - z * chi) + hitch * (1 + e / base) - pull * hh / base
            self.assertAlmostEqual(float(vehicle.axle_load(load, "front", z)[0, 0, 0]), front, places=6)
            self.assertAlmostEqual(float(vehicle.axle_load(load, "rear", z)[0, 0, 0]), rear, places=6)
        path = solve_path("service", [(plain_system(), 1.0)], load, {"front": 2, "rear": 2})
        place = path.place_at(np.array([150.0]))
        at, line = path.at(place), path.pulls[0].pedal.line
        tyre = sum(float(np.interp(place.number[0], np.arange(line.rod.size), f[0, 0])) for f in line.force)
        z = tyre / (m * G * 1.05 + (1 - k) * mt * G)
        self.assertAlmostEqual(float(at.decel[0, 0, 0]), z, places=9)
        self.assertAlmostEqual(float(at.front[0, 0, 0] + at.rear[0, 0, 0]), m * G * z + (1 - k) * mt * G * z, places=6)

    def test_panic_and_the_grip_limit_are_where_forces_meet_loads(self) -> None:
        column = np.ones((1, 1, 1))
        own = vehicle.Trailer(0.35, 0.05, 0.04, 0.4, 0.16)
        load = vehicle.Load(1500.0 * column, 0.5 * column, 0.22 * column, 0.9, 0.8, 0.8, 0.0, own)
        limit = float(vehicle.grip_limit(load, 1.0, 1.0)[0, 0, 0])
        both = sum(float(load.grip(a)) * float(vehicle.axle_load(load, a, limit)[0, 0, 0]) for a in vehicle.AXLES)
        self.assertAlmostEqual(both, 1500.0 * G * limit * 1.35, places=6)
        path = solve_path("service", [(plain_system(), 1.0)], load, {"front": 2, "rear": 2})
        event = first_event(path.road)
        self.assertTrue(np.isfinite(event.decel).all())
        far = path.at(path.place_at(np.array([3000.0])))
        self.assertTrue(bool(far.front_locked[0, 0, 0] and far.rear_locked[0, 0, 0]))
        z = float(far.grip_decel[0, 0, 0])
        slide = sum(0.8 * float(load.grip(a)) * float(vehicle.axle_load(load, a, z)[0, 0, 0]) for a in vehicle.AXLES)
        self.assertAlmostEqual(slide, 1500.0 * G * z * 1.35, places=6)

    def test_without_one_nothing_changes(self) -> None:
        load = plain_load()
        none = replace(load, trailer=vehicle.Trailer())
        self.assertEqual(
            float(vehicle.axle_load(load, "rear", 0.3)[0, 0, 0]), float(vehicle.axle_load(none, "rear", 0.3)[0, 0, 0])
        )

    def test_in_the_file(self) -> None:
        document = car()
        document["vehicle"]["load_states"][0]["trailer"] = {
            "mass_kg": 700, "braked_share": 0, "nose_kg": 60, "hitch_behind_axle_mm": 900, "hitch_height_mm": 400,
        }  # fmt: skip
        state = next(iter(evaluate(files.check(Setup, document))["load_states"].values()))
        self.assertNotIn("distribution", next(iter(state["paths"].values())))
        bare = copy.deepcopy(document)
        del bare["vehicle"]["load_states"][0]["trailer"]
        alone = next(iter(evaluate(files.check(Setup, bare))["load_states"].values()))
        gained = state["rear_axle_load_n"] + state["front_axle_load_n"] - alone["rear_axle_load_n"] - alone["front_axle_load_n"]
        self.assertAlmostEqual(gained, 60 * G, places=6)


if __name__ == "__main__":
    unittest.main()

"""What Size is told, held by value: each figure worked out another way, from the file or from the moment of exactly that push."""

import math
import unittest
from typing import Any, ClassVar

from kobrix.demo import SETUPS
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import value_of
from kobrix.stages.size.compare import compare
from kobrix.stages.size.service import moment_at, size_view

from tests.cases import demo_document, demo_job

G = 9.80665


def mm(value: Any) -> float:
    """A length as it stands in the file, in mm."""
    return value_of(value, "bore_mm")


class OfTheDemo(unittest.TestCase):
    job: ClassVar[Job] = demo_job()
    view: ClassVar[Any] = size_view(job, 7)

    def path(self, n: int) -> Any:
        return self.view["setups"][n]["solved"]["paths"][-1]

    def test_the_page_and_its_bands(self) -> None:
        self.assertEqual((self.view["page"], self.view["revision"]), ("size", 7))
        least = min(s["balance"]["grip_limit_g"] for n in range(3) for s in self.path(n)["states"])
        self.assertAlmostEqual(self.view["wanted_decel_g"], 0.9 * least, places=9)
        self.assertGreaterEqual(
            self.view["push_range_n"], max(self.path(n)["states"][0]["at_stop"]["pedal_force_n"] for n in range(3))
        )
        self.assertEqual(self.view["force_limit_n"], 500.0)
        effort, travel = self.view["effort"], self.view["travel"]
        self.assertTrue(0 < effort["low"] < effort["good"] < effort["caution"] <= effort["danger"])
        self.assertEqual((travel["good"], travel["caution"], travel["danger"]), (0.55, 0.65, 0.85))
        for bore in self.view["standard_bores"]:
            self.assertAlmostEqual(mm(bore["name"]), bore["bore_mm"], places=6)

    def test_headlines_and_levels_are_the_worst_finding_s(self) -> None:
        order = ("danger", "caution", "note", "good")
        kinds = []
        for n, setup in enumerate(self.view["setups"]):
            levels = [f["level"] for f in setup["findings"]]
            self.assertEqual(setup["level"], min(levels, key=order.index))
            self.assertEqual(levels, sorted(levels, key=order.index))
            kinds.append(setup["headline"]["kind"])
            if setup["headline"]["kind"] == "push":
                self.assertEqual(setup["headline"]["push_n"], self.path(n)["states"][0]["stop_push_n"])
        self.assertEqual(kinds, ["push", "push", "rear_first"])

    def test_parts_are_those_of_the_file(self) -> None:
        for n, plan in enumerate((self.job.as_found, *self.job.plans)):
            system, parts = plan.systems[0], self.path(n)["parts"]
            self.assertEqual(parts["pedal"]["pivot_to_pad_mm"], mm(system.control.pivot_to_pad_mm))
            self.assertEqual(parts["pedal"]["pivot_to_pin_mm"], mm(system.control.pivot_to_pin_mm))
            self.assertAlmostEqual(
                parts["pedal"]["ratio"], parts["pedal"]["pivot_to_pad_mm"] / parts["pedal"]["pivot_to_pin_mm"], places=9
            )
            cylinder: Any = system.cylinder
            bore = mm(cylinder.bore_mm)
            self.assertAlmostEqual(parts["cylinder"]["bore_mm"], bore, places=9)
            self.assertAlmostEqual(parts["cylinder"]["area_cm2"], math.pi * bore**2 / 400.0, places=9)
            for station, own in zip(system.stations, parts["stations"], strict=True):
                brake: Any = station.brake
                self.assertEqual((own["name"], own["axle"], own["wheels"]), (station.name, station.axle, station.wheels))
                if own["disc"] is not None:
                    pistons = [mm(p) for p in brake.pistons_mm]
                    self.assertEqual([round(p, 9) for p in own["disc"]["pistons_mm"]], [round(p, 9) for p in pistons])
                    self.assertAlmostEqual(own["disc"]["area_cm2"], sum(math.pi * p**2 / 400.0 for p in pistons), places=9)
                    radius = (mm(brake.rotor_diameter_mm) - own["disc"]["pad_height_mm"]) / 2.0
                    self.assertAlmostEqual(own["disc"]["effective_radius_mm"], radius, delta=2.0)
                else:
                    area = math.pi * mm(brake.wheel_cylinder_mm) ** 2 / 400.0
                    self.assertAlmostEqual(own["drum"]["area_cm2"], area, places=9)
                    self.assertEqual(own["drum"]["drum_diameter_mm"], mm(brake.drum_diameter_mm))
        self.assertIsNotNone(self.path(0)["parts"]["stations"][1]["drum"])

    def test_what_the_tyres_allow(self) -> None:
        """Ideal sharing, locking lines and their corner, from weight, share and height alone."""
        for n in range(3):
            for state in self.path(n)["states"]:
                own = state["balance"]
                weight, psi, chi = own["weight_n"], own["front_share"], own["chi"]
                self.assertAlmostEqual(weight, state["mass_kg"] * G, delta=1e-6 * weight)
                self.assertEqual(psi, state["front_share"])
                for front, rear in own["ideal_n"][1:]:
                    z = (front + rear) / weight
                    self.assertAlmostEqual(front / (front + rear), psi + z * chi, places=6)
                # On the front's line B_f = μ·W·(ψ + z·χ) with z of front and rear; on the rear's B_r = μ·W·(1 − ψ − z·χ).
                mu_f, mu_r = own["grip_front"], own["grip_rear"]
                front = own["front_lock_n"][0]
                self.assertAlmostEqual(front, mu_f * weight * (psi + front / weight * chi), delta=1e-6 * weight)
                rear = own["rear_lock_n"][1]
                self.assertAlmostEqual(rear, mu_r * weight * (1.0 - psi - rear / weight * chi), delta=1e-6 * weight)
                corner = own["corner_n"]
                z = sum(corner) / weight
                self.assertAlmostEqual(corner[0], mu_f * weight * (psi + z * chi), delta=1e-6 * weight)
                self.assertAlmostEqual(corner[1], mu_r * weight * (1.0 - psi - z * chi), delta=1e-6 * weight)
                self.assertAlmostEqual(own["grip_limit_g"], z, places=9)

    def test_the_first_lock_and_the_grip_it_leaves_unused(self) -> None:
        for n in range(3):
            for load, state in enumerate(self.path(n)["states"]):
                lock = state["lock"]
                setup = self.job.setup(self.view["setups"][n]["key"])
                moment: Any = moment_at(setup, load, lock["push_n"], None)
                self.assertAlmostEqual(moment["decel_g"], lock["decel_g"], places=6)
                self.assertAlmostEqual(moment["front_brake_force_n"], lock["front_n"], delta=1e-6 * lock["front_n"])
                self.assertAlmostEqual(moment["rear_brake_force_n"], lock["rear_n"], delta=1e-6 * lock["front_n"])
                self.assertAlmostEqual(state["grip_efficiency"], lock["decel_g"] / state["balance"]["grip_limit_g"], places=9)
                grip = state["balance"][f"grip_{state['first_lock']}"]
                self.assertAlmostEqual(moment[f"adhesion_{state['first_lock']}"], grip, places=6)

    def test_curves_are_the_moments_of_their_pushes(self) -> None:
        for n in range(3):
            setup, path = self.job.setup(self.view["setups"][n]["key"]), self.path(n)
            for load, state in enumerate(path["states"]):
                curves = state["curves"]
                for i in range(3, len(curves["push_n"]), 9):
                    moment: Any = moment_at(setup, load, curves["push_n"][i], None)
                    for key, own in (
                        ("front_n", "front_brake_force_n"), ("rear_n", "rear_brake_force_n"), ("decel_g", "decel_g"),
                        ("grip_decel_g", "grip_decel_g"), ("adhesion_front", "adhesion_front"), ("adhesion_rear", "adhesion_rear"),
                    ):  # fmt: skip
                        if moment[own] is None:  # past rear lift
                            self.assertIsNone(curves[key][i])
                            continue
                        self.assertAlmostEqual(curves[key][i], moment[own], delta=1e-6 * max(1.0, abs(moment[own])), msg=key)
                    self.assertEqual([a for a in ("front", "rear") if curves[f"{a}_locked"][i] > 0.5], moment["locked"])
                    z = curves["decel_g"][i]
                    self.assertAlmostEqual(
                        curves["ideal_front_share"][i], min(1.0, state["front_share"] + z * state["balance"]["chi"]), places=6
                    )
                    ((name, line),) = curves["lines"].items()
                    system = moment["systems"][name]
                    for key, own in (
                        ("rod_n", "rod_force_n"),
                        ("out_n", "booster_out_n"),
                        ("travel_mm", "pedal_travel_mm"),
                        ("piston_mm", "piston_travel_mm"),
                    ):
                        self.assertAlmostEqual(line[key][i], system[own], delta=1e-6 * max(1.0, abs(system[own])), msg=key)
                    causes = sum(values[i] for values in line["causes_mm"].values())
                    self.assertAlmostEqual(causes, line["travel_mm"][i], delta=1e-6 * causes)
                    for station, at in line["stations"].items():
                        exact = system["stations"][station]
                        self.assertAlmostEqual(at["inlet_kpa"][i], exact["pressure_in_kpa"], delta=1e-3)
                        self.assertAlmostEqual(at["outlet_kpa"][i], exact["pressure_kpa"], delta=1e-3)
                        self.assertAlmostEqual(at["torque_nm"][i], exact["torque_per_wheel_nm"], delta=1e-3)

    def test_a_plan_against_what_was_found(self) -> None:
        for n in (1, 2):
            for load, own in enumerate(self.path(n)["against_found"]):
                pushes = [self.path(k)["states"][load]["stop_push_n"] for k in (0, n)]
                if None in pushes:  # one of the two locks before that stop: there is nothing to compare
                    self.assertIsNone(own)
                    continue
                self.assertAlmostEqual(own["lighter_percent"], 100.0 * (1.0 - pushes[1] / pushes[0]), places=6)
                travels = [
                    next(iter(self.path(k)["states"][load]["at_stop"]["systems"].values()))["pedal_travel_mm"] for k in (0, n)
                ]
                self.assertAlmostEqual(own["longer_mm"], travels[1] - travels[0], places=6)
        self.assertEqual(self.path(0)["against_found"], [{"lighter_percent": 0.0, "longer_mm": 0.0}, None])

    def test_side_by_side_says_which_way(self) -> None:
        doc: Any = compare(self.job, 0, "as found")
        self.assertEqual(doc["setups"], self.job.names)
        push = next(r for r in doc["results"] if r["unit"] == "N")
        as_found, plan = (float(v.replace(",", "").split()[0]) for v in push["values"][:2])
        self.assertLess(plan, as_found)
        share, travel = 100.0 * (1.0 - plan / as_found), self.travel(1) - self.travel(0)
        words = doc["words"][0]
        self.assertTrue(words.startswith("Plan A"))
        self.assertIn(f"{share:.0f} % lighter", words)
        self.assertIn(f"{travel:.0f} mm longer", words)
        back: Any = compare(self.job, 0, "plan A")
        words = back["words"][0]
        self.assertTrue(words.startswith("As found"))
        self.assertIn("% heavier", words)
        self.assertIn(f"{travel:.0f} mm shorter", words)

    def travel(self, n: int) -> float:
        """Pedal travel at the wanted stop of a setup, in mm."""
        systems = self.path(n)["states"][0]["at_stop"]["systems"]
        return float(next(iter(systems.values()))["pedal_travel_mm"])


class OfEveryVehicle(unittest.TestCase):
    def test_a_diagonal_split_is_drawn_crossed_and_nothing_else(self) -> None:
        crossed = {}
        for circuits in ("front_rear", "diagonal"):
            document = demo_document()
            document["as_found"]["systems"][0]["cylinder"]["circuits"] = circuits
            solved = size_view(files.check(Job, document), 0)["setups"][0]["solved"]
            assert solved is not None
            [path] = solved["paths"]
            crossed[circuits] = path["lines"][0]["parts"]["cylinder"]["crossed"]
        self.assertEqual(crossed, {"front_rear": False, "diagonal": True})

    def test_chambers_share_the_rod_and_drums_have_their_cylinder_s_area(self) -> None:
        drums = 0
        for file in SETUPS:
            value = files.read_file(files.parse_json(file.read_bytes()))
            assert isinstance(value, Setup)
            for setup in size_view(files.as_job(value), 0)["setups"]:
                for path in setup["solved"]["paths"] if setup["solved"] else []:
                    for line in path["lines"]:
                        chambers = line["parts"]["cylinder"]["chambers"]
                        for chamber in chambers:
                            self.assertAlmostEqual(chamber["area_cm2"], math.pi * chamber["bore_mm"] ** 2 / 400.0, places=9)
                        if line["parts"]["cylinder"]["kind"] == "twin":
                            self.assertAlmostEqual(sum(c["share"] for c in chambers), 1.0, places=9)
                        for station in line["parts"]["stations"]:
                            drum = station["drum"]
                            if drum:
                                drums += 1
                                self.assertAlmostEqual(
                                    drum["area_cm2"], math.pi * drum["wheel_cylinder_mm"] ** 2 / 400.0, places=9
                                )
        self.assertGreater(drums, 0)


if __name__ == "__main__":
    unittest.main()

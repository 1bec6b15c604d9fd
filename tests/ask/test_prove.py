"""Bleed, Bed and Prove: against hand arithmetic, scipy's tests, and readings made by the model with a fault put in on purpose."""

import math
import random
from typing import Any

import numpy as np
from kobrix.demo import SETUPS
from kobrix.evaluate.ask.subject import Subject
from kobrix.evaluate.solve import Answer
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from scipy import stats

from tests.ask.case import Questions
from tests.cases import demo_job, every_layout

G = 9.80665


def plan_a() -> dict[str, Any]:
    """The demo's plan A as a setup."""
    return demo_job().setup("plan A").model_dump(exclude_unset=True)


def subject(setup: dict[str, Any]) -> Subject:
    """A setup solved as a question has it."""
    return Subject(Asked({"setup": setup}))


class Bleeding(Questions):
    def branches(self) -> list[dict[str, Any]]:
        lengths = {("rear", "right"): 4000, ("rear", "left"): 3000, ("front", "right"): 1500, ("front", "left"): 500}
        return [
            {"name": f"{a} {s}", "axle": a, "side": s, "line_length_mm": n, "caliper_volume_cm3": 20}
            for (a, s), n in lengths.items()
        ]

    def names(self, **more: Any) -> list[str]:
        got = self.ask("bleed_order", **{"branches": self.branches(), **more})
        return [row["branch"] for row in got["order"]]

    def test_each_school(self) -> None:
        far = ["rear right", "rear left", "front right", "front left"]
        self.assertEqual(self.names(), far)
        self.assertEqual(self.names(school="nearest_first"), far[::-1])
        self.assertEqual(self.names(school="diagonal"), ["rear right", "front left", "rear left", "front right"])
        self.assertEqual(self.names(school="list", list=far[::-1]), far[::-1])
        bare = [{k: v for k, v in row.items() if k != "line_length_mm"} for row in self.branches()[::-1]]
        got = self.ask("bleed_order", branches=bare)
        self.assertEqual([row["branch"] for row in got["order"]], far)
        self.assertEqual((got["order_from"], got["total_fluid_cm3"]), ("seats", None))
        self.refused("list.1", "bleed_order", branches=self.branches(), school="list", list=["rear left", "rear left"])

    def test_a_screw_s_fluid_and_the_reservoir(self) -> None:
        row = {"name": "one", "axle": "rear", "side": "left", "line_volume_cm3": 15, "caliper_volume_cm3": 20}
        got = self.ask("bleed_order", branches=[row], stroke_volume_cm3=4, reservoir_cm3=30, low_mark_cm3=10)
        one = got["order"][0]
        self.assertEqual((one["fluid_cm3"], one["strokes"], one["pushed_cm3"]), (70, 18, 72))
        self.assertEqual(one["top_up_before_strokes"], [6, 11, 16])
        without = self.ask("bleed_order", branches=[row], reservoir_cm3=30, low_mark_cm3=10)["order"][0]
        self.assertEqual(without["top_up_after_cm3"], [20, 40, 60])
        self.refused("reservoir_cm3", "bleed_order", branches=[row], stroke_volume_cm3=25, reservoir_cm3=30, low_mark_cm3=10)
        mixed = self.ask("bleed_order", branches=[row], fluid="DOT 5", fluid_in="DOT 4")
        self.assertEqual(mixed["warnings"][:1], [{"id": "silicone_mixed", "level": "danger"}])

    def test_air_that_was_left_in_is_found(self) -> None:
        setup = plan_a()
        airy = {**setup, "systems": [dict(s) for s in setup["systems"]]}
        airy["systems"][0]["stations"] = [dict(s) for s in airy["systems"][0]["stations"]]
        rear = airy["systems"][0]["stations"][1]
        rear["lines"] = {**rear["lines"], "air_cm3": 1.5}
        model = subject(airy)
        pushes = [
            {"pedal_force_n": f, "travel_mm": model.travel_at(model.path.healthy, f)} for f in (15, 60, 300)
        ]  # fmt: skip
        got = self.ask("air_from_pushes", setup=setup, station="rear", pushes=pushes)
        self.assertEqual(got["verdict"], "air")
        self.assertAlmostEqual(got["air_cm3"]["value"], 1.5, places=6)
        self.assertFalse(got["separable"])
        built = subject(setup)
        pushes = [{"pedal_force_n": f, "travel_mm": built.travel_at(built.path.healthy, f)} for f in (15, 300)]
        self.assertEqual(self.ask("air_from_pushes", setup=setup, pushes=pushes)["verdict"], "as_built")

    def test_a_clamp_tells_front_from_rear(self) -> None:
        setup = plan_a()
        pushes = [{"pedal_force_n": 40, "travel_mm": 90, "clamped": c} for c in ([], ["front"], ["rear"])]
        got = self.ask("air_from_pushes", setup=setup, pushes=pushes)
        self.assertTrue(got["separable"])
        self.assertEqual(set(got["air_by_station_cm3"]), {"front", "rear"})
        self.refused("pushes.1.clamped.0", "air_from_pushes", setup=setup, pushes=[pushes[0], {**pushes[1], "clamped": ["boot"]}])

    def test_a_pedal_that_comes_up(self) -> None:
        got = self.ask("pumped", first_travel_mm=100, third_travel_mm=80, bore_mm=20, ratio=5)
        self.assertAlmostEqual(got["taken_up_cm3"], 20 * math.pi * 100 / 5 / 1000)
        self.assertEqual((got["verdict"], got["level"]), ("air_or_clearance", "caution"))
        for first, verdict in ((81, "no_change"), (70, "falls")):
            self.assertEqual(
                self.ask("pumped", first_travel_mm=first, third_travel_mm=80, bore_mm=20, ratio=5)["verdict"], verdict
            )

    def test_a_pedal_that_sinks(self) -> None:
        times = [5, 15, 25, 35, 60]

        def hold(rate: float, *plugged: str) -> dict[str, Any]:
            return {"plugged": list(plugged), "readings": [{"time_s": t, "travel_mm": 90 + rate * t / 60} for t in times]}

        def where(*holds: dict[str, Any]) -> str:
            return str(self.ask("leak_hold", holds=list(holds), bore_mm=20, ratio=5, travel_doubt_mm=0.01)["where"])

        self.assertEqual(where(hold(0)), "none")
        self.assertEqual(where(hold(30), hold(30, "front", "rear")), "cylinder")
        self.assertEqual(where(hold(30), hold(0, "front"), hold(30, "rear")), "beyond_front")
        self.assertEqual(where(hold(60), hold(0, "front", "rear"), hold(30, "front"), hold(30, "rear")), "beyond_each")
        self.assertEqual(where(hold(30)), "not_located")
        got = self.ask("leak_hold", holds=[hold(30)], bore_mm=20, ratio=5)
        fit = stats.linregress(times, [90 + t / 2 for t in times])
        self.assertAlmostEqual(got["holds"][0]["sink_mm_per_min"]["value"], fit.slope * 60)
        self.assertAlmostEqual(got["holds"][0]["loss_cm3_per_min"]["value"], 30 * math.pi * 100 / 5 / 1000)
        few = [{"time_s": 0, "travel_mm": 1}, {"time_s": 9, "travel_mm": 2}]
        self.refused("holds.0.readings", "leak_hold", holds=[{"readings": few}], bore_mm=20, ratio=5)


class StandAndBed(Questions):
    def test_what_the_model_reads_is_as_planned(self) -> None:
        setup = plan_a()
        model = subject(setup)
        pushes = [
            {"pedal_force_n": f, "front_kpa": model.pressure_at(f, "front") / 1000, "rear_kpa": model.pressure_at(f, "rear") / 1000,
             "travel_mm": model.travel_at(model.path.healthy, f)} for f in (60, 120, 200, 250)
        ]  # fmt: skip
        got = self.ask("stand_test", setup=setup, pushes=pushes)
        self.assertEqual((got["verdict"], got["reasons"]), ("drive_slowly", []))
        self.assertTrue(all(not row["off"] for row in got["against_plan"]))
        weak = [{**p, "front_kpa": p["front_kpa"] * 0.6} for p in pushes]
        self.assertIn("pressure_low", self.ask("stand_test", setup=setup, pushes=weak)["reasons"])
        dead = [{**p, "rear_kpa": 0} for p in pushes]
        self.assertIn("rear_dead", self.ask("stand_test", setup=setup, pushes=dead)["reasons"])
        self.refused("pushes.0.front_kpa", "stand_test", setup=setup, pushes=[{"pedal_force_n": 50}])

    def test_one_slow_down_heats_a_rotor_by_its_energy(self) -> None:
        stage = {"from_kmh": 80, "to_kmh": 30, "count": 1, "decel_g": 0.4, "gap_s": 0, "cool_s": 0}
        got = self.ask("bed_recipe", setup=plan_a(), stages=[stage], road_m=50)
        first, last = 80 / 3.6, 30 / 3.6
        way = (first**2 - last**2) / (2 * 0.4 * G)
        self.assertAlmostEqual(got["needed_m"], way)
        self.assertEqual((got["fits"], got["slow_downs_that_fit"]), (False, 0))
        self.assertIn({"id": "no_room", "level": "caution", "station": None}, got["cautions"])
        self.refused("stages.0.decel_g", "bed_recipe", setup=plan_a(), stages=[{**stage, "decel_g": 0}])
        self.refused("stages.0.to_kmh", "bed_recipe", setup=plan_a(), stages=[{**stage, "to_kmh": 80}])


class Stops(Questions):
    def trace(self, speed: float, decel: float, lag: float = 1.0, step: float = 0.05) -> dict[str, list[float]]:
        t = [round(k * step, 6) for k in range(int((lag + speed / decel + 1) / step))]
        return {"t_s": t, "speed_kmh": [max(0.0, speed - decel * max(0.0, x - lag)) * 3.6 for x in t]}

    def test_an_even_stop_gives_its_own_deceleration(self) -> None:
        samples = self.trace(25.0, 8.0)
        got = self.ask("stop_trace", samples=samples, nominal_kmh=88)
        self.assertAlmostEqual(got["mfdd_m_per_s2"], 8.0, places=6)
        self.assertAlmostEqual(got["onset_s"], 1.0, delta=0.1)
        marked = self.ask("stop_trace", samples=samples, nominal_kmh=88, onset_s=1.0)
        self.assertAlmostEqual(marked["distance_m"], 25**2 / 16, delta=0.01)
        self.assertAlmostEqual(marked["lag_s"], 0.0, delta=1e-3)
        self.assertIsNone(got["windy"])
        self.assertEqual(self.ask("stop_trace", samples=samples, nominal_kmh=200)["reason"], "never_through_trigger")
        cut = {k: v[:60] for k, v in samples.items()}
        self.assertEqual(self.ask("stop_trace", samples=cut, nominal_kmh=88)["reason"], "never_at_rest")
        self.refused("samples.t_s.2", "stop_trace", samples={"t_s": [0, 1, 1], "speed_kmh": [3, 2, 1]}, nominal_kmh=80)

    def test_three_typed_numbers(self) -> None:
        got = self.ask("stop_typed", speed_kmh=72, brake_on_mark_m=10, rest_mark_m=50, time_s=3.5, nominal_kmh=80)
        self.assertAlmostEqual(got["decel_by_distance_g"], 400 / (80 * G))
        self.assertAlmostEqual(got["decel_g"], 400 / (2 * (70 - 40) * G))
        self.assertAlmostEqual(got["nominal_m"], 40 * (80 / 72) ** 2)
        steep = self.ask("stop_typed", speed_kmh=72, distance_m=40, grade=-0.05)
        self.assertAlmostEqual(steep["level_m"], 200 / (5 + G * math.sin(math.atan(0.05))))
        self.assertEqual(self.ask("stop_typed", speed_kmh=60, distance_m=40, nominal_kmh=80)["nominal_reason"], "speed_off")

    def test_sets_are_welch_s(self) -> None:
        draw = random.Random(2)
        for _ in range(20):
            one, two = ([draw.gauss(m, 1.3) for _ in range(draw.randint(2, 9))] for m in (45, 44))
            sets = [{"name": n, "stops": [{"distance_m": d} for d in ways]} for n, ways in (("a", one), ("b", two))]
            got = self.ask("stops_compare", nominal_kmh=80, sets=sets)["pairs"][0]
            test = stats.ttest_ind(one, two, equal_var=False)
            self.assertAlmostEqual(got["p"], test.pvalue, places=12)
            low, high = test.confidence_interval(0.95)
            self.assertAlmostEqual(got["low_m"], low, places=9)
            self.assertAlmostEqual(got["high_m"], high, places=9)
            each = got["stops_each"]
            if each is not None and each > 2:
                effect = abs(np.mean(one) - np.mean(two)) / math.sqrt((np.var(one, ddof=1) + np.var(two, ddof=1)) / 2)
                power = [self.power(float(effect), n) for n in (each - 1, each)]
                self.assertLess(power[0], 0.8)
                self.assertGreaterEqual(power[1], 0.8)

    def power(self, effect: float, n: int) -> float:
        """Power of the two-sided test by scipy's noncentral t."""
        dof, shift = 2 * n - 2, effect * math.sqrt(n / 2)
        edge = stats.t.ppf(0.975, dof)
        return float(stats.nct.sf(edge, dof, shift) + stats.nct.cdf(-edge, dof, shift))

    def test_the_best_of_several_is_not_the_answer(self) -> None:
        stops = [{"distance_m": d, "speed_kmh": 80} for d in (40.0, 41.0, 42.0)]
        got = self.ask(
            "stops_compare", nominal_kmh=80, sets=[{"name": "a", "stops": [*stops, {"distance_m": 30, "speed_kmh": 60}]}]
        )
        own = got["sets"][0]
        self.assertEqual(own["left_out"], [{"stop": 3, "why": "speed_off"}])
        self.assertAlmostEqual(own["best_of_bias_m"], 1.5 / math.sqrt(math.pi), places=9)  # of three normal readings: 3/(2√π)
        self.assertEqual((own["best_m"], got["pairs"]), (40, []))

    def test_friction_that_is_down_is_learned(self) -> None:
        setup = plan_a()
        model = subject(setup)
        gauges = [{"pedal_force_n": f, "front_kpa": model.pressure_at(f, "front") / 1000} for f in (100, 200, 300, 400)]
        stops = [{"decel_g": model.decel_at(model.path.healthy, f) * 0.9, "push_n": f} for f in (150, 200, 250) * 6]
        got = self.ask("calibrate", setup=setup, stops=stops, gauges=gauges)
        self.assertAlmostEqual(got["factors"]["friction"]["value"], 0.9, delta=0.01)
        self.assertAlmostEqual(got["factors"]["efficiency"]["value"], 1.0, delta=0.01)
        self.assertFalse(got["factors"]["grip"]["told"])
        self.assertLess(got["rms_after_g"], got["rms_before_g"] / 3)
        self.refused("stops", "calibrate", setup=setup)

    def test_a_valve_s_next_setting(self) -> None:
        log = [{"setting": s, "locked": "front" if s < 4 else "rear"} for s in (1, 2, 3, 3.5, 4.5, 5, 6)]
        got = self.ask("valve_next", least=0, most=8, now=2, log=log)
        self.assertAlmostEqual(got["turn_over"]["median"], 4.0, delta=0.3)
        self.assertEqual((got["level"], got["reason"]), ("good", None))
        self.assertLessEqual(got["next_chance"], 0.05)
        other = self.ask("valve_next", least=0, most=8, now=6, more_is="front",
                         log=[{"setting": 8 - float(r["setting"]), "locked": r["locked"]} for r in log])  # fmt: skip
        self.assertAlmostEqual(other["next"], 8 - got["next"])
        self.refused("now", "valve_next", least=0, most=8, now=9)

    def test_a_pull_by_its_moment(self) -> None:
        stop = {"time_s": 3, "distance_m": 36, "decel_g": 0.8, "heading_deg": 6}
        got = self.ask("pull", kind="castering", mass_kg=600, track_mm=1800, radius_of_gyration_mm=1200, stops=[stop])
        moment = 600 * 1.44 * 2 * math.radians(6) / 9
        self.assertAlmostEqual(got["stops"][0]["force_difference_n"], 2 * moment / 1.8)
        self.assertEqual((got["verdict"], got["least"]), ("cannot_tell", True))
        self.refused("stops.0.heading_deg", "pull", kind="castering", mass_kg=600, track_mm=1800, radius_of_gyration_mm=1200,
                     stops=[{"time_s": 3, "distance_m": 30}])  # fmt: skip


class Acceptance(Questions):
    def test_a_band_ends_where_a_limit_breaks(self) -> None:
        setup = plan_a()
        limits = {"decel_g": 0.7, "effort_n": 400, "travel_share": 0.75}
        dimension = {"what": "bore_mm", "from": 15, "to": 30}
        got = self.ask("acceptance", setup=setup, limits=limits, dimensions=[dimension])
        band = got["intervals"][0]
        self.assertEqual((band["low_limit"], band["high_limit"]), ("travel", "effort"))
        for bore, broken in (
            (band["low"] * 1.000001, []), (band["low"] * 0.9999, ["travel"]),
            (band["high"] * 0.999999, []), (band["high"] * 1.0001, ["effort"]),
        ):  # fmt: skip
            candidate = {"set": [{"what": "bore_mm", "value": bore}]}
            judged = self.ask("acceptance", setup=setup, limits=limits, candidates=[candidate])["candidates"][0]
            self.assertEqual(judged["broken"], broken)
            self.assertEqual(judged["verdict"], "leave" if broken else "keep")

    def test_a_valve_brings_a_rear_back(self) -> None:
        setup = plan_a()
        big = {"set": [{"what": "side_area_cm2", "station": "rear", "value": 16}]}
        got = self.ask("acceptance", setup=setup, limits={"lock_margin": 0.03}, candidates=[big])["candidates"][0]
        self.assertEqual((got["verdict"], got["broken"]), ("keep_with_valve", ["lock_order"]))
        self.assertGreater(got["knee_kpa"], 500)
        self.refused("limits.decel_g", "acceptance", setup=setup, limits={"effort_n": 400})
        self.refused("limits.colour", "acceptance", setup=setup, limits={"colour": 1})


class EveryVehicle(Questions):
    def setups(self) -> list[dict[str, Any]]:
        found = [job.setup("as found") for job in every_layout()]
        for path in SETUPS:
            value = files.read_file(files.parse_json(path.read_bytes()))
            found.append(value.setup("as found") if isinstance(value, Job) else value)
        return [s.model_dump(exclude_unset=True) for s in found if Answer(s).solved is not None]

    def test_questions_of_a_setup_are_answered_for_each(self) -> None:
        setups = self.setups()
        self.assertGreater(len(setups), 3)
        for setup in setups:
            model = subject(setup)
            force = 0.6 * float(model.path.healthy.push_at(model.path.design).max())
            station = model.station().name
            pushes = []
            for f in (force / 3, force):
                row = {"pedal_force_n": f, "front_kpa": 0.0}
                row["travel_mm"] = model.travel_at(model.path.healthy, f)
                for axle in ("front", "rear"):
                    part = model.on_axle(axle)
                    if part is not None:
                        row[f"{axle}_kpa"] = model.pressure_at(f, part.name) / 1000
                pushes.append(row)
            got = self.ask("stand_test", setup=setup, pushes=pushes)
            self.assertFalse([r for r in got["reasons"] if r.endswith("_off")], setup["name"])
            decel = float(model.path.design_decel.min()) / 2
            stage = {"from_kmh": 60, "to_kmh": 20, "count": 2, "decel_g": decel, "gap_s": 30}
            self.ask("bed_recipe", setup=setup, stages=[stage])
            if model.pressure_at(force / 3, station) > 0:
                air = self.ask("air_from_pushes", setup=setup, pushes=pushes)
                self.assertEqual(air["verdict"], "as_built", setup["name"])
            fitted = self.ask("calibrate", setup=setup, stops=[{"decel_g": decel, "push_n": force}])
            self.assertTrue(0.3 < fitted["factors"]["friction"]["value"] < 3, setup["name"])
            self.ask("half_done", setup=setup, groups=[{"name": "a", "set": {"systems.0.control.efficiency": 0.5}}])
            limits = {"decel_g": decel, "effort_n": 500, "lock_margin": 0.03, "lost_circuit_decel_g": 0.1}
            self.ask("acceptance", setup=setup, limits=limits)

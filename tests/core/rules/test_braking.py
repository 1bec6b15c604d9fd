"""Judgements and mends: what they say, and that what they offer works."""

import random
import unittest
from typing import Any

from kobrix.core.rules import limits, remedies
from kobrix.core.rules.limits import EFFORT, LEVELS, Bench, Judgement, Mend
from kobrix.core.rules.run import judge
from kobrix.demo import SETUPS
from kobrix.evaluate.remedies import edits_of
from kobrix.evaluate.solve import Answer, facts_of
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import set_at

from tests.cases import applied, demo_job


def judged(setup: Setup, found: Setup | None = None) -> list[Judgement]:
    answer = Answer(setup)
    assert answer.solved is not None
    base = Answer(found).solved if found is not None else None
    bench = Bench(answer.solved, answer.converted.load_names, facts_of(answer), base)
    return remedies.offer(bench, judge(bench))


def changed(setup: Setup, **fields: Any) -> Setup:
    """A setup with dotted fields changed (dots written as two underscores)."""
    edits = [{"path": path.replace("__", "."), "value": value} for path, value in fields.items()]
    document = applied(setup.model_dump(exclude_unset=True), edits)
    return files.check(Setup, document)


def by_id(found: list[Judgement], name: str) -> Judgement:
    return next(j for j in found if j.id == name)


class Levels(unittest.TestCase):
    def test_effort_bands(self) -> None:
        levels = [limits.effort_level("car_pedal", f) for f in (90, 120, 350, 400, 451, 501)]
        self.assertEqual(levels, ["note", "good", "good", "note", "caution", "danger"])
        self.assertIsNone(limits.effort_level("aircraft_pedal", 300))
        self.assertEqual(EFFORT["hand_lever"].level(201), "danger")

    def test_travel_bands(self) -> None:
        self.assertEqual([limits.travel_level(s) for s in (0.55, 0.6, 0.7, 0.9)], ["good", "note", "caution", "danger"])


class Demo(unittest.TestCase):
    def setUp(self) -> None:
        self.job = demo_job()
        self.found = self.job.setup("as found")

    def test_as_found_is_too_heavy(self) -> None:
        effort = by_id(judged(self.found), "effort")
        self.assertEqual(effort.level, "danger")
        self.assertGreater(effort.value or 0.0, 500.0)

    def test_dangers_come_first(self) -> None:
        order = [LEVELS.index(j.level) for j in judged(self.job.setup("plan B"), self.found)]
        self.assertEqual(order, sorted(order))
        self.assertEqual(order[0], 0)

    def test_plan_a_names_the_pin_the_residual_valve_and_the_floor(self) -> None:
        found = judged(self.job.setup("plan A"), self.found)
        self.assertIn("16 mm", by_id(found, "pin_move").sentence)
        self.assertIn("10 psi", by_id(found, "residual_rear").sentence)
        self.assertIn("floor", by_id(found, "lost_rear").sentence)

    def test_a_pushrod_that_can_fall_out_is_a_danger(self) -> None:
        loose = changed(self.job.setup("plan A"), systems__0__control__rod_retained=False)
        self.assertEqual(by_id(judged(loose), "rod_retained").level, "danger")

    def test_a_single_cylinder_is_cautioned(self) -> None:
        cylinder = {"kind": "single", "bore_mm": "13/16 in", "stroke_mm": 30}
        single = changed(self.job.setup("plan A"), systems__0__cylinder=cylinder)
        found = judged(single)
        self.assertEqual(by_id(found, "one_circuit").level, "caution")
        self.assertEqual(by_id(found, "lost_circuit").level, "danger")

    def test_valves_in_series_and_in_front_are_cautioned(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": "600 psi", "slope": 0.4}
        devices = {"systems__0__stations__1__devices": [valve, valve], "systems__0__stations__0__devices": [valve]}
        ids = [j.id for j in judged(changed(self.job.setup("plan A"), **devices))]
        self.assertIn("series_rear", ids)
        self.assertIn("valve_front", ids)


class Parts(unittest.TestCase):
    """Rules about parts, each with a setup that breaks it and one that does not."""

    def ids(self, **fields: Any) -> list[str]:
        return [j.id for j in judged(changed(demo_job().setup("plan A"), **fields))]

    def test_a_valve_that_is_not_needed(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": 3000, "slope": 0.4}
        self.assertIn("valve_not_needed", self.ids(systems__0__stations__1__devices=[valve]))
        strong = {"systems__0__stations__1__brake__pistons_mm": ["44 mm"], "systems__0__stations__1__devices": [valve]}
        self.assertNotIn("valve_not_needed", self.ids(**strong))

    def test_tired_and_old_hoses(self) -> None:
        hose = {"kind": "rubber", "length_mm": 400, "count": 2}
        tired = {**hose, "coefficient_cm3_per_m_mpa": 0.3, "age_years": 14}
        found = self.ids(systems__0__stations__0__lines__hoses=[tired])
        self.assertIn("hose_growth_front", found)
        self.assertIn("hose_age_front", found)
        sound = {**hose, "coefficient_cm3_per_m_mpa": 0.2, "age_years": 4}
        self.assertFalse({"hose_growth_front", "hose_age_front"} & set(self.ids(systems__0__stations__0__lines__hoses=[sound])))

    def test_thin_rotors_and_small_reservoirs(self) -> None:
        thin = {
            "systems__0__stations__0__brake__rotor_thickness_mm": 18.2,
            "systems__0__stations__0__brake__rotor_least_thickness_mm": 19,
        }
        self.assertIn("rotor_front", self.ids(**thin))
        worn = {"systems__0__stations__0__brake__pad_wear_mm": 9, "systems__0__cylinder__reservoir_cm3": {"front": 60}}
        self.assertIn("reservoir_front", self.ids(**worn))
        worn["systems__0__cylinder__reservoir_cm3"] = {"front": 120}
        self.assertNotIn("reservoir_front", self.ids(**worn))

    def test_silicone_and_a_cylinder_below_the_brakes(self) -> None:
        self.assertIn("silicone", self.ids(systems__0__fluid="DOT 5"))
        found = self.ids(systems__0__cylinder__height_above_brakes_mm=-120)
        self.assertIn("residual_front", found)

    def test_hot_pads_that_leave_too_little_are_told_and_others_are_not(self) -> None:
        self.assertNotIn("hot", self.ids())
        weak = {f"systems__0__stations__{i}__brake__friction": {"cold": 0.38, "hot": 0.06} for i in (0, 1)}
        self.assertIn("hot", self.ids(**weak))

    def test_a_bypass_gives_the_rear_all_when_the_front_is_lost(self) -> None:
        valve = {"kind": "proportioning", "knee_kpa": 1000, "slope": 0.2}
        best = []
        for bypass in (False, True):
            setup = changed(demo_job().setup("plan A"), systems__0__stations__1__devices=[{**valve, "bypass": bypass}])
            answer = Answer(setup)
            assert answer.solved is not None and answer.solved.main.left is not None
            best.append(float(answer.solved.main.left.best[0, answer.solved.names.index("lost_front")]))
        self.assertGreater(best[1], best[0] * 1.2)


class Mending(unittest.TestCase):
    """Every mend that is offered is carried out as its edits say, and the finding is looked at again."""

    def after(self, setup: Setup, name: str) -> tuple[Judgement, list[Judgement]]:
        before = by_id(judged(setup), name)
        assert before.mend is not None
        document = applied(setup.model_dump(exclude_unset=True), edits_of(before.mend, setup, before.system))
        return before, judged(files.check(Setup, document))

    def test_braided_hoses_shorten_the_travel_as_promised(self) -> None:
        before, found = self.after(demo_job().setup("plan A"), "travel")
        after = by_id(found, "travel")
        self.assertLess(LEVELS.index(before.level), LEVELS.index(after.level))
        promised = before.reason.split("make it ")[1].split(" mm")[0]
        self.assertIn(f"Travel {promised} of", after.sentence)

    def test_smaller_rear_pistons_cure_the_lock_order_where_no_valve_can(self) -> None:
        before, found = self.after(demo_job().setup("plan B"), "lock_order")
        self.assertIn("No valve", before.reason)
        self.assertEqual(by_id(found, "lock_order").level, "good")
        self.assertNotIn("distribution_rear", [j.id for j in found])

    def test_a_valve_is_offered_where_it_works_at_every_grip(self) -> None:
        wide = changed(demo_job().setup("plan A"), systems__0__stations__1__brake__pistons_mm=["44 mm"])
        self.assertEqual(by_id(judged(wide), "lock_order").level, "danger")
        before, found = self.after(wide, "lock_order")
        if before.mend is not None and before.mend.kind == "valve":
            self.assertIn("at every grip", before.reason)
        self.assertEqual(by_id(found, "lock_order").level, "good")

    def test_a_bore_lightens_a_heavy_pedal_as_promised(self) -> None:
        heavy = changed(demo_job().setup("plan A"), systems__0__cylinder__bore_mm="1 in",
                        systems__0__stations__0__lines__hoses__0__kind="braided",
                        systems__0__stations__1__lines__hoses__0__kind="braided")  # fmt: skip
        before, found = self.after(heavy, "effort")
        after = by_id(found, "effort")
        self.assertLess(LEVELS.index(before.level), LEVELS.index(after.level))
        self.assertIn(before.reason.split("make it ")[1].split(" with")[0], after.sentence)

    def test_the_residual_valve_goes(self) -> None:
        _, found = self.after(demo_job().setup("plan A"), "residual_rear")
        self.assertNotIn("residual_rear", [j.id for j in found])

    def demo(self, name: str) -> Setup:
        return next(
            s
            for s in (files.read_file(files.parse_json(f.read_bytes())) for f in SETUPS if name in f.name)
            if isinstance(s, Setup)
        )

    def test_each_of_two_controls_is_mended_where_its_own_parts_stand(self) -> None:
        bike = self.demo("motorcycle")
        near = changed(bike, systems__1__control__pivot_to_pin_mm=18)
        for setup, name, own in ((bike, "effort_hand", "/systems/0/"), (near, "travel_foot", "/systems/1/")):
            with self.subTest(name):
                before, found = self.after(setup, name)
                assert before.mend is not None
                for edit in edits_of(before.mend, setup, before.system):
                    self.assertTrue(edit["path"].startswith(own), edit)
                after = by_id(found, name)
                self.assertLess(LEVELS.index(before.level), LEVELS.index(after.level))
                self.assertIn(before.reason.split("make it ")[1].split(" ")[0], after.sentence)

    def test_nothing_is_tried_for_what_hangs_on_how_hard_two_controls_are_pressed(self) -> None:
        order = by_id(judged(self.demo("motorcycle")), "lock_order")
        self.assertEqual((order.level, order.mend), ("danger", None))

    def test_a_second_control_is_mended_at_its_own_place(self) -> None:
        car = self.demo("trials-car")
        names = [name for name, _ in car.systems[0].seconds]
        self.assertEqual(len(names), 2)
        for i, name in enumerate(names):
            edits = edits_of(Mend("bore", "Try 14 mm", "14 mm", {"bore": 0.014}), car, name)
            self.assertEqual(edits, [set_at(f"systems.0.second_control.{i}.cylinder.bore_mm", "14 mm")])
            document = applied(car.model_dump(exclude_unset=True), edits)
            self.assertEqual(files.check(Setup, document).systems[0].seconds[i][1].cylinder.bore_mm, "14 mm")

    def test_brakes_that_several_controls_press_are_told_of_once(self) -> None:
        valve = [{"kind": "residual", "pressure_kpa": "10 psi"}]
        car = changed(self.demo("trials-car"), systems__0__stations__0__devices=valve)
        ids = [j.id for j in judged(car)]
        self.assertEqual(len(ids), len(set(ids)), ids)
        self.assertEqual(sum(i.startswith("residual") for i in ids), 1)

    def drawn(self, draw: random.Random, setup: Setup) -> Setup:
        """The same vehicle with other bores, pins and room at every control."""
        document = setup.model_dump(exclude_unset=True)
        for system in document["systems"]:
            second = system.get("second_control") or []
            for part in [system, *(second if isinstance(second, list) else [second])]:
                control, cylinder = part["control"], part["cylinder"]
                for name, low, high in (("pivot_to_pin_mm", 0.5, 1.7), ("available_travel_mm", 0.5, 1.3)):
                    if isinstance(control.get(name), (int, float)):
                        control[name] = round(control[name] * draw.uniform(low, high), 1)
                bore = draw.choice(("14 mm", "5/8 in", "3/4 in", "7/8 in", "1 in", "1 1/4 in"))
                for bored in (cylinder, cylinder.get("front"), cylinder.get("rear")):
                    if isinstance(bored, dict) and "bore_mm" in bored:
                        bored["bore_mm"] = bore
        return files.check(Setup, document)

    def test_every_mend_offered_for_a_vehicle_works(self) -> None:
        """The shipped vehicles, and the same with bores, pins and room drawn at random: each mend is carried out and looked at."""
        draw = random.Random(20)
        shipped = [*(self.demo(f.name) for f in SETUPS), *map(demo_job().setup, ("as found", "plan A", "plan B"))]
        kinds: set[str] = set()
        for setup in [*shipped, *(self.drawn(draw, setup) for setup in shipped for _ in range(4))]:
            for before in judged(setup):
                edits = edits_of(before.mend, setup, before.system) if before.mend is not None else []
                if before.mend is None or not edits:
                    continue
                kinds.add(before.mend.kind)
                document = applied(setup.model_dump(exclude_unset=True), edits)
                after = [j for j in judged(files.check(Setup, document)) if j.id == before.id]
                self.assertTrue(not after or LEVELS.index(after[0].level) > LEVELS.index(before.level), before)
        self.assertLessEqual({"bore", "braided", "rear_area", "remove_residual"}, kinds)

    def test_twin_cylinders_of_one_size_are_changed_together_and_of_two_not_at_all(self) -> None:
        car = self.demo("hill-climb")
        front, rear = (f"systems__0__cylinder__{end}__bore_mm" for end in ("front", "rear"))
        alike = changed(car, **{front: "15/16 in", rear: "15/16 in", "systems__0__control__pivot_to_pin_mm": 70})
        before, found = self.after(alike, "effort")
        assert before.mend is not None
        edits = edits_of(before.mend, alike, before.system)
        self.assertEqual([e["path"] for e in edits], ["/systems/0/cylinder/front/bore_mm", "/systems/0/cylinder/rear/bore_mm"])
        after = by_id(found, "effort")
        self.assertLess(LEVELS.index(before.level), LEVELS.index(after.level))
        self.assertEqual(by_id(found, "lock_order").sentence, by_id(judged(alike), "lock_order").sentence)
        apart = changed(alike, **{rear: "1 in"})
        self.assertIn(by_id(judged(apart), "effort").level, ("caution", "danger"))
        self.assertIsNone(by_id(judged(apart), "effort").mend)

"""What is said of a stop: lock order, effort and travel at the edges, each against moments written out by hand."""

import unittest
from typing import Any

from kobrix.core.rules.braking import lock_order
from kobrix.core.rules.foot import effort, travel
from kobrix.core.rules.limits import Bench, Judgement
from kobrix.evaluate.solve import Answer, facts_of
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import demo_document

SHARE, HEIGHT, WHEELBASE = 0.49, 0.530, 2.480
CHI = HEIGHT / WHEELBASE


def plan_a(**vehicle: Any) -> dict[str, Any]:
    """Plan A as a setup of its own, in one load state, with entries of the `vehicle` changed."""
    document = demo_document()
    own = {**document["vehicle"], "load_states": document["vehicle"]["load_states"][:1], **vehicle}
    return {"format": "kobrix-setup", "version": 1, "name": "x", "vehicle": own, "systems": document["plans"][0]["systems"]}


def bench(document: dict[str, Any]) -> Bench:
    """The bench that a setup is judged on."""
    answer = Answer(files.check(Setup, document))
    assert answer.solved is not None
    return Bench(answer.solved, answer.converted.load_names, facts_of(answer), None)


def with_pistons(front: float, rear: float, **vehicle: Any) -> dict[str, Any]:
    """Plan A with other pistons, in mm."""
    document = plan_a(**vehicle)
    stations = document["systems"][0]["stations"]
    stations[0]["brake"]["pistons_mm"] = [front]
    stations[1]["brake"]["pistons_mm"] = [rear]
    return document


class Order(unittest.TestCase):
    def only(self, document: dict[str, Any]) -> Judgement:
        (found,) = lock_order(bench(document))
        self.assertEqual(found.id, "lock_order")
        return found

    def first_lock(self, document: dict[str, Any]) -> float:
        found = self.only(document)
        assert found.value is not None
        return found.value

    def test_the_front_first_at_the_deceleration_of_the_moments(self) -> None:
        document = with_pistons(60, 20)
        found = self.only(document)
        self.assertEqual((found.level, found.sentence[:22]), ("note", "The front locks first,"))  # it waits for its trials
        # Front brake force f·W·z reaches the grip of the front axle's load W(share + χz); f from the pistons and radii.
        own = Answer(files.check(Setup, document))
        assert own.solved is not None and found.value is not None
        road = own.solved.main.healthy.road
        share = float(road.front[0, 0, -1] / (road.front[0, 0, -1] + road.rear[0, 0, -1]))
        self.assertAlmostEqual(found.value, 0.9 * SHARE / (share - 0.9 * CHI), delta=0.004)

    def test_the_rear_first_is_a_danger_at_the_deceleration_of_the_moments(self) -> None:
        document = with_pistons(24, 60)
        found = self.only(document)
        self.assertEqual(found.level, "danger")
        self.assertIn("spin", found.reason)
        own = Answer(files.check(Setup, document))
        assert own.solved is not None and found.value is not None
        road = own.solved.main.healthy.road
        share = float(road.rear[0, 0, -1] / (road.front[0, 0, -1] + road.rear[0, 0, -1]))
        self.assertAlmostEqual(found.value, 0.9 * (1 - SHARE) / (share + 0.9 * CHI), delta=0.004)

    def test_a_high_short_vehicle_lifts_its_rear_before_a_wheel_locks(self) -> None:
        states = [{**plan_a()["vehicle"]["load_states"][0], "cg_height_mm": 1500}]
        document = with_pistons(60, 30, load_states=states, grip_front=1.4, grip_rear=1.4)
        document["systems"][0]["stations"][1]["devices"] = [{"kind": "metering", "hold_kpa": 12000, "blend_kpa": 15000}]
        found = self.only(document)
        lifts = (1 - SHARE) / (1.5 / WHEELBASE)
        self.assertEqual(found.level, "danger")
        self.assertIn("lifts", found.sentence)
        assert found.value is not None
        self.assertAlmostEqual(found.value, lifts, places=6)

    def test_on_a_slippery_road_alone_it_is_a_danger_too(self) -> None:
        document = plan_a()
        # Ahead of the knee the rear has more than its share, behind it little: the order turns with the grip.
        stations = document["systems"][0]["stations"]
        stations[0]["brake"]["pistons_mm"], stations[1]["brake"]["pistons_mm"] = [44], [48]
        stations[1]["devices"] = [{"kind": "proportioning", "knee_kpa": 1500, "slope": 0.1}]
        found = self.only(document)
        self.assertEqual(found.level, "danger")
        self.assertIn("slippery road the rear locks first", found.sentence)

    def test_lines_that_pass_too_little_lock_nothing(self) -> None:
        document = plan_a()
        for station in document["systems"][0]["stations"]:
            station["devices"] = [{"kind": "limiting", "setting_kpa": 500}]
        self.assertIn("No wheel locks", self.only(document).sentence)
        judged = bench(document)
        self.assertEqual([(j.level, j.reason) for j in effort(judged)], [("danger", "No push reaches 0.9 of the grip.")])
        self.assertEqual(travel(judged), [])

    def test_of_one_braked_axle_there_is_no_order(self) -> None:
        for kept, lock in ((0, 0.9 * SHARE / (1 - 0.9 * CHI)), (1, 0.9 * (1 - SHARE) / (1 + 0.9 * CHI))):
            document = plan_a()
            own = document["systems"][0]
            own["cylinder"] = {"kind": "single", "bore_mm": "13/16 in", "stroke_mm": 30}
            own["stations"] = [own["stations"][kept]]
            found = self.only(document)
            self.assertEqual((found.level, found.reason), ("note", "Only one axle brakes: there is no order."))
            assert found.value is not None
            self.assertAlmostEqual(found.value, lock, places=6)


class Bands(unittest.TestCase):
    def test_effort_from_too_light_to_too_hard(self) -> None:
        seen = {}
        for bore in (12, 14, 17, 20.64, 24, 27, 32):
            document = plan_a()
            document["systems"][0]["cylinder"]["bore_mm"] = bore
            (found,) = effort(bench(document))
            seen[bore] = found
            assert found.value is not None
            if found.level == "note" and found.value < 120:
                self.assertIn("hard to meter", found.reason)
        pushes = [j.value or 0.0 for j in seen.values()]
        self.assertEqual(pushes, sorted(pushes))
        for found in seen.values():
            assert found.value is not None
            level = "note" if found.value < 120 else "good" if found.value <= 350 else "note" if found.value <= 400 else None
            level = level or ("caution" if found.value <= 450 else "danger" if found.value > 500 else found.level)
            self.assertEqual(found.level if found.value <= 400 or found.value > 500 else level, level, found.sentence)
        self.assertEqual(seen[32].level, "danger")

    def test_travel_is_of_the_room_there_is(self) -> None:
        for room, level in ((240, "good"), (165, "note"), (140, "caution"), (105, "danger")):
            document = plan_a()
            document["systems"][0]["control"]["available_travel_mm"] = room
            (found,) = travel(bench(document))
            self.assertEqual(found.level, level, found.sentence)
            assert found.value is not None
            self.assertIn(f"of {room} mm", found.sentence)
            self.assertAlmostEqual(found.value * room, 96, delta=3)


if __name__ == "__main__":
    unittest.main()

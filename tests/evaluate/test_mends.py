"""Mends: every one that is offered is carried out as its edits say, and keeps what it promised."""

import random
import unittest
from typing import Any
from unittest import mock

from kobrix.core.errors import KobrixError
from kobrix.core.rules.limits import LEVELS, Judgement, percent
from kobrix.demo import SETUPS
from kobrix.evaluate import mends as mends_
from kobrix.evaluate.mends import _inlet_at_lock, mends_of
from kobrix.evaluate.shapes import Mend
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.evaluate.uncertainty import bare
from kobrix.evaluate.verdicts import tried
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup, TwinCylinder
from kobrix.fileformat.quantities import si

from tests.cases import applied, demo_job
from tests.core.rules.test_braking import by_id, changed, judged
from tests.pins.vehicles import setup_of, vehicles

RANK = LEVELS.index


def offered(setup: Setup, found: Setup | None = None) -> dict[str, list[Mend]]:
    """The mends of a setup without a job."""
    return mends_of(ByContent(setup), None if found is None else ByContent(found), None, bare())


def taken(setup: Setup, mend: Mend) -> Setup:
    """The setup as a job would store it with the mend taken."""
    return files.check(Setup, applied(setup.model_dump(exclude_none=True, exclude_unset=True), mend["edits"]))


def demo(name: str) -> Setup:
    """A shipped vehicle by a word of its file's name."""
    found = files.read_file(files.parse_json(next(f for f in SETUPS if name in f.name).read_bytes()))
    assert isinstance(found, Setup)
    return found


class Promises(unittest.TestCase):
    def keeps(self, setup: Setup, found: Setup | None = None) -> set[str]:
        """Every mend of a setup is taken and looked at again: the kinds that were offered."""
        kinds: set[str] = set()
        before = judged(setup, found)
        was = {j.id: j for j in before}
        for id_, mends in offered(setup, found).items():
            brought_last = [bool(m["brings"]) for m in mends]
            self.assertEqual(brought_last, sorted(brought_last), f"{id_}: what brings something stands last")
            for mend in mends:
                kinds.add(mend["kind"])
                after = {j.id: j for j in judged(taken(setup, mend), found)}
                self.assertTrue(id_ not in after or RANK(after[id_].level) > RANK(was[id_].level), (id_, mend))
                self.assertIn(id_, mend["cures"])
                worse = {i: j for i, j in after.items() if RANK(j.level) < RANK(was[i].level if i in was else "good")}
                self.assertEqual(
                    {b["id"]: b["level"] for b in mend["brings"]}, {i: j.level for i, j in worse.items()}, (id_, mend)
                )
                self.assertTrue(all(RANK(j.level) >= RANK(was[id_].level) for j in worse.values()), (id_, mend))
                for cured in mend["cures"]:
                    self.assertTrue(cured not in after or RANK(after[cured].level) > RANK(was[cured].level), (cured, mend))
                if id_ in after:
                    self.assertIn(after[id_].sentence, mend["words"], id_)
                    chance = after[id_].chance
                    self.assertIn("" if chance is None else percent(chance), mend["words"], id_)
                    told = chance is None or percent(chance) in after[id_].sentence
                    self.assertEqual(" Broken in " in mend["words"], not told)
        return kinds

    def test_the_demo_and_every_shipped_vehicle(self) -> None:
        job = demo_job()
        found = job.setup("as found")
        kinds = self.keeps(found)
        for name in ("plan A", "plan B"):
            kinds |= self.keeps(job.setup(name), found)
        for path in SETUPS:
            kinds |= self.keeps(demo(path.name))
        self.assertLessEqual({"braided", "valve", "bore", "remove_residual"}, kinds)

    def test_with_a_linkage_every_finding_is_looked_at(self) -> None:
        """Its pushes are looked for, so fewer changes are tried; the last finding still has its own."""
        job = vehicles()["linkage, deceleration sensing"]
        setup = files.check(Setup, setup_of(job, job["as_found"]))
        bad = [j.id for j in judged(setup) if j.level in ("caution", "danger")]
        self.assertGreater(len(bad), 3)
        self.assertIn("remove_residual", self.keeps(setup))

    def test_vehicles_with_bores_pins_and_room_drawn_at_random(self) -> None:
        draw, tried_ = random.Random(20), 0
        bases = [*(demo(f.name) for f in SETUPS), demo_job().setup("plan A"), demo_job().setup("plan B")]
        for _ in range(6):
            document = self.drawn(draw, draw.choice(bases))
            try:
                setup = files.check(Setup, document)
                if answer_of(ByContent(setup)).solved is None:
                    continue
            except KobrixError:
                continue
            self.keeps(setup)
            tried_ += 1
        self.assertGreater(tried_, 3)

    def drawn(self, draw: random.Random, setup: Setup) -> dict[str, Any]:
        """The same vehicle with other bores, pins and room at every control."""
        document: dict[str, Any] = setup.model_dump(exclude_none=True, exclude_unset=True)
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
        return document


class Each(unittest.TestCase):
    def first(self, setup: Setup, name: str, kind: str) -> Mend:
        return next(m for m in offered(setup)[name] if m["kind"] == kind)

    def test_a_valve_is_set_below_its_edge_in_whole_tens_of_psi(self) -> None:
        wide = changed(demo_job().setup("plan A"), systems__0__stations__1__brake__pistons_mm=["40 mm"])
        before = by_id(judged(wide), "lock_order")
        self.assertIn(before.level, ("caution", "danger"))
        mend = self.first(wide, "lock_order", "valve")
        devices = mend["edits"][0]["value"]
        self.assertEqual(int(devices[-1]["knee_kpa"].split()[0]) % 10, 0)
        self.assertTrue(devices[-1]["adjustable"])
        assert mend["edge"] is not None
        self.assertLess(float(devices[-1]["knee_kpa"].split()[0]) * 6.894757, mend["edge"])
        self.assertIn("is the edge", mend["words"])
        after = by_id(judged(taken(wide, mend)), "lock_order")
        self.assertLessEqual(after.chance or 0.0, 0.05 + 0.01)  # the rounded setting, with its own doubt drawn

    def test_no_valve_is_tried_beyond_what_the_file_allows(self) -> None:
        """Brakes so small that they lock beyond 20 MPa, the rear first: half as much again is no knee that could be stored."""
        small = changed(demo_job().setup("plan A"), systems__0__stations__0__brake__pistons_mm=["16 mm"], systems__0__stations__1__brake__pistons_mm=["20 mm"],
                        systems__0__stations__0__brake__friction__cold=0.25, systems__0__stations__1__brake__friction__cold=0.25)  # fmt: skip
        solved = answer_of(ByContent(small)).solved
        assert solved is not None
        self.assertGreater(_inlet_at_lock(solved), 20e6)
        with mock.patch.object(mends_, "_edge", wraps=mends_._edge) as looked_for:
            mends = offered(small)["lock_order"]
        self.assertTrue([m for m in mends if m["kind"] == "valve"])
        self.assertLessEqual(max(call.args[3] for call in looked_for.call_args_list), 30e6)

    def test_a_bar_far_off_is_set_by_what_was_entered_of_it(self) -> None:
        car, bar = demo("hill-climb"), "systems__0__cylinder__bar"
        by_clevis = changed(car, **{f"{bar}__pivot_to_front_clevis_mm": 58, f"{bar}__pivot_to_rear_clevis_mm": "6 mm"})
        by_share = changed(car, **{bar: {"front_share": 6 / 64, "stop_mm": 9}})
        for setup in (by_clevis, by_share):
            self.assertEqual(by_id(judged(setup), "lock_order").level, "danger")
            mended = taken(setup, self.first(setup, "lock_order", "bar"))
            now = mended.systems[0].cylinder
            assert isinstance(now, TwinCylinder)
            share = now.bar.front_share
            if setup is by_clevis:
                front, rear = (
                    si(c or 0, "clevis_mm") * 1e3 for c in (now.bar.pivot_to_front_clevis_mm, now.bar.pivot_to_rear_clevis_mm)
                )
                self.assertAlmostEqual(front + rear, 64.0, places=6)
                share = rear / 64.0
            assert isinstance(share, float)
            self.assertGreater(share, 6 / 64 + 0.16)
            self.assertNotEqual(by_id(judged(mended), "lock_order").level, "danger")

    def test_the_residual_valve_goes(self) -> None:
        plan = demo_job().setup("plan A")
        after = judged(taken(plan, self.first(plan, "residual_rear", "remove_residual")))
        self.assertNotIn("residual_rear", [j.id for j in after])

    def test_left_and_right_are_mended_alike(self) -> None:
        plane = demo("light-aircraft")
        efforts = [i for i in offered(plane) if i.startswith("effort")]
        self.assertTrue(efforts)
        for mend in offered(plane)[efforts[0]]:
            sides = {e["path"].split("/")[2] for e in mend["edits"]}
            self.assertEqual(sides, {"0", "1"}, mend["label"])

    def test_no_mend_stands_on_the_assumed_press_of_two_controls(self) -> None:
        self.assertNotIn("lock_order", offered(demo("motorcycle")))

    def test_two_sizes_of_one_family_are_never_offered(self) -> None:
        for mends in offered(demo_job().setup("plan B"), demo_job().setup("as found")).values():
            families = [m["kind"] for m in mends if m["kind"] in ("bore", "pin", "pistons")]
            self.assertEqual(len(families), len(set(families)))

    def test_a_valve_without_which_the_front_is_first_in_nearly_all_is_not_needed(self) -> None:
        small = {"systems__0__stations__1__brake__pistons_mm": ["30 mm"]}
        valve = {"systems__0__stations__1__devices": [{"kind": "proportioning", "knee_kpa": 3000, "slope": 0.4}]}
        self.assertIn("valve_not_needed", [j.id for j in judged(changed(demo_job().setup("plan A"), **small, **valve))])
        self.assertNotIn("valve_not_needed", [j.id for j in judged(changed(demo_job().setup("plan A"), **valve))])

    def test_answers_are_the_same_every_time(self) -> None:
        plan = ByContent(demo_job().setup("plan A"))
        one = tried(plan, None, None, bare())
        tried.cache_clear()
        other = tried(plan, None, None, bare())
        assert one is not None and other is not None
        told: list[list[Judgement]] = [one.judgements, other.judgements]
        self.assertEqual(*told)


if __name__ == "__main__":
    unittest.main()

"""Changes that may mend: each one's edits, name and how much of a change it is, by hand; and the setup with them made in it."""

import math
import unittest
from typing import Any

from kobrix.core.constants import SAME_SIZE, STANDARD_BORES
from kobrix.evaluate import changes
from kobrix.evaluate.changes import Change, with_edits
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import si
from kobrix.fileformat.shelf import ShelfPart

from tests.cases import demo_document, demo_job
from tests.evaluate.test_mends import demo

STATIONS = "/systems/0/stations"


def plan_a(**own: Any) -> Setup:
    """The demo's plan A, keys of its system changed."""
    document = demo_job().setup("plan A").model_dump(exclude_unset=True)
    for name, value in own.items():
        document["systems"][0][name] = {**(document["systems"][0].get(name) or {}), **value}
    return files.check(Setup, document)


def by_name(found: Any) -> dict[str, Change]:
    return {c.name: c for c in found}


class Changes(unittest.TestCase):
    def edited(self, change: Change | None, *edits: tuple[str, Any]) -> None:
        assert change is not None
        self.assertEqual([(e["path"], e["value"]) for e in change.edits], list(edits))

    def test_bores_are_the_ten_nearest_and_cost_by_their_ratio(self) -> None:
        setup = plan_a(cylinder={"bore_mm": "7/8 in"})
        found = list(changes.bores(setup, None))
        own = si("7/8 in", "bore_mm")
        others = sorted((s for s in STANDARD_BORES if abs(s[1] - own) > SAME_SIZE), key=lambda s: abs(s[1] - own))[:10]
        self.assertEqual([c.edits[0]["value"] for c in found], [name for name, _ in others])
        self.assertEqual(len(found), 10)
        for change, (_, size) in zip(found, others, strict=True):
            self.assertEqual((change.kind, change.family), ("bore", "cylinder"))
            self.assertAlmostEqual(change.change, 1 + 10 * abs(math.log(size / 0.022225)))
        self.assertEqual(found[0].edits[0]["path"], "/systems/0/cylinder/bore_mm")
        self.assertFalse(list(changes.bores(demo("aircraft"), None)), "which of several controls is not said")
        twins = {c.kind for c in changes.bores(demo("hill"), None)}
        self.assertEqual(twins, {"bore_front", "bore_rear"})
        self.assertFalse(any(" mm" in c.name for c in found), "a size by its name is put in no other unit")

    def test_pins_give_the_usual_ratios_in_whole_millimetres(self) -> None:
        found = list(changes.pins(plan_a(control={"pivot_to_pad_mm": 280, "pivot_to_pin_mm": 56}), None))
        sizes = [round(280 / r) for r in (3.5, 4, 4.5, 5.5, 6, 6.5, 7)]  # 5 is what it has
        self.assertEqual([c.edits[0]["value"] for c in found], [f"{s} mm" for s in sizes])
        for change, size in zip(found, sizes, strict=True):
            self.assertAlmostEqual(change.change, 2 + 10 * abs(math.log(size / 56)))
        near = changes.pins(plan_a(control={"pivot_to_pad_mm": 280, "pivot_to_pin_mm": 58}), None)
        self.assertIn("56 mm", [c.edits[0]["value"] for c in near], "two millimetres are a change")

    def test_the_pin_back_where_it_was_goes_with_another_bore(self) -> None:
        found = list(changes.pin_kept(plan_a(control={"pivot_to_pin_mm": 60}), plan_a(control={"pivot_to_pin_mm": "2 in"}), None))
        self.assertEqual(len(found), 10)
        for change, bore in zip(found, changes.bores(plan_a(), None), strict=True):
            self.assertEqual((change.kind, change.name), ("bore_and_pin", f"{bore.name}, pin kept"))
            self.edited(change, (bore.edits[0]["path"], bore.edits[0]["value"]), ("/systems/0/control/pivot_to_pin_mm", "2 in"))
            self.assertEqual(change.change, bore.change)
        unknown = plan_a()
        unknown.systems[0].control.pivot_to_pin_mm = None
        self.assertEqual(list(changes.pin_kept(plan_a(), unknown, None)), [])

    def test_a_larger_shell_or_a_second_one_behind_it(self) -> None:
        one = plan_a(booster={"kind": "vacuum", "nominal_diaphragms_mm": ["8 in"], "gain": 4})
        path = "/systems/0/booster/nominal_diaphragms_mm"
        found = by_name(changes.boosters(one, None))
        self.assertEqual(list(found), ["9 in booster", "10 in booster", "11 in booster", "second diaphragm"])
        self.edited(found["10 in booster"], (path, ["10 in"]))
        self.edited(found["second diaphragm"], (path, ["8 in", "8 in"]))
        self.assertEqual([c.change for c in found.values()], [9, 10, 11, 6])
        for more in (
            {"nominal_diaphragms_mm": ["8 in", "8 in"]},
            {"diaphragms_mm": [200]},
            {"limit_n": 900},
            {"kind": "electric"},
        ):
            self.assertEqual(list(changes.boosters(plan_a(booster={"kind": "vacuum", "nominal_diaphragms_mm": ["8 in"], "gain": 4} | more), None)), [], more)  # fmt: skip
        self.assertEqual(list(changes.boosters(plan_a(), None)), [])

    def valved(self, *devices: dict[str, Any]) -> Setup:
        document = demo_job().setup("plan A").model_dump(exclude_unset=True)
        for station in document["systems"][0]["stations"]:
            station["devices"] = list(devices) if station["axle"] == "rear" else []
        return files.check(Setup, document)

    def test_valves_come_go_and_stand_one_in_a_row(self) -> None:
        first = {"kind": "proportioning", "knee_kpa": "300 psi", "slope": 0.4}
        last = {"kind": "proportioning", "knee_kpa": 2500, "slope": 0.5}
        lock, keep = {"kind": "line_lock"}, {"kind": "residual", "pressure_kpa": "2 psi"}
        rear = f"{STATIONS}/1/devices"
        series = self.valved(first, keep, last)
        self.assertEqual(series.systems[0].stations[1].axle, "rear")
        self.edited(changes.one_of_two_valves(series, "rear"), (rear, [first, keep]))
        self.assertIsNone(changes.one_of_two_valves(self.valved(first), "rear"))
        self.assertIsNone(changes.one_of_two_valves(series, "front"))
        self.edited(changes.without_devices(self.valved(keep, lock), "line_lock"), (rear, [keep]))
        self.assertIsNone(changes.without_devices(self.valved(keep), "line_lock"))
        self.assertIsNone(changes.without_devices(self.valved(lock), "line_lock", "front"))
        own = {"kind": "proportioning", "knee_kpa": "410 psi", "slope": 0.43, "adjustable": True}
        valve = changes.valve(series, 410 * 6894.757, 0.43, edge=1.0)
        self.edited(valve, (rear, [keep, own]))
        self.assertEqual((valve.kind, valve.change, valve.edge), ("valve", 1.0, 1.0))
        bypass = changes.valve(series, 410 * 6894.757, 0.43, bypass=True)
        self.edited(bypass, (rear, [keep, own | {"bypass": True}]))
        self.assertEqual((bypass.kind, bypass.change), ("valve_bypass", 1.2))
        regulator = changes.regulator(self.valved(keep, {"kind": "limiting", "setting_kpa": 900}), 200 * 6894.757)
        set_ = {"kind": "regulator", "setting_kpa": "200 psi", "adjustable": True}
        self.edited(regulator, (f"{STATIONS}/0/devices", [set_]), (rear, [keep, set_]))

    def test_pistons_of_the_shelf_first_then_the_nearest_common_ones(self) -> None:
        document = demo_document()["as_found"]
        setup = demo_job().setup("plan A")
        fits = ShelfPart.model_validate({"name": "invented caliper", "kind": "caliper", "axle": "rear", "caliper": "floating", "pistons_mm": ["44 mm"]})  # fmt: skip
        front = fits.model_copy(update={"axle": "front"})
        found = list(changes.pistons(setup, "rear", (front, fits)))
        self.edited(found[0], (f"{STATIONS}/1/brake/caliper", "floating"), (f"{STATIONS}/1/brake/pistons_mm", ["44 mm"]))
        self.assertEqual([c.kind for c in found[:2]], ["caliper", "pistons"])
        brake: Any = setup.systems[0].stations[1].brake
        sizes = changes._sizes(brake)
        now = math.sqrt(sum(d * d for d in sizes) / len(sizes)) * 1e3
        nearest = sorted((s for s in changes.PISTONS if abs(s - now) > 0.2), key=lambda s: abs(s - now))
        self.assertEqual([c.edits[0]["value"] for c in found[1:]], [[f"{s:g} mm"] * len(sizes) for s in nearest])
        self.assertAlmostEqual(found[1].change, 1 + 20 * abs(math.log(nearest[0] / now)))
        drums = demo_job().setup("as found")
        self.assertEqual(document["systems"][0]["stations"][1]["brake"]["kind"], "drum")
        own: Any = drums.systems[0].stations[1].brake
        (size,) = changes._sizes(own)
        cylinders = list(changes.pistons(drums, "rear"))
        self.assertEqual(len(cylinders), len([s for s in changes.WHEEL_CYLINDERS if abs(s - size * 1e3) > 0.2]))
        first = float(str(cylinders[0].edits[0]["value"]).removesuffix(" mm"))
        self.assertAlmostEqual(cylinders[0].change, 1 + 10 * abs(math.log(first / size / 1e3)))

    def test_pads_by_their_friction(self) -> None:
        setup = plan_a()
        friction: Any = setup.systems[0].stations[0].brake.friction
        friction.cold = 0.37
        found = list(changes.pads(setup, "front"))
        self.assertEqual([c.edits[0]["value"] for c in found], [0.30, 0.35, 0.40, 0.45])
        friction.cold = 0.36
        self.assertEqual([c.edits[0]["value"] for c in changes.pads(setup, "front")], [0.30, 0.40, 0.45], "0.35 is too near")
        self.assertAlmostEqual(found[0].change, 1.5 + 10 * abs(math.log(0.30 / 0.37)))
        friction.cold = None
        self.assertEqual(list(changes.pads(setup, "front")), [])

    def test_a_bar_in_steps_of_two_per_cent_over_its_range(self) -> None:
        setup = demo("hill")
        cylinder: Any = setup.systems[0].cylinder
        cylinder.bar = type(cylinder.bar).model_validate({"front_share": 0.6})
        found = list(changes.bars(setup))
        shares = [e["value"] for c in found for e in c.edits]
        self.assertEqual(shares, [round(0.2 + 0.02 * k, 3) for k in range(31) if k != 20])
        self.assertAlmostEqual(found[-1].change, 0.2 * 10)
        cylinder.bar = type(cylinder.bar).model_validate({"pivot_to_front_clevis_mm": 30, "pivot_to_rear_clevis_mm": 45})
        by_clevises = by_name(changes.bars(setup))
        change = by_clevises["bar at 62 % front: 28.5 mm to the front clevis, 46.5 mm to the rear"]
        self.edited(change, ("/systems/0/cylinder/bar/pivot_to_front_clevis_mm", "28.5 mm"),
                    ("/systems/0/cylinder/bar/pivot_to_rear_clevis_mm", "46.5 mm"))  # fmt: skip

    def test_a_diagonal_for_front_and_rear_and_braid_for_rubber(self) -> None:
        (split,) = changes.splits(plan_a(cylinder={"circuits": "front_rear"}))
        self.edited(split, ("/systems/0/cylinder/circuits", "diagonal"))
        self.assertEqual(split.change, 6.0)
        self.assertEqual(list(changes.splits(plan_a(cylinder={"circuits": "diagonal"}))), [])
        setup = plan_a()
        lines: Any = setup.systems[0].stations[0].lines
        for hose in lines.hoses:
            hose.kind, hose.coefficient_cm3_per_m_mpa = "rubber", None
        (braided,) = changes.hoses(setup, None)
        for n in range(len(lines.hoses)):
            self.assertIn((f"{STATIONS}/0/lines/hoses/{n}/kind", "braided"), [(e["path"], e["value"]) for e in braided.edits])

    def test_edits_reach_into_lists_and_make_what_is_not_there(self) -> None:
        setup = plan_a()
        brake: Any = setup.systems[0].stations[0].brake
        last = len(brake.pistons_mm) - 1
        changed: Any = with_edits(
            setup,
            (
                {"op": "set", "path": f"{STATIONS}/0/brake/pistons_mm/{last}", "value": "41 mm"},
                {"op": "set", "path": "/systems/0/booster/kind", "value": "electric"},
            ),
        )
        self.assertEqual(changed.systems[0].stations[0].brake.pistons_mm, [*brake.pistons_mm[:-1], "41 mm"])
        self.assertEqual(changed.systems[0].booster.kind, "electric")
        self.assertIsNone(setup.systems[0].booster)

    def test_two_changes_as_one_cost_both_and_one_more(self) -> None:
        bore, pin = next(changes.bores(plan_a(), None)), next(changes.pins(plan_a(), None))
        whole = changes.both(bore, pin)
        self.assertEqual(whole.edits, (*bore.edits, *pin.edits))
        self.assertAlmostEqual(whole.change, bore.change + pin.change + 1)
        self.assertEqual((whole.kind, whole.family), ("bore+pin", "cylinder+pin"))
        self.assertEqual((whole.label, whole.name), (f"{bore.label}, {pin.name}", f"{bore.name}, {pin.name}"))


if __name__ == "__main__":
    unittest.main()

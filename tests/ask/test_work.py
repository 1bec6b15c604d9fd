"""Steps of a build against the table's own rules, for every pair of changes; half-done states against one another."""

import itertools
import random
from typing import Any

from kobrix.core.errors import BadFile
from kobrix.evaluate.ask.run import ask
from kobrix.fileformat.tables import table

from tests.ask.case import Questions
from tests.cases import demo_document, demo_job

TABLE = table("build-steps")


def change(kind: str, axle: str) -> dict[str, str]:
    return {"kind": kind, "axle": axle} if kind in TABLE["with_axle"] else {"kind": kind}


class Steps(Questions):
    def keeps(self, got: dict[str, Any]) -> None:
        """What must hold of any order."""
        rows = {row["id"]: row for row in TABLE["rows"]}
        order = [step["id"] for step in got["steps"]]
        self.assertEqual(len(order), len(set(order)))
        phases = [step["phase"] for step in got["steps"]]
        self.assertEqual(phases, sorted(phases))
        for n, step in enumerate(got["steps"]):
            self.assertTrue(set(step["before"]) <= set(order[:n]), step)
            wanted = {s["id"] for s in got["steps"] if s["row"] in rows[step["row"]]["before"]}
            own = {i for i in wanted if ":" not in i or ":" not in step["id"] or _meet(i, step["id"])}
            self.assertEqual(set(step["before"]), own, step["id"])
        if got["opens_at"] is not None:
            opened = [s for s in got["steps"] if s["phase"] == 5]
            self.assertEqual(opened[-1]["row"], "open_system")
            self.assertEqual(next(s for s in got["steps"] if s["phase"] == 7)["row"], "close_system")
            self.assertEqual(got["while_open"], got["closes_at"] - got["opens_at"] - 1)

    def test_every_pair_of_changes_keeps_the_table(self) -> None:
        for a, b in itertools.combinations(TABLE["kinds"], 2):
            self.keeps(self.ask("build_steps", changes=[change(a, "front"), change(b, "rear")]))

    def test_random_sets_and_named_sides(self) -> None:
        draw = random.Random(11)
        for _ in range(60):
            kinds = draw.sample(TABLE["kinds"], draw.randint(1, 8))
            changes = [change(kind, draw.choice(("front", "rear"))) for kind in kinds]
            self.keeps(self.ask("build_steps", changes=changes, sides={"front": ["middle"]}))

    def test_what_two_setups_change(self) -> None:
        found = demo_document()["as_found"]
        plan = demo_document()["plans"][0]
        got = self.ask("build_steps", found=found, plan={**found, **plan})
        kinds = [(c["kind"], c.get("axle")) for c in got["changes"]]
        self.assertIn(("pin_moved", None), kinds)
        self.assertIn(("drum_to_disc", "rear"), kinds)
        self.assertEqual(self.ask("build_steps", found=found, plan=found)["steps"], [])
        motorcycle = self.ask("build_steps", changes=[change("rotors", "rear")], vehicle_kind="motorcycle")
        self.assertFalse([s for s in motorcycle["steps"] if s["row"].startswith("parking_")])

    def test_bad_changes(self) -> None:
        self.refused("changes.0.kind", "build_steps", changes=[{"kind": "paint"}])
        self.refused("changes.0.axle", "build_steps", changes=[{"kind": "pads"}])


def _meet(a: str, b: str) -> bool:
    """Whether two places are one, or one is the other's axle."""
    x, y = a.split(":")[1], b.split(":")[1]
    return x == y or x.split("_")[0] == y or y.split("_")[0] == x or ("_" in x and "_" in y and x == y)


def found_setup() -> dict[str, Any]:
    """The demo's setup as found, with its vehicle."""
    return demo_job().setup("as found").model_dump(exclude_unset=True)


class HalfDone(Questions):
    def groups(self) -> list[dict[str, Any]]:
        return [
            {"name": "pin", "set": {"systems.0.control.pivot_to_pin_mm": 48}},
            {"name": "bore", "opens": True, "set": {"systems.0.cylinder.bore_mm": "13/16 in"}, "after": ["pin"]},
            {"name": "grip", "set": {"systems.0.control.efficiency": 0.3}, "with": ["bore"]},
        ]

    def test_states_and_orders(self) -> None:
        setup = found_setup()
        got = self.ask("half_done", setup=setup, groups=self.groups())
        self.assertEqual([len(s["done"]) for s in got["states"]], [0, 1, 1, 2, 1, 2, 2, 3])
        self.assertTrue(got["states"][0]["may_drive"])
        alone = got["states"][4]
        self.assertIn("effort", alone["dangers"])
        self.assertIn("incomplete", alone["new_dangers"])
        self.assertTrue(all(o["order"].index("pin") < o["order"].index("bore") for o in got["orders"]))
        self.assertEqual(len(got["orders"]), 3)
        self.assertEqual(got["best"], ["pin", "bore", "grip"])

    def test_what_a_lost_circuit_must_leave_and_a_rear_that_lifts_are_asked_of_cars_and_trucks(self) -> None:
        weak, tall = found_setup(), found_setup()
        for load in tall["vehicle"]["load_states"]:
            load["cg_height_mm"] = 1900
        tall["systems"][0]["stations"] = tall["systems"][0]["stations"][:1]  # no rear brake that locks just before it lifts
        tall["systems"][0]["cylinder"] = {"kind": "single", "bore_mm": "3/4 in", "stroke_mm": 30}
        groups = [{"name": "play", "set": {"systems.0.control.free_play_mm": 6}}]
        for kind, asked in (("car", True), ("truck", True), ("motorcycle", False), ("aircraft", False)):
            for setup, danger in ((weak, "lost_front"), (tall, "rear_lift")):
                setup["vehicle"]["kind"] = kind
                for state in self.ask("half_done", setup=setup, groups=groups)["states"]:
                    self.assertEqual(danger in state["dangers"], asked, (kind, danger))

    def test_bad_groups(self) -> None:
        setup, groups = found_setup(), self.groups()
        groups[0]["set"] = {"systems.7.control.pivot_to_pin_mm": 48}
        self.refused("groups.0.set.systems.7.control.pivot_to_pin_mm", "half_done", setup=setup, groups=groups)
        groups = self.groups()
        groups[0]["after"] = ["bore"]
        self.refused("groups", "half_done", setup=setup, groups=groups)
        groups[0]["after"] = ["nobody"]
        self.refused("groups.0.after.0", "half_done", setup=setup, groups=groups)
        groups = self.groups()
        groups[0]["set"] = {"systems.0.control.pivot_to_pin_mm": "far"}
        self.refused("groups.0.set.systems.0.control.pivot_to_pin_mm", "half_done", setup=setup, groups=groups)


class TheFile(Questions):
    def test_a_bad_question_is_named_and_the_others_still_come(self) -> None:
        good = {"question": "stop_typed", "speed_kmh": 80, "distance_m": 40}
        file = {
            "format": "kobrix-questions",
            "version": 1,
            "ask": [{}, {"question": "colour"}, good, 7, {**good, "setup": "nobody"}],
        }
        answers = ask(file)["answers"]
        errors: list[Any] = [a.get("error") for a in answers]
        places = [e["place"] if e else None for e in errors]
        self.assertEqual(places, ["question", "question", None, "", "setup"])
        bads: tuple[Any, ...] = ({}, [], {"format": "kobrix-questions"}, {"format": "kobrix-questions", "version": 1, "ask": 3})
        for bad in bads:
            with self.assertRaises(BadFile):
                ask(bad)

    def test_no_value_is_taken_on_trust(self) -> None:
        base = {"droop_mm": 300, "lock_mm": 310, "bump_mm": 200}
        wrong: tuple[Any, ...] = (-1, 0, "x", True, [], 1e300, float("nan"), "3 kg", None)
        for bad in wrong:
            self.refused("lock_mm", "hose_reach", **{**base, "lock_mm": bad})
        self.assertEqual(self.ask("hose_reach", **{**base, "lock_mm": "12 in"})["longest_string"], "lock")

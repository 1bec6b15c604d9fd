"""Searches drawn at random: what is kept, taken as a plan into the job's file, answers there as the search said."""

import json
import unittest
from typing import Any

import numpy as np
from kobrix.core.errors import BadEntry
from kobrix.evaluate.solve import Answer
from kobrix.evaluate.verdicts import nominal
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit, below
from kobrix.fileformat.questions import Questions
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import search

from tests.cases import applied, demo_document, evaluate

BORES = ["5/8 in", "17.46 mm", "0.70 in", "3/4 in", "20.64 mm", "7/8 in", "15/16 in", "1 in", "26.99 mm"]
CALIPERS = {"front": ["own", "four-piston, 36 mm", "old floating, 54 mm", "fixed, 4 × 41.3 mm"],
            "rear": ["own", "floating, 32 mm", "floating, 34 mm", "floating, 38 mm", "four-piston, 38.1 mm"]}  # fmt: skip


def searched(job: Job, ask: Search) -> Any:
    """What a search finds, to be looked into."""
    return search(job, ask)


def drawn(random: np.random.Generator, names: list[str]) -> dict[str, Any]:
    """A search over a few of everything, or of some things nothing, from a setup of the demo."""

    def some(of: list[str], most: int) -> list[str]:
        return [str(s) for s in random.choice(of, size=int(random.integers(2, most + 1)), replace=False)]

    ask: dict[str, Any] = {"setup": str(random.choice(names)), "seed": int(random.integers(0, 100))}
    if random.random() < 0.8:
        least = int(random.integers(36, 48))
        ask["pins"] = {"least_mm": least, "most_mm": least + int(random.integers(8, 24)), "step_mm": int(random.integers(2, 7))}
    if random.random() < 0.8:
        ask["bores"] = {"sizes_mm": some(BORES, 4), "price": float(random.integers(0, 200))}
    for axle in ("front", "rear"):
        if random.random() < 0.6 and ask["setup"] != "as found":
            ask[axle] = {"calipers": some(CALIPERS[axle], 3)}
    if random.random() < 0.6 and ask["setup"] != "as found":
        least = int(random.integers(10, 30)) * 100
        ask["valve"] = {"least_kpa": least, "most_kpa": least + 2000, "step_kpa": 700, "without": bool(random.random() < 0.9),
                        "slope": float(random.choice([0.3, 0.43, 0.6]))}  # fmt: skip
    ask["limits"] = {}
    if random.random() < 0.4:
        ask["limits"]["effort_n"] = float(random.integers(380, 500))
    if random.random() < 0.4:
        ask["limits"]["travel_share"] = float(random.choice([0.7, 0.8, 0.84]))
    if random.random() < 0.5:
        ask["limits"]["sharing"] = False
    return ask


class Drawn(unittest.TestCase):
    def as_plan(self, job: Job, ask: dict[str, Any], edits: list[Edit]) -> Job:
        """The job with one more plan, made by the search's own edits, through its file and back."""
        document = json.loads(json.dumps(job.model_dump(exclude_unset=True)))
        names = [p["name"] for p in document["plans"]]
        own = document["as_found"] if ask["setup"] == "as found" else document["plans"][names.index(ask["setup"])]
        document["plans"].append({**json.loads(json.dumps(own)), "name": "found"})
        at = f"plans.{len(names)}"
        changed = applied(document, below(at, edits))
        return files.check(Job, json.loads(json.dumps(changed)))

    def travel(self, plan: Setup, pushes: list[float]) -> float:
        """The longest travel in mm, each load state at its own push."""
        result = evaluate(plan, Questions(pedal_forces_n=list(pushes)))
        own = [s["paths"]["service"]["at_pedal_force"][n] for n, s in enumerate(result["load_states"].values())]
        return float(max(at["systems"]["service"]["pedal_travel_mm"] for at in own))

    def answers_the_same(self, job: Job, ask: dict[str, Any], found: Any, row: Any) -> None:
        """A row of a search, taken as a plan: its push, its travel and its dangers."""
        plan = self.as_plan(job, ask, row["edits"]).setup("found")
        answer = Answer(plan)
        assert answer.solved is not None
        healthy = answer.solved.main.healthy  # at the stop asked for, locked or not
        pushes = [float(p) for p in healthy.push_at(healthy.reach(found["decel_g"])[0])[:, 0, 0]]
        with self.subTest(ask=ask, made=row["words"]):
            self.assertAlmostEqual(row["push_n"], max(pushes), places=6)
            self.assertAlmostEqual(row["lightest_n"], min(pushes), places=6)
            self.assertAlmostEqual(row["travel_mm"], self.travel(plan, pushes), places=5)
            limits = ask["limits"]
            self.assertLessEqual(row["push_n"], limits.get("effort_n", 500.0) + 1e-9)
            self.assertLessEqual(row["travel_mm"], limits.get("travel_share", 0.85) * 150 + 1e-9)
            dangers = {j.id for j in nominal(answer, None, None) if j.level == "danger"}
            self.assertLessEqual(
                dangers, {"lost_front", "lost_rear"}
            )  # no worse than as found, which leaves less than the law asks
            self.assertGreaterEqual(row["left_g"], 0.12)

    def test_a_plan_made_of_what_was_kept_answers_the_same(self) -> None:
        job = files.check(Job, demo_document())
        random = np.random.default_rng(11)
        kept = tried = 0
        for _ in range(60):
            ask = drawn(random, ["as found", "plan A", "plan A", "plan A", "plan B"])
            found = searched(job, files.check(Search, ask))
            tried += found["total"]
            self.assertEqual(sum(f["count"] for f in found["fall"]) + found["meet"], found["total"])
            rows = found["kept"]
            for n in sorted({0, len(rows) // 2, len(rows) - 1} if rows else set()):
                kept += 1
                self.answers_the_same(job, ask, found, rows[n])
        self.assertGreater(kept, 20)
        self.assertGreater(tried, 400)

    def test_a_pedal_with_a_linkage_answers_the_same_one_by_one(self) -> None:
        document = demo_document()
        linkage = {"rest_angle_deg": -90, "sense": 1, "bore_point_mm": [0, -44], "bore_direction_deg": 0, "rod_mm": 120}
        for setup in (document["as_found"], *document["plans"]):
            setup["systems"][0]["control"]["linkage"] = linkage
        job = files.check(Job, document)
        random = np.random.default_rng(3)
        kept = 0
        for _ in range(40):
            ask = drawn(random, ["plan A", "plan B"])
            ask.pop("pins", None)
            found = searched(job, files.check(Search, ask))
            rows = found["kept"]
            for n in sorted({0, len(rows) // 2, len(rows) - 1} if rows else set()):
                kept += 1
                self.answers_the_same(job, ask, found, rows[n])
        self.assertGreater(kept, 10)
        with self.assertRaisesRegex(BadEntry, "This pedal has a linkage"):
            searched(job, files.check(Search, {**ask, "pins": {"least_mm": 40, "most_mm": 50, "step_mm": 1}}))

    def test_nothing_kept_is_beaten_by_another_that_was_kept(self) -> None:
        job = files.check(Job, demo_document())
        random = np.random.default_rng(5)
        for _ in range(12):
            ask = drawn(random, ["plan A", "plan B"])
            rows = [r for r in searched(job, files.check(Search, ask))["kept"] if not r["beaten"]]
            for one in rows:
                for other in rows:
                    if one is other or None in (one["price"], other["price"]):
                        continue
                    better = [
                        other["push_n"] < one["push_n"], other["travel_mm"] < one["travel_mm"],
                        other["grip_use"] < one["grip_use"], other["left_g"] > one["left_g"], other["price"] < one["price"],
                    ]  # fmt: skip
                    worse = [
                        other["push_n"] > one["push_n"], other["travel_mm"] > one["travel_mm"],
                        other["grip_use"] > one["grip_use"], other["left_g"] < one["left_g"], other["price"] > one["price"],
                    ]  # fmt: skip
                    outside = one["push_n"] > 350 and one["travel_mm"] > 0.55 * 150
                    if outside and all(r["push_n"] > 350 and r["travel_mm"] > 0.55 * 150 for r in (one, other)):
                        self.assertFalse(any(better) and not any(worse), (ask, one["words"], other["words"]))


if __name__ == "__main__":
    unittest.main()

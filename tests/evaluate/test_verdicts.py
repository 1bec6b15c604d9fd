"""Chances against trials solved one by one, draws against their own distributions, and levels against the table."""

import math
import unittest
import zlib
from typing import Any

import numpy as np
from kobrix.core.constants import USUAL_DOUBTS
from kobrix.core.errors import BadFile
from kobrix.core.numerics.settling import settles, thirds
from kobrix.core.rules import limits
from kobrix.core.rules.limits import by_chance
from kobrix.evaluate.findings import doubts_document, tried_findings
from kobrix.evaluate.solve import Answer, ByContent
from kobrix.evaluate.uncertainty import FEWER, TRIALS, bare, drawn_within, luck, made_of, said_of, uncertain_entries
from kobrix.evaluate.verdicts import ACTS, batch_of, tried
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from scipy.stats import beta

from tests.cases import demo_document, demo_job, every_layout

NEED = 2.44 / 9.80665


def made(setup: Setup, entries: Any, row: Any) -> Setup:
    """One trial as a setup of plain numbers."""
    return made_of(setup, entries, np.asarray(row)[None])  # type: ignore[no-any-return]


class OneByOne(unittest.TestCase):
    def test_chances_are_the_share_of_single_trials_that_break(self) -> None:
        """Each of some trials solved alone, its limits looked at plainly."""
        for name in ("as found", "plan A", "plan B"):
            setup = demo_job().setup(name)
            studied = tried(ByContent(setup), None, None, bare())
            nominal = Answer(setup).solved
            assert studied is not None and nominal is not None
            entries, columns = studied.entries, drawn_within(studied.entries, TRIALS, 1)
            z = nominal.main.design_decel
            for n in (0, 17, 399):
                own = {path: float(v) for path, v in zip((e.path for e in entries), columns[n], strict=True)}
                document = setup.model_dump(exclude_none=True, exclude_unset=True)
                for path, value in own.items():
                    here: Any = document
                    *steps, last = path.split(".")
                    for step in steps:
                        here = here[int(step)] if isinstance(here, list) else here.setdefault(step, {})
                    here[last] = value
                solved = Answer(files.check(Setup, document)).solved
                assert solved is not None and solved.main.left is not None
                healthy, pull = solved.main.healthy, solved.main.healthy.pulls[0]
                place, known = healthy.reach(z[:, None, None])
                push = healthy.push_at(place)[:, 0, 0]
                self.assertTrue(bool(known.all()))
                self.assertEqual(bool(studied.masks["effort"][n]), bool((push > 500.0).any()), (name, n))
                pad = np.asarray(pull.pedal.pad_at(place))[:, 0, 0] / own["systems.0.control.available_travel_mm"] * 1e3
                self.assertEqual(bool(studied.masks["travel"][n]), bool((pad > 0.85).any()), (name, n))
                left = solved.main.left.best[:, solved.names.index("lost_front")]
                self.assertEqual(bool(studied.masks["lost_front"][n]), bool((left < NEED).any()), (name, n))
                rear = solved.main.healthy.road.locks["rear"][:, 0] < solved.main.healthy.road.locks["front"][:, 0]
                if rear.any():
                    self.assertTrue(bool(studied.masks["lock_order"][n]), (name, n))

    def test_of_every_vehicle_the_batch_is_its_trials(self) -> None:
        for job in every_layout():
            setup = job.setup(job.names[0])
            if Answer(setup).solved is None:
                continue
            entries = [e for e in uncertain_entries(setup, bare()) if e.standing != "exact"]
            batch, columns = batch_of(setup, entries, 6, 1), drawn_within(entries, 6, 1)
            assert batch is not None
            for n in range(6):
                alone = batch_of(setup, entries, 1, 1) if n == 0 else Answer(made(setup, entries, columns[n])).solved
                assert alone is not None
                mine = np.broadcast_to(batch.main.healthy.event.decel, (6, *batch.main.healthy.event.decel.shape[-2:]))[n]
                theirs = alone.main.healthy.event.decel
                np.testing.assert_allclose(mine, theirs.reshape(mine.shape), rtol=1e-9, err_msg=job.name)


class Draws(unittest.TestCase):
    def test_what_is_one_thing_on_the_vehicle_is_drawn_once(self) -> None:
        entries = {e.path: e for e in uncertain_entries(demo_job().setup("plan A"), bare())}
        self.assertEqual(entries["vehicle.load_states.0.mass_kg"].key, entries["vehicle.load_states.1.mass_kg"].key)
        self.assertEqual(entries["vehicle.grip_front"].key, entries["vehicle.grip_rear"].key)
        front, rear = (entries[f"systems.0.stations.{n}.brake.friction.cold"].key for n in (0, 1))
        self.assertNotEqual(front, rear)
        found = {e.path: e for e in uncertain_entries(demo_job().setup("as found"), bare())}
        path = "systems.0.control.pivot_to_pad_mm"
        self.assertEqual(found[path].key, entries[path].key)  # as found and the plans share what they have in common

    def test_values_follow_their_distributions(self) -> None:
        entries = uncertain_entries(demo_job().setup("plan A"), bare())
        columns = drawn_within(entries, TRIALS, 1)
        for n, entry in enumerate(entries):
            u = np.random.Generator(np.random.PCG64([1, zlib.crc32(entry.key.encode())])).random(TRIALS)
            span = entry.most - entry.least
            if entry.standing == "assumed":
                a, b = 1 + 4 * (entry.value - entry.least) / span, 1 + 4 * (entry.most - entry.value) / span
                wanted = entry.least + span * beta.ppf(u, a, b)
            else:
                wanted = entry.least + span * u
            np.testing.assert_allclose(columns[:, n], wanted, rtol=1e-9, err_msg=entry.path)

    def test_fewer_trials_are_the_first_of_more_and_another_seed_is_other_luck(self) -> None:
        entries = uncertain_entries(demo_job().setup("plan A"), bare())
        np.testing.assert_array_equal(drawn_within(entries, FEWER, 1), drawn_within(entries, TRIALS, 1)[:FEWER])
        self.assertFalse(np.allclose(luck("x", 50, 1), luck("x", 50, 2)))

    def test_the_four_standings(self) -> None:
        document = demo_document()
        root = "plans.0.systems.0."
        document["tolerances"] = {f"{root}control.pivot_to_pin_mm": "± 0.5 mm"}
        document["exact"] = [f"{root}control.pivot_to_pad_mm"]
        document["usual_doubts"] = {"friction": "± 4 %"}
        job = files.check(Job, document)
        told = {d["path"]: d for d in doubts_document(job.setup("plan A"), said_of(job, "plan A"))}
        pin, pad = told["systems.0.control.pivot_to_pin_mm"], told["systems.0.control.pivot_to_pad_mm"]
        self.assertEqual((pin["standing"], pin["least"], pin["most"]), ("plus_minus", 47.5, 48.5))
        self.assertEqual((pad["standing"], pad["least"], pad["most"]), ("exact", 292.0, 292.0))
        friction = told["systems.0.stations.0.brake.friction.cold"]
        self.assertEqual(friction["standing"], "usual")
        self.assertAlmostEqual(friction["most"] - friction["least"], 2 * 0.04 * 0.38, places=9)
        self.assertEqual(told["systems.0.control.efficiency"]["standing"], "assumed")
        self.assertNotIn("systems.0.cylinder.bore_mm", told)  # typed bare, and what has no usual doubt is exact
        self.assertNotIn("systems.0.control.return_force_n", told)  # an assumed 0 stays 0
        for refused in ({"exact": [f"{root}control.pivot_to_pin_mm"]}, {"usual_doubts": {"luck": "1 %"}}):
            with self.assertRaises(BadFile):
                files.check(Job, {**document, **refused})

    def test_what_is_exact_throughout_leaves_no_doubt(self) -> None:
        setup = demo_job().setup("plan A")
        exact = tried(ByContent(setup), None, None, bare(usual_doubts=False))
        usual = tried(ByContent(setup), None, None, bare())
        assert exact is not None and usual is not None
        self.assertLess(len(exact.entries), len(usual.entries))
        self.assertFalse([e for e in exact.entries if e.standing == "usual"])
        self.assertGreater(len(USUAL_DOUBTS), 20)


class Levels(unittest.TestCase):
    def test_steps_of_chance(self) -> None:
        wanted = {0.02: "good", 0.021: "note", 0.10: "note", 0.11: "caution", 0.30: "caution", 0.31: "danger"}
        self.assertEqual({c: by_chance(c) for c in wanted}, wanted)
        self.assertEqual(by_chance(0.9, "caution"), "caution")
        self.assertEqual(by_chance(0.0, "caution"), "good")
        self.assertEqual([limits.percent(c) for c in (0.001, 0.31, 0.999)], ["under 1 %", "31 %", "over 99 %"])

    def test_findings_carry_their_chance_and_its_error(self) -> None:
        setup = demo_job().setup("plan A")
        for found in tried_findings(ByContent(setup), None, None, bare()):
            if found["chance"] is None:
                self.assertIsNone(found["sampling_error"])
                continue
            c = found["chance"]
            self.assertAlmostEqual(found["sampling_error"] or 0.0, math.sqrt(c * (1 - c) / TRIALS), places=12)
            self.assertEqual(found["state"], "tried")
            if found["id"] == "lock_order":
                self.assertEqual(found["level"], by_chance(c))

    def test_as_found_a_lost_circuit_may_be_so_as_it_was_built(self) -> None:
        job = demo_job()
        found = {f["id"]: f for f in tried_findings(ByContent(job.setup("as found")), None, None, bare())}
        lost = found["lost_front"]
        self.assertLess(lost["value"] or 1.0, NEED)
        self.assertEqual(lost["level"], "caution")
        self.assertIn("So it was built", lost["reason"])
        self.assertIsNone(lost["was_so"])


class Settling(unittest.TestCase):
    def test_shares_from_the_thirds(self) -> None:
        own = np.linspace(0.0, 1.0, 600, endpoint=False)
        decided = own > 2.0 / 3.0 - 1e-12
        np.testing.assert_allclose(thirds(own, decided), [0.0, 0.0, 1.0], atol=1e-12)
        self.assertAlmostEqual(float(settles(own, decided)), 1.0, places=9)  # (1/9 + 1/9 + 4/9)/3 over 2/9
        idle = np.arange(600) % 2 == 0
        self.assertLess(settles(own, idle), 1e-9)

    def test_what_is_measured_already_is_not_asked_for_again(self) -> None:
        document = demo_document()
        paths = [f"vehicle.load_states.{n}.{name}" for n in (0, 1) for name in ("mass_kg", "front_share")]
        bare_job = files.check(Job, document)
        document["tolerances"] = {p: "± 20 kg" if p.endswith("kg") else "± 0.02" for p in paths}
        weighed = files.check(Job, document)
        acts = []
        for job in (bare_job, weighed):
            told = tried_findings(ByContent(job.setup("plan A")), None, None, said_of(job, "plan A"))
            acts.append({s["act"] for f in told for s in f["settle"]})
        self.assertIn("weigh", acts[0])
        self.assertNotIn("weigh", acts[1])

    def test_what_only_stops_settle_is_no_more_once_pads_and_grip_were_measured(self) -> None:
        document = demo_document()
        plan = document["plans"][0]["systems"][0]["stations"]
        paths = [
            f"plans.0.systems.0.stations.{n}.brake.friction.{key}" for n, s in enumerate(plan) for key in s["brake"]["friction"]
        ]
        measured = {**dict.fromkeys(paths, "± 0.02"), "vehicle.grip_front": "± 0.04", "vehicle.grip_rear": "± 0.04"}
        shares = []
        for tolerances in ({}, measured):
            job = files.check(Job, {**document, "tolerances": tolerances})
            told = tried_findings(ByContent(job.setup("plan A")), None, None, said_of(job, "plan A"))
            shares.append(next(f for f in told if f["id"] == "lock_order")["by_stops"])
        self.assertGreater(shares[0], 0.1)
        self.assertEqual(shares[1], 0.0)

    def test_acts_are_sorted_by_what_goes_in_a_minute_and_say_what_the_chance_becomes(self) -> None:
        for found in tried_findings(ByContent(demo_job().setup("plan B")), None, None, bare()):
            rates = [s["settles"] / s["minutes"] for s in found["settle"]]
            self.assertEqual(rates, sorted(rates, reverse=True))
            self.assertLessEqual(len(rates), 3)
            for s in found["settle"]:
                self.assertEqual(s["minutes"], ACTS[s["act"]][0])
                self.assertLessEqual(s["low"], s["high"])
                self.assertGreater(s["settles"], 20.0 / TRIALS)
                self.assertTrue(0.02 <= (found["chance"] or 0.0) <= 0.98)


if __name__ == "__main__":
    unittest.main()

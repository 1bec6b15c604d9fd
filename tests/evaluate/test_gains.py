"""What each change bought: by hand from the figures of two moments, on the demo and on every layout."""

import copy
import math
import unittest
from typing import Any

from kobrix.core.physics.gains import LEAST_GAIN
from kobrix.evaluate.gains import gains_document
from kobrix.evaluate.solve import Answer, wanted_stop
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.fileformat.models import Setup
from kobrix.stages.size.service import moment_at, size_view

from tests.cases import demo_job, every_layout

G = 9.80665


def links(moment: Any, parts: Any, side: str) -> dict[str, float]:
    """What each link passes on over what it gets, written out from a moment of a car with one pedal; drums have one for both."""
    ((_, own),) = moment["systems"].items()
    stations = [s for s in parts["stations"] if side in (s["axle"], "whole")]
    at = {s["name"]: own["stations"][s["name"]] for s in stations}
    inlet = sum(a["pressure_in_kpa"] for a in at.values())
    outlet = sum(a["pressure_kpa"] for a in at.values())
    torque = sum(a["torque_per_wheel_nm"] for a in at.values())
    road = sum(at[s["name"]]["torque_per_wheel_nm"] * s["wheels"] / s["rolling_radius_mm"] for s in stations)
    pads = [at[s["name"]].get("clamp_n") for s in stations]
    found = {
        "pin": own["rod_force_n"] / moment["pedal_force_n"], "booster": own["booster_out_n"] / own["rod_force_n"],
        "bore": inlet / len(stations) / own["booster_out_n"], "valve": outlet / inlet, "tyres": road / torque,
    }  # fmt: skip
    if all(p is not None for p in pads):
        return {**found, "pistons": sum(pads) / outlet, "rotors": torque / sum(pads)}
    return {**found, "brakes": torque / outlet}


class ByHand(unittest.TestCase):
    def test_the_demo_s_plans_against_what_was_found(self) -> None:
        document: Any = demo_job().model_dump(exclude_unset=True)
        other = copy.deepcopy(document["plans"][0])
        other["name"] = "other tyres"
        for station, tyre in zip(other["systems"][0]["stations"], ("195/65R15", "165/60R14"), strict=True):
            station["tyre"] = tyre
        document["plans"].append(other)
        job = files.check(Job, document)
        view: Any = size_view(job, 0)
        found, plans = job.setup("as found"), ("plan A", "plan B", "other tyres")
        decel = 0.5
        for n, name in enumerate(plans, 1):
            setup = job.setup(name)
            doc: Any = gains_document(Answer(setup), Answer(found), decel)
            (state, paths) = next(iter(doc["load_states"].items()))
            self.assertEqual(state, view["setups"][n]["solved"]["paths"][-1]["states"][0]["name"])
            (path,) = paths["paths"].values()
            now = moment_at(setup, 0, None, decel)
            for key, before in (
                ("same_stop", moment_at(found, 0, None, decel)),
                ("same_push", moment_at(found, 0, now["pedal_force_n"], None)),
            ):
                for side in ("front", "rear"):
                    mine = links(now, view["setups"][n]["solved"]["paths"][-1]["parts"], side)
                    theirs = links(before, view["setups"][0]["solved"]["paths"][-1]["parts"], side)
                    bought = path[key][side]
                    together = {k: mine[k] / theirs[k] for k in mine if k in theirs}
                    if "brakes" in bought["links"]:  # a disc where a drum was: pressing and rubbing are one gain
                        press = mine.get("brakes", mine.get("pistons", 0.0) * mine.get("rotors", 0.0))
                        together["brakes"] = press / theirs.get("brakes", theirs.get("pistons", 0.0) * theirs.get("rotors", 0.0))
                    self.assertEqual(set(bought["links"]), set(together), (name, key, side))
                    for link, gain in bought["links"].items():
                        self.assertAlmostEqual(gain, together[link], delta=1e-3 * gain, msg=(name, key, side, link))
                    self.assertAlmostEqual(bought["product"], math.prod(bought["links"].values()), places=9)

    def test_a_bore_half_as_large_in_area_doubles_the_pressure_and_nothing_else(self) -> None:
        for job in every_layout():
            document: Any = job.model_dump(exclude_unset=True)
            setup = job.setup("as found")
            if Answer(setup).solved is None or document["as_found"]["systems"][0]["cylinder"].get("kind") == "twin":
                continue
            changed = copy.deepcopy(document)
            cylinder = changed["as_found"]["systems"][0]["cylinder"]
            if not isinstance(cylinder.get("bore_mm"), int | float):
                continue
            cylinder["bore_mm"] = cylinder["bore_mm"] / math.sqrt(2.0)
            own = files.check(Job, changed).setup("as found")
            wanted = wanted_stop([Answer(setup), Answer(own)])
            doc: Any = gains_document(Answer(own), Answer(setup), 0.5 * (wanted or 0.3))
            for state in doc["load_states"].values():
                for path in state["paths"].values():
                    for side in path["same_push"].values():
                        self.assertAlmostEqual(side["links"]["bore"], 2.0, delta=0.02, msg=job.name)
                        self.assertAlmostEqual(side["links"]["pin"], 1.0, delta=LEAST_GAIN, msg=job.name)

    def test_what_cannot_be_compared_has_none(self) -> None:
        job = demo_job()
        document: Any = job.model_dump(exclude_unset=True)
        del document["as_found"]["systems"][0]["cylinder"]["bore_mm"]
        open_ = files.check(Job, document)
        self.assertIsNone(gains_document(Answer(open_.setup("plan A")), Answer(open_.setup("as found")), 0.5))
        self.assertIsInstance(job.setup("plan A"), Setup)
        same: Any = gains_document(Answer(job.setup("plan A")), Answer(job.setup("plan A")), 0.5)
        for state in same["load_states"].values():
            for path in state["paths"].values():
                for side in (*path["same_stop"].values(), *path["same_push"].values()):
                    self.assertAlmostEqual(side["product"], 1.0, places=9)


if __name__ == "__main__":
    unittest.main()

"""A long pedal: what was put in is found, and where it cannot be told that is said."""

import random
import unittest
from typing import Any

from kobrix.core.errors import BadEntry, KobrixError
from kobrix.evaluate.solve import ByContent, answer_of
from kobrix.fileformat.job import Job
from kobrix.fileformat.paths import set_at
from kobrix.fileformat.questions import Questions
from kobrix.stages.bleed.pedal import pumping, pushed
from kobrix.stages.bleed.shapes import PumpedIn, PushesIn, ToldView
from kobrix.stages.match.space import edited

from tests.cases import conforms, demo_job, evaluate, every_layout

G = 9.80665


def travels(job: Job, name: str, forces: list[float], air: float = 0.0) -> list[float]:
    """Pad travel [mm] of the model at those pushes, with air [cm³] more in the first station's line."""
    setup = job.setup(name)
    if air:
        system = setup.systems[0].stations[0]
        assert system.lines is not None
        setup = edited(setup, [set_at("systems.0.stations.0.lines.air_cm3", float(system.lines.air_cm3 or 0.0) + air)])
    result = evaluate(setup, Questions(pedal_forces_n=list(forces)))
    rows = next(iter(result["load_states"].values()))["paths"]["service"]["at_pedal_force"]
    return [row["systems"]["service"]["pedal_travel_mm"] for row in rows]


def asked(forces: list[float], seen: list[float]) -> PushesIn:
    pushes: Any = [{"force": f"{f / G:.4f} kg", "travel": f"{t:.3f} mm"} for f, t in zip(forces, seen, strict=True)]
    return PushesIn(setup="plan A", pushes=pushes)


class Pushes(unittest.TestCase):
    forces = [14.0, 60.0, 300.0]

    def test_air_that_was_put_in_is_found(self) -> None:
        job = demo_job()
        told = pushed(job, asked(self.forces, travels(job, "plan A", self.forces, air=4.0)))
        conforms(ToldView, told)
        self.assertEqual(told["verdict"], "air")
        self.assertRegex(told["sentence"], r"^Air: (3\.[5-9]|4\.[0-5])\d* cm³ \(")

    def test_a_pedal_as_built_and_one_with_play_are_told(self) -> None:
        job = demo_job()
        own = travels(job, "plan A", self.forces)
        self.assertEqual(pushed(job, asked(self.forces, own))["verdict"], "as_built")
        far = pushed(job, asked(self.forces, [t + 9.0 for t in own]))
        self.assertEqual(far["verdict"], "adjustment")
        self.assertIn("9.0 mm", far["sentence"])

    def test_two_hard_pushes_cannot_tell_and_say_so(self) -> None:
        job = demo_job()
        forces = [200.0, 300.0]
        told = pushed(job, asked(forces, [t + 5.0 for t in travels(job, "plan A", forces)]))
        self.assertEqual(told["verdict"], "cannot_tell")
        self.assertIn("air looks like clearance", told["more"])

    def test_what_is_typed_wrong_is_named(self) -> None:
        job = demo_job()
        for force, travel, words in (("hard", "50", "push 1"), ("20 kg", "far", "travel 1"), ("0 kg", "10", "pushes 0")):
            with self.assertRaisesRegex(BadEntry, words):
                pushed(
                    job, PushesIn(setup="plan A", pushes=[{"force": force, "travel": travel}, {"force": "30", "travel": "60"}])
                )

    def test_a_scale_and_newtons_are_the_same(self) -> None:
        job = demo_job()
        own = travels(job, "plan A", self.forces)
        newtons: Any = [{"force": f"{f:.4f} N", "travel": f"{t:.3f}"} for f, t in zip(self.forces, own, strict=True)]
        self.assertEqual(pushed(job, PushesIn(setup="plan A", pushes=newtons)), pushed(job, asked(self.forces, own)))


class Pumped(unittest.TestCase):
    def tell(self, **typed: Any) -> ToldView:
        told = pumping(demo_job(), PumpedIn(setup="plan A", **typed))
        conforms(ToldView, told)
        return told

    def test_every_verdict_has_its_words(self) -> None:
        self.assertEqual(self.tell(first="70 mm", third="70 mm")["verdict"], "no_change")
        self.assertEqual(self.tell(first="70 mm", third="80 mm")["level"], "danger")
        comes_up = self.tell(first="88 mm", third="71 mm")
        self.assertEqual(comes_up["verdict"], "air_or_clearance")
        self.assertRegex(comes_up["figures"], r"^Pumping takes up \d\.\d\d cm³, as much as 0\.\d\d mm at every pad\.")
        near, hard = travels(demo_job(), "plan A", [20 * G, 35 * G])
        both: dict[str, Any] = {"first": "88 mm", "third": "71 mm", "force": "20 kg", "hard_force": "35 kg"}
        stiff = f"{71 + hard - near:.2f} mm"
        self.assertEqual(self.tell(**both, hard_travel=stiff)["verdict"], "clearance")
        self.assertEqual(self.tell(**both, hard_travel=stiff, after_drive=True)["verdict"], "knock_back")
        self.assertEqual(self.tell(**both, hard_travel=f"{79 + hard - near:.2f} mm")["verdict"], "air")

    def test_every_vehicle_and_nonsense_is_answered_or_refused_in_words(self) -> None:
        draw = random.Random(2)
        for job in every_layout():
            name = job.names[-1]
            if answer_of(ByContent(job.setup(name))).solved is None:
                continue
            for system in job.setup(name).systems:
                for _ in range(4):
                    first, third = draw.uniform(10, 120), draw.uniform(5, 110)
                    pushes: Any = [
                        {"force": f"{draw.uniform(0, 60):.1f}", "travel": f"{draw.uniform(0, 150):.1f}"}
                        for _ in range(draw.randrange(2, 6))
                    ]
                    for ask in (
                        lambda f=first, t=third, s=system.name, j=job, n=name: pumping(
                            j, PumpedIn(setup=n, system=s, first=f"{f}", third=f"{t}")
                        ),
                        lambda p=pushes, s=system.name, j=job, n=name: pushed(j, PushesIn(setup=n, system=s, pushes=p)),
                    ):
                        try:
                            conforms(ToldView, ask())
                        except KobrixError as refused:
                            self.assertGreater(len(str(refused)), 20)


if __name__ == "__main__":
    unittest.main()

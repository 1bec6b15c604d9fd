"""The working of every figure: the numbers written are the numbers used, and the text computes to the value."""

import math
import re
import unittest
from dataclasses import replace

from kobrix.core.physics import valves
from kobrix.core.physics.booster import Booster
from kobrix.core.physics.chain import System
from kobrix.core.physics.working import Step, working

from tests.cases import plain_system, solved

VACUUM = Booster("vacuum", 4.2, 50.0, 190.0, 1500.0, 0.0012, 120.0)
UNITS = {"cm²": "1e-4", "MPa": "1e6", "mm": "1e-3"}  # as factors to metre and pascal


def computed(text: str) -> float:
    """A text with numbers, worked out as it stands; every factor has its brackets."""
    own = re.sub(r"([\d.e+-]+) (cm²|MPa|mm)", lambda m: f"({m[1]}*{UNITS[m[2]]})", text)
    own = own.replace("·", "*").replace("−", "-")
    own = re.sub(r"/(\([^()]*\)|[\d.e+-]+)", r"/(\1)", own)
    if not re.fullmatch(r"[\d\s.,e+\-*/()min]*", own):
        raise ValueError(text)
    return float(eval(own, {"__builtins__": {}, "min": min}))


def steps_of(system: System, push: float) -> dict[str, Step]:
    """The steps at a push, by their id."""
    path = solved(system)
    return {s.id: s for s in working(path, path.place_at(push), 0)}


class TheTextComputes(unittest.TestCase):
    def check(self, system: System, push: float, names: tuple[str, ...]) -> dict[str, Step]:
        steps = steps_of(system, push)
        scale = {"MPa": 1e6, "mm": 1e-3}
        for name in names:
            step = steps[name]
            wanted = step.value * scale.get(step.unit, 1.0)
            self.assertAlmostEqual(computed(step.numbers) / wanted, 1.0, delta=3e-4, msg=f"{name}: {step.numbers}")
        return steps

    def test_a_plain_car(self) -> None:
        names = ("service.ratio", "service.rod", "service.out", "service.front.inlet", "service.front.clamp", "service.front.torque",
                 "service.front.force", "service.rear.force", "decel", "load.front", "load.rear", "adhesion.front")  # fmt: skip
        self.check(plain_system(), 300.0, names)

    def test_with_help_below_and_past_the_run_out(self) -> None:
        for push in (60.0, 400.0):
            self.check(plain_system(booster=VACUUM), push, ("service.rod", "service.out", "service.front.inlet", "decel"))

    def test_below_the_cut_in_it_says_so(self) -> None:
        steps = steps_of(plain_system(booster=VACUUM), 5.0)
        self.assertIn("≤", steps["service.out"].numbers)
        self.assertEqual(steps["service.out"].value, 0.0)
        self.assertEqual(steps["decel"].value, 0.0)

    def test_a_valve_is_named(self) -> None:
        steps = steps_of(plain_system(rear_devices=(valves.Proportioning(2e6, 0.3),)), 300.0)
        self.assertIn("proportioning", steps["service.rear.outlet"].numbers)
        self.assertLess(steps["service.rear.outlet"].value, steps["service.rear.inlet"].value)
        self.assertEqual(steps["service.rear.clamp"].uses, ("service.rear.outlet",))

    def test_every_travel_has_its_cause_and_the_sum_is_the_whole(self) -> None:
        base = plain_system(air=1e-6)
        steps = steps_of(replace(base, control=replace(base.control, mount_give=1 / 4e6)), 250.0)
        parts = [s for name, s in steps.items() if name.startswith("service.travel.")]
        self.assertAlmostEqual(sum(s.value for s in parts), steps["service.travel"].value, places=9)
        self.assertTrue(any(s.id.endswith("mount") for s in parts) and any(s.id.endswith("air") for s in parts))
        self.assertTrue(all(math.isfinite(s.value) for s in steps.values()))
        for part in parts:
            self.assertAlmostEqual(computed(part.numbers) * 1e3 / part.value, 1.0, delta=3e-3, msg=f"{part.id}: {part.numbers}")

    def test_it_follows_what_uses_what_back_to_the_push(self) -> None:
        steps = steps_of(plain_system(), 200.0)
        seen, ahead = set(), ["adhesion.rear"]
        while ahead:
            name = ahead.pop()
            seen.add(name)
            ahead += [u for u in steps[name].uses if u not in seen]
        self.assertTrue({"decel", "service.front.force", "service.rear.torque", "service.out", "service.ratio"} <= seen)


if __name__ == "__main__":
    unittest.main()

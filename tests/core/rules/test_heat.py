"""Rotors, pads and fluid against what their makers state: a note near it, a caution past it, nothing well below."""

import unittest

from kobrix.core.physics.heat import wet_boiling
from kobrix.core.rules.heat import temperatures
from kobrix.core.rules.limits import FLUID_MARGIN, PAD_MARGIN, Bench, Facts, RotorPeak

from tests.cases import case_of, plain_load, plain_system


def said(peak: float, fluid: float, facts: Facts) -> dict[str, str]:
    bench = Bench(
        case_of(plain_system(), plain_load()), ("as driven",), facts, heats={"front": RotorPeak(peak, peak - 20.0, fluid)}
    )
    return {j.id: j.level for j in temperatures(bench)}


class Stated(unittest.TestCase):
    def test_the_pads_maker_s_most(self) -> None:
        for off, level in ((-PAD_MARGIN - 1.0, None), (-PAD_MARGIN + 1.0, "note"), (-1.0, "note"), (1.0, "caution")):
            self.assertEqual(said(500.0 + off, 20.0, Facts(pad_most={"front": 500.0})).get("pad_heat_front"), level, off)
        self.assertEqual(said(900.0, 20.0, Facts()), {})  # no stated most, no verdict

    def test_the_fluid_s_wet_boiling_point_or_what_its_maker_states(self) -> None:
        self.assertEqual(wet_boiling("DOT 4"), 155.0)
        for facts, most in (
            (Facts(), 155.0),
            (Facts(fluids={"service": "DOT 3"}), 140.0),
            (Facts(fluid_most={"service": 210.0}), 210.0),
        ):
            for off, level in ((-FLUID_MARGIN - 1.0, None), (-FLUID_MARGIN + 1.0, "note"), (-1.0, "note"), (1.0, "caution")):
                self.assertEqual(said(100.0, most + off, facts).get("fluid_heat_front"), level, (most, off))


if __name__ == "__main__":
    unittest.main()

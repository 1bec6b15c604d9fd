"""Short words for what is lost, and lists in one breath."""

import unittest
from dataclasses import replace

from kobrix.core.physics.cylinder import Cylinder
from kobrix.core.physics.failures import Failing
from kobrix.core.rules.words import a_capital, listed, loss_words

from tests.cases import plain_system

OWN = plain_system()
ONE = replace(OWN, name="left", cylinder=Cylinder("single", 0.95, 0.0, (replace(OWN.cylinder.chambers[0], name="circuit"),)))


class Losses(unittest.TestCase):
    def test_a_circuit_of_several_is_named_and_one_alone_is_not(self) -> None:
        front = Failing("lost_front", "circuit", None, "front")
        self.assertEqual(loss_words(front, (OWN,)), "front circuit lost")
        self.assertEqual(loss_words(Failing("x", "circuit", "service", "front"), (ONE, OWN)), "front circuit lost")
        self.assertEqual(loss_words(Failing("lost_circuit", "circuit", "left", "circuit"), (ONE, OWN)), "circuit lost")
        self.assertEqual(loss_words(front, (ONE, OWN)), "circuit lost")  # nobody's in particular

    def test_the_booster_and_what_lies_upstream(self) -> None:
        self.assertEqual(loss_words(Failing("lost_booster", "booster"), (OWN,)), "booster lost")
        self.assertEqual(loss_words(Failing("lost_upstream", "upstream", "left"), (ONE, OWN)), "leak upstream")


class Lists(unittest.TestCase):
    def test_in_one_breath(self) -> None:
        self.assertEqual(listed(["left"]), "left")
        self.assertEqual(listed(["left", "right"]), "left and right")
        self.assertEqual(listed(["a", "b", "c"], "or"), "a, b or c")
        self.assertEqual((a_capital("front circuit"), a_capital("")), ("Front circuit", ""))


if __name__ == "__main__":
    unittest.main()

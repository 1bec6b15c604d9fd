"""Our closed forms against libraries that know nothing of brakes."""

import unittest

import numpy as np
from kobrix.core.constants import ATMOSPHERE, assumed
from kobrix.core.physics import booster, disc


class Libraries(unittest.TestCase):
    def test_effective_radius_by_integral(self) -> None:
        """sympy: ∫r·r²/∫r·r over a sector under uniform pressure, and ∫r·r/∫r·1 under uniform wear (p ∝ 1/r)."""
        import sympy as sp

        r, inner, outer = sp.symbols("r r_i r_o", positive=True)
        pressed = sp.integrate(r**2, (r, inner, outer)) / sp.integrate(r, (r, inner, outer))
        wanted = sp.Rational(2, 3) * (inner**2 + inner * outer + outer**2) / (inner + outer)
        self.assertEqual(sp.simplify(pressed - wanted), 0)
        worn = sp.integrate(r, (r, inner, outer)) / sp.integrate(1, (r, inner, outer))
        self.assertEqual(sp.simplify(worn - (inner + outer) / 2), 0)
        numbers = {inner: 0.095, outer: 0.130}
        ours = float(disc.effective_radius(0.260, 0.035, 0.0, "uniform_pressure"))
        self.assertAlmostEqual(ours, float(pressed.subs(numbers)), places=12)

    def test_the_centroid_of_a_pad_is_not_its_effective_radius(self) -> None:
        """shapely: a sector of 95 to 130 mm and 60° has 4123.34 mm² and its centroid at 108.30; the radius is 113.41."""
        from shapely import Polygon

        angles = np.linspace(-np.pi / 6, np.pi / 6, 4001)
        edge = [(130 * np.cos(a), 130 * np.sin(a)) for a in angles] + [(95 * np.cos(a), 95 * np.sin(a)) for a in angles[::-1]]
        pad = Polygon(edge)
        self.assertAlmostEqual(pad.area, 4123.34, places=1)
        self.assertAlmostEqual(pad.centroid.x, 108.30, places=2)
        ours = float(disc.effective_radius(0.260, 0.035, 0.0, "uniform_pressure")) * 1e3
        self.assertAlmostEqual(ours, 113.41, places=2)
        self.assertGreater(ours - pad.centroid.x, 5.0)

    def test_critical_deceleration(self) -> None:
        """sympy: with a fixed brake share β both axles use the same grip at z = (β − ψ)/χ."""
        import sympy as sp

        beta, psi, chi, z = sp.symbols("beta psi chi z", positive=True)
        front, rear = beta * z / (psi + z * chi), (1 - beta) * z / (1 - psi - z * chi)
        (found,) = sp.solve(sp.together(front - rear) / z, z)
        self.assertEqual(sp.simplify(found - (beta - psi) / chi), 0)

    def test_a_vacuum_booster_at_altitude(self) -> None:
        """fluids: the standard atmosphere at 2500 m is 74691.8 Pa; with the manifold at 40 kPa the help shrinks with it."""
        from fluids import ATMOSPHERE_1976

        air = ATMOSPHERE_1976(2500.0).P
        self.assertAlmostEqual(air, 74691.8, places=1)
        low, high = (float(booster.vacuum_limit([0.2], p - 40e3, 0.95)) for p in (ATMOSPHERE, air))
        self.assertAlmostEqual(high / low, (air - 40e3) / (ATMOSPHERE - 40e3), places=12)

    def test_the_fluids_stiffness_lies_in_a_glycols_bracket(self) -> None:
        """CoolProp: propylene glycol 2.093 GPa at 20 °C, 1.401 GPa at 100 °C; handbooks: glycol fluid 1.4 to 1.8 GPa."""
        self.assertTrue(1.401e9 < assumed("fluid.bulk") < 2.093e9)
        self.assertTrue(1.0e9 <= assumed("fluid.bulk_silicone") <= 1.4e9)

    def test_grey_iron(self) -> None:
        """Handbook: 460 to 540 J/(kg·K)."""
        self.assertTrue(460 <= assumed("heat.iron") <= 540)


if __name__ == "__main__":
    unittest.main()

"""Numbers that the product knows: exact, published and assumed, each with unit and source.

A number stands here once; code, file schema, documents and screen read it from here.
Published figures were quoted from memory where the clause was not in hand, and say so.
"""

from dataclasses import dataclass
from typing import Literal

Standing = Literal["exact", "published", "common practice", "from memory", "our estimate"]


@dataclass(frozen=True)
class Known:
    """One number: SI `value`, its `unit`, where it comes from, and the range it may reasonably have."""

    value: float
    unit: str
    standing: Standing
    source: str
    least: float | None = None
    most: float | None = None


EXACT = {
    "gravity": Known(9.80665, "m/s²", "exact", "standard gravity, ISO 80000-3"),
    "inch": Known(0.0254, "m", "exact", "international inch, 1959"),
    "pound": Known(0.45359237, "kg", "exact", "international pound, 1959"),
    "stefan": Known(5.670374419e-8, "W/(m²·K⁴)", "exact", "Stefan-Boltzmann constant, SI 2019"),
    "atmosphere": Known(101325.0, "Pa", "exact", "standard atmosphere, ISO 2533"),
}
G = EXACT["gravity"].value
INCH = EXACT["inch"].value
KMH = 1.0 / 3.6  # m/s
POUND = EXACT["pound"].value
ATMOSPHERE = EXACT["atmosphere"].value

_R13 = "UN R13-H, from memory"
PUBLISHED = {
    "secondary_decel": Known(2.44, "m/s²", "from memory", _R13 + ": secondary braking"),
    "force_limit_car_pedal": Known(500.0, "N", "from memory", _R13 + ": greatest pedal force"),
    "force_limit_truck": Known(700.0, "N", "from memory", "UN R13: greatest pedal force of heavy vehicles"),
    "secondary_decel_truck": Known(2.2, "m/s²", "from memory", "UN R13: secondary braking of heavy vehicles, 700 N"),
    "force_limit_motorcycle_foot": Known(350.0, "N", "from memory", "UN R78: foot control"),
    "force_limit_hand_lever": Known(200.0, "N", "from memory", "UN R78: hand control"),
    "distribution_z_least": Known(0.15, "1", "from memory", _R13 + ": rear curve not above front"),
    "distribution_z_most": Known(0.80, "1", "from memory", _R13 + ": rear curve not above front"),
    "distribution_offset": Known(0.1, "1", "from memory", _R13 + ": z ≥ 0.1 + 0.7(k − 0.2)"),
    "distribution_slope": Known(0.7, "1", "from memory", _R13 + ": z ≥ 0.1 + 0.7(k − 0.2)"),
    "distribution_k_least": Known(0.2, "1", "from memory", _R13 + ": k from 0.2"),
    "distribution_k_most": Known(0.8, "1", "from memory", _R13 + ": k to 0.8"),
    "distance_reaction": Known(0.1, "m/(km/h)", "from memory", _R13 + ": type 0, s ≤ 0.1V + 0.0060V²"),
    "distance_braking": Known(0.006, "m/(km/h)²", "from memory", _R13 + ": type 0, s ≤ 0.1V + 0.0060V²"),
    "mfdd_begin": Known(0.8, "1", "from memory", _R13 + ": from 0.8 of the speed"),
    "mfdd_end": Known(0.1, "1", "from memory", _R13 + ": to 0.1 of the speed"),
    "nominal_band": Known(0.1, "1", "from memory", "SAE J299: within 10 % of the nominal speed"),
    "parking_grade": Known(0.20, "1", "from memory", "FMVSS 135 S7.12: a grade of 20 %"),
    "wet_boiling.DOT 3": Known(140.0, "°C", "from memory", "FMVSS 116: wet equilibrium reflux boiling point"),
    "wet_boiling.DOT 4": Known(155.0, "°C", "from memory", "FMVSS 116: wet equilibrium reflux boiling point"),
    "wet_boiling.DOT 5": Known(180.0, "°C", "from memory", "FMVSS 116: wet equilibrium reflux boiling point"),
    "wet_boiling.DOT 5.1": Known(180.0, "°C", "from memory", "FMVSS 116: wet equilibrium reflux boiling point"),
    "hose_ceiling": Known(
        0.79e-6 / 0.3048 / (1500 * 6894.757293168),
        "m³/(m·Pa)",
        "from memory",
        "FMVSS 106 table I: 0.79 cm³ a foot at 1500 psi, regular hose up to 1/8 in; a legal ceiling, never a default",
    ),
    "rolling_radial": Known(3.05, "1", "from memory", "ETRTO: rolling circumference 3.05·D, radial"),
    "rolling_crossply": Known(2.99, "1", "from memory", "ETRTO: rolling circumference 2.99·D, cross-ply"),
}

_PRACTICE: Standing = "common practice"
_GUESS: Standing = "our estimate"
ASSUMED = {
    "vehicle.sliding_factor": Known(0.8, "1", _GUESS, "locked tyre against its peak grip", 0.6, 1.0),
    "vehicle.rotating_share": Known(0.0, "1", _GUESS, "rotating parts left out", 0.0, 0.1),
    "control.efficiency": Known(0.92, "1", _PRACTICE, "pivot and pushrod friction", 0.8, 1.0),
    "control.return_force": Known(0.0, "N", _GUESS, "return spring left out", 0.0, 60.0),
    "control.free_play": Known(0.0, "m", _GUESS, "free play not stated", 0.0, 0.012),
    "booster.efficiency": Known(0.95, "1", _PRACTICE, "diaphragm and seal losses", 0.85, 1.0),
    "booster.vacuum": Known(60e3, "Pa", _PRACTICE, "engine vacuum at idle", 40e3, 75e3),
    "booster.effective_of_nominal": Known(0.9, "1", _GUESS, "effective diameter of a nominal shell size", 0.85, 0.95),
    "booster.lost_travel": Known(0.0, "m", _GUESS, "lost travel not stated", 0.0, 0.003),
    "booster.return_spring": Known(0.0, "N", _GUESS, "a failed vacuum booster's spring is often near 120 N", 0.0, 200.0),
    "booster.cut_in": Known(0.0, "N", _GUESS, "cut-in not stated", 0.0, 100.0),
    "booster.jump_in": Known(0.0, "N", _GUESS, "jump-in not stated", 0.0, 400.0),
    "cylinder.efficiency": Known(0.95, "1", _PRACTICE, "seal friction", 0.88, 1.0),
    "cylinder.spring": Known(0.0, "N", _GUESS, "piston springs left out", 0.0, 80.0),
    "cylinder.primary_share": Known(0.5, "1", _PRACTICE, "chambers of equal stroke", 0.4, 0.65),
    "cylinder.lost": Known(0.0012, "m", _GUESS, "stroke until the port is closed, each chamber", 0.0005, 0.002),
    "disc.efficiency": Known(0.98, "1", _PRACTICE, "piston seal friction", 0.95, 1.0),
    "disc.threshold": Known(0.0, "Pa", _GUESS, "pressure before the pads press", 0.0, 100e3),
    "disc.clearance": Known(0.00012, "m", _PRACTICE, "running clearance, each pad", 0.00005, 0.0003),
    "disc.knock_back": Known(0.0, "m", _GUESS, "knock-back left out", 0.0, 0.0005),
    "disc.edge_inset": Known(0.0015, "m", _PRACTICE, "pad edge below the rotor's edge", 0.0, 0.004),
    "disc.give_fixed": Known(7.5e-12, "m/Pa", _GUESS, "body give of a fixed caliper", 4e-12, 12e-12),
    "disc.give_floating": Known(12e-12, "m/Pa", _GUESS, "body give of a floating caliper", 8e-12, 20e-12),
    "disc.pad_give": Known(8e-12, "m/Pa", _GUESS, "give of pad and shim", 4e-12, 20e-12),
    "drum.efficiency": Known(0.96, "1", _PRACTICE, "wheel cylinder friction", 0.9, 1.0),
    "drum.threshold": Known(300e3, "Pa", _PRACTICE, "pressure that overcomes the shoe springs", 150e3, 500e3),
    "drum.shoe_k": Known(0.8, "1", _PRACTICE, "shoe half-height over drum radius", 0.7, 0.88),
    "drum.shoe_clearance": Known(0.0005, "m", _PRACTICE, "each shoe, at the wheel cylinder", 0.0002, 0.001),
    "drum.shoe_clearance_residual": Known(0.0003, "m", _GUESS, "each shoe, with a residual valve", 0.0001, 0.0006),
    "drum.give": Known(0.10e-12, "m³/Pa", _GUESS, "give of drum, shoes and lining", 0.05e-12, 0.3e-12),
    "hose.rubber": Known(0.12e-12, "m³/(m·Pa)", _GUESS, "swelling of a sound rubber hose", 0.06e-12, 0.25e-12),
    "hose.braided": Known(0.04e-12, "m³/(m·Pa)", _GUESS, "swelling of a braided hose", 0.02e-12, 0.08e-12),
    "hose.bore": Known(0.0032, "m", _PRACTICE, "bore of a 1/8 in hose", 0.0028, 0.0035),
    "fluid.bulk": Known(1.8e9, "Pa", _PRACTICE, "glycol fluid, cold", 1.4e9, 2.1e9),
    "fluid.bulk_silicone": Known(1.0e9, "Pa", _PRACTICE, "silicone fluid, cold", 1.0e9, 1.4e9),
    "fluid.piston_reach": Known(0.012, "m", _GUESS, "fluid behind a piston, half worn", 0.004, 0.03),
    "pipe.outer": Known(0.00476, "m", _PRACTICE, "3/16 in hard line", 0.004, 0.00635),
    "pipe.wall": Known(0.00071, "m", _PRACTICE, "wall of a 3/16 in hard line", 0.0006, 0.001),
    "pipe.steel.youngs": Known(207e9, "Pa", "published", "handbook value for steel", 200e9, 210e9),
    "pipe.steel.poisson": Known(0.30, "1", "published", "handbook value for steel", 0.28, 0.30),
    "pipe.copper_nickel.youngs": Known(140e9, "Pa", "published", "handbook value for 90/10 copper-nickel", 125e9, 150e9),
    "pipe.copper_nickel.poisson": Known(0.34, "1", "published", "handbook value for 90/10 copper-nickel", 0.32, 0.35),
    "pipe.stainless.youngs": Known(193e9, "Pa", "published", "handbook value for stainless steel", 190e9, 200e9),
    "pipe.stainless.poisson": Known(0.30, "1", "published", "handbook value for stainless steel", 0.28, 0.31),
    "stop.build_up": Known(0.3, "s", _PRACTICE, "from first touch to full braking", 0.2, 0.6),
    "heat.into_rotor": Known(0.95, "1", _PRACTICE, "the pad takes the rest", 0.85, 1.0),
    "heat.iron": Known(500.0, "J/(kg·K)", "published", "grey iron, handbook values 460 to 540", 460.0, 540.0),
    "heat.emissivity": Known(0.6, "1", _GUESS, "swept and rusty iron together", 0.3, 0.9),
    "heat.film_still": Known(10.0, "W/(m²·K)", _GUESS, "film coefficient standing", 5.0, 20.0),
    "heat.film_solid": Known(2.0, "W·s/(m³·K)", _GUESS, "rise of the film coefficient with speed, solid rotor", 1.0, 3.5),
    "heat.film_vented": Known(2.5, "W·s/(m³·K)", _GUESS, "rise of the film coefficient with speed, vented rotor", 1.2, 4.5),
    "heat.fluid_share": Known(0.25, "1", _GUESS, "fluid's share of the rotor's rise", 0.1, 0.5),
    "reservoir.reserve": Known(1.2, "1", _PRACTICE, "a fifth more than worn pads take", 1.0, 1.5),
    "motorcycle.foot_share": Known(0.6, "1", _GUESS, "force of the foot for each newton of the hand, both pressed", 0.3, 1.5),
    "valve.slope": Known(0.43, "1", _PRACTICE, "slope of a common proportioning valve", 0.25, 0.6),
    "tyre.aspect_metric": Known(0.82, "1", _GUESS, "aspect-less metric size: measure it", 0.78, 0.84),
    "tyre.aspect_inch": Known(0.92, "1", _GUESS, "aspect-less inch size: measure it", 0.85, 1.0),
}


@dataclass(frozen=True)
class Doubt:
    """How far an entry that was typed without a ± is usually off: half a `width` [its unit], or of the entry where `of_entry`."""

    width: float
    unit: str
    of_entry: bool = False
    what: str = ""


# Half widths of what is typed bare, our estimate throughout; what is not named here is taken as exact.
USUAL_DOUBTS = {
    "friction": Doubt(0.08, "1", True, "pad or lining friction"),
    "c_star": Doubt(0.15, "1", True, "shoe factor C* given bare"),
    "grip": Doubt(0.05, "1", True, "grip of the tyres"),
    "mass": Doubt(0.02, "1", True, "mass"),
    "front_share": Doubt(0.02, "1", False, "share of the weight on the front"),
    "front_share_aircraft": Doubt(0.01, "1", False, "share of the weight on the front, aircraft"),
    "cg_height": Doubt(0.05, "1", True, "height of the centre of gravity"),
    "rolling_radius": Doubt(0.01, "1", True, "rolling radius, from a tyre's size too"),
    "wheelbase": Doubt(0.005, "m", False, "wheelbase"),
    "pedal_length": Doubt(0.001, "m", False, "pivot to pad, pivot to pin"),
    "pedal_room": Doubt(0.005, "m", False, "travel to the stop"),
    "free_play": Doubt(0.001, "m", False, "free play"),
    "rotor_diameter": Doubt(0.0005, "m", False, "rotor diameter"),
    "pad_height": Doubt(0.001, "m", False, "pad height"),
    "hose_length": Doubt(0.05, "1", True, "hose length"),
    "hose_growth": Doubt(0.25, "1", True, "growth of a hose as stated"),
    "hard_line_length": Doubt(0.05, "1", True, "hard line length"),
    "bar_share": Doubt(0.01, "1", False, "front's share of a balance bar"),
    "valve_adjustable": Doubt(150e3, "Pa", False, "knee or setting of an adjustable valve"),
    "valve_fixed": Doubt(0.10, "1", True, "knee or setting of a fixed valve"),
    "valve_decel": Doubt(0.03, "g", False, "deceleration at which a valve acts"),
    "booster_gain": Doubt(0.10, "1", True, "gain of a booster"),
    "vacuum": Doubt(5e3, "Pa", False, "vacuum"),
}

# What stands in when a person says "don't know" about something that has no default: entered and marked as assumed.
STAND_INS = {
    "grip": Known(0.9, "1", _PRACTICE, "a road tyre on a dry road", 0.7, 1.05),
    "friction": Known(0.38, "1", _PRACTICE, "usual pads and linings", 0.30, 0.45),
    "front_share": Known(0.55, "1", _GUESS, "a car with its engine in front; weigh it", 0.45, 0.65),
    "cg_height": Known(0.55, "m", _GUESS, "a car; lift one axle and measure it", 0.45, 0.70),
    "pad_height": Known(0.042, "m", _GUESS, "a usual pad; lay a rule across its lining", 0.032, 0.055),
    "stroke": Known(0.030, "m", _GUESS, "a common master cylinder; pull the pushrod and measure it", 0.025, 0.038),
}


# Friction by the letter on a pad's edge, least and greatest; a code without an end is given the nearest usual one. SAE J866,
# from memory: the first letter is cold, the second hot.
J866: dict[str, tuple[float, float]] = {
    "C": (0.05, 0.15), "D": (0.15, 0.25), "E": (0.25, 0.35), "F": (0.35, 0.45), "G": (0.45, 0.55), "H": (0.55, 0.65),
}  # fmt: skip


# Master cylinder bores that are sold, inch names; a metric size within 0.15 mm of one is the same size. Common practice.
STANDARD_BORES: tuple[tuple[str, float], ...] = (
    ("11 mm", 0.011),
    ("1/2 in", 0.5 * INCH),
    ("14 mm", 0.014),
    ("9/16 in", 0.5625 * INCH),
    ("5/8 in", 0.625 * INCH),
    ("17 mm", 0.017),
    ("11/16 in", 0.6875 * INCH),
    ("0.70 in", 0.70 * INCH),
    ("3/4 in", 0.75 * INCH),
    ("13/16 in", 0.8125 * INCH),
    ("7/8 in", 0.875 * INCH),
    ("15/16 in", 0.9375 * INCH),
    ("24 mm", 0.024),
    ("1 in", 1.0 * INCH),
    ("1 1/16 in", 1.0625 * INCH),
    ("1 1/8 in", 1.125 * INCH),
    ("1 3/16 in", 1.1875 * INCH),
    ("1 1/4 in", 1.25 * INCH),
)
SAME_SIZE = 0.00015  # m: names of sizes closer than this are one size


def bore_name(bore: float) -> str | None:
    """Name of the standard size of a `bore` [m], None when it is none."""
    return next((name for name, size in STANDARD_BORES if abs(size - bore) <= SAME_SIZE), None)


def assumed(key: str) -> float:
    """Value of the defaults table for `key` [its own SI unit]. Raises KeyError for an unknown key."""
    return ASSUMED[key].value

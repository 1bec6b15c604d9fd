"""What a person measures on the vehicle: every field by its part, in words, with how to take it and what it is for."""

import typing
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import BaseModel

from kobrix.core.constants import ASSUMED, Known
from kobrix.fileformat.fields import Quantity
from kobrix.fileformat.stations import DiscBrake, Hose

Kind = Literal["quantity", "list", "text", "count", "flag", "choice"]


@dataclass(frozen=True)
class Ask:
    """One thing to measure: the `field` below its part, its `label`, `how` it is taken.

    `guess`: no one measures it in a garage. `more`: for those who know it; the usual value stands in until then. `stand_in`: the key of what may be entered for
    "don't know" where nothing has a default. `line`: the force line cannot do without it. `choices` are the field's own words with ours.
    """

    field: str
    label: str
    how: str = ""
    kind: Kind = "quantity"
    more: bool = False
    guess: bool = False
    stand_in: str | None = None
    line: bool = False
    choices: tuple[tuple[str, str], ...] = ()


_PAD = {
    "car_pedal": ("pivot to pad centre", "Tape on the pivot bolt's centre, read at the middle of the pad."),
    "motorcycle_foot": ("pivot to foot pad", "From the pivot's centre to where the ball of the foot presses."),
    "hand_lever": ("pivot to the fingers", "From the pivot's centre to between the two middle fingers."),
    "aircraft_pedal": ("pivot to toe", "From the toe brake's pivot to where the toe presses."),
}


def control(kind: str) -> list[Ask]:
    """What to measure on a control of a `kind`."""
    label, how = _PAD[kind]
    asks = [
        Ask("pivot_to_pad_mm", label, how, line=True),
        Ask("pivot_to_pin_mm", "pivot to pushrod pin", "From the pivot's centre to the centre of the pushrod's pin.", line=True),
        Ask("available_travel_mm", "travel to the stop", "At the pad, from rest to the floor or its stop, free play included."),
        Ask("free_play_mm", "free play", "How far the pad moves before the rod moves."),
        Ask("rod_retained", "rod held", "The pushrod has a stop or clip and cannot fall out.", "flag"),
        Ask("efficiency", "pivot friction", "Share of the force that reaches the rod.", more=True, guess=True),
        Ask(
            "return_force_n", "return spring", "At the rod, what it takes to move the pedal with the cylinder undone.", more=True
        ),
        Ask("mount_stiffness_n_per_mm", "mounting stiffness", "Force at the rod for each millimetre the wall gives.", more=True),
    ]
    if kind == "aircraft_pedal":
        asks.append(Ask("force_limit_n", "most you would press", "The force that is asked of a pilot at most."))
    return asks


RODS = (("straight", "along the bore"), ("linkage", "at an angle, or through a linkage"))
SENSES = (("1", "up, from straight ahead"), ("-1", "down"))
LINKAGE = [
    Ask("linkage.rest_angle_deg", "pin's angle at rest", "From straight ahead, up is plus: straight below the pivot is −90°."),
    Ask("linkage.bore_point_mm.0", "bore, ahead of the pivot", "To any point on the bore's axis, level."),
    Ask("linkage.bore_point_mm.1", "bore, above the pivot", "To the same point, upright; below the pivot with a minus."),
    Ask("linkage.bore_direction_deg", "bore's slope", "Into the bore; rising is plus, level is 0°."),
    Ask("linkage.rod_mm", "rod", "From the pin's centre to the ball in the piston."),
]


BOOSTER_KINDS = (("none", "none"), ("vacuum", "vacuum"), ("hydraulic", "hydraulic"), ("electric", "electric"))
_GAIN = Ask("gain", "gain", "How many times the rod's force comes out, while it helps.", line=True)
_BOOSTER_MORE = [
    Ask("cut_in_n", "cut-in", "Rod force at which it begins to help.", more=True),
    Ask("jump_in_n", "jump-in", "Help that comes at once at cut-in.", more=True),
    Ask("lost_travel_mm", "lost travel", "Rod travel before it passes anything on.", more=True),
    Ask("return_spring_n", "spring when it fails", "Rod force its spring takes when the help is gone.", more=True),
]
BOOSTER: dict[str, list[Ask]] = {
    "vacuum": [
        Ask(
            "nominal_diaphragms_mm", "shell size", "Across the shell; two sizes for a double one: 8 in + 8 in.", "list", line=True
        ),
        _GAIN,
        Ask("vacuum_kpa", "vacuum", "Gauge at the booster's hose, engine at idle."),
        Ask("diaphragms_mm", "effective diameters", "Of the diaphragms themselves, if the maker states them.", "list", more=True),
        Ask("efficiency", "seal losses", "Share of the diaphragm's force that comes out.", more=True, guess=True),
        *_BOOSTER_MORE,
    ],
    "hydraulic": [
        Ask("pump_pressure_kpa", "pump pressure", "The pump's relief pressure, from its maker.", line=True),
        Ask("piston_area_cm2", "power piston area", "Of the booster's own piston.", line=True),
        _GAIN,
        *_BOOSTER_MORE,
    ],
    "electric": [Ask("limit_n", "most help", "Greatest force it adds, from its maker.", line=True), _GAIN, *_BOOSTER_MORE],
}

CYLINDER_KINDS = (("tandem", "tandem"), ("single", "single"), ("twin", "two on a balance bar"))
CIRCUITS = (("front_rear", "front and rear"), ("diagonal", "diagonal"))
_BORE = Ask("bore_mm", "bore", "Cast on the body or inside the mouth, with a caliper on the piston.", line=True)
_STROKE = Ask("stroke_mm", "stroke", "How far the piston can be pushed in, off the vehicle or at the rod.", stand_in="stroke")
_CYLINDER_MORE = [
    Ask("height_above_brakes_mm", "height above the brakes", "Reservoir over the calipers; below them, with a minus."),
    Ask("efficiency", "seal friction", "Share of the rod's force that becomes pressure.", more=True, guess=True),
    Ask("spring_n", "piston springs", "Force it takes to move the piston in, dry.", more=True),
]
CYLINDER: dict[str, list[Ask]] = {
    "single": [_BORE, _STROKE, Ask("lost_mm", "lost, port closing", "Stroke until the port is covered."), *_CYLINDER_MORE],
    "tandem": [
        _BORE,
        _STROKE,
        Ask("circuits", "circuits", "What each chamber feeds.", "choice", choices=CIRCUITS),
        Ask("primary_share", "first chamber's share", "Of the stroke; equal chambers are 50 %."),
        Ask("lost_primary_mm", "lost, first port", "Stroke until the first chamber's port is covered."),
        Ask("lost_secondary_mm", "lost, second port", "Stroke until the second chamber's port is covered."),
        *_CYLINDER_MORE,
    ],
    "twin": [
        Ask("front.bore_mm", "front bore", _BORE.how, line=True),
        Ask("rear.bore_mm", "rear bore", _BORE.how, line=True),
        Ask("front.stroke_mm", "front stroke", _STROKE.how, stand_in="stroke"),
        Ask("rear.stroke_mm", "rear stroke", _STROKE.how, stand_in="stroke"),
        Ask("bar.front_share", "front's share of the bar", "Bearing to the rear clevis over clevis to clevis."),
        Ask("stop_mm", "bar's stop", "How far one end may run ahead of the other."),
        Ask("front.lost_mm", "front lost", "Stroke until its port is covered.", more=True),
        Ask("rear.lost_mm", "rear lost", "Stroke until its port is covered.", more=True),
        *_CYLINDER_MORE,
    ],
}

BRAKE_KINDS = (("disc", "disc"), ("drum", "drum"))
CALIPERS = (("fixed", "fixed, pistons on both sides"), ("floating", "floating, pistons on one side"))
SHOES = (("leading_trailing", "leading and trailing"), ("two_leading", "two leading"), ("duo_servo", "duo-servo"))
_HOT = [
    Ask("friction.hot", "friction, hot", "The second edge letter, or the maker's value.", more=True),
    Ask("friction.wet", "friction, wet", "With water on the pads, not on the road.", more=True),
]
BRAKE: dict[str, list[Ask]] = {
    "disc": [
        Ask("caliper", "caliper", "Pistons on both sides of the rotor, or on one.", "choice", line=True, choices=CALIPERS),
        Ask("pistons_mm", "pistons", "Across each; a fixed caliper's ONE side: 2 x 38.1 mm.", "list", line=True),
        Ask("calipers", "calipers a wheel", "", "count"),
        Ask("rotor_diameter_mm", "rotor diameter", "Over the outer edge.", line=True),
        Ask("pad_height_mm", "pad height", "Of the lining, towards the hub.", stand_in="pad_height", line=True),
        Ask("rotor_thickness_mm", "rotor thickness", "Where the pads run, not on the lip."),
        Ask("rotor_vented", "vented", "Two plates with air between them.", "flag"),
        Ask("friction.cold", "pad friction", "From the letters on the pad's edge, or its maker.", stand_in="friction", line=True),
        *_HOT,
        Ask("clearance_mm", "running clearance", "Of each pad, released.", more=True),
        Ask("knock_back_mm", "knock-back", "What a loose bearing pushes each pad back.", more=True),
        Ask("caliper_give_um_per_mpa", "caliper's give", "How far the body opens.", more=True, guess=True),
        Ask("pad_give_um_per_mpa", "pad's give", "How far pad and shim yield.", more=True, guess=True),
        Ask("efficiency", "piston friction", "Share of the pressure that clamps.", more=True, guess=True),
        Ask("threshold_kpa", "threshold", "Pressure before the pads press.", more=True, guess=True),
        Ask("edge_inset_mm", "pad below the edge", "Rotor's edge to the lining's.", more=True),
        Ask("rotor_least_thickness_mm", "least thickness", "Cast or stamped on the rotor.", more=True),
        Ask("pad_wear_mm", "pad wear to the limit", "Of each pad, new to worn.", more=True),
        Ask("pad_most_c", "pads' most", "The highest temperature their maker states.", more=True),
        Ask("rotor_mass_kg", "rotor mass", "On kitchen scales, the friction ring's share.", more=True),
        Ask("rotor_cooling_area_cm2", "cooling area", "Both faces, and the vanes' walls.", more=True),
    ],
    "drum": [
        Ask("wheel_cylinder_mm", "wheel cylinder bore", "Cast on its back, or across its piston.", line=True),
        Ask("drum_diameter_mm", "drum diameter", "Inside, where the shoes run.", line=True),
        Ask("shoes", "shoes", "How they stand to the wheel cylinder and the anchor.", "choice", line=True, choices=SHOES),
        Ask(
            "friction.cold",
            "lining friction",
            "From the letters on the lining's edge, or its maker.",
            stand_in="friction",
            line=True,
        ),
        *_HOT,
        Ask("shoe_k", "shoe half-height", "Over the drum's radius.", more=True),
        Ask("shoe_clearance_mm", "shoe clearance", "Of each shoe, at the wheel cylinder.", more=True),
        Ask("threshold_kpa", "shoe springs", "Pressure that moves the shoes out.", more=True, guess=True),
        Ask("efficiency", "cylinder friction", "Share of the pressure that pushes the shoes.", more=True, guess=True),
        Ask(
            "cup_expanders",
            "cup expanders",
            "Springs or cups inside the wheel cylinder that hold its lips out.",
            "flag",
            more=True,
        ),
        Ask("give_cm3_per_mpa", "drum's give", "Fluid it takes as drum and shoes yield.", more=True, guess=True),
    ],
}

HOSE_KINDS = (("rubber", "rubber"), ("braided", "braided"))
HOSE = [
    Ask("kind", "hose", "Rubber swells; a braided one swells less.", "choice", choices=HOSE_KINDS),
    Ask("length_mm", "length of one", "Of the flexible part, fitting to fitting."),
    Ask("count", "how many", "", "count"),
    Ask("age_years", "age", "From the date moulded on it."),
    Ask("coefficient_cm3_per_m_mpa", "growth", "If its maker states it.", more=True, guess=True),
]
MATERIALS = (("steel", "coated steel"), ("copper_nickel", "copper-nickel"), ("stainless", "stainless steel"))
HARD_LINE = [
    Ask("material", "hard line", "", "choice", choices=MATERIALS),
    Ask("length_mm", "length in all", "All of it that leads to these brakes."),
    Ask("outer_mm", "outside", "Across the tube."),
    Ask("wall_mm", "wall", "Of the tube.", more=True),
]
LINES_MORE = [
    Ask("air_cm3", "air known to be in it", "Left out: none.", more=True),
    Ask("fluid_volume_cm3", "fluid in it", "Left out: lines, hoses, and behind the pistons.", more=True),
    Ask("bulk_modulus_gpa", "fluid's stiffness", "Bulk modulus, if you know it.", more=True, guess=True),
]
DEVICE_KINDS = (
    ("proportioning", "proportioning valve"), ("limiting", "limiting valve"), ("load_sensing", "load sensing valve"),
    ("deceleration_sensing", "deceleration sensing valve"), ("metering", "metering valve"), ("residual", "residual valve"),
    ("regulator", "pressure regulator"), ("line_lock", "line lock"), ("park_valve", "parking valve"), ("switch", "pressure switch"),
)  # fmt: skip
DEVICE: dict[str, list[Ask]] = {
    "proportioning": [
        Ask("knee_kpa", "knee", "Inlet pressure above which less is passed."),
        Ask("slope", "slope above it", "Share of the rise that is passed."),
        Ask("bypass", "opens with the front lost", "A combination valve's bypass.", "flag", more=True),
        Ask("adjustable", "adjustable", "It has a knob or a screw.", "flag", more=True),
    ],
    "limiting": [
        Ask("setting_kpa", "setting", "Pressure it does not pass."),
        Ask("adjustable", "adjustable", "It has a knob or a screw.", "flag", more=True),
    ],
    "regulator": [
        Ask("setting_kpa", "setting", "Pressure it does not pass."),
        Ask("adjustable", "adjustable", "It has a knob or a screw.", "flag", more=True),
    ],
    "load_sensing": [
        Ask("knee_kpa", "knee", "At the reference load."),
        Ask("coefficient_kpa_per_n", "rise", "Of the knee with the rear load."),
        Ask("reference_rear_load_n", "reference load", "On the rear axle."),
        Ask("slope", "slope above it", "Share of the rise that is passed."),
    ],
    "deceleration_sensing": [Ask("decel_g", "acts at", "Deceleration."), Ask("slope", "slope above it", "Share that is passed.")],
    "metering": [Ask("hold_kpa", "holds to", "Pressure."), Ask("blend_kpa", "all passed from", "Pressure.")],
    "residual": [Ask("pressure_kpa", "holds", "Usual: 2 psi for discs, 10 psi for drums.")],
    "line_lock": [],
    "park_valve": [],
    "switch": [Ask("pressure_kpa", "lights at", "Pressure.")],
}
FLUIDS = (("DOT 3", "DOT 3"), ("DOT 4", "DOT 4"), ("DOT 5", "DOT 5, silicone"), ("DOT 5.1", "DOT 5.1"))

VEHICLE = [
    Ask("wheelbase_mm", "wheelbase", "Front wheel's centre to rear wheel's centre.", line=True),
    Ask("grip_front", "grip, front", "Of the tyres on the road you judge by.", stand_in="grip", line=True),
    Ask("grip_rear", "grip, rear", "Of the tyres on the road you judge by.", stand_in="grip", line=True),
    Ask("track_mm", "track", "Middle of one tyre to the middle of the other, on the same axle.", more=True),
    Ask("sliding_factor", "grip left when sliding", "Of the peak.", more=True, guess=True),
    Ask("rotating_share", "turning mass", "Wheels and shafts, as a share of the whole.", more=True, guess=True),
]
LOAD_STATE = [
    Ask("name", "loaded with", "", "text"),
    Ask("mass_kg", "mass", "On scales, with driver and fuel.", line=True),
    Ask("front_share", "share on the front", "Front axle's weight over the whole.", stand_in="front_share", line=True),
    Ask(
        "cg_height_mm",
        "height of the centre of gravity",
        "From the ground; lift one axle to find it.",
        stand_in="cg_height",
        line=True,
    ),
]
TRAILER = [
    Ask("trailer.mass_kg", "trailer, mass", "On scales, as it is towed.", more=True),
    Ask("trailer.braked_share", "trailer, own braking", "Share of its own stop that its brakes do; none is 0.", more=True),
    Ask("trailer.nose_kg", "trailer, nose load", "On the hitch, standing, with a bathroom scale under it.", more=True),
    Ask("trailer.hitch_behind_axle_mm", "hitch behind the rear axle", "Rear wheel's centre to the ball.", more=True),
    Ask("trailer.hitch_height_mm", "hitch height", "Ground to the ball's middle.", more=True),
]


def load_state(vehicle: str) -> list[Ask]:
    """What to measure of a load state of a `vehicle`; what may pull a trailer is asked for that too."""
    return [*LOAD_STATE, *TRAILER] if vehicle in ("car", "truck") else LOAD_STATE


TYRE = Ask("tyre", "tyre", "As on its side: 185/60R15.", "text", line=True)
RADIUS = Ask("rolling_radius_mm", "rolling radius", "Left out: from the tyre's size.", more=True)


def quantity_of(kind: type[BaseModel], name: str) -> Quantity | None:
    """The quantity that a dotted field `name` of a model `kind` holds, alone or in a list; None for words and flags."""
    head, _, rest = name.partition(".")
    info = kind.model_fields[head]
    if rest and not rest.isdigit():
        inner = next(a for a in (info.annotation, *typing.get_args(info.annotation)) if _is_model(a))
        return quantity_of(inner, rest)
    found = [m for m in info.metadata if isinstance(m, Quantity)]
    waiting: list[Any] = list(typing.get_args(info.annotation))
    while waiting and not found:
        part = waiting.pop(0)
        found = [m for m in getattr(part, "__metadata__", ()) if isinstance(m, Quantity)]
        waiting += typing.get_args(part)
    return found[0] if found else None


def _is_model(kind: Any) -> bool:
    return isinstance(kind, type) and issubclass(kind, BaseModel)


def entry_of(part: BaseModel | None, name: str) -> Any:
    """What stands in the dotted field `name` of a `part`; None where there is nothing."""
    here: Any = part
    for step in name.split("."):
        here = None if here is None else here[int(step)] if step.isdigit() else getattr(here, step)
    return here


def default_of(part: BaseModel, name: str, quantity: Quantity | None, fluid: str) -> Known | None:
    """The usual value that stands in for the field `name` of a `part` when it is left out; None when there is none."""
    if quantity is not None and quantity.assumed is not None:
        return ASSUMED[quantity.assumed]
    if name == "caliper_give_um_per_mpa" and isinstance(part, DiscBrake) and part.caliper is not None:
        return ASSUMED[f"disc.give_{part.caliper}"]
    if name == "coefficient_cm3_per_m_mpa" and isinstance(part, Hose) and part.kind is not None:
        return ASSUMED[f"hose.{part.kind}"]
    if name == "bulk_modulus_gpa":
        return ASSUMED["fluid.bulk_silicone" if fluid == "DOT 5" else "fluid.bulk"]
    return None

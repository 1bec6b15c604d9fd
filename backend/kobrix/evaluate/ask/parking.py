"""parking_brake: the lever, the cable and the axle it holds."""

from kobrix.core.errors import BadEntry, Impossible
from kobrix.core.fit.parking import PULL, ParkingAnswer, Vehicle, parking_brake
from kobrix.core.physics import drum, tyres
from kobrix.fileformat.asked import Asked

SHOES = ("leading_trailing", "two_leading", "duo_servo")


def _radius(asked: Asked) -> float:
    if asked.given("rolling_radius_mm") or not asked.given("tyre"):
        return asked.number("rolling_radius_mm") / 1000
    try:
        return float(tyres.from_code(asked.text("tyre")).rolling_radius)
    except (BadEntry, Impossible) as error:
        raise asked.bad("tyre", str(error)) from None


def _torque(actuator: Asked, kind: str, cable: float) -> tuple[float, float]:
    """The actuator's force [N] at each shoe or pad, and the torque [N·m] of one wheel, or of the shaft."""
    if kind == "clamp":
        force = actuator.number("clamp_n", "zero")
    else:
        force = cable * actuator.number("lever_ratio") * actuator.default("efficiency", 0.9)
    if kind != "shoes":
        return force, 2 * actuator.number("friction") * force * actuator.number("effective_radius_mm") / 1000
    if actuator.given("c_star"):
        factor = actuator.number("c_star")
    else:
        word = actuator.word("shoes", SHOES)
        friction, k = actuator.number("friction"), actuator.default("shoe_k", 0.8)
        if friction >= k:
            raise actuator.bad("friction", f"{friction:g} was given; at {k:g} and above the shoe locks itself.")
        factor = float(drum.shoe_factor(word, friction, k))  # type: ignore[arg-type]
    return force, force * factor * actuator.number("drum_diameter_mm") / 2000


def parking(asked: Asked) -> ParkingAnswer:
    """parking_brake: force, grade held, and what it stops with alone."""
    front = asked.word("axle", ("front", "rear"), "rear") == "front"
    actuator = asked.part("actuator")
    kind = actuator.word("kind", ("caliper", "shoes", "clamp"))
    pull, allowed, cable = None, PULL["hand"], 0.0
    ratio = actuator.default("axle_ratio", 1.0)
    shaft = abs(ratio - 1) > 1e-9
    if kind != "clamp":
        control = asked.part("control")
        word = control.word("kind", tuple(PULL), "hand")
        allowed = PULL[word]
        pull = control.default("pull_n", allowed)
        cable = pull * control.number("lever_ratio") * control.default("lever_efficiency", 0.95)
        cable *= asked.default("cable_efficiency", 0.85) / (1 if shaft else 2)
    force, torque = _torque(actuator, kind, cable)
    part = asked.part("vehicle")
    share = part.number("front_share")
    if share >= 1:
        raise part.bad("front_share", f"{share:g} was given; allowed is between 0 and 1.")
    chi = part.number("cg_height_mm") / part.number("wheelbase_mm")
    vehicle = Vehicle(part.number("mass_kg"), share, chi, part.number("grip"), _radius(asked))
    whole = torque * ratio if shaft else 2 * torque
    out = parking_brake(vehicle, front, whole, asked.default("grade", 0.20, "zero"), pull, allowed)
    if kind != "clamp":
        out["cable_force_n"] = cable
        out["shoe_force_n" if kind == "shoes" else "clamp_n"] = force
    return out

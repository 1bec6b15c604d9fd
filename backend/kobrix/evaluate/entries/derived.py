"""What follows at once from the entries of one section of the sheet, as lines of words and figures."""

import math
from typing import Any

from kobrix.core.constants import PUBLISHED, assumed
from kobrix.core.errors import KobrixError
from kobrix.core.physics import disc, drum, lines, linkage, tyres
from kobrix.core.physics.control import pedal_ratio
from kobrix.core.physics.cylinder import bore_area
from kobrix.evaluate.entries.shapes import Derived
from kobrix.evaluate.to_core import linkage_of, value
from kobrix.fileformat import models
from kobrix.fileformat.quantities import Typed, si
from kobrix.fileformat.stations import DiscBrake, Station

TRIAL = 7e6  # Pa: a firm stop's line pressure, at which the growth of hoses is said


def _line(label: str, text: str, note: str = "") -> Derived:
    return {"label": label, "text": text, "note": note}


def _mm(metres: float) -> str:
    return f"{metres * 1e3:.1f} mm"


def _control(part: models.Control) -> list[Derived]:
    if part.pivot_to_pad_mm is None or part.pivot_to_pin_mm is None:
        return []
    if part.linkage is not None:
        return _linkage(part)
    ratio = pedal_ratio(si(part.pivot_to_pad_mm, "pivot_to_pad_mm"), si(part.pivot_to_pin_mm, "pivot_to_pin_mm"))
    return [_line("ratio from these", f"{ratio:.2f} : 1")]


def _linkage(part: models.Control) -> list[Derived]:
    """The ratio at rest and further in, and how far the rod stands off the bore's axis, of a `part` with a linkage."""
    assert part.linkage is not None and part.pivot_to_pad_mm is not None and part.pivot_to_pin_mm is not None
    try:
        link = linkage_of(part.linkage, si(part.pivot_to_pin_mm, "pivot_to_pin_mm"), "control")
    except KobrixError as error:
        return [_line("no ratio yet", "", str(error))]
    pad = si(part.pivot_to_pad_mm, "pivot_to_pad_mm")
    found = []
    for label, stroke in (("at rest", 0.0), ("20 mm in", 0.02)):
        ratio, angle = float(linkage.ratio_at(link, pad, stroke)), float(linkage.rod_angle(link, stroke))
        text = f"{ratio:.2f} : 1" if math.isfinite(ratio) else "past its dead point"
        found.append(
            _line(f"ratio {label}", text, f"rod {math.degrees(angle):.1f}° off the bore" if math.isfinite(ratio) else "")
        )
    return found


def _bore(bore: Typed | None, label: str) -> list[Derived]:
    if bore is None:
        return []
    area = bore_area(si(bore, "bore_mm"))
    return [_line(label, f"{area * 1e4:.2f} cm²", f"1000 N on the rod gives {1000.0 / float(area) / 1e6:.2f} MPa before losses")]


def _cylinder(part: Any) -> list[Derived]:
    if isinstance(part, models.TwinCylinder):
        return _bore(part.front.bore_mm, "front piston area") + _bore(part.rear.bore_mm, "rear piston area")
    return _bore(part.bore_mm, "piston area")


def _brake(station: Station) -> list[Derived]:
    part, found = station.brake, []
    if isinstance(part, DiscBrake):
        if part.pistons_mm:
            area = disc.side_area([si(d, "pistons_mm") for d in part.pistons_mm])
            found.append(_line("piston area, one side", f"{area * 1e4:.2f} cm²", "one side's area clamps, however many pistons"))
        if part.rotor_diameter_mm is not None and part.pad_height_mm is not None:
            radius = disc.effective_radius(
                si(part.rotor_diameter_mm, "rotor_diameter_mm"), si(part.pad_height_mm, "pad_height_mm"),
                value(part.edge_inset_mm, "edge_inset_mm", "disc.edge_inset"), part.radius_rule,
            )  # fmt: skip
            found.append(_line("effective radius", _mm(float(radius))))
        return found
    if part.wheel_cylinder_mm is not None:
        found.append(_line("wheel cylinder area", f"{bore_area(si(part.wheel_cylinder_mm, 'wheel_cylinder_mm')) * 1e4:.2f} cm²"))
    if part.shoes is not None and part.friction is not None and part.friction.cold is not None:
        k = value(part.shoe_k, "shoe_k", "drum.shoe_k")
        found.append(_line("shoe factor C*", f"{drum.shoe_factor(part.shoes, si(part.friction.cold, 'friction'), k):.2f}"))
    return found


def _lines(system: models.System) -> list[Derived]:
    found = []
    for station in system.stations:
        hoses = [h for h in (station.lines.hoses if station.lines else []) if h.length_mm is not None and h.kind is not None]
        if not hoses:
            continue
        length = sum(si(h.length_mm, "length_mm") * h.count for h in hoses if h.length_mm is not None)
        grown = sum(
            float(lines.hose_give(value(h.coefficient_cm3_per_m_mpa, "coefficient_cm3_per_m_mpa", f"hose.{h.kind}"),
                                  si(h.length_mm, "length_mm"), h.count))
            for h in hoses if h.length_mm is not None
        )  # fmt: skip
        ceiling = PUBLISHED["hose_ceiling"].value * length
        note = f"the law's ceiling for regular hose: {ceiling * TRIAL * 1e6:.2f} cm³ (FMVSS 106, from memory)"
        found.append(_line(f"{station.name} hoses grow, at 7 MPa", f"{grown * TRIAL * 1e6:.2f} cm³", note))
    return found


def _vehicle(setup: models.Setup) -> list[Derived]:
    found = []
    for state in setup.vehicle.load_states:
        if state.mass_kg is not None and state.front_share is not None:
            mass, share = si(state.mass_kg, "mass_kg"), si(state.front_share, "front_share")
            found.append(_line(f"axles, {state.name}", f"{mass * share:.0f} and {mass * (1.0 - share):.0f} kg", "front and rear"))
    sizes = {s.tyre: s for system in setup.systems for s in system.stations if s.tyre}
    for code in sizes:
        try:
            tyre = tyres.from_code(code)
        except KobrixError:
            continue
        note = "the aspect is our estimate: measure the radius" if tyre.estimated else ""
        found.append(_line(code, f"{tyre.diameter * 1e3:.0f} mm across, rolls on {tyre.rolling_radius * 1e3:.1f} mm", note))
    return found


def derived(setup: models.Setup, key: str) -> list[Derived]:
    """Lines {label, text, note} that follow from the entries of the section by `key` of a `setup`."""
    kind, _, rest = key.partition(".")
    if kind == "vehicle":
        return _vehicle(setup)
    places = [int(n) for n in rest.split(".") if n.isdigit()]
    system = setup.systems[places[0]]
    if ".second." in rest:
        second = system.seconds[places[1]][1]
        return _control(second.control) if kind in ("control", "linkage") else _cylinder(second.cylinder)
    if kind in ("control", "linkage"):
        return _control(system.control)
    if kind == "booster":
        return _booster(system.booster)
    if kind == "cylinder":
        return _cylinder(system.cylinder)
    return _brake(system.stations[places[1]]) if kind == "brake" else _lines(system)


def _booster(part: models.Booster | None) -> list[Derived]:
    if part is None or part.nominal_diaphragms_mm is None or part.diaphragms_mm is not None:
        return []
    share = assumed("booster.effective_of_nominal")
    return [_line("effective diameter", f"{share:g} of the shell's", "our estimate: enter the maker's, if there is one")]

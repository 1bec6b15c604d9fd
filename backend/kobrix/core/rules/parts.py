"""Rules about parts, learned at the bench: circuits, pins, residual valves, valves in series, rods, hoses, rotors, fluids."""

import numpy as np

from kobrix.core.constants import PUBLISHED
from kobrix.core.physics.chain import Station, System, whole_stroke
from kobrix.core.physics.disc import Disc
from kobrix.core.physics.linkage import largest_rod_angle
from kobrix.core.physics.valves import Passive, Proportioning
from kobrix.core.rules.limits import (
    HOSE_YEARS,
    PIN_MOVED,
    PSI,
    RATIO_MANUAL,
    RATIO_POWER,
    RESIDUAL_DISC,
    ROD_ANGLE,
    Bench,
    Judgement,
)

_PRACTICE = "common practice"


def one_circuit(bench: Bench) -> list[Judgement]:
    """One circuit for all brakes of `bench` [record] is one leak from none."""
    only = len(bench.solved.systems) == 1 and bench.solved.systems[0]
    if not only or only.cylinder.kind != "single" or only.control.kind != "car_pedal":
        return []
    text = "One circuit feeds all brakes.", "One leak loses them all; a tandem cylinder keeps half."
    return [Judgement("one_circuit", "caution", *text, f"{_PRACTICE}; law for most cars")]


def pin_move(bench: Bench) -> list[Judgement]:
    """A moved pin of `bench` [record] against the one as found: the cylinder's mounting moves with it."""
    out = []
    for system in bench.solved.systems:
        before = next((s for s in (bench.found.systems if bench.found else ()) if s.name == system.name), None)
        if before is None:
            continue
        moved = float(before.control.pivot_to_pin) - float(system.control.pivot_to_pin)
        if abs(moved) >= PIN_MOVED:
            text = f"Move the cylinder's mounting by the same {abs(moved) * 1e3:.0f} mm{{of}}.", "Else the rod runs crooked."
            out.append(
                Judgement(
                    f"pin_move{bench.tag(system.name)}", "note", *text, _PRACTICE, moved, None, "m", system.name, "pin_move"
                )
            )
    return out


def rod_angle(bench: Bench) -> list[Judgement]:
    """Rods of `bench` [record] that run crooked to the bore somewhere in the stroke."""
    out = []
    for system in bench.solved.systems:
        link, stroke = system.control.linkage, whole_stroke(system)
        if link is None or stroke is None:
            continue
        worst = float(np.nan_to_num(largest_rod_angle(link, stroke)))
        if worst > ROD_ANGLE:
            text = (
                f"The rod runs {np.degrees(worst):.1f}° crooked to the bore{{of}}.",
                "Above 3° it wears bore and seal on one side.",
            )
            out.append(
                Judgement(
                    f"rod_angle{bench.tag(system.name)}",
                    "caution",
                    *text,
                    _PRACTICE,
                    worst,
                    ROD_ANGLE,
                    "rad",
                    system.name,
                    "rod_angle",
                )
            )
    return out


def residual(bench: Bench) -> list[Judgement]:
    """Residual valves of `bench` [record] against the brakes they feed."""
    out = []
    for system in bench.solved.systems:
        height = bench.facts.heights.get(system.name)
        for station in (s for s in system.stations if s.owner is None):
            held = [d.pressure for d in station.devices if isinstance(d, Passive) and d.kind == "residual"]
            if not isinstance(station.brake, Disc):
                out += _drum_without(bench, system, station, bool(held))
                continue
            for pressure in held:
                if pressure is None or float(pressure) > RESIDUAL_DISC:
                    name = "The" if pressure is None else f"The {float(pressure) / PSI:.0f} psi"
                    text = (
                        f"{name} residual valve at the {station.name} must go.",
                        "Made for drums: it holds disc pads on. Some fit it to front discs too; we do not.",
                    )
                    out.append(Judgement(f"residual_{station.name}", "caution", *text, f"{_PRACTICE}: 2 psi discs, 10 psi drums",
                                         pressure if pressure is None else float(pressure), RESIDUAL_DISC, "Pa", system.name, "residual", "too_much",
                                         links=("valves",)))  # fmt: skip
            if height is not None and height < 0.0 and not held:
                text = (
                    f"The cylinder sits below the {station.name} brakes.",
                    "A 2 psi residual valve keeps fluid from running back.",
                )
                out.append(Judgement(f"residual_{station.name}", "note", *text, _PRACTICE, rule="residual"))
    return out


def _drum_without(bench: Bench, system: System, station: Station, held: bool) -> list[Judgement]:
    """Drums that draw air past their cups when the pedal is let go: without a residual valve, cup expanders or a head of fluid."""
    height, cups = bench.facts.heights.get(system.name), bench.facts.cup_expanders.get(station.name)
    if held or not (cups is False or (height is not None and height < 0.0)):
        return []
    why = "its wheel cylinders have no cup expanders" if cups is False else "the cylinder sits below them"
    text = (
        f"The {station.name} drums have no residual valve, and {why}.",
        "About 10 psi keeps the cups against the bore and air out.",
    )
    return [
        Judgement(
            f"residual_{station.name}",
            "note",
            *text,
            _PRACTICE,
            system=system.name,
            rule="residual",
            kind="drum",
            links=("valves",),
        )
    ]


def valves_in_series(bench: Bench) -> list[Judgement]:
    """Two proportioning valves in one line of `bench` [record] multiply; one in the front line hastens rear lock."""
    out = []
    for station in (s for system in bench.solved.systems for s in system.stations if s.owner is None):
        if sum(isinstance(d, Proportioning) for d in station.devices) > 1:
            text = f"Two proportioning valves in the {station.name} line.", "In series their slopes multiply: take one out."
            out.append(Judgement(f"series_{station.name}", "caution", *text, _PRACTICE, rule="series"))
        if station.axle == "front" and any(isinstance(d, Proportioning) for d in station.devices):
            text = f"A proportioning valve in the {station.name} line.", "It belongs in the rear line: here it hastens rear lock."
            out.append(Judgement(f"valve_{station.name}", "caution", *text, _PRACTICE, rule="valve"))
        if station.axle == "rear" and any(isinstance(d, Passive) and d.kind == "line_lock" for d in station.devices):
            text = f"A line lock in the {station.name} line.", "It belongs in the front line."
            out.append(Judgement(f"line_lock_{station.name}", "caution", *text, _PRACTICE, rule="line_lock"))
    return out


def rod_retained(bench: Bench) -> list[Judgement]:
    """A pushrod of `bench` [record] that can fall out loses the brakes."""
    if all(bench.facts.retained.values()):
        return []
    text = "The pushrod is not retained.", "If it falls out all braking is gone: it must have a stop or clip."
    return [Judgement("rod_retained", "danger", *text, _PRACTICE)]


def pedal_ratio(bench: Bench) -> list[Judgement]:
    """The ratios of `bench` [record] against what is usual with and without a booster."""
    out = []
    for system in bench.solved.systems:
        if system.control.kind != "car_pedal":
            continue
        power = system.booster is not None
        low, high = RATIO_POWER if power else RATIO_MANUAL
        ratio = float(system.control.ratio)
        if low <= ratio <= high:
            continue
        kind = "with a booster" if power else "without a booster"
        reason = f"Usual {kind} is {low:g} to {high:g}; some say 5, 6 or 7 to one. We follow the effort and travel it gives, not the rule."
        out.append(
            Judgement(
                f"pedal_ratio{bench.tag(system.name)}",
                "note",
                f"The pedal ratio is {ratio:.2f}{{of}}.",
                reason,
                _PRACTICE,
                ratio,
                high,
                "1",
                system.name,
                "pedal_ratio",
            )
        )
    return out


def hose_age(bench: Bench) -> list[Judgement]:
    """Old hoses of `bench` [record] swell inside and out."""
    out = []
    for station, years in bench.facts.hose_years.items():
        if years > HOSE_YEARS:
            text = (
                f"The {station} hoses are {years:.0f} years old.",
                "Old hoses swell, and may collapse inside and hold a brake on; the date is on the hose.",
            )
            out.append(Judgement(f"hose_age_{station}", "caution", *text, _PRACTICE, years, HOSE_YEARS, rule="hose_age"))
    return out


def hose_growth(bench: Bench) -> list[Judgement]:
    """Hoses of `bench` [record] that swell more than a new one may."""
    ceiling, out = PUBLISHED["hose_ceiling"], []
    for station, give in bench.facts.hose_gives.items():
        if give > ceiling.value:
            text = (
                f"The {station} hoses swell {give * 1e12:.2f} cm³ per metre and MPa; a new one may {ceiling.value * 1e12:.2f}.",
                "More than the legal ceiling of a new hose: they are tired.",
            )
            out.append(
                Judgement(f"hose_growth_{station}", "caution", *text, ceiling.source, give, ceiling.value, rule="hose_growth")
            )
    return out


def rotor_thickness(bench: Bench) -> list[Judgement]:
    """Rotors of `bench` [record] against the least thickness that is stated for them."""
    out = []
    for station, (thickness, least) in bench.facts.rotors.items():
        if least is not None and thickness < least:
            text = (
                f"The {station} rotor is {thickness * 1e3:.1f} mm thick; the least is {least * 1e3:.1f} mm.",
                "Below the maker's figure it may crack, and worn pads let a piston out.",
            )
            out.append(
                Judgement(
                    f"rotor_{station}", "danger", *text, "the figure entered from the maker", thickness, least, rule="rotor"
                )
            )
    return out


def reservoir(bench: Bench) -> list[Judgement]:
    """Reservoirs of `bench` [record] against what worn pads take."""
    out = []
    for system in bench.solved.systems:
        for chamber in system.cylinder.chambers:
            held = bench.facts.reservoirs.get(chamber.name)
            fed = [f.station for f in chamber.feeds]
            if held is None or any(name not in bench.facts.wear for name in fed):
                continue
            asked = 1.2 * sum(bench.facts.wear[name] for name in fed)
            if held < asked:
                text = (
                    f"The {chamber.name} reservoir holds {held * 1e6:.0f} cm³; worn pads ask for {asked * 1e6:.0f} cm³.",
                    "It would run dry before the pads are worn; reservoirs made for drums are small.",
                )
                out.append(
                    Judgement(
                        f"reservoir_{chamber.name}",
                        "caution",
                        *text,
                        "wear volume with a fifth to spare",
                        held,
                        asked,
                        rule="reservoir",
                    )
                )
    return out


def silicone(bench: Bench) -> list[Judgement]:
    """Silicone fluid in `bench` [record] is softer and does not mix."""
    if "DOT 5" not in bench.facts.fluids.values():
        return []
    text = "Silicone fluid (DOT 5).", "Softer than glycol, holds no water and must never be mixed with it: flush everything."
    return [Judgement("silicone", "note", *text, _PRACTICE)]

"""Rules about heat: rotors and fluid in the row of stops, against the most that their makers state."""

from kobrix.core.figures import Level
from kobrix.core.physics.heat import wet_boiling
from kobrix.core.rules.limits import FLUID_MARGIN, PAD_MARGIN, Bench, Judgement


def temperatures(bench: Bench) -> list[Judgement]:
    """What rotors, pads and fluid of `bench` [record] reach in the row of stops; without a stated most of the pads no verdict on them."""
    out = []
    for system in bench.solved.systems:
        for station in (s for s in system.stations if s.owner is None and s.name in bench.heats):
            own = bench.heats[station.name]
            most = bench.facts.pad_most.get(station.name)
            if most is not None and own.peak > most - PAD_MARGIN:
                level: Level = "caution" if own.peak > most else "note"
                head = f"The {station.name} rotor reaches {own.peak:.0f} °C in the row of stops; the pads' maker states {most:.0f} °C."
                out.append(Judgement(f"pad_heat_{station.name}", level, head, "Past it the pads fade; a heavier rotor, air to it or other pads help.",
                                     "the maker's figure as entered", own.peak, most, "°C", system.name, "pad_heat", links=("rotors",)))  # fmt: skip
            fluid = bench.facts.fluids.get(system.name, "DOT 4")
            boils = bench.facts.fluid_most.get(system.name, wet_boiling(fluid))
            if own.fluid > boils - FLUID_MARGIN:
                level = "caution" if own.fluid > boils else "note"
                stated = "its maker states" if system.name in bench.facts.fluid_most else f"wet {fluid} boils at"
                head = f"The fluid behind the {station.name} pads reaches about {own.fluid:.0f} °C; {stated} {boils:.0f} °C."
                out.append(Judgement(f"fluid_heat_{station.name}", level, head, "Boiling fluid is a pedal on the floor; the estimate is rough.",
                                     "our estimate; FMVSS 116, from memory", own.fluid, boils, "°C", system.name, "fluid_heat", links=("brakes",)))  # fmt: skip
    return out

"""The table of names holds every field of the records of physics, in both directions."""

import re
import unittest
from dataclasses import fields, is_dataclass
from typing import Any

from kobrix.core.numerics import uncertainty
from kobrix.core.physics import (
    booster,
    chain,
    control,
    cylinder,
    disc,
    drum,
    heat,
    lines,
    linkage,
    road,
    tyres,
    valves,
    vehicle,
)
from kobrix.core.search import sweep

from tests.cases import ROOT

RECORDS: tuple[Any, ...] = (
    vehicle.Load, vehicle.Trailer, road.Moment, control.Control, linkage.Linkage, booster.Booster, cylinder.Cylinder, cylinder.Chamber,
    cylinder.Feed, valves.Metering, valves.Proportioning, valves.Limiting, valves.LoadSensing, valves.DecelSensing,
    valves.Passive, lines.Lines, disc.Disc, drum.Drum, chain.Station, chain.System, chain.ForceLine,
    tyres.Tyre, heat.Rotor, heat.Step, uncertainty.Spread, sweep.Choices, sweep.Grid,
)  # fmt: skip


def sections() -> dict[str, set[str]]:
    """{heading: names in the first code spans of its rows}."""
    text = (ROOT / "docs" / "nomenclature.md").read_text(encoding="utf-8")
    found: dict[str, set[str]] = {}
    for part in text.split("\n## ")[1:]:
        heading, _, body = part.partition("\n")
        rows = [line.split("|")[2] for line in body.splitlines() if line.startswith("|")]
        found[heading] = {name for row in rows for name in re.findall(r"`(\w+)`", row)}
    return found


class Nomenclature(unittest.TestCase):
    def test_every_field_stands_under_its_record(self) -> None:
        known = sections()
        for record in RECORDS:
            self.assertTrue(is_dataclass(record))
            heading = next((h for h in known if f"`{record.__name__}`" in h), None)
            self.assertIsNotNone(heading, record.__name__)
            for field in fields(record):
                self.assertIn(field.name, known[heading or ""], f"{record.__name__}.{field.name}")

    def test_no_name_stands_there_that_the_code_does_not_have(self) -> None:
        for heading, names in sections().items():
            own = {f.name for r in RECORDS if f"`{r.__name__}`" in heading for f in fields(r)}
            self.assertEqual(names - own, set(), heading)


if __name__ == "__main__":
    unittest.main()

"""What leads to the brakes of a station: as its lines are known, and what is usual where they are not."""

import unittest
from typing import Any

from kobrix.core.fit.line_map import Branch
from kobrix.evaluate.line_places import branch_of
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup

from tests.cases import demo_job

PLAN = demo_job().setup("plan A").model_dump(exclude_unset=True)


def branch(station: int = 0, **changed: Any) -> Branch:
    document = {**PLAN, "systems": [dict(PLAN["systems"][0])]}
    stations = [dict(s) for s in document["systems"][0]["stations"]]
    system = document["systems"][0]
    for key, value in changed.items():
        (system if key == "cylinder" else stations[station])[key] = value
    system["stations"] = stations
    setup = files.check(Setup, document)
    return branch_of(setup.systems[0], setup.systems[0].stations[station])


class Branches(unittest.TestCase):
    def test_lines_that_are_known(self) -> None:
        hose, pipe = {"kind": "rubber", "length_mm": 400, "count": 1}, {"material": "steel", "length_mm": 900}
        self.assertEqual((branch(lines={"hoses": [hose, hose]}).hoses, branch(lines={"hoses": [hose, hose]}).hard), (2, False))
        self.assertEqual((branch(lines={"hard_lines": [pipe]}).hoses, branch(lines={"hard_lines": [pipe]}).hard), (0, True))

    def test_where_neither_hose_nor_pipe_is_said_a_hose_for_each_brake_and_a_hard_line_stand_in(self) -> None:
        for lines in (None, {}, {"fluid_volume_cm3": 90}, {"hoses": [], "hard_lines": [], "air_cm3": 1}):
            own = branch(lines=lines)
            self.assertEqual((own.ends, own.hoses, own.hard), (2, 2, True), lines)

    def test_how_many_ports_feed_a_station(self) -> None:
        tandem = {**PLAN["systems"][0]["cylinder"]}
        self.assertEqual((branch().lanes, branch().sharing), (1, "alone"))
        self.assertEqual(branch(cylinder={**tandem, "circuits": "diagonal"}).lanes, 2)
        feeds = [
            {"name": "a", "feeds": [{"station": "front", "wheels": 2}]},
            {"name": "b", "feeds": [{"station": "rear", "wheels": 2}]},
        ]
        self.assertEqual(branch(cylinder={**tandem, "circuits": feeds}).lanes, 1)
        single = {"kind": "single", "bore_mm": "3/4 in", "stroke_mm": 30}
        self.assertEqual([branch(n, cylinder=single).sharing for n in (0, 1)], ["first", "next"])


if __name__ == "__main__":
    unittest.main()

"""The chances of many setups looked at together, against each looked at by itself."""

import unittest
from dataclasses import replace

from kobrix.core.errors import KobrixError
from kobrix.evaluate.as_found import as_found_trials
from kobrix.evaluate.uncertainty import FEWER
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import Edit, set_at
from kobrix.stages.match.chances import Joint, uncertainty_of
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import Run
from kobrix.stages.match.space import edited

from tests.cases import every_layout

LINKAGE = {"rest_angle_deg": -90, "sense": 1, "bore_point_mm": [0, -44], "bore_direction_deg": 0, "rod_mm": 120}


class Together(unittest.TestCase):
    def test_each_has_the_chance_that_it_has_alone(self) -> None:
        looked: set[float] = set()
        for job in every_layout():
            for name in job.names:
                try:
                    run = Run(job, Search(setup=name))
                except KobrixError as refused:  # several controls and the like are asked one by one
                    self.assertTrue(str(refused))
                    continue
                setup, strict = run.job.setup(name), run.space.bounds
                loose = replace(
                    strict, effort=900.0, first_lock=0.2, sharing=False, lift=False, left=strict.left and 0.3 * strict.left
                )
                others = self.others(setup)
                found = as_found_trials(run.job, FEWER, 3)
                for bounds in (strict, loose):
                    joint = Joint(run.job, name, bounds, 3, FEWER, found)
                    for edits in others:
                        mine = joint.chance(edits)
                        alone = uncertainty_of(run.job, name, edited(setup, edits), bounds, 3, FEWER, found)["joint_chance"]
                        self.assertAlmostEqual(mine, alone or 0.0, places=12, msg=f"{job.name} {name} {edits}")
                        looked.add(round(mine, 3))
        self.assertGreater(len(looked), 25)  # neither all certain nor all hopeless

    @staticmethod
    def others(setup: Setup) -> list[list[Edit]]:
        """The setup, with a longer arm, a shorter one, less grip, and with boosters, a mounting that yields, a linkage, and without valves."""
        arm = "systems.0.control.pivot_to_pad_mm"
        return [
            [], [set_at(arm, 301.0)], [set_at(arm, 268.0)], [set_at("vehicle.grip_rear", 0.7)],
            [set_at("systems.0.booster", {"kind": "vacuum", "nominal_diaphragms_mm": ["8 in"], "gain": 3.5, "cut_in_n": 40, "jump_in_n": 90, "lost_travel_mm": 1.0})],
            [set_at("systems.0.booster", {"kind": "electric", "limit_n": 2000, "gain": 2.0}), set_at("vehicle.grip_front", 1.3)],
            [set_at("systems.0.control.mount_stiffness_n_per_mm", 2000)], [set_at("systems.0.control.linkage", LINKAGE)],
            [set_at(f"systems.0.stations.{n}.devices", []) for n in range(len(setup.systems[0].stations))],
        ]  # fmt: skip


if __name__ == "__main__":
    unittest.main()

"""An empty job of each layout: its controls, axles and wheels, and nothing measured."""

import unittest
from typing import get_args

from kobrix.fileformat.layouts import Layout, new_job

# Controls with their stations and wheels, and the wheels that no brake tells of.
WANTED = {
    "car_front_rear": (["car_pedal"], [("front", 2), ("rear", 2)], None),
    "car_diagonal": (["car_pedal"], [("front", 2), ("rear", 2)], None),
    "car_twin": (["car_pedal"], [("front", 2), ("rear", 2)], None),
    "motorcycle": (["hand_lever", "motorcycle_foot"], [("front", 1), ("rear", 1)], None),
    "aircraft_nose_wheel": (["aircraft_pedal", "aircraft_pedal"], [("rear", 1), ("rear", 1)], {"front": 1, "rear": 2}),
    "aircraft_tail_wheel": (["aircraft_pedal", "aircraft_pedal"], [("front", 1), ("front", 1)], {"front": 2, "rear": 1}),
    "trials_car": (["car_pedal"], [("front", 2), ("rear", 2)], None),
}


class Layouts(unittest.TestCase):
    def test_each_has_its_controls_axles_and_wheels(self) -> None:
        self.assertEqual(set(WANTED), set(get_args(Layout)))
        for layout in get_args(Layout):
            job = new_job("new", layout)
            controls, stations, wheels = WANTED[layout]
            setup = job.setup("as found")
            self.assertEqual([s.control.kind for s in setup.systems], controls, layout)
            self.assertEqual([(s.axle, s.wheels) for system in setup.systems for s in system.stations], stations, layout)
            self.assertEqual(job.vehicle.wheels, wheels, layout)
            self.assertEqual([s.name for s in job.vehicle.load_states], ["landing" if "aircraft" in layout else "as driven"])
            self.assertEqual((job.names, job.plans), (["as found"], []))

    def test_circuits_bar_and_levers(self) -> None:
        cylinder = {
            layout: new_job("new", layout).setup("as found").systems[0].cylinder.model_dump(exclude_unset=True)
            for layout in get_args(Layout)
        }
        self.assertEqual(
            (cylinder["car_front_rear"]["circuits"], cylinder["car_diagonal"]["circuits"]), ("front_rear", "diagonal")
        )
        self.assertEqual(cylinder["car_twin"]["bar"], {"front_share": 0.5})
        (service,) = new_job("new", "trials_car").setup("as found").systems
        self.assertEqual([name for name, _ in service.seconds], ["left lever", "right lever"])
        self.assertEqual([(f.station, f.wheels) for _, s in service.seconds for f in s.feeds or []], [("rear", 1), ("rear", 1)])


if __name__ == "__main__":
    unittest.main()

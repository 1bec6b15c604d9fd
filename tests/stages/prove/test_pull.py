"""Which side brakes more: as the question answers it, what it needs said first, every verdict in words."""

import unittest
from typing import Any

from kobrix.evaluate.ask import prove as ask_prove
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView, PullView

from tests.cases import conforms, every_layout
from tests.stages.prove.test_service import stored, with_sets


def job_with(track: float | None = 1390) -> Job:
    job = with_sets("a")
    job.vehicle.track_mm = track
    return job


def turned(offsets: list[float], **more: Any) -> list[dict[str, Any]]:
    """Stops out and back that left their line by so much, left positive."""
    return [
        {
            "set": "a",
            "speed_kmh": 80,
            "distance_m": 37.5,
            "time_s": 3.4,
            "offset_m": o,
            "direction": "out" if n % 2 == 0 else "back",
            **more,
        }
        for n, o in enumerate(offsets)
    ]


class Pull(unittest.TestCase):
    def told(self, bodies: list[dict[str, Any]], job: Job | None = None) -> PullView | None:
        view = prove_of(stored(job or job_with(), bodies))
        conforms(ProveView, view)
        return view["pull"]

    def test_it_is_the_questions_answer(self) -> None:
        bodies = turned([2.9, 2.0, 3.1, 2.2])
        told = self.told(bodies)
        assert told is not None
        load = job_with().vehicle.load_states[0]
        question = {
            "kind": "car", "mass_kg": load.mass_kg, "track_mm": 1390, "wheelbase_mm": job_with().vehicle.wheelbase_mm, "front_share": load.front_share,
            "stops": [{k: v for k, v in b.items() if k != "set"} for b in bodies],
        }  # fmt: skip
        answer: Any = ask_prove.turned(Asked(question))
        self.assertAlmostEqual(told["percent"] or 0.0, 100 * answer["vehicle"]["value"], places=9)
        self.assertEqual((told["verdict"], told["level"], told["n"]), (answer["verdict"], "caution", 4))
        self.assertRegex(told["sentence"], r"^The left brakes 1\d % more.* The road itself makes \d %\.$")

    def test_every_verdict_has_its_words(self) -> None:
        for offsets, verdict, level in (
            ([0.1, -0.1, 0.12, -0.05], "even", "good"), ([3.0, -2.0], "cannot_tell", "note"), ([-8.0, -8.1, -8.2, -8.1], "pulls", "danger"),
        ):  # fmt: skip
            told = self.told(turned(offsets))
            assert told is not None
            self.assertEqual((told["verdict"], told["level"]), (verdict, level), offsets)
        self.assertIn("right", (self.told(turned([-8.0, -8.1, -8.2, -8.1])) or {"sentence": ""})["sentence"])

    def test_without_a_track_it_says_what_it_needs_and_without_a_turn_nothing(self) -> None:
        told = self.told(turned([1.0, 1.0]), job_with(None))
        assert told is not None
        self.assertIn("It needs the track", told["sentence"])
        self.assertIsNone(self.told([{"set": "a", "speed_kmh": 80, "distance_m": 37.5}]))

    def test_struck_and_simulated_stops_do_not_count(self) -> None:
        bodies = turned([1.0, 1.1, 9.0])
        bodies[2]["simulated"] = True
        told = self.told(bodies)
        assert told is not None
        self.assertEqual(told["n"], 2)

    def test_every_layout_answers_or_says_what_it_needs(self) -> None:
        for job in every_layout():
            own = job.model_copy(update={"proving": with_sets("a").proving, "records": []})
            for set_ in own.proving.sets or []:  # type: ignore[union-attr]
                set_.setup = job.names[0]
            told = self.told(turned([1.0, 0.5, 1.2, 0.4]), own)
            assert told is not None
            self.assertGreater(len(told["sentence"]), 20)


if __name__ == "__main__":
    unittest.main()

"""Recordings at the door: looked into, stops kept once with their samples, in the job's file and out again; what is none refused."""

import csv
import io
import json
import unittest
from typing import Any

from kobrix.core.constants import KMH
from kobrix.evaluate.ask.run import ask
from kobrix.fileformat import files
from kobrix.stages.prove.shapes import ProveView, RecordingView

from tests.api.case import ApiCase
from tests.cases import conforms
from tests.recordings.test_read import drive

RAW = {"Content-Type": "application/octet-stream"}


def logged(stops: int = 2) -> bytes:
    """A logger's file of so many stops."""
    t, v = drive(stops)
    return "\n".join(
        ["time (s),speed (km/h),rotor temp front (C)", *(f"{a:.2f},{b / KMH:.3f},120" for a, b in zip(t, v, strict=True))]
    ).encode()


class Recordings(ApiCase):
    def look(self, content: bytes, query: str = "") -> RecordingView:
        told = self.client.post(f"/api/jobs/1/recordings/look{query}", content=content, headers=RAW)
        self.assertEqual(told.status_code, 200, told.text[:300])
        view: RecordingView = told.json()
        conforms(RecordingView, view)
        return view

    def test_its_stops_are_those_of_the_question_and_are_kept_once(self) -> None:
        content = logged()
        seen = self.look(content)
        self.assertEqual([c["role"] for c in seen["columns"]], ["time", "speed", "front_temperature"])
        self.assertEqual(len(seen["stops"]), 2)
        for _ in range(2):
            kept = self.client.post(
                "/api/jobs/1/recordings/keep?set=as%20found&stops=0,1&source=drive.csv", content=content, headers=RAW
            )
            self.assertEqual(kept.status_code, 201, kept.text)
        view = self.client.get("/api/jobs/1/prove").json()
        conforms(ProveView, view)
        own = [s for s in view["sets"][0]["stops"] if s["trace"]]
        self.assertEqual((len(own), view["sets"][0]["n"]), (2, 7))
        for stop, found, key in zip(own, seen["stops"], kept.json()["keys"], strict=True):
            rows = list(csv.DictReader(io.StringIO(self.client.get(f"/api/jobs/1/traces/{key}.csv").text.lstrip("\ufeff"))))
            samples = {name: [float(r[name]) for r in rows] for name in ("t_s", "speed_kmh")}
            question = {"question": "stop_trace", "samples": samples, "trigger_kmh": 72, "nominal_kmh": 80}
            told: Any = ask({"format": "kobrix-questions", "version": 1, "ask": [question]})["answers"][0]
            self.assertAlmostEqual(stop["distance_m"], told["distance_m"], delta=2e-3)
            self.assertAlmostEqual(found["distance_m"] or 0.0, told["distance_m"], delta=2e-3)
            self.assertAlmostEqual(stop["corrected_m"], told["nominal_m"], delta=5e-3)
            self.assertAlmostEqual(stop["mfdd_g"], told["mfdd_g"], delta=1e-4)
            self.assertFalse(stop["questioned"])
            self.assertIn("front rotor 120 °C", stop["around"])
            line = stop["line"]
            self.assertAlmostEqual(line["way_m"][-1], told["nominal_m"], delta=0.01)
            self.assertEqual((line["speed_kmh"][0], line["steady"]), (80.0, False))
            # put to the nominal speed with the distance, a stop takes the longer by as much as it is faster
            self.assertAlmostEqual(line["time_s"][-1], told["time_s"] * 80 / told["onset_speed_kmh"], delta=0.02 * told["time_s"])
            middle = line["decel_g"][len(line["decel_g"]) // 4 : -len(line["decel_g"]) // 4]
            self.assertAlmostEqual(sum(middle) / len(middle), told["mfdd_g"], delta=0.05 * told["mfdd_g"])

    def test_the_jobs_file_takes_the_samples_out_and_in(self) -> None:
        content = logged(1)
        self.client.post("/api/jobs/1/recordings/keep?set=as%20found&stops=0", content=content, headers=RAW)
        file = self.client.get("/api/jobs/1/file").json()
        self.assertEqual(len(file["traces"]), 1)
        files.read_file(file)
        again = self.client.post("/api/jobs", json=file)
        self.assertEqual(again.status_code, 201, again.text[:300])
        self.assertEqual(self.client.get(f"/api/jobs/{again.json()['id']}/file").json(), file)
        file["traces"][0]["speed_kmh"].pop()
        self.problem(self.client.post("/api/jobs", json=file), 422, "readings")

    def test_the_simulated_meter_is_marked_and_never_counts(self) -> None:
        before = self.client.get("/api/jobs/1/prove").json()
        for _ in range(2):
            self.assertEqual(
                self.client.post("/api/jobs/1/recordings/simulated", json={"set": "plan A, bedded"}).status_code, 201
            )
        view = self.client.get("/api/jobs/1/prove").json()
        self.assertEqual([s["n"] for s in view["sets"]], [s["n"] for s in before["sets"]])
        self.assertEqual(view["headline"], before["headline"])
        own = [s for s in view["sets"][3]["stops"] if s["simulated"]]
        middle = view["sets"][3]["predicted"]["mid_m"]
        for stop in own:  # what the model sees, a little better
            self.assertAlmostEqual(stop["distance_m"] / middle, 1 / 1.06, delta=0.08)
        self.assertEqual(len(own), 2)
        self.assertNotEqual(own[0]["distance_m"], own[1]["distance_m"])
        self.problem(self.client.post("/api/jobs/1/recordings/simulated", json={"set": "no such"}), 422, "no such")

    def test_a_person_puts_the_columns_right(self) -> None:
        content = logged(1).replace(b"time (s),speed (km/h)", b"a,b")
        self.assertIn("one of time", self.look(content)["needs"])
        said = json.dumps({"0": ["time", "s"], "1": ["speed", "km/h"]})
        self.assertEqual(len(self.look(content, f"?columns={said}")["stops"]), 1)
        for wrong in (
            '{"0": "time"}',
            "[]",
            '{"x": ["time", "s"]}',
            '{"0": ["time", "furlong"]}',
            '{"900": ["time", "s"]}',
            "{",
            '{"²": ["time", "s"]}',
        ):
            told = self.client.post("/api/jobs/1/recordings/look", params={"columns": wrong}, content=content, headers=RAW)
            self.assertIn(told.status_code, (400, 422), wrong)

    def test_what_is_no_recording_or_no_stop_of_it_keeps_nothing(self) -> None:
        for content, words in ((b"", "empty"), (b"t,v\n0,1\n0.1,=A1\n", "Line 3, column 2"), (b"<gpx>", "GPX")):
            self.problem(self.client.post("/api/jobs/1/recordings/look", content=content, headers=RAW), 422, words)
        self.problem(
            self.client.post("/api/jobs/1/recordings/keep?set=as%20found&stops=0,7", content=logged(1), headers=RAW),
            422,
            "1 to 1",
        )
        self.problem(self.client.post("/api/jobs/9/recordings/look", content=logged(1), headers=RAW), 404, "9")
        self.assertEqual(self.client.get("/api/jobs/1/traces/no-such-trace.csv").status_code, 404)
        self.assertNotIn("traces", self.client.get("/api/jobs/1/file").json())


if __name__ == "__main__":
    unittest.main()

"""Records at the door: a stop kept, kept once, struck out, in the job's file and out of it again."""

import unittest

from kobrix.stages.prove.shapes import ProveView

from tests.api.case import ApiCase
from tests.cases import conforms


class Records(ApiCase):
    def test_a_stop_is_kept_once_and_told_of(self) -> None:
        before = self.client.get("/api/jobs/1").json()
        conforms(ProveView, self.client.get("/api/jobs/1/prove").json())
        asked = {
            "key": "a-key-of-mine",
            "kind": "stop",
            "body": {"set": "as found", "speed_kmh": "50 mph", "distance_m": "120 ft"},
        }
        for _ in range(2):
            self.assertEqual(self.client.post("/api/jobs/1/records", json=asked).status_code, 201)
        after = self.client.get("/api/jobs/1").json()
        self.assertEqual(after["revision"], before["revision"])
        self.assertGreater(after["recorded"], before["recorded"])
        view = self.client.get("/api/jobs/1/prove").json()
        self.assertEqual(view["sets"][0]["n"], 6)
        struck = {"key": "another-key", "kind": "struck", "body": {"of": "a-key-of-mine", "why": "wet road"}}
        self.assertEqual(self.client.post("/api/jobs/1/records", json=struck).status_code, 201)
        self.assertEqual(self.client.get("/api/jobs/1/prove").json()["sets"][0]["n"], 5)
        self.assertIn("wet road", [r["struck"] for r in self.client.get("/api/jobs/1/records").json()])

    def test_the_file_has_them_and_brings_them_back(self) -> None:
        file = self.client.get("/api/jobs/1/file").json()
        self.assertEqual(sum(r["kind"] == "stop" for r in file["records"]), 29)
        again = self.client.post("/api/jobs", json=file)
        self.assertEqual(again.status_code, 201, again.text)
        other = self.client.get(f"/api/jobs/{again.json()['id']}/file").json()
        self.assertEqual(other, file)

    def test_what_is_no_record_is_refused_in_words(self) -> None:
        for asked, words in (
            ({"key": "short", "kind": "stop", "body": {}}, "key"), ({"key": "long-enough", "kind": "dream", "body": {}}, "kind"),
            ({"key": "long-enough", "kind": "stop", "body": {"set": "a", "speed_kmh": "fast"}}, "fast"),
            ({"key": "long-enough", "kind": "stop", "body": {"set": "a", "speed_kmh": 80}, "made_at": "yesterday"}, "made"),
        ):  # fmt: skip
            self.problem(self.client.post("/api/jobs/1/records", json=asked), 422, words)
        self.problem(
            self.client.post(
                "/api/jobs/99/records", json={"key": "long-enough", "kind": "stop", "body": {"set": "a", "speed_kmh": 80}}
            ),
            404,
            "99",
        )

    def test_the_stops_as_a_table(self) -> None:
        told = self.client.get("/api/jobs/1/stops.csv")
        self.assertEqual(len(told.text.strip().splitlines()), 30)
        self.assertIn("as found", told.text)


if __name__ == "__main__":
    unittest.main()

"""Nonsense at the door: whatever a file or a change holds, the answer is a job or a sentence, and nothing is lost."""

import copy
import json
import random
import unittest
from collections.abc import Iterator
from typing import Any

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from kobrix.demo import SETUPS
from kobrix.fileformat import LARGEST_BYTES

from tests.api.test_api import JSON, ApiCase
from tests.cases import demo_document, example_document

NASTY: tuple[Any, ...] = (
    None, True, -1, 0, 1e300, -1e-300, "", " ", "x" * 500, "7/0", "1/0 in", "900 psi", "-3 mm", "1e999 mm", "NaN", "½", "13,5", "=1+1",
    "<script>", "'; DROP TABLE jobs; --", [], {}, [[]], ["7/8"], {"cold": "hot"}, 10**400, "\u202e12 mm", "0x10 mm", "١٢ mm", "²",
)  # fmt: skip


def leaves(part: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """The way to every entry of a document."""
    found = [path] if path else []
    for key, value in part.items() if isinstance(part, dict) else enumerate(part) if isinstance(part, list) else ():
        found += leaves(value, (*path, key))
    return found


def put(document: Any, path: tuple[Any, ...], value: Any) -> Any:
    """A copy with one entry replaced."""
    own = copy.deepcopy(document)
    part = own
    for key in path[:-1]:
        part = part[key]
    part[path[-1]] = value
    return own


def each(ways: list[tuple[Any, ...]], times: int) -> Iterator[tuple[tuple[Any, ...], Any]]:
    """Every entry with so many of the values, each value in its turn."""
    turn = 0
    for path in ways:
        for _ in range(times):
            yield path, NASTY[turn % len(NASTY)]
            turn += 1


EXAMPLE, JOB = example_document(), demo_document()
WAYS, JOB_WAYS = leaves(EXAMPLE), leaves(JOB)


class Files(ApiCase):
    def answered(self, body: bytes) -> None:
        response = self.client.post("/api/jobs", content=body, headers=JSON)
        if response.status_code == 201:
            again = self.client.get(f"/api/jobs/{response.json()['id']}")
            self.assertEqual(again.status_code, 200)
        else:
            problem = self.assert_problem(response, 422)
            self.assertTrue(problem["detail"].endswith("."))
            self.assertLess(len(problem["detail"]), 6000)

    def test_one_wrong_entry_in_a_setup(self) -> None:
        for path, value in each(WAYS, 5):
            with self.subTest(path=path, value=value):
                self.answered(json.dumps(put(EXAMPLE, path, value)).encode())

    def test_one_wrong_entry_in_a_job(self) -> None:
        for path, value in each(JOB_WAYS, 1):
            with self.subTest(path=path, value=value):
                self.answered(json.dumps(put(JOB, path, value)).encode())

    def test_what_the_file_is_of(self) -> None:
        for key in ("format", "version", "name"):
            for value in NASTY:
                with self.subTest(key=key, value=value):
                    self.answered(json.dumps({**EXAMPLE, key: value}).encode())

    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
    @given(st.binary(max_size=300))
    def test_bytes(self, body: bytes) -> None:
        self.assert_problem(self.client.post("/api/jobs", content=body, headers=JSON), 422)

    def test_every_invented_vehicle_becomes_a_job(self) -> None:
        for path in SETUPS:
            response = self.client.post("/api/jobs", content=path.read_bytes(), headers=JSON)
            self.assertEqual(response.status_code, 201, response.text[:300])
            setups = self.client.get(f"/api/jobs/{response.json()['id']}/size").json()["setups"]
            self.assertTrue(all(s["solved"]["paths"] and s["findings"] for s in setups), path.name)


class Changes(ApiCase):
    @settings(max_examples=80, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
    @given(st.sampled_from(JOB_WAYS), st.sampled_from(NASTY), st.booleans())
    def test_one_wrong_change(self, path: tuple[Any, ...], value: Any, typed: bool) -> None:
        job = self.job()
        before = job["document"]
        edit = {"path": "".join(f"/{step}" for step in path)}
        edit |= {"text": str(value)[:300]} if typed else {"value": value}
        body = json.dumps({"base": job["revision"], "edits": [edit]}).encode()
        response = self.client.post("/api/jobs/1/changes", content=body, headers=JSON)
        if response.status_code == 200:
            job = response.json()["job"]
            stored = self.client.post("/api/jobs/1/undo", json={"base": job["revision"]}) if job["undo"] else None
            self.assertTrue(stored is None or stored.status_code == 200)
        else:
            self.assertIn(response.status_code, (404, 409, 413, 422), response.text[:300])
            self.assertEqual(response.headers["content-type"], "application/problem+json")
        self.assertEqual(self.job()["document"], before)

    def test_a_huge_body_is_refused_by_its_size(self) -> None:
        self.assert_problem(
            self.client.post("/api/jobs", content=b" " * (LARGEST_BYTES + 1), headers=JSON),
            413,
            f"At most {LARGEST_BYTES:,} bytes",
        )

    def test_numbers_too_great_names_too_long_and_values_too_deep_are_said(self) -> None:
        for number in (2**63, 10**30):
            for page in ("", "/size", "/stages", "/mends?setup=plan%20A"):
                self.assert_problem(self.client.get(f"/api/jobs/{number}{page}"), 404)
        self.assert_problem(self.client.post("/api/jobs/1/try", json={"setup": "nobody", "edits": []}), 404)
        self.assert_problem(self.client.get(f"/assets/{'a' * 5000}"), 404)
        for path in (".", "..", "[", "plans.²", "/", "/..", "~", "/plans/²/name", "/plans/-1"):
            for way in ("changes", "try"):
                body = (
                    {"base": 0, "edits": [{"path": path, "value": 1}]}
                    if way == "changes"
                    else {"setup": "plan A", "edits": [{"path": path, "value": 1}]}
                )
                with self.subTest(way, path=path):
                    self.assert_problem(self.client.post(f"/api/jobs/1/{way}", json=body), 422)
        deep = '{"base": 0, "edits": [{"path": "/plans/0/note", "value": ' + "[" * 900 + "]" * 900 + "}]}"
        self.assert_problem(self.client.post("/api/jobs/1/changes", content=deep.encode(), headers=JSON), 422)
        self.assertEqual(self.job()["revision"], 0)

    def test_many_edits_and_long_labels_are_refused(self) -> None:
        edits = [{"path": "/name", "value": "x"}] * 5000
        response = self.client.post("/api/jobs/1/changes", json={"base": 0, "edits": edits})
        self.assertIn(response.status_code, (413, 422))

    def altered(self, job: int, *edits: dict[str, Any]) -> Any:
        """The answer to a change of a job as it stands."""
        body = {"base": self.client.get(f"/api/jobs/{job}").json()["revision"], "edits": edits}
        return self.client.post(f"/api/jobs/{job}/changes", content=json.dumps(body).encode(), headers=JSON)

    def pages(self, job: int) -> None:
        """Every page of a job is there, and its line on the list."""
        for page in (
            "measure",
            "size",
            "match/choices?setup=as%20found",
            "fit",
            "build",
            "bleed",
            "bed",
            "prove",
            "stages",
            "card",
            "compare",
            "routes",
        ):
            response = self.client.get(f"/api/jobs/{job}/{page}")
            self.assertEqual(response.status_code, 200, f"{page}: {response.text[:200]}")

    def test_what_may_be_left_out_or_called_otherwise_shuts_no_page(self) -> None:
        self.assertEqual(self.altered(1, {"path": "/as_found/name", "value": "before"}).status_code, 200)
        self.assert_problem(self.client.get("/api/jobs/1/measure?setup=before"), 404, "as found")
        states = len(JOB["vehicle"]["load_states"])
        taken = [{"op": "remove", "path": "/vehicle/load_states/0"}] * states
        self.assertEqual(self.altered(1, *taken).status_code, 200)
        self.pages(1)
        heat = {"setup": "plan A", "load": 0, "speed_from_kmh": 100, "speed_to_kmh": 20, "stops": 2}
        self.assertLess(self.client.post("/api/jobs/1/heat", json=heat).status_code, 500)

    def test_two_controls_of_one_name_are_refused(self) -> None:
        key = next(e["key"] for e in self.client.get("/api/jobs/examples").json() if e["key"] == "trials-car")
        job = self.client.post(f"/api/jobs/examples/{key}").json()["id"]
        systems = self.client.get(f"/api/jobs/{job}").json()["document"]["as_found"]["systems"]
        names = [s["name"] for s in systems] + [
            s["second_control"][n]["name"] for s in systems for n in range(len(s.get("second_control", [])))
        ]
        self.assertGreater(len(names), 1)
        self.assert_problem(
            self.altered(job, {"path": "/as_found/systems/0/second_control/0/name", "value": names[0]}), 422, "twice"
        )

    def test_signs_that_look_like_digits_are_no_count(self) -> None:
        path = "/as_found/systems/0/stations/0/wheels"
        for text in ("²", "١", "9" * 40):
            self.assert_problem(self.altered(1, {"path": path, "text": text}), 422)
        for to in ("", "/plans/"):
            self.assert_problem(self.altered(1, {"op": "move", "path": "/plans/0", "to": to}), 422)
        self.assertEqual(
            self.altered(1, {"op": "remove", "path": "/plans/zz/systems/0"}).status_code, 200
        )  # there is nothing to remove
        self.assertEqual(self.job()["revision"], 0)

    def test_one_wrong_change_after_another_leaves_every_page(self) -> None:
        chance = random.Random(3)
        for example in self.client.get("/api/jobs/examples").json():
            job = self.client.post(f"/api/jobs/examples/{example['key']}").json()["id"]
            taken = 0
            for _ in range(40):
                ways = [
                    w
                    for w in leaves(self.client.get(f"/api/jobs/{job}").json()["document"])
                    if w[0] not in ("format", "version", "records")
                ]
                path = "".join(f"/{step}" for step in chance.choice(ways))
                edit = chance.choice(
                    [{"text": str(chance.choice(NASTY))[:300]}, {"value": chance.choice(NASTY)}, {"op": "remove"}]
                )
                response = self.altered(job, {"path": path, **edit})
                self.assertIn(response.status_code, (200, 404, 409, 413, 422), f"{path} {edit}: {response.text[:200]}")
                taken += response.status_code == 200
            self.assertGreater(taken, 3)
            self.pages(job)


if __name__ == "__main__":
    unittest.main()

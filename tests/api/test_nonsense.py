"""Nonsense at the door: whatever a file or a change holds, the answer is a job or a sentence, and nothing is lost."""

import copy
import json
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
    "<script>", "'; DROP TABLE jobs; --", [], {}, [[]], ["7/8"], {"cold": "hot"}, 10**400, "\u202e12 mm", "0x10 mm", "١٢ mm",
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


if __name__ == "__main__":
    unittest.main()

"""Many who store at once: nobody's change waits for somebody else's page."""

import threading
import unittest
from unittest import mock

from kobrix.api.at_once import AtOnce

from tests.api.case import ApiCase


class Places(unittest.TestCase):
    def test_who_waits_is_told_and_comes_in_when_a_place_is_free(self) -> None:
        places, came = AtOnce(1), threading.Event()

        def come() -> None:
            with places as waited:
                self.assertTrue(waited)
                came.set()

        other = threading.Thread(target=come)
        with places as waited:
            self.assertFalse(waited)
            self.assertFalse(places.others_wait)
            other.start()
            while not places.others_wait:
                pass
            self.assertFalse(came.is_set())
        other.join()
        self.assertEqual((came.is_set(), places.others_wait), (True, False))


class StoringBeforeShowing(ApiCase):
    def test_where_others_wait_the_change_is_stored_and_the_page_read_afterwards(self) -> None:
        body = {
            "base": 0, "label": "bore", "show": {"page": "size"},
            "edits": [{"path": "/plans/0/systems/0/cylinder/bore_mm", "text": "3/4"}],
        }  # fmt: skip
        with mock.patch.object(AtOnce, "others_wait", new_callable=mock.PropertyMock, return_value=True):
            answer = self.client.post("/api/jobs/1/changes", json=body)
            self.assertEqual((answer.status_code, answer.json()["job"]["revision"], answer.json()["shown"]), (200, 1, None))
            self.problem(
                self.client.post("/api/jobs/1/changes", json={**body, "base": 1, "show": {"page": "nowhere"}}), 404, "nowhere"
            )
        self.assertEqual(self.client.get("/api/jobs/1/size").json()["revision"], 1)
        again = self.client.post("/api/jobs/1/undo", json={"base": 1, "show": {"page": "size"}}).json()
        self.assertEqual((again["job"]["revision"], again["shown"]["revision"]), (2, 2))


if __name__ == "__main__":
    unittest.main()

"""Devices at the door: let in once they say so, by a code that works once and for ten minutes; guessing waits, and only for who guesses."""

import unittest

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.api.devices import DevicesOut
from kobrix.api.guesses import LONGEST_WAIT_S
from kobrix.api.pairing import COOKIE, LASTS_S, Pairing
from kobrix.cli.serve import _paired
from kobrix.store import devices
from kobrix.store.connection import open_db

from tests.api.case import LOCAL, ApiCase
from tests.cases import conforms

AT = "http://10.0.0.7:8420"


class Door(ApiCase):
    def setUp(self) -> None:
        super().setUp()
        self.told: list[str] = []
        self.time = 0.0
        self.begin()

    def begin(self) -> None:
        """The server as it starts over what the database knows."""
        with open_db(self.database) as db:
            known = {d.digest for d in devices.every(db)}

        def keep(name: str, digest: bytes) -> None:
            with open_db(self.database) as db:
                devices.add(db, name, digest)

        self.pairing = Pairing("10.0.0.7", 8420, self.told.append, known, keep, lambda: self.time)
        self.app = create_app(self.database, None, self.pairing)

    def phone(self, address: str = "10.0.0.20") -> TestClient:
        client = TestClient(self.app, base_url=AT, follow_redirects=False, client=(address, 5000))
        self.addCleanup(client.close)
        return client

    def code(self) -> str:
        return self.pairing.link.rpartition("/")[2]

    def test_a_device_says_so_before_the_code_is_spent(self) -> None:
        phone, code = self.phone(), self.code()
        self.problem(phone.get("/api/jobs"), 403, "not paired")
        for _ in range(3):  # what a message's preview does
            page = phone.get(f"/pair/{code}")
            self.assertEqual(page.status_code, 200)
            self.assertIn("form-action 'self'", page.headers["content-security-policy"])
        paired = phone.post(f"/pair/{code}", data={"name": "R. H.'s phone <b>"}, headers={"Origin": AT})
        self.assertEqual((paired.status_code, paired.headers["location"]), (303, "/"))
        cookie = paired.headers["set-cookie"].lower()
        self.assertTrue("httponly" in cookie and "samesite=strict" in cookie)
        self.assertEqual(phone.get("/api/jobs").status_code, 200)
        self.problem(self.phone().post(f"/pair/{code}"), 403, "wrong or was used")
        with open_db(self.database) as db:
            (own,) = devices.every(db)
        self.assertEqual(own.name, "R. H.'s phone <b>")
        self.assertNotIn(phone.cookies[COOKIE].encode(), own.digest)

    def test_it_is_known_after_a_restart_and_no_more_once_it_is_taken_off(self) -> None:
        phone = self.phone()
        phone.post(f"/pair/{self.code()}", data={"name": "tablet"})
        token = phone.cookies[COOKIE]
        self.begin()
        again = self.phone()
        again.cookies.set(COOKIE, token)
        self.assertEqual(again.get("/api/jobs").status_code, 200)
        desk = self.door(self.app, LOCAL)
        listed = desk.get("/api/devices").json()
        conforms(DevicesOut, listed)
        self.assertEqual([d["name"] for d in listed["devices"]], ["tablet"])
        self.assertEqual(desk.delete(f"/api/devices/{listed['devices'][0]['id']}").json()["devices"], [])
        self.problem(again.get("/api/jobs"), 403, "not paired")
        self.problem(desk.delete("/api/devices/99"), 404, "device")

    def test_an_undo_says_whose_step_it_is(self) -> None:
        phone, desk = self.phone(), self.door(self.app, LOCAL)
        phone.post(f"/pair/{self.code()}", data={"name": "R. H.'s phone"}, headers={"Origin": AT})
        for base, (client, label) in enumerate(((phone, "bore typed"), (desk, "pin moved"))):
            body = {"base": base, "label": label, "edits": [{"path": "/plans/0/note", "value": label}]}
            told = client.post("/api/jobs/1/changes", json=body)
            self.assertEqual(told.status_code, 200, told.text)
        self.assertEqual(phone.get("/api/jobs/1").json()["undo"], "pin moved (this machine)")
        undone = desk.post("/api/jobs/1/undo", json={"base": 2}).json()["job"]
        self.assertEqual((undone["undo"], undone["redo"]), ("bore typed (R. H.'s phone)", "pin moved (this machine)"))
        # Alone on the machine there is nobody else, and nothing is said.
        body = {"base": 0, "label": "bore typed", "edits": [{"path": "/plans/0/note", "value": "x"}]}
        alone = self.client.post("/api/jobs", json=self.client.get("/api/jobs/1/file").json()).json()["id"]
        self.assertEqual(self.client.post(f"/api/jobs/{alone}/changes", json=body).json()["job"]["undo"], "bore typed")

    def test_guessing_waits_and_never_locks_out_the_right_code(self) -> None:
        guesser, phone = self.phone("10.0.0.66"), self.phone()
        for _ in range(12):
            guesser.get("/pair/AAAAAAAA")
        self.problem(guesser.get(f"/pair/{self.code()}"), 403, "wait a little")
        self.assertTrue(any("10.0.0.66" in t and "wrong code" in t for t in self.told))
        self.assertEqual(phone.get(f"/pair/{self.code()}").status_code, 200)
        self.time += 5.0
        self.assertEqual(guesser.get(f"/pair/{self.code()}").status_code, 200)
        for _ in range(
            30
        ):  # each try after its wait: longer and longer, up to five minutes; the first of two may meet an old code
            self.time += LONGEST_WAIT_S + 1.0
            for _ in range(2):
                guesser.get("/pair/AAAAAAAA")
        self.time += LONGEST_WAIT_S - 10.0
        self.problem(guesser.get(f"/pair/{self.code()}"), 403, "wait a little")

    def test_a_code_is_good_for_ten_minutes(self) -> None:
        phone, code = self.phone(), self.code()
        self.time = LASTS_S - 1.0
        self.assertEqual(phone.get(f"/pair/{code}").status_code, 200)
        self.time = LASTS_S + 1.0
        self.problem(phone.get(f"/pair/{code}"), 403, "older than ten minutes")
        self.assertNotEqual(code, self.code())
        self.assertEqual(phone.get(f"/pair/{self.code()}").status_code, 200)

    def test_a_new_link_is_asked_for_at_the_desk_with_its_picture(self) -> None:
        desk, before = self.door(self.app, LOCAL), self.code()
        told = desk.post("/api/devices/link").json()
        conforms(DevicesOut, told)
        self.assertEqual(told["link"], self.pairing.link)
        self.assertTrue(told["qr"].startswith("data:image/svg+xml"))
        self.problem(self.phone().get(f"/pair/{before}"), 403, "wrong")
        self.problem(self.client.post("/api/devices/link"), 422, "--lan")
        self.assertEqual(self.client.get("/api/devices").json()["open"], False)

    def test_the_socket_decides_and_not_what_the_request_says(self) -> None:
        phone = self.phone()
        self.problem(phone.get("/api/jobs", headers={"Host": "127.0.0.1:8420"}), 403, "host")
        self.problem(phone.get("/api/jobs", headers={"Cookie": f"{COOKIE}=guess"}), 403, "not paired")
        desk = self.door(self.app, LOCAL)
        self.assertEqual(desk.get("/api/jobs").status_code, 200)
        self.problem(desk.get("/api/jobs", headers={"Host": "10.0.0.7"}), 403, "host")

    def test_a_foreign_page_gets_nothing(self) -> None:
        for headers in (
            {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "no-cors"}, {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "cors"},
            {"Origin": "https://127.0.0.1"}, {"Origin": "http://elsewhere.example"}, {"Origin": "null"},
        ):  # fmt: skip
            self.assertEqual(self.client.get("/api/jobs", headers=headers).status_code, 403, headers)
        self.assertEqual(
            self.client.post("/api/jobs/new", headers={"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate"}).status_code,
            403,
        )
        for headers in ({"Sec-Fetch-Site": "same-origin"}, {"Sec-Fetch-Site": "none", "Sec-Fetch-Mode": "navigate"}, {"Origin": LOCAL},
                        {"Sec-Fetch-Site": "cross-site", "Sec-Fetch-Mode": "navigate"}):  # fmt: skip
            self.assertEqual(self.client.get("/api/jobs", headers=headers).status_code, 200, headers)

    def test_without_lan_nothing_answers_from_outside(self) -> None:
        outside = self.door(create_app(self.database), AT)
        self.problem(outside.get("/api/jobs"), 403, "host")

    def test_the_command_keeps_devices_in_its_database(self) -> None:
        own = _paired(self.database, "10.0.0.7", 8420)
        token = own.pair(own.link.rpartition("/")[2], "10.0.0.9", "phone")
        self.assertTrue(_paired(self.database, "10.0.0.7", 8420).knows(token))


if __name__ == "__main__":
    unittest.main()

"""The API of Measure, of what is tried, and of events."""

import threading
import unittest
from typing import Any

from kobrix.fileformat.paths import pointer
from kobrix.store import photos

from tests.api.case import ApiCase
from tests.browser import PATIENCE_S, server
from tests.pictures.test_upright import photo

PNG = photo(1200, 900, "PNG", turn=1)


class Measure(ApiCase):
    def test_a_new_job_its_sheet_and_an_entry(self) -> None:
        new = self.client.post("/api/jobs/new", json={"name": "estate", "layout": "car_front_rear"})
        self.assertEqual(new.status_code, 201)
        job = new.json()
        sheet = self.client.get(f"/api/jobs/{job['id']}/measure").json()
        before = len(sheet["needs"]["decel"])
        path = sheet["needs"]["decel"][0]["path"]
        step = {"base": job["revision"], "edits": [{"path": pointer(path), "text": "2 1/2", "preferred": "in"}]}
        self.assertEqual(self.client.post(f"/api/jobs/{job['id']}/changes", json=step).status_code, 200)
        sheet = self.client.get(f"/api/jobs/{job['id']}/measure").json()
        self.assertEqual(len(sheet["needs"]["decel"]), before - 1)
        self.problem(self.client.get(f"/api/jobs/{job['id']}/sensitivity"), 422, "does not give a stop yet")
        self.problem(self.client.get(f"/api/jobs/{job['id']}/measure?setup=plan+Q"), 404, "plan Q")

    def test_names_and_layouts_that_are_none(self) -> None:
        for body in (
            {"name": "", "layout": "motorcycle"},
            {"name": "   ", "layout": "motorcycle"},
            {"name": "x", "layout": "tram"},
        ):
            self.problem(self.client.post("/api/jobs/new", json=body), 422, "")

    def test_sensitivity_and_helpers(self) -> None:
        found = self.client.get("/api/jobs/1/sensitivity?setup=plan+A").json()
        self.assertEqual(found["trials"], 400)
        helped = self.client.post("/api/help/pad_letters", json={"given": {"letters": "GG"}}).json()
        self.assertEqual(helped["entries"][0], {"key": "friction.cold", "text": "0.5"})
        self.problem(self.client.post("/api/help/pad_letters", json={"given": {"letters": "ZZ"}}), 422, "edge letters")
        self.problem(self.client.post("/api/help/nothing", json={"given": {}}), 404, "nothing")

    def test_a_push_and_a_stop_are_read_as_they_are_said(self) -> None:
        def look(text: str, name: str = "pedal_force_n", preferred: str = "N") -> Any:
            asked = {"name": name, "text": text, "preferred": preferred}
            return self.client.post("/api/look", json=asked)

        for text, preferred, newtons in (
            ("340", "N", 340.0), ("76 lbf", "N", 76 * 4.4482216152605), ("76", "lbf", 76 * 4.4482216152605), ("0.4 kN", "lbf", 400.0)
        ):  # fmt: skip
            self.assertAlmostEqual(look(text, preferred=preferred).json()["value"], newtons, places=9)
        self.assertEqual(look("0.8", "decel_g", "g").json()["value"], 0.8)
        self.assertAlmostEqual(look("4.903325 m/s²", "decel_g", "g").json()["value"], 0.5, places=12)
        self.problem(look("hard"), 422, "No number can be read in it")
        self.problem(look("900 psi"), 422, "pressure")
        self.problem(look("-5"), 422, "0 to 5,000 N")
        self.problem(look("9 kN"), 422, "0 to 5,000 N")
        self.problem(look("4", "decel_g", "g"), 422, "0 to 3 g")
        self.problem(look("nan"), 422, "No number")
        self.problem(look("1", "bore_mm"), 422, "name")

    def test_a_tolerance_is_typed_in_the_unit_a_person_prefers(self) -> None:
        path = "as_found.systems.0.control.pivot_to_pad_mm"
        edit = {"path": f"/tolerances/{path}", "text": "± 1/16", "preferred": "in"}
        job = self.client.post("/api/jobs/1/changes", json={"base": 0, "edits": [edit]}).json()["job"]
        self.assertEqual(job["document"]["tolerances"], {path: "1/16 in"})
        bad = {"base": 1, "edits": [{**edit, "text": "± 3 psi"}]}
        self.problem(self.client.post("/api/jobs/1/changes", json=bad), 422, "pressure")


class Photographs(ApiCase):
    def test_a_photograph_is_kept_and_given_back(self) -> None:
        kept = self.client.post("/api/jobs/1/photos", content=PNG, headers={"Content-Type": "image/png"})
        self.assertEqual(kept.status_code, 201)
        back = self.client.get(f"/api/jobs/1/photos/{kept.json()['sha256']}")
        self.assertEqual(back.headers["content-type"], "image/jpeg")
        self.assertNotIn(b"maker of cameras", back.content)
        again = self.client.post("/api/jobs/1/photos", content=PNG)
        self.assertEqual(again.json()["sha256"], kept.json()["sha256"])
        small = self.client.get(f"/api/jobs/1/photos/{kept.json()['sha256']}?small=true")
        self.assertLess(len(small.content), len(back.content))
        self.assertEqual(back.headers["x-content-type-options"], "nosniff")

    def test_what_is_refused(self) -> None:
        self.problem(self.client.post("/api/jobs/1/photos", content=b"<html>"), 422, "JPEG, PNG or WebP")
        self.problem(self.client.post("/api/jobs/9/photos", content=PNG), 404, "job '9'")
        large = b"\xff\xd8\xff" + b"\0" * photos.LARGEST
        self.problem(self.client.post("/api/jobs/1/photos", content=large), 413, "bytes")
        self.problem(self.client.get(f"/api/jobs/1/photos/{'0' * 64}"), 404, "photograph")


class Tried(ApiCase):
    def test_what_is_tried_is_shown_and_not_stored(self) -> None:
        edits = [{"path": "/plans/0/systems/0/cylinder/bore_mm", "value": "3/4 in"}]
        seen = self.client.post("/api/jobs/1/try", json={"setup": "plan A", "edits": edits}).json()["setup"]
        self.assertEqual(seen["solved"]["paths"][0]["parts"]["cylinder"]["bore_name"], "3/4 in")
        stored = self.client.get("/api/jobs/1").json()
        self.assertEqual(stored["revision"], 0)
        self.assertEqual(stored["document"]["plans"][0]["systems"][0]["cylinder"]["bore_mm"], "13/16 in")
        bad = [{"path": "/plans/0/systems/0/cylinder/bore_mm", "value": "3 m"}]
        self.problem(self.client.post("/api/jobs/1/try", json={"setup": "plan A", "edits": bad}), 422, "bore")

    def test_failures_working_comparison_and_heat(self) -> None:
        asked = {"setup": "plan A", "load": 0, "failure": "lost_rear", "reach_n": 800}
        self.assertEqual(self.client.post("/api/jobs/1/failed", json=asked).json()["words"], "rear circuit lost")
        self.problem(self.client.post("/api/jobs/1/failed", json={**asked, "failure": "gremlins"}), 404, "gremlins")
        steps = self.client.post("/api/jobs/1/working", json={"setup": "plan A", "pedal_force_n": 341}).json()
        self.assertEqual(steps[0]["id"], "push")
        self.problem(
            self.client.post("/api/jobs/1/working", json={"setup": "plan A", "load": 7, "pedal_force_n": 1}), 422, "load"
        )
        self.assertEqual(len(self.client.get("/api/jobs/1/compare").json()["setups"]), 3)
        self.problem(self.client.get("/api/jobs/1/compare?load=9"), 422, "load")
        self.problem(self.client.get("/api/jobs/1/compare?against=nobody"), 404, "nobody")
        heat = {"setup": "plan A", "speed_from_kmh": "60 mph", "stops": 2}
        self.assertEqual(len(self.client.post("/api/jobs/1/heat", json=heat).json()["front"]["peaks_c"]), 2)

    def test_put_away_brought_back_and_saved_as_a_file(self) -> None:
        self.assertEqual(self.client.delete("/api/jobs/1").status_code, 200)
        self.assertEqual(self.client.get("/api/jobs").json(), [])
        self.client.post("/api/jobs/1/back")
        self.assertEqual(len(self.client.get("/api/jobs").json()), 1)
        file = self.client.get("/api/jobs/1/file")
        self.assertEqual(file.json()["format"], "kobrix-job")
        self.assertEqual(self.client.post("/api/jobs", content=file.content).status_code, 201)


class Events(unittest.TestCase):
    def test_a_change_is_told_to_who_listens(self) -> None:
        import urllib.request

        with server() as url:
            told: list[bytes] = []
            heard = threading.Event()

            def listen() -> None:
                with urllib.request.urlopen(f"{url}/api/jobs/1/events", timeout=PATIENCE_S) as stream:
                    for line in stream:
                        if line.startswith(b"data:"):
                            told.append(line.strip())
                            heard.set()
                        if len(told) == 2:
                            return

            listener = threading.Thread(target=listen)
            listener.start()
            self.assertTrue(heard.wait(PATIENCE_S))
            body = b'{"base": 0, "edits": [{"path": "/plans/0/note", "value": "seen"}]}'
            request = urllib.request.Request(f"{url}/api/jobs/1/changes", body, {"Content-Type": "application/json"})
            urllib.request.urlopen(request).close()
            listener.join(PATIENCE_S)
        (revisions, recorded) = zip(*(line.removeprefix(b"data: ").split() for line in told), strict=True)
        self.assertEqual(revisions, (b"0", b"1"))
        self.assertEqual(len(set(recorded)), 1)


if __name__ == "__main__":
    unittest.main()

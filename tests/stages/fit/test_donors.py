"""Donor parts and routes: a table read whole or not at all, ranked as the question ranks, every setup beside the others."""

import unittest
from typing import Any

from kobrix.core.errors import BadFile, KobrixError
from kobrix.demo import LIBRARY
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.exports.tables import as_csv
from kobrix.fileformat import files
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.job import Job
from kobrix.fileformat.library import COLUMNS, LibraryPart, parts_of
from kobrix.stages.fit.donors import donors_of, routes_of
from kobrix.stages.fit.shapes_elsewhere import DonorsView, RoutesView

from tests.api.case import ApiCase
from tests.cases import conforms, demo_document, demo_job, every_layout

TABLE = "part,name,price,diameter,thickness,holes\nrotor,saloon,18,259 mm,10,4\nrotor,van,25,11 in,12,5\n"


class Tables(unittest.TestCase):
    def test_commas_semicolons_and_a_clipboard_are_the_same(self) -> None:
        expected = parts_of(TABLE)
        self.assertEqual([p.diameter_mm for p in expected], ["259 mm", "11 in"])
        self.assertEqual(parts_of(TABLE.replace(",", "\t")), expected)
        self.assertEqual(parts_of("\ufeff" + TABLE.replace(",", ";").replace("\n", "\r\n")), expected)
        self.assertEqual(parts_of("Name;Diameter (mm);Thickness\na;258,5;10")[0].diameter_mm, "258.5 mm")
        self.assertEqual(parts_of("name,bolt spacing\nc,84")[0].part, "caliper")

    def test_it_comes_out_as_it_went_in(self) -> None:
        parts = parts_of(LIBRARY.read_text(encoding="utf-8"))
        self.assertGreater(len(parts), 6)
        text = as_csv(COLUMNS, [[getattr(p, c, None) for c in COLUMNS] for p in parts])
        self.assertEqual(parts_of(text), parts)

    def test_every_wrong_cell_is_told_by_line_and_nothing_is_taken_in(self) -> None:
        with self.assertRaises(BadFile) as caught:
            parts_of("part,name,diameter,colour\nrotor,a,big,\nrotor,b,280,red,5\nwheel,c,280,\nrotor,d,9000,\nrotor,,280,\n")
        told = " ".join(caught.exception.problems)
        for words in (
            "'colour' is no column",
            "Line 2, column 3: diameter: 'big' was given",
            "Line 3 has 5 cells",
            "Line 4, part",
            "Line 5, diameter_mm",
            "Line 6, name",
            "Nothing was taken in.",
        ):
            self.assertIn(words, told)
        for text, has in (("", "nothing"), ("part,diameter\n", "'part', 'diameter'")):
            with self.assertRaisesRegex(BadFile, f"no column 'name'; it has {has}[.]"):
                parts_of(text)
        for text in ("", "\n\n", "a,b\n1,2", ",".join("x" * 300), "name\n" + "=cmd()\n" * 3, "\0\1"):
            try:
                self.assertTrue(all(p.name for p in parts_of(text)))
            except KobrixError as refused:
                self.assertGreater(len(str(refused)), 20)


class Ranked(unittest.TestCase):
    def library(self) -> list[tuple[int, LibraryPart]]:
        return list(enumerate(parts_of(LIBRARY.read_text(encoding="utf-8")), 1))

    def test_the_demo_has_its_best_part_first_as_the_question_ranks(self) -> None:
        view = donors_of(demo_job(), "plan A", "rear", self.library())
        conforms(DonorsView, view)
        rotors, calipers = view["groups"]
        self.assertEqual(rotors["rows"][0]["make"], ["caliper shimmed 2.0 mm"])
        self.assertEqual((calipers["rows"][0]["make"], calipers["rows"][0]["level"]), ([], "good"))
        self.assertFalse(rotors["rows"][-1]["usable"])
        self.assertIn("8.0 mm too big for the wheel", rotors["rows"][-1]["make"])
        needs = {f["key"]: f["text"] for f in rotors["fields"] if f["text"]}
        parts = [
            {"name": str(n), **{k: v for k, v in p.model_dump(exclude_none=True).items() if k in needs}}
            for n, p in self.library()
            if p.part == "rotor"
        ]
        told: Any = ask_fit.donors(Asked({"part": "rotor", "needs": {**needs, "holes": 4}, "parts": parts}))
        self.assertEqual([str(r["id"]) for r in rotors["rows"]], [row["name"] for row in told["ranked"]])

    def test_what_is_typed_stands_over_what_the_setup_says(self) -> None:
        document = demo_document()
        document["plans"][0]["fit"]["donors"]["rear"]["rotor"]["diameter_mm"] = "262 mm"
        view = donors_of(files.check(Job, document), "plan A", "rear", self.library())
        self.assertIn("larger estate", view["groups"][0]["rows"][0]["name"])
        self.assertFalse(next(f for f in view["groups"][0]["fields"] if f["key"] == "diameter_mm")["from_setup"])

    def test_every_layout_and_an_empty_library_have_their_page(self) -> None:
        for job in every_layout():
            for axle in ("front", "rear"):
                for library in (self.library(), []):
                    view = donors_of(job, job.names[-1], axle, library)
                    conforms(DonorsView, view)
                    self.assertTrue(library or not any(g["rows"] for g in view["groups"]))


class Routes(unittest.TestCase):
    def test_the_demo_side_by_side(self) -> None:
        view = routes_of(demo_job())
        conforms(RoutesView, view)
        found, first, second = view["routes"]
        self.assertEqual((found["parts_price"], found["joints"], found["kind"]), (0.0, 0, ""))
        self.assertEqual(first["whole_price"], first["parts_price"] + 60)
        self.assertIn("Lost with the drums", first["parking"])
        for row in (found, first, second):
            self.assertIsNotNone(row["push_n"])
            self.assertTrue(0.0 <= (row["chance"] or 0.0) <= 1.0)
        self.assertGreater(first["chance"] or 0.0, found["chance"] or 0.0)
        self.assertLess(first["push_n"] or 0.0, found["push_n"] or 0.0)

    def test_every_layout_has_its_routes(self) -> None:
        for job in every_layout():
            conforms(RoutesView, routes_of(job))


class Door(ApiCase):
    def test_looked_at_taken_in_once_and_out_again(self) -> None:
        before = self.client.get("/api/jobs/1/donors?axle=rear").json()["library"]
        looked = self.client.post("/api/library", json={"text": TABLE}).json()
        self.assertEqual((looked["parts"], looked["added"]), (2, 0))
        for added in (2, 0):
            self.assertEqual(self.client.post("/api/library", json={"text": TABLE, "keep": True}).json()["added"], added)
        view = self.client.get("/api/jobs/1/donors?axle=rear").json()
        self.assertEqual(view["library"], before + 2)
        self.problem(
            self.client.post("/api/library", json={"text": TABLE + "rotor,x,1,huge", "keep": True}), 422, "Line 4, column 4"
        )
        self.assertEqual(self.client.get("/api/jobs/1/donors").json()["library"], before + 2)
        own = next(r for r in view["groups"][0]["rows"] if r["name"] == "saloon")
        self.assertEqual(self.client.delete(f"/api/library/{own['id']}").status_code, 204)
        self.problem(self.client.delete(f"/api/library/{own['id']}"), 404, "library")
        self.assertEqual(len(self.client.get("/api/library.csv").text.strip().splitlines()), before + 2)
        conforms(RoutesView, self.client.get("/api/jobs/1/routes").json())


if __name__ == "__main__":
    unittest.main()

"""The workbook read back by its library: every table there, figures as figures, nothing that runs."""

import io
import unittest
from datetime import date
from typing import Any

from kobrix.api.tables import tables_of
from kobrix.exports.workbook import Sheet, as_xlsx
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.service import fit_of
from kobrix.stages.prove.service import prove_of
from kobrix.store.records import Record
from openpyxl import load_workbook

from tests.api.case import ApiCase
from tests.cases import demo_job, every_layout


def opened(content: bytes) -> Any:
    return load_workbook(io.BytesIO(content))


class Written(unittest.TestCase):
    def test_no_text_becomes_a_formula_and_odd_names_are_taken(self) -> None:
        nasty = ("=1+1", "+cmd", "-2", "@x", "\x07bell", "x" * 40_000, None, True, 3.5, 7)
        book = opened(as_xlsx([Sheet("a/b:[c]" + "d" * 40, ("=head",), tuple((v,) for v in nasty)), Sheet("empty", ("x",), ())]))
        page = book.worksheets[0]
        self.assertLessEqual(len(page.title), 31)
        cells = [page.cell(n + 2, 1) for n in range(len(nasty))]
        self.assertTrue(all(c.data_type != "f" for c in (*cells, page.cell(1, 1))))
        self.assertEqual([c.value for c in cells[:5]], ["=1+1", "+cmd", "-2", "@x", "bell"])
        self.assertEqual([c.value for c in cells[8:]], [3.5, 7])
        self.assertEqual(len(cells[5].value), 32_000)

    def test_the_demo_has_every_table_with_its_own_figures(self) -> None:
        job = demo_job()
        stored = StoredJob(job, 3, tuple(Record(n, r.key, r.kind, r.made_at, r.body) for n, r in enumerate(job.records)))
        book = opened(as_xlsx(tables_of(stored, date(2026, 5, 7))))
        self.assertEqual(
            book.sheetnames,
            ["Job", "Entries", "Results", "Findings", "Parts", "Joints", "Hard lines", "Routes", "Work", "Stops", "Records"],
        )
        for name in book.sheetnames:
            self.assertGreater(book[name].max_row, 1, name)
        parts = [row[1].value for row in book["Parts"].iter_rows(min_row=2) if row[0].value == "plan A"]
        self.assertEqual(parts, [r["part"] for r in fit_of(job, 0, "plan A")["parts"]["rows"]])
        stops = [row[5].value for row in book["Stops"].iter_rows(min_row=2)]
        self.assertEqual(stops, [s["distance_m"] for v in prove_of(stored)["sets"] for s in v["stops"]])
        bores = [r for r in book["Entries"].iter_rows(min_row=2, values_only=True) if r[0] == "plan A" and r[3] == "13/16 in"]
        self.assertEqual(len(bores), 1)

    def test_every_layout_has_its_workbook(self) -> None:
        for job in every_layout():
            self.assertEqual(len(opened(as_xlsx(tables_of(StoredJob(job, 0), date(2026, 5, 7)))).sheetnames), 11)


class Door(ApiCase):
    def test_it_is_given_and_a_job_that_is_not_there_is_said(self) -> None:
        told = self.client.get("/api/jobs/1/tables.xlsx")
        self.assertEqual(told.status_code, 200)
        self.assertIn("Stops", opened(told.content).sheetnames)
        self.problem(self.client.get("/api/jobs/9/tables.xlsx"), 404, "9")


if __name__ == "__main__":
    unittest.main()

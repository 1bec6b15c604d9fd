"""The dossier at the door: one searchable page, what is not signed or tested on top or in its place."""

import io
import re
import unittest
from datetime import date
from typing import Any

from kobrix.api.dossier import dossier_of
from kobrix.exports.dossier import Dossier, Section, as_pdf, plain
from kobrix.stages.common import StoredJob
from pypdf import PdfReader

from tests.api.case import ApiCase
from tests.browser import ROOT
from tests.cases import every_layout


class Page(ApiCase):
    def text(self, query: str = "") -> str:
        told = self.client.get(f"/api/jobs/1/dossier.pdf{query}")
        self.assertEqual(told.status_code, 200, told.text[:300])
        self.assertEqual(told.headers["content-type"], "application/pdf")
        pages = PdfReader(io.BytesIO(told.content)).pages
        self.assertEqual(len(pages), 1)
        return " ".join(pages[0].extract_text().split())

    def keep(self, key: str, kind: str, body: dict[str, Any]) -> None:
        told = self.client.post("/api/jobs/1/records", json={"key": key, "kind": kind, "body": body})
        self.assertEqual(told.status_code, 201, told.text)

    def test_it_says_what_was_changed_how_it_was_proven_and_what_is_not_signed(self) -> None:
        text = self.text()
        for words in (
            "21 of 21 critical joints are not signed.", "Pushrod pin moved, master cylinder changed", "341 N", "805 N", "cm³ of air", "Not signed for the first drive.",
            "Plan A, bedded: 10.7 m shorter than as found", "Pedal held: Not tested.", "Makers' instructions, road law and inspection come first.",
        ):  # fmt: skip
            self.assertIn(words, text)

    def test_a_stop_that_no_push_gives_stands_as_that(self) -> None:
        held, shut = {"kind": "limiting", "setting_kpa": 500}, {"kind": "proportioning", "knee_kpa": 0, "slope": 0}
        for base, device in enumerate((held, shut)):
            edits = [{"path": f"/plans/0/systems/0/stations/{n}/devices", "value": [device]} for n in (0, 1)]
            told = self.client.post("/api/jobs/1/changes", json={"base": base, "label": "held", "edits": edits})
            self.assertEqual(told.status_code, 200, told.text[:300])
            text = self.text()
            for page in ("lend.html", "record.pdf", "tables.xlsx", "size", "verdicts", "card", "compare", "often-asked"):
                self.assertEqual(self.client.get(f"/api/jobs/1/{page}").status_code, 200, page)
            if device == held:
                self.assertRegex(text, r"[Pp]ush for 0\.\d\d g \d+ N no push gives it")

    def test_signed_joints_stand_with_their_torque_its_source_and_who(self) -> None:
        view = self.client.get("/api/jobs/1/build").json()
        steps = [s for d in view["days"] for s in d["steps"] if s["critical"]]
        for n, step in enumerate(steps):
            torque = {"torque_nm": "85 Nm", "source": "bracket sheet"} if n else {}
            self.keep(f"sign-{n:08d}", "signed", {"setup": "plan A", "step": step["key"], "by": "R. H.", **torque})
        text = self.text()
        self.assertNotIn("are not signed", text)
        self.assertIn("85 Nm (bracket sheet) R. H.", text)
        self.assertIn("tightened, value unknown", text)

    def test_the_code_at_its_head_stands_clear_of_the_words(self) -> None:
        page = PdfReader(io.BytesIO(self.client.get("/api/jobs/1/dossier.pdf").content)).pages[0]
        annotations: Any = page["/Annots"]
        (note,) = annotations
        left, below, _, _ = (float(v) for v in note.get_object()["/Rect"])
        words: list[tuple[float, float, str]] = []
        page.extract_text(visitor_text=lambda text, _cm, at, _font, _size: words.append((at[4], at[5], text.strip())))
        # Beside the code stand the title and its line, which end before it; all else begins below it.
        high = [text for _, y, text in words if text and y > below]
        self.assertTrue(high[0].startswith("Brake change"))
        self.assertNotIn("21 of 21 critical joints are not signed.", high)
        self.assertGreater(left, 0.8 * float(page.mediabox.width))

    def test_as_found_changes_nothing_and_an_unknown_setup_is_not_there(self) -> None:
        self.assertIn("Nothing against the vehicle as found.", self.text("?setup=as+found"))
        self.problem(self.client.get("/api/jobs/1/dossier.pdf?setup=plan+Q"), 404, "plan Q")
        self.problem(self.client.get("/api/jobs/99/dossier.pdf"), 404, "99")

    def test_every_layout_has_one_page_and_an_aircraft_asks_for_certified_persons(self) -> None:

        for job in every_layout():
            dossier = dossier_of(StoredJob(job, 0), job.names[-1], date(2026, 5, 7))
            self.assertEqual(len(PdfReader(io.BytesIO(as_pdf(dossier))).pages), 1, job.name)
            self.assertEqual("certified" in dossier.foot, job.vehicle.kind == "aircraft")


def elements(pdf: PdfReader) -> list[tuple[str, str, int | None]]:
    """Every element of a document's structure in reading order: its kind, its parent's, and the number of its marked text."""
    found: list[tuple[str, str, int | None]] = []

    def walk(element: Any, parent: str) -> None:
        kids = element.get_object()["/K"].get_object()
        marked = next((int(k) for k in kids if isinstance(k, int)), None)
        found.append((element.get_object()["/S"], parent, marked))
        for kid in kids:
            if not isinstance(kid, int):
                walk(kid, element.get_object()["/S"])

    root: Any = pdf.trailer["/Root"]
    for outer in root["/StructTreeRoot"]["/K"]:
        walk(outer, "")
    return found


class Tagged(ApiCase):
    def test_the_whole_record_is_told_apart_for_those_who_hear_it(self) -> None:
        for kind in ("dossier", "record"):
            pdf = PdfReader(io.BytesIO(self.client.get(f"/api/jobs/1/{kind}.pdf?setup=plan+A").content))
            root: Any = pdf.trailer["/Root"]
            self.assertEqual((root["/MarkInfo"]["/Marked"], root["/Lang"]), (True, "en"))
            found = elements(pdf)
            kinds = [k for k, _, _ in found]
            self.assertEqual((kinds[:2], kinds.count("/H1")), (["/Document", "/H1"], 1))
            for inner, outer in (("/TR", "/Table"), ("/TD", "/TR"), ("/TH", "/TR"), ("/P", "/Document"), ("/H2", "/Document")):
                self.assertEqual({p for k, p, _ in found if k == inner}, {outer})
            tree: Any = root["/StructTreeRoot"]["/ParentTree"]["/Nums"]
            self.assertEqual(len(tree), 2 * len(pdf.pages))
            for page, held in zip(pdf.pages, tree[1::2], strict=True):
                text = page.get_contents()
                assert text is not None
                opened = [int(n) for n in re.findall(rb"/MCID (\d+)>> BDC", text.get_data())]
                self.assertEqual(opened, list(range(len(held))), "every marked text is in the tree, in its order")
                self.assertEqual([e.get_object()["/K"][0] for e in held], opened)
                self.assertEqual(text.get_data().count(b"BDC") + text.get_data().count(b"BMC"), text.get_data().count(b"EMC"))
            self.assertEqual(sum(1 for _, _, n in found if n is not None), sum(len(h) for h in tree[1::2]))


class Letters(unittest.TestCase):
    def test_no_letter_that_the_program_writes_itself_is_lost(self) -> None:
        sources = "".join(f.read_text(encoding="utf-8") for f in (ROOT / "backend" / "kobrix").rglob("*.py"))
        texts = "".join(re.findall(r'"([^"\n]*)"', sources))
        lost = {letter for letter in texts if ord(letter) > 255 and "?" in plain(letter)}
        self.assertEqual(lost, set())
        self.assertEqual(plain("W = m·g·(ψ + zχ), μ 0.38"), "W = m·g·(psi + zchi), µ 0.38")

    def test_other_letters_are_written_plainly_and_a_long_one_goes_on(self) -> None:
        self.assertEqual(plain("maker’s – 3 °C → 車"), "maker's - 3 °C to ?")
        long = Dossier("Ω", "x", ("alarm",), tuple(Section(f"s{n}", ("line",) * 20) for n in range(8)))
        self.assertGreater(len(PdfReader(io.BytesIO(as_pdf(long))).pages), 1)


if __name__ == "__main__":
    unittest.main()

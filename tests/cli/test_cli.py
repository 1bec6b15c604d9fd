"""The `kobrix` command."""

import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from kobrix import __version__
from kobrix.cli.main import main
from kobrix.cli.serve import fill
from kobrix.demo import JOBS, SETUPS
from kobrix.store import jobs
from kobrix.store.connection import open_db, prepare

from tests.cases import EXAMPLES, ROOT, demo_document, example_document, example_result
from tests.evaluate.test_results import differences


def run(*words: str) -> tuple[int, str, str]:
    """Exit code, output and errors of the command."""
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = main(words)
    return code, out.getvalue(), err.getvalue()


class Evaluate(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def write(self, document: object, name: str = "a.json") -> str:
        path = self.folder / name
        path.write_text(json.dumps(document))
        return str(path)

    def test_the_example_with_its_questions(self) -> None:
        wanted = example_result()
        questions = self.write(wanted["questions"], "q.json")
        code, out, _ = run("evaluate", str(EXAMPLES / "setup.json"), "--questions", questions)
        self.assertEqual(code, 0)
        self.assertEqual(differences(wanted["load_states"], json.loads(out)["load_states"]), [])

    def test_a_file_may_carry_its_questions(self) -> None:
        document = {**example_document(), "questions": {"pedal_forces_n": ["20 lbf"]}}
        _, out, _ = run("evaluate", self.write(document))
        moment = json.loads(out)["load_states"]["driver only"]["paths"]["service"]["at_pedal_force"][0]
        self.assertAlmostEqual(moment["pedal_force_n"], 88.964432, places=6)

    def test_a_plan_of_a_job_and_shortcuts(self) -> None:
        code, out, _ = run("evaluate", str(JOBS[0]), "--setup", "plan A", "--at-force", "300", "--at-decel", "0.5")
        path = json.loads(out)["load_states"]["driver and charger"]["paths"]["service"]
        self.assertEqual(code, 0)
        self.assertEqual(path["at_pedal_force"][0]["pedal_force_n"], 300.0)
        self.assertAlmostEqual(path["pedal_force_for_decel"][0]["pedal_force_n"], 210.6, delta=0.1)

    def test_shortcuts_for_people(self) -> None:
        code, out, _ = run("evaluate", str(EXAMPLES / "setup.json"), "--failures", "--tolerance", "--heat")
        self.assertEqual(code, 0)
        for words in ("lost front", "0.259 g", "p50 n", "rear first probability", "peaks c", "fluid margin k", "Estimates"):
            self.assertIn(words, out)
        self.assertNotIn("design stop", out)
        _, out, _ = run("evaluate", str(JOBS[0]), "--setup", "plan A", "--heat")
        self.assertIn("fluid margin k", out)

    def test_the_other_vehicles_are_answered(self) -> None:
        for path in SETUPS:
            code, out, _ = run("evaluate", str(path), "--table", "--at-force", "150")
            self.assertEqual(code, 0)
            self.assertIn("first lock", out)

    def test_a_table_for_people(self) -> None:
        code, out, _ = run("evaluate", str(JOBS[0]), "--setup", "plan B", "--table", "--at-decel", "0.8")
        self.assertEqual(code, 0)
        for words in ("DANGER", "rear locks first", "the rear locks first, at 0.66 g", "proven by test"):
            self.assertIn(words, out)

    def test_what_is_not_computed_is_named_not_faked(self) -> None:
        _, out, _ = run("evaluate", self.write({**example_document(), "questions": {"phase_of_moon": {}}}))
        self.assertEqual(json.loads(out)["unanswered"], ["phase_of_moon"])

    def test_mistakes_are_sentences_and_exit_2(self) -> None:
        cases = (
            (("evaluate", str(self.folder / "none.json")), "cannot be read"),
            (("evaluate", str(JOBS[0]), "--setup", "plan C"), "There is no setup 'plan C'"),
            (("evaluate", self.write({"format": "x"}, "c.json")), "kobrix-setup"),
            (("evaluate", self.write(example_document(), "b.json"), "--setup", "x"), "one setup"),
            (("evaluate", str(JOBS[0]), "--at-force", "12 apples"), "'apples' is not a unit"),
            (("evaluate", self.write([1])), "one object"),
        )
        for words, said in cases:
            code, out, err = run(*words)
            self.assertEqual((code, out), (2, ""), words)
            self.assertIn(said, err)


class Files(unittest.TestCase):
    def test_schema_and_openapi_are_json(self) -> None:
        self.assertIn("oneOf", json.loads(run("schema")[1]))
        self.assertEqual(json.loads(run("openapi")[1])["info"]["version"], __version__)

    def test_import_and_export_keep_the_file(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            database = str(Path(folder) / "k.sqlite3")
            code, out, _ = run("import", "--database", database, str(JOBS[0]))
            self.assertEqual((code, out.split(":")[0]), (0, "Job 1"))
            self.assertEqual(json.loads(run("export", "--database", database, "1")[1]), demo_document())
            self.assertEqual(run("export", "--database", database, "9")[0], 2)

    def test_the_demo_is_filled_only_into_a_new_database(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            database = Path(folder) / "demo.sqlite3"
            self.assertTrue(prepare(database))
            fill(database)
            with open_db(database) as db:
                db.execute("DELETE FROM jobs")
            self.assertFalse(prepare(database))
            with open_db(database) as db:
                self.assertEqual(jobs.all_jobs(db), [])

    def test_version_and_changelog_agree(self) -> None:
        changelog = (ROOT / "CHANGELOG.md").read_text(encoding="utf-8")
        self.assertIn(f"## {__version__}", changelog)
        for file in ("pyproject.toml", "frontend/package.json"):
            self.assertIn(__version__, (ROOT / file).read_text(encoding="utf-8"))

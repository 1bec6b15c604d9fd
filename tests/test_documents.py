"""README, CHANGELOG and docs say what is there."""

import contextlib
import io
import json
import re
import shlex
import tempfile
import tomllib
import unittest
from pathlib import Path

from kobrix import __version__
from kobrix.cli.main import main
from kobrix.core.constants import ASSUMED, PUBLISHED
from kobrix.core.rules import limits, run
from kobrix.evaluate.ask.run import ANSWERS, ask
from kobrix.fileformat.shelf import ShelfPart
from kobrix.stages.match.request import MustHold, Search, Wanted

from tests.cases import EXAMPLES, ROOT


def text(name: str) -> str:
    """A document of the project."""
    return (ROOT / name).read_text(encoding="utf-8")


class Documents(unittest.TestCase):
    def test_version_and_changelog_agree(self) -> None:
        versions = re.findall(r"^## (\d+\.\d+\.\d+), (\d{4}-\d\d-\d\d)$", text("CHANGELOG.md"), re.MULTILINE)
        self.assertEqual(versions[0][0], __version__)
        self.assertEqual([day for _, day in versions], sorted((day for _, day in versions), reverse=True))
        project = tomllib.loads(text("pyproject.toml")).get("project", {})
        self.assertIn(project.get("version", __version__), (__version__,))

    def test_every_link_leads_somewhere(self) -> None:
        for name in (
            "README.md",
            "ARCHITECTURE.md",
            "CONTRIBUTING.md",
            "docs/model.md",
            "docs/nomenclature.md",
            "docs/file-format.md",
            "docs/questions.md",
            "docs/measured.md",
        ):
            folder = (ROOT / name).parent
            for target in re.findall(r"\]\(([^)#]+)\)", text(name)):
                if not target.startswith("http"):
                    self.assertTrue((folder / target).exists(), f"{name}: {target}")

    def test_every_question_is_listed_and_the_example_is_answered(self) -> None:
        listed = re.findall(r"^\| `(\w+)` \|", text("docs/questions.md"), re.MULTILINE)
        self.assertEqual(sorted(listed), sorted(ANSWERS))
        for answer in ask(json.loads(text("docs/questions.example.json")))["answers"]:
            self.assertNotIn("error", answer)

    def test_every_picture_is_shown(self) -> None:
        pictures = sorted(p.name for p in (ROOT / "docs" / "screenshots").glob("*.png"))
        self.assertTrue(0 < len(pictures) < 20)
        for picture in pictures:
            self.assertIn(f"docs/screenshots/{picture}", text("README.md"))

    def test_the_commands_of_the_readme_are_there(self) -> None:
        script = text("run")
        for command in set(re.findall(r"\./run (\w+)", text("README.md"))):
            self.assertRegex(script, rf"\n  {command}\)", command)

    def test_the_command_lines_of_the_readme_do_what_they_say(self) -> None:
        lines = re.findall(r"^    \./run kobrix (.+)$", text("README.md"), re.MULTILINE)
        self.assertGreaterEqual(len(lines), 4)
        with tempfile.TemporaryDirectory() as folder, contextlib.chdir(folder):
            for name in ("backend", "docs", "tests"):
                Path(name).symlink_to(ROOT / name)
            Path("setup.json").write_text((EXAMPLES / "setup.json").read_text(encoding="utf-8"), encoding="utf-8")
            for line in lines:
                out, err = io.StringIO(), io.StringIO()
                with self.subTest(line), contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
                    self.assertEqual(main(shlex.split(line)), 0, err.getvalue())
                    self.assertGreater(len(out.getvalue()), 200)
            self.assertIn("push_n", Path("found.csv").read_text(encoding="utf-8"))
            self.assertGreater(json.loads(Path("found.json").read_text(encoding="utf-8"))["meet"], 0)

    def test_what_the_file_format_shows_is_taken(self) -> None:
        shown = text("docs/file-format.md")
        examples = [json.loads(block) for block in re.findall(r"^    (\{(?:.|\n     )+\})$", shown, re.MULTILINE)]
        self.assertEqual(len(examples), 1)
        ShelfPart.model_validate(examples[0])
        for of in (Search, MustHold, Wanted, ShelfPart):
            for name in of.model_fields:
                stem = name.removeprefix("effort_").removeprefix("travel_")
                self.assertTrue(f"`{name}`" in shown or (stem == "weight" and "their weights" in shown), f"{of.__name__}.{name}")

    def test_the_cautions_show(self) -> None:
        said = " ".join(text("README.md").replace("\n> ", " ").split())
        for words in (
            "spins the vehicle",
            "pushrod that can fall out",
            "eats paint",
            "stands belong on hard ground",
            "come first",
        ):
            self.assertIn(words, said)

    def test_the_model_names_the_formulas_and_standards_it_uses(self) -> None:
        model = text("docs/model.md")
        for words in ("slider-crank", "Lamé", "Boyle", "R13-H", "ETRTO", "SAE J299", "Runge-Kutta", "Spearman", "How wrong"):
            self.assertIn(words, model)
        for value in (ASSUMED["motorcycle.foot_share"].value, PUBLISHED["secondary_decel"].value):
            self.assertIn(f"{value:g}", model)

    def test_no_address_of_a_download_and_no_path_of_a_machine(self) -> None:
        found = []
        for path in ROOT.rglob("*"):
            hidden = {
                "node_modules",
                ".venv",
                ".git",
                "dist",
                "data",
                ".setup",
                "__pycache__",
                ".mypy_cache",
                ".ruff_cache",
                ".hypothesis",
            }
            if hidden & set(path.relative_to(ROOT).parts) or not path.is_file() or path.suffix in (".png", ".woff2"):
                continue
            words = path.read_text(encoding="utf-8", errors="ignore")
            telling = ("registry.npm" + "js", "files.python" + "hosted", "/ro" + "ot/")
            found += [f"{path.name}: {w}" for w in telling if w in words]
        self.assertEqual(found, [])


class Rules(unittest.TestCase):
    def test_every_rule_says_what_it_looks_at(self) -> None:
        names = [rule.__name__ for rule in run.RULES]
        self.assertEqual(len(names), len(set(names)))
        for rule in run.RULES:
            self.assertIn("`bench`", rule.__doc__ or "")

    def test_levels_are_danger_first(self) -> None:
        self.assertEqual(limits.LEVELS, ("danger", "caution", "note", "good"))


if __name__ == "__main__":
    unittest.main()

"""The screen's own pure parts, run as they are: its TypeScript bundled and called from here, one process for a test case."""

import json
import subprocess
import unittest
from pathlib import Path
from typing import Any, ClassVar
from xml.etree import ElementTree

HERE = Path(__file__).resolve().parent


class ScreenCase(unittest.TestCase):
    """Tests of modules of the screen, which `modules` names from `frontend/src` on."""

    modules: ClassVar[tuple[str, ...]] = ()
    _process: ClassVar[subprocess.Popen[str]]

    @classmethod
    def setUpClass(cls) -> None:
        words = ["node", str(HERE / "parts.mjs"), *cls.modules]
        cls._process = subprocess.Popen(words, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)

    @classmethod
    def tearDownClass(cls) -> None:
        cls._process.communicate()

    def ask(self, module: str, name: str, *args: Any, drawn: bool = False) -> Any:
        """What the export `name` of a `module` gives for `args`; a constant is itself."""
        asked = {"module": next(m for m in self.modules if m.startswith(module)), "name": name, "args": args, "drawn": drawn}
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        self._process.stdin.write(json.dumps(asked) + "\n")
        self._process.stdin.flush()
        answer = json.loads(self._process.stdout.readline())
        self.assertNotIn("error", answer, f"{module} {name}")
        return answer["value"]

    def draw(self, module: str, name: str, **props: Any) -> ElementTree.Element:
        """A drawing of `module` made from its numbers, as the tree of an SVG."""
        return ElementTree.fromstring(f"<svg>{self.ask(module, name, props, drawn=True)}</svg>")


def number(element: ElementTree.Element, name: str) -> float:
    """An attribute of a drawn mark as a number."""
    return float(element.attrib[name])

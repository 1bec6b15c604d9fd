"""Which room may import what: the house's own table, read from the code."""

import ast
import unittest
from collections.abc import Iterator
from pathlib import Path

BACKEND = Path(__file__).resolve().parents[1] / "backend"
STANDARD = "standard library"
ROOMS: dict[str, set[str]] = {
    "core": {"core", "numpy", "scipy"},
    "setup": {"core", "setup", "pydantic", "pydantic_core", "numpy"},
    "store": {"store", "setup", "core.errors", "sqlite3"},
    "api": {"core", "setup", "store", "devices", "api", "fastapi", "starlette", "pydantic", "pydantic_core", "kobrix"},
    "cli": {"core", "setup", "store", "api", "cli", "demo", "kobrix", "uvicorn", "fastapi"},
    "demo": set(),
}
PACKAGES = {"numpy", "scipy", "pydantic", "pydantic_core", "fastapi", "starlette", "uvicorn", "sqlite3"}


def imported(file: Path) -> Iterator[str]:
    """Full names of what a file imports."""
    for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom) and node.module is not None:
            if node.module in ("kobrix.core", "kobrix"):
                yield from (f"{node.module}.{alias.name}" for alias in node.names)
            else:
                yield node.module


def allowed(name: str, room: str) -> bool:
    """Whether a file of `room` may import the module `name`."""
    top = name.split(".")[0]
    if top != "kobrix":
        return top not in PACKAGES or top in ROOMS[room]
    rest = name.removeprefix("kobrix.") if name != "kobrix" else "kobrix"
    if rest == "__version__":
        return "kobrix" in ROOMS[room]
    return any(rest == room_name or rest.startswith(room_name + ".") for room_name in ROOMS[room])


class Imports(unittest.TestCase):
    def test_every_room_imports_only_what_its_row_allows(self) -> None:
        for room in ROOMS:
            for file in sorted((BACKEND / "kobrix" / room).rglob("*.py")):
                for name in imported(file):
                    with self.subTest(file=file.name, imports=name):
                        self.assertTrue(allowed(name, room))

    def test_the_table_itself_can_fail(self) -> None:
        self.assertFalse(allowed("fastapi", "core"))
        self.assertFalse(allowed("kobrix.setup.model", "core"))
        self.assertFalse(allowed("kobrix.core.chain", "store"))
        self.assertFalse(allowed("sqlite3", "api"))
        self.assertTrue(allowed("kobrix.core.errors", "store"))

    def test_core_reads_no_file_clock_or_environment(self) -> None:
        for file in sorted((BACKEND / "kobrix" / "core").glob("*.py")):
            for name in imported(file):
                with self.subTest(file=file.name, imports=name):
                    self.assertNotIn(name.split(".")[0], {"os", "time", "datetime", "random", "pathlib", "io", "json"})


if __name__ == "__main__":
    unittest.main()

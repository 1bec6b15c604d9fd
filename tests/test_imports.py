"""Which room may import what: the house's own table (ARCHITECTURE.md), read from the code. What is not allowed is refused."""

import ast
import sys
import unittest
from collections.abc import Iterator
from pathlib import Path

BACKEND = Path(__file__).resolve().parents[1] / "backend"
HOUSE = BACKEND / "kobrix"
# A room's row: what it may import besides the standard library and itself. Rooms stand with their folders, the inner first.
ROWS: dict[str, set[str]] = {
    "core/numerics": {"core.errors", "core.constants", "numpy", "scipy"},
    "core/physics": {"core.errors", "core.constants", "core.numerics", "numpy", "scipy"},
    "core/rules": {"core.errors", "core.constants", "core.figures", "core.numerics", "core.physics", "numpy", "scipy"},
    "core/search": {"core.errors", "core.constants", "core.numerics", "core.physics", "numpy", "scipy"},
    "core/work": {"core.errors", "core.constants", "core.figures", "core.numerics", "core.physics", "numpy", "scipy"},
    "core/fit": {"core.errors", "core.constants", "core.figures", "core.numerics", "core.physics", "core.work", "numpy", "scipy"},
    "core/prove": {"core.errors", "core.constants", "core.figures", "core.numerics", "core.physics", "numpy", "scipy"},
    "core": {"numpy", "scipy"},
    # A tyre's size and a thread have one reader each: a file with one that is none is refused as it is read.
    "fileformat": {"core.errors", "core.constants", "core.physics.tyres", "core.fit.threads", "pydantic", "pydantic_core", "typing_extensions"},
    "evaluate": {"core", "fileformat", "numpy", "pydantic", "typing_extensions"},
    "store": {"fileformat", "core.errors", "jsonpatch", "jsonpointer", "pydantic_core", "typing_extensions"},
    "stages/common": {"core.errors", "evaluate", "fileformat", "store", "fastapi", "pydantic", "pydantic_core", "typing_extensions"},
    "stages": {"core", "evaluate", "fileformat", "exports", "devices", "pictures", "recordings", "store", "stages.common", "numpy", "fastapi", "pydantic", "pydantic_core", "typing_extensions"},
    "exports": {"core", "ezdxf", "fpdf", "openpyxl", "segno"},
    "devices": {"core", "numpy"},
    "recordings": {"core", "numpy", "gpxpy", "pynmea2"},
    "pictures": {"core.errors", "PIL"},
    "demo": set(),
    "api": {"core", "fileformat", "evaluate", "store", "stages", "devices", "exports", "recordings", "demo", "kobrix", "fastapi", "starlette", "pydantic", "pydantic_core", "argon2", "segno", "typing_extensions"},
    "cli": {"core", "fileformat", "evaluate", "store", "stages", "devices", "exports", "api", "demo", "kobrix", "segno", "starlette", "uvicorn"},
}  # fmt: skip
SQL = {"sqlite3": {"store"}}  # of the standard library, for one room only
NEVER_IN_CORE = {
    "os",
    "time",
    "datetime",
    "random",
    "pathlib",
    "io",
    "json",
    "logging",
    "threading",
    "subprocess",
    "socket",
    "tempfile",
}


def room_of(file: Path) -> str:
    """The row of a `file`: its own, or the one of the nearest folder above it."""
    own = file.relative_to(HOUSE).with_suffix("")
    names = [own, *own.parents]
    return next((n.as_posix() for n in names if n.as_posix() in ROWS), "")


def stage_of(name: str) -> str | None:
    """The stage that a path or a module's dotted `name` belongs to, None outside the stages and for what they share."""
    parts = name.replace("/", ".").split(".")
    own = parts[parts.index("stages") + 1 :] if "stages" in parts else []
    return own[0] if own and own[0] not in ("common", "registry") and (HOUSE / "stages" / own[0]).is_dir() else None


def imported(file: Path, text: str | None = None) -> Iterator[str]:
    """Full names of what a `file` imports, at its head and inside its functions."""
    for node in ast.walk(ast.parse(text if text is not None else file.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            yield from (alias.name for alias in node.names)
        elif isinstance(node, ast.ImportFrom):
            module = node.module or ""
            if node.level:
                yield "." * node.level + module  # a relative import names no room: never allowed
                continue
            folder = BACKEND / module.replace(".", "/")
            if module.split(".")[0] == "kobrix" and folder.is_dir():
                yield from (f"{module}.{alias.name}" if alias.name != "__version__" else "kobrix" for alias in node.names)
            else:
                yield module


def allowed(name: str, file: Path) -> bool:
    """Whether a `file` of the house may import the module `name`."""
    room, top = room_of(file), name.split(".")[0]
    row = ROWS.get(room, set())
    if top != "kobrix":
        if top in SQL:
            return room in SQL[top]
        if room.startswith("core") and top in NEVER_IN_CORE:
            return False
        return top in row or top in sys.stdlib_module_names
    if name == "kobrix":
        return "kobrix" in row
    rest = name.removeprefix("kobrix.")
    if stage_of(rest) is not None and stage_of(file.as_posix()) is not None:
        return stage_of(rest) == stage_of(file.as_posix())
    own = room.replace("/", ".")
    return any(rest == r or rest.startswith(r + ".") for r in (own, *row))


def files() -> list[Path]:
    """Every module of the house."""
    return sorted(HOUSE.rglob("*.py"))


class Imports(unittest.TestCase):
    def test_every_room_imports_only_what_its_row_allows(self) -> None:
        for file in [f for f in files() if f.name != "__main__.py"]:
            for name in imported(file):
                with self.subTest(file=file.relative_to(BACKEND).as_posix(), imports=name):
                    self.assertTrue(allowed(name, file))

    def test_every_module_lies_in_a_room(self) -> None:
        outside = [f.name for f in files() if not room_of(f)]
        self.assertEqual(sorted(outside), ["__init__.py", "__main__.py"])

    def test_what_was_tried_to_slip_through_is_refused(self) -> None:
        core, rules, file = HOUSE / "core/physics/disc.py", HOUSE / "core/rules/run.py", HOUSE / "fileformat/job.py"
        measure, size = HOUSE / "stages/measure/service.py", HOUSE / "stages/size/service.py"
        for name, where in (
            ("requests", core), ("pandas", rules), ("kobrix.core.rules.limits", core), ("kobrix.core.search.engine", rules),
            ("kobrix.fileformat.job", core), ("os", core), ("sqlite3", core), ("fastapi", file), ("kobrix.core.physics.chain", file),
            ("kobrix.stages.match.service", measure), ("kobrix.stages.size.compare", measure), ("kobrix.api.app", size),
            ("sqlite3", size), ("kobrix.stages.size.service", HOUSE / "evaluate/solve.py"), (".match", measure),
            ("kobrix.core.physics.chain", HOUSE / "store/jobs.py"), ("sqlite3", HOUSE / "api/app.py"), ("httpx", HOUSE / "api/app.py"),
        ):  # fmt: skip
            with self.subTest(imports=name, into=where.name):
                self.assertFalse(allowed(name, where))

    def test_what_a_row_names_is_allowed(self) -> None:
        self.assertTrue(allowed("kobrix.core.errors", HOUSE / "store/jobs.py"))
        self.assertTrue(allowed("kobrix.core.physics.chain", HOUSE / "core/rules/parts.py"))
        self.assertTrue(allowed("kobrix.stages.size.compare", HOUSE / "stages/size/routes.py"))
        self.assertTrue(allowed("kobrix.stages.common", HOUSE / "stages/size/routes.py"))

    def test_imports_inside_functions_and_relative_ones_are_seen(self) -> None:
        text = "def f():\n    import requests\n    from . import x\n    from kobrix.core import physics\n"
        self.assertEqual(list(imported(HOUSE / "core/x.py", text)), ["requests", ".", "kobrix.core.physics"])


if __name__ == "__main__":
    unittest.main()

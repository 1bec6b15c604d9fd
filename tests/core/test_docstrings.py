"""Every public name of the core says what it is, in which unit, and where it comes from."""

import doctest
import importlib
import inspect
import pkgutil
import re
import unittest
from collections.abc import Iterator
from types import ModuleType
from typing import Any

from kobrix import core


def modules() -> Iterator[ModuleType]:
    """Every module of the core."""
    for found in pkgutil.walk_packages(core.__path__, "kobrix.core."):
        yield importlib.import_module(found.name)


def public(module: ModuleType) -> Iterator[tuple[str, Any]]:
    """Public functions and classes that a module defines itself."""
    for name, thing in vars(module).items():
        if not name.startswith("_") and getattr(thing, "__module__", None) == module.__name__ and callable(thing):
            yield name, thing


def without_unit(function: Any) -> list[str]:
    """Parameters that the docstring does not name, or names without a unit after them."""
    text = inspect.getdoc(function) or ""
    missing = []
    for name in inspect.signature(function).parameters:
        place = text.find(f"`{name}`")
        if place < 0 or not re.search(r"[\[{]", text[place : place + 90]):
            missing.append(name)
    return missing


class Docstrings(unittest.TestCase):
    def test_functions_name_every_parameter_with_its_unit_and_a_source(self) -> None:
        for module in modules():
            for name, thing in public(module):
                if inspect.isclass(thing):
                    continue
                with self.subTest(function=f"{module.__name__}.{name}"):
                    self.assertEqual(without_unit(thing), [])

    def test_formulas_name_a_source(self) -> None:
        subjects = ("control", "booster", "cylinder", "lines", "disc", "drum", "vehicle", "travel", "chain")
        for module in modules():
            if module.__name__.split(".")[-1] in subjects:
                for name, thing in public(module):
                    if inspect.isfunction(thing) and name not in ("total",):
                        with self.subTest(function=f"{module.__name__}.{name}"):
                            self.assertIn("Source:", inspect.getdoc(thing) or "")

    def test_records_and_their_methods_are_described(self) -> None:
        for module in modules():
            for name, thing in public(module):
                if inspect.isclass(thing):
                    with self.subTest(record=f"{module.__name__}.{name}"):
                        self.assertTrue(inspect.getdoc(thing))
                        for method, own in vars(thing).items():
                            if not method.startswith("_") and inspect.isfunction(own):
                                self.assertTrue(inspect.getdoc(own), method)

    def test_a_missing_unit_is_noticed(self) -> None:
        def bad(force: float, area: float) -> float:
            """Pressure [Pa] of `force` [N] over `area`, whatever that is measured in by whoever calls this function here."""
            return force / area

        self.assertEqual(without_unit(bad), ["area"])

    def test_examples_in_docstrings_hold(self) -> None:
        tried = 0
        for module in modules():
            result = doctest.testmod(module)
            tried += result.attempted
            self.assertEqual(result.failed, 0, module.__name__)
        self.assertGreater(tried, 8)

"""Invented vehicles, as files in the open format."""

from pathlib import Path

JOBS = (Path(__file__).with_name("merrow-skiff.kobrix.json"),)  # what a new demo database is filled with
LIBRARY = Path(__file__).with_name("library.csv")
SETUPS = tuple(
    Path(__file__).with_name(f"{name}.kobrix.json") for name in ("hill-climb", "motorcycle", "light-aircraft", "trials-car")
)

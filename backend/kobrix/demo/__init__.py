"""Invented jobs, as files in the open format."""

from pathlib import Path

JOBS = (Path(__file__).parent / "merrow-skiff.kobrix.json",)

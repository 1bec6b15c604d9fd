"""The tables of the trade that ship with the app: fittings and threads, what a donor part needs, the steps of a build."""

import json
from functools import lru_cache
from importlib.resources import files
from typing import Any


@lru_cache(maxsize=8)
def table(name: str) -> dict[str, Any]:
    """The shipped table `name` (fittings, donor-rules, build-steps); its own `standing` says where each row comes from."""
    text = (files("kobrix.fileformat") / "tables" / f"{name}.json").read_text(encoding="utf-8")
    read: dict[str, Any] = json.loads(text)
    return read

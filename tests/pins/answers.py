"""What the server answers about every pinned vehicle, in figures and words: `python -m tests.pins.answers` takes it over as it is now,
with a folder named the whole answers are written there, to be held against those of another day."""

import hashlib
import json
import math
import re
import sys
import tempfile
from collections.abc import Iterator
from datetime import date
from pathlib import Path
from typing import Any
from unittest import mock

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.api.tables import tables_of
from kobrix.cli.serve import fill
from kobrix.stages.common import stored_job
from kobrix.stages.fit import service as fitting
from kobrix.store.connection import prepare

from tests.pins.vehicles import vehicles

PINS = Path(__file__).with_name("pins.json")
_TIMES = re.compile(r"(_at|seconds|revision|recorded)$")  # when something was done is no figure of the vehicle
_PAGES = ("fit", "build", "bleed", "bed", "measure", "mends", "often-asked", "sensitivity", "match/choices")
_WHOLE = ("size", "verdicts", "card", "prove", "compare", "routes", "stages")


class _Day(date):
    """A day on which every hose is as old as it was."""

    @classmethod
    def today(cls) -> "_Day":
        return cls(2026, 5, 7)


def rounded(value: Any) -> Any:
    """A document to six digits, without the times in it."""
    if isinstance(value, dict):
        return {k: rounded(v) for k, v in value.items() if not _TIMES.search(k)}
    if isinstance(value, list | tuple):
        return [rounded(v) for v in value]
    if isinstance(value, float):
        return 0.0 if abs(value) < 1e-9 or not math.isfinite(value) else float(f"{value:.6g}")
    return value


def answers(name: str, document: Any) -> Iterator[tuple[str, Any]]:
    """Everything that is told of one vehicle, by what was asked."""
    with tempfile.TemporaryDirectory() as folder, mock.patch.object(fitting, "date", _Day):
        database = Path(folder) / "pins.sqlite3"
        prepare(database)
        fill(database)
        with TestClient(create_app(database), base_url="http://127.0.0.1") as client:
            own = client.post("/api/jobs", json=document).json()["id"] if name != "merrow-skiff" else 1
            job, at = client.get(f"/api/jobs/{own}").json(), f"/api/jobs/{own}"
            for page in _WHOLE:
                yield page, client.get(f"{at}/{page}").json()
            size = client.get(f"{at}/size").json()
            for setup in job["setups"]:
                for page in _PAGES:
                    yield f"{page}, {setup}", client.get(f"{at}/{page}", params={"setup": setup}).json()
                shown = next(s for s in size["setups"] if s["name"] == setup)
                for path in [p["name"] for p in (shown["solved"] or {"paths": []})["paths"]]:
                    asked = {"setup": setup, "path": path, "pedal_force_n": 260.0}
                    yield f"working, {setup}, {path}", client.post(f"{at}/working", json=asked).json()
                    yield f"moment, {setup}, {path}", client.post(f"{at}/moment", json=asked).json()
                yield (
                    f"heat, {setup}",
                    client.post(f"{at}/heat", json={"setup": setup, "speed_from_kmh": "100 km/h", "stops": 4}).json(),
                )
                yield f"yard, {setup}", client.post(f"{at}/yard", json={"setup": setup}).json()
            for axle in ("front", "rear"):
                yield f"donors, {axle}", client.get(f"{at}/donors", params={"axle": axle}).json()
            yield "tables", [vars(t) for t in tables_of(stored_job(database, own), _Day.today())]


def pinned(document: Any) -> str:
    """A short sum over a rounded document."""
    return hashlib.sha256(json.dumps(rounded(document), sort_keys=True).encode()).hexdigest()[:12]


def main(folder: Path | None) -> None:
    """Take all answers over as they are now; into a `folder` the whole of them."""
    found: dict[str, dict[str, str]] = {}
    for name, document in vehicles().items():
        found[name] = {}
        for asked, answer in answers(name, document):
            found[name][asked] = pinned(answer)
            if folder is not None:
                file = folder / f"{name}, {asked}.json".replace("/", " ")
                file.write_text(json.dumps(rounded(answer), indent=1, sort_keys=True), encoding="utf-8")
    if folder is None:
        PINS.write_text(json.dumps(found, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else None)

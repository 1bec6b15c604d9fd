"""What the server answers about every pinned vehicle, in figures and words: `python -m tests.pins.answers` takes it over as it is now,
with a folder named the whole answers are written there, to be held against those of another day."""

import dataclasses
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
from kobrix.api.dossier import dossier_of
from kobrix.api.tables import tables_of
from kobrix.cli.serve import fill
from kobrix.core.errors import KobrixError
from kobrix.evaluate.questions import evaluate as result_of
from kobrix.fileformat.questions import Questions
from kobrix.stages.common import stored_job
from kobrix.stages.fit import service as fitting
from kobrix.stages.match.request import Search
from kobrix.stages.match.service import search
from kobrix.store.connection import prepare

from tests.pins.drawn import drawn, refusals
from tests.pins.vehicles import setup_of, vehicles

PINS = Path(__file__).with_name("pins.json")
_TIMES = re.compile(r"(_at|seconds|revision|recorded)$")  # when something was done is no figure of the vehicle
_PAGES = ("fit", "build", "bleed", "bed", "measure", "mends", "often-asked", "sensitivity", "match/choices")
_WHOLE = ("size", "verdicts", "card", "prove", "compare", "routes", "stages")

SEARCHES: tuple[dict[str, Any], ...] = (
    {"pins": {"least_mm": "40 mm", "most_mm": "60 mm", "step_mm": "5 mm"}, "bores": {"sizes_mm": ["3/4 in", "13/16 in", "7/8 in"]}},
    {"bores": {"sizes_mm": ["5/8 in", "3/4 in"], "price": 60.0}, "wanted": {"effort_n": "300 N"}, "limits": {"effort_n": 480, "sharing": False}},
    {"bores": {"sizes_mm": ["1 1/4 in"]}, "limits": {"effort_n": 120, "travel_share": 0.2}},
)  # fmt: skip
QUESTIONS = Questions.model_validate({
    "pedal_forces_n": [80, 260, 600], "wanted_decels_g": [0.3, 0.55], "trials": {"n": 60, "seed": 2},
    "failures": [{"name": "all hot", "friction": "hot"}], "inverse": {"bore_for_effort": {"decel_g": 0.4, "effort_n": 220}, "knee_for_lock_order": {"margin": 0.05}},
})  # fmt: skip


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
            stored = stored_job(database, own)
            last = stored.job.names[min(1, len(stored.job.names) - 1)]
            yield "dossier", dataclasses.asdict(dossier_of(stored, last, _Day.today()))
            for ask in SEARCHES:
                try:
                    yield f"search {ask}", search(stored.job, Search.model_validate({"setup": last, **ask}))
                except KobrixError as refused:
                    yield f"search {ask}", str(refused)
            for setup in stored.job.names:
                yield f"file, {setup}", result_of(stored.job.setup(setup), QUESTIONS)
            yield "tables", [vars(t) for t in tables_of(stored, _Day.today())]


def pinned(document: Any) -> str:
    """A short sum over a rounded document."""
    return hashlib.sha256(json.dumps(rounded(document), sort_keys=True).encode()).hexdigest()[:12]


def everything() -> Iterator[tuple[str, str, Any]]:
    """All that is pinned: whose, what was asked, the answer."""
    documents = vehicles()
    setups = [d for d in documents.values() if d["format"] == "kobrix-setup"]
    jobs = [d for d in documents.values() if d["format"] == "kobrix-job"]
    setups += [setup_of(d, own) for d in jobs for own in (d["as_found"], *d["plans"])]
    for asked, answer in refusals({n: d for n, d in documents.items() if not n.startswith("stirred")}):
        yield "entries refused", asked, answer
    for asked, answer in drawn(setups, 48, seed=3):
        yield "drawn at random", asked, answer
    for name, document in documents.items():
        for asked, answer in answers(name, document):
            yield name, asked, answer


def main(folder: Path | None) -> None:
    """Take all answers over as they are now; into a `folder` the whole of them."""
    found: dict[str, dict[str, str]] = {}
    for name, asked, answer in everything():
        found.setdefault(name, {})[asked] = pinned(answer)
        if folder is not None:
            file = folder / f"{name}, {asked}.json".replace("/", " ")
            file.write_text(json.dumps(rounded(answer), indent=1, sort_keys=True), encoding="utf-8")
    if folder is None:
        PINS.write_text(json.dumps(found, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else None)

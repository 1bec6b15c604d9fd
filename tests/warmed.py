"""Imported by the process that test servers are forked from: what the demo's pages ask is computed once, before the first of them."""

import tempfile
from pathlib import Path

from fastapi.testclient import TestClient
from kobrix.api.app import create_app
from kobrix.cli.serve import fill
from kobrix.store.connection import prepare

ASKED = (
    "stages", "size", "verdicts?setup=plan%20A", "mends?setup=plan%20A", "measure", "sensitivity?setup=as%20found", "build", "prove",
    "often-asked",
)  # fmt: skip


def warm() -> None:
    """Ask for the demo job's pages of a database that is thrown away; what they were made of stays known in this process."""
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "warm.sqlite3"
        prepare(database)
        fill(database)
        with TestClient(create_app(database), base_url="http://127.0.0.1") as client:
            for path in ASKED:
                client.get(f"/api/jobs/1/{path}").raise_for_status()


warm()

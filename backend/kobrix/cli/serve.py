"""Starting the server: prepare the database, fill the demo once, bind to this machine only."""

import os
import socket
import sys
from pathlib import Path

import uvicorn
from fastapi import FastAPI

from kobrix.api.app import create_app
from kobrix.demo import JOBS
from kobrix.setup import files
from kobrix.store import jobs
from kobrix.store.connection import open_db, prepare

HOST = "127.0.0.1"
FRONT_END = Path(__file__).resolve().parents[3] / "frontend" / "dist"


def fill(database: Path) -> None:
    """Put the demo jobs into a `database` that was just created; what a person deletes later stays deleted."""
    with open_db(database) as db:
        for file in JOBS:
            document = files.parse_json(file.read_bytes())
            files.read_file(document)
            jobs.add(db, document)


def reloaded() -> FastAPI:
    """The application for the reloading server, its database named in the environment."""
    return create_app(Path(os.environ["KOBRIX_DATABASE"]), FRONT_END)


def _taken(port: int) -> bool:
    with socket.socket() as probe:
        return probe.connect_ex((HOST, port)) == 0


def serve(database: Path, port: int, demo: bool, reload: bool) -> int:
    """Serve `database` on `port` of this machine until stopped; 2 when the port is taken."""
    if _taken(port):
        print(
            f"kobrix: port {port} is in use on this machine. Stop what uses it, or choose another: KOBRIX_PORT=8421 ./run ...",
            file=sys.stderr,
        )
        return 2
    if prepare(database) and demo:
        fill(database)
    print(f"Kobrix: http://{HOST}:{port}/   (stop with Ctrl+C; everything is stored as you go)", flush=True)
    if reload:
        os.environ["KOBRIX_DATABASE"] = str(database)
        uvicorn.run(
            "kobrix.cli.serve:reloaded",
            factory=True,
            host=HOST,
            port=port,
            reload=True,
            log_level="warning",
            reload_dirs=["backend"],
        )
    else:
        uvicorn.run(create_app(database, FRONT_END), host=HOST, port=port, log_level="warning", access_log=False)
    return 0

"""Starting the server: prepare the database, fill the demo once, bind to this machine only."""

import os
import socket
import sys
from datetime import date
from pathlib import Path

import uvicorn
from starlette.types import ASGIApp

from kobrix.api.loading import Loading
from kobrix.api.pairing import Pairing
from kobrix.core.errors import BadFile
from kobrix.demo import JOBS, LIBRARY
from kobrix.store import backup, devices, prune
from kobrix.store.connection import open_db, prepare

HOST = "127.0.0.1"
_INSIDE, _BESIDE = (Path(__file__).resolve().parents[1] / "web", Path(__file__).resolve().parents[3] / "frontend" / "dist")
FRONT_END = _INSIDE if _INSIDE.is_dir() else _BESIDE  # in the wheel, or as it is built


def fill(database: Path) -> None:
    """Put the demo jobs into a `database` that was just created; what a person deletes later stays deleted."""
    from kobrix.fileformat import files  # read once in a database's life, not at each start
    from kobrix.fileformat.job import Job
    from kobrix.fileformat.library import parts_of
    from kobrix.store import library, whole

    with open_db(database) as db:
        for file in JOBS:
            job = files.read_file(files.parse_json(file.read_bytes()))
            assert isinstance(job, Job)
            whole.add(db, job)
        library.add(db, parts_of(LIBRARY.read_text(encoding="utf-8")))


def reloaded() -> ASGIApp:
    """The application for the reloading server, its database named in the environment."""
    from kobrix.api.app import create_app

    return create_app(Path(os.environ["KOBRIX_DATABASE"]), FRONT_END)


def _taken(port: int) -> bool:
    with socket.socket() as probe:
        return probe.connect_ex((HOST, port)) == 0


def lan_address() -> str | None:
    """The address of this machine in its own network, None when it is in none. Nothing is sent."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("192.0.2.1", 9))  # reserved for documents: no packet leaves for a datagram that is not sent
        except OSError:
            return None
        address: str = probe.getsockname()[0]
    return None if address.startswith("127.") else address


def _listening(host: str, port: int) -> socket.socket:
    # Said to be TCP, so that the event loop lets small answers go at once: else each waits 40 ms for the last one's receipt.
    found = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        found.bind((host, port))
    except OSError:
        found.close()
        raise
    return found


def _tell(sentence: str) -> None:
    print(f"        {sentence}", flush=True)
    link = sentence.rpartition(" ")[2]
    if link.startswith("http://") and sys.stdout.isatty():
        import segno  # only where a person looks at the terminal

        segno.make(link, micro=False).terminal(compact=True)


def _paired(database: Path, outside: str, port: int) -> Pairing:
    """The pairing at an address, with the devices that this database knows."""
    with open_db(database) as db:
        known = {d.digest for d in devices.every(db)}

    def keep(name: str, digest: bytes) -> None:
        with open_db(database) as db:
            devices.add(db, name, digest)

    return Pairing(outside, port, _tell, known, keep)


def serve(database: Path, port: int, demo: bool, reload: bool, lan: str | None = None) -> int:
    """Serve `database` on `port` of this machine until stopped; 2 when the port is taken or there is no network.

    `lan`: the one address of this machine that paired devices may come through besides; "auto" finds it.
    """
    if _taken(port):
        print(
            f"kobrix: port {port} is in use on this machine. Stop what uses it, or choose another: --port 8421, or KOBRIX_PORT=8421 ./run ...",
            file=sys.stderr,
        )
        return 2
    outside = lan_address() if lan == "auto" else lan
    if lan is not None and outside is None:
        print(
            "kobrix: this machine is in no network now; start it without --lan, or give --lan an address of it.", file=sys.stderr
        )
        return 2
    try:
        created = prepare(database)
    except BadFile as error:
        good = backup.last_good(database) if database.is_file() else None
        if good is None:
            raise
        command = f"kobrix restore --database {database} {good}"
        raise BadFile(
            [*error.problems, f"The newest good copy is {good}. To put it back, what stands there kept: {command}"]
        ) from None
    if created and demo:
        fill(database)
    backup.of_the_day(database, date.today())
    with open_db(database) as db:
        prune.prune(db)
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
        return 0
    sockets = []
    for host, must in ((HOST, "Choose another port: --port 8421."), (outside, "It must be an address of this machine.")):
        if host is None:
            continue
        try:
            sockets.append(_listening(host, port))
        except OSError as error:
            print(f"kobrix: {host}:{port} cannot be listened on: {error.strerror}. {must}", file=sys.stderr)
            for opened in sockets:
                opened.close()
            return 2
    pairing = None if outside is None else _paired(database, outside, port)
    loading = Loading(database, FRONT_END, pairing)
    server = uvicorn.Server(
        uvicorn.Config(loading, log_level="warning", access_log=False, timeout_graceful_shutdown=1, lifespan="off")
    )

    def stop() -> None:
        server.should_exit = True

    with open_db(database) as held:  # while one connection stays, closing another writes nothing back
        held.execute("SELECT 1 FROM jobs LIMIT 1").fetchone()
        loading.begin(failed=stop)
        server.run(sockets)
    if loading.application.done():
        loading.application.result()  # what could not be loaded is told as it is
    return 0

"""What a server holds out that runs for weeks: many pages that listen at once, and thousands of evaluations and searches."""

import random
import socket
import time
from pathlib import Path
from urllib.parse import urlsplit

from tests.bench_lines import line
from tests.bench_server import asked, server_pid
from tests.browser import server

PAGES, EVALUATIONS, SEARCHES = 300, 5_000, 50


def _listening(url: str, count: int) -> list[socket.socket]:
    """So many pages that listen to the first job, each after its first event."""
    host = urlsplit(url).netloc
    address, port = host.split(":")
    found = []
    for _ in range(count):
        own = socket.create_connection((address, int(port)), timeout=20)
        own.sendall(f"GET /api/jobs/1/events HTTP/1.1\r\nHost: {host}\r\n\r\n".encode())
        found.append(own)
    return [own for own in found if _told(own)]


def _told(own: socket.socket) -> bool:
    """Whether a page hears something more."""
    heard = b""
    while b"data:" not in heard:
        part = own.recv(4096)
        if not part:
            return False
        heard += part
    return True


def streams() -> None:
    """Pages that listen: what a read takes beside them, and how long until all hear of a change."""
    with server() as url:
        pages = _listening(url, PAGES)
        print(f"{'pages that listen':58} {len(pages)} of {PAGES}")
        reads = []
        for _ in range(40):
            start = time.perf_counter()
            asked(f"{url}/api/jobs/1/size")
            reads.append((time.perf_counter() - start) * 1e3)
        line(f"Size read beside {len(pages)} pages that listen", reads, "wanted: 1000 or less")
        heard = []
        for n in range(5):
            body = {
                "base": asked(f"{url}/api/jobs/1")["revision"],
                "label": "name",
                "edits": [{"path": "/name", "value": f"name {n}"}],
            }
            start = time.perf_counter()
            asked(f"{url}/api/jobs/1/changes", "POST", body)
            assert all(_told(own) for own in pages)
            heard.append((time.perf_counter() - start) * 1e3)
        line("a change, until every one of them has heard", heard, "")
        for own in pages:
            own.close()


def _megabytes(url: str) -> float:
    status = Path(f"/proc/{server_pid(url)}/status").read_text(encoding="utf-8").splitlines()
    return next(int(row.split()[1]) for row in status if row.startswith("VmRSS")) / 1024


def memory() -> None:
    """What the server keeps in memory over thousands of evaluations, each of another setup, and many searches."""
    draw = random.Random(1)
    with server() as url:
        for n in range(EVALUATIONS):
            edit = {"path": "/plans/0/systems/0/cylinder/bore_mm", "value": f"{draw.uniform(17.0, 25.0):.4f} mm"}
            asked(f"{url}/api/jobs/1/try", "POST", {"setup": "plan A", "edits": [edit]})
            if n + 1 in (EVALUATIONS // 5, EVALUATIONS):
                print(f"{'memory after ' + format(n + 1, ',') + ' evaluations':58} {_megabytes(url):7.0f} MB")
        for n in range(SEARCHES):
            pins = {"least_mm": "44 mm", "most_mm": f"{56 + n * 0.1:.1f} mm", "step_mm": "2 mm"}
            found = asked(
                f"{url}/api/jobs/1/match",
                "POST",
                {"setup": "plan A", "pins": pins, "bores": {"sizes_mm": ["0.70 in", "13/16 in"]}},
            )
            while found["state"] == "running":
                time.sleep(0.1)
                found = asked(f"{url}/api/jobs/1/match")
            assert found["state"] == "done", found
            if n + 1 in (SEARCHES // 5, SEARCHES):
                print(f"{'memory after ' + str(n + 1) + ' searches more':58} {_megabytes(url):7.0f} MB   wanted: flat")


def endurance() -> None:
    """Both."""
    streams()
    memory()

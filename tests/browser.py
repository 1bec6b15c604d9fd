"""The real server and the real browser, for tests, pictures and measurements."""

import atexit
import contextlib
import multiprocessing
import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from kobrix.cli.main import main
from playwright.sync_api import Browser, sync_playwright

ROOT = Path(__file__).resolve().parents[1]
PATIENCE_S = 60.0  # a slow machine is no defect
# Without windows of its own: the whole of Chromium draws its bars and tabs too, twice the work for each page.
CHROMIUM = "/usr/bin/chromium-headless-shell"
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-dev-shm-usage",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--force-color-profile=srgb",
    "--font-render-hinting=none",
    "--hide-scrollbars",
]


def free_port() -> int:
    """A port of this machine for servers of this process alone: it stays bound, so that no other run is given it meanwhile."""
    probe = socket.socket()
    probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)  # a server may listen where one is bound that does not
    probe.bind(("127.0.0.1", 0))
    atexit.register(probe.close)
    return int(probe.getsockname()[1])


def command(database: Path, port: int, demo: bool = True) -> list[str]:
    """The command that serves `database` on `port`."""
    words = [sys.executable, "-m", "kobrix", "serve", "--database", str(database), "--port", str(port)]
    return [*words, "--demo"] if demo else words


def wait_until_up(url: str, seconds: float = PATIENCE_S, step: float = 0.05, path: str = "/api/jobs") -> None:
    """Wait until the server at `url` answers at a `path`, looking every `step` [s]. Raises TimeoutError."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(f"{url}{path}", timeout=2):
                return
        except urllib.error.HTTPError:
            return  # it answers, if only that it is locked
        except OSError:
            pass
        time.sleep(step)
    raise TimeoutError(f"no answer from {url}")


@contextlib.contextmanager
def server(database: Path | None = None, demo: bool = True) -> Iterator[str]:
    """The address of a running server on a database of its own."""
    with tempfile.TemporaryDirectory() as folder:
        port = free_port()
        words = command(database or Path(folder) / "test.sqlite3", port, demo)
        environment = {**os.environ, "PYTHONPATH": str(ROOT / "backend")}
        with subprocess.Popen(words, env=environment, stdout=subprocess.DEVNULL) as process:
            try:
                url = f"http://127.0.0.1:{port}"
                wait_until_up(url)
                yield url
            finally:
                process.terminate()
                process.wait(timeout=PATIENCE_S)


def _serve(words: list[str]) -> None:
    """The command in this process, what it prints thrown away."""
    os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
    sys.exit(main(words))


@contextlib.contextmanager
def quick_server() -> Iterator[str]:
    """The same on the demo job, for many short tests: forked from a process that has loaded the program already."""
    forks = multiprocessing.get_context("forkserver")
    forks.set_forkserver_preload(["kobrix.cli.main", "kobrix.cli.serve", "tests.warmed", "uvicorn.protocols.http.h11_impl"])
    with tempfile.TemporaryDirectory() as folder:
        port = free_port()
        process = forks.Process(target=_serve, args=(command(Path(folder) / "test.sqlite3", port)[3:],))
        process.start()
        try:
            url = f"http://127.0.0.1:{port}"
            wait_until_up(url)
            yield url
        finally:
            process.kill()
            process.join()


@contextlib.contextmanager
def chromium() -> Iterator[Browser]:
    """A headless Chromium."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            yield browser
        finally:
            browser.close()

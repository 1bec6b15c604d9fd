"""A wheel tried as a stranger would: installed into an empty environment, started with the demo, asked for its page and a job."""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from tests.browser import free_port


def fetched(url: str, within: float = 60.0) -> bytes:
    """What stands at an address, once somebody answers. Raises TimeoutError."""
    end = time.monotonic() + within
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(url, timeout=10) as answer:
                return bytes(answer.read())
        except OSError:
            time.sleep(0.2)
    raise TimeoutError(url)


def tried(python: str, wheel: Path) -> str:
    """Install a `wheel` beside nothing else with a `python`, start it, and say what it answered. Raises on what is not as it should be."""
    with tempfile.TemporaryDirectory() as folder:
        home = Path(folder)
        # Nothing of the checkout, nor a Node on the way.
        plain = {"PATH": "/usr/bin:/bin", "HOME": folder, "XDG_DATA_HOME": str(home / "share")}
        subprocess.run([sys.executable, "-m", "uv", "venv", "--quiet", "--python", python, str(home / "venv")], check=True)
        own = str(home / "venv" / "bin" / "python")
        began = time.monotonic()
        subprocess.run(
            [sys.executable, "-m", "uv", "pip", "install", "--quiet", "--python", own, str(wheel)],
            check=True,
            env={**os.environ, "VIRTUAL_ENV": ""},
        )
        took = time.monotonic() - began
        kobrix = str(home / "venv" / "bin" / "kobrix")
        version = subprocess.run(
            [kobrix, "--version"], check=True, env=plain, cwd=folder, capture_output=True, text=True
        ).stdout.strip()
        port = free_port()
        server = subprocess.Popen([kobrix, "demo", "--port", str(port)], env=plain, cwd=folder, stdout=subprocess.DEVNULL)
        try:
            page = fetched(f"http://127.0.0.1:{port}/jobs/1/size").decode()
            jobs = json.loads(fetched(f"http://127.0.0.1:{port}/api/jobs"))
            size = json.loads(fetched(f"http://127.0.0.1:{port}/api/jobs/1/size"))
            texts = fetched(f"http://127.0.0.1:{port}/third-party.txt")
            script = page.split('src="/assets/')[1].split('"')[0]
            code = fetched(f"http://127.0.0.1:{port}/assets/{script}")
        finally:
            server.terminate()
            server.wait()
        assert jobs and size["setups"] and len(code) > 10_000 and b"OFL" in texts.upper(), (
            "the installed wheel does not show its page"
        )
        assert (home / "share" / "kobrix" / "demo.sqlite3").is_file(), "the demo's database is not where a user's data stand"
        size_mb = sum(f.stat().st_size for f in (home / "venv").rglob("*") if f.is_file()) / 1e6
        return f"{version} on {Path(python).name}: installed in {took:.1f} s, {size_mb:.0f} MB with what it needs; {jobs[0]['name']} is shown"


if __name__ == "__main__":
    if shutil.which(sys.argv[1]) is None:
        sys.exit(f"{sys.argv[1]} is not on this machine")
    print(tried(sys.argv[1], Path(sys.argv[2])))

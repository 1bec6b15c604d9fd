"""Power cut off in mid-edit, over and over: the server is killed while it stores, started again, and asked for all that it had said was stored."""

import contextlib
import http.client
import json
import os
import random
import signal
import subprocess
import threading
import time
import urllib.error
import urllib.request
from dataclasses import dataclass, field
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from tests.browser import ROOT, command, free_port, wait_until_up

Document = dict[str, Any]
NEWEST = 5  # jobs that are written to, and looked at after each start; all of them after the last


@dataclass
class Said:
    """What the server said was stored: the least revision of each job with its last value, and every record and job by key."""

    revisions: dict[int, int] = field(default_factory=dict)
    notes: dict[int, tuple[int, str]] = field(default_factory=dict)
    records: dict[int, set[str]] = field(default_factory=dict)
    answers: int = 0


def _asked(url: str, body: Document | None = None) -> Any:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"Content-Type": "application/json"})
    with urllib.request.urlopen(request, timeout=20) as answer:
        return json.load(answer)


def _edit(draw: random.Random, url: str, job: int, base: int, said: Said) -> None:
    """One step of any kind: what creates, changes, takes out, undoes, records or imports."""
    kind = draw.choices(("note", "booster", "plan", "undo", "record", "stop", "import"), (10, 10, 10, 10, 10, 10, 1))[0]
    root = f"{url}/api/jobs/{job}"
    if kind == "import":
        made = _asked(f"{url}/api/jobs", json.loads((ROOT / "backend/kobrix/demo/motorcycle.kobrix.json").read_text()))
        said.revisions[made["id"]] = made["revision"]
    elif kind in ("record", "stop"):
        key = f"key-{draw.getrandbits(64):016x}"
        stop = {"set": "as found", "speed_kmh": 80, "distance_m": 40 + draw.random()}
        body = stop if kind == "stop" else {"setup": "as found", "number": draw.randint(1, 400)}
        _asked(f"{root}/records", {"key": key, "kind": "stop" if kind == "stop" else "bedded", "body": body})
        said.records.setdefault(job, set()).add(key)
    elif kind == "undo":
        with contextlib.suppress(urllib.error.HTTPError):
            said.revisions[job] = _asked(f"{root}/undo", {"base": base})["job"]["revision"]
    else:
        word = f"w{draw.getrandbits(40)}"
        edits = {
            "note": [{"op": "set", "path": "/plans/0/note", "value": word}],
            "booster": [{"op": "set", "path": "/plans/0/systems/0/booster", "value": {"kind": "vacuum", "gain": 4, "vacuum_kpa": draw.randint(40, 80)}}],
            "plan": [{"op": "set", "path": "/plans/0/fit/route/cuts", "value": word}],
        }[kind]  # fmt: skip
        revision = _asked(f"{root}/changes", {"base": base, "label": kind, "edits": edits})["job"]["revision"]
        said.revisions[job] = revision
        if kind == "note":
            said.notes[job] = (revision, word)
    said.answers += 1


def _write(draw: random.Random, url: str, said: Said, over: threading.Event) -> None:
    """Edits one after the other until the server is gone."""
    while not over.is_set():
        try:
            jobs = [j["id"] for j in _asked(f"{url}/api/jobs")]
            job = draw.choice(sorted(jobs)[-NEWEST:])
            _edit(draw, url, job, _asked(f"{url}/api/jobs/{job}")["revision"], said)
        except urllib.error.HTTPError:
            continue  # somebody else was faster, or there is nothing to do: told so, nothing was promised
        except (OSError, ValueError, http.client.HTTPException):  # the server is gone, in the middle of its answer
            return


def _looked(url: str, said: Said, newest: int | None) -> list[str]:
    """What is not there although it was said to be, and every job that does not open; of the `newest` few where that is given."""
    wrong = []
    here = {j["id"] for j in _asked(f"{url}/api/jobs")}
    for job in sorted(here)[-(newest or len(here)) :]:
        try:
            stored = _asked(f"{url}/api/jobs/{job}")
            _asked(f"{url}/api/jobs/{job}/size")
        except urllib.error.HTTPError as error:
            wrong.append(f"job {job} does not open: {error.code}")
            continue
        if stored["revision"] < said.revisions.get(job, 0):
            wrong.append(f"job {job} is at {stored['revision']}, {said.revisions[job]} was said")
        note = said.notes.get(job)
        if note is not None and stored["revision"] == note[0] and stored["document"]["plans"][0].get("note") != note[1]:
            wrong.append(f"job {job} lost {note[1]}")
        kept = {r["key"] for r in _asked(f"{url}/api/jobs/{job}/records")}
        wrong += [f"job {job} lost record {key}" for key in said.records.get(job, set()) - kept]
    return wrong + [f"job {job} is gone" for job in said.revisions.keys() - here]


def cut(times: int, seed: int = 3, writers: int = 3) -> str:
    """Kill a server in mid-edit so many times; a line of what was said to be stored and what was lost."""
    draw, said, wrong = random.Random(seed), Said(), []
    with TemporaryDirectory() as folder:
        database = Path(folder) / "cut.sqlite3"
        environment = {**os.environ, "PYTHONPATH": str(ROOT / "backend")}
        for start in range(times):
            port = free_port()
            url = f"http://127.0.0.1:{port}"
            process = subprocess.Popen(command(database, port), env=environment, stdout=subprocess.DEVNULL)
            try:
                wait_until_up(url)
                wrong += [f"start {start}: {w}" for w in _looked(url, said, None if start == times - 1 else NEWEST)]
                over = threading.Event()
                own = [
                    threading.Thread(target=_write, args=(random.Random(draw.random()), url, said, over)) for _ in range(writers)
                ]
                for thread in own:
                    thread.start()
                time.sleep(draw.uniform(0.05, 0.6))
            finally:
                process.send_signal(signal.SIGKILL)
                process.wait()
            over.set()
            for thread in own:
                thread.join()
    told = f"{times} starts killed in mid-edit by {writers} writers, {said.answers} changes said to be stored: "
    return told + ("none lost, every job opens" if not wrong else f"{len(wrong)} WRONG: " + "; ".join(wrong[:10]))


if __name__ == "__main__":
    import sys

    print(cut(int(sys.argv[1]) if len(sys.argv) > 1 else 300))

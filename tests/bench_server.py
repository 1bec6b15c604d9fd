"""What the machine takes for what a running server does: search, load, writers, a search beside a scrub, a start."""

import contextlib
import gzip
import json
import os
import random
import re
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

from tests.bench_lines import line
from tests.browser import ROOT, chromium, free_port, server, wait_until_up
from tests.cases import demo_job

MILLION = {
    "setup": "plan A", "pins": {"least_mm": "40 mm", "most_mm": "64 mm", "step_mm": "1 mm"},
    "bores": {"sizes_mm": ["14 mm", "5/8 in", "11/16 in", "0.70 in", "3/4 in", "13/16 in", "7/8 in", "15/16 in", "1 in", "1 1/16 in"]},
    "rear": {"calipers": [f"floating, 1 × {d} mm" for d in (32, 34, 36, 38, 40, 43, 45, 48, 51, 54)],
             "rotors": [f"rotor {d} mm, solid" for d in (232, 240, 247, 256, 258, 262, 270, 280)]
             + [f"rotor {d} mm, vented" for d in (288, 296)]},
    "valve": {"least_kpa": "1 MPa", "most_kpa": "8.8 MPa", "step_kpa": "200 kPa", "without": False},
}  # fmt: skip
# The time between frames while something else goes on.
BEATS = """() => {
  window.beats_ = []; window.beating_ = true; let last = performance.now();
  const beat = () => { const now = performance.now(); window.beats_.push(now - last); last = now;
    if (window.beating_) requestAnimationFrame(beat); };
  requestAnimationFrame(beat);
}"""
# A task of the highest priority, asked for in the frame's own callback, runs right after that frame is painted.
FRAMES = """() => {
  window.frames_ = [];
  let since = null;
  const painted = () => { if (since !== null) { window.frames_.push(performance.now() - since); since = null; } };
  const seen = (event) => {
    if (since !== null) return;
    since = event.timeStamp;
    requestAnimationFrame(() => scheduler.postTask(painted, { priority: 'user-blocking' }));
  };
  for (const kind of ['keydown', 'pointermove']) window.addEventListener(kind, seen, { capture: true });
  // The same for what follows the line: from the first event it has not followed yet to the paint in which it has moved.
  window.beside_ = [];
  let behind = null;
  window.addEventListener('keydown', (event) => { behind ??= event.timeStamp; }, { capture: true });
  new MutationObserver(() => {
    if (behind === null) return;
    const from = behind;
    behind = null;
    requestAnimationFrame(() => scheduler.postTask(
      () => window.beside_.push(performance.now() - from), { priority: 'user-blocking' }));
  }).observe(document.getElementById('balance'), { subtree: true, childList: true, attributes: true, characterData: true });
}"""


def scrub() -> None:
    """The push scrubbed by keys and by pointer in Chromium, from the input event to the next paint: on a laptop with the
    three instruments there is room for, and on a phone's page, where six are open at once."""
    for where, width, height in (("", 1280, 800), (", phone, 6 instruments", 390, 844)):
        with server() as url, chromium() as browser:
            page = browser.new_page(viewport={"width": width, "height": height})
            page.goto(f"{url}/jobs/1/size")
            page.get_by_role("img", name="Force line").wait_for()
            page.locator("#balance svg").first.wait_for()
            page.evaluate(FRAMES)
            page.get_by_role("slider", name=re.compile("^Push")).focus()
            for _ in range(120):
                page.keyboard.press("ArrowRight")
                page.wait_for_timeout(25)
            line(f"scrub by keys, event to paint{where}", page.evaluate("window.frames_"), "wanted: p95 33 or less")
            line(f"the same, until the instruments follow{where}", page.evaluate("window.beside_"), "beside it")
            page.evaluate("window.frames_ = []")
            track = page.locator(".track").bounding_box()
            assert track is not None
            page.mouse.move(track["x"] + 30, track["y"] + 20)
            page.mouse.down()
            for step in range(150):
                page.mouse.move(track["x"] + 30 + step * (track["width"] - 60) / 150, track["y"] + 20)
                page.wait_for_timeout(17)
            page.mouse.up()
            line(f"scrub by pointer, event to paint{where}", page.evaluate("window.frames_"), "wanted: p95 33 or less")


def asked(url: str, method: str = "GET", body: object = None) -> dict[str, Any]:
    """What the server answers, as a document."""
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(url, data, {"Content-Type": "application/json"}, method=method)
    with urllib.request.urlopen(request) as answer:
        found: dict[str, Any] = json.load(answer)
    return found


def match() -> None:
    """A search through a million, end to end through the API; and the frames of its page meanwhile."""
    with server() as url, chromium() as browser:
        where = f"{url}/api/jobs/1/match"
        firsts, wholes = [], []
        for _ in range(5):
            start = time.perf_counter()
            found, first = asked(where, "POST", MILLION), 0.0
            while found["state"] == "running":
                if found["found"]["done"] and not first:
                    first = time.perf_counter() - start
                time.sleep(0.12)  # as the page looks
                found = asked(where)
            wholes.append((time.perf_counter() - start) * 1e3)
            firsts.append((first or time.perf_counter() - start) * 1e3)
        total = found["found"]["total"]
        line(f"search of {total:,}: first results through the API", firsts, "wanted: 300 or less")
        line(f"search of {total:,}: whole, doubt included", wholes, "wanted: 2000 or less")
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{url}/jobs/1/match?setup=plan%20A")
        page.get_by_role("table").wait_for()
        page.evaluate(BEATS)
        page.get_by_role("button", name="Again").click()
        page.locator("progress").wait_for()
        page.locator("progress").wait_for(state="hidden", timeout=60_000)
        beats = page.evaluate("(window.beating_ = false, window.beats_)")
        inside = 100.0 * sum(b <= 50.0 for b in beats) / len(beats)
        line("frames of the page while it searches", beats, f"{inside:.1f} % within 50 ms, wanted: 95")
        peak = [
            int(s.split()[1]) for s in Path(f"/proc/{server_pid(url)}/status").read_text().splitlines() if s.startswith("VmHWM")
        ]
        print(f"{'most memory of the server':58} {peak[0] / 1024:7.0f} MB   wanted: 700 or less")


def server_pid(url: str) -> int:
    """The process that listens at `url`, by its command line."""
    port = url.rsplit(":", 1)[1]
    for process in Path("/proc").glob("[0-9]*"):
        with contextlib.suppress(OSError):
            words = (process / "cmdline").read_bytes().split(b"\0")
            if b"serve" in words and port.encode() in words:
                return int(process.name)
    raise LookupError(f"no server at {url}")


# From the start of the navigation until the line and the push's rule are painted, by the page's own clock.
USABLE = """
new MutationObserver((_, watch) => {
  if (!document.querySelector('[role=img][aria-label^="Force line"]') || !document.querySelector('input[type=range]')) return;
  watch.disconnect();
  requestAnimationFrame(() => setTimeout(() => { window.usable_ = performance.now(); }));
}).observe(document, { childList: true, subtree: true });
"""


def load() -> None:
    """What the page weighs, first load to usable, and a part dragged, which asks the core."""
    scripts = (ROOT / "frontend" / "dist" / "assets").glob("*.js")
    weight = sum(len(gzip.compress(script.read_bytes())) for script in scripts) / 1e3
    print(f"{'JavaScript of all pages, gzipped':58} {weight:7.1f} kB   wanted: 300 or less")
    with server() as url, chromium() as browser:
        loads = []
        for _ in range(9):
            page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
            page.add_init_script(USABLE)
            page.goto(f"{url}/jobs/1/size")
            page.get_by_role("slider").first.wait_for()
            loads.append(float(page.evaluate("new Promise(done => { const look = () => window.usable_ ? done(window.usable_)"
                                             " : setTimeout(look, 20); look() })")))  # fmt: skip
            if len(loads) < 9:
                page.context.close()
        line("first load to usable, a browser without cache", loads, "wanted: 1000 or less")
        page.evaluate(DRAGS)
        pin = page.get_by_role("slider", name=re.compile("^Pin"))
        pin.focus()
        for n in range(24):
            page.evaluate("window.dragged_()")
            page.keyboard.press("ArrowRight" if n % 2 else "ArrowLeft")
            page.wait_for_timeout(400)
        line("a pin moved, event to the core's answer painted", page.evaluate("window.drags_"), "wanted: 100 or less")


# From a key on a handle to the frame in which the field beside it says the new size.
DRAGS = """() => {
  window.drags_ = [];
  window.dragged_ = () => {
    let since = null;
    window.addEventListener('keydown', (event) => { since = event.timeStamp; }, { capture: true, once: true });
    const line = document.querySelector('[aria-label^="Force line,"] svg[role=img]') || document.querySelector('svg[role=img]');
    const told = line.getAttribute('aria-label');
    const look = () => {
      if (line.getAttribute('aria-label') !== told || since === null) {
        if (since === null) { requestAnimationFrame(look); return; }
        scheduler.postTask(() => window.drags_.push(performance.now() - since), { priority: 'user-blocking' });
        return;
      }
      requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  };
}"""


def _edit(url: str, job: int, base: int, pin: float, page: str | None) -> tuple[float, int]:
    """One edit of a pin acknowledged, with what the `page` shows of it: its time in ms, and the status."""
    body = {"base": base, "label": "pin", "under": "plan A", "show": page and {"page": page},
            "edits": [{"path": "/systems/0/control/pivot_to_pin_mm", "value": pin}]}  # fmt: skip
    data = json.dumps(body).encode()
    request = urllib.request.Request(f"{url}/api/jobs/{job}/changes", data, {"Content-Type": "application/json"}, method="POST")
    start = time.perf_counter()
    try:
        with urllib.request.urlopen(request) as answer:
            answer.read()
            status = answer.status
    except urllib.error.HTTPError as error:
        error.read()
        status = error.code
    return (time.perf_counter() - start) * 1e3, status


def writers() -> None:
    """Twenty who store an edit at once: on one job, where one of each round is taken and the others are told; and on twenty."""
    many, rounds, draw = 20, 8, random.Random(3)
    with server() as url, ThreadPoolExecutor(many) as pool:
        document = demo_job().model_dump(exclude_unset=True)
        jobs = [asked(f"{url}/api/jobs", "POST", document)["id"] for _ in range(many)]
        for name, own, page in (
            (f"{many} writers on one job", [1] * many, None), (f"{many} writers on {many} jobs", jobs, None),
            (f"{many} writers on one job, Size shown", [1] * many, "size"), (f"{many} on {many} jobs, Size shown", jobs, "size"),
        ):  # fmt: skip
            taken: list[float] = []
            told: list[int] = []
            statuses: list[int] = []
            for _ in range(rounds):
                bases = {job: asked(f"{url}/api/jobs/{job}")["revision"] for job in set(own)}
                edits = [(url, job, bases[job], draw.uniform(40.0, 60.0), page) for job in own]
                answers = list(pool.map(lambda e: _edit(*e), edits))
                taken += [ms for ms, status in answers if status == 200]
                told += [status for _, status in answers if status == 409]
                statuses += [status for _, status in answers]
            line(f"{name}: acknowledged", taken, "wanted: p95 300 or less")
            others = sorted({s for s in statuses if s not in (200, 409)})
            print(f"{'':58} {len(taken)} stored, {len(told)} told of a newer revision, others: {others or 'none'}")


def beside() -> None:
    """A search of a million and a scrub at once, with a busy loop on every core beside them."""
    busy = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(os.cpu_count() or 1)]
    try:
        with server() as url, chromium() as browser:
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(f"{url}/jobs/1/size")
            page.get_by_role("img", name="Force line").wait_for()
            page.locator("#balance svg").first.wait_for()
            page.evaluate(FRAMES)
            page.get_by_role("slider", name=re.compile("^Push")).focus()
            start = time.perf_counter()
            found = asked(f"{url}/api/jobs/1/match", "POST", MILLION)
            for _ in range(120):
                page.keyboard.press("ArrowRight")
                page.wait_for_timeout(25)
            line("scrub by keys while a million are searched, all cores busy", page.evaluate("window.frames_"), "")
            while found["state"] == "running":
                time.sleep(0.12)
                found = asked(f"{url}/api/jobs/1/match")
            print(
                f"{'the search of ' + format(found['found']['total'], ',') + ' beside it':58} {time.perf_counter() - start:7.1f} s   {found['state']}"
            )
    finally:
        for process in busy:
            process.kill()


def start() -> None:
    """A second `./run demo`, from the command to its first page and to the list of jobs."""
    with tempfile.TemporaryDirectory() as folder:
        pages, jobs = list[float](), list[float]()
        for _ in range(6):
            port = free_port()
            began = time.perf_counter()
            own = {**os.environ, "KOBRIX_DATA": folder, "KOBRIX_PORT": str(port)}
            process = subprocess.Popen([str(ROOT / "run"), "demo"], env=own, stdout=subprocess.DEVNULL)
            try:
                for path, taken in (("/jobs/1/size", pages), ("/api/jobs", jobs)):
                    wait_until_up(f"http://127.0.0.1:{port}", step=0.005, path=path)
                    taken.append((time.perf_counter() - began) * 1e3)
            finally:
                process.terminate()
                process.wait()
    line("a second ./run demo, until its page answers", pages[1:], "wanted: 1000 or less")
    line("the same, until it tells of its jobs", jobs[1:], "")

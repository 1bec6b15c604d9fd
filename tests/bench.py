"""What the machine takes for what people wait for: `./run bench [evaluate] [scrub] …`. Figures, never a pass or fail."""

import contextlib
import gzip
import itertools
import json
import os
import platform
import random
import re
import resource
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from importlib import import_module
from pathlib import Path
from typing import Any

import numpy as np
from kobrix.core.numerics.arrays import Floats, Number
from kobrix.core.rules.limits import Bench
from kobrix.core.rules.run import judge
from kobrix.core.search import sweep
from kobrix.evaluate.results import Places
from kobrix.evaluate.solve import Answer, facts_of
from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.size import service

from tests.browser import ROOT, chromium, free_port, server, wait_until_up
from tests.cases import demo_job
from tests.mutation import report
from tests.power import cut

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


def timed(work: Callable[[], object], rounds: int) -> list[float]:
    """Milliseconds of each of `rounds` calls of `work`, after a few that warm up."""
    for _ in range(5):
        work()
    taken = []
    for _ in range(rounds):
        start = time.perf_counter()
        work()
        taken.append((time.perf_counter() - start) * 1e3)
    return taken


def line(name: str, values: list[float], limit: str) -> None:
    """Print the least, the median and the 95th percentile of `values`."""
    p95 = float(np.percentile(values, 95))
    print(f"{name:58} least {min(values):7.2f}  median {statistics.median(values):7.2f}  p95 {p95:7.2f} ms   {limit}")


def bare(pushes: Floats) -> Floats:
    """The bare arithmetic of plan A written out: two load states, seven conditions, every push; forces, sharing and travel."""
    a, b, bore = 0.292, 0.048, 0.0206375
    mass, psi, h = np.array([1310.0, 1560.0])[:, None, None], np.array([0.49, 0.44])[:, None, None], 0.53
    mu = np.array([0.38, 0.38, 0.38, 0.38, 0.34, 0.3, 0.38])[:, None]
    alive_f, alive_r = np.array([1, 1, 0, 1, 1, 1, 1.0])[:, None], np.array([1, 1, 1, 0, 1, 1, 1.0])[:, None]
    area, side_f, side_r = np.pi * bore**2 / 4, 2 * np.pi * 0.0381**2 / 4, np.pi * 0.036**2 / 4
    p = pushes * a / b * 0.92 * 0.95 / area
    front = 2 * 2 * mu * 0.98 * side_f * p * alive_f * 0.1165 / 0.2927
    rear = 2 * 2 * mu * 0.98 * side_r * p * alive_r * 0.1095 / 0.2927
    weight = mass * 9.80665
    z = (front + rear) / weight
    load_f = np.maximum(0.0, weight * (psi + z * h / 2.48))
    load_r = np.maximum(0.0, weight * (1 - psi - z * h / 2.48))
    use_f, use_r = front / load_f, rear / np.maximum(load_r, 1e-9)
    volume = 4 * side_f * (0.00012 + 15.5e-12 * p) * alive_f + 4 * side_r * (0.00012 + 20e-12 * p) * alive_r + 0.2e-12 * p
    pad = 0.005 + a / b * (0.0024 + volume / area)
    return np.stack(np.broadcast_arrays(z, use_f, use_r, pad))


def evaluate() -> None:
    """One evaluation on the server's side."""
    job = demo_job()
    setup = job.setup("plan A")
    pushes = np.linspace(0.0, 1000.0, 60)

    def once() -> object:
        answer = Answer(setup)
        assert answer.solved is not None
        solved = answer.solved.main.healthy
        return Places(solved, solved.place_at(pushes))

    line("one evaluation, all curves, 2 load states, failures", timed(once, 200), "wanted: median 5 or less")
    line("the bare NumPy arithmetic of the same figures", timed(lambda: bare(pushes), 200), "beside it")

    def screen() -> object:
        service.forget()
        return service.size_view(job, 0)

    line("a whole job's screen: 3 setups, judgements, mends tried", timed(screen, 40), "")
    sizes = itertools.count()

    def stepped() -> object:
        document = job.model_dump(exclude_unset=True)
        document["plans"][0]["systems"][0]["control"]["pivot_to_pin_mm"] = 48.0 + next(sizes) / 100.0
        return service.size_view(files.check(Job, document), 0)

    line("the same after a part of one plan was moved", timed(stepped, 40), "")


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


def grid(scale: int) -> sweep.Choices:
    """Bores × ratios × rear areas × rear radii × knees: 10 · 25 · 10 · 10 · 4 · `scale` combinations."""
    return sweep.Choices(
        bores=np.linspace(0.0159, 0.0286, 10), ratios=np.linspace(4.0, 7.0, 25), rear_areas=np.linspace(6e-4, 2.4e-3, 10),
        rear_radii=np.linspace(0.09, 0.12, 10), knees=np.linspace(1e6, 8e6, 4 * scale),
    )  # fmt: skip


def bare_sweep(choices: sweep.Choices, decel: float) -> list[Floats]:
    """The same sweep written out by hand for this one setup: effort, travel, front share and lock order."""
    assert choices.bores is not None and choices.ratios is not None and choices.knees is not None
    assert choices.rear_areas is not None and choices.rear_radii is not None
    mass, psi, chi = np.array([1310.0, 1560.0]), np.array([0.49, 0.44]), 0.53 / 2.48
    weight = mass * 9.80665
    area, radius, knee = (v[..., None] for v in np.meshgrid(choices.rear_areas, choices.rear_radii, choices.knees, indexing="ij"))
    s, grip, tyre = choices.slope, 0.9, 0.2927
    k_f = 2 * 2 * 0.38 * 0.98 * 2.28e-3 * 0.1165 / tyre
    k_r = 2 * 2 * 0.38 * 0.98 * area * radius / tyre

    def pressure(force: Floats) -> Floats:
        low = force / (k_f + k_r)
        return np.where(low <= knee, low, (force - k_r * knee * (1 - s)) / (k_f + k_r * s))

    p = pressure(decel * weight)
    out = np.where(p <= knee, p, knee + s * (p - knee))
    front, rear = k_f * p, k_r * out
    share = (front / (front + rear)).min(axis=-1)

    def lock(own: Number, other: Number, part: Floats, sign: float, held: float) -> Number:
        return (grip * part + sign * grip * chi * held / weight) / (own / (own + other) - sign * grip * chi)

    low_f, low_r = lock(k_f, k_r, psi, 1.0, 0.0), lock(k_r, k_f, 1 - psi, -1.0, 0.0)
    held = k_r * knee * (1 - s)
    p_f = (grip * weight * psi + grip * chi * held) / (k_f - grip * chi * (k_f + k_r * s))
    high_f = (k_f * p_f + held + k_r * s * p_f) / weight
    p_r = (grip * weight * (1 - psi) - held * (1 + grip * chi)) / (k_r * s + grip * chi * (k_f + k_r * s))
    high_r = (k_f * p_r + held + k_r * s * p_r) / weight
    z_f = np.where(low_f * weight / (k_f + k_r) <= knee, low_f, high_f)
    z_r = np.where(low_r * weight / (k_f + k_r) <= knee, low_r, high_r)
    first = (z_f < z_r).all(axis=-1)
    volume = 4 * 2.28e-3 * (0.00012 + 15.5e-12 * p) + 4 * area * (0.00012 + 20e-12 * out) + (0.14e-12 + 0.1e-12) * p
    bore = np.pi * choices.bores**2 / 4
    rod = (p[None] * bore[:, None, None, None, None] / 0.95).max(axis=-1)
    stroke = (0.0024 + volume[None] / bore[:, None, None, None, None]).max(axis=-1)
    ratio = choices.ratios[None, :, None, None, None]
    effort, travel = rod[:, None] / (ratio * 0.92), stroke[:, None] * ratio + 0.005
    return [effort, travel, share, first.astype(np.float64)]


def sweeping() -> None:
    """A million combinations, and how the time grows with their number."""
    answer = Answer(demo_job().setup("plan A"))
    assert answer.solved is not None
    case, system = answer.solved, answer.solved.systems[0]
    for scale in (1, 3, 10):
        choices = grid(scale)
        taken = timed(lambda c=choices: sweep.sweep(system, case.load, case.wheels, c, 0.6), 3)  # type: ignore[misc]
        line(f"sweep of {sweep.count(choices):,} combinations, 2 load states", taken, "wanted: 1500 or less for a million")
    choices = grid(10)
    bare_ = timed(lambda: bare_sweep(choices, 0.6), 9)
    ours = timed(lambda: sweep.sweep(system, case.load, case.wheels, choices, 0.6), 9)
    line("the bare NumPy sweep of 1,000,000 written out", bare_, "ours 2.5 times that or less")
    print(f"{'our sweep over the bare one, medians':58} {statistics.median(ours) / statistics.median(bare_):7.2f} times")
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"{'most memory of this process so far':58} {peak:7.0f} MB   wanted: 500 or less")


def scalar() -> None:
    """One push in one load state, and a full evaluation with judgements."""
    answer = Answer(demo_job().setup("plan A"))
    assert answer.solved is not None
    solved = answer.solved.main.healthy

    def one_push() -> object:
        place = solved.place_at(300.0)
        return solved.at(place), solved.pulls[0].pedal.pad_at(place)

    def full() -> object:
        own = Answer(demo_job_setup)
        assert own.solved is not None
        return judge(Bench(own.solved, own.converted.load_names, facts_of(own)))

    demo_job_setup = demo_job().setup("plan A")
    line("one push in the load states of a solved setup", timed(one_push, 300), "wanted: median 1 or less")
    line("a full evaluation: all failures, judgements", timed(full, 100), "wanted: median 10 or less")


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
    """A second `./run demo`, from the command to the first answer."""
    with tempfile.TemporaryDirectory() as folder:
        taken = []
        for _ in range(6):
            port = free_port()
            began = time.perf_counter()
            own = {**os.environ, "KOBRIX_DATA": folder, "KOBRIX_PORT": str(port)}
            process = subprocess.Popen([str(ROOT / "run"), "demo"], env=own, stdout=subprocess.DEVNULL)
            try:
                wait_until_up(f"http://127.0.0.1:{port}", step=0.005)
                taken.append((time.perf_counter() - began) * 1e3)
            finally:
                process.terminate()
                process.wait()
    line("a second ./run demo, until it answers", taken[1:], "wanted: 1000 or less")


def stages() -> None:
    """Chances, and the pages of the work itself."""
    import_module("tests.bench_stages").main()  # which takes its lines from here


SECTIONS: dict[str, Callable[[], None]] = {
    "evaluate": evaluate,
    "scalar": scalar,
    "sweep": sweeping,
    "scrub": scrub,
    "load": load,
    "match": match,
    "writers": writers,
    "beside": beside,
    "start": start,
    "stages": stages,
    "power": lambda: print(cut(300)),  # kill -9 in mid-edit, about a quarter of an hour
    "mutation": lambda: report(60, seed=11),  # planted faults, and what no test notices: about twenty minutes
}
LONG = ("power", "mutation")  # only when it is named


def main(names: list[str]) -> int:
    """Run the sections by name, all when none is named."""
    unknown = [n for n in names if n not in SECTIONS]
    if unknown:
        print(f"There is no {', '.join(unknown)}; there is: {', '.join(SECTIONS)}.", file=sys.stderr)
        return 2
    print(f"{platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}, NumPy {np.__version__}")
    for name in names or [n for n in SECTIONS if n not in LONG]:
        SECTIONS[name]()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))

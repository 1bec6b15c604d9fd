"""What the machine takes for what people wait for: `./run bench [evaluate] [scrub]`. Figures, never a pass or fail."""

import os
import platform
import statistics
import sys
import time
from collections.abc import Callable

import numpy as np
from kobrix.core.arrays import Floats
from kobrix.setup.result import Answer, Places
from kobrix.setup.view import job_view

from tests.browser import chromium, server
from tests.cases import demo_job

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
        assert answer.case is not None
        solved = answer.case.main.healthy
        return Places(solved, solved.place_at(pushes))

    line("one evaluation, all curves, 2 load states, failures", timed(once, 200), "wanted: median 5 or less")
    line("the bare NumPy arithmetic of the same figures", timed(lambda: bare(pushes), 200), "beside it")
    line("a whole job's screen: 3 setups, judgements, mends tried", timed(lambda: job_view(job), 40), "")


def scrub() -> None:
    """The push scrubbed by keys and by pointer in Chromium, from the input event to the next paint."""
    with server() as url, chromium() as browser:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{url}/jobs/1/size")
        page.get_by_role("img", name="Force line").wait_for()
        page.evaluate(FRAMES)
        page.get_by_role("slider").first.focus()
        for _ in range(120):
            page.keyboard.press("ArrowRight")
            page.wait_for_timeout(25)
        line("scrub of the push by keys, event to paint", page.evaluate("window.frames_"), "wanted: p95 33 or less")
        page.evaluate("window.frames_ = []")
        track = page.locator(".track").bounding_box()
        assert track is not None
        page.mouse.move(track["x"] + 60, track["y"] + 20)
        page.mouse.down()
        for step in range(150):
            page.mouse.move(track["x"] + 60 + step * 2.5, track["y"] + 20)
            page.wait_for_timeout(17)
        page.mouse.up()
        line("scrub of the push by pointer, event to paint", page.evaluate("window.frames_"), "wanted: p95 33 or less")


SECTIONS = {"evaluate": evaluate, "scrub": scrub}


def main(names: list[str]) -> int:
    """Run the sections by name, all when none is named."""
    unknown = [n for n in names if n not in SECTIONS]
    if unknown:
        print(f"There is no {', '.join(unknown)}; there is: {', '.join(SECTIONS)}.", file=sys.stderr)
        return 2
    print(f"{platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}, NumPy {np.__version__}")
    for name in names or SECTIONS:
        SECTIONS[name]()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))

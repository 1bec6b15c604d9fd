"""What the machine takes for what people wait for: `./run bench [evaluate] [scrub] …`. Figures, never a pass or fail."""

import itertools
import os
import platform
import resource
import statistics
import sys
from collections.abc import Callable

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

from tests import bench_stages
from tests.bench_endurance import endurance
from tests.bench_lines import line, timed
from tests.bench_repeat import repeat
from tests.bench_server import beside, load, match, scrub, start, writers
from tests.cases import demo_job
from tests.mutation import report
from tests.power import cut


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


def stages() -> None:
    """Chances, and the pages of the work itself."""
    bench_stages.main()


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
    "endurance": endurance,  # 300 pages that listen, 5,000 evaluations, 50 searches: some minutes
    "power": lambda: print(cut(300)),  # kill -9 in mid-edit, about a quarter of an hour
    "mutation": lambda: report(60, seed=18),  # planted faults, and what no test notices: about twenty minutes
    "repeat": repeat,  # ten times the whole of the tests beside busy loops: hours
}
LONG = ("endurance", "power", "mutation", "repeat")  # only when it is named


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

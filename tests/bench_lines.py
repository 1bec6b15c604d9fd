"""How a measurement is taken and printed."""

import statistics
import time
from collections.abc import Callable

import numpy as np


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

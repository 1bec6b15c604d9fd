"""Wrong guesses, counted by who makes them: a few are free, then each makes that one wait longer, and nobody else."""

import time
from collections.abc import Callable
from dataclasses import dataclass

FREE_TRIES, LONGEST_WAIT_S = 3, 300.0
MOST_HOSTS = 1000  # that are remembered


@dataclass
class _Tries:
    """Wrong guesses of one host, and from when it may try again [s]."""

    wrong: int = 0
    again_at: float = 0.0


class Guesses:
    """Who guessed wrong how often."""

    def __init__(self, now: Callable[[], float] = time.monotonic) -> None:
        self._now = now
        self._tries: dict[str, _Tries] = {}

    def wait(self, host: str) -> bool:
        """Whether `host` has to wait before it may try again."""
        return self._now() < self._tries.get(host, _Tries()).again_at

    def wrong(self, host: str) -> int:
        """Count a wrong guess of `host`; how many that are."""
        tries = self._tries.get(host, _Tries())
        tries.wrong += 1
        if tries.wrong >= FREE_TRIES:
            tries.again_at = self._now() + min(LONGEST_WAIT_S, 2.0 ** (tries.wrong - FREE_TRIES + 1))
        if host not in self._tries and len(self._tries) >= MOST_HOSTS:
            self._tries.pop(next(iter(self._tries)))
        self._tries[host] = tries
        return tries.wrong

    def right(self, host: str) -> None:
        """Forget the wrong guesses of `host`."""
        self._tries.pop(host, None)

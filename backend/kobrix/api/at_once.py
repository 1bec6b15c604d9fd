"""So many writers at once, and whether others wait for their place."""

from threading import BoundedSemaphore, Lock


class AtOnce:
    """As many at once as there are `places`: one after the other they are done sooner than all beside each other."""

    def __init__(self, places: int) -> None:
        self._places, self._lock, self._waiting = BoundedSemaphore(places), Lock(), 0

    def __enter__(self) -> bool:
        """Take a place: whether it had to be waited for."""
        if self._places.acquire(blocking=False):
            return False
        with self._lock:
            self._waiting += 1
        self._places.acquire()
        with self._lock:
            self._waiting -= 1
        return True

    def __exit__(self, *_: object) -> None:
        self._places.release()

    @property
    def others_wait(self) -> bool:
        """Whether another waits for a place: storing comes before showing."""
        return self._waiting > 0

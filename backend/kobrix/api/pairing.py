"""Pairing: a phone in the same house is let in by a code that works once and for ten minutes, and keeps a cookie."""

import hashlib
import secrets
import time
from collections.abc import Callable, Mapping
from typing import Any, Literal

from kobrix.api.guesses import Guesses

COOKIE = "kobrix_pair"
_LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"  # none that is read for another
_LENGTH = 8
LASTS_S = 600.0

Why = Literal["wrong", "expired", "wait"]


def digest_of(token: str) -> bytes:
    """What is kept of a `token`."""
    return hashlib.sha256(token.encode()).digest()


class Pairing:
    """Who may come in from outside, through the one address `host` and `port`.

    A code works once, for ten minutes. Wrong ones are counted by the device that tries them, which then waits longer and longer; the right code
    works from every other. Tokens are kept as hashes, by `keep` over a restart.
    """

    def __init__(
        self, host: str, port: int, tell: Callable[[str], None], known: set[bytes] | None = None,
        keep: Callable[[str, bytes], None] = lambda _name, _digest: None, now: Callable[[], float] = time.monotonic,
    ) -> None:  # fmt: skip
        self.host, self.port = host, port
        self._tell, self._known, self._keep, self._now = tell, set(known or ()), keep, now
        self._guesses = Guesses(now)
        self._code, self._until = "", 0.0
        self.renew()

    @property
    def link(self) -> str:
        """The link that pairs one device."""
        return f"http://{self.host}:{self.port}/pair/{self._code}"

    def renew(self) -> str:
        """A new code; the one before no longer works. Its link."""
        self._code = "".join(secrets.choice(_LETTERS) for _ in range(_LENGTH))
        self._until = self._now() + LASTS_S
        self._tell(f"on a phone in this network, once, within ten minutes: {self.link}")
        return self.link

    def refusal(self, code: str, host: str) -> Why | None:
        """Why a `code` from the device at `host` does not let it in, None when it does; a wrong one is counted."""
        if self._guesses.wait(host):
            return "wait"
        if self._now() > self._until:
            self.renew()
            return "expired"
        if secrets.compare_digest(code.upper().encode("utf-8", "replace"), self._code.encode()):
            return None
        self._tell(f"a wrong code came from {host}, its {self._guesses.wrong(host)}. one")
        return "wrong"

    def pair(self, code: str, host: str, name: str) -> str | Why:
        """A token for the right `code`, which is then spent; why not for another."""
        why = self.refusal(code, host)
        if why is not None:
            return why
        token = secrets.token_urlsafe(32)
        self._known.add(digest_of(token))
        self._keep(name, digest_of(token))
        self._guesses.right(host)
        self._tell(f"paired: {name}, at {host}")
        self.renew()
        return token

    def serves(self, scope: Mapping[str, Any]) -> bool:
        """Whether a request came in through the one address that is open: the socket decides, not what the request says."""
        return (scope.get("server") or ("",))[0] == self.host

    def knows(self, token: str | None) -> bool:
        """Whether a `token` was given out, and not taken back."""
        return token is not None and digest_of(token) in self._known

    def forget(self, digest: bytes) -> None:
        """Let a device in no more."""
        self._known.discard(digest)

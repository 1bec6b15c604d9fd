"""Pairing: a phone in the same house is let in by a code that works once, and keeps a cookie."""

import hashlib
import secrets
from collections.abc import Callable

COOKIE = "kobrix_pair"
_LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"  # none that is read for another
_LENGTH, _TRIES = 8, 20


def _digest(token: str) -> bytes:
    return hashlib.sha256(token.encode()).digest()


class Pairing:
    """Who may come in from outside, through the one address `host` and `port`.

    A code works once; after too many wrong ones none works until the server is started again. Tokens are kept as digests.
    """

    def __init__(self, host: str, port: int, tell: Callable[[str], None]) -> None:
        self.host, self.port = host, port
        self._tell, self._known, self._wrong = tell, set[bytes](), 0
        self._code = ""
        self._renew()

    @property
    def link(self) -> str:
        """The link that pairs one device."""
        return f"http://{self.host}:{self.port}/pair/{self._code}"

    def _renew(self) -> None:
        self._code = "".join(secrets.choice(_LETTERS) for _ in range(_LENGTH))
        self._tell(self.link)

    def pair(self, code: str) -> str | None:
        """A token for the right `code`, which is then spent; None for a wrong one."""
        if self._wrong >= _TRIES:
            return None
        if not secrets.compare_digest(code.upper().encode(), self._code.encode()):
            self._wrong += 1
            return None
        token = secrets.token_urlsafe(32)
        self._known.add(_digest(token))
        self._renew()
        return token

    def knows(self, token: str | None) -> bool:
        """Whether a `token` was given out by this server."""
        return token is not None and _digest(token) in self._known

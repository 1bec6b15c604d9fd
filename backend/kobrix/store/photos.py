"""Photographs of a job, by the hash of their content."""

import hashlib
import sqlite3
from dataclasses import dataclass

from kobrix.core.errors import BadEntry, NotFound
from kobrix.store.connection import writing

LARGEST = 12_000_000  # bytes of one photograph
MOST = 200  # photographs of one job
_KINDS = ((b"\xff\xd8\xff", "image/jpeg"), (b"\x89PNG\r\n\x1a\n", "image/png"))


@dataclass(frozen=True)
class Photo:
    """A stored photograph."""

    media_type: str
    content: bytes


def kind_of(content: bytes) -> str | None:
    """Media type of a photograph by its first bytes, None when it is none that is taken."""
    if content[:4] == b"RIFF" and content[8:12] == b"WEBP":
        return "image/webp"
    return next((kind for start, kind in _KINDS if content.startswith(start)), None)


def add(db: sqlite3.Connection, job_id: int, content: bytes) -> str:
    """Keep a photograph of a job; its hash. Raises BadEntry for size, kind and number, NotFound for the job."""
    if not 0 < len(content) <= LARGEST:
        raise BadEntry("photograph", f"{len(content):,} bytes", f"1 to {LARGEST:,} bytes", "send a smaller one")
    kind = kind_of(content)
    if kind is None:
        raise BadEntry("photograph", "another kind of file", "a JPEG, PNG or WebP picture")
    digest = hashlib.sha256(content).hexdigest()
    with writing(db):
        if db.execute("SELECT 1 FROM jobs WHERE id = ?", (job_id,)).fetchone() is None:
            raise NotFound("job", str(job_id))
        if db.execute("SELECT count(*) FROM photos WHERE job_id = ?", (job_id,)).fetchone()[0] >= MOST:
            raise BadEntry("photograph", "one more", f"up to {MOST} of one job")
        db.execute(
            "INSERT OR IGNORE INTO photos (job_id, sha256, media_type, content) VALUES (?, ?, ?, ?)",
            (job_id, digest, kind, content),
        )
    return digest


def kept(db: sqlite3.Connection, job_id: int) -> set[str]:
    """Hashes of the photographs of a job."""
    return {row["sha256"] for row in db.execute("SELECT sha256 FROM photos WHERE job_id = ?", (job_id,))}


def get(db: sqlite3.Connection, job_id: int, sha256: str) -> Photo:
    """A photograph of a job by its hash. Raises NotFound."""
    row = db.execute("SELECT media_type, content FROM photos WHERE job_id = ? AND sha256 = ?", (job_id, sha256)).fetchone()
    if row is None:
        raise NotFound("photograph", sha256[:12])
    return Photo(row["media_type"], row["content"])

"""Devices that were paired, by the hash of their token."""

import sqlite3
from dataclasses import dataclass

from kobrix.core.errors import NotFound
from kobrix.store.connection import writing


@dataclass(frozen=True)
class Device:
    """A paired device: its number, what it is called, the hash of its token, when it was paired."""

    id: int
    name: str
    digest: bytes
    paired_at: str


def every(db: sqlite3.Connection) -> list[Device]:
    """The paired devices, the oldest first."""
    rows = db.execute("SELECT id, name, digest, paired_at FROM devices ORDER BY id").fetchall()
    return [Device(r["id"], r["name"], bytes(r["digest"]), r["paired_at"]) for r in rows]


def add(db: sqlite3.Connection, name: str, digest: bytes) -> None:
    """Keep a device."""
    with writing(db):
        db.execute("INSERT INTO devices (name, digest) VALUES (?, ?)", (name, digest))


def remove(db: sqlite3.Connection, device_id: int) -> None:
    """Let a device in no more. Raises NotFound."""
    with writing(db):
        if db.execute("DELETE FROM devices WHERE id = ?", (device_id,)).rowcount == 0:
            raise NotFound("device", str(device_id))

"""What holds for the whole database, by name."""

import sqlite3

from kobrix.store.connection import writing

PASSPHRASE = "passphrase"  # its hash


def get(db: sqlite3.Connection, name: str) -> str | None:
    """The setting by its name, None where it is not set."""
    row = db.execute("SELECT value FROM settings WHERE name = ?", (name,)).fetchone()
    return None if row is None else str(row["value"])


def put(db: sqlite3.Connection, name: str, value: str | None) -> None:
    """Set the setting by its name, or take it away."""
    with writing(db):
        if value is None:
            db.execute("DELETE FROM settings WHERE name = ?", (name,))
        else:
            db.execute(
                "INSERT INTO settings VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET value = excluded.value", (name, value)
            )

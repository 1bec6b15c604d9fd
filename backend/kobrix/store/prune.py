"""What is not kept for ever, by one rule, done at a start once the day's copy is there: what is thrown away stands in the copies for a month."""

import sqlite3
from dataclasses import dataclass

from kobrix.store.connection import writing

AWAY_DAYS = 30  # that a job which was put away is kept
STEPS = 1000  # that each job can be undone by; older ones stay done


@dataclass(frozen=True)
class Pruned:
    """How many jobs and how many steps were thrown away."""

    jobs: int
    steps: int


def prune(db: sqlite3.Connection) -> Pruned:
    """Throw away jobs that were put away more than 30 days ago, and each job's steps before its newest thousand."""
    with writing(db):
        gone = db.execute(
            "DELETE FROM jobs WHERE gone = 1 AND gone_at < strftime('%Y-%m-%dT%H:%M:%SZ', 'now', ?)", (f"-{AWAY_DAYS} days",)
        ).rowcount
        steps = db.execute(
            "DELETE FROM changes WHERE id IN (SELECT id FROM (SELECT id, row_number() OVER (PARTITION BY job_id ORDER BY id DESC) AS n"
            " FROM changes) WHERE n > ?)", (STEPS,)
        ).rowcount  # fmt: skip
    return Pruned(gone, steps)

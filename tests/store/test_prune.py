"""The rule of what is thrown away: a job put away for thirty days, and steps before the newest thousand of each."""

import unittest
from pathlib import Path
from tempfile import TemporaryDirectory

from kobrix.store import jobs
from kobrix.store.connection import open_db, prepare
from kobrix.store.prune import AWAY_DAYS, STEPS, Pruned, prune


class Prune(unittest.TestCase):
    def test_only_what_the_rule_says_goes(self) -> None:
        with TemporaryDirectory() as folder:
            path = Path(folder) / "a.sqlite3"
            prepare(path)
            with open_db(path) as db:
                ids = [jobs.add(db, {"name": name}).id for name in ("kept", "away now", "away long", "brought back")]
                for job in ids[1:]:
                    jobs.put_away(db, job, True)
                jobs.put_away(db, ids[3], False)
                self.assertEqual(prune(db), Pruned(0, 0))
                long_ago = f"strftime('%Y-%m-%dT%H:%M:%SZ', 'now', '-{AWAY_DAYS} days', '-1 minutes')"
                db.execute(f"UPDATE jobs SET gone_at = {long_ago} WHERE id IN (?, ?)", (ids[2], ids[0]))
                add = "INSERT INTO changes (job_id, label, edits, inverse) VALUES (?, ?, '[]', '[]')"
                db.executemany(add, [(ids[0], str(n)) for n in range(STEPS + 5)] + [(ids[1], "one")])
                self.assertEqual(prune(db), Pruned(1, 5))
                left = [row[0] for row in db.execute("SELECT label FROM changes WHERE job_id = ? ORDER BY id", (ids[0],))]
                self.assertEqual((len(left), left[0], left[-1]), (STEPS, "5", str(STEPS + 4)))
                self.assertEqual({row[0] for row in db.execute("SELECT name FROM jobs")}, {"kept", "away now", "brought back"})
                self.assertEqual(prune(db), Pruned(0, 0))


if __name__ == "__main__":
    unittest.main()

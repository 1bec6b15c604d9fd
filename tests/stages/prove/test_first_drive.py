"""The first drive: its steps by kind of vehicle, done by a record, and the stand test before it."""

import unittest

from kobrix.fileformat import files
from kobrix.fileformat.job import Job
from kobrix.stages.prove.first_drive import GATE, first_drive_of
from kobrix.store.records import Record

from tests.cases import demo_document, demo_job, every_layout


def record(kind: str, struck: str | None = None, **body: str) -> Record:
    """A record of plan A."""
    return Record(1, f"key-{kind}-1", kind, "2026-05-09T14:10:00Z", {"setup": "plan A", **body}, struck)


class FirstDriveTest(unittest.TestCase):
    def test_the_gate_is_the_signed_stand_test(self) -> None:
        job = demo_job()
        self.assertNotEqual(first_drive_of(job, "plan A", ())["gate"], "")
        self.assertEqual(first_drive_of(job, "plan A", (record("signed", step=GATE),))["gate"], "")
        self.assertNotEqual(first_drive_of(job, "plan A", (record("signed", "signed too soon", step=GATE),))["gate"], "")
        self.assertNotEqual(first_drive_of(job, "plan B", (record("signed", step=GATE),))["gate"], "")

    def test_a_step_is_done_by_its_record_until_it_is_struck(self) -> None:
        done = first_drive_of(demo_job(), "plan A", (record("driven", step="walk", by="Ilse Varn"),))
        walk = next(s for s in done["steps"] if s["id"] == "walk")
        self.assertEqual(
            (walk["key"], walk["by"], walk["at"], done["done"]), ("key-driven-1", "Ilse Varn", "2026-05-09T14:10:00Z", 1)
        )
        again = first_drive_of(demo_job(), "plan A", (record("driven", "driven again", step="walk"),))
        self.assertEqual((again["done"], {s["key"] for s in again["steps"]}), (0, {None}))

    def test_each_kind_of_vehicle_has_its_own_and_every_step_an_end(self) -> None:
        by_kind = {}
        for job in every_layout():
            drive = first_drive_of(job, job.names[0], ())
            ids = [s["id"] for s in drive["steps"]]
            self.assertEqual(len(ids), len(set(ids)))
            self.assertTrue(all(s["words"] and s["stop"] for s in drive["steps"]))
            self.assertLess(ids.index("walk"), ids.index("firm"))
            by_kind[job.vehicle.kind] = ids
        self.assertEqual(set(by_kind), {"car", "truck", "motorcycle", "aircraft"} & set(by_kind))
        self.assertIn("turn", by_kind["aircraft"])
        self.assertNotEqual(by_kind["motorcycle"], by_kind["car"])

    def test_steps_are_records_that_the_file_knows(self) -> None:
        document = demo_document()
        document["records"].append({"key": "driven-0001", "kind": "driven", "made_at": "2026-05-09T14:10:00Z",
                                    "body": {"setup": "plan A", "step": "walk"}})  # fmt: skip
        self.assertEqual(files.check(Job, document).records[-1].kind, "driven")


if __name__ == "__main__":
    unittest.main()

"""Edits by JSON Pointer: what each does, what is refused, and that its inverse gives the document back byte for byte."""

import copy
import json
import random
import unittest
from typing import Any

from kobrix.core.errors import BadEntry
from kobrix.fileformat import files, job_edits
from kobrix.fileformat.job import Job
from kobrix.fileformat.paths import insert_at, set_at, take_away
from kobrix.store.edits import apply, of_older, run, steps, value_at

from tests.cases import every_layout


class Edits(unittest.TestCase):
    document: dict[str, Any] = {"a": {"b": 1, "c": {}}, "l": [{"c": 2}, {"c": 3}, {"c": 4}], "z": None}

    def after(self, *edits: Any) -> Any:
        before = json.dumps(self.document)
        changed, forth, back = apply(self.document, list(edits))
        self.assertEqual(json.dumps(self.document), before, "the document itself is left alone")
        self.assertEqual(json.dumps(run(changed, back)), before)
        self.assertEqual(json.dumps(run(self.document, forth)), json.dumps(changed))
        return changed

    def test_what_each_edit_does(self) -> None:
        self.assertEqual(self.after(set_at("a.b", 5))["a"]["b"], 5)
        self.assertEqual(self.after(set_at("a.new.deep.er", 6))["a"]["new"], {"deep": {"er": 6}})
        self.assertEqual(self.after(set_at("l.1.c", None))["l"][1], {"c": None})
        self.assertEqual(self.after(take_away("a"))["l"], self.document["l"])
        self.assertEqual([x["c"] for x in self.after(take_away("l.1"))["l"]], [2, 4])
        self.assertEqual([x["c"] for x in self.after(insert_at("l.1", {"c": 9}))["l"]], [2, 9, 3, 4])
        self.assertEqual([x["c"] for x in self.after(insert_at("l.-", {"c": 9}))["l"]], [2, 3, 4, 9])
        self.assertEqual(self.after(insert_at("q.-", 1), insert_at("q.-", 2))["q"], [1, 2])  # the first makes the list
        self.assertEqual(self.after(insert_at("a.new.deep.-", 6))["a"]["new"], {"deep": [6]})
        moved = self.after({"op": "move", "path": "/l/0", "to": "/l/2"})
        self.assertEqual([x["c"] for x in moved["l"]], [3, 4, 2])
        self.assertEqual(self.after(set_at("tolerances", {"vehicle.mass_kg": "5 kg"}))["tolerances"], {"vehicle.mass_kg": "5 kg"})

    def test_what_is_not_there_is_taken_away_by_doing_nothing(self) -> None:
        for path in ("a.x", "q.r.s", "l.7"):
            changed, forth, back = apply(self.document, [take_away(path)])
            self.assertEqual((changed, forth, back), (self.document, [], []))

    def test_a_key_taken_from_the_middle_comes_back_to_its_place(self) -> None:
        self.after(take_away("a"), set_at("a", 1), take_away("l"))

    def test_a_place_that_leads_nowhere_is_refused(self) -> None:
        for edit in (
            set_at("l.7.c", 1), set_at("a.b.c", 1), set_at("l.x", 1), set_at("q.0", 1), insert_at("a.b", 1), insert_at("l.9", 1),
            insert_at("a.b.-", 1), insert_at("l.7.-", 1), insert_at("q.0.-", 1), insert_at("-", 1),
            {"op": "move", "path": "/l/0", "to": "/a/b"}, {"op": "move", "path": "/l/0", "to": "/l/3"}, {"op": "set", "path": "a"},
            {"op": "set", "path": ""}, {"op": "set", "path": "/" + "x/" * 80}, {"op": "set", "path": "/~2"}, set_at("l.²", 1),
        ):  # fmt: skip
            with self.subTest(edit=edit), self.assertRaises(BadEntry):
                apply(self.document, [edit])  # type: ignore[list-item]

    def test_names_with_slashes_and_tildes(self) -> None:
        self.assertEqual(steps("/a~1b/c~0d"), ["a/b", "c~d"])
        self.assertEqual(value_at({"a/b": {"c~d": 1}}, "/a~1b/c~0d"), (1, True))

    def test_steps_of_an_older_kobrix_are_read(self) -> None:
        kept = [{"path": "tolerances.[vehicle.mass_kg]", "value": "5 kg"}, {"path": "a.b"}]
        self.assertEqual(run(self.document, of_older(self.document, kept))["tolerances"], {"vehicle.mass_kg": "5 kg"})


def _places(value: Any, path: str = "") -> list[str]:
    own = [path] if path else []
    if isinstance(value, dict):
        return own + [p for k, v in value.items() for p in _places(v, f"{path}/{k}")]
    if isinstance(value, list):
        return own + [p for n, v in enumerate(value) for p in _places(v, f"{path}/{n}")]
    return own


NEW: tuple[tuple[str, Any], ...] = (
    ("booster", {"kind": "vacuum", "gain": 4}), ("booster/gain", 3), ("control/linkage/rod_mm", 120), ("control/free_play_mm", "2 mm"),
    ("stations/0/lines/air_cm3", 1), ("cylinder/spring_n", 5), ("stations/0/brake/friction/hot", 0.3),
)  # fmt: skip


class AtRandom(unittest.TestCase):
    def test_any_edits_of_any_layout_undone_give_it_back_byte_for_byte(self) -> None:
        for seed, job in enumerate(every_layout()):
            draw = random.Random(seed)
            document: Any = job.model_dump(exclude_unset=True)
            copied = apply(document, job_edits.copy_plan(document, "as found", "a copy"))[0]
            document = files.check(Job, copied).model_dump(exclude_unset=True)
            text, now, undone = json.dumps(document), copy.deepcopy(document), []
            for _ in range(60):
                edit = self.edit(draw, now)
                try:
                    after, _, back = apply(now, [edit])
                except BadEntry:
                    continue
                self.assertEqual(json.dumps(run(after, back)), json.dumps(now), edit)
                now = after
                undone.append(back)
            for back in reversed(undone):
                now = run(now, back)
            with self.subTest(job=job.name):
                self.assertGreater(len(undone), 20)
                self.assertEqual(json.dumps(now), text)

    def edit(self, draw: random.Random, document: Any) -> Any:
        path = draw.choice(_places(document))
        kind = draw.choice(("set", "set", "remove", "insert", "move", "new"))
        if kind == "new":
            below, value = draw.choice(NEW)
            return {"op": "set", "path": f"/as_found/systems/0/{below}", "value": value}
        if kind == "move":
            here = value_at(document, path.rpartition("/")[0])[0] if path.count("/") > 1 else None
            return {"op": "move", "path": path, "to": f"{path.rpartition('/')[0]}/{draw.randrange(max(1, len(here or [])))}"}
        return {
            "op": kind,
            "path": path,
            **({} if kind == "remove" else {"value": draw.choice((1, "2 mm", {}, [], {"a": {"b": 1}}))}),
        }


if __name__ == "__main__":
    unittest.main()

"""What a person sends of a change, as the edits that it is: typed text read, plans made, and what follows from it."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from kobrix.api.requests import ChangeIn, EditIn, PlanIn, RowIn, TryIn
from kobrix.core.errors import BadEntry, BadFile
from kobrix.fileformat import job_edits
from kobrix.fileformat.paths import Edit, JsonObject, below, dotted
from kobrix.fileformat.typed_input import typed_edit
from kobrix.store.edits import apply, value_at


@contextmanager
def named_by_their_fields(edits: list[EditIn], root: str = "") -> Iterator[None]:
    """What is refused of these edits is said without their place in the file: a person sees the field."""
    try:
        yield
    except BadFile as refused:
        places = tuple(f"{'.'.join(filter(None, [root, dotted(e.path)]))}: " for e in edits)
        told = [next((p.removeprefix(place) for place in places if p.startswith(place)), p) for p in refused.problems]
        raise BadFile(list(dict.fromkeys(told))) from None


def edit_of(edit: EditIn) -> Edit:
    """An edit as sent, its text read. Raises BadEntry."""
    if edit.text is not None:
        return typed_edit(edit.path, edit.text, edit.preferred)
    if edit.op == "set" and "value" not in edit.model_fields_set:
        return {"op": "remove", "path": edit.path}
    own: Edit = {"op": edit.op, "path": edit.path}
    if edit.op in ("set", "insert"):
        own["value"] = edit.value
    if edit.to is not None:
        own["to"] = edit.to
    return own


def _plan_edits(document: JsonObject, asked: PlanIn) -> list[Edit]:
    if asked.do == "copy":
        return job_edits.copy_plan(document, asked.name, asked.to or job_edits.free_name(document))
    if asked.do == "rename":
        if asked.to is None:
            raise BadEntry("to", "nothing", "the new name")
        return job_edits.rename_plan(document, asked.name, asked.to)
    if asked.do == "move":
        return job_edits.move_plan(document, asked.name, asked.at)
    return job_edits.remove_plan(document, asked.name)


def _after(document: JsonObject, edits: list[Edit]) -> JsonObject:
    return apply(document, edits)[0]


def own_edits(document: JsonObject, change: ChangeIn | TryIn) -> list[Edit]:
    """What was sent of a change on a job's `document`, at its places in the job. Raises BadEntry, NotFound."""
    own = [edit_of(e) for e in change.edits]
    placed = own if change.under is None else below(job_edits.root_of(document, change.under), own)
    return [
        edit if asked.row is None else _on_row(document, edit, asked.row)
        for asked, edit in zip(change.edits, placed, strict=True)
    ]


def _on_row(document: JsonObject, edit: Edit, row: RowIn) -> Edit:
    """The removal of the `row` that was meant, wherever it stands by now; of nothing where it is out already."""
    path, _, place = edit["path"].rpartition("/")
    rows, there = value_at(document, path)
    if edit["op"] != "remove" or not place.isdecimal() or not there or not isinstance(rows, list):
        return edit
    if len(rows) == row.of or (int(place) < len(rows) and rows[int(place)] == row.was):
        return edit
    return {**edit, "path": f"{path}/{rows.index(row.was) if row.was in rows else '-'}"}


def edits_of(document: JsonObject, change: ChangeIn | TryIn) -> list[Edit]:
    """The edits of a change on a job's `document`, with what follows from them. Raises BadEntry, NotFound."""
    found: list[Edit] = []
    plan = change.plan if isinstance(change, ChangeIn) else None
    if plan is not None:
        found += job_edits.with_entries(document, _plan_edits(document, plan), _after)
        document = _after(document, found)
    own = [edit for asked, edit in zip(change.edits, own_edits(document, change), strict=True) if asked.exact is None]
    sent = [asked for asked in change.edits if asked.exact is None]
    known = [
        (dotted(edit["path"]), asked.known is not False)
        for asked, edit in zip(sent, own, strict=True)
        # what is taken out of a list takes what is known of it along
        if edit["op"] == "set" or (edit["op"] == "remove" and not edit["path"].rpartition("/")[2].isdecimal())
    ]
    if isinstance(change, ChangeIn) and change.follow:
        own = job_edits.also_in_plans(document, own)
    own = job_edits.with_entries(document, own, _after)
    if any(job_edits.said_known(document, path, is_known) for path, is_known in known):
        document = _after(document, own)
        for path, is_known in known:
            more = job_edits.said_known(document, path, is_known)
            document = _after(document, more)
            own += more
    return [*found, *own, *_exactness(_after(document, own), change, [e["path"] for e in own])]


def _exactness(document: JsonObject, change: ChangeIn | TryIn, touched: list[str]) -> list[Edit]:
    """What a change says of entries being exact; one that gets a ±, or is assumed, is no longer."""
    root = "" if change.under is None else job_edits.root_of(document, change.under)
    asked = [(dotted(e.path), e.exact) for e in change.edits if e.exact is not None]
    said = [(path if not root or path.startswith("vehicle") else f"{root}.{path}", exact) for path, exact in asked]
    widths = [path.removeprefix("/tolerances/") for path in touched if path.startswith("/tolerances/")]
    listed: Any = document.get("assumed", [])
    said += [(path, False) for path in (*widths, *listed)]
    found: list[Edit] = []
    for path, exact in said:
        more = job_edits.said_exact(document, path, exact)
        document = _after(document, more) if more else document
        found += more
    return found

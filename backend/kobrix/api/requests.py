"""What the API takes for jobs as a whole."""

from typing import Annotated, Any, Literal

from pydantic import Field

from kobrix.fileformat.layouts import Layout
from kobrix.stages.common import Request

Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]


class RowIn(Request):
    """What stood in a list where a row is taken out, and how many rows `of` it there were, as the person saw it."""

    was: Any
    of: int = Field(ge=1, le=1_000_000)


class EditIn(Request):
    """An edit by JSON Pointer: what was typed (`text`, read on the server, a bare number in the `preferred` unit) or a `value` to
    `set` or `insert`; `to` where something is moved. Nothing typed takes the field away. `known`: whether the entry is said to be
    known from now on, or not to be; left out, what is typed or set is known. `exact`: whether it is said to be exact, or no longer. `row`: what a list's
    row that is removed was, by which it is found where the list has become another since: what waited, or was on its way."""

    op: Literal["set", "insert", "move", "remove"] = "set"
    path: str = Field(min_length=1, max_length=300)
    text: str | None = Field(None, max_length=2000)
    value: Any = None
    preferred: str | None = Field(None, max_length=10)
    to: str | None = Field(None, max_length=300)
    known: bool | None = None
    exact: bool | None = None
    row: RowIn | None = None


class PlanIn(Request):
    """What is done with a plan: a new one copied from the setup by `name`, called `to` (left out: the next free name); renamed
    `to`; put at the place `at`; taken out."""

    do: Literal["copy", "rename", "move", "remove"]
    name: Name
    to: Name | None = None
    at: int = Field(0, ge=0, le=100)


class ShowIn(Request):
    """The page that asks, whose answer comes back with the change, and the setup that it shows."""

    page: str = Field(max_length=20)
    setup: str | None = Field(None, max_length=80)


class ChangeIn(Request):
    """A step on revision `base`: something done with a `plan`, then `edits`. `under`: the setup whose places they name, the whole
    job when left out (a plan that is copied in this step may be named). `follow`: what is done as found is done in every plan that
    has the same there."""

    base: int = Field(ge=0, lt=2**63)
    label: str = Field("change", max_length=200)
    gesture: str | None = Field(None, max_length=60)
    plan: PlanIn | None = None
    under: str | None = Field(None, max_length=80)
    follow: bool = False
    edits: list[EditIn] = Field([], max_length=100)
    show: ShowIn | None = None


class TryIn(Request):
    """Edits tried on a setup without storing them, none for the setup as it is; `under` as in a change."""

    setup: str = Field(max_length=80)
    under: str | None = Field(None, max_length=80)
    edits: list[EditIn] = Field([], max_length=100)


class StepIn(Request):
    """Undo or redo on revision `base`."""

    base: int = Field(ge=0, lt=2**63)
    show: ShowIn | None = None


class NewJobIn(Request):
    """An empty job: its name and the vehicle's layout."""

    name: Name
    layout: Layout

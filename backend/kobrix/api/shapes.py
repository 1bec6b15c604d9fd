"""What the API gives of jobs as a whole."""

from typing import Literal

from typing_extensions import TypedDict

from kobrix.evaluate.sketch import Sketch
from kobrix.fileformat.paths import JsonObject
from kobrix.stages.common import Progress
from kobrix.stages.size.shapes import Card


class FileLook(TypedDict):
    """What is in a file before it is opened: its name and setups, how many records, stops and recordings; `twin`: a job on the wall
    has that name already, and stays."""

    kind: Literal["job", "setup"]
    name: str
    vehicle: str
    setups: list[str]
    records: int
    stops: int
    traces: int
    twin: bool


class JobLine(TypedDict):
    """A job in the list."""

    id: int
    name: str
    revision: int
    changed_at: str
    plans: list[str]


class JobOut(TypedDict):
    """A job as stored: its document, the names of its setups, what the next plan would be called, and the labels of the steps that
    undo takes back and redo makes again, null where there is none; `recorded`: the number of its last record."""

    id: int
    name: str
    revision: int
    changed_at: str
    undo: str | None
    redo: str | None
    setups: list[str]
    next_plan: str
    document: JsonObject
    recorded: int


class ExampleOut(TypedDict):
    """An invented vehicle that can be opened as a job."""

    key: str
    name: str
    sketch: Sketch


class CardOut(Card):
    """What the wall shows of a job."""

    sketch: Sketch


class StageOut(TypedDict):
    """A stage in the strip, and how it stands; without a path it is not built yet."""

    title: str
    path: str | None
    state: Progress | Literal["later"]
    words: str

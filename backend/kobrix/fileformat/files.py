"""Reading and writing the open files, and the sentences for a file that is not right."""

import copy
import json
from typing import Any, NoReturn, TypeVar, cast

from pydantic import BaseModel, ValidationError

from kobrix.core.errors import BadFile
from kobrix.fileformat import LARGEST_BYTES
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.models import Setup
from kobrix.fileformat.paths import JsonObject
from kobrix.fileformat.quantities import label_of

_FORMATS: dict[str, type[Setup] | type[Job]] = {"kobrix-setup": Setup, "kobrix-job": Job}
T = TypeVar("T", bound=BaseModel)
VERSION = 1


def _constant(name: str) -> NoReturn:
    raise BadFile([f"The file holds {name}, which is not a number; a file may hold finite numbers only."])


def parse_json(text: str | bytes) -> Any:
    """The value of a JSON `text`. Raises BadFile with the line of the mistake, for numbers that are none, and for size."""
    if len(text) > LARGEST_BYTES:
        raise BadFile([f"The file has {len(text):,} bytes; allowed are up to {LARGEST_BYTES:,}."])
    try:
        return json.loads(text, parse_constant=_constant)
    except UnicodeDecodeError:
        raise BadFile(["The file is not text in UTF-8."]) from None
    except json.JSONDecodeError as error:
        raise BadFile([f"Line {error.lineno}, column {error.colno}: {error.msg}. The file is not JSON."]) from None
    except RecursionError:
        raise BadFile(["The file is nested too deeply to be a setup or a job."]) from None


def _path(parts: tuple[int | str, ...]) -> str:
    kinds = {"single", "tandem", "disc", "drum", "metering", "proportioning", "limiting", "regulator", "load_sensing",
             "residual", "line_lock", "park_valve", "switch"}  # fmt: skip
    return ".".join(str(p) for p in parts if p not in kinds and "[" not in str(p))


def sentences(error: ValidationError) -> list[tuple[str, str]]:
    """(dotted path, sentence) of each thing that is wrong."""
    found: list[tuple[str, str]] = []
    for item in error.errors(include_url=False):
        context, path, kind = item.get("ctx", {}), _path(item["loc"]), item["type"]
        name = label_of(str(item["loc"][-1])) if item["loc"] else "the file"
        given = repr(item.get("input"))
        given = given if len(given) <= 60 else given[:57] + "..."
        if "sentence" in context:
            text = str(context["sentence"])
            path = ".".join(p for p in (path, str(context.get("field", ""))) if p)
        elif kind == "extra_forbidden":
            text = f"{name}: this name is not known here; allowed are the names of the format (kobrix schema prints them)."
        elif kind == "missing":
            text = f"{name}: it is missing and must be given."
        elif kind in ("literal_error", "union_tag_invalid"):
            allowed = context.get("expected") or context.get("expected_tags")
            text = f"{name}: {given if kind == 'literal_error' else repr(context.get('tag'))} was given; allowed is {allowed}."
        elif kind == "union_tag_not_found":
            text = f"{name}: its kind is missing and must be given."
        else:
            text = f"{name}: {given} was given; {item['msg'][0].lower()}{item['msg'][1:]}."
        found.append((path, text))
    return found


def check(model: type[T], value: Any) -> T:
    """`value` as a `model`. Raises BadFile with one sentence for each thing that is wrong, path first."""
    try:
        return model.model_validate(value)
    except ValidationError as error:
        raise BadFile([f"{path}: {text}" if path else text for path, text in sentences(error)[:20]]) from None


def read_file(value: Any) -> Setup | Job:
    """A setup or a job from a parsed file `value`, by its format and version. Raises BadFile."""
    if not isinstance(value, dict):
        raise BadFile(["The file must hold one object with a format, a version and a name."])
    form, version = value.get("format"), value.get("version")
    if not isinstance(form, str) or form not in _FORMATS:
        raise BadFile([f"format: {form!r} was given; allowed is {' or '.join(map(repr, _FORMATS))}."])
    if version != VERSION or isinstance(version, bool):
        raise BadFile([
            f"version: {version!r} was given; allowed is {VERSION}. A newer file needs a newer Kobrix; nothing was read."
        ])  # fmt: skip
    return check(_FORMATS[form], value)


def as_job(setup: Setup) -> Job:
    """A job whose state as found is `setup`, and whose plan A starts as its copy."""
    systems = [s.model_dump(exclude_unset=True) for s in setup.systems]
    document = {
        "format": "kobrix-job", "version": VERSION, "name": setup.name, "vehicle": setup.vehicle.model_dump(exclude_unset=True),
        "as_found": {"name": AS_FOUND, "systems": systems}, "plans": [{"name": "plan A", "systems": systems}],
    }  # fmt: skip
    return check(Job, document)


def tidied(document: JsonObject) -> JsonObject:
    """A job's `document` without the empty parents that an undo of an older Kobrix left where no job can have them."""
    found: Any = copy.deepcopy(document)
    for _ in range(40):
        try:
            Job.model_validate(found)
        except ValidationError as error:
            if not any(_take_empty(found, item["loc"]) for item in error.errors(include_url=False)):
                break
        else:
            break
    return cast(JsonObject, found)


def _take_empty(document: Any, place: tuple[int | str, ...]) -> bool:
    """Take out the deepest empty object on the way to a `place`; whether there was one."""
    here, empty = document, None
    for part in place:
        inside = (
            here.get(part) if isinstance(here, dict) else here[part] if isinstance(here, list) and isinstance(part, int) else None
        )
        if inside is None:
            continue  # the name of a kind, or a field that is missing
        if inside == {} and isinstance(here, dict):
            empty = here, part
        here = inside
    if empty is None:
        return False
    del empty[0][empty[1]]
    return True


def schema() -> JsonObject:
    """The JSON Schema of both files."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Kobrix setup or job",
        "oneOf": [Setup.model_json_schema(ref_template="#/oneOf/0/$defs/{model}"),
                  Job.model_json_schema(ref_template="#/oneOf/1/$defs/{model}")],
    }  # fmt: skip

"""The `kobrix` command: demo, start, serve, evaluate, ask, match, schema, import, export."""

import argparse
import json
import os
import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from kobrix import __version__
from kobrix.core.errors import BadFile, KobrixError


def _read(path: str) -> Any:
    from kobrix.fileformat import LARGEST_BYTES
    from kobrix.fileformat.files import parse_json

    try:
        file = Path(path)
        if file.is_file() and file.stat().st_size > LARGEST_BYTES:
            raise BadFile([f"{path} has {file.stat().st_size:,} bytes; allowed are up to {LARGEST_BYTES:,}."])
        return parse_json(sys.stdin.buffer.read() if path == "-" else file.read_bytes())
    except OSError as error:
        raise BadFile([f"{path} cannot be read: {error.strerror}."]) from None


def _write(document: Any) -> None:
    json.dump(document, sys.stdout, indent=1, ensure_ascii=False, allow_nan=False)
    sys.stdout.write("\n")


def _evaluate(args: argparse.Namespace) -> int:
    from kobrix.cli.table import shortcut, table
    from kobrix.cli.usual import usual_heat, usual_tolerance
    from kobrix.evaluate.findings import doubts_document, findings
    from kobrix.evaluate.gains import gains_document
    from kobrix.evaluate.questions import whole_document
    from kobrix.evaluate.solve import Answer, wanted_stop
    from kobrix.evaluate.uncertainty import bare, said_of
    from kobrix.fileformat import files
    from kobrix.fileformat.job import AS_FOUND, Job
    from kobrix.fileformat.questions import Questions, Trials

    document = _read(args.file)
    asked = document.pop("questions", {}) if isinstance(document, dict) else {}
    if args.questions is not None:
        asked = _read(args.questions)
    value = files.read_file(document)
    before, job, name = None, None, args.setup or AS_FOUND
    if isinstance(value, Job):
        job = value
        before = None if name == AS_FOUND else Answer(value.setup(AS_FOUND))
        value = value.setup(name)
    elif args.setup is not None:
        raise BadFile(["--setup chooses within a job; this file holds one setup."])
    questions = files.check(Questions, asked)
    if args.at_force:
        questions = questions.model_copy(update={"pedal_forces_n": [*questions.pedal_forces_n, *args.at_force]})
    if args.at_decel:
        questions = questions.model_copy(update={"wanted_decels_g": [*questions.wanted_decels_g, *args.at_decel]})
    asked = questions.model_dump(exclude_unset=True)
    if args.tolerance:
        asked["tolerance"] = usual_tolerance(value, asked.get("tolerance"))
    if args.heat:
        asked["heat"] = usual_heat(value, asked.get("heat"))
    questions = files.check(Questions, asked)
    answer = Answer(value, questions)
    result = whole_document(answer)
    trials = questions.trials or Trials()
    entered = bare(trials.usual_doubts)
    if job is not None:
        entered = said_of(job, name, trials.usual_doubts)
    result["findings"] = findings(answer, before, entered, trials.n, trials.seed)
    result["doubts"] = doubts_document(value, entered)
    result["trials"] = {"n": trials.n, "seed": trials.seed}
    stop = wanted_stop([a for a in (answer, before) if a is not None])
    if before is not None and stop is not None:
        gains = gains_document(answer, before, stop)
        if gains is not None:
            result["gains"] = gains
    if args.failures or args.tolerance or args.heat:
        print(shortcut(result, args.failures, args.tolerance, args.heat))
    elif args.table:
        print(table(result))
    else:
        _write(result)
    return 0


def _match(args: argparse.Namespace) -> int:
    from kobrix.cli.match import match

    document = _read(args.file)
    ask = _read(args.ask) if args.ask is not None else None
    print(match(document, ask, args.setup, args.csv, args.json))
    return 0


def _ask(args: argparse.Namespace) -> int:
    from kobrix.evaluate.ask.run import ask

    _write(ask(_read(args.file)))
    return 0


def _described() -> None:
    """Have the shapes of files and answers described: before they are made, which takes a while that a server can do without."""
    from kobrix.fileformat import DESCRIBED

    os.environ[DESCRIBED] = "1"


def _schema(args: argparse.Namespace) -> int:
    _described()
    from kobrix.fileformat.files import schema

    _write(schema())
    return 0


def _third_party(args: argparse.Namespace) -> int:
    from kobrix.cli.third_party import notices

    print(notices(), end="")
    return 0


def _openapi(args: argparse.Namespace) -> int:
    _described()
    from kobrix.api import errors
    from kobrix.api.app import create_app

    _write(errors.described(create_app(Path("unused")).openapi()))
    return 0


def _import(args: argparse.Namespace) -> int:
    from kobrix.fileformat import files
    from kobrix.fileformat.models import Setup
    from kobrix.store import whole
    from kobrix.store.connection import open_db, prepare

    value = files.read_file(_read(args.file))
    job = files.as_job(value) if isinstance(value, Setup) else value
    prepare(args.database)
    with open_db(args.database) as db:
        stored = whole.add(db, job)
    print(f"Job {stored.id}: {stored.name}")
    return 0


def _export(args: argparse.Namespace) -> int:
    from kobrix.store import whole
    from kobrix.store.connection import open_db, prepare

    prepare(args.database)
    with open_db(args.database) as db:
        document = whole.document(db, args.job)
    _write(document)
    return 0


def _backup(args: argparse.Namespace) -> int:
    from datetime import date

    from kobrix.store import backup

    file = args.file or args.database.parent / f"{args.database.stem}-{date.today().isoformat()}.sqlite3"
    backup.copy_to(args.database, file)
    print(f"Backed up: {file}")
    return 0


def _restore(args: argparse.Namespace) -> int:
    from kobrix.store import backup

    kept = backup.put_back(args.file, args.database)
    print(f"Restored: {args.database}" + (f"; what stood there is kept as {kept.name}" if kept is not None else ""))
    return 0


def _passphrase(args: argparse.Namespace) -> int:
    from getpass import getpass

    from kobrix.api.lock import hashed
    from kobrix.store import settings
    from kobrix.store.connection import open_db, prepare

    ask = getpass if sys.stdin.isatty() else lambda _: sys.stdin.readline().rstrip("\n")
    said = ask("Passphrase, nothing for none: ")
    if said and sys.stdin.isatty() and ask("Once more: ") != said:
        raise BadFile(["The two differ; nothing was changed."])
    kept = hashed(said) if said else None
    prepare(args.database)
    with open_db(args.database) as db:
        settings.put(db, settings.PASSPHRASE, kept)
    print("There is no passphrase." if kept is None else "The passphrase is set; it is asked for from the next start on.")
    return 0


def _serve(args: argparse.Namespace) -> int:
    from kobrix.cli.serve import serve

    return serve(args.database, args.port, args.demo, args.reload, args.lan)


def _home() -> Path:
    """Where a user's own data stand: XDG_DATA_HOME, else ~/.local/share (XDG Base Directory Specification)."""
    return Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share") / "kobrix"


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="kobrix", description="Match the parts of a vehicle's brakes.")
    parser.add_argument("--version", action="version", version=f"kobrix {__version__}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    evaluate = commands.add_parser("evaluate", help="answer questions about a setup or a job's plan")
    evaluate.add_argument("file", help="a setup or job file, - for standard input")
    evaluate.add_argument("--setup", metavar="NAME", help='which setup of a job: "as found" (default) or a plan\'s name')
    evaluate.add_argument("--questions", metavar="FILE", help="questions, in place of the file's own")
    evaluate.add_argument(
        "--at-force", metavar="N", action="append", type=str, help="figures at this pedal force; may be repeated"
    )
    evaluate.add_argument(
        "--at-decel", metavar="G", action="append", type=str, help="pedal force for this deceleration; may be repeated"
    )
    evaluate.add_argument("--failures", action="store_true", help="what each failure leaves, for people")
    evaluate.add_argument(
        "--tolerance", action="store_true", help="how sure the effort is, and what to measure better, for people"
    )
    evaluate.add_argument("--heat", action="store_true", help="rotor heat in a series of stops, for people")
    evaluate.add_argument("--table", action="store_true", help="a table for people instead of the result file")
    evaluate.set_defaults(run=_evaluate)

    ask = commands.add_parser("ask", help="answer a file of questions: fitting, building, bleeding, bedding, proving")
    ask.add_argument("file", help="a file of questions, - for standard input")
    ask.set_defaults(run=_ask)

    match = commands.add_parser("match", help="try every combination of what may change; the few worth buying")
    match.add_argument("file", help="a setup or job file, - for standard input")
    match.add_argument("--setup", metavar="NAME", help="the setup of a job it starts from, as found when left out")
    match.add_argument("--ask", metavar="FILE", help="what may change and what must hold; pin and standard bores when left out")
    match.add_argument("--csv", type=Path, metavar="FILE", help="write every setup that nothing beats as CSV")
    match.add_argument("--json", type=Path, metavar="FILE", help="write the whole result as JSON")
    match.set_defaults(run=_match)

    commands.add_parser("schema", help="print the JSON Schema of the files").set_defaults(run=_schema)
    commands.add_parser("third-party", help="print the packages the server runs on, with their licences").set_defaults(
        run=_third_party
    )
    commands.add_parser("openapi", help="print the OpenAPI document of the server").set_defaults(run=_openapi)

    store = commands.add_parser("import", help="store a file as a new job")
    store.add_argument("--database", type=Path, required=True)
    store.add_argument("file")
    store.set_defaults(run=_import)

    export = commands.add_parser("export", help="print a stored job as a file")
    export.add_argument("--database", type=Path, required=True)
    export.add_argument("job", type=int)
    export.set_defaults(run=_export)

    copy = commands.add_parser("backup", help="copy a database to one file, while it is in use")
    copy.add_argument("--database", type=Path, required=True)
    copy.add_argument("file", type=Path, nargs="?", help="beside the database, with the day in its name, when left out")
    copy.set_defaults(run=_backup)

    restore = commands.add_parser("restore", help="put a backup in place of a database; what stood there is kept")
    restore.add_argument("--database", type=Path, required=True)
    restore.add_argument("file", type=Path)
    restore.set_defaults(run=_restore)

    word = commands.add_parser("passphrase", help="set the passphrase that every browser says once, or none")
    word.add_argument("--database", type=Path, required=True)
    word.set_defaults(run=_passphrase)

    for name, words in (("demo", "start the server with the demo jobs"), ("start", "start the server with your own jobs")):
        own = commands.add_parser(name, help=f"{words}, in a database of your user's own")
        own.add_argument("--database", type=Path, default=_home() / ("demo.sqlite3" if name == "demo" else "kobrix.sqlite3"))
        own.add_argument("--port", type=int, default=8420)
        own.add_argument("--lan", nargs="?", const="auto", metavar="ADDRESS", help="let paired devices of this network in")
        own.set_defaults(run=_serve, demo=name == "demo", reload=False)

    serve = commands.add_parser("serve", help="start the server on this machine")
    serve.add_argument("--database", type=Path, required=True)
    serve.add_argument("--port", type=int, default=8420)
    serve.add_argument("--demo", action="store_true", help="fill a database that is created now with the demo jobs")
    serve.add_argument("--reload", action="store_true", help="start again when the code changes")
    serve.add_argument(
        "--lan", nargs="?", const="auto", metavar="ADDRESS",
        help="let paired devices of this network in, through one address of this machine (found when none is given)",
    )  # fmt: skip
    serve.set_defaults(run=_serve)
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    """Run the command; 0 when it did what was asked, 2 with a sentence on standard error when it could not."""
    args = _parser().parse_args(argv)
    try:
        code: int = args.run(args)
        return code
    except KobrixError as error:
        lines = error.problems if isinstance(error, BadFile) else [str(error)]
        print("\n".join(f"kobrix: {line}" for line in lines), file=sys.stderr)
        return 2
    except BrokenPipeError:
        sys.stderr.close()
        return 1

"""The one tree of errors.

KobrixError
├── BadEntry (ValueError)        a value that cannot be read or lies outside what is allowed
├── BadPlace (ValueError)        a question with a missing or wrong value, by its place
├── BadFile (ValueError)         a file whose shape or version is not known
│   └── Damaged                  a stored job that cannot be read as one
├── Impossible (ArithmeticError) a question that has no answer, with the reason
├── NotFound (LookupError)       a job, setup or change that is not there
└── Stale (RuntimeError)         an edit made on an older revision than the stored one

A message is a sentence for the person: the field, what was given, what is allowed, and why.
"""


class KobrixError(Exception):
    """Base of all errors that Kobrix raises on purpose."""


class BadEntry(KobrixError, ValueError):
    """A value that cannot be read, or lies outside what is allowed.

    Keeps `field` (dotted path or name), `given` (as text), `allowed` and `reason`.
    """

    def __init__(self, field: str, given: str, allowed: str, reason: str = "") -> None:
        self.field, self.given, self.allowed, self.reason = field, given, allowed, reason
        why = f" {reason[0].upper()}{reason[1:]}." if reason else ""
        super().__init__(f"{field}: {given} was given; allowed is {allowed}.{why}")


class BadFile(KobrixError, ValueError):
    """A file whose shape, format or version is not known; `problems` lists one sentence each."""

    def __init__(self, problems: list[str]) -> None:
        self.problems = problems
        super().__init__(" ".join(problems))


class Damaged(BadFile):
    """A stored job that cannot be read as one; it can be brought round."""


class Impossible(KobrixError, ArithmeticError):
    """A question that has no answer; `reason` says why."""

    def __init__(self, question: str, reason: str) -> None:
        self.question, self.reason = question, reason
        super().__init__(f"{question}: {reason}")


class NotFound(KobrixError, LookupError):
    """Something asked for by name or number that is not there."""

    def __init__(self, what: str, name: str, known: str = "") -> None:
        self.what, self.name = what, name
        super().__init__(f"There is no {what} {name!r}." + (f" There is: {known}." if known else ""))


class Stale(KobrixError, RuntimeError):
    """An edit made on an older revision; keeps both values of every field it touched."""

    def __init__(self, base: int, revision: int, both: list[dict[str, object]]) -> None:
        self.base, self.revision, self.both = base, revision, both
        super().__init__(
            f"This job was changed elsewhere: the edit was made on revision {base}, "
            f"stored is revision {revision}. Nothing was overwritten."
        )


class BadPlace(KobrixError, ValueError):
    """A question that cannot be answered as it stands; keeps the dotted `place` in it and the `reason`."""

    def __init__(self, place: str, reason: str) -> None:
        self.place, self.reason = place, reason
        super().__init__(f"{place}: {reason}")

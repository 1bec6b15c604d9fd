"""The packages that the server runs on, with their licences as they came."""

import re
from importlib.metadata import Distribution, PackageNotFoundError, distribution

ROOTS = ("fastapi", "uvicorn", "pydantic", "numpy", "scipy", "jsonpatch")
_TEXTS = re.compile(r"(^|/)(licen[cs]e|copying|notice)[^/]*$", re.IGNORECASE)


def _needed() -> list[Distribution]:
    """The roots and what they need in turn, by name; what only an extra needs is left out."""
    found: dict[str, Distribution] = {}
    waiting = list(ROOTS)
    while waiting:
        name = re.split(r"[^\w.-]", waiting.pop(), maxsplit=1)[0].lower().replace("_", "-")
        if name in found:
            continue
        try:
            found[name] = distribution(name)
        except PackageNotFoundError:  # one that this machine does not need
            continue
        waiting += [need for need in found[name].requires or [] if "extra ==" not in need]
    return [found[name] for name in sorted(found)]


def notices() -> str:
    """Every package with its version, its licence and the texts of it."""
    parts = []
    for own in _needed():
        named = own.metadata.json
        licence = str(named.get("license_expression") or named.get("license") or "see below")
        texts = [file.read_text().strip() for file in own.files or [] if _TEXTS.search(str(file))]
        head = f"{own.metadata['Name']} {own.version} ({licence.splitlines()[0]})"
        parts.append("\n\n".join([f"{'=' * 78}\n{head}\n{'=' * 78}", *texts]))
    return "\n\n".join(parts) + "\n"

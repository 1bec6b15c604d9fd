"""A result as a table for people."""

from collections.abc import Iterator, Mapping

from kobrix.core.physics.gains import LEAST_GAIN
from kobrix.evaluate.shapes import GainsResult, PathResult, Result


def _row(*cells: str) -> str:
    return f"  {cells[0]:<34}" + "".join(f"{c:>14}" for c in cells[1:])


def _figure(value: float | None, unit: str, digits: int) -> str:
    return "-" if value is None else f"{value:.{digits}f} {unit}"


def _failures(doc: PathResult) -> list[str]:
    """What each failure leaves: the best deceleration, at which force, and what ends the push."""
    return [
        _row(
            name.replace("_", " "), _figure(left["best_grip_decel_g"], "g", 3), _figure(left["pedal_force_n"], "N", 0),
            left["limited_by"].replace("_", " "),
        )
        for name, left in doc.get("failures", {}).items()
    ]  # fmt: skip


def _path(doc: PathResult) -> list[str]:
    lock, design = doc["lock_decel_g"], doc["design_stop"]
    lines = [
        _row("first lock", doc["first_lock"], _figure(lock, "g", 3), _figure(doc["lock_pedal_force_n"], "N", 0)),
        _row("grip limit", _figure(doc["grip_limit_g"], "g", 3)),
        _row("design stop", _figure(design["decel_g"], "g", 3), _figure(design["pedal_force_n"], "N", 0)),
    ]
    for name, system in design.get("systems", {}).items():
        force = _figure(system["control_force_n"], "N", 0)
        lines.append(_row(f"  {name}: travel, force", _figure(system.get("pedal_travel_mm"), "mm", 1), force))
    for moment in doc.get("at_pedal_force", []):
        lines.append(_row(f"at {moment['pedal_force_n']:.0f} N", _figure(moment["decel_g"], "g", 3)))
    for wanted in doc.get("pedal_force_for_decel", []):
        found = _figure(wanted["pedal_force_n"], "N", 1)
        lines.append(_row(f"for {wanted['decel_g']:g} g", found) + (f"  {wanted['reason']}" if "reason" in wanted else ""))
    return lines + _failures(doc)


def _answer(doc: Mapping[str, object], indent: str = "") -> list[str]:
    """An answer's figures, one a line; a null with its reason."""
    lines = []
    for name, value in doc.items():
        words = indent + (name if "." in name else name.replace("_", " "))
        if isinstance(value, dict):
            lines += [f"  {words}", *_answer(value, indent + "  ")]
        elif isinstance(value, list):
            lines.append(f"  {words:<34} " + " ".join(f"{v:.1f}" for v in value))
        elif isinstance(value, float):
            lines.append(_row(words, f"{value:.4g}"))
        elif value is not None:
            lines.append(f"  {words:<34} {value}")
    return lines


def _asked(result: Result) -> Iterator[tuple[str, Mapping[str, object]]]:
    """Every answer to a question besides, by its name."""
    for name, answer in result.get("answers", {}).items():
        if isinstance(answer, dict):
            yield name, answer


def _gains(doc: GainsResult) -> list[str]:
    """What each change bought, link by link, the setup as found at the same stop."""
    lines = ["", f"what each change bought at {doc['decel_g']:.2f} g, as found at the same stop"]
    for state, own in doc["load_states"].items():
        for path, gains in own["paths"].items():
            for side, bought in gains["same_stop"].items():
                told = ", ".join(f"{link} x {gain:.2f}" for link, gain in bought["links"].items() if abs(gain - 1.0) > LEAST_GAIN)
                lines.append(f"  {state}, {path}, {side}: {told or 'nothing'} = {bought['product']:.2f}")
    return lines


def _needs(result: Result) -> list[str]:
    needs = result.get("needs", {})
    told = (("decel", needs.get("decel")), ("travel", needs.get("travel")))
    return [line for answer, paths in told if paths for line in ("", f"{answer} still needs: {', '.join(paths)}")]


def table(result: Result) -> str:
    """The result document as lines of text."""
    lines = [result["name"], ""]
    for name, system in result.get("systems", {}).items():
        lines.append(_row(f"{name}: pedal ratio", f"{system['pedal_ratio']:.3f}"))
    for state, doc in result.get("load_states", {}).items():
        for path, answers in doc["paths"].items():
            lines += ["", f"{state}, {path}", *_path(answers)]
    lines += _needs(result)
    for question, answer in _asked(result):
        lines += ["", question.replace("_", " "), *_answer(answer)]
    if "gains" in result:
        lines += _gains(result["gains"])
    if result.get("unanswered"):
        lines += ["", f"not answered: {', '.join(result['unanswered'])}"]
    if result.get("findings"):
        lines.append("")
        lines += [f"{f['level'].upper():<8} {f['sentence']} {f['reason']}" for f in result["findings"]]
    lines += ["", "Estimates, to be proven by test. Makers' instructions, the law and inspection come first."]
    return "\n".join(lines)


def shortcut(result: Result, failures: bool, tolerance: bool, heat: bool) -> str:
    """Only what was asked for, as lines of text."""
    lines = [result["name"]]
    if failures:
        for state, doc in result.get("load_states", {}).items():
            for path, answers in doc["paths"].items():
                lines += ["", f"{state}, {path}: what each failure leaves", *_failures(answers)]
        lines.append("  wet: wet pads on the stated grip, not a wet road")
    for name, wanted in (("tolerance", tolerance), ("heat", heat)):
        if wanted:
            asked = result["questions"].get(name)
            given = asked.items() if isinstance(asked, dict) else ()
            settings = ", ".join(f"{k.replace('_', ' ')} {v}" for k, v in given if not isinstance(v, dict | list))
            lines += ["", f"{name} ({settings})", *_answer(dict(_asked(result)).get(name, {}))]
    lines += _needs(result)
    lines += ["", "Estimates, to be proven by test. Makers' instructions, the law and inspection come first."]
    return "\n".join(lines)

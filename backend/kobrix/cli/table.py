"""A result as a table for people."""

from typing import Any


def _row(*cells: str) -> str:
    return f"  {cells[0]:<34}" + "".join(f"{c:>14}" for c in cells[1:])


def _figure(value: float | None, unit: str, digits: int) -> str:
    return "-" if value is None else f"{value:.{digits}f} {unit}"


def _path(doc: dict[str, Any]) -> list[str]:
    lock, design = doc["lock_decel_g"], doc["design_stop"]
    lines = [
        _row("first lock", doc["first_lock"], _figure(lock, "g", 3), _figure(doc["lock_pedal_force_n"], "N", 0)),
        _row("grip limit", _figure(doc["grip_limit_g"], "g", 3)),
        _row("design stop", _figure(design["decel_g"], "g", 3), _figure(design["pedal_force_n"], "N", 0)),
    ]
    for system in design.get("systems", {}).values():
        if "pedal_travel_mm" in system:
            lines.append(_row("  pedal travel", _figure(system["pedal_travel_mm"], "mm", 1)))
    for moment in doc.get("at_pedal_force", []):
        lines.append(_row(f"at {moment['pedal_force_n']:.0f} N", _figure(moment["decel_g"], "g", 3)))
    for wanted in doc.get("pedal_force_for_decel", []):
        found = _figure(wanted["pedal_force_n"], "N", 1)
        lines.append(_row(f"for {wanted['decel_g']:g} g", found) + (f"  {wanted['reason']}" if "reason" in wanted else ""))
    for name, left in doc.get("failures", {}).items():
        ends = left["limited_by"].replace("_", " ")
        lines.append(
            _row(name.replace("_", " "), _figure(left["best_grip_decel_g"], "g", 3), _figure(left["pedal_force_n"], "N", 0), ends)
        )
    return lines


def table(result: dict[str, Any]) -> str:
    """The result document as lines of text."""
    lines = [result["name"], ""]
    for name, system in result.get("systems", {}).items():
        lines.append(_row(f"{name}: pedal ratio", f"{system['pedal_ratio']:.3f}"))
    for state, doc in result.get("load_states", {}).items():
        for path, answers in doc["paths"].items():
            lines += ["", f"{state}, {path}", *_path(answers)]
    for answer, paths in result.get("needs", {}).items():
        lines += ["", f"{answer} still needs: {', '.join(paths)}"]
    if result.get("unanswered"):
        lines += ["", f"not answered: {', '.join(result['unanswered'])}"]
    if result.get("findings"):
        lines.append("")
        lines += [f"{f['level'].upper():<8} {f['sentence']} {f['reason']}" for f in result["findings"]]
    lines += ["", "Estimates, to be proven by test. Makers' instructions, the law and inspection come first."]
    return "\n".join(lines)

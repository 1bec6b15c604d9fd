"""`kobrix match`: the search of the screen from the command line, as a table for people, CSV and JSON."""

import csv
import json
from pathlib import Path
from typing import Any

from kobrix.evaluate.shapes import Percentiles
from kobrix.fileformat import files
from kobrix.fileformat.job import AS_FOUND
from kobrix.fileformat.models import Setup
from kobrix.stages.match.request import Search, default_search
from kobrix.stages.match.service import search
from kobrix.stages.match.shapes import Found, Kept

_COLUMNS = ("push_n", "travel_mm", "travel_share", "grip_use", "left_g", "price")


def match(document: Any, asked: Any, setup: str | None, to_csv: Path | None, to_json: Path | None) -> str:
    """Search a parsed job or setup file, and the words to print. Raises KobrixError in words."""
    value = files.read_file(document)
    job = files.as_job(value) if isinstance(value, Setup) else value
    name = setup or AS_FOUND
    if asked is None:
        ask = default_search(job.setup(name), name, job.shelf)
    else:
        ask = files.check(Search, {**asked, "setup": setup or asked.get("setup", AS_FOUND)} if isinstance(asked, dict) else asked)
    found = search(job, ask)
    if to_json is not None:
        to_json.write_text(json.dumps(found, ensure_ascii=False, allow_nan=False, indent=1) + "\n", encoding="utf-8")
    if to_csv is not None:
        _write_csv(found, to_csv)
    return _table(found)


def _write_csv(found: Found, path: Path) -> None:
    parts = list(found["kept"][0]["words"]) if found["kept"] else []
    ends = ["push_p5_n", "push_p95_n", "travel_p5_mm", "travel_p95_mm", "margin_p5_g", "margin_p95_g"]
    with path.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow([*parts, *_COLUMNS, *ends, "reasons"])
        for row in found["kept"]:
            doubt = row["doubt"]
            spreads = [None] * 3 if doubt is None else [doubt["push_n"], doubt["travel_mm"], doubt["margin_g"]]
            figures = [row["push_n"], row["travel_mm"], row["travel_share"], row["grip_use"], row["left_g"], row["price"]]
            told = [figure for s in spreads for figure in (("", "") if s is None else (s["p5"], s["p95"]))]
            writer.writerow(
                [*(row["words"][p] for p in parts), *("" if f is None else f for f in figures), *told, "; ".join(row["reasons"])]
            )


def _spreads(row: Kept) -> list[tuple[Percentiles | None, str, int, str]]:
    doubt = row["doubt"]
    if doubt is None:
        return []
    return [
        (doubt["push_n"], "push", 0, "N"), (doubt["travel_mm"], "travel", 0, "mm"),
        (doubt["margin_g"], "rear locks after the front by", 2, "g"),
    ]  # fmt: skip


def _table(found: Found) -> str:
    lines = [f"{found['done']:,} combinations tried at {found['decel_g']:.2f} g: {found['meet']:,} meet every limit, "
             f"{found['not_beaten']:,} of them nothing beats"]  # fmt: skip
    if found["control"] is not None:
        lines.append(f'one control at a time: {found["control"]}, pressed alone; "control" in the question takes another')
    lines += [f"  {fall['count']:>9,}  {fall['words']} ({fall['only']:,} only for that)" for fall in found["fall"]]
    lines += [f"  {more['count']:,} more {more['words']}" for more in found["more"]]
    told = [row for row in found["kept"] if row["reasons"]]
    for n, row in enumerate(told, 1):
        price = "price not known" if row["price"] is None else f"{row['price']:.0f} more"
        made = ", ".join(f"{part} {words}" for part, words in row["words"].items())
        lines.append(f"{n}. {made}")
        if row["joint_chance"] is not None:
            lines.append(f"   holds every limit in {row['joint_chance'] * 100:.0f} % of plausible vehicles")
        lines.append(f"   {row['push_n']:.0f} N, {row['travel_mm']:.0f} mm, {row['grip_use'] * 100:.0f} % of the grip, "
                     f"{row['left_g']:.2f} g with a circuit lost, {price}")  # fmt: skip
        told_ends = [
            f"{words} {spread['p5']:.{digits}f} to {spread['p95']:.{digits}f} {unit}"
            for spread, words, digits, unit in _spreads(row)
            if spread is not None
        ]
        if told_ends:
            lines.append(f"   P5 to P95: {', '.join(told_ends)}")
        lines += [f"   - {reason}" for reason in row["reasons"]]
    if not told:
        lines.append("No setup meets all limits.")
        lines += [f"  nearest: {', '.join(m['words'].values())}: {m['said']}" for m in found["misses"]]
    return "\n".join(lines)

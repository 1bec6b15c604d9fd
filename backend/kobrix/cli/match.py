"""`kobrix match`: the search of the screen from the command line, as a table for people, CSV and JSON."""

import csv
import json
from pathlib import Path
from typing import Any

from kobrix.setup import files
from kobrix.setup.job import AS_FOUND
from kobrix.setup.model import Setup
from kobrix.setup.search import search
from kobrix.setup.search_ask import Search, default_search

Doc = dict[str, Any]
_SPREADS = (("push_n", "push", 0, "N"), ("travel_mm", "travel", 0, "mm"), ("margin_g", "rear locks after the front by", 2, "g"))
_COLUMNS = ("push_n", "travel_mm", "travel_share", "grip_use", "left_g", "price")


def match(document: Any, asked: Any, setup: str | None, to_csv: Path | None, to_json: Path | None) -> str:
    """Search a parsed job or setup file, and the words to print. Raises KobrixError in words."""
    value = files.read_file(document)
    job = files.as_job(value) if isinstance(value, Setup) else value
    name = setup or AS_FOUND
    if asked is None:
        ask = default_search(name, job.setup(name).model_dump(exclude_none=True, exclude_unset=True))
    else:
        ask = files.check(Search, {**asked, "setup": setup or asked.get("setup", AS_FOUND)} if isinstance(asked, dict) else asked)
    found = search(job, ask)
    if to_json is not None:
        to_json.write_text(json.dumps(found, ensure_ascii=False, allow_nan=False, indent=1) + "\n", encoding="utf-8")
    if to_csv is not None:
        _write_csv(found, to_csv)
    return _table(found)


def _write_csv(found: Doc, path: Path) -> None:
    parts = list(found["kept"][0]["words"]) if found["kept"] else []
    with path.open("w", encoding="utf-8", newline="") as file:
        writer = csv.writer(file)
        writer.writerow(
            [
                *parts,
                *_COLUMNS,
                "push_p5_n",
                "push_p95_n",
                "travel_p5_mm",
                "travel_p95_mm",
                "margin_p5_g",
                "margin_p95_g",
                "reasons",
            ]
        )
        for row in found["kept"]:
            doubt = row["doubt"] or {}
            ends = [(doubt.get(k) or {}).get(p, "") for k in ("push_n", "travel_mm", "margin_g") for p in ("p5", "p95")]
            figures = ["" if row[c] is None else row[c] for c in _COLUMNS]
            writer.writerow([*(row["words"][p] for p in parts), *figures, *ends, "; ".join(row["reasons"])])


def _table(found: Doc) -> str:
    lines = [f"{found['done']:,} combinations tried at {found['decel_g']:.2f} g: {found['meet']:,} meet every limit, "
             f"{found['not_beaten']:,} of them nothing beats"]  # fmt: skip
    lines += [f"  {fall['count']:>9,}  {fall['words']} ({fall['only']:,} only for that)" for fall in found["fall"]]
    lines += [f"  {more['count']:,} more {more['words']}" for more in found["more"]]
    told = [row for row in found["kept"] if row["reasons"]]
    for n, row in enumerate(told, 1):
        price = "price not known" if row["price"] is None else f"{row['price']:.0f} more"
        made = ", ".join(f"{part} {words}" for part, words in row["words"].items())
        lines.append(f"{n}. {made}")
        lines.append(f"   {row['push_n']:.0f} N, {row['travel_mm']:.0f} mm, {row['grip_use'] * 100:.0f} % of the grip, "
                     f"{row['left_g']:.2f} g with a circuit lost, {price}")  # fmt: skip
        spread = row["doubt"] or {}
        told_ends = [
            f"{words} {spread[key]['p5']:.{digits}f} to {spread[key]['p95']:.{digits}f} {unit}"
            for key, words, digits, unit in _SPREADS if spread.get(key) is not None
        ]  # fmt: skip
        if told_ends:
            lines.append(f"   P5 to P95: {', '.join(told_ends)}")
        lines += [f"   - {reason}" for reason in row["reasons"]]
    if not told:
        lines.append("No setup meets all limits.")
    return "\n".join(lines)

"""The cut list of the hard lines: what to cut, how it bends, and out of which lengths."""

import math
from typing import Any

from kobrix.core.errors import BadEntry, BadPlace
from kobrix.core.fit.tubes import LinesAnswer, TubeAnswer
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import TubeShape, Tubing
from kobrix.fileformat.models import Setup
from kobrix.fileformat.quantities import value_of
from kobrix.fileformat.tube_ways import way_parts
from kobrix.stages.fit import words
from kobrix.stages.fit.shapes import CutListView, PieceView, TubeView

USUAL_OUTER = 4.76  # mm, 3/16 in: common practice
ENDS = {"none": "cut square", **words.FAMILY}


def _outer_of(setup: Setup) -> float:
    for system in setup.systems:
        for station in system.stations:
            for line in station.lines.hard_lines if station.lines is not None else []:
                if line.outer_mm is not None:
                    return value_of(line.outer_mm, "outer_mm")
    return USUAL_OUTER


def _entered(tube: TubeShape, usual: float) -> dict[str, Any] | None:
    outer = usual if tube.outer_mm is None else value_of(tube.outer_mm, "outer_mm")
    if tube.way is None:
        return None
    return {
        "name": tube.name, "outer_mm": outer, "material": (tube.material or "steel").replace("_", "-"), "ends": [tube.start or "none", tube.end or "none"],
        "parts": way_parts(tube.way, outer),
    }  # fmt: skip


def _said(row: TubeAnswer) -> list[str]:
    found = []
    if row["tight_bends"]:
        places = ", ".join(str(n + 1) for n in row["tight_bends"])
        found.append(f"Bend {places} is tighter than three tube diameters: it kinks without a former.")
    found += [
        f"The {end} is flared and has less than 25 mm straight before it: no room for the tool." for end in row["short_ends"]
    ]
    return found


def _text(value: Any) -> str:
    return "" if value is None else f"{value:g} mm" if isinstance(value, int | float) else str(value)


def cutlist_of(setup: Setup, own: Tubing) -> CutListView:
    """The cut list of a plan's tubes."""
    usual = _outer_of(setup)
    tubes: list[TubeView] = []
    asked: list[dict[str, Any]] = []
    for n, tube in enumerate(own.tubes or []):
        view: TubeView = {
            "at": n, "name": tube.name, "outer": _text(tube.outer_mm), "usual_outer": f"{usual:g} mm", "material": tube.material or "steel", "start": tube.start or "none",
            "end": tube.end or "none", "way": tube.way or "", "cut_mm": None, "developed_mm": None, "tag": "", "bends": [], "notes": [], "refused": "",
        }  # fmt: skip
        tubes.append(view)
        try:
            question = _entered(tube, usual)
        except BadEntry as refused:
            view["refused"] = str(refused)
            continue
        if question is not None:
            asked.append(question)
            view["tag"] = str(len(asked) - 1)  # its place among what is asked, until the answer gives its words
    whole: LinesAnswer = {"tubes": [], "total_cut_mm": 0.0, "pieces": [], "unplaced": [], "total_left_mm": 0.0}
    why = ""
    if asked:
        stock = [{"length_mm": s.length_mm, "outer_mm": usual if s.outer_mm is None else s.outer_mm,
                  "material": (s.material or "steel").replace("_", "-"), **({} if s.count is None else {"count": s.count})} for s in own.stock or []]  # fmt: skip
        try:
            whole = ask_fit.lines(Asked({"tubes": asked, "stock": stock}))
        except BadPlace as error:
            why = error.reason
    for view in tubes:
        if view["tag"] == "" or why:
            view["tag"] = ""
            continue
        row = whole["tubes"][int(view["tag"])]
        view["cut_mm"], view["developed_mm"] = row["cut_mm"], row["developed_mm"]
        # The answer's own tag ends with the names of the ends; on a label they are words.
        view["tag"] = " | ".join([*row["tag"].split(" | ")[:-1], f"{ENDS[view['start']]} to {ENDS[view['end']]}"])
        view["bends"] = [f"{b['angle_deg']:g}° r {b['radius_mm']:g}" for b in row["bends"]]
        view["notes"] = _said(row)
    pieces: list[PieceView] = [
        {"stock": p["stock"] + 1, "lines": list(p["lines"]), "left_mm": p["left_mm"]} for p in whole["pieces"]
    ]
    return {
        "tubes": tubes, "total_cut_mm": math.ceil(whole["total_cut_mm"]), "pieces": pieces, "unplaced": list(whole["unplaced"]), "left_mm": whole["total_left_mm"],
        "stock": [{"at": n, "length": _text(s.length_mm), "count": s.count} for n, s in enumerate(own.stock or [])], "refused": why,
    }  # fmt: skip

"""Plates and brackets at full size: the holes judged by their edges and webs, and drawn for paper and for a cutter."""

from typing import Any

from kobrix.core.errors import BadPlace, NotFound
from kobrix.evaluate.ask import fit as ask_fit
from kobrix.exports.drawings import Circle, PlateDrawing
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.fit import PlateShape
from kobrix.stages.fit.shapes import PlateView, WebView

_NEEDED = {"circle": ("holes", "bolt_circle_mm"), "rectangle": ("width_mm", "height_mm"), "pair": ("spacing_mm",)}
_WORDS = {
    "holes": "how many holes", "bolt_circle_mm": "bolt circle", "width_mm": "width", "height_mm": "height", "spacing_mm": "spacing",
    "hole_mm": "hole", "old": "the pattern it is bolted to",
}  # fmt: skip


def _text(value: Any, unit: str = "mm") -> str:
    return "" if value is None else f"{value:g} {unit}" if isinstance(value, int | float) else str(value)


def _question(plate: PlateShape) -> dict[str, Any]:
    typed = plate.model_dump(exclude_none=True)
    asked: dict[str, Any] = {"old": typed.get("old", {}), "shift_mm": [typed.get("shift_x_mm", 0), typed.get("shift_y_mm", 0)]}
    if "new" in typed:
        asked["new"] = typed["new"]
    if "bore_mm" in typed:
        asked["bore"] = {"diameter_mm": typed["bore_mm"], "at": typed.get("bore_at", "new" if "new" in typed else "old")}
    for key in ("thickness_mm", "material"):
        if key in typed:
            asked[key] = typed[key]
    return asked


def _missing(plate: PlateShape) -> list[str]:
    if plate.old is None:
        return [_WORDS["old"]]
    found = []
    for side, pattern in (("old", plate.old), ("new", plate.new)):
        if pattern is not None:
            known = pattern.model_dump(exclude_none=True)
            found += [f"{_WORDS[k]} of the {side} pattern" for k in (*_NEEDED[pattern.kind], "hole_mm") if k not in known]
    return found


def _pattern(pattern: Any) -> dict[str, str]:
    if pattern is None:
        return {"kind": ""}
    typed = pattern.model_dump(exclude_none=True)
    shown = {k: _text(v, "°" if k == "turn_deg" else "mm") for k, v in typed.items() if k not in ("kind", "holes", "tapped")}
    return {
        "kind": pattern.kind,
        "holes": "" if pattern.holes is None else str(pattern.holes),
        "tapped": "yes" if pattern.tapped else "",
        **shown,
    }


def plate_view(at: int, plate: PlateShape) -> PlateView:
    """A plate as it stands: what is missing of it, or its holes, edges and webs."""
    view: PlateView = {
        "at": at, "path": f"fit.plates.{at}", "name": plate.name, "old": _pattern(plate.old), "new": _pattern(plate.new),
        "shift_x": _text(plate.shift_x_mm), "shift_y": _text(plate.shift_y_mm), "bore": _text(plate.bore_mm), "thickness": _text(plate.thickness_mm),
        "material": plate.material or "steel", "needs": _missing(plate), "refused": "", "holes": [], "webs": [], "extents_mm": [], "corner_mm": 0.0,
        "level": None, "sentence": "",
    }  # fmt: skip
    if view["needs"]:
        return view
    try:
        told = ask_fit.adapter(Asked(_question(plate)))
    except BadPlace as refused:
        view["refused"] = f"{refused.place}: {refused.reason}"
        return view
    view["extents_mm"], view["corner_mm"], view["level"] = told["extents_mm"], told["corner_mm"], told["level"]
    view["holes"] = [
        {"name": h["name"].replace("_", " "), "x_mm": h["x_mm"], "y_mm": h["y_mm"], "diameter_mm": h["diameter_mm"], "edge_mm": h["edge_mm"],
         "edge_needed_mm": h["edge_needed_mm"], "level": h["level"], "old": h["name"].startswith("old")}
        for h in told["holes"]
    ]  # fmt: skip
    webs: list[WebView] = [
        {
            "between": " and ".join(n.replace("_", " ") for n in w["between"]),
            "web_mm": w["web_mm"],
            "needed_mm": w["web_needed_mm"],
            "level": w["level"],
        }
        for w in told["webs_below"]
    ]
    view["webs"] = webs
    bad = [f"between {w['between']} {w['web_mm']:.1f} mm are left, {w['needed_mm']:.1f} mm wanted" for w in webs]
    bad += [
        f"{h['name']} lies {h['edge_mm']:.1f} mm from the edge, {h['edge_needed_mm']:.1f} mm wanted"
        for h in view["holes"]
        if h["level"] != "good"
    ]
    x0, y0, x1, y1 = told["extents_mm"]
    view["sentence"] = (
        f"{'; '.join(bad)}.".capitalize() if bad else f"{x1 - x0:.0f} x {y1 - y0:.0f} mm; every hole has its edge and its web."
    )
    return view


def drawing_of(plates: list[PlateShape], at: int) -> PlateDrawing:
    """The plate at a place of the list, to be drawn. Raises NotFound where there is none, or it is not complete."""
    if not 0 <= at < len(plates):
        raise NotFound("plate", str(at))
    view = plate_view(at, plates[at])
    if not view["holes"]:
        raise NotFound("drawing of the plate", view["name"], ", ".join(view["needs"]) or view["refused"])
    x0, y0, x1, y1 = view["extents_mm"]
    holes = tuple(Circle(h["name"], h["x_mm"], h["y_mm"], h["diameter_mm"], h["old"]) for h in view["holes"])
    thick = f"{view['thickness']} {view['material']}" if view["thickness"] else ""
    return PlateDrawing(view["name"], (x0, y0, x1, y1), view["corner_mm"], holes, tuple(filter(None, [thick])))
